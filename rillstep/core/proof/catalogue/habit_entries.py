"""Findings of habits."""

from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.example_texts import RING, WALL

HABIT: tuple[Entry, ...] = (
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
    Entry("words-not-worked", "warning", "habits", "Words that may change the work",
           "Words are kept behind a stitch that may say how it is worked, such as which strand of it the hook takes. "
           "No total shows that, so the line is not proved.",
           "Teach them (“Means: \"catching the far strand\" = in back loop”), or say that they change nothing.",
           RING + "Rnd 1: Sc in each ch around, catching just the far strand; join.", 2),
    Entry("side-differs", "error", "habits", "A row on the other side",
           "The words tell on which side a row is worked, and by the turns before it the other side faces you; or a "
           "row that is worked on one side is copied on the other.", "Change the side, or the turn.",
           "Ch 11.\nRow 1 (RS): Sc in 2nd ch from hook, sc in each ch across; turn.\n"
           "Row 2 (RS): Ch 1, sc in each st across; turn.", 3),
    Entry("round-turned", "warning", "habits", "A round that is turned once",
           "In a section of joined rounds the work is turned once, and never back: the other side faces you from there "
           "on.", "Say “joined and turned rounds” in the heading, or leave the turn out.",
           WALL + "Rnd 2: Ch 1, sc in each st around; join, turn.\nRnd 3: Ch 1, sc in each st around; join.", 5),
)  # fmt: skip
