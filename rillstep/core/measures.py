"""Measures of each piece by itself, from its worked rounds only, each with what it is made of.

A piece is measured by what it is: a disc by its diameter, an oval by length and depth, a wall by its width lying flat
and its height, a piece in rows by its width and height, a strap by its length and width. Each uses the gauge of the
stitch that it is mostly made of; without a swatch in that stitch, or where chain spaces stand among the stitches, the
measure is an estimate and says so. A piece that could not be worked has no measures.
"""

import math
import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.fabric import Counts, SizeWork
from rillstep.core.fabric.worked_lines import LineWork
from rillstep.core.gauge import Gauge, gauge_of
from rillstep.core.measure import straight_stitches
from rillstep.core.stitches import basic
from rillstep.core.tree import Again, Chain, Pattern, Row, Section, Setup
from rillstep.core.tree.features import main_stitch

_LONG = re.compile(r"\b(?:strap|handle|cord|tie|drawstring|strip|band|belt|loop|gusset|i-cord)s?\b", re.IGNORECASE)


@dataclass(frozen=True)
class Measure:
    """One measure of a piece: in mm for each size, None where the piece could not be worked in it.

    why: for each size the formula with its numbers. estimated: no gauge of this stitch, or chains among the stitches.
    """

    name: str
    piece: str
    label: str
    mm: tuple[float | None, ...]
    estimated: bool
    why: tuple[str, ...]


@dataclass(frozen=True)
class _PieceWork:
    """A piece in one size: the counts and the height of each round, in order, and what holds for all of them."""

    rounds: tuple[tuple[Counts, float], ...]
    gauge: Gauge
    estimated: bool
    lines: tuple[LineWork, ...]
    size: int

    @property
    def height_mm(self) -> float:
        return sum(height for _, height in self.rounds)

    def across_mm(self, counts: Counts) -> float:
        """The length of a round or row: its stitches and the chains of its spaces."""
        return counts.sts * self.gauge.width_mm + counts.chains * self.gauge.chain_mm


_Formula = tuple[str, str, float, str]  # name, label, mm, why


def measures_of(pattern: Pattern, works: Sequence[SizeWork]) -> tuple[Measure, ...]:
    """The measures of every piece, in the order of the text; none where there is no gauge."""
    if not pattern.gauges:
        return ()
    found: list[Measure] = []
    for index, section in enumerate(pattern.sections):
        worked = [_worked(pattern, index, work) for work in works]
        formulas = [_formulas(section, one) if one is not None else [] for one in worked]
        names = list(dict.fromkeys((name, label) for one in formulas for name, label, _, _ in one))
        estimated = any(one is not None and one.estimated for one in worked)
        for name, label in names:
            cells = [next(((mm, why) for n, _, mm, why in one if n == name), (None, "")) for one in formulas]
            mm, whys = tuple(mm for mm, _ in cells), tuple(why for _, why in cells)
            found.append(Measure(name, section.title, label, mm, estimated, whys))
    return tuple(found)


def _worked(pattern: Pattern, index: int, work: SizeWork) -> _PieceWork | None:
    """A piece as it was worked in one size; None where a line of it was not, or nothing is there."""
    lines = tuple(line for line in work.lines if line.section == index)
    rows = [line for line in lines if isinstance(line.line, Row | Again)]
    if any(line.trouble is not None or not line.known for line in rows):
        return None
    stitches = Counter(main_stitch(line.steps) for line in rows for _ in line.rounds)
    stitch = next((one for one, _ in stitches.most_common() if one is not None), None)
    gauge, estimated = _gauge(pattern, stitch)
    rounds = []
    for line in rows:
        own, guessed = _gauge(pattern, main_stitch(line.steps) or stitch)
        estimated = estimated or guessed or any(counts.chains for counts in line.rounds)
        rounds += [(counts, own.height_mm) for counts in line.rounds]
    if not rounds and not any(_chain_of(line, work.size) for line in lines):
        return None
    return _PieceWork(tuple(rounds), gauge, estimated, lines, work.size)


def _gauge(pattern: Pattern, stitch: str | None) -> tuple[Gauge, bool]:
    """The gauge of a stitch, and whether it is estimated from that of another one."""
    return gauge_of(pattern.gauges, basic(stitch).us if stitch is not None else pattern.gauges[0].stitch)


def _chain_of(line: LineWork, size: int) -> int:
    """The chains of a set-up line that makes nothing else."""
    if not isinstance(line.line, Setup):
        return 0
    return sum(step.length.at(size) for step in line.line.steps if isinstance(step, Chain))


def _formulas(section: Section, one: _PieceWork) -> list[_Formula]:
    """The measures of a piece in one size, by what it is."""
    if not one.rounds:
        chains = sum(_chain_of(line, one.size) for line in one.lines)
        return [("length", "Length", chains * one.gauge.chain_mm, f"{chains} chains x {one.gauge.chain_mm:.2f} mm")]
    if section.role == "disc":
        return [("diameter", "Diameter", 2 * one.height_mm, f"2 x {_sum_of_rounds(one)}")]
    if section.role == "oval":
        return _oval(one)
    if section.worked.startswith("rows"):
        return _flat(section, one)
    return _around(section, one)


def _sum_of_rounds(one: _PieceWork) -> str:
    heights = Counter(round(height, 2) for _, height in one.rounds)
    return " + ".join(f"{count} rounds x {height:.2f} mm" for height, count in heights.items())


def _stitches(one: _PieceWork, counts: Counts) -> str:
    chains = f" + {counts.chains} chains x {one.gauge.chain_mm:.2f} mm" if counts.chains else ""
    return f"{counts.sts} sts x {one.gauge.width_mm:.2f} mm{chains}"


def _oval(one: _PieceWork) -> list[_Formula]:
    """The straight middle and the rounds at both ends; across, the rounds on both sides."""
    straight = straight_stitches(list(one.lines), one.size)
    ends = f"2 x ({_sum_of_rounds(one)})"
    middle = straight * one.gauge.width_mm
    return [
        ("length", "Length", middle + 2 * one.height_mm, f"{straight} sts x {one.gauge.width_mm:.2f} mm + {ends}"),
        ("depth", "Depth", 2 * one.height_mm, ends),
    ]


def _flat(section: Section, one: _PieceWork) -> list[_Formula]:
    """A piece in rows: across its widest row, and up its rows. A strap is long where its rows are many."""
    widest, _ = max(one.rounds, key=lambda row: one.across_mm(row[0]))
    across, up = one.across_mm(widest), one.height_mm
    rows = _sum_of_rounds(one).replace("rounds", "rows")
    if section.role == "strip" or _LONG.search(section.title):
        pair = (across, _stitches(one, widest)), (up, rows)
        (width, why), (length, because) = sorted(pair)
        return [("length", "Length", length, because), ("width", "Width", width, why)]
    return [("width", "Width", across, _stitches(one, widest)), ("height", "Height", up, rows)]


def _around(section: Section, one: _PieceWork) -> list[_Formula]:
    """A piece in rounds, lying flat: half of its widest round, of its last and its first one, and up its rounds."""
    widest, _ = max(one.rounds, key=lambda row: one.across_mm(row[0]))
    first, last = one.rounds[0][0], one.rounds[-1][0]
    if section.role == "tube" or _LONG.search(section.title):
        around = one.across_mm(widest)
        return [
            ("length", "Length", one.height_mm, _sum_of_rounds(one)),
            ("around", "Around", around, _stitches(one, widest)),
            ("width", "Width", around / math.pi, f"({_stitches(one, widest)}) / pi"),
        ]
    return [
        ("width", "Width lying flat", one.across_mm(widest) / 2, f"({_stitches(one, widest)}) / 2"),
        ("mouth", "Mouth lying flat", one.across_mm(last) / 2, f"({_stitches(one, last)}) / 2"),
        ("foot", "Foot lying flat", one.across_mm(first) / 2, f"({_stitches(one, first)}) / 2"),
        ("height", "Height", one.height_mm, _sum_of_rounds(one)),
    ]
