"""The row while it grows: what is on the hook, and what it knows of the piece."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field, replace

from rillstep.core.craft import Terms, abbreviation
from rillstep.core.fabric.cursor import Cursor, Want
from rillstep.core.fabric.edge import Edge, Place, Run
from rillstep.core.fabric.trace import Recorder
from rillstep.core.findings import Span
from rillstep.core.tree import Chain, Row, Special, Step, WhatKind

MOST_STITCHES = 200_000
NOWHERE = Span(0, 1, 1)


@dataclass(frozen=True)
class Trouble:
    """Why a row could not be worked as it says. `missing` and `left` count places.

    stitches: those that the message names, as {0} and {1}: they are written in the terms of the text.
    """

    code: str
    span: Span
    message: str
    missing: int = 0
    left: int = 0
    stitches: tuple[str, ...] = ()

    def told(self, terms: Terms) -> str:
        """The message in the terms of a text."""
        names = [abbreviation(stitch, terms) for stitch in self.stitches]
        return self.message.format(*names) if names else self.message


class Stop(Exception):
    """A row comes to its first trouble; caught where the row is worked."""

    def __init__(self, trouble: Trouble) -> None:
        super().__init__(trouble.message)
        self.trouble = trouble


# Steps that one row, and all rows of a pattern in a size, may take: repeats are counted, so an
# honest text needs few, and a hostile one is answered instead of worked.
MOST_STEPS = 20_000
MOST_STEPS_IN_ALL = 40_000


@dataclass(frozen=True)
class FreeLoops:
    """Loops left free by a row that worked only the other ones, of the stitches of the row before it."""

    front: tuple[Run, ...] = ()
    back: tuple[Run, ...] = ()


@dataclass(frozen=True)
class Surroundings:
    """What a row can reach besides the edge that it is worked on.

    says: what the text said a starting chain of so many chains counts as. pending: a turning
    chain made at the end of the row before. sides: the edges of the piece that come after the
    top when the work is rotated. loops: left free earlier, by (kind, number). grew: by how many stitches
    the row before did. rest: what an earlier row left unworked, as that row would have met it. throughout: as `says`,
    by what the text says of such chains anywhere.
    """

    says: tuple[tuple[int, str], ...] = ()
    pending: Chain | None = None
    sides: tuple[Run, ...] = ()
    loops: tuple[tuple[tuple[str, int], FreeLoops], ...] = ()
    specials: tuple[Special, ...] = ()
    corners: bool = False
    rows: bool = False
    grew: int = 0
    rest: Edge | None = None
    throughout: tuple[tuple[int, str], ...] = ()


@dataclass(frozen=True)
class Turn:
    """One round of a line: whose instructions were worked, on which edge, and what it could reach besides.

    turned: the next row meets its places in the opposite order.
    """

    source: Row
    edge: Edge
    around: Surroundings
    turned: bool


@dataclass
class Hook:
    """Everything that changes while one row is worked."""

    size: int
    cursor: Cursor
    edge: Edge
    around: Surroundings
    says: dict[int, str]
    do_all: "Callable[[Hook, tuple[Step, ...]], None]"  # works steps; given here, as steps hold steps
    made: list[Run] = field(default_factory=list)
    freed_front: list[Run] = field(default_factory=list)
    freed_back: list[Run] = field(default_factory=list)
    chains: int = 0
    slip_stitches: int = 0
    made_count: int = 0
    started: bool = False
    closed: bool = False
    turned: bool = False
    unworked: bool = False
    spread_out: bool = False  # so many were spread over a side: how many row ends it has binds nobody
    joined_within: bool = False  # a yarn was joined at a named place: a row from there may end before the edge does
    begins_last: bool = False  # the next round begins in the place made last
    standing: Run | None = None  # where slip stitches have moved the hook to, before anything is worked there
    sides: list[Run] = field(default_factory=list)
    on_side: bool = False
    cornered: int = -1  # places taken when the last corner between two sides was worked
    on_rest: bool = False  # the stitches that an earlier row left unworked have been reached
    used_loops: list[tuple[str, int, str, int]] = field(default_factory=list)
    moving: bool = False
    slipping: bool = False  # slip stitches move the hook; they keep count of what they pass themselves
    spares_chain: bool = False  # the top of the turning chain below is named by itself in this row
    may_end: bool = False  # a repeat before this step took as much as it could: nothing may be left for it
    counted_from: int = 0  # places taken when this turn of a repeat began: "in 4th st" counts from there
    steps: int = 0
    skipped: int = 0  # places skipped that a later stitch may still go into
    stands: bool = False  # a starting chain that counts stands on the first place, and nothing else was worked yet
    begun_in_first: bool = False  # a stitch, or a chain that counts as one, was worked into the first place
    carried: str | None = None  # the marker that the next stitch carries up
    warnings: list[Trouble] = field(default_factory=list)
    absent: Trouble | None = None  # the first stitch that was named as a place and is not there; the row goes on
    trace: Recorder | None = None

    def spend(self, span: Span, steps: int = 1) -> None:
        """Count steps that are worked. Raises Stop when they are too many."""
        self.steps += steps
        if self.steps > (MOST_STEPS if self.trace is None else 10 * MOST_STEPS):  # a trace walks every repeat
            raise Stop(Trouble("too-large", span, "more steps than Rillstep works in one row"))

    def make(self, runs: list[Run], over: int | None = 0) -> None:
        """Put stitches on the new edge, over so many of the places taken last. Raises Stop when they are too many.

        over: None when the trace knows already.
        """
        if self.trace is not None and over is not None:
            self.trace.make(runs, over)
        self.made += runs
        self.made_count += stitches_in(runs)
        if self.made_count > MOST_STITCHES:
            raise Stop(Trouble("too-large", NOWHERE, "more stitches than Rillstep works in one row"))

    def take(self, want: Want, count: int, span: Span, use: bool = True, skipping: bool = False) -> list[Run]:
        """Take places, to work into them or to skip them. Raises Stop when there are not enough."""
        self.settle()
        self.stands = False
        if not self.cursor.rest and self.sides and self.on_side:
            self.next_side(want)
        if self.on_side and want.kind == "st":
            want = Want(self.side_kind())
        elif want.kind == "st" and not want.stitch and self._only_chains():
            want = Want("ch")
        first = not (self.cursor.taken or self.made or self.slipping or self.edge.foundation) and self.edge.closed
        before = list(self.cursor.rest) if first and want.kind == "sp" else None
        if want.kind == "ch" and not self.cursor.rest:
            self._close_tube()
        ahead = self.cursor.rest[-1] if self.cursor.rest and not self.cursor.taken else None
        fastens = ahead is not None and ahead.place.stitch == "sl st" and ahead.count == 1 and not ahead.inner
        if want.kind == "ch" and fastens:
            self.cursor.rest.pop()  # it fastened the chain, and is no place to work into
        taken = self.cursor.take(want, count, use)
        if before is not None:
            self._meet_again(before, want)
        if self.trace is not None:
            self.trace.note(taken, skipping)
        got = counted(taken)
        if got < count:
            raise Stop(_not_enough(self, want, count - got, span))
        return taken

    def _close_tube(self) -> None:
        """The chain that a round began with is worked into where it ends: "ch 12, sc in each st of the flap, sc in
        each of the 12 ch"."""
        first = self.made[0] if len(self.made) > 1 else None
        if first is not None and first.place.kind == "sp" and not first.inner:
            self.made.pop(0)
            self.cursor.rest = self._numbered([Run(Place("ch"), first.place.length)])
            self.closed = True

    def _meet_again(self, before: list[Run], want: Want) -> None:
        """Stitches passed over on the way to the first space come last in the round, where they may be worked into."""
        passed = leading(reversed(before), want)
        if passed is not None:
            self.cursor.rest[:0] = [Run(replace(run.place, optional=True), run.count) for run in reversed(passed)]

    def settle(self) -> None:
        """A place that the hook was moved to, and that nothing was worked into, is met again at the end of the
        round."""
        if self.standing is not None:
            if self.edge.closed:
                self.cursor.rest.insert(0, self.standing)
            self.standing = None

    def _only_chains(self) -> bool:
        """A foundation chain, and its underside, have no stitches, so "each st" can only mean their chains."""
        rest = self.cursor.rest
        if self.edge.foundation:
            return any(run.place.kind == "ch" for run in rest)
        return bool(rest) and all(run.place.kind == "ch" and not run.inner for run in self.edge.runs)

    def side_kind(self) -> WhatKind:
        """The kind of the side that is worked along."""
        rest = self.cursor.rest
        if rest and rest[-1].place.kind in ("end", "ch"):
            return rest[-1].place.kind
        return "st"

    def next_side(self, want: Want) -> None:
        while self.sides:
            side = self.sides.pop(0)
            if want.kind in (side.place.kind, "st"):
                self.cursor.rest = self._numbered([side])
                return

    def special(self, name: str | None) -> Special | None:
        """The stitch of the pattern's own that has this name and is defined by its instruction."""
        return next((s for s in self.around.specials if s.name == name and s.steps), None)

    def rotate(self, span: Span) -> None:
        """Go on along the next side of the piece. Raises Stop when places are left, or there is no other side."""
        if not self.edge.foundation and not self.sides:
            raise Stop(Trouble("no-such-place", span, "there is no other side here to work along"))
        left = self.cursor.left()
        if left and (
            self.cursor.taken or self.edge.foundation
        ):  # else the top is passed over: nothing was worked on it
            message = f"{left} {places_word(self.cursor.kinds, left)} left over before “rotate”"
            raise Stop(Trouble("left-over", span, message, left=left))
        self.cursor.rest = []
        self.cursor.uses.clear()
        if self.edge.foundation:
            self.cursor.rest = self._numbered(self._underside(span))
        self.on_side = not self.edge.foundation

    def reach_unworked(self, span: Span) -> None:
        """Go on in the stitches that an earlier row left unworked. Raises Stop when places are left before them."""
        if self.around.rest is None or self.on_rest:
            return
        left = self.cursor.left() if self.cursor.taken else 0
        if left:
            message = f"{left} {places_word(self.cursor.kinds, left)} left over before the unworked ones"
            raise Stop(Trouble("left-over", span, message, left=left))
        self.on_rest = True
        self.cursor.rest = self._numbered(list(reversed(self.around.rest.runs)))

    def _numbered(self, rest: list[Run]) -> list[Run]:
        """Places that are met only now, with numbers when the row is traced; the next one stands last, as on the
        cursor."""
        return rest if self.trace is None else list(reversed(self.trace.numbered(reversed(rest))))

    def _underside(self, span: Span) -> list[Run]:
        along = self.cursor.worked_chains - 2
        if along < 0:
            raise Stop(Trouble("no-such-place", span, "there is no foundation chain here to work along"))
        under = [Run(Place("ch", optional=True), 1)]
        if along:
            under.append(Run(Place("ch"), along))
        return under

    @property
    def tally(self) -> tuple[int, ...]:
        return (self.cursor.taken, self.cursor.worked_chains, self.chains, self.slip_stitches, self.made_count)

    def add(self, tally: tuple[int, ...]) -> None:
        """Add what turns of a repeat that were counted at once have taken and made. Raises Stop when that is too
        much."""
        self.cursor.taken += tally[0]
        self.cursor.worked_chains += tally[1]
        self.chains += tally[2]
        self.slip_stitches += tally[3]
        self.made_count += tally[4]
        if self.made_count > MOST_STITCHES:
            raise Stop(Trouble("too-large", NOWHERE, "more stitches than Rillstep works in one row"))


def stitches_in(runs: list[Run]) -> int:
    """Stitches and spaces in some runs."""
    return sum(run.count * (stitches_in(list(run.inner)) if run.inner else 1) for run in runs)


def leading(runs: Iterable[Run], want: Want) -> list[Run] | None:
    """The places before the first wanted one; None when there is none."""
    passed: list[Run] = []
    for run in runs:
        if run.inner:
            inside = leading(run.inner, want)
            if inside is not None:
                return passed + inside
            passed.append(run)
        elif want.units(run.place):
            return passed
        else:
            passed.append(run)
    return None


def counted(runs: list[Run]) -> int:
    """How many places there are in some runs."""
    return stitches_in(runs)


def _not_enough(hook: Hook, want: Want, missing: int, span: Span) -> Trouble:
    cursor = hook.cursor
    kinds = {"st and ch": {"st", "ch"}, "st and sp": {"st", "sp"}}.get(want.kind, {want.kind})
    if want.length is not None and not any(run.place.length == want.length for run in hook.edge.runs):
        message = f"there is no ch-{want.length} space here to work into"
        return Trouble("no-such-place", span, message, missing=missing)
    if want.kind == "end":
        return Trouble(
            "no-such-place", span, f"there are no row ends here to work into ({missing} missing)", missing=missing
        )
    begun = cursor.rest[-1] if cursor.rest and cursor.rest[-1].place.begun else None
    if begun is not None:
        chains = "chain is" if begun.count == 1 else "chains are"
        return Trouble("left-over", span, f"{begun.count} {chains} left over of those worked before", left=begun.count)
    ahead = cursor.left()
    if ahead:
        message = f"the next place is not a {places_word(kinds, 1)}"
        return Trouble("no-such-place", span, message, missing=missing, left=ahead)
    message = f"runs out of {places_word(kinds, 2)}: {missing} {places_word(kinds, missing)} missing"
    return Trouble("runs-out", span, message, missing=missing)


def places_word(kinds: set[str], count: int) -> str:
    """ "stitch", "stitches", "spaces": what places of these kinds are called."""
    one = {"st": "stitch", "ch": "chain", "sp": "space", "end": "row end", "ring": "ring", "gap": "corner"}
    name = one.get(next(iter(kinds)), "place") if len(kinds) == 1 else "place"
    return name if count == 1 else {"stitch": "stitches"}.get(name, name + "s")
