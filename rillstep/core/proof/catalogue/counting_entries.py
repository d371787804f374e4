"""Findings of counting."""

from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.example_texts import RING

COUNTING: tuple[Entry, ...] = (
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
    Entry("chain-number-missing", "warning", "counting", "A chain without its number",
           "The text does not say how many chains this is; it is worked as one, and the line is not proved.",
           "Say how many: “ch 2”.",
           RING + "Rnd 1: [(Sc, ch, sc) in next ch, sc in next 3 ch] around; join.", 2),
    Entry("number-missing", "warning", "counting", "Several places without their number",
           "“Sc in next sts” does not say how many; one is worked, and the line is not proved.",
           "Say how many: “sc in next 3 sts”. Those with which the total comes out are offered.",
           RING + "Rnd 1: [Sc in next chs, sc in next 3 ch] around; join.", 2),
    Entry("closing-differs", "warning", "counting", "A last space of another length",
           "A round is closed by a chain and a stitch that stand for its last space, and they come to another length.",
           "Change the chain, the stitch, or the length that it is called by.",
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 2: Ch 1, sc in same st, *ch 5, skip 2 sts, sc in next st; "
           "rep from * until 2 sts remain, ch 3, skip 2, dc in first sc (counts as ch-5 space).", 3),
)  # fmt: skip
