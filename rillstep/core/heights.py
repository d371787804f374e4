"""Lines by measure: how many rows come nearest to a length, and whether a stated number of rows does.

The height of a piece is that of its rows one upon the other, each by the gauge of its stitch, or an estimate from the
swatch by the usual heights of stitches. A wall that grows out of a base in one piece is measured from where the base
ends.
"""

from collections.abc import Sequence

from rillstep.core.craft import basic
from rillstep.core.fabric import work_pattern
from rillstep.core.findings import Finding
from rillstep.core.gauge import gauge_of
from rillstep.core.lengths import in_units
from rillstep.core.tree import Again, Line, Pattern, Row, Section
from rillstep.core.tree.changes import in_gauge_of
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.numbers import set_text

# A stated number of rows is held to its measure within so much, or half a row.
TOLERANCE_MM = 10.0
MOST_ROWS = 2_000
# Within a base, so many rounds may go by without an increase.
_PLAIN_IN_BASE = 2


def row_height_mm(pattern: Pattern, row: Row) -> float:
    """The height of a row in mm, by the gauge of the stitch that it is mostly made of."""
    stitch = main_stitch(row.steps)
    us = basic(stitch).us if stitch is not None else pattern.gauges[0].stitch
    return gauge_of(pattern.gauges, us)[0].height_mm


def _section_of(pattern: Pattern, line: Row | Again) -> Section:
    return next(section for section in pattern.sections if any(one is line for one in section.lines))


def _sources(section: Section, line: Row | Again, size: int) -> list[Row]:
    """The rows that are worked in turn; none where they cannot be found."""
    if isinstance(line, Row):
        return [line]
    rows = [one for one in section.lines if isinstance(one, Row) and size in one.sizes and one.kind == line.kind]
    found = [
        next((row for row in rows if row.first.at(size) <= number.at(size) <= (row.last or row.first).at(size)), None)
        for number in line.sources
    ]
    return [row for row in found if row is not None] if None not in found else []


def _line_mm(pattern: Pattern, section: Section, line: Row | Again, size: int) -> float:
    """The height of the rows of a line, in mm."""
    rows = _sources(section, line, size)
    return sum(row_height_mm(pattern, rows[n % len(rows)]) for n in range(max(0, line.rounds(size)))) if rows else 0.0


def _height_mm(pattern: Pattern, section: Section, size: int, before: Line | None = None) -> float:
    """The height of a piece in mm, up to a line where one is named; the base that it grows from is left out."""
    lines: list[Row | Again] = []
    for one in section.lines:
        if one is before:
            break
        if isinstance(one, Row | Again) and size in one.sizes:
            lines.append(one)
    if before is not None:
        lines = lines[_of_base(pattern, lines, size) :]
    return sum(_line_mm(pattern, section, one, size) for one in lines)


def _of_base(pattern: Pattern, lines: Sequence[Row | Again], size: int) -> int:
    """How many of the lines that begin a piece are its base: rounds that grow out of a ring or around a chain."""
    if not lines or lines[0].kind == "Row":
        return 0
    work = work_pattern(pattern, size, lambda done: done.line is lines[-1])
    counts: list[int] = []
    ends: list[int] = []  # for each line, how many rounds there are at its end
    for line in lines:
        done = work.of(line)
        if done is None or done.trouble is not None:
            break
        counts += [one.sts + one.chains for one in done.rounds]
        ends.append(len(counts))
    first = work.of(lines[0])
    begun = first.start.counts() if first is not None else None
    base = rounds_of_base(begun.sts + begun.chains, counts) if begun is not None else 0
    return next((at + 1 for at, end in enumerate(ends) if end >= base), 0) if base else 0


def rounds_of_base(begun: int, counts: Sequence[int]) -> int:
    """How many of the rounds that begin a piece are its base: those that grow, out of a ring or around a chain.

    begun: what the first one is worked on; a wall on a chain that is joined into a ring has no base. counts: stitches
    and chains of each round.
    """
    base = plain = 0
    before = begun
    for at, now in enumerate(counts, start=1):
        if at == 1 and now <= before:
            return 0
        base, plain = (at, 0) if now > before and plain <= _PLAIN_IN_BASE else (base, plain + 1)
        before = now
    return base


def _wanted_mm(pattern: Pattern, line: Row | Again, size: int) -> float | None:
    """The length that a line names in a size, in mm; None where it is not known."""
    if line.until is None or size not in line.sizes:
        return None
    if line.until.share is None:
        return line.until.mm(size)
    named = [one for one in pattern.sections if line.until.of.lower() in one.title.lower() and line not in one.lines]
    height = _height_mm(pattern, named[0], size) if named else 0.0
    return float(line.until.share) * height if height else None


def rows_to_measure(pattern: Pattern, line: Row | Again) -> tuple[int | None, ...] | None:
    """The last row for each size, so that the piece comes nearest to the length that the line names.

    Rows that are repeated in turn are repeated as a whole; at least once. None where the length is not known.
    """
    section = _section_of(pattern, line)
    lasts: list[int | None] = []
    for size in range(len(pattern.sizes)):
        if size not in line.sizes:
            lasts.append(None)
            continue
        own = in_gauge_of(pattern, size)
        wanted, rows = _wanted_mm(own, line, size), _sources(section, line, size)
        period = sum(row_height_mm(own, row) for row in rows)
        if wanted is None or not period:
            return None
        turns = round((wanted - _height_mm(own, section, size, line)) / period)
        lasts.append(line.first.at(size) + min(MOST_ROWS, max(1, turns) * len(rows)) - 1)
    return tuple(lasts)


def length_findings(pattern: Pattern, line: Row | Again, worked_out: bool) -> list[Finding]:
    """What is to be said of a line by measure: how many rows were worked out for it, or that the rows that it states
    come to another length."""
    section = _section_of(pattern, line)
    if line.until is None or line.last is None or not pattern.gauges:
        return []
    if worked_out:
        sizes = range(len(pattern.sizes))
        counted = set_text(tuple(line.rounds(size) if size in line.sizes else None for size in sizes))
        message = f"By the gauge these are {counted} {line.kind.lower()}s; another tension makes more or fewer."
        return [Finding("rows-by-measure", "caution", line.until.span, message)]
    found = []
    for size in line.sizes:
        own = in_gauge_of(pattern, size)
        wanted, rows = _wanted_mm(own, line, size), _sources(section, line, size)
        if wanted is None or not rows:
            continue
        made = _height_mm(own, section, size, line) + _line_mm(own, section, line, size)
        half = sum(row_height_mm(own, row) for row in rows) / 2
        if abs(made - wanted) > max(TOLERANCE_MM, half):
            found.append(_differs(pattern, line, size, made, wanted))
    return found


def _differs(pattern: Pattern, line: Row | Again, size: int, made: float, wanted: float) -> Finding:
    assert line.until is not None
    units = pattern.units
    where = f" in size {pattern.sizes[size]}" if len(pattern.sizes) > 1 else ""
    message = (
        f"{line.rounds(size)} {line.kind.lower()}s{where} come to {in_units(made, units)} {units}, "
        f"and the text says {in_units(wanted, units)} {units}."
    )
    return Finding("length-differs", "warning", line.until.span, message, size, wanted, made)
