"""The caller's watch over long work: when it shall end, and how far it is.

Whoever starts the work sets the watch, as a context; the work looks at it between its steps. Without one, work runs to
its end. What it looked at never changes an answer, only whether there is one.
"""

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from math import inf
from time import monotonic


class Ended(Exception):
    """The work was ended by its watch before it was done."""


@dataclass(frozen=True)
class Watch:
    """until_s: when the work ends, on its clock in seconds. report: called with a stage of the work, how many of its
    parts are done, and how many there are. clock: the time of day's, or that of the thread's own computing."""

    until_s: float = inf
    report: Callable[[str, int, int], None] | None = None
    clock: Callable[[], float] = monotonic


_SET: ContextVar[Watch | None] = ContextVar("watch", default=None)


@contextmanager
def watched(watch: Watch) -> Iterator[None]:
    """Sets the watch for what the caller does meanwhile in its own thread."""
    token = _SET.set(watch)
    try:
        yield
    finally:
        _SET.reset(token)


def look() -> None:
    """Looks at the watch. Raises Ended where the time is over."""
    watch = _SET.get()
    if watch is not None and watch.clock() > watch.until_s:
        raise Ended


def report(stage: str, done: int, of: int) -> None:
    """Says how far a stage of the work is, and looks at the watch. Raises Ended."""
    watch = _SET.get()
    if watch is not None and watch.report is not None:
        watch.report(stage, done, of)
    look()
