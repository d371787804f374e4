"""Yarn from worked stitches: additive by lines, pieces and colours, by gauge, strands and weights; and a kit that may not
be enough."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.fabric import work_pattern
from rillstep.core.gauge import Gauge, gauge_from_counts
from rillstep.core.proof import prove_text
from rillstep.core.settling import read
from rillstep.core.tree import Pattern
from rillstep.core.yarn import (
    Extra,
    StitchSizes,
    Used,
    YarnFacts,
    colour_needs,
    counted_once,
    kind_of,
    learned,
    length_mm,
    stitch_sizes,
    tally,
    whole_need,
    with_yarns,
)
from tests.examples import MESH_TOTE

GAUGE = gauge_from_counts("sc", 16, 18, 100)
SIZES = StitchSizes(GAUGE, 0.9 * GAUGE.width_mm)
BALL = YarnFacts(100, 200, 1)
BAG = """Gauge: sc 16 sts x 18 rows = 10 cm
Section: Wall (joined rounds, wall)
Ch 24, join into a ring.
Rnd 1: Sc in each ch around; join.
Rnds 2-20: Sc in each st around; join.
Section: Strap (rows, strip{make})
Ch 7.
Row 1: Sc in 2nd ch from hook, sc in each ch across; turn.
Rows 2-30: Ch 1, sc in each st across; turn.
"""
STRIPES = """Gauge: dc 14 sts x 8 rows = 10 cm
Colour: A, B, C
Section: Panel (rows, panel)
With A, ch 32.
Row 1: Dc in 4th ch from hook (skipped chs count as dc), dc in each ch across; turn. (30 dc)
Row 2: Ch 3 (counts as dc), dc in next 29 sts; turn. (30 dc)
Row 3: Change to B. Ch 3 (counts as dc), dc in next 29 sts; turn. (30 dc)
Rows 4-9: Rep Row 2, working 2 rows in C and 1 row in A.
"""


def used(text: str) -> tuple[Used, ...]:
    proof = prove_text(text)
    sizes = stitch_sizes(proof.pattern, 0)
    assert sizes is not None
    return tally(proof.pattern, proof.works[0], sizes)


def used_in(pattern: Pattern) -> tuple[Used, ...]:
    sizes = stitch_sizes(pattern, 0)
    assert sizes is not None
    return tally(pattern, work_pattern(pattern, 0), sizes)


def grams(found: tuple[Used, ...] | list[Used], yarn: YarnFacts = BALL, extras: tuple[Extra, ...] = ()) -> float:
    return whole_need(colour_needs(with_yarns(found, ()), extras, {"": yarn}, learned(()))).grams


def test_every_stitch_chain_and_join_is_counted() -> None:
    found = used(BAG.format(make=""))
    assert sum(one.stitches for one in found) == 24 * 20 + 6 * 30
    lengths = {kind: sum(one.lengths_mm.get(kind, 0.0) for one in found) for kind in ("sc", "chain", "slip")}
    # Foundations, and a turning chain for each row after the first; a slip stitch to join each round.
    chains, joins = 24 + 7 + 29, 20
    assert lengths["sc"] == pytest.approx((24 * 20 + 6 * 30) * length_mm("sc", "sc", SIZES))
    assert lengths["chain"] == pytest.approx(chains * length_mm("ch", "chain", SIZES))
    assert lengths["slip"] == pytest.approx(joins * length_mm("sl st", "slip", SIZES))


def test_the_tally_counts_every_stitch_once() -> None:
    proof = prove_text(MESH_TOTE)
    found = tally(proof.pattern, proof.works[0], SIZES)
    assert sum(one.stitches for one in found) == 26 + 32 + 16 + 6 * 16 + 32 + 18 + 36
    # 13 to begin with, starting chains, 16 ch-3 in 7 rounds, two handles of 9
    chains = sum(one.lengths_mm.get("chain", 0.0) for one in found) / length_mm("ch", "chain", SIZES)
    assert chains == pytest.approx(13 + 5 + 7 * 48 + 2 * 9)
    joins = sum(one.lengths_mm.get("slip", 0.0) for one in found) / length_mm("sl st", "slip", SIZES)
    assert joins == pytest.approx(12)


def test_a_piece_that_is_made_twice_takes_twice_as_much() -> None:
    one, two = used(BAG.format(make="")), used(BAG.format(make=", make 2"))
    straps = [[u for u in found if u.piece == "Strap"] for found in (one, two)]
    assert sum(u.stitches for u in straps[1]) == 2 * sum(u.stitches for u in straps[0]) == 2 * 6 * 30
    assert [u for u in one if u.piece == "Wall"] == [u for u in two if u.piece == "Wall"]


def test_colours_are_followed_through_rows_and_stripes() -> None:
    found = used(STRIPES)
    rows = {colour: sum(one.stitches for one in found if one.colour == colour) / 30 for colour in "ABC"}
    assert rows == {"A": 4, "B": 1, "C": 4}  # six rows again: two in C, one in A, and so on
    assert sum(one.changes for one in found) >= 3
    yarns = {"": BALL, "B": YarnFacts(50, 100, 2)}
    needs = colour_needs(with_yarns(found, ["B"]), (), yarns, learned(()))
    assert [one.colour for one in needs] == ["", "B"]
    assert needs[1].yarn.strands == 2 and needs[0].other.grams > needs[1].other.grams


@pytest.mark.parametrize(
    "stripes", ["0 rows in C", "0 rows in C and 1 row in A", "9999 rows in C", "99999999999 rows in C"]
)
def test_stripes_of_no_rows_or_of_very_many_are_counted(stripes: str) -> None:
    found = used(STRIPES.replace("2 rows in C and 1 row in A", stripes))
    assert sum(one.stitches for one in found) == 9 * 30


def test_what_is_worked_otherwise_is_another_kind() -> None:
    assert [kind_of(one) for one in ("sc", "hdc", "tr", "FPdc", "ch", "sl st", "puff")] == [
        "sc", "hdc", "dc", "post", "chain", "slip", "group",
    ]  # fmt: skip
    wall = "Gauge: sc 16 sts x 18 rows = 10 cm\nSection: Wall (joined rounds, wall)\nCh 24, join into a ring.\n"
    begin = wall + "Rnd 1: Sc in each ch around; join.\n"
    mesh = used(
        begin + "Rnd 2: Ch 1, [sc in next st, ch 2, sk next st] around; join.\nRnd 3: Ch 1, sc in each sp around; join."
    )
    assert set(mesh[-1].lengths_mm) >= {"space"} and "sc" not in mesh[-1].lengths_mm
    loops = used(begin + "Rnd 2: Ch 1, BLO sc in each st around; join.")
    assert "loop" in loops[-1].lengths_mm
    post, plain = (
        used(begin + f"Rnd 2: Ch 2, dc in each st around; join.\nRnd 3: Ch 2, {words} around; join.")[-1]
        for words in ("FPdc around each st", "dc in each st")
    )
    # About a half more yarn in a post stitch: the ratio of their kinds.
    assert post.lengths_mm["post"] / plain.lengths_mm["dc"] == pytest.approx(1.38, abs=0.01)


@given(st.integers(1, 5_000), st.floats(0.5, 2.0))
@settings(max_examples=50, deadline=None)
def test_yarn_grows_with_stitches_and_with_their_size(stitches: int, scale: float) -> None:
    def needed(many: int, wide: float) -> float:
        sizes = StitchSizes(Gauge("sc", wide, wide), 0.9 * wide)
        return grams((Used(1, "Wall", "", {"sc": many * length_mm("sc", "sc", sizes)}, many),))

    assert needed(stitches, 5.0) < needed(2 * stitches, 5.0)
    assert (needed(stitches, 5.0 * scale) >= needed(stitches, 5.0)) == (scale >= 1) or scale == pytest.approx(1)


def test_strands_multiply_and_other_yarn_adds() -> None:
    found = used(BAG.format(make=""))
    one, three = grams(found), grams(found, YarnFacts(100, 200, 3))
    assert three == pytest.approx(3 * one, rel=0.05)
    seam = Extra("whipstitch seam", 250, 2)
    assert seam.yarn_mm == 1500
    assert grams(found, extras=(seam,)) - one == pytest.approx(1500 / 1000 / 2, rel=0.05)


def test_balls_cover_the_upper_end_and_what_is_left_is_said() -> None:
    (need,) = colour_needs(with_yarns(used(BAG.format(make="")), ()), (), {"": YarnFacts(10, 20)}, learned(()))
    assert need.balls * 10 >= need.other.high_g > (need.balls - 1) * 10
    assert need.left_g == pytest.approx(need.balls * 10 - need.other.grams)
    assert need.other.low_g < need.other.grams < need.other.high_g


@pytest.mark.parametrize(
    ("kit", "yarn", "sizes"),
    [
        ("Kit: 500 g", "100 g = 200 m", []), ("Kit: 20 g", "100 g = 200 m", [None]), ("Kit: 500 (20) g", "100 g = 200 m", [1]), ("Kit: 20 g", "50 g / 100 m", [None]),
        ("Kit: 20 g", "soft and grey", []), ("Kit: plenty", "100 g = 200 m", []), ("Kit: 1 (2, 3) g", "100 g = 200 m", []),
    ],
)  # fmt: skip
def test_a_kit_is_held_against_the_estimate(kit: str, yarn: str, sizes: list[int | None]) -> None:
    text = (
        f"Sizes: S, M\nGauge: sc 16 sts x 18 rows = 10 cm\nYarn: Quiet Meridian, {yarn}\n{kit}\nSection: Wall (joined rounds, wall)\n"
        "Ch 48, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-60: Sc in each st around; join."
    )
    found = [f for f in prove_text(text).findings if f.code == "kit-too-small"]
    assert [f.size for f in found] == sizes
    for finding in found:
        assert "The kit holds 20 g" in finding.message and "estimated" in finding.message


STRIP = "\nCh 7.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (6 sts)\nRows 2-50: Ch 1, sc in each st across, turn. (6 sts)\n"
RING = "Comet bag\nGauge: sc 20 sts x 20 rows = 10 cm\n\nBODY\nCh 40, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. (40 sts)\n"


@pytest.mark.parametrize(
    "heading",
    ["STRAP (make 2) (B)", "STRAP (B) (make 2)", "STRAP (make 2), colour B", "STRAP (make 2) in B", "STRAP in colour B",
     "STRAP (make 2, in colour B)", "Strap (make 2) – colour B", "STRAP (colour B)"],
)  # fmt: skip
def test_a_piece_whose_heading_names_a_colour_is_in_that_colour(heading: str) -> None:
    pattern = read(f"{RING}\n{heading}{STRIP}").pattern
    assert pattern.sections[1].title.upper() == "STRAP"
    assert {one.colour for one in used_in(pattern) if one.piece.upper() == "STRAP"} == {"B"}
    assert {one.colour for one in used_in(pattern) if one.piece == "BODY"} == {""}


@pytest.mark.parametrize("heading", ["SIDE A (make 2)", "Panel B", "Row of stars (make 2)", "Base – A star"])
def test_a_heading_without_a_colour_has_none(heading: str) -> None:
    assert {one.colour for one in used_in(read(f"{RING}\n{heading}{STRIP}").pattern)} == {""}


def test_parts_below_a_heading_that_is_made_twice_are_said_to_be_counted_once() -> None:
    parts = f"\nHANDLES (make 2)\n\nTUBE{STRIP}\nEND TAB{STRIP}"
    assert counted_once(read(RING + parts).pattern) == ("HANDLES",)
    begun = "\nHandle (make 2)\nWith two strands held together, ch 9.\n\nFirst end\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (8 sts)\n"
    assert counted_once(read(RING + begun).pattern) == ("Handle",)
    assert counted_once(read(f"{RING}\nSTRAP (make 2){STRIP}\nTAB{STRIP}").pattern) == ()
    assert counted_once(read(f"{RING}\nHANDLES (make 2)\n\nTUBE (make 2){STRIP}").pattern) == ()
