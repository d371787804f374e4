"""Ways of working, each whole: what it makes in every size, and one slip in it that must be found at its line."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text

# name -> (text, totals of its last line in each size, a slip: (old, new), the line and code where it is found)
WAYS: dict[str, tuple[str, tuple[int, ...], tuple[str, str], int, str]] = {
    "rows": (
        "Sizes: S, M\nSection: Panel (rows, panel)\nCh 21 (25).\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 20 (24) sts\nRows 2-9 (11): Ch 1, sc in each st across; turn. — 20 (24) sts",
        (20, 24), ("Ch 21 (25)", "Ch 21 (26)"), 4, "total-differs",
    ),
    "joined rounds": (
        "Section: Disc (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: 6 sc in ring; join. — 6 sts\nRnd 2: 2 sc in each st around; join. — 12 sts\nRnd 3: [Sc in next st, 2 sc in next st] 6 times; join. — 18 sts",
        (18,), ("6 times", "5 times"), 5, "left-over",
    ),
    "joined and turned": (
        "Section: Wall (joined and turned rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join, turn. — 24 sts\nRnd 2: Ch 1, sc in next 4 sts, 2 sc in next st, sc in each st around; join, turn. — 25 sts",
        (25,), ("2 sc in next st", "3 sc in next st"), 4, "total-differs",
    ),
    "spiral": (
        "Section: Wall (spiral rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around. — 24 sts\nRnds 2-9: Sc in each st around. — 24 sts\nRnd 10: [Sc in next 4 sts, sc2tog] around. — 20 sts",
        (20,), ("Sc in next 4 sts, sc2tog", "Sc in next 4 sts, sc3tog"), 5, "repeat-uneven",
    ),
    "rows begun anew on the same side": (
        "Section: Strip (rows from the same side, strip)\nCh 20.\nRow 1: Sc in each ch across. Fasten off. — 20 sts\nRow 2: Join yarn in 2nd st, sc in each st to last st, 2 sc in last st. Fasten off. — 20 sts",
        (20,), ("Join yarn in 2nd st", "Join yarn in 3rd st"), 4, "total-differs",
    ),
    "a panel turned into rounds": (
        "Section: Panel (rows, panel)\nCh 11.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 10 sts\nRows 2-6: Ch 1, sc in each st across; turn. — 10 sts\nSection: Around (joined rounds, wall), continue from Panel\n"
        "Rnd 1: Ch 1, sc in each st to last st, 3 sc in last st; rotate; sc in each row end to last st, 3 sc in last st; rotate; sc in each ch to last st, 3 sc in last ch; rotate; sc in each row end across; join. — 38 sts",
        (38,), ("to last st, 3 sc in last st; rotate; sc in each ch", "to last st, 4 sc in last st; rotate; sc in each ch"), 6, "total-differs",
    ),
    "a strip that becomes a tube": (
        "Section: Strip (rows, strip)\nCh 7.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 6 sts\nRows 2-9: Ch 1, sc in each st across; turn. — 6 sts\nSection: Tube (spiral rounds, tube), continue from Strip\nRnd 10: 2 sc in each st around. — 12 sts\nRnds 11-20: Sc in each st around. — 12 sts\n"
        "Section: End (rows, strip), continue from Tube\nRow 21: Sc2tog across; turn. — 6 sts",
        (6,), ("2 sc in each st around. — 12", "2 sc in each st around. — 13"), 6, "total-differs",
    ),
    "a wall around posts": (
        "Section: Base (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: 12 dc in ring; join. — 12 sts\nRnd 2: 2 dc in each st around; join. — 24 sts\nSection: Wall (joined rounds, wall)\nRnd 3: BPdc around each st around; join. — 24 sts\nRnd 4: [FPdc around next st, BPdc around next st] around; join. — 24 sts",
        (24,), ("[FPdc around next st, BPdc around next st] around", "[FPdc around next 2 sts, BPdc around next 3 sts] around"), 7, "repeat-uneven",
    ),
    "a flap in loops left free": (
        "Section: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\nRnd 2: BLO sc in each st around; join. — 24 sts\nRnd 3: Sc in each st around; join. — 24 sts\n"
        "Section: Flap (rows, panel), continue from Wall, in free front loops of Rnd 1\nRow 1: Sc in next 12 sts, leave rem 12 sts unworked; turn. — 12 sts",
        (12,), ("leave rem 12 sts", "leave rem 11 sts"), 7, "unworked-differs",
    ),
    "a strap grown from the edge": (
        "Section: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\nSection: Strap (rows, strip), continue from Wall\nRow 1: Sc in next 6 sts, leave rem sts unworked; turn. — 6 sts\nRows 2-30: Ch 1, sc in each st across; turn. — 6 sts\nSew the end of the strap to sts 13 to 18 of the wall.",
        (6,), ("sts 13 to 18", "sts 14 to 19"), 7, "strap-not-centred",
    ),
    "handle openings": (
        "Section: Wall (joined rounds, wall)\nCh 48, join into a ring.\nRnd 1: Sc in each ch around; join. — 48 sts\nRnd 2: Sc in next 8 sts, ch 20, sk 8, sc in next 16 sts, ch 20, sk 8, sc in next 8 sts; join. — 32 sts, 2 ch-20 sps\nRnd 3: Sc in each st and ch around; join. — 72 sts",
        (72,), ("sc in next 16 sts, ch 20", "sc in next 16 sts, ch 21"), 4, "handles-not-alike",
    ),
    "a button loop in the middle": (
        "Section: Flap (rows, panel)\nCh 22.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 21 sts\nRow 2: Ch 1, sc in next 9 sts, ch 6, sk 3, sc in next 9 sts; turn. — 18 sts, 1 ch-6 sp",
        (18,), ("sk 3, sc in next 9 sts", "sk 2, sc in next 9 sts"), 4, "left-over",
    ),
    "a ring closed by a seam": (
        "Section: Tube (spiral rounds, tube)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around. — 24 sts\nRnds 2-12: Sc in each st around. — 24 sts\nWith RS together, sl st through both layers to close the bottom.",
        (24,), ("Rnds 2-12", "Rnds 3-12"), 4, "numbers-gap",
    ),
    "a motif with corners": (
        "Section: Square (joined rounds, square)\nCh 4, join into a ring.\nRnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join. — 12 dc, 4 ch-2 sps\n"
        "Rnd 2: Sl st in next 2 dc, sl st in next ch-2 sp, (ch 3, 2 dc, ch 2, 3 dc) in same sp, ch 1, [(3 dc, ch 2, 3 dc) in next ch-2 sp, ch 1] 3 times; join. — 24 dc, 4 ch-2 sps, 4 ch-1 sps",
        (24,), ("ch 1] 3 times", "ch 1] 2 times"), 4, "left-over",
    ),
    "mesh with a second loop in one space": (
        "Section: Net (joined rounds, wall)\nCh 16, join into a ring.\nRnd 1: [Sc in next ch, ch 3, sk 1] around; join. — 8 sc, 8 ch-3 sps\nRnd 2: [Sc in next ch-3 sp, ch 4] around; join. — 8 sc, 8 ch-4 sps\nRnd 3: [(Sc, ch 4, sc) in next ch-4 sp, ch 4, sc in next ch-4 sp, ch 4] around; join. — 12 sc, 12 ch-4 sps",
        (12,), ("[Sc in next ch-3 sp, ch 4] around; join. — 8 sc", "[Sc in next ch-3 sp, ch 4] 7 times; join. — 8 sc"), 4, "left-over",
    ),
    "the collecting round on a mesh": (
        "Section: Net (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: [Sc in next ch, ch 5, sk 2] around; join. — 8 sc, 8 ch-5 sps\nRnd 2: 4 sc in each ch-5 sp around; join. — 32 sts",
        (32,), ("4 sc in each", "5 sc in each"), 4, "total-differs",
    ),
    "lace between markers": (
        "Section: Panel (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in next 4 ch, place marker A, sc in next 10 ch, place marker B, sc in next 5 ch; turn. — 20 sts\n"
        "Row 2: Ch 1, sc in each st to marker B, move marker up, sc in next st, [ch 1, sk 1, sc in next st] 4 times, sc in each st across; turn. — 16 sts, 4 ch-1 sps",
        (16,), ("4 times", "5 times"), 4, "total-differs",
    ),
    "eyelets for a cord": (
        "Sizes: S, M\nSection: Wall (joined rounds, wall)\nCh 48 (54), join into a ring.\nRnd 1: Sc in each ch around; join. — 48 (54) sts\nRnd 2: [Sc in next 4 sts, ch 2, sk 2] around; join. — 32 (36) sts, 8 (9) ch-2 sps\nRnd 3: Sc in each st and 2 sc in each ch-2 sp around; join. — 48 (54) sts",
        (48, 54), ("Ch 48 (54)", "Ch 48 (53)"), 4, "total-differs",
    ),
    "decreasing by skipping": (
        "Section: Flap (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 20 sts\nRow 2: Ch 1, sk next st, sc in each st to last 2 sts, sk next st, sc in last st; turn. — 18 sts",
        (18,), ("to last 2 sts, sk next st, sc in last st", "to last 3 sts, sk next st, sc in last st"), 4, "left-over",
    ),
    "an own stitch and its space": (
        "Define: V = (dc, ch 1, dc) in same st\nSection: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\nRnd 2: [V in next st, sk 2] around; join. — 8 V\nRnd 3: V in each V around; join. — 8 V",
        (16,), ("[V in next st, sk 2] around", "[V in next st, sk 4] around"), 5, "repeat-uneven",
    ),
    "crossed stitches": (
        "Section: Wall (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Dc in each ch around; join. — 24 sts\nRnd 2: [Sk 2, FPtr around next 2 sts, FPtr around 2 skipped sts, dc in next 2 sts] around; join. — 24 sts",
        (24,), ("FPtr around 2 skipped sts", "FPtr around 3 skipped sts"), 4, "no-such-place",
    ),
    "lines for some sizes": (
        "Sizes: S, M, L\nSection: Disc (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: 6 sc in ring; join. — 6 sts\nRnd 2: 2 sc in each st around; join. — 12 sts\nSizes M and L only:\nRnd 3: [Sc in next st, 2 sc in next st] 6 times; join. — 18 sts\nAll sizes:\nRnd 3 (4, 4): Sc in each st around; join. — 12 (18, 18) sts",
        (12, 18, 18), ("— 12 (18, 18) sts", "— 12 (18, 24) sts"), 9, "total-differs",
    ),
    "numbers by name": (
        "Sizes: S, M\nNumber: side = 10 (14)\nSection: Panel (rows, panel)\nCh {side + 1}.\nRow 1: Sc in 2nd ch from hook, sc in next {side - 1} ch; turn. — {side} sts\nRows 2-{side}: Ch 1, sc in each st across; turn. — {side} sts",
        (10, 14), ("sc in next {side - 1} ch", "sc in next {side} ch"), 5, "runs-out",
    ),
}  # fmt: skip


@pytest.mark.parametrize("name", WAYS)
def test_a_way_of_working(name: str) -> None:
    text, totals, _, _, _ = WAYS[name]
    proof = prove_text(text)
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    assert proof.lines[-1].sts == totals
    assert all(line.proved for line in proof.lines)


@pytest.mark.parametrize("name", WAYS)
def test_a_slip_in_it_is_found_where_it_is(name: str) -> None:
    text, _, (old, new), line, code = WAYS[name]
    assert text.count(old) >= 1, name
    findings = [
        (f.span.line, f.code) for f in prove_text(text.replace(old, new, 1)).findings if f.severity != "caution"
    ]
    assert (line, code) in findings
    assert min(at for at, _ in findings) >= min(line, 3)


@pytest.mark.parametrize("name", WAYS)
def test_it_is_written_and_read_back_in_both_terms(name: str) -> None:
    pattern = parse(WAYS[name][0]).pattern
    for terms in ("US", "UK"):
        again = parse(write(pattern, terms))  # type: ignore[arg-type]
        assert again.findings == ()
        assert again.pattern == pattern
