"""Sign up, in and out; what stands between a stranger and a studio."""

from typing import Any

import pytest

from rillstep.web import create_app
from rillstep.web.settings import Settings
from tests.conftest import Client


def test_sign_up_in_and_out(anyone: Client, app: Any) -> None:
    email = anyone.sign_up("Dark Sky Bags")
    assert anyone.get("/api/me").json["studio"] == "Dark Sky Bags"
    anyone.post("/api/sign-out")
    assert anyone.get("/api/me").json["email"] is None
    assert anyone.get("/api/designs").status_code == 401
    again = Client(app.test_client())
    assert again.post("/api/sign-in", {"email": email.upper(), "password": "a long password"}).status_code == 200
    wrong = Client(app.test_client()).post("/api/sign-in", {"email": email, "password": "another password"})
    unknown = Client(app.test_client()).post(
        "/api/sign-in", {"email": "no@one.example", "password": "another password"}
    )
    assert (wrong.status_code, unknown.status_code) == (401, 401)
    assert wrong.json["title"] == unknown.json["title"]


@pytest.mark.parametrize(
    ("change", "path", "says"),
    [
        ({"email": "nobody"}, "$.email", "e-mail"),
        ({"password": "short"}, "$.password", "10"),
        ({"studio": " "}, "$.studio", "name"),
    ],
)
def test_bad_sign_ups_name_the_field(anyone: Client, change: dict[str, str], path: str, says: str) -> None:
    body = {"email": "someone@example.org", "password": "long enough here", "studio": "S", **change}
    answer = anyone.post("/api/sign-up", body)
    assert answer.status_code == 422
    assert [f["path"] for f in answer.json["faults"]] == [path]
    assert says in answer.json["faults"][0]["message"]


def test_an_address_is_taken_once(anyone: Client, app: Any) -> None:
    email = anyone.sign_up()
    body = {"email": email, "password": "a long password", "studio": "S"}
    assert Client(app.test_client()).post("/api/sign-up", body).status_code == 422


def test_without_the_token_nothing_changes(designer: Client, document: dict[str, Any]) -> None:
    for token in ("", "guessed"):
        answer = designer.client.post("/api/designs", json={"document": document}, headers={"X-CSRF-Token": token})
        assert (answer.status_code, answer.json["code"]) == (403, "csrf")
    assert designer.get("/api/designs").json["designs"] == []  # type: ignore[index]


def test_the_session_changes_at_sign_in(app: Any) -> None:
    client = Client(app.test_client())
    before = client.csrf
    client.sign_up()
    assert client.csrf != before
    cookie = client.client.get_cookie("rillstep")
    assert cookie is not None
    assert cookie.http_only
    assert cookie.same_site == "Lax"


def test_sign_in_is_rate_limited(database_url: str) -> None:
    app = create_app(Settings(database_url, "s", rate_limits=True))
    client = Client(app.test_client())
    codes = [client.post("/api/sign-in", {"email": "a@b.example", "password": "x"}).status_code for _ in range(12)]
    assert codes[:10] == [401] * 10
    assert codes[-1] == 429


def test_passwords_are_kept_as_argon2_hashes(anyone: Client, app: Any) -> None:
    from sqlalchemy import text

    email = anyone.sign_up()
    with app.extensions["rillstep_database"].unit_of_work() as work:
        kept = work.execute(text("SELECT password_hash FROM designers WHERE email = :e"), {"e": email}).scalar()
    assert kept.startswith("$argon2id$")
