"""Equal rounds one after another, folded into a range: "Rnds 8-15 (17)" instead of eight lines that say the same."""

from dataclasses import replace

from rillstep.core.tree import Line, Num, Pattern, Row


def folded(pattern: Pattern) -> Pattern:
    """The pattern with each run of equal rows made one line. What is worked stays the same in every size."""
    return replace(
        pattern, sections=tuple(replace(section, lines=_folded(section.lines)) for section in pattern.sections)
    )


def _folded(lines: tuple[Line, ...]) -> tuple[Line, ...]:
    found: list[Line] = []
    for line in lines:
        before = found[-1] if found else None
        if isinstance(before, Row) and isinstance(line, Row) and _is_like(before, line):
            found[-1] = replace(before, last=line.last or line.first)
        else:
            found.append(line)
    return tuple(found)


def _is_like(before: Row, line: Row) -> bool:
    """Do two rows say the same, and follow each other in every size?"""
    if before.broken or line.broken or (before.kind, before.side, before.sizes) != (line.kind, line.side, line.sizes):
        return False
    if before.steps != line.steps or before.totals != line.totals:
        return False
    return all(_end(before, size) + 1 == line.first.at(size) <= _end(line, size) for size in line.sizes)


def _end(row: Row, size: int) -> int:
    last: Num = row.last or row.first
    return last.at(size)
