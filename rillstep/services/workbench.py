"""A design worked through: solve, write, read back, work, measure, prove, estimate.

`work` reads like the table of contents of the product.
"""

import re
from collections.abc import Sequence

from rillstep.core.blocks import tote_pattern
from rillstep.core.grade import Graded, GradedSize, Reason, SizeTarget, TotePlan, grade, reasons_for
from rillstep.core.lengths import show_difference, show_length
from rillstep.core.measures import SizeShape
from rillstep.core.memory import Shelf
from rillstep.core.printing import write
from rillstep.core.proof import Proof, prove_text, questions
from rillstep.core.stitches import Terms
from rillstep.core.tree import Again, Pattern, Row
from rillstep.document import Design, Size, TextDesign, ToteDesign
from rillstep.services import views
from rillstep.services.gauge_views import gauge_view
from rillstep.services.proof_views import counts_view, kept_view, line_views, outline, question_view
from rillstep.services.teaching import findings_of
from rillstep.services.text_work import as_text_design, work_text
from rillstep.services.yarn_needs import swatch_gauge, yarn_need, yarn_view

# Extra length of a handle for the arm or shoulder that it goes over. Usual values.
ALLOWANCE_MM = {"hand": 0.0, "elbow": 20.0, "shoulder": 40.0}

LABELS = {
    "side": "Straight side of the base",
    "base_rounds": "Base rounds",
    "extra": "Extra increases a side",
    "around": "Stitches around",
    "wall_rounds": "Wall rounds",
    "handle_skip": "Handle: stitches skipped",
    "handle_chain": "Handle: chain",
}


def plan_of(design: ToteDesign) -> TotePlan:
    """The way of working of a design."""
    way = design.way
    return TotePlan(
        swatch_gauge(design.swatch, design.units),
        way.rounds, way.chain_counts, way.increases, way.base_edge, way.brim_rounds,
        way.over_rounds, way.wall_multiple, way.handle_share, ALLOWANCE_MM[way.carried],
    )  # fmt: skip


def target_of(size: Size) -> SizeTarget:
    """The targets of a size, with the locks that are set."""
    locks = {name: value for name, value in size.locks.model_dump().items() if value is not None}
    return SizeTarget(
        size.name, size.width_mm, size.height_mm, size.depth_mm, size.drop_mm, size.width_tolerance_mm,
        size.height_tolerance_mm, size.depth_tolerance_mm, size.drop_tolerance_mm, locks,
    )  # fmt: skip


def _facts(design: ToteDesign) -> tuple[tuple[str, str], ...]:
    yarn = design.yarn
    return (("Yarn", f"{yarn.name}, weight class {yarn.weight_class}"), ("Hook", f"{design.hook_mm:g} mm"))


def rows_of(proof: Proof) -> int:
    """How many rows a proof holds, each counted in every size; some 4 kB each."""
    return 1 + sum(len(work.lines) for work in proof.works)


# Proofs are immutable, and several screens ask for the same text; kept are some 80 MB of them.
_PROVED: Shelf[tuple[str, Terms | None, float], Proof] = Shelf(20_000, rows_of)


def proved(text: str, terms: Terms | None = None, allowance_mm: float = 0.0) -> Proof:
    """The proof of a text, as it was found before."""
    key = (text, terms, allowance_mm)
    known = _PROVED.get(key)
    if known is None:
        known = prove_text(text, allowance_mm, terms)
        _PROVED.put(key, known)
    return known


def allowance_of(design: Design) -> float:
    """What a shoulder takes of the length of a handle, in mm; a text says nothing of it."""
    return 0.0 if isinstance(design, TextDesign) else ALLOWANCE_MM[design.way.carried]


def text_of(design: ToteDesign, graded: Graded, plan: TotePlan) -> tuple[str, str]:
    """(the text in force, the text written from the numbers)."""
    pattern: Pattern = tote_pattern(design.name, plan, graded, design.units, _facts(design))
    written = write(pattern, "US")
    return (written if design.text is None else design.text), written


def work(design: Design, kept: Sequence[views.PhraseView] = ()) -> views.WorkView:
    """Everything that the workbench shows of a design; kept: the phrases of its studio."""
    now = current(design)
    if isinstance(now, TextDesign):
        shown = work_text(now, proof_of(now), kept)
        return shown if now is design else shown.model_copy(update={"text_design": now})
    plan = plan_of(now)
    graded = _graded(now, plan)
    text, written = text_of(now, graded, plan)
    proof = proved(text, None, plan.allowance_mm)
    return views.WorkView(
        ok=proof.ok and not any(note.severity == "error" for note in graded.notes),
        edited=now.text is not None and now.text != written,
        by_text=False,
        text_design=None,
        text=text,
        written=written,
        gauge=gauge_view(now, proof),
        sizes=[_size_view(now, plan, size, index, proof) for index, size in enumerate(graded.sizes)],
        bag=[],
        lines=line_views(proof),
        findings=findings_of(text, proof, kept),
        outline=outline(proof),
        questions=[question_view(question) for question in questions(proof, text)],
        notes=[views.NoteView.model_validate(vars(note)) for note in graded.notes],
        counts=counts_view(proof),
        kept=kept_view(proof),
    )


def _graded(design: ToteDesign, plan: TotePlan) -> Graded:
    return grade(plan, tuple(target_of(size) for size in design.sizes), design.units)


def current(design: Design) -> Design:
    """The design as it is worked: one by fields whose text was written elsewhere is a text."""
    if isinstance(design, TextDesign) or design.text is None:
        return design
    plan = plan_of(design)
    if not is_from_elsewhere(design.text, text_of(design, _graded(design, plan), plan)[1]):
        return design
    return as_text_design(design, design.text, proved(design.text).pattern.sizes)


_DIGITS = re.compile(r"[\d\s(),]+")


def is_from_elsewhere(text: str, written: str) -> bool:
    """Was a text written elsewhere? It was, where fewer than half of its lines are, apart from their numbers, lines
    of the one written from the fields."""
    own = {_DIGITS.sub("", line) for line in written.split("\n")}
    lines = [bare for line in text.split("\n") if (bare := _DIGITS.sub("", line)) and ":" in bare]
    return 2 * sum(line in own for line in lines) < len(lines)


def proof_of(design: Design) -> Proof:
    """The proof of the text in force."""
    if isinstance(design, TextDesign):
        return proved(design.text)
    plan = plan_of(design)
    return proved(text_of(design, _graded(design, plan), plan)[0], None, plan.allowance_mm)


def _size_view(design: ToteDesign, plan: TotePlan, size: GradedSize, index: int, proof: Proof) -> views.SizeView:
    here = index < len(proof.works)
    shape = proof.shapes[index] if proof.shapes and here else None
    counts = {name: int(getattr(size.counts, name)) for name in LABELS}
    lines = _lines_of_numbers(proof, index) if here else {}
    counts |= {"foundation": proof.works[index].lines[0].end.count("ch") if here and proof.works[index].lines else 0}
    return views.SizeView(
        name=size.target.name,
        counts=counts,
        measures=_measures(design, size, shape),
        reasons=[
            _reason_view(design, reason, lines.get(reason.name, 0)) for reason in reasons_for(plan, size, design.units)
        ],
        yarn=yarn_view(yarn_need(design, proof, index)) if here else None,
        shape=_shape_view(shape, plan) if shape else None,
    )


def _measures(design: ToteDesign, size: GradedSize, shape: SizeShape | None) -> list[views.MeasureView]:
    """Targets against what the worked text measures (or the solved numbers, if it cannot be measured)."""
    target, units = size.target, design.units
    worked = shape is not None and bool(shape.rounds)
    rows = (
        (
            "width",
            "Width",
            target.width_mm,
            shape.width_mm if worked and shape else size.width_mm,
            target.width_tolerance_mm,
        ),
        (
            "height",
            "Height",
            target.height_mm,
            shape.height_mm if worked and shape else size.height_mm,
            target.height_tolerance_mm,
        ),
        (
            "depth",
            "Depth of base",
            target.depth_mm,
            shape.base_depth_mm if worked and shape else size.depth_mm,
            target.depth_tolerance_mm,
        ),
        (
            "drop",
            "Handle drop",
            target.drop_mm,
            shape.drop_mm if worked and shape else size.drop_mm,
            target.drop_tolerance_mm,
        ),
    )
    return [
        views.MeasureView(
            name=name, label=label, target=show_length(wanted, units), result=show_length(got, units),
            error=show_difference(got - wanted, units), within=abs(got - wanted) <= tolerance + 1e-6,
        )
        for name, label, wanted, got, tolerance in rows
    ]  # fmt: skip


def _lines_of_numbers(proof: Proof, size: int) -> dict[str, int]:
    """In which line of the text each number is worked, so that number, bar and line light up together."""
    found: dict[str, int] = {}
    for line in proof.works[size].lines:
        if not isinstance(line.line, Row | Again):
            continue
        number, role = line.line.span.line, proof.pattern.sections[line.section].role
        if role == "oval":
            found.setdefault("side", number)
            found["base_rounds"] = number
        elif line.openings:
            found["handle_skip"] = found["handle_chain"] = number
        elif "handle_skip" not in found:
            found.setdefault("around", number)
            found.setdefault("extra", number)
            if line.line.last is not None:
                found.setdefault("wall_rounds", number)
    return found


def _reason_view(design: ToteDesign, reason: Reason, line: int) -> views.ReasonView:
    units = design.units
    return views.ReasonView(
        name=reason.name, line=line, label=LABELS[reason.name], value=reason.value, ideal=round(reason.ideal, 1),
        locked=reason.locked,
        error=None if reason.error_mm is None else show_difference(reason.error_mm, units),
        sentences=list(reason.sentences),
        neighbours=[
            views.NeighbourView(value=n.value, error=None if n.error_mm is None else show_difference(n.error_mm, units))
            for n in reason.neighbours
        ],
    )  # fmt: skip


def _shape_view(shape: SizeShape, plan: TotePlan) -> views.ShapeView:
    return views.ShapeView(
        rounds=[
            views.RoundView(
                line=r.line, section=r.section, number=r.number, sts=r.sts, width_mm=round(r.width_mm, 2),
                height_mm=round(r.height_mm, 3), gap_mm=round(r.gap_mm, 2),
                flatness=None if r.flatness is None else round(r.flatness, 3),
            )
            for r in shape.rounds
        ],
        straight_mm=shape.straight_mm, base_length_mm=shape.base_length_mm, base_depth_mm=shape.base_depth_mm,
        width_mm=shape.width_mm, height_mm=shape.height_mm, handle_mm=shape.handle_mm, drop_mm=shape.drop_mm,
        increases=2 * plan.wedges,
    )  # fmt: skip
