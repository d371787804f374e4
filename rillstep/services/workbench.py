"""A design worked through: read, work, measure, prove, estimate; all of it from its text."""

from collections.abc import Sequence

from rillstep.core.craft import Terms
from rillstep.core.lengths import Units, show_length
from rillstep.core.measures import is_beside
from rillstep.core.memory import Shelf
from rillstep.core.proof import Proof, prove_text, questions
from rillstep.document import ALLOWANCE_MM, Design
from rillstep.services import views
from rillstep.services.gauge_views import asked_view, gauge_view, hook_view, yarn_said_view
from rillstep.services.growth import held_things
from rillstep.services.proof_views import counts_view, kept_view, line_views, named_places, outline, question_view
from rillstep.services.swatch_words import swatch_views
from rillstep.services.teaching import findings_of
from rillstep.services.yarn_needs import known_of, strands_said, yarn_needs
from rillstep.services.yarn_views import answers_view, yarn_view


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
    return ALLOWANCE_MM[design.carried]


def proof_of(design: Design) -> Proof:
    """The proof of the text of a design."""
    return proved(design.text, None, allowance_of(design))


def work(design: Design, kept: Sequence[views.PhraseView] = ()) -> views.WorkView:
    """Everything that the workbench shows of a design; kept: the phrases of its studio."""
    proof = proof_of(design)
    known = known_of(design, proof)
    yarns = [yarn_view(design, needed) for needed in yarn_needs(design, proof, known)]
    return views.WorkView(
        ok=proof.ok,
        text=design.text,
        gauge=gauge_view(design, proof, known),
        hook=hook_view(design, proof),
        asked=asked_view(design, proof),
        yarn_said=yarn_said_view(proof),
        strands_said=strands_said(design.text),
        swatches=swatch_views(design, proof),
        sizes=[
            views.SizeView(name=name, yarn=yarn, holds=holds)
            for name, yarn, holds in zip(proof.pattern.sizes, yarns, held_things(proof), strict=True)
        ],
        yarn=answers_view(design, proof, yarns, known),
        bag=bag_measure_views(proof, design.units),
        lines=line_views(proof),
        findings=findings_of(design.text, proof, kept),
        outline=outline(proof),
        questions=[question_view(question) for question in questions(proof, design.text)],
        counts=counts_view(proof),
        kept=kept_view(proof),
        named=named_places(design.text, len(proof.pattern.sizes)),
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
