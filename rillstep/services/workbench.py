"""A design worked through: read, work, measure, prove, estimate; all of it from its text."""

from collections.abc import Sequence

from rillstep.core.lengths import Units, show_length
from rillstep.core.measures import is_beside
from rillstep.core.proof import Proof
from rillstep.design import Facts, facts_of
from rillstep.document import Design
from rillstep.services import views
from rillstep.services.gauge_views import asked_view, gauge_view, hook_view, yarn_said_view
from rillstep.services.proof_views import counts_view, kept_view, line_views, named_places, outline, question_view
from rillstep.services.teaching import findings_of
from rillstep.services.yarn_views import answers_view, yarn_view


def work(design: Design, kept: Sequence[views.PhraseView] = ()) -> views.WorkView:
    """Everything that the workbench shows of a design; kept: the phrases of its studio."""
    facts = facts_of(design)
    proof = facts.proof
    return views.WorkView(
        ok=proof.ok, text=design.text,
        gauge=gauge_view(facts), hook=hook_view(facts), asked=asked_view(facts), yarn_said=yarn_said_view(facts),
        strands_said=facts.strands_said, swatches=[views.SwatchView(tells=list(one)) for one in facts.swatches],
        sizes=_size_views(facts), yarn=answers_view(facts.answers), bag=bag_measure_views(proof, design.units),
        lines=line_views(proof), findings=findings_of(design.text, proof, kept), outline=outline(proof),
        questions=[question_view(question) for question in facts.questions],
        counts=counts_view(proof), kept=kept_view(proof), named=named_places(design.text, len(proof.pattern.sizes)),
    )  # fmt: skip


def _size_views(facts: Facts) -> list[views.SizeView]:
    return [
        views.SizeView(name=name, yarn=yarn_view(facts.design, needed), holds=list(holds))
        for name, needed, holds in zip(facts.proof.pattern.sizes, facts.needs, facts.holds, strict=True)
    ]


def bag_measure_views(proof: Proof, units: Units) -> list[views.BagMeasureView]:
    """The measures of the bag and of its pieces, in every size."""
    body = {section.title for section in proof.pattern.sections if not is_beside(section)}
    return [
        views.BagMeasureView(
            name=one.called, piece=one.piece, of_body=one.piece in body, label=one.label, mm=list(one.mm),
            shown=[None if mm is None else show_length(mm, units) for mm in one.mm],
            estimated=one.estimated, why=list(one.why),
        )
        for one in (proof.bag.measures if proof.bag is not None else ())
    ]  # fmt: skip
