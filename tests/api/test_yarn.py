"""Yarn by the API and the command line: by colour and piece, what the designer asks, and wrong input with a way out."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from rillstep.demo.data import comet, graded_bag, nightfield, pouch
from rillstep.demo.scale import SimulatedScale, on_socket
from rillstep.document import Design, Weighing, dump
from rillstep.document.schema import ExtraYarn
from rillstep.services.scale import NoReading, read_scale
from rillstep.services.workbench import work
from rillstep.services.yarn_reach import LEAST_SHARE, MOST_SHARE, SHARE_STEP, at_share, largest_of
from rillstep.services.yarn_views import LIKELY
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


def test_print_parts_and_testers_show_the_same_figures(designer: Client) -> None:
    document = as_json(nightfield())
    worked = designer.post("/api/work", {"document": document}).json
    yarn = {size["name"]: size["yarn"] for size in worked["sizes"]}  # type: ignore[index]
    booklet = designer.post("/api/booklet", {"document": document, "terms": "US", "size": None}).text
    for one in yarn.values():
        assert f"(about {one['grams']} g, {one['low_g']} to {one['high_g']} g)" in booklet
    design = designer.post("/api/designs", {"document": document}).json["id"]  # type: ignore[index]
    test = designer.post(f"/api/designs/{design}/tests").json  # type: ignore[index]
    shown = {size["name"]: size["yarn_g"] for size in test["sizes"]} if "sizes" in test else {}  # type: ignore[operator]
    for name, grams in shown.items():
        assert grams == [yarn[name]["grams"], yarn[name]["low_g"], yarn[name]["high_g"]]


@pytest.mark.parametrize("have_g", [15.0, 40.0, 90.0, 100_000.0])
def test_how_large_agrees_with_trying_every_size(have_g: float) -> None:
    design = pouch()
    found = largest_of(design, have_g)
    tried = {percent: at_share(design, percent) for percent in range(LEAST_SHARE, MOST_SHARE + 1, SHARE_STEP)}
    enough = [percent for percent, made in tried.items() if made and made[1].whole.likely_within(have_g) >= LIKELY]
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
