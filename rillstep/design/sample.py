"""The gauge that a finished sample has, beside the one that the text names."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from rillstep.core.gauge import Gauge
from rillstep.core.measures import Measure, measures_of
from rillstep.core.proof import Proof
from rillstep.core.sample_gauge import Compared, FittedGauge, fitted_gauge
from rillstep.document import Design

# To begin with, where the text names no gauge: any other comes to the same.
_BEGIN_MM = 6.0


@dataclass(frozen=True)
class SampleGauge:
    """The sample by its text. problem: why no gauge is fitted, empty where it is tried. gauge: that of the text, or the
    one to begin with; fitted: the gauge that fits what was measured, None where nothing tells of it; measures: those
    that can be taken of it; compared: of those that were taken, by name, what they come to in the fitted gauge."""

    problem: str
    gauge: Gauge
    fitted: FittedGauge | None
    measures: tuple[Measure, ...]
    compared: Mapping[str, Compared]


def sample_gauge_of(design: Design, proof: Proof) -> SampleGauge:
    """The gauge of the sample as it was made, and every measure that could tell more of it."""
    pattern, sizes = proof.pattern, proof.pattern.sizes
    size = sizes.index(design.sample) if design.sample in sizes else 0
    gauge = next(iter(pattern.gauges), None) or Gauge(_main_stitch(proof), _BEGIN_MM, _BEGIN_MM)
    fitted = fitted_gauge(pattern, proof.works, gauge, design.made_mm, size) if proof.ok else None
    known = measures_of(replace(pattern, gauges=pattern.gauges or (gauge,)), proof.works)
    return SampleGauge(
        "" if proof.ok else "The sample is measured by its text when every line of it comes out.", gauge, fitted,
        tuple(one for one in known if one.mm[size] is not None and one.name not in ("drop", "rise", "meets")),
        {one.name: one for one in fitted.compared} if fitted is not None else {},
    )  # fmt: skip


def _main_stitch(proof: Proof) -> str:
    """The stitch that most of the rows are made of, of those that have a gauge."""
    lines = [line.main_stitch for work in proof.works for line in work.lines]
    return max(("sc", "hdc", "dc"), key=lambda stitch: sum(one == stitch for one in lines))
