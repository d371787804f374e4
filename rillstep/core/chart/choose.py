"""Which rows a chart of a line shows: a motif from its ring on, else the line on the row before it."""

from rillstep.core.chart.layout import Drawn
from rillstep.core.fabric import LineWork, SizeWork, Trace, Turn, trace_row
from rillstep.core.tree import Again, Row

# More stitches than this in rounds around a ring cannot be told apart on a page.
MOST_AROUND = 260
MOST_ROWS = 24


def trace_of(work: SizeWork, line: int, turn: int = 0) -> Trace | None:
    """The trace of one round of a line: its first one, or a later; None when the line was not worked.

    Rounds after the last that differs are all like it. Raises ValueError when the row is too long to trace.
    """
    found = work.of_line(line)
    if found is None or not found.turns:
        return None
    return _trace(work.size, found.turns[max(0, min(turn, len(found.turns) - 1))])


def _trace(size: int, turn: Turn) -> Trace:
    return trace_row(turn.source, size, turn.edge, turn.around)


def rows_for(work: SizeWork, line: int) -> tuple[list[Drawn], bool]:
    """(rows, whether they are drawn around a ring); no rows when the line was not worked.

    Raises ValueError when a row is too long to trace.
    """
    here = work.of_line(line)
    if here is None or not here.turns:
        return [], False
    before = [w for w in work.lines if w.section == here.section and w.line.span.line <= line and w.turns]
    turns = [(label, turn) for w in before for label, turn in _turns(w, work.size)]
    first = turns[0][1]
    rounds = all(turn.source.kind == "Rnd" for _, turn in (turns[0], turns[-1]))
    if rounds and len(turns) <= MOST_ROWS and _is_ring(first):
        traced = [_drawn(work.size, label, turn) for label, turn in turns]
        if sum(len(row.trace.made) for row in traced) <= MOST_AROUND:
            return traced, True
    return [_drawn(work.size, label, turn) for label, turn in turns[-2:]], False


def _drawn(size: int, label: str, turn: Turn) -> Drawn:
    return Drawn(label, _trace(size, turn), turn.turned)


def _is_ring(turn: Turn) -> bool:
    """Does a round begin in a ring, said or taken for granted, or on a short chain joined into one?"""
    runs = turn.edge.runs
    small = turn.edge.foundation and turn.edge.closed and turn.edge.count("ch") <= 12
    return not runs or small or any(run.place.kind == "ring" for run in runs)


def _turns(work: LineWork, size: int) -> list[tuple[str, Turn]]:
    """The rounds of a line that differ, with their numbers."""
    assert isinstance(work.line, Row | Again)
    first, times = work.line.first.at(size), work.line.rounds(size)
    labels = [str(first + index) for index in range(len(work.turns))]
    if len(work.turns) < times and labels:
        labels[-1] += f"–{first + times - 1}"
    return list(zip(labels, work.turns, strict=True))
