"""Yarn: metres, grams and balls from the stitches that were worked, with an interval.

The yarn in a stitch is taken as ratio x (width + height), with the usual ratios between
stitches of `core.stitches`. They are uncertain, so without a weighed swatch the interval is
wide. A weighed swatch scales them all to the maker's own hand; what then remains is the
scale's last digit, drift of tension, and the ratios of stitches that the swatch did not have.
"""

import math
from collections import Counter
from dataclasses import dataclass

from rillstep.core.fabric import SizeWork
from rillstep.core.gauge import Gauge
from rillstep.core.stitches import BY_US, CHAIN_YARN_RATIO, basic
from rillstep.core.tree import Again, Gesture, Row, Section

# Standard deviations, as parts of the whole.
_SD_UNWEIGHED = 0.15
_SD_TENSION = 0.025
_SD_OTHER_STITCH = 0.08
_SCALE_G = 0.5  # a kitchen scale shows whole grams
_TWO_SIDED_90 = 1.645
_WASTE = 0.02
_TAIL_M = 0.15
LONGEST_M = 1_000_000.0


@dataclass(frozen=True)
class YarnFacts:
    """What the label says, for one strand; `strands` held together."""

    grams_per_ball: float
    metres_per_ball: float
    strands: int = 1


@dataclass(frozen=True)
class WeighedSwatch:
    """A swatch of plain rows in the gauge's stitch, with its weight in g (0 when not weighed)."""

    stitches: float
    rows: float
    weight_g: float = 0.0


@dataclass(frozen=True)
class Tally:
    """Stitches worked, by kind; chains and slip stitches apart."""

    stitches: tuple[tuple[str, int], ...]
    chains: int
    joins: int

    @property
    def total(self) -> int:
        return sum(count for _, count in self.stitches)


@dataclass(frozen=True)
class YarnNeed:
    """Metres of yarn (all strands) and grams with a 90 % interval; whole balls that cover its upper end."""

    metres: float
    grams: float
    low_g: float
    high_g: float
    balls: int
    weighed: bool


def tally(work: SizeWork, from_line: int = 0, to_line: int = 10**9, sections: tuple[Section, ...] = ()) -> Tally:
    """What is worked in the lines of a range of line numbers, in one size; `sections` say how many of each piece are
    made."""
    stitches: Counter[str] = Counter()
    chains = joins = 0
    for line in work.lines:
        if not from_line <= line.line.span.line <= to_line:
            continue
        made = sections[line.section].made(work.size) if sections else 1
        if not isinstance(line.line, Row | Again):
            chains += made * line.end.count("ch") if line.end.foundation else 0
            continue
        for counts in line.rounds:
            stitches.update({stitch: made * count for stitch, count in counts.stitches})
        if line.last is not None:
            chains += made * line.last.chains * len(line.rounds)
            joined = any(isinstance(step, Gesture) and step.kind == "join" for step in line.steps)
            joins += made * len(line.rounds) if joined else 0
    return Tally(tuple(sorted(stitches.items())), chains, joins)


def _modelled_mm(counted: Tally, gauge: Gauge) -> float:
    """Yarn length of the stitches in mm by the usual ratios."""
    total = counted.chains * CHAIN_YARN_RATIO * gauge.chain_mm
    total += counted.joins * BY_US["sl st"].yarn_ratio * gauge.width_mm
    for stitch, count in counted.stitches:
        size_mm = gauge.width_mm + gauge.height_of_mm(basic(stitch).us)
        total += count * basic(stitch).yarn_ratio * size_mm
    return total


def correction(gauge: Gauge, yarn: YarnFacts, swatch: WeighedSwatch) -> float | None:
    """How much more yarn this hand uses than the usual ratios say; None without a weight."""
    if swatch.weight_g <= 0:
        return None
    counted = Tally(((gauge.stitch, round(swatch.stitches * swatch.rows)),), 0, 0)
    metres = swatch.weight_g / yarn.grams_per_ball * yarn.metres_per_ball / yarn.strands
    return metres * 1000 / _modelled_mm(counted, gauge)


def need(counted: Tally, gauge: Gauge, yarn: YarnFacts, swatch: WeighedSwatch) -> YarnNeed:
    """Yarn for a tally of stitches. All of `yarn`'s numbers are positive."""
    factor = correction(gauge, yarn, swatch)
    length_m = min(_modelled_mm(counted, gauge) * (factor or 1.0) / 1000 * (1 + _WASTE), LONGEST_M)
    metres = length_m * yarn.strands
    balls_worked = math.ceil(metres / yarn.metres_per_ball)
    metres += 2 * _TAIL_M * (balls_worked + 1)
    grams = metres / yarn.metres_per_ball * yarn.grams_per_ball
    share = _share_of_others(counted, gauge.stitch)
    scale_sd = _SD_UNWEIGHED if factor is None else max(0.01, _SCALE_G / swatch.weight_g)
    sd = math.sqrt(scale_sd**2 + _SD_TENSION**2 + (_SD_OTHER_STITCH * share) ** 2)
    low, high = grams * math.exp(-_TWO_SIDED_90 * sd), grams * math.exp(_TWO_SIDED_90 * sd)
    balls = math.ceil(high / yarn.grams_per_ball - 1e-9)
    return YarnNeed(metres, grams, low, high, balls, factor is not None)


def _share_of_others(counted: Tally, stitch: str) -> float:
    """How much of the piece is not in the swatch's stitch."""
    whole = counted.total + counted.chains + counted.joins
    return 1 - dict(counted.stitches).get(stitch, 0) / whole if whole else 0.0
