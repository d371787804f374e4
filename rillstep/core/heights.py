"""Lines by measure: how many rows come nearest to a length, and whether a stated number of rows does.

The height of a piece is that of its rows one upon the other, each by the gauge of its stitch, or an estimate from the
swatch by the usual heights of stitches.
"""

from rillstep.core.findings import Finding
from rillstep.core.gauge import gauge_of
from rillstep.core.lengths import in_units
from rillstep.core.stitches import basic
from rillstep.core.tree import Again, Line, Pattern, Row, Section
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.numbers import set_text

# A stated number of rows is held to its measure within so much, or half a row.
TOLERANCE_MM = 10.0
MOST_ROWS = 2_000


def row_height_mm(pattern: Pattern, row: Row) -> float:
    """The height of a row in mm, by the gauge of the stitch that it is mostly made of."""
    stitch = main_stitch(row.steps)
    us = basic(stitch).us if stitch is not None else pattern.gauges[0].stitch
    return gauge_of(pattern.gauges, us)[0].height_mm


def _section_of(pattern: Pattern, line: Again) -> Section:
    return next(section for section in pattern.sections if any(one is line for one in section.lines))


def _sources(section: Section, line: Again, size: int) -> list[Row]:
    """The rows that are worked again, in turn; none where they cannot be found."""
    rows = [one for one in section.lines if isinstance(one, Row) and size in one.sizes and one.kind == line.kind]
    found = [
        next((row for row in rows if row.first.at(size) <= number.at(size) <= (row.last or row.first).at(size)), None)
        for number in line.sources
    ]
    return [row for row in found if row is not None] if None not in found else []


def _before_mm(pattern: Pattern, section: Section, line: Line, size: int) -> float:
    """The height of the rows of a section before a line, in mm."""
    height = 0.0
    for one in section.lines:
        if one is line:
            break
        if isinstance(one, Row) and size in one.sizes:
            height += max(0, one.rounds(size)) * row_height_mm(pattern, one)
        elif isinstance(one, Again) and size in one.sizes:
            height += _again_mm(pattern, section, one, size)
    return height


def _again_mm(pattern: Pattern, section: Section, line: Again, size: int) -> float:
    """The height of rows that are worked again, in mm."""
    rows = _sources(section, line, size)
    return sum(row_height_mm(pattern, rows[n % len(rows)]) for n in range(max(0, line.rounds(size)))) if rows else 0.0


def rows_to_measure(pattern: Pattern, line: Again) -> tuple[int | None, ...]:
    """The last row for each size, so that the piece comes nearest to the length that the line names.

    Rows that are repeated in turn are repeated as a whole; at least once.
    """
    assert line.until_mm is not None
    section = _section_of(pattern, line)
    lasts: list[int | None] = []
    for size in range(len(pattern.sizes)):
        wanted = line.until_mm.values[size] if size in line.sizes else None
        rows = _sources(section, line, size) if wanted is not None else []
        period = sum(row_height_mm(pattern, row) for row in rows)
        if wanted is None or not period:
            lasts.append(None if wanted is None else line.first.at(size))
            continue
        turns = round((wanted - _before_mm(pattern, section, line, size)) / period)
        lasts.append(line.first.at(size) + min(MOST_ROWS, max(1, turns) * len(rows)) - 1)
    return tuple(lasts)


def height_after_mm(pattern: Pattern, line: Again, size: int) -> float:
    """The height of a piece after a line, in mm."""
    section = _section_of(pattern, line)
    return _before_mm(pattern, section, line, size) + _again_mm(pattern, section, line, size)


def length_findings(pattern: Pattern, line: Again, worked_out: bool) -> list[Finding]:
    """What is to be said of a line by measure: how many rows were worked out for it, or that the rows that it states
    come to another length."""
    if line.until_mm is None or line.last is None or not pattern.gauges or not line.sources:
        return []
    if worked_out:
        counted = set_text(
            tuple(line.rounds(size) if size in line.sizes else None for size in range(len(pattern.sizes)))
        )
        message = f"By the gauge these are {counted} {line.kind.lower()}s; another tension makes more or fewer."
        return [Finding("rows-by-measure", "caution", line.until_mm.span, message)]
    found = []
    section, units = _section_of(pattern, line), pattern.units
    for size in line.sizes:
        wanted, rows = line.until_mm.values[size], _sources(section, line, size)
        if wanted is None or not rows:
            continue
        made = height_after_mm(pattern, line, size)
        half = sum(row_height_mm(pattern, row) for row in rows) / 2
        if abs(made - wanted) > max(TOLERANCE_MM, half):
            where = f" in size {pattern.sizes[size]}" if len(pattern.sizes) > 1 else ""
            message = (
                f"{line.rounds(size)} {line.kind.lower()}s{where} come to {in_units(made, units)} {units}, "
                f"and the text says {in_units(wanted, units)} {units}."
            )
            found.append(Finding("length-differs", "warning", line.until_mm.span, message, size, wanted, made))
    return found
