"""Findings: what is wrong with a text, as values that can be shown, tested and repaired."""

from dataclasses import dataclass
from typing import Literal

Severity = Literal["error", "warning", "caution"]


@dataclass(frozen=True, order=True)
class Span:
    """A place in the text. Lines and columns count from 1; `end_column` is one past the end."""

    line: int
    column: int
    end_column: int

    def to(self, other: "Span") -> "Span":
        """The span from here to the end of another one on the same line."""
        return Span(self.line, self.column, max(self.end_column, other.end_column))


@dataclass(frozen=True)
class Edit:
    """Replace what stands at `span` by `text`."""

    span: Span
    text: str


@dataclass(frozen=True)
class Repair:
    """Edits that were tried and make the line true."""

    message: str
    edits: tuple[Edit, ...]


# Warnings of a line of which it is not known what it makes.
NOT_KNOWN = frozenset(("chains-not-counted",))


@dataclass(frozen=True)
class Finding:
    """One thing that is wrong. `size` is an index into the sizes, or None for all of them."""

    code: str
    severity: Severity
    span: Span
    message: str
    size: int | None = None
    expected: float | None = None
    found: float | None = None
    repairs: tuple[Repair, ...] = ()
    related: tuple[Span, ...] = ()
    steps: tuple[str, ...] = ()


def sort_findings(findings: list[Finding]) -> tuple[Finding, ...]:
    """By place in the text, then by size, errors before warnings."""
    order = {"error": 0, "warning": 1, "caution": 2}
    return tuple(sorted(findings, key=lambda f: (f.span, order[f.severity], -1 if f.size is None else f.size, f.code)))


def apply_edits(text: str, edits: tuple[Edit, ...]) -> str:
    """The text with the edits made, from the end backwards so that no place moves."""
    lines = text.split("\n")
    for edit in sorted(edits, key=lambda e: e.span, reverse=True):
        row = lines[edit.span.line - 1]
        lines[edit.span.line - 1] = row[: edit.span.column - 1] + edit.text + row[edit.span.end_column - 1 :]
    return "\n".join(lines)
