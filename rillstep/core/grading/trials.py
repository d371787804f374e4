"""A text in one size at other numbers: worked, or proved, once for each; and what refutes it there."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from rillstep.core.fabric import SizeWork, Trouble, work_pattern
from rillstep.core.grading.named_text import (
    Counting,
    changed,
    counting_of,
    free_numbers,
    restated,
    restated_once,
    without_totals,
)
from rillstep.core.grading.renumbering import Numbering, numbering_of, renumbered, renumbered_rows
from rillstep.core.grading.stated_lengths import DIFFERS, proved_with_lengths
from rillstep.core.memory import Shelf
from rillstep.core.printing.writer import write_label
from rillstep.core.proof import Proof
from rillstep.core.settling import read
from rillstep.core.tree import Pattern, Setup
from rillstep.core.watch import look
from rillstep.core.words.named_numbers import BRACES, names_in
from rillstep.core.words.numbers import with_forms

# A line that is written by the number of the round.
THE_ROUND_IN = re.compile(r"\{[^{}]*\b(?:rnd|row|round)\b[^{}]*\}")
# The section of what is found when every line comes out: totals, numbering, openings.
BEHIND = 1_000_000
# Findings that tell by how much something does not come out, half stitches counted.
_BY_AMOUNT = ("handles-not-opposite", "total-differs", "fold-differs", "layout-count")
# Those that no number restated changes.
_SURE = ("handles-not-opposite", "fold-differs", "layout-count")


@dataclass(frozen=True)
class Refuted:
    """What refutes a text at other numbers: where, and by how many stitches it does not come out.

    section, line: where in the text; of two that are refuted, the one that is refuted later came further. amount:
    stitches left over, below 0 where some are missing; 0 for anything else. takes: of a repeat that does not come out
    even, what one turn takes. label: the row, as it is written. code: of a finding of the proof.
    """

    line: int
    message: str
    amount: int = 0
    takes: int = 0
    section: int = 0
    label: str = ""
    code: str = ""

    @property
    def place(self) -> tuple[int, int, str]:
        """Where it is refuted, in the order of work, and by what."""
        return (self.section, self.line, self.code)


# A text is worked so many times at most to find how it grows, and proved so many times.
MOST_WORKED, MOST_PROVED = 500, 70


@dataclass(frozen=True)
class Earlier:
    """What was found about a text at other numbers, by work that was ended as well: the next goes on from there. rows:
    the lines of all the proofs that it may hold."""

    rows: int
    proved: dict[tuple[int, ...], Proof | Refuted] = field(default_factory=dict)
    worked: dict[tuple[int, ...], Refuted | None] = field(default_factory=dict)


_EARLIER: Shelf[tuple[str, float], Earlier] = Shelf(40_000, lambda one: one.rows)


@dataclass
class Trials:
    """A text in one size and what was found about it at other numbers; each is worked once. earlier: what is known
    without work; known and worked are what was asked for here, which is bounded and the same whatever is known."""

    text: str
    base: Mapping[str, int]
    numbering: Numbering
    counted_as: Counting
    earlier: Earlier
    allowance_mm: float = 0.0
    known: dict[tuple[int, ...], Proof | Refuted] = field(default_factory=dict)
    worked: dict[tuple[int, ...], Refuted | None] = field(default_factory=dict)
    proves: bool = True

    @cached_property
    def full(self) -> Pattern:
        """The tree of the text."""
        return read(self.text).pattern

    @cached_property
    def bare(self) -> Pattern:
        """The tree of the text, without what it states."""
        return without_totals(self.full, self.counted_as.said)

    @cached_property
    def rows_by(self) -> frozenset[str]:
        """The names that say how many rows a line of the text writes out by their number."""
        lines = (line for line in self.text.split("\n") if THE_ROUND_IN.search(line))
        return frozenset(name for line in lines for braces in BRACES.finditer(line) for name in names_in(braces[1]))

    def worked_only(self) -> "Trials":
        """The same, where a text counts as coming out when every line of it does; it is not proved."""
        return replace(self, proves=False)

    def values(self, change: Mapping[str, int], times: int = 1) -> dict[str, int]:
        """The numbers of the names after a change."""
        return {name: value + times * change.get(name, 0) for name, value in self.base.items()}

    def refuted(self, change: Mapping[str, int]) -> Refuted | None:
        """What refutes the text at other numbers; None where it comes out."""
        if not self.proves:
            return self.stop(self.values(change))
        found = self.at(change)
        return found if isinstance(found, Refuted) else None

    def at(self, change: Mapping[str, int], times: int = 1) -> Proof | Refuted:
        """The proof at other numbers, or the first thing that refutes them."""
        values = self.values(change, times)
        key = tuple(values.values())
        if key not in self.known:
            stop = self.stop(values)
            if key not in self.earlier.proved:
                self.earlier.proved[key] = stop if stop is not None else self._proved(values)
            self.known[key] = self.earlier.proved[key]
        return self.known[key]

    def stop(self, values: Mapping[str, int]) -> Refuted | None:
        """The first line that does not come out at these numbers, without what the text states of it."""
        look()
        key = tuple(values.values())
        if key not in self.worked:
            if key not in self.earlier.worked:
                self.earlier.worked[key] = self._stop(values)
            self.worked[key] = self.earlier.worked[key]
        return self.worked[key]

    def rewritten(self, values: Mapping[str, int], text: str | None = None) -> str:
        """The text at other numbers, with what follows from them restated; text: with other lengths than the sample."""
        text = changed(text or self.text, {name: (value,) for name, value in values.items()})
        return restated(text, self.numbering, self.counted_as)

    def _moved(self, values: Mapping[str, int]) -> dict[str, int] | None:
        """By how much each name moves, where the tree moves with it: no row comes or goes, and no run vanishes."""
        moved = {name: value - self.base[name] for name, value in values.items() if value != self.base[name]}
        return moved if not self.rows_by & moved.keys() and all(values[name] for name in moved) else None

    def _stop(self, values: Mapping[str, int]) -> Refuted | None:
        small = next((name for name, value in values.items() if value < 0), None)
        if small is not None:
            return Refuted(0, f"“{small}” would be less than nothing.", section=-1)
        return _first_stop(work_pattern(self._pattern(values), 0))

    def _pattern(self, values: Mapping[str, int]) -> Pattern:
        """The tree at other numbers, without what it states. It is read anew only where its rows are others."""
        moved = self._moved(values)
        if moved is not None:
            pattern = with_forms(self.bare, moved)
            return renumbered_rows(pattern, self.numbering) if self.numbering.refers else pattern
        text = changed(self.text, {name: (value,) for name, value in values.items()})
        if self.numbering.refers:
            text = renumbered(text, self.numbering)
        return without_totals(read(text).pattern, self.counted_as.said)

    def _proved(self, values: Mapping[str, int]) -> Proof | Refuted:
        text = changed(self.text, {name: (value,) for name, value in values.items()})
        moved = self._moved(values)
        full = with_forms(self.full, moved) if moved is not None else read(text).pattern
        bare = renumbered_rows(without_totals(full, self.counted_as.said), self.numbering)
        # Restated from one tree, which is quicker, and mostly enough.
        once = restated_once(text, full, bare, self.numbering, self.counted_as)
        found = _proof_or_refuted(proved_with_lengths(once, self.allowance_mm)[1])
        if isinstance(found, Proof) or found.code in _SURE:
            return found
        return _proof_or_refuted(proved_with_lengths(self.rewritten(values), self.allowance_mm)[1])


def _proof_or_refuted(proof: Proof) -> Proof | Refuted:
    errors = [f for f in proof.findings if f.severity == "error"]
    if not errors:
        return proof
    # Lengths are restated where nothing else is wrong, so what else is wrong refutes it.
    error = next((f for f in errors if f.code != DIFFERS), errors[0])
    known = error.code in _BY_AMOUNT and error.found is not None and error.expected is not None
    amount = round(2 * (error.found - error.expected)) if known else 0  # type: ignore[operator]
    return Refuted(error.span.line, error.message, amount, section=BEHIND, code=error.code)


def _first_stop(work: SizeWork) -> Refuted | None:
    line = next((one for one in work.lines if one.trouble is not None), None)
    if line is None or line.trouble is None:
        return None
    label = "the beginning" if isinstance(line.line, Setup) else write_label(line.line)
    return _refuted(line.section, line.line.span.line, label, line.trouble)


def _refuted(section: int, line: int, label: str, trouble: Trouble) -> Refuted:
    left, missing = trouble.left or 0, trouble.missing or 0
    if trouble.code == "repeat-uneven":
        return Refuted(line, trouble.message, left, left + missing, section, label)
    return Refuted(line, trouble.message, left - missing, 0, section, label)


def measures_at(proof: Proof) -> dict[str, float]:
    """The measures of a proof in one size by the names that targets call them: "width", "Strap.length"."""
    found = proof.bag.measures if proof.bag is not None else ()
    return {one.called: one.mm[0] for one in found if one.mm[0] is not None}


def trials_of(text: str, allowance_mm: float = 0.0) -> Trials:
    """A text in one size, to be tried at other numbers of its names."""
    pattern = read(text).pattern
    earlier = _EARLIER.get((text, allowance_mm))
    if earlier is None:
        earlier = Earlier(MOST_PROVED * (1 + sum(len(section.lines) for section in pattern.sections)))
        _EARLIER.put((text, allowance_mm), earlier)
    return Trials(text, free_numbers(text), numbering_of(pattern), counting_of(pattern), earlier, allowance_mm)
