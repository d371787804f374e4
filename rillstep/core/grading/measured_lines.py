"""Lines by measure ("until the wall measures 20 cm", "ch until it measures 60 cm"): their lengths are wishes.

A target of what such a line makes is met by its length, and not by a number of rounds.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, fields, is_dataclass
from typing import Any

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.grading.trials import Trials, measures_at
from rillstep.core.proof import Proof
from rillstep.core.tree import Pattern, Until
from rillstep.core.words.numbers import set_text

# A line is tried at this much of its length, and what moves by at least half as much is made by it.
_TRIED, _MOVES = 1.5, 0.5


@dataclass(frozen=True)
class MeasuredLine:
    """A length in a line by measure of a text in one size. span: where it stands; unit_mm: of one of its unit; moves:
    the measures that it makes."""

    span: Span
    value: float
    unit_mm: float
    moves: frozenset[str]

    def for_target(self, target_mm: float, known_mm: float) -> float:
        """The length, in its unit, at which a measure comes to a target."""
        return max(round(self.value + (target_mm - known_mm) / self.unit_mm, 1), 0.1)


def lengths_in(pattern: Pattern) -> list[tuple[Span, float, float]]:
    """The lengths of the lines by measure of a text in one size: where, in which unit of the line, and the unit in mm;
    each once."""
    found: dict[Span, tuple[Span, float, float]] = {}
    for section in pattern.sections:
        for until in _untils(section.lines):
            length = until.length
            value, mm = (length.values[0], until.mm(0)) if length is not None else (None, None)
            if length is not None and length.span.line and value and mm:
                found.setdefault(length.span, (length.span, value, mm / value))
    return list(found.values())


def measured_lines(trials: Trials, proof: Proof) -> tuple[MeasuredLine, ...]:
    """The lines by measure of a text with what each makes, found by working it at another length."""
    before = measures_at(proof)
    found = []
    for span, value, unit_mm in lengths_in(proof.pattern):
        longer = round(value * _TRIED, 1)
        text = trials.rewritten(trials.base, at_lengths(trials.text, {span: (longer,)}))
        _, there = proved_with_lengths(text, trials.allowance_mm)
        by = (longer - value) * unit_mm
        after = measures_at(there)
        moved = (name for name, mm in before.items() if after.get(name, mm) - mm > _MOVES * by)
        # One that comes out at no other length makes nothing; it stays in its place, as sizes are told by it.
        moves = frozenset(moved if there.ok else ())
        found.append(MeasuredLine(span, value, unit_mm, moves))
    return tuple(found)


def at_lengths(text: str, lengths: Mapping[Span, Sequence[float]]) -> str:
    """The text with other lengths, for each size."""
    edits = (Edit(span, set_text(tuple(each), lambda value: f"{value:g}")) for span, each in lengths.items())
    return apply_edits(text, tuple(edits))


def _untils(node: Any) -> Iterator[Until]:
    if isinstance(node, Until):
        yield node
    elif isinstance(node, tuple):
        for item in node:
            yield from _untils(item)
    elif is_dataclass(node) and not isinstance(node, type):
        for one in fields(node):
            yield from _untils(getattr(node, one.name))
