"""Proof of print: text for readers is read back by the same parser and worked again."""

from dataclasses import dataclass

from rillstep.core.findings import Finding, Span
from rillstep.core.notation import one_size, parse, write
from rillstep.core.notation.tree import Pattern
from rillstep.core.proof.prove import Proof, prove
from rillstep.core.stitches import Terms


@dataclass(frozen=True)
class Reprint:
    """A text for readers with the proof of exactly that text. Only an `ok` one may be shown as proved."""

    text: str
    proof: Proof
    problems: tuple[Finding, ...]

    @property
    def ok(self) -> bool:
        return not self.problems and self.proof.ok


def reprint(pattern: Pattern, terms: Terms, size: int | None = None, allowance_mm: float = 0.0) -> Reprint:
    """Write a pattern (one size of it, if given), read it back, and work it again."""
    wanted = pattern if size is None else one_size(pattern, size)
    text = write(wanted, terms)
    parsed = parse(text)
    problems = list(parsed.findings)
    if parsed.pattern != wanted:
        message = "What was printed does not read back as what was meant; it is not exported."
        problems.append(Finding("print-differs", "error", Span(1, 1, 2), message))
    again = prove(parsed.pattern, parsed.findings, allowance_mm)
    return Reprint(text, again, tuple(problems))
