"""Work for the processes of the tests; it imports next to nothing, as each new process imports it anew."""

import os
import time


def sleeping(seconds: float) -> bytes:
    time.sleep(seconds)
    return b"slept"


def dying() -> bytes:
    os._exit(1)
