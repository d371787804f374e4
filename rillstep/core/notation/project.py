"""One size of a pattern as a pattern of its own."""

from dataclasses import fields, is_dataclass, replace
from typing import Any

from rillstep.core.notation.tree import Again, Check, Decimals, Num, Pattern, Row, Section


def one_size(pattern: Pattern, size: int) -> Pattern:
    """The pattern with only that size: sets become plain numbers, other sizes' lines go."""
    sections = tuple(
        replace(
            section,
            lines=tuple(
                _project(_called(pattern, index, line, size) if isinstance(line, Again) else line, size)
                for line in section.lines
                if size in line.sizes
            ),
            on=_project(section.on, size),
            make=(section.made(size),),
        )
        for index, section in enumerate(pattern.sections)
    )
    finished: Check | None = None if pattern.finished is None else _project(pattern.finished, size)
    specials = _project(pattern.specials, size)
    return replace(pattern, sizes=(pattern.sizes[size],), sections=sections, finished=finished, specials=specials)


def _called(pattern: Pattern, index: int, line: Again, size: int) -> Again:
    """Rows worked again, called by the numbers that they have in that size: where one number stands for all, it is that of the first size."""
    first = min(line.sizes)
    if first == size:
        return line
    sources = tuple(_number_in(pattern, index, line, number, (first, size)) for number in line.sources)
    return replace(line, sources=sources)


def _number_in(pattern: Pattern, index: int, line: Again, number: Num, sizes: tuple[int, int]) -> Num:
    first, size = sizes
    called = number.at(first)
    if any(value not in (None, called) for value in number.values) or len(number.parts) > 1:
        return number
    section: Section | None = pattern.sections[index]
    lines = section.lines if section is not None else ()
    before = lines[: next(i for i, one in enumerate(lines) if one is line)]
    while section is not None:
        for row in reversed(before):
            if not isinstance(row, Row | Again) or row.kind != line.kind or first not in row.sizes:
                continue
            last = (row.last or row.first).at(first)
            if row.first.at(first) <= called <= last and size in row.sizes:
                own = row.first.at(size) + called - row.first.at(first)
                return replace(number, values=tuple(own if i == size else v for i, v in enumerate(number.values)))
        index, title = pattern.sections.index(section), (section.continues or "").lower()
        section = next((s for s in reversed(pattern.sections[:index]) if s.title.lower() == title), None)
        before = section.lines if section is not None else ()
    return number


def _project(node: Any, size: int) -> Any:
    """The same node with every number set cut down to one size."""
    if isinstance(node, Num):
        return Num((node.values[size],), node.span, node.parts[:1])
    if isinstance(node, Decimals):
        return Decimals((node.values[size],), node.span, node.parts[:1])
    if isinstance(node, tuple):
        return tuple(_project(item, size) for item in node)
    if is_dataclass(node) and not isinstance(node, type):
        changes = {f.name: _project(getattr(node, f.name), size) for f in fields(node) if "span" not in f.name}
        if "sizes" in changes:
            changes["sizes"] = (0,)
        return replace(node, **changes)
    return node
