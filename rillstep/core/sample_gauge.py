"""The gauge of a finished sample, from what it measures: hardly anyone starts from a swatch.

Measures of a bag are sums of stitches across and rows up, but for a drop, and for which of its rounds is the widest.
How many of each a measure holds is found by measuring the text in a gauge a little wider, and a little higher; then
stitch and row are fitted to what was measured by weighted least squares, with their standard errors, and once more from
there (the method of Gauss and Newton). What is further off than measuring explains is said.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.fabric import SizeWork
from rillstep.core.gauge import Gauge
from rillstep.core.measures import measures_of
from rillstep.core.tree import Pattern

# A tape lies within so much, in mm and as a share of the length. Usual values.
TAPE_MM, TAPE_SHARE = 3.0, 0.015
_STEP = 0.01
# A measure that holds less than so much of a direction says nothing of it.
_LEAST_PART = 0.05
# So many standard errors are more than chance.
_FAR = 2.5


@dataclass(frozen=True)
class Compared:
    """A measure of the sample: as it was measured, what it comes to in the fitted gauge, and whether they agree.

    own_sts, own_rows: what this measure alone says of stitches or rows over 100 mm, the other as it was fitted; None
    where it says nothing of it.
    """

    name: str
    label: str
    piece: str | None
    made_mm: float
    comes_mm: float
    agrees: bool
    own_sts: float | None
    own_rows: float | None


@dataclass(frozen=True)
class FittedGauge:
    """A gauge with the standard errors of its stitch and its row in mm; None where nothing was measured that tells of
    it, and then it is the one that was there before."""

    gauge: Gauge
    width_error_mm: float | None
    height_error_mm: float | None
    compared: tuple[Compared, ...]


# So often it is fitted once more, until nothing changes by this share.
_MOST_FITTED, _SETTLED = 6, 1e-5


def fitted_gauge(
    pattern: Pattern, works: Sequence[SizeWork], gauge: Gauge, made_mm: Mapping[str, float], size: int = 0
) -> FittedGauge | None:
    """The gauge of plain stitches that fits what was measured of one size; None where nothing of it is known. gauge: to
    begin with. made_mm: by the names of measures ("width", "Strap.length")."""
    found = _fitted_once(pattern, works, gauge, made_mm, size)
    for _ in range(_MOST_FITTED):
        if found is None:
            return None
        again = _fitted_once(pattern, works, found.gauge, made_mm, size)
        if again is None:
            return found
        moved = abs(again.gauge.width_mm / found.gauge.width_mm - 1) + abs(
            again.gauge.height_mm / found.gauge.height_mm - 1
        )
        found = again
        if moved < _SETTLED:
            break
    return found


def _fitted_once(
    pattern: Pattern, works: Sequence[SizeWork], gauge: Gauge, made_mm: Mapping[str, float], size: int
) -> FittedGauge | None:
    """One step of it, from a gauge."""

    def measured(width: float, height: float) -> dict[str, float]:
        other = replace(gauge, width_mm=gauge.width_mm * width, height_mm=gauge.height_mm * height)
        first, *more = pattern.gauges or (gauge,)
        kept = [one for one in more if one.stitch != first.stitch]
        found = measures_of(replace(pattern, gauges=(other, *kept)), works)
        return {one.called: mm for one in found if (mm := one.mm[size]) is not None}

    base, wider, higher = measured(1, 1), measured(1 + _STEP, 1), measured(1, 1 + _STEP)
    known = [name for name in made_mm if base.get(name)]
    across = {name: (wider[name] - base[name]) / _STEP for name in known}
    up = {name: (higher[name] - base[name]) / _STEP for name in known}
    rest = {name: base[name] - across[name] - up[name] for name in known}
    sigma = {name: math.hypot(TAPE_MM, TAPE_SHARE * made_mm[name]) for name in known}
    wide = any(across[name] > _LEAST_PART * base[name] for name in known)
    high = any(up[name] > _LEAST_PART * base[name] for name in known)
    if not wide and not high:
        return None
    rows = [(across[n] / sigma[n], up[n] / sigma[n], (made_mm[n] - rest[n]) / sigma[n]) for n in known]
    x, y, x_error, y_error = _least_squares(rows, wide, high)
    if x <= 0 or y <= 0:
        return None
    labels = {one.called: one for one in measures_of(replace(pattern, gauges=pattern.gauges or (gauge,)), works)}
    fitted = replace(gauge, width_mm=gauge.width_mm * x, height_mm=gauge.height_mm * y)
    compared = tuple(
        Compared(
            name,
            labels[name].label,
            labels[name].piece,
            made_mm[name],
            rest[name] + across[name] * x + up[name] * y,
            abs(made_mm[name] - rest[name] - across[name] * x - up[name] * y) <= _FAR * sigma[name],
            _own(made_mm[name] - rest[name] - up[name] * y, across[name], base[name], gauge.width_mm),
            _own(made_mm[name] - rest[name] - across[name] * x, up[name], base[name], gauge.height_mm),
        )
        for name in known
    )
    return FittedGauge(
        fitted,
        None if x_error is None else x_error * gauge.width_mm,
        None if y_error is None else y_error * gauge.height_mm,
        compared,
    )


def _own(left: float, part: float, whole: float, mm: float) -> float | None:
    """What a measure alone says of stitches, or rows, over 100 mm."""
    return 100 * part / (left * mm) if part > _LEAST_PART * whole and left > 0 else None


def _least_squares(
    rows: Sequence[tuple[float, float, float]], wide: bool, high: bool
) -> tuple[float, float, float | None, float | None]:
    """How much wider and higher a stitch is, with the standard errors; what nothing tells of stays 1, without one.
    rows: across, up and wanted, each divided by its standard error."""
    aa, bb = sum(a * a for a, _, _ in rows), sum(b * b for _, b, _ in rows)
    ab = sum(a * b for a, b, _ in rows)
    ac, bc = sum(a * c for a, _, c in rows), sum(b * c for _, b, c in rows)
    det = aa * bb - ab * ab
    if wide and high and det > 1e-6 * aa * bb:
        return (bb * ac - ab * bc) / det, (aa * bc - ab * ac) / det, math.sqrt(bb / det), math.sqrt(aa / det)
    if wide and (not high or aa >= bb):
        return (ac - ab) / aa, 1.0, 1 / math.sqrt(aa), None
    return 1.0, (bc - ab) / bb, None, 1 / math.sqrt(bb)
