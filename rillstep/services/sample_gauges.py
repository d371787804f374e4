"""The gauge that a finished sample has, beside the one that the text names."""

from dataclasses import replace

from pydantic import BaseModel

from rillstep.core.gauge import Gauge
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units, show_difference, show_length
from rillstep.core.measures import measures_of
from rillstep.core.proof import Proof
from rillstep.core.sample_gauge import Compared, FittedGauge, fitted_gauge
from rillstep.document import Design
from rillstep.services.workbench import proof_of

# To begin with, where the text names no gauge: any other comes to the same.
_BEGIN_MM = 6.0


class SampleMeasureView(BaseModel):
    """A measure that can be taken of the sample; label: with its piece. comes_to, off: in the fitted gauge, where it
    was measured. says: what it says of the gauge by itself, where it does not agree with the others."""

    name: str
    label: str
    comes_to: str | None
    off: str | None
    says: str | None


class SampleGaugeView(BaseModel):
    """The gauge that fits what was measured: stitches and rows over the span, as they are written, each give or take so
    much; null where nothing tells of it. problem: why there is none."""

    problem: str | None
    stitch: str
    span: int
    sts: float | None
    sts_error: float | None
    rows: float | None
    rows_error: float | None
    measures: list[SampleMeasureView]


def sample_gauge_view(design: Design) -> SampleGaugeView:
    """The gauge of the sample as it was made, and every measure that could tell more of it."""
    proof = proof_of(design)
    sizes = proof.pattern.sizes
    size = sizes.index(design.sample) if design.sample in sizes else 0
    gauge = next(iter(proof.pattern.gauges), None) or Gauge(_main_stitch(proof), _BEGIN_MM, _BEGIN_MM)
    fitted = fitted_gauge(proof.pattern, proof.works, gauge, design.made_mm, size) if proof.ok else None
    problem = None if proof.ok else "The sample is measured by its text when every line of it comes out."
    span_mm = GAUGE_SPAN[design.units] * MM_PER[design.units]
    return SampleGaugeView(
        problem=problem, stitch=gauge.stitch, span=GAUGE_SPAN[design.units],
        **_fitted(fitted, span_mm), measures=_measures(proof, gauge, fitted, design.units, size),
    )  # fmt: skip


def _fitted(fitted: FittedGauge | None, span_mm: float) -> dict[str, float | None]:
    found: dict[str, float | None] = {"sts": None, "sts_error": None, "rows": None, "rows_error": None}
    if fitted is None:
        return found
    for name, mm, error in (
        ("sts", fitted.gauge.width_mm, fitted.width_error_mm), ("rows", fitted.gauge.height_mm, fitted.height_error_mm),
    ):  # fmt: skip
        if error is not None:
            found[name] = round(span_mm / mm, 2)
            found[f"{name}_error"] = round(span_mm / mm * error / mm, 2)
    return found


def _main_stitch(proof: Proof) -> str:
    """The stitch that most of the rows are made of, of those that have a gauge."""
    lines = [line.main_stitch for work in proof.works for line in work.lines]
    return max(("sc", "hdc", "dc"), key=lambda stitch: sum(one == stitch for one in lines))


def _measures(
    proof: Proof, gauge: Gauge, fitted: FittedGauge | None, units: Units, size: int
) -> list[SampleMeasureView]:
    pattern = proof.pattern
    known = measures_of(replace(pattern, gauges=pattern.gauges or (gauge,)), proof.works)
    told = {one.name: one for one in fitted.compared} if fitted is not None else {}
    return [
        SampleMeasureView(
            name=one.called, label=f"{one.piece}: {one.label.lower()}" if one.piece else one.label,
            comes_to=show_length(compared.comes_mm, units) if (compared := told.get(one.called)) else None,
            off=show_difference(compared.comes_mm - compared.made_mm, units) if compared else None,
            says=_says(compared, units) if compared is not None and not compared.agrees else None,
        )
        for one in known if one.mm[size] is not None and one.name not in ("drop", "rise", "meets")
    ]  # fmt: skip


def _says(one: Compared, units: Units) -> str:
    """What a measure says of the gauge by itself."""
    share = GAUGE_SPAN[units] * MM_PER[units] / 100
    said = [
        f"{value * share:.1f} {what}" for value, what in ((one.own_sts, "stitches"), (one.own_rows, "rows")) if value
    ]
    return f"This alone says {' and '.join(said)}: was it measured as the others, and blocked as they were?"
