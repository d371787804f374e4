"""Killing the app and the database with SIGKILL in the middle of saves loses no acknowledged save."""

import json
import os
import signal
import tempfile
import threading
import time
import urllib.request
from http.client import HTTPException
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from rillstep.demo.data import nightfield
from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.run import serve
from rillstep.store.database import migrate
from tests.canaries import server_log
from tests.conftest import as_json


class Remote:
    """A client over real HTTP."""

    def __init__(self, address: str) -> None:
        self.address, self.csrf = address, ""
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))

    def __call__(self, method: str, path: str, body: object = None) -> Any:
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "X-CSRF-Token": self.csrf}
        request = urllib.request.Request(self.address + path, data, headers, method=method)
        with self.opener.open(request, timeout=20) as answer:
            found = json.loads(answer.read())
        if isinstance(found, dict) and "csrf" in found:
            self.csrf = found["csrf"]
        return found


def test_sigkill_in_the_middle_of_saves_loses_nothing() -> None:
    with tempfile.TemporaryDirectory(prefix="rillstep-crash-") as folder:
        own = OwnMariaDb(Path(folder))
        own.start()
        url = own.create_database("rillstep")
        migrate(url)
        port = free_port()
        server = serve(url, "a secret of the tests, and of no site", port, server_log(), RILLSTEP_RATE_LIMITS="off")
        remote = Remote(f"http://127.0.0.1:{port}")
        remote("GET", "/api/me")
        account = {"email": "crash@observing-night.example", "password": "a long password"}
        remote("POST", "/api/sign-up", {**account, "studio": "S"})
        document = as_json(nightfield())
        ids = [remote("POST", "/api/designs", {"document": document})["id"] for _ in range(3)]
        acknowledged: dict[int, tuple[int, float]] = {}
        stop = threading.Event()

        def keep_saving(design_id: int) -> None:
            base, hook = 1, 1.0
            while not stop.is_set():
                hook += 0.01
                try:
                    saved = remote(
                        "PUT",
                        f"/api/designs/{design_id}",
                        {"base": base, "document": {**document, "hook_mm": round(hook, 2)}},
                    )
                except (HTTPException, OSError, ValueError):  # no answer, half of one, or words that are not JSON
                    return
                base = saved["revision"]
                acknowledged[design_id] = (base, round(hook, 2))

        savers = [threading.Thread(target=keep_saving, args=(design_id,)) for design_id in ids]
        for saver in savers:
            saver.start()
        time.sleep(1.5)
        own.kill()
        os.killpg(server.pid, signal.SIGKILL)
        server.wait()
        stop.set()
        for saver in savers:
            saver.join(30)
        assert sum(revision for revision, _ in acknowledged.values()) > 15

        own.start()
        server = serve(
            own.url("rillstep"), "a secret of the tests, and of no site", port, server_log(), RILLSTEP_RATE_LIMITS="off"
        )
        try:
            again = Remote(f"http://127.0.0.1:{port}")
            again("GET", "/api/me")
            again("POST", "/api/sign-in", account)
            for design_id, (revision, hook) in acknowledged.items():
                kept = again("GET", f"/api/designs/{design_id}/revisions/{revision}")
                assert kept["document"]["hook_mm"] == hook
                newest = again("GET", f"/api/designs/{design_id}")
                assert newest["revision"] in (revision, revision + 1)  # one more may have been on its way
        finally:
            os.killpg(server.pid, signal.SIGTERM)
            server.wait(timeout=30)
            own.stop()
