"""A text that was written elsewhere, through the API: proved, refuted, kept."""

from tests.conftest import Client
from tests.examples import MESH_TOTE


def test_a_text_is_checked_and_nothing_is_kept(designer: Client) -> None:
    answer = designer.post("/api/check", {"text": MESH_TOTE})
    assert answer.status_code == 200
    report = answer.json
    assert report["ok"]
    assert report["sizes"] == ["S", "M", "L"]
    assert report["proved_lines"] == report["total_lines"] == len(report["words"]) == 7
    assert designer.get("/api/designs").json == []


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
    assert kept["document"]["text"] == MESH_TOTE.strip()
    assert other.get(f"/api/designs/{kept['id']}").status_code == 404
    worked = designer.post("/api/work", {"document": kept["document"]}).json
    assert worked["ok"]


def test_odd_texts_are_kept_too(designer: Client) -> None:
    text = "Pattern: #\nSizes: all, S; M, s; m\nRnd 1: 6 sc in ring."
    kept = designer.post("/api/designs/from-text", {"text": text}).json
    assert [size["name"] for size in kept["document"]["sizes"]] == ["Size 1", "Size 2", "Size 3"]
    assert kept["document"]["name"] == "Checked pattern"


def test_a_huge_text_gets_a_clear_answer(designer: Client) -> None:
    answer = designer.post("/api/check", {"text": "x" * 400_001})
    assert answer.status_code == 422
    assert "text" in answer.text
