"""What is said besides the rows, or with them. {what: (text, the stitches after each line in the first size, in the last)}."""

from tests.core.wordings.otherwise import RING, TWO, WIDE

SAID: dict[str, tuple[str, tuple[int | None, ...], tuple[int | None, ...] | None]] = {
    "going on until there are so many": (
        "Sizes: S, M, L\nRound 1: 8 hdc in ring. (8)\nRound 2: 2 hdc in each st. (16)\nRound 3: (hdc, 2 hdc in next st) x 8. (24)\n"
        "Continue increasing 8 stitches in each round as established until you have 40 (48, 56) stitches.\nNext round: hdc in each st around. (40, 48, 56)",
        (8, 16, 24, 40, 40), (8, 16, 24, 56, 56),
    ),
    "stitches and rounds that there are then": (
        TWO + "Terms: UK\nRound 1: 8 dc in ring. (8)\nRound 2: 2 dc in each st. (16)\nContinue in this way, increasing 8 sts in every round, until you have 32 (40) sts, 4 (5) rounds.",
        (8, 16, 32), (8, 16, 40),
    ),
    "more in the last stitch": (
        RING + "Rnd 2: Ch 1, sc in each st around, placing 2 sc in the last st; join. (25)", (24, 25), None,
    ),
    "more in the first and last stitch": (
        WIDE + "Row 2: Ch 1, sc in each st across, working 3 sc in the first and last st, turn. (24)", (20, 24), None,
    ),
    "what the repeats leave, which is nothing in a size": (
        TWO + "Ch 24 (27), join into a ring.\nRnd 1: Sc in each ch around; join. 24 (27) sts\n"
        "Rnd 2: Ch 1, *sc in next 4 sts, sc2tog; repeat from * to last 0 (3) sts, sc in each remaining st; join. (20, 23)",
        (24, 20), (27, 23),
    ),
    "the last corner left out": (
        "Rnd 1: Ch 4, join to form a ring, ch 3 (counts as dc), 2 dc in ring, ch 2, (3 dc in ring, ch 2) 3 times; join. (12 dc, 4 ch-2 sps)\n"
        "Rnd 2: Join in any ch-2 sp, (ch 3, 2 dc, ch 2, 3 dc) in same sp, *ch 1, (3 dc, ch 2, 3 dc) in next corner; repeat from * around, omitting the last corner; join. (24 dc, 4 ch-2 sps, 4 ch-1 sps)",
        (12, 24), None,
    ),
    "the last chain left out": (
        RING + "Rnd 2: Ch 1, sc in first st, *ch 3, sk 2 sts, sc in next st, ch 1; repeat from * to last 2 sts, omitting last ch 1; ch 3, sk 2 sts; join. (8 sc)",
        (24, 8), None,
    ),
    "the loop that a stitch has just closed": (
        RING + "Rnd 2: Ch 1, sc in same st, *ch 5, sk 2 sts, sc in next st; rep from * to last 2 sts, ch 2, sk last 2 sts, dc in first sc. (8 sc, 8 ch-5 sps)\n"
        "Rnd 3: Sc in loop just made, *ch 5, sc in next ch-5 sp; rep from * around, ch 2, dc in first sc. (8 sc, 8 ch-5 sps)", (24, 8, 8), None,
    ),
    "work turned so that one can go along the other side": (
        "Ch 11.\nRnd 1: Sc in 2nd ch from hook, sc in next 8 ch, 3 sc in last ch. Turn the work so that you can crochet along the other side of the chain: sc in next 8 ch, 2 sc in last ch; join. (22)",
        (22,), None,
    ),
    "pieces done earlier in one size": (
        "Sizes: small, medium, large\nBase\nR1: 6 sc in magic ring. (6)\nR2: 2 sc in each st. (12)\nR3: (sc, inc) 6x. (18)\nStop here for small; medium and large go on.\n"
        "R4: (2 sc, inc) 6x. (24)\nMedium: stop here.\nR5: (3 sc, inc) 6x. (30)\nBody\nNext rnd: sc in BLO around. (18 (24, 30))",
        (6, 12, 18, None, None, 18), (6, 12, 18, 24, 30, 30),
    ),
    "a cord in one line, made twice": (
        RING + "Cord: ch 40, sl st in 2nd ch from hook and in each ch. Make 2.", (24, 39), None,
    ),
    "a row over two pieces, one after another": (
        "Triangle (make 2)\nRow 1: Ch 4, 4 dc in 4th ch from hook (skipped ch count as dc), turn. (5 dc)\nRow 2: Ch 3 (counts as dc throughout), dc in same st, dc in next 3 sts, 2 dc in last st, turn. (7 dc)\n"
        "Body\nRow 1: Ch 3, dc in next 6 sts of second triangle, dc in each of 7 sts of first triangle, join. (14 dc)\nRnd 2: Ch 3, dc in each st around, join. (14 dc)",
        (5, 7, 14, 14), None,
    ),
    "free loops that are not named by their round": (
        RING + "Rnd 2: Ch 1, BLO sc in next 12 sts, sc in both loops of next 12 sts; join. (24)\n"
        "Flap\nWith the bag upside down, join yarn in the first unused front loop.\nRow 1: Ch 1, sc in each of the 12 unused front loops, turn. (12)", (24, 24, 12), None,
    ),
    "ordinals in sets": (
        "Sizes: S, M, L\n" + RING + "2nd to 5th (6th, 7th) rounds: Ch 1, sc in each st around; join. (24)\n6th (7th, 8th) round: Ch 1, 2 sc in first st, sc in each st around; join. (25)",
        (24, 24, 25), (24, 24, 25),
    ),
    "row ends by their number, and the stitches along the bottom": (
        WIDE + "Rows 2-8: Ch 1, sc in each st across, turn. (20)\nJoining\nRnd 1: Ch 1, sc in each of 8 row ends down first side, 3 sc in corner, sc in each of 20 sts along the bottom, 3 sc in corner, sc in each of 8 row ends up second side, turn. (42)",
        (20, 20, 42), None,
    ),
    "all four sides by their names": (
        "Base\nCh 9.\nRow 1: Sc in 2nd ch from hook and in each ch across. Turn. (8)\nRows 2-10: Ch 1, sc in each sc across. Turn. (8)\nSides\n"
        "Rnd 1: Ch 1, sc in each row end down the long side, 2 sc in the corner, sc in each ch along the foundation edge, 2 sc in the corner, sc in each row end up the other long side, "
        "2 sc in the corner, sc in each st across the last row, 2 sc in the last corner. Join. (44)", (8, 8, 44), None,
    ),
    "a total after a comma": (RING + "Rnd 2: Turn the tote inside out, fold it flat, ch 1, sc through both layers across, 12 sc. Fasten off.", (24, 12), None),
    "a heading before a row without a label": (
        WIDE + "Rows 2-4: Ch 1, sc in each st across, turn. (20)\nJOINING\nHolding both pieces together, ch 1, 5 sc evenly down the side, 3 sc in the corner, sc in each ch across the bottom. (28)", (20, 20, 28), None,
    ),
    "ranges with a word in each": (
        "Sizes: One (Two, Three)\n" + RING + "R2-R10 (2-12, 2-14): sc in each st around, join. [24]\nR11 (13, 15): 2 sc in first st, sc in each st around, join. [25]", (24, 24, 25), (24, 24, 25),
    ),
    "all sizes, and a word about what follows": (
        "Sizes: S, M\n" + RING + "Size M:\nRnd 2: Ch 1, sc in each st around; join. (24)\nAll sizes, sides: joined rounds from here.\nRnd 2 (3): Ch 1, 2 sc in first st, sc in each st around; join. (25)",
        (24, None, 25), (24, 24, 25),
    ),
    "the first mesh, told as what its chains are": (
        "Ch 24.\nRow 1: Dc in 6th ch from hook (counts as dc, ch 1, skip 1 ch), *ch 1, skip next ch, dc in next ch; rep from * across, turn. (10 ch-1 sps)\n"
        "Row 2: Ch 4 (counts as dc and ch 1), *dc in next dc, ch 1; rep from * to last space, skip 1 ch, dc in next ch of turning chain, turn. (10 ch-1 sps)", (11, 11), None,
    ),
    "a chain told before the stitch that it counts as": (
        "Row 1: Ch 4 (counts as ch 1 and dc), 6 dc in the 4th chain from the hook, turn. (7)\nRow 2: Ch 3 (counts as 1 dc), dc in the same st, 2 dc in each st across, turn. (14)", (7, 14), None,
    ),
    "foundation stitches and plain rows after a repetition": (
        "Size A [Size B]\nRow 1: fsc 20 [24], turn. (20 [24] fsc)\nRow 2: ch 1, sc2tog, sc to last 2 sts, sc2tog, turn. (18 [22] sc)\nRow 3: ch 1, sc across, turn.\n"
        "Rep these 2 rows until 10 [12] sc remain.\nWork 6 rows even. (10 [12] sc)", (20, 18, 18, 10, 10), (24, 22, 22, 12, 12),
    ),
    "which of the repeated rows is the last": (
        WIDE + "Row 2: Ch 1, 2 sc in first st, sc in each st across, turn. (21)\nRow 3: Ch 1, sc in each st across, turn. (21)\nRepeat Rows 2 and 3 until piece has 9 rows, ending with a Row 3. (24)\nRow 10: Ch 1, sc in each st across. (24)",
        (20, 21, 21, 24, 24), None,
    ),
    "a piece that makes its chains": (RING + "Lanyard: make 41 ch, 1 sc in 2nd ch from hook and in each ch to end. 40 sc", (24, 40), None),
    "sizes before a dash, and a last round by its name": (
        "Sizes: small, large\n" + RING + "Large only - Rnd 2: Ch 1, sc in each st around; join. (24)\nBoth sizes - Final rnd: Ch 1, 2 sc in first st, sc in each st around; join. (25)",
        (24, None, 25), (24, 24, 25),
    ),
    "rows in a list, with a number for each size": (
        "Sizes: mini/midi/maxi\nBobble = 5 dc in the same stitch, joined together at the top (dc5tog in same st)\n1. magic ring, 6 sc (6)\n2. 6 inc (12)\nmidi and maxi:\n3. (1 sc, 1 inc)x6 (18)\n"
        "maxi:\n4. (2 sc, 1 inc)x6 (24)\nall sizes:\n3/4/5. 12/18/24 sc in BLO (12/18/24)\n4/5/6. (5 sc, 1 bobble)x2/3/4 (12/18/24)",
        (6, 12, None, None, 12, 12), (6, 12, 18, 24, 24, 24),
    ),
    "one more at the end of a row of sc": (RING + "Rnd 2: Ch 1, sc in each sc around, increasing 1 sc at the end; join. (25)", (24, 25), None),
    "a strap in one line, worked back along its chain": (
        RING + "STRAP: Ch 50. Skip the next 11 sc, sl st in the next sc. Turn, sc in each ch back. 50 sc. Fasten off.", (24, 50), None,
    ),
    "two in each back loop": (RING + "Rnd 2: 2 sc in BLO; join. (48)", (24, 48), None),
    "abbreviations, one of which is a stitch of its own": (
        "STAR MAP\nAbbreviations\nch - chain\nsl st - slip stitch\nsk - skip\nV-st - (dc, ch 1, dc) in the same stitch or space\n" + RING
        + "Rnd 2: Ch 1, *V-st in next st, sk 2 sts; rep from * around; join. (8 V-sts)", (24, 16), None,
    ),
    "a chain that is counted in words, in a set with one slip": (
        TWO + "Ch 24 (30), join into a ring.\nRnd 1: Dc in each ch around w/ ch 3 as first dc; join. (24 (30) dc)\nRnd 2: Ch 4 (3), sk first dc, dc in each dc around; join. (24 (30) dc)", (24, 24), (30, 30),
    ),
    "what there is after the last of some rows, in a sentence": (
        WIDE + "Row 2: ch 1, turn, hdc2tog, hdc to last 2 sts, hdc2tog. (18)\nRows 3 - 5: do the same as row 2; you lose two stitches in each row, so after row 5 there are 12 hdc.", (20, 18, 12), None,
    ),
    "openings that are counted by their name": (
        RING + "Rnd 2: Ch 1, [sc in next 6 sts, ch 10, sk 6 sts] twice; join. [12 sc and two handles]", (24, 12), None,
    ),
    "a foundation worked back along, and its last place told once more": (
        "Ch 20.\nRnd 1: 2 hdc in 3rd ch from hook (skipped 2 chs do not count), hdc in each of next 16 ch, 4 hdc in last ch, working back along the chain, hdc in each of next 16 ch, 2 hdc in the last ch (the same ch as the first 2 hdc); join. (40 hdc)", (40,), None,
    ),
}  # fmt: skip

# (what, words of it, what a slip makes of them, the code that is found)
SLIPS = [
        ("going on until there are so many", "have 40 (48, 56)", "have 41 (48, 56)", "until-not-met"),
        ("going on until there are so many", "increasing 8", "increasing 6", "part-differs"),
        ("stitches and rounds that there are then", "increasing 8", "increasing 9", "part-differs"),
        ("stitches and rounds that there are then", "32 (40) sts, 4 (5)", "32 (40) sts, 5 (5)", "total-differs"),
        ("stitches and rounds that there are then", "32 (40) sts, 4 (5)", "33 (40) sts, 4 (5)", "total-differs"),
        ("more in the last stitch", "placing 2 sc", "placing 3 sc", "total-differs"),
        ("more in the first and last stitch", "(24)", "(22)", "total-differs"),
        ("what the repeats leave, which is nothing in a size", "last 0 (3)", "last 1 (3)", "repeat-uneven"),
        ("the last corner left out", ", omitting the last corner", "", "total-differs"),
        ("the loop that a stitch has just closed", "8 ch-5 sps)\nRnd 3", "9 ch-5 sps)\nRnd 3", "total-differs"),
        ("pieces done earlier in one size", "(18 (24, 30))", "(18 (24, 36))", "total-differs"),
        ("a row over two pieces, one after another", "next 6 sts", "next 5 sts", "left-over"),
        ("free loops that are not named by their round", "12 unused front loops", "13 unused front loops", "runs-out"),
        ("free loops that are not named by their round", "BLO sc in next 12", "Sc in next 12", "no-such-place"),
        ("ordinals in sets", "6th (7th, 8th)", "6th (7th, 9th)", "numbers-gap"),
        ("row ends by their number, and the stitches along the bottom", "of 8 row ends down", "of 7 row ends down", "no-such-place"),
        ("row ends by their number, and the stitches along the bottom", "of 20 sts along", "of 21 sts along", "runs-out"),
        ("all four sides by their names", "2 sc in the last corner", "3 sc in the last corner", "total-differs"),
        ("rows in a list, with a number for each size", "x2/3/4 (12/18/24)", "x2/3/5 (12/18/24)", "runs-out"),
        ("one more at the end of a row of sc", "increasing 1 sc", "increasing 2 sc", "not-understood"),
        ("a strap in one line, worked back along its chain", "ch back. 50 sc", "ch back. 51 sc", "total-differs"),
        ("ranges with a word in each", "R2-R10 (2-12", "R2-R10 (2-11", "numbers-gap"),
        ("the first mesh, told as what its chains are", "skip next ch, dc in next ch; rep from * across, turn. (10", "skip next ch, dc in next ch; rep from * across, turn. (11", "total-differs"),
        ("foundation stitches and plain rows after a repetition", "(20 [24] fsc)", "(20 [25] fsc)", "total-differs"),
        ("foundation stitches and plain rows after a repetition", "even. (10 [12]", "even. (10 [13]", "total-differs"),
        ("which of the repeated rows is the last", "Row 3. (24)", "Row 3. (25)", "total-differs"),
        ("a piece that makes its chains", "make 41 ch", "make 42 ch", "total-differs"),
        ("what there is after the last of some rows, in a sentence", "there are 12 hdc", "there are 13 hdc", "total-differs"),
        ("what there is after the last of some rows, in a sentence", "after row 5", "after row 6", "not-understood"),
        ("openings that are counted by their name", "two handles", "three handles", "total-differs"),
        ("a foundation worked back along, and its last place told once more", "first 2 hdc); join. (40", "first 2 hdc); join. (42", "total-differs"),
        ("a total after a comma", "across, 12 sc", "across, 13 sc", "total-differs"),
    ]  # fmt: skip
