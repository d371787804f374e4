"""Heavy work in processes of its own: it ends at a deadline, nobody has more than a share of it, and what was made is
kept by its content.

A process is renewed after some work, so that what it remembers does not grow for ever.
"""

import hashlib
import pickle
import threading
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import TimeoutError as RanOut
from contextlib import contextmanager
from multiprocessing import get_context
from typing import Any

from flask import current_app
from pebble import ProcessExpired, ProcessPool

from rillstep import __version__
from rillstep.services import results
from rillstep.services.errors import Refused
from rillstep.web.session import studio_id, unit_of_work

# So much work is done by a process before a new one takes its place.
RENEWED_AFTER = 200
# So much work of one studio, and of all, may be under way or wait in a process of the application.
MOST_OF_ONE, MOST_OF_ALL = 2, 6


class TooHeavy(Refused):
    """It was stopped at its deadline."""

    status, code = 422, "too-heavy"


class Busy(Refused):
    """As much is under way already as there is room for."""

    status, code = 429, "busy"


class Heavy:
    """The processes for heavy work, begun when the first is asked for. workers: how many; with none it is done in the
    request itself. deadline_s: when it is stopped."""

    def __init__(self, workers: int, deadline_s: float) -> None:
        self.workers, self.deadline_s = workers, deadline_s
        self._pool: ProcessPool | None = None
        self._under_way: Counter[int] = Counter()
        self._lock = threading.Lock()

    def run(self, owner: int, work: Callable[..., bytes], *args: Any) -> bytes:
        """What some work makes. Raises TooHeavy, Busy, and what the work itself raises."""
        if not self.workers:
            return work(*args)
        with self._place(owner):
            future = self._begun().schedule(work, args=args, timeout=self.deadline_s)
            try:
                made: bytes = future.result()
            except RanOut:
                raise TooHeavy(
                    f"This took longer than {self.deadline_s:g} seconds and was stopped. Nothing was changed. Work "
                    "with fewer sizes at a time, or with a shorter text."
                ) from None
            except ProcessExpired:
                raise TooHeavy("This was too much for one piece of work. Nothing was changed.") from None
        return made

    def stop(self) -> None:
        """Ends the processes."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join()
            self._pool = None

    def _begun(self) -> ProcessPool:
        with self._lock:
            if self._pool is None:
                context = get_context("spawn")  # a fork would share connections with the request
                self._pool = ProcessPool(max_workers=self.workers, max_tasks=RENEWED_AFTER, context=context)
            return self._pool

    @contextmanager
    def _place(self, owner: int) -> Iterator[None]:
        with self._lock:
            if self._under_way[owner] >= MOST_OF_ONE:
                raise Busy("Two long pieces of work of yours are under way; wait until one of them is done.")
            if self._under_way.total() >= MOST_OF_ALL:
                raise Busy("Many long pieces of work are under way just now; try again in a moment.")
            self._under_way[owner] += 1
        try:
            yield
        finally:
            with self._lock:
                self._under_way[owner] -= 1


def heavy(work: Callable[..., bytes], *args: Any) -> bytes:
    """What some work makes of its content, for the asker's studio: as it was kept, or made anew and kept. Raises what
    `Heavy.run` raises, and NotSignedIn."""
    owner = studio_id()
    key = hashlib.sha256(pickle.dumps((owner, __version__, work.__qualname__, args))).hexdigest()
    with unit_of_work() as session:
        kept = results.kept(session, key)
    if kept is not None:
        return kept
    pool: Heavy = current_app.extensions["rillstep_heavy"]
    made = pool.run(owner, work, *args)
    with unit_of_work() as session:
        results.keep(session, key, made)
    return made
