"""Yarn from worked stitches: additive by lines and pieces, by gauge, strands and weights; and a kit that may not be enough."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.gauge import gauge_from_counts
from rillstep.core.proof import prove_text
from rillstep.core.yarn import Tally, WeighedSwatch, YarnFacts, correction, need, tally

GAUGE = gauge_from_counts("sc", 16, 18, 100)
BALL = YarnFacts(100, 200, 1)
UNWEIGHED = WeighedSwatch(1, 1)
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


def counted(make: str = "") -> Tally:
    pattern = prove_text(BAG.format(make=make))
    return tally(pattern.works[0], sections=pattern.pattern.sections)


def test_every_stitch_chain_and_join_is_counted() -> None:
    found = counted()
    assert found.stitches == (("sc", 24 * 20 + 6 * 30),)
    assert found.chains == 24 + 7 + 29  # foundations, and a turning chain for each row after the first
    assert found.joins == 20


def test_a_piece_that_is_made_twice_counts_twice() -> None:
    one, two = counted(), counted(", make 2")
    assert two.total - one.total == 6 * 30
    assert two.chains - one.chains == 7 + 29
    assert two.joins == one.joins


def test_lines_add_up_to_the_whole() -> None:
    work = prove_text(BAG.format(make="")).works[0]
    for cut in range(2, 10):
        first, second, whole = tally(work, 0, cut), tally(work, cut + 1), tally(work)
        assert first.total + second.total == whole.total
        assert first.chains + second.chains == whole.chains
        assert first.joins + second.joins == whole.joins


@given(st.integers(1, 5_000), st.integers(0, 500), st.floats(0.5, 2.0))
@settings(max_examples=50, deadline=None)
def test_yarn_grows_with_stitches_and_with_their_size(stitches: int, chains: int, scale: float) -> None:
    small, large = (need(Tally((("sc", n),), chains, 0), GAUGE, BALL, UNWEIGHED) for n in (stitches, 2 * stitches))
    assert small.grams < large.grams
    assert small.low_g < small.grams < small.high_g
    assert small.balls == math.ceil(small.high_g / 100 - 1e-9) >= 1
    wide = gauge_from_counts("sc", 16 / scale, 18 / scale, 100)
    scaled = need(Tally((("sc", stitches),), chains, 0), wide, BALL, UNWEIGHED)
    assert (scaled.metres >= small.metres) == (scale >= 1) or math.isclose(scaled.metres, small.metres, rel_tol=0.05)


def test_strands_multiply_and_a_weighed_swatch_corrects() -> None:
    counted_here = Tally((("sc", 2_000),), 100, 20)
    one, three = (need(counted_here, GAUGE, YarnFacts(100, 200, strands), UNWEIGHED) for strands in (1, 3))
    assert three.metres == pytest.approx(3 * one.metres, rel=0.05)
    assert correction(GAUGE, BALL, UNWEIGHED) is None
    thrifty, lavish = WeighedSwatch(20, 20, 3.0), WeighedSwatch(20, 20, 9.0)
    assert correction(GAUGE, BALL, lavish) == pytest.approx(3 * (correction(GAUGE, BALL, thrifty) or 0))
    low, high = (need(counted_here, GAUGE, BALL, swatch) for swatch in (thrifty, lavish))
    assert low.weighed and high.weighed and low.grams < high.grams
    assert (high.high_g - high.low_g) / high.grams < (one.high_g - one.low_g) / one.grams  # a weight makes it surer


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
