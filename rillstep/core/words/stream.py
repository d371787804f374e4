"""A cursor over the tokens of one line, with the numbers of the sizes in force, and the ledger of what it read.

Each token is worked, checked, kept as words, or not understood: a number that stands in no step and no total, and is
held to nothing else, is not understood.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Literal

from rillstep.core.craft import Loop, Terms
from rillstep.core.findings import Finding, Span
from rillstep.core.memory import remember
from rillstep.core.tree import Decimals, Loops, Num, Step, Total, What
from rillstep.core.tree.forms import Form
from rillstep.core.words.expressions import ExpressionError, expression
from rillstep.core.words.tokens import Taught, Token, meant, places_of, renamed, tokens_of

MAX_NUMBER = 99_999
# What the number of a round is called within its line.
THE_ROUND = frozenset(("rnd", "row", "round"))
# More rows than this that leave their reading open are taken as they stand.
MOST_OPEN = 40


class NotUnderstood(Exception):
    """These words could not be read; caught where a clause ends, in one place."""

    def __init__(self, span: Span, message: str = "", code: str = "not-understood") -> None:
        super().__init__(message)
        self.span, self.message, self.code = span, message, code


@dataclass(frozen=True)
class InBraces:
    """An expression of the line, in whose place its numbers are read: where they stand (0-based columns), where the
    braces are written, the expression, and for each size its value and form."""

    start: int
    end: int
    written_start: int
    written_end: int
    source: str
    values: tuple[int, ...]
    forms: tuple[Form | None, ...]


@dataclass(frozen=True)
class Context:
    """What a line needs to know of its pattern: sizes in force, terms, own stitches, the numbers by name in the line.

    specials: (name, its words as tokens) of the stitches that the pattern defines. renamed: (own abbreviation, the
    words
    that it stands for). phrases: those that the text teaches. decided: what words leave open is taken as it is first
    read, as so much before it was open. chain_mm: the width of a chain, where there is a gauge.
    """

    n_sizes: int
    active: tuple[int, ...]
    terms: Terms
    specials: tuple[tuple[str, tuple[str, ...]], ...] = ()
    kind: Literal["Rnd", "Row"] = "Rnd"
    size_names: tuple[str, ...] = ()
    renamed: tuple[tuple[str, tuple[str, ...]], ...] = ()
    decided: bool = False
    phrases: tuple[Taught, ...] = ()
    braces: tuple[InBraces, ...] = ()
    chain_mm: float | None = None

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def _hash(self) -> int:
        """Worked out once: most lines of a text share one context, and each is looked up by it."""
        return hash((self.n_sizes, self.active, self.terms, self.kind, self.size_names, self.braces, self.phrases))


@remember(512)
def by_first_word(phrases: tuple[str, ...]) -> dict[str, list[tuple[int, tuple[str, ...]]]]:
    """Phrases in their order, found by their first word: looking for one of many costs as little as for one."""
    found: dict[str, list[tuple[int, tuple[str, ...]]]] = {}
    for index, phrase in enumerate(phrases):
        words = tuple(phrase.split())
        found.setdefault(words[0], []).append((index, words))
    return found


@dataclass(frozen=True)
class RowNamed:
    """A row that words name as the one worked into ("sc in each st of Rnd 3"); at: the token behind it."""

    kind: str
    number: Num
    at: int


@dataclass(frozen=True)
class BelowNamed:
    """A stitch that words name as the place some rows further down ("each dc 2 rows below"); at: the token behind
    it."""

    stitch: str
    below: int
    span: Span
    at: int


Choice = tuple[int, str]  # which way of reading, and of what alone ("": of everything)
FIRST: Choice = (0, "")


@dataclass(frozen=True)
class Passed:
    """Tokens `first` to `last` (one past the end) of a stream that make no step, with how they are written.

    bracket: they stand in brackets of their own, which `words` leaves out.
    """

    first: int
    last: int
    words: str
    bracket: bool
    span: Span


_NUMBERS = frozenset(("num", "expr", "ordinal"))


class Stream:
    """Tokens with a position, and the ledger of a line: what was kept as words, and which numbers were taken into
    account.

    Reading past the end gives None, never an exception. Every token that the cursor has passed is worked, unless it is
    in `kept`; a number that was passed and stands in no step must be in `counted`, or the line is not understood.
    """

    def __init__(self, tokens: Sequence[Token], context: Context, end: Span, text: str = "") -> None:
        self.context, self.end, self.text = context, end, text
        self.use(tokens)
        self.kept: list[Passed] = []  # words that change nothing, in order
        self.told: list[
            Passed
        ] = []  # brackets that only tell, which were taken out before; `first` is where each stood
        self.counted: list[
            tuple[int, int]
        ] = []  # tokens whose numbers are held to otherwise than as a number of a step
        self.named: list[RowNamed | BelowNamed] = []  # rows and stitches that are named as those worked into
        self._at = 0
        self.depth = 0
        self.implied_end = False  # the last "each" had no end of its own
        self.loop: Loop = "both"  # "working in back loops only, ..." holds for the rest of the line
        self.free_loops: Loops | None = None  # "working in front loops of Rnd 6, ..." likewise
        self.findings: list[Finding] = []
        self.totals: list[Total] = []  # stated in brackets within the line
        self.between: What | None = None  # the groups between which was worked last
        self.starred: tuple[Step, ...] = ()  # what two stars hold that is named again later
        self.ends_with_total = False  # those in brackets are then counts of a part
        self.choice: Choice = FIRST  # which of several ways of reading is taken where the words leave it open
        self.ways: dict[str, int] = {}  # how many ways there are to read what

    def use(self, tokens: Sequence[Token]) -> None:
        """Read these tokens from now on."""
        self.tokens = tokens
        self.texts = [*[token.text for token in tokens], ""]
        # What a form is looked up by: a word, or "#" for any number; "" at the end of the line.
        self.keys = [*["#" if token.kind in _NUMBERS else token.text for token in tokens], ""]
        self.present = frozenset(self.texts)
        self.readings: dict[tuple[str, int], Any] = {}  # what the forms read from a token on, once

    @property
    def at(self) -> int:
        """The index of the token that comes next. Put back, it gives up what was kept from there on."""
        return self._at

    @at.setter
    def at(self, value: int) -> None:
        if value < self._at:
            while self.kept and self.kept[-1].last > value:
                self.kept.pop()
            while self.counted and self.counted[-1][1] > value:
                self.counted.pop()
            while self.named and self.named[-1].at > value:
                self.named.pop()
        self._at = value

    def count(self, start: int) -> None:
        """The numbers from token `start` on are taken into account in what was read, though none of them stands in
        it."""
        self.counted.append((start, self._at))

    def part(self, first: int, last: int) -> "Stream":
        """A stream over some of the tokens."""
        return Stream(self.tokens[first:last], self.context, self.end, self.text)

    def adopt(self, part: "Stream", first: int) -> None:
        """Take over what a part that began at token `first` has in its ledger, but for its findings."""
        self.kept += [replace(one, first=one.first + first, last=one.last + first) for one in part.kept]
        self.counted += [(a + first, b + first) for a, b in part.counted]
        self.named += [replace(one, at=one.at + first) for one in part.named]

    def written(self, first: int, last: int) -> str:
        """Tokens as they stand in the text."""
        if first >= last:
            return ""
        start, end = self.tokens[first].span.column - 1, self.tokens[last - 1].span.end_column - 1
        return " ".join((self.text[start:end] or " ".join(t.text for t in self.tokens[first:last])).split())

    def choose(self, ways: int, what: str) -> int:
        """Which of so many ways of reading `what` is meant here; the others are tried when the row does not come
        out."""
        self.ways[what] = max(self.ways.get(what, 1), ways)
        number, only = self.choice
        return number if number < ways and only in ("", what) else 0

    def other_choices(self) -> list[Choice]:
        """The other ways of reading it: of one kind of what is left open, then of everything."""
        every = [(number, "") for number in range(1, max(self.ways.values(), default=1))]
        alone = [(number, what) for what, ways in self.ways.items() for number in range(1, ways)]
        return [*alone, *(every if len(self.ways) > 1 else ())]

    def peek(self, ahead: int = 0) -> Token | None:
        index = self._at + ahead
        return self.tokens[index] if index < len(self.tokens) else None

    def next(self) -> Token:
        token = self.peek()
        if token is None:
            raise NotUnderstood(self.end, "the line ends too early")
        self._at += 1
        return token

    def here(self) -> Span:
        token = self.peek()
        return token.span if token else self.end

    def since(self, start: int) -> Span:
        """The span from token number `start` to the last one read."""
        if start >= len(self.tokens):
            return self.end
        return self.tokens[start].span.to(self.tokens[max(start, self._at - 1)].span)

    def word(self, *words: str) -> bool:
        """Take the next token if it is one of these words."""
        at = self._at
        if at < len(self.tokens) and (token := self.tokens[at]).kind == "word" and token.text in words:
            self._at = at + 1
            return True
        return False

    def words(self, *sequence: str) -> bool:
        """Take these words in a row, or nothing."""
        at, tokens = self._at, self.tokens
        if at + len(sequence) > len(tokens):
            return False
        for word in sequence:
            token = tokens[at]
            if token.text != word or token.kind != "word":
                return False
            at += 1
        self._at = at
        return True

    def sees(self, *sequence: str) -> bool:
        """Do these words come next?"""
        start = self.at
        found = self.words(*sequence)
        self.at = start
        return found

    def any_of(self, *phrases: str) -> bool:
        """Take the first of these phrases that comes next."""
        return self.phrase(phrases) is not None

    def phrase(self, phrases: tuple[str, ...]) -> int | None:
        """Take the first of these phrases that comes next; the answer is its index."""
        if self._at >= len(self.tokens):
            return None
        token = self.tokens[self._at]
        if token.kind != "word":
            return None
        for index, words in by_first_word(phrases).get(token.text, ()):
            if self.words(*words):
                return index
        return None

    def mark(self, *marks: str) -> bool:
        at = self._at
        if at < len(self.tokens) and (token := self.tokens[at]).kind == "mark" and token.text in marks:
            self._at = at + 1
            return True
        return False

    def number(self) -> Num | None:
        """A number, a set or an expression in braces, if one comes next."""
        token = self.peek()
        if token is None or token.kind not in ("num", "expr"):
            return None
        self._at += 1
        return self.as_num(token)

    def need_number(self, what: str) -> Num:
        here = self.here()
        number = self.number()
        if number is None:
            raise NotUnderstood(here, f"a number of {what} is missing here")
        return number

    def as_num(self, token: Token) -> Num:
        if token.kind == "expr":
            raise NotUnderstood(token.span, _why_left(token.text[1:-1]), "name-not-defined")
        if any(value > MAX_NUMBER for value, _ in token.members):
            raise NotUnderstood(token.span, f"numbers go up to {MAX_NUMBER}", "number-too-large")
        if any(not value.is_integer() for value, _ in token.members):
            raise NotUnderstood(token.span, f"“{token.text}” should be a whole number")
        values_of = self._spread(token)
        parts = () if token.taught else tuple(span for _, span in token.members)
        at = token.span.column - 1
        named = next((one for one in self.context.braces if one.forms and one.start <= at < one.end), None)
        if named is None or token.taught:
            return Num(self._for_active(values_of), token.span, parts)
        return Num(self._for_active(values_of), token.span, (token.span,), 0, named.source, named.forms)

    def set_of(self, numbers: Sequence[Num]) -> Num:
        """One number of several that stand one after the other: each for one of the sizes in force."""
        whole = Num((None,) * self.context.n_sizes)
        for size, number in zip(self.context.active, numbers, strict=True):
            whole = whole.joined(number, (size,))
        spans = tuple(number.span for number in numbers)
        return replace(whole, span=spans[0].to(spans[-1]), parts=spans)

    def as_decimals(self, token: Token) -> Decimals:
        values = self._spread(token)
        keep = set(self.context.active)
        return Decimals(
            tuple(v if i in keep else None for i, v in enumerate(values)),
            token.span,
            tuple(span for _, span in token.members),
        )

    def _spread(self, token: Token) -> list[float]:
        """One value for each size of the pattern, from a token's members."""
        given = [value for value, _ in token.members]
        n, active = self.context.n_sizes, self.context.active
        if len(given) == 1:
            return given * n
        if len(given) == n:
            return given
        if len(given) == len(active):
            by_size = dict(zip(active, given, strict=True))
            return [by_size.get(i, 0.0) for i in range(n)]
        self.findings.append(
            Finding(
                "set-length",
                "error",
                token.span,
                f"“{token.text}” has {len(given)} numbers, but there are {len(active)} sizes here.",
                expected=len(active),
                found=len(given),
            )
        )
        return (given + [given[-1]] * n)[:n]

    def _for_active(self, values: list[float]) -> tuple[int | None, ...]:
        keep = set(self.context.active)
        return tuple(int(v) if i in keep else None for i, v in enumerate(values))


def _why_left(source: str) -> str:
    """Why an expression was not replaced by its numbers before the line was read."""
    try:
        names = expression(source).names()
    except ExpressionError as error:
        return str(error)
    if names & THE_ROUND:
        return "the number of the round stands behind the label of one"
    return (
        f"the number “{min(names)}” is not defined" if names else f"“{source}” stands in braces, and has no name in it"
    )


def stream_over(text: str, line: int, context: Context, start: int, end: int) -> Stream:
    """A stream over text[start:end], with true columns."""
    tokens: Sequence[Token] = tokens_of(text[:end], line, context.n_sizes, start, len(context.active))
    tokens = renamed(tokens, text, context.renamed) if context.renamed else tokens
    places = places_of(tokens, context.phrases) if context.phrases else []
    stream = Stream(meant(tokens, places), context, Span(line, max(1, end), end + 1), text)
    for first, last, one in places:
        if not one.tokens:
            span = tokens[first].span.to(tokens[last - 1].span)
            stream.told.append(Passed(0, 0, text[span.column - 1 : span.end_column - 1], False, span))
    return stream


def plain_num(stream: Stream, value: int, span: Span | None = None) -> Num:
    """A number that is not written, or is written once: the same in every size in force."""
    keep = set(stream.context.active)
    values = tuple(value if i in keep else None for i in range(stream.context.n_sizes))
    at = span or Span(stream.here().line, 1, 1)
    return Num(values, at, (span,) if span else ())


def problem_of(problem: NotUnderstood, what: str) -> Finding:
    """A finding that says what was not understood, and where."""
    return Finding(problem.code, "error", problem.span, f"{what}: {problem}." if str(problem) else f"{what}.")
