"""Every finding that there is: what it means, what to do, and a text that shows it.

One table is the catalogue, the help page, the documentation (docs/findings.md) and the test data:
each example gives its finding, and a code that is not in the table fails a test.
"""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.findings import Severity
from rillstep.core.proof.example_texts import BETWEEN, BY_GAUGE, FOLDED, MEASURED, PUFFS, RING, RINGS, SAID_WIDE, WALL

Group = Literal["reading", "counting", "places", "sizes and numbers", "habits", "shape and pieces"]


@dataclass(frozen=True)
class Entry:
    """A finding. `example` is a whole text in which it is found, in `line` of it."""

    code: str
    severity: Severity
    group: Group
    title: str
    meaning: str
    way_out: str
    example: str
    line: int


CATALOGUE: tuple[Entry, ...] = (
    # --- counting
    Entry("total-differs", "error", "counting", "A total that is not met",
           "The steps of the line make another number than it states; the arithmetic is shown step by step.",
           "Change a number of the line, or the total: each repair was worked and makes the line true.",
           RING + "Rnd 1: Sc in each ch around; join. — 25 sts", 2),
    Entry("part-differs", "error", "counting", "A count within a line that is not met",
           "A line that ends with a total counts in brackets what a part of it makes, "
           "and the steps before the bracket make another number.",
           "Change the count, or a number before it.",
           RING + "Rnd 1: Sc in next 10 ch (9), sc in next 14 ch; join. — 24 sts", 2),
    Entry("runs-out", "error", "counting", "Running out of stitches",
           "The line wants more places than the work below has.", "Work fewer, or make more in the line before.",
           RING + "Rnd 1: Sc in next 26 ch; join.", 2),
    Entry("left-over", "error", "counting", "Stitches left over",
           "The line is at its end, and places of the kind that it works into are left.",
           "Work them, or say “leave rem sts unworked”.", RING + "Rnd 1: Sc in next 22 ch; join.", 2),
    Entry("unworked-differs", "error", "counting", "Another number left unworked",
           "The line says how many stitches it leaves, and leaves another number.", "Change either number.",
           "Ch 21.\nRow 1: Sc in 2nd ch from hook, sc in next 13 ch, leave rem 5 ch unworked; turn.", 2),
    Entry("repeat-uneven", "error", "counting", "A repeat that does not come out",
           "“Around”, “across” and “to last n sts” must come out exactly; here a part of a repeat is left.",
           "Change the repeat or what follows it, or begin with a count that fits: both are offered.",
           RING + "Rnd 1: [Sc in next 4 ch, 2 sc in next ch] around; join.", 2),
    Entry("repeat-stuck", "error", "counting", "A repeat that takes nothing",
           "The repeat works into no new stitch, so it would never end.", ("Say how many "
               "times, or where the next stitch goes."),
           RING + "Rnd 1: Sc in next ch, [sc in same ch] around; join.", 2),
    Entry("chain-of-none", "error", "counting", "None of something",
           "A chain of 0, or 0 stitches worked together, is nothing to work.", "Leave it out, or give it a number.",
           RING + "Rnd 1: Sc in each ch around, ch 0; join.", 2),
    Entry("check-differs", "error", "counting", "A checkpoint that is not true",
           "A “Check:” line states rounds or stitches that the work does not have there.",
           "State what there is, or look above.",
           RING + "Rnd 1: Sc in each ch around; join.\nCheck: 2 rnds; 24 sts.", 3),
    Entry("kind-not-counted", "warning", "counting", "A kind left out of a total",
           "The total names kinds of stitches and leaves one out that the line makes.",
           "Add that kind, or state all sts.",
           RING + "Rnd 1: [Sc in next ch, dc in next ch] around; join. — 12 dc", 2),
    Entry("total-not-checked", "warning", "counting", "A number that is not checked",
           "A number is stated where nothing can be held to it: in a line of words, say, or of how much a row grows.",
           "Say it as the total of a row, or in a line that begins with “Check:”.", ("Ch "
               "24.\nRow 1: Sc in each ch across; turn.\nThe flap is worked on the middle "
               "12 sts."), 3),
    Entry("manner-not-worked", "warning", "counting", "Rows that go on in this manner",
           "“Continue in this manner” tells how rows are worked by those before them: "
           "how they grow is held to the total, and no stitch of them is worked.",
           "Write the rows out, or “Rep Row 2” where they are alike.",
           ("Ch 7.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (6)\nRow "
               "2: 2 sc in first st, sc in each st across; turn. (7)\nContinue in this "
               "manner until there are 5 rows. (10 sts)"), 4),
    Entry("kind-not-known", "warning", "counting", "A total of something that is not known",
           "The total counts something that the text does not define (“1 buttonhole”), "
           "so that nothing can be held to it; it is printed as it stands.",
           "Define it, or count stitches and spaces.", RING + ("Rnd 1: Sc in each ch around; "
               "join. (24 sc + 1 buttonhole)"), 2),
    Entry("too-large", "error", "counting", "More than is worked",
           "Numbers of this size are no bag; they are answered and not worked.", "Look for a digit too many.",
           RING + "Rnds 1-90000: Sc in each ch around; join.", 2),
    # --- places
    Entry("no-such-place", "error", "places", "A place that does not exist",
           "There is no such place here: no space of that length, no ring, no row ends, loops that are not free.",
           "Name a place that the row before made.", RING + "Rnd 1: Sc in next ch-3 sp; join.", 2),
    Entry("false-stitch", "error", "places", "The false stitch",
           "A turning chain that does not count is no stitch: working into it adds one at the edge.",
           "Leave it out, or say at the start of the row that the chain counts.",
           RING + ("Row 1: Sc in each ch across; turn.\nRow 2: Ch 1, sc in each st across, "
               "sc in top of turning ch; turn."), 3),
    Entry("marker-missing", "error", "places", "A marker that is not ahead",
           "The line works to a marker that was not placed, or that a row in between left behind.",
           "Place it, or move it up in each row: “move marker up”.",
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 2: Sc in each st to marker A; join.", 3),
    Entry("not-in-one-place", "error", "places", "What cannot be worked in one place",
           "A group in one place holds stitches and chains, and takes no other places.", ("Take "
               "the skipping out of the brackets."),
           RING + "Rnd 1: (sc, sk 1, sc) in each ch around; join.", 2),
    Entry("picot-stalk", "warning", "places", "A picot on a stalk",
           "The chain is closed above its first stitch, so that the picot stands on what is left of it.",
           "Close it in the first chain made, unless the stalk is wanted.",
           RING + "Rnd 1: [Sc in next 3 ch, ch 4, sl st in 3rd ch from hook] around; join.", 2),
    Entry("place-not-checked", "warning", "places", "A row that is named and is not the one before",
           "“In each st of Rnd 3” is worked into the row before, whatever its number; "
           "that it is another one is not looked at.",
           "Name the row before, or work into “front loops of Rnd 3”.",
           RING + ("Rnd 1: Sc in each ch around; join.\nRnd 2: Sc in each st around; join.\nRnd "
               "3: Sc in each st of Rnd 1; join."), 4),
    Entry("row-not-found", "error", "places", "Rows to repeat that are not there",
           "“Rep Rnd 7” names a round that this piece does not have.", "Name a round above.",
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 2: Rep Rnd 7.", 3),
    # --- sizes and numbers
    Entry("set-length", "error", "sizes and numbers", "A set of the wrong length",
           "A set has one number for each size, or one for all of them.", "Add or take away a number.",
           "Sizes: S, M, L\nCh 12 (18).\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.", 2),
    Entry("size-out-of-step", "warning", "sizes and numbers", "A size out of step",
           "The numbers of a set go up from size to size, and one of them does not.", ("Look "
               "at that size; its neighbours are offered."),
           ("Sizes: S, M, L\nCh 12 (18, 24), join into a ring.\nRnd 1: [Sc in next 2 (2, "
               "3) ch, 2 sc in next ch] around; join."), 3),
    Entry("numbers-gap", "error", "sizes and numbers", "A gap in the numbers of rounds",
           "A round follows one that is not the one before it.", ("Number it on, or end "
               "the range before where it should end."),
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 3: Sc in each st around; join.", 3),
    Entry("numbers-overlap", "error", "sizes and numbers", "Rounds numbered twice",
           "A round has a number that was used already.", "Number it on, or end the range before it earlier.",
           RING + "Rnds 1-3: Sc in each ch around; join.\nRnd 3: Sc in each st around; join.", 3),
    Entry("numbers-empty", "error", "sizes and numbers", "A range that ends before it begins",
           "In a size, “Rnds 5-4” stands for no round at all.", ("Change its end, or say "
               "that the line is not for that size."),
           RING + "Rnds 1-0: Sc in each ch around; join.", 2),
    Entry("rows-otherwise", "error", "sizes and numbers", "A range that is longer or shorter than what is repeated",
           "“Rnds 4-10: Rep Rnds 2 and 3 three times” are seven rounds by their numbers, and six by the repeats.",
           "Change the end of the range, or how often it is repeated.",
           BY_GAUGE + "Rnds 3-7: Rep Rnd 2 four times.", 5),
    Entry("number-too-large", "error", "sizes and numbers", "A number that is too large",
           "Numbers go up to 99,999.", "Look for a digit too many.", RING + "Rnd 1: Sc in next 100000 ch; join.", 2),
    Entry("name-not-defined", "error", "sizes and numbers", "A name that is not defined",
           "Between braces stand numbers by name, and this name has none.", "Add a line “Number: side = 10”.",
           RING + "Rnd 1: Sc in next {side} ch; join.", 2),
    Entry("number-form", "error", "sizes and numbers", "A number that is not defined well",
           "A number by name is defined by its name, an equals sign, and one number or one for each size.",
           "Write “Number: side = 10 (13, 16)”.", "Number: side is 10\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("number-not-worked-out", "error", "sizes and numbers", "A sum that does not come out",
           "What stands in braces is no whole number in a size, is less than nothing, or multiplies two names.",
           "Change the sum, or the numbers of its names.",
           "Number: side = 9\nCh 24, join into a ring.\nRnd 1: Sc in next {side/2} ch; join.", 3),
    Entry("rows-by-measure", "caution", "sizes and numbers", "Rows by a measure",
           "How many rows come nearest to the measure is worked out from the gauge; who works looser makes fewer.",
           "State the number of rows beside the measure, and it is held to it.",
           BY_GAUGE + "Rep Rnd 2 until it measures 20 cm.", 5),
    Entry("length-differs", "warning", "sizes and numbers", "Rows that do not come to their measure",
           "The line says how many rows, and what the piece measures then; by the gauge that is more or less.",
           "Change the number of rows, or the measure.", BY_GAUGE + "Rnds 3-9: Rep Rnd 2 until it measures 20 cm.", 5),
    Entry("size-not-defined", "error", "sizes and numbers", "A size that is not there",
           "A line is for a size that the head does not name.", "Use a name of the “Sizes:” line.",
           "Sizes: S, M\nCh 24.\nSize L only:\nRow 1: Sc in each ch across; turn.", 3),
    Entry("size-twice", "error", "sizes and numbers", "A size named twice",
           "Two sizes have the same name, so that no line can tell them apart.", "Give each a name of its own.",
           "Sizes: S, M, S\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("sizes-count", "error", "sizes and numbers", "Too many sizes, or none",
           "A pattern has between one and twelve sizes.", "Shorten the “Sizes:” line.",
           "Sizes: " + ", ".join(f"S{n}" for n in range(1, 40)) + "\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("until-not-met", "error", "sizes and numbers", "A repetition that never comes to its end",
           "“Until 4 sts remain” is worked out by repeating the rows; here the stitches "
           "go past that number, or do not change.",
           "Change the number, or the rows that are repeated.",
           "Ch 21.\nRow 1: Sc in 2nd ch from hook, sc in next 19 ch; turn.\nRow 2: Ch "
           "1, sc2tog, sc in each st to last 2 sts, sc2tog; turn.\n"
           "Rep Row 2 until 5 sts remain.", 4),
    Entry("sizes-not-named", "warning", "sizes and numbers", "Sizes that are not named",
           "Sets of three or more numbers stand throughout the text, and nothing says which sizes they are.",
           "Name the sizes in a line of the head: “Sizes: S, M, L”. Until then they are called by their number.",
           "Ch 31 (37, 43).\nRow 1: Sc in 2nd ch from hook, sc in next 29 (35, 41) ch; turn. — 30 (36, 42) sts", 1),
    Entry("rows-not-counted", "warning", "sizes and numbers", "Rows that are not counted",
           "“Until it measures” says no number of rows, so what follows cannot be numbered.",
           "Say “until there are 20 rows”; the gauge tells how many.",
           RING + "Rnd 1: Sc in each ch around; join.\nRep Rnd 1 until piece measures 20 cm.", 3),
    Entry("measure-not-known", "warning", "sizes and numbers", "A measure that is not checked",
           "A width, a height, a depth or a drop is held to nothing: it is not told how the pieces are joined.",
           "Say how it is folded (“Fold: front 30 rows, back 30 rows”), or which piece is the wall.", MEASURED, 7),
    Entry("finished-differs", "warning", "sizes and numbers", "A finished size in words that is another",
           "A measure in words is not that of the rounds.", "Change the words, or the numbers.", SAID_WIDE, 1),
    Entry("fold-differs", "error", "sizes and numbers", "A fold of other rows",
           "A “Fold:” line has other rows than its panel.", "Change the rows of a part.", FOLDED, 5),
    Entry("chains-not-counted", "warning", "sizes and numbers", "Chains that are not counted",
           "A chain is told by its length, and there is no gauge by which its chains could be counted.",
           "Add a gauge, best one of chains: “Gauge: ch 20 = 10 cm”; or say how many chains it has.",
           "Ch until it measures 60 cm.\nRow 1: Sc in 2nd ch from hook, sc in each ch across.", 1),
    # --- habits
    Entry("chain-unsaid", "warning", "habits", "A starting chain of which nothing is said",
           "Whether a starting chain counts as a stitch changes every total; the text does not say.",
           "Answer the question, or write “(counts as dc)” or “(does not count)” once.",
           RING + "Rnd 1: Ch 3, dc in each ch around; join.", 2),
    Entry("turning-chain", "warning", "habits", "A chain that does not suit its stitch",
           "The starting chain is higher or lower than the stitch that follows it.", ("Use "
               "the usual height, or leave it if it is meant."),
           RING + "Rnd 1: Ch 3 (does not count), hdc in each ch around; join.", 2),
    Entry("starting-chain-uneven", "error", "habits", "Starting chains that differ",
           "One size, or one round, begins with another chain than the others.", "Make them alike.",
           "Sizes: S, M, L\n" + RING + "Rnd 1: Ch 1 (2, 1), hdc in each ch around; join.", 3),
    Entry("join-missing", "warning", "habits", "A round that is not joined",
           "The section is worked in joined rounds, and this one is not joined.", "Add “join”, or make it a spiral.",
           "Section: Wall (joined rounds, wall)\n" + RING + "Rnd 1: Sc in each ch around.", 3),
    Entry("join-in-spiral", "warning", "habits", "A round of a spiral that is joined",
           "The section is worked in a spiral, and this round is joined.",
           "Take “join” away, or work in joined rounds.",
           "Section: Wall (spiral rounds, wall)\n" + RING + "Rnd 1: Sc in each ch around; join.", 3),
    Entry("chain-twists", "caution", "habits", "A long chain joined into a ring",
           "A long chain twists easily when it is joined, and is then good for nothing.", ("Lay "
               "it flat; look again after the first round."),
           RING + "Rnd 1: Sc in each ch around; join.", 1),
    Entry("yarn-not-joined", "warning", "habits", "Nothing on the hook",
           "The yarn was fastened off, and the next line goes on without joining one.", "Say “Join yarn in first st”.",
           WALL + "Fasten off.\nRnd 2: Sc in each st around; join.", 5),
    Entry("yarn-not-ended", "warning", "habits", "A yarn that is not ended",
           "Another yarn is joined while the one before was neither fastened off nor changed.",
           "Fasten off before, or change to it.",
           WALL + "Rnd 2: Join colour B in first st, sc in each st around; join.", 4),
    Entry("colour-not-defined", "warning", "habits", "A colour that is not declared",
           "The head names the colours, and this one is not among them.", "Add it to “Colour:”, or use one of those.",
           "Colour: A dusk, B ember\n" + WALL + "Rnd 2: Change to C, sc in each st around; join.", 5),
    Entry("start-drifted", "caution", "habits", "A start of round that has moved",
           "In a spiral the start leans by about half a stitch a round, and slip stitches "
           "move it: openings counted from it move too.",
           "Lay the bag flat before that round, and begin at its side; or place the marker anew.",
           "Section: Wall (spiral rounds, wall)\n" + RING + "Rnd 1: Sc in each ch around.\nRnds "
               "2-12: Sc in each st around.\n"
           "Rnd 13: Sc in next 4 sts, ch 9, sk 4, sc in next 8 sts, ch 9, sk 4, sc in next 4 sts.", 5),
    # --- shape and pieces
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
    # --- reading
    Entry("not-understood", "error", "reading", "Words that are not understood",
           "These words are no instruction that Rillstep knows; the lines after go on from the stated total.",
           "Say it in other words; the nearest understood form is named.", RING + "Rnd 1: Sc somewhere nice; join.",
           2),
    Entry("terms-mixed", "error", "reading", "US and UK names mixed",
           "A name is used that exists only in the other terms; equal names mean other stitches, so nothing "
           "is guessed.",
           "Choose the terms that the text is written in.", RING + "Rnd 1: Htr in each ch around; join.", 2),
    Entry("terms-unknown", "error", "reading", "Terms that are not known", "Terms are US or UK.",
           "Write “Terms: US” or “Terms: UK”.",
           "Terms: French\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("units-unknown", "error", "reading", "Units that are not known", "Units are cm or in.",
           "Write “Units: cm” or “Units: in”.",
           "Units: ells\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("gauge-form", "warning", "reading", "A gauge that is not understood", ("A "
        "gauge names its stitch, stitches, rows and the length."),
           "Write “Gauge: sc 20 sts x 22 rows = 10 cm”.", ("Gauge: rather tight\nCh 24.\nRow "
               "1: Sc in each ch across; turn."), 1),
    Entry("gauge-rows", "warning", "reading", "A gauge without rows", "A gauge of stitches alone does not measure how "
           "high the rows are.", "Count the rows of your swatch too: “Gauge: sc 20 sts x 22 rows = 10 cm”.",
           "Gauge: 5 sc = 1 inch\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("gauge-missing", "error", "sizes and numbers", "A size without a gauge", "Where some sizes have a gauge of "
           "their own, all have one.", "Write “Gauge:” for all other sizes, or “Gauge (M):” for this one.",
           "Sizes: S, L\nGauge (L): sc 20 sts x 22 rows = 10 cm\nCh 24.\nRow 1: Sc in each ch across; turn.", 2),
    Entry("gauge-zero", "error", "reading", "A gauge of nothing", "A gauge of 0 stitches or rows measures nothing.",
           "Count your swatch.", "Gauge: sc 0 sts x 22 rows = 10 cm\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("define-not-understood", "warning", "reading", "A stitch whose definition is not understood",
           "What a stitch of the pattern's own takes and makes is not known where its definition is not "
           "understood: it is worked as one stitch in one place, and the rows that use it are not proved.",
           ("Define it in stitches and places: "
               "“Define: scallop = 5 dc in same st”."),
           ("Define: blossom = zig 3 times, then zag\nCh 24.\nRow 1: Blossom in 2nd ch "
               "from hook, sc in each ch across; turn."), 1),
    Entry("define-form", "error", "reading", "A stitch that is not defined well", ("A "
        "stitch of your own has a name, an equals sign, and what it is."),
           "Write “Define: scallop = 5 dc in same st”.",
           "Define: scallop\nCh 24.\nRow 1: Sc in each ch across; turn.", 1),
    Entry("phrase-form", "error", "reading", "A phrase that is not taught well", ("A "
        "phrase of your own stands in quotes, before an equals sign and what is meant."),
           "Write “Means: \"in bb\" = in back bump”, or “= nothing” where it changes nothing.", ("Means: "
               "in bb\nCh 24.\nRow 1: Sc in each ch across; turn."), 1),
    Entry("phrase-twice", "error", "reading", "A phrase that is taught twice", ("Two lines "
        "of the head say what the same words mean."), "Take one of them away.",
           'Means: "in bb" = in back loop\nMeans: "in bb" = in front loop\nCh 24.\nRow 1: Sc in each ch across; turn.',
           2),
    Entry("phrase-known", "error", "reading", "A phrase that is understood already", ("Words "
        "of the language keep their meaning: no text can change it."),
           "Take the line away, or teach the words that are not understood.", ('Means: '
               '"in next st" = in last st\nCh 24.\nRow 1: Sc in each ch across; turn.'), 1),
    Entry("phrase-not-harmless", "error", "reading", "A phrase that may change something",
           "Words that hold a number, a stitch, a place or another word of the craft, "
           "or one that may be such a word misspelt, cannot be said to change nothing.",
           "Say what is meant by them.",
           'Means: "missing a bit" = nothing\nCh 24.\nRow 1: Sc in each ch across; turn.', 1),
    Entry("section-kind", "error", "reading", "A section of an unknown kind", ("The brackets "
        "say how a section is worked, and what it is."),
           "Choose from the two lists that the message names.",
           "Section: Wall (joined rounds, bucket)\n" + RING + "Rnd 1: Sc in each ch around; join.", 1),
    Entry("section-not-found", "error", "reading", "A section to go on from that is not there",
           "No earlier section has that title.", "Use the title of a section above.",
           "Section: Wall (joined rounds, wall), continue from Base\n" + RING + "Rnd 1: Sc in each ch around; join.",
           1),
    Entry("section-misplaced", "error", "reading", "A section that does not begin its line", ("“Section:” "
        "is only understood at the start of a line."), "Begin a new line with it.",
           RING + "Rnd 1: Sc in each ch around; join.\nThen the Section: Wall", 3),
    Entry("row-empty", "error", "reading", "A line without instructions",
           "A round with a number and nothing to work.", ("Write "
        "what is worked, or take it away."),
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 2:", 3),
    Entry("edge-not-checked", "warning", "reading", "An edge that is told in a sentence",
           "“Sc evenly around the base: 64 sc” says how many stitches there are afterwards, and not what goes where.",
           "Give each side its number, in a line with a label, to have it proved.",
           "Base\nCh 13.\nRow 1: Sc in 2nd ch from hook, sc in each ch across. (12 sc)\nDo "
           "not fasten off. Sc evenly around the outside of the rectangle: 30 sts.\n"
           "Body\nRnd 1: Ch 1, sc in each st around, join. (30 sc)", 4),
    Entry("not-worked", "warning", "reading", "A line kept as words",
           "A line without a label seems to instruct, and could not be read as a row: it is printed and not worked.",
           "Begin it with “Rnd 9:” or “Row 9:”, or with “Note:” where it only tells.",
           RING + "Rnd 1: 6 sc in ring; join.\nSc in next 2 sts and see how it looks.", 3),
    Entry("nothing-to-work", "error", "reading", "No rounds or rows", ("The text holds "
        "no line that begins with a round or a row."), ("Begin "
        "lines with “Rnd 1:” or “Row 1:”."),
           "Dear reader, this is a letter.", 1),
    Entry("line-too-long", "error", "reading", "A line that is too long", ("Lines of more "
        "than 4,000 characters are not read."), "Break it into rounds.",
           "Rnd 1: " + "sc in next st, " * 300, 1),
    Entry("text-too-long", "error", "reading", "A text that is too long", ("Texts of more "
        "than 1,000 lines or 150,000 characters are not read; of rows and rounds 45,000 "
        "characters are read, and 600 rows in eight sizes."), "Check it in parts.",
           "Note: x\n" * 1_100, 1),
    Entry("too-many-errors", "error", "reading", "A text that is hardly understood", ("After "
        "more than 300 errors the rest of a text is not read; after 60 wrong lines of "
        "a size its rest is not worked."),
           "Mend the first lines, or check whether this is a pattern in English.", "Rnd 1: Nosrep suc tog.\n" * 302,
           302),
)  # fmt: skip

# Findings that no text can show: what they would be found in is made by Rillstep itself.
WITHOUT_EXAMPLE = {"print-differs": "What was printed did not read back as what was meant, and was not exported."}


def entry_of(code: str) -> Entry | None:
    """The entry of a finding's code."""
    return next((entry for entry in CATALOGUE if entry.code == code), None)


def as_markdown() -> str:
    """The catalogue as a page of the documentation."""
    parts = [
        "# Findings\n\nWhat Rillstep can find in a pattern text, with a text that shows each. "
        "This page is written from the table in `rillstep/core/proof/catalogue.py` (`bash scripts/generated`).\n"
    ]
    for group in dict.fromkeys(entry.group for entry in CATALOGUE):
        parts.append(f"## {group[:1].upper()}{group[1:]}\n")
        for entry in CATALOGUE:
            if entry.group == group:
                parts.append(
                    f"### {entry.title}\n\n`{entry.code}`, {entry.severity}. {entry.meaning} {entry.way_out}\n\n"
                    f"```\n{_shown(entry.example)}\n```\n\nFound in line {entry.line}.\n"
                )
    return "\n".join(parts)


def _shown(example: str) -> str:
    """An example, cut where only its length matters."""
    lines = [line if len(line) < 400 else line[:120] + " ..." for line in example.strip().split("\n")]
    return "\n".join([*lines[:24], *(["..."] if len(lines) > 24 else [])])


if __name__ == "__main__":
    print(as_markdown(), end="")
