"""A text worked on what its unknown words may mean: the proof on these assumptions, and what is asked."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from rillstep.core.assumptions.missing_numbers import MissingNumber, missing_numbers
from rillstep.core.assumptions.tried_meanings import UNDECIDED, TriedMeaning, offers
from rillstep.core.assumptions.unread import Unread, unread_in
from rillstep.core.craft import Terms
from rillstep.core.findings import Finding
from rillstep.core.notation.phrases import stands_in
from rillstep.core.proof import LineProof, Proof, prove_as_read, prove_text
from rillstep.core.tree import Again, Row, lines_of

MOST_QUESTIONS = 8


@dataclass(frozen=True)
class UnknownWords:
    """One question, for all places of equal words. lines: where they stand; finding: the first that says so; assumed:
    the text is worked on the first of the offers, as a total says that it comes out so."""

    words: str
    lines: tuple[int, ...]
    finding: Finding
    offers: tuple[TriedMeaning, ...]
    assumed: bool


@dataclass(frozen=True)
class Asked:
    """The proof of a text on what is assumed of it. heads: the lines of the head that would say so; numbers: those that
    rows leave out, of which none is assumed."""

    proof: Proof
    questions: tuple[UnknownWords, ...]
    heads: tuple[str, ...]
    numbers: tuple[MissingNumber, ...] = ()


def ask(text: str, terms: Terms | None = None) -> Asked:
    """Works a text with the likeliest meaning of the words in it that are not understood, one after another, and says
    what was assumed and what else they may mean. Never raises."""
    rows = text.split("\n")
    proof = prove_as_read(text, terms=terms)
    heads: tuple[str, ...] = ()
    questions: list[UnknownWords] = []
    passed: set[str] = set()
    while len(questions) < MOST_QUESTIONS and (unread := unread_in(rows, proof, passed)) is not None:
        passed.add(unread.words.lower())
        found = offers(text, unread, proof.pattern.terms, _told(rows, unread), proof, heads)
        assumed = bool(found) and _is_assumed(found)
        questions.append(UnknownWords(unread.words, unread.lines, unread.finding, found, assumed))
        if assumed:
            heads = (*heads, found[0].meaning.head)
            proof = prove_as_read(text, terms=proof.pattern.terms, assumed=heads)
    numbers = tuple(missing_numbers(text, proof, heads))
    proof = prove_text(text, terms=terms if terms is not None or not heads else proof.pattern.terms, assumed=heads)
    return Asked(_marked(proof, rows, [one for one in questions if one.assumed]), tuple(questions), heads, numbers)


def _is_assumed(found: tuple[TriedMeaning, ...]) -> bool:
    """Is the first offer taken until it is answered? Not where a total would be the same with another: no total tells
    of loops, or of words that change nothing."""
    first = found[0]
    if first.meaning.kind in UNDECIDED:
        return len(found) == 1
    return bool(first.decided_by) or not first.whole


def _told(rows: list[str], unread: Unread) -> str:
    """What the text says of some words where it lists them: "zed: a pair side by side"."""
    start = f"{unread.words.lower()}:"
    return next((row.partition(":")[2] for row in rows if row.strip().lower().startswith(start)), "")


def _marked(proof: Proof, rows: list[str], assumed: list[UnknownWords]) -> Proof:
    """The proof with what rests on an assumption marked so: the lines that hold the words, and those worked again."""
    if not assumed:
        return proof
    held = {at for at, row in enumerate(rows, start=1) if any(stands_in(row, one.words) for one in assumed)}
    resting = {line.span.line for line in _lines_on(proof, held)}
    lines = tuple(replace(line, mark="assumed") if _rests(line, resting) else line for line in proof.lines)
    first = min((line.line for line in lines if line.mark == "assumed"), default=None)
    return replace(proof, lines=tuple(_from(line, lines, first) for line in lines))


def _lines_on(proof: Proof, held: set[int]) -> Iterator[Row | Again]:
    for work in proof.works:
        for one in work.lines:
            if isinstance(one.line, Row | Again):
                worked = {at for turn in one.turns for at in lines_of(turn.source)}
                if held & (worked | set(lines_of(one.line))):
                    yield one.line


def _rests(line: LineProof, resting: set[int]) -> bool:
    return line.mark == "proved" and line.line in resting


def _from(line: LineProof, lines: tuple[LineProof, ...], first: int | None) -> LineProof:
    """A proved line that is worked on an assumed one: it holds if that one does."""
    if first is None or line.mark != "proved" or line.depends is not None:
        return line
    here = (one.line for one in lines if one.mark == "assumed" and one.section == line.section)
    below = max((at for at in here if at < line.line), default=None)
    return replace(line, depends=below) if below is not None else line
