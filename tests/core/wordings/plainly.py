"""Plain published wording. {what: (text, the stitches after each line in the first size, in the last)}."""

TWO = "Sizes: S (L)\n"
RING = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\n"
BASE = "Base\nCh 21\nRow 1: Sc in 2nd ch from hook and across. [20]\nRows 2-12: Ch 1, turn, sc across. [20]\n"
OPEN = "Rnd 1: Ch 1, 40 fsc; join. (40)\nRnd 2: Ch 1, 5 sc, ch 12, sk 10, 10 sc, ch 12, sk 10, 5 sc; join. (20 sc)\n"
MOSS = "Ch 20.\nRow 1: Sc in 4th ch from hook, *ch 1, skip 1 ch, sc in next ch; rep from * to end. Turn. (9 sc)\n"
SHELLS = "Ch 60, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. (60)\n"
V = "Ch 17\nRow 1: Dc in 4th ch from hook (3 missed ch count as a dc), dc in every ch to the end, turn. 15 dc\n"

SAID: dict[str, tuple[str, tuple[int | None, ...], tuple[int | None, ...] | None]] = {
    "a cluster of one place, begun by its chain": (
        "Cluster (cl): 3 dc worked in the same space.\nCorner: (cl, ch 2, cl) in the same ch-2 space.\nCh 4, join into a ring.\n"
        "Rnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, (cl, ch 2) 3 times in ring; join. (4 cl, 4 ch-2 sps)\n"
        "Rnd 2: Sl st in next 2 sts and in ch-2 sp, ch 3, 2 dc in same sp, ch 2, cl in same sp, ch 1, *corner in next ch-2 sp, ch 1; rep from * 2 more times; join. "
        "(8 cl, 4 ch-2 sps, 4 ch-1 sps)",
        (12, 24), None,
    ),
    "the last of so many repeats without its end": (
        "Ch 4, join into a ring.\nRnd 1: Ch 1, 12 sc in ring, join. (12 sc)\n"
        "Rnd 2: Ch 1, sc in first st, *3 sc in next st, sc in next 2 sts; rep from * 3 times more, omitting last sc. Join. (20 sc)\n"
        "Rnd 3: Ch 1, sc in first 2 sts, *3 sc in next st, sc in next 2 sts, (sc in next st) 2 times; rep from * 3 times more, omitting last 2 sc of last rep. Join. (28 sc)",
        (12, 20, 28), None,
    ),
    "abbreviations of its own": (
        "Stitch key: X = sc, V = sc increase, A = invisible decrease, T = hdc\nRnd 1: 6 X in magic ring (6)\nRnd 2: 6 V (12)\nRnd 3: (X, V) * 6 (18)\nRnd 4: (T, A) x 6 (12)",
        (6, 12, 18, 12), None,
    ),
    "sizes and sets by dashes": (
        "Bucket, 3 sizes (S-M-L)\nIn a magic ring:\nRd 1: 6 sc (6)\nRd 2: 6 inc (12)\nRd 3: (sc, inc) x 6 (18)\nM and L\nRd 4: (2 sc, inc) x 6 (24)\nL\n"
        "Rd 5: (3 sc, inc) x 6 (30)\nSide\nRd 1: 18-24-30 sc\nRd 2-4: 18-24-30 sc",
        (6, 12, 18, 18, 18), (6, 12, 18, 24, 30, 30, 30),
    ),
    "a row of V-stitches told in a list, and the last space before the chain": (
        "ch: chain, dc: double crochet, V-st: (dc, ch 1, dc) in the same st or space, tch: turning chain\n" + V
        + "Row 2: Ch 3, miss first 2 sts, V-st in next st, *miss 2 sts, V-st in next st; repeat from * to last 3 sts, miss 2 sts, dc in top of tch, turn. 4 V-sts\n"
        "Row 3: Ch 3, V-st in ch-1 sp of each V-st to end, dc in top of tch, turn. 4 V-sts\n"
        "Row 4: Ch 3, *3 dc in next ch-1 sp; rep from * to last st, dc in top of tch, turn. 14 dc",
        (15, 10, 10, 14), None,
    ),
    "moss stitch from a first space of skipped chains": (
        MOSS + "Row 2: Ch 2, skip first sc, *sc in next ch-1 sp, ch 1, skip next sc; rep from * to last sp, sc in last ch-2 sp. Turn. (9 sc)\n"
        "Row 3: Ch 2, *sc in next ch-1 sp, ch 1; rep from * to end, sc in ch-2 sp. Turn. (9 sc)\n"
        "Row 4: Ch 1, sc in first sc, sc in each ch-1 sp and sc across to ch-2 sp, sc in ch-2 sp. Turn. (18 sc)",
        (9, 9, 9, 18), None,
    ),
    "handles: to the chain, and each of its chains": (
        OPEN + "Rnd 3: Ch 1, *1 sc in each st to the chain, 1 sc in each ch; repeat from * once more, 1 sc in each st to end of rnd; join. (44 sc)", (40, 20, 44), None,
    ),
    "handles: until you reach the chain": (
        OPEN + "Rnd 3: Ch 1, sc in each st until you reach the chain, sc in each ch, sc in each st until next chain, sc in each ch, sc in remaining sts; join. (44 sc)",
        (40, 20, 44), None,
    ),
    "handles: so many over the chain": (
        OPEN + "Rnd 3: Ch 1, sc in each of next 5 sc, 14 sc over handle chain, sc in each of next 10 sc, 14 sc along the handle chain, sc in each of last 5 sc; join. (48)",
        (40, 20, 48), None,
    ),
    "handles: so many into each loop": (
        OPEN + "Rnd 3: Ch 1, (sc in each sc to handle, 14 sc in handle ch-sp) twice, sc in each sc to end; join. (48)", (40, 20, 48), None,
    ),
    "handles: each chain stitch": (OPEN + "Rnd 3: Ch 1, sc in each sc and each chain stitch around; join. (44)", (40, 20, 44), None),
    "a chain in its first round that counts": (
        "Round 1: Start with a magic circle. CH 3, 15 DC in circle. SLST to top of CH 3. (16)\nRound 2: CH 3, DC in same st, 2 DC in each st around. SLST to top of CH 3. (32)",
        (16, 32), None,
    ),
    "a slip ring, and a chain that the total names": (
        "Terms: UK\nRound 1: Make a slip ring, 3 ch, 11 tr into the ring, slip stitch into 3rd of 3 ch. [12 tr incl. starting ch]\n"
        "Round 2: sl st into each of first 2 tr, 3 ch, 1 tr into each st to end, sl st into 3rd of 3 ch. [12 tr]",
        (12, 12), None,
    ),
    "an oval whose end chains are worked into once more": (
        "Ch 21.\nRound 1: Sc in the second chain from your hook and in each chain across, working 2 sc in the last chain. Continue along the bottom loops of the chain: "
        "sc in each chain to the end. Join. (40 sc)",
        (40,), None,
    ),
    "a chain worked along both sides": ("Ch 21.\nRound 1: Sc in 2nd ch from hook, sc in each ch across; rotate, sc in each ch across; join. (40 sc)", (40,), None),
    "colours by their order, and a yarn that is broken off": (
        RING + "Rnd 2: With second shade, ch 1, sc in each st around; join. Break A, join B. (24)\nRnd 3: Ch 1, sc in each st around; join. Cut A and B. (24)", (24, 24, 24), None,
    ),
    "rows that are repeated in a colour": (RING + "Rnd 2: Ch 1, sc around; join. (24)\nRnds 3 and 4: With CC, rep Rnd 2. (24)", (24, 24, 24), None),
    "a foundation chain by its number": (TWO + "Foundation chain: 13 (17).\nRow 1 (WS): Sc in 2nd ch from hook and in every ch to end. [12, 16 sc]", (12,), (16,)),
    "sizes by their place": (
        TWO + "Ch 4, join into a ring.\nRnd 1: Ch 1, 8 sc in ring; join. (8)\nRnd 2: Ch 1, 2 sc in each sc; join. (16)\nLarger size only\n"
        "Rnd 3: Ch 1, (sc in next sc, 2 sc in next sc) to end; join. (24)\nBoth sizes\nNext rnd: Ch 1, sc in each sc around; join. (16 (24) sc)",
        (8, 16, 16), (8, 16, 24, 24),
    ),
    "half a shell that closes the round": (
        SHELLS + "Rnd 2: Ch 3 (counts as dc), 2 dc in same st, *skip 2 sts, sc in center of shell, skip 2 sts, 5 dc in next st; repeat from * around, ending with 2 dc in same st as ch 3; "
        "join. (60)\nRnd 3: Ch 3, 2 dc in same st, *skip 2 sts, dc in next st, skip 2 sts, 5 dc in next st; repeat from * around, ending 2 dc in first st, join. (60)",
        (60, 60, 60), None,
    ),
    "all turns of a bracket in each space": (
        RING + "Rnd 2: Ch 4 (counts as dc and ch 1), sk 1, *dc in next st, ch 1, sk 1; rep from * around; join. (12 dc)\n"
        "Rnd 3: Sl st in first sp, ch 4, (dc, ch 1) in same sp, (dc, ch 1) twice in each sp around; join. (24 dc, 24 ch-1 sps)",
        (24, 12, 24), None,
    ),
    "each of the back loops left free": (
        RING + "Rnd 2: Ch 1, 12 sc in flo, sc in next 12 sts; join. (24)\nFlap\nJoin yarn to the first free back loop of rnd 1.\nRow 1: Ch 1, 1 sc in each of the 12 back loops, turn. (12)",
        (24, 24, 12), None,
    ),
    "each, and no more": (RING + "Rnd 2: Ch 1, sc in each around; join. (24)\nRnd 3: Ch 1, 2 sc in each around; join. (48)", (24, 24, 48), None),
    "so many sc evenly around": (RING + "Rnd 2: Ch 1, sc 30 evenly around the opening; join. (30 sc)", (24, 30), None),
    "totals of several kinds in a sentence": (
        "Ch 16.\nRow 1: 1 sc in 2nd ch from hook, 1 sc in each ch to end. 15 sc. Turn.\n"
        "Row 2: Ch 1. 1 sc in first sc, *ch 3, skip next sc, 1 sc in next sc. Rep from * to end of row. 7 ch-3 sps and 8 sc. Turn.",
        (15, 8), None,
    ),
    "chains of an opening in the total": (OPEN.replace("(20 sc)", "[20 sc and 2 chains of 12]"), (40, 20), None),
}  # fmt: skip

# (what, words of it, what a slip makes of them, the code that is found)
SLIPS = [
    ("a cluster of one place, begun by its chain", "(8 cl,", "(7 cl,", "total-differs"),
    ("abbreviations of its own", "(T, A) x 6 (12)", "(T, A) x 6 (13)", "total-differs"),
    ("the last of so many repeats without its end", "omitting last 2 sc", "omitting last 1 sc", "runs-out"),
    ("moss stitch from a first space of skipped chains", "to last sp, sc in last ch-2 sp", "to last 2 sps, sc in last ch-2 sp", "total-differs"),
    ("handles: to the chain, and each of its chains", "once more", "twice more", "no-such-place"),
    ("handles: so many over the chain", "14 sc over", "15 sc over", "total-differs"),
    ("half a shell that closes the round", "ending with 2 dc", "ending with 3 dc", "total-differs"),
    ("each of the back loops left free", "each of the 12 back", "each of the 13 back", "runs-out"),
]  # fmt: skip
