"""Repairs further up: when a round with a multiple does not fit, the nearest count to begin with that makes all of it
true.

The foundation of the piece is changed, everything after it is worked again, the straight runs of the base
and the totals that change are written anew with it. A change that leaves any line in trouble is not offered.
"""

from dataclasses import replace
from functools import partial

from rillstep.core.fabric import LineWork, SizeWork, differing, work_pattern
from rillstep.core.fabric.remembered import Identity
from rillstep.core.findings import Edit, Repair
from rillstep.core.memory import remember
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Line, Next, Num, Pattern, Row, Setup, Step, Work
from rillstep.core.words.numbers import edit_value, numbers_in, with_line, with_value

# So far to either side is looked: further away it would be another bag.
FARTHEST = 12
MOST_LINES = 60
# Rows that are changed along with the foundation: those of a base, and a round with handles.
MOST_FOLLOWED = 16
# A round of a base has few straight runs; one of more is another kind of row.
MOST_RUNS = 24
CODES = ("repeat-uneven", "runs-out", "left-over")


def upstream_repairs(subject: Subject, lines: tuple[LineWork, ...], index: int, size: int) -> list[Repair]:
    """At most one repair to either side: another foundation chain, with the totals that it changes."""
    line = lines[index]
    if line.trouble is None or line.trouble.code not in CODES or line.depends is not None:
        return []
    at = _foundation(subject.pattern, lines, index)
    if at is None or index - at > MOST_LINES:
        return []
    setup = lines[at].line
    assert isinstance(setup, Setup)
    number = next(iter(numbers_in(setup.steps)), None)
    if number is None or not number.parts:
        return []
    found = (_nearest(subject.pattern, setup, number, size, way) for way in (-1, 1))
    return [repair for repair in found if repair is not None]


def _foundation(pattern: Pattern, lines: tuple[LineWork, ...], index: int) -> int | None:
    """The set-up line of the piece that a line belongs to, sections that it goes on from included; not the line just
    before."""
    section = lines[index].section
    for at in range(index - 1, -1, -1):
        line = lines[at]
        if line.section != section:
            title = pattern.sections[section].continues
            if title is None or pattern.sections[line.section].title.lower() != title.lower():
                return None
            section = line.section
        if isinstance(line.line, Setup) and line.end.foundation:
            return at if at < index - 1 else None
    return None


def _nearest(pattern: Pattern, setup: Setup, number: Num, size: int, way: int) -> Repair | None:
    for step in range(1, FARTHEST + 1):
        value = number.at(size) + way * step
        if value < 2:
            return None
        edits = _edits(pattern, setup, number, size, value)
        if edits is not None:
            also = (
                f", with {len(edits) - 1} number{'s' if len(edits) > 2 else ''} that follow from it"
                if len(edits) > 1
                else ""
            )
            return Repair(f"Chain {value} instead of {number.at(size)} to begin with{also}", tuple(edits))
    return None


def _edits(pattern: Pattern, setup: Setup, number: Num, size: int, value: int) -> list[Edit] | None:
    """What has to be written for another foundation; None when a line of the pattern is then in trouble.

    Rows that count their stitches are changed with it: each run of the straight side by as much as the chain.
    """
    edits = [edit_value(number, size, value)]
    tried = with_line(_without_totals(Identity(pattern)), setup, with_value(setup, number, size, value))
    for _ in range(MOST_FOLLOWED):
        work = work_pattern(tried, size, lambda line: line.trouble is not None)
        wrong = work.lines[-1]
        if wrong.trouble is None:
            return _restated(pattern, work, size, edits)
        followed = _followed(tried, wrong, size, value - number.at(size))
        if followed is None:
            return None
        tried, more = followed
        edits += more
    return None


def _followed(pattern: Pattern, wrong: LineWork, size: int, by: int) -> tuple[Pattern, list[Edit]] | None:
    """The pattern with the first row in trouble made to fit: one length of its runs changed, wherever the row has
    it."""
    row = wrong.line
    if not isinstance(row, Row):
        return None
    counts = [n for n in _runs(row.steps) if n.values[size] is not None and n.parts]
    if len(counts) > MOST_RUNS:
        return None
    for length in dict.fromkeys(n.at(size) for n in counts):
        if length + by < 1:
            continue
        changed: Row = row
        edits: list[Edit] = []
        for count in counts:
            if count.at(size) == length:
                changed = with_value(changed, count, size, length + by)
                edits.append(edit_value(count, size, length + by))
        tried = with_line(pattern, row, changed)
        after = work_pattern(tried, size, partial(_is, changed)).of(changed)
        if after is not None and after.trouble is None:
            return tried, edits
    return None


def _runs(steps: tuple[Step, ...]) -> list[Num]:
    """How many stitches are worked plainly one after another, for each such run; those within repeats make the
    pattern, and stay."""
    return [s.into.count for s in steps if isinstance(s, Work) and isinstance(s.into, Next)]


def _restated(pattern: Pattern, work: SizeWork, size: int, edits: list[Edit]) -> list[Edit] | None:
    """The edits, and those of the totals that are other ones now; None when one cannot be written."""
    # Rounds that are written by their number stand on one line.
    stated = {
        (line.span, line.first, line.sizes): line.totals for _, line in pattern.lines() if isinstance(line, Row | Again)
    }
    for line in work.lines:
        if not isinstance(line.line, Row | Again) or not line.rounds:
            continue
        for total, _, made in differing(
            stated[line.line.span, line.line.first, line.line.sizes], line.rounds[-1], size
        ):
            if not total.count.parts:
                return None
            edits = [*edits, edit_value(total.count, size, made)]
    return edits


def _is(line: Line, work: LineWork) -> bool:
    return work.line is line


@remember(16)
def _without_totals(pattern: Identity) -> Pattern:
    """The pattern with no totals: so that what it makes from another foundation is not held to what it made before."""
    assert isinstance(pattern.it, Pattern)

    def untold(line: Line) -> Line:
        return replace(line, totals=()) if isinstance(line, Row | Again) else line

    return replace(
        pattern.it, sections=tuple(replace(s, lines=tuple(map(untold, s.lines))) for s in pattern.it.sections)
    )
