"""The numbers of rounds after a text changed: labels that count on, and references to rows ("Rep Rnds 2-5")."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, fields, is_dataclass

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.settling import read
from rillstep.core.tree import Again, Along, Bars, Loops, Num, Pattern, Row, Section
from rillstep.core.words.numbers import set_text, with_values

Place = tuple[int, int]  # a section, and how many lines of rows stand before one in it


@dataclass(frozen=True)
class Numbering:
    """How the sample counts its rounds. counted: the lines whose first number is the next one after the line before.
    rows: the first and the last number of each line. refers: whether it refers to rows by their number."""

    counted: frozenset[Place]
    rows: Mapping[Place, tuple[int, int]]
    refers: bool


def numbering_of(pattern: Pattern) -> Numbering:
    """The numbering of a text in one size."""
    counted, rows = set(), {}
    for place, lines, following in _in_order(pattern, None):
        line = lines[0]
        rows[place] = (line.first.at(0), (lines[-1].last or lines[-1].first).at(0))
        if line.first.parts and all(line.first.at(size) == following.get(size) for size in line.sizes):
            counted.add(place)
    refers = any(True for section in pattern.sections for _ in _references(section))
    return Numbering(frozenset(counted), rows, refers)


def renumbered(text: str, numbering: Numbering) -> str:
    """The text of the sample at other numbers, with its labels counted on, and its references to the same rows."""
    found = {edit.span: edit for edit in numbering_edits(read(text).pattern, numbering)}
    return apply_edits(text, tuple(found.values())) if found else text


def numbering_edits(pattern: Pattern, numbering: Numbering) -> list[Edit]:
    """What changes in labels and references."""
    edits = (edit_of(number, values) for number, values in _numbers_now(pattern, numbering))
    return [edit for edit in edits if edit is not None]


def renumbered_rows(pattern: Pattern, numbering: Numbering) -> Pattern:
    """The same of the tree of a text, without reading it again."""
    now = {number.span: tuple(values) for number, values in _numbers_now(pattern, numbering) if _is_written(number)}
    return with_values(pattern, now)


def _numbers_now(pattern: Pattern, numbering: Numbering) -> Iterator[tuple[Num, Sequence[int | None]]]:
    """The numbers of rounds in labels and in references, with what they are now."""
    sizes = range(len(pattern.sizes))
    now: dict[Place, tuple[list[int | None], list[int | None]]] = {}
    for place, lines, following in _in_order(pattern, numbering.counted):
        line, end = lines[0], lines[-1].last or lines[-1].first
        first: list[int | None] = list(line.first.values)
        if place in numbering.counted and all(size in following for size in line.sizes):
            first = [following[size] if size in line.sizes else None for size in sizes]
        last = (
            list(end.values)
            if end.source
            else [_sum(a, b, c) for a, b, c in zip(end.values, first, line.first.values, strict=True)]
        )
        now[place] = (first, last)
        yield line.first, first
        if line.last is not None:
            yield line.last, last
    for index, section in enumerate(pattern.sections):
        for number in _references(section):
            row = _row_of(number, index, pattern, numbering)
            if row is not None and row in now:
                yield number, _moved(number, row, now, numbering)


def _sum(a: int | None, b: int | None, c: int | None) -> int | None:
    return None if a is None or b is None or c is None else a + b - c


def _moved(
    number: Num,
    place: Place,
    now: Mapping[Place, tuple[Sequence[int | None], Sequence[int | None]]],
    numbering: Numbering,
) -> list[int | None]:
    """The number of the same row in the text as it is now."""
    first, last = numbering.rows[place]
    begin, end = now[place]
    told = next(value for value in number.values if value is not None)
    return [
        None if value is None or a is None or b is None else b if told == last else a + told - first
        for value, a, b in zip(number.values, begin, end, strict=True)
    ]


def _row_of(number: Num, index: int, pattern: Pattern, numbering: Numbering) -> Place | None:
    """The line of the sample that a number refers to: in its section, or one that it goes on from; the last such."""
    told = next((value for value in number.values if value is not None), None)
    titles = [section.title.lower() for section in pattern.sections]
    at: int | None = index
    seen: set[int] = set()
    while at is not None and at not in seen and told is not None:
        seen.add(at)
        places = [place for place, (a, b) in numbering.rows.items() if place[0] == at and a <= told <= b]
        if places:
            return places[-1]
        before = pattern.sections[at].continues
        at = titles.index(before.lower()) if before is not None and before.lower() in titles else at - 1 if at else None
    return None


def _references(section: Section) -> Iterator[Num]:
    """The plain numbers of a section that name rows."""
    nodes: list[object] = [section.on, *section.lines]
    for node in nodes:
        for number in _named_rows(node):
            if number.parts and not number.source and number.span.line:
                yield number


def _named_rows(node: object) -> Iterator[Num]:
    if isinstance(node, Again):
        yield from node.sources
        return
    if isinstance(node, Loops | Bars | Along):
        if node.number is not None:
            yield node.number
        return
    if isinstance(node, tuple):
        for item in node:
            yield from _named_rows(item)
    elif is_dataclass(node) and not isinstance(node, type) and not isinstance(node, Num | Span):
        for one in fields(node):
            yield from _named_rows(getattr(node, one.name))


def _in_order(
    pattern: Pattern, counted: frozenset[Place] | None
) -> Iterator[tuple[Place, list[Row | Again], Mapping[int, int]]]:
    """The rows that each line of the text writes, and for each size the number that comes next there.

    counted: the lines that count on, whose numbers are taken to be right; None where the text is right as it is.
    """
    ends: dict[str, dict[int, int]] = {}
    following: dict[int, int] = {}
    for index, section in enumerate(pattern.sections):
        lines = _by_line(section)
        goes_on = bool(lines) and (
            _counts_on(lines[0][0], following) if counted is None else (index, 0) in counted and bool(following)
        )
        if section.continues is not None or not goes_on:
            following = dict(ends.get((section.continues or "").lower(), {}))
        for at, rows in enumerate(lines):
            yield (index, at), rows, dict(following)
            first = rows[0].first
            on = counted is not None and (index, at) in counted and first.parts and not first.source
            for row in rows:
                end = row.last or row.first
                for size in row.sizes:
                    moved = following[size] - first.at(size) if on and row is rows[0] and size in following else 0
                    following[size] = end.at(size) + 1 + (0 if end.source else moved)
        ends[section.title.lower()] = dict(following)


def _by_line(section: Section) -> list[list[Row | Again]]:
    """The rows of a section, those of one line of the text together."""
    found: list[list[Row | Again]] = []
    for line in section.lines:
        if not isinstance(line, Row | Again):
            continue
        if found and found[-1][0].span.line == line.span.line:
            found[-1].append(line)
        else:
            found.append([line])
    return found


def _counts_on(first: Row | Again, following: Mapping[int, int]) -> bool:
    """Whether a section goes on counting where the one before it in the text ends."""
    numbers = [(first.first.at(size), following.get(size)) for size in first.sizes]
    return all(number == after and number > 1 for number, after in numbers)


def edit_of(number: Num, values: Sequence[int | None]) -> Edit | None:
    """The edit that makes a plain number these values; None where it has them, or is a sum of names."""
    if not _is_written(number) or tuple(values) == number.values:
        return None
    return Edit(number.span, set_text(tuple(values)))


def _is_written(number: Num) -> bool:
    """Whether a number stands in the text as it is."""
    return bool(not number.source and number.parts and not number.offset and number.span.line)
