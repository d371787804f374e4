"""The numbers of each size that come nearest to its targets, along the ways of a text; each size is proved.

Measures are affine in the numbers, so the nearest real steps are those of least squares; the whole steps around them
are tried in the order of their distance, and the first that is proved holds. It is not claimed that no other numbers
of the text come nearer than the ways that were found allow.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from math import floor

from rillstep.core.grading.named_text import changed, restated
from rillstep.core.grading.sample import NotGraded, Sample, sample_of
from rillstep.core.grading.trials import Refuted, Trials, measures_at
from rillstep.core.grading.ways import GrowthWay, ways_of
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read

MOST_SIZES = 10
# Whole steps on both sides of the real ones that are tried, and how many of them are proved at most.
_AROUND = 2
_MOST_TRIED = 200
# A lock is as good as exact when a step off it weighs as much as a metre.
_LOCK_WEIGHT = 1_000.0


@dataclass(frozen=True)
class SizeWanted:
    """A size that is wanted. targets_mm: by the names of measures. locks: numbers that names shall have."""

    name: str
    targets_mm: Mapping[str, float]
    locks: Mapping[str, int]


@dataclass(frozen=True)
class GradedText:
    """The graded text and its proof. values: for each name its numbers, size by size. notes: what was not met, and why.

    stuck: names that no way moves, with the reason.
    """

    text: str
    proof: Proof
    values: Mapping[str, tuple[int, ...]]
    ways: tuple[GrowthWay, ...]
    stuck: Mapping[str, str]
    notes: tuple[str, ...]


@dataclass(frozen=True)
class Analysis:
    """A sample with the ways in which it grows; stuck: names that no way moves, with the reason."""

    sample: Sample
    ways: tuple[GrowthWay, ...]
    stuck: Mapping[str, str]


def grade_text(
    text: str, wanted: Sequence[SizeWanted], allowance_mm: float = 0.0, sample_size: str | None = None
) -> GradedText:
    """The text in the sizes that are wanted; one that has no names is lifted first.

    sample_size: the size that the others are graded from; the first one without targets, if it is not given. A size of
    the text without targets stays as it is, and a new one is at first as the sample. Raises NotGraded.
    """
    _check_sizes(wanted)
    names = list(read(text).pattern.sizes)
    start = sample_size or next((one.name for one in wanted if one.name in names and not one.targets_mm), names[0])
    return grade_from(analysed(text, start, allowance_mm), wanted)


def analysed(text: str, sample_size: str | None = None, allowance_mm: float = 0.0) -> Analysis:
    """The sample of a text with its ways to grow; its first size, if none is given. Raises NotGraded."""
    names = list(read(text).pattern.sizes)
    if sample_size is not None and sample_size not in names:
        raise NotGraded(f"There is no size “{sample_size}” in this text; there are: {', '.join(names)}.")
    sample = sample_of(text, names.index(sample_size) if sample_size is not None else 0, allowance_mm)
    ways, stuck = ways_of(sample.trials)
    return Analysis(sample, tuple(ways), stuck)


def grade_from(analysis: Analysis, wanted: Sequence[SizeWanted]) -> GradedText:
    """The text of an analysis in the sizes that are wanted; see `grade_text`. Raises NotGraded."""
    _check_sizes(wanted)
    sample, ways = analysis.sample, analysis.ways
    trials = sample.trials
    known = measures_at(sample.proof)
    _check_wishes(wanted, known, trials)
    notes: list[str] = []
    found: list[Mapping[str, int]] = []
    for size in wanted:
        own = sample.of_sizes.get(size.name, trials.base)
        values, said = (own, []) if not size.targets_mm and not size.locks else _nearest(trials, ways, size, known)
        found.append(values)
        notes += said
    values_of = {name: tuple(one[name] for one in found) for name in trials.base}
    graded = changed(trials.text, values_of, [size.name for size in wanted])
    graded = restated(graded, trials.numbering, trials.counted_as)
    proof = prove_text(graded, trials.allowance_mm)
    error = next((f for f in proof.findings if f.severity == "error"), None)
    if error is not None:
        raise NotGraded(f"The sizes come out one by one, and not together: line {error.span.line}: {error.message}")
    return GradedText(graded, proof, values_of, ways, analysis.stuck, tuple(notes))


def _check_sizes(wanted: Sequence[SizeWanted]) -> None:
    if not 1 <= len(wanted) <= MOST_SIZES:
        raise NotGraded(f"One to {MOST_SIZES} sizes are graded at once, and these are {len(wanted)}.")
    names = [size.name for size in wanted]
    if len({name.lower() for name in names}) < len(names) or not all(name.strip() for name in names):
        raise NotGraded("Each size has a name of its own.")


def _check_wishes(wanted: Sequence[SizeWanted], known: Mapping[str, float], trials: Trials) -> None:
    for size in wanted:
        for name, mm in size.targets_mm.items():
            if name not in known:
                raise NotGraded(f"“{name}” is not measured in this text; there are: {', '.join(sorted(known))}.")
            if mm <= 0:
                raise NotGraded(f"The target of “{name}” in size {size.name} is above zero.")
        for name in size.locks:
            if name not in trials.base:
                raise NotGraded(f"“{name}” is no number of this text; there are: {', '.join(trials.base)}.")


def _nearest(
    trials: Trials, ways: Sequence[GrowthWay], size: SizeWanted, known: Mapping[str, float]
) -> tuple[Mapping[str, int], list[str]]:
    """The numbers of a size, and what was not met."""
    base = dict(trials.base)
    rows = [([way.mm.get(name, 0.0) for way in ways], mm - known[name]) for name, mm in size.targets_mm.items()]
    rows += [
        ([_LOCK_WEIGHT * dict(way.step).get(name, 0) for way in ways], _LOCK_WEIGHT * (value - base[name]))
        for name, value in size.locks.items()
    ]
    used = [at for at in range(len(ways)) if any(row[at] for row, _ in rows)]
    real = _least_squares([[row[at] for at in used] for row, _ in rows], [wish for _, wish in rows])
    steps = [range(floor(x) - _AROUND + 1, floor(x) + _AROUND + 1) for x in real]

    def cost(times: Sequence[int]) -> float:
        return sum((sum(row[at] * t for at, t in zip(used, times, strict=True)) - wish) ** 2 for row, wish in rows)

    tried = sorted(product(*steps), key=lambda times: (cost(times), sum(map(abs, times))))[:_MOST_TRIED]
    why = ""
    for times in tried:
        change: dict[str, int] = {}
        for at, many in zip(used, times, strict=True):
            for name, by in ways[at].step:
                change[name] = change.get(name, 0) + many * by
        proof = trials.at(change)
        if isinstance(proof, Refuted):
            why = why or proof.message
            continue
        values = {name: value + change.get(name, 0) for name, value in base.items()}
        return values, _unmet(size, values, measures_at(proof), [ways[at] for at in used], why)
    return base, [f"{size.name}: no numbers near its targets come out; it is left as the sample. {why}".strip()]


def _unmet(
    size: SizeWanted, values: Mapping[str, int], made: Mapping[str, float], ways: Sequence[GrowthWay], why: str
) -> list[str]:
    """What is further from a target than half a step of what moves it, and what stands in the way."""
    notes = []
    for name, mm in size.targets_mm.items():
        moving = [way for way in ways if name in way.mm]
        got = made.get(name)
        if got is None:
            notes.append(f"{size.name}: {name} is not known at these numbers.")
            continue
        half = min((abs(way.mm[name]) / way.least for way in moving), default=0.0) / 2
        if abs(got - mm) > max(half, 0.5) + 1e-6:
            told = f"{size.name}: {name} comes to {got / 10:.1f} cm, not {mm / 10:.1f} cm:"
            notes.append(f"{told} {_reason(name, moving, why)}")
    for name, value in size.locks.items():
        if values[name] != value:
            notes.append(f"{size.name}: “{name}” cannot be {value}; it is {values[name]}. {why}".strip())
    return notes


def _reason(name: str, moving: Sequence[GrowthWay], why: str) -> str:
    """What stands in the way of a target."""
    steps = [
        f"{way.label} is a step of {abs(way.mm[name]) / 10:.1f} cm, and a smaller one does not come out "
        f"({way.multiple.rstrip('.')})."
        for way in moving if way.multiple
    ]  # fmt: skip
    return " ".join(steps) or why or ("nothing in the text moves it." if not moving else "other targets move with it.")


def _least_squares(rows: Sequence[Sequence[float]], wishes: Sequence[float]) -> list[float]:
    """The real steps nearest to the wishes, by the normal equations with a hair of a ridge."""
    many = len(rows[0]) if rows else 0
    square = [
        [sum(row[i] * row[j] for row in rows) + (1e-6 if i == j else 0.0) for j in range(many)]
        + [sum(row[i] * wish for row, wish in zip(rows, wishes, strict=True))]
        for i in range(many)
    ]
    for i in range(many):
        best = max(range(i, many), key=lambda at: abs(square[at][i]))
        square[i], square[best] = square[best], square[i]
        for at in range(many):
            if at != i:
                share = square[at][i] / square[i][i]
                square[at] = [a - share * b for a, b in zip(square[at], square[i], strict=True)]
    return [square[i][many] / square[i][i] for i in range(many)]
