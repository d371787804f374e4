"""Nobody reaches what is not theirs: each route has a rule, and each identity is tried on each route."""

import json
from dataclasses import dataclass, field
from datetime import timedelta
from pathlib import Path
from typing import Any, Literal

import pytest
from sqlalchemy import select, text, update

from rillstep.services.accounts import SIGN_IN_DAYS, hash_token, now
from rillstep.store import SignInRow
from tests.conftest import Client

OPENAPI = Path(__file__).parents[2] / "docs" / "openapi.json"

# open: everybody. signed in: every designer. own: whoever's studio the object belongs to. link: whoever has the link.
Rule = Literal["open", "signed in", "own", "link"]
TEXT = {"text": "Rnd 1: 6 sc in ring. (6 sts)"}
LINE = {**TEXT, "line": 1, "size": "One size"}


@dataclass(frozen=True)
class Route:
    """A route's rule; body: one that is good, in which DOCUMENT stands for a design; query: likewise."""

    rule: Rule
    body: dict[str, Any] = field(default_factory=dict)
    query: str = ""


DOCUMENT = "the document"
OF_DESIGN = {"document": DOCUMENT}
OF_TEXT = {"document": "a text"}
CHANGED = {"base": 1, "changes": {"fields": {"name": "Mine"}}}
RULES: dict[tuple[str, str], Route] = {
    ("GET", "/api/me"): Route("open"),
    ("GET", "/api/example"): Route("open"),
    ("POST", "/api/sign-up"): Route("open", {"email": "", "password": "", "studio": ""}),
    ("POST", "/api/sign-in"): Route("open", {"email": "", "password": ""}),
    ("POST", "/api/sign-out"): Route("open"),
    ("GET", "/api/designs"): Route("signed in"),
    ("POST", "/api/designs"): Route("signed in", OF_DESIGN),
    ("POST", "/api/designs/from-text"): Route("signed in", TEXT),
    ("POST", "/api/designs/import"): Route("signed in"),
    ("GET", "/api/designs/ready"): Route("signed in"),
    ("GET", "/api/designs/ready/{key}/picture.svg"): Route("signed in"),
    ("POST", "/api/designs/ready/{key}"): Route("signed in"),
    ("GET", "/api/designs/deleted"): Route("signed in"),
    ("POST", "/api/designs/deleted/{deleted_id}/bring-back"): Route("own"),
    ("DELETE", "/api/designs/deleted/{deleted_id}"): Route("own"),
    ("GET", "/api/designs/{design_id}"): Route("own"),
    ("GET", "/api/designs/{design_id}/picture.svg"): Route("own"),
    ("PUT", "/api/designs/{design_id}"): Route("own", {**OF_DESIGN, "base": 1}),
    ("PATCH", "/api/designs/{design_id}"): Route("own", CHANGED),
    ("POST", "/api/designs/{design_id}/work"): Route("own", CHANGED),
    ("DELETE", "/api/designs/{design_id}"): Route("own"),
    ("GET", "/api/designs/{design_id}/revisions"): Route("own"),
    ("DELETE", "/api/designs/{design_id}/revisions"): Route("own", query="?before=1"),
    ("GET", "/api/designs/{design_id}/revisions/{number}"): Route("own"),
    ("POST", "/api/designs/{design_id}/revisions/{number}/restore"): Route("own", {"base": 1}),
    ("GET", "/api/designs/{design_id}/tests"): Route("own"),
    ("POST", "/api/designs/{design_id}/tests"): Route("own"),
    ("PUT", "/api/tests/{test_id}"): Route("own", {"closed": False}),
    ("POST", "/api/tests/{test_id}/testers"): Route("own", {"name": "X", "size": "Rug"}),
    ("POST", "/api/testers/{tester_id}/withdraw"): Route("own"),
    ("POST", "/api/testers/{tester_id}/link"): Route("own"),
    ("GET", "/api/t/{token}"): Route("link"),
    ("PUT", "/api/t/{token}/place"): Route("link", {"place": 1}),
    ("POST", "/api/t/{token}/lines"): Route("link", {"step": 0, "found": 5}),
    ("PUT", "/api/t/{token}/report"): Route("link", {"measures_mm": {"width": 200}}),
    ("GET", "/api/phrases"): Route("signed in"),
    ("POST", "/api/phrases"): Route("signed in", {"words": "in fb", "meaning": "in front loop"}),
    ("DELETE", "/api/phrases/{phrase_id}"): Route("own"),
    ("POST", "/api/teach"): Route("signed in", {**TEXT, "words": "in fb", "meaning": "in front loop"}),
    ("GET", "/api/jobs/{name}"): Route("signed in"),
    ("DELETE", "/api/jobs/{name}"): Route("own"),
    ("POST", "/api/work"): Route("signed in", OF_DESIGN),
    ("GET", "/api/craft"): Route("signed in"),
    ("GET", "/api/scale"): Route("signed in"),
    ("GET", "/api/things"): Route("signed in"),
    ("GET", "/api/things/own"): Route("signed in", query="?width_mm=90&height_mm=90&depth_mm=90"),
    ("POST", "/api/drawings"): Route("signed in", OF_TEXT),
    ("POST", "/api/gauge/sample"): Route("signed in", OF_TEXT),
    ("POST", "/api/names"): Route("signed in", {**OF_TEXT, "change": {"verb": "write"}}),
    ("POST", "/api/grading"): Route("signed in", OF_TEXT),
    ("POST", "/api/grading/sizes"): Route("signed in", OF_TEXT),
    ("POST", "/api/text/sizes"): Route("signed in", {**TEXT, "sizes": ["S"], "sources": [0]}),
    ("POST", "/api/text/gauge"): Route("signed in", {**TEXT, "stitch": "sc", "sts": 18, "rows": 20}),
    ("POST", "/api/grading/steps"): Route("signed in", {**OF_DESIGN, "steps": [1]}),
    ("POST", "/api/yarn/largest"): Route("signed in", {**OF_DESIGN, "have_g": 300}),
    ("POST", "/api/yarn/other"): Route(
        "signed in", {**OF_DESIGN, "other": {"grams_per_ball": 100, "metres_per_ball": 120}}
    ),
    ("POST", "/api/text/hook"): Route("signed in", {**TEXT, "hook_mm": 4}),
    ("POST", "/api/files"): Route("signed in"),
    ("POST", "/api/check"): Route("signed in", TEXT),
    ("POST", "/api/print"): Route("signed in", TEXT),
    ("POST", "/api/assumptions"): Route("signed in", TEXT),
    ("POST", "/api/trace"): Route("signed in", LINE),
    ("POST", "/api/chart"): Route("signed in", LINE),
    ("GET", "/api/findings"): Route("signed in"),
    ("GET", "/api/language"): Route("signed in"),
    ("POST", "/api/booklet"): Route("signed in", OF_DESIGN),
    ("POST", "/api/export/pdf"): Route("signed in", OF_DESIGN),
    ("POST", "/api/export/text"): Route("signed in", OF_DESIGN),
    ("POST", "/api/export/design"): Route("signed in", OF_DESIGN),
    ("POST", "/api/parts"): Route("signed in", OF_DESIGN),
    ("POST", "/api/parts/{number}/pdf"): Route("signed in", OF_DESIGN),
    ("POST", "/api/parts/calendar"): Route("signed in", OF_DESIGN),
}
# Beside the API proper; no client is written against them.
UNDESCRIBED = {("GET", "/api/health"), ("GET", "/api/{anything}")}


def routes_of(app: Any) -> set[tuple[str, str]]:
    """The routes of the application, in the words of OpenAPI."""
    found = set()
    for rule in app.url_map.iter_rules():
        path = rule.rule.replace("<int:", "{").replace("<path:", "{").replace("<", "{").replace(">", "}")
        if path.startswith("/api/") and not path.startswith("/api/docs"):
            found |= {(method, path) for method in rule.methods if method not in ("HEAD", "OPTIONS")}
    return found


def test_each_route_has_a_rule_and_is_described(app: Any) -> None:
    described = {
        (method.upper(), path)
        for path, methods in json.loads(OPENAPI.read_text())["paths"].items()
        for method in methods
    }
    assert described == set(RULES)
    assert routes_of(app) == set(RULES) | UNDESCRIBED


class World:
    """A studio with one of everything, and how a route is asked for in it."""

    def __init__(self, designer: Client, document: dict[str, Any], design_id: int) -> None:
        self.designer, self.document = designer, document
        test = designer.post(f"/api/designs/{design_id}/tests").json
        invited = [
            designer.post(f"/api/tests/{test['id']}/testers", {"name": name, "size": "Rug"}).json  # type: ignore[index]
            for name in ("A", "B", "C")
        ]
        self.token, self.withdrawn, self.replaced = (one["path"][3:] for one in invited)  # type: ignore[index]
        testers = [one["tester"]["id"] for one in invited]  # type: ignore[index]
        assert designer.post(f"/api/testers/{testers[1]}/withdraw").status_code == 200
        assert designer.post(f"/api/testers/{testers[2]}/link").status_code == 200
        phrase = designer.post("/api/phrases", {"words": "in bb", "meaning": "in back loop"}).json
        deleted = designer.post("/api/designs", {"document": document}).json["id"]  # type: ignore[index]
        assert designer("DELETE", f"/api/designs/{deleted}").status_code == 204
        self.ids = {
            "deleted_id": deleted, "key": "round_pouch",
            "design_id": design_id, "test_id": test["id"], "tester_id": testers[0], "number": 1,  # type: ignore[index]
            "phrase_id": phrase["id"], "name": "the-job-of-a-test", "token": self.token,  # type: ignore[index]
        }  # fmt: skip

    def ask(self, who: Client, route: tuple[str, str], **other: Any) -> int:
        """The status of a route's answer to somebody; other: other ids."""
        rule = RULES[route]
        documents = {DOCUMENT: self.document, "a text": {"format": "rillstep-design", "version": 2, **TEXT}}
        body = {
            key: documents.get(value, value) if isinstance(value, str) else value for key, value in rule.body.items()
        }
        if route[1] == "/api/designs/import":
            body = self.document
        path = route[1].format(**{**self.ids, **other}) + rule.query
        return who(route[0], path, body).status_code

    def kept(self) -> list[Any]:
        """All that the studio has, to see that nothing changed."""
        return [
            self.designer.get(f"/api/designs/{self.ids['design_id']}").json,
            self.designer.get(f"/api/designs/{self.ids['design_id']}/tests").json,
            self.designer.get("/api/phrases").json,
            self.designer.get("/api/designs").json,
        ]


@pytest.fixture
def world(designer: Client, document: dict[str, Any], design_id: int) -> World:
    return World(designer, document, design_id)


def of(*rules: Rule) -> list[tuple[str, str]]:
    return [route for route, one in RULES.items() if one.rule in rules]


def copy_of(app: Any, client: Client) -> Client:
    """Somebody with a copy of a cookie."""
    copy = Client(app.test_client())
    copy.client.set_cookie("rillstep", client.client.get_cookie("rillstep").value)  # type: ignore[union-attr]
    copy.csrf = client.csrf
    return copy


def test_what_needs_a_sign_in_needs_one_that_is_good(app: Any, anyone: Client, world: World) -> None:
    signed_out, expired = Client(app.test_client()), Client(app.test_client())
    email = signed_out.sign_up("Signed out"), expired.sign_up("Expired")
    assert all(email)
    copy = copy_of(app, signed_out)
    assert signed_out.post("/api/sign-out").status_code == 200
    with app.extensions["rillstep_database"].unit_of_work() as work:
        newest = work.scalar(select(SignInRow.id).order_by(SignInRow.id.desc()).limit(1))
        long_ago = now() - timedelta(days=SIGN_IN_DAYS + 1)
        work.execute(update(SignInRow).where(SignInRow.id == newest).values(begun_at=long_ago))
    tester = Client(app.test_client())
    assert tester.get(f"/api/t/{world.token}").status_code == 200
    before = world.kept()
    for route in of("signed in", "own"):
        for name, who in {"stranger": anyone, "signed out": copy, "expired": expired, "tester": tester}.items():
            assert world.ask(who, route) == 401, (route, name)
    assert world.kept() == before


def test_what_is_a_studios_own_is_nobody_elses(world: World, other: Client) -> None:
    before = world.kept()
    for route in of("own"):
        assert world.ask(other, route) == 404, route
    assert world.kept() == before


def test_without_the_token_of_the_page_nothing_changes(app: Any, world: World) -> None:
    forged = copy_of(app, world.designer)
    before = world.kept()
    for route in of("signed in", "own"):
        for token in ("", "x" * 32):
            forged.csrf = token
            if route[0] != "GET":
                assert world.ask(forged, route) == 403, route
    assert world.kept() == before


def test_the_owner_is_let_in_everywhere(world: World) -> None:
    last = [route for route in of("own") if route[0] == "DELETE"]
    for route in [*(one for one in of("signed in", "own") if one not in last), *reversed(last)]:
        # No such job is under way; the deleted design was brought back; some save on a revision that is not the newest any more.
        gone = (("DELETE", "/api/jobs/{name}"), ("DELETE", "/api/designs/deleted/{deleted_id}"))
        # Let in, and asked for the file that is not there (`test_check` sends one).
        no_file = route == ("POST", "/api/files")
        expected = {404} if route in gone else {422} if no_file else {200, 204, 409}
        assert world.ask(world.designer, route) in expected, route


def test_everybody_is_answered_at_open_routes(anyone: Client, world: World) -> None:
    for route in of("open"):
        assert world.ask(anyone, route) in (200, 422, 401), route
    assert anyone.get("/api/health").status_code == 200
    assert anyone.get("/api/nothing-here").status_code in (401, 404)


def test_a_link_opens_its_test_and_no_other_link_does(app: Any, world: World, designer: Client) -> None:
    phone = Client(app.test_client())
    invented = ("x", "0" * 32, world.token[:-1], world.token + "x", "%27%20OR%201=1", "é" * 20, "a" * 5000)
    for route in of("link"):
        assert world.ask(phone, route) == 200, route
        for token in (world.withdrawn, world.replaced, *invented):
            assert world.ask(phone, route, token=token) == 404, (route, token)
            assert world.ask(designer, route, token=token) == 404, (route, token)  # being signed in is no help
    answer = phone.get(f"/api/t/{world.withdrawn}")
    assert "ask the designer" in answer.json["title"]  # type: ignore[index]


def test_links_are_kept_as_hashes(app: Any, world: World) -> None:
    with app.extensions["rillstep_database"].unit_of_work() as work:
        kept = work.execute(text("SELECT token_hash FROM testers")).scalars().all()
    assert hash_token(world.token) in kept and world.token not in kept
    tests = world.designer.get(f"/api/designs/{world.ids['design_id']}/tests").text
    assert world.token not in tests and hash_token(world.token) not in tests
