"""Left and right of a centre, and front against back: as a section declares, or as its other rows let one notice."""

from functools import lru_cache

from rillstep.core.fabric import LineWork, Turn, trace_row
from rillstep.core.fabric.remembered import Same
from rillstep.core.findings import Finding
from rillstep.core.notation.tree import Again, Row, Section
from rillstep.core.notation.writer import write_label
from rillstep.core.proof.subject import Subject

# What is only noticed needs so many rows that agree, and no more than one in five that do not.
_ROWS_TO_NOTICE = 4
_MOST_ODD = 0.2
_MOST_STITCHES = 1_200

Shaping = tuple[tuple[str, int, int], ...]


def sides_alike(subject: Subject) -> list[Finding]:
    """Rows whose left and right, or rounds whose front and back, are not alike."""
    found: list[Finding] = []
    for work in subject.works:
        for index, section in enumerate(subject.pattern.sections):
            lines = [w for w in work.lines if w.section == index and w.turns and w.trouble is None]
            found += _of_section(subject, section, lines, work.size)
    return found


def _of_section(subject: Subject, section: Section, lines: list[LineWork], size: int) -> list[Finding]:
    rounds = not section.worked.startswith("rows")
    declared = section.alike == ("halves" if rounds else "mirrored")
    if not declared and (section.alike or len(lines) < _ROWS_TO_NOTICE or section.role in ("strip", "trim")):
        return []
    shaped = [(line, sig) for line in lines if (sig := _shaping(line.turns[-1], size)) and len(set(sig)) > 1]
    odd = [line for line, sig in shaped if not (_is_turned_alike(sig) if rounds else sig == sig[::-1])]
    if not odd or (not declared and (len(shaped) < _ROWS_TO_NOTICE or len(odd) > _MOST_ODD * len(shaped))):
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


def _is_turned_alike(shaping: Shaping) -> bool:
    """Is a round the same when it is turned half around?"""
    half = len(shaping) // 2
    return len(shaping) % 2 == 0 and shaping == shaping[half:] + shaping[:half]


def _shaping(turn: Turn, size: int) -> Shaping:
    return _traced(Same(turn), size)


@lru_cache(maxsize=4096)
def _traced(turn: Same, size: int) -> Shaping:
    """For each new stitch: what it is, over how many places, and with how many others in the same place. Remembered."""
    it = turn.it
    assert isinstance(it, Turn)
    if it.edge.foundation or it.edge.count("st", "sp", "end") > _MOST_STITCHES:
        return ()  # along both sides of a chain, its ends are shared
    trace = trace_row(it.source, size, it.edge, it.around)
    sharing: dict[int, int] = {}
    for stitch in trace.made:
        for at in stitch.into:
            sharing[at] = sharing.get(at, 0) + 1
    return tuple(
        (s.place.stitch or f"ch {s.place.length}", len(s.into), max((sharing[at] for at in s.into), default=0))
        for s in trace.made
    )
