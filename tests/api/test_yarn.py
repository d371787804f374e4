"""Yarn by the API and the command line: by colour and piece, what the designer asks, and wrong input with a way out."""

import json
import re
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from pydantic import ValidationError

from rillstep.demo.data import comet, graded_bag, nightfield, pouch
from rillstep.demo.scale import SimulatedScale, on_socket
from rillstep.design import facts_of
from rillstep.design.other_yarn import OtherYarn
from rillstep.design.reach import LEAST_SHARE, MOST_SHARE, SHARE_STEP, at_share
from rillstep.design.yarn_answers import LIKELY
from rillstep.document import Design, Weighing, dump
from rillstep.document.schema import ExtraYarn
from rillstep.services.crochet_along import parts_view
from rillstep.services.other_yarn import other_yarn_view
from rillstep.services.scale import NoReading, read_scale
from rillstep.services.workbench import work
from rillstep.services.yarn_reach import largest_view
from rillstep.services.yarn_report import report_lines, yarn_report
from tests.conftest import Client, as_json


def test_each_colour_and_piece_has_its_yarn() -> None:
    found = work(comet())
    (size,) = found.sizes
    assert size.yarn is not None
    slate, amber = size.yarn.colours
    assert (slate.colour, amber.colour) == ("", "B")
    # Three of thirteen rounds of the wall are amber; the base is slate.
    assert 0.15 < amber.grams / (slate.grams + amber.grams) < 0.27
    assert [piece.piece for piece in size.yarn.pieces] == ["Base", "Wall"]
    assert size.yarn.pieces[1].basis == "from the swatch in FPdc, BPdc"
    assert size.yarn.grams == pytest.approx(slate.grams + amber.grams, abs=1)
    assert found.yarn.scarce == "B: Quiet Meridian, amber" and found.yarn.largest is None
    assert amber.enough is not None and amber.enough < 90 <= (slate.enough or 0)


def test_print_parts_and_testers_show_the_same_figures(designer: Client, anyone: Client) -> None:
    document = as_json(nightfield())
    worked = designer.post("/api/work", {"document": document}).json
    yarn = {size["name"]: size["yarn"] for size in worked["sizes"]}  # type: ignore[index]
    booklet = designer.post("/api/booklet", {"document": document, "terms": "US", "size": None}).text
    for one in yarn.values():
        assert f"(about {one['grams']} g, {one['low_g']} to {one['high_g']} g)" in booklet
    design = designer.post("/api/designs", {"document": document}).json["id"]  # type: ignore[index]
    test = designer.post(f"/api/designs/{design}/tests").json["id"]  # type: ignore[index]
    for size, one in yarn.items():
        invited = designer.post(
            f"/api/tests/{test}/testers", {"name": size, "size": size, "terms": "US", "hand": "right"}
        ).json
        page = anyone.get(f"/api{invited['path']}").json  # type: ignore[index]
        assert any(f"about {one['grams']} g, {one['low_g']} to {one['high_g']} g" in line for line in page["materials"])  # type: ignore[index]
    parts = designer.post("/api/parts", {"document": document}).json["parts"]  # type: ignore[index]
    for size, one in yarn.items():
        of_parts = [int(grams) for part in parts for grams in re.findall(rf"(\d+) g \({size}\)", str(part["needs"]))]
        # What else takes yarn (60 cm tails, ends, waste) is in the whole, and in no part.
        assert len(of_parts) == len(parts) and one["grams"] * 0.93 <= sum(of_parts) <= one["grams"] + len(parts)


def test_each_part_names_the_yarn_of_its_colours() -> None:
    (size,) = work(comet()).sizes
    assert size.yarn is not None
    base, wall = (" ".join(part.needs) for part in parts_view(comet(), "US").parts)
    assert "amber" not in base and "Quiet Meridian, slate: about" in base
    amber = re.search(r"B: Quiet Meridian, amber: about (\d+) g", wall)
    assert amber is not None and int(amber[1]) == size.yarn.colours[1].grams


@pytest.fixture(scope="module")
def every_share() -> dict[int, Any]:
    design = pouch()
    facts = facts_of(design)
    return {percent: at_share(facts, percent, 1.0) for percent in range(LEAST_SHARE, MOST_SHARE + 1, SHARE_STEP)}


@pytest.mark.xdist_group("every share")
@pytest.mark.parametrize("have_g", [15.0, 40.0, 90.0, 100_000.0])
def test_how_large_agrees_with_trying_every_size(have_g: float, every_share: dict[int, Any]) -> None:
    found, tried = largest_view(pouch(), have_g), every_share
    enough = [percent for percent, made in tried.items() if made and made.needed.whole.likely_within(have_g) >= LIKELY]
    if not enough:
        assert found.problem == "It is not enough for the smallest bag of this kind."
    else:
        assert (found.percent, found.problem) == (max(enough), "")
        assert tried[found.percent] is not None and found.enough >= 90


def test_every_design_of_the_demo_is_weighed_and_agrees_with_its_weights() -> None:
    for design in (nightfield(), comet(), *map(graded_bag, ("pouch", "mesh", "clutch", "panels", "squares"))):
        found = work(design)
        assert design.weighings and found.yarn.problem == "" and found.yarn.doubted == []
        assert all(size.yarn is not None and size.yarn.weighed for size in found.sizes)
    assert graded_bag("mesh").yarns[0].strands == 2


def changed(**more: Any) -> Design:
    return pouch().model_copy(update=more)


def test_what_is_missing_is_said_with_a_way_out() -> None:
    without = pouch().yarns[0].model_copy(update={"metres_per_ball": None})
    assert "no metres: write what its label says" in work(changed(yarns=[without])).yarn.problem
    measured = without.model_copy(update={"measured_m": 10.0, "measured_g": 5.9})
    assert work(changed(yarns=[measured])).sizes[0].yarn is not None
    assert work(changed(yarns=[])).yarn.problem == "It is not known what the label of the yarn says."
    plain = changed(text=pouch().text.replace("Gauge: sc 20 sts x 22 rows = 10 cm\n", ""))
    assert work(plain).yarn.problem == "The text names no gauge."
    wrong = changed(weighings=[Weighing(of="Wall", size="Lens", grams=400)])
    assert work(wrong).yarn.doubted == ["Wall in Lens"]
    away = changed(weighings=[Weighing(of="Flap", size="Lens", grams=20), Weighing(size="Lens", grams=90, balls=0)])
    assert "Flap in Lens" in work(away).yarn.doubted
    more = changed(weighings=[Weighing(size="Lens", grams=140, balls=1)])  # more than a ball holds
    assert work(more).yarn.doubted == ["the bag in Lens"]
    left = changed(weighings=[Weighing(size="Lens", grams=74, balls=1)])  # 100 g less 74
    assert work(left).sizes[0].yarn == work(changed(weighings=[Weighing(size="Lens", grams=26)])).sizes[0].yarn


@pytest.mark.parametrize(
    ("place", "value", "says"),
    [
        (("yarns", 0, "metres_per_ball"), 0, "Yarn 1: metres a ball: must be at least 0.1"),
        (("swatches", 0, "weight_g"), -1, "Swatch 1: weight (g): must be at least 0"),
        (("weighings", 0, "grams"), 0, "Weighing 1: grams: must be at least 0.1"),
        (("extras",), [{"kind": "ruffle", "length_mm": 5}], "Also uses yarn 1: kind: choose one of: whipstitch seam"),
        (("extras",), [{"kind": "tassel"}], "Also uses yarn 1: say how long it is"),
    ],
)
def test_wrong_weights_are_refused_at_their_place(
    designer: Client, place: tuple[str | int, ...], value: object, says: str
) -> None:
    document = as_json(pouch())
    inner: Any = document
    for key in place[:-1]:
        inner = inner[key]
    inner[place[-1]] = value
    answer = designer.post("/api/work", {"document": document})
    assert answer.status_code == 422 and says in answer.json["title"]  # type: ignore[index]


def test_a_seam_follows_a_measure_in_each_size() -> None:
    plain, sewn = (
        work(changed(extras=extras)) for extras in ([], [ExtraYarn(kind="whipstitch seam", measure="height", count=8)])
    )
    more = [
        (b.yarn.grams if b.yarn else 0) - (a.yarn.grams if a.yarn else 0)
        for a, b in zip(plain.sizes, sewn.sizes, strict=True)
    ]
    assert 0 < more[0] <= more[1] <= more[2]


def test_a_yarn_that_is_carried_has_no_ends_where_the_colour_changes() -> None:
    cut, carried = (
        work(
            comet().model_copy(update={"yarns": [yarn.model_copy(update={"carried": held}) for yarn in comet().yarns]})
        )
        for held in (False, True)
    )
    assert cut.sizes[0].yarn is not None and carried.sizes[0].yarn is not None
    metres = [one.yarn.metres for one in (cut.sizes[0], carried.sizes[0]) if one.yarn is not None]
    assert metres[0] - metres[1] == pytest.approx(0.3 * 2, abs=1)  # two changes, two ends of 15 cm each


def test_thinner_yarns_stand_for_a_thick_one_by_their_weight() -> None:
    assert work(pouch()).yarn.instead == [
        "2 strands with about 340 m in 100 g", "3 strands with about 510 m in 100 g",
    ]  # fmt: skip


def test_the_command_line_answers_per_colour_piece_and_size(tmp_path: Path) -> None:
    file = tmp_path / "comet.json"
    file.write_text(dump(comet()))
    answer = subprocess.run(
        [sys.executable, "-m", "rillstep.cli", "yarn", str(file), "--json"], capture_output=True, text=True, check=False
    )
    assert answer.returncode == 0, answer.stderr
    found = json.loads(answer.stdout)
    size = found["sizes"]["One size"]
    assert [one["colour"] for one in size["colours"]] == ["", "B"]
    assert all(one["low_g"] < one["grams"] < one["high_g"] for one in (*size["colours"], *size["pieces"]))
    assert found["answers"]["scarce"] == "B: Quiet Meridian, amber"


def test_the_command_line_answers_how_large_and_in_another_yarn(tmp_path: Path) -> None:
    file, other = tmp_path / "clutch.json", tmp_path / "other.json"
    file.write_text(dump(graded_bag("clutch")))
    other.write_text('{"grams_per_ball": 50, "metres_per_ball": 60, "stitches": 16, "rows": 17}')
    command = [sys.executable, "-m", "rillstep.cli", "yarn", str(file), "--have", "40", "--other", str(other)]
    answer = subprocess.run([*command, "--json"], capture_output=True, text=True, check=False)
    assert answer.returncode == 0, answer.stderr
    found = json.loads(answer.stdout)
    assert found["largest"]["percent"] == largest_view(graded_bag("clutch"), 40.0).percent
    assert found["other"]["counts"]["sizes"][0]["width"] == "27.5 cm"
    other.write_text('{"grams_per_ball": 0, "metres_per_ball": 60, "hook": 5}')
    refused = subprocess.run(command, capture_output=True, text=True, check=False)
    assert refused.returncode == 2 and "grams_per_ball: must be at least 0.1" in refused.stderr
    assert "hook: this is not known here" in refused.stderr


def test_the_report_of_the_command_line_can_be_read() -> None:
    lines = list(report_lines(yarn_report(graded_bag("clutch"), 40.0, OTHER)))
    assert lines[0].startswith("Pocket: ") and "% of the sample" in lines[3]
    assert lines[4] == "in the other yarn: sc 16 x 17 over 10, as it was counted"
    assert any(line.startswith("  the same counts: Pocket: 27.5 cm x 19.4 cm, ") for line in lines)


OTHER = OtherYarn(grams_per_ball=50, metres_per_ball=60, hook_mm=5, stitches=16, rows=17)


def test_another_yarn_in_both_ways_is_a_design_that_is_proved() -> None:
    design = graded_bag("clutch").model_copy(update={"made_mm": {"width": 221.0}})
    found = other_yarn_view(design, OTHER)
    assert found.measured and found.goes.startswith("1 swatch and 1 weighing and 1 measure of the sample of the yarn")
    before = {one.name: one.mm for one in work(design).bag}
    for way, kept in ((found.counts, False), (found.centimetres, True)):
        assert way is not None and way.design is not None and way.changes
        after = work(way.design)
        assert after.ok and after.gauge is not None and (after.gauge.sts, after.gauge.rows) == (16, 17)
        widths = next(one.mm for one in after.bag if one.name == "width")
        if kept:
            assert widths == pytest.approx(before["width"], abs=7)
        else:
            assert widths == pytest.approx([(mm or 0.0) * 20 / 16 for mm in before["width"]], rel=0.002)
        shown = [size.yarn for size in way.sizes if size.yarn is not None]
        assert len(shown) == 3 and shown[0].grams < shown[1].grams < shown[2].grams
        assert (way.design.yarns[0].metres_per_ball, way.design.swatches, way.design.weighings) == (60, [], [])
    # The same stitch count in a yarn twice as heavy a metre, on stitches a quarter larger.
    plain = [size.yarn.grams for size in work(design).sizes if size.yarn is not None]
    assert found.counts is not None
    thick = [size.yarn.grams for size in found.counts.sizes if size.yarn is not None]
    assert thick == pytest.approx([grams * (50 / 60) / (100 / 170) * 20 / 16 for grams in plain], rel=0.05)


def test_a_gauge_that_is_only_expected_is_not_taken() -> None:
    found = other_yarn_view(pouch(), OTHER.model_copy(update={"stitches": None, "rows": None}))
    assert not found.measured and found.sts < 20
    assert all(way is not None and way.design is None for way in (found.counts, found.centimetres))
    with pytest.raises(ValidationError, match="or leave both out"):
        OtherYarn(grams_per_ball=50, metres_per_ball=60, stitches=16)
    nothing = other_yarn_view(changed(yarns=[]), OTHER)
    assert nothing.problem and nothing.counts is None


def test_the_label_of_the_other_yarn_takes_the_place_of_the_one_before() -> None:
    other = OTHER.model_copy(update={"name": "Slow Zenith", "weight_class": 5})
    found = other_yarn_view(comet(), other).counts
    assert found is not None and found.design is not None
    slate, amber = found.design.yarns
    assert (slate.name, slate.weight_class, slate.fibre, slate.have_g) == ("Slow Zenith", 5, "", None)
    assert (amber.name, amber.colour) == ("Slow Zenith, B", "B")


def test_with_another_hook_alone_the_swatches_stay_as_of_their_hook() -> None:
    design = pouch()
    yarn = design.yarns[0]
    assert yarn.metres_per_ball is not None
    same = OTHER.model_copy(
        update={"grams_per_ball": yarn.grams_per_ball, "metres_per_ball": yarn.metres_per_ball, "hook_mm": 6.0}
    )
    found = other_yarn_view(design, same).counts
    assert found is not None and found.design is not None and found.design.weighings == []
    assert len(found.design.swatches) == len(design.swatches) == 1
    view = work(found.design)
    assert view.hook is not None and view.hook.mm == 6.0
    assert found.design.swatches[0].hook_mm == (work(design).hook or view.hook).mm
    assert "its size does not" in view.swatches[0].tells[0]


SWATCH = nightfield().swatches[0]


@pytest.mark.parametrize(
    ("more", "tells"),
    [
        ({}, ["It has the gauge of the text."]),
        ({"width_mm": 130.0}, ["its stitches are 8 % wider", "take a 4 mm hook and draw up each loop 0.5 mm higher"]),
        ({"height_mm": 112.0}, ["its rows are 8 % lower", "or draw up each loop 0.7 mm higher"]),
        ({"raw_width_mm": 116.0}, ["Blocking changes it by +3 % in width.", "Before it, the bag is: Atlas 23.2 cm wide"]),
        ({"hanging_mm": 128.0, "load_g": 200.0}, ["with 200 g it is 5 % longer", "Atlas 27.4 cm high with 0.8 kg in it"]),
        ({"hook_mm": 6.0}, ["Made with 6 mm, while the text is worked with 4.5 mm"]),
        ({"stitch": "sc"}, []),
    ],
)  # fmt: skip
def test_a_swatch_tells_of_tension_blocking_and_loads(more: dict[str, Any], tells: list[str]) -> None:
    found = work(nightfield().model_copy(update={"swatches": [SWATCH.model_copy(update=more)]}))
    said = " ".join(found.swatches[0].tells)
    assert all(words in said for words in tells) and bool(said) == bool(tells)


def test_a_swatch_with_another_hook_tells_of_the_yarn_and_not_of_the_size() -> None:
    design = comet().model_copy(
        update={"text": comet().text.replace("Gauge: post rib 16 sts x 8.5 rows = 10 cm\n", "")}
    )
    rib = design.swatches[1].model_copy(update={"hook_mm": 9.0, "width_mm": 200.0, "weight_g": 15.0})
    same = work(design.model_copy(update={"swatches": [design.swatches[0], rib.model_copy(update={"hook_mm": None})]}))
    other = work(design.model_copy(update={"swatches": [design.swatches[0], rib]}))
    grams = [each.sizes[0].yarn.pieces[1].grams for each in (same, other) if each.sizes[0].yarn is not None]
    assert grams[0] != grams[1]


def test_the_scale_is_read_when_it_has_come_to_rest() -> None:
    scale = SimulatedScale()
    with on_socket(scale) as address:
        scale.put(23.4)
        assert read_scale(address) == pytest.approx(23.4, abs=0.4)
        scale.tare()
        with pytest.raises(NoReading, match="nothing on the scale"):
            read_scale(address)
        scale.shaken = True
        with pytest.raises(NoReading, match="does not come to rest"):
            read_scale(address)
        scale.shaken, scale.silent = False, True
        with pytest.raises(NoReading, match="stopped talking"):
            read_scale(address)
        scale.silent, scale.flat = False, True
        with pytest.raises(NoReading, match="battery of the scale is flat"):
            read_scale(address)
    with pytest.raises(NoReading, match="not there"):
        read_scale(address)


def test_without_a_scale_the_weight_is_typed(designer: Client) -> None:
    assert designer.get("/api/craft").json["has_scale"] is False  # type: ignore[index]
    assert designer.get("/api/scale").json == {"grams": None, "problem": "No scale is connected here. Type the weight."}


def test_weighing_what_was_predicted_changes_nothing() -> None:
    """Ends, waste and what else takes yarn are in the estimate, and so in what a weighing of all of it is held against."""
    tassels = ExtraYarn(kind="tassel", length_mm=80, count=4)
    for extras in ([], [tassels]):
        design = nightfield().model_copy(update={"weighings": [], "swatches": [], "extras": extras})
        size = work(design).sizes[0]
        assert size.yarn is not None
        weighed = Weighing(size=size.name, grams=size.yarn.own_grams)
        after = work(design.model_copy(update={"weighings": [weighed]})).sizes[0].yarn
        assert after is not None and abs(after.own_grams - size.yarn.own_grams) <= 1


def test_strands_that_the_text_holds_together_are_taken_and_pieces_that_are_not_known_are_named() -> None:
    yarn = nightfield().yarns[0].model_copy(update={"colour": "", "strands": 1})
    text = "Gauge: sc 20 sts x 20 rows = 10 cm\nPanel\nCh 41.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (40)\n"
    text += "Rows 2-40: Ch 1, sc in each st across; turn. (40)\n"
    grams = []
    for head in ("", "Yarn: worsted cotton, two strands held together\n"):
        (size,) = work(Design(text=head + text, yarns=[yarn])).sizes
        assert size.yarn is not None and size.yarn.missing == []
        grams.append(size.yarn.grams)
    assert grams[1] == pytest.approx(2 * grams[0], rel=0.05)
    strap = (
        "Strap\nCh 7.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (6)\nRow 2: Glorp in each st; turn.\n"
    )
    (size,) = work(Design(text=text + strap, yarns=[yarn])).sizes
    assert size.yarn is not None and size.yarn.missing == ["Strap"]


def test_a_button_loop_makes_a_panel_no_wider() -> None:
    text = "Gauge: sc 20 sts x 20 rows = 10 cm\nPanel\nCh 22.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (21)\n"
    text += "Rows 2-37: Ch 1, sc in each st across; turn. (21)\n"
    text += "Row 38: Ch 1, sc in next 10 sts, (sc, ch 8, sc) in next st, sc in next 10 sts; turn. (22 sc)\n"
    widths = {
        one.name: one.mm for one in work(Design(text=text)).bag if one.name in ("width", "Panel.width") and one.mm[0]
    }
    assert all(mm[0] == pytest.approx(105, abs=6) for mm in widths.values()) and widths


def test_a_button_loop_on_a_bag_in_rounds_is_no_opening_for_a_handle() -> None:
    text = "Gauge: sc 20 sts x 22 rows = 10 cm\nBase\nMake a magic ring.\nRnd 1: 6 sc in ring. (6)\n"
    text += "Rnd 2: 2 sc in each st around. (12)\nRnd 3: [Sc in next st, inc] 6 times. (18)\n"
    text += "Rnd 4: [Sc in next 2 sts, inc] 6 times. (24)\nBody\nRnds 5-20: Sc in each st around. (24)\n"
    text += "Rnd 21: Sc in next 23 sts, ch 8, sc in last st.\nRnd 22: Sc in each st around.\n"
    design = work(Design(text=text))
    assert design.ok
    assert {one.name: one.mm for one in design.bag}["width"] == [pytest.approx(60)]
