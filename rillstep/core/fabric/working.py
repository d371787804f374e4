"""One row worked on another, in one size.

Source of the reading rules: docs/notation.md, "Reading rules". A row that cannot be worked
to its end stops at its first trouble; the caller decides how to go on.
"""

from dataclasses import dataclass, field

from rillstep.core.fabric.cursor import TAKES, Cursor
from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Place, Run, edge_of
from rillstep.core.findings import Span
from rillstep.core.notation.tree import (
    Chain,
    Every,
    FromHook,
    Gesture,
    InRing,
    Last,
    Next,
    Num,
    Repeat,
    Row,
    Same,
    Setup,
    Skip,
    Step,
    ToEnd,
    Together,
    What,
    Work,
)
from rillstep.core.stitches import BY_US

MOST_STITCHES = 200_000
MOST_REPEATS = 20_000


@dataclass(frozen=True)
class Trouble:
    """Why a row could not be worked as it says. `missing` and `left` count places."""

    code: str
    span: Span
    message: str
    missing: int = 0
    left: int = 0


@dataclass(frozen=True)
class StepCount:
    """What one step took and made: the arithmetic behind a total."""

    span: Span
    took: int
    made: int


@dataclass(frozen=True)
class RowWork:
    """A row that was worked: what it offers now, and what went wrong or is worth a warning."""

    edge: Edge
    steps: tuple[StepCount, ...]
    slip_stitches: int
    chains: int
    trouble: Trouble | None = None
    warnings: tuple[Trouble, ...] = ()

    @property
    def counts(self) -> Counts:
        return self.edge.counts()


class _Stop(Exception):
    def __init__(self, trouble: Trouble) -> None:
        super().__init__(trouble.message)
        self.trouble = trouble


@dataclass
class _Hook:
    """The row while it grows."""

    size: int
    cursor: Cursor
    edge: Edge
    says: dict[int, str]
    made: list[Run] = field(default_factory=list)
    chains: int = 0
    slip_stitches: int = 0
    started: bool = False
    closed: bool = False
    turned: bool = False
    warnings: list[Trouble] = field(default_factory=list)

    def make(self, stitch: str, count: int) -> None:
        if stitch == "sl st":
            self.slip_stitches += count
        self.made.append(Run(Place("st", stitch), count))
        if sum(run.count for run in self.made[-1:]) > MOST_STITCHES:
            raise _Stop(Trouble("too-large", Span(0, 1, 1), "more stitches than Rillstep works in one row"))


def work_setup(setup: Setup, size: int) -> Edge | None:
    """What a set-up line gives to start from; None when it starts nothing (fasten off)."""
    length = sum(step.length.at(size) for step in setup.steps if isinstance(step, Chain))
    kinds = {step.kind for step in setup.steps if isinstance(step, Gesture)}
    if "adjustable ring" in kinds:
        return Edge((Run(Place("ring"), 1),), closed=True)
    if length > 0:
        return Edge((Run(Place("ch"), length),), "join into ring" in kinds, foundation=True)
    return None


def work_row(row: Row, size: int, edge: Edge, says: dict[int, str] | None = None) -> RowWork:
    """Work one round of `row` on `edge` in a size.

    `says` remembers what the text said a starting chain of so many chains counts as; it is
    added to, as a statement holds from where it stands.
    """
    hook = _Hook(size, Cursor(edge), edge, {} if says is None else says)
    steps: list[StepCount] = []
    trouble: Trouble | None = None
    try:
        for index, step in enumerate(row.steps):
            before, had = hook.cursor.taken, sum(run.count for run in hook.made)
            _do(hook, step, row.steps[index + 1] if index + 1 < len(row.steps) else None)
            steps.append(StepCount(step.span, hook.cursor.taken - before, sum(r.count for r in hook.made) - had))
        left = hook.cursor.left()
        if left:
            message = f"{left} {_places(hook.cursor.kinds, left)} left over at the end"
            trouble = Trouble("left-over", row.span, message, left=left)
    except _Stop as stop:
        trouble = stop.trouble
    made = edge_of(hook.made, hook.closed or edge.closed)
    return RowWork(
        made.turned() if hook.turned else made,
        tuple(steps),
        hook.slip_stitches,
        hook.chains,
        trouble,
        tuple(hook.warnings),
    )


def _places(kinds: set[str], count: int) -> str:
    one = {"st": "stitch", "ch": "chain", "sp": "space"}
    name = one[next(iter(kinds))] if len(kinds) == 1 else "place"
    return name if count == 1 else {"stitch": "stitches"}.get(name, name + "s")


def _do(hook: _Hook, step: Step, following: Step | None) -> None:
    match step:
        case Work():
            _work(hook, step)
        case Together(stitch, legs, times):
            for _ in range(times.at(hook.size)):
                _take(hook, What("st"), legs.at(hook.size), step.span)
                hook.make(stitch, 1)
        case Skip(count, what):
            _take(hook, what, count.at(hook.size), step.span)
        case Chain():
            _chain(hook, step, following)
        case Repeat():
            _repeat(hook, step)
        case Gesture(kind):
            if kind in ("join", "join into ring"):
                hook.closed = True
            elif kind == "turn":
                hook.turned = True
            elif kind == "rotate":
                _rotate(hook, step.span)
    hook.started = hook.started or not isinstance(step, Gesture)


def _take(hook: _Hook, what: What, count: int, span: Span) -> None:
    length = what.length.at(hook.size) if what.length else None
    got = hook.cursor.take(what.kind, count, length)
    if got < count:
        missing = count - got
        ahead = hook.cursor.left()
        kinds = set(TAKES[what.kind])
        if length is not None and not got and not hook.cursor.available("sp"):
            message = f"there is no ch-{length} space here to work into"
            raise _Stop(Trouble("no-such-place", span, message, missing=missing))
        if ahead:
            message = f"the next place is not a {_places(kinds, 1)}"
            raise _Stop(Trouble("no-such-place", span, message, missing=missing, left=ahead))
        message = f"runs out of {_places(kinds, 2)}: {missing} {_places(kinds, missing)} missing"
        raise _Stop(Trouble("runs-out", span, message, missing=missing))


def _work(hook: _Hook, step: Work) -> None:
    per, size = step.per.at(hook.size), hook.size
    count = 1
    match step.into:
        case Next(number, what):
            count = number.at(size)
            _take(hook, what, count, step.span)
        case Every(what, end):
            last = end.last.at(size) if end.last else 0
            length = what.length.at(size) if what.length else None
            count = hook.cursor.available(what.kind, length) - last
            if count < 1:
                message = "there is nothing left here to work into"
                raise _Stop(Trouble("runs-out", step.span, message, missing=1 - count))
            _take(hook, what, count, step.span)
        case Same(what):
            if hook.cursor.taken == 0:
                _take(hook, what, 1, step.span)
        case Last(what):
            _last(hook, what, step.span)
        case FromHook():
            _from_hook(hook, step.into, step.span)
        case InRing():
            if not any(run.place.kind == "ring" for run in hook.edge.runs):
                raise _Stop(Trouble("no-such-place", step.span, "there is no ring here to work into"))
    hook.make(step.stitch, per * count)


def _last(hook: _Hook, what: What, span: Span) -> None:
    ahead = hook.cursor.available(what.kind)
    if ahead > 1:
        message = f"{ahead - 1} {_places(set(TAKES[what.kind]), ahead - 1)} left over before the last one"
        raise _Stop(Trouble("left-over", span, message, left=ahead - 1))
    _take(hook, what, 1, span)


def _from_hook(hook: _Hook, into: FromHook, span: Span) -> None:
    nth = into.nth.at(hook.size)
    if not hook.edge.foundation or hook.cursor.taken:
        raise _Stop(Trouble("no-such-place", span, "there is no new foundation chain here"))
    if nth < 2:
        raise _Stop(Trouble("no-such-place", span, "the chain on the hook itself cannot be worked into"))
    _take(hook, What("ch"), nth, span)
    # The chains skipped at the start are not places; the walk back along the underside
    # ends at the chain first worked into.
    hook.cursor.taken -= nth - 1
    hook.cursor.worked_chains -= nth - 1
    if into.counts_as:
        hook.make(into.counts_as, 1)


def _rotate(hook: _Hook, span: Span) -> None:
    left = hook.cursor.left()
    if left:
        message = f"{left} {_places(hook.cursor.kinds, left)} left over before “rotate”"
        raise _Stop(Trouble("left-over", span, message, left=left))
    along = hook.cursor.worked_chains - 2
    if not hook.edge.foundation or along < 0:
        raise _Stop(Trouble("no-such-place", span, "there is no foundation chain here to work along"))
    under = [Run(Place("ch", optional=True), 1)]
    if along:
        under.append(Run(Place("ch"), along))
    hook.cursor.rest = under


def _chain(hook: _Hook, step: Chain, following: Step | None) -> None:
    length = step.length.at(hook.size)
    if length < 1:
        raise _Stop(Trouble("chain-of-none", step.span, "a chain has at least 1 stitch"))
    hook.chains += length
    if not hook.started:
        counts = _starting_chain(hook, step, length, following)
        if counts == "none":
            return
        if counts is not None:
            _take(hook, What("st"), 1, step.span)
            hook.make(counts, 1)
            return
    hook.made.append(Run(Place("sp", length=length), 1))


def _starting_chain(hook: _Hook, step: Chain, length: int, following: Step | None) -> str | None:
    """What a chain at the very start of a row is: "none", a stitch, or None for a chain loop."""
    first = _first_stitch(following)
    height = BY_US[first].turning_chain if first else 0
    counts = step.counts or hook.says.get(length)
    if counts is not None:
        if step.counts is not None:
            hook.says[length] = counts
        standard = BY_US[counts].turning_chain if counts != "none" else height
        if length > 1 and abs(length - standard) > (0 if counts == "none" else 1):
            message = f"ch {length} does not reach the height of {counts if counts != 'none' else first}"
            hook.warnings.append(Trouble("turning-chain", step.span, message))
        return counts
    if length == 1:
        return "none"
    if length == height:
        message = f"the text does not say whether ch {length} counts as a stitch"
        hook.warnings.append(Trouble("chain-unsaid", step.span, message))
        return "none"
    return None


def _first_stitch(step: Step | None) -> str | None:
    match step:
        case Work(stitch=stitch) | Together(stitch=stitch):
            return stitch
        case Repeat(steps=steps):
            return _first_stitch(steps[0]) if steps else None
        case _:
            return None


def _repeat(hook: _Hook, step: Repeat) -> None:
    if isinstance(step.times, Num):
        times = step.times.at(hook.size)
        if times > MOST_REPEATS:
            raise _Stop(Trouble("too-large", step.span, f"more than {MOST_REPEATS:,} repeats are not worked"))
        for _ in range(times):
            _do_all(hook, step.steps)
        return
    _repeat_to_end(hook, step, step.times)


def _do_all(hook: _Hook, steps: tuple[Step, ...]) -> None:
    for index, step in enumerate(steps):
        _do(hook, step, steps[index + 1] if index + 1 < len(steps) else None)


def _repeat_to_end(hook: _Hook, step: Repeat, end: ToEnd) -> None:
    """Work the brackets until exactly `last` places are left; anything else is an error with its remainder."""
    last = end.last.at(hook.size) if end.last else 0
    hook.cursor.kinds.update(kind for what in _whats(step.steps) for kind in TAKES[what.kind])
    left = hook.cursor.left()
    takes = 0
    while left > last:
        before = hook.cursor.left()
        try:
            _do_all(hook, step.steps)
        except _Stop as stop:
            if stop.trouble.code != "runs-out" or not takes:
                raise
            message = f"the repeat takes {takes} and does not come out even: {before - last} left for its last turn"
            raise _Stop(Trouble("repeat-uneven", step.span, message, takes - before + last, before - last)) from None
        left = hook.cursor.left()
        takes = takes or before - left
        if left >= before:
            raise _Stop(Trouble("repeat-stuck", step.span, "the repeat takes no stitch, so it never ends"))
    if left < last:
        message = f"the repeat takes {takes} and does not come out even"
        raise _Stop(Trouble("repeat-uneven", step.span, message, last - left, takes - last + left))


def _whats(steps: tuple[Step, ...]) -> list[What]:
    found: list[What] = []
    for step in steps:
        match step:
            case Work(into=Next(what=what) | Every(what=what) | Same(what=what) | Last(what=what)):
                found.append(what)
            case Skip(what=what):
                found.append(what)
            case Together():
                found.append(What("st"))
            case Repeat(steps=inner):
                found += _whats(inner)
            case _:
                pass
    return found


__all__ = ["EMPTY", "RowWork", "StepCount", "Trouble", "work_row", "work_setup"]
