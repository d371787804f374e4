"""Rows that were broken over several lines: read as one, pointed at where they stand, and written broken well."""

import pytest

from rillstep.core.findings import Span, apply_edits
from rillstep.core.notation.lines import logical_lines
from rillstep.core.printing.wrapping import wrapped
from rillstep.core.proof import prove_text
from rillstep.core.tree import Prose, Row

OVAL = """Sizes: S, M
Section: Base (joined rounds, oval)
Ch 13 (16).
Rnd 1: Sc in 2nd ch from hook, sc in next
10 (13) ch, 3 sc in last ch; rotate,
sc in next 10 (13) ch, 2 sc in last ch; join.
(26, 32 sts)
Rnd 2: Ch 1, 2 sc in same st, sc in next 10 (13) sts, 2 sc in each of next 3
    sts, sc in next 10 (13) sts, 2 sc in each of next 2 sts; join. — 33 (38) sts
Weave in the end.
"""

JOINED = [
    ("Rnd 2: Sc in next 4 sts,\nsc in next 4 sts.", 1), ("Rnd 2: Sc in each st\naround; join.", 1), ("Rnd 2: [sc in next st, 2 sc in\nnext st] around.", 1),
    ("Rnd 2: Sc in each st around; join.\n(24 sts)", 1), ("Rnd 2: Sc in each st around; join.\n— 24 sts", 1), ("Rnd 2: *Sc in next st, rep\nfrom * around.", 1),
    ("Rnd 2: Sc in each st around, join\nwith sl st in first st.", 1), ("Rnd 2: Ch 1, (sc, ch 2,\nsc) in next st, sc in each st around.", 1), ("Rnd 2: Sc in next ch-\n2 sp.", 1),
    ("Rnd 2: Sc in next 4 sts,\n\nsc in next 4 sts.", 3), ("Rnd 2: Sc in each st around.\nWeave in ends.", 2), ("Rnd 2: Sc in each st around. (24)\nRnd 3: Sc in each st around.", 2),
    ("Rnd 2: Sc in each st around\nFasten off.", 2), ("Rnd 2: Sc in each st around; join\nNote: count now.", 2), ("Rnd 2: Sc in each st around; join\nSection: Wall", 2),
    ("Rnd 2: Sc in each st around. (24)\nplace a marker", 2), ("Rnd 2: Sc in each st around; join\nSize M only:", 2), ("Weave in ends,\nand press.", 2),
    ("Rnd 2: Sc in each st around; join # a comment,\nsc in next st", 2), ("Rnd 2: Sc in each st around; join\nCheck: 2 rnds.", 2),
]  # fmt: skip


@pytest.mark.parametrize(("text", "lines"), JOINED, ids=[text.replace("\n", "/")[:50] for text, _ in JOINED])
def test_which_lines_go_on(text: str, lines: int) -> None:
    assert len(logical_lines(text.split("\n"))) == lines


def test_a_broken_row_is_one_row_and_knows_where_it_stands() -> None:
    proof = prove_text(OVAL)
    assert [(line.line, line.last_line, line.sts) for line in proof.lines] == [(4, 7, (26, 32)), (8, 9, (32, 38))]
    rows = [line for _, line in proof.pattern.lines() if isinstance(line, Row)]
    assert rows[0].totals[0].count.parts == (Span(7, 2, 4), Span(7, 6, 8))
    assert rows[0].steps[1].span.line == 4 and rows[0].steps[2].span.line == 5
    assert [line.text for _, line in proof.pattern.lines() if isinstance(line, Prose)] == ["Weave in the end."]


def test_a_finding_in_a_later_line_belongs_to_its_row_and_is_mended_there() -> None:
    (finding,) = [f for f in prove_text(OVAL).findings if f.severity == "error"]
    assert (finding.code, finding.span.line, finding.size) == ("total-differs", 9, 0)
    assert OVAL.split("\n")[8][finding.span.column - 1 : finding.span.end_column - 1] == "33 (38)"
    assert [line.proved for line in prove_text(OVAL).lines] == [True, False]
    repairs = {repair.message: repair for repair in finding.repairs}
    mended = apply_edits(OVAL, repairs["State 32 as the total of Rnd 2"].edits)
    assert mended.split("\n")[8].endswith("— 32 (38) sts")
    assert prove_text(mended).ok


def test_a_step_that_is_not_understood_is_named_in_its_own_line() -> None:
    text = "Ch 24, join into a ring.\nRnd 1: Sc in next 12 ch,\nblub in next ch, sc in each ch around; join."
    (finding,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert (finding.code, finding.span) == ("not-understood", Span(3, 1, 16))


def test_a_set_may_be_broken_too() -> None:
    text = "Sizes: S, M, L\nCh 24 (30, 36), join into a ring.\nRnd 1: Sc in next 24 (30,\n36) ch; join."
    assert [line.sts for line in prove_text(text).lines] == [(24, 30, 36)]


def test_lines_are_broken_between_instructions() -> None:
    text = (
        "Rnd 2: Ch 1, 2 sc in same st, sc in next 10 (13, 16) sts, 2 sc in each of next 3 sts, "
        "sc in next 10 (13, 16) sts, 2 sc in each of next 2 sts; join. — 32 (38, 44) sts"
    )
    assert wrapped(text, 60).split("\n") == [
        "Rnd 2: Ch 1, 2 sc in same st, sc in next 10 (13, 16) sts,",
        "    2 sc in each of next 3 sts, sc in next 10 (13, 16) sts,",
        "    2 sc in each of next 2 sts; join. — 32 (38, 44) sts",
    ]
    assert wrapped("Note: " + "word " * 60, 60).count("\n") == 0  # prose is left to whoever shows it
    assert wrapped("Rnd 2: " + "x" * 200, 60).count("\n") == 0  # nowhere to break
    inside = wrapped("Rnd 2: [sc in next 2 sts, hdc in next 2 sts, dc in next 2 sts, tr in next st] 6 times; join.", 50)
    assert inside.split("\n")[0] == "Rnd 2: [sc in next 2 sts, hdc in next 2 sts,"
