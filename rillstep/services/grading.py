"""Grading a design that is a text: how it can grow, and its sizes as they would be, before anything is changed."""

from collections.abc import Mapping, Sequence

from rillstep.core.drawings import Outline, drawings_of, silhouette
from rillstep.core.grading import Analysis, GradedText, NotGraded, NotResized, SizeWanted, analysed, grade_from, resized
from rillstep.core.grading.gauge_lines import with_gauge, with_hook, with_mesh_gauge
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.grading.trials import MOST_PROVED, Refuted
from rillstep.core.grading.ways import GrowthWay
from rillstep.core.lengths import Units, show_difference, show_length
from rillstep.core.measures import Measure
from rillstep.core.memory import Shelf
from rillstep.core.proof import Proof
from rillstep.core.settling import read
from rillstep.core.size_order import placed
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in, names_of
from rillstep.document import Design, Size
from rillstep.document.design import tolerance_mm
from rillstep.publish.drawing import path_of
from rillstep.services import grading_views as views
from rillstep.services.growth import growth_rows, measures_by_size
from rillstep.services.naming import plain_numbers
from rillstep.services.text_changes import changes_of
from rillstep.services.workbench import allowance_of, proof_of, proved, rows_of


def _weight(analysis: Analysis) -> int:
    """The rows of all the proofs that an analysis may hold."""
    return MOST_PROVED * rows_of(analysis.sample.proof)


_ANALYSES: Shelf[tuple[str, str | None, float], Analysis] = Shelf(40_000, _weight)


def analysis_of(design: Design) -> Analysis:
    """The analysis of a design, as it was found before. It takes seconds, and each change of a target asks for it.
    Raises NotGraded."""
    key = (design.text, design.sample, allowance_of(design))
    known = _ANALYSES.get(key)
    if known is None:
        known = analysed(*key)
        _ANALYSES.put(key, known)
    return known


def grading_view(design: Design) -> views.GradingView:
    """The numbers of a design by name, what is held, and the ways in which it grows."""
    try:
        analysis = analysis_of(design)
    except NotGraded as refused:
        return views.GradingView(
            problem=str(refused), sample="", sizes=[], named=False, numbers=[], ways=[], held=[], plain=[], growth=[]
        )  # fmt: skip
    sample = analysis.sample
    lines = {name: each.line for name, each in names_of(design.text.split("\n")).defined.items()}
    sections, stands = _sections(sample.trials.text), _lines(design.text)
    reasons: dict[str, list[int]] = {}
    for held in sample.held:
        reasons.setdefault(held.reason, []).append(held.line)
    return views.GradingView(
        problem=None, sample=sample.size, sizes=list(sample.of_sizes), named=not sample.places,
        numbers=[
            views.NumberView(
                name=name, values=[own[name] for own in sample.of_sizes.values()],
                section=sections.get(name, ""), places=sample.places.get(name, 0),
                line=lines.get(name, 0), lines=stands.get(name, []), reason=analysis.stuck.get(name),
                ways=[at for at, way in enumerate(analysis.ways) if name in dict(way.step)],
            )
            for name in sample.trials.base
        ],
        ways=[
            views.GrowthView(
                label=way.label, step=dict(way.step), moves=_moves(way.mm, sample.proof, design.units),
                multiple=way.multiple, ghosts=_ghosts(analysis, way, design),
            )
            for way in analysis.ways
        ],
        held=[
            views.HeldView(reason=reason, many=len(found), lines=sorted(set(found)))
            for reason, found in reasons.items()
        ],
        plain=[] if sample.places else plain_numbers(design.text),
        growth=growth_rows(
            proof_of(design), {name: [own[name] for own in sample.of_sizes.values()] for name in sample.trials.base},
            design.units,
        ),
    )  # fmt: skip


def _sections(text: str) -> dict[str, str]:
    """In which section each name of a text stands first."""
    found: dict[str, str] = {}
    lines = text.split("\n")
    for section, line in read(text).pattern.lines():
        for braces in BRACES.finditer(lines[line.span.line - 1]):
            for name in names_in(braces[1]):
                found.setdefault(name, section.title)
    return found


def _lines(text: str) -> dict[str, list[int]]:
    """On which lines of a text each name stands, but for its definition."""
    found: dict[str, list[int]] = {}
    for number, raw in enumerate(text.split("\n"), start=1):
        names = () if DEFINED.match(raw) else {name for braces in BRACES.finditer(raw) for name in names_in(braces[1])}
        for name in names:
            found.setdefault(name, []).append(number)
    return found


def resized_text(text: str, sizes: list[str], sources: list[int]) -> views.ChangedTextView:
    """The text for other sizes, or in another order, or by other names; each begins as the one that is its source."""
    try:
        return views.ChangedTextView(problem=None, text=resized(text, sizes, sources))
    except NotResized as refused:
        return views.ChangedTextView(problem=str(refused), text=text)


def with_gauge_text(text: str, stitch: str, sts: float, rows: float, units: Units) -> views.ChangedTextView:
    """The text with the gauge of plain stitches that it shall name; the lengths that it states follow, where they were
    true before. stitch: in US terms, or "mesh", which is counted by its loops."""
    of_mesh = stitch == "mesh"
    after = with_mesh_gauge(text, sts, rows, units) if of_mesh else with_gauge(text, stitch, sts, rows, units)
    return views.ChangedTextView(problem=None, text=proved_with_lengths(after)[0] if proved(text).ok else after)


def with_hook_text(text: str, hook_mm: float) -> views.ChangedTextView:
    """The text with the hook that it shall name."""
    return views.ChangedTextView(problem=None, text=with_hook(text, hook_mm))


def _ghosts(analysis: Analysis, way: GrowthWay, design: Design) -> list[views.GhostView]:
    """The outlines of the views that a step changes, after it."""
    after = analysis.sample.trials.at(dict(way.step))
    if isinstance(after, Refuted) or after.bag is None or analysis.sample.proof.bag is None:
        return []
    before = {one.title: silhouette(one) for one in drawings_of(analysis.sample.proof.bag, 0, design.carried)}
    return [
        views.GhostView(title=one.title, d=path_of(Outline("edge", outline)))
        for one in drawings_of(after.bag, 0, design.carried)
        if one.view != "strap" and (outline := silhouette(one)) and outline != before.get(one.title)
    ]


def _moves(moved: Mapping[str, float], proof: Proof, units: Units) -> list[views.MoveView]:
    return [
        views.MoveView(name=name, label=one.label, piece=one.piece, shown=show_difference(moved[name], units))
        for name, one in _by_name(proof).items() if name in moved
    ]  # fmt: skip


def _by_name(proof: Proof) -> dict[str, Measure]:
    return {one.called: one for one in (proof.bag.measures if proof.bag is not None else ())}


def size_wanted(design: Design, size: Size) -> SizeWanted:
    """A size with the targets that count."""
    counts = {name: mm for name, mm in size.targets_mm.items() if design.weights.get(name, 1.0)}
    return SizeWanted(size.name, counts, size.locks, design.weights)


def locks_of_steps(design: Design, steps: Sequence[int]) -> views.StepsView:
    """The numbers of a size that is so many steps from the sample along each way of its growth: of the names that the
    ways move, the others follow from what is wanted. problem: why there are none."""
    try:
        analysis = analysis_of(design)
    except NotGraded as refused:
        return views.StepsView(problem=str(refused), locks={})
    if len(steps) > len(analysis.ways):
        return views.StepsView(problem=f"This bag can grow in {len(analysis.ways)} ways only.", locks={})
    moved: dict[str, int] = {}
    for way, many in zip(analysis.ways, steps, strict=False):
        for name, by in way.step:
            moved[name] = moved.get(name, analysis.sample.trials.base[name]) + (many * by)
    below = [name for name, value in moved.items() if value < 0]
    if below:
        return views.StepsView(problem=f"“{below[0]}” would be less than nothing; take fewer steps.", locks={})
    return views.StepsView(problem=None, locks=moved)


def as_written(design: Design) -> Design:
    """A design with its sizes in the order in which they are written. The sample that it names is as it is in the text:
    nothing is wanted of it."""
    sizes = {
        size.name: size.model_copy(update={"targets_mm": {}, "locks": {}}) if size.name == design.sample else size
        for size in design.sizes
    }
    if len(sizes) < len(design.sizes):
        return design  # two of one name, which grading refuses
    targets = {name: size_wanted(design, size).targets_mm for name, size in sizes.items()}
    order = placed(targets, measures_by_size(proof_of(design)))
    return design.model_copy(update={"sizes": [sizes[name] for name in order]})


def graded_view(design: Design) -> views.GradedView:
    """The text of a design as it would be in the sizes that are wanted, with all that would change in it."""
    design = as_written(design)
    try:
        graded = grade_from(analysis_of(design), [size_wanted(design, size) for size in design.sizes])
    except NotGraded as refused:
        return views.GradedView(
            problem=str(refused),
            text=design.text,
            sizes=[],
            proved=False,
            numbers=[],
            targets=[],
            notes=[],
            next_best=[],
            changes=[],
            not_changed=[],
        )
    lines = graded.text.split("\n")
    return views.GradedView(
        problem=None, text=graded.text, sizes=list(graded.proof.pattern.sizes), proved=graded.proof.ok,
        numbers=[
            views.NumberView(
                name=name, values=list(values), section="", places=0, line=0, lines=[], reason=graded.stuck.get(name),
                ways=[at for at, way in enumerate(graded.ways) if name in dict(way.step)],
            )
            for name, values in graded.values.items()
        ],
        targets=_targets(design, graded), notes=list(graded.notes),
        next_best=_next_best(design, graded), changes=changes_of(design.text, graded.text),
        not_changed=[
            views.KeptDigitsView(line=one.line, number=one.number, was=one.was, words=lines[one.line - 1].strip())
            for one in graded.kept
        ],
    )  # fmt: skip


def _next_best(design: Design, graded: GradedText) -> list[views.NextBestView]:
    """The other numbers of sizes that miss a target."""
    known = _by_name(graded.proof)
    return [
        views.NextBestView(
            size=size.name,
            targets=[_target(design, size, known[name], mm, size.targets_mm[name]) for name, mm in one.made_mm.items()],
            locks={name: value for name, value in one.values.items() if value != graded.values[name][at]},
        )
        for at, size in enumerate(design.sizes) if any(note.startswith(f"{size.name}: ") for note in graded.notes)
        for one in graded.next_best.get(size.name, ())
    ]  # fmt: skip


def _target(design: Design, size: Size, measure: Measure, got: float | None, wanted: float) -> views.TargetView:
    name = measure.called
    tolerance = tolerance_mm(size, name)
    return views.TargetView(
        size=size.name, name=name, label=measure.label, piece=measure.piece, target=show_length(wanted, design.units),
        result="–" if got is None else show_length(got, design.units),
        difference="–" if got is None else show_difference(got - wanted, design.units),
        within=got is not None and abs(got - wanted) <= tolerance + 1e-6,
    )  # fmt: skip


def _targets(design: Design, graded: GradedText) -> list[views.TargetView]:
    found = []
    known = _by_name(graded.proof)
    for at, size in enumerate(design.sizes):
        found += [
            _target(design, size, known[name], known[name].mm[at], size.targets_mm[name])
            for name in known if name in size.targets_mm
        ]  # fmt: skip
    return found
