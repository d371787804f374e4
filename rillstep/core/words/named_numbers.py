"""Named numbers: their definitions, and lines in which each name is replaced by its numbers before they are read.

`Number: side = 16 (23, 27, 32)` in the head gives a name its numbers; `{side}` or `{2*side + 6}` stands wherever the
language takes a number. A line is read with the numbers in place of the braces, so one reader of numbers serves all
places; afterwards what was read is put back to where the braces stand. In a range of rounds, `{rnd}` (or `{row}`) is
the number of the round itself: see `each_round`.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from rillstep.core.findings import Finding, Span
from rillstep.core.tree.changes import moved
from rillstep.core.tree.forms import Form, constant, of_name
from rillstep.core.tree.leaves import ordinal_text
from rillstep.core.words.expressions import NAME, ExpressionError, Value, evaluate, expression
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stream import MAX_NUMBER, THE_ROUND, InBraces
from rillstep.core.words.tokens import tokens_of

MOST_NAMES = 200
DEFINED = re.compile(r"^\s*number\s*:", re.IGNORECASE)
BRACES = re.compile(r"\{([^{},;]{1,200})\}(?:(nd|rd|th)(?![A-Za-z]))?")
_ONE = Value(constant(1).constant, constant(1))


@dataclass(frozen=True)
class Definition:
    """What stands behind the equals sign of a name, and where: the line, and the column (1-based) of that text.

    measured: it is worked out from a length that the text names, and stands behind no equals sign.
    """

    text: str
    line: int
    column: int
    measured: bool = False


@dataclass
class Names:
    """The names of a text: found before it is read, as any order of definition works, and worked out when asked for."""

    defined: dict[str, Definition] = field(default_factory=dict)
    known: dict[tuple[str, int], tuple[Value | str, ...]] = field(default_factory=dict)
    open: set[str] = field(default_factory=set)  # those that follow from a measure that is not worked out
    sums: dict[tuple[str, int, int, int | None], Value] = field(default_factory=dict)

    def values(self, name: str, n_sizes: int) -> tuple[Value | str, ...]:
        """For each size the value of a name, or the sentence that says why it has none."""
        key = (name, n_sizes)
        if key not in self.known:
            self.known[key] = ("it is defined by itself",) * n_sizes  # holds in a circle, which never ends
            self.known[key] = self._worked_out(name, n_sizes)
        return self.known[key]

    def _worked_out(self, name: str, n_sizes: int) -> tuple[Value | str, ...]:
        written = self.defined[name]
        tokens = tokens_of(written.text, written.line, n_sizes)
        if len(tokens) != 1 or tokens[0].kind != "num":
            return tuple(self.sum_or_why(written.text.strip().strip("{}"), size, n_sizes) for size in range(n_sizes))
        given = [value for value, _ in tokens[0].members]
        if len(given) not in (1, n_sizes):
            return (f"it has {len(given)} numbers, but there are {n_sizes} sizes",) * n_sizes
        return tuple(
            Value(constant(int(value)).constant, of_name(name))
            if value.is_integer() and value <= MAX_NUMBER
            else f"{value:g} is not a whole number up to {MAX_NUMBER}"
            for value in (given * n_sizes if len(given) == 1 else given)
        )

    def sum(self, source: str, size: int, n_sizes: int, rnd: int | None = None) -> Value:
        """What an expression comes to in a size. Raises ExpressionError."""

        def value_of(name: str) -> Value:
            if name in THE_ROUND and rnd is not None:
                return Value(constant(rnd).constant, constant(rnd))
            if name not in self.defined:
                raise ExpressionError(f"the number “{name}” is not defined")
            found = self.values(name, n_sizes)[size]
            if isinstance(found, str):
                raise ExpressionError(f"“{name}”: {found}")
            return found

        return evaluate(expression(source), value_of)

    def sum_or_why(self, source: str, size: int, n_sizes: int, rnd: int | None = None) -> Value | str:
        """What an expression comes to, or the sentence that says why it is no whole number."""
        key = (source, size, n_sizes, rnd)
        found = self.sums.get(key)
        if found is None:
            try:
                found = self.sum(source, size, n_sizes, rnd)
                found.whole()
            except ExpressionError as error:
                return str(error)
            self.sums[key] = found
        return found


def names_of(raws: Sequence[str]) -> Names:
    """The names that the lines of a text define; the first definition of a name holds."""
    names = Names()
    for number, raw in enumerate(raws, start=1):
        match = DEFINED.match(raw)
        name, equals, right = raw[match.end() :].partition("=") if match is not None else ("", "", "")
        if equals and len(names.defined) < MOST_NAMES:
            column = len(raw) - len(right) + 1
            names.defined.setdefault(" ".join(name.split()), Definition(right.split("#")[0], number, column))
    return names


def problem_of(name: str, names: Names, n_sizes: int) -> str | None:
    """The sentence that says what is wrong with a definition; None for a good one."""
    if not NAME.fullmatch(name) or name.lower() in THE_ROUND:
        return "A number is named like this: “wall = 9 (12, 15)”; a name is made of letters, digits and spaces."
    why = next((value for value in names.values(name, n_sizes) if isinstance(value, str)), None)
    return f"“{name}”: {why}." if why is not None else None


@dataclass(frozen=True)
class Resolved:
    """A line with numbers in place of its braces; places: where each stands in it, and where it is written."""

    text: str
    places: tuple[InBraces, ...] = ()
    findings: tuple[Finding, ...] = ()


def names_in(source: str) -> frozenset[str]:
    """The names in an expression; none in what is no expression."""
    try:
        return expression(source).names()
    except ExpressionError:
        return frozenset()


def holds_round(text: str) -> bool:
    """Whether a line speaks of the number of its round."""
    return any(names_in(match[1]) & THE_ROUND for match in BRACES.finditer(text))


def resolved(
    text: str,
    number: int,
    names: Names,
    n_sizes: int,
    active: Sequence[int],
    rnd: int | None = None,
    apart: bool = False,
) -> Resolved:
    """A line with numbers in place of the braces whose names are defined; others stay for the reader to stumble over.

    active: the sizes in force, in which each number must come out. rnd: the number of the round; without it, what
    speaks of the round is left as it stands. apart: sets have a number for the sizes in force only.
    """
    parts: list[str] = []
    places: list[InBraces] = []
    findings: list[Finding] = []
    at = length = 0
    for match in BRACES.finditer(text):
        source = match[1].strip()
        used = names_in(source)
        if not used or (used & THE_ROUND and rnd is None) or used - names.defined.keys() - THE_ROUND:
            continue
        values, forms, why = _worked_out(source, names, n_sizes, active, rnd)
        if why is not None:
            span = Span(number, match.start() + 1, match.end() + 1)
            findings.append(Finding("number-not-worked-out", "error", span, f"“{{{source}}}”: {why}."))
        told = tuple(values[size] for size in active) if apart else values
        shown = set_text(told, _ordinal) if match[2] else _shown(told, text, match)
        parts += [text[at : match.start()], shown]
        length += match.start() - at + len(shown)
        places.append(InBraces(length - len(shown), length, match.start(), match.end(), source, values, forms))
        at = match.end()
    return Resolved("".join([*parts, text[at:]]), tuple(places), tuple(findings))


def _shown(values: tuple[int, ...], text: str, match: re.Match[str]) -> str:
    """The numbers as a set; with strokes within a bracket or before one, which would be taken for more of the set."""
    within = text.count("(", 0, match.start()) > text.count(")", 0, match.start())
    before = text[match.end() :].lstrip()[:1] in ("(", "[")
    strokes = len(set(values)) > 1 and (within or before)
    return "/".join(map(str, values)) if strokes else set_text(values)


def left_over(text: str, number: int, names: Names) -> list[Finding]:
    """Braces that are left in a line that is kept as words, in a text with names: they would be printed as they are."""
    found = []
    for match in BRACES.finditer(text if names.defined else ""):
        unknown = sorted(names_in(match[1]) - names.defined.keys())
        if unknown:
            why = (
                "the number of a round stands behind the label of one"
                if unknown[0] in THE_ROUND
                else f"the number “{unknown[0]}” is not defined"
            )
            span = Span(number, match.start() + 1, match.end() + 1)
            found.append(Finding("name-not-defined", "error", span, f"“{match[0]}” is not understood: {why}."))
    return found


def _ordinal(value: float) -> str:
    return ordinal_text(int(value))


def _worked_out(
    source: str, names: Names, n_sizes: int, active: Sequence[int], rnd: int | None
) -> tuple[tuple[int, ...], tuple[Form | None, ...], str | None]:
    """The values of an expression, its forms, and what is wrong with it in a size in force; another size in which it
    does not come out takes on the first value that there is."""
    found = [names.sum_or_why(source, size, n_sizes, rnd) for size in range(n_sizes)]
    good = [value for size in active if isinstance(value := found[size], Value)]
    why = next((value for size in active if isinstance(value := found[size], str)), None)
    if why is None and any(value.value < 0 for value in good):
        why = "this is less than nothing"
    if why is None and any(value.value > MAX_NUMBER for value in good):
        why = f"numbers go up to {MAX_NUMBER}"
    usual = good[0] if good else _ONE
    kept = [
        value if isinstance(value, Value) and (size in active or value.value >= 0) else usual
        for size, value in enumerate(found)
    ]
    return tuple(min(MAX_NUMBER, max(0, int(one.value))) for one in kept), tuple(one.form for one in kept), why


def put_back(node: Any, places: Sequence[InBraces], line: int) -> Any:
    """What was read from a resolved line, with every place where it stands in the line as it is written."""
    return moved(node, lambda span: _written_at(span, places) if span.line == line else span)


def _written_at(span: Span, places: Sequence[InBraces]) -> Span:
    begin, end = _column(span.column - 1, places, False), _column(span.end_column - 1, places, True)
    return Span(span.line, begin + 1, max(begin, end) + 1)


def _column(at: int, places: Sequence[InBraces], is_end: bool) -> int:
    """Where a column (0-based) of the resolved line stands in the written one: within a number, at its braces."""
    shift = 0
    for place in places:
        if at < place.start or (is_end and at == place.start):
            break
        if at < place.end or (is_end and at == place.end):
            return place.written_end if is_end else place.written_start
        shift = place.written_end - place.end
    return at + shift
