"""One size of a pattern as a pattern of its own."""

import re
from dataclasses import fields, is_dataclass, replace
from typing import Any

from rillstep.core.tree import Again, Check, Decimals, Line, Num, Pattern, Prose, Row
from rillstep.core.tree.changes import in_gauge_of, without_nothing


def one_size(pattern: Pattern, size: int) -> Pattern:
    """The pattern with only that size: sets become plain numbers, other sizes' lines go."""
    sections = tuple(
        replace(
            section,
            lines=tuple(
                _in_words(_as_one(without_nothing(_project(line, size))), size, len(pattern.sizes))
                for line in section.lines
                if size in line.sizes
            ),
            on=_project(section.on, size),
            make=(section.made(size),),
        )
        for section in pattern.sections
    )
    finished: Check | None = None if pattern.finished is None else _project(pattern.finished, size)
    specials = _project(pattern.specials, size)
    pattern = in_gauge_of(pattern, size)
    gauges = tuple(replace(gauge, sizes=()) if gauge.sizes else gauge for gauge in pattern.gauges)
    pattern = replace(pattern, gauges=gauges) if gauges != pattern.gauges else pattern
    return replace(pattern, sizes=(pattern.sizes[size],), sections=sections, finished=finished, specials=specials)


def _as_one(line: Line) -> Line:
    """A range of one row is that row."""
    if isinstance(line, Row | Again) and line.last is not None and line.last.values == line.first.values:
        return replace(line, last=None)
    return line


_SET = re.compile(r"\b\d+(?: ?\((?:\d+(?:, ?\d+)*)\)| ?\[(?:\d+(?:, ?\d+)*)\]|(?:/\d+)+)")


def _in_words(line: Line, size: int, sizes: int) -> Line:
    """A line whose words have the number of the size where they give one for each: "You have 16 (20) shells"."""

    def own(match: re.Match[str]) -> str:
        numbers = re.findall(r"\d+", match[0])
        return numbers[size] if len(numbers) == sizes > 1 else match[0]

    if isinstance(line, Prose):
        return replace(line, text=_SET.sub(own, line.text))
    if isinstance(line, Check) or not line.kept:
        return line
    return replace(line, kept=tuple(replace(one, words=_SET.sub(own, one.words)) for one in line.kept))


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
