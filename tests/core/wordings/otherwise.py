"""Other ways of saying a thing than the usual one. {what: (text, the stitches after each line in the first size, in the last)}."""

TWO = "Sizes: S, L\n"
RING = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\n"
WIDE = "Ch 21.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (20)\n"

SAID: dict[str, tuple[str, tuple[int | None, ...], tuple[int | None, ...] | None]] = {
    "until so many are left": (
        WIDE + "Row 2: Ch 1, sc2tog, sc in each st until 2 are left, sc2tog, turn. (18)", (20, 18), None,
    ),
    "skipped chains that are said to be a stitch by a sign": (
        "Ch 22.\nRow 1: Dc in 4th ch from hook (3 skipped ch = 1 dc) and in each ch to end, turn. (20)", (20,), None,
    ),
    "a chain that counts as the first one": (
        "Rnd 1: In a magic ring work 12 dc (ch 3 counts as the first one). Join. (12 dc)", (12,), None,
    ),
    "a chain that stands for a stitch and a space": (
        WIDE + "Row 2: Ch 4 (stands for 1 dc and 1 ch), sk first 2 sts, dc in next st, *ch 1, sk 1 st, dc in next st; rep from * to last st, dc in last st, turn. (11 dc, 9 sps)",
        (20, 11), None,
    ),
    "each, and nothing else": (WIDE + "Row 2: Ch 1, turn, sc in each. (20)", (20, 20), None),
    "the other side of the chain, cut short": (
        "Ch 11.\nRnd 1: 2 sc in 2nd ch from hook, sc in next 8 ch, 4 sc in last ch, cont on other side, sc in next 8 ch, 2 sc in last ch, join. (24)",
        (24,), None,
    ),
    "of which chains a pattern repeat is made": (
        "Ch 21. (multiple of 6 + 2)\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (20)", (20,), None,
    ),
    "a space beside the stitches is another place": (
        "Ch 4, join into a ring.\nRnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join.\n"
        "Rnd 2: Sl st in next 2 dc and in ch-2 sp, (ch 3, 2 dc, ch 2, 3 dc) in same sp, *(3 dc, ch 2, 3 dc) in next ch-2 sp; rep from * twice more; join.",
        (12, 24), None,
    ),
    "kinds after a place of its own, told with working": (
        RING + "Rnd 2: Ch 3 (counts as dc), dc in next 4 sts, ch 2, sk 1, *dc in next 5 sts, ch 2, sk 1; rep from * around; join. (20 dc, 4 ch-2 sps)\n"
        "Rnd 3: Ch 1, sc in same st and in each dc around, working 3 sc in each ch-2 sp; join. (32)",
        (24, 20, 32), None,
    ),
    "row ends, corners of their own and the far side": (
        WIDE + "Rows 2-10: Ch 1, sc in each st across, turn. (20)\n"
        "Rnd 1: Ch 1, rotate to work down the side, sc in end of each row to corner, 3 sc in corner, sc in each ch across the bottom, "
        "3 sc in next corner, sc in end of each row up the second side. Fasten off. (46)",
        (20, 20, 46), None,
    ),
    "a part whose rows are counted from 1 again": (
        WIDE + "Rows 2-5: Ch 1, sc in each st across, turn. (20)\nShape the flap\nRow 1: Ch 1, sc2tog, sc to last 2 sts, sc2tog, turn. (18)\n"
        "Row 2: Ch 1, sc in each st across, turn. (18)",
        (20, 20, 18, 18), None,
    ),
    "what is counted in the middle of a row": (
        RING + "Rnd 2: Ch 1, sc in next 12 sts (12), 2 sc in next 12 sts (24); join. (36)", (24, 36), None,
    ),
    "ranges by slashes with words": (
        TWO + RING + "Rnds 2 to 4 / 2 to 6: Ch 1, sc in each st around; join. (24)\nRnd 5 / 7: Ch 1, sc in each st around; join. (24)", (24, 24, 24), (24, 24, 24),
    ),
    "ranges by commas": (
        "Sizes: S, M, L\n" + RING + "Rounds 2-4, 2-5, 2-6: 1 sc in every sc. (24)\nRound 5, 6, 7: *4, 4, 2 sc, sc2tog; repeat from * to end. 20, 20, 18 sts",
        (24, 24, 20), (24, 24, 18),
    ),
    "ordinals of rows repeated": (
        WIDE + "2nd row: Ch 1, sc in each st across, turn.\n3rd row: Ch 1, 2 sc in first st, sc in each st across, turn.\n"
        "Rep 2nd and 3rd rows until 9 rows have been worked.", (20, 20, 21, 24), None,
    ),
    "colours of rows repeated": (
        WIDE + "Row 2: Ch 1, sc in each st across, turn.\nRep Row 2 for pattern, working 2 rows in B and 2 rows in A until 14 rows have been completed.",
        (20, 20, 20), None,
    ),
    "a row called by the number of the first size": (
        TWO + RING + "Rnds 2-3 (2-5): Ch 1, 2 sc in first st, sc in each st around; join. (26 (28))\n"
        "Rnd 4 (6): Ch 1, sc in each st around; join. (26 (28))\nRnds 5-9 (7-11): Rep Rnd 4. (26 (28))",
        (24, 26, 26, 26), (24, 28, 28, 28),
    ),
    "a row of the section before": (
        "Base\n" + RING + "Rnd 2: Ch 1, sc in each st around; join. (24)\nBody\nRnd 3: Ch 1, 2 sc in first st, sc in each st around; join. (25)\n"
        "Rnds 4-6: Rep Rnd 2. (25)", (24, 24, 25, 25), None,
    ),
    "the first of several skipped under a chain that counts": (
        RING + "Rnd 2: Ch 3 (counts as hdc and ch 1), sk first 2 sts, *hdc in next st, ch 1, sk 1 st; rep from * around; join. (12 hdc, 12 ch-1 sps)",
        (24, 12), None,
    ),
    "a chain that begins a stitch of the pattern's own": (
        "Define: V-st = (dc, ch 1, dc) in same st\n" + RING
        + "Rnd 2: Ch 4, dc in same st (counts as first V-st), sk 2 sts, *V-st in next st, sk 2 sts; rep from * around, sl st to 3rd ch of beg ch-4. (8 V-sts)\n"
        "Rnd 3: Ch 1, 2 sc in each V-st around; join. (16)", (24, 16, 16), None,
    ),
    "a round that ends with a bare slip stitch": (
        "Ch 4, join into a ring.\nRound 1: ch3 (= 1dc), 11dc into ring, ss into 3rd ch. 12dc\nRound 2: ch3, dc into same st, 2dc into each st to end, ss. 24dc",
        (12, 24), None,
    ),
    "the last loop reaches over what the others skip": (
        RING + "Rnd 2: Ch 1, sc in same st, ch 4, *sk next 3 sts, sc in next st, ch 4; rep from * 4 more times; join. (6 sc, 6 ch-4 sps)", (24, 6), None,
    ),
    "a group in one space and in each": (
        RING + "Rnd 2: Ch 1, *sc in next st, ch 3, sk 2 sts; rep from * around; join. (8 sc, 8 ch-3 sps)\n"
        "Rnd 3: Sl st in first ch-3 sp, ch 1, (sc, hdc, sc) in same sp and in each ch-3 sp around; join. (24)", (24, 8, 24), None,
    ),
    "plain rows by how many they are": (
        TWO + WIDE + "Work even for 6 (10) more rows.\nRow 8 (12): Ch 1, sc2tog, sc in each st across, turn. (19)", (20, 20, 19), (20, 20, 19),
    ),
    "the last few rounds some times more": (
        "Sizes: S, M, L\n" + RING + "Next round: (hdc 2, ch 2, skip 2) around. (12)\nNext round: hdc in each hdc and 2 hdc in each ch-2 sp around. (24)\n"
        "Repeat these 2 rounds 2, 3, 4 times more.", (24, 12, 24, 24), (24, 12, 24, 24),
    ),
    "sets in three kinds of bracket": (
        "Sizes: 1 [2] {3}\nCh 24 [30] {36}, join into a ring.\nRnd 1: Sc in each ch around; join. 24 [30] {36} sts", (24,), (36,),
    ),
    "sets that stand in brackets as a whole": (
        "Sizes: (1, 2, 3)\nCh (24, 30, 36), join into a ring.\nRnd 1: Sc in next (24, 30, 36) chs, sl st to join: (24, 30, 36) sc", (24,), (36,),
    ),
    "sets with colons": (TWO + "Ch 24:30, join into a ring.\nRnd 1: Sc in each ch around; join. 24:30 sts", (24,), (30,)),
    "up to a marker, and past it": (
        RING + "Rnd 2: Ch 1, sc in next 8 sts, place marker, sc in next 6 sts, place marker, sc in last 10 sts; join. (24)\n"
        "Rnd 3: Ch 1, sc in each st to first marker, ch 6, skip to next marker, sc in each st to end; join.", (24, 24, 18), None,
    ),
    "lace between two markers": (
        "Ch 34.\nRow 1: Dc in 4th ch from hook (3 skipped ch count as 1 dc), dc in each ch to end, turn. (32 dc)\n"
        "Row 2: Ch 3 (counts as dc), dc in next 9 dc, place marker, dc in next 12 dc, place marker, dc in last 10 dc, turn. (32 dc)\n"
        "Row 3: Ch 3, dc in each dc to marker, *ch 1, sk 1 dc, dc in next dc; rep from * to next marker, dc in each dc to end, turn. (26 dc, 6 ch-1 sps)\n"
        "Row 4: Ch 3, dc in each dc and ch-1 sp across, turn. (32 dc)", (32, 32, 26, 32), None,
    ),
    "a net whose ring alone is joined": (
        "Ch 4, join to form a ring.\nRnd 1: Ch 1, 8 sc in ring, join.\nRnd 2: (Ch 4, sc in next sc) 8 times. 8 loops\nRnd 3: *Ch 5, sc in next loop, ch 5, sc in same loop; rep from * around. 16 loops\n"
        "Rnds 4-6: (Ch 6, sc in next loop) around. 16 loops\nRnd 7: 3 sc in each loop around. 48 sc", (8, 8, 16, 16, 48), None,
    ),
    "a strap chained across and worked back": (
        RING + "Strap\nRow 1: Ch 40, sk 11 sts, sl st in next st, turn, sc in each ch across. 40 sc\nRow 2: Ch 1, turn, sc in each st across. 40 sc",
        (24, 40, 40), None,
    ),
    "cables over their stitches": (
        "Define: C4F = skip next 2 sts, FPtr around next 2 sts, working in front of these, FPtr around each of 2 skipped sts\n" + WIDE
        + "Row 2: Ch 2 (does not count as a st), turn, hdc in next 6 sts, C4F over next 8 sts, hdc in last 6 sts. (20)", (20, 20), None,
    ),
    "posts as they look after a turn": (
        "Ch 20.\nRow 1: Dc in 4th ch from hook (3 skipped chs count as dc) and in each ch across, turn. (18)\n"
        "Row 2: Ch 2 (counts as hdc), *FPdc around next dc, BPdc around next dc; rep from * to last st, hdc in last st, turn. (18)\n"
        "Row 3: Ch 2, *FPdc around next FPdc, BPdc around next BPdc; rep from * to last st, hdc in top of ch-2, turn. (18)", (18, 18, 18), None,
    ),
    "raised stitches by their British letters": (
        "Terms: UK\nCh 24, join into a ring.\nRnd 1: 1 tr in each ch around; join. (24)\nRnd 2: *RtrF around next tr, RtrB around next tr; rep from * around; join. (24)",
        (24, 24), None,
    ),
    "the middle of each fan": (
        "Ch 32.\nRow 1: Sc in 2nd ch from hook, *skip 2 ch, 5 dc in next ch, skip 2 ch, sc in next ch; rep from * across. (31)\n"
        "Row 2: Ch 3 (counts as dc), turn, 2 dc in first sc, *sc in 3rd dc of next fan, 5 dc in next sc; rep from * across, ending last repeat with 3 dc in last sc. (31)",
        (31, 31), None,
    ),
    "a loop closed by a stitch, and worked around it": (
        RING + "Rnd 2: Ch 1, sc in same st as join, (ch 5, skip next 3 sts, sc in next st) 5 times, ch 2, skip last 3 sts, join with dc in first sc. (6 sc)\n"
        "Rnd 3: Ch 1, 2 sc around post of joining dc, 4 sc in each ch-5 loop around, 2 sc in same loop as first 2 sc; join. (24)", (24, 6, 24), None,
    ),
    "a bag closed by slip stitches through both layers": (
        RING + "To close the bottom, turn inside out, fold flat and sl st through both layers across. (12)", (24, 12), None,
    ),
    "chains over an opening are counted as stitches": (RING + "Rnd 2: 8sc, ch6, sk6, 10sc (24)\nRnd 3: 8sc, 6sc in ch sp, 10sc (24)", (24, 18, 24), None),
    "numbers in words": (
        "To begin, chain twenty-one.\nFirst row: single crochet in the second chain from the hook and in the next nineteen chains. (20 stitches)\n"
        "Rows two to six: Chain one, turn, single crochet in each stitch across. (20 stitches)", (20, 20), None,
    ),
    "rows in brackets of the counts of a chain": (
        "Ch 4, join into a ring.\nRnd 1: 12 dc in ring (ch 3 counts as the first dc), join. (12)\nRnd 2: Ch 3, dc in same st, *2 dc in next st; rep from * around, join. (24)",
        (12, 24), None,
    ),
}  # fmt: skip

# (what, words of it, what a slip makes of them, the code that is found)
SLIPS = [
        ("what is counted in the middle of a row", "sts (12), 2", "sts (13), 2", "part-differs"),
        ("row ends, corners of their own and the far side", "(46)", "(47)", "total-differs"),
        (
            "a row called by the number of the first size",
            "Rep Rnd 4. (26 (28))",
            "Rep Rnd 4. (26 (29))",
            "total-differs",
        ),
        ("the last loop reaches over what the others skip", "4 more times", "3 more times", "left-over"),
        ("a strap chained across and worked back", "each ch across. 40 sc", "each ch across. 41 sc", "total-differs"),
        ("cables over their stitches", "over next 8 sts", "over next 6 sts", "repeat-uneven"),
        ("a chain that begins a stitch of the pattern's own", "(8 V-sts)", "(9 V-sts)", "total-differs"),
        ("chains over an opening are counted as stitches", "10sc (24)\nRnd 3", "10sc (25)\nRnd 3", "total-differs"),
        ("a bag closed by slip stitches through both layers", "across. (12)", "across. (13)", "total-differs"),
        ("the middle of each fan", "last sc. (31)", "last sc. (33)", "total-differs"),
    ]  # fmt: skip
