"""The gauge that a finished sample has, beside the one that the text names."""

from pydantic import BaseModel

from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units, show_difference, show_length
from rillstep.core.sample_gauge import Compared, FittedGauge
from rillstep.design import facts_of
from rillstep.design.sample import SampleGauge
from rillstep.document import Design


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
    found, units = facts_of(design).sample, design.units
    return SampleGaugeView(
        problem=found.problem or None, stitch=found.gauge.stitch, span=GAUGE_SPAN[units],
        **_fitted(found.fitted, GAUGE_SPAN[units] * MM_PER[units]), measures=_measures(found, units),
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


def _measures(found: SampleGauge, units: Units) -> list[SampleMeasureView]:
    return [
        SampleMeasureView(
            name=one.called, label=f"{one.piece}: {one.label.lower()}" if one.piece else one.label,
            comes_to=show_length(compared.comes_mm, units) if (compared := found.compared.get(one.called)) else None,
            off=show_difference(compared.comes_mm - compared.made_mm, units) if compared else None,
            says=_says(compared, units) if compared is not None and not compared.agrees else None,
        )
        for one in found.measures
    ]  # fmt: skip


def _says(one: Compared, units: Units) -> str:
    """What a measure says of the gauge by itself."""
    share = GAUGE_SPAN[units] * MM_PER[units] / 100
    said = [
        f"{value * share:.1f} {what}" for value, what in ((one.own_sts, "stitches"), (one.own_rows, "rows")) if value
    ]
    return f"This alone says {' and '.join(said)}: was it measured as the others, and blocked as they were?"
