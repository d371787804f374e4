"""The tree of a pattern: what its text says, per size, before anything is worked.

Equality ignores spans and spelling: two texts that mean the same have equal trees. Stitches
are named by their US abbreviation whatever the text was written in.
"""

from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

from rillstep.core.craft import Loop, Terms
from rillstep.core.findings import Span
from rillstep.core.gauge import Gauge, OwnGauge
from rillstep.core.lengths import Units
from rillstep.core.tree.actions import Gesture, Step
from rillstep.core.tree.leaves import NOWHERE, Decimals, NamedRow, Num, SaidMeasure, Until
from rillstep.core.wordlists import word_list

WORKED = ("rows", "joined rounds", "joined and turned rounds", "spiral rounds", "rows from the same side")
ROLES = word_list("disc oval panel wall strip tube square fan trim")


# --- lines -------------------------------------------------------------------------


@dataclass(frozen=True)
class Total:
    """A stated total. `what`: "sts", a stitch, or "sp" with its length in chains.

    each: for a range of rounds, the total after each of them ("26, 24, 22 sts"); `count` is the last one. beside: it
    counts what stands beside motifs of which the text does not define what they are ("18 shells and 19 sc").
    """

    count: Num
    what: str
    length: Num | None = None
    each: tuple[Num, ...] = ()
    beside: bool = False


@dataclass(frozen=True)
class Kept:
    """Words of a line that change nothing in what is worked, as they are written; they are printed at their place.

    after: how many of the steps begin before them. bracket: they stand in brackets of their own.
    """

    words: str
    after: int
    bracket: bool = False
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Reading:
    """Another way in which a row can be read, where its words leave it open; choice: which way of reading what."""

    steps: tuple[Step, ...]
    totals: tuple[Total, ...]
    choice: tuple[int, str] = field(default=(0, ""), compare=False)
    kept: tuple[Kept, ...] = ()


@dataclass(frozen=True)
class NamedChain:
    """A beginning chain that words name by its length: "sl st to 3rd ch of beg ch-5", "dc in top of ch-3".

    length: None where only one of its chains is named ("join to 3rd ch"). nth: which chain of it, where that is said.
    below: it began the row below, and not the row itself.
    """

    length: Num | None
    nth: Num | None
    below: bool


@dataclass(frozen=True)
class NamedStitch:
    """The stitch that a round is joined to by its name: "sl st to first sc"."""

    stitch: str
    span: Span


@dataclass(frozen=True)
class NamedBelow:
    """A stitch that is named as the place some rows further down: "FPtr around next dc 2 rows below"."""

    stitch: str
    below: int
    span: Span


Named = NamedRow | NamedChain | NamedStitch | NamedBelow


@dataclass(frozen=True)
class Row:
    """One round or row, or a range of them that are worked alike (`last` given)."""

    kind: Literal["Rnd", "Row"]
    first: Num
    last: Num | None
    steps: tuple[Step, ...]
    totals: tuple[Total, ...]
    sizes: tuple[int, ...]
    side: str | None = None
    span: Span = field(default=NOWHERE, compare=False)
    label_span: Span = field(default=NOWHERE, compare=False)
    broken: bool = field(default=False, compare=False)  # some words were not understood
    last_line: int = field(default=0, compare=False)  # where a row that goes over several lines ends
    readings: tuple[Reading, ...] = field(
        default=(), compare=False
    )  # tried when the row does not come out as it stands
    until_sts: Num | None = field(default=None, compare=False)  # as in `Again`
    kept: tuple[Kept, ...] = ()
    name: str = ""  # what its label calls it, besides its number
    stated: tuple[Total, ...] = ()  # totals of what the text does not define, `what` as it is written
    until: Until | None = None  # what the piece measures at their end
    named: tuple[Named, ...] = field(default=(), compare=False)  # what its words name besides, which must be there
    vouched: bool = field(default=False, compare=False)  # the designer vouches for what is not understood in it

    def rounds(self, size: int) -> int:
        """How many rounds this line stands for in a size; 0 or less when its range is empty."""
        return 1 if self.last is None else self.last.at(size) - self.first.at(size) + 1

    @cached_property
    def gestures(self) -> frozenset[str]:
        """The kinds of gestures among its steps."""
        return frozenset(step.kind for step in self.steps if isinstance(step, Gesture))


@dataclass(frozen=True)
class Setup:
    """A line without a label: a foundation, a ring, fastening off."""

    steps: tuple[Step, ...]
    sizes: tuple[int, ...]
    span: Span = field(default=NOWHERE, compare=False)
    broken: bool = field(default=False, compare=False)
    kept: tuple[Kept, ...] = ()
    totals: tuple[Total, ...] = ()
    stated: tuple[Total, ...] = ()  # totals of what the text does not define, `what` as it is written
    named: tuple[Named, ...] = field(default=(), compare=False)

    @cached_property
    def gestures(self) -> frozenset[str]:
        """The kinds of gestures among its steps."""
        return frozenset(step.kind for step in self.steps if isinstance(step, Gesture))


@dataclass(frozen=True)
class CheckItem:
    """A statement about the work so far; measures are in the unit of the text."""

    what: Literal[
        "rnds", "rows", "sts", "wide", "high", "deep", "drop", "front", "back", "bottom", "flap", "top", "half"
    ]
    number: Num | Decimals


@dataclass(frozen=True)
class Check:
    """ "Check: 30 (34) rnds; 72 (88) sts; 24.0 (29.3) cm wide." fold: "Fold: front 30 rows, back 30 rows, flap 14
    rows", the rows of a panel from its beginning on; "Fold: in half"."""

    items: tuple[CheckItem, ...]
    sizes: tuple[int, ...]
    span: Span = field(default=NOWHERE, compare=False)
    fold: bool = False


@dataclass(frozen=True)
class Prose:
    """Kept and printed, not worked. instructs: something is worked in it, so what it leaves is not known."""

    text: str
    sizes: tuple[int, ...]
    note: bool = False
    span: Span = field(default=NOWHERE, compare=False)
    instructs: bool = field(default=False, compare=False)


@dataclass(frozen=True)
class Again:
    """Lines worked again: "Rnds 9-20: Rep Rnds 7 and 8", "Rep Row 2 until there are 31 (37) rows".

    first, last: the rows that it stands for; last is None for a single one.
    sources: numbers of the rows whose instructions are used, in turn and beginning with the first.
    until_sts: the stitches that are left at the end, where that is all that is said of how many rows there are; it
    was not
    found out yet (see `fabric.readings`), and one repeat is taken.
    """

    kind: Literal["Rnd", "Row"]
    first: Num
    last: Num | None
    sources: tuple[Num, ...]
    totals: tuple[Total, ...]
    sizes: tuple[int, ...]
    span: Span = field(default=NOWHERE, compare=False)
    label_span: Span = field(default=NOWHERE, compare=False)
    broken: bool = field(default=False, compare=False)
    last_line: int = field(default=0, compare=False)
    until_sts: Num | None = None
    until: Until | None = None  # what the piece measures at their end
    side: str | None = None
    begins: tuple[Gesture, ...] = ()  # the colour that is changed to before them, in place of theirs
    then: tuple[Gesture, ...] = ()  # what is done after the last of them, beyond what they do
    kept: tuple[Kept, ...] = ()
    name: str = ""
    stated: tuple[Total, ...] = ()  # as in `Row`
    vouched: bool = field(default=False, compare=False)  # as in `Row`

    def rounds(self, size: int) -> int:
        """How many rounds this line stands for in a size; 0 or less when its range is empty."""
        return 1 if self.last is None else self.last.at(size) - self.first.at(size) + 1


Line = Row | Again | Setup | Check | Prose


def words_of(line: Line) -> tuple[str, ...]:
    """What a line keeps as words: all of a line of prose, or what stands among instructions."""
    if isinstance(line, Prose):
        return (line.text,)
    return () if isinstance(line, Check) else tuple(one.words for one in line.kept)


def lines_of(row: Row | Again) -> range:
    """The lines of the text in which a row stands: one that was broken stands in several."""
    return range(row.span.line, max(row.span.line, row.last_line) + 1)


@dataclass(frozen=True)
class Along:
    """An edge of an earlier section: loops left free in a row of it, its foundation chain, its row ends, what many of
    it make together, or its edges one after another; elsewhere: a piece that is not in this text."""

    edge: Literal["free loops", "foundation", "row ends", "joined pieces", "side by side", "elsewhere"]
    loop: Loop = "front"
    kind: Literal["Rnd", "Row"] = "Rnd"
    number: Num | None = None


@dataclass(frozen=True)
class Special:
    """A stitch defined in the pattern by its own instruction, or (no steps) by words that are only kept."""

    name: str
    steps: tuple[Step, ...]
    words: str = ""
    unread: bool = field(default=False, compare=False)  # its words seem to instruct, and are not understood


@dataclass(frozen=True)
class Section:
    """`continues`: the section it goes on from; `on` says where on it, the last edge if nothing is said.

    make: how many of the piece are made alike, once for all sizes or one number for each. alike: what the section
    declares of its sides:
    "mirrored", left and right of the centre of each row; "halves", front and back of each round.
    """

    title: str
    worked: str
    role: str
    lines: tuple[Line, ...]
    continues: str | None = None
    on: "Along | None" = None
    make: tuple[int, ...] = (1,)
    alike: Literal["", "mirrored", "halves"] = ""
    span: Span = field(default=NOWHERE, compare=False)

    def made(self, size: int) -> int:
        """How many of the piece are made in a size."""
        return self.make[size if len(self.make) > 1 else 0]


@dataclass(frozen=True)
class Pattern:
    """A whole pattern. `terms` is how it was written, and no part of what it means."""

    name: str
    sizes: tuple[str, ...]
    sections: tuple[Section, ...]
    units: Units = "cm"
    gauges: tuple[Gauge, ...] = ()
    finished: Check | None = None
    extra: tuple[tuple[str, str], ...] = ()  # Yarn, Hook, Note, ... as written
    specials: tuple[Special, ...] = ()
    terms: Terms = field(default="US", compare=False)
    kept: tuple[Span, ...] = field(default=(), compare=False)  # lines of the head that are kept as words
    taught: tuple[tuple[int, str], ...] = field(default=(), compare=False)  # lines that hold a taught phrase, with it
    own_gauges: tuple[OwnGauge, ...] = ()  # of stitch patterns and chains
    said: tuple[SaidMeasure, ...] = field(default=(), compare=False)  # finished measurements that words tell

    def lines(self) -> list[tuple[Section, Line]]:
        """Every line with its section, in order."""
        return [(section, line) for section in self.sections for line in section.lines]
