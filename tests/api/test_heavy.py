"""Long work: in processes of its own, stopped at a deadline or when asked, shared out, and kept by its content."""

import threading
import time
from collections.abc import Iterator
from itertools import count
from typing import Any

import pytest
from sqlalchemy import delete, func, select

from rillstep.core.grading import analysed
from rillstep.core.memory import Memory
from rillstep.core.watch import Ended, Watch, look, watched
from rillstep.document import Design
from rillstep.services import grading, grading_views, jobs, results
from rillstep.services.errors import Busy, Stopped, TooHeavy
from rillstep.store import Job, Result
from rillstep.web import create_app
from rillstep.web.computing import MOST_WAITING, Computing
from rillstep.web.pool import Pool
from rillstep.web.settings import Settings
from tests.api.pool_work import counting, dying, filling, sleeping
from tests.conftest import Client
from tests.core.test_grading import PLAIN


def unheard(stage: str, done: int, of: int) -> bool:
    return False


@pytest.fixture(scope="module")
def pool() -> Iterator[Pool]:
    pool = Pool(processes=1, deadline_s=1.5, gives_way=0)  # beside other tests it would hardly begin
    pool.run(unheard, sleeping, 0.0)  # the process is there
    yield pool
    pool.stop()


def test_work_is_stopped_at_its_deadline_and_the_next_is_done(pool: Pool) -> None:
    begun = time.monotonic()
    with pytest.raises(TooHeavy, match=r"longer than 1\.5 seconds and was stopped\. Nothing was changed"):
        pool.run(unheard, sleeping, 60.0)
    assert time.monotonic() - begun < 10
    assert pool.run(unheard, sleeping, 0.0) == b"slept"
    with pytest.raises(TooHeavy, match="too much"):
        pool.run(unheard, dying)
    with pytest.raises(TooHeavy, match="too much"):
        pool.run(unheard, filling)
    assert pool.run(unheard, sleeping, 0.0) == b"slept"


def test_work_says_how_far_it_is_and_stops_when_asked(pool: Pool) -> None:
    heard: list[tuple[str, int, int]] = []

    def until_two(stage: str, done: int, of: int) -> bool:
        heard.append((stage, done, of))
        return done >= 2

    begun = time.monotonic()
    with pytest.raises(Stopped, match="Nothing was changed"):
        pool.run(until_two, counting, 100)
    assert time.monotonic() - begun < 5
    assert heard[-1][0] == "Counting" and heard[-1][2] == 100
    assert pool.run(unheard, sleeping, 0.0) == b"slept"


def test_work_that_looks_at_its_watch_ends_by_itself_and_its_process_stays(pool: Pool) -> None:
    first = pool.run(unheard, counting, 0)
    with pytest.raises(TooHeavy, match="longer than"):
        pool.run(unheard, counting, 1000)
    assert pool.run(unheard, counting, 0) == first  # the number of the process


def test_a_watch_ends_what_its_caller_does_and_nothing_else() -> None:
    look()
    with watched(Watch(time.monotonic() - 1)), pytest.raises(Ended):
        grading.grading_view(Design(text=PLAIN.replace("4 lamps", "7 lamps")))
    look()


def test_what_was_ended_goes_on_from_what_it_had_found() -> None:
    """Each try may look at its watch so often; without what the ones before had found none would come to an end."""
    looks = count()
    with Memory().in_use():
        whole = analysed(PLAIN)
    with Memory().in_use(), watched(Watch(clock=lambda: next(looks))):
        analysed(PLAIN)
    needed, tries, found = next(looks), 0, None
    with Memory().in_use():
        while found is None and tries < 20:
            tries, spent = tries + 1, count()
            try:
                with watched(Watch(needed / 3, clock=lambda spent=spent: next(spent))):  # type: ignore[misc]
                    found = analysed(PLAIN)
            except Ended:
                pass
    assert found is not None and 1 < tries < 10
    assert (found.ways, found.stuck) == (whole.ways, whole.stuck)


def test_work_that_is_stopped_ends_by_itself_and_its_process_stays(pool: Pool) -> None:
    first = pool.run(unheard, counting, 0)
    with pytest.raises(Stopped):
        pool.run(lambda stage, done, of: done >= 2, counting, 100)
    assert pool.run(unheard, counting, 0) == first


def test_a_studio_computes_one_thing_at_a_time_and_few_wait(pool: Pool) -> None:
    computing = Computing(pool)
    order: list[str] = []
    begun, done = threading.Event(), threading.Event()

    def first() -> None:
        with computing.place(1):
            begun.set()
            done.wait(5)
            order.append("first")

    def next_one() -> None:
        with computing.place(1):
            order.append("next")

    threads = [threading.Thread(target=first), *(threading.Thread(target=next_one) for _ in range(MOST_WAITING - 1))]
    threads[0].start()
    begun.wait(5)
    for thread in threads[1:]:
        thread.start()
    time.sleep(0.1)
    with pytest.raises(Busy, match="at once"), computing.place(1):
        pass
    with computing.place(2):  # another studio does not wait
        order.append("other")
    done.set()
    for thread in threads:
        thread.join()
    assert order == ["other", "first", *["next"] * (MOST_WAITING - 1)]
    with computing.place(1):
        pass


@pytest.fixture
def by_pool(database_url: str) -> Iterator[Any]:
    """An application with a process for long work."""
    app = create_app(
        Settings(database_url, "a secret of the tests, and of no site", rate_limits=False, heavy_workers=1)
    )
    yield app
    app.extensions["rillstep_lanes"].pool.stop()


def test_what_is_too_long_for_a_request_goes_to_the_pool_and_is_followed_and_stopped(
    by_pool: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    designer, other = Client(by_pool.test_client()), Client(by_pool.test_client())
    designer.sign_up()
    other.sign_up("Another studio")
    monkeypatch.setattr("rillstep.web.computing.SHORT_S", 0.0)
    text = "Rnd 1: 6 sc in ring. (6 sts)"
    assert designer.post("/api/check", {"text": text}).json["ok"]  # type: ignore[index]

    monkeypatch.setattr("rillstep.services.grading.grading_view", counting)
    answers = []

    def ask() -> None:
        client = Client(by_pool.test_client())
        client.client.set_cookie("rillstep", designer.client.get_cookie("rillstep").value)  # type: ignore[union-attr]
        client.csrf = client.get("/api/me").json["csrf"]  # type: ignore[index]
        document = Design(text=text).model_dump(mode="json")
        answers.append(client("POST", "/api/grading", {"document": document}, headers={"X-Job": "the-job-of-the-test"}))

    asking = threading.Thread(target=ask)
    asking.start()
    until = time.monotonic() + 10
    seen: dict[str, Any] = {}
    while time.monotonic() < until and not seen.get("done"):
        seen = designer.get("/api/jobs/the-job-of-the-test").json  # type: ignore[assignment]
        time.sleep(0.05)
    assert seen["under_way"] and seen["stage"] == "Counting" and seen["of"] == 1000
    assert other.get("/api/jobs/the-job-of-the-test").json == {"under_way": False, "stage": "", "done": 0, "of": 0}
    assert other("DELETE", "/api/jobs/the-job-of-the-test").status_code == 404
    assert designer("DELETE", "/api/jobs/the-job-of-the-test").status_code == 204
    asking.join(10)
    assert answers[0].status_code == 409 and answers[0].json["code"] == "stopped"
    assert not designer.get("/api/jobs/the-job-of-the-test").json["under_way"]  # type: ignore[index]
    assert designer.get("/api/jobs/x").status_code == 422


def test_no_studio_has_more_than_a_share_of_the_pool(app: Any, designer: Client, other: Client) -> None:
    database = app.extensions["rillstep_database"]
    with database.unit_of_work() as work:
        work.execute(delete(Job))
        ours, theirs = work.execute(select(jobs.Job.studio_id)).scalars().all() or (None, None)
    assert ours is theirs is None
    studios = studio_ids(app, designer, other)
    with database.unit_of_work() as work:
        for number in range(jobs.MOST_OF_ONE):
            jobs.begin(work, studios[0], f"job-{number}")
        with pytest.raises(Busy, match="Two long pieces"):
            jobs.begin(work, studios[0], "one-more")
        jobs.begin(work, studios[1], "job-0")
        with pytest.raises(Busy, match="already"):
            jobs.begin(work, studios[1], "job-0")


def studio_ids(app: Any, *clients: Client) -> list[int]:
    with app.extensions["rillstep_database"].unit_of_work() as work:
        from rillstep.store import Designer

        return [
            work.scalar(select(Designer.studio_id).where(Designer.email == client.get("/api/me").json["email"]))
            for client in clients
        ]


def test_a_graded_text_is_kept_by_its_content(app: Any, designer: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    made: list[str] = []
    really = grading.grading_view

    def counted(design: Design) -> grading_views.GradingView:
        made.append(design.name)
        return really(design)

    counted.__qualname__ = "counted"
    monkeypatch.setattr(grading, "grading_view", counted)
    document = Design(text=PLAIN).model_dump(mode="json")
    first = designer.post("/api/grading", {"document": document})
    assert first.status_code == 200 and len(first.json["ways"]) == 3  # type: ignore[index]
    assert designer.post("/api/grading", {"document": document}).json == first.json
    assert len(made) == 1
    document["text"] = document["text"].replace("4 lamps", "5 lamps")
    assert designer.post("/api/grading", {"document": document}).status_code == 200
    other = Client(app.test_client())
    other.sign_up("Another studio")
    assert other.post("/api/grading", {"document": document}).status_code == 200
    assert len(made) == 3  # another studio never gets what was made for this one


def test_what_is_kept_is_bounded(app: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(results, "MOST_BYTES", 1000)
    monkeypatch.setattr(results, "MOST_BYTES_OF_ONE", 400)
    database = app.extensions["rillstep_database"]
    with database.unit_of_work() as work:
        work.execute(delete(Result))
    for number in range(9):
        with database.unit_of_work() as work:
            results.keep(work, f"{number:064}", b"x" * 300)
            results.keep(work, f"{number:064}", b"y")  # the same again changes nothing
    with database.unit_of_work() as work:
        assert work.scalar(select(func.sum(Result.size))) <= 1000
        assert results.kept(work, f"{8:064}") == b"x" * 300
        results.keep(work, "z" * 64, b"x" * 401)
        assert results.kept(work, "z" * 64) is None
