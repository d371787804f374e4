"""The stitches at both sides and in front and back centre of a bag, round by round.

A round does not start in the middle of a side, and where its start drifts (slip stitches, offset repeats, rounds that
are turned, a spiral that leans), the stitches at the sides move with the number of rounds. Each place has an interval
of the way around; a stitch takes over the interval of the places that it goes into, several stitches in one place share
it, and a chain reaches over what is skipped under it. So a side is followed up from the base.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import floor

from rillstep.core.craft import basic
from rillstep.core.fabric import LineWork
from rillstep.core.fabric.trace import TracedStitch
from rillstep.core.fabric.working import trace_row
from rillstep.core.measures.piece_rounds import PieceRounds, height_mm
from rillstep.core.measures.registry import BagMeasures
from rillstep.core.tree import Again, Row

# A spiral of single crochet leans by half a stitch a round; taller stitches lean less, by their height. A documented
# default, not a measurement.
LEAN = 0.5
# Rounds that are followed; nobody counts the sides of a longer wall.
MOST_ROUNDS = 400
_HAIR = 1e-6

Span = tuple[float, float]  # of the way around, in the direction of the base; the way around is 1


@dataclass(frozen=True)
class Sides:
    """Where the sides and centres are in one round, by its stitches from its start, the first is 1; 5.5 is between the
    fifth and the sixth. Chain spaces count as one.

    left: the side that is met first in the first round of the wall; front: the centre between it and the right one.
    correction: slip stitches from the start to the side that comes next. about: the lean of a spiral is in it.
    """

    section: str
    line: int
    number: int
    places: int
    left: float
    front: float
    right: float
    back: float
    correction: int
    about: bool


def sides_of(bag: BagMeasures, works: Sequence[LineWork], size: int) -> tuple[Sides, ...]:
    """The sides in every round of a wall in one size; none for a bag that is built otherwise, or could not be worked.

    works: all lines of that size. Raises ValueError where a round is too long to be followed.
    """
    if bag.body.build != "wall":
        return ()
    lowest = bag.pieces[size][bag.body.pieces[0]]
    base = bag.pieces[size][bag.body.base] if bag.body.base is not None else None
    first = [w for w in works if base is not None and w.section == base.index] if _is_oval(base) else []
    walls = [w for w in works if w.section in bag.body.pieces]
    lines = [w for w in (*first, *walls) if isinstance(w.line, Row | Again)]
    if lowest is None or any(line.trouble is not None or not line.known for line in lines):
        return ()
    found: list[Sides] = []
    side = 0.0
    lean = 0.0
    for at, (line, number, spans, traced) in enumerate(_followed(lines, size)):
        if at == 0 and _is_oval(base):
            side = _far_end(traced) / len(spans)
        elif at == 0 and base is not None and base.rounds[0].line.kind == "Row":
            side = _short_edge(base, len(spans))
        spiral = bag.pattern.sections[line.section].worked == "spiral rounds"
        lean += LEAN / basic(line.main_stitch or "sc").height_ratio if spiral else 0.0
        if line.section in bag.body.pieces:
            if not found and _at(spans, side) > _at(spans, side + 0.5):
                side += 0.5  # the side that is met first is called the left one, and stays it
            found.append(_sides(bag.pattern.sections[line.section].title, line, number, spans, side, lean))
    return tuple(found)


def _is_oval(base: PieceRounds | None) -> bool:
    return base is not None and base.section.role == "oval"


def _followed(
    lines: Sequence[LineWork], size: int
) -> Iterator[tuple[LineWork, int, list[Span], tuple[TracedStitch, ...]]]:
    """Each round with the spans of its places, in the order in which they are made."""
    spans: list[Span] = []
    forward, many = True, 0
    for line in lines:
        assert isinstance(line.line, Row | Again)
        for offset in range(max(0, line.line.rounds(size))):
            if not line.turns or many >= MOST_ROUNDS:
                return
            turn = line.turns[min(offset, len(line.turns) - 1)]
            trace = trace_row(turn.source, size, turn.edge, turn.around)
            made = tuple(stitch for stitch in trace.made if not stitch.closed)
            if not made:
                return
            if len(spans) != len(trace.below):  # what it is worked on is met for the first time
                spans = [(at / len(made), (at + 1) / len(made)) for at in range(len(made))]
            else:
                spans = _taken_over(spans, made, forward)
            many += 1
            yield line, line.line.first.at(size) + offset, spans, made
            if turn.turned:
                spans, forward = spans[::-1], not forward


def _taken_over(below: Sequence[Span], made: Sequence[TracedStitch], forward: bool) -> list[Span]:
    """The spans of stitches, by those of the places that they go into."""
    shared: dict[int, list[int]] = {}
    for index, stitch in enumerate(made):
        for at in stitch.into:
            shared.setdefault(at, []).append(index)
    found: list[Span | None] = []
    for index, stitch in enumerate(made):
        if not stitch.into:
            found.append(None)
            continue
        parts = [_part(below[at], shared[at].index(index), len(shared[at]), forward) for at in stitch.into]
        begin = parts[0][0]
        found.append((min(_near(a, begin) for a, _ in parts), max(_near(b, begin) for _, b in parts)))
    return _with_chains(found, forward)


def _part(span: Span, nth: int, many: int, forward: bool) -> Span:
    """The share of one of several stitches in a place, in the direction of the base."""
    nth = nth if forward else many - 1 - nth
    width = (span[1] - span[0]) / many
    return span[0] + nth * width, span[0] + (nth + 1) * width


def _near(value: float, other: float) -> float:
    """The same place on the way around, within half of it from another."""
    return value - round(value - other)


def _with_chains(found: Sequence[Span | None], forward: bool) -> list[Span]:
    """Chains reach from the stitch before them to the one after."""
    known = [i for i, span in enumerate(found) if span is not None]
    if not known:
        return [(i / len(found), (i + 1) / len(found)) for i in range(len(found))]
    whole: list[Span] = []
    for index, span in enumerate(found):
        if span is not None:
            whole.append(span)
            continue
        before = max((i for i in known if i < index), default=known[-1])
        after = min((i for i in known if i > index), default=known[0])
        one, other = found[before], found[after]
        assert one is not None and other is not None
        begin, end = (one[1], other[0]) if forward else (other[1], one[0])
        width = (end - begin) % 1.0 if len(known) > 1 else 1 - (one[1] - one[0])
        width = 0.0 if width > 1 - _HAIR else width
        many = (after - before - 1) % len(found)
        nth = (index - before - 1) % len(found)
        nth = nth if forward else many - 1 - nth
        whole.append((begin + nth * width / many, begin + (nth + 1) * width / many))
    return whole


def _far_end(made: Sequence[TracedStitch]) -> float:
    """Where the far end of an oval is in its first round: the middle of the stitches that share a chain."""
    runs: list[tuple[int, int]] = []
    for index, stitch in enumerate(made):
        if index and stitch.into and stitch.into == made[index - 1].into:
            runs[-1] = (runs[-1][0], index)
        else:
            runs.append((index, index))
    inner = [run for run in runs if run[0] > 0 and run[1] < len(made) - 1] or runs
    begin, end = max(inner, key=lambda run: run[1] - run[0])
    return (begin + end + 1) / 2


def _short_edge(base: PieceRounds, around: int) -> float:
    """Where the middle of the first short edge of a rectangle is, of the way around that begins along its last row."""
    last = base.rounds[-1]
    beside = around / 2 - last.counts.sts
    short = last.counts.sts + beside / 2 if height_mm(base.rounds) <= last.across_mm else last.counts.sts / 2
    return short / around


def _sides(title: str, line: LineWork, number: int, spans: Sequence[Span], side: float, lean: float) -> Sides:
    many = len(spans)
    first, front, second, back = (_leant(_at(spans, side + quarter / 4), lean, many) for quarter in range(4))
    correction = min(floor(first - 0.5 + _HAIR), floor(second - 0.5 + _HAIR))
    return Sides(title, line.line.span.line, number, many, first, front, second, back, correction, lean > 0)


def _at(spans: Sequence[Span], wanted: float) -> float:
    """The number of the place that a point of the way around lies in; between two numbers where it lies between."""
    best, number = 2.0, 0.5
    for index, (a, b) in enumerate(spans):
        inside = (wanted - a) % 1.0
        width = b - a
        if _HAIR < inside < width - _HAIR:
            return index + 1.0
        for edge, value in ((a, index), (b, index)):
            apart = abs(_near(wanted, edge) - edge)
            if apart < best - _HAIR:
                best, number = apart, _beside(spans, value, edge == a)
    return number


def _beside(spans: Sequence[Span], index: int, begins: bool) -> float:
    """The number between a place and its neighbour on one side, in the order of the round."""
    many = len(spans)
    centre = (spans[index][0] + spans[index][1]) / 2
    following = (spans[(index + 1) % many][0] + spans[(index + 1) % many][1]) / 2
    ascending = _near(following, centre) >= centre
    return (index + 0.5) % many if begins == ascending else (index + 1.5) % many


def _leant(at: float, lean: float, many: int) -> float:
    """A place after the lean of a spiral, to half a stitch."""
    moved = round(2 * (at + lean)) / 2
    return (moved - 0.5) % many + 0.5
