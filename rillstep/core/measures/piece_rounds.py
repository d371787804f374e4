"""The rounds of a piece as they were worked in one size, each with the size of its stitches."""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

from rillstep.core.fabric import MOST_ROUNDS, Counts, LineWork, SizeWork
from rillstep.core.heights import rounds_of_base
from rillstep.core.measures.row_sizes import RowSize
from rillstep.core.tree import Again, Chain, FromHook, Gesture, Pattern, Row, Section, Setup, Skip, Work
from rillstep.core.tree.features import Opening

RowSizes = Callable[[LineWork, Counts, str | None, str], RowSize]

# Fewer rounds than this above the last increase are no wall.
_LEAST_WALL = 2


class WorkedRound(NamedTuple):
    """One round or row. of_base: it lies flat, and a wall stands on it. opening: it or a round before it has one."""

    line: Row | Again
    number: int
    stitch: str
    counts: Counts
    size: RowSize
    across_mm: float
    of_base: bool
    opening: bool


@dataclass(frozen=True)
class PieceRounds:
    """A piece in one size. known: every line of it was worked, and came out as far as its number of stitches goes.

    lies_flat: it is nothing but a base. straight: stitches of the straight side of an oval. chains: those of a set-up
    line, for a piece of nothing else.
    """

    section: Section
    index: int
    rounds: tuple[WorkedRound, ...]
    known: bool
    lies_flat: bool
    straight: int
    chains: int
    openings: tuple[Opening, ...]
    size: int

    def upto(self, line: int) -> "PieceRounds":
        """The piece as far as it is worked by a line of the text."""
        return replace(self, rounds=tuple(one for one in self.rounds if one.line.span.line <= line))

    @property
    def base(self) -> tuple[WorkedRound, ...]:
        return tuple(one for one in self.rounds if one.of_base)

    @property
    def wall(self) -> tuple[WorkedRound, ...]:
        return tuple(one for one in self.rounds if not one.of_base)

    @property
    def widest(self) -> WorkedRound:
        """The longest round or row; one from which openings were cut is no measure of the body."""
        free = [one for one in self.wall or self.rounds if not one.opening] or self.rounds
        return max(free, key=lambda one: one.across_mm)


def height_mm(rounds: Sequence[WorkedRound]) -> float:
    """The height of rounds one upon the other, in mm."""
    return sum(one.size.height_mm for one in rounds)


def rounds_of(
    pattern: Pattern,
    index: int,
    work: SizeWork,
    lines: Sequence[LineWork],
    hook: dict[int, str],
    size_of: RowSizes,
    continued: bool,
) -> PieceRounds | None:
    """A piece as it was worked in one size; None where there is nothing of it. There is a gauge.

    lines: its lines. hook: for each of its lines, by identity, the hook that was changed to. size_of: of its stitches.
    continued: another piece stands on it.
    """
    section = pattern.sections[index]
    rows = [line for line in lines if isinstance(line.line, Row | Again)]
    stitches: Counter[str | None] = Counter()
    for line in rows:
        stitches[line.main_stitch] += len(line.rounds)
    usual = next((one for one, _ in stitches.most_common() if one is not None), None)
    flat = _base_rounds(section, rows, continued)
    rounds: list[WorkedRound] = []
    openings: tuple[Opening, ...] = ()
    for line in rows:
        openings = openings or line.openings
        for offset, counts in enumerate(_counted(line, work.size)):
            size = size_of(line, counts, usual, hook.get(id(line.line), ""))
            stitch = line.main_stitch or usual or pattern.gauges[0].stitch
            assert isinstance(line.line, Row | Again)
            number = line.line.first.at(work.size) + offset
            across = size.across_mm(counts)
            rounds.append(
                WorkedRound(
                    line.line,
                    number,
                    stitch,
                    counts,
                    size,
                    across,
                    len(rounds) < flat,
                    bool(openings) or _has_one_loop(counts),
                )
            )
    chains = sum(_chain_of(line, work.size) for line in lines)
    if not rounds and not chains:
        return None
    lies_flat = bool(rounds) and flat >= len(rounds)
    known = all(line.trouble is None and line.known for line in rows)
    straight = straight_stitches(lines, work.size) if section.role == "oval" else 0
    return PieceRounds(section, index, tuple(rounds), known, lies_flat, straight, chains, openings, work.size)


# A chain of fewer is a space of a stitch pattern.
_LEAST_LOOP = 3


def _has_one_loop(counts: Counts) -> bool:
    """Is there one loop of chain in a row, as for a button? It stands off the edge, and makes it no wider."""
    return sum(many for _, many in counts.spaces) == 1 and counts.spaces[0][0] >= _LEAST_LOOP


def _counted(line: LineWork, size: int) -> tuple[Counts, ...]:
    """The counts of each round of a line; the stated ones where it could not be worked as it says.

    So one wrong number in a round does not make the whole drawing wrong as well.
    """
    assert isinstance(line.line, Row | Again)
    if not line.stated:
        return line.rounds
    return (line.end.counts(),) * min(max(0, line.line.rounds(size)), MOST_ROUNDS)


def _base_rounds(section: Section, rows: Sequence[LineWork], continued: bool) -> int:
    """How many of the rounds that begin a piece are its base: all of a disc or oval on which another piece stands; in
    another piece that grows out of a ring or around a chain, those that grow."""
    every = sum(len(line.rounds) or 1 for line in rows)
    named = section.role in ("disc", "oval")
    if named and continued:
        return every
    if section.continues is not None or not rows or getattr(rows[0].line, "kind", "") == "Row":
        return every if named else 0
    begun = rows[0].start.counts()
    counts = [one.sts + one.chains for line in rows for one in line.rounds]
    base = rounds_of_base(0 if named else begun.sts + begun.chains, counts)
    if not base:
        return 0
    return every if len(counts) - base < _LEAST_WALL else base


def _chain_of(line: LineWork, size: int) -> int:
    """The chains of a set-up line."""
    if not isinstance(line.line, Setup):
        return 0
    return sum(step.length.at(size) for step in line.line.steps if isinstance(step, Chain))


def straight_stitches(works: Sequence[LineWork], size: int) -> int:
    """Stitches of the straight side of an oval: the chains worked into, less the two ends."""
    chains = 0
    for work in works:
        if not isinstance(work.line, Row):
            chains = work.end.count("ch")
            continue
        for step in work.line.steps:
            match step:
                case Gesture():
                    pass
                case Chain(length=length):  # a foundation that is made in the first round itself
                    chains = length.at(size)
                case Work(into=FromHook(nth=nth)):
                    return max(0, chains - nth.at(size) + 1 - 2)
                case Skip(count=count):  # "skip first ch, sc in next 16 ch"
                    return max(0, chains - count.at(size) - 2)
                case _:
                    break
    return 0
