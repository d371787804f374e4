"""The sizes of a text that come nearest to their targets, along the ways of the text; each is proved."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.findings import Finding, Span
from rillstep.core.grading.floors import floors_of
from rillstep.core.grading.gauge_lines import with_size_gauges
from rillstep.core.grading.kept_digits import KeptDigits, kept_digits
from rillstep.core.grading.measured_lines import MeasuredLine, at_lengths, measured_lines
from rillstep.core.grading.named_text import changed, restated
from rillstep.core.grading.nearest_size import Candidate, Model, SizeFound, SizeWanted, missed, size_found
from rillstep.core.grading.runs import rounds_of, runs_of
from rillstep.core.grading.sample import SQUARES_STAY, NotGraded, Sample, sample_of
from rillstep.core.grading.shortfalls import not_met, not_met_by_length, nothing_near, out_of_place
from rillstep.core.grading.size_gauges import GaugeNotRead, model_in
from rillstep.core.grading.slots import SIDE_OF_A_SQUARE
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.grading.trials import Refuted, Trials, measures_at
from rillstep.core.grading.ways import GrowthWay, ways_of
from rillstep.core.proof import Proof
from rillstep.core.settling import read
from rillstep.core.watch import report

MOST_SIZES = 10
# So many other numbers are offered beside the nearest ones.
NEXT_BEST = 3
# So often measures that are no sums of lengths are corrected.
_MOST_CORRECTED = 3


@dataclass(frozen=True)
class GradedText:
    """The graded text and its proof. values: for each name its numbers, size by size. notes: what was not met, and why.

    stuck: names that no way moves, with the reason. next_best: for each size by its name the numbers that come next,
    all of them proved. kept: digits in kept words that may belong to a number that changed; they are not touched.
    missed: the sizes of which something was not met.
    """

    text: str
    proof: Proof
    values: Mapping[str, tuple[int, ...]]
    ways: tuple[GrowthWay, ...]
    stuck: Mapping[str, str]
    notes: tuple[str, ...]
    next_best: Mapping[str, tuple[Candidate, ...]]
    kept: tuple[KeptDigits, ...] = ()
    missed: frozenset[str] = frozenset()


@dataclass(frozen=True)
class Analysis:
    """A sample with the ways in which it grows; stuck: names that no way moves, with the reason. lines: those that are
    worked to a length."""

    sample: Sample
    ways: tuple[GrowthWay, ...]
    stuck: Mapping[str, str]
    lines: tuple[MeasuredLine, ...] = ()


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
    return Analysis(sample, tuple(ways), stuck, measured_lines(sample.trials, sample.proof))


def with_names(text: str, allowance_mm: float = 0.0) -> str:
    """The text in all of its sizes, with names for the numbers that may move; one that has names stays as it is. Raises
    NotGraded."""
    sample = sample_of(text, 0, allowance_mm)
    if not sample.places:
        return text
    if len(sample.of_sizes) == 1:
        return sample.trials.text
    named, _, error = _written(sample, [SizeWanted(name, {}, {}) for name in sample.of_sizes], {}, {}, {})
    if error is not None:
        raise NotGraded(f"With names this text does not come out: line {error.span.line}: {error.message}")
    return named


def with_values(text: str, values: Mapping[str, Sequence[int]], allowance_mm: float = 0.0) -> str:
    """The text with other numbers behind some of its names, one for each size, and what follows from them restated;
    where that does not come out, only these numbers are changed, and the findings say what is wrong."""
    only = changed(text, values)
    try:
        trials = sample_of(text, 0, allowance_mm).trials
    except NotGraded:
        return only
    follows, proof = proved_with_lengths(restated(only, trials.numbering, trials.counted_as), allowance_mm)
    return follows if proof.ok else only


def grade_from(analysis: Analysis, asked: Sequence[SizeWanted]) -> GradedText:
    """The text of an analysis in the sizes that are wanted; see `grade_text`. Raises NotGraded."""
    _check_sizes(asked)
    sample, ways = analysis.sample, analysis.ways
    trials = sample.trials
    known = measures_at(sample.proof)
    _check_wishes(asked, known, trials)
    lengths = _lengths(analysis, asked, known)
    by_length = {name for line in analysis.lines for name in line.moves}
    wanted = [
        replace(one, targets_mm={k: mm for k, mm in one.targets_mm.items() if k not in by_length}) for one in asked
    ]
    gauges = {size.name: _gauges(sample, size) for size in wanted}
    models = _models(sample, ways, known, gauges)
    answers: dict[str, SizeFound] = {}
    for done, size in enumerate(wanted):
        report("Finding the numbers of the sizes", done, len(wanted))
        if size.targets_mm or size.locks:
            answers[size.name] = size_found(models[size.name], size)
    report("Writing and proving the sizes", 0, 1)
    first = {name: next(iter(answer.candidates), None) for name, answer in answers.items()}
    graded, proof, error = _written(sample, wanted, first, lengths, gauges)
    why: dict[str, str] = {}
    if error is not None:  # not all of them come out: each size is proved by itself
        for name, answer in answers.items():
            first[name], why[name] = _first_proved(trials, answer)
            if first[name] is None and answer.candidates:
                first[name] = _without_a_way(trials, models[name], next(size for size in wanted if size.name == name))
        graded, proof, error = _written(sample, wanted, first, lengths, gauges)
    if error is not None:
        raise NotGraded(f"The sizes come out one by one, and not together: line {error.span.line}: {error.message}")
    for _ in range(_MOST_CORRECTED):  # a drop is no sum of lengths: it is measured, and corrected
        other = {
            size.name: _corrected(models[size.name], size, best, {name: mm[at] for name, mm in _made(proof).items()})
            for at, size in enumerate(wanted)
            if (best := first.get(size.name)) is not None
        }
        if all(one is first[name] for name, one in other.items()):
            break
        again, proved, refuted = _written(sample, wanted, first | other, lengths, gauges)
        if refuted is not None:
            break
        first, graded, proof = first | other, again, proved
    values_of = _values(sample, wanted, first)
    made = _made(proof)
    told: list[tuple[str, str]] = []  # (size, sentence)
    others: dict[str, tuple[Candidate, ...]] = {}
    for at, size in enumerate(wanted):
        if size.name not in answers:
            continue
        model, best = models[size.name], first[size.name]
        if best is None:
            told.append((size.name, nothing_near(size, answers[size.name], why.get(size.name, ""))))
            continue
        best = Candidate(
            best.values, {name: mm for name in size.targets_mm if (mm := made.get(name, ())[at]) is not None}
        )
        squares = any(one.reason == SIDE_OF_A_SQUARE for one in sample.held)
        unmoved = SQUARES_STAY if squares else ""
        notes = not_met(model, size, best, answers[size.name], why.get(size.name, ""), unmoved)
        told += [(size.name, note) for note in notes]
        if missed(model, size, best.made_mm) and not gauges[size.name]:  # others are measured in the sample's gauge
            others[size.name] = _next_best(trials, model, size, best, answers[size.name].candidates)
    for at, size in enumerate(asked):
        notes = not_met_by_length(
            size, {name: made[name][at] for name in size.targets_mm if name in by_length}, models[size.name]
        )
        notes += out_of_place(proof, size.name, at) if size.targets_mm else []
        told += [(size.name, note) for note in notes]
    kept = kept_digits(graded, proof.pattern, trials.counted_as, values_of, trials.base)
    notes = [note for _, note in told]
    missed_in = frozenset(size for size, _ in told)
    return GradedText(graded, proof, values_of, ways, analysis.stuck, tuple(notes), others, kept, missed_in)


def _corrected(
    model: Model, size: SizeWanted, best: Candidate, made_mm: Mapping[str, float | None]
) -> Candidate | None:
    """The numbers with a way changed that moves one target alone, where it is measured to be off by more than half a
    step; themselves where there is none."""
    for way in model.ways:
        (target, *others) = [name for name in size.targets_mm if name in way.mm] or [""]
        got = made_mm.get(target)
        if others or got is None or len(way.step) > 1 or way.step[0][0] in size.locks:
            continue  # more than one number would change the shape of the bag for it
        steps = round((size.targets_mm[target] - got) / way.mm[target])
        step = dict(way.step)
        values = {name: value + steps * step.get(name, 0) for name, value in best.values.items()}
        if steps and all(values[name] >= min(model.base[name], 1) for name in step):
            return Candidate(values, best.made_mm)
    return best


def _gauges(sample: Sample, size: SizeWanted) -> tuple[str, ...]:
    """The gauges of a size that has others than the sample; none for any other."""
    return (size.gauge,) if size.gauge.strip() else sample.of_gauges.get(size.name, ())


def _models(
    sample: Sample, ways: Sequence[GrowthWay], known: Mapping[str, float], gauges: Mapping[str, tuple[str, ...]]
) -> dict[str, Model]:
    """What each size is found from, in its own gauge. Raises NotGraded."""
    usual = _model(sample, ways, known)
    try:
        own = {
            one: model_in(usual, sample.trials.text, one, sample.trials.allowance_mm)
            for one in set(gauges.values())
            if one
        }
    except GaugeNotRead as error:
        raise NotGraded(str(error)) from None
    return {name: own.get(one, usual) for name, one in gauges.items()}


def _model(sample: Sample, ways: Sequence[GrowthWay], known: Mapping[str, float]) -> Model:
    pattern, trials = sample.proof.pattern, sample.trials
    gauge = next(iter(pattern.gauges), None)
    stitch_mm, row_mm = (gauge.width_mm, gauge.height_mm) if gauge is not None else (5.0, 5.0)
    rounds = rounds_of(pattern) - trials.rows_by
    return Model(trials.base, ways, known, runs_of(pattern), stitch_mm, rounds, row_mm, floors_of(trials.text))


def _values(
    sample: Sample, wanted: Sequence[SizeWanted], found: Mapping[str, Candidate | None]
) -> dict[str, tuple[int, ...]]:
    """The numbers of each name, size by size; a size that nothing was found for is as in the text or the sample."""
    base = sample.trials.base
    each = [
        one.values
        if (one := found.get(size.name)) is not None
        else base
        if size.name in found
        else sample.of_sizes.get(size.name, base)
        for size in wanted
    ]
    return {name: tuple(one[name] for one in each) for name in base}


def _lengths(
    analysis: Analysis, wanted: Sequence[SizeWanted], known: Mapping[str, float]
) -> dict[Span, tuple[float, ...]]:
    """The lengths of the lines by measure in each size: as its target says, else as in the text or the sample."""
    sample = analysis.sample
    own = [line.value for line in analysis.lines]
    found = {}
    for at, line in enumerate(analysis.lines):
        each = []
        for size in wanted:
            target = next((name for name in size.targets_mm if name in line.moves), None)
            as_it_is = sample.of_lengths.get(size.name, own)[at]
            each.append(line.for_target(size.targets_mm[target], known[target]) if target is not None else as_it_is)
        found[line.span] = tuple(each)
    return found


def _written(
    sample: Sample,
    wanted: Sequence[SizeWanted],
    found: Mapping[str, Candidate | None],
    lengths: Mapping[Span, Sequence[float]],
    gauges: Mapping[str, Sequence[str]],
) -> tuple[str, Proof, Finding | None]:
    """The text in all sizes, its proof, and the first error in it."""
    trials = sample.trials
    text = at_lengths(trials.text, lengths)
    text = changed(text, _values(sample, wanted, found), [size.name for size in wanted])
    text = with_size_gauges(text, {name: own for name, own in gauges.items() if own})
    text = restated(text, trials.numbering, trials.counted_as)
    text, proof = proved_with_lengths(text, trials.allowance_mm)
    return text, proof, next((f for f in proof.findings if f.severity == "error"), None)


def _first_proved(trials: Trials, answer: SizeFound) -> tuple[Candidate | None, str]:
    """The nearest candidate that is proved by itself, and what refutes a nearer one."""
    why = ""
    for candidate in answer.candidates:
        proof = trials.at({name: value - trials.base[name] for name, value in candidate.values.items()})
        if not isinstance(proof, Refuted):
            return candidate, why
        why = why or proof.message
    return None, why


def _without_a_way(trials: Trials, model: Model, size: SizeWanted) -> Candidate | None:
    """The nearest proved candidate of those that leave one way as it is, where none of all together is proved."""
    found = [
        one
        for at in range(len(model.ways))
        if (one := _first_proved(trials, size_found(_leaving(model, at), size))[0]) is not None
    ]
    return min(
        found, key=lambda one: sum((one.made_mm[name] - mm) ** 2 for name, mm in size.targets_mm.items()), default=None
    )


def _leaving(model: Model, at: int) -> Model:
    return replace(model, ways=[way for index, way in enumerate(model.ways) if index != at])


def _made(proof: Proof) -> dict[str, tuple[float | None, ...]]:
    """What each measure comes to in each size, in mm, by the name that targets call it."""
    found = proof.bag.measures if proof.bag is not None else ()
    return {one.called: one.mm for one in found}


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
