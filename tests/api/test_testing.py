"""A test from opening to report, over the API."""

from typing import Any

import pytest

from rillstep.services.checking import design_of
from tests.conftest import Client

# A tube without a base and without handles.
PLAIN = (
    "US terms\nGauge: sc 20 sts x 22 rows = 10 cm\n\nTube\nCh 40, join to form a ring.\n"
    "Rnd 1: Ch 1, sc in each ch around, join. (40)\nRnds 2-20: Ch 1, sc in each st around, join. (40)"
)


@pytest.fixture
def test_id(designer: Client, design_id: int) -> int:
    number: int = designer.post(f"/api/designs/{design_id}/tests").json["id"]
    return number


@pytest.fixture
def link(designer: Client, test_id: int) -> str:
    body = {"name": "Bram", "size": "Flask", "terms": "UK", "hand": "left"}
    path: str = designer.post(f"/api/tests/{test_id}/testers", body).json["path"]
    return f"/api{path}"


def test_one_round_at_a_time_in_her_size_and_terms(anyone: Client, link: str) -> None:
    page = anyone.get(link).json
    assert (page["size"], page["terms"], page["hand"]) == ("Flask", "UK", "left")
    steps = page["steps"]
    assert steps[0]["text"] == "Ch 27."
    assert all("hdc" not in step["text"] for step in steps)
    assert any("htr in each st around" in step["text"] for step in steps)
    labels = [(s["section"], s["label"]) for s in steps if s["kind"] == "row"]
    assert len(set(labels)) == len(labels) == 5 + 29 + 5
    assert "(" not in steps[1]["total"]
    assert any("Left-handed" in note for note in page["notes"])


def test_rows_of_the_section_before_are_read_in_full(designer: Client, anyone: Client) -> None:
    text = (
        "Sizes: S, L\nGauge: 14 hdc and 11 rows = 10 cm\nSection: Base (joined rounds, disc)\nCh 24, join into a ring.\n"
        "Rnds 1-2 (1-3): Ch 1, sc in each st around; join. (24)\nRnd 3 (4): Ch 1, 2 sc in first st, sc in each st around; join. (25)\n"
        "Section: Body (joined rounds, wall) continues Base\nRnd 4 (5): Ch 1, hdc in each st around; join. (25)\n"
        "Rnds 5-6 (6-7): Rep Rnd 3. (27)\n"
    )
    design = designer.post("/api/designs/from-text", {"text": text})
    assert design.status_code == 200, design.text
    test = designer.post(f"/api/designs/{design.json['id']}/tests").json["id"]
    path = designer.post(
        f"/api/tests/{test}/testers", {"name": "Ada", "size": "L", "terms": "US", "hand": "right"}
    ).json["path"]
    steps = [step for step in anyone.get(f"/api{path}").json["steps"] if step["kind"] == "row"]
    assert [step["label"] for step in steps] == [f"Rnd {n}" for n in range(1, 8)]
    assert [step["text"] for step in steps[-2:]] == ["Ch 1, 2 sc in first st, sc in each st around; join."] * 2


def test_the_place_is_kept(anyone: Client, link: str) -> None:
    assert anyone.put(f"{link}/place", {"place": 7}).json["place"] == 7
    assert anyone.get(link).json["place"] == 7
    assert anyone.put(f"{link}/place", {"place": 9999}).json["place"] == len(anyone.get(link).json["steps"])
    assert anyone.put(f"{link}/place", {"place": -1}).status_code == 422


def test_reports_arrive_at_their_line(anyone: Client, designer: Client, design_id: int, link: str) -> None:
    steps = anyone.get(link).json["steps"]
    at = next(i for i, step in enumerate(steps) if step["label"] == "Rnd 3")
    assert anyone.post(f"{link}/lines", {"step": at, "found": 71, "note": "one too many"}).status_code == 200
    assert anyone.post(f"{link}/lines", {"step": at, "found": None, "note": "  "}).status_code == 422
    assert anyone.post(f"{link}/lines", {"step": 999, "found": 1}).status_code == 422
    test = designer.get(f"/api/designs/{design_id}/tests").json["tests"][0]
    report = test["reports"][0]
    assert (report["tester"], report["expected"], report["found"]) == ("Bram", 70, 71)
    assert test["text"].split("\n")[report["line"] - 1].startswith("Rnd 3: ")


def test_measured_against_predicted(anyone: Client, designer: Client, design_id: int, link: str) -> None:
    body = {
        "measures_mm": {"width": 287, "height": 320},
        "grams": 145,
        "hours": 9,
        "remarks": "Lovely",
        "gauge_sts": 15,
    }
    assert anyone.put(f"{link}/report", body).status_code == 200
    assert anyone.put(f"{link}/report", {**body, "grams": -3}).status_code == 422
    tester = designer.get(f"/api/designs/{design_id}/tests").json["tests"][0]["testers"][0]
    compared = {row["label"]: row for row in tester["compared"]}
    assert (
        compared["Width, lying flat"]["predicted"],
        compared["Width, lying flat"]["difference"],
        compared["Width, lying flat"]["off"],
    ) == ("28.7 cm", "0.0 cm", False)
    assert compared["Height"]["off"]
    assert not compared["Yarn"]["off"]
    assert "Depth of the base" not in compared
    assert tester["finished"]


def test_a_maker_is_asked_for_what_her_bag_has(anyone: Client, designer: Client, link: str) -> None:
    asked = {one["name"]: one["label"] for one in anyone.get(link).json["asked"]}
    assert asked["width"] == "Width, lying flat" and {"height", "depth", "drop"} <= set(asked)
    body = {"measures_mm": dict.fromkeys(asked, 100.0)}
    assert anyone.put(f"{link}/report", body).json["measures_mm"] == body["measures_mm"]
    assert anyone.get(link).json["report"]["measures_mm"] == body["measures_mm"]
    document = design_of(PLAIN).model_dump(mode="json")
    made = designer.post("/api/designs", {"document": document}).json
    test = designer.post(f"/api/designs/{made['id']}/tests").json
    path = designer.post(f"/api/tests/{test['id']}/testers", {"name": "Juno", "size": "One size"}).json["path"]
    assert not {"drop", "depth"} & {one["name"] for one in anyone.get(f"/api{path}").json["asked"]}


def test_a_test_keeps_its_text_when_the_design_changes(
    anyone: Client, designer: Client, design_id: int, link: str, document: dict[str, Any]
) -> None:
    before = anyone.get(link).json["steps"]
    document["sizes"] = document["sizes"][:1]
    assert designer.put(f"/api/designs/{design_id}", {"base": 1, "document": document}).status_code == 200
    assert anyone.get(link).json["steps"] == before


def test_a_closed_test_can_be_read_and_not_reported_to(
    anyone: Client, designer: Client, test_id: int, link: str
) -> None:
    designer.put(f"/api/tests/{test_id}", {"closed": True})
    assert anyone.get(link).json["closed"]
    answer = anyone.post(f"{link}/lines", {"step": 1, "found": 3})
    assert answer.status_code == 422
    assert "closed" in answer.json["title"]
    designer.put(f"/api/tests/{test_id}", {"closed": False})
    assert anyone.post(f"{link}/lines", {"step": 1, "found": 3}).status_code == 200


def test_no_test_of_an_unproved_text(designer: Client, design_id: int, document: dict[str, Any]) -> None:
    text = designer.post("/api/work", {"document": document}).json["text"]
    document["text"] = text.replace("between the handles = 22 (26,", "between the handles = 22 (27,", 1)
    designer.put(f"/api/designs/{design_id}", {"base": 1, "document": document})
    answer = designer.post(f"/api/designs/{design_id}/tests")
    assert (answer.status_code, answer.json["code"]) == (422, "not-proved")
    pdf = designer.post("/api/export/pdf", {"document": document, "terms": "US", "size": None})
    assert pdf.status_code == 200
    booklet = designer.post("/api/booklet", {"document": document, "terms": "US", "size": None}).json
    assert not booklet["proved"] and booklet["as_written"] == 1
    assert booklet["problems"]


@pytest.mark.parametrize(
    "body",
    [{"name": "", "size": "Flask"}, {"name": "X", "size": "Nope"}, {"name": "X", "size": "Flask", "terms": "AU"}],
)
def test_bad_invitations(designer: Client, test_id: int, body: dict[str, str]) -> None:
    assert designer.post(f"/api/tests/{test_id}/testers", body).status_code == 422
