"""A line with names, as the lines that are read for it: one with numbers for the names, or one for each of its rounds.

`Rnds 3-{base}: [hdc in next {rnd - 2} sts, 2 hdc in next st] 8 times` is round 3, round 4, ... each with its own
number, for the sizes that have it. What rounds do by turns stands behind one label, with " // " between: `Rnds
3-{base}: [sc in next {(rnd - 1)/2} sts, 2 sc in next st] 6 times // Sc in each st around`. Sizes in which a run is 0
are rounds of their own, without it. In "Rnds 5-{wall}: Hdc in each st around until the wall measures 20 cm", a name
that nothing defines has the rounds that were worked out for the length (`core.heights`); until then the range is open.
"""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from rillstep.core.clauses.labels import Label, title_of
from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.findings import Finding, Span
from rillstep.core.notation.rows import read_label
from rillstep.core.notation.text_so_far import TextSoFar
from rillstep.core.tree.forms import of_name
from rillstep.core.tree.leaves import coming
from rillstep.core.words.expressions import NAME, Value
from rillstep.core.words.named_numbers import DEFINED, Definition, Names, Resolved, holds_round, resolved
from rillstep.core.words.stream import InBraces

MOST_ROUNDS = 400
BY_TURNS = re.compile(r" // (?![^{}]*\})")


@dataclass(frozen=True)
class LineToRead:
    """A line with numbers in place of names, for some of the sizes in force, and the number of its round if it is one
    of several that one line writes."""

    resolved: Resolved
    sizes: tuple[int, ...]
    rnd: int | None = None


def lines_to_read(reading: TextSoFar, text: str, number: int) -> list[LineToRead]:
    """What is read for a line: mostly the line itself."""
    active, n_sizes = reading.active, len(reading.header.sizes)
    if "{" not in text or DEFINED.match(text):
        return [LineToRead(Resolved(text), active)]
    text = open_range(text, reading.names)
    whole = resolved(text, number, reading.names, n_sizes, active)
    if len(active) < n_sizes and _is_empty_elsewhere(reading, whole, number):
        whole = resolved(text, number, reading.names, n_sizes, active, apart=True)
    label = _label(reading, whole, number, active)
    if label is None:
        return [LineToRead(whole, active)]
    by_name = any(place.start < label.body for place in whole.places)
    having = _having(label, active) if label.last is not None and by_name else active
    if not having:
        return []
    if not holds_round(text) and (label.last is None or BY_TURNS.search(text) is None):
        alone = resolved(text, number, reading.names, n_sizes, having, apart=True)
        return [LineToRead(whole if having == active else alone, having)]
    if label.name or label.totals or label.loop != "both" or title_of(whole.text):
        message = "The number of the round is written out behind a plain label only, such as “Rnds 3-9:”."
        finding = Finding("number-not-worked-out", "error", Span(number, 1, len(text) + 1), message)
        return [LineToRead(replace(whole, findings=(*whole.findings, finding)), having)]
    return _each(reading, text, number, label, having)


def _label(reading: TextSoFar, whole: Resolved, number: int, active: tuple[int, ...]) -> Label | None:
    """The label of a line with numbers for its names, in some sizes; None where it has none that is understood."""
    match = starts_label(whole.text)
    if match is None:
        return None
    context = replace(reading.context(), braces=whole.places, active=active)
    label = read_label(whole.text, number, context, match, coming(reading.expected))
    return label if not label.findings else None


def _is_empty_elsewhere(reading: TextSoFar, whole: Resolved, number: int) -> bool:
    """Whether a range has no round in some size, so that a line under "Size L only:" is meant for L alone."""
    every = range(len(reading.header.sizes))
    label = _label(reading, whole, number, tuple(every))
    return label is not None and label.last is not None and len(_having(label, every)) < len(every)


def _having(label: Label, active: Sequence[int]) -> tuple[int, ...]:
    """The sizes for which a range is not empty; one that ends two before it begins is a fault, and stays."""
    assert label.last is not None
    return tuple(size for size in active if label.last.at(size) != label.first.at(size) - 1)


def _each(reading: TextSoFar, text: str, number: int, label: Label, having: Sequence[int]) -> list[LineToRead]:
    last = label.last or label.first
    begin, end = min(map(label.first.at, having)), max(map(last.at, having))
    if end - begin >= MOST_ROUNDS:
        message = f"At most {MOST_ROUNDS} rounds are written by one line."
        finding = Finding("number-too-large", "error", Span(number, 1, len(text) + 1), message)
        return [LineToRead(Resolved(text, (), (finding,)), tuple(having))]
    n_sizes = len(reading.header.sizes)
    side = f" ({label.side})" if label.side else ""
    turns = _turns(text)
    found: list[LineToRead] = []
    for rnd in range(begin, end + 1):
        for turn, own_text in enumerate(turns):
            sizes = [
                size
                for size in having
                if label.first.at(size) <= rnd <= last.at(size) and (rnd - label.first.at(size)) % len(turns) == turn
            ]
            if not sizes:
                continue
            whole = resolved(own_text, number, reading.names, n_sizes, sizes, rnd)
            for alike in _by_runs_of_none(whole, sizes):
                one = whole
                if len(alike) < n_sizes:
                    one = resolved(own_text, number, reading.names, n_sizes, alike, rnd, apart=True)
                again = _label(reading, one, number, alike)
                own = again.body if again is not None else 0
                own = own if not turn else len(one.text) - len(one.text[own:].lstrip())
                head = f"{label.kind} {rnd}{side}:" + ("" if one.text[own : own + 1] == " " else " ")
                found.append(LineToRead(_with_label(one, head, own), alike, rnd))
    return found


def _turns(text: str) -> list[str]:
    """The line for each turn of its rounds: the others are blank, so that every column stays."""
    colon = text.find(":") + 1
    marks = list(BY_TURNS.finditer(text))
    begins, ends = [0, *(mark.end() for mark in marks)], [*(mark.start() for mark in marks), len(text)]
    return [
        text[:b] if a == 0 else text[:colon] + " " * (a - colon) + text[a:b] for a, b in zip(begins, ends, strict=True)
    ]


def _with_label(one: Resolved, head: str, body: int) -> Resolved:
    """The line of one round: its own label in place of that of the range, which stands where the range does."""
    shift = len(head) - body
    first = InBraces(0, len(head), 0, _written(one, body), "", (), ())
    places = [replace(p, start=p.start + shift, end=p.end + shift) for p in one.places if p.start >= body]
    return Resolved(head + one.text[body:], (first, *places), one.findings)


def _written(one: Resolved, at: int) -> int:
    """Where a column of a resolved line stands in the written one."""
    before = [place for place in one.places if place.end <= at]
    return at + (before[-1].written_end - before[-1].end if before else 0)


def _by_runs_of_none(whole: Resolved, sizes: Sequence[int]) -> list[tuple[int, ...]]:
    """The sizes in which the same numbers of the line are 0, together."""
    groups: dict[tuple[bool, ...], list[int]] = {}
    for size in sizes:
        groups.setdefault(tuple(not place.values[size] for place in whole.places), []).append(size)
    return [tuple(group) for group in groups.values()]


_FIRST = r"\s*(?:rn?ds?|rounds?|rows?)\.?\s*\d+(?:\s*\([\d\s,]{1,80}\))?"
_OPEN = re.compile(rf"^({_FIRST})(\s*[-–—]\s*\{{\s*({NAME.pattern})\s*\}})(?=[^{{}}]*:)", re.IGNORECASE)
_UNTIL = re.compile(r"\b(?:until|till)\b", re.IGNORECASE)


def open_range(text: str, names: Names) -> str:
    """The line with a plain label, as long as the name of its last row has no number."""
    match = _OPEN.match(text)
    if match is None or " ".join(match[3].split()) in names.defined or not _UNTIL.search(text, match.end()):
        return text
    names.open.add(" ".join(match[3].split()))
    return match[1] + " " * len(match[2]) + text[match.end() :]


def take_worked_out(names: Names, raws: Sequence[str], ends: Mapping[int, tuple[int | None, ...]]) -> None:
    """Gives the names that a measure defines the rows that were worked out for it, by the line of the range."""
    for number, values in ends.items():
        match = _OPEN.match(raws[number - 1]) if 0 < number <= len(raws) else None
        name = " ".join(match[3].split()) if match is not None else ""
        if match is None or name in names.defined or not _UNTIL.search(raws[number - 1], match.end()):
            continue
        names.defined[name] = Definition("", number, 1, measured=True)
        names.known[name, len(values)] = tuple(
            "it is measured in other sizes only" if value is None else Value(Fraction(value), of_name(name))
            for value in values
        )
