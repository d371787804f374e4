"""Rows worked again, called by the numbers that they have in each size.

"Rep Rnd 10" names the row by the number that it has in the first size: where Rnd 10 is "Rnd 10 (12, 14)", it is
Rnd 12 that is meant in the second. A set ("Rep Rnd 10 (12, 14)") says so itself, and stays as it is.
"""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.notation.tree import Again, Line, Num, Row, Section


def called(line: Again, before: Sequence[Line], sections: Sequence[Section], continues: str | None) -> Again:
    """The line with the numbers of its rows in every size.

    before: the lines above it in its section, which goes on from the section of `sections` that is titled `continues`.
    """
    if len(line.sizes) < 2:
        return line
    sources = tuple(_in_every_size(line, number, before, sections, continues) for number in line.sources)
    return line if sources == line.sources else replace(line, sources=sources)


def _in_every_size(
    line: Again, number: Num, before: Sequence[Line], sections: Sequence[Section], continues: str | None
) -> Num:
    first = min(line.sizes)
    one = number.at(first)
    if len(number.parts) > 1 or any(value not in (None, one) for value in number.values):
        return number
    while True:
        row = next((row for row in reversed(before) if _is_called(row, line.kind, one, first)), None)
        if row is not None:
            assert isinstance(row, Row | Again)
            at = one - row.first.at(first)
            own = {size: row.first.at(size) + at for size in line.sizes if size in row.sizes}
            return replace(number, values=tuple(own.get(size, value) for size, value in enumerate(number.values)))
        title = (continues or "").lower()
        index = next((i for i in range(len(sections) - 1, -1, -1) if sections[i].title.lower() == title), None)
        if continues is None or index is None:
            return number
        before, continues, sections = sections[index].lines, sections[index].continues, sections[:index]


def _is_called(row: Line, kind: str, number: int, size: int) -> bool:
    if not isinstance(row, Row | Again) or row.kind != kind or size not in row.sizes:
        return False
    return row.first.at(size) <= number <= (row.last or row.first).at(size)
