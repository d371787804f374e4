"""`make demo`: start the demo's own database, fill it, serve, and stop everything on Ctrl-C."""

import os
import secrets
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from contextlib import ExitStack
from datetime import datetime
from pathlib import Path

from rillstep.demo import data
from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.scale import SimulatedScale, on_socket
from rillstep.store.database import Database, migrate

_GUNICORN = Path(__file__).parents[2] / "deploy" / "gunicorn.conf.py"


def _secret(folder: Path) -> str:
    """The demo's secret, made at its first start, so that sessions and links outlive a restart."""
    path = folder / "secret"
    if not path.exists():
        path.write_text(secrets.token_hex(32))
        path.chmod(0o600)
    return path.read_text()


def serve(url: str, secret: str, port: int, log: Path | None = None, **more: str) -> "subprocess.Popen[bytes]":
    """gunicorn on 127.0.0.1; ready when it answers. log: where its messages go; more: other settings."""
    environment = {**os.environ, "RILLSTEP_DATABASE_URL": url, "RILLSTEP_SECRET": secret, **more}
    command = [
        sys.executable,
        "-m",
        "gunicorn",
        "-c",
        str(_GUNICORN),
        "--bind",
        f"127.0.0.1:{port}",
        "rillstep.web:create_app()",
    ]
    messages = log.open("ab") if log is not None else None
    server = subprocess.Popen(command, env=environment, start_new_session=True, stdout=messages, stderr=messages)
    if messages is not None:
        messages.close()  # the server has it open
    until = time.monotonic() + 60
    while time.monotonic() < until and server.poll() is None:
        try:
            with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=5):
                return server
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    server.kill()
    server.wait()
    raise RuntimeError("the server did not start; its messages are above")


def _stop_on_signal(*_: object) -> None:
    raise KeyboardInterrupt


def run(folder: Path, port: int, _now: datetime) -> int:
    """Run until Ctrl-C or SIGTERM. The data is kept in `folder`."""
    signal.signal(signal.SIGTERM, _stop_on_signal)
    own = OwnMariaDb(folder / "mariadb")
    server = None
    stack = ExitStack()
    try:
        given = os.environ.get("RILLSTEP_DATABASE_URL")
        if given is None:
            own.start()
        url = given or own.create_database("rillstep")
        migrate(url)
        secret = _secret(folder)
        with Database(url).unit_of_work() as session:
            data.fill(session, secret)
        port = _port(port)
        # A scale with a swatch on it, so that “weigh now” can be tried.
        scale = stack.enter_context(on_socket(SimulatedScale(load_g=12.4)))
        server = serve(url, secret, port, RILLSTEP_SCALE=os.environ.get("RILLSTEP_SCALE", scale))
        address = f"http://127.0.0.1:{port}"
        print(f"\nRillstep is running at {address}")
        print(f"  sign in as   {data.EMAIL}")
        print(f"  password     {data.PASSWORD}")
        print(f"  a tester's page, as on a phone:  {address}/t/{data.demo_token(secret, 'Bram')}")
        print("Press Ctrl-C to stop. The data is kept for the next start.\n", flush=True)
        return server.wait()
    except KeyboardInterrupt:
        print("\nStopping.", flush=True)
        return 0
    finally:
        signal.signal(signal.SIGTERM, signal.SIG_IGN)
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        if server is not None and server.poll() is None:
            server.terminate()
            server.wait(timeout=30)
        own.stop()
        stack.close()


def _port(wanted: int) -> int:
    """The wanted port if it is free, else any free one."""
    import socket

    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", wanted))
            return wanted
        except OSError:
            return free_port()
