"""A MariaDB of the tests' own, one for each worker; and clients of the real application on it."""

import os
import secrets
import shutil
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from werkzeug.test import TestResponse

from rillstep.demo.data import nightfield
from rillstep.demo.mariadb import OwnMariaDb
from rillstep.document import Design
from rillstep.store.database import migrate
from rillstep.web import create_app
from rillstep.web.settings import Settings
from tests import canaries


def pytest_configure(config: pytest.Config) -> None:
    canaries.begin(config)


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """What one worker does by itself comes first: else the others wait for it at the end. Raises UsageError where
    groups of tests are not kept together: several browsers and servers at once make each other late."""
    grouped = [item for item in items if item.get_closest_marker("xdist_group")]
    if getattr(config.option, "loadgroup", False) and any("@" not in item.nodeid for item in grouped):
        raise pytest.UsageError("pytest-xdist does not find the groups of tests; see requirements-dev.in")
    items.sort(key=lambda item: item.get_closest_marker("xdist_group") is None)


def pytest_sessionfinish(session: pytest.Session) -> None:
    """Searches all that was logged in the run."""
    if hasattr(session.config, "workerinput"):
        return
    folder = Path(os.environ[canaries.FOLDER])
    lines, faults = canaries.found(folder)
    shutil.rmtree(folder, ignore_errors=True)
    report = session.config.pluginmanager.get_plugin("terminalreporter")
    if report is not None:
        report.write_line(f"\n{lines} lines of logs searched for personal data: {len(faults)} with some")
        for fault in faults[:10]:
            report.write_line(f"  {fault}")
    if faults:
        session.exitstatus = pytest.ExitCode.TESTS_FAILED


@pytest.fixture(scope="session")
def mariadb() -> Iterator[OwnMariaDb]:
    # Under /tmp: the path of a socket may have 107 characters at most.
    folder = Path(tempfile.mkdtemp(prefix="rillstep-test-"))
    own = OwnMariaDb(folder)
    own.start()
    yield own
    own.stop()
    shutil.rmtree(folder, ignore_errors=True)


@pytest.fixture(scope="session")
def database_url(mariadb: OwnMariaDb) -> str:
    url = mariadb.create_database("rillstep_test")
    migrate(url)
    return url


@pytest.fixture(scope="session")
def app(database_url: str) -> Any:
    return create_app(Settings(database_url, "a test's secret", rate_limits=False))


class Client:
    """A browser without a browser: keeps the session and sends its CSRF token."""

    def __init__(self, client: FlaskClient) -> None:
        self.client = client
        self.csrf = client.get("/api/me").json["csrf"]  # type: ignore[index]

    def __call__(self, method: str, path: str, body: object = None, **more: Any) -> TestResponse:
        headers = {"X-CSRF-Token": self.csrf, **more.pop("headers", {})}
        return self.client.open(path, method=method, json=body, headers=headers, **more)

    def get(self, path: str) -> TestResponse:
        return self("GET", path)

    def post(self, path: str, body: object = None) -> TestResponse:
        return self("POST", path, body)

    def put(self, path: str, body: object = None) -> TestResponse:
        return self("PUT", path, body)

    def sign_up(self, studio: str = "Studio") -> str:
        email = f"{secrets.token_hex(6)}@observing-night.example"
        body = {"email": email, "password": "a long password", "studio": studio}
        answer = self.post("/api/sign-up", body)
        assert answer.status_code == 200, answer.text
        self.csrf = answer.json["csrf"]  # type: ignore[index]
        return email


@pytest.fixture
def anyone(app: Any) -> Client:
    return Client(app.test_client())


@pytest.fixture
def designer(app: Any) -> Client:
    client = Client(app.test_client())
    client.sign_up()
    return client


@pytest.fixture
def other(app: Any) -> Client:
    client = Client(app.test_client())
    client.sign_up("Another studio")
    return client


def as_json(design: Design) -> dict[str, Any]:
    return design.model_dump(mode="json")


@pytest.fixture
def document() -> dict[str, Any]:
    return as_json(nightfield())


@pytest.fixture
def design_id(designer: Client, document: dict[str, Any]) -> int:
    answer = designer.post("/api/designs", {"document": document})
    assert answer.status_code == 200, answer.text
    number: int = answer.json["id"]  # type: ignore[index]
    return number
