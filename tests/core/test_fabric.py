"""The work on the hook, in the language itself: each kind of place and way of working, with what it must give."""

import pytest

from rillstep.core.fabric import SizeWork
from rillstep.core.proof import Proof, prove_text

ROUND = (
    "Section: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 24 sts\n"
)
PANEL = "Section: Panel (rows, panel)\nCh 11.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. — 10 sts\nRows 2-6: Ch 1, sc in each st across; turn. — 10 sts\n"


def worked(text: str) -> tuple[Proof, SizeWork]:
    proof = prove_text(text)
    return proof, proof.works[0]


def errors(text: str) -> list[tuple[str, int]]:
    return [(f.code, f.span.line) for f in prove_text(text).findings if f.severity == "error"]


TRUE = {
    "loops left free by a back-loop round, worked later": ROUND
    + "Rnd 2: Ch 1, BLO sc in each st around; join. — 24 sts\nRnds 3-5: Ch 1, sc in each st around; join. — 24 sts\n"
    "Section: Flap (rows, panel), continue from Wall, in free front loops of Rnd 1\n"
    "Row 1: Sc in next 12 sts, leave rem sts unworked; turn. — 12 sts\nRow 2: Ch 1, sc in each st across; turn. — 12 sts",
    "loops named within a row": ROUND
    + "Rnd 2: Ch 1, BLO sc in each st around; join. — 24 sts\nRnd 3: Ch 1, sc in each st around; join. — 24 sts\n"
    "Rnd 4: Sc in front loops of Rnd 1. — 24 sts",
    "around a panel, with corners": PANEL
    + "Section: Around (joined rounds, wall), continue from Panel\n"
    "Rnd 1: Ch 1, sc in each st to last st, 3 sc in last st; rotate; sc in each row end to last st, 3 sc in last st; rotate; "
    "sc in each ch to last st, 3 sc in last ch; rotate; sc in each row end across; join. — 38 sts",
    "along the row ends of a band": PANEL
    + "Section: Body (joined rounds, wall), along the row ends of Panel\nRnd 1: Ch 1, 2 sc in each row end around; join. — 12 sts",
    "along the foundation of a panel": PANEL
    + "Section: Hem (rows, trim), along the foundation chain of Panel\nRow 1: Ch 1, sc in each ch across; turn. — 10 sts",
    "slip stitches that move to a space": ROUND
    + "Rnd 2: Ch 1, [sc in next st, ch 2, sk next st] around; join. — 12 sts, 12 ch-2 sps\n"
    "Rnd 3: Sl st in next ch-2 sp, ch 3 (counts as dc), dc in same sp, [2 dc in next ch-2 sp] around; join. — 24 sts",
    "slip stitches that shape a row": PANEL
    + "Row 7: Sl st in next 2 sts, ch 1, sc in each st to last 2 sts, leave rem sts unworked; turn. — 6 sts",
    "an edging of slip stitches": ROUND + "Rnd 2: Sl st in each st around; join. — 24 sts",
    "handles chained, and worked over": ROUND
    + "Rnd 2: Ch 1, sc in next 4 sts, ch 10, sk next 4 sts, sc in next 8 sts, ch 10, sk next 4 sts, sc in next 4 sts; join. — 16 sts, 2 ch-10 sps\n"
    "Rnd 3: Ch 1, sc in each st and ch around; join. — 36 sts",
    "a crossed stitch": ROUND + "Rnd 2: Ch 1, [sk next st, dc in next st, dc in skipped st] around; join. — 24 sts",
    "markers moved up and used": ROUND
    + "Rnd 2: Ch 1, sc in next 6 sts, place marker A, sc in each st around; join. — 24 sts\n"
    "Rnd 3: Ch 1, sc in each st to marker A, 3 sc in marked st, sc in each st around; move marker up; join. — 26 sts\n"
    "Rnd 4: Ch 1, sc in each st to marker A, 3 sc in marked st, sc in each st around; join. — 28 sts",
    "corners that grow": "Section: Square (joined rounds, square)\nCh 4, join into a ring.\n"
    "Rnd 1: Ch 1, [2 sc in ring, ch 2] 4 times; join. — 8 sts, 4 ch-2 sps\n"
    "Rnd 2: Ch 1, [sc in each st to corner, (sc, ch 2, sc) in corner sp] 4 times; join. — 16 sts, 4 ch-2 sps",
    "two rows in turn": ROUND
    + "Rnd 2: Ch 1, [dc in next st, sc in next st] around; join. — 12 dc, 12 sc\nRnd 3: Ch 1, sc in each st around; join. — 24 sts\n"
    "Rnds 4-9: Rep Rnds 2 and 3. — 24 sts\nCheck: 9 rnds; 24 sts.",
    "a turning chain at the end of a row": "Section: P (rows, panel)\nCh 12.\nRow 1: Dc in 4th ch from hook (skipped ch count as dc), dc in each ch across, ch 3 (counts as dc), turn. — 10 sts\n"
    "Row 2: Dc in next st and in each st across, ch 3, turn. — 10 sts",
    "rounds that are turned": "Section: W (joined and turned rounds, wall)\nCh 12, join into a ring.\nRnd 1: Ch 1, sc in next 4 ch, [ch 1, sk next ch, sc in next ch] 4 times; join; turn. — 8 sts, 4 ch-1 sps\n"
    "Rnd 2: Ch 1, [sc in next st, sc in next ch-1 sp] 4 times, sc in next 4 sts; join; turn. — 12 sts",
    "a special stitch worked into": "Define: shell = (2 dc, ch 1, 2 dc) in same st\n" + ROUND
    + "Rnd 2: Ch 1, [sc in next st, sk next 2 sts, shell in next st, sk next 2 sts] around; join. — 4 shells, 4 sc\n"
    "Rnd 3: Ch 1, [shell in next sc, sc in next shell] around; join. — 4 shells, 4 sc",
    "lines for some sizes only": "Sizes: S, M\nSection: D (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: 6 sc in ring; join. — 6 sts\n"
    "Size M only:\nRnd 2: Ch 1, 2 sc in each st around; join. — 12 sts\nAll sizes:\nSection: W (joined rounds, wall)\nRnd 1: Ch 1, sc in each st around; join. — 6 (12) sts",
}  # fmt: skip


@pytest.mark.parametrize("what", TRUE)
def test_a_true_text_is_proved(what: str) -> None:
    assert errors(TRUE[what]) == []
    assert all(line.proved for line in prove_text(TRUE[what]).lines)


WRONG = [
    ("front loops twice", TRUE["loops named within a row"] + "\nRnd 5: Sc in front loops of Rnd 1. — 24 sts", ("no-such-place", 7)),
    ("row ends of a round", ROUND + "Rnd 2: Ch 1, sc in each row end around; join.", ("no-such-place", 4)),
    ("a space that is not there", ROUND + "Rnd 2: Ch 1, sc in next ch-3 sp; join.", ("no-such-place", 4)),
    ("a crossed stitch with nothing skipped", ROUND + "Rnd 2: Ch 1, dc in skipped st, sc in each st around; join.", ("no-such-place", 4)),
    ("one stitch on the other side of the chain", ROUND + "Rnd 2: Ch 1, sc in each st around; rotate; sc in next st; join.", ("left-over", 4)),
    ("a ring that is closed long ago", ROUND + "Rnd 2: Ch 1, 6 sc in ring; join.", ("no-such-place", 4)),
    ("decreases that do not come out", ROUND + "Rnd 2: Ch 1, dc5tog around; join.", ("repeat-uneven", 4)),
    ("a chain of none", ROUND + "Rnd 2: Ch 1, sc in next 24 sts, ch 0; join.", ("chain-of-none", 4)),
    ("more closed than chained", ROUND + "Rnd 2: Ch 1, [sc in next 2 sts, ch 3, sl st in 4th ch from hook] around; join.", ("no-such-place", 4)),
    ("a row to repeat that is not there", ROUND + "Rnds 2-5: Rep Rnd 9.", ("row-not-found", 4)),
]  # fmt: skip


@pytest.mark.parametrize(("what", "text", "expected"), WRONG, ids=[what for what, _, _ in WRONG])
def test_a_wrong_text_is_refuted_at_its_line(what: str, text: str, expected: tuple[str, int]) -> None:
    assert errors(text)[:1] == [expected], errors(text)


def test_the_work_goes_on_from_stated_spaces_as_well() -> None:
    text = (
        ROUND
        + "Rnd 2: Ch 1, gobble; join. — 12 sts, 12 ch-2 sps\nRnd 3: Ch 1, 2 sc in each ch-2 sp around; join. — 24 sts"
    )
    assert errors(text) == [("not-understood", 4)]
    _, work = worked(text)
    assert work.lines[-1].end.count("st") == 24


def test_a_chain_that_is_not_said_to_count_is_read_so_that_the_total_is_true() -> None:
    counting = "Section: P (rows, panel)\nCh 26.\nRow 1: Dc in 4th ch from hook, dc in each ch across; turn. — 24 sts"
    proof, work = worked(counting)
    assert [f.code for f in proof.findings] == ["chain-unsaid"]
    assert work.lines[-1].rounds[-1].sts == 24
    assert prove_text(counting.replace("24 sts", "23 sts")).ok


def test_rows_are_remembered_by_what_they_say_and_not_by_where_they_stand() -> None:
    first, second = worked(ROUND + "Rnd 2: Ch 1, [sc in next st, ch 1, sk next st] around; join."), worked(
        "\n\n" + ROUND + "Rnd 2:   Ch 1, [sc in next st, ch 1, sk next st] around; join."
    )  # fmt: skip
    assert first[1].lines[-1].end is second[1].lines[-1].end
    wrong = prove_text("\n\n" + ROUND + "Rnd 2: Ch 1, [sc in next st, ch 1, sk next st] around; join. — 13 sts")
    (finding,) = [f for f in wrong.findings if f.severity == "error"]
    assert finding.span.line == 6
    assert finding.steps
