"""Rows whose words leave open how they are meant: the first reading with which a row comes out in most sizes holds."""

from dataclasses import replace
from functools import lru_cache

from rillstep.core.fabric.remembered import Same
from rillstep.core.fabric.whole import work_pattern
from rillstep.core.notation.tree import Pattern, Row, with_line

# More rows than this that leave their reading open are taken as they stand.
MOST_OPEN = 40


def settled(pattern: Pattern) -> Pattern:
    """The pattern with each such row in the reading that comes out in most sizes; where none is better, as it is first read."""
    open_rows = [row for _, row in pattern.lines() if isinstance(row, Row) and row.readings and not row.broken]
    for row in open_rows[:MOST_OPEN]:
        best, most = pattern, _sizes_true(pattern, row)
        for index in range(len(row.readings)):
            if most == len(row.sizes):
                break
            other = _read_as(Same(row), index)
            tried = with_line(pattern, row, other)
            if (true := _sizes_true(tried, other)) > most:
                best, most = tried, true
        pattern = best
    return pattern


def _sizes_true(pattern: Pattern, row: Row) -> int:
    """In how many sizes the row comes out as it says."""
    works = [work_pattern(pattern, size).of(row) for size in row.sizes]
    return sum(w is not None and w.trouble is None and w.known and not w.differences for w in works)


@lru_cache(maxsize=1024)
def _read_as(row: Same, index: int) -> Row:
    """Remembered, so that a row that is read otherwise is one and the same each time."""
    assert isinstance(row.it, Row)
    reading = row.it.readings[index]
    return replace(row.it, steps=reading.steps, totals=reading.totals, readings=())
