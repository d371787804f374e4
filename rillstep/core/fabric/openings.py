"""The openings of a round as they are worked: places skipped under a chain, wherever the words tell how many those are.

A row that counts its stitches is read by its words alone, which is quicker; one with repeats, markers or "each" is
traced.
"""

from collections.abc import Iterator

from rillstep.core.fabric.hook import Turn
from rillstep.core.fabric.trace import MOST_TRACED
from rillstep.core.fabric.working import trace_row
from rillstep.core.tree import Chain, EachKind, Every, Group, Repeat, Row, Skip, SkipTo, Step, Work
from rillstep.core.tree.features import Opening

# A shorter chain within a repeat is a loop of a mesh; and more openings than this in one round are one.
LEAST_CHAIN = 8
MOST_OPENINGS = 4


def counts_its_stitches(steps: tuple[Step, ...]) -> bool:
    """Do the words of a row alone say after how many stitches each of its openings comes?"""
    return not any(
        isinstance(step, Repeat | Group | EachKind | SkipTo)
        or (isinstance(step, Work) and isinstance(step.into, Every))
        or (isinstance(step, Skip) and step.what.unworked)
        for step in steps
    )


def may_open(steps: tuple[Step, ...], size: int) -> bool:
    """Is there a chain long enough for an opening, and are stitches skipped?"""
    chain = any(isinstance(s, Chain) and s.length.at(size) >= LEAST_CHAIN for s in _every(steps))
    return chain and any(isinstance(s, Skip | SkipTo) for s in _every(steps))


def _every(steps: tuple[Step, ...]) -> Iterator[Step]:
    for step in steps:
        yield step
        if isinstance(step, Repeat):
            yield from _every(step.steps)


def worked_openings(turn: Turn, size: int) -> tuple[Opening, ...]:
    """The openings of a round by where its stitches went: () where it has more than a bag has, or is too long."""
    if turn.edge.foundation or turn.edge.count("st", "sp", "ch") > MOST_TRACED or not isinstance(turn.source, Row):
        return ()
    trace = trace_row(turn.source, size, turn.edge, turn.around)
    places = [at for at, one in enumerate(trace.below) if one.place.kind in ("st", "ch")]
    number = {at: n for n, at in enumerate(places)}
    found: list[Opening] = []
    last = -1  # the last place worked into
    chain = 0
    for stitch in trace.made:
        into = [number[at] for at in stitch.into if at in number]
        if not into:
            chain = stitch.place.length if stitch.place.kind == "sp" and not stitch.closed else chain
            continue
        skipped = min(into) - last - 1
        if chain >= LEAST_CHAIN and skipped > 0:
            found.append(Opening(last + 1, skipped, chain))
        last, chain = max(into), 0
    if chain >= LEAST_CHAIN and last + 1 < len(places):
        found.append(Opening(last + 1, len(places) - last - 1, chain))
    return tuple(found) if len(found) <= MOST_OPENINGS else ()
