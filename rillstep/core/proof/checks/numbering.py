"""Row and round numbers: they start at 1 in each section, and leave no gap."""

from rillstep.core.findings import Finding, Repair
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Chain, Gesture, Row, Section, Setup
from rillstep.core.words.numbers import edit_value


def numbering(subject: Subject) -> list[Finding]:
    """Gaps, overlaps and empty ranges, per size."""
    found: list[Finding] = []
    ends: dict[tuple[str, int], int] = {}  # the number after the last row of a section, in each size
    sizes = len(subject.pattern.sizes)
    for section in subject.pattern.sections:
        title = section.title.lower()
        after = _in_order(section, [ends.get(((section.continues or "").lower(), size), 1) for size in range(sizes)])
        if after is not None:
            ends.update(((title, size), number) for size, number in enumerate(after))
            continue
        for size in range(sizes):
            expected = 1
            elsewhere = section.on is not None and section.on.edge == "elsewhere"
            first = next((r for r in section.lines if isinstance(r, Row | Again) and size in r.sizes), None)
            goes_on = ends.get(((section.continues or "").lower(), size))
            if first is not None and elsewhere and first.first.parts:
                expected = first.first.at(size)  # what comes before it is not in this text
            if first is not None and goes_on is not None and first.first.at(size) == goes_on:
                expected = goes_on  # a section that goes on from another may go on counting as well
            before: Row | Again | None = None
            for line in section.lines:
                if isinstance(line, Setup) and begins_anew(line):
                    expected, before = 1, None
                if not isinstance(line, Row | Again) or size not in line.sizes:
                    continue
                if before is not None and before.kind != line.kind and {*line.first.values} <= {1, None}:
                    expected, before = 1, None  # rows that become rounds are counted from 1 again
                first_here = line.first.values[size]
                last_here = first_here if line.last is None else line.last.values[size]
                assert first_here is not None and last_here is not None
                if expected < first_here and _left_to_others(section, line, size, expected, first_here):
                    expected = first_here  # "Sizes 2 and 3 only: R8 ... All sizes: R10"
                if first_here != expected or last_here < first_here:
                    fits = _also(before, expected, goes_on)
                    if not (first_here == 0 and before is None and _goes_on_with_one(section, line, size)):
                        found += _check(subject, line, before, fits, size)
                expected, before = last_here + 1, line
            ends[(title, size)] = expected
    return found


def _goes_on_with_one(section: Section, line: Row | Again, size: int) -> bool:
    """Is a row 0 followed by row 1, as a foundation that is counted apart?"""
    rows = [r for r in section.lines[section.lines.index(line) + 1 :] if isinstance(r, Row | Again) and size in r.sizes]
    return bool(rows) and rows[0].first.values[size] == 1


def _left_to_others(section: Section, line: Row | Again, size: int, expected: int, first: int) -> bool:
    """Are the numbers from `expected` up to `first` those of rows before it that hold for other sizes only, one for
    each?"""
    if any(line.first.at(one) in _of_others(section, line, one) for one in line.sizes if one != size):
        return False  # another size does not leave them to others here: each size counts its own rows
    taken = _of_others(section, line, size)
    return all(number in taken for number in range(expected, min(first, expected + _MOST_LEFT)))


def _of_others(section: Section, line: Row | Again, size: int) -> set[int]:
    """The numbers of rows before a line that hold for other sizes only."""
    taken: set[int] = set()
    for other in section.lines[: section.lines.index(line)]:
        if isinstance(other, Row | Again) and size not in other.sizes:
            for held in other.sizes:
                begin = other.first.values[held]
                end = begin if other.last is None else other.last.values[held]
                if begin is not None and end is not None and end - begin < _MOST_LEFT:
                    taken.update(range(begin, end + 1))
    return taken


_MOST_LEFT = 1_000


def _in_order(section: Section, goes_on: list[int]) -> tuple[int, ...] | None:
    """The numbers after the last row, where all lines hold in every size and come in order: the usual case, looked at
    for all sizes at once."""
    first = (1,) * len(goes_on)
    expected: tuple[int | None, ...] = first
    begun = False
    kind = None
    for line in section.lines:
        if isinstance(line, Setup) and begins_anew(line):
            expected, begun = first, True
        if not isinstance(line, Row | Again):
            continue
        values, last = line.first.values, line.first.values if line.last is None else line.last.values
        if not begun and values == tuple(goes_on):
            expected = values  # a section that goes on from another may go on counting as well
        if values != expected or kind not in (None, line.kind) or len(line.sizes) < len(first):
            return None
        if last is not values and any(a is None or b is None or b < a for a, b in zip(values, last, strict=True)):
            return None
        expected, begun, kind = tuple([None if n is None else n + 1 for n in last]), True, line.kind
    return tuple([n or 1 for n in expected])


def begins_anew(line: Setup) -> bool:
    """Does a set-up line begin a new piece, whose rows are counted from 1 again?"""
    return any(isinstance(s, Chain) or (isinstance(s, Gesture) and s.kind == "adjustable ring") for s in line.steps)


def _also(before: Row | Again | None, expected: int, goes_on: int | None) -> tuple[int, ...]:
    """The numbers that fit: the one that comes next, and at the start of a section that of the one it goes on from as
    well."""
    return (expected,) if before is not None or goes_on in (None, expected) else (expected, goes_on)


def _check(
    subject: Subject, line: Row | Again, before: Row | Again | None, fits: tuple[int, ...], size: int
) -> list[Finding]:
    first, expected = line.first.at(size), fits[0]
    found: list[Finding] = []
    word = "rounds" if line.kind == "Rnd" else "rows"
    if first != expected and line.first.parts:
        after = f"after {write_label(before)}" if before else "at the start of the section"
        message = f"{line.kind} {first}{subject.in_size(size)} stands {after}, where {line.kind} {expected} comes next."
        repairs = [Repair(f"Number it {number}", (edit_value(line.first, size, number),)) for number in reversed(fits)]
        if before is not None and before.last is not None and before.last.parts and first - 1 >= before.first.at(size):
            message_2 = f"End {write_label(before)} at {first - 1}"
            repairs.append(Repair(message_2, (edit_value(before.last, size, first - 1),)))
        related = (before.label_span,) if before else ()
        code = "numbers-gap" if first > expected else "numbers-overlap"
        found.append(Finding(code, "error", line.label_span, message, size, expected, first, tuple(repairs), related))
    if line.last is not None and line.last.at(size) < first:
        message = f"This range of {word} ends before it begins{subject.in_size(size)}."
        found.append(Finding("numbers-empty", "error", line.label_span, message, size, first, line.last.at(size)))
    return found
