"""Findings of reading."""

from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.example_texts import RING

READING: tuple[Entry, ...] = (
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
