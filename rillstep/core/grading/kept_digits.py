"""Digits in words that are kept as they were typed, and that stand for a number that other sizes have otherwise.

"Mark every 48th stitch" is not touched by grading; it is listed, so that the designer looks at it.
"""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from rillstep.core.grading.named_text import Counting, stating
from rillstep.core.tree import Again, Pattern, Row, Setup, words_of

# Smaller numbers stand for anything.
LEAST_DIGITS = 4
_NUMBER = re.compile(r"(?<![\d.,/{-])\d{1,5}(?![\d.,]*\d|[}/])")
_NOTE = re.compile(r"^\s*(?:note|notes|finished|finished size)\s*:", re.IGNORECASE)


@dataclass(frozen=True)
class KeptDigits:
    """A number in kept words: its line (from 1), what it is, and what it was in the sample that has changed since."""

    line: int
    number: int
    was: str


def kept_digits(
    text: str, pattern: Pattern, counted_as: Counting, values: Mapping[str, Sequence[int]], base: Mapping[str, int]
) -> tuple[KeptDigits, ...]:
    """The digits of a graded text to look at. pattern: its tree. counted_as: how the sample counts its totals. values,
    base: the numbers of the names in all sizes, and in the sample."""
    moved = [name for name, each in values.items() if any(value != base[name] for value in each)]
    told = {base[name]: name for name in reversed(moved)}
    sizes = range(len(pattern.sizes))
    at = next((at for at in sizes if all(each[at] == base[name] for name, each in values.items())), None)
    if at is not None:  # one of the sizes is as the sample
        told = dict(reversed(list(_totals(pattern, at)))) | told
    found = {
        KeptDigits(line, int(match[0]), told[int(match[0])])
        for line, words in _words(text, pattern)
        for match in _NUMBER.finditer(words)
        if int(match[0]) >= LEAST_DIGITS and int(match[0]) in told
    }
    found |= set(_uncounted(pattern, counted_as)) if moved else set()
    return tuple(sorted(found, key=lambda one: (one.line, one.number)))


def _uncounted(pattern: Pattern, counted_as: Counting) -> Iterator[KeptDigits]:
    """Totals that are not counted in the sample, so that they stay as they are."""
    for place, line, _ in stating(pattern, pattern):
        for number, total in enumerate(line.totals):
            plain = not total.count.source and total.count.span.line and total.count.at(line.sizes[0])
            if plain and (*place, number) not in counted_as.ways:
                yield KeptDigits(line.span.line, total.count.at(line.sizes[0]), "a total that is not counted here")


def _totals(pattern: Pattern, at: int) -> Iterator[tuple[int, str]]:
    """Totals of the sample that differ in another size, with the line that states them."""
    for section, line in pattern.lines():
        if not isinstance(line, Row | Again | Setup) or at not in line.sizes:
            continue
        for total in line.totals:
            if len({value for value in total.count.values if value is not None}) > 1 and total.count.values[at]:
                yield total.count.at(at), f"a total in {section.title}" if section.title else "a total"


def _words(text: str, pattern: Pattern) -> Iterator[tuple[int, str]]:
    """Kept words with their line, those of the head too."""
    lines = [line for _, line in pattern.lines()]
    first = min((line.span.line for line in lines if line.span.line), default=1)
    for number, raw in enumerate(text.split("\n")[: first - 1], start=1):
        if _NOTE.match(raw):
            yield number, raw
    for line in lines:
        for words in words_of(line):
            yield line.span.line, words
