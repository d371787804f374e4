"""Rows that are worked again: which of the earlier ones they are, in each size."""

from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.memory import remember
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import WorkedLine
from rillstep.core.tree import Again, Num, Row
from rillstep.core.words.numbers import edit_value


@remember(8192)
def copied_rows(worked: WorkedLine) -> tuple[Finding, ...]:
    """The same row named twice where two are repeated in turn; and sizes that repeat another row than the others,
    though every one of these rows holds for all of them."""
    line = worked.line
    if not isinstance(line, Again) or line.broken:
        return ()
    return tuple(_named_twice(worked, line) or _otherwise_in_a_size(worked, line))


def _named_twice(worked: WorkedLine, line: Again) -> list[Finding]:
    if len(line.sources) != 2:
        return []
    first, second = line.sources
    found = []
    for size in line.sizes:
        number = second.values[size]
        if number is not None and first.values[size] == number and (first.parts or second.parts):
            message = f"{write_label(line)}{worked.in_size(size)}: {line.kind} {number} is named twice."
            found.append(Finding("row-twice", "error", _place(second, line), message, size))
    return found


def _place(number: Num, line: Again) -> Span:
    return number.span if number.parts else line.span


def _otherwise_in_a_size(worked: WorkedLine, line: Again) -> list[Finding]:
    by_size = {work.size: tuple(turn.source for turn in work.turns[: len(line.sources)]) for work in worked.done}
    usual = max(by_size.values(), key=lambda rows: sum(other == rows for other in by_size.values()), default=())
    found = []
    for size, rows in by_size.items():
        for number, mine, theirs in zip(line.sources, rows, usual, strict=False):
            if _hold_for_all(line, mine, theirs) and mine.steps != theirs.steps:
                at = next(other for other, its in by_size.items() if its == usual)
                right = number.values[at]
                message = (
                    f"{write_label(line)}{worked.in_size(size)} repeats {line.kind} {number.values[size]}, and the "
                    f"other sizes {line.kind} {right}; both rows hold for all of them."
                )
                edits = (edit_value(number, size, right),) if right is not None and number.parts else ()
                repairs = (Repair(f"Change {number.values[size]} to {right}", edits),) if edits else ()
                found.append(
                    Finding(
                        "size-repeats-otherwise",
                        "warning",
                        _place(number, line),
                        message,
                        size,
                        right,
                        number.values[size],
                        repairs,
                    )
                )
    return found


def _hold_for_all(line: Again, one: Row, other: Row) -> bool:
    sizes = set(line.sizes)
    return one is not other and sizes <= set(one.sizes) and sizes <= set(other.sizes)
