"""Numbers that a row leaves out ("sc in next sts", "ch, sk 2 sts", "[...] times"): which of them make it come out."""

from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass

from rillstep.core.assumptions.tried_meanings import REFUTED
from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.proof import LineProof, Proof, prove_as_read
from rillstep.core.tree import Row
from rillstep.core.watch import look
from rillstep.core.wordlists import word_list
from rillstep.core.words.numbers import set_text
from rillstep.core.words.tokens import Token, tokens_of

MOST_TRIALS, MOST_ANSWERS, MOST_LINES = 12, 3, 6
# Behind these words, and before those, a number stands: of several it is said how many.
_LEADS = word_list("next last first rem remaining sk skip miss")
_SEVERAL = ("sts", "stitches", "chs", "chains", "sps", "spaces")
# How many times a repeat may be worked, so that what is left over is shared among its turns.
_TURNS = (1, 2, 3, 4, 6, 8)


@dataclass(frozen=True)
class NumberAnswer:
    """A number, or one for each size, with which a row comes out. edit: it writes the number into the row."""

    number: str
    makes: str
    decided_by: str
    edit: Edit


@dataclass(frozen=True)
class MissingNumber:
    """A place of a row where a number is left out; words: those around it."""

    words: str
    line: int
    answers: tuple[NumberAnswer, ...]


def missing_numbers(text: str, proof: Proof, assumed: tuple[str, ...]) -> Iterator[MissingNumber]:
    """The numbers that are left out in rows that do not come out, with those that make them come out."""
    rows = text.split("\n")
    chains = [one.span for one in proof.findings if one.code == "chain-number-missing"]
    tried = 0
    for line in proof.lines:
        if line.mark not in (*REFUTED, "unchecked") or tried == MOST_LINES:
            continue
        gap = next(_gaps(rows, line, chains), None)
        if gap is not None:
            tried += 1
            at, words = gap
            yield MissingNumber(words, at.line, tuple(_answers(text, proof, line, at, assumed)))


def _gaps(rows: Sequence[str], line: LineProof, chains: Collection[Span]) -> Iterator[tuple[Span, str]]:
    """Where a number is left out in a line: the empty place behind the word before it, and the words around it."""
    for number in range(line.line, max(line.line, line.last_line) + 1):
        row = rows[number - 1]
        tokens = tokens_of(row, number, 1)
        for at, token in enumerate(tokens[:-1]):
            behind = tokens[at + 1]
            leads = token.is_word(*_LEADS) and behind.is_word(*_SEVERAL)
            if leads or (token.is_mark(")", "]", "*") and behind.is_word("times")):
                yield _behind(token), f"{token.text} … {behind.text}"
        for chain in chains:
            if chain.line == number:
                yield Span(number, chain.end_column, chain.end_column), row[chain.column - 1 : chain.end_column - 1]


def _behind(token: Token) -> Span:
    return Span(token.span.line, token.span.end_column, token.span.end_column)


def _answers(text: str, proof: Proof, line: LineProof, at: Span, assumed: tuple[str, ...]) -> Iterator[NumberAnswer]:
    """The numbers with which a line comes out and no other line fails: first those that its totals tell, and what is
    left over."""
    was_bad = {one.line for one in proof.lines if one.mark in REFUTED}
    known: dict[tuple[int, ...], Proof] = {}

    def tried(values: tuple[int, ...]) -> Proof:
        if values not in known:
            look()
            known[values] = prove_as_read(_with(text, at, values), terms=proof.pattern.terms, assumed=assumed)
        return known[values]

    found: set[str] = set()
    sizes = _sizes(proof, line)
    both = ([one for one in tried((many,) * len(sizes)).lines if one.line == line.line] for many in (1, 2))
    if not sizes or all(one.mark == "proved" for lines in both for one in lines):
        return  # whatever the number is, the row comes out: nothing tells it
    for values in _values(line, sizes, tried):
        if len(found) == MOST_ANSWERS or len(known) >= MOST_TRIALS:
            return
        if (number := set_text(values)) in found:
            continue
        after = tried(values)
        own = next((one for one in after.lines if one.line == line.line), None)
        bad = {one.line for one in after.lines if one.mark in REFUTED}
        if own is None or own.mark != "proved" or bad - was_bad:
            continue
        found.add(number)
        makes = ", ".join(dict.fromkeys(str(sts) for sts in own.sts if sts is not None))
        stated = ", ".join(dict.fromkeys(str(sts) for sts in own.stated if sts is not None))
        yield NumberAnswer(
            number, f"{own.label}: {makes} sts", f"{own.label} ({stated})" if stated else "", Edit(at, f" {number}")
        )


def _with(text: str, at: Span, values: tuple[int, ...]) -> str:
    return apply_edits(text, (Edit(at, f" {set_text(values)}"),))


def _sizes(proof: Proof, line: LineProof) -> tuple[int, ...]:
    """The sizes for which a line holds."""
    return next(
        (row.sizes for _, row in proof.pattern.lines() if isinstance(row, Row) and row.span.line == line.line), ()
    )


def _values(
    line: LineProof, sizes: Sequence[int], tried: Callable[[tuple[int, ...]], Proof]
) -> Iterator[tuple[int, ...]]:
    one, two = ((value,) * len(sizes) for value in (1, 2))
    made = [next(own for own in tried(values).lines if own.line == line.line).sts for values in (one, two)]
    told = [_told(made[0][size], made[1][size], line.stated[size]) for size in sizes]
    if all(value is not None for value in told):
        yield tuple(value for value in told if value is not None)
    left = {
        f.size: int(f.found or 0) for f in tried(one).findings if f.code == "left-over" and f.span.line == line.line
    }
    for turns in _TURNS:
        each = [left.get(size, left.get(None, 0)) for size in sizes]
        if any(each) and all(many % turns == 0 for many in each):
            yield tuple(1 + many // turns for many in each)
    yield from ((value,) * len(sizes) for value in range(1, 9))


def _told(one: int | None, two: int | None, stated: int | None) -> int | None:
    """The number with which a row makes what it states, as 1 and 2 make so many; None where they tell nothing."""
    if one is None or two is None or stated is None or one == two or (stated - one) % (two - one):
        return None
    return max(0, 1 + (stated - one) // (two - one))
