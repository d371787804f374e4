"""What an audit asks of the application: sign-outs that hold, headers, secrets, and logs without what people typed."""

import io
import logging
from datetime import timedelta
from typing import Any

import pytest
from pypdf import PdfReader
from sqlalchemy import text, update

from rillstep.cli import main
from rillstep.document.load import path_of
from rillstep.services import accounts
from rillstep.store import SignInRow
from rillstep.web import create_app
from rillstep.web.settings import Settings, from_environment
from tests.conftest import Client


def with_cookie_of(app: Any, client: Client) -> Client:
    """Another browser with a copy of the cookie."""
    cookie = client.client.get_cookie("rillstep")
    assert cookie is not None
    copy = app.test_client()
    copy.set_cookie("rillstep", cookie.value)
    return Client(copy)


def test_signing_out_revokes_a_copied_cookie_and_no_other_sign_in(app: Any, designer: Client) -> None:
    email = designer.get("/api/me").json["email"]  # type: ignore[index]
    second = Client(app.test_client())
    assert second.post("/api/sign-in", {"email": email, "password": "a long password"}).status_code == 200
    copy = with_cookie_of(app, designer)
    assert copy.get("/api/designs").status_code == 200
    assert designer.post("/api/sign-out").status_code == 200
    assert copy.get("/api/designs").status_code == 401
    assert copy.get("/api/me").json["email"] is None  # type: ignore[index]
    assert second.get("/api/designs").status_code == 200


def test_a_sign_in_runs_out_and_there_are_so_many_at_most(app: Any, designer: Client) -> None:
    email = designer.get("/api/me").json["email"]  # type: ignore[index]
    database = app.extensions["rillstep_database"]
    for _ in range(accounts.MOST_SIGN_INS):
        with database.unit_of_work() as work:
            accounts.begin_sign_in(work, accounts.sign_in(work, email, "a long password"))
    assert designer.get("/api/designs").status_code == 401  # the oldest made way
    client = Client(app.test_client())
    client.post("/api/sign-in", {"email": email, "password": "a long password"})
    with database.unit_of_work() as work:
        long_ago = accounts.now() - timedelta(days=accounts.SIGN_IN_DAYS, minutes=1)
        work.execute(update(SignInRow).values(begun_at=long_ago))
    assert client.get("/api/designs").status_code == 401


def test_headers_and_cookies_are_for_https_where_that_is_set(database_url: str) -> None:
    app = create_app(Settings(database_url, "s" * 32, https=True, rate_limits=False))
    answer = app.test_client().get("/api/me", base_url="https://rillstep.example")
    assert answer.headers["Strict-Transport-Security"].startswith("max-age=31536000")
    assert answer.headers["Cross-Origin-Opener-Policy"] == "same-origin"
    assert "camera=()" in answer.headers["Permissions-Policy"]
    cookie = answer.headers["Set-Cookie"]
    assert (
        cookie.startswith("__Host-rillstep=") and "Secure" in cookie and "Path=/" in cookie and "Domain" not in cookie
    )


@pytest.mark.parametrize("secret", ["", "short"])
def test_it_does_not_start_with_a_weak_secret(monkeypatch: pytest.MonkeyPatch, secret: str) -> None:
    monkeypatch.setenv("RILLSTEP_DATABASE_URL", "mysql+pymysql://nobody@127.0.0.1:1/none")
    monkeypatch.setenv("RILLSTEP_SECRET", secret)
    with pytest.raises(SystemExit, match="at least 32 characters"):
        from_environment()


def test_going_down_is_asked_for_in_so_many_words(
    monkeypatch: pytest.MonkeyPatch, database_url: str, capsys: pytest.CaptureFixture[str], app: Any
) -> None:
    monkeypatch.setenv("RILLSTEP_DATABASE_URL", database_url)
    assert main(["migrate", "base"]) == 2
    assert "--drop-data" in capsys.readouterr().err
    with app.extensions["rillstep_database"].unit_of_work() as work:
        assert work.execute(text("SELECT COUNT(*) FROM studios")).scalar() is not None


def test_an_error_is_logged_without_what_was_typed(database_url: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """Canaries in every field; the unexpected error quotes them, and the database's error has them as parameters."""
    app = create_app(Settings(database_url, "s" * 32, rate_limits=False))
    lines = io.StringIO()
    kept = logging.StreamHandler(lines)
    kept.setFormatter(app.logger.handlers[0].formatter)
    app.logger.addHandler(kept)
    monkeypatch.setattr(app.logger, "disabled", False)
    app.logger.setLevel(logging.DEBUG)
    client = Client(app.test_client())
    client.sign_up("Canary studio")

    def fail(*_: Any, **__: Any) -> None:
        raise ValueError("canary-in-a-message")

    monkeypatch.setattr("rillstep.services.checking.check", fail)
    assert client.post("/api/check", {"text": "canary-in-a-text"}).status_code == 500
    email = "canary@" + "x" * 300 + ".example"
    assert client.post("/api/sign-in", {"email": email, "password": "canary-password"}).status_code == 401
    logged = lines.getvalue()
    assert '"error": "ValueError"' in logged
    assert "canary" not in logged.lower()
    with app.extensions["rillstep_database"].unit_of_work() as work:
        with pytest.raises(Exception) as caught:
            work.execute(text("SELECT :x FROM no_such_table"), {"x": "canary-parameter"})
        work.rollback()
    assert "canary" not in str(caught.value)


HALF = '"\\ud800x"'


@pytest.mark.parametrize(
    ("raw", "words"),
    [
        ("[" * 100_000, "nested too deeply"),
        ('{"text": ' + "[" * 50_000 + "]" * 50_000 + "}", "nested too deeply"),
        ('{"text": ' + "9" * 5000 + "}", "too many digits"),
        (f'{{"text": {HALF}, "email": {HALF}, "password": {HALF}}}', "half a character"),
        ('{"text": "a', "not JSON (line 1, column 10)"),
        (b'{"text": "\xff"}', "UTF-8"),
    ],
    ids=range(6),
)
@pytest.mark.parametrize("path", ["/api/check", "/api/designs/import", "/api/sign-in"])
def test_json_that_no_request_can_mean_is_refused_with_a_word(
    designer: Client, raw: str | bytes, words: str, path: str
) -> None:
    headers = {"X-CSRF-Token": designer.csrf, "Content-Type": "application/json"}
    answer = designer.client.post(path, data=raw, headers=headers)
    assert answer.status_code == 422 and words in answer.json["title"]  # type: ignore[index]


@pytest.mark.parametrize(
    ("place", "value", "words"),
    [
        (("parts", "start"), "9999-12-31", "must be at most 2199-12-31"),
        (("swatches", 0, "weight_g"), 0.0001, "must be at least 0.1 g"),
        (("yarns", 0, "metres_per_ball"), 5e-324, "must be at least 0.1"),
        (("name",), "Bell\u0007bag", "control characters"),
    ],
    ids=range(4),
)
def test_values_at_the_ends_of_the_world_are_refused_at_their_place(
    designer: Client, document: dict[str, Any], place: tuple[str | int, ...], value: object, words: str
) -> None:
    inner: Any = document
    for key in place[:-1]:
        inner = inner[key]
    inner[place[-1]] = value
    answer = designer.post("/api/work", {"document": document})
    assert answer.status_code == 422
    (fault,) = answer.json["faults"]  # type: ignore[index]
    assert fault["path"] == path_of(place) and words in fault["message"]


def test_a_name_does_not_style_the_print(designer: Client, document: dict[str, Any]) -> None:
    document["name"] = 'A"; } body { display: none } \\22'
    answer = designer.post("/api/export/pdf", {"document": document, "terms": "US", "size": None})
    assert answer.status_code == 200
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(answer.data)).pages]
    assert document["name"] in pages[0] and document["name"] in pages[1] and "Ch 20" in "".join(pages)
