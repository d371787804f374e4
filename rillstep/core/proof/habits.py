"""Habits of good text: starting chains that are said and alike, rounds that are joined."""

from collections import Counter

from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.notation.numbers import edit_value
from rillstep.core.notation.tree import Chain, Gesture, Row
from rillstep.core.proof.subject import Subject


def starting_chains(subject: Subject) -> list[Finding]:
    """A starting chain that differs between sizes, or that does not suit its stitch."""
    found: list[Finding] = []
    for _, line in subject.pattern.lines():
        if not isinstance(line, Row) or not line.steps:
            continue
        first = line.steps[0]
        if isinstance(first, Chain):
            usual, _ = Counter(first.length.at(size) for size in line.sizes).most_common(1)[0]
            for size in line.sizes:
                if (given := first.length.at(size)) != usual:
                    message = (
                        f"The starting chain{subject.in_size(size)} is ch {given}; in other sizes it is ch {usual}."
                    )
                    repair = Repair(f"Change {given} to {usual}", (edit_value(first.length, size, usual),))
                    found.append(
                        Finding("starting-chain-uneven", "error", first.span, message, size, usual, given, (repair,))
                    )
        seen: set[tuple[str, Span]] = set()
        for work in subject.line_works(line.span.line):
            for warning in work.last.warnings if work.last else ():
                if (warning.code, warning.span) not in seen:
                    seen.add((warning.code, warning.span))
                    message = f"{warning.message[:1].upper()}{warning.message[1:]}."
                    found.append(Finding(warning.code, "warning", warning.span, message))
    return found


def joins(subject: Subject) -> list[Finding]:
    """Rounds of a joined section are joined; those of a spiral are not."""
    found: list[Finding] = []
    for section, line in subject.pattern.lines():
        if not isinstance(line, Row) or line.broken or line.kind != "Rnd":
            continue
        joined = any(isinstance(step, Gesture) and step.kind == "join" for step in line.steps)
        if section.worked.startswith("joined") and not joined:
            message = "This section is worked in joined rounds, but this round is not joined."
            found.append(Finding("join-missing", "warning", line.span, message))
        if section.worked == "spiral rounds" and joined:
            message = "This section is worked in a spiral, but this round is joined."
            found.append(Finding("join-in-spiral", "warning", line.span, message))
    return found
