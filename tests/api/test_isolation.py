"""Nobody reaches what is not theirs: every route of the application, walked."""

from typing import Any

import pytest

from tests.conftest import Client

OPEN = {"/api/me", "/api/sign-up", "/api/sign-in", "/api/sign-out", "/api/health"}
OURS = {"design_id": "{design}", "test_id": "{test}", "tester_id": "{tester}", "number": "1"}


def api_routes(app: Any) -> list[tuple[str, str]]:
    routes = []
    for rule in app.url_map.iter_rules():
        if rule.rule.startswith("/api/") and "path:" not in rule.rule and not rule.rule.startswith("/api/docs"):
            routes += [(method, rule.rule) for method in rule.methods if method in ("GET", "POST", "PUT", "DELETE")]
    return sorted(routes)


def filled(rule: str, ids: dict[str, Any]) -> str:
    for name, value in ids.items():
        rule = rule.replace(f"<int:{name}>", str(value)).replace(f"<{name}>", str(value))
    return rule


BODIES: dict[str, dict[str, Any]] = {
    "/api/designs/<int:design_id>": {"base": 1},
    "/api/designs/<int:design_id>/revisions/<int:number>/restore": {"base": 1},
    "/api/tests/<int:test_id>": {"closed": True},
    "/api/tests/<int:test_id>/testers": {"name": "X", "size": "Rug"},
}


@pytest.fixture
def ids(designer: Client, design_id: int) -> dict[str, Any]:
    test = designer.post(f"/api/designs/{design_id}/tests").json
    tester = designer.post(f"/api/tests/{test['id']}/testers", {"name": "A", "size": "Rug"}).json
    phrase = designer.post("/api/phrases", {"words": "in bb", "meaning": "in back loop"}).json
    return {
        "design_id": design_id,
        "test_id": test["id"],
        "tester_id": tester["tester"]["id"],
        "number": 1,
        "phrase_id": phrase["id"],
    }


def test_every_route_is_closed_to_strangers_and_other_studios(
    app: Any, anyone: Client, other: Client, designer: Client, ids: dict[str, Any], document: dict[str, Any]
) -> None:
    walked = 0
    before = designer.get(f"/api/designs/{ids['design_id']}").json
    tests_before = designer.get(f"/api/designs/{ids['design_id']}/tests").json
    for method, rule in api_routes(app):
        if rule in OPEN or rule.startswith("/api/t/"):
            continue
        body = {
            "document": document,
            "text": "Rnd 1: 6 sc in ring.",
            "terms": "US",
            "size": None,
            "words": "in bb",
            "meaning": "in back loop",
            **BODIES.get(rule, {}),
        }
        path = filled(rule, ids)
        assert "<" not in path, f"{rule}: say in this test what stands there"
        stranger = anyone(method, path, body)
        assert stranger.status_code == 401, (method, rule, stranger.status_code)
        if any(f"<int:{name}>" in rule for name in ("design_id", "test_id", "tester_id", "phrase_id")):
            theirs = other(method, path, body)
            assert theirs.status_code == 404, (method, rule, theirs.status_code)
        walked += 1
    assert walked >= 20
    assert len(designer.get("/api/phrases").json) == 1
    assert other.get("/api/designs").json == []
    assert designer.get(f"/api/designs/{ids['design_id']}").json == before
    assert designer.get(f"/api/designs/{ids['design_id']}/tests").json == tests_before


def test_a_tester_link_opens_that_test_alone(app: Any, designer: Client, ids: dict[str, Any]) -> None:
    invited = designer.post(f"/api/tests/{ids['test_id']}/testers", {"name": "B", "size": "Atlas"}).json
    link = invited["path"]
    phone = Client(app.test_client())
    assert phone.get(f"/api{link}").json["size"] == "Atlas"
    for method, rule in api_routes(app):
        if rule not in OPEN and not rule.startswith("/api/t/"):
            assert phone(method, filled(rule, ids), {}).status_code == 401
    for guess in ("x", "0" * 32, link[3:-1], link[3:] + "x", "%27%20OR%201=1", "é" * 20, "a" * 5000):
        answer = phone.get(f"/api/t/{guess}")
        assert answer.status_code == 404
        assert "ask the designer" in answer.json["title"]


def test_links_are_kept_as_hashes_and_can_be_withdrawn(app: Any, designer: Client, ids: dict[str, Any]) -> None:
    from sqlalchemy import text

    invited = designer.post(f"/api/tests/{ids['test_id']}/testers", {"name": "C", "size": "Tent"}).json
    token = invited["path"][3:]
    with app.extensions["rillstep_database"].unit_of_work() as work:
        kept = work.execute(text("SELECT token_hash FROM testers")).scalars().all()
    assert token not in kept
    assert all(len(value) == 64 for value in kept)
    assert token not in designer.get(f"/api/designs/{ids['design_id']}/tests").text
    designer.post(f"/api/testers/{invited['tester']['id']}/withdraw")
    assert designer.get(f"/api/t/{token}").status_code == 404
    again = designer.post(f"/api/testers/{invited['tester']['id']}/link").json["path"]
    assert designer.get(f"/api{again}").status_code == 200
    assert designer.get(f"/api/t/{token}").status_code == 404
