"""Numbers for each size, and the places that a step names: the leaves of the tree of a pattern."""

from collections.abc import Collection
from dataclasses import dataclass, field, replace
from fractions import Fraction
from typing import Literal

from rillstep.core.craft import Loop
from rillstep.core.findings import Span
from rillstep.core.tree.forms import Form, constant

NOWHERE = Span(0, 1, 1)


@dataclass(frozen=True)
class Num:
    """A whole number for each size; None where the line does not hold for a size.

    `parts` has a span for each written member: one when a plain number holds for all sizes.
    `offset`: by how much it is more than what is written ("4 more times" are five in all). `source`: the expression
    that it was written as ("2*side + 6"), and `forms`: for each size what it is made of, where that is known. `shown`:
    what is printed for it, in a text that keeps its names.
    """

    values: tuple[int | None, ...]
    span: Span = field(default=NOWHERE, compare=False)
    parts: tuple[Span, ...] = field(default=(), compare=False)
    offset: int = field(default=0, compare=False)
    source: str = field(default="", compare=False)
    forms: tuple[Form | None, ...] = field(default=(), compare=False)
    shown: str = field(default="", compare=False)

    def at(self, size: int) -> int:
        """The number in a size for which the line holds."""
        value = self.values[size]
        assert value is not None, "a number was asked for in a size in which its line does not hold"
        return value

    def is_always(self, value: int) -> bool:
        """Is it this value in every size for which the line holds?"""
        return all(v in (None, value) for v in self.values)

    def form(self, size: int) -> Form | None:
        """What the number is made of in a size; None where that is not known, or the line does not hold."""
        value = self.values[size]
        if value is None:
            return None
        return self.forms[size] if self.forms else constant(value)

    def more(self, by: int) -> "Num":
        """The number that is so much more, in every size; it is still written as it was."""
        values = tuple(None if v is None else v + by for v in self.values)
        forms = tuple(None if form is None else form.more(by) for form in self.forms)
        return Num(values, self.span, self.parts, self.offset + by, self.source, forms)

    def plus(self, other: "Num", times: int = 1, by: int = 0) -> "Num":
        """The sum of this number, so many times another, and `by`: a number that is written nowhere."""
        pairs = zip(self.values, other.values, strict=True)
        values = tuple(None if a is None or b is None else a + times * b + by for a, b in pairs)
        if not self.forms and not other.forms:
            return Num(values)
        made_of = [(self.form(size), other.form(size)) for size in range(len(values))]
        return Num(values, forms=tuple(a.plus(b, Fraction(times)).more(by) if a and b else None for a, b in made_of))

    def counted_on(self, by: int) -> "Num":
        """The number so many further, which is written nowhere."""
        return self.plus(self.all(by))

    def all(self, value: int) -> "Num":
        """The same plain number in every size in which this one holds, written nowhere."""
        return Num(tuple(None if v is None else value for v in self.values))

    def only(self, sizes: Collection[int]) -> "Num":
        """The number in some sizes; in the others it does not hold."""
        return replace(self, values=tuple(v if i in sizes else None for i, v in enumerate(self.values)))

    def joined(self, other: "Num", sizes: Collection[int]) -> "Num":
        """This number, and in some sizes another, written nowhere."""
        values = tuple(other.values[i] if i in sizes else v for i, v in enumerate(self.values))
        if not self.forms and not other.forms:
            return Num(values)
        return Num(values, forms=tuple((other if i in sizes else self).form(i) for i in range(len(values))))


@dataclass(frozen=True)
class Coming:
    """The number of the row that comes next, told apart by what it is made of too: what is read with it may be
    remembered."""

    number: Num
    forms: tuple[Form | None, ...] = ()

    def only(self, sizes: Collection[int]) -> Num:
        return self.number.only(sizes)


def coming(number: Num) -> Coming:
    """The number of the next row, as a key that tells it apart by its forms."""
    return Coming(number, number.forms)


def ordinal_text(value: int) -> str:
    """ "2nd", "13th"."""
    suffix = "th" if 10 <= value % 100 <= 20 else {1: "st", 2: "nd", 3: "rd"}.get(value % 10, "th")
    return f"{value}{suffix}"


@dataclass(frozen=True)
class Decimals:
    """A measurement for each size, in the unit of the text, one decimal."""

    values: tuple[float | None, ...]
    span: Span = field(default=NOWHERE, compare=False)
    parts: tuple[Span, ...] = field(default=(), compare=False)


_MM = {"mm": 1.0, "cm": 10.0, "in": 25.4}


@dataclass(frozen=True)
class Until:
    """A length to work to: "until the wall measures 20 (24) cm from the base"; "the flap covers a third of the front".

    words: what stands before the length. length: in the unit that is written; None for a share of a piece. rest: what
    is said after it. share, of: the part, and the word that names the piece.
    """

    words: str
    length: Decimals | None
    unit: str
    rest: str = ""
    share: Fraction | None = None
    of: str = ""
    span: Span = field(default=NOWHERE, compare=False)

    def mm(self, size: int) -> float | None:
        """The length in a size in mm; None for a share of a piece."""
        value = self.length.values[size] if self.length is not None else None
        return None if value is None else value * _MM[self.unit]


@dataclass(frozen=True)
class SaidMeasure:
    """A measure of the bag in mm for each size, as words of the head tell it, and where."""

    name: Literal["width", "height", "depth"]
    mm: tuple[float, ...]
    span: Span


# --- where a hook goes -------------------------------------------------------------

WhatKind = Literal["st", "ch", "sp", "st and ch", "st and sp", "end", "gap"]


@dataclass(frozen=True)
class NamedRow:
    """A row that words name as the one whose places are worked into: "in first sc of Row 7"."""

    kind: Literal["Rnd", "Row"]
    number: Num


@dataclass(frozen=True)
class What:
    """The kind of place named: stitches, chains, chain spaces, or the ends of rows ("end").

    length: of a space in chains, where it is said. stitch: only the tops of this stitch, or the
    places that a special stitch offers. corner: only corner spaces, or corner stitches. between: the
    gap behind every so many stitches ("sp between 3-dc groups" is 3), where no chain was made. below: so many rows
    below the place itself, which is covered and so taken all the same ("FPdc around next st 2 rows below"). unworked:
    of those that an earlier row left unworked. of_row: the row that its words name.
    """

    kind: WhatKind
    length: Num | None = None
    stitch: str = ""
    corner: bool = False
    between: int = 0
    below: int = 0
    unworked: bool = False
    of_row: NamedRow | None = None
    bump: bool = field(default=False, compare=False)  # in the back bump of a chain, which makes the same stitch
    span: Span = field(default=NOWHERE, compare=False)  # of the words that name the stitch


@dataclass(frozen=True)
class ToEnd:
    """ "around", "across", "to last 3 sts" (`last`), "to marker A" (`marker`), "to last ch-2 sp" (`last` and
    `what`)."""

    word: Literal["around", "across", "last", "marker"]
    last: Num | None = None
    marker: str = ""
    what: What | None = None


@dataclass(frozen=True)
class Next:
    """over: a stitch that takes several places is worked over so many: "C4F over next 4 sts" is one of them. unsaid:
    there are several ("in next sts"), and it is not said how many."""

    count: Num
    what: What
    over: bool = False
    unsaid: bool = False


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
    """ "2nd ch from hook"; `counts_as` when the chains skipped count as a stitch; space: of so many chains, which
    they are besides."""

    nth: Num
    counts_as: str | None = None
    space: Num | None = None
    bump: bool = field(default=False, compare=False)


@dataclass(frozen=True)
class InRing:
    """called: what the text calls the ring, where it is no plain "ring"."""

    called: str = field(default="", compare=False)


@dataclass(frozen=True)
class Nth:
    """ "in first st", "in 2nd st": counted from the start of the row or of a turn of a repeat; those before it are
    passed over.

    here: counted from where the hook is, "in 3rd dc of next fan".
    """

    nth: Num
    what: What
    here: bool = False


@dataclass(frozen=True)
class Marked:
    """ "in marked st", "in st with marker A". stitch: the one that carries it, where that is named; span: its words."""

    marker: str = ""
    stitch: str = ""
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Loops:
    """Loops left free earlier: "in front loops of Rnd 6", each of them (`count` None) or the next few; `number` None:
    the last left."""

    loop: Loop
    kind: Literal["Rnd", "Row"]
    number: Num | None
    count: Num | None = None


@dataclass(frozen=True)
class Bars:
    """ "around next 2 bars of Rnd 6": stitches on the surface of the fabric, from which a strap begins."""

    kind: Literal["Rnd", "Row"]
    number: Num
    count: Num


@dataclass(frozen=True)
class Skipped:
    """ "in skipped st": a place passed over just before."""

    count: Num
    what: What


@dataclass(frozen=True)
class AsFirst:
    """ "in same st as first st": at the end of a round, once more into the place of its first stitch."""

    what: What


@dataclass(frozen=True)
class TopOfChain:
    """ "in top of turning ch": the chain that began the row below, where it counts as a stitch."""


Into = TopOfChain | AsFirst | Skipped | Next | Every | Same | Last | FromHook | InRing | Nth | Marked | Loops | Bars
