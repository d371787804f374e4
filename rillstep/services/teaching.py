"""Phrases taught to a text, and offered where words are not understood. Nothing is kept here."""

from collections.abc import Sequence

from rillstep.core.craft import Terms
from rillstep.core.findings import Edit, Finding, Repair
from rillstep.core.notation.phrases import NOTHING, offer, stands_in, teach, vouchable
from rillstep.core.proof import Proof, prove_text
from rillstep.services import views
from rillstep.services.errors import Invalid
from rillstep.services.proof_views import finding_view, repair_views


def taught(text: str, terms: Terms | None, words: str, meaning: str) -> views.TaughtView:
    """The edit that writes a phrase into the head of a text. Raises Invalid."""
    pattern = prove_text(text, terms=terms).pattern
    edit = teach(text, words, meaning, pattern.terms, [special.name for special in pattern.specials])
    if isinstance(edit, Finding):
        raise Invalid(edit.message)
    return views.TaughtView(edit=_edit_view(edit))


def findings_of(text: str, proof: Proof, kept: Sequence[views.PhraseView]) -> list[views.FindingView]:
    """The findings of a text; where words are not understood, they are offered to be taught, a phrase of the studio's
    first."""
    rows, own = text.split("\n"), [special.name for special in proof.pattern.specials]
    found: list[views.FindingView] = []
    for finding in proof.findings:
        view = finding_view(finding, proof.pattern.sizes)
        at = finding.span.line - 1
        offered = offer(rows[at], finding, own) if at < len(rows) else None
        if offered is not None:
            known = [from_studio(text, proof, phrase, own) for phrase in kept if stands_in(rows[at], phrase.words)]
            repairs = [*repair_views(tuple(one for one in known if one is not None)), *view.repairs]
            told = views.OfferView(words=offered.words, nothing=offered.nothing, vouch=vouchable(rows[at], finding))
            view = view.model_copy(update={"offer": told, "repairs": repairs})
        found.append(view)
    return found


def from_studio(text: str, proof: Proof, phrase: views.PhraseView, own: Sequence[str]) -> Repair | None:
    """The edit that writes a phrase of the studio into a text; None where it is there, or may not be."""
    edit = teach(text, phrase.words, phrase.meaning, proof.pattern.terms, own)
    if isinstance(edit, Finding) or f'"{phrase.words}"' in text:
        return None
    meant = "changes nothing" if phrase.meaning == NOTHING else f"means “{phrase.meaning}”"
    return Repair(f"From your phrases: “{phrase.words}” {meant}", (edit,))


def _edit_view(edit: Edit) -> views.EditView:
    return views.EditView(**vars(edit.span), text=edit.text)
