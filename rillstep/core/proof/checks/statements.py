"""Check lines and the finished measurements: each statement is worked out again."""

from rillstep.core.fabric import SizeWork
from rillstep.core.findings import Finding, Repair
from rillstep.core.lengths import in_units
from rillstep.core.measures import BagMeasures, is_beside
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Check, CheckItem, Line, Num, Row
from rillstep.core.words.numbers import edit_value

# One decimal is printed, so a statement is true when it is within half of the last digit
# (and a hair, for the rounding of binary fractions).
_HALF_DIGIT = 0.0501
# Words tell a measure roughly.
_SAID_WITHIN, _SAID_LEAST_MM = 0.1, 10.0


def statements(subject: Subject) -> list[Finding]:
    """Every statement of every check, in every size."""
    found: list[Finding] = []
    checks: list[tuple[Check, int]] = [
        (line, index)
        for index, section in enumerate(subject.pattern.sections)
        for line in section.lines
        if isinstance(line, Check)
    ]
    if subject.pattern.finished is not None:
        checks.append((subject.pattern.finished, len(subject.pattern.sections) - 1))
    for check, section in checks:
        for item in check.items:
            for size in check.sizes:
                found += _check(subject, check, item, section, size)
    return [*found, *_said(subject)]


def _said(subject: Subject) -> list[Finding]:
    """Finished measurements in words that the worked rounds do not come near: a warning only."""
    found: list[Finding] = []
    units = subject.pattern.units
    for said in subject.pattern.said if subject.bag is not None else ():
        for size, wanted in enumerate(said.mm):
            assert subject.bag is not None
            made = next((one for one in subject.bag.whole[size] if one.name == said.name), None)
            if made is None or made.mm is None:
                continue
            share = _SAID_WITHIN * (2 if made.estimated else 1)
            if abs(made.mm - wanted) > max(_SAID_LEAST_MM, share * wanted):
                told, there = in_units(wanted, units), in_units(made.mm, units)
                message = (
                    f"The head says that the {said.name}{subject.in_size(size)} is {told:.1f} {units}; "
                    f"the rounds measure {there:.1f} {units}{' (estimated)' if made.estimated else ''}."
                )
                found.append(Finding("finished-differs", "warning", said.span, message, size, made.mm, wanted))
    return found


def _check(subject: Subject, check: Check, item: CheckItem, section: int, size: int) -> list[Finding]:
    where = subject.in_size(size)
    if check.fold:
        return _fold(subject, check, section, size) if item is check.items[0] else []
    if isinstance(item.number, Num):
        stated, is_true = item.number.at(size), counted_by(subject.works[size], check, item.what, section)
        if is_true is None or stated == is_true:
            return []
        message = f"This check says {stated} {item.what}{where}; there are {is_true}."
        repairs = [Repair(f"State {is_true}", (edit_value(item.number, size, is_true),))]
        if item.what in ("rnds", "rows"):
            repairs = [
                *_other_ends(_counted(subject.works[size], check, item.what, section), size, stated - is_true),
                *repairs,
            ]
        related = tuple(
            work.line.label_span
            for work in subject.works[size].lines
            if item.what in ("rnds", "rows")
            and work.section == section
            and isinstance(work.line, Row | Again)
            and work.line.last
        )
        return [
            Finding("check-differs", "error", item.number.span, message, size, is_true, stated, tuple(repairs), related)
        ]
    value = item.number.values[size]
    if subject.bag is None or value is None:
        return []
    units = subject.pattern.units
    length, why = _length(subject.bag, check, item.what, section, size)
    if length is None:
        message = f"This says {value:.1f} {units} {item.what}{where}; it is not checked: {why}."
        return [Finding("measure-not-known", "warning", item.number.span, message, size)]
    measured = in_units(length, units)
    if abs(value - measured) <= _HALF_DIGIT:
        return []
    message = f"This says {value:.1f} {units} {item.what}{where}; the rounds measure {measured:.1f} {units}."
    return [Finding("measure-differs", "error", item.number.span, message, size, measured, value)]


def _fold(subject: Subject, check: Check, section: int, size: int) -> list[Finding]:
    """The rows of the parts of a fold, against those of the panel that it folds."""
    numbers = [item.number for item in check.items if isinstance(item.number, Num) and item.what != "half"]
    with_rows = [line.section for line in subject.works[size].lines if isinstance(line.line, Row | Again)]
    panel = max((at for at in with_rows if at <= section), default=section)
    there = sum(len(line.rounds) for line in subject.works[size].lines if line.section == panel)
    stated = sum(number.at(size) for number in numbers)
    unread = any(line.section == panel and _rounds_open(line.line) for line in subject.works[size].lines)
    if not numbers or stated == there or unread:
        return []
    title = subject.pattern.sections[panel].title
    message = f"This fold tells of {stated} rows{subject.in_size(size)}; {title} has {there}."
    return [Finding("fold-differs", "error", check.span, message, size, there, stated)]


def counted_by(work: SizeWork, check: Check, what: str, section: int) -> int | None:
    """Rounds of this section, or stitches after it; None when they are not known."""
    if what in ("rnds", "rows"):
        if any(_rounds_open(w.line) for w in work.lines if w.section == section):
            return None
        return sum(max(0, row.rounds(work.size)) for row in _counted(work, check, what, section))
    lines = [line for line in work.lines if line.section == section and line.line.span.line <= check.span.line]
    rows = [line for line in lines if isinstance(line.line, Row | Again)]
    if not rows or not rows[-1].known:
        return None
    return rows[-1].end.counts().sts


def _rounds_open(line: Line) -> bool:
    """Is it not known how many rounds a line stands for, or of which kind they are?"""
    return isinstance(line, Row | Again) and (line.broken or (line.until_sts is not None and line.last is None))


def _counted(work: SizeWork, check: Check, what: str, section: int) -> list[Row | Again]:
    """The lines whose rounds, or rows, a check counts: those of its kind, where the section has both."""
    lines = [w.line for w in work.lines if w.section == section and w.line.span.line <= check.span.line]
    rows = [line for line in lines if isinstance(line, Row | Again)]
    of_kind = [row for row in rows if (row.kind == "Rnd") == (what == "rnds")]
    return of_kind or rows


def _other_ends(rows: list[Row | Again], size: int, more: int) -> list[Repair]:
    """Ranges that make the number of rows true when they end so many rows later; the rows after them keep their
    numbers."""
    found: list[Repair] = []
    for at, row in enumerate(rows):
        following = rows[at + 1] if at + 1 < len(rows) else None
        if row.last is None or not row.last.parts:
            continue
        end = row.last.at(size) + more
        fits = following is None or not following.first.parts or following.first.at(size) == end + 1
        if fits and end > row.first.at(size):
            found.append(Repair(f"End {write_label(row)} with {end}", (edit_value(row.last, size, end),)))
    return found[-2:]


_NAMES = {
    "wide": ("width", "diameter", "length"), "high": ("height", "length"), "deep": ("depth", "diameter"),
    "drop": ("drop",),
}  # fmt: skip


def _length(bag: BagMeasures, check: Check, what: str, section: int, size: int) -> tuple[float | None, str]:
    """What a check states, as it measures at its place; the other is what is missing, where it is not known."""
    here, line = bag.pattern.sections[section], check.span.line
    by_itself = bag.pieces[size][section] is not None and section not in bag.body.pieces
    if check is bag.pattern.finished:
        formulas = list(bag.whole[size])
    elif by_itself and (here.role in ("disc", "oval") or is_beside(here)):
        formulas = bag.of_piece(size, section, line)
    else:
        formulas = bag.at(size, line)
    if here.role == "oval" and what == "wide":
        formulas = [one for one in formulas if one.name != "width"]
    found = next((one for name in _NAMES[what] for one in formulas if one.name == name), None)
    return (None, "nothing of that kind is measured here") if found is None else (found.mm, found.why)
