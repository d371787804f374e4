"""Repairs: changes of one number that have been tried and found to make the line true."""

from rillstep.core.fabric import Edge, LineWork, work_row, work_setup
from rillstep.core.findings import Repair
from rillstep.core.notation.numbers import edit_value, numbers_in, with_value
from rillstep.core.notation.tree import Num, Row, Setup
from rillstep.core.notation.writer import write_label

MOST = 4


def repairs_for(lines: tuple[LineWork, ...], index: int, size: int, off: int) -> tuple[Repair, ...]:
    """Up to four repairs of a line in a size; `off` is by how many stitches it is wrong.

    Those after which the next line is true as well come first, smaller changes before
    larger ones.
    """
    line = lines[index]
    row = line.line
    assert isinstance(row, Row)
    following = lines[index + 1] if index + 1 < len(lines) else None
    ranked: list[tuple[int, int, Repair]] = []
    for number in numbers_in(row.steps):
        for value in _values(number.at(size), off):
            end = _tried(with_value(row, number, size, value), size, line.start)
            if end is not None:
                repair = Repair(f"Change {number.at(size)} to {value}", (edit_value(number, size, value),))
                ranked.append((_rank(following, size, end), abs(value - number.at(size)), repair))
                break
    ranked += _setup_repairs(lines, index, size, off)
    if line.last is not None and line.last.trouble is None and line.rounds:
        ranked += _total_repair(line, row, following, size)
    ranked.sort(key=lambda item: item[:2])
    return tuple(repair for _, _, repair in ranked[:MOST])


def _values(now: int, off: int) -> list[int]:
    steps = sorted({1, off, -(-off // 2)})
    return [value for step in steps for value in (now + step, now - step) if value > 0]


def _tried(row: Row, size: int, start: Edge) -> Edge | None:
    """The edge after the changed row, if every one of its rounds is true; None otherwise."""
    edge, times = start, row.rounds(size)
    for _ in range(min(times, 3)):
        work = work_row(row, size, edge, {})
        if work.trouble is not None:
            return None
        edge = work.edge
    counts = edge.counts()
    for total in row.totals:
        stated = total.count.at(size)
        length = total.length.at(size) if total.length else 0
        found = counts.sts if total.what == "sts" else counts.of(total.what)
        if stated != (counts.spaces_of(length) if total.what == "sp" else found):
            return None
    return edge


def _rank(following: LineWork | None, size: int, end: Edge) -> int:
    """0 when the next line is true on this edge, else 1."""
    if following is None or not isinstance(following.line, Row) or following.line.broken:
        return 0
    return 0 if _tried(following.line, size, end) is not None else 1


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
            end = _tried(row, size, start) if start is not None else None
            if end is not None:
                following = lines[index + 1] if index + 1 < len(lines) else None
                repair = Repair(f"Chain {value} to begin with", (edit_value(number, size, value),))
                found.append((_rank(following, size, end), abs(value - number.at(size)), repair))
                break
    return found


def _total_repair(line: LineWork, row: Row, following: LineWork | None, size: int) -> list[tuple[int, int, Repair]]:
    """State what these steps make, when it is the total that is wrong."""
    counts = line.rounds[-1]
    edits = []
    size_of_change = 0
    changed: list[Num] = []
    for total in row.totals:
        length = total.length.at(size) if total.length else 0
        found = counts.sts if total.what == "sts" else counts.of(total.what)
        found = counts.spaces_of(length) if total.what == "sp" else found
        if found != total.count.at(size):
            if total.what == "sp" and not found:
                return []
            edits.append(edit_value(total.count, size, found))
            size_of_change = max(size_of_change, abs(found - total.count.at(size)))
            changed.append(total.count)
    if not edits or line.last is None:
        return []
    message = f"State {', '.join(edit.text for edit in edits)} as the total of {write_label(row)}"
    return [(_rank(following, size, line.last.edge), size_of_change, Repair(message, tuple(edits)))]
