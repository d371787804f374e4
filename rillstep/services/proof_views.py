"""What the screens get of a proof: its lines, findings, questions, outline and counts, as plain data."""

from rillstep.core.findings import Finding, Repair
from rillstep.core.proof import Proof, Question
from rillstep.core.proof.marks import counts_of, kept_places
from rillstep.core.proof.prove import UNCHECKED
from rillstep.core.tree import Gesture, Row, Setup
from rillstep.core.words.expressions import Value
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in, names_of
from rillstep.core.words.numbers import set_text
from rillstep.core.words.stream import THE_ROUND
from rillstep.services import views


def repair_views(repairs: tuple[Repair, ...]) -> list[views.RepairView]:
    return [
        views.RepairView(message=r.message, edits=[views.EditView(**vars(e.span), text=e.text) for e in r.edits])
        for r in repairs
    ]


def question_view(question: Question) -> views.QuestionView:
    """A question that the text leaves open, with its answers as edits."""
    return views.QuestionView(
        code=question.code, line=question.span.line, words=question.words, answers=repair_views(question.answers)
    )


def outline(proof: Proof) -> views.OutlineView:
    """What an editor of the text offers to complete and to fold: the names that are defined in it, and its sections."""
    pattern = proof.pattern
    markers = {
        step.name for _, line in pattern.lines() if isinstance(line, Row | Setup)
        for step in line.steps if isinstance(step, Gesture) and "marker" in step.kind and step.name
    }  # fmt: skip
    return views.OutlineView(
        sections=[views.OutlineSection(title=s.title, line=s.span.line, made=max(s.make)) for s in pattern.sections],
        stitches=[special.name for special in pattern.specials],
        markers=sorted(markers),
        sizes=list(pattern.sizes),
        terms=pattern.terms,
    )


def finding_view(finding: Finding, sizes: tuple[str, ...]) -> views.FindingView:
    """A finding with its size by name."""
    span = finding.span
    return views.FindingView(
        code=finding.code, severity=finding.severity, line=span.line, column=span.column, end_column=span.end_column,
        size=None if finding.size is None else sizes[finding.size],
        expected=finding.expected, found=finding.found, message=finding.message, unchecked=finding.code in UNCHECKED,
        repairs=repair_views(finding.repairs),
        related=[views.SpanView(**vars(s)) for s in finding.related],
    )  # fmt: skip


def counts_view(proof: Proof) -> views.CountsView:
    """How many lines are proved, and what the others are."""
    return views.CountsView(**vars(counts_of(proof)))


def kept_view(proof: Proof) -> list[views.PlaceView]:
    """Where words stand that are only kept."""
    return [views.PlaceView(**vars(span)) for span in kept_places(proof.pattern)]


def line_views(proof: Proof) -> list[views.LineView]:
    """Each line with its proved totals."""
    return [
        views.LineView(
            line=line.line, section=proof.pattern.sections[line.section].title, label=line.label,
            sts=list(line.sts), spaces=list(line.spaces), stated=list(line.stated), mark=line.mark,
            phrases=list(line.phrases),
            depends=line.depends, last_line=line.last_line,
        )
        for line in proof.lines
    ]  # fmt: skip


def named_places(text: str, n_sizes: int) -> list[views.NamedPlaceView]:
    """Where names stand in the lines of a text, with their numbers; what speaks of the number of a round has none of
    its own, and is left out."""
    lines = text.split("\n")
    names = names_of(lines)
    if not names.defined:
        return []
    found: list[views.NamedPlaceView] = []
    for number, raw in enumerate(lines, start=1):
        for match in () if DEFINED.match(raw) else BRACES.finditer(raw):
            source = match[1].strip()
            used = names_in(source)
            if not used or used & THE_ROUND or used - names.defined.keys():
                continue
            values = [names.sum_or_why(source, size, n_sizes) for size in range(n_sizes)]
            numbers = [int(one.value) for one in values if isinstance(one, Value)]
            if len(numbers) == n_sizes:
                found.append(
                    views.NamedPlaceView(
                        line=number,
                        column=match.start() + 1,
                        end_column=match.end() + 1,
                        shown=set_text(tuple(numbers)) + (match[2] or ""),
                        name=source if source in used else None,
                        values=numbers,
                    )
                )
    return found
