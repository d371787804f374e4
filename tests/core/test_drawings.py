"""Drawings: as wide and as high as the measures, each round at its place, and nothing of what is not known."""

import math
from pathlib import Path

import pytest

from rillstep.core.drawings import Drawing, drawings_of, silhouette
from rillstep.core.measures import BagMeasures
from rillstep.core.proof import prove_text
from rillstep.demo.texts import bag_text
from rillstep.document.ready import READY_BAGS
from tests.core.test_bag_measures import panel

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
GAUGE = "Pattern: Bag\nGauge: sc 20 sts x 20 rows = 10 cm\n\n"


def bag_of(text: str) -> BagMeasures:
    bag = prove_text(text).bag
    assert bag is not None
    return bag


def views(text: str, size: int = 0) -> dict[str, Drawing]:
    return {one.title: one for one in drawings_of(bag_of(text), size)}


def width(drawing: Drawing) -> float:
    left, _, right, _ = drawing.box
    return right - left


def test_a_tote_is_drawn_round_by_round_in_each_size() -> None:
    text = bag_text("nightfield")
    bag = bag_of(text)
    by_name = {one.called: one.mm for one in bag.measures}
    for size in range(4):
        found = {one.title: one for one in drawings_of(bag, size)}
        lying, base = found["The bag as it lies"], found["The base from above"]
        assert width(lying) == pytest.approx(by_name["width"][size])
        left, low, right, high = base.box
        assert right - left == pytest.approx(by_name["base length"][size])
        assert high - low == pytest.approx(by_name["depth"][size])
        rounds = {(one.line, one.label) for one in lying.outlines if one.kind == "work"}
        assert len(rounds) == (25, 29, 34, 39)[size] + 5
        (handle,) = [one for one in lying.outlines if one.kind == "handle"]
        assert text.split("\n")[handle.line - 1].startswith("Rnd 3: Ch 1, hdc in same st, hdc in next {before")
        inner = [y for x, y in handle.points if abs(x) < 0.1]
        foot = min(y for _, y in handle.points)
        assert min(inner) - foot == pytest.approx(by_name["drop"][size], abs=0.1)


def test_a_mesh_is_wider_than_its_base_and_a_mouth_is_drawn_in() -> None:
    rows = "\n".join(
        f"Rnd {at}: Ch 1, sc in each st around; join. — 40 sts" for at in range(2, 6)
    )  # fmt: skip
    text = (
        GAUGE + "Section: Body (joined rounds, wall)\nCh 40, join into a ring.\n"
        "Rnd 1: Ch 1, sc in each ch around; join. — 40 sts\n"
        + rows
        + "\nRnd 6: Ch 1, [sc in next 3 sts, sc2tog] 8 times; join. — 32 sts\n"
    )
    lying = views(text)["The bag as it lies"]
    widths = [max(x for x, _ in one.points) - min(x for x, _ in one.points) for one in lying.outlines]
    assert widths[0] == pytest.approx(100) and widths[-1] == pytest.approx(80)
    outline = silhouette(lying)
    assert max(x for x, _ in outline) == pytest.approx(50)


def test_panels_folds_and_straps_lie_flat() -> None:
    ready = {bag.key: views(bag.text) for bag in READY_BAGS}
    front, lying = ready["two_panels"]["Front"], ready["two_panels"]["The bag as it lies"]
    assert front.box == pytest.approx(lying.box) and lying.notes == ("The back is alike.",)
    clutch = ready["folded_clutch"]
    assert [one.kind for one in clutch["Panel"].outlines].count("fold") >= 2
    flaps = [one for one in clutch["The bag as it lies"].outlines if one.kind == "flap"]
    body = max(y for one in clutch["The bag as it lies"].outlines if one.kind == "work" for _, y in one.points)
    assert flaps and max(y for one in flaps for _, y in one.points) == pytest.approx(body, rel=0.02)
    assert width(ready["round_pouch"]["Cord"]) == pytest.approx(600)
    assert ready["round_pouch"]["The base from above"].outlines[0].label == "Rnd 8"


def test_a_disc_is_round() -> None:
    base = views(next(bag for bag in READY_BAGS if bag.key == "round_pouch").text)["The base from above"]
    radii = {round(math.dist((0, 0), point), 3) for point in base.outlines[0].points}
    assert len(radii) == 1 and radii.pop() == pytest.approx(base.box[2], abs=0.001)


def test_what_is_not_known_is_not_drawn() -> None:
    text = GAUGE + panel("Section: Front", 30, 36) + panel("Section: Back", 30, 36)
    found = views(text)  # it is not told how they are joined
    assert "The bag as it lies" not in found and {"Front", "Back"} <= found.keys()
    assert "As it hangs" not in found


@pytest.mark.parametrize("path", CORPUS[::6], ids=lambda path: path.stem)
def test_every_drawing_of_the_corpus_comes_from_its_lines(path: Path) -> None:
    text = path.read_text()
    bag = prove_text(text).bag
    if bag is None:
        return
    many = text.count("\n") + 1
    for size in range(len(bag.pattern.sizes)):
        for one in drawings_of(bag, size):
            assert all(0 <= outline.line <= many for outline in one.outlines)
            assert all(
                math.isfinite(number) for outline in one.outlines for point in outline.points for number in point
            )
            left, low, right, high = one.box
            assert right > left and high > low
