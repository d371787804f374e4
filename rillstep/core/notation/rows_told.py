"""A range of rows that says how many they are twice: by its numbers, and by how often others are repeated."""

from rillstep.core.findings import Finding, Repair
from rillstep.core.notation.numbers import edit_value
from rillstep.core.notation.tree import Num


def counted_otherwise(first: Num, last: Num, more: Num, rows: int, then: int, kind: str) -> list[Finding]:
    """ "Rnds 4-10: Rep Rnds 2 and 3 three times" are seven by their label, and six. The number may be one of rows, or
    count the rows
    that are repeated as the first time, but it means the same in every size. then: rows worked once more after them."""
    told = {
        size: b - a + 1
        for size, (a, b, n) in enumerate(zip(first.values, last.values, more.values, strict=True))
        if a is not None and b is not None and n is not None
    }
    ways = [
        {size: count for size in told if (count := (more.at(size) - less) * each + then) > then}
        for each, less in ((rows, 0), (1, 0), (rows, 1))
    ]
    best = max(ways, key=lambda way: sum(way.get(size) == count for size, count in told.items()))
    found: list[Finding] = []
    for size, count in told.items():
        expected = best.get(size, 0)
        if count == expected:
            continue
        message = f"{kind}s {first.at(size)}-{last.at(size)} are {count}; what is repeated makes {expected}."
        right = first.at(size) + expected - 1
        repairs = (
            (Repair(f"Change {last.at(size)} to {right}", (edit_value(last, size, right),)),) if last.parts else ()
        )
        where = size if len(last.values) > 1 else None
        found.append(Finding("rows-otherwise", "error", last.span, message, where, expected, count, repairs))
    return found
