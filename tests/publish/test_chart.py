"""Charts: where stitches are drawn, which rows are chosen, and the SVG of them."""

import xml.etree.ElementTree as ElementTree
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.chart import SYMBOLS, Chart, chart_of, positions, rows_for, spread, symbol_of, trace_of
from rillstep.core.craft import GATHERED, STITCHES
from rillstep.core.proof import prove_text
from rillstep.publish.chart import svg_of

DISC = """Make an adjustable ring.
Rnd 1: Ch 1 (does not count), 6 sc in ring; join. — 6 sts
Rnd 2: Ch 1, 2 sc in each st around; join. — 12 sts
Rnd 3: Ch 1, [sc in next st, 2 sc in next st] 6 times; join. — 18 sts
"""
LACE = """Ch 24.
Row 1: Sc in 2nd ch from hook, sc in each ch across; turn.
Row 2: Ch 3 (counts as dc), dc in next st, [FPdc around next st, dc2tog, ch 1] 5 times, puff in next st, dc in each st across; turn.
Row 3: Ch 1, BLO sc in each st across; turn.
"""
NUMBERS = st.floats(-50, 50, allow_nan=False, width=32)


def chart(text: str, line: int, size: int = 0) -> Chart:
    return chart_of(*rows_for(prove_text(text).works[size], line))


@given(st.lists(st.tuples(NUMBERS, st.floats(0.125, 3, width=32)), min_size=1, max_size=12))
@settings(max_examples=100, deadline=None)
def test_positions_keep_their_order_and_their_distance(drawn: list[tuple[float, float]]) -> None:
    wanted, apart = [x for x, _ in drawn], [gap for _, gap in drawn[1:]]
    found = spread(wanted, apart)
    for (a, b), gap in zip(pairwise(found), apart, strict=True):
        assert b - a >= gap - 1e-6
    # No position can be moved on its own, or with all that follow it, so that all come nearer to what they want.
    cost = sum((x - want) ** 2 for x, want in zip(found, wanted, strict=True))
    for at in range(len(found)):
        for step in (-0.01, 0.01):
            for end in (at + 1, len(found)):
                moved = [x + step if at <= i < end else x for i, x in enumerate(found)]
                if all(b - a >= gap - 1e-9 for (a, b), gap in zip(pairwise(moved), apart, strict=True)):
                    assert sum((x - want) ** 2 for x, want in zip(moved, wanted, strict=True)) >= cost - 1e-4


def test_positions_that_fit_are_not_moved() -> None:
    assert spread([0.0, 2.0, 5.0], [1.0, 1.0]) == [0.0, 2.0, 5.0]
    assert spread([1.0, 1.0, 1.0], [1.0, 1.0]) == [0.0, 1.0, 2.0]
    assert spread([], []) == []
    with pytest.raises(ValueError, match="distance"):
        spread([1.0, 2.0], [])


def test_every_stitch_has_a_symbol() -> None:
    for name in (*(s.us for s in STITCHES), *GATHERED, "ch"):
        assert name in SYMBOLS
    assert [symbol_of(s).slashes for s in ("hdc", "dc", "tr", "dtr")] == [0, 1, 2, 3]
    assert (symbol_of("FPdc").post, symbol_of("BPdc").post, symbol_of("dc").post) == ("FP", "BP", "")
    heights = [symbol_of(s).height for s in ("sl st", "sc", "hdc", "dc", "tr", "dtr")]
    assert heights == sorted(heights)
    assert symbol_of("own stitch") == symbol_of("dc")


def test_a_disc_is_drawn_around_its_ring() -> None:
    made = chart(DISC, 4)
    assert made.around
    assert [label for label, _ in made.labels] == ["1", "2", "3"]
    radii = [[round((m.top[0] ** 2 + m.top[1] ** 2) ** 0.5, 6) for m in made.marks if m.row == row] for row in range(3)]
    assert [len(set(row)) for row in radii] == [1, 1, 1]
    assert radii[0][0] < radii[1][0] < radii[2][0]
    assert [len(row) for row in radii] == [6, 12, 18]


def test_rows_are_drawn_on_the_row_before_and_run_back() -> None:
    made = chart(LACE, 3)
    assert not made.around
    assert [label for label, _ in made.labels] == ["1", "2"]
    first = [mark.top[0] for mark in made.marks if mark.row == 0]
    second = [mark.top[0] for mark in made.marks if mark.row == 1]
    assert first == sorted(first)
    assert second == sorted(second, reverse=True)
    decrease = next(mark for mark in made.marks if len(mark.feet) == 2)
    assert decrease.feet[0] != decrease.feet[1]


def test_a_long_round_is_cut_and_says_so() -> None:
    text = "Ch 200, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnd 2: Sc in each st around; join."
    made = chart(text, 3)
    assert made.cut > 100
    assert "and " in svg_of(made, "t", "US")


def test_a_row_that_is_not_worked_has_no_chart() -> None:
    assert rows_for(prove_text(DISC).works[0], 1) == ([], False)
    assert chart_of([], False) == Chart((), (), False)


def test_the_legend_names_what_is_used_and_nothing_else() -> None:
    rows = svg_of(chart(LACE, 3), "t", "US")
    for words in ("ch: chain", "sc: single crochet", "dc: double crochet", "FPdc: front post double crochet", "puff"):
        assert words in rows
    for words in ("hdc", "treble", "back loop"):
        assert words not in rows
    assert "back loop only" in svg_of(chart(LACE, 4), "t", "US")
    uk = svg_of(chart(LACE, 3), "t", "UK")
    assert "dc: double crochet" in uk and "tr: treble crochet" in uk and "sc:" not in uk


def test_left_handers_get_the_mirror_image() -> None:
    made = chart(DISC, 3)
    right, left = svg_of(made, "t", "US"), svg_of(made, "t", "US", left_handed=True)
    assert right != left

    def crosses(text: str) -> list[tuple[float, float]]:
        root = ElementTree.fromstring(text)
        paths = [p.attrib["d"][1:].split("L") for p in root.iter("{http://www.w3.org/2000/svg}path")]
        return sorted((float(d[0].split()[0]), float(d[0].split()[1])) for d in paths if len(d) == 2)

    assert len(crosses(right)) == len(crosses(left))


def test_a_trace_is_laid_out_with_each_stitch_over_its_place() -> None:
    found = trace_of(prove_text(DISC).works[0], 3)
    assert found is not None
    below, made = positions(found)
    assert len(below) == 6 and len(made) == 12
    assert min([*below, *made]) == 0
    for stitch, x in zip(found.made, made, strict=True):
        assert abs(x - below[stitch.into[0]]) <= 0.51
