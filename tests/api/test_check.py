"""A text that was written elsewhere, through the API: proved, refuted, kept."""

import io

import pytest
from werkzeug.test import TestResponse

from tests.conftest import Client
from tests.examples import MESH_TOTE
from tests.intake.documents import word_document


def test_a_text_is_checked_and_nothing_is_kept(designer: Client) -> None:
    answer = designer.post("/api/check", {"text": MESH_TOTE})
    assert answer.status_code == 200
    report = answer.json
    assert report["ok"]
    assert report["sizes"] == ["S", "M", "L"]
    assert report["counts"]["proved"] == len(report["words"]) == 7
    assert designer.get("/api/designs").json["designs"] == []  # type: ignore[index]


def test_terms_said_beside_the_text_win(designer: Client) -> None:
    text = "Rnd 1: 6 dc in a magic ring. (6 dc)"
    us = designer.post("/api/check", {"text": text, "terms": "US"}).json
    uk = designer.post("/api/check", {"text": f"Terms: US\n{text}", "terms": "UK"}).json
    assert us["ok"]
    assert uk["ok"]
    assert (us["terms"], uk["terms"]) == ("US", "UK")


def test_a_checked_text_is_kept_as_a_design(designer: Client, other: Client) -> None:
    kept = designer.post("/api/designs/from-text", {"text": MESH_TOTE}).json
    assert kept["document"]["name"] == "Example"
    assert [size["name"] for size in kept["document"]["sizes"]] == ["S", "M", "L"]
    assert kept["document"]["text"] == MESH_TOTE
    assert other.get(f"/api/designs/{kept['id']}").status_code == 404
    worked = designer.post("/api/work", {"document": kept["document"]}).json
    assert worked["ok"]


def test_odd_texts_are_kept_too(designer: Client) -> None:
    text = "Pattern: #\nSizes: all, S; M, s; m\nRnd 1: 6 sc in ring."
    kept = designer.post("/api/designs/from-text", {"text": text}).json
    assert kept["document"]["text"] == text and kept["document"]["version"] == 2
    assert kept["document"]["sizes"] == [], "names that cannot be printed in another text stay in this one"
    assert kept["document"]["name"] == "Checked pattern"


def test_a_huge_text_gets_a_clear_answer(designer: Client) -> None:
    answer = designer.post("/api/check", {"text": "x" * 400_001})
    assert answer.status_code == 422
    assert "text" in answer.text


def test_a_part_of_a_crochet_along_says_what_it_goes_on_from(designer: Client) -> None:
    text = (
        "Sizes: 1, 2\nFlap\nWith RS facing, join yarn in the 5th (6th) st from the seam.\n"
        "Row 1: Ch 1, sc in same st and in next 19 (23) sts, turn. (20 (24))\nRow 2: Ch 1, sc in each st across, turn. (20 (24))"
    )
    report = designer.post("/api/check", {"text": text}).json
    assert report["ok"] and [f["code"] for f in report["findings"]] == ["edge-not-counted"]
    assert "not in this text" in report["findings"][0]["message"]


def test_a_layout_is_refuted_in_the_size_in_which_it_is_wrong(designer: Client) -> None:
    text = (
        "Sizes: S, L\nSquare (make 8 (12))\nCh 4, join into a ring.\nRnd 1: 8 sc in ring; join. (8)\n"
        "Arrange the squares in 2 rows of 4 (3 rows of 5)."
    )
    report = designer.post("/api/check", {"text": text}).json
    (finding,) = report["findings"]
    assert (finding["code"], finding["size"], finding["expected"], finding["found"]) == ("layout-count", "L", 15, 12)
    kept = designer.post("/api/designs/from-text", {"text": text}).json
    assert kept["document"]["text"].endswith("(3 rows of 5).")


def test_what_is_hardly_understood_is_answered_shortly(designer: Client) -> None:
    report = designer.post("/api/check", {"text": "Rnd 1: Nosrep suc tog, bulb wex.\n" * 900}).json
    assert not report["ok"] and len(report["findings"]) < 700
    assert report["findings"][-1]["code"] == "too-many-errors"


@pytest.mark.parametrize("mark", ["\x01", "\x85", "\x9f", "#", "\x00", "\u2028"])
def test_a_title_with_marks_that_no_name_may_have_is_kept_without_them(designer: Client, mark: str) -> None:
    text = f"Evening{mark}bag\n\nRnd 1: 6 sc in ring. (6 sts)"
    kept = designer.post("/api/designs/from-text", {"text": text})
    assert kept.status_code == 200, kept.text
    assert kept.json["document"]["text"] == text and mark not in kept.json["document"]["name"].strip("\u2028")


def test_unknown_words_are_asked_once_and_an_answer_makes_their_lines_proved(designer: Client, other: Client) -> None:
    text = (
        "Rnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 blorp in each st around. (12)\nRnd 3: Blorp in each st around. (12)"
    )
    told = designer.post("/api/assumptions", {"text": text}).json
    (question,) = told["questions"]
    assert (question["question"], question["lines"], question["assumed"]) == ("What is “blorp”?", [2, 3], True)
    assert [line["mark"] for line in told["lines"]] == ["proved", "assumed", "assumed"]
    assert told["counts"]["assumed"] == 2 and not told["ok"]
    (edit,) = question["answers"][0]["edits"]
    rows = text.split("\n")
    answered = "\n".join([*rows[: edit["line"] - 1], edit["text"] + rows[edit["line"] - 1], *rows[edit["line"] :]])
    checked = designer.post("/api/check", {"text": answered}).json
    assert checked["ok"] and checked["counts"]["proved"] == 3
    assert designer.post("/api/assumptions", {"text": answered}).json["questions"] == []
    assert designer.post("/api/assumptions", {"text": "x" * 400_001}).status_code == 422


def sent(client: Client, name: str, data: bytes) -> TestResponse:
    """A file, as a browser sends it."""
    headers = {"X-CSRF-Token": client.csrf}
    return client.client.post("/api/files", data={"file": (io.BytesIO(data), name)}, headers=headers)


def test_the_text_of_a_document_is_shown_and_nothing_is_kept(designer: Client) -> None:
    answer = sent(designer, "pouch.docx", word_document())
    assert answer.status_code == 200
    shown = answer.json
    assert shown["text"].startswith("Dobson Pouch\n\nRnd 1: 6 sc in magic ring. (6)\n")
    assert any("left out" in note for note in shown["notes"])
    assert designer.post("/api/check", {"text": shown["text"]}).json["counts"]["proved"] == 5


def test_a_file_that_cannot_be_read_says_why(designer: Client, monkeypatch: pytest.MonkeyPatch) -> None:
    answer = sent(designer, "scan.pdf", b"%PDF-1.4 nothing more")
    assert (answer.status_code, answer.json["code"]) == (422, "invalid")
    assert "damaged" in answer.json["title"]
    monkeypatch.setattr("rillstep.intake.taking.MOST_BYTES", 1_000_000)
    large = sent(designer, "large.txt", b"x" * 400_001)
    assert (large.status_code, large.json["code"]) == (422, "invalid")
    assert "400,001 characters" in large.json["title"]
    assert designer.client.post("/api/files", data={}, headers={"X-CSRF-Token": designer.csrf}).status_code == 422
