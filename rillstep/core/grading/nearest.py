"""The sizes of a text that come nearest to their targets, along the ways of the text; each is proved."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from rillstep.core.grading.named_text import changed, restated
from rillstep.core.grading.nearest_size import Candidate, Model, Obstacle, SizeWanted, missed, size_found
from rillstep.core.grading.runs import runs_of
from rillstep.core.grading.sample import NotGraded, Sample, sample_of
from rillstep.core.grading.trials import Refuted, Trials, measures_at
from rillstep.core.grading.ways import GrowthWay, ways_of
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read

MOST_SIZES = 10
# So many other numbers are offered beside the nearest ones.
NEXT_BEST = 3
# A flap may lie over the edges of the mouth by so much.
_WIDER = 1.05


@dataclass(frozen=True)
class GradedText:
    """The graded text and its proof. values: for each name its numbers, size by size. notes: what was not met, and why.

    stuck: names that no way moves, with the reason. next_best: for each size by its name the numbers that come next,
    all of them proved.
    """

    text: str
    proof: Proof
    values: Mapping[str, tuple[int, ...]]
    ways: tuple[GrowthWay, ...]
    stuck: Mapping[str, str]
    notes: tuple[str, ...]
    next_best: Mapping[str, tuple[Candidate, ...]]


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
    gauge = next(iter(sample.proof.pattern.gauges), None)
    runs = runs_of(sample.proof.pattern)
    model = Model(trials.base, ways, known, runs, gauge.width_mm if gauge is not None else 5.0)
    notes: list[str] = []
    found: list[Mapping[str, int]] = []
    others: dict[str, tuple[Candidate, ...]] = {}
    for size in wanted:
        if not size.targets_mm and not size.locks:
            found.append(sample.of_sizes.get(size.name, trials.base))
            continue
        values, said, others[size.name] = _nearest(trials, model, size)
        found.append(values)
        notes += said
    values_of = {name: tuple(one[name] for one in found) for name in trials.base}
    graded = changed(trials.text, values_of, [size.name for size in wanted])
    graded = restated(graded, trials.numbering, trials.counted_as)
    proof = prove_text(graded, trials.allowance_mm)
    error = next((f for f in proof.findings if f.severity == "error"), None)
    if error is not None:
        raise NotGraded(f"The sizes come out one by one, and not together: line {error.span.line}: {error.message}")
    notes += [note for at, size in enumerate(wanted) if size.targets_mm for note in _out_of_place(proof, size.name, at)]
    return GradedText(graded, proof, values_of, ways, analysis.stuck, tuple(notes), others)


def _out_of_place(proof: Proof, size: str, at: int) -> list[str]:
    """What a size measures that no bag can: a flap wider than the mouth, an opening wider than the bag."""
    found = proof.bag.measures if proof.bag is not None else ()
    made = {(one.piece, one.name): mm for one in found if (mm := one.mm[at]) is not None}
    across = made.get((None, "mouth"), made.get((None, "width"), 0.0))
    notes = []
    for (piece, name), mm in made.items():
        wide = name == "opening" or (name == "width" and piece is not None and "flap" in piece.lower())
        if wide and across and mm > across * _WIDER:
            told = f"{piece}.{name}" if piece else name
            notes.append(
                f"{size}: {told} comes to {_cm(mm)}, wider than the bag at its mouth ({_cm(across)}): "
                "ask for less of it, or for a wider bag."
            )
    return notes


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
    trials: Trials, model: Model, size: SizeWanted
) -> tuple[Mapping[str, int], list[str], tuple[Candidate, ...]]:
    """The numbers of a size, what is not met, and the numbers that come next; all are proved."""
    answer = size_found(model, size)
    for name, near in answer.unlockable:
        told = " or ".join(map(str, near))
        note = f"{size.name}: “{name}” cannot be {size.locks[name]}: it can be {told}. It is left as the sample."
        return trials.base, [note], ()
    proved: list[Candidate] = []
    why = ""
    for candidate in answer.candidates:
        proof = trials.at({name: value - model.base[name] for name, value in candidate.values.items()})
        if isinstance(proof, Refuted):
            why = why or proof.message
            continue
        made = measures_at(proof)
        proved.append(Candidate(candidate.values, {name: made[name] for name in size.targets_mm if name in made}))
        break
    if not proved:
        note = f"{size.name}: no numbers near its targets come out; it is left as the sample. {why}"
        return trials.base, [note.strip()], ()
    best = proved[0]
    others = _next_best(trials, model, size, best, answer.candidates)
    notes = [_not_met(model, size, best, target, answer.obstacles, why) for target in missed(model, size, best.made_mm)]
    if not answer.whole:
        notes.append(f"{size.name}: there are very many numbers to choose from; nearer ones may have been passed over.")
    return best.values, notes, others


def _next_best(
    trials: Trials, model: Model, size: SizeWanted, best: Candidate, candidates: Sequence[Candidate]
) -> tuple[Candidate, ...]:
    """The numbers that come next: where targets are missed, those that miss them otherwise; all are proved."""
    told = missed(model, size, best.made_mm) or list(size.targets_mm)
    found = [best]
    for one in candidates:
        if len(found) > NEXT_BEST:
            break
        if any(all(abs(one.made_mm[name] - other.made_mm.get(name, 0.0)) < 0.5 for name in told) for other in found):
            continue
        proof = trials.at({name: value - model.base[name] for name, value in one.values.items()})
        if not isinstance(proof, Refuted):
            made = measures_at(proof)
            found.append(Candidate(one.values, {name: made[name] for name in size.targets_mm if name in made}))
    return tuple(found[1:])


def _not_met(
    model: Model, size: SizeWanted, best: Candidate, target: str, obstacles: Sequence[Obstacle], why: str
) -> str:
    """What a target comes to, what stands in its way, and what each way out costs."""
    got = best.made_mm.get(target)
    if got is None:
        return f"{size.name}: {target} is not known at these numbers."
    told = f"{size.name}: {target} comes to {_cm(got)}, not {_cm(size.targets_mm[target])}:"
    moving = {way.label: way for way in model.ways if target in way.mm}
    if not moving:
        return f"{told} nothing in the text moves it."
    reasons = []
    for one in obstacles:
        if one.target != target:
            continue
        without = f"without it, {target} comes to {_cm(one.without_mm)}"
        match one.kind:
            case "lock":
                reasons.append(f"“{one.name}” is locked at {size.locks[one.name]}; {without}.")
            case "least":
                reasons.append(f"“{one.name}” cannot be less than {best.values[one.name]}; {without}.")
            case "target":
                reasons.append(f"the target of {one.name} stands against it; {without}.")
            case "multiple":
                way = moving[one.name]
                step = f"{one.name} is a step of {_cm(abs(way.mm[target]))}, and a smaller one does not come out"
                reasons.append(f"{step} ({way.multiple.rstrip('.')}); else {target} comes to {_cm(one.without_mm)}.")
    return " ".join([told, *(reasons or [why or "its steps are no finer."])])


def _cm(mm: float) -> str:
    return f"{mm / 10:.1f} cm"
