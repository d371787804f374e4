"""The whole site as it is run: MariaDB, the application's processes, and nginx with the supported configuration."""

import json
import os
import re
import shutil
import signal
import ssl
import subprocess
import tempfile
import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from http.client import HTTPException, HTTPSConnection
from pathlib import Path
from typing import Any

from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.run import serve
from rillstep.store.database import migrate

NGINX = Path(__file__).parents[2] / "deploy" / "nginx.conf"
SECRET = "a secret of the tests, and of no site"


@dataclass
class Site:
    """A running site. port: of HTTPS at 127.0.0.1, behind nginx; plain: of HTTP; behind: of the application itself."""

    port: int
    plain: int
    behind: int
    own: OwnMariaDb
    folder: Path
    environment: dict[str, str]
    server: "subprocess.Popen[bytes]"
    log: Path | None = None

    def restart(self) -> None:
        """Starts the application anew, after it was killed."""
        self.server = serve(self.own.url("rillstep"), SECRET, self.behind, self.log, **self.environment)

    def processes(self) -> list[tuple[int, str, int]]:
        """The application's processes: number, what it is (main, worker, pool), and its memory in bytes."""
        parents = {self.server.pid: ("main", self.server.pid)}
        found = [(self.server.pid, "main", _memory(self.server.pid))]
        for kind in ("worker", "pool", "pool"):
            for pid, parent in _parents():
                if parent in parents and pid not in parents:
                    of = "worker" if parents[parent][0] == "main" else "pool"
                    if of == kind:
                        parents[pid] = (of, parent)
                        found.append((pid, of, _memory(pid)))
        return found


def _parents() -> list[tuple[int, int]]:
    found = []
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                fields = (entry / "stat").read_text().rsplit(")", 1)[1].split()
            except OSError:
                continue
            found.append((int(entry.name), int(fields[1])))
    return found


def _memory(pid: int) -> int:
    try:
        return int((Path("/proc") / str(pid) / "statm").read_text().split()[1]) * os.sysconf("SC_PAGE_SIZE")
    except OSError:
        return 0


def nginx_config(folder: Path, port: int, plain: int, behind: int) -> Path:
    """The supported configuration, with this site's ports, paths and names."""
    text = NGINX.read_text()
    for old, new in (
        ("listen 443 ssl", f"listen 127.0.0.1:{port} ssl"),
        ("listen 80", f"listen 127.0.0.1:{plain}"),
        ("server 127.0.0.1:8700", f"server 127.0.0.1:{behind}"),
        ("server_name rillstep.example", "server_name localhost"),
        ("/etc/ssl/rillstep", str(folder)),
        ("/var/log/nginx", str(folder)),
    ):
        assert old in text, old
        text = text.replace(old, new)
    main = folder / "nginx.conf"
    temporary = "".join(
        f"{kind}_temp_path {folder}/{kind};\n" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
    )
    main.write_text(
        f"daemon off;\npid {folder}/nginx.pid;\nerror_log {folder}/start.log;\nworker_processes 1;\n"
        f"events {{ worker_connections 512; }}\nhttp {{\n{temporary}{text}}}\n"
    )
    return main


@contextmanager
def site(limits: bool = True, log: Path | None = None, **more: str) -> Iterator[Site]:
    """A site on free ports, with a database of its own; more: settings of the application."""
    folder = Path(tempfile.mkdtemp(prefix="rillstep-site-"))
    folder.chmod(0o755)
    own = OwnMariaDb(folder / "db")
    nginx = None
    found: Site | None = None
    try:
        own.start()
        url = own.create_database("rillstep")
        migrate(url)
        _certificate(folder)
        port, plain, behind = free_port(), free_port(), free_port()
        environment = {
            "RILLSTEP_HTTPS": "1", "RILLSTEP_PROXIES": "1", "RILLSTEP_RATE_LIMITS": "on" if limits else "off",
            **more,
        }  # fmt: skip
        found = Site(port, plain, behind, own, folder, environment, serve(url, SECRET, behind, log, **environment), log)
        config = nginx_config(folder, port, plain, behind)
        nginx = subprocess.Popen(["/usr/sbin/nginx", "-p", str(folder), "-c", str(config)], start_new_session=True)
        _until_it_answers(found)
        yield found
    finally:
        for process in (nginx, found.server if found else None):
            if process is not None and process.poll() is None:
                os.killpg(process.pid, signal.SIGTERM)
                process.wait(timeout=40)
        own.stop()
        shutil.rmtree(folder, ignore_errors=True)


def _certificate(folder: Path) -> None:
    command = (
        "openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -nodes -days 2 -subj /CN=localhost "
        f"-keyout {folder}/privkey.pem -out {folder}/fullchain.pem"
    )
    subprocess.run(command.split(), check=True, capture_output=True)


def _until_it_answers(found: Site) -> None:
    until = time.monotonic() + 20
    while time.monotonic() < until:
        try:
            with Visitor(found.port) as visitor:
                if visitor("GET", "/api/health").status == 200:
                    return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError((found.folder / "start.log").read_text())


@dataclass(frozen=True)
class Answer:
    """What came back, and after how long."""

    status: int
    content: bytes
    seconds: float
    headers: Sequence[tuple[str, str]] = ()

    @property
    def json(self) -> Any:
        return json.loads(self.content)


class Visitor:
    """A client of its own address that keeps its cookies and its connection."""

    def __init__(self, port: int, address: str = "127.0.0.1", timeout_s: float = 90.0) -> None:
        self.port, self.address, self.timeout_s = port, address, timeout_s
        self.cookies: dict[str, str] = {}
        self.csrf = ""
        self.more: dict[str, str] = {}
        self._connection: HTTPSConnection | None = None

    def __call__(self, method: str, path: str, body: object = None, raw: bytes | None = None) -> Answer:
        headers = {"Host": "localhost", "X-CSRF-Token": self.csrf, "Content-Type": "application/json", **self.more}
        if self.cookies:
            headers["Cookie"] = "; ".join(f"{name}={value}" for name, value in self.cookies.items())
        content = raw if raw is not None else json.dumps(body).encode() if body is not None else None
        begun = time.perf_counter()
        try:
            answer = self._ask(method, path, content, headers)
        except OSError:
            self.close()
            raise
        except HTTPException as error:  # the connection broke in the middle
            self.close()
            raise OSError(str(error)) from error
        seconds = time.perf_counter() - begun
        for name, value in answer.headers:
            if name.lower() == "set-cookie" and (found := re.match(r"([^=]+)=([^;]*)", value)):
                self.cookies[found[1]] = found[2]
        return Answer(answer.status, answer.content, seconds, answer.headers)

    def _ask(self, method: str, path: str, content: bytes | None, headers: dict[str, str]) -> Answer:
        if self._connection is None:
            context = ssl._create_unverified_context()
            self._connection = HTTPSConnection(
                "127.0.0.1", self.port, timeout=self.timeout_s, source_address=(self.address, 0), context=context
            )
        self._connection.request(method, path, content, headers)
        response = self._connection.getresponse()
        made = response.read()
        if response.will_close:
            self.close()
        return Answer(response.status, made, 0.0, response.getheaders())

    def close(self) -> None:
        if self._connection is not None:
            self._connection.close()
        self._connection = None

    def __enter__(self) -> "Visitor":
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def sign_up(self, email: str) -> None:
        """Makes an account and signs in."""
        self.csrf = self("GET", "/api/me").json["csrf"]
        answer = self("POST", "/api/sign-up", {"email": email, "password": "a long password", "studio": "Studio"})
        assert answer.status == 200, answer.content
        self.csrf = answer.json["csrf"]

    def sign_in(self, email: str) -> Answer:
        """Signs in."""
        self.csrf = self("GET", "/api/me").json["csrf"]
        answer = self("POST", "/api/sign-in", {"email": email, "password": "a long password"})
        if answer.status == 200:
            self.csrf = answer.json["csrf"]
        return answer
