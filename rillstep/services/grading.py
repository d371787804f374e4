"""Grading a design that is a text: how it can grow, and its sizes as they would be, before anything is changed."""

from collections.abc import Mapping, Sequence

from rillstep.core.contents import THINGS, Thing, measures_for
from rillstep.core.drawings import Outline, drawings_of, silhouette
from rillstep.core.grading import Analysis, GradedText, NotGraded, NotResized, resized
from rillstep.core.grading.gauge_lines import with_gauge, with_hook, with_mesh_gauge
from rillstep.core.grading.renaming import NotNamed
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.grading.trials import Refuted
from rillstep.core.grading.ways import GrowthWay
from rillstep.core.lengths import Units, show_difference, show_length
from rillstep.core.measures import Measure
from rillstep.core.proof import Proof
from rillstep.core.words.named_numbers import names_of
from rillstep.design import facts_of, proved
from rillstep.design.grading import Target, as_written, graded_from, next_best_of, targets_of
from rillstep.design.grading import locks_of_steps as steps_locked
from rillstep.design.growth import Growth, growth_of
from rillstep.design.naming import NameChange, lines_of_names, plain_numbers, sections_of_names, with_changed_names
from rillstep.document import Design
from rillstep.publish.drawing import path_of
from rillstep.services import grading_views as views
from rillstep.services.text_changes import changes_of


def grading_view(design: Design) -> views.GradingView:
    """The numbers of a design by name, what is held, and the ways in which it grows."""
    facts = facts_of(design)
    try:
        analysis = facts.analysis
    except NotGraded as refused:
        return views.GradingView(
            problem=str(refused), sample="", sizes=[], named=False, numbers=[], ways=[], held=[], plain=[], growth=[]
        )  # fmt: skip
    sample = analysis.sample
    lines = {name: each.line for name, each in names_of(design.text.split("\n")).defined.items()}
    sections, stands = sections_of_names(sample.trials.text), lines_of_names(design.text)
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
        plain=[] if sample.places else [views.PlainNumberView(**vars(one)) for one in plain_numbers(design.text)],
        growth=[
            _growth_view(one, design.units)
            for one in growth_of(
                facts.proof, {name: [own[name] for own in sample.of_sizes.values()] for name in sample.trials.base}
            )
        ],
    )  # fmt: skip


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


def changed_names(design: Design, change: NameChange) -> views.ChangedDesignView:
    """The design with other names. problem: why it was not changed."""
    try:
        return views.ChangedDesignView(problem=None, document=with_changed_names(design, change))
    except (NotNamed, NotGraded) as refused:
        return views.ChangedDesignView(problem=str(refused), document=design)


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


def _growth_view(one: Growth, units: Units) -> views.GrowthRowView:
    value = (lambda mm: show_length(mm, units)) if one.is_length else str
    step = (lambda mm: show_difference(mm, units)) if one.is_length else "{:+d}".format
    return views.GrowthRowView(
        label=one.label, values=[value(each) for each in one.values], steps=[step(each) for each in one.steps],
        uneven=one.uneven,
    )  # fmt: skip


def thing_views() -> list[views.ThingView]:
    """The things that a size may have to hold, with what it must measure for them."""
    return [_thing(thing) for thing in THINGS]


def own_thing(width_mm: float, height_mm: float, depth_mm: float) -> views.ThingView:
    """A thing of the designer's own."""
    return _thing(Thing("own", "a thing of your own", width_mm, height_mm, depth_mm))


def _thing(thing: Thing) -> views.ThingView:
    return views.ThingView(key=thing.key, name=thing.name, targets_mm=measures_for(thing))


def locks_of_steps(design: Design, steps: Sequence[int]) -> views.StepsView:
    """The numbers of a size that is so many steps from the sample along each way; problem: why there are none."""
    try:
        return views.StepsView(problem=None, locks=steps_locked(facts_of(design).analysis, steps))
    except NotGraded as refused:
        return views.StepsView(problem=str(refused), locks={})


def graded_view(design: Design) -> views.GradedView:
    """The text of a design as it would be in the sizes that are wanted, with all that would change in it."""
    facts = facts_of(design)
    design = as_written(design, facts.proof)
    try:
        graded = graded_from(facts.analysis, design)
    except NotGraded as refused:
        return views.GradedView(
            problem=str(refused), text=design.text, sizes=[], proved=False, numbers=[], targets=[], notes=[],
            next_best=[], changes=[], not_changed=[],
        )  # fmt: skip
    lines = graded.text.split("\n")
    measures = _by_name(graded.proof)
    return views.GradedView(
        problem=None, text=graded.text, sizes=list(graded.proof.pattern.sizes), proved=graded.proof.ok,
        numbers=[
            views.NumberView(
                name=name, values=list(values), section="", places=0, line=0, lines=[], reason=graded.stuck.get(name),
                ways=[at for at, way in enumerate(graded.ways) if name in dict(way.step)],
            )
            for name, values in graded.values.items()
        ],
        targets=[_target(one, measures[one.name], design.units) for one in targets_of(design, graded)],
        notes=list(graded.notes), next_best=_next_best(design, graded), changes=changes_of(design.text, graded.text),
        not_changed=[
            views.KeptDigitsView(line=one.line, number=one.number, was=one.was, words=lines[one.line - 1].strip())
            for one in graded.kept
        ],
    )  # fmt: skip


def _next_best(design: Design, graded: GradedText) -> list[views.NextBestView]:
    """The other numbers of sizes that miss a target."""
    measures = _by_name(graded.proof)
    return [
        views.NextBestView(
            size=one.size,
            locks=one.locks,
            targets=[_target(target, measures[target.name], design.units) for target in one.targets],
        )
        for one in next_best_of(design, graded)
    ]


def _target(one: Target, measure: Measure, units: Units) -> views.TargetView:
    made = one.made_mm
    return views.TargetView(
        size=one.size, name=one.name, label=measure.label, piece=measure.piece,
        target=show_length(one.wanted_mm, units), result="–" if made is None else show_length(made, units),
        difference="–" if made is None else show_difference(made - one.wanted_mm, units), within=one.within,
    )  # fmt: skip
