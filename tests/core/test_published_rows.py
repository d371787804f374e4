"""Rows as they are published: each on so many stitches of single crochet, with the count that it makes, written before it was tried."""

import pytest

from rillstep.core.proof import prove_text

ROUND = "Section: W (joined rounds, wall)\nCh {n}, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join.\nRnd 2: {row}"
ROWS = "Section: P (rows, panel)\nCh {more}.\nRow 1: Sc in 2nd ch from hook, sc in each ch across.\nRow 2: {row}"

PUBLISHED = [
    (ROUND, 24, 'Ch 1, sc in same st and in each st around, join with sl st to first sc.', 24),
    (ROUND, 25, 'Ch 1, *sc in next 3 sts, sc2tog (1 dec made); rep from * around; join.', 20),
    (ROUND, 24, 'Ch 3 (counts as 1 dc), dc in next st and every st around, sl st in 3rd ch of beg ch-3 to join.', 24),
    (ROUND, 24, 'Ch 2, hdc in first 3 sts, 2 hdc in the 4th st, [hdc in next 3 sts, 2 hdc in next st] 5 times, join.', 30),
    (ROUND, 24, 'Ch 1. Sc 3, inc. Repeat 6 times. Join.', 30),
    (ROUND, 24, 'Ch 1, sc3, inc, repeat around, join', 30),
    (ROUND, 24, 'Ch 1, [3 sc, 1 inc] repeat 6 times, join', 30),
    (ROUND, 24, 'Ch 1, (sc in next 5 sts, sc2tog) 3 times, sc in last 3 sts, join.', 21),
    (ROUND, 24, 'Ch 1, sc around decreasing 1 st at beginning of round, join.', 23),
    (ROWS, 20, 'Ch 1, turn. Dec 1, sc to last 2 sts, dec 1.', 18),
    (ROWS, 20, 'Ch 1, turn. Decrease 1 st at each end of row.', 18),
    (ROWS, 20, 'Ch 1, turn. Sc across, increasing 1 st at each end.', 22),
    (ROWS, 20, 'Ch 1, turn, sc across, dec 1 st at each end of the row.', 18),
    (ROWS, 20, 'Turn. Ch 1. 2 sc in first and last st, sc in all other sts.', 22),
    (ROWS, 20, 'Ch 1, turn, 2 sc in the first st, 1 sc in each of the next 18 sts, 2 sc in the last st.', 22),
    (ROWS, 20, 'Ch 1, turn, sl st across first 4 sts, ch 1, sc in next 12 sts, leave last 4 sts unworked.', 12),
    (ROWS, 20, 'Ch 1, turn, sl st in first 3 sts, sc in next 14 sts, turn leaving last 3 sts unworked.', 14),
    (ROUND, 24, '2 hdc in first and thirteenth st, hdc in all others, join.', 26),
    (ROUND, 24, 'Ch 1, sc in next 12 sts, ch 6, sl st in same st, sc in next 12 sts, join.', 24),
    (ROUND, 30, 'Ch 1, sc in each st to last 2 sts, sc2tog, join.', 29),
    (ROUND, 30, 'Sc in next 15 sts, place marker, sc in next 15 sts.', 30),
    (ROWS, 21, 'Ch 4 (counts as dc and ch 1), turn, sk next st, dc in next st, *ch 1, sk next st, dc in next st; rep from * across.', 11),
    (ROWS, 21, 'Ch 3, turn (counts as dc), sk first st, dc in next 9 sts, ch 1, sk 1, dc in last 10 sts.', 20),
    (ROWS, 20, 'Ch 1, turn, *sc in next st, dc in next st; rep from * to end.', 20),
    (ROWS, 20, 'Ch 1, turn; (sc, dc) in first st, sk 1, *(sc, dc) in next st, sk 1; rep from * across.', 20),
    (ROWS, 21, 'Ch 1, turn, sc in first st, *dc in next st, sc in next st, rep from * across.', 21),
    (ROUND, 24, 'Ch 1, fpdc around first st, bpdc around next st, *fpdc around next st, bpdc around next st; rep from * around, join.', 24),
    (ROUND, 24, 'Ch 2, *FPdc around next 2 sts, BPdc around next 2 sts* around, join.', 24),
    (ROUND, 24, 'Ch 1, hdc in the back loop only of each stitch around. Join.', 24),
    (ROUND, 24, 'Ch 1, working in front loops only sc in each st around. Join.', 24),
    (ROUND, 24, '*Sc in next st, puff st in next st; repeat from * around. Join with a slip stitch to the first sc.', 24),
    (ROUND, 24, 'Ch 1, *sc in next st, tr in next st pushing it to the right side; rep from * around, join.', 24),
    (ROUND, 24, 'Ch 1, sc in first st, ch 3, sk 2 sts, [sc in next st, ch 3, sk 2 sts] rep around, join.', 8),
    (ROUND, 24, 'Ch 5 (counts as dc, ch 2), sk 2 sts, *dc in next st, ch 2, sk 2 sts; rep from * around, sl st to 3rd ch of beg ch-5.', 8),
    (ROUND, 24, 'Ch 1, (sc, ch 2, sc) in first st, sk 1, *(sc, ch 2, sc) in next st, sk 1; rep around; join.', 24),
    (ROUND, 24, 'Ch 1, sc in each of the first 8 sts, (ch 10, sk 4 sts, sc in next 4 sts) twice; join.', 16),
    (ROUND, 24, 'Sc in next 4 sts, chain 20, skip 4 sts, sc in the next 8 sts, chain 20, skip 4 sts, sc in last 4 sts.', 16),
    (ROUND, 24, '1 sc in each of the next 11 sts, 2 sc in the next st, 1 sc in each of the next 11 sts, 2 sc in the next st', 26),
    (ROUND, 24, 'Inc, sc 11, inc, sc 11', 26),
    (ROUND, 24, 'Inc in first st, sc in next 11, inc in next, sc in last 11; join', 26),
    (ROUND, 24, 'Invisible decrease 12 times', 12),
    (ROUND, 24, '(Sc 2, inv dec) x 6', 18),
    (ROUND, 24, 'Sc2tog around', 12),
    (ROUND, 24, 'Sc2tog x12', 12),
    (ROUND, 24, 'Dec 12 times (12)', 12),
    (ROUND, 24, 'Work 1 sc in each st, working 2 sc in every 4th st. Join.', 30),
    (ROUND, 24, 'Ch 1, sc in each st around, increasing in every 4th st; join.', 30),
    (ROUND, 24, 'Sc evenly around, increasing 6 sts evenly spaced. Join.', 30),
    (ROWS, 20, 'Ch 1, turn, sc in each st across until 3 sts remain, leave remaining sts unworked.', 17),
    (ROWS, 20, 'With RS facing, join yarn in the 5th st from the right edge, ch 1, sc in same st and in next 9 sts, turn.', 10),
    (ROWS, 20, 'Skip first 4 sts, join yarn with sl st in next st, ch 1, sc in same st, sc in next 11 sts, leave remaining 4 sts unworked. Turn.', 12),
    (ROUND, 24, 'Reverse sc in each st around. Join and fasten off.', 24),
    (ROUND, 24, 'Crab stitch around.', 24),
    (ROUND, 24, 'Sl st in each st around, do not work too tightly.', 24),
    (ROUND, 24, 'Ch 1, sc in first 6 sts; ch 8 for buttonloop; sk 0 sts, sc in next 18 sts; join.', 24),
    (ROUND, 24, 'Ch 2 (counts as st), hdc in next st and in each st around, join to top of ch 2.', 24),
    (ROUND, 24, 'Ch 2 (does not count as a stitch throughout), 1 hdc into each st to end, sl st to first hdc to join.', 24),
    (ROWS, 20, 'Ch 2 (counts as first hdc), turn, hdc in 2nd st and in each st across, ending with last hdc in top of turning chain.', 20),
    (ROWS, 20, '1 ch, turn, 1 sc in each st to end.', 20),
    (ROWS, 20, 'Ch 1, turn; sc in each sc across; change to CC in last st.', 20),
    (ROWS, 20, 'With CC, ch 1, turn, sc in each st across, changing to MC on last yo of last st.', 20),
    (ROWS, 20, 'Ch 1, turn. Sc 5 (A), sc 10 (B), sc 5 (A).', 20),
    (ROWS, 20, 'Ch 1, turn, 5 sc in A, 10 sc in B, 5 sc in A.', 20),
    (ROUND, 24, 'Ch 1, sc in next 3 sts, *2 sc in next st, sc in next 5 sts; rep from * to last 3 sts, 2 sc in next st, sc in last 2 sts; join.', 28),
    (ROUND, 24, 'Ch 1, sc 1, *inc 1, sc 5, repeat from * twice more, inc 1, sc 4, join.', 28),
    (ROUND, 24, '*Sc in next 2 sts, sc2tog, rep from * to end of rnd.', 18),
    (ROUND, 24, 'Join yarn in any st, ch 1, sc in same st, sc in each remaining st around, join.', 24),
    (ROUND, 24, 'Attach B with a standing sc, sc in each st around, join.', 24),
    (ROUND, 24, 'Ch 1, *1 sc into next st, ch 1, miss 1 st* repeat to end, join.', 12),
    (ROUND, 24, '*Sc in next st, ch 1, skip next st; repeat from * around, ending with ch 1, skip last st; join in first sc.', 12),
    (ROUND, 24, 'Ch 4 (counts as dc + ch 1), *skip 1 st, dc in next st, ch 1; rep from * around to last st, skip last st, join to 3rd ch of ch-4.', 12),
    (ROUND, 24, 'Ch 1, 2 sc in first st, 1 sc in next st, [2 sc in next st, 1 sc in next st] repeat to end of round; join.', 36),
    (ROUND, 24, 'ch1, 1sc in each st, ss to join', 24),
    (ROUND, 24, '1 sc in each st around (24), sl st to join.', 24),
    (ROUND, 24, 'Ch 1, sk first st, sc in next st, sc in skipped st, *sk next st, sc in next st, sc in skipped st; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *sk 1 st, sc in next st, working in front of sc just made, sc in skipped st; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *sc in each of next 3 sts, long sc in st 2 rows below; rep from * around, join.', 24),
    (ROUND, 24, 'Ch 1, *spike st in next st, sc in next st; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *sc in next st, hdc in next st, dc in next st, hdc in next st; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *(sc, hdc, dc) all in next st, sk next 2 sts; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *sc in next st, skip 2 sts, 5 dc in next st, skip 2 sts; rep from * around; join with sl st in first sc.', 24),
    (ROUND, 24, '*Skip 2 sts, 5-dc shell in next st, skip 2 sts, sc in next st* repeat around', 24),
    (ROUND, 24, 'Ch 1, *sc in next 2 sts, ch 2, sk 2 sts; rep from * around, join, turn.', 12),
    (ROUND, 24, 'Ch 1, turn, sc in each st around, join.', 24),
    (ROUND, 24, 'Ch 1, [sc in next 6 sts, place marker in last st made, sc in next 6 sts] twice; join.', 24),
    (ROUND, 24, 'Ch 1, hdc in 1st st, hdc in each rem st, join w/ sl st.', 24),
    (ROUND, 24, 'With A, ch 1, sc in next 3 sts; with B, sc in next 3 sts; *with A, sc in next 3 sts; with B, sc in next 3 sts; rep from * around; join.', 24),
    (ROUND, 24, 'Ch 1, *A: sc in next 2 sts; B: sc in next 2 sts; rep from * around; join.', 24),
    (ROWS, 20, 'Ch 2 (counts as a st), turn, sk the first st, hdc in next st and in every st across.', 20),
    (ROWS, 20, 'Ch 1, turn. Work 1 sc in each st until last 2 sts, sc2tog.', 19),
    (ROWS, 20, 'Ch 1, turn. Skip 1st st, sc in next 17 sts, skip next st, sc in last st.', 18),
    (ROWS, 20, 'Turn. Sl st in first 2 sts, ch 1, sc in same st as last sl st, sc across to last st, leave last st unworked.', 18),
    (ROWS, 20, 'Sc 10, turn. Leave rest of row unworked.', 10),
    (ROWS, 20, 'Ch 1, turn, 1 sc in first st, (1 sc, ch 1, 1 sc) in each of the next 18 sts, 1 sc in last st.', 38),
    (ROWS, 20, 'Ch 3 (counts as dc), turn, dc2tog over next 2 sts, dc in each st to last 3 sts, dc2tog over next 2 sts, dc in last st.', 18),
    (ROWS, 20, 'Ch 3 (counts as dc), turn, 2 dc in next st, dc in each st to last 2 sts, 2 dc in next st, dc in last st.', 22),
    (ROWS, 20, 'Ch 1, turn, sc in each of first 8 sts, ch 4, skip 4, sc in each of last 8 sts. (16 sts, 1 ch-4 sp)', 16),
    (ROWS, 20, 'Ch 1, turn, sc in next 9 sts, ch 2 (buttonhole), skip 2 sts, sc in next 9 sts.', 18),
    (ROWS, 20, 'Ch 1, turn, sc in next 9 sts, (2 sc) in next 2 sts, sc in next 9 sts.', 22),
    (ROWS, 20, 'Ch 1, turn, [sc2tog] 10 times.', 10),
    (ROWS, 20, 'Ch 1, turn, sc2tog across.', 10),
    (ROWS, 20, 'Ch 1, turn, *2 sc in next st; rep from * across.', 40),
    (ROWS, 20, 'Ch 3 (counts as dc), turn, sk first st, *sk next st, dc in next st, dc in skipped st; rep from * to last st, dc in last st.', 20),
    (ROWS, 20, 'Ch 1, turn, sc in first st, *ch 1, sk 1, sc in next st; rep from * to last st, sc in last st.', 11),
    (ROWS, 20, 'Ch 1, turn, sc blo across.', 20),
    (ROWS, 20, 'Turn, sl st loosely in each st across through back loops only.', 20),
    (ROWS, 20, 'Turn. BLO sl st in each st across.', 20),
    (ROWS, 20, 'Ch 1, turn, sc in front loop of first st, sc in back loop of next st, *sc in flo of next st, sc in blo of next st; rep from * across.', 20),
    (ROWS, 20, 'Ch 2, turn; *fphdc around next st, bphdc around next st; rep from * across.', 20),
    (ROWS, 20, 'Ch 1, turn; sc in first 2 sts, *bobble in next st, sc in next 2 sts; rep from * across.', 20),
    (ROWS, 20, 'Ch 1, turn, sc in first 3 sts, *bo in next st, sc in next 3 sts; rep from * to last st, sc in last st.', 20),
    (ROWS, 20, 'Ch 1, turn. Sc in first sc and in each sc and bobble across.', 20),
    (ROWS, 20, 'Turn, ch 1, work sc in each st across to end of row.', 20),
    (ROWS, 20, 'Without turning, ch 1, reverse single crochet in each st across from left to right.', 20),
    (ROWS, 20, 'sc across row. Ch 1. Turn.', 20),
    (ROWS, 20, '20 sc, ch 1, turn', 20),
    (ROWS, 20, 'sc in 20 sts; ch 1; turn', 20),
    (ROWS, 20, '1 sc in 1st st, 1 sc in each of the following 18 sts, 1 sc in last st, ch 1 turn.', 20),
]  # fmt: skip


@pytest.mark.parametrize(("before", "n", "row", "stitches"), PUBLISHED, ids=[row[:70] for _, _, row, _ in PUBLISHED])
def test_a_published_row(before: str, n: int, row: str, stitches: int) -> None:
    proof = prove_text(before.format(n=n, more=n + 1, row=row))
    assert [
        f.message for f in proof.findings if f.severity == "error" or f.code in ("not-understood", "not-worked")
    ] == []
    assert proof.lines[-1].sts == (stitches,)


@pytest.mark.parametrize(("before", "n", "row", "stitches"), PUBLISHED, ids=[row[:70] for _, _, row, _ in PUBLISHED])
def test_it_is_refuted_when_its_total_is_one_off(before: str, n: int, row: str, stitches: int) -> None:
    """Whatever freedom there is in reading a row, it does not go so far that any total can be made true."""
    text = before.format(n=n, more=n + 1, row=row.rstrip(". "))
    if row.rstrip(". ").endswith(")") or "ch 1, sk 1" in row:
        return  # says its total already; or has single chains, which some count as stitches
    for stated in (stitches - 1, stitches + 1):
        proof = prove_text(f"{text}. — {stated} sts")
        assert any(f.severity == "error" and f.span.line == 4 for f in proof.findings), stated
