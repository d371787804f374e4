"""The usual variety of published English: one row each, worked on a known edge, with the stitches that it must make."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text

ROUND = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
ROWS = "Ch 25.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn.\n"
TALL = "Ch 26.\nRow 1: Dc in 4th ch from hook (skipped ch count as dc), dc in each ch across; turn.\n"
MESH = "Ch 24, join into a ring.\nRnd 1: Ch 4 (counts as dc, ch 1), sk next ch, *dc in next ch, ch 1, sk next ch; rep from * around; join.\n"
CHAIN_25 = "Ch 25.\n"
CHAIN_26 = "Ch 26.\n"

WORDINGS = [
    (ROUND, 'Rnd 2: ch 1, 1 sc in same st as join, 1 sc in each st around, join w/ sl st.', 24),
    (ROUND, 'Rnd 2: Ch 1. Sc in the same stitch. *Sc in the next 2 stitches, 2 sc in the next stitch*. Repeat from * to * 6 more times, sc in last 2 sts. Join.', 31),
    (ROUND, 'Rnd 2: sc in ea of next 3 sts, sc in ea st around.', 24),
    (ROUND, 'Rnd 2: Work 1 sc in each stitch around.', 24),
    (ROUND, 'Rnd 2: Sc evenly around.', 24),
    (ROUND, 'Rnd 2: [2 hdc in next st, hdc in each of the next 3 sts] repeat around.', 30),
    (ROUND, 'Rnd 2: (hdc 3, hdc inc) around', 30),
    (ROUND, 'Rnd 2: (2 sc in next st) twice, sc in next 10 sts, (2 sc in next st) 2 times, sc in next 10 sts.', 28),
    (ROUND, 'Rnd 2: sc2tog 12 times.', 12),
    (ROUND, 'Rnd 2: *sc next st, sc2tog over next 2 sts, rep from * around.', 16),
    (ROUND, 'Rnd 2: [dec, sc 4] 4 times.', 20),
    (ROUND, 'Rnd 2: sc in next 3 sts, *dec over next 2 sts, sc in next 4 sts; rep from * 2 more times, dec, sc in last st.', 20),
    (ROUND, 'Rnd 2: Ch 2 (counts as hdc), hdc in next st and in each st around. Join with sl st in top of beg ch-2.', 24),
    (ROUND, 'Rnd 2: ch 3 (counts as dc), dc in each remaining st around, sl st in 3rd ch of beg ch 3 to join.', 24),
    (ROUND, 'Rnd 2: ch 3, dc in each st around, join. (24 dc)', 24),
    (ROUND, 'Rnd 2: ch 3, dc in next 23 sts, join. (24 dc)', 24),
    (ROUND, 'Rnd 2: Sl st in each st around.', 24),
    (ROUND, 'Rnd 2: 3 sc in first st, sc in next 11 sts, 3 sc in next st, sc in next 11 sts.', 28),
    (ROUND, 'Rnd 2: sc in next 12 sts, place marker, sc in next 12 sts.', 24),
    (ROUND, 'Rnd 2: Using colour B, sc in each st around.', 24),
    (ROUND, 'Rnd 2: With B, sc in next 12 sts; with A, sc in next 12 sts.', 24),
    (ROUND, 'Rnd 2: Sc in next 10 sts, change to colour B, sc in next 14 sts.', 24),
    (ROUND, 'Rnd 2: *hdc in next 5 sts, hdc2tog; rep from * twice more, hdc in each of last 3 sts.', 21),
    (ROUND, 'Rnd 2: sc in next 5 sts, (sc, ch 2, sc) in next st, sc in next 12 sts, (sc, ch 2, sc) in next st, sc in next 5 sts.', 26),
    (ROUND, 'Rnd 2: sc in next st, *ch 1, skip 1, sc in next st* around to last st, ch 1, skip last st.', 12),
    (ROUND, 'Rnd 2: sc in next 11 sts, 2 sc in each of next 2 sts, sc in next 11 sts - 26 sts', 26),
    (ROUND, 'Rnd 2: 1 sc into each of next 6 sts, 2 sc into next st, 1 sc in each st to end', 25),
    (ROUND, 'Rnd 2: *Dc3tog over next 3 sts, ch 3; repeat from * around.', 8),
    (ROUND, 'Rnd 2: fpdc in next st, bpdc in next st, repeat around.', 24),
    (ROUND, 'Rnd 2: tr in next 3 sts, sk 1 st, [tr in next st, ch 2, sk 1 st] 10 times.', 13),
    (ROUND, 'Rnd 2: *sc into next stitch, chain 4, miss 2 stitches, repeat from * to end of round.', 8),
    (ROUND, 'Rnd 2: Sc in both loops of each st around.', 24),
    (ROUND, 'Rnd 2: sc tbl in each st around', 24),
    (ROUND, 'Rnd 2: sc-blo in each st around', 24),
    (ROUND, 'Rnd 2: [sc in next st, sc in next st in front loop only] around.', 24),
    (ROUND, 'Rnd 2: 5-dc popcorn in next st, *dc in next 2 sts, popcorn in next st; rep from * around to last 2 sts, dc in last 2 sts', 24),
    (ROUND, 'Rnd 2: (dc in next st, ch 1, sk 1) to end.', 12),
    (CHAIN_25, 'Row 1: Skip first ch, sc in each remaining ch across.', 24),
    (CHAIN_25, 'Row 1: Sc into second chain from hook, and into each chain to end.', 24),
    (CHAIN_25, 'Row 1: Starting in 2nd ch from hook, sc in each ch across.', 24),
    (CHAIN_25, 'Row 1: Beginning in second chain from hook, sc 24.', 24),
    (CHAIN_26, 'Row 1: Hdc in third ch from hook, hdc across.', 24),
    (CHAIN_26, 'Row 1: Dc in 4th ch from hook (counts as 2 dc), dc in each ch across.', 24),
    (CHAIN_26, 'Row 1: Dc in 4th ch from hook (beg 3 skipped chs count as first dc) and in each ch across. (24 dc)', 24),
    (CHAIN_26, 'Row 1: Dc in 4th ch from hook, dc in next 22 ch. (24 dc)', 24),
    (ROWS, 'Row 2: Ch 1, sc in first 2 sts, *sk next 2 sts, 5 dc in next st, sk next 2 sts, sc in next st; rep from * across to last 4 sts, sc in last 4 sts.', 24),
    (ROWS, 'Row 2: Ch 1, 2 sc in first st, sc in next 22 sts, 2 sc in last st, turn.', 26),
    (ROWS, 'Row 2: Ch 1, sk first st, sc in each st across, turn.', 23),
    (ROWS, 'Row 2: Sl st in next 3 sts, ch 1, sc in each st to last 3 sts, leave remaining sts unworked, turn.', 18),
    (ROWS, 'Row 2: Ch 1, sc in next 10 sts, ch 4, sk 4, sc in last 10 sts.', 20),
    (ROWS, 'Row 2: Ch 1, sc in each st across, do not turn.', 24),
    (ROWS, 'Row 2: Ch 1, (sc, dc) in first st, *sk next st, (sc, dc) in next st; rep from * to last st, sc in last st; turn.', 25),
    (ROWS, 'Row 2: Ch 1, *sc in next st, dc in next st; rep from * across; turn.', 24),
    (ROUND, 'Round 2. Ch 1, sc in first sc, sc in next 23 sc, join with a slip stitch to the first sc. (24 sc)', 24),
    (ROUND, 'Rnd 2: Ch 1, sc in 1st st & each st around, join in first sc.', 24),
    (ROUND, 'Rnd 2: ch 1; 1sc in each st around; sl st to join.', 24),
    (ROUND, 'Rnd 2: Ch 1 and sc in each stitch around. Join with sl st to first sc. Total: 24 sts', 24),
    (ROUND, 'Rnd 2: Sc in next 5 sts, hdc in next 2 sts, dc in next 10 sts, hdc in next 2 sts, sc in next 5 sts. (10 sc, 4 hdc, 10 dc)', 24),
    (ROUND, 'Rnd 2: *Sc in next st, hdc in next st, (dc, tr, dc) in next st, hdc in next st; rep from * around. (36 sts)', 36),
    (ROUND, 'Rnd 2: *Ch 3, sk next 2 sts, sc in next st; rep from *, ending with sc in last st.', 8),
    (ROUND, 'Rnd 2: [Sc in next st, ch 2, sk next st] 12 times; join. — 12 sc, 12 ch-2 sps', 12),
    (ROUND, 'Rnd 2: sc in each of the first 3 sts, *2 sc in next st, sc in each of next 6 sts; repeat from * twice more.', 27),
    (ROUND, 'Rnd 2: Ch 1, sc in same st, sc in next 5 sts, [2 sc in next st, sc in next 5 sts] 3 times.', 27),
    (ROUND, 'Rnd 2: *2 dc in next st, dc in next st* 12x', 36),
    (ROUND, 'Rnd 2: [dc, 2 dc in next st] x 12 (36 dc)', 36),
    (ROUND, 'Rnd 2: inc 24 (48)', 48),
    (ROUND, 'Rnd 2: 24 inc', 48),
    (ROUND, 'Rnd 2: sc in next 4, inc in next, sc in next 19.', 25),
    (ROUND, 'Rnd 2: (sc in next 3 sts, sc next 2 sts together) 4 times, sc in each of the remaining 4 sts.', 20),
    (ROUND, 'Rnd 2: Sc2tog all around.', 12),
    (ROUND, 'Rnd 2: Decrease 12 times.', 12),
    (ROUND, 'Rnd 2: sc in next 7 sts, ch 20, skip 5, sc in next 7 sts, ch 20, skip 5. Join.', 14),
    (ROUND, 'Rnd 2: Sc in next 2 sts; *ch 1, sk 1, sc in next st; rep from * to end.', 13),
    (ROUND, 'Rnd 2: Puff stitch in next st, *ch 1, sk next st, puff stitch in next st; rep from * around to last st, ch 1, sk last st; join.', 12),
    (ROUND, 'Rnd 2: Bobble in next st, sc in next st; rep around.', 24),
    (ROUND, 'Rnd 2: *FPtr around next st, sc in next 2 sts; rep from * around.', 24),
    (ROUND, 'Rnd 2: Back post dc around each st around.', 24),
    (ROUND, 'Rnd 2: Front post double crochet around next st, double crochet in next 3 sts; repeat around.', 24),
    (ROUND, 'Rnd 2: *Sk next 2 sts, (3 dc, ch 3, 3 dc) in next st, sk next 2 sts, sc in next st; rep from * 3 more times.', 28),
    (ROUND, 'Rnd 2: Sc in back loops only of next 12 sts, sc in both loops of next 12 sts.', 24),
    (ROUND, 'Rnd 2: Sc in the back loop of each stitch around.', 24),
    (ROUND, 'Rnd 2: Working in the front loops only, sc in each st around.', 24),
    (ROUND, 'Rnd 2: Ch 3 (counts as first dc, now and throughout), dc in next st, *ch 2, sk next 2 sts, dc in next 2 sts; rep from * around to last 2 sts, ch 2, sk last 2 sts; join with sl st in 3rd ch of beginning ch-3.', 12),
    (ROUND, 'Rnd 2: Sc in next 11 sts, 3 sc in next st (corner), sc in next 11 sts, 3 sc in next st (corner).', 28),
    (ROUND, 'Rnd 2: ch 1, hdc 24, slst to 1st hdc', 24),
    (ROUND, 'Rnd 2: sc in each st until last 4 sts, sc2tog twice.', 22),
    (ROUND, 'Rnd 2: Sc to last 4 sts, sc2tog 2 times', 22),
    (ROUND, 'Rnd 2: *sc in next 2 sts, sk 1, rep from * to end of rnd', 16),
    (ROUND, 'Rnd 2: Ch 1, (sc, hdc, dc) in same st, sk next 2 sts, *(sc, hdc, dc) in next st, sk next 2 sts; rep from * around.', 24),
    (ROUND, 'Rnd 2: Ch 1, 2 sc in first st, sc in each st around to last st, 2 sc in last st.', 26),
    (ROUND, 'Rnd 2: Make 1 sc in each of the next 24 sts.', 24),
    (ROUND, 'Rnd 2: Sc in each st around (do not join).', 24),
    (ROUND, 'Rnd 2: sc in each st around, placing marker in first st.', 24),
    (ROUND, 'Rnd 2: Place marker for beginning of round. Sc in each st around.', 24),
    (ROWS, 'Row 2: Ch 1, turn, sc in each st across.', 24),
    (ROWS, 'Row 2 (WS): Ch 3, turn (counts as dc). Dc in next st and in each st across. (24 dc)', 24),
    (ROWS, 'Row 2: ch 1. sc across. turn. (24)', 24),
    (ROWS, 'Row 2: Ch 1, sc2tog, sc in each st across until 2 sts remain, sc2tog.', 22),
    (ROWS, 'Row 2: Ch 1, sc in each st to within last st, 2 sc in last st.', 25),
    (ROWS, 'Row 2: Ch 1, sc in next 12 sts. Turn, leaving remaining sts unworked.', 12),
    (ROWS, 'Row 2: Ch 1, dec 1, sc in next 20 sts, dec 1.', 22),
    (ROWS, 'Row 2: Ch 1, sc in first sc, *ch 1, sk next sc, sc in next sc; rep from * across to last sc, sc in last sc. [13 sc, 11 ch-1 sps]', 13),
    (TALL, 'Row 2: Ch 3 (counts as dc), sk first dc, dc in each dc across, dc in top of turning ch.', 24),
    (TALL, 'Row 2: Ch 3 (counts as dc), *FPdc around next dc, BPdc around next dc; rep from * to last st, dc in last st; turn.', 24),
    (TALL, 'Row 2: Ch 1, sc in first dc and in each dc across, sc in top of tch.', 24),
    (MESH, 'Rnd 2: Ch 3 (counts as dc), dc in next ch-1 sp, *dc in next dc, dc in next ch-1 sp; rep from * around; join. (24 dc)', 24),
    (MESH, 'Rnd 2: Sl st in ch-1 sp, ch 4, *dc in next ch-1 sp, ch 1; rep from * around; join in 3rd ch of beg ch-4. (12 dc, 12 ch-1 sps)', 12),
    (MESH, 'Rnd 2: Ch 1, 2 sc in each ch-1 space around.', 24),
    (MESH, 'Rnd 2: Ch 1, sc in each dc and each ch-1 space around.', 24),
    (MESH, 'Rnd 2: Ch 4, dc in next dc, *ch 1, dc in next dc; rep from * around, ch 1; join. (12 dc, 12 ch-1 sps)', 12),
    (MESH, 'Rnd 2: Sl st into next ch-1 sp, ch 3, 2 dc in same sp, 3 dc in each ch-1 sp around, join. (36 dc)', 36),
    (MESH, 'Rnd 2: Ch 1, (sc, ch 3, sc) in each ch-1 sp around; join.', 24),
]  # fmt: skip


def understood(before: str, row: str, stitches: int) -> None:
    """The row is read whole, makes so many stitches, and is written and read back in both terms."""
    proof = prove_text(before + row)
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    last = proof.works[0].lines[-1].last
    assert last is not None
    assert last.trouble is None
    assert last.counts.sts == stitches
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert parse(write(proof.pattern, "UK")).pattern == proof.pattern


@pytest.mark.parametrize(("before", "row", "stitches"), WORDINGS, ids=[row[:60] for _, row, _ in WORDINGS])
def test_a_wording_is_understood_and_worked(before: str, row: str, stitches: int) -> None:
    understood(before, row, stitches)
