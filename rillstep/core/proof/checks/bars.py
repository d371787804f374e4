"""Bars on the surface of the fabric, around which a strap is begun: whether the round that is named has so many."""

from rillstep.core.fabric import LineWork, SizeWork
from rillstep.core.findings import Finding
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Bars, Row, Work


def bars(subject: Subject) -> list[Finding]:
    """A stitch around a bar of a round that is not there, or has fewer stitches."""
    found: list[Finding] = []
    for line in subject.lines:
        steps = line.line.steps if isinstance(line.line, Row) else ()
        named = [step.into for step in steps if isinstance(step, Work) and isinstance(step.into, Bars)]
        for work, own in ((subject.works[own.size], own) for own in line.done) if named else ():
            for kind, number in {(into.kind, into.number.at(own.size)) for into in named}:
                taken = sum(i.count.at(own.size) for i in named if (i.kind, i.number.at(own.size)) == (kind, number))
                there = _stitches(work, own, kind, number)
                if there is None or there < taken:
                    why = "there is no such round before it" if there is None else f"it has {there} stitches"
                    label = f"{kind} {number}"
                    message = f"{taken} bars of {label} are worked around{subject.in_size(own.size)}, and {why}."
                    code = "no-such-place" if there is None else "runs-out"
                    found.append(Finding(code, "error", line.line.span, message, own.size, taken, there))
    return found


def _stitches(work: SizeWork, own: LineWork, kind: str, number: int) -> int | None:
    """The stitches of a round before a line, the nearest of that number; of a row where no round has it, and the other
    way round, as "R50" may be either; None where there is none."""
    found: int | None = None
    other: int | None = None
    for line in work.lines:
        if line.line is own.line:
            break
        if isinstance(line.line, Row | Again) and line.rounds:
            at = number - line.line.first.at(work.size)
            if 0 <= at < len(line.rounds) and line.line.kind == kind:
                found = line.rounds[at].sts
            elif 0 <= at < len(line.rounds):
                other = line.rounds[at].sts
    return other if found is None else found
