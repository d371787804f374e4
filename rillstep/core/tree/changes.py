"""Trees changed as a whole: every place moved, and steps that do nothing taken out."""

from collections.abc import Callable
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import Any

from rillstep.core.craft import Loop
from rillstep.core.findings import Span
from rillstep.core.tree.actions import Chain, Group, Repeat, Skip, Step, Together, Work
from rillstep.core.tree.leaves import Next, Num
from rillstep.core.tree.nodes import Again, Line, Pattern, Row, Setup


def moved(node: Any, move: Callable[[Span], Span]) -> Any:
    """A node with every place in it moved."""
    if isinstance(node, Span):
        return move(node)
    if isinstance(node, tuple):
        return tuple([moved(item, move) for item in node])
    names = _fields_of(node.__class__)
    return replace(node, **{name: moved(getattr(node, name), move) for name in names}) if names else node


@cache
def _fields_of(kind: type) -> tuple[str, ...]:
    """The names of the fields of a kind of node, empty for a plain value: asked for each node of a tree."""
    return tuple(field.name for field in fields(kind)) if is_dataclass(kind) else ()


def in_gauge_of(pattern: Pattern, size: int) -> Pattern:
    """The pattern with the gauges of a size only; the same object where all are for every size. Where a size has its
    own, those of stitch patterns are of another yarn, and do not hold for it."""
    if not any(gauge.sizes for gauge in pattern.gauges):
        return pattern
    own = tuple(gauge for gauge in pattern.gauges if pattern.sizes[size] in gauge.sizes)
    common = tuple(gauge for gauge in pattern.gauges if not gauge.sizes)
    return replace(pattern, gauges=own or common or pattern.gauges, own_gauges=() if own else pattern.own_gauges)


def without_nothing(line: Line) -> Line:
    """The line without the steps that do nothing in any of its sizes; the same object where there is none:
    runs of 0 stitches, and repeats of 0 times."""
    if not isinstance(line, Row | Setup) or isinstance(line, Again):
        return line
    steps = _some(line.steps)
    return line if steps == line.steps else replace(line, steps=steps)


def _some(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    return tuple(
        replace(step, steps=_some(step.steps)) if isinstance(step, Repeat) else step
        for step in steps
        if not _is_nothing(step)
    )


def _is_nothing(step: Step) -> bool:
    match step:
        case Work(into=Next(count=count)) | Skip(count=count):
            return count.is_always(0)
        case Work(per=per):
            return per.is_always(0)
        case Chain(length=length):
            return length.is_always(0)
        case Repeat(steps=steps, times=Num() as times):
            return times.is_always(0) or not _some(steps)
        case Repeat(steps=steps):
            return not _some(steps)
        case _:
            return False


def in_loop(step: Step, loop: Loop) -> Step:
    """A step worked in some loops, where none are named in it."""
    match step:
        case Work(loop="both") | Together(loop="both"):
            return replace(step, loop=loop)
        case Repeat(steps=inner) | Group(steps=inner):
            return replace(step, steps=tuple([in_loop(one, loop) for one in inner]))
        case _:
            return step
