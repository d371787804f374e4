"""Findings of places."""

from rillstep.core.proof.catalogue.entry import Entry
from rillstep.core.proof.catalogue.example_texts import RING

PLACE: tuple[Entry, ...] = (
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
    Entry("stitch-not-there", "error", "places", "A stitch that is not there",
           "A stitch is named as the place to work into, and the work below has none of that kind. A post stitch, an "
           "extended or a reversed one may be called by its plain name, and a chain that counts by what it counts as.",
           "Name the stitch that is there, or say “st”: both are offered.",
           RING + "Rnd 1: Sc in each ch around; join.\nRnd 2: Ch 1, sc in each dc around; join.", 3),
    Entry("chain-not-there", "error", "places", "A chain of another length",
           "A beginning chain is named by its length (“top of ch 4”, “3rd ch of beg ch-5”), and the round begins with "
           "another.", "Change the length, here or where the chain is made.",
           RING + "Rnd 1: Ch 3 (counts as dc), dc in each ch around; sl st to top of ch 4.", 2),
)  # fmt: skip
