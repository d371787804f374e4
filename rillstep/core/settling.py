"""What the words of a text leave open, settled by working it: how a row is meant, and how often rows are repeated.

Of the readings of a row the first holds with which it comes out in most sizes. "Until 4 (8) sts remain" and "until it
measures 20 cm" are so many rows as come to that.
"""

from collections import Counter
from dataclasses import replace
from itertools import islice
from math import ceil

from rillstep.core.craft import Terms
from rillstep.core.fabric.remembered import Identity
from rillstep.core.fabric.whole import work_pattern
from rillstep.core.findings import Finding, sort_findings
from rillstep.core.heights import length_findings, rows_to_measure
from rillstep.core.memory import remember
from rillstep.core.notation.parser import Parsed, parse
from rillstep.core.tree import Again, Along, Num, Pattern, Row, Section
from rillstep.core.words.numbers import with_line
from rillstep.core.words.stream import MOST_OPEN

# Where so many of them come out in no size and in no reading, the text has other faults, and the rest stay as they
# stand.
MOST_FAILED = 12
# What comes so early is worked by itself; further down it is quicker to take over what was worked the last time.
EARLY = 40


# The reading that is left open where a line says "repeat 6 times": six in all, or six more.
_TIMES = "times"
# More repeats than this are not tried to come to the stitches that shall be left.
MOST_TURNS = 500
# More repetitions of that kind are left as they stand: for each the whole text is read again.
MOST_UNTIL = 4


@remember(16)
def read(text: str, terms: Terms | None = None, assumed: tuple[str, ...] = ()) -> Parsed:
    """A text as a tree in which what its words leave open is settled by working it. Never raises.

    "Rep last 2 rows until 4 (8) sts remain" says how many rows that is only when they are worked: the rows before are
    worked, the repeats counted, and the text is read again with that known, so that what follows has its number. In
    the same way "until it measures 20 cm" is so many rows, where there is a gauge. assumed: as in `parse`.
    """
    ends: dict[int, tuple[int | None, ...]] = {}
    unmet: list[Finding] = []
    measured: set[int] = set()
    tried: set[int] = set()
    while True:
        parsed = parse(text, terms, ends, assumed)
        pattern = settled(parsed.pattern)
        lines = (line for _, line in pattern.lines() if isinstance(line, Row | Again) and _is_open(line, pattern))
        line = next((line for line in lines if line.span.line not in tried and not line.broken), None)
        if line is None or len(tried) >= MOST_UNTIL:
            read_ = [f for f in parsed.findings if f.code != "rows-not-counted" or f.span.line not in measured]
            rows = [line for _, line in pattern.lines() if isinstance(line, Row | Again)]
            lengths = [f for row in rows if row.until for f in length_findings(pattern, row, row.span.line in measured)]
            return replace(parsed, pattern=pattern, findings=sort_findings([*read_, *unmet, *lengths]))
        tried.add(line.span.line)
        if line.until is not None and line.until_sts is None:
            lasts = rows_to_measure(pattern, line)
            if lasts is not None:
                ends[line.span.line] = lasts
                measured.add(line.span.line)
            continue
        found = _last_rows(pattern, line)
        if isinstance(found, Finding):
            unmet.append(found)
        elif found is not None:
            ends[line.span.line] = found


def _is_open(line: Row | Again, pattern: Pattern) -> bool:
    """Whether the number of its rows is told by something that is worked out."""
    by_measure = line.until is not None and line.last is None and bool(pattern.gauges)
    return line.until_sts is not None or (by_measure and (isinstance(line, Row) or bool(line.sources)))


def _last_rows(pattern: Pattern, line: Row | Again) -> tuple[int | None, ...] | Finding | None:
    """The last row of a repetition for each size, so that the stitches that it names are left; None where that hangs
    on a line that is not known."""
    assert line.until_sts is not None
    lasts: list[int | None] = []
    for size in range(len(pattern.sizes)):
        if size not in line.sizes:
            lasts.append(None)
            continue
        counts = _counts_after(pattern, line, size, 1)
        start = _start_sts(pattern, line, size)
        wanted = line.until_sts.at(size)
        step = counts[-1] - start if counts and start is not None else 0
        turns = (wanted - start) / step if step and start is not None else 0
        if 0 < turns <= MOST_TURNS:
            counts = _counts_after(pattern, line, size, ceil(turns))
        rows = _rows_until(counts, wanted, _rows_each_time(line))
        if rows is None and not counts and _hangs(pattern, line, size):
            return None
        if rows is None:
            ends = ", ".join(str(count) for count in counts[-3:])
            message = (
                f"This repetition never comes to {wanted} sts: it makes {ends}."
                if counts
                else "It cannot be worked out how often this is repeated."
            )
            return Finding("until-not-met", "error", line.span, message, size, wanted, counts[-1] if counts else None)
        lasts.append(line.first.at(size) + rows - 1)
    return tuple(lasts)


def _hangs(pattern: Pattern, line: Row | Again, size: int) -> bool:
    """Is it not known what a repetition is worked on, as a line before it is not?"""
    work = work_pattern(pattern, size).of(line)
    return work is not None and (work.depends is not None or not work.known)


def _rows_until(counts: list[int], wanted: int, rows: int) -> int | None:
    """How many rows until so many stitches are left: whole repeats where one ends so, else the first row that does."""
    whole = next((at for at in range(rows, len(counts) + 1, rows) if counts[at - 1] == wanted), None)
    return whole or next((at + 1 for at, count in enumerate(counts) if count == wanted), None)


def _rows_each_time(line: Row | Again) -> int:
    return max(1, len(line.sources)) if isinstance(line, Again) else 1


def _start_sts(pattern: Pattern, line: Row | Again, size: int) -> int | None:
    work = work_pattern(pattern, size).of(line)
    return work.start.counts().sts if work is not None else None


def _counts_after(pattern: Pattern, line: Row | Again, size: int, turns: int) -> list[int]:
    """The stitches after each row when the sources are worked so often; [] when they cannot be."""
    rows = _rows_each_time(line) * max(1, turns)
    values = tuple(v + rows - 1 if v is not None else None for v in line.first.values)
    tried: Row | Again = replace(line, last=Num(values), until_sts=None)
    work = work_pattern(with_line(pattern, line, tried), size).of(tried)
    return [] if work is None else [counts.sts for counts in work.rounds]


def _over_both(pattern: Pattern) -> Pattern:
    """A first round on a piece that is made twice goes around both of them, where its total is true so and only so."""
    for section in pattern.sections:
        source = _worked_on(pattern, section)
        row = next((line for line in section.lines if isinstance(line, Row)), None)
        if source is None or max(source.make) != 2 or section.on is not None or row is None or row.kind == "Row":
            continue
        if row.broken or not row.totals or _how_true(pattern, row)[0]:
            continue
        both = replace(section, continues=source.title, on=Along("side by side"))
        tried = replace(pattern, sections=tuple(both if one is section else one for one in pattern.sections))
        if _how_true(tried, row)[0] == len(row.sizes):
            pattern = tried
    return pattern


def _worked_on(pattern: Pattern, section: Section) -> Section | None:
    """The piece with rows that a section goes on from, past those that only put together."""
    titles = {one.title: one for one in pattern.sections}
    for _ in pattern.sections:
        found = titles.get(section.continues or "")
        if found is None or any(isinstance(line, Row) for line in found.lines):
            return found
        section = found
    return None


def settled(pattern: Pattern) -> Pattern:
    """The pattern with each such row in the reading that comes out in most sizes, or else can be worked in most.

    Where none is better, as the other rows of the text are meant, or else as it is first read.
    """
    pattern = _over_both(pattern)
    open_rows = [row for _, row in pattern.lines() if isinstance(row, Row) and row.readings and not row.broken]
    meant: Counter[tuple[int, str]] = Counter()
    undecided: list[tuple[Row, list[tuple[tuple[int, str], Row]]]] = []
    times: list[tuple[Row, Row, int]] = []
    failed = 0
    for row in open_rows[:MOST_OPEN]:
        if failed == MOST_FAILED or (failed and _is_out_of_reach(pattern, row)):
            break
        kinds = {what for _, what in (reading.choice for reading in row.readings) if what}
        best, most, chosen, alike = row, _how_true(pattern, row), (0, ""), [((0, ""), row)]
        for index, reading in enumerate(row.readings):
            if most[0] == len(row.sizes):
                break
            other = _read_as(Identity(row), index)
            true = _how_true(with_line(pattern, row, other), other)
            if true > most:
                best, most, chosen, alike = other, true, reading.choice, []
            if true == most:
                alike.append((reading.choice, other))
        pattern = with_line(pattern, row, best) if best is not row else pattern
        if _TIMES in kinds and most[0] == len(row.sizes):
            times.append((best, row, int(chosen[1] in (_TIMES, "") and chosen[0] == 1)))
        failed += not most[0]
        if most[0] == len(row.sizes):
            meant.update([chosen] if chosen[1] else [(0, what) for what in kinds])
        elif most[0] and len(alike) > 1:
            undecided.append((best, alike))
    for row, alike in undecided if meant else ():
        usual = max(alike, key=lambda one: sum(n for way, n in meant.items() if one[0] in (way, (way[0], ""))))[1]
        pattern = with_line(pattern, row, usual) if usual is not row else pattern
    return _times_alike(pattern, times)


def _times_alike(pattern: Pattern, times: list[tuple[Row, Row, int]]) -> Pattern:
    """The pattern with "repeat 6 times" meant in one way in all of its rows, the one in which most of them come out.

    A row that comes out in the other way alone is wrong then: no line picks the way that suits its number.
    `times`: rows as they are read, as they were written, and which of the two ways that is.
    """
    ways = Counter(way for _, _, way in times)
    usual = int(ways[1] > ways[0])
    for read_so, row, way in times:
        if way != usual:
            other = next((i for i, reading in enumerate(row.readings) if reading.choice == (1, _TIMES)), None)
            alike = _read_as(Identity(row), other) if usual and other is not None else row
            pattern = with_line(pattern, read_so, alike)
    return pattern


def _how_true(pattern: Pattern, row: Row) -> tuple[int, int]:
    """In how many sizes the row comes out as it says, and in how many it can be worked at all."""
    early = any(line is row for _, line in islice(pattern.lines(), EARLY))
    until = (lambda work: work.line is row) if early else None
    works = [work_pattern(pattern, size, until).of(row) for size in row.sizes]
    worked = [work for work in works if work is not None and work.trouble is None and work.known]
    return sum(not work.differences for work in worked), len(worked)


def _is_out_of_reach(pattern: Pattern, row: Row) -> bool:
    """Is so much wrong before a row that it is worked in no size?"""
    for size in row.sizes:
        for work in work_pattern(pattern, size).lines:
            if work.line is row:
                return False
            if work.trouble is not None and work.trouble.code in ("too-many-errors", "too-large"):
                break
    return True


@remember(1024)
def _read_as(row: Identity, index: int) -> Row:
    """Remembered, so that a row that is read otherwise is one and the same each time."""
    assert isinstance(row.it, Row)
    reading = row.it.readings[index]
    return replace(row.it, steps=reading.steps, totals=reading.totals, readings=())
