"""What a maker of a size is asked to measure at the end, and her report against what was predicted."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from rillstep.design.facts import Facts
from rillstep.document.design import tolerance_mm

# Measures of the bag that no maker takes with a tape: how far a handle rises, and where two ends meet.
_NOT_TAKEN = ("rise", "meets")
# A gauge is another one beyond so much of it.
_GAUGE_SHARE = 0.05

Unit = Literal["sts", "rows", "mm", "g"]


@dataclass(frozen=True)
class MeasureAsked:
    """A measure of the bag that a size has: its name and label, what is predicted, and how far off it may be, in mm."""

    name: str
    label: str
    mm: float
    tolerance_mm: float


@dataclass(frozen=True)
class Comparison:
    """What was measured against what was predicted, in the unit; low and high where a range is predicted. off: beyond
    what it may differ."""

    label: str
    unit: Unit
    predicted: float
    measured: float
    off: bool
    low: float | None = None
    high: float | None = None


def asked_of(facts: Facts, size: int) -> list[MeasureAsked]:
    """The measures of the whole bag that a size has; of a bag as wide at its mouth or foot as anywhere, its width is
    enough."""
    width = facts.measures.get("width")
    across = width.mm[size] if width is not None else None
    wish = next((one for one in facts.design.sizes if one.name == facts.proof.pattern.sizes[size]), None)
    return [
        MeasureAsked(one.name, one.label, mm, tolerance_mm(wish, one.called))
        for one in facts.measures.values()
        if one.piece is None
        and one.name not in _NOT_TAKEN
        and (mm := one.mm[size]) is not None
        and not (one.name in ("mouth", "foot") and mm == across)
    ]


def compared(
    gauge: tuple[float, float] | None,
    measured_gauge: tuple[float | None, float | None],
    asked: Sequence[MeasureAsked],
    measured_mm: Mapping[str, float],
    yarn_g: tuple[float, float, float] | None,
    measured_g: float | None,
) -> list[Comparison]:
    """Only what was measured and is known. gauge: stitches and rows over 10 cm or 4 in; yarn_g: the middle, the least
    and the most."""
    found: list[Comparison] = []
    units: tuple[tuple[str, Unit], ...] = (("Gauge: stitches", "sts"), ("Gauge: rows", "rows"))
    for (label, unit), wanted, got in zip(units, gauge or (0.0, 0.0), measured_gauge, strict=True):
        if got is not None and wanted:
            found.append(Comparison(label, unit, wanted, got, abs(got - wanted) / wanted > _GAUGE_SHARE))
    found += [
        Comparison(one.label, "mm", one.mm, got, abs(got - one.mm) > one.tolerance_mm)
        for one in asked
        if (got := measured_mm.get(one.name)) is not None
    ]
    if measured_g is not None and yarn_g is not None:
        grams, low, high = yarn_g
        found.append(Comparison("Yarn", "g", grams, measured_g, not low <= measured_g <= high, low, high))
    return found
