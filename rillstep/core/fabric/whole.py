"""A whole pattern worked in one size: every line on the one before, section by section.

Where a line cannot be worked, or its total differs from the stated one, the work goes on
from the stated total: so an error in one line does not hide those of later lines, and does
not paint them all red either.
"""

from dataclasses import dataclass

from rillstep.core.fabric.edge import EMPTY, Counts, Edge, stitches_edge
from rillstep.core.fabric.working import RowWork, Trouble, work_row, work_setup
from rillstep.core.notation.tree import Gesture, Line, Pattern, Repeat, Row, Section, Setup, Step, Total, Work

MOST_ROUNDS = 2_000


@dataclass(frozen=True)
class LineWork:
    """A line worked in one size.

    rounds: the counts after each round that the line stands for.
    start: what it was worked on; end: what the next line is worked on.
    stated: the work went on from the stated total, as the worked one could not be used.
    """

    line: Row | Setup
    section: int
    start: Edge
    end: Edge
    rounds: tuple[Counts, ...] = ()
    last: RowWork | None = None
    trouble: Trouble | None = None
    stated: bool = False
    known: bool = True


@dataclass(frozen=True)
class SizeWork:
    """All lines of a pattern in one size."""

    size: int
    lines: tuple[LineWork, ...]
    section_ends: tuple[Edge, ...]

    def of_line(self, number: int) -> LineWork | None:
        """The work of the line at a line number of the text."""
        return next((work for work in self.lines if work.line.span.line == number), None)


def work_pattern(pattern: Pattern, size: int) -> SizeWork:
    """Work every line that holds for a size."""
    ends: list[Edge] = []
    worked: list[LineWork] = []
    says: dict[int, str] = {}
    for index, section in enumerate(pattern.sections):
        edge: Edge | None = _start_of(pattern, section, ends)
        for line in section.lines:
            if size not in line.sizes or not isinstance(line, Row | Setup):
                continue
            work = _work_line(line, index, section, size, edge, says)
            worked.append(work)
            edge = work.end if work.known else None
        ends.append(edge or EMPTY)
    return SizeWork(size, tuple(worked), tuple(ends))


def _start_of(pattern: Pattern, section: Section, ends: list[Edge]) -> Edge:
    if section.continues is None:
        return EMPTY
    wanted = section.continues.lower()
    for index in range(len(ends) - 1, -1, -1):
        if pattern.sections[index].title.lower() == wanted:
            return ends[index]
    return EMPTY


def _work_line(
    line: Line, index: int, section: Section, size: int, edge: Edge | None, says: dict[int, str]
) -> LineWork:
    start = edge or EMPTY
    if isinstance(line, Setup):
        end = None if line.broken else work_setup(line, size)
        return LineWork(line, index, start, end if end is not None else start, known=not line.broken)
    assert isinstance(line, Row)
    if line.broken or edge is None:
        return _go_on(line, index, size, start, (), None, None)
    rounds: list[Counts] = []
    last: RowWork | None = None
    here = edge
    times = line.rounds(size)
    if times > MOST_ROUNDS:
        message = f"more than {MOST_ROUNDS:,} rounds in one line are not worked"
        return _go_on(line, index, size, start, (), None, Trouble("too-large", line.label_span, message))
    for _ in range(times):
        if last is not None and last.edge == here and not last.trouble and len(rounds) > 1:
            rounds.append(rounds[-1])  # this round changes nothing: the next is like it
            continue
        last = work_row(line, size, here, says)
        if last.trouble:
            return _go_on(line, index, size, start, tuple(rounds), last, last.trouble)
        before, here = here, last.edge
        rounds.append(last.counts)
        if before == here and len(rounds) == 1:
            rounds += [rounds[0]] * (times - 1)
            break
    if last is not None and stated_sts(line.totals, size) not in (None, last.counts.sts):
        work = _go_on(line, index, size, start, tuple(rounds), last, None)
        return work
    return LineWork(line, index, start, here, tuple(rounds), last)


def stated_sts(totals: tuple[Total, ...], size: int) -> int | None:
    """The stitches that a line states for a size, of whatever kinds; None when it states none."""
    sts = [total.count.at(size) for total in totals if total.what == "sts"]
    if sts:
        return sts[0]
    by_kind = [total.count.at(size) for total in totals if total.what != "sp"]
    return sum(by_kind) if by_kind else None


def _go_on(
    line: Row,
    index: int,
    size: int,
    start: Edge,
    rounds: tuple[Counts, ...],
    last: RowWork | None,
    trouble: Trouble | None,
) -> LineWork:
    """Go on from the stated total, as plain stitches of the kind that the row works."""
    sts = stated_sts(line.totals, size)
    if sts is None:
        end = last.edge if last is not None and not line.broken and trouble is None else EMPTY
        return LineWork(line, index, start, end, rounds, last, trouble, known=trouble is None and not line.broken)
    known = all(total.what == "sts" for total in line.totals)
    end = stitches_edge(_main_stitch(line.steps), sts, closed=True)
    return LineWork(line, index, start, end, rounds, last, trouble, stated=True, known=known)


def _main_stitch(steps: tuple[Step, ...]) -> str:
    for step in steps:
        if isinstance(step, Work):
            return step.stitch
        if isinstance(step, Repeat):
            return _main_stitch(step.steps)
    return "sc"


__all__ = ["Gesture", "LineWork", "SizeWork", "stated_sts", "work_pattern"]
