"""The side of the work that faces the maker: rows that are turned show one and then the other, and a copy of a row
shows the side that the row does."""

from collections.abc import Iterator
from itertools import pairwise

from rillstep.core.fabric import LineWork
from rillstep.core.findings import Finding
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Row, Section

_OTHER = {"RS": "WS", "WS": "RS"}


def sides_in_turn(subject: Subject) -> list[Finding]:
    """Two rows of which the words tell the sides, and that cannot show them: with or without a turn between them."""
    found: dict[tuple[int, str], Finding] = {}
    for work in subject.works:
        for index, section in enumerate(subject.pattern.sections):
            if not any(isinstance(line, Row | Again) and line.side is not None for line in section.lines):
                continue  # no words tell a side
            lines = [line for line in work.lines if line.section == index and isinstance(line.line, Row | Again)]
            for finding in _in_section(subject, section, lines):
                found.setdefault((finding.span.line, finding.code), finding)
    return list(found.values())


def _in_section(subject: Subject, section: Section, lines: list[LineWork]) -> Iterator[Finding]:
    side: str | None = None  # of the last row, where it is known
    before: LineWork | None = None
    for line in lines:
        row = line.line
        assert isinstance(row, Row | Again)
        if not line.turns or line.trouble is not None:
            side = before = None
            continue
        flips = before is not None and _turns_between(section, before, line)
        here = (_OTHER[side] if flips else side) if side is not None else None
        told = row.side
        if told is not None and here is not None and told != here:
            assert before is not None and isinstance(before.line, Row | Again)
            turned = "turned after" if flips else "not turned after"
            after = f"the work is {turned} {write_label(before.line)}"
            message = f"{write_label(row)} says {told}; {after}, so that it is {here}."
            yield Finding("side-differs", "error", row.label_span, message, None)
        elif isinstance(row, Again) and (source := _copies_other_side(line, told, told or here)) is not None:
            message = (
                f"{write_label(row)} is worked on the {told or here}, and is a copy of {write_label(source)}, which is "
                f"worked on the {source.side}."
            )
            yield Finding("side-differs", "error", row.label_span, message, None)
        rounds = max(1, len(line.rounds))
        side, before = told or here, line
        if side is not None and rounds % 2 == 0 and _turns_between(section, line, line):
            side = _OTHER[side]


def _copies_other_side(line: LineWork, told: str | None, here: str | None) -> Row | None:
    """The row that a line begins to copy, where it shows the other side: where the words tell both, or several rows are
    copied in turn. "Rows 3-18: Rep Row 2" is for both sides."""
    assert isinstance(line.line, Again)
    source = line.turns[0].source
    several = len(line.line.sources) > 1 and len(line.line.sources) % 2 == 0
    return source if source.side is not None and here not in (None, source.side) and (told or several) else None


def _turns_between(section: Section, before: LineWork, after: LineWork) -> bool:
    """Is the work turned between the last row of one line and the first of another?"""
    if section.worked == "rows from the same side":
        return False
    leading, trailing = after.turned_first, before.turned_last
    implied = section.worked in ("rows", "joined and turned rounds") and not before.says_of_turning
    return leading != trailing or (implied and not leading)


def turned_once(subject: Subject) -> list[Finding]:
    """Joined rounds of which one is turned, and no other: from there on the other side shows."""
    found: list[Finding] = []
    for index, section in enumerate(subject.pattern.sections):
        if section.worked != "joined rounds" or not subject.works:
            continue
        lines = [
            line
            for line in subject.works[0].lines
            if line.section == index and isinstance(line.line, Row | Again) and line.line.kind == "Rnd"
        ]
        flips = [after for before, after in pairwise(lines) if _turns_between(section, before, after)]
        within = any(len(line.rounds) > 1 and _turns_between(section, line, line) for line in lines)
        if len(flips) == 1 and not within and len(lines) > 2:
            message = (
                "The work is turned before this round and nowhere else in a section of joined rounds: from here on the "
                "other side faces you. Say “joined and turned rounds”, or leave the turn out."
            )
            line = flips[0].line
            assert isinstance(line, Row | Again)
            found.append(Finding("round-turned", "warning", line.label_span, message))
    return found
