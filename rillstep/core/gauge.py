"""Gauge: the width and height of one stitch, from a measured swatch.

Source: stitches and rows are counted over a measured width and height, in the state that
matters (blocked or not), in the stitch that the piece uses.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units
from rillstep.core.stitches import BY_US


@dataclass(frozen=True)
class Gauge:
    """The size of one stitch in mm. Both are positive.

    Chains are taken to be as wide as the stitch when no chain swatch exists (an estimate).
    """

    stitch: str
    width_mm: float
    height_mm: float

    def __post_init__(self) -> None:
        assert self.stitch in BY_US and self.width_mm > 0 and self.height_mm > 0

    @property
    def chain_mm(self) -> float:
        """Length of one chain in mm (estimated from the stitch width)."""
        return self.width_mm

    def per_span(self, units: Units) -> tuple[float, float]:
        """Stitches and rows over 10 cm or 4 in, rounded to 0.01 as they are printed."""
        span_mm = GAUGE_SPAN[units] * MM_PER[units]
        return round(span_mm / self.width_mm, 2), round(span_mm / self.height_mm, 2)

    def height_of_mm(self, stitch: str) -> float:
        """Row height of another stitch, estimated from this one by the usual ratio."""
        return self.height_mm * BY_US[stitch].height_ratio / BY_US[self.stitch].height_ratio


def gauge_of(gauges: Sequence[Gauge], stitch: str) -> tuple[Gauge, bool]:
    """The gauge of a plain stitch, and whether it is estimated from the first of the gauges, of which there is one."""
    own = next((gauge for gauge in gauges if gauge.stitch == stitch), None)
    first = gauges[0]
    return (own, False) if own is not None else (Gauge(stitch, first.width_mm, first.height_of_mm(stitch)), True)


def gauge_from_counts(stitch: str, stitches: float, rows: float, span_mm: float) -> Gauge:
    """Gauge from stitches and rows over a length in mm (10 cm, 4 in, or any other)."""
    return Gauge(stitch, span_mm / stitches, span_mm / rows)


def gauge_from_swatch(
    stitch: str, stitches: float, rows: float, width_mm: float, height_mm: float, units: Units
) -> Gauge:
    """Gauge from a swatch of `stitches` x `rows` that measures `width_mm` x `height_mm`.

    It is rounded once, to 0.01 stitch over 10 cm or 4 in: that is how it is printed, so a
    reader who starts from the printed gauge comes to exactly the same measures.
    """
    return rounded(Gauge(stitch, width_mm / stitches, height_mm / rows), units)


def rounded(gauge: Gauge, units: Units) -> Gauge:
    """The gauge as it is printed: rounded to 0.01 stitch over 10 cm or 4 in. Too small a gauge to be printed stays as
    it is."""
    across, up = gauge.per_span(units)
    span_mm = GAUGE_SPAN[units] * MM_PER[units]
    return gauge_from_counts(gauge.stitch, across, up, span_mm) if across and up else gauge
