"""A pattern written elsewhere: proved or refuted line by line, and kept as a design if wanted."""

from collections.abc import Sequence
from unicodedata import category

from rillstep.core.craft import Terms
from rillstep.core.proof import Hand, Proof, prove_text, questions, reader_text
from rillstep.design import proved
from rillstep.document import Design
from rillstep.document.design import sizes_named
from rillstep.services import views
from rillstep.services.proof_views import counts_view, kept_view, line_views, outline, question_view
from rillstep.services.teaching import findings_of
from rillstep.services.words import size_index


def check(text: str, terms: Terms | None = None, kept: Sequence[views.PhraseView] = ()) -> views.CheckView:
    """Read, work and prove a text; `terms` where they are known better than the text says; kept: phrases of the
    studio."""
    proof = proved(text, terms)
    pattern = proof.pattern
    return views.CheckView(
        ok=proof.ok,
        name=pattern.name,
        terms=pattern.terms,
        sizes=list(pattern.sizes),
        lines=line_views(proof),
        findings=findings_of(text, proof, kept),
        counts=counts_view(proof),
        kept=kept_view(proof),
        words=_words(text, proof),
        questions=[question_view(question) for question in questions(proof, text)],
        outline=outline(proof),
    )


def printed(text: str, terms: Terms | None, into: Terms, size: str | None, hand: Hand) -> str:
    """The text as it is printed for readers, read back and proved; a line that is not proved stands as it was written.
    Raises Invalid."""
    proof = proved(text, terms)
    return reader_text(proof.pattern, into, size_index(proof.pattern, size), hand=hand, source=text).text


def _words(text: str, proof: Proof) -> list[str]:
    """The words of each line of `lines`, as they were written."""
    rows = text.split("\n")
    return [rows[line.line - 1].strip() for line in proof.lines]


def with_terms(text: str, terms: Terms) -> str:
    """The text with its `Terms:` line set, as a design keeps it."""
    lines = text.split("\n")
    for index, line in enumerate(lines):
        if line.lower().startswith("terms:"):
            lines[index] = f"Terms: {terms}"
            return "\n".join(lines)
    return f"Terms: {terms}\n{text}"


def design_of(text: str) -> Design:
    """A design that holds a text as it is; its sizes are named as in the text, with targets still to be set."""
    pattern = prove_text(text).pattern
    plain = "".join(" " if one == "#" or category(one) == "Cc" else one for one in pattern.name)
    title = " ".join(plain.split())[:80].strip() or "Checked pattern"
    return Design(name=title, units=pattern.units, terms=pattern.terms, text=text, sizes=sizes_named(pattern.sizes))
