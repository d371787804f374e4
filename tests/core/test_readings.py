"""What the words of a row leave open is settled by working it: endings of repeats, brackets that are sets or totals, numbers of repeats."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.settling import settled
from rillstep.core.tree import Row
from rillstep.core.words.stream import MOST_OPEN

ROUND = "Section: W (joined rounds, wall)\nCh {n}, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join.\n"
TWO = "Sizes: S, L\n" + ROUND.replace("{n}", "{a} ({b})")
V = "Define: V-st = (dc, ch 1, dc) in same st\nSection: P (rows, panel)\nCh {n}.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"


def last(text: str) -> tuple[int | None, ...]:
    proof = prove_text(text)
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    return proof.lines[-1].sts


@pytest.mark.parametrize(
    ("n", "row", "sts", "spaces"),
    [
        # The ending only says what the repeat does anyway.
        (24, "*sc in next st, ch 1, sk 1; rep from * around, ending with ch 1, sk 1; join.", 12, 12),
        (24, "*ch 3, sk 2, sc in next st; rep from * around, ending with sc in last st; join.", 8, 8),
        # It is a chain more.
        (24, "Sc in first st, *ch 5, sk 2, sc in next st; rep from * to last 2 sts, ending with ch 5, sk 2; join.", 8, 8),
        # It is worked in what the repeats leave.
        (25, "*sc in next 2 sts, 2 sc in next st; rep from * around, ending with sc in last st; join.", 33, 0),
        (26, "*sc in next 2 sts, 2 sc in next st; rep from * around, ending with sc in next 2 sts; join.", 34, 0),
        # It takes the place of the last step.
        (24, "*sc in next st, sk 2, 5 dc in next st, sk 2; rep from * around, ending with sk 2; join.", 24, 0),
        (25, "*sc in next st, sk 1, 3 dc in next st, sk 1; rep from * around, ending with sc in last st; join.", 25, 0),
    ],
)  # fmt: skip
def test_how_a_repeat_ends(n: int, row: str, sts: int, spaces: int) -> None:
    proof = prove_text(ROUND.format(n=n) + f"Rnd 2: Ch 1, {row}")
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    assert (proof.lines[-1].sts, proof.lines[-1].spaces) == ((sts,), (spaces,))


@pytest.mark.parametrize(("n", "good"), [(24, False), (25, True), (23, False)])
def test_no_ending_makes_an_uneven_repeat_true(n: int, good: bool) -> None:
    text = (
        ROUND.format(n=n)
        + "Rnd 2: Ch 1, *sc in next 2 sts, ch 1, sk 2; rep from * around, ending with sc in last st; join."
    )
    assert (not any(f.severity == "error" for f in prove_text(text).findings)) == good


def test_an_edge_stitch_after_the_repeats() -> None:
    text = V.format(n=35) + (
        "Row 2: Ch 3 (counts as dc), sk 2, *V-st in next st, sk 2; rep from * to last st, dc in last st; turn. — 10 V-sts, 2 dc\n"
        "Row 3: Ch 1, sc in first dc, *sc in next dc, sc in ch-1 sp, sc in next dc; rep from * across, ending with sc in top of turning ch; turn."
    )
    assert last(text) == (32,)


@pytest.mark.parametrize(
    ("a", "b", "row", "sts"),
    [
        (6, 6, "inc x6 (12)", (12, 12)),  # a total: six times in both sizes
        (6, 12, "inc x6 (12)", (12, 24)),  # a set: six times and twelve times
        (18, 18, "[sc, inc] x 6 (24)", None),  # neither: 12 of 18 stitches are taken, or 12 and 48
        (12, 12, "[sc, inc] x 6 (18)", (18, 18)),
        (12, 36, "[sc, inc] x 6 (18)", (18, 54)),
    ],
)  # fmt: skip
def test_a_bracket_that_is_a_set_or_a_total(a: int, b: int, row: str, sts: tuple[int, int] | None) -> None:
    text = TWO.format(a=a, b=b) + f"Rnd 2: {row}"
    proof = prove_text(text)
    assert (not any(f.severity == "error" for f in proof.findings)) == (sts is not None)
    if sts is not None:
        assert proof.lines[-1].sts == sts
        assert parse(write(proof.pattern)).pattern == proof.pattern


@pytest.mark.parametrize(("n", "sts"), [(24, 30), (28, 35), (32, None)])
def test_repeat_six_times_in_all_or_six_times_more(n: int, sts: int | None) -> None:
    """With 24 stitches the brackets are worked six times, with 28 seven times; with 32 neither."""
    for words in ("sc 3, inc, repeat 6 times", "*sc 3, inc; rep from * 6 times"):
        proof = prove_text(ROUND.format(n=n) + f"Rnd 2: {words}; join.")
        assert (not any(f.severity == "error" for f in proof.findings)) == (sts is not None), words
        if sts is not None:
            assert proof.lines[-1].sts == (sts,)


def test_a_row_that_comes_out_at_first_is_left_alone() -> None:
    pattern = parse(TWO.format(a=6, b=12) + "Rnd 2: inc x6 (12)").pattern
    assert settled(pattern) is pattern


def test_a_fault_in_one_size_leaves_the_other_size_its_reading() -> None:
    text = TWO.format(a=6, b=7) + "Rnd 2: inc x6 (12)\nRnd 3: Sc in each st around. — 12 (14) sts"
    found = {(f.size, f.span.line) for f in prove_text(text).findings if f.severity == "error"}
    assert found == {(1, 5)}


def test_what_is_settled_is_what_is_printed() -> None:
    proof = prove_text(TWO.format(a=12, b=12) + "Rnd 2: [sc, inc] x 6 (18)")
    rows = [line for _, line in parse(write(proof.pattern)).pattern.lines() if isinstance(line, Row)]
    assert not rows[-1].readings
    assert "6 times. — 18 sts" in write(proof.pattern)


def test_rows_in_one_line_are_settled_each_by_itself() -> None:
    text = TWO.format(a=6, b=6) + "Rnd 2: inc x6 (12) Rnd 3: [sc, inc] x 6 (18)"
    assert [line.sts for line in prove_text(text).lines][1:] == [(12, 12), (18, 18)]
    assert prove_text(text).ok


def test_so_many_rows_are_read_in_other_ways_and_no_more() -> None:
    text = "1: 6 sc in magic ring (6)\n" + "".join(
        f"{n}: *sc 1, 2 sc in next; rep from * 6 times. (99)\n" for n in range(2, 100)
    )
    rows = [line for _, line in parse(text).pattern.lines() if isinstance(line, Row)]
    assert sum(bool(row.readings) for row in rows) == MOST_OPEN
    assert all(not row.readings for row in rows[MOST_OPEN + 1 :])


def test_a_row_far_below_wrong_ones_is_still_read_as_it_comes_out() -> None:
    wrong = "".join(f"{n}: *sc 1, 2 sc in next; rep from * 6 times. (99)\n" for n in range(2, 8))
    text = f"1: 6 sc in magic ring (6)\n{wrong}8: 12 sc (12)\n9: *sc 1, 2 sc in next; rep from * 6 times. (18)\n"
    last = prove_text(text).lines[-1]
    assert last.proved and last.sts == (18,)


@pytest.mark.parametrize("rest", ["[] across.", "[turn, blurb] across.", "*blurb; rep from * across."])
def test_a_first_space_before_a_repeat_that_is_not_understood_is_answered(rest: str) -> None:
    assert "not-understood" in {f.code for f in prove_text(f"Ch 20.\nRow 1: Sc in 4th ch from hook, {rest}").findings}
