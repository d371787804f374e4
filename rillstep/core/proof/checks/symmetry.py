"""Left and right of a centre, and front against back: as a section declares, or as its other rows let one notice."""

from rillstep.core.fabric import LineWork, Turn, trace_row
from rillstep.core.fabric.remembered import Identity
from rillstep.core.findings import Finding
from rillstep.core.memory import remember
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import (
    Again,
    Chain,
    Every,
    Gesture,
    Group,
    Last,
    Next,
    Nth,
    Repeat,
    Row,
    Same,
    Section,
    Step,
    Together,
    What,
    Work,
)

# What is only noticed needs so many rows that agree, and no more than one in five that do not.
_ROWS_TO_NOTICE = 4
_MOST_ODD = 0.2
_MOST_STITCHES = 400
_MOST_TRACED = 40_000  # stitches in all rows and sizes
_MOST_LINES_TO_NOTICE = 60

Shaping = tuple[tuple[str, int, int], ...]


def sides_alike(subject: Subject) -> list[Finding]:
    """Rows whose left and right, or rounds whose front and back, are not alike."""
    found: list[Finding] = []
    budget = [_MOST_TRACED]
    for work in subject.works:
        for index, section in enumerate(subject.pattern.sections):
            if _is_declared(section) or _may_be_noticed(section):
                lines = [w for w in work.lines if w.section == index and w.turns and w.trouble is None]
                found += _of_section(subject, section, lines, work.size, budget)
    return found


def _is_declared(section: Section) -> bool:
    return section.alike == ("mirrored" if section.worked.startswith("rows") else "halves")


def _may_be_noticed(section: Section) -> bool:
    return section.worked.startswith("rows") and not section.alike and section.role in ("panel", "fan", "square")


def _of_section(
    subject: Subject, section: Section, lines: list[LineWork], size: int, budget: list[int]
) -> list[Finding]:
    rounds, declared = not section.worked.startswith("rows"), _is_declared(section)
    if not declared and not _ROWS_TO_NOTICE <= len(lines) <= _MOST_LINES_TO_NOTICE:
        return []
    shaped = [line for line in lines if declared or _is_shaped(line.steps)]
    if not declared and len(shaped) < _ROWS_TO_NOTICE:
        return []
    odd = [line for line in shaped if not _is_alike(line, size, rounds, budget)]
    if not odd or (not declared and len(odd) > _MOST_ODD * len(shaped)):
        return []
    what = "front and back" if rounds else "left and right"
    why = "as the section says they should be" if declared else f"while they are in the other {len(shaped) - len(odd)}"
    findings = []
    for line in odd:
        assert isinstance(line.line, Row | Again)
        message = f"{write_label(line.line)}{subject.in_size(size)}: {what} are not alike, {why}."
        severity = "error" if declared else "warning"
        findings.append(Finding("sides-not-alike", severity, line.line.span, message, size))  # type: ignore[arg-type]
    return findings


def _is_shaped(steps: tuple[Step, ...]) -> bool:
    """Does a row increase or decrease somewhere?"""
    return any(
        isinstance(step, Together | Group)
        or (isinstance(step, Work) and not step.per.is_always(1))
        or (isinstance(step, Repeat) and _is_shaped(step.steps))
        for step in steps
    )


def _is_alike(line: LineWork, size: int, rounds: bool, budget: list[int]) -> bool:
    if not rounds and _reads_the_same(line.steps, size):
        return True
    budget[0] -= line.start.count("st", "sp", "end")
    if budget[0] < 0:
        return True  # no honest text comes so far; it is not held up for the others
    shaping = _traced(_Worked(line.last, line.turns[-1]), size)
    return _is_turned_alike(shaping) if rounds else shaping == shaping[::-1]


def _reads_the_same(steps: tuple[Step, ...], size: int) -> bool:
    """Are the steps of a row the same from both ends? Then nothing needs to be worked to see that its sides are
    alike."""
    told = [_told(step, size) for step in steps if not isinstance(step, Gesture)]
    if told and told[0] == ("chain",):
        told = told[1:]
    return bool(told) and None not in told and told == told[::-1]


def _told(step: Step, size: int) -> tuple[object, ...] | None:
    match step:
        case Chain(counts=None | "none"):
            return ("chain",)
        case Work(stitch, per, Next(count, what), loop) if what == What("st"):
            return (stitch, per.at(size), count.at(size), loop)
        case Work(stitch, per, Nth() | Last() | Same(), loop):
            return (stitch, per.at(size), 1, loop)
        case Work(stitch, per, Every(), loop):
            return (stitch, per.at(size), "each", loop)
        case Together(stitch, legs, times, loop, None, None):
            return (stitch, legs.at(size), "together", times.at(size), loop)
        case _:
            return None


def _is_turned_alike(shaping: Shaping) -> bool:
    """Is a round the same when it is turned half around?"""
    half = len(shaping) // 2
    return len(shaping) % 2 == 0 and shaping == shaping[half:] + shaping[:half]


class _Worked(Identity):
    """A row that was worked, with how; equal to another of the very same work, which rows that are remembered are."""

    __slots__ = ("turn",)

    def __init__(self, work: object, turn: Turn) -> None:
        super().__init__(work)
        self.turn = turn


@remember(4096)
def _traced(work: _Worked, size: int) -> Shaping:
    """For each new stitch: what it is, over how many places, and with how many others in the same place.

    Remembered for as long as the row is; nothing where it is too long, or goes along both sides of a chain.
    """
    it = work.turn
    if it.edge.foundation or it.edge.count("st", "sp", "end") > _MOST_STITCHES:
        return ()
    trace = trace_row(it.source, size, it.edge, it.around)
    sharing: dict[int, int] = {}
    for stitch in trace.made:
        for at in stitch.into:
            sharing[at] = sharing.get(at, 0) + 1
    return tuple(
        (s.place.stitch or f"ch {s.place.length}", len(s.into), max((sharing[at] for at in s.into), default=0))
        for s in trace.made
    )
