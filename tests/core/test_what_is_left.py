"""What a row or its repeats leave: counted against plain arithmetic for any numbers; and the flatness of a base in another stitch than its swatch."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from rillstep.core.fabric import work_pattern
from rillstep.core.notation import parse
from rillstep.core.notation.copies import rows_like, worked_like
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.tree import Num, Row
from rillstep.core.words.stream import Context


def ring(stitches: int) -> str:
    return f"Ch {stitches}, join into a ring.\nRnd 1: Sc in each ch around; join. — {stitches} sts\n"


def panel(stitches: int) -> str:
    return f"Ch {stitches + 1}.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. ({stitches})\n"


@given(st.integers(6, 300), st.integers(1, 20))
def test_a_decrease_in_every_so_many_and_the_rest_plain(stitches: int, plain: int) -> None:
    times, rest = divmod(stitches, plain + 2)
    assume(times)
    text = ring(stitches) + f"Rnd 2: Ch 1, [sc in next {plain} sts, sc2tog] around, sc in each remaining st; join."
    proof = prove_text(text)
    assert [f for f in proof.findings if f.severity == "error"] == []
    assert proof.lines[-1].sts == (times * (plain + 1) + rest,)
    assert "sc in each rem st" in write(proof.pattern)


@given(st.integers(12, 200), st.integers(2, 20), st.integers(0, 40), st.integers(2, 20))
def test_a_second_strap_takes_up_what_the_first_has_left(rim: int, first: int, skipped: int, second: int) -> None:
    assume(first + max(1, skipped) + second <= rim)
    text = (
        ring(rim)
        + f"First strap\nRow 1: Ch 1, sc in next {first} sts, turn, leaving rem sts unworked. ({first})\nFasten off.\n"
        + f"Second strap\nRow 1: Sk next {max(1, skipped)} sts, join yarn in next st, ch 1, sc in next {second} sts, turn. ({second})"
    )
    works = [work for work in work_pattern(parse(text).pattern, 0).lines if isinstance(work.line, Row)]
    assert works[-1].trouble is None
    assert works[-1].start.counts().sts == rim - first
    assert works[-1].end.counts().sts == second


@given(st.integers(4, 120), st.integers(1, 60))
def test_a_short_row_is_made_good(stitches: int, short: int) -> None:
    assume(short < stitches)
    left = stitches - short
    text = panel(stitches) + (
        f"Row 2: Ch 1, sc in next {short} sts, turn, leaving rest unworked. ({short})\nRow 3: Ch 1, sc in each st across, turn. ({short})\n"
        f"Row 4: Ch 1, sc in each st across, sc in next {{}} unworked sts, turn. ({stitches})"
    )
    assert prove_text(text.format(left)).lines[-1].proved
    assert not prove_text(text.format(left + 1)).lines[-1].proved
    assert parse(write(parse(text.format(left)).pattern)).pattern == parse(text.format(left)).pattern


def test_stitches_before_the_unworked_ones_are_not_dropped() -> None:
    text = panel(20) + (
        "Row 2: Ch 1, sc in next 14 sts, turn, leaving rest unworked. (14)\n"
        "Row 3: Ch 1, sc in next 13 sts, sc in next 6 unworked sts, turn."
    )
    (error,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert error.code == "left-over" and "before the unworked ones" in error.message


@pytest.mark.parametrize(
    ("per_round", "swatch", "found"),
    [
        (12, "sc 16 sts x 18 rows", []),  # dc is twice as high: twelve a round lie flat
        (18, "sc 16 sts x 18 rows", ["base-ruffles"]),
        (8, "sc 16 sts x 18 rows", ["base-cups"]),
        (12, "dc 16 sts x 8.5 rows", []),
        (14, "dc 16 sts x 8.5 rows", []),  # as many as makers use
        (16, "dc 16 sts x 8.5 rows", ["base-ruffles"]),
    ],
)
def test_a_base_is_measured_by_the_height_of_its_own_stitch(per_round: int, swatch: str, found: list[str]) -> None:
    rounds = [f"Rnd 1: {per_round} dc in ring. ({per_round})", f"Rnd 2: 2 dc in each st around. ({2 * per_round})"]
    rounds += [
        f"Rnd {n}: [dc in next {n - 2} sts, 2 dc in next st] {per_round} times. ({n * per_round})" for n in range(3, 7)
    ]
    text = f"Gauge: {swatch} = 10 cm\nSection: Base (spiral rounds, disc)\n" + "\n".join(rounds)
    shape = [f for f in prove_text(text).findings if f.code in ("base-ruffles", "base-cups")]
    assert [f.code for f in shape] == found
    assert all(("estimated from the swatch in sc" in f.message) == swatch.startswith("sc") for f in shape)


def test_a_base_in_uk_terms_names_its_stitch_so() -> None:
    rounds = "Rnd 1: 18 tr in ring. (18)\nRnd 2: 2 tr in each st around. (36)\nRnd 3: [tr in next st, 2 tr in next st] 18 times. (54)"
    text = f"Terms: UK\nGauge: dc 16 sts x 18 rows = 10 cm\nSection: Base (spiral rounds, disc)\n{rounds}"
    (shape,) = [f for f in prove_text(text).findings if f.code == "base-ruffles"]
    assert "The height of tr is estimated from the swatch in dc." in shape.message


FIRST = (
    "First handle tab\n"
    + panel(10)
    + "Row 2: Ch 1, sc2tog, sc in each st across, turn. (9)\nRow 3: Ch 1, sc in each st across. (9)\n"
)


@pytest.mark.parametrize(
    ("words", "first", "last", "rows"),
    [
        ("as first handle tab", 2, 3, [2, 3]),
        ("as first tab", 2, 3, [2, 3]),
        ("same as for first tab", 1, 2, [1, 2]),
        ("work as for first tab", 3, 3, [3]),
        ("as first strap", 2, 3, []),
        ("as row 2", 2, 3, []),
    ],
)
def test_rows_of_a_piece_that_is_named_shortly(words: str, first: int, last: int, rows: list[int]) -> None:
    sections = parse(FIRST).pattern.sections
    found = rows_like(words, Num((first,)), Num((last,)), sections)
    assert [line.first.at(0) for line in found if isinstance(line, Row)] == rows


@pytest.mark.parametrize(
    ("words", "rows", "told"),
    [
        ("Same as first but do not fasten off.", 3, "Do not fasten off."),
        ("Work as for first handle tab to end of Row 2.", 2, ""),
        ("Repeat rows 1 to 2.", 2, ""),
        ("Rep rows 1-3", 3, ""),
    ],
)
def test_a_piece_that_is_worked_as_another(words: str, rows: int, told: str) -> None:
    sections = parse(FIRST + "Fasten off.").pattern.sections
    like = worked_like(words, 9, sections, Context(1, (0,), "US"))
    assert like is not None
    assert sum(isinstance(line, Row) for line in like.lines) == rows
    assert [getattr(line, "text", "") for line in like.lines][-1:] == ([told] if told else [""])


def test_words_that_name_no_piece_copy_none() -> None:
    sections = parse(FIRST).pattern.sections
    for words in ("Same as before.", "Work as for the flap.", "Repeat rows 2 to 3.", "As first you like."):
        like = worked_like(words, 9, sections, Context(1, (0,), "US"))
        assert like is None or like.source.title == "First handle tab"
