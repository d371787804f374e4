"""Words that an editor offers while a line is written: those of the canonical form, with what each means."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from rillstep.core.craft import GATHERED, SL_ST, STITCHES, Terms, abbreviation, full_name

OfferedKind = Literal["stitch", "place", "end", "gesture", "line", "head"]

_PLACES = (
    ("in next st", "the next stitch"), ("in each st around", "every stitch of the round"),
    ("in each st across", "every stitch of the row"), ("in same st", "where the last one went"),
    ("in first st", "the first stitch"), ("in last st", "the last stitch; none may be left before it"),
    ("in next ch-2 sp", "the space under 2 chains"), ("in each ch-1 sp around", "every space under 1 chain"),
    ("in corner sp", "the space in the corner"), ("in ring", "the ring in the middle"),
    ("in 2nd ch from hook", "leaves one chain unused"), ("in each ch across", "every chain"),
    ("in each st and ch around", "every stitch and each single chain"), ("in marked st", "the stitch with the marker"),
    ("in front loops of Rnd 1", "loops that an earlier round left free"), ("around next st", "around its post"),
)  # fmt: skip
_ENDS = (
    ("around", "until the round is full"), ("across", "until the row is full"),
    ("to last 2 sts", "until 2 stitches are left"), ("to marker", "until the marked stitch"),
)  # fmt: skip
_GESTURES = (
    ("join", "close the round"), ("turn", "the other side faces you"), ("rotate", "go on along the next side"),
    ("sk next st", "leave one stitch out"), ("place marker", "in the stitch just made"),
    ("move marker up", "to the stitch made in it"), ("fasten off", "end the yarn"),
    ("leave rem sts unworked", "the row ends here"), ("BLO", "in back loops only"), ("FLO", "in front loops only"),
    ("(counts as dc)", "the starting chain is a stitch"), ("(does not count)", "it is only a turning chain"),
)  # fmt: skip
_LINES = (
    ("Rnd ", "a round, or Rnds 2-5 for several alike"), ("Row ", "a row"), ("Rep Rnd ", "work it again"),
    ("Section: ", "a new piece: Section: Wall (joined rounds, wall)"),
    ("Size M only:", "the lines that follow hold for M"),
    ("All sizes:", "the lines that follow hold for all"), ("Make an adjustable ring.", "to begin a disc"),
    ("Check: ", "a statement that is worked out again"), ("Fold: ", "front 30 rows, back 30 rows, flap 14 rows"),
    ("Note: ", "kept and printed, not worked"),
)  # fmt: skip
_HEAD = (
    ("Pattern: ", "its name"), ("Terms: US", "or UK"), ("Sizes: ", "their names, with commas"), ("Units: cm", "or in"),
    ("Gauge: ", "sc 20 sts x 22 rows = 10 cm"), ("Define: ", "a stitch of your own: shell = 5 dc in same st"),
    ("Means: ", "a phrase of your own: Means: \"in bb\" = in back loop"),
    ("Number: ", "a number by name: side = 10 (13, 16)"),
)  # fmt: skip


@dataclass(frozen=True)
class Offered:
    """A word to offer, what it is, and what it means."""

    word: str
    kind: OfferedKind
    help: str


def offered(terms: Terms) -> tuple[Offered, ...]:
    """All words that are offered in the given terms."""
    return tuple(_offered(terms))


def _offered(terms: Terms) -> Iterator[Offered]:
    for stitch in STITCHES:
        name = abbreviation(stitch.us, terms)
        yield Offered(name, "stitch", full_name(stitch.us, terms))
        if stitch is not SL_ST and " " not in name:
            yield Offered(f"{name}2tog", "stitch", f"2 {full_name(stitch.us, terms)} worked together")
            for side in ("FP", "BP"):
                yield Offered(side + name, "stitch", full_name(side + stitch.us, terms))
    yield Offered("ch", "stitch", "chain")
    yield Offered("inc", "stitch", "2 in one stitch")
    for name in GATHERED:
        yield Offered(name, "stitch", "several in one place, closed into one")
    tables: tuple[tuple[OfferedKind, tuple[tuple[str, str], ...]], ...] = (
        ("place", _PLACES),
        ("end", _ENDS),
        ("gesture", _GESTURES),
        ("line", _LINES),
        ("head", _HEAD),
    )
    for kind, table in tables:
        for word, meaning in table:
            yield Offered(word, kind, meaning)
