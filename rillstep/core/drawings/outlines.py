"""What a drawing is made of: outlines in mm, each with the line of the text that it comes from.

x goes to the right from the middle, y up from the ground.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

Point = tuple[float, float]
Kind = Literal["work", "square", "fold", "handle", "strap", "body", "flap", "edge"]
# What is fabric of the body, or of a piece.
FABRIC = ("work", "square")

# Curves are drawn through so many points.
_CURVE = 24
_CIRCLE = 48


@dataclass(frozen=True)
class Outline:
    """Points of an outline. closed: it is an area, else a line. line: of the text, 0 where it comes from none. label:
    its round or row. sts: its stitches, None where it has none."""

    kind: Kind
    points: tuple[Point, ...]
    closed: bool = True
    line: int = 0
    label: str = ""
    sts: int | None = None


@dataclass(frozen=True)
class Length:
    """A length that is written beside a drawing: from one point to another, and the names that its measure may have."""

    begin: Point
    end: Point
    measures: tuple[str, ...]

    @property
    def mm(self) -> float:
        """How long it is drawn."""
        return math.dist(self.begin, self.end)


@dataclass(frozen=True)
class Drawing:
    """One view of a bag in one size, or of a piece of it.

    view: "bag" as it lies, "base" from above, "piece" laid out flat, "strap" on a body. title: the piece, or the view.
    many: how many of the piece are made. notes: what is left out.
    """

    view: Literal["bag", "base", "piece", "strap"]
    title: str
    outlines: tuple[Outline, ...]
    spans: tuple[Length, ...] = ()
    many: int = 1
    notes: tuple[str, ...] = ()

    @property
    def box(self) -> tuple[float, float, float, float]:
        """Least x, least y, most x, most y."""
        xs = [x for one in self.outlines for x, _ in one.points]
        ys = [y for one in self.outlines for _, y in one.points]
        return min(xs), min(ys), max(xs), max(ys)


def rectangle(left: float, low: float, width: float, height: float) -> tuple[Point, ...]:
    """The corners of a rectangle."""
    return ((left, low), (left + width, low), (left + width, low + height), (left, low + height))


def stadium(straight: float, radius: float, up: float) -> tuple[Point, ...]:
    """A circle that is drawn apart by a straight side, around a point at that height."""
    half = _CIRCLE // 2
    right = [
        (straight / 2 + radius * math.sin(math.pi * at / half), up + radius * math.cos(math.pi * at / half))
        for at in range(half + 1)
    ]
    return (*right, *((-x, 2 * up - y) for x, y in right))


def half_round(radius: float, inner: float) -> tuple[Point, ...]:
    """The upper half of a ring."""
    angles = [math.pi * at / _CURVE for at in range(_CURVE + 1)]
    out = [(radius * math.cos(angle), radius * math.sin(angle)) for angle in angles]
    return (*out, *((inner * math.cos(angle), inner * math.sin(angle)) for angle in reversed(angles)))


def hanging(left: float, right: float, foot: float, rise: float) -> tuple[Point, ...]:
    """A line that goes up from one foot and down to another, so high at its middle: a parabola."""
    middle, half = (left + right) / 2, (right - left) / 2
    return tuple(
        (middle + half * at / (_CURVE / 2), foot + rise * (1 - (at / (_CURVE / 2)) ** 2))
        for at in range(-_CURVE // 2, _CURVE // 2 + 1)
    )


def shifted(points: Sequence[Point], right: float, up: float) -> tuple[Point, ...]:
    """The same, moved."""
    return tuple((x + right, y + up) for x, y in points)


def silhouette(drawing: Drawing) -> tuple[Point, ...]:
    """What a drawing fills, as one outline: up the left ends of its rounds and down the right ones; of rings the
    outermost. Empty where it fills nothing."""
    work = [one for one in drawing.outlines if one.closed and one.kind in (*FABRIC, "strap")]
    if not work:
        return ()
    if len(work[0].points) > 4:
        return work[0].points
    ends: dict[tuple[float, float], tuple[float, float]] = {}
    for one in work:
        ys, xs = [y for _, y in one.points], [x for x, _ in one.points]
        level = (min(ys), max(ys))
        left, right = ends.get(level, (min(xs), max(xs)))
        ends[level] = (min(left, *xs), max(right, *xs))
    levels = sorted(ends.items())
    up = [(left, y) for level, (left, _) in levels for y in level]
    down = [(right, y) for level, (_, right) in reversed(levels) for y in reversed(level)]
    return (*up, *down)
