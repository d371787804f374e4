"""The tree of a pattern: what its text says, per size, before anything is worked.

Equality ignores spans and spelling: two texts that mean the same have equal trees. Stitches
are named by their US abbreviation whatever the text was written in.
"""

from dataclasses import dataclass, field
from typing import Literal

from rillstep.core.findings import Span
from rillstep.core.gauge import Gauge
from rillstep.core.lengths import Units
from rillstep.core.stitches import Loop, Terms

NOWHERE = Span(0, 1, 1)

WORKED = ("rows", "joined rounds", "joined and turned rounds", "spiral rounds", "rows from the same side")
ROLES = ("disc", "oval", "panel", "wall", "strip", "tube", "square", "fan", "trim")


@dataclass(frozen=True)
class Num:
    """A whole number for each size; None where the line does not hold for a size.

    `parts` has a span for each written member: one when a plain number holds for all sizes.
    """

    values: tuple[int | None, ...]
    span: Span = field(default=NOWHERE, compare=False)
    parts: tuple[Span, ...] = field(default=(), compare=False)

    def at(self, size: int) -> int:
        """The number in a size for which the line holds."""
        value = self.values[size]
        assert value is not None, "a number was asked for in a size in which its line does not hold"
        return value

    def is_always(self, value: int) -> bool:
        """Is it this value in every size for which the line holds?"""
        return all(v in (None, value) for v in self.values)


@dataclass(frozen=True)
class Decimals:
    """A measurement for each size, in the unit of the text, one decimal."""

    values: tuple[float | None, ...]
    span: Span = field(default=NOWHERE, compare=False)
    parts: tuple[Span, ...] = field(default=(), compare=False)


# --- where a hook goes -------------------------------------------------------------

WhatKind = Literal["st", "ch", "sp", "st and ch", "st and sp"]


@dataclass(frozen=True)
class What:
    """The kind of place named: stitches, chains, or chain spaces (of `length` chains, if said)."""

    kind: WhatKind
    length: Num | None = None


@dataclass(frozen=True)
class ToEnd:
    """ "around", "across", or (with `last`) "to last 3 sts"."""

    word: Literal["around", "across", "last"]
    last: Num | None = None


@dataclass(frozen=True)
class Next:
    count: Num
    what: What


@dataclass(frozen=True)
class Every:
    what: What
    end: ToEnd


@dataclass(frozen=True)
class Same:
    what: What


@dataclass(frozen=True)
class Last:
    what: What


@dataclass(frozen=True)
class FromHook:
    """ "2nd ch from hook"; `counts_as` when the chains skipped count as a stitch."""

    nth: Num
    counts_as: str | None = None


@dataclass(frozen=True)
class InRing:
    pass


Into = Next | Every | Same | Last | FromHook | InRing

# --- what is done ------------------------------------------------------------------


@dataclass(frozen=True)
class Work:
    """`per` stitches into each place of `into`."""

    stitch: str
    per: Num
    into: Into
    loop: Loop = "both"
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Together:
    """`legs` places worked together into one stitch, `times` times over."""

    stitch: str
    legs: Num
    times: Num
    loop: Loop = "both"
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Skip:
    count: Num
    what: What
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Chain:
    """`counts`: "none", a stitch that it counts as, or None when the text does not say."""

    length: Num
    counts: str | None = None
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Repeat:
    steps: tuple["Step", ...]
    times: Num | ToEnd
    span: Span = field(default=NOWHERE, compare=False)


GestureKind = Literal[
    "join",
    "turn",
    "rotate",
    "fasten off",
    "adjustable ring",
    "join into ring",
    "place marker",
    "move marker",
    "do not join",
]


@dataclass(frozen=True)
class Gesture:
    """Something done that makes no stitch."""

    kind: GestureKind
    span: Span = field(default=NOWHERE, compare=False)


Step = Work | Together | Skip | Chain | Repeat | Gesture

# --- lines -------------------------------------------------------------------------


@dataclass(frozen=True)
class Total:
    """A stated total. `what`: "sts", a stitch, or "sp" with its length in chains."""

    count: Num
    what: str
    length: Num | None = None


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

    def rounds(self, size: int) -> int:
        """How many rounds this line stands for in a size; 0 or less when its range is empty."""
        return 1 if self.last is None else self.last.at(size) - self.first.at(size) + 1


@dataclass(frozen=True)
class Setup:
    """A line without a label: a foundation, a ring, fastening off."""

    steps: tuple[Step, ...]
    sizes: tuple[int, ...]
    span: Span = field(default=NOWHERE, compare=False)
    broken: bool = field(default=False, compare=False)


@dataclass(frozen=True)
class CheckItem:
    """A statement about the work so far; measures are in the unit of the text."""

    what: Literal["rnds", "rows", "sts", "wide", "high", "deep", "drop"]
    number: Num | Decimals


@dataclass(frozen=True)
class Check:
    """ "Check: 30 (34) rnds; 72 (88) sts; 24.0 (29.3) cm wide." """

    items: tuple[CheckItem, ...]
    sizes: tuple[int, ...]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Prose:
    """Kept and printed, not worked."""

    text: str
    sizes: tuple[int, ...]
    note: bool = False
    span: Span = field(default=NOWHERE, compare=False)


Line = Row | Setup | Check | Prose


@dataclass(frozen=True)
class Section:
    title: str
    worked: str
    role: str
    lines: tuple[Line, ...]
    continues: str | None = None
    span: Span = field(default=NOWHERE, compare=False)


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
    terms: Terms = field(default="US", compare=False)

    def lines(self) -> list[tuple[Section, Line]]:
        """Every line with its section, in order."""
        return [(section, line) for section in self.sections for line in section.lines]
