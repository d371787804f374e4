"""`make kills`: python -m tests.abuse.kills [saves [kills]]. Eight clients save while processes are killed; then every
save that was acknowledged is looked for."""

import os
import random
import signal
import sys
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass, field

from rillstep.document import Design
from tests.abuse.heavy_texts import gradable_text, large_design
from tests.abuse.site import Site, Visitor, site

CLIENTS = 8


@dataclass
class Saver:
    """A client with a design of her own, and what was acknowledged of it: hook sizes by revision."""

    number: int
    visitor: Visitor
    design: int = 0
    base: int = 1
    acknowledged: dict[int, float] = field(default_factory=dict)

    @property
    def email(self) -> str:
        return f"saver-{self.number}@observing-night.example"


def save_on(saver: Saver, stop: threading.Event, wanted: int) -> None:
    """Saves again and again; after a failure from the revision that the server has."""
    document, turn = large_design(saver.number, 2, 300.0 + saver.number), 0
    while not stop.is_set() and len(saver.acknowledged) < wanted:
        turn += 1
        document["hook_mm"] = round(1 + turn / 1000, 3)
        body = {"base": saver.base, "document": document}
        try:
            answer = saver.visitor("PUT", f"/api/designs/{saver.design}", body)
            if answer.status == 200:
                saver.base = answer.json["revision"]
                saver.acknowledged[saver.base] = document["hook_mm"]
            elif answer.status == 409:  # it was kept, and the answer lost
                saver.base = answer.json["revision"]
            else:
                time.sleep(0.05)
        except (OSError, ValueError, KeyError):
            time.sleep(0.05)
    saver.visitor.close()


def grade_on(visitor: Visitor, stop: threading.Event) -> None:
    """Long work, so that there are processes of the pool to kill."""
    number = 0
    while not stop.is_set():
        number += 1
        document = Design(text=gradable_text(number)).model_dump(mode="json")
        with suppress(OSError):
            visitor("POST", "/api/grading", {"document": document})
        stop.wait(0.2)
    visitor.close()


def kill_one(running: Site, chosen: random.Random) -> str:
    """Kills something, and starts again what nobody else starts; returns what it was."""
    what = chosen.choice(("worker", "worker", "pool", "application", "database", "database"))
    if what == "database":
        running.own.kill()
        running.own.start()
    elif what == "application":
        os.killpg(running.server.pid, signal.SIGKILL)
        running.server.wait()
        running.restart()
    else:
        found = [pid for pid, kind, _ in running.processes() if kind == what]
        if not found:
            return "nothing"
        try:
            os.kill(chosen.choice(found), signal.SIGKILL)
        except ProcessLookupError:
            return "nothing"
    return what


def main(saves: int, kills: int) -> int:
    chosen, stop = random.Random(16), threading.Event()
    killed: dict[str, int] = {}
    with site(limits=False, RILLSTEP_LOG_LEVEL="CRITICAL") as running:
        savers = [Saver(number, Visitor(running.port, f"127.0.0.{10 + number}", 20.0)) for number in range(CLIENTS)]
        for saver in savers:
            saver.visitor.sign_up(saver.email)
            body = {"document": large_design(saver.number, 2, 300.0 + saver.number)}
            saver.design = saver.visitor("POST", "/api/designs", body).json["id"]
        grader = Visitor(running.port, "127.0.0.9", 20.0)
        grader.sign_up("grader@observing-night.example")
        with ThreadPoolExecutor(CLIENTS + 1) as threads:
            saving = [threads.submit(save_on, saver, stop, saves // CLIENTS) for saver in savers]
            threads.submit(grade_on, grader, stop)
            try:
                while sum(killed.values()) < kills:
                    time.sleep(chosen.uniform(0.3, 2.0))
                    what = kill_one(running, chosen)
                    if what != "nothing":
                        killed[what] = killed.get(what, 0) + 1
                for one in saving:
                    one.result(900)
            finally:
                stop.set()
        lost, mixed, checked = looked_for(running, savers)
        left = sum(kind == "pool" for _, kind, _ in running.processes())
    print(f"killed: {killed}; saves acknowledged and looked for: {checked}; lost: {lost}, mixed: {mixed}")
    print(f"processes of the pool at the end: {left}")
    return 0 if not lost and not mixed and checked >= saves // CLIENTS * CLIENTS else 1


def looked_for(running: Site, savers: list[Saver]) -> tuple[int, int, int]:
    """How many acknowledged saves are not there, how many hold something else, and how many there were."""
    lost = mixed = checked = 0
    for saver in savers:
        own = Visitor(running.port, f"127.0.0.{10 + saver.number}")
        assert own.sign_in(saver.email).status == 200
        for revision, hook_mm in saver.acknowledged.items():
            checked += 1
            answer = own("GET", f"/api/designs/{saver.design}/revisions/{revision}")
            while answer.status == 429:  # asked for too quickly
                time.sleep(0.5)
                answer = own("GET", f"/api/designs/{saver.design}/revisions/{revision}")
            if answer.status != 200:
                lost += 1
            elif (
                answer.json["document"]["hook_mm"] != hook_mm
                or answer.json["document"]["sizes"] != (large_design(saver.number, 2, 300.0 + saver.number)["sizes"])
            ):
                mixed += 1
        own.close()
    return lost, mixed, checked


if __name__ == "__main__":
    given = [int(one) for one in sys.argv[1:]]
    sys.exit(main(*(given + [5000, 60][len(given) :])))
