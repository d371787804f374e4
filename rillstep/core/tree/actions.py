"""The steps of a row: what is done, and where."""

from dataclasses import dataclass, field
from typing import Literal

from rillstep.core.craft import Loop
from rillstep.core.findings import Span
from rillstep.core.tree.leaves import NOWHERE, Into, Num, ToEnd, Until, What


@dataclass(frozen=True)
class Work:
    """`per` stitches into each place of `into`."""

    stitch: str
    per: Num
    into: Into
    loop: Loop = "both"
    span: Span = field(default=NOWHERE, compare=False)
    manner: str = field(default="", compare=False)  # "standing": how its yarn is joined, which makes the same stitch


@dataclass(frozen=True)
class Together:
    """`legs` places worked together into one stitch, `times` times over; or until `end`.

    same: all legs stand in one place (a puff, a cluster), `into` says which.
    """

    stitch: str
    legs: Num
    times: Num
    loop: Loop = "both"
    end: ToEnd | None = None
    into: Into | None = None
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Skip:
    """`first`: "sk first st", which is the place under a starting chain that counts."""

    count: Num
    what: What
    first: bool = False
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class SkipTo:
    """Pass over stitches up to a marker: "sk to next marker"."""

    end: ToEnd
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Chain:
    """`counts`: "none", a stitch that it counts as, or None when the text does not say.

    space: chains of it that are a space beside that stitch ("counts as dc, ch 2").
    """

    length: Num
    counts: str | None = None
    space: Num | None = None
    span: Span = field(default=NOWHERE, compare=False)
    until: Until | None = None  # what it measures


@dataclass(frozen=True)
class Closing:
    """ "ch 2, dc in first st to close (counts as ch-5 sp)": the last space of a round, closed by a stitch.

    The hook stands in the middle of that space, so the next round begins in it. `space`: its length in chains.
    """

    chain: Num
    stitch: str
    space: Num
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Group:
    """ "(2 dc, ch 2, 2 dc) in next ch-2 sp": the steps, all in one place, for each place of `into`."""

    steps: tuple["Step", ...]
    into: Into
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class EachKind:
    """ "sc in each st and 2 sc in each ch-2 sp around": every place of some kinds, each in its own way."""

    works: tuple["Work | Group", ...]
    end: ToEnd
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Evenly:
    """ "work 14 (17, 20) sc evenly along row ends": so many over a whole edge, whatever it has; "all edges": of the
    whole piece."""

    stitch: str
    count: Num
    along: Literal["edge", "row ends", "foundation", "around", "all edges"]
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Spread:
    """ "sc in each st around, increasing 6 sts evenly": every stitch of the row, and so many more or fewer, spread
    over it."""

    stitch: str
    change: Num
    more: bool
    end: ToEnd
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Onward:
    """ "continue in this manner": the row grows, or shrinks, by as much as the one before it did. `words`: as they
    are printed."""

    words: str
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Foundation:
    """ "fsc 25": foundation stitches, which make their own chain below them and take no place."""

    stitch: str
    count: Num
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True)
class Repeat:
    steps: tuple["Step", ...]
    times: Num | ToEnd
    span: Span = field(default=NOWHERE, compare=False)


GestureKind = Literal[
    "join", "turn", "do not turn", "rotate", "fasten off", "adjustable ring", "join into ring", "place marker",
    "move marker", "remove marker", "do not join", "leave rest unworked", "change colour", "join colour",
    "end colour", "seam", "both layers", "so far", "aside",
]  # fmt: skip


@dataclass(frozen=True)
class Gesture:
    """Something done that makes no stitch. `name`: of a marker, a colour, or the words of an aside; `into`: where;
    `how`: in words.

    "so far" states in the middle of a row how many there are, or how many the last steps made, as `into` counts.
    """

    kind: GestureKind
    name: str = ""
    into: Into | None = None
    span: Span = field(default=NOWHERE, compare=False)
    how: str = ""


Step = (
    Work
    | Together
    | Skip
    | SkipTo
    | Chain
    | Closing
    | Group
    | EachKind
    | Evenly
    | Spread
    | Onward
    | Foundation
    | Repeat
    | Gesture
)
