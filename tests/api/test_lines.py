"""One line over the API: its trace, its chart, its print; the words of the language; help for findings."""

import xml.etree.ElementTree as ElementTree
from typing import Any

import pytest

from tests.conftest import Client
from tests.examples import MESH_TOTE

DISC = """Pattern: Comet pouch
Sizes: S, M
Section: Base (joined rounds, disc)
Make an adjustable ring.
Rnd 1: Ch 1 (does not count), 6 sc in ring; join. — 6 sts
Rnd 2: Ch 1, 2 sc in each st around; join. — 12 sts
Size M only:
Rnd 3: Ch 1, [sc in next st, 2 sc in next st] 7 times; join. — 18 sts
"""


def ask(client: Client, path: str, **more: Any) -> Any:
    return client.post(path, {"text": DISC, "line": 6, "size": "S", **more})


def test_a_trace_has_each_stitch_above_its_place(designer: Client) -> None:
    trace = ask(designer, "/api/trace").json
    assert (trace["label"], trace["size"], trace["sts"], trace["spaces"]) == ("Rnd 2", "S", 12, 0)
    assert len(trace["below"]) == 6 and len(trace["made"]) == 12
    assert [stitch["into"] for stitch in trace["made"]] == [[at] for at in range(6) for _ in range(2)]
    assert [stitch["number"] for stitch in trace["made"]] == list(range(1, 13))
    assert {place["became"] for place in trace["below"]} == {"worked"}
    assert trace["trouble"] is None and trace["ahead"] is None
    assert [step["words"] for step in trace["steps"]] == ["ch 1", "2 sc in each st around", "join"]
    assert [(step["took"], step["made"]) for step in trace["steps"]] == [(0, 0), (6, 12), (0, 0)]
    xs = [stitch["x"] for stitch in trace["made"]]
    assert xs == sorted(xs) and trace["width"] >= max(xs)


def test_a_trace_says_where_a_row_stops(designer: Client) -> None:
    trace = ask(designer, "/api/trace", line=8, size="M").json
    assert trace["trouble"] == "runs out of stitches: 1 stitch missing" or "missing" in trace["trouble"]
    assert trace["missing"] >= 1
    assert [step["stops"] for step in trace["steps"]] == [False, True, False]
    over = ask(designer, "/api/trace", text=DISC.replace("2 sc in each st around", "2 sc in next 4 sts")).json
    assert over["ahead"] == 4
    assert [place["became"] for place in over["below"]] == ["worked"] * 4 + ["left"] * 2


def test_terms_of_the_text_and_of_the_answer_are_apart(designer: Client) -> None:
    uk_text = DISC.replace(" sc ", " dc ")
    trace = ask(designer, "/api/trace", text=uk_text, terms="UK", into="US").json
    assert trace["made"][0]["label"] == "sc"
    assert ask(designer, "/api/trace", text=uk_text, terms="UK", into="UK").json["made"][0]["label"] == "dc"
    assert ask(designer, "/api/trace", text=uk_text, terms="US", into="US").json["made"][0]["label"] == "dc"


def test_the_rounds_of_a_range_can_be_chosen(designer: Client) -> None:
    text = "Ch 12, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-4: 2 sc in next st, sc in each st around; join."
    answers = [ask(designer, "/api/trace", text=text, line=3, size="One size", turn=turn).json for turn in (0, 1, 2)]
    assert [len(answer["below"]) for answer in answers] == [12, 13, 14]
    assert {(answer["turns"], answer["rounds"]) for answer in answers} == {(3, 3)}


def test_a_chart_is_an_svg_for_either_hand(designer: Client) -> None:
    right, left = (ask(designer, "/api/chart", hand=hand).json for hand in ("right", "left"))
    assert right["around"] and right["rows"] == ["1", "2"]
    assert right["title"] == "Chart of Rnd 2, size S, right-handed"
    for chart in (right, left):
        assert ElementTree.fromstring(chart["svg"]).tag.endswith("svg")
    assert right["svg"] != left["svg"]


@pytest.mark.parametrize("path", ["/api/trace", "/api/chart"])
@pytest.mark.parametrize(
    ("line", "size", "status", "says"),
    [(4, "S", 404, "no round or row in this line"), (99, "S", 404, "no round or row"), (8, "S", 404, "Rnd 3 is not worked in size S"), (6, "XL", 422, "no size “XL”")],
)  # fmt: skip
def test_what_cannot_be_shown_is_said(
    designer: Client, path: str, line: int, size: str, status: int, says: str
) -> None:
    answer = ask(designer, path, line=line, size=size)
    assert answer.status_code == status
    assert says in answer.json["title"]


def test_a_row_that_is_too_long_is_refused_and_not_drawn(designer: Client) -> None:
    text = "Ch 20000, join into a ring.\nRnd 1: Sc in each ch around; join."
    for path in ("/api/trace", "/api/chart"):
        answer = ask(designer, path, text=text, line=2, size="One size")
        assert answer.status_code == 422 and "too long" in answer.json["title"]


@pytest.mark.parametrize("path", ["/api/trace", "/api/chart", "/api/print", "/api/check"])
def test_only_who_is_signed_in_is_answered(anyone: Client, path: str) -> None:
    assert anyone.post(path, {"text": DISC, "line": 6, "size": "S"}).status_code == 401


def test_a_print_is_proved_or_says_what_is_not(designer: Client) -> None:
    body = {"text": MESH_TOTE, "into": "UK", "size": "M", "hand": "left"}
    text = designer.post("/api/print", body).json["text"]
    assert "Terms: UK" in text and "Sizes: M\n" in text and "Left-handed" in text
    assert designer.post("/api/check", {"text": text}).json["ok"]
    wrong = designer.post("/api/print", {"text": MESH_TOTE.replace("— 26 (32, 38) sts", "— 27 (32, 38) sts")})
    assert "Note: As it was written, and not proved: Rnd 1:" in " ".join(wrong.json["text"].split())
    assert designer.post("/api/print", {"text": MESH_TOTE, "size": "XXL"}).status_code == 422


def test_a_check_tells_what_is_open_what_depends_and_what_is_defined(designer: Client) -> None:
    text = (
        "Define: shell = 5 dc in same st\nSection: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 25 sts\n"
        "Rnd 2: Ch 2, hdc in next 24 sts, place marker A, hdc in each st\naround; join.\n"
    )
    report = designer.post("/api/check", {"text": text}).json
    assert [(line["line"], line["last_line"], line["depends"]) for line in report["lines"]] == [(4, 4, None), (5, 6, 4)]
    assert [question["code"] for question in report["questions"]] == ["chain-counts"]
    assert report["questions"][0]["answers"][0]["edits"][0]["line"] == 5
    assert report["outline"] == {
        "sections": [{"title": "Wall", "line": 2, "made": 1}], "stitches": ["shell"], "markers": ["A"],
        "sizes": ["One size"], "terms": "US",
    }  # fmt: skip


def test_the_work_of_a_design_has_them_too(designer: Client, document: dict[str, Any]) -> None:
    work = designer.post("/api/work", {"document": document}).json
    assert [section["title"] for section in work["outline"]["sections"]] == ["Base", "Wall", "Brim and handles"]
    assert work["questions"] == []
    assert all(line["depends"] is None for line in work["lines"])


def test_words_to_complete_follow_the_terms(designer: Client) -> None:
    us = {word["word"]: word for word in designer.get("/api/language?terms=US").json}
    uk = {word["word"] for word in designer.get("/api/language?terms=UK").json}
    assert us["hdc"] == {"word": "hdc", "kind": "stitch", "help": "half double crochet"}
    assert "htr" in uk and "hdc" not in uk
    assert designer.get("/api/language?terms=FR").status_code == 422


def test_help_for_findings_is_the_catalogue(designer: Client) -> None:
    entries = designer.get("/api/findings").json
    assert len(entries) > 50
    first = entries[0]
    assert first["code"] == "total-differs" and first["title"] and first["way_out"] and first["example"]


def test_text_downloads_stand_alone_for_a_hand(designer: Client, document: dict[str, Any]) -> None:
    document["hand"] = "left"
    text = designer.post("/api/export/text", {"document": document, "terms": "US", "size": "Rug"}).text
    assert "Note: Left-handed" in text and "Note: Abbreviations:" in text
    assert max(len(line) for line in text.split("\n") if line.startswith(("Rnd", "    "))) <= 92
    assert designer.post("/api/check", {"text": text}).json["ok"]
