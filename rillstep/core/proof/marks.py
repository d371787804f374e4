"""What a proof says of a text as a whole: how many lines are proved, and which words are only kept."""

from dataclasses import dataclass

from rillstep.core.findings import Span
from rillstep.core.proof.prove import Proof
from rillstep.core.tree import Check, Pattern, Prose


@dataclass(frozen=True)
class MarkCounts:
    """Lines of rows and rounds by their mark; `with_phrases`: so many of the proved rest on phrases that the text
    teaches; `assumed`: proved if some words mean what is assumed of them; `vouched`: not worked, with the designer's
    word for them; `kept`: lines that are words and nothing else."""

    proved: int
    with_phrases: int
    assumed: int
    unchecked: int
    wrong: int
    not_understood: int
    vouched: int
    kept: int

    def words(self) -> str:
        """ "12 proved, 1 not checked, 1 not understood"; what there is none of is left out, but for the proved."""
        rest = (
            (self.assumed, "assumed"),
            (self.unchecked, "not checked"),
            (self.wrong, "wrong"),
            (self.not_understood, "not understood"),
            (self.vouched, "vouched for"),
        )
        own = f" ({self.with_phrases} with your phrases)" if self.with_phrases else ""
        return ", ".join([f"{self.proved} proved{own}", *(f"{count} {what}" for count, what in rest if count)])


def counts_of(proof: Proof) -> MarkCounts:
    """How many lines of a proof have which mark."""
    marks = [line.mark for line in proof.lines]
    kept = sum(isinstance(line, Prose) for _, line in proof.pattern.lines())
    return MarkCounts(
        marks.count("proved"),
        sum(line.proved and bool(line.phrases) for line in proof.lines),
        marks.count("assumed"),
        marks.count("unchecked"),
        marks.count("wrong"),
        marks.count("not understood"),
        marks.count("vouched"),
        kept,
    )


def kept_places(pattern: Pattern) -> tuple[Span, ...]:
    """The places of the words that are kept, in the order of the text: lines of the head, lines of words, words in
    rows."""
    found = list(pattern.kept)
    for _, line in pattern.lines():
        if isinstance(line, Prose):
            found.append(line.span)
        elif not isinstance(line, Check):
            found += [one.span for one in line.kept]
    return tuple(sorted({span for span in found if span.line}))
