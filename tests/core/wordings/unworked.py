"""Stitches that are left unworked and taken up later, and what repeats leave. {what: (text, the stitches after each line in the first size, in the last)}."""

from tests.core.wordings.otherwise import RING, TWO, WIDE

# A rim of 24 with a first strap of 5 stitches, and 19 left.
STRAP = (
    RING
    + "First strap\nRow 1: Ch 1, sc in next 5 sts, turn, leaving rem sts unworked. (5)\nRow 2: Ch 1, sc in each st across, turn. (5)\nFasten off.\n"
)

SAID: dict[str, tuple[str, tuple[int | None, ...], tuple[int | None, ...] | None]] = {
    "a second strap, so many stitches further": (
        STRAP + "Second strap\nRow 1: Sk next 7 sts, join yarn in next st, ch 1, sc in same st, sc in next 4 sts, turn. (5)\nRow 2: Ch 1, sc in each st across. (5)",
        (24, 5, 5, 5, 5), None,
    ),
    "where it begins, told in a line of its own": (
        TWO + STRAP + "Second strap\nSkip next 7 (6) sts from the first strap, rejoin yarn to next st.\nRow 1: Ch 1, sc in next 5 sts, turn. (5)\nRow 2: Ch 1, sc in each st across. (5)",
        (24, 5, 5, 5, 5), (24, 5, 5, 5, 5),
    ),
    "a second strap like the first": (
        STRAP + "Second strap\nSk next 7 sts, join yarn in next st.\nRow 1: Ch 1, sc in next 5 sts, turn. (5)\nRow 2: as first strap", (24, 5, 5, 5, 5), None,
    ),
    "the two sides of a panel": (
        WIDE + "Row 2: Ch 1, sc in next 8 sts, turn. Continue on these 8 sts only.\nRow 3: Ch 1, sc in each st across, turn. (8)\nRepeat this row 3 more times.\nFasten off.\n"
        "Row 7: Join yarn in next unworked st of Row 1, ch 1, sc in same st and in each st across, turn. (12)",
        (20, 8, 8, 8, 12), None,
    ),
    "a short row that is made good": (
        WIDE + "Row 2: Ch 1, sc in next 14 sts, turn, leaving rest unworked. (14)\nRow 3: Ch 1, sc in each st across, turn. (14)\n"
        "Row 4: Ch 1, sc in next 14 sts, sc in the 6 sts left unworked in Row 2, turn. (20)\nRow 5: Ch 1, sc in each st across. (20)",
        (20, 14, 14, 20, 20), None,
    ),
    "what the repeats leave": (
        TWO + RING + "Rnd 2: Ch 1, [sc in next 5 (4) sts, sc2tog] around, sc in each remaining st; join. (21, 20)", (24, 21), (24, 20),
    ),
    "nothing is left by the repeats": (RING + "Rnd 2: Ch 1, [sc in next 4 sts, sc2tog] around, sc in any remaining sts; join. (20)", (24, 20), None),
    "as often as it stands before the bracket": (RING + "Rnd 2: 6 x (sc 3, inc). (30)\nRnd 3: (MC) 6 x (sc 3, inc, (CC) sc 1). (36)", (24, 30, 36), None),
    "all turns in one place": (
        "Rnd 1: Make a magic ring, ch 3 (counts as dc), dc in ring, ch 1, (2 dc, ch 1) 5 times in ring; join. (12 dc, 6 ch-1 sps)\n"
        "Rnd 2: Sl st in next dc and in ch-1 sp, ch 3, (dc, ch 1, 2 dc) in same sp, dc in sp between next two 2-dc groups, *(2 dc, ch 1, 2 dc) in next ch-1 sp, dc in sp between groups; rep from * around; join.",
        (12, 30), None,
    ),
    "posts as they look": (
        "Ch 21.\nRow 1: Hdc in 3rd ch from hook and in each ch across. (19)\nRow 2: Ch 1, turn, *FPdc around next st, BPdc around next st; rep from * to last st, FPdc around last st. (19)\n"
        "Row 3: Ch 1, turn, *FPdc around each FPdc, BPdc around each BPdc* to end. (19)",
        (19, 19, 19), None,
    ),
    "an ending in another place than the repeat": (
        "Ch 16.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (15)\nRow 2: Ch 1, sc in first sc, *ch 3, sk next sc, sc in next sc; rep from * across, turn. (8 sc, 7 ch-3 sps)\n"
        "Row 3: Ch 4 (counts as dc and ch 1), *sc in next ch-3 sp, ch 3; rep from * to last ch-3 sp, sc in last ch-3 sp, ch 1, dc in last sc, turn.\n"
        "Row 4: Ch 1, sc in first dc, *ch 3, sc in next ch-3 sp; rep from * across, ending with sc in 3rd ch of turning ch, turn. (8 sc, 7 ch-3 sps)",
        (15, 8, 9, 8), None,
    ),
    "the base of the chain": (RING + "Rnd 2: 3 ch (counts as dc), 1 dc into base of 3 ch, 2 dc into each st to end, sl st to top of 3 ch. (48)", (24, 48), None),
    "a low chain before tall stitches": (RING + "Rnd 2: Ch 2, *dc, ch 1, skip a st* repeat to end, join to first dc. (12 dc, 12 ch-1 sps)", (24, 12), None),
    "which piece, named beside the stitches": (
        WIDE + "Row 2: Ch 1, sc in each of the 20 sts of the front, turn. (20)\nRow 3: Ch 1, sc in each st of back panel, turn. (20)", (20, 20, 20), None,
    ),
    "foundation stitches by their name": (TWO + "Strap\nFsc 10 (12).\nRow 1: Ch 1, turn, sc in each fsc. (10, 12)", (10, 10), (12, 12)),
    "ranges with the word in each": (TWO + RING + "R2-R4 (R2-R6): sc in each st around\nR5 (R7): sc in each st around. (24)", (24, 24, 24), (24, 24, 24)),
    "ranges with spaces": (TWO + RING + "R 2 - 4 / 2 - 6: sc in each st around\nRd 5 / 7: sc in each st around. (24)", (24, 24, 24), (24, 24, 24)),
    "rounds called Rd": (RING + "Rd 2: Ch 1, sc in each st around, join.\nRds 3-6: As Rd 2.\nRep Rd 2 for 8 rds total.", (24, 24, 24, 24), None),
    "a total behind the rows to repeat": (
        TWO + WIDE + "Row 2: Ch 1, sc2tog, sc in each st across, turn. (19, 19)\nRow 3: Ch 1, sc in each st across, turn. (19, 19)\nRows 4-7: Repeat rows 2 and 3 (17, 17)", (20, 19, 19, 17), (20, 19, 19, 17),
    ),
    "sizes by words and slashes": (
        "Sizes: S, M, L\n" + WIDE + "Row 2: Ch 1, sc in each st across, turn. (20)\nRows 3-6/8/10: Repeat row 2 four/six/eight times. (20)", (20, 20, 20), (20, 20, 20),
    ),
    "sizes in braces": ("Sizes: Small {Medium, Large}\nChain 11 {13, 15}.\nROW 1: Sc in 2nd ch from hook and in each ch to end. {10 (12, 14) sc}", (10,), (14,)),
    "sizes with what they measure": ("Sizes: A: 6 sts around; B: 8 sts around\nRnd 1: 6 (8) sc in ring. [6 (8)]", (6,), (8,)),
    "sizes named in brackets": ("One pattern, 2 sizes (phone / wallet)\nChain 18 / 24\nRow 1: Sc in 2nd ch from hook and in each ch. 17 / 23 sc", (17,), (23,)),
    "a size line without a colon": ("Sizes  A   B\nRnd 1: 6 sc in ring. (6)\nSize B\nRnd 2: 2 sc in each st. (12)\nAll sizes\nNext rnd: sc around. (6 (12))", (6, None, 6), (6, 12, 12)),
    "a size behind a bare number": (TWO + "1. 6 sc in magic ring. [6]\n2. (L) 2 sc in each st around. [12]\n2 (3). sc in each st around. [6, 12]", (6, None, 6), (6, 12, 12)),
    "a size that is over where numbers for all come": (
        TWO + "R 1: 6 sc in ring (6)\nfor L:\nR 2: 2 sc in each st (12)\nR 2 / 3: sc in each st (6 / 12)", (6, None, 6), (6, 12, 12),
    ),
    "two totals with a semicolon": ("Sizes: P, C\nCh 18, 22.\nRow 1: Sc in 2nd ch from hook and in each ch. 17, 21 sc\nRow 2: Ch 1, turn, sc in first st, *ch 3, sk next st, sc in next st; rep from * across. 9, 11 sc; 8, 10 ch-3 lps", (17, 9), (21, 11)),
    "a loop taken by its ordinal": (WIDE + "Row 2: Ch 1, turn, hdc in the third loop of each st across. (20)", (20, 20), None),
    "handles as places": (
        RING + "Rnd 2: Ch 1, sc in next 6 sts, ch 10, sk 6 sts, sc in next 6 sts, ch 10, sk 6 sts; join. 12 sc and 2 handles\nRnd 3: Ch 1, sc in each sc and 12 sc into each handle; join. (36)\n"
        "Rnd 4: Ch 1, sc in next 18 sts, ch 4, sk 6 sts, sc in last 12 sts; join.\nRnd 5: sc in each st, 5 sc around each chain. (35)",
        (24, 12, 36, 30, 35), None,
    ),
    "two equal pieces by what they are": (
        "Panel (make 2)\n" + WIDE + "Top band\nRnd 1: Ch 1, sc in next 20 sts of front panel, sc in next 20 sts of back panel, join. (40)", (20, 40), None,
    ),
    "a copy under another number": (
        "First disc:\nRnd 1: 6 sc in ring. (6)\nRnd 2: 2 sc in each st. (12)\nFasten off.\nSecond disc:\nSame as first but don't fasten off.\nEdge\nRnd 1: Ch 1, sc in each st around, join. (12)", (6, 12, 6, 12, 12), None,
    ),
    "stripes told of the rows to repeat": (
        WIDE + "Row 2: Ch 1, turn, sc blo across. (20)\nRows 3-8: as row 2, 4 rows with colour 1 and 2 rows with colour 2\nRepeat these 6 rows 2 more times. 20 rows.", (20, 20, 20, 20), None,
    ),
    "work these rows so often": (
        WIDE + "Row 2: Ch 1, turn, sc2tog, sc to last 2 sts, sc2tog. (18)\nRow 3: Ch 1, turn, sc across.\nWork these 2 rows 3 more times. (12)", (20, 18, 18, 12), None,
    ),
}  # fmt: skip

# (what, words of it, what a slip makes of them, the code that is found)
SLIPS = [
        ("a second strap, so many stitches further", "Sk next 7", "Sk next 20", "runs-out"),
        ("a second strap, so many stitches further", "sc in next 4 sts, turn. (5)", "sc in next 5 sts, turn. (5)", "total-differs"),
        ("the two sides of a panel", "these 8 sts", "these 9 sts", "total-differs"),
        ("the two sides of a panel", "turn. (12)", "turn. (13)", "total-differs"),
        ("a short row that is made good", "the 6 sts left", "the 7 sts left", "runs-out"),
        ("a short row that is made good", "sc in next 14 sts, sc in the", "sc in next 13 sts, sc in the", "left-over"),
        ("what the repeats leave", "next 5 (4)", "next 7 (4)", "total-differs"),
        ("as often as it stands before the bracket", "Rnd 2: 6 x", "Rnd 2: 7 x", "runs-out"),
        ("all turns in one place", "(2 dc, ch 1) 5", "(2 dc, ch 1) 4", "total-differs"),
        ("posts as they look", "BPdc around each BPdc", "2 BPdc around each BPdc", "total-differs"),
        ("an ending in another place than the repeat", "turn. (8 sc, 7 ch-3 sps)", "turn. (8 sc, 8 ch-3 sps)", "total-differs"),
        ("the base of the chain", "2 dc into each st", "1 dc into each st", "total-differs"),
        ("a low chain before tall stitches", "12 ch-1 sps", "13 ch-1 sps", "total-differs"),
        ("sizes in braces", "{10 (12, 14) sc}", "{10 (12, 15) sc}", "total-differs"),
        ("two totals with a semicolon", "9, 11 sc; 8, 10", "9, 11 sc; 8, 11", "total-differs"),
        ("two totals with a semicolon", "9, 11 sc; 8", "9, 12 sc; 8", "total-differs"),
        ("handles as places", "12 sc into each handle", "13 sc into each handle", "total-differs"),
        ("two equal pieces by what they are", "20 sts of back panel", "21 sts of back panel", "runs-out"),
        ("a size behind a bare number", "[6, 12]", "[6, 13]", "total-differs"),
        ("work these rows so often", "3 more times. (12)", "3 more times. (11)", "total-differs"),
    ]  # fmt: skip
