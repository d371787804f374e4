"""Ways of working met in published patterns, counted by hand: foundation stitches, shaping in words, sides, gaps between stitches."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.tree import Foundation, Row, Spread

ROUND = "Section: W (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join.\n"
ROWS = "Section: P (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across.\n"


def of(text: str) -> tuple[int | None, ...] | None:
    """The last total, or None when something is wrong; what is right is also printed and read back."""
    proof = prove_text(text)
    if any(f.severity == "error" for f in proof.findings):
        return None
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert parse(write(proof.pattern, "UK")).pattern == proof.pattern
    return proof.lines[-1].sts


# --- foundation stitches


@pytest.mark.parametrize(
    "row",
    [
        "Fsc 20.",
        "20 fsc.",
        "Work 20 fsc.",
        "Foundation sc 20.",
        "20 foundation single crochet.",
        "Work 20 foundation single crochet stitches.",
    ],
)
def test_foundation_stitches(row: str) -> None:
    text = f"Section: P (rows, panel)\nRow 1: {row}\nRow 2: Ch 1, turn, sc in each st across. — 20 sts"
    assert of(text) == (20,)
    rows = [line for _, line in parse(text).pattern.lines() if isinstance(line, Row)]
    assert isinstance(rows[0].steps[0], Foundation)


def test_foundation_stitches_in_uk_terms_are_one_lower() -> None:
    assert of(
        "Terms: UK\nSection: P (rows, panel)\nRow 1: Fdc 20.\nRow 2: 1 ch, turn, 1 dc in each st to end. — 20 dc"
    ) == (20,)


def test_their_chain_can_be_worked_along() -> None:
    text = (
        "Section: P (rows, panel)\nRow 1: Fsc 20.\nRows 2-6: Ch 1, turn, sc in each st across.\n"
        "Edging rnd: Ch 1, do not turn, work 6 sc along the row ends, 20 sc along the foundation chain, 6 sc along the other row ends, sc in next 20 sts; join."
    )
    assert of(text) == (52,)
    assert of(text.replace("in next 20 sts", "in next 21 sts")) is None


def test_they_begin_a_piece_and_nothing_else() -> None:
    assert of(ROUND + "Rnd 2: Fsc 20.") is None


# --- shaping in words


@pytest.mark.parametrize(
    ("words", "sts"),
    [
        ("sc across, increasing 1 st at each end", 22), ("sc across, decreasing 1 st at each end of row", 18), ("dec 1 st at each end", 18),
        ("inc 1 st at both ends", 22), ("sc across, dec 1 st at beginning", 19), ("sc across, inc 1 st at the end of the row", 21),
        ("sc across, increasing 1 st at beginning and end of row", 22), ("sc in each st across, increasing 4 sts evenly", 24),
        ("sc across, decreasing 5 sts evenly spaced", 15), ("sc across, increasing in every 5th st", 24), ("sc across working 2 sc in every 4th st", 25),
        ("2 sc in first and last st, sc in all other sts", 22), ("3 sc in first and 11th st, sc in the rest", 24), ("2 sc in first and last st, sc in each remaining st", 22),
    ],
)  # fmt: skip
def test_shaping(words: str, sts: int) -> None:
    assert of(f"{ROWS}Row 2: Ch 1, turn, {words}. — {sts} sts") == (sts,)
    assert of(f"{ROWS}Row 2: Ch 1, turn, {words}. — {sts + 1} sts") is None


@pytest.mark.parametrize(
    ("words", "good"),
    [
        ("increasing 20 sts evenly", True),
        ("increasing 21 sts evenly", False),
        ("decreasing 10 sts evenly", True),
        ("decreasing 11 sts evenly", False),
    ],
)
def test_no_more_can_be_spread_than_there_is_room_for(words: str, good: bool) -> None:
    assert (of(f"{ROWS}Row 2: Ch 1, turn, sc in each st across, {words}.") is not None) == good


def test_what_is_spread_is_kept_as_said_and_what_has_a_place_is_printed_in_its_place() -> None:
    spread = parse(f"{ROWS}Row 2: Sc across, increasing 4 sts evenly.").pattern.sections[0].lines[-1]
    assert isinstance(spread, Row) and isinstance(spread.steps[0], Spread)
    ends = parse(f"{ROWS}Row 2: Sc across, decreasing 1 st at each end.").pattern
    assert "Row 2: Sc2tog, sc in each st to last 2 sts, sc2tog." in write(ends)


# --- ordinals


@pytest.mark.parametrize(
    ("row", "sts"),
    [
        ("sc in first 3 sts, 2 sc in 4th st, sc in each st around", 25), ("*sc in next 3 sts, 2 sc in 4th st; rep from * around", 30),
        ("*sc in next 5 sts, 2 sc in 6th st; rep from * around", 28), ("sc in next 12 sts, 2 sc in 13th st, sc in next 11 sts", 25),
    ],
)  # fmt: skip
def test_an_ordinal_counts_from_where_the_row_or_the_turn_began(row: str, sts: int) -> None:
    assert of(f"{ROUND}Rnd 2: Ch 1, {row}; join.") == (sts,)


# --- slip stitches that move, level or close


@pytest.mark.parametrize(
    ("row", "sts"),
    [
        ("Ch 1, turn, sl st in next 4 sts, ch 1, sc in next 12 sts, leave last 4 sts unworked.", 12),
        ("Turn, sl st in first 3 sts, sc in next 14 sts, leave last 3 sts unworked.", 14),
        ("Turn, sl st in next 2 sts, ch 1, sc in same st, sc in each st to last st, leave last st unworked.", 18),
    ],
)  # fmt: skip
def test_slip_stitches_that_only_move(row: str, sts: int) -> None:
    assert of(f"{ROWS}Row 2: {row}") == (sts,)


def test_a_slip_stitch_that_levels_a_spiral() -> None:
    text = "Section: W (spiral rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around.\nRnd 2: Sc in each st around, sl st in next st. — 24 sts"
    assert of(text) == (24,)
    assert of(text.replace("each st around, sl st in next st", "next 23 sts, sl st in next 2 sts")) is None


def test_a_loop_closed_where_it_began_makes_no_stitch() -> None:
    assert of(f"{ROUND}Rnd 2: Ch 1, sc in next 12 sts, ch 6, sl st in same st, sc in next 12 sts; join. — 24 sts") == (
        24,
    )


# --- a row that goes over a part of the edge


@pytest.mark.parametrize(
    ("row", "sts"),
    [
        ("Join yarn in 5th st, ch 1, sc in same st and in next 9 sts, turn.", 10),
        ("Skip first 4 sts, join yarn in next st, ch 1, sc in same st, sc in next 11 sts, leave remaining 4 sts unworked. Turn.", 12),
        ("With RS facing, join yarn in 3rd st from the right edge, ch 1, sc in same st, sc in next 15 sts, turn.", 16),
    ],
)  # fmt: skip
def test_a_part_of_the_edge(row: str, sts: int) -> None:
    assert of(f"{ROWS}Fasten off.\nRow 2: {row}") == (sts,)


def test_what_is_left_is_held_to() -> None:
    assert (
        of(
            f"{ROWS}Row 2: Skip first 4 sts, join yarn in next st, ch 1, sc in same st, sc in next 11 sts, leave remaining 5 sts unworked."
        )
        is None
    )


# --- sides by name, corners, and the top met last


EDGED = "Section: P (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across.\nRows 2-10: Ch 1, turn, sc in each st across.\n"


@pytest.mark.parametrize(
    ("row", "sts"),
    [
        ("Ch 1, sc in next 19 sts, 3 sc in last st, 9 sc evenly down the side, 3 sc in corner, sc in next 18 ch, 3 sc in corner, 9 sc up the second side; join.", 64),
        ("Ch 1, do not turn. Rotating clockwise, work 10 sc along the row ends, 20 sc along the foundation chain, 10 sc along the other row ends, and 20 sc across the last row. Join.", 60),
        ("Ch 1, 10 sc down the left side, 20 sc along the bottom edge, 10 sc up the right side, 20 sc along the top; join.", 60),
    ],
)  # fmt: skip
def test_around_a_panel(row: str, sts: int) -> None:
    assert of(f"{EDGED}Rnd 11: {row}") == (sts,)


# --- gaps between stitches


@pytest.mark.parametrize(
    ("row", "sts"),
    [("*2 dc in next sp between sts; rep from * around", 48), ("3 dc in each sp between 3-dc groups around", 24), ("*3 dc in next sp between 3-dc groups; rep from * around", 24)],
)  # fmt: skip
def test_gaps(row: str, sts: int) -> None:
    text = (
        ROUND.replace("sc in each ch", "dc in each ch").replace("Ch 1, dc", "Ch 3 (does not count), dc")
        + f"Rnd 2: Ch 3 (does not count), {row}; join."
    )
    assert of(text) == (sts,)


def test_groups_that_do_not_come_out_even() -> None:
    assert (
        of(
            ROUND.replace("Ch 24", "Ch 25")
            + "Rnd 2: Ch 3 (does not count), 3 dc in each sp between 3-dc groups around; join."
        )
        is None
    )


# --- colours said beside stitches


@pytest.mark.parametrize(
    "row",
    [
        "3 sc in A, 3 sc in B",
        "with A, sc in next 3 sts; with B, sc in next 3 sts",
        "A: sc in next 3 sts; B: sc in next 3 sts",
        "A 3 sc, B 3 sc",
    ],
)
def test_colours_are_kept(row: str) -> None:
    text = f"Colour: A, B\n{ROUND}Rnd 2: Ch 1, *{row}; rep from * around; join."
    assert of(text) == (24,)
    assert "[change to A, sc in next 3 sts; change to B, sc in next 3 sts] around" in write(parse(text).pattern)
