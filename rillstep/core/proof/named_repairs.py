"""Repairs of numbers that stand by name: changed in all places, or only here under a name of their own.

No repair erases a name: where one would write plain numbers over braces, either the name is given other numbers (where
that was tried and mends the line), or the place gets a new name. One round of a line that writes several is never
changed alone.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from rillstep.core.findings import Edit, Finding, Repair, Span, apply_edits
from rillstep.core.words.expressions import Value
from rillstep.core.words.named_numbers import BRACES, Names, names_in, names_of
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stream import THE_ROUND
from rillstep.core.words.tokens import tokens_of

# Changes in all places are tried for so many repairs of a text: each is proved anew.
MOST_TRIED = 8


@dataclass(frozen=True)
class _Place:
    """Braces that an edit would write over: the expression, its values, and what is wanted instead."""

    edit: Edit
    source: str
    values: tuple[Value, ...]
    wanted: tuple[int, ...]


def keeping_names(
    text: str, findings: tuple[Finding, ...], n_sizes: int, prove: Callable[[str], tuple[Finding, ...]]
) -> tuple[Finding, ...]:
    """The findings of a text, with repairs that keep its names. prove: the findings of another text."""
    rows = text.split("\n")
    if "{" not in text or not any(finding.repairs for finding in findings):
        return findings
    names = names_of(rows)
    tried = 0
    found: list[Finding] = []
    read = [
        [(repair, [_place(rows, edit, names, n_sizes) for edit in repair.edits]) for repair in finding.repairs]
        for finding in findings
    ]
    together = _in_all_sizes(findings, [[_as_one(places) for _, places in one] for one in read])
    for finding, one in zip(findings, read, strict=True):
        repairs: list[Repair] = []
        for repair, places in one:
            if all(place is None for place in places):
                repairs.append(repair)
                continue
            place = _as_one(places)
            if place is None:
                continue
            place = together.get((finding.code, place.edit.span), place)
            everywhere = _everywhere(place, names) if tried < MOST_TRIED else None
            if everywhere is not None:
                tried += 1
                after = prove(apply_edits(text, everywhere.edits))
                repairs += [everywhere] if not any(_is_same(other, finding) for other in after) else []
            here = _only_here(place, names)
            repairs += [here] if here is not None else []
        found.append(replace(finding, repairs=tuple(repairs)))
    return tuple(found)


def _in_all_sizes(
    findings: Sequence[Finding], places: Sequence[Sequence[_Place | None]]
) -> dict[tuple[str, Span], _Place]:
    """A number that is changed by like findings in several sizes, as one change in all of them: each was tried in its
    size. Only the first repair of a finding at a place is taken."""
    first: dict[tuple[str, Span], dict[int, _Place]] = {}
    for finding, own in zip(findings, places, strict=True):
        for place in own:
            if place is not None and finding.size is not None:
                first.setdefault((finding.code, place.edit.span), {}).setdefault(finding.size, place)
    return {key: one for key, sizes in first.items() if (one := _as_one(list(sizes.values()))) is not None}


def _as_one(places: Sequence[_Place | bool | None]) -> _Place | None:
    """Edits of one number in several sizes, each as a whole set, as one; None for edits of more than one place."""
    named = [place for place in places if isinstance(place, _Place)]
    if len(named) != len(places) or len({place.edit.span for place in named}) != 1:
        return None
    now = [int(value.value) for value in named[0].values]
    for place in named:
        now = [new if new != old else kept for new, old, kept in zip(place.wanted, _values(place), now, strict=True)]
    return replace(named[0], wanted=tuple(now))


def _values(place: _Place) -> list[int]:
    return [int(value.value) for value in place.values]


def _is_same(one: Finding, other: Finding) -> bool:
    return (one.code, one.span.line, one.size) == (other.code, other.span.line, other.size)


def _place(rows: list[str], edit: Edit, names: Names, n_sizes: int) -> _Place | bool | None:
    """The braces that an edit writes over; True where they cannot be changed so, None where it writes over none."""
    row = rows[edit.span.line - 1] if edit.span.line <= len(rows) else ""
    begin, end = edit.span.column - 1, edit.span.end_column - 1
    for match in BRACES.finditer(row):
        used = names_in(match[1])
        if not used or match.end() <= begin or match.start() >= end:
            continue
        if used & THE_ROUND or used - names.defined.keys() or begin > match.start() or end < match.end() or match[2]:
            return True
        values = [names.sum_or_why(match[1], size, n_sizes) for size in range(n_sizes)]
        tokens = tokens_of(edit.text, 1, n_sizes)
        given = [int(value) for value, _ in tokens[0].members] if len(tokens) == 1 and tokens[0].kind == "num" else []
        wanted = given * n_sizes if len(given) == 1 else given
        good = tuple(value for value in values if isinstance(value, Value))
        if len(wanted) != n_sizes or len(good) != n_sizes:
            return True
        return _Place(edit, match[1].strip(), good, tuple(wanted))
    return None


def _everywhere(place: _Place, names: Names) -> Repair | None:
    """Another set of numbers for the one name that an expression rests on."""
    forms = {value.form.terms if value.form is not None else () for value in place.values}
    terms = next(iter(forms)) if len(forms) == 1 else ()
    if len(terms) != 1:
        return None
    ((name, factor),) = terms
    n_sizes = len(place.wanted)
    before = names.values(name, n_sizes)
    moved = [(wanted - value.value) / factor for wanted, value in zip(place.wanted, place.values, strict=True)]
    after = [one.value + by for one, by in zip(before, moved, strict=True) if isinstance(one, Value)]
    if len(after) != n_sizes or any(value.denominator != 1 or value < 0 for value in after):
        return None
    defined = names.defined[name]
    numbers = set_text(tuple(int(value) for value in after))
    span = Span(defined.line, defined.column, defined.column + len(defined.text.rstrip()))
    return Repair(f"Change “{name}” to {numbers} in all places", (Edit(span, f" {numbers}"),))


def _only_here(place: _Place, names: Names) -> Repair | None:
    """A name of its own for the place."""
    used = sorted(names_in(place.source))
    own = next((f"{used[0]} {n}" for n in range(2, 20) if f"{used[0]} {n}" not in names.defined), None)
    if own is None:
        return None
    defined = names.defined[used[0]]
    end = defined.column + len(defined.text)
    numbers = set_text(place.wanted)
    edits = (Edit(Span(defined.line, end, end), f"\nNumber: {own} = {numbers}"), Edit(place.edit.span, f"{{{own}}}"))
    return Repair(f"Change it to {numbers} only here, as “{own}”", edits)
