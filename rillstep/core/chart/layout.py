"""Laying out traced rows: each stitch as near as can be to the places that it stands on, and none on another.

Rows, and rounds that are long, are drawn as a strip; rounds that begin in a ring, around it. In a
strip the positions of a row are those with the least squared distance from where its stitches
would like to be, kept in order and apart (isotonic regression by pooling adjacent violators;
Barlow, Bartholomew, Bremner and Brunk, "Statistical inference under order restrictions", 1972).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import accumulate, pairwise

from rillstep.core.chart.symbols import symbol_of
from rillstep.core.craft import Loop, basic
from rillstep.core.fabric import Trace, TracedStitch
from rillstep.core.fabric.edge import Place

Point = tuple[float, float]
# A chain lies flat between its neighbours, and needs less room than a stitch.
_CHAIN = 0.55
# Ovals of a long chain would only be noise: it is one arc with its number.
MOST_OVALS = 9


@dataclass(frozen=True)
class Mark:
    """One stitch, or one run of chains: its foot or feet, and its top. Right and up are positive.

    row: which of the rows drawn it belongs to, -1 for the work below them.
    """

    stitch: str
    top: Point
    feet: tuple[Point, ...]
    row: int
    chains: int = 0
    loop: Loop = "both"
    closed: bool = False
    stands: int = 0  # chains that stand for this stitch at the start of a row


@dataclass(frozen=True)
class Chart:
    """Marks in the order of work. around: is it drawn around a ring? cut: stitches of the last row that are not
    drawn."""

    marks: tuple[Mark, ...]
    labels: tuple[tuple[str, Point], ...]
    around: bool
    cut: int = 0


@dataclass(frozen=True)
class Drawn:
    """A row to draw. turned: the row above it is worked back in the other direction."""

    label: str
    trace: Trace
    turned: bool = False


def spread(wanted: Sequence[float], apart: Sequence[float]) -> list[float]:
    """Positions in order, each at least `apart` from the one before, with the least squared distance from those wanted.

    apart: one less than `wanted`. Raises ValueError when it is not.
    """
    if len(apart) != max(0, len(wanted) - 1):
        raise ValueError("one distance is needed between each two positions")
    offsets = list(accumulate(apart, initial=0.0)) if wanted else []
    blocks: list[tuple[float, int]] = []  # (mean, how many)
    for want, offset in zip(wanted, offsets, strict=True):
        mean, count = want - offset, 1
        while blocks and blocks[-1][0] > mean:
            before, many = blocks.pop()
            mean, count = (before * many + mean * count) / (many + count), many + count
        blocks.append((mean, count))
    means = [mean for mean, count in blocks for _ in range(count)]
    return [mean + offset for mean, offset in zip(means, offsets, strict=True)]


def width_of(place: Place) -> float:
    """Room that a stitch or a chain space takes along its row."""
    return 1.0 if place.kind != "sp" else max(0.8, min(place.length, MOST_OVALS) * _CHAIN)


def chart_of(rows: Sequence[Drawn], around: bool, most: int = 40) -> Chart:
    """The chart of some rows, each worked on the one before.

    around: they begin in a ring. most: stitches of a row that are drawn in a strip.
    """
    if not rows:
        return Chart((), (), around)
    return _around(rows) if around else _strip(rows, most)


def positions(trace: Trace) -> tuple[list[float], list[float]]:
    """Where the places of a traced row and its new stitches are drawn, unrolled: each stitch above what it went
    into."""
    below = _evenly([width_of(p.place) for p in trace.below], _stretch(trace))
    gaps = _gaps([width_of(s.place) for s in trace.made])
    made = spread(_wanted([[below[i] for i in s.into] for s in trace.made], 0.0), gaps)
    first = min([*below, *made], default=0.0)
    return [round(x - first, 3) for x in below], [round(x - first, 3) for x in made]


# --- a strip -----------------------------------------------------------------------


def _strip(rows: Sequence[Drawn], most: int) -> Chart:
    below = [p.place for p in rows[0].trace.below][: most + 1]
    at = _evenly([width_of(p) for p in below], max(_stretch(row.trace) for row in rows))
    marks = [_below(place, x) for place, x in zip(below, at, strict=True)]
    labels: list[tuple[str, Point]] = []
    floor, cut, way = 0.0, 0, 1.0
    for number, row in enumerate(rows):
        trace, reached = row.trace, len(at)
        made: list[TracedStitch] = []
        for stitch in trace.made:  # as far as the work below is drawn
            if any(i >= reached for i in stitch.into) or len(made) >= 2 * most:
                break
            made.append(stitch)
        cut = len(trace.made) - len(made)
        wanted = _wanted([[way * at[i] for i in s.into] for s in made], way * at[0] if at else 0.0)
        xs = [way * x for x in spread(wanted, _gaps([width_of(s.place) for s in made]))]
        top = floor + _row_height(made)
        ends = [way * x for x in (*xs, *at)] or [0.0]
        labels.append((row.label, (way * (min(ends) - 1.6), (floor + top) / 2)))
        for stitch, x in zip(made, xs, strict=True):
            feet = tuple((at[i], floor) for i in stitch.into) or ((x, floor),)
            marks.append(_mark(stitch, (x, top), feet, number))
        at, floor = [x for x, s in zip(xs, made, strict=True) if not s.closed], top
        if row.turned:
            at, way = at[::-1], -way
            if cut and row is not rows[-1]:  # the row above begins where this one is cut off
                return _strip(rows[-1:], most)
    return Chart(tuple(marks), tuple(labels), False, cut)


def _stretch(trace: Trace) -> float:
    """How much wider than the work below a row is drawn: where it increases, all is given the room."""
    below = sum(width_of(p.place) for p in trace.below)
    return max(1.0, sum(width_of(s.place) for s in trace.made) / (below or 1.0))


def _evenly(widths: Sequence[float], stretch: float) -> list[float]:
    starts = accumulate(widths, initial=0.0)
    return [stretch * (start + width / 2) for start, width in zip(starts, widths, strict=False)]


def _gaps(widths: Sequence[float]) -> list[float]:
    return [(a + b) / 2 for a, b in pairwise(widths)]


def _wanted(feet: Sequence[Sequence[float]], start: float) -> list[float]:
    """Where each stitch would like to stand: over its feet; a chain between its neighbours."""
    found: list[float | None] = [sum(f) / len(f) if f else None for f in feet]
    wanted: list[float] = []
    for index, here in enumerate(found):
        if here is None:
            before = wanted[-1] if wanted else start
            after = next((x for x in found[index:] if x is not None), before)
            here = (before + after) / 2
        wanted.append(here)
    return wanted


def _row_height(made: Sequence[TracedStitch]) -> float:
    return max((symbol_of(s.place.stitch or "ch").height for s in made), default=0.5) + 0.35


def _below(place: Place, x: float) -> Mark:
    stitch = {"st": place.stitch, "end": "sl st"}.get(place.kind, "ch")
    height = symbol_of(stitch).height
    chains = place.length if place.kind == "sp" else int(place.kind == "ch")
    return Mark(stitch, (x, 0.0), ((x, -height),), -1, chains)


def _mark(stitch: TracedStitch, top: Point, feet: tuple[Point, ...], row: int) -> Mark:
    place = stitch.place
    chains = place.length if place.kind == "sp" else 0
    stands = basic(place.stitch).turning_chain if place.chain else 0
    name, loop = place.stitch or "ch", stitch.loop
    return Mark(name, top, feet, row, chains, loop, stitch.closed, stands)  # type: ignore[arg-type]


# --- around a ring -----------------------------------------------------------------


def _around(rows: Sequence[Drawn]) -> Chart:
    marks: list[Mark] = []
    labels: list[tuple[str, Point]] = []
    radius = 0.6
    angles = [0.0] * max(1, len(rows[0].trace.below))
    feet_at = 0.35
    for number, row in enumerate(rows):
        made = row.trace.made
        widths = [width_of(s.place) for s in made]
        radius = max(radius + _row_height(made), sum(widths) / (2 * math.pi))
        turns = _turns(made, widths, angles if number else [])
        for stitch, turn in zip(made, turns, strict=True):
            feet = tuple(_on_circle(angles[i] if number else turn, feet_at) for i in stitch.into if i < len(angles))
            marks.append(_mark(stitch, _on_circle(turn, radius), feet or (_on_circle(turn, feet_at + 0.2),), number))
        if turns:
            gap = math.pi * widths[0] / max(1.0, sum(widths))
            labels.append((row.label, _on_circle(turns[0] - gap, (radius + feet_at) / 2)))
        angles = [turn for turn, s in zip(turns, made, strict=True) if not s.closed]
        feet_at = radius
    return Chart(tuple(marks), tuple(labels), True)


def _turns(made: Sequence[TracedStitch], widths: Sequence[float], below: Sequence[float]) -> list[float]:
    """The angle of each stitch of a round: evenly by width, turned so that all stand as near over their feet as they
    can."""
    whole = sum(widths) or 1.0
    starts = list(accumulate(widths, initial=0.0))
    own = [2 * math.pi * (start + width / 2) / whole for start, width in zip(starts, widths, strict=False)]
    off = [
        sum(below[i] for i in s.into) / len(s.into) - turn
        for s, turn in zip(made, own, strict=True)
        if s.into and all(i < len(below) for i in s.into)
    ]
    shift = math.atan2(sum(map(math.sin, off)), sum(map(math.cos, off))) if off else 0.0
    return [turn + shift for turn in own]


def _on_circle(turn: float, radius: float) -> Point:
    """Rounds are drawn counter-clockwise from below, as they grow under a right hand."""
    return (radius * math.sin(turn), -radius * math.cos(turn))
