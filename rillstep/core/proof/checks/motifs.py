"""Motifs worked into plain fabric (puffs, bobbles, shells): even around, and changing places from round to round."""

from dataclasses import dataclass
from itertools import pairwise

from rillstep.core.craft import GATHERED
from rillstep.core.fabric import Edge, LineWork
from rillstep.core.fabric.trace import unrolled
from rillstep.core.findings import Finding
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.tree import Again, Row

_FEWEST = 3  # motifs in a round, before their spacing says anything
_MOST_STITCHES = 1_200
# A motif stands between two of the round before when it is this far along, as a share of the distance of two.
_BETWEEN = (0.3, 0.7)


@dataclass(frozen=True)
class _Motifs:
    """The motifs of one round: their distances, and how far along the first one is, as a share of a distance."""

    line: LineWork
    count: int
    gaps: tuple[int, ...]
    phase: float


def motifs(subject: Subject) -> list[Finding]:
    """Motifs that are not even around, and rounds in which they do not change places as in the others."""
    found: list[Finding] = []
    if not any(line.has_motifs for line in subject.lines):
        return found
    for work in subject.works:
        for index in range(len(subject.pattern.sections)):
            rounds = [
                one
                for line in work.lines
                if line.section == index and line.end.motifs and line.trouble is None and not line.stated
                for edge in _edges(line)
                if (one := _of(line, edge)) is not None
            ]
            found += _uneven(subject, rounds, work.size)
            found += _broken(subject, rounds, work.size)
    return found


def spaces_alike(line: WorkedLine) -> list[Finding]:
    """One chain space of a row that is a chain longer or shorter than all the others."""
    found: list[Finding] = []
    if not isinstance(line.line, Row | Again):
        return found
    for work in line.done:
        if not work.rounds or len(work.rounds[-1].spaces) < 2 or work.trouble is not None or work.openings:
            continue
        spaces = dict(work.rounds[-1].spaces)
        alone = [odd for odd, once in spaces.items() if once == 1]
        if len(alone) != 1:
            continue
        odd = alone[0]
        ends = [run.place for run in (*work.end.runs[:1], *work.end.runs[-1:]) if not run.inner]
        if line.line.kind == "Row" and any(place.kind == "sp" and place.length == odd for place in ends):
            continue  # a turning chain that is a space
        usual = max((odd - 1, odd + 1), key=lambda length: spaces.get(length, 0))
        often = spaces.get(usual, 0)
        if often >= _FEWEST:
            message = (
                f"{write_label(line.line)}{line.in_size(work.size)} makes {often} "
                f"ch-{usual} spaces and a single one of ch {odd}."
            )
            found.append(Finding("space-odd", "warning", line.line.span, message, work.size, usual, odd))
    return found


def _edges(line: LineWork) -> list[Edge]:
    """The edge after each round of a line that differs from the one before."""
    after = [turn.edge for turn in line.turns[1:]]
    return [*after, line.end] if line.turns else []


def _of(line: LineWork, edge: Edge) -> _Motifs | None:
    if edge.motifs < _FEWEST or not edge.closed or edge.counts().sts > _MOST_STITCHES:
        return None
    places = [place for place in unrolled(edge.runs) if place.kind == "st" or place.key]
    at = [i for i, place in enumerate(places) if place.stitch in GATHERED or place.key]
    around = [*at[1:], at[0] + len(places)]
    gaps = tuple(b - a for a, b in zip(at, around, strict=True))
    distance = len(places) / len(at)
    return _Motifs(line, len(at), gaps, (at[0] / distance) % 1.0)


def _uneven(subject: Subject, rounds: list[_Motifs], size: int) -> list[Finding]:
    found = []
    for one in rounds:
        usual = max(set(one.gaps), key=one.gaps.count)
        odd = [gap for gap in one.gaps if gap != usual]
        if len(odd) != 1 or one.gaps.count(usual) < _FEWEST - 1:
            continue  # all alike, or a spacing that is meant to vary
        assert isinstance(one.line.line, Row | Again)
        message = (
            f"{write_label(one.line.line)}{subject.in_size(size)}: the motifs are not even "
            f"around: {usual - 1} stitches "
            f"between two of them, but {odd[0] - 1} in one place."
        )
        found.append(Finding("motifs-uneven", "warning", one.line.line.span, message, size, usual - 1, odd[0] - 1))
    return found


def _broken(subject: Subject, rounds: list[_Motifs], size: int) -> list[Finding]:
    """Rounds that stack their motifs on those before, where the others set them between."""
    between, stacked = 0, []
    for before, one in pairwise(rounds):
        if before.count != one.count or len({*before.gaps, *one.gaps}) > 1:
            continue
        step = (one.phase - before.phase) % 1.0
        if _BETWEEN[0] <= step <= _BETWEEN[1]:
            between += 1
        else:
            stacked.append(one)
    if not stacked or between < 2 * len(stacked):
        return []
    found = []
    for one in stacked:
        assert isinstance(one.line.line, Row | Again)
        message = (
            f"{write_label(one.line.line)}{subject.in_size(size)}: the motifs stand on those of the round before; "
            "in the other rounds they change places with it."
        )
        found.append(Finding("alternation-broken", "warning", one.line.line.span, message, size))
    return found
