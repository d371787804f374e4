"""The exact solve of a tote: the numbers of each size are searched, not guessed.

Width and base depth hang together (every base round widens the bag), so they are searched
jointly; wall, handle opening and handle chain follow one from the other. The cost of a pair
(half, rounds) is the sum of squared errors counted in stitches and in rounds; the search over
base rounds goes outwards from the ideal and stops when the depth error alone costs more than
the best pair found, so the best is proved best.
"""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.gauge import Gauge
from rillstep.core.lengths import Units, show_difference, show_length
from rillstep.core.measures.straps import drop_of, handle_length_mm
from rillstep.document.version1.plan import SizeTarget, ToteCounts, TotePlan

_MOST = 100_000


@dataclass(frozen=True)
class GradeNote:
    """Something to say about a size: a target that cannot be met, a lock that cannot hold."""

    code: str
    severity: Literal["error", "warning"]
    size: int
    field: str
    message: str


@dataclass(frozen=True)
class GradedSize:
    """The numbers of a size with what they measure, in mm, and why a bound was met (by number name)."""

    target: SizeTarget
    counts: ToteCounts
    width_mm: float
    height_mm: float
    depth_mm: float
    drop_mm: float
    because: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class Graded:
    sizes: tuple[GradedSize, ...]
    notes: tuple[GradeNote, ...]


def ideals(plan: TotePlan, target: SizeTarget, counts: ToteCounts | None = None) -> dict[str, float]:
    """The real-valued numbers that would meet each target exactly."""
    gauge = plan.gauge
    half = target.width_mm / gauge.width_mm
    rounds = target.depth_mm / (2 * gauge.height_mm)
    now_half = counts.half if counts else half
    now_rounds = counts.base_rounds if counts else rounds
    skip = plan.handle_share * now_half
    gap_mm = (counts.handle_skip if counts else skip) * gauge.width_mm
    return {
        "side": half - plan.wedges * now_rounds - (counts.extra if counts else 0),
        "base_rounds": rounds,
        "around": 2 * half,
        "extra": 0.0,
        "wall_rounds": target.height_mm / gauge.height_mm - plan.top_rounds,
        "handle_skip": skip,
        "handle_chain": handle_length_mm(target.drop_mm, gap_mm, plan.allowance_mm) / gauge.chain_mm,
    }


@dataclass(frozen=True)
class _Base:
    half: int
    rounds: int
    side: int
    extra: int
    cost: float


def _nearest(ideal: float, step: int, least: int) -> int:
    """The multiple of `step`, at least `least`, that is nearest to `ideal` (the smaller one of two)."""
    floor = max(int(ideal // step) * step, 0)
    candidates = [c for c in (floor, floor + step) if c >= least]
    if not candidates:
        return -(-least // step) * step
    return min(candidates, key=lambda c: (abs(c - ideal), c))


def extra_fits(side: int, extra: int) -> bool:
    """Can so many increases stand evenly and symmetrically on a side of so many stitches?

    An odd number has one in the very middle, which needs a middle stitch.
    """
    return extra == 0 or (0 < extra <= side and (extra % 2 == 0 or side % 2 == 1))


def _base_of(plan: TotePlan, target: SizeTarget, rounds: int, locks: dict[str, int]) -> _Base | None:
    """The best base with so many rounds under these locks; None when there is none."""
    ideal_half = target.width_mm / plan.gauge.width_mm
    ideal_rounds = target.depth_mm / (2 * plan.gauge.height_mm)
    step, ends = plan.half_step, plan.wedges * rounds
    extra_lock, side_lock, around_lock = locks.get("extra"), locks.get("side"), locks.get("around")
    if around_lock is not None and (around_lock % 2 or (around_lock // 2) % step):
        return None
    if side_lock is not None:
        extras = [extra_lock] if extra_lock is not None else range(side_lock + 1)
        fits = [
            extra
            for extra in extras
            if extra_fits(side_lock, extra)
            and (side_lock + ends + extra) % step == 0
            and around_lock in (None, 2 * (side_lock + ends + extra))
        ]
        if not fits:
            return None
        side, extra = side_lock, fits[0]
        half = side + ends + extra
    else:
        extra = extra_lock or 0
        least = ends + extra + max(1, extra)
        half = around_lock // 2 if around_lock is not None else _nearest(ideal_half, step, least)
        while around_lock is None and not extra_fits(half - ends - extra, extra):
            half += step  # the middle stitch that an odd number of increases needs
            if half > least + 2 * step + ideal_half:
                return None
        side = half - ends - extra
        if half < least or not extra_fits(side, extra):
            return None
    cost = (half - ideal_half) ** 2 + (rounds - ideal_rounds) ** 2
    return _Base(half, rounds, side, extra, cost)


def _solve_base(plan: TotePlan, target: SizeTarget, locks: dict[str, int]) -> _Base | None:
    ideal = target.depth_mm / (2 * plan.gauge.height_mm)
    if "base_rounds" in locks:
        return _base_of(plan, target, locks["base_rounds"], locks)
    best: _Base | None = None
    highest = int(ideal) + 2
    if "side" in locks or "around" in locks or "extra" in locks:
        highest += 2 + int(target.width_mm / plan.gauge.width_mm / plan.wedges)
    for rounds in sorted(range(1, min(highest, 2_000) + 1), key=lambda n: (abs(n - ideal), n)):
        if best is not None and (rounds - ideal) ** 2 > best.cost:
            break
        base = _base_of(plan, target, rounds, locks)
        if base is not None and (best is None or base.cost < best.cost):
            best = base
    return best


def _solve_handle(
    plan: TotePlan, target: SizeTarget, base: _Base, locks: dict[str, int]
) -> tuple[int, int, list[tuple[str, str]]] | None:
    """(stitches skipped, chain, reasons); None when a lock cannot hold."""
    because: list[tuple[str, str]] = []
    long_side = base.side + base.extra
    widest = long_side + 2 * min(plan.begin, plan.wedges - plan.begin) * base.rounds - 2
    parity = long_side % 2
    if "handle_skip" in locks:
        skip = locks["handle_skip"]
        if skip % 2 != parity or not 1 <= skip <= widest:
            return None
    else:
        ideal = plan.handle_share * base.half
        least = 2 - parity
        skip = max(least, min(_nearest(ideal - parity, 2, 0) + parity, widest - (widest - parity) % 2))
        if abs(skip - ideal) > 0.5:
            odd = "odd" if parity else "even"
            because.append(
                (
                    "handle_skip",
                    f"The front has an {odd} number of stitches there, so only {odd} numbers stand in its middle.",
                )
            )
        if skip > widest:
            return None
    ideal_chain = handle_length_mm(target.drop_mm, skip * plan.gauge.width_mm, plan.allowance_mm) / plan.gauge.chain_mm
    if "handle_chain" in locks:
        chain = locks["handle_chain"]
        if chain < skip:
            return None
    else:
        chain = max(_nearest(ideal_chain, 1, 1), skip + 1)
        if chain - ideal_chain > 0.5:
            because.append(
                ("handle_chain", f"It must be longer than the {skip} stitches that it passes over, or it pulls.")
            )
    return skip, chain, because


def measured(
    plan: TotePlan, target: SizeTarget, counts: ToteCounts, because: tuple[tuple[str, str], ...] = ()
) -> GradedSize:
    """What these counts measure."""
    gauge: Gauge = plan.gauge
    return GradedSize(
        target,
        counts,
        counts.half * gauge.width_mm,
        (counts.wall_rounds + plan.top_rounds) * gauge.height_mm,
        2 * counts.base_rounds * gauge.height_mm,
        drop_of(counts.handle_chain, counts.handle_skip, gauge, plan.allowance_mm),
        because,
    )


def _try(plan: TotePlan, target: SizeTarget, locks: dict[str, int]) -> GradedSize | None:
    base = _solve_base(plan, target, locks)
    if base is None or base.half > _MOST:
        return None
    handle = _solve_handle(plan, target, base, locks)
    if handle is None:
        return None
    skip, chain, because = handle
    ideal_wall = target.height_mm / plan.gauge.height_mm - plan.top_rounds
    wall = locks.get("wall_rounds", _nearest(ideal_wall, 1, 2))
    if "wall_rounds" not in locks and wall - ideal_wall > 0.5:
        because.append(
            ("wall_rounds", f"At least 2 wall rounds stand below the {plan.top_rounds} rounds of brim and handles.")
        )
    if not locks.keys() & {"around", "side", "base_rounds", "extra"}:
        because += _base_reasons(plan, target, base)
    counts = ToteCounts(plan.wedges, plan.begin, base.side, base.rounds, base.extra, wall, skip, chain)
    return measured(plan, target, counts, tuple(because))


def _base_reasons(plan: TotePlan, target: SizeTarget, base: _Base) -> list[tuple[str, str]]:
    ideal_half = target.width_mm / plan.gauge.width_mm
    ideal_rounds = target.depth_mm / (2 * plan.gauge.height_mm)
    reasons: list[tuple[str, str]] = []
    ends = plan.wedges * base.rounds
    if base.half - ideal_half > 0.5 and base.side == 1:
        reasons.append(
            (
                "around",
                f"{base.rounds} base rounds alone already make {2 * ends} stitches; with "
                f"a straight side of 1 that is {base.half * 2}.",
            )
        )
    elif abs(base.half - ideal_half) > 0.5:
        reasons.append(
            (
                "around",
                f"It must be a multiple of {2 * plan.half_step}, so that both halves hold "
                f"whole repeats of {plan.wall_multiple}.",
            )
        )
    if abs(base.rounds - ideal_rounds) > 0.5:
        why = (
            "A base has at least 1 round."
            if ideal_rounds < 1
            else (f"More rounds would need more than the {ideal_half * 2:.0f} stitches that this width has room for.")
        )
        reasons.append(("base_rounds", why))
    return reasons


def _lock_note(size: int, name: str, value: int, plan: TotePlan) -> GradeNote:
    why = {
        "around": (
            f"it must be a multiple of {2 * plan.half_step}, and leave at least 1 "
            f"straight stitch beside the ends of the base"
        ),
        "side": "with it the round is no multiple of what the wall needs, whatever extra increases are made",
        "extra": "so many increases cannot stand evenly on a side; an odd number needs a middle stitch",
        "base_rounds": "the round would have fewer stitches than the base needs",
        "handle_skip": (
            "it must stand in the very middle of the front, so it is odd or "
            "even as the front is, and not wider than the front"
        ),
        "handle_chain": "it must not be shorter than the stitches that it passes over",
        "wall_rounds": "a wall has at least 2 rounds",
    }[name]
    message = f"The lock on {value} cannot be kept: {why}. The other numbers were solved without it."
    return GradeNote("lock-impossible", "error", size, name, message)


def _size(plan: TotePlan, target: SizeTarget, index: int) -> tuple[GradedSize, list[GradeNote]]:
    """One size, leaving out locks that cannot be kept, the last in the order of work first."""
    locks, notes = dict(target.locks), []
    if (wall := locks.get("wall_rounds")) is not None and wall < 2:
        notes.append(_lock_note(index, "wall_rounds", locks.pop("wall_rounds"), plan))
    if (rounds := locks.get("base_rounds")) is not None and rounds < 1:
        notes.append(_lock_note(index, "base_rounds", locks.pop("base_rounds"), plan))
    solved = _try(plan, target, locks)
    while solved is None:
        # Find one lock without which the rest can be solved; if none alone is enough, drop the last.
        names = [
            name for name in ("handle_chain", "handle_skip", "extra", "side", "base_rounds", "around") if name in locks
        ]
        assert names, "a size without locks can always be solved"
        guilty = next(
            (name for name in names if _try(plan, target, {k: v for k, v in locks.items() if k != name})), names[0]
        )
        notes.append(_lock_note(index, guilty, locks.pop(guilty), plan))
        solved = _try(plan, target, locks)
    return solved, notes


def _tolerance_notes(size: GradedSize, index: int, units: Units) -> list[GradeNote]:
    target = size.target
    notes = []
    for name, wanted, got, tolerance in (
        ("width", target.width_mm, size.width_mm, target.width_tolerance_mm),
        ("height", target.height_mm, size.height_mm, target.height_tolerance_mm),
        ("depth", target.depth_mm, size.depth_mm, target.depth_tolerance_mm),
        ("drop", target.drop_mm, size.drop_mm, target.drop_tolerance_mm),
    ):
        if abs(got - wanted) > tolerance + 1e-6:
            numbers = {"width": "around", "depth": "base_rounds", "height": "wall_rounds", "drop": "handle_chain"}
            why = next((text for number, text in size.because if number == numbers[name]), "")
            locked = "" if why or not target.locks else "A lock stands against it."
            message = (
                f"The {name} of {target.name} comes to {show_length(got, units)}, "
                f"{show_difference(got - wanted, units)}"
                f" "
                f"from the target: more than the tolerance of {show_length(tolerance, units)}. {why or locked}".rstrip()
            )
            notes.append(GradeNote("outside-tolerance", "warning", index, name, message))
    return notes


def grade(plan: TotePlan, targets: tuple[SizeTarget, ...], units: Units = "cm") -> Graded:
    """The best numbers for every size. Exact: no other numbers come closer under the constraints."""
    sizes: list[GradedSize] = []
    notes: list[GradeNote] = []
    for index, target in enumerate(targets):
        size, size_notes = _size(plan, target, index)
        sizes.append(size)
        notes += size_notes + _tolerance_notes(size, index, units)
    return Graded(tuple(sizes), tuple(notes))
