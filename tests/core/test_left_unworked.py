"""Stitches that a row leaves unworked and a later one takes up, what repeats leave, and wordings of published patterns beside the usual ones."""

from rillstep.core.fabric import work_pattern
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.tree import Row
from tests.core.wordings.otherwise import RING, WIDE
from tests.core.wordings.unworked import STRAP


def test_what_is_left_is_what_was_not_worked_and_gets_fewer() -> None:
    """24 around, 5 for a strap, 7 skipped and 5 for another: the rest is 7, and a third strap fits once more."""
    text = (
        STRAP
        + "Second strap\nRow 1: Sk next 7 sts, join yarn in next st, ch 1, sc in same st, sc in next 4 sts, turn. (5)\nFasten off.\n"
    )
    third = "Third strap\nRow 1: Sk next {} sts, join yarn in next st, ch 1, sc in same st, sc in next 4 sts, turn. (5)"
    pattern = parse(text + third.format(2)).pattern
    (last,) = [work for work in work_pattern(pattern, 0).lines if isinstance(work.line, Row)][-1:]
    assert last.start.counts().sts == 7 and last.trouble is None
    assert (
        prove_text(text + third.format(2)).lines[-1].proved and not prove_text(text + third.format(20)).lines[-1].proved
    )


def test_a_line_that_tells_where_to_begin_and_has_no_row_stays() -> None:
    text = RING + "Sk next 7 sts, join yarn in next st."
    printed = write(parse(text).pattern)
    assert "Sk next 7 sts; join yarn in next st." in printed and parse(printed).pattern == parse(text).pattern


def test_unworked_stitches_where_none_were_left_are_those_that_come_next() -> None:
    proof = prove_text(WIDE + "Row 2: Ch 1, sc in next 12 sts, sc in next 8 unworked sts, turn. (20)")
    assert not [f for f in proof.findings if f.severity == "error"]
