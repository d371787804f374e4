"""A design that is a text, worked through: proof, measures and yarn, all from the text."""

from collections.abc import Sequence

from rillstep.core.lengths import Units, show_length
from rillstep.core.measures import is_beside
from rillstep.core.proof import Proof, questions
from rillstep.document import TextDesign, TextSize, ToteDesign, Yarn, blank
from rillstep.services import views
from rillstep.services.gauge_views import gauge_view
from rillstep.services.proof_views import counts_view, kept_view, line_views, outline, question_view
from rillstep.services.teaching import findings_of
from rillstep.services.yarn_needs import yarn_need, yarn_view


def work_text(design: TextDesign, proof: Proof, kept: Sequence[views.PhraseView] = ()) -> views.WorkView:
    """Everything that the workbench shows of a design that is a text."""
    return views.WorkView(
        ok=proof.ok,
        edited=False,
        by_text=True,
        text_design=None,
        text=design.text,
        written=design.text,
        gauge=gauge_view(design, proof),
        sizes=[
            views.SizeView(
                name=name, counts={}, measures=[], reasons=[], yarn=yarn_view(yarn_need(design, proof, at)), shape=None
            )
            for at, name in enumerate(proof.pattern.sizes)
        ],
        bag=bag_measure_views(proof, design.units),
        lines=line_views(proof),
        findings=findings_of(design.text, proof, kept),
        outline=outline(proof),
        questions=[question_view(question) for question in questions(proof, design.text)],
        notes=[],
        counts=counts_view(proof),
        kept=kept_view(proof),
    )


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


def as_text_design(design: ToteDesign, text: str, sizes: Sequence[str]) -> TextDesign:
    """A design by fields whose text is its own, as a design that is a text. Fields that were left as they come are no
    facts of the bag, and do not go with it."""
    usual = blank()
    return TextDesign(
        name=design.name, units=design.units, terms=design.terms, hand=design.hand, text=text,
        sizes=[TextSize(name=name) for name in sizes], yarn=None if design.yarn == Yarn() else design.yarn,
        hook_mm=None if design.hook_mm == usual.hook_mm else design.hook_mm,
        swatch=None if design.swatch == usual.swatch else design.swatch, parts=design.parts, notes=design.notes,
    )  # fmt: skip
