"""Processes for long work: it ends at a deadline or when it is stopped, and says how far it is.

They give way to the processes that answer requests, and are renewed after some work, so that what they remember does
not grow for ever.
"""

import gc
import os
import resource
import shutil
import tempfile
import threading
import time
from collections.abc import Callable
from concurrent.futures import TimeoutError as RanOut
from concurrent.futures import wait
from math import inf
from multiprocessing import get_context
from pathlib import Path
from typing import Any

from pebble import ProcessExpired, ProcessFuture, ProcessPool
from pydantic import BaseModel

from rillstep.core.watch import Ended, Watch, watched
from rillstep.services.errors import Stopped, TooHeavy

# So much work is done by a process before a new one takes its place.
RENEWED_AFTER = 60
# Memory of such a process, in bytes; what needs more is refused.
MOST_MEMORY = 1_500_000_000
# Trees hold no cycles, and what is kept of them makes each full collection long: there are few.
COLLECTED_AFTER = (100_000, 50, 100)
# How often the progress is written, and looked at, in seconds.
WRITTEN_EACH_S, LOOKED_AT_EACH_S = 0.2, 0.3
# What looks at its watch ends by itself; what does not is ended with its process, so much later.
_GRACE_S = 1.5
# Its deadline is of its own computing: beside others it may last so many times as long.
_BESIDE_OTHERS = 1.5
# It waits at most so long for a process that is free, in seconds.
_MOST_WAIT_S = 20.0

# Called with the stage, the parts done and of how many; its answer is whether to stop.
Heard = Callable[[str, int, int], bool]


class Pool:
    """The processes, begun when the first is asked for. deadline_s: when work is ended. gives_way: by so much they are
    nicer than others to the processor."""

    def __init__(self, processes: int, deadline_s: float, gives_way: int = 10) -> None:
        self.processes, self.deadline_s, self.gives_way = processes, deadline_s, gives_way
        self._pool: ProcessPool | None = None
        self._folder = Path()
        self._lock = threading.Lock()
        self._number = 0

    def run(self, heard: Heard, work: Callable[..., Any], *args: Any) -> bytes:
        """What some work makes. Raises TooHeavy, Stopped, and what the work itself raises."""
        pool, progress = self._begun()
        try:
            latest_s = _BESIDE_OTHERS * self.deadline_s + _GRACE_S
            future = pool.schedule(in_process, args=(progress, self.deadline_s, work, *args), timeout=latest_s)
            try:
                made: bytes = self._waited(future, heard, progress)
            finally:
                future.cancel()  # type: ignore[no-untyped-call]
        except (RanOut, Ended):
            raise TooHeavy(
                f"This took longer than {_seconds(self.deadline_s)} and was stopped. Nothing was changed, and what was "
                "found so far is kept for a while: go on, or work with fewer sizes at a time, or with a shorter text."
            ) from None
        except (ProcessExpired, MemoryError):
            raise TooHeavy("This was too much for one piece of work. Nothing was changed.") from None
        finally:
            progress.unlink(missing_ok=True)
            _stop_of(progress).unlink(missing_ok=True)
        return made

    def stop(self) -> None:
        """Ends the processes."""
        with self._lock:
            if self._pool is not None:
                self._pool.stop()  # type: ignore[no-untyped-call]
                self._pool.join()
                shutil.rmtree(self._folder, ignore_errors=True)
            self._pool = None

    def _waited(self, future: ProcessFuture[bytes], heard: Heard, progress: Path) -> bytes:
        latest = time.monotonic() + _BESIDE_OTHERS * self.deadline_s + _GRACE_S + _MOST_WAIT_S
        while True:
            try:
                return future.result(timeout=LOOKED_AT_EACH_S)
            except RanOut:
                if future.done():  # at the last moment, or at its own deadline
                    return future.result()
                if time.monotonic() > latest:
                    raise
            if heard(*_read(progress)):
                # It ends by itself where it can, and its process stays with what it found.
                _stop_of(progress).touch()
                wait([future], _GRACE_S)
                raise Stopped("This was stopped. Nothing was changed, and what was found so far is kept for a while.")

    def _begun(self) -> tuple[ProcessPool, Path]:
        with self._lock:
            if self._pool is None:
                context = get_context("spawn")  # a fork would share connections with the request
                self._folder = Path(tempfile.mkdtemp(prefix="rillstep-progress-"))
                self._pool = ProcessPool(
                    max_workers=self.processes, max_tasks=RENEWED_AFTER, context=context,
                    initializer=begin_process, initargs=[os.getpid(), self.gives_way],
                )  # fmt: skip
            self._number += 1
            return self._pool, self._folder / str(self._number)


def _seconds(many: float) -> str:
    return f"{many:g} second{'s' if many != 1 else ''}"


def _read(progress: Path) -> tuple[str, int, int]:
    try:
        stage, done, of = progress.read_text().split("\t")
    except (OSError, ValueError):
        return "", 0, 0
    return stage, int(done), int(of)


def _stop_of(progress: Path) -> Path:
    """The file that stands there when the work shall stop."""
    return progress.with_suffix(".stop")


def begin_process(parent: int, gives_way: int) -> None:
    """Sets up a process of the pool: it gives way, it has its share of memory, and it ends with its parent."""
    os.nice(gives_way)
    gc.set_threshold(*COLLECTED_AFTER)
    resource.setrlimit(resource.RLIMIT_DATA, (MOST_MEMORY, MOST_MEMORY))

    def end_with_parent() -> None:
        while os.getppid() == parent:
            time.sleep(1)
        os._exit(0)

    threading.Thread(target=end_with_parent, daemon=True).start()


def in_process(progress: Path, deadline_s: float, work: Callable[..., Any], *args: Any) -> bytes:
    """Does a piece of work in a process of the pool. Raises Ended at the deadline or when it shall stop, and what the
    work raises."""
    written = looked = 0.0
    begun, computed = time.monotonic(), time.process_time()

    def report(stage: str, done: int, of: int) -> None:
        nonlocal written
        if time.monotonic() > written + WRITTEN_EACH_S:
            written = time.monotonic()
            beside = progress.with_suffix(".new")
            beside.write_text(f"{stage}\t{done}\t{of}")
            beside.replace(progress)

    def used_s() -> float:
        nonlocal looked
        now = time.monotonic()
        if now > looked + WRITTEN_EACH_S:
            looked = now
            if _stop_of(progress).exists():
                return inf
        return max(time.process_time() - computed, (now - begun) / _BESIDE_OTHERS)

    with watched(Watch(deadline_s, report, used_s)):
        return made_bytes(work(*args))


def made_bytes(made: Any) -> bytes:
    """What some work made, as bytes: a model as its JSON, a text in UTF-8."""
    if isinstance(made, BaseModel):
        return made.model_dump_json().encode()
    return made.encode() if isinstance(made, str) else bytes(made)
