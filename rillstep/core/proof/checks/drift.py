"""The start of a round that has moved: in a spiral it leans by about half a stitch a round, and slip stitches take it
along.

What is placed by counting from the start (openings for handles, a flap) moves with it. The lean of
half a stitch a round is the usual one of single crochet worked in a spiral; taller stitches lean
less, by their own height (a documented default, not a measurement).
"""

from rillstep.core.craft import basic
from rillstep.core.fabric import LineWork
from rillstep.core.findings import Finding
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Again, Gesture, Next, Nth, Row, Step, Work
from rillstep.core.tree.features import main_stitch

LEAN = 0.5
WORTH_A_WORD = 3.0  # stitches


def drift(subject: Subject) -> list[Finding]:
    """A caution at the line whose openings are counted from a start that has moved."""
    found: list[Finding] = []
    if not any(line.has_openings for line in subject.lines):
        return found
    for work in subject.works:
        if not any(line.openings for line in work.lines):
            continue
        moved, section = 0.0, -1
        for line in work.lines:
            if not isinstance(line.line, Row | Again):
                continue
            where = subject.pattern.sections[line.section]
            if line.section != section and where.continues is None:
                moved = 0.0
            section = line.section
            if any(isinstance(s, Gesture) and s.kind == "move marker" and s.into is not None for s in line.steps):
                moved = 0.0  # the start is put where it is wanted
            around = line.start.counts().sts
            if line.line.kind == "Rnd" and line.openings and moved >= WORTH_A_WORD and around:
                message = (
                    f"{write_label(line.line)}{subject.in_size(work.size)} counts its openings "
                    f"from the start of the round, "
                    f"which has moved by about {moved:.0f} of {around} stitches: lay the "
                    f"bag flat, and begin at its side."
                )
                found.append(Finding("start-drifted", "caution", line.line.span, message, work.size, 0, round(moved)))
            moved += _of_line(line, where.worked, work.size)
    return found


def _of_line(line: LineWork, worked: str, size: int) -> float:
    assert isinstance(line.line, Row | Again)
    rounds = max(0, line.line.rounds(size))
    stitch = main_stitch(line.steps) or "sc"
    lean = LEAN / basic(stitch).height_ratio if worked == "spiral rounds" and line.line.kind == "Rnd" else 0.0
    return rounds * (lean + sum(_moves(step, size) for step in _leading(line.steps)))


def _leading(steps: tuple[Step, ...]) -> list[Step]:
    found: list[Step] = []
    for step in steps:
        if not (isinstance(step, Work) and step.stitch == "sl st"):
            break
        found.append(step)
    return found


def _moves(step: Step, size: int) -> int:
    into = step.into if isinstance(step, Work) else None
    if isinstance(into, Next):
        return into.count.at(size)
    return into.nth.at(size) - 1 if isinstance(into, Nth) else 0
