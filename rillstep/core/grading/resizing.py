"""A text for other sizes: each begins as one that the text has, and every byte outside sets of numbers stays."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import fields, is_dataclass
from typing import Any

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.grading.gauge_lines import for_sizes
from rillstep.core.printing.project import one_size
from rillstep.core.settling import read
from rillstep.core.tree import Again, Decimals, Num, Pattern, Row, lines_of
from rillstep.core.words.named_numbers import DEFINED
from rillstep.core.words.numbers import set_text
from rillstep.core.words.sizes import is_size_line

_SIZES = re.compile(r"^(\s*sizes?\s*:\s*)([^#]*?)(\s*(?:#.*)?)$", re.IGNORECASE)
_RANGE_IN_SET = re.compile(r"[(\[/;,].*\d\s*(?:[-–—]|to)\s*\D{0,3}\d")
_SET = re.compile(r"(\d+)\s*\(\s*(\d+(?:\s*,\s*\d+)*)\s*\)")


class NotResized(ValueError):
    """The form of a text does not allow other sizes; the message names the line."""


def resized(text: str, sizes: Sequence[str], sources: Sequence[int]) -> str:
    """The text for other sizes; sources: for each the index of the size of the text that it begins as.

    Raises NotResized where a size would not come out as the one that it begins as: sets that stand in kept words, or
    lines for some sizes only.
    """
    pattern = read(text).pattern
    if len(sources) != len(sizes) or any(not 0 <= at < len(pattern.sizes) for at in sources):
        raise NotResized("Each size begins as one that the text has.")
    if len({name.lower() for name in sizes}) < len(sizes):
        raise NotResized("Two sizes have the same name; give each its own.")
    if list(pattern.sizes) == list(sizes) and list(sources) == list(range(len(sizes))):
        return text
    edited = apply_edits(text, tuple(_edits(pattern, sources, text.split("\n"))))
    if len(sizes) == 1:
        edited = _lines_of(edited, pattern, sources[0])
    edited = for_sizes(edited, pattern.sizes, sizes, sources)
    lines = with_sizes(edited, sizes).split("\n")
    many = len(pattern.sizes)
    text = "\n".join(_definition(raw, many, sources) if DEFINED.match(raw) else raw for raw in lines)
    after = read(text).pattern
    for at, source in enumerate(sources):
        _hold_alike(pattern, after, source, at)
    return text


def with_sizes(text: str, sizes: Sequence[str]) -> str:
    """The text with its `Sizes:` line, which is put before its names where there is none."""
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        if (match := _SIZES.match(raw)) is not None and not is_size_line(raw):
            lines[at] = f"{match[1]}{', '.join(sizes)}{match[3]}"
            return "\n".join(lines)
    first = next((at for at, raw in enumerate(lines) if DEFINED.match(raw)), 0)
    return "\n".join([*lines[:first], f"Sizes: {', '.join(sizes)}", *lines[first:]])


def _definition(raw: str, many: int, sources: Sequence[int]) -> str:
    """A definition with the numbers of the sizes that are wanted."""
    match = _SET.search(raw.partition("#")[0])
    numbers = [match[1], *re.findall(r"\d+", match[2])] if match is not None else []
    if match is None or len(numbers) != many:
        return raw
    return f"{raw[: match.start()]}{set_text(tuple(int(numbers[at]) for at in sources))}{raw[match.end() :]}"


def _lines_of(text: str, pattern: Pattern, source: int) -> str:
    """The text without the lines that are for other sizes only, and without those that name sizes."""
    gone: set[int] = set()
    stays: set[int] = set()
    for _, line in pattern.lines():
        numbers = set(lines_of(line) if isinstance(line, Row | Again) else (line.span.line,))
        (stays if source in line.sizes else gone).update(numbers)
    return "\n".join(
        raw for number, raw in enumerate(text.split("\n"), start=1)
        if number not in gone - stays and not is_size_line(raw)
    )  # fmt: skip


def _edits(pattern: Pattern, sources: Sequence[int], rows: Sequence[str]) -> Iterator[Edit]:
    """The edits that cut each written set down, or widen it, to the sizes that are wanted; each place once."""
    ranges = dict(_ranges(pattern, sources, rows))
    seen: set[Span] = set()
    for number in _sets(pattern):
        values = tuple(number.values[at] for at in sources)
        within = any(_within(number.span, span) for span in ranges)
        if number.span in seen or within or all(value is None for value in values):
            continue
        seen.add(number.span)
        if isinstance(number, Num):
            yield Edit(number.span, set_text(tuple(None if v is None else v - number.offset for v in values)))
        else:  # decimals stay as they were typed
            written = [_typed(number, at, rows) for at in sources]
            same = len(set(written)) == 1
            yield Edit(number.span, written[0] if same else f"{written[0]} ({', '.join(written[1:])})")
    yield from (Edit(span, written) for span, written in ranges.items())


def _typed(number: Decimals, at: int, rows: Sequence[str]) -> str:
    """A decimal as it was typed for a size."""
    value = number.values[at]
    if len(number.parts) != len(number.values):
        return f"{value:g}"
    part = number.parts[at]
    return rows[part.line - 1][part.column - 1 : part.end_column - 1]


def _within(inner: Span, outer: Span) -> bool:
    return inner.line == outer.line and outer.column <= inner.column < outer.end_column


def _ranges(pattern: Pattern, sources: Sequence[int], rows: Sequence[str]) -> Iterator[tuple[Span, str]]:
    """Labels that name a range for each size ("Rnds 5-28 (5-30, 5-32)"), as a set of first and one of last rounds."""
    for _, line in pattern.lines():
        if not isinstance(line, Row | Again) or line.last is None or line.last.source or line.first.source:
            continue
        spans = [span for span in (line.first.span, line.last.span) if span.line == line.span.line]
        if len(spans) < 2:
            continue
        span = Span(line.span.line, min(s.column for s in spans), max(s.end_column for s in spans))
        raw = rows[span.line - 1][span.column - 1 : span.end_column - 1]
        if _RANGE_IN_SET.search(raw) is None:
            continue
        ends = [tuple(number.values[at] for at in sources) for number in (line.first, line.last)]
        if all(value is not None for each in ends for value in each):
            yield span, "-".join(set_text(each) for each in ends)


def _sets(node: Any) -> Iterator[Num | Decimals]:
    """The written sets of a node; sums of names follow from those."""
    if isinstance(node, Num | Decimals):
        if len(node.parts) > 1 and not (isinstance(node, Num) and node.source):
            yield node
    elif isinstance(node, tuple):
        for item in node:
            yield from _sets(item)
    elif is_dataclass(node) and not isinstance(node, type):
        for one in fields(node):
            yield from _sets(getattr(node, one.name))


def _hold_alike(before: Pattern, after: Pattern, source: int, at: int) -> None:
    """Raises NotResized where the new size differs from the one that it begins as."""
    if len(after.sizes) <= at:
        raise NotResized("The sizes of this text stand in a form that is not rewritten; name them in a “Sizes:” line.")
    one, other = one_size(before, source), one_size(after, at)
    for section, same in zip(one.sections, other.sections, strict=False):
        for line, again in zip(section.lines, same.lines, strict=False):
            if line != again:
                raise NotResized(
                    f"Line {line.span.line} cannot be rewritten for other sizes by itself; write it with a set of "
                    "numbers for all sizes, or with a name."
                )
    if one.sections != other.sections:
        raise NotResized("Lines for some sizes only are not rewritten; a run or a range of 0 says the same.")
