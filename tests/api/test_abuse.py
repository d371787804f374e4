"""The site as it is run, behind nginx: others go on while an account and a stranger do their worst (a short form of
`make abuse`), and what nginx answers by itself."""

import http.client
import os
import signal
import socket
import time
from collections.abc import Callable, Iterator
from contextlib import ExitStack
from pathlib import Path

import pytest

from rillstep.document import Design
from tests.abuse.heavy_texts import gradable_text
from tests.abuse.load import worst
from tests.abuse.phases import hung_database
from tests.abuse.site import Site, Visitor, site
from tests.canaries import server_log

pytestmark = pytest.mark.xdist_group("site")


@pytest.fixture(scope="module")
def running() -> Iterator[Site]:
    with site(log=server_log(), RILLSTEP_DEADLINE_S="2") as found:
        yield found


@pytest.fixture
def visit(running: Site) -> Iterator[Callable[[int], Visitor]]:
    """Visitors by the last part of their address, which are closed at the end."""
    with ExitStack() as stack:
        yield lambda last: stack.enter_context(Visitor(running.port, f"127.0.0.{last}"))


Visit = Callable[[int], Visitor]


def test_others_go_on_while_an_account_and_a_stranger_do_their_worst(running: Site) -> None:
    seen = worst(running, 6, tabs=6)
    for what in ("health", "save", "work of a designer"):
        assert set(seen.statuses[what]) == {200}, (what, seen.statuses[what])
    heavy = {status for what, found in seen.statuses.items() if what.startswith("account") for status in found}
    assert heavy <= {200, 422, 429}
    assert set(seen.statuses["stranger"]) <= {0, 401, 405, 422, 429}  # 0: its own sockets were too many
    assert any(kind == "pool" for _, kind, _ in running.processes())


def test_long_work_ends_at_its_deadline_with_a_word(running: Site, visit: Visit) -> None:
    visitor = visit(21)
    visitor.sign_up("deadline@observing-night.example")
    document = Design(text=gradable_text(1).replace("150 sts", "151 sts")).model_dump(mode="json")
    answers = [visitor("POST", "/api/grading", {"document": {**document, "text": text}}) for text in (
        document["text"], gradable_text(2)
    )]  # fmt: skip
    for answer in answers:
        assert answer.seconds < 12
        if answer.status != 200:
            assert answer.status == 422 and answer.json["code"] == "too-heavy"
            assert "longer than 2 seconds and was stopped. Nothing was changed" in answer.json["title"]


def test_nginx_keeps_what_the_application_promises(running: Site, visit: Visit) -> None:
    visitor = visit(22)
    answer = visitor("GET", "/api/me")
    headers = {name.lower(): value for name, value in answer.headers}
    assert "max-age" in headers["strict-transport-security"]
    assert headers["set-cookie"].startswith("__Host-rillstep=") and "Secure" in headers["set-cookie"]
    visitor.csrf = answer.json["csrf"]
    too_large = visitor("POST", "/api/check", raw=b'{"text":"' + b"x" * 3_200_000 + b'"}')
    assert too_large.status == 413 and too_large.json["code"] == "too-large"
    for _ in range(5):  # what is refused before it is read is answered all the same
        unread = visitor("POST", "/api/check", raw=b'{"text":"' + b"x" * 2_900_000 + b'"}')
        assert unread.status == 401 and unread.json["code"] == "not-signed-in"
    plain = http.client.HTTPConnection("127.0.0.1", running.plain)
    plain.request("GET", "/designs/1", headers={"Host": "localhost"})
    moved = plain.getresponse()
    plain.close()
    assert moved.status == 301 and moved.getheader("Location") == "https://localhost/designs/1"


def test_the_address_is_the_clients_and_cannot_be_made_up(running: Site, visit: Visit) -> None:
    visitor = visit(23)
    statuses = []
    for turn in range(12):
        visitor.csrf = visitor("GET", "/api/me").json["csrf"]
        visitor.more = {"X-Forwarded-For": f"10.0.0.{turn}"}
        statuses.append(
            visitor("POST", "/api/sign-in", {"email": f"{turn}@observing-night.example", "password": "x"}).status
        )
    assert statuses == [401] * 10 + [429] * 2
    elsewhere = visit(24)
    elsewhere.csrf = elsewhere("GET", "/api/me").json["csrf"]
    assert elsewhere("POST", "/api/sign-in", {"email": "x@observing-night.example", "password": "x"}).status == 401


def test_half_requests_hold_nothing(running: Site, visit: Visit) -> None:
    held = [socket.create_connection(("127.0.0.1", running.port), source_address=("127.0.0.25", 0)) for _ in range(30)]
    try:
        assert visit(26)("GET", "/favicon.svg").status == 200
        assert visit(26)("GET", "/api/health").status == 200
    finally:
        for one in held:
            one.close()


def test_a_database_that_hangs_is_given_up_with_a_word_and_pages_are_still_served(running: Site) -> None:
    seen = hung_database(running, 5)
    assert set(seen.statuses["database hangs"]) == {503}
    assert set(seen.statuses["page while it hangs"]) == {200}
    assert set(seen.statuses["after it"]) == {200}


def _runs(pid: int) -> bool:
    """Whether a process is still there, and more than an entry that nobody has looked at: not every machine has a first
    process that does."""
    try:
        return Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    except OSError:
        return False


def test_processes_for_long_work_end_with_the_worker_that_is_killed(running: Site, visit: Visit) -> None:
    visitor, number = visit(28), 100
    visitor.sign_up("pools@observing-night.example")
    while not (pools := [pid for pid, kind, _ in running.processes() if kind == "pool"]):
        number += 1
        document = Design(text=gradable_text(number)).model_dump(mode="json")
        visitor("POST", "/api/grading", {"document": document})
    for pid, kind, _ in running.processes():
        if kind == "worker":
            os.kill(pid, signal.SIGKILL)
    until = time.monotonic() + 60
    while time.monotonic() < until and any(_runs(pid) for pid in pools):
        time.sleep(0.2)
    assert not [pid for pid in pools if _runs(pid)]
    assert visit(27)("GET", "/api/health").status == 200
