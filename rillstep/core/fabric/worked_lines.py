"""Lines that were worked in one size: what each was worked on, what it made, and what is wrong with it."""

from dataclasses import dataclass, field
from functools import cached_property

from rillstep.core.fabric.counting import differing
from rillstep.core.fabric.edge import Counts, Edge
from rillstep.core.fabric.hook import Surroundings, Trouble, Turn
from rillstep.core.fabric.openings import counts_its_stitches, may_open, worked_openings
from rillstep.core.fabric.working import RowWork
from rillstep.core.tree import Again, Chain, Gesture, Row, Setup, Step, Total, Work
from rillstep.core.tree.features import Opening, main_stitch, openings_of


@dataclass(frozen=True)
class LineWork:
    """A line worked in one size.

    rounds: the counts after each round that the line stands for.
    source: the row whose instructions were used last (the line itself, but for rows worked again).
    start: what it was worked on; end: what the next line is worked on.
    turns: its rounds as they were worked; all after the last one given are like it.
    stated: the work went on from the stated total, as the worked one could not be used.
    known: is what comes out known at all?
    depends: the line of the text at which this piece first went wrong, before this line.
    """

    line: Row | Again | Setup
    section: int
    start: Edge
    end: Edge
    rounds: tuple[Counts, ...] = ()
    last: RowWork | None = None
    trouble: Trouble | None = None
    stated: bool = False
    known: bool = True
    source: Row | None = None
    around: Surroundings = field(default_factory=Surroundings)
    turns: tuple["Turn", ...] = ()
    depends: int | None = None
    size: int = 0

    @cached_property
    def main_stitch(self) -> str | None:
        """The stitch that it is mostly made of."""
        return main_stitch(self.steps)

    @cached_property
    def _turns(self) -> tuple[bool, bool]:
        leading = trailing = worked = False
        for step in self.steps:
            if isinstance(step, Gesture) and step.kind == "turn":
                leading, trailing = leading or not worked, worked
            elif not isinstance(step, Gesture | Chain):
                worked = True
        return leading, trailing

    @property
    def turned_first(self) -> bool:
        """Whether the work is turned before it works any stitch."""
        return self._turns[0]

    @property
    def turned_last(self) -> bool:
        """Whether the work is turned when its stitches are worked."""
        return self._turns[1]

    @cached_property
    def says_of_turning(self) -> bool:
        """Whether its words turn the work, or say that it is not turned."""
        return any(isinstance(step, Gesture) and step.kind in ("turn", "do not turn") for step in self.steps)

    @cached_property
    def in_one_loop(self) -> bool:
        """Whether all of its stitches go into one loop only."""
        works = [step for step in self.steps if isinstance(step, Work)]
        return bool(works) and all(step.loop in ("front", "back") for step in works)

    @cached_property
    def openings(self) -> tuple[Opening, ...]:
        """The handle openings that it makes: by its words where they count the stitches, else by where they went."""
        if counts_its_stitches(self.steps) or not self.turns or not may_open(self.steps, self.size):
            return openings_of(self.steps, self.size)
        return worked_openings(self.turns[-1], self.size)

    @cached_property
    def differences(self) -> tuple[tuple[Total, int, int], ...]:
        """The stated totals that its last round does not meet: (total, stated, made)."""
        if not self.rounds or not isinstance(self.line, Row | Again):
            return ()
        return tuple(differing(self.line.totals, self.rounds[-1], self.size))

    @cached_property
    def steps(self) -> tuple[Step, ...]:
        """The instructions that were worked."""
        if isinstance(self.line, Again):
            worked = self.source.steps if self.source is not None else ()
            return (*self.line.begins, *_after_colour(worked)) if self.line.begins else worked
        return self.line.steps


def _after_colour(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Steps without the colour that they begin in."""
    first = steps[0] if steps else None
    begins = isinstance(first, Gesture) and first.kind in ("change colour", "join colour") and first.into is None
    return steps[1:] if begins else steps


@dataclass(frozen=True)
class PieceEnd:
    """What a section leaves: its last edge, how many rows its sides have, and the places along its foundation chain."""

    edge: Edge
    rows: int
    underside: int


@dataclass(frozen=True)
class SizeWork:
    """All lines of a pattern in one size, and what each section leaves."""

    size: int
    lines: tuple[LineWork, ...]
    pieces: tuple[PieceEnd, ...]

    @property
    def section_ends(self) -> tuple[Edge, ...]:
        """The last edge of each section."""
        return tuple(piece.edge for piece in self.pieces)

    @cached_property
    def stitches(self) -> int:
        """The stitches at the end of each line, taken together: they tell how wide the size is beside the others."""
        return sum(work.rounds[-1].sts for work in self.lines if work.rounds)

    def of_line(self, number: int) -> LineWork | None:
        """The work of the line at a line number of the text."""
        return self._by_line.get(number)

    def of(self, line: Row | Again | Setup) -> LineWork | None:
        """The work of a line of the tree: told by the line itself, as several may stand in one line of the text."""
        return self._by_identity.get(id(line))

    @cached_property
    def _by_identity(self) -> dict[int, LineWork]:
        return {id(work.line): work for work in self.lines}

    @cached_property
    def _by_line(self) -> dict[int, LineWork]:
        # A row comes before the chain that it stands with in one line of the text.
        first: dict[int, LineWork] = {}
        for work in sorted(self.lines, key=lambda work: isinstance(work.line, Setup)):
            first.setdefault(work.line.span.line, work)
        return first
