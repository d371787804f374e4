"""Yarn that is worked with: cut and not joined again, joined while another is still on the hook, and colours not
declared."""

import re

from rillstep.core.findings import Finding
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Chain, Gesture, Line, Pattern, Row, Section, Setup, words_of

_TOLD_JOINED = re.compile(
    r"\b(?:join|rejoin|attach|reattach)\b[^.;]*\b(?:yarn|colou?r|thread|at|in|to)\b", re.IGNORECASE
)
_JOINS = {"join colour", "change colour", "adjustable ring"}


def yarns(subject: Subject) -> list[Finding]:
    """One finding a line, for all sizes: a yarn is joined or cut in all of them alike."""
    found = list(_undeclared(subject.pattern))
    for section in subject.pattern.sections:
        found += _joined_and_cut(section)
    return found


def _joined_and_cut(section: Section) -> list[Finding]:
    found: list[Finding] = []
    cut = False  # the yarn was fastened off, and nothing was joined since
    worked = False
    for line in section.lines:
        if any(_TOLD_JOINED.search(words) for words in words_of(line)):
            cut = False  # "With the front facing you, join yarn at the top corner."
        if not isinstance(line, Row | Again | Setup):
            continue
        kinds = line.gestures if isinstance(line, Row | Setup) else frozenset()
        begins = isinstance(line, Setup) and (
            any(isinstance(s, Chain) for s in line.steps) or "adjustable ring" in kinds
        )
        joins_here = bool(kinds & _JOINS) or begins or section.worked == "rows from the same side"
        if cut and isinstance(line, Row) and not joins_here and not line.broken:  # rows worked again begin as those did
            message = (
                "The yarn was fastened off before this line, and none is joined: say where, “Join yarn in first st”."
            )
            found.append(Finding("yarn-not-joined", "warning", line.label_span, message))
        if worked and not cut and _joins_anew(line) and section.worked != "rows from the same side":
            message = "Another yarn is joined here while the one before was neither fastened off nor changed."
            found.append(Finding("yarn-not-ended", "warning", line.span, message))
        worked = worked or isinstance(line, Row | Again)
        cut = "fasten off" in kinds or (cut and not joins_here and not isinstance(line, Row | Again))
    return found


def _joins_anew(line: Line) -> bool:
    """Is a yarn joined in a named place before anything is worked?"""
    first = line.steps[0] if isinstance(line, Row | Setup) and line.steps else None
    return isinstance(first, Gesture) and first.kind == "join colour" and first.into is not None


def _undeclared(pattern: Pattern) -> list[Finding]:
    """Colours used that the head does not name, where it names any."""
    told = " ".join(text for key, text in pattern.extra if key == "Colour")
    declared = {word.upper() for word in re.findall(r"[A-Za-z]+", told)}
    found: list[Finding] = []
    if not declared:
        return found
    for _, line in pattern.lines():
        for step in line.steps if isinstance(line, Row | Setup) and line.gestures else ():
            if not isinstance(step, Gesture) or "colour" not in step.kind or not step.name:
                continue
            if not {word.upper() for word in re.findall(r"[A-Za-z]+", step.name)} & declared:
                message = f"Colour “{step.name}” is not among those that the head names ({told.strip()})."
                found.append(Finding("colour-not-defined", "warning", step.span, message))
    return found
