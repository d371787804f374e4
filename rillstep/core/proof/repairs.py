"""Repairs: changes of one number that have been tried and found to make the line true."""

from dataclasses import replace

from rillstep.core.fabric import Edge, LineWork, Surroundings, differing, work_row, work_setup
from rillstep.core.findings import Repair
from rillstep.core.printing.writer import write_label
from rillstep.core.tree import Again, Row, Setup
from rillstep.core.words.numbers import edit_value, numbers_in, with_value

MOST = 4
MOST_STEPS_TRIED = 6_000
MOST_ROUNDS_TRIED = 60


def repairs_for(lines: tuple[LineWork, ...], index: int, size: int, off: int) -> tuple[tuple[Repair, ...], bool]:
    """Up to four repairs of a line in a size; `off` is by how many stitches it is wrong.

    Those after which the next line is true as well come first, smaller changes before
    larger ones. The second of the answer: is there one of those, in the line itself?
    """
    line = lines[index]
    row = line.line
    following = lines[index + 1] if index + 1 < len(lines) else None
    ranked: list[tuple[int, int, Repair]] = []
    if isinstance(row, Again):
        ranked += _other_rows(lines, index, row, size)
        ranked += _total_repair(line, row, following, size)
        ranked.sort(key=lambda item: item[:2])
        return tuple(repair for _, _, repair in ranked[:MOST]), False
    assert isinstance(row, Row)
    # A hostile line may hold hundreds of numbers; in a line that people read all of them are tried.
    numbers = list({number.span: number for number in numbers_in(row.steps)}.values())  # one may be meant twice
    trials = max(6, MOST_STEPS_TRIED // (1 + len(numbers) + (line.last.spent if line.last else 0)))
    for number in numbers:
        for value in _values(number.at(size), off, least=0 if 0 in number.values else 1):
            trials -= 1
            if trials < 0:
                break
            end = _tried(with_value(row, number, size, value), size, line.start, line.around)
            if end is not None:
                repair = Repair(f"Change {number.at(size)} to {value}", (edit_value(number, size, value),))
                ranked.append((_rank(following, size, end), abs(value - number.at(size)), repair))
                break
    fits = any(rank == 0 for rank, _, _ in ranked)
    ranked += _setup_repairs(lines, index, size, off)
    ranked += _total_repair(line, row, following, size)
    ranked.sort(key=lambda item: item[:2])
    return tuple(repair for _, _, repair in ranked[:MOST]), fits


def _other_rows(lines: tuple[LineWork, ...], index: int, row: Again, size: int) -> list[tuple[int, int, Repair]]:
    """Another row to work again, close to the one that is named, with which the line is true."""
    line = lines[index]
    if len(row.sources) != 1 or not row.sources[0].parts:
        return []
    by_number = {
        w.line.first.at(size): w.line for w in lines[:index] if w.section == line.section and isinstance(w.line, Row)
    }
    named = row.sources[0].at(size)
    found: list[tuple[int, int, Repair]] = []
    for number in sorted(by_number, key=lambda n: abs(n - named))[:4]:
        if number == named or abs(number - named) > 2:
            continue
        again = replace(by_number[number], first=row.first, last=row.last, totals=row.totals)
        end = _tried(again, size, line.start, line.around)
        if end is not None:
            repair = Repair(f"Repeat {row.kind} {number}", (edit_value(row.sources[0], size, number),))
            found.append(
                (_rank(lines[index + 1] if index + 1 < len(lines) else None, size, end), abs(number - named), repair)
            )
    return found


def _values(now: int, off: int, least: int = 1) -> list[int]:
    """Numbers to try instead, nearest first; none (0) only where another size has it."""
    steps = sorted({1, off, -(-off // 2)})
    return [value for step in steps for value in (now + step, now - step) if value >= least]


def _tried(row: Row, size: int, start: Edge, around: Surroundings) -> Edge | None:
    """The edge after the changed row, if every one of its rounds is true; None otherwise."""
    edge, times = start, row.rounds(size)
    for _ in range(min(times, MOST_ROUNDS_TRIED)):
        work = work_row(row, size, edge, around)
        if work.trouble is not None:
            return None
        if work.edge == edge:
            break  # all the rounds that follow are like this one
        edge = work.edge
    return None if differing(row.totals, edge.counts(), size) else edge


def is_true(row: Row, size: int, start: Edge, around: Surroundings) -> bool:
    """Does a row come out as it states, in every one of its rounds, on an edge?"""
    return _tried(row, size, start, around) is not None


def _rank(following: LineWork | None, size: int, end: Edge) -> int:
    """0 when the next line is true on this edge, else 1."""
    if following is None or not isinstance(following.line, Row) or following.line.broken:
        return 0
    return 0 if _tried(following.line, size, end, following.around) is not None else 1


def _setup_repairs(lines: tuple[LineWork, ...], index: int, size: int, off: int) -> list[tuple[int, int, Repair]]:
    """A first row that does not fit its foundation: the foundation may be what is wrong."""
    if not index or not isinstance(lines[index - 1].line, Setup):
        return []
    setup, row = lines[index - 1].line, lines[index].line
    assert isinstance(setup, Setup) and isinstance(row, Row)
    found: list[tuple[int, int, Repair]] = []
    for number in numbers_in(setup.steps):
        for value in _values(number.at(size), off):
            start = work_setup(with_value(setup, number, size, value), size)
            end = _tried(row, size, start, lines[index].around) if start is not None else None
            if end is not None:
                following = lines[index + 1] if index + 1 < len(lines) else None
                repair = Repair(f"Chain {value} to begin with", (edit_value(number, size, value),))
                found.append((_rank(following, size, end), abs(value - number.at(size)), repair))
                break
    return found


def _total_repair(
    line: LineWork, row: Row | Again, following: LineWork | None, size: int
) -> list[tuple[int, int, Repair]]:
    """State what these steps make, when it is the total that is wrong."""
    if line.last is None or line.last.trouble is not None or not line.rounds:
        return []
    edits = []
    told: list[str] = []
    change = 0
    for total, stated, found in differing(row.totals, line.rounds[-1], size):
        if not found:
            return []  # nobody states 0
        edits.append(edit_value(total.count, size, found))
        told.append(str(found))  # not the whole set, so that what is alike in every size is said once
        change = max(change, abs(found - stated))
    if not edits:
        return []
    message = f"State {', '.join(told)} as the total of {write_label(row)}"
    return [(_rank(following, size, line.last.edge), change, Repair(message, tuple(edits)))]
