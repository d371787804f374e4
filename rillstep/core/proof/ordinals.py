"""Repairs of a number that says which one it is: "3rd" becomes "1st", and "third" as well."""

import re
from collections.abc import Iterable
from dataclasses import replace

from rillstep.core.findings import Edit, Finding, Repair, Span
from rillstep.core.tree.leaves import ordinal_text

_ENDING = re.compile(r"(?:st|nd|rd|th)(?![A-Za-z])", re.IGNORECASE)


def with_endings(text: str, findings: Iterable[Finding]) -> tuple[Finding, ...]:
    """The findings, with the ending of each ordinal that a repair changes as its number wants it."""
    lines = text.split("\n")
    return tuple(replace(one, repairs=tuple(_of(lines, repair) for repair in one.repairs)) for one in findings)


def _of(lines: list[str], repair: Repair) -> Repair:
    return replace(repair, edits=tuple(_ended(lines, edit) for edit in repair.edits))


def _ended(lines: list[str], edit: Edit) -> Edit:
    span = edit.span
    if not edit.text.isdigit() or not 0 < span.line <= len(lines):
        return edit
    ending = _ENDING.match(lines[span.line - 1], span.end_column - 1)
    if ending is None or span.end_column == span.column:
        return edit
    return Edit(Span(span.line, span.column, ending.end() + 1), ordinal_text(int(edit.text)))
