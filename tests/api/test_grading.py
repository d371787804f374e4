"""A kept text through the API: worked, measured and graded from itself, and from nothing else."""

import json
import re
from pathlib import Path
from typing import Any

import pytest

from rillstep.core.printing.unnaming import without_names
from rillstep.core.settling import read
from rillstep.demo.data import pouch
from tests.conftest import Client, as_json
from tests.examples import VERSION_1

POUCH = (Path(__file__).parents[1] / "grading_texts" / "pouch.txt").read_text()
PLAIN = without_names(POUCH, read(POUCH))


def kept(designer: Client, text: str = PLAIN) -> dict[str, Any]:
    return designer.post("/api/designs/from-text", {"text": text}).json  # type: ignore[no-any-return]


def with_sizes(document: dict[str, Any], *sizes: dict[str, Any]) -> dict[str, Any]:
    return {**document, "sizes": list(sizes)}


def test_a_kept_text_has_its_own_measures_and_no_numbers_of_a_tote(designer: Client) -> None:
    work = designer.post("/api/work", {"document": kept(designer)["document"]}).json
    assert work["ok"] and work["text"] == PLAIN
    (size,) = work["sizes"]
    assert size == {"name": "One size", "yarn": None, "holds": []}
    bag = {one["name"]: one["shown"] for one in work["bag"]}
    assert bag["width"] == ["12.0 cm"] and bag["Cord.length"] == ["55.0 cm"]
    assert work["gauge"]["stitch"] == "sc" and work["gauge"]["sts"] == 20


def test_nothing_is_assumed_of_yarn_and_gauge(designer: Client) -> None:
    text = re.sub("Gauge:.*\n", "", PLAIN)
    document = kept(designer, text)["document"]
    work = designer.post("/api/work", {"document": document}).json
    assert work["gauge"] is None and work["bag"] == [] and work["sizes"][0]["yarn"] is None
    booklet = designer.post("/api/booklet", {"document": document, "terms": "US", "size": None}).json
    assert booklet["materials"] == ["Stitch marker, tapestry needle, scissors, tape measure"]
    assert booklet["measures"] == [] and booklet["proved"]
    grading = designer.post("/api/grading", {"document": document}).json
    assert "Gauge:" in grading["problem"] and grading["numbers"] == []
    parts = designer.post("/api/parts", {"document": document, "terms": "US", "size": None}).json
    assert all(size["grams"] is None for part in parts["parts"] for size in part["sizes"])


def test_its_ways_and_its_sizes_come_from_the_text(designer: Client) -> None:
    document = kept(designer)["document"]
    grading = designer.post("/api/grading", {"document": document}).json
    assert {way["label"] for way in grading["ways"]} == {
        "wall rounds +1", "cord chain +1", "base rounds +4, wall repeats +3",
    }  # fmt: skip
    assert [(n["name"], n["values"], n["section"]) for n in grading["numbers"]] == [
        ("base rounds", [8], "Base"), ("wall rounds", [14], "Wall"), ("wall repeats", [6], "Wall"),
        ("cord chain", [110], "Cord"),
    ]  # fmt: skip
    assert {held["reason"] for held in grading["held"]} >= {"it stands inside a repeat"}
    wanted = with_sizes(
        document, {"name": "Small"}, {"name": "Large", "targets_mm": {"width": 180, "Cord.length": 700}}
    )
    graded = designer.post("/api/grading/sizes", {"document": wanted}).json
    assert graded["proved"] and graded["sizes"] == ["Small", "Large"] and graded["notes"] == []
    assert [(t["result"], t["within"]) for t in graded["targets"]] == [("18.0 cm", True), ("70.0 cm", True)]
    assert document["text"] == PLAIN, "nothing is changed by asking"
    lines = PLAIN.split("\n")
    for change in graded["changes"]:
        assert lines[change["line"] - 1 :][: len(change["before"])] == change["before"]
    after = {**wanted, "text": graded["text"]}
    saved = designer.put(f"/api/designs/{kept(designer)['id']}", {"base": 1, "document": after})
    assert saved.status_code == 200 and saved.json["revision"] == 2
    assert designer.post("/api/work", {"document": after}).json["outline"]["sizes"] == ["Small", "Large"]


def test_what_cannot_be_graded_says_why_and_changes_nothing(designer: Client) -> None:
    document = kept(designer)["document"]
    wish = with_sizes(document, {"name": "S"}, {"name": "L", "targets_mm": {"drop": 100}})
    graded = designer.post("/api/grading/sizes", {"document": wish}).json
    assert "“drop” is not measured" in graded["problem"] and graded["text"] == PLAIN and graded["changes"] == []
    twice = with_sizes(document, {"name": "S"}, {"name": "s"})
    assert designer.post("/api/grading/sizes", {"document": twice}).status_code == 422
    beyond = with_sizes(document, {"name": "L", "targets_mm": {"width": -3}})
    answer = designer.post("/api/grading/sizes", {"document": beyond})
    assert answer.status_code == 422 and answer.json["faults"][0]["path"] == "$.sizes[0].targets_mm.width"


def test_sizes_of_a_text_are_renamed_moved_and_taken_out(designer: Client) -> None:
    document = kept(designer)["document"]
    wish = with_sizes(document, {"name": "S"}, {"name": "L", "targets_mm": {"width": 180}})
    text = designer.post("/api/grading/sizes", {"document": wish}).json["text"]

    def resized(sizes: list[str], sources: list[int]) -> dict[str, Any]:
        body = {"text": text, "sizes": sizes, "sources": sources}
        return designer.post("/api/text/sizes", body).json  # type: ignore[no-any-return]

    assert "Sizes: Little, L" in resized(["Little", "L"], [0, 1])["text"]
    assert "Number: base rounds = 12 (8)" in resized(["L", "S"], [1, 0])["text"]
    assert "Number: base rounds = 12\n" in resized(["L"], [1])["text"]
    assert resized(["L", "l"], [0, 1])["problem"] is not None
    assert resized(["L"], [7]) == {"problem": "Each size begins as one that the text has.", "text": text}


def test_a_gauge_is_written_into_the_text(designer: Client) -> None:
    bare = re.sub("Gauge:.*\n", "", PLAIN)
    body = {"text": bare, "stitch": "sc", "sts": 20, "rows": 22, "units": "cm"}
    text = designer.post("/api/text/gauge", body).json["text"]
    assert text == bare.replace("Units: cm\n", "Units: cm\nGauge: sc 20 sts x 22 rows = 10 cm\n")
    again = designer.post("/api/text/gauge", {**body, "text": PLAIN, "sts": 18}).json["text"]
    assert again == PLAIN.replace("sc 20 sts x 22 rows", "sc 18 sts x 22 rows"), "that of a chain stays"


def test_an_open_page_that_sends_version_1_is_understood(designer: Client) -> None:
    """A tab that was opened before the server was renewed saves what it holds, and it becomes the text."""
    document = json.loads((VERSION_1 / "elsewhere.json").read_text())
    made = designer.post("/api/designs", {"document": document})
    assert made.status_code == 200 and made.json["document"]["version"] == 2
    assert made.json["document"]["text"] == document["text"]
    work = designer.post("/api/work", {"document": document}).json
    assert work["text"] == document["text"] and "24.7" not in json.dumps(work["bag"])
    wrong = designer.post("/api/work", {"document": document | {"hook_mm": -1}})
    assert wrong.status_code == 422 and "Hook (mm): must be more than 0" in wrong.json["title"]


@pytest.mark.parametrize("route", ["/api/grading", "/api/grading/sizes", "/api/text/sizes", "/api/text/gauge"])
def test_strangers_are_refused(anyone: Client, route: str) -> None:
    assert anyone.post(route, {}).status_code in (401, 403, 422)


def test_a_tester_of_a_graded_text_gets_her_size(designer: Client) -> None:
    document = kept(designer)["document"]
    wish = with_sizes(document, {"name": "S"}, {"name": "L", "targets_mm": {"width": 180}})
    graded = designer.post("/api/grading/sizes", {"document": wish}).json
    made = designer.post("/api/designs", {"document": {**wish, "text": graded["text"]}}).json
    test = designer.post(f"/api/designs/{made['id']}/tests", {}).json
    body = {"name": "Mira", "size": "L", "terms": "US", "hand": "right"}
    invited = designer.post(f"/api/tests/{test['id']}/testers", body).json
    page = designer.get(f"/api{invited['path']}").json
    assert page["size"] == "L" and any("72" in json.dumps(step) for step in page["steps"])
    report = {"measures_mm": {"width": 183}, "grams": 90}
    designer.put(f"/api{invited['path']}/report", report)
    tests = designer.get(f"/api/designs/{made['id']}/tests").json
    compared = tests["tests"][0]["testers"][0]["compared"]
    assert [(one["label"], one["predicted"], one["difference"]) for one in compared] == [
        ("Width, lying flat", "18.0 cm", "+0.3 cm")
    ]


def test_names_are_written_changed_and_held_by_the_designer(designer: Client) -> None:
    document = {**kept(designer)["document"], "sizes": [{"name": "One size", "locks": {"wall rounds": 14}}]}

    def change(**how: object) -> dict[str, Any]:
        answer = designer.post("/api/names", {"document": document, "change": how})
        assert answer.status_code == 200, answer.text
        return answer.json  # type: ignore[no-any-return]

    document = change(verb="write")["document"]
    assert "Number: wall rounds = " in document["text"]
    grading = designer.post("/api/grading", {"document": document}).json
    assert grading["named"] and grading["plain"] and all(way["ghosts"] for way in grading["ways"] if way["moves"][:1])
    document = change(verb="rename", name="wall rounds", other="body rounds")["document"]
    assert document["sizes"][0]["locks"] == {"body rounds": 14} and "body rounds}" in document["text"]
    refused = change(verb="rename", name="body rounds", other="rnd")
    assert "letters, digits and spaces" in refused["problem"] and refused["document"]["text"] == document["text"]
    plain = next(one for one in grading["plain"] if one["section"] == "Wall" and one["value"] == 2)
    named = change(verb="name", line=plain["line"], column=plain["column"], other="eyelet gap")
    assert named["problem"] is None and "Number: eyelet gap = 2" in named["document"]["text"]
    held = change(verb="hold", name="body rounds")
    assert held["problem"] is None and held["document"]["sizes"][0]["locks"] == {}


def test_any_bag_is_drawn_to_scale(designer: Client) -> None:
    document = kept(designer)["document"]
    drawn = designer.post("/api/drawings", {"document": document}).json
    assert drawn["problem"] is None and drawn["sizes"] == ["One size"]
    views = {view["title"]: view for view in drawn["views"]}
    assert set(views) == {"The bag as it lies", "The base from above", "Cord"}
    (bag,) = views["The bag as it lies"]["sizes"]
    assert bag["spans"][0]["text"] == "12.0 cm"
    assert {one["line"] for one in bag["outlines"]} <= set(range(1, 1 + PLAIN.count("\n")))
    design = designer.post("/api/designs", {"document": document}).json["id"]
    picture = designer.get(f"/api/designs/{design}/picture.svg")
    assert picture.mimetype == "image/svg+xml" and picture.text.startswith("<svg") and "<path" in picture.text
    bare = {**document, "text": re.sub("Gauge:.*\n", "", PLAIN)}
    assert "names no gauge" in designer.post("/api/drawings", {"document": bare}).json["problem"]


def test_the_gauge_comes_from_what_was_made(designer: Client) -> None:
    document = kept(designer)["document"]
    empty = designer.post("/api/gauge/sample", {"document": document}).json
    assert empty["sts"] is None and {"width", "height", "Cord.length"} <= {one["name"] for one in empty["measures"]}
    document["made_mm"] = {"width": 133.3, "height": 66.7, "mouth": 133.3, "depth": 90.0}
    found = designer.post("/api/gauge/sample", {"document": document}).json
    assert (found["stitch"], found["span"], round(found["sts"])) == ("sc", 10, 18)
    assert 0.1 < found["sts_error"] < 0.5 and found["rows_error"] > 0.2
    said = {one["name"]: one["says"] for one in found["measures"] if one["says"]}
    assert set(said) <= {"height", "depth"} and any("rows: was it measured" in words for words in said.values())
    bare = {**document, "text": re.sub("Gauge:.*\n", "", PLAIN), "made_mm": {"width": 120, "height": 73}}
    assert designer.post("/api/gauge/sample", {"document": bare}).json["sts"] == 20.0
    broken = {**document, "text": PLAIN.replace("48 sts", "49 sts", 1)}
    assert "every line" in designer.post("/api/gauge/sample", {"document": broken}).json["problem"]


def test_a_size_is_set_as_steps_of_growth(designer: Client) -> None:
    document = as_json(pouch())
    grading: dict[str, Any] = designer.post("/api/grading", {"document": document}).json  # type: ignore[assignment]
    at = next(n for n, way in enumerate(grading["ways"]) if list(way["step"]) == ["wall rounds"])
    base = next(one["values"][0] for one in grading["numbers"] if one["name"] == "wall rounds")
    steps = [0] * at + [5]
    found = designer.post("/api/grading/steps", {"document": document, "steps": steps}).json
    assert found["problem"] is None and found["locks"]["wall rounds"] == base + 5  # type: ignore[index]
    document["sizes"][1] |= {"locks": {"wall rounds": base + 5}, "targets_mm": {}}
    graded: dict[str, Any] = designer.post("/api/grading/sizes", {"document": document}).json  # type: ignore[assignment]
    values = next(one["values"] for one in graded["numbers"] if one["name"] == "wall rounds")
    assert graded["proved"] and values[1] == base + 5
    below = designer.post("/api/grading/steps", {"document": document, "steps": [0] * at + [-500]}).json
    assert "less than nothing" in below["problem"]  # type: ignore[index]
    many = designer.post("/api/grading/steps", {"document": document, "steps": [1] * 200}).json
    assert "ways only" in many["problem"]  # type: ignore[index]


def test_a_measure_that_counts_more_is_met_first(designer: Client) -> None:
    document = as_json(pouch())
    # Width comes in steps of 6 cm and takes the height of nothing else with it, but for the eyelets: 15 cm lies between.
    document["sizes"] = [document["sizes"][0], {**document["sizes"][1], "targets_mm": {"width": 150, "height": 101}}]

    def made(weights: dict[str, float]) -> dict[str, str]:
        answer: dict[str, Any] = designer.post("/api/grading/sizes", {"document": document | {"weights": weights}}).json  # type: ignore[assignment]
        return {one["name"]: one["result"] for one in answer["targets"]}

    assert set(made({})) == {"width", "height"}
    ignored = made({"width": 0})
    assert ignored["height"] == "10.0 cm" and ignored["width"] == "12.0 cm"  # as in the sample: it does not count


def test_the_hook_is_written_into_the_text(designer: Client) -> None:
    def text(before: str, mm: float) -> str:
        return str(designer.post("/api/text/hook", {"text": before, "hook_mm": mm}).json["text"])  # type: ignore[index]

    assert "Sizes: Lens, Eyepiece, Barlow\nHook: 4.5 mm\nNumber" in text(pouch().text, 4.5)
    assert "Hook: 3.75 mm for the wall" in text(
        "Pattern: A\nHook: 5 mm (US H/8) for the wall\nRnd 1: 6 sc in ring.", 3.75
    )
    assert "Hook: 3.75 mm" in text("Pattern: A\nHook: a thin one\nRnd 1: 6 sc in ring.", 3.75)
    with_text = designer.post("/api/work", {"document": as_json(pouch()) | {"text": text(pouch().text, 6)}}).json
    assert with_text["hook"] == {"mm": 6.0, "letter": "J/10", "of_text": True}  # type: ignore[index]


def test_a_smaller_size_stands_before_the_sample_and_the_sample_stays_the_sample(designer: Client) -> None:
    document = kept(designer)["document"]
    sizes = [
        {"name": "One size"},
        {"name": "Large", "targets_mm": {"width": 180}},
        {"name": "Small", "targets_mm": {"height": 60}},
    ]
    document = {**with_sizes(document, *sizes), "sample": "One size"}
    graded = designer.post("/api/grading/sizes", {"document": document}).json
    assert graded["sizes"] == ["Small", "One size", "Large"] and graded["notes"] == [] and graded["proved"]
    assert {(one["size"], one["result"]) for one in graded["targets"]} == {("Large", "18.0 cm"), ("Small", "5.9 cm")}
    again = {**document, "text": graded["text"], "sizes": [{"name": name} for name in graded["sizes"]]}
    work = designer.post("/api/work", {"document": again}).json
    assert next(one["shown"] for one in work["bag"] if one["name"] == "height")[0] == "5.9 cm"
    # A fourth from the sample in the middle; what is wanted of the sample itself does not count.
    again["sizes"] = [*again["sizes"], {"name": "Tiny", "targets_mm": {"height": 50}}]
    again["sizes"][1] = {"name": "One size", "targets_mm": {"width": 400}}
    fourth = designer.post("/api/grading/sizes", {"document": again}).json
    assert fourth["sizes"] == ["Tiny", "Small", "One size", "Large"] and fourth["notes"] == []
    assert [one["size"] for one in fourth["targets"]] == ["Tiny"]
    shape = designer.post("/api/grading", {"document": {**again, "text": fourth["text"]}}).json
    assert shape["sample"] == "One size" and shape["sizes"] == fourth["sizes"]
    # The first size is deleted, and the sample, too, once another is named.
    other = {"text": fourth["text"], "sizes": ["Tiny", "Small", "Large"], "sources": [0, 1, 3]}
    without = designer.post("/api/text/sizes", other).json
    assert without["problem"] is None
    shape = designer.post("/api/grading", {"document": {**again, "text": without["text"], "sample": "Small"}}).json
    assert shape["problem"] is None and shape["sample"] == "Small"


def test_steps_are_uneven_from_the_smallest_size_to_the_largest(designer: Client) -> None:
    """As first, second and third: even steps in any order of the sizes."""
    document = kept(designer)["document"]
    wanted = [
        {"name": "One size"},
        {"name": "M", "targets_mm": {"height": 110}},
        {"name": "L", "targets_mm": {"height": 140}},
    ]
    graded = designer.post("/api/grading/sizes", {"document": with_sizes(document, *wanted)}).json
    for order in ([0, 1, 2], [1, 0, 2], [2, 0, 1]):
        names = [graded["sizes"][at] for at in order]
        text = designer.post("/api/text/sizes", {"text": graded["text"], "sizes": names, "sources": order}).json["text"]
        growth = designer.post("/api/grading", {"document": {**document, "text": text}}).json["growth"]
        assert [row["uneven"] for row in growth if row["label"] == "Height"] == [False], order
