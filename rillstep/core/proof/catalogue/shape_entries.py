"""Findings of shape and pieces."""

from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.example_texts import BETWEEN, PUFFS, RING, RINGS, WALL

SHAPE: tuple[Entry, ...] = (
    Entry("measure-differs", "error", "shape and pieces", "A measurement that is not met",
           "A stated measurement is not what the rounds measure by the gauge.", ("State "
               "what they measure, or change the rounds."),
           "Gauge: sc 10 sts x 10 rows = 10 cm\n" + RING + "Rnd 1: Sc in each ch around; join.\nCheck: 13.0 cm wide.",
           4),
    Entry("base-cups", "warning", "shape and pieces", "A base that cups",
           "The last round has too few stitches for its radius, so that it draws in.", ("Increase "
               "more in a round, or work fewer rounds."),
           RINGS.format(n=4), 5),
    Entry("base-ruffles", "warning", "shape and pieces", "A base that ruffles",
           "The last round has more stitches than lie flat.", "Increase less, or put a plain round between.",
           RINGS.format(n=9), 5),
    Entry("handle-pulls", "warning", "shape and pieces", "A handle that pulls",
           "The chain of an opening is shorter than the stitches that it spans.", ("Chain "
               "at least as many as are skipped."),
           WALL + "Rnd 2: Sc in next 4 sts, ch 3, sk 4, sc in next 8 sts, ch 3, sk 4, sc in next 4 sts; join.", 4),
    Entry("handles-not-alike", "error", "shape and pieces", "Two handles that are not alike",
           "The two openings of a round have other chains or span other stitches.", "Make them alike.",
           WALL + "Rnd 2: Sc in next 4 sts, ch 9, sk 4, sc in next 8 sts, ch 8, sk 4, sc in next 4 sts; join.", 4),
    Entry("handles-not-opposite", "error", "shape and pieces", "Two handles that are not opposite",
           "The middles of the two openings are not half a round apart.", "Move stitches from one side to the other.",
           WALL + "Rnd 2: Sc in next 4 sts, ch 9, sk 4, sc in next 7 sts, ch 9, sk 4, sc in next 5 sts; join.", 4),
    Entry("straps-not-alike", "error", "shape and pieces", "Two straps that are not alike",
           "Two straps of one name have other numbers of rows or stitches in a size.",
           "Make them alike, or name them apart.",
           "Section: First strap (rows, strip)\nCh 7.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
           "Rows 2-30: Ch 1, sc in each st across; turn.\nSection: Second strap (rows, strip)\nCh 7.\n"
           "Row 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-29: Ch 1, sc in each st across; turn.",
           5),
    Entry("strap-not-centred", "error", "shape and pieces", "A strap that is not centred",
           "A strap grown from one side of the bag is joined off the stitches opposite.",
           "Join it half a round further on.",
           WALL + "Section: Strap (rows, strip), continue from Wall\nRow 1: Ch 1, sc "
               "in next 6 sts, leave rem sts unworked; turn.\n"
           "Rows 2-40: Ch 1, sc in each st across; turn.\nSew the end of the strap to sts 14 to 19 of the wall.", 7),
    Entry("seam-unequal", "warning", "shape and pieces", "A seam over unequal edges",
           "Two edges are joined, and one has more places than the other.", ("Make them "
               "equal, or say that it is eased or sewn evenly."),
           "Section: Front (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
           "Rows 2-10: Ch 1, sc in each st across; turn.\nSection: Gusset (rows, strip)\nCh 7.\n"
           "Row 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-12: Ch 1, sc in each st across; turn.\n"
           "Sew the row ends of Front to the row ends of Gusset.", 9),
    Entry("layout-count", "error", "shape and pieces", "A layout of more or fewer pieces than are made",
           "“3 rows of 4” takes 12 pieces, and another number of them is made.", ("Change "
               "the layout, or how many are made."),
           "Section: Star (joined rounds, square, make 10)\n" + RING + ("Rnd 1: Sc in "
               "each ch around; join. — 24 sts\nArrange the stars in 3 rows of 4."), 4),
    Entry("edge-not-counted", "warning", "shape and pieces", "A round on joined pieces",
           "What the seams between many pieces use up differs from maker to maker, so "
           "the edge that they make together is not counted.",
           "State the total of its first round: what follows is proved from it.",
           "Section: Star (joined rounds, square, make 12)\n" + RING + "Rnd 1: Sc in "
               "each ch around; join. — 24 sts\nArrange the stars in 3 rows of 4.\n"
           "Section: Edging (joined rounds, trim), continue from Star, on the joined pieces\nRnd "
               "1: Sc in each st around; join. — 80 sts", 6),
    Entry("sides-not-alike", "warning", "shape and pieces", "Two sides that are not alike",
           "Left and right of a row, or front and back of a round, are not shaped alike, "
           "where the section says so (then it is "
           "an error) or nearly all of its other rows are.", "Mirror the row, or take “mirrored” away.",
           "Section: Flap (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
           + "".join(f"Row {n}: Ch 1, sc2tog, sc in each st to last 2 sts, sc2tog; turn.\n" for n in range(2, 7))
           + "Row 7: Ch 1, sc2tog, sc2tog, sc in each st across; turn.", 9),
    Entry("motifs-uneven", "warning", "shape and pieces", "Motifs that are not even around",
           "One distance between two motifs is not like the others.", "Choose a count that the motifs divide evenly.",
           WALL + "Rnd 2: [Puff in next st, sc in next 4 sts] 4 times, sc in next 4 sts; join.", 4),
    Entry("space-odd", "warning", "shape and pieces", "One space unlike the others",
           "All spaces of a row have the same chains but one, which has one more or one less.", ("Make "
               "it like the others, unless it is meant."),
           WALL + "Rnd 2: [Sc in next 4 sts, ch 2, sk 1] 4 times, sc in next 3 sts, ch 3, sk 1; join.", 4),
    Entry("alternation-broken", "warning", "shape and pieces", "Motifs that do not change places",
           "In the other rounds the motifs stand between those of the round before; here they stand on them.", ("Begin "
               "this round as the one before the last."),
           WALL + PUFFS.format(n=2) + BETWEEN.format(n=3) + PUFFS.format(n=4) + PUFFS.format(n=5)
           + BETWEEN.format(n=6),
           7),
    Entry("kit-too-small", "warning", "shape and pieces", "A kit that may not be enough",
           "The estimate of the yarn, or its upper end, is more than the kit holds. It "
           "is an estimate by the usual ratios of stitches.",
           "Weigh a swatch and use it under Yarn, or put more into the kit.",
           "Gauge: sc 16 sts x 18 rows = 10 cm\nYarn: Quiet Meridian, 100 g = 200 m\nKit: 20 g\n" + WALL + ("Rnds "
               "2-60: Sc in each st around; join."), 6),
)  # fmt: skip
