"""Work for the processes of the tests; it imports next to nothing, as each new process imports it anew."""

import os
import time

from rillstep.core.watch import report


def sleeping(seconds: float) -> bytes:
    time.sleep(seconds)
    return b"slept"


def dying() -> bytes:
    os._exit(1)


def filling() -> bytes:
    return b"".join(bytes(100_000_000) for _ in range(100))


def counting(parts: object) -> bytes:
    """Counts, ten a second, and says so; returns the number of its process."""
    many = parts if isinstance(parts, int) else 1000
    for done in range(many):
        report("Counting", done, many)
        time.sleep(0.1)
    return str(os.getpid()).encode()
