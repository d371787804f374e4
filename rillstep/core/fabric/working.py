"""One row worked on another, in one size.

Source of the reading rules: docs/notation.md, "Reading rules". A row that cannot be worked
to its end stops at its first trouble; the caller decides how to go on.
"""

from dataclasses import dataclass, field, replace

from rillstep.core.fabric.cursor import Cursor
from rillstep.core.fabric.edge import Counts, Edge, Place, Run, edge_of, last_first, stitches_edge
from rillstep.core.fabric.hook import FreeLoops, Hook, Stop, Surroundings, Trouble, places_word
from rillstep.core.fabric.hook_moves import move_along
from rillstep.core.fabric.step_work import do_all, step_of
from rillstep.core.fabric.trace import Recorder, TracedPlace, TracedStitch
from rillstep.core.findings import Span
from rillstep.core.tree import (
    Chain,
    Evenly,
    FromHook,
    Gesture,
    Group,
    Next,
    Num,
    Repeat,
    Row,
    Same,
    Setup,
    Skip,
    Step,
    TopOfChain,
    What,
    Work,
)


@dataclass(frozen=True)
class StepCount:
    """What one step took and made: the arithmetic behind a total."""

    span: Span
    took: int
    made: int


@dataclass(frozen=True)
class RowWork:
    """A row that was worked: what it offers now, and what went wrong or is worth a warning.

    says: what is now known of starting chains. pending: a turning chain made at its end.
    underside: places along the foundation chain that it was worked on. free: loops left free of
    the row before. rest: what it leaves unworked, None where it is not about that. row: what was worked, at whose
    places in the text the steps stand.
    """

    edge: Edge
    steps: tuple[StepCount, ...]
    slip_stitches: int
    chains: int
    trouble: Trouble | None = None
    warnings: tuple[Trouble, ...] = ()
    says: tuple[tuple[int, str], ...] = ()
    pending: Chain | None = None
    free: FreeLoops | None = None
    used_loops: tuple[tuple[str, int, str, int], ...] = ()
    underside: int = 0
    spent: int = 0
    rest: tuple[Run, ...] | None = None
    row: Row | None = field(default=None, compare=False, repr=False)

    @property
    def counts(self) -> Counts:
        return self.edge.counts()


def work_setup(setup: Setup, size: int) -> Edge | None:
    """What a set-up line gives to start from; None when it starts nothing (fasten off)."""
    edging = setup.steps[0] if setup.steps else None
    if isinstance(edging, Evenly):
        return replace(stitches_edge(edging.stitch, edging.count.at(size), closed=True), assumed=True)
    length = sum(step.length.at(size) for step in setup.steps if isinstance(step, Chain))
    kinds = {step.kind for step in setup.steps if isinstance(step, Gesture)}
    if "adjustable ring" in kinds:
        return Edge((Run(Place("ring"), 1),), closed=True)
    if length > 0:
        return Edge((Run(Place("ch"), length),), bool(kinds & {"join into ring", "join"}), foundation=True)
    return None


@dataclass(frozen=True)
class Trace:
    """A row with each of its stitches above the places that it went into, and the work of it.

    ahead: the index of the place that the hook would go into next, when the row came to a stop.
    steps: all steps of the row; those before `first_step` only move the hook, and have no count in `work.steps`.
    """

    below: tuple[TracedPlace, ...]
    made: tuple[TracedStitch, ...]
    work: RowWork
    ahead: int | None
    steps: tuple[Step, ...]
    first_step: int


def trace_row(row: Row, size: int, edge: Edge, around: Surroundings) -> Trace:
    """Work one round of `row` and note where every stitch goes. Raises ValueError when the edge is too long for
    that."""
    recorder = Recorder()
    work = work_row(row, size, edge, around, recorder)
    here = recorder.rest[-1].place.at if recorder.rest else None
    ahead = here if work.trouble is not None else None
    return Trace(recorder.places(), tuple(recorder.made), work, ahead, recorder.steps, recorder.first)


def work_row(
    row: Row, size: int, edge: Edge, around: Surroundings | None = None, recorder: Recorder | None = None
) -> RowWork:
    """Work one round of `row` on `edge` in a size; a recorder is told of every stitch."""
    around = around or Surroundings()
    there = _worked_back(row) if "turn" in row.gestures else 0
    if there:
        first = work_row(replace(row, steps=row.steps[:there]), size, edge, around)
        if first.trouble is not None:
            return first
        back = replace(row, steps=row.steps[there:], kind="Row")
        # A slip stitch that fastened the chain is no place to work into.
        made = replace(first.edge, runs=tuple(run for run in first.edge.runs if run.place.stitch != "sl st"))
        second = work_row(back, size, made, replace(around, pending=None), recorder)
        counts_ = (*first.steps, *second.steps)
        return replace(
            second,
            steps=counts_,
            slip_stitches=first.slip_stitches + second.slip_stitches,
            chains=first.chains + second.chains,
        )
    steps, pending = _without_turning_chain(_turned_first(_without_last_chain(row.steps)), around.rows)
    if len(steps) > 1 and isinstance(steps[0], Gesture) and steps[0].kind == "turn":
        edge, steps = edge.turned(), steps[1:]
    made_chain = _only_a_foundation(edge, steps, size)
    if made_chain is not None:
        return RowWork(made_chain, (), 0, made_chain.count("ch"))
    edge, steps = _inline_foundation(edge, steps, size)
    if around.pending is not None and not (steps and isinstance(steps[0], Chain)):
        steps = (around.pending, *steps)
    if recorder is not None:
        edge = replace(edge, runs=recorder.numbered(edge.runs))
    hook = Hook(size, Cursor(edge), edge, around, dict(around.says), do_all, sides=list(around.sides), trace=recorder)
    hook.moving = any(isinstance(step, Gesture) and step.kind == "move marker" for step in steps)
    hook.spares_chain = any(isinstance(getattr(step, "into", None), TopOfChain) for step in steps)
    counts: list[StepCount] = []
    trouble: Trouble | None = None
    try:
        before_moves = _before_moves(steps)
        moves = before_moves + _leading_moves(steps[before_moves:])
        if recorder is not None:
            recorder.steps, recorder.first = steps, moves
        for index in range(before_moves):
            step_of(hook, steps[index], None)
        hook.started = False
        move_along(hook, steps[before_moves:moves])
        for index in range(moves, len(steps)):
            step = steps[index]
            before, had = hook.cursor.taken, hook.made_count
            if recorder is not None:
                recorder.step = index
            step_of(hook, step, steps[index + 1] if index + 1 < len(steps) else None)
            counts.append(StepCount(step.span, hook.cursor.taken - before, hook.made_count - had))
            if isinstance(step, Gesture) and step.kind == "so far":
                trouble = trouble or _part_differs(step, [count.made for count in counts], size)
        left = 0 if hook.unworked or _only_a_part(row, hook) else hook.cursor.left()
        if left and hook.closed and left == _spanned(steps, size):
            left = 0  # the last loop of a mesh reaches over them, to where the round is joined
        corners = hook.on_side and left <= 2 and not any(run.place.kind == "end" for run in around.sides)
        if left and trouble is None and not (hook.spread_out and hook.on_side) and not corners:
            message = f"{left} {places_word(hook.cursor.kinds, left)} left over at the end"
            trouble = Trouble("left-over", row.span, message, left=left)
        trouble = trouble or hook.absent
    except Stop as stop:
        trouble = stop.trouble if stop.trouble.span.line else replace(stop.trouble, span=row.span)
    if recorder is not None and (trouble is not None or hook.unworked):
        recorder.rest = tuple(hook.cursor.rest)  # else what lace leaves at its end was passed over
    if hook.begins_last:
        hook.made = last_first(hook.made)
    made = edge_of(hook.made, hook.closed or row.kind == "Rnd")
    free = FreeLoops(tuple(hook.freed_front), tuple(hook.freed_back))
    return RowWork(
        made.turned() if hook.turned else made,
        tuple(counts),
        hook.slip_stitches,
        hook.chains,
        trouble,
        tuple(hook.warnings),
        tuple(sorted(hook.says.items())),
        pending,
        free if hook.freed_front or hook.freed_back else None,
        tuple(hook.used_loops),
        hook.cursor.worked_chains if edge.foundation or not edge.runs else 0,
        hook.steps,
        tuple(reversed(hook.cursor.rest)) if _leaves(row, hook) and trouble is None else None,
        row,
    )


def _worked_back(row: Row) -> int:
    """Steps up to a turn after which stitches are worked over what was made: a strap chained across and worked back;
    0 for none."""
    for at, step in enumerate(row.steps):
        if isinstance(step, Gesture) and step.kind == "turn":
            worked = any(not isinstance(one, Gesture | Chain) for one in row.steps[:at])
            return at + 1 if worked and any(not isinstance(one, Gesture | Chain) for one in row.steps[at + 1 :]) else 0
    return 0


def _spanned(steps: tuple[Step, ...], size: int) -> int:
    """Stitches that the last loop of a mesh passes over, as the others do; 0 where a row ends with no such loop."""
    works = [step for step in steps if not isinstance(step, Gesture)]
    last = works[-1] if works else None
    if not isinstance(last, Repeat) or not isinstance(last.times, Num) or not isinstance(last.steps[-1], Chain):
        return 0
    skips = [step.count.at(size) for step in last.steps if isinstance(step, Skip) and step.what.kind == "st"]
    return skips[0] if len(skips) == 1 else 0


def _part_differs(step: Gesture, made: list[int], size: int) -> Trouble | None:
    """A count in the middle of a row that is neither what there is so far nor what the last steps made."""
    assert isinstance(step.into, Next)
    said = step.into.count.at(size)
    sums = [sum(made[at:]) for at in range(len(made))]
    if said in sums:
        return None
    now = min(sums, key=lambda count: abs(count - said))
    return Trouble(
        "part-differs", step.span, f"{said} are counted here; there are {now}", max(0, said - now), max(0, now - said)
    )


def _only_a_part(row: Row, hook: Hook) -> bool:
    """A row that is turned in the middle of a round (a flap, a strap from the rim) leaves the rest of the round as it
    is."""
    joins = any(isinstance(step, Gesture) and step.kind == "join" for step in row.steps)
    part = hook.edge.closed or hook.joined_within
    return row.kind == "Row" and hook.turned and part and not hook.edge.foundation and not joins


def _leaves(row: Row, hook: Hook) -> bool:
    """Does a row leave stitches for later, or take up what was left?"""
    left = hook.unworked or _only_a_part(row, hook)
    return hook.on_rest or (left and any(not run.place.optional for run in hook.cursor.rest))


def _turned_first(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "Ch 2, turn, hdc in each st": the chain that is made before the turn stands at the beginning of the row that
    is turned to."""
    if (
        len(steps) < 3
        or not isinstance(steps[0], Chain)
        or not (isinstance(steps[1], Gesture) and steps[1].kind == "turn")
    ):
        return steps
    return (steps[1], steps[0], *steps[2:])


def _without_turning_chain(steps: tuple[Step, ...], rows: bool) -> tuple[tuple[Step, ...], Chain | None]:
    """The steps without a chain that stands just before the turn: it belongs to the next row."""
    last = len(steps)
    turns = False
    while last and isinstance(steps[last - 1], Gesture):
        turns = turns or steps[last - 1].kind in ("turn", "do not turn")  # type: ignore[union-attr]
        last -= 1
    chain = steps[last - 1] if last else None
    if last > 1 and turns and isinstance(chain, Chain) and rows:
        return (*steps[: last - 1], *steps[last:]), chain
    return steps, None


def _without_last_chain(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """The steps without the chain that only secures the yarn before it is fastened off: it is no place, and never
    counts."""
    for at in range(len(steps) - 1, 0, -1):
        step = steps[at]
        if isinstance(step, Gesture) and step.kind == "fasten off":
            last = steps[at - 1]
            if isinstance(last, Chain) and last.length.is_always(1) and at > 1:
                return (*steps[: at - 1], *steps[at:])
            return steps
        if not isinstance(step, Gesture):
            return steps
    return steps


def _only_a_foundation(edge: Edge, steps: tuple[Step, ...], size: int) -> Edge | None:
    """ "Row 1: Ch 21." and "Foundation rnd: Ch 72, join.": a row that makes the chain and works nothing into it."""
    if edge.runs or not steps or not all(isinstance(step, Chain | Gesture) for step in steps):
        return None
    made = work_setup(Setup(steps, ()), size)
    return made if made is not None and made.foundation else None


def _inline_foundation(edge: Edge, steps: tuple[Step, ...], size: int) -> tuple[Edge, tuple[Step, ...]]:
    """A first row that makes its own foundation: "Ch 21, sc in 2nd ch from hook, ...", "Ch 4, join into a ring,
    ..."."""
    told = 0
    while told < len(steps) and isinstance(step := steps[told], Gesture) and step.kind in _TELLS:
        told += 1
    if edge.runs or told == len(steps):
        return edge, steps
    before, first = steps[:told], steps[told]
    if isinstance(first, Gesture) and first.kind == "adjustable ring":
        return Edge((Run(Place("ring"), 1),), closed=True), (*before, *steps[told + 1 :])
    if not isinstance(first, Chain) or len(steps) < told + 2:
        return edge, steps
    second = steps[told + 1]
    chain = Edge((Run(Place("ch"), max(1, first.length.at(size))),), foundation=True)
    if isinstance(second, Gesture) and second.kind in ("join into ring", "join"):
        return replace(chain, closed=True), (*before, *steps[told + 2 :])
    if isinstance(second, Work | Group) and isinstance(second.into, FromHook):
        return chain, (*before, *steps[told + 1 :])
    return edge, steps


# Gestures that may stand before a foundation.
_TELLS = ("change colour", "join colour", "aside")


def _before_moves(steps: tuple[Step, ...]) -> int:
    """Steps before slip stitches that only move the hook: "ch 1, turn, sl st in next 4 sts, ch 1, ..."; 0 where there
    are none such."""
    at = 0
    while at < len(steps) and (isinstance(steps[at], Gesture) or _is_chain_one(steps[at])):
        at += 1
    begun = any(isinstance(step, Chain) or (isinstance(step, Gesture) and step.kind == "turn") for step in steps[:at])
    if not begun or not _leading_moves(steps[at:]):
        return 0
    return at


def _is_chain_one(step: Step) -> bool:
    return isinstance(step, Chain) and step.counts in (None, "none") and step.length.is_always(1)


def _leading_moves(steps: tuple[Step, ...]) -> int:
    """How many slip stitches at the start only move the hook: those before a chain, or before work in the same
    place."""
    count = 0
    while count < len(steps):
        step = steps[count]
        if not (isinstance(step, Work) and step.stitch == "sl st" and not isinstance(step.into, Same | FromHook)):
            break
        count += 1
    following = steps[count] if count < len(steps) else None
    into = getattr(following, "into", None)
    chains = all(getattr(getattr(s, "into", None), "what", None) == What("ch") for s in steps[:count])
    leaves = any(isinstance(step, Gesture) and step.kind == "leave rest unworked" for step in steps[count:])
    return count if isinstance(following, Chain) or isinstance(into, Same) or chains or leaves else 0
