"""Computing for a request: what is short is done at once, what is long goes to the pool, and nobody has more than a
share of either.

What is kept is kept by its content, so that the next who asks for the same gets it at once.
"""

import hashlib
import pickle
import re
import secrets
import threading
import time
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVarTuple

from flask import current_app, request

from rillstep import __version__
from rillstep.core.watch import Ended, Watch, watched
from rillstep.services import jobs, results
from rillstep.services.errors import Busy
from rillstep.web.pool import Pool, made_bytes
from rillstep.web.session import studio_id, unit_of_work

# What computes for longer than so many seconds in a request goes to the pool, and the same of a studio goes there at
# once for a while after it, in seconds.
SHORT_S, LONG_FOR_S = 0.4, 60.0
# So many requests of one studio compute in a process of the application, one at a time; another waits so long.
MOST_WAITING, MOST_WAIT_S = 4, 6.0
# So many seconds a studio computes in requests of a process at once, and so much of each second it gets again; what is
# more goes to the pool, which gives way to the others.
MOST_AT_ONCE_S, SHARE = 4.0, 0.1
Arguments = TypeVarTuple("Arguments")
_NAME = re.compile(r"[A-Za-z0-9-]{8,64}")


class Computing:
    """The two ways of computing of one process of the application, and who is in them."""

    def __init__(self, pool: Pool) -> None:
        self.pool = pool
        self._here: Counter[int] = Counter()
        self._computing: set[int] = set()
        self._long: dict[tuple[int, str], float] = {}
        self._used: dict[int, tuple[float, float]] = {}
        self._free = threading.Condition()

    def is_long(self, owner: int, what: str) -> bool:
        """Whether this was too long for a request lately, or the studio has computed much in them."""
        with self._free:
            return time.monotonic() < self._long.get((owner, what), 0.0) or self._left_of(owner) <= 0

    def _left_of(self, owner: int) -> float:
        """The seconds that a studio may still compute in requests."""
        left, at = self._used.get(owner, (MOST_AT_ONCE_S, 0.0))
        return min(MOST_AT_ONCE_S, left + SHARE * (time.monotonic() - at))

    def _use(self, owner: int, seconds: float) -> None:
        now = time.monotonic()
        full_after = MOST_AT_ONCE_S / SHARE
        self._used = {one: used for one, used in self._used.items() if now - used[1] < full_after}
        self._used[owner] = self._left_of(owner) - seconds, now

    def was_long(self, owner: int, what: str) -> None:
        """Notes that this was too long for a request."""
        with self._free:
            now = time.monotonic()
            self._long = {key: until for key, until in self._long.items() if until > now}
            self._long[(owner, what)] = now + LONG_FOR_S

    @contextmanager
    def place(self, owner: int) -> Iterator[None]:
        """A place to compute in the request, one at a time for each studio. Raises Busy."""
        with self._free:
            if self._here[owner] >= MOST_WAITING:
                raise Busy("More is asked for at once than can be worked; wait a moment, then try again.")
            self._here[owner] += 1
            try:
                if not self._free.wait_for(lambda: owner not in self._computing, MOST_WAIT_S):
                    raise Busy("What you asked for before is still being worked; wait a moment, then try again.")
                self._computing.add(owner)
            except BaseException:
                self._left(owner)
                raise
        begun = time.thread_time()
        try:
            yield
        finally:
            with self._free:
                self._use(owner, time.thread_time() - begun)
                self._computing.discard(owner)
                self._left(owner)
                self._free.notify_all()

    def _left(self, owner: int) -> None:
        self._here[owner] -= 1
        if not self._here[owner]:
            del self._here[owner]


def computed(work: Callable[[*Arguments], Any], *args: *Arguments) -> bytes:
    """What some work makes, for the asker's studio. Raises Busy, TooHeavy, Stopped, what the work raises, and
    NotSignedIn."""
    return _made(studio_id(), work, args, long=False)


def computed_long(work: Callable[[*Arguments], Any], *args: *Arguments) -> bytes:
    """The same of work that is done in the pool at once, and whose result is not kept."""
    return _made(studio_id(), work, args, long=True)


def computed_and_kept(work: Callable[[*Arguments], Any], *args: *Arguments) -> bytes:
    """The same of work that is mostly long: as it was kept, or made in the pool and kept."""
    return kept_for(studio_id(), work, *args, long=True)


def kept_for(owner: int, work: Callable[[*Arguments], Any], *args: *Arguments, long: bool = False) -> bytes:
    """What some work makes of its content for a studio, as it was kept, or made anew and kept. Raises as `computed`."""
    key = hashlib.sha256(pickle.dumps((owner, __version__, work.__qualname__, args))).hexdigest()
    with unit_of_work() as session:
        kept = results.kept(session, key)
    if kept is not None:
        return kept
    made = _made(owner, work, args, long)
    with unit_of_work() as session:
        results.keep(session, key, made)
    return made


def _made(owner: int, work: Callable[..., Any], args: tuple[Any, ...], long: bool) -> bytes:
    computing: Computing = current_app.extensions["rillstep_lanes"]
    if not computing.pool.processes:  # no pool: all of it is done here
        return made_bytes(work(*args))
    if not long and not computing.is_long(owner, work.__qualname__):
        with computing.place(owner):
            try:
                # Its own computing counts, and not what others take of the machine meanwhile.
                with watched(Watch(time.thread_time() + SHORT_S, clock=time.thread_time)):
                    return made_bytes(work(*args))
            except Ended:
                computing.was_long(owner, work.__qualname__)
    return _in_pool(computing.pool, owner, work, args)


def job_name() -> str:
    """The name by which the asker follows this work; one that nobody knows where she gave none."""
    given = request.headers.get("X-Job", "")
    return given if _NAME.fullmatch(given) else secrets.token_hex(16)


def _in_pool(pool: Pool, owner: int, work: Callable[..., Any], args: tuple[Any, ...]) -> bytes:
    name = job_name()
    with unit_of_work() as session:
        jobs.begin(session, owner, name)

    def heard(stage: str, done: int, of: int) -> bool:
        with unit_of_work() as session:
            return jobs.note(session, owner, name, stage, done, of)

    try:
        return pool.run(heard, work, *args)
    finally:
        with unit_of_work() as session:
            jobs.end(session, owner, name)
