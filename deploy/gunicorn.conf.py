"""How the application's processes run: gunicorn -c deploy/gunicorn.conf.py "rillstep.web:create_app()"

Long work runs in processes of its own beside these (RILLSTEP_HEAVY_WORKERS for each worker).
"""

import ctypes
import sys
from typing import Any

workers = 2
worker_class = "gthread"
# A request that waits for long work holds a thread, and a studio may have eight of all; the others stay for the rest.
threads = 24
# A worker that answers nothing for so long is ended.
timeout = 60
graceful_timeout = 30
# Workers are renewed, so that what they remember does not grow for ever.
max_requests = 4000
max_requests_jitter = 800
loglevel = "warning"

# Each thread has a store of free memory of its own, and many threads keep much of it; two stores are enough.
_M_ARENA_MAX = -8


def on_starting(_server: Any) -> None:
    """Bounds the stores of free memory, for all processes that begin from here."""
    ctypes.CDLL(None).mallopt(_M_ARENA_MAX, 2)


def post_fork(_server: Any, _worker: Any) -> None:
    """A thread that computes gives way to one that only answers after half a millisecond, not after five."""
    sys.setswitchinterval(0.0005)


def worker_exit(_server: Any, worker: Any) -> None:
    """Ends the processes for long work with the worker that they belong to."""
    lanes = getattr(worker.wsgi, "extensions", {}).get("rillstep_lanes")
    if lanes is not None:
        lanes.pool.stop()
