"""Lines that are printed as they were written: those that are not proved, and those whose print does not read back."""

from dataclasses import replace

from rillstep.core.proof.prove import Proof
from rillstep.core.tree import Again, Line, Pattern, Prose, Row, Setup, lines_of

# What stands before such a line; as a note it is read back as the words that it is.
NOT_PROVED = "As it was written, and not proved: "
VOUCHED_FOR = "As it was written, with the designer's word for it: "


def unproved_lines(proof: Proof) -> set[int]:
    """The lines of the source that are wrong, not understood, or vouched for."""
    broken = {line.span.line for _, line in proof.pattern.lines() if isinstance(line, Setup) and line.broken}
    return broken | {line.line for line in proof.lines if line.mark in ("wrong", "not understood", "vouched")}


def with_source_lines(pattern: Pattern, source: str, numbers: set[int]) -> Pattern:
    """The pattern with some lines as notes that hold them as they stand in the source; lines of the tree that stand in
    one line of the source are one note."""
    rows = source.split("\n")
    sections = []
    for section in pattern.sections:
        lines: list[Line] = []
        for line in section.lines:
            if line.span.line not in numbers:
                lines.append(line)
            elif not (lines and isinstance(lines[-1], Prose) and lines[-1].span.line == line.span.line):
                held = lines_of(line) if isinstance(line, Row | Again) else range(line.span.line, line.span.line + 1)
                words = " ".join(" ".join(rows[at - 1] for at in held if at <= len(rows)).split())
                before = VOUCHED_FOR if isinstance(line, Row | Again) and line.vouched else NOT_PROVED
                lines.append(Prose(before + words, line.sizes, True, line.span))
        sections.append(replace(section, lines=tuple(lines)))
    return replace(pattern, sections=tuple(sections))


def differing_lines(read: Pattern, wanted: Pattern) -> set[int]:
    """The lines of a pattern, by their place in the source, that its print does not read back to."""
    found: set[int] = set()
    for at, section in enumerate(wanted.sections):
        lines = read.sections[at].lines if at < len(read.sections) else ()
        same = len(lines) == len(section.lines)
        for index, line in enumerate(section.lines):
            there = lines[index] if same else None
            if (there != line) if same else (line not in lines):
                found.add(line.span.line)
    return found
