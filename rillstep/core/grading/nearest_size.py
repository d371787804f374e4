"""The numbers of one size: as near to its targets as the ways of a text allow, with what stands in the way.

Targets are linear in the steps of the ways, so the nearest numbers are found exactly (`integers`). Runs of stitches and
gaps are wished near their share of the width as well, but far more softly. What stands in the way of a target is found
by leaving it out: a lock, a least value, a multiple or another target is named only where the target comes out nearer
without it.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import gcd
from typing import Literal

from rillstep.core.grading.floors import Floor
from rillstep.core.grading.integers import Least, Wish, nearest
from rillstep.core.grading.lattice import Vector, plus, scaled, where_zero
from rillstep.core.grading.ways import GrowthWay

# How much a run near its share of the width counts, against a target, in parts of a stitch.
PROPORTION = 0.05
# Measures that tell how much wider, and how much higher, a size is than the sample.
_ACROSS, _UP = ("width", "mouth"), ("height", "length")
_MOST_FOUND = 80
# So many of them may have the same measures, as one may not come out and another may.
_MOST_ALIKE = 4
_BETTER_MM = 0.05


@dataclass(frozen=True)
class SizeWanted:
    """A size that is wanted. targets_mm: by the names of measures. locks: numbers that names shall have. weights: how
    much a target counts, 1 where nothing is said. gauge: of this size, where it is another than that of the sample."""

    name: str
    targets_mm: Mapping[str, float]
    locks: Mapping[str, int]
    weights: Mapping[str, float] | None = None
    gauge: str = ""


ObstacleKind = Literal["lock", "least", "run", "multiple", "target"]


@dataclass(frozen=True)
class Obstacle:
    """What stands in the way of a target: a lock, a least value, a run that ends, a step that is no smaller, or another
    target.

    name: of the number, the range of rounds, the way or the measure. without_mm: what the target comes to without it.
    """

    target: str
    kind: ObstacleKind
    name: str
    without_mm: float


@dataclass(frozen=True)
class Candidate:
    """Numbers of a size and what its targets come to, in mm."""

    values: Mapping[str, int]
    made_mm: Mapping[str, float]


@dataclass(frozen=True)
class SizeFound:
    """Candidates, the nearest first, a few with the same measures. obstacles: of the nearest. unlockable: a lock that
    no step meets, with the nearest values that do. whole: nothing nearer was left out."""

    candidates: tuple[Candidate, ...]
    obstacles: tuple[Obstacle, ...] = ()
    unlockable: tuple[tuple[str, tuple[int, ...]], ...] = ()
    whole: bool = True


@dataclass(frozen=True)
class Model:
    """What a size is found from. known_mm: the measures of the sample. runs: names of runs and gaps, with the width of
    a stitch in mm. rounds: names of numbers of plain rounds, with the height of one. floors: runs that no size can have
    less than nothing of."""

    base: Mapping[str, int]
    ways: Sequence[GrowthWay]
    known_mm: Mapping[str, float]
    runs: frozenset[str] = frozenset()
    stitch_mm: float = 5.0
    rounds: frozenset[str] = frozenset()
    row_mm: float = 5.0
    floors: Sequence[Floor] = ()


def size_found(model: Model, size: SizeWanted) -> SizeFound:
    """The numbers of a size that come nearest to its targets, with its locks."""
    start, basis, unlockable = _locked(model, size.locks)
    if unlockable:
        return SizeFound((), (), unlockable)
    found, whole = _solved(model, size, start, basis)
    obstacles = tuple(_obstacles(model, size, found[0])) if found else ()
    return SizeFound(tuple(found), obstacles, (), whole)


def _locked(
    model: Model, locks: Mapping[str, int]
) -> tuple[Vector, list[Vector], tuple[tuple[str, tuple[int, ...]], ...]]:
    """Steps of the ways at which all locks hold, and the directions in which they go on holding; or the locks that do
    not hold at any."""
    many = len(model.ways)
    start: Vector = (0,) * many
    basis = [tuple(int(i == j) for j in range(many)) for i in range(many)]
    for name, value in locks.items():
        by_way = [dict(way.step).get(name, 0) for way in model.ways]
        form = [sum(a * b for a, b in zip(by_way, v, strict=True)) for v in basis]
        missing = value - model.base[name] - sum(a * t for a, t in zip(by_way, start, strict=True))
        free, moving = where_zero(basis, form)
        if missing:
            step = 0 if moving is None else sum(a * b for a, b in zip(by_way, moving, strict=True))
            if moving is None or missing % step:
                near = model.base[name] if not step else value - missing % abs(step)
                return start, basis, ((name, (near,) if not step else (near, near + abs(step))),)
            start = plus(start, scaled(moving, missing // step))
        basis = free
    return start, basis, ()


def _solved(
    model: Model,
    size: SizeWanted,
    start: Vector,
    basis: Sequence[Vector],
    without: tuple[str, str] = ("", ""),
    fine: Mapping[int, int] | None = None,
) -> tuple[list[Candidate], bool]:
    """The nearest candidates. without: a kind and a name that is left out. fine: ways whose step is divided."""
    divided = fine or {}
    targets = size.targets_mm
    shares = [1 / divided.get(at, 1) for at in range(len(model.ways))]

    def along(by_way: Sequence[float], vector: Vector) -> float:
        return sum(a * share * t for a, share, t in zip(by_way, shares, vector, strict=True))

    mm_by = {name: [way.mm.get(name, 0.0) for way in model.ways] for name in targets}
    number_by = {name: [float(dict(way.step).get(name, 0)) for way in model.ways] for name in model.base}
    wishes = [
        Wish(
            tuple(along(mm_by[name], v) for v in basis),
            mm - model.known_mm[name] - along(mm_by[name], start),
            (size.weights or {}).get(name, 1.0),
        )
        for name, mm in targets.items()
    ]
    wishes += [
        Wish(
            tuple(along(number_by[name], v) for v in basis),
            model.base[name] * (ratio - 1) - along(number_by[name], start),
            (PROPORTION * mm) ** 2,
        )
        for names, ratio, mm in (
            (model.runs, _ratio(model, targets, _ACROSS), model.stitch_mm),
            (model.rounds, _ratio(model, targets, _UP), model.row_mm),
        )
        for name in sorted(names & model.base.keys())
    ]
    # A direction that moves no wish stays as it is; one whose wish is left out may still make room for another.
    used = [at for at in range(len(basis)) if any(abs(wish.by_step[at]) > 1e-9 for wish in wishes)]
    left_out = list(targets).index(without[1]) if without[0] == "target" else -1
    wishes = [
        Wish(tuple(wish.by_step[at] for at in used), wish.wish, wish.weight)
        for number, wish in enumerate(wishes)
        if number != left_out
    ]
    least = [
        Least(
            tuple(round(along(number_by[name], basis[at])) for at in used),
            value + round(along(number_by[name], start)),
            min(value, 1),
        )
        for name, value in model.base.items()
        if without != ("least", name) and not divided
    ]
    for floor in model.floors if not divided else ():
        by_way = [float(sum(floor.by_name.get(name, 0) * by for name, by in way.step)) for way in model.ways]
        if without != ("run", floor.label):
            by_step = tuple(round(along(by_way, basis[at])) for at in used)
            least.append(Least(by_step, floor.value + round(along(by_way, start)), 0))
    answer = nearest(wishes, least, len(used), _MOST_FOUND)
    found: list[Candidate] = []
    for _, steps in answer.found:
        times = start
        for at, many in zip(used, steps, strict=True):
            times = plus(times, basis[at], many)
        values = {name: value + round(along(number_by[name], times)) for name, value in model.base.items()}
        made = {
            name: model.known_mm[name] + along([way.mm.get(name, 0.0) for way in model.ways], times)
            for name in size.targets_mm
        }
        alike = sum(all(abs(made[name] - one.made_mm[name]) <= _BETTER_MM for name in made) for one in found)
        if alike < _MOST_ALIKE:
            found.append(Candidate(values, made))
    return found, answer.whole


def _ratio(model: Model, targets: Mapping[str, float], measures: Sequence[str]) -> float:
    """How much larger a size is than the sample, by the first of some measures that has a target."""
    named = (name for one in measures for name in targets if name == one or name.endswith(f".{one}"))
    return next((targets[name] / model.known_mm[name] for name in named if model.known_mm[name]), 1.0)


def missed(model: Model, size: SizeWanted, made_mm: Mapping[str, float]) -> list[str]:
    """The targets that are further off than half of the smallest step that could be."""
    return [
        name
        for name, mm in size.targets_mm.items()
        if name not in made_mm or abs(made_mm[name] - mm) > max(_finest_mm(model, name) / 2, _least_off(name)) + 1e-6
    ]


def _least_off(target: str) -> float:
    """So much is no miss, in mm. A drop hangs: two mm are nothing."""
    return 2.0 if target == "drop" or target.endswith(".drop") else 0.5


def _finest_mm(model: Model, target: str) -> float:
    """By how much a measure moves at least, if the numbers of its ways moved one by one, in mm."""
    return min((abs(way.mm[target]) / _shared(way) for way in model.ways if target in way.mm), default=0.0)


def _shared(way: GrowthWay) -> int:
    """Into how many equal parts a step could be divided, if no line stood against it."""
    if not way.multiple:
        return 1
    return gcd(*(by for _, by in way.step)) if gcd(*(by for _, by in way.step)) > 1 else way.least


def _obstacles(model: Model, size: SizeWanted, best: Candidate) -> list[Obstacle]:
    """What stands in the way of the targets that are missed, each with what the target comes to without it."""
    found = []
    for target in missed(model, size, best.made_mm):
        wanted = size.targets_mm[target]
        variants: list[tuple[ObstacleKind, str, list[Candidate]]] = []
        for name in size.locks:
            start, basis, _ = _locked(model, {key: value for key, value in size.locks.items() if key != name})
            variants.append(("lock", name, _solved(model, size, start, basis)[0]))
        start, basis, _ = _locked(model, size.locks)
        for name, value in best.values.items():
            if value <= 1:
                variants.append(("least", name, _solved(model, size, start, basis, ("least", name))[0]))
        for floor in dict.fromkeys(floor.label for floor in model.floors):
            variants.append(("run", floor, _solved(model, size, start, basis, ("run", floor))[0]))
        for at, way in enumerate(model.ways):
            if _shared(way) > 1 and target in way.mm:
                variants.append(("multiple", way.label, _solved(model, size, start, basis, fine={at: _shared(way)})[0]))
        for name in size.targets_mm:
            if name != target:
                variants.append(("target", name, _solved(model, size, start, basis, ("target", name))[0]))
        for kind, name, candidates in variants:
            if candidates and _is_nearer(candidates[0].made_mm[target], best.made_mm[target], wanted):
                found.append(Obstacle(target, kind, name, candidates[0].made_mm[target]))
    return found


def _is_nearer(one: float, other: float, wanted: float) -> bool:
    return abs(one - wanted) < abs(other - wanted) - _BETTER_MM
