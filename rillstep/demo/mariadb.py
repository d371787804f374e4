"""The project's own MariaDB: data folder and socket in a folder of ours, on a free port of 127.0.0.1.

Never the system's instance. Used by the demo and by the tests.
"""

import os
import random
import shutil
import signal
import socket
import subprocess
import time
from dataclasses import dataclass
from pathlib import Path

import pymysql

_READY_SECONDS = 60.0


class MariaDbMissing(RuntimeError):
    """The server programs are not installed; `make setup` installs them."""


def free_port() -> int:
    """A port of 127.0.0.1 that is free now, and not one of those that connections are given by the system."""
    for port in random.SystemRandom().sample(range(18_000, 32_000), 200):
        with socket.socket() as probe:
            try:
                probe.bind(("127.0.0.1", port))
            except OSError:
                continue
            return port
    raise RuntimeError("No port is free.")


def _program(name: str) -> str:
    found = shutil.which(name) or shutil.which(name, path="/usr/sbin:/usr/local/sbin:/usr/bin")
    if found is None:
        raise MariaDbMissing(f"{name} is not installed; run “make setup” first")
    return found


@dataclass
class OwnMariaDb:
    """A server under `folder`. `start` and `stop` it; `kill` is for tests of crashes."""

    folder: Path
    port: int = 0
    process: "subprocess.Popen[bytes] | None" = None

    @property
    def socket_path(self) -> Path:
        return self.folder / "mariadb.sock"

    def url(self, database: str = "rillstep") -> str:
        """SQLAlchemy URL of one of its databases."""
        return f"mysql+pymysql://root@127.0.0.1:{self.port}/{database}"

    def start(self) -> None:
        """Make the data folder if there is none, start, and wait until it answers."""
        self.folder = self.folder.resolve()  # the server changes its working folder
        self.folder.mkdir(parents=True, exist_ok=True)
        self._end_leftover()
        data = self.folder / "data"
        as_root = ["--user=root"] if os.geteuid() == 0 else []
        # Two servers that share a folder for temporary tables remove each other's.
        scratch = self.folder / "tmp"
        scratch.mkdir(exist_ok=True)
        installed = self.folder / "installed"
        if not installed.exists():
            shutil.rmtree(data, ignore_errors=True)
            subprocess.run(
                [_program("mariadb-install-db"), "--no-defaults", f"--datadir={data}", f"--tmpdir={scratch}",
                 "--auth-root-authentication-method=normal", "--skip-test-db", *as_root],
                check=True, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
                env={**os.environ, "TMPDIR": str(scratch)},
            )  # fmt: skip
            installed.touch()  # only now: an installation that was cut off is made anew
        self.port = self.port or free_port()
        log = (self.folder / "mariadb.log").open("ab")
        self.process = subprocess.Popen(
            [_program("mariadbd"), "--no-defaults", f"--datadir={data}", f"--socket={self.socket_path}",
             f"--port={self.port}", "--bind-address=127.0.0.1", f"--pid-file={self.folder / 'mariadb.pid'}",
             f"--tmpdir={scratch}",
             "--character-set-server=utf8mb4", "--collation-server=utf8mb4_unicode_ci",
             "--sql-mode=STRICT_ALL_TABLES", "--max-connections=80", *as_root],
            stdout=log, stderr=log, start_new_session=True,
        )  # fmt: skip
        log.close()
        self._wait()

    def _end_leftover(self) -> None:
        """End a server that a killed run left behind on this data folder."""
        pid_file = self.folder / "mariadb.pid"
        if not pid_file.exists():
            return
        try:
            pid = int(pid_file.read_text())
            command = Path(f"/proc/{pid}/cmdline").read_bytes()
        except (ValueError, OSError):
            return
        if str(self.folder).encode() in command:
            os.kill(pid, signal.SIGTERM)
            for _ in range(200):
                if not Path(f"/proc/{pid}").exists():
                    return
                time.sleep(0.05)

    def _wait(self) -> None:
        until = time.monotonic() + _READY_SECONDS
        while time.monotonic() < until:
            if self.process is not None and self.process.poll() is not None:
                raise RuntimeError(f"MariaDB did not start; see {self.folder / 'mariadb.log'}")
            try:
                pymysql.connect(host="127.0.0.1", port=self.port, user="root").close()
                return
            except pymysql.err.OperationalError:
                time.sleep(0.05)
        raise RuntimeError("MariaDB did not answer in time")

    def create_database(self, name: str) -> str:
        """Make a database if it is not there; the answer is its URL."""
        connection = pymysql.connect(host="127.0.0.1", port=self.port, user="root", autocommit=True)
        try:
            with connection.cursor() as cursor:
                cursor.execute(f"CREATE DATABASE IF NOT EXISTS `{name}` CHARACTER SET utf8mb4")
        finally:
            connection.close()
        return self.url(name)

    def stop(self) -> None:
        """Shut down cleanly."""
        if self.process is not None:
            self.process.terminate()
            self.process.wait(timeout=60)
            self.process = None

    def kill(self) -> None:
        """SIGKILL, as a power cut would."""
        assert self.process is not None
        self.process.kill()
        self.process.wait(timeout=60)
        self.process = None
