"""The proof of a pattern: read, work, measure, check, in that order, in every size."""

from dataclasses import dataclass

from rillstep.core.fabric import SizeWork, work_pattern
from rillstep.core.findings import Finding, sort_findings
from rillstep.core.measure import SizeShape, measure
from rillstep.core.notation import parse
from rillstep.core.notation.tree import Again, Pattern, Row, covers
from rillstep.core.proof.drift import drift
from rillstep.core.proof.habits import joins, kinds_left_out, odd_numbers, starting_chains, twists
from rillstep.core.proof.merging import merged
from rillstep.core.proof.motifs import motifs
from rillstep.core.proof.numbering import numbering
from rillstep.core.proof.pieces import seams, strap_centred, straps_alike
from rillstep.core.proof.shape import flatness, handles
from rillstep.core.proof.sides import sides_alike
from rillstep.core.proof.statements import statements
from rillstep.core.proof.subject import Subject
from rillstep.core.proof.totals import totals
from rillstep.core.proof.yarns import yarns
from rillstep.core.stitches import Terms

CHECKS = (
    numbering, totals, statements, flatness, handles, starting_chains, odd_numbers, kinds_left_out, joins, twists,
    sides_alike, motifs, seams, straps_alike, strap_centred, yarns, drift,
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
    parsed = parse(text, terms)
    return prove(parsed.pattern, parsed.findings, allowance_mm)


def prove(pattern: Pattern, read: tuple[Finding, ...] = (), allowance_mm: float = 0.0) -> Proof:
    """Prove a tree that was read from text (lines are told apart by their place); `read` are the findings of its reading."""
    works = tuple(work_pattern(pattern, size) for size in range(len(pattern.sizes)))
    shapes = None
    if pattern.gauges:
        shapes = tuple(measure(pattern, work, pattern.gauges[0], allowance_mm) for work in works)
    subject = Subject(pattern, works, shapes)
    found = [finding for check in CHECKS for finding in check(subject)]
    findings = sort_findings([*read, *merged(found, pattern)])
    return Proof(pattern, works, shapes, _line_proofs(subject, findings), findings)


def _line_proofs(subject: Subject, findings: tuple[Finding, ...]) -> tuple[LineProof, ...]:
    wrong = {finding.span.line for finding in findings if finding.severity == "error"}
    proofs: list[LineProof] = []
    for index, section in enumerate(subject.pattern.sections):
        for line in section.lines:
            if not isinstance(line, Row | Again):
                continue
            by_size = {work.size: work.of_line(line.span.line) for work in subject.works}
            sts: list[int | None] = []
            spaces: list[int | None] = []
            stated: list[int | None] = []
            for size in range(len(subject.pattern.sizes)):
                work = by_size[size]
                last = work.rounds[-1] if work and work.rounds and not work.trouble else None
                sts.append(last.sts if last else None)
                spaces.append(sum(count for _, count in last.spaces) if last else None)
                main = [t for t in line.totals if t.what == "sts"]
                stated.append(main[0].count.at(size) if main and size in line.sizes else None)
            label = f"{line.kind} {line.first.values[line.sizes[0]]}"
            proved = not any(covers(line, at) for at in wrong) and not line.broken and any(v is not None for v in sts)
            depends = min((w.depends for w in by_size.values() if w and w.depends is not None), default=None)
            proofs.append(
                LineProof(
                    line.span.line,
                    index,
                    label,
                    tuple(sts),
                    tuple(spaces),
                    tuple(stated),
                    proved,
                    depends,
                    max(line.span.line, line.last_line),
                )
            )
    return tuple(proofs)


__all__ = ["CHECKS", "LineProof", "Proof", "prove", "prove_text"]
