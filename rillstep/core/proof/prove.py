"""The proof of a pattern: read, work, measure, check, in that order, in every size."""

from dataclasses import dataclass, replace
from functools import lru_cache

from rillstep.core.fabric import SizeWork, read, work_pattern
from rillstep.core.findings import Finding, sort_findings
from rillstep.core.measure import SizeShape, measure
from rillstep.core.notation.tree import Again, Pattern, Row, Setup, lines_of
from rillstep.core.proof.drift import drift
from rillstep.core.proof.habits import joins, kinds_left_out, odd_numbers, starting_chains, twists
from rillstep.core.proof.kit import kit
from rillstep.core.proof.layouts import layouts
from rillstep.core.proof.merging import caused, merged
from rillstep.core.proof.motifs import motifs, spaces_alike
from rillstep.core.proof.numbering import numbering
from rillstep.core.proof.pieces import seams, strap_centred, straps_alike
from rillstep.core.proof.shape import flatness, handles
from rillstep.core.proof.sides import sides_alike
from rillstep.core.proof.statements import statements
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.proof.totals import counted_alike, totals
from rillstep.core.proof.yarns import yarns
from rillstep.core.stitches import Terms

# Checks of one line by itself, which are remembered with it; and checks of the whole.
LINE_CHECKS = (handles, odd_numbers, kinds_left_out, spaces_alike, twists, counted_alike)
CHECKS = (
    numbering, totals, statements, flatness, starting_chains, joins, sides_alike, motifs, seams, straps_alike,
    strap_centred, layouts, yarns, drift, kit,
)  # fmt: skip


@dataclass(frozen=True)
class LineProof:
    """A line with its proved totals per size: None where it does not hold, or is not known.

    depends: an earlier line that is wrong; this one was judged from the total stated there.
    last_line: where it ends, when it goes over several lines of the text.
    """

    line: int
    section: int
    label: str
    sts: tuple[int | None, ...]
    spaces: tuple[int | None, ...]
    stated: tuple[int | None, ...]
    proved: bool
    depends: int | None = None
    last_line: int = 0


@dataclass(frozen=True)
class Proof:
    """A pattern that has been worked. `ok` when there is no error (warnings may remain)."""

    pattern: Pattern
    works: tuple[SizeWork, ...]
    shapes: tuple[SizeShape, ...] | None
    lines: tuple[LineProof, ...]
    findings: tuple[Finding, ...]

    @property
    def ok(self) -> bool:
        return not any(finding.severity == "error" for finding in self.findings)


def prove_text(text: str, allowance_mm: float = 0.0, terms: Terms | None = None) -> Proof:
    """Read and prove a text. Never raises: whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says.
    """
    read_ = read(text, terms)
    return prove(read_.pattern, read_.findings, allowance_mm)


def prove(pattern: Pattern, read: tuple[Finding, ...] = (), allowance_mm: float = 0.0) -> Proof:
    """Prove a tree that was read from text (lines are told apart by their place); `read` are the findings of its reading."""
    works = tuple(work_pattern(pattern, size) for size in range(len(pattern.sizes)))
    shapes = None
    if pattern.gauges:
        shapes = tuple(measure(pattern, work, pattern.gauges[0], allowance_mm) for work in works)
    subject = Subject(pattern, works, shapes)
    found = [finding for check in CHECKS for finding in check(subject)]
    found += [finding for line in subject.lines for finding in _found_in(line)]
    findings = sort_findings([*read, *merged(caused(found, read), pattern)])
    return Proof(pattern, works, shapes, _line_proofs(subject, findings), findings)


def _line_proofs(subject: Subject, findings: tuple[Finding, ...]) -> tuple[LineProof, ...]:
    wrong = {finding.span.line for finding in findings if finding.severity == "error"}
    proofs: list[LineProof] = []
    for line in subject.lines:
        proof = _unjudged(line)
        if proof is None:
            continue
        if wrong and isinstance(line.line, Row | Again) and not wrong.isdisjoint(lines_of(line.line)):
            proof = replace(proof, proved=False)
        proofs.append(proof)
    return tuple(proofs)


@lru_cache(maxsize=8192)
def _found_in(line: WorkedLine) -> tuple[Finding, ...]:
    return tuple(finding for check in LINE_CHECKS for finding in check(line))


@lru_cache(maxsize=8192)
def _unjudged(line: WorkedLine) -> LineProof | None:
    """A line with its totals, before the findings are looked at; nothing for one that has none."""
    row, works = line.line, line.works
    if isinstance(row, Setup):
        return None
    counts = [w.rounds[-1] if w is not None and w.rounds and w.trouble is None else None for w in works]
    main = next((t for t in row.totals if t.what == "sts"), None)
    return LineProof(
        row.span.line, line.section, f"{row.kind} {row.first.values[row.sizes[0]]}",
        tuple(c.sts if c is not None else None for c in counts),
        tuple(c.spaces_of(None) if c is not None else None for c in counts),
        tuple(main.count.at(size) if main is not None and size in row.sizes else None for size in range(len(works))),
        not row.broken and any(c is not None for c in counts),
        min((w.depends for w in line.done if w.depends is not None), default=None),
        max(row.span.line, row.last_line),
    )  # fmt: skip


__all__ = ["CHECKS", "LineProof", "Proof", "prove", "prove_text"]
