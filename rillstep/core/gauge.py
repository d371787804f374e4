"""Gauge: the width and height of one stitch, from a measured swatch.

Source: stitches and rows are counted over a measured width and height, in the state that
matters (blocked or not), in the stitch that the piece uses.
"""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.craft import BY_US
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units


@dataclass(frozen=True)
class Gauge:
    """The size of one stitch in mm. Both are positive.

    Chains that are worked over are as wide as its stitches. hook: in mm, where the gauge names it. sizes: the names of
    the sizes that it is for, where it is not for all.
    """

    stitch: str
    width_mm: float
    height_mm: float
    hook: str = ""
    sizes: tuple[str, ...] = ()

    def __post_init__(self) -> None:
        assert self.stitch in BY_US and self.width_mm > 0 and self.height_mm > 0

    @property
    def chain_mm(self) -> float:
        """Length in mm of one chain of a handle that is worked over."""
        return self.width_mm

    @property
    def flat_increases(self) -> float:
        """How many increases a round keep a disc flat: 2 pi h / w, as a round adds its height to the radius."""
        return 2 * math.pi * self.height_mm / self.width_mm

    def per_span(self, units: Units) -> tuple[float, float]:
        """Stitches and rows over 10 cm or 4 in, rounded to 0.01 as they are printed."""
        span_mm = GAUGE_SPAN[units] * MM_PER[units]
        return round(span_mm / self.width_mm, 2), round(span_mm / self.height_mm, 2)

    def height_of_mm(self, stitch: str) -> float:
        """Row height of another stitch, estimated from this one by the usual ratio."""
        return self.height_mm * BY_US[stitch].height_ratio / BY_US[self.stitch].height_ratio


# The hook as words say it ("4.5 mm", "US H/8, 5 mm").
HOOK_MM = re.compile(r"((?<!\d)\d{1,3}(?:[.,]\d{1,3})?)\s*mm\b")


def hook_in(words: str) -> float | None:
    """The hook that words name, in mm; None where they name none in mm."""
    found = HOOK_MM.search(words)
    return float(found[1].replace(",", ".")) if found else None


# A chain that hangs free is narrower than a stitch of the fabric; used where no chain was measured.
CHAIN_RATIO = 0.9

Build = Literal["mesh", "post", "loop", "chain", "named"]
_BUILDS: tuple[tuple[Build, str], ...] = (
    ("chain", r"^(?:ch|chs|chain|chains)$"),
    ("mesh", r"\b(?:mesh|net|netting|loops?|lace|filet)\b"),
    ("post", r"^[fb]p|\bposts?\b|\bcables?\b"),
    ("loop", r"\b(?:blo|flo|loop only|ribs?|ribbing|ribbed)\b"),
)


@dataclass(frozen=True)
class OwnGauge:
    """A gauge of a stitch pattern, measured in that pattern: mesh by its loops, post stitches, one loop only, a chain.

    name: as it is written. unit: what is counted across. width_mm, height_mm: of one of them; a chain has no height.
    """

    name: str
    unit: str
    width_mm: float
    height_mm: float

    @property
    def build(self) -> Build:
        """What kind of fabric it is a gauge of; "named": the piece whose title says that name."""
        words = "loops" if self.unit == "loops" else self.name.lower()
        return next((build for build, words_of in _BUILDS if re.search(words_of, words)), "named")


def chain_width_mm(gauges: Sequence[Gauge], own: Sequence[OwnGauge]) -> tuple[float, bool] | None:
    """The width of a chain that hangs free, in mm, and whether it is estimated; None where nothing was measured."""
    measured = next((gauge.width_mm for gauge in own if gauge.build == "chain"), None)
    if measured is not None:
        return measured, False
    return (CHAIN_RATIO * gauges[0].width_mm, True) if gauges else None


def gauge_of(gauges: Sequence[Gauge], stitch: str, hook: str = "") -> tuple[Gauge, bool]:
    """The gauge of a plain stitch, and whether it is estimated from the first of the gauges, of which there is one.

    hook: in mm, where a gauge with that hook is wanted; one with another hook is an estimate.
    """
    with_hook = [gauge for gauge in gauges if gauge.hook == hook] if hook else []
    first = (with_hook or gauges)[0]
    own = next((gauge for gauge in with_hook or gauges if gauge.stitch == stitch), None)
    other_hook = bool(hook) and not with_hook
    return (own, other_hook) if own is not None else (Gauge(stitch, first.width_mm, first.height_of_mm(stitch)), True)


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
    if not across or not up:
        return gauge
    return replace(gauge_from_counts(gauge.stitch, across, up, span_mm), hook=gauge.hook, sizes=gauge.sizes)
