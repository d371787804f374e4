"""A text for other sizes: each begins as one that the text has, and every byte outside sets of numbers stays."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import fields, is_dataclass
from itertools import pairwise
from typing import Any

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.grading.gauge_lines import below_title, for_sizes
from rillstep.core.grading.set_style import in_style
from rillstep.core.printing.project import one_size
from rillstep.core.settling import read
from rillstep.core.tree import Again, Decimals, Num, Pattern, Row, lines_of
from rillstep.core.words.named_numbers import DEFINED
from rillstep.core.words.numbers import set_text
from rillstep.core.words.sizes import is_size_line

_SIZES = re.compile(r"^(\s*sizes?\s*:\s*)([^#]*?)(\s*(?:#.*)?)$", re.IGNORECASE)
_SET = re.compile(r"(\d+)\s*\(\s*(\d+(?:\s*,\s*\d+)*)\s*\)")


# The name of the size of a text that names none.
ONE_SIZE = "One size"
# Stands behind a line of sizes that was put into a text whose words name its sizes, and goes with it.
_PUT_THERE = "  # put here, as the words of this text name other sizes"


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
    named = _renamed(text, pattern.sizes, sizes, sources)
    moved = list(sources) != list(range(len(pattern.sizes)))
    edited = apply_edits(named, tuple(_edits(pattern, sources, named.split("\n")))) if moved else named
    if len(sizes) == 1:
        edited = _lines_of(edited, pattern, sources[0])
    edited = for_sizes(edited, pattern.sizes, sizes, sources)
    lines = _with_line_of_sizes(edited, pattern.sizes, sizes).split("\n")
    many = len(pattern.sizes)
    text = "\n".join(_definition(raw, many, sources) if DEFINED.match(raw) else raw for raw in lines)
    after = read(text).pattern
    if list(after.sizes) != list(sizes):
        raise NotResized("The sizes of this text stand in a form that is not rewritten; name them in a “Sizes:” line.")
    for at, source in enumerate(sources):
        _hold_alike(pattern, after, source, at)
    return text


def _renamed(text: str, names: Sequence[str], sizes: Sequence[str], sources: Sequence[int]) -> str:
    """The text with the names of its sizes in its `Sizes:` line, whose words around them stay. Raises NotResized."""
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        if _SIZES.match(raw) is None or is_size_line(raw):
            continue
        places = _places_of(raw, names)
        if places is None:
            raise NotResized(
                f"Line {at + 1} names the sizes in words that are not rewritten; write “Sizes: A, B” there."
            )
        lines[at] = in_style(raw, places, sources, sizes)
        return "\n".join(lines)
    return text


def _places_of(raw: str, names: Sequence[str]) -> list[tuple[int, int]] | None:
    """Where the names stand in a line, in their order; None where one does not."""
    places: list[tuple[int, int]] = []
    begin = raw.find(":") + 1
    for name in names:
        found = re.compile(rf"(?<!\w){re.escape(name)}(?!\w)", re.IGNORECASE).search(raw, begin)
        if found is None:
            return None
        places.append(found.span())
        begin = found.end()
    return places


def _with_line_of_sizes(text: str, names: Sequence[str], sizes: Sequence[str]) -> str:
    """The text with a line of its sizes where it had none, marked as one that was put there where its words name
    others; and without such a line where they name these again."""
    lines = text.split("\n")
    own = next((at for at, raw in enumerate(lines) if _SIZES.match(raw) is not None and not is_size_line(raw)), None)
    if own is None:
        if list(read(text).pattern.sizes) == list(sizes):
            return text
        text = with_sizes(text, sizes)
        if len(names) < 2:  # its words name none
            return text
        lines = text.split("\n")
        own = next(at for at, raw in enumerate(lines) if _SIZES.match(raw) is not None and not is_size_line(raw))
        return "\n".join([*lines[:own], lines[own] + _PUT_THERE, *lines[own + 1 :]])
    without = "\n".join([*lines[:own], *lines[own + 1 :]])
    goes = lines[own].endswith(_PUT_THERE) or list(sizes) == [ONE_SIZE]
    return without if goes and list(read(without).pattern.sizes) == list(sizes) else text


def with_sizes(text: str, sizes: Sequence[str]) -> str:
    """The text with its `Sizes:` line, which is put before its names, or below its title, where there is none."""
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        if (match := _SIZES.match(raw)) is not None and not is_size_line(raw):
            lines[at] = f"{match[1]}{', '.join(sizes)}{match[3]}"
            return "\n".join(lines)
    first = next((at for at, raw in enumerate(lines) if DEFINED.match(raw)), below_title(lines))
    return "\n".join([*lines[:first], f"Sizes: {', '.join(sizes)}", *lines[first:]])


def _definition(raw: str, many: int, sources: Sequence[int]) -> str:
    """A definition with the numbers of the sizes that are wanted."""
    match = _SET.search(raw.partition("#")[0])
    numbers = [match[1], *re.findall(r"\d+", match[2])] if match is not None else []
    if match is None or len(numbers) != many:
        return raw
    places = [found.span() for found in re.finditer(r"\d+", match[0])]
    return f"{raw[: match.start()]}{in_style(match[0], places, sources)}{raw[match.end() :]}"


def _lines_of(text: str, pattern: Pattern, source: int) -> str:
    """The text without the lines that are for other sizes only, and without those that name sizes."""
    gone: set[int] = set()
    stays: set[int] = set()
    for _, line in pattern.lines():
        numbers = set(lines_of(line) if isinstance(line, Row | Again) else (line.span.line,))
        (stays if source in line.sizes else gone).update(numbers)
    return "\n".join(
        raw
        for number, raw in enumerate(text.split("\n"), start=1)
        if number not in gone - stays and not is_size_line(raw)
    )


def _edits(pattern: Pattern, sources: Sequence[int], rows: Sequence[str]) -> Iterator[Edit]:
    """The edits that cut each written set down, or widen it, to the sizes that are wanted; each place once. Raises
    NotResized."""
    typed: list[tuple[list[Span], Sequence[int]]] = []
    seen: set[Span] = set()
    for number in _sets(pattern):
        if number.span in seen or all(number.values[at] is None for at in sources):
            continue
        seen.add(number.span)
        known = [at for at, value in enumerate(number.values) if value is not None]
        if len(number.parts) == len(known):  # a line for some sizes has its numbers for those alone
            typed.append((list(number.parts), [known.index(at) for at in sources if at in known]))
        elif isinstance(number, Num):
            values = (number.values[at] for at in sources)
            yield Edit(number.span, set_text(tuple(None if v is None else v - number.offset for v in values)))
        else:
            told = [f"{number.values[at]:g}" for at in sources]
            yield Edit(number.span, told[0] if len(set(told)) == 1 else f"{told[0]} ({', '.join(told[1:])})")
    for parts, items in _apart(typed):
        yield _edit(parts, items, rows)


def _apart(typed: Sequence[tuple[list[Span], Sequence[int]]]) -> Iterator[tuple[list[Span], Sequence[int]]]:
    """Sets by where their items stand; those of a range that is written for each size ("Rnds 5-28 (5-30, 5-32)") are
    one. Raises NotResized where two stand within each other in another way."""
    before: list[Span] = []
    items: Sequence[int] = ()
    for parts, own in sorted(typed, key=lambda one: (one[0][0].line, one[0][0].column)):
        if not before or before[-1].line != parts[0].line or before[-1].end_column <= parts[0].column:
            if before:
                yield before, items
            before, items = parts, own
            continue
        if parts == before:
            continue
        both = [
            Span(one.line, min(one.column, other.column), max(one.end_column, other.end_column))
            for one, other in zip(before, parts, strict=False)
        ]
        if len(parts) != len(before) or any(one.end_column > other.column for one, other in pairwise(both)):
            raise NotResized(f"Line {parts[0].line} has sets of numbers that stand within each other.")
        before = both
    if before:
        yield before, items


def _edit(parts: Sequence[Span], sources: Sequence[int], rows: Sequence[str]) -> Edit:
    """The edit that writes a set for other sizes as it was typed; parts: where each size's number stands."""
    row, begin, end = rows[parts[0].line - 1], parts[0].column - 1, parts[-1].end_column - 1
    end += row[end : end + 1] in (")", "]", "}")
    places = [(part.column - 1 - begin, part.end_column - 1 - begin) for part in parts]
    return Edit(Span(parts[0].line, begin + 1, end + 1), in_style(row[begin:end], places, sources))


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
