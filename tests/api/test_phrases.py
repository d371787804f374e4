"""Phrases through the API: offered where words are not understood, taught to a text, kept by a studio."""

from tests.conftest import Client

TEXT = "Sizes: S, M\n\nRnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 sc in bb of each st around. (12)\n"
BB = {"words": "in bb", "meaning": "in back loop"}


def test_words_are_offered_taught_and_then_proved(designer: Client) -> None:
    report = designer.post("/api/check", {"text": TEXT}).json
    offered = next(finding for finding in report["findings"] if finding["offer"])
    assert offered["line"] == 4
    assert "bb" in offered["offer"]["words"] and offered["offer"]["nothing"]
    edit = designer.post("/api/teach", {"text": TEXT, **BB}).json["edit"]
    assert edit == {"line": 2, "column": 1, "end_column": 1, "text": 'Means: "in bb" = in back loop\n'}
    taught = TEXT.replace("\n\n", "\n" + edit["text"] + "\n", 1)
    report = designer.post("/api/check", {"text": taught}).json
    assert report["ok"]
    assert report["counts"]["proved"] == 2 and report["counts"]["with_phrases"] == 1
    assert report["lines"][1]["phrases"] == ["in bb"]


def test_what_may_not_be_taught_is_refused_with_a_word(designer: Client) -> None:
    refused = designer.post("/api/teach", {"text": TEXT, "words": "skip a bit", "meaning": "nothing"})
    assert refused.status_code == 422
    assert "word of the craft" in refused.json["title"]
    assert designer.post("/api/phrases", {"words": "skip a bit", "meaning": "nothing"}).status_code == 422
    assert designer.get("/api/phrases").json == []


def test_a_studio_keeps_its_phrases_and_is_offered_them(designer: Client, other: Client) -> None:
    kept = designer.post("/api/phrases", BB).json
    assert designer.post("/api/phrases", {**BB, "meaning": "in front loop"}).json == {
        **BB,
        "id": kept["id"],
        "meaning": "in front loop",
    }
    assert designer.get("/api/phrases").json == [{**BB, "id": kept["id"], "meaning": "in front loop"}]
    assert other.get("/api/phrases").json == []
    repairs = [r for f in designer.post("/api/check", {"text": TEXT}).json["findings"] for r in f["repairs"]]
    mine = next(r for r in repairs if "in bb" in r["message"])
    assert mine["message"] == "From your phrases: “in bb” means “in front loop”"
    assert mine["edits"][0]["text"] == 'Means: "in bb" = in front loop\n'
    others = [r["message"] for f in other.post("/api/check", {"text": TEXT}).json["findings"] for r in f["repairs"]]
    assert not any("in bb" in message for message in others)
    assert other("DELETE", f"/api/phrases/{kept['id']}").status_code == 404
    assert designer("DELETE", f"/api/phrases/{kept['id']}").status_code == 204
    assert designer.get("/api/phrases").json == []
