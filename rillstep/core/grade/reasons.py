"""Why this number? Target, ideal value, constraints in force, and the neighbours that were not taken."""

from dataclasses import dataclass, replace

from rillstep.core.grade.plan import LOCKABLE, ToteCounts, TotePlan
from rillstep.core.grade.solve import GradedSize, extra_fits, ideals, measured
from rillstep.core.lengths import Units, show_length
from rillstep.core.measures.straps import HANDLE_STRETCH


@dataclass(frozen=True)
class Neighbour:
    """Another value, and by how much it would miss the target, in mm (None where it has no target)."""

    value: int
    error_mm: float | None


@dataclass(frozen=True)
class Reason:
    """The answer for one number in one size. `error_mm` is signed: result less target."""

    name: str
    value: int
    ideal: float
    target_mm: float | None
    result_mm: float | None
    locked: bool
    sentences: tuple[str, ...]
    neighbours: tuple[Neighbour, ...]

    @property
    def error_mm(self) -> float | None:
        if self.target_mm is None or self.result_mm is None:
            return None
        return self.result_mm - self.target_mm


# Which measure a number answers for.
_MEASURE = {
    "around": "width_mm",
    "side": "width_mm",
    "base_rounds": "depth_mm",
    "wall_rounds": "height_mm",
    "handle_chain": "drop_mm",
}


def _value(counts: ToteCounts, name: str) -> int:
    return int(getattr(counts, name))


def _step(plan: TotePlan, name: str) -> int:
    return {"around": 2 * plan.half_step, "side": plan.half_step, "handle_skip": 2, "extra": 1}.get(name, 1)


def _with(plan: TotePlan, counts: ToteCounts, name: str, value: int) -> ToteCounts | None:
    """The counts with one number changed and what hangs on it; None when that cannot be worked."""
    if name == "around":
        side = counts.side + (value - counts.around) // 2
        return replace(counts, side=side) if side >= 1 else None
    if name == "base_rounds":
        side = counts.side - plan.wedges * (value - counts.base_rounds)
        return replace(counts, base_rounds=value, side=side) if value >= 1 and side >= 1 else None
    if name == "extra":
        side = counts.side - (value - counts.extra)
        return replace(counts, extra=value, side=side) if value >= 0 and extra_fits(side, value) else None
    least = {"side": 1, "wall_rounds": 2, "handle_skip": 1, "handle_chain": counts.handle_skip}[name]
    return replace(counts, **{name: value}) if value >= least else None


def reasons_for(plan: TotePlan, size: GradedSize, units: Units) -> tuple[Reason, ...]:
    """One reason for each number of a size, in the order of `LOCKABLE`."""
    wanted = ideals(plan, size.target, size.counts)
    return tuple(_reason(plan, size, name, wanted[name], units) for name in LOCKABLE)


def _reason(plan: TotePlan, size: GradedSize, name: str, ideal: float, units: Units) -> Reason:
    value = _value(size.counts, name)
    measure = _MEASURE.get(name)
    target_mm = getattr(size.target, measure) if measure else None
    result_mm = getattr(size, measure) if measure else None
    neighbours = []
    for other in (value - _step(plan, name), value + _step(plan, name)):
        counts = _with(plan, size.counts, name, other)
        if counts is not None:
            there = measured(plan, size.target, counts)
            error = getattr(there, measure) - target_mm if measure and target_mm is not None else None
            neighbours.append(Neighbour(other, error))
    locked = size.target.locks.get(name) == value
    sentences = [_wanted(plan, size, name, ideal, units)]
    sentences += [text for number, text in size.because if number == name]
    if locked:
        sentences.append(f"You locked it at {value} in this size.")
    return Reason(name, value, ideal, target_mm, result_mm, locked, tuple(sentences), tuple(neighbours))


def _wanted(plan: TotePlan, size: GradedSize, name: str, ideal: float, units: Units) -> str:
    target, counts = size.target, size.counts
    match name:
        case "around":
            return (
                f"Wanted {show_length(target.width_mm, units)} lying flat: {ideal:.1f} stitches around. "
                "Front and back are alike, so it is an even number."
            )
        case "side":
            return (
                f"The front has {counts.half} stitches. The {counts.base_rounds} base rounds bring "
                f"{counts.wedges * counts.base_rounds} of them at the ends; "
                f"{value_text(counts.side, 'stitch', 'stitches')}"
                f" stay straight."
            )
        case "base_rounds":
            return (
                f"Wanted a base {show_length(target.depth_mm, units)} deep: {ideal:.1f} "
                f"rounds, counted from the middle out."
            )
        case "extra":
            if counts.extra:
                return (
                    f"{counts.extra} on each long side, evenly, so that the round is "
                    f"a multiple of {2 * plan.half_step}."
                )
            return "None are needed: the base itself gives the number of stitches that the wall needs."
        case "wall_rounds":
            return (
                f"Wanted {show_length(target.height_mm, units)} high. Brim and handles take {plan.top_rounds} rounds; "
                f"{ideal:.1f} are left for the wall."
            )
        case "handle_skip":
            return f"The opening takes {plan.handle_share:.0%} of the front: {ideal:.1f} stitches, in its very middle."
        case _:
            return (
                f"Wanted a drop of {show_length(target.drop_mm, units)} over {counts.handle_skip} "
                f"stitches: {ideal:.1f} chains. "
                f"A handle is taken to stretch by {HANDLE_STRETCH:.0%} in use (a usual value, not measured on yours)."
            )


def value_text(count: int, one: str, many: str) -> str:
    """ "1 stitch", "3 stitches"."""
    return f"{count} {one if count == 1 else many}"
