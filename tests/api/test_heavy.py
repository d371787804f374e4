"""Heavy work: in processes of its own, stopped at a deadline, shared out, and kept by its content."""

import threading
import time
from collections.abc import Iterator
from typing import Any

import pytest
from sqlalchemy import delete, func, select

from rillstep.document import TextDesign
from rillstep.services import grading, results
from rillstep.store import Result
from rillstep.web.heavy import MOST_OF_ONE, Busy, Heavy, TooHeavy
from tests.api.pool_work import dying, sleeping
from tests.conftest import Client
from tests.core.test_grading import PLAIN


@pytest.fixture(scope="module")
def pool() -> Iterator[Heavy]:
    heavy = Heavy(workers=1, deadline_s=1.5)
    heavy.run(0, sleeping, 0.0)  # the process is there
    yield heavy
    heavy.stop()


def test_work_is_stopped_at_its_deadline_and_the_next_is_done(pool: Heavy) -> None:
    begun = time.monotonic()
    with pytest.raises(TooHeavy, match=r"longer than 1\.5 seconds and was stopped\. Nothing was changed"):
        pool.run(1, sleeping, 60.0)
    assert time.monotonic() - begun < 10
    assert pool.run(1, sleeping, 0.0) == b"slept"
    with pytest.raises(TooHeavy, match="too much"):
        pool.run(1, dying)
    assert pool.run(1, sleeping, 0.0) == b"slept"


def test_nobody_has_more_than_a_share(pool: Heavy) -> None:
    def ask() -> None:
        with pytest.raises(TooHeavy):
            pool.run(7, sleeping, 60.0)

    threads = [threading.Thread(target=ask) for _ in range(MOST_OF_ONE)]
    for thread in threads:
        thread.start()
    time.sleep(0.3)
    with pytest.raises(Busy, match="Two long pieces of work of yours"):
        pool.run(7, sleeping, 0.0)
    for thread in threads:
        thread.join()
    assert pool.run(7, sleeping, 0.0) == b"slept"


def test_a_graded_text_is_kept_by_its_content(app: Any, designer: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    made: list[str] = []

    def counted(design: TextDesign) -> bytes:
        made.append(design.name)
        return grading.grading_view(design).model_dump_json().encode()

    counted.__qualname__ = "counted"
    monkeypatch.setattr(grading, "grading_json", counted)
    document = TextDesign(text=PLAIN).model_dump(mode="json")
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
