"""What is known of a piece while its lines are worked, in one size; where a section takes it up; and its rows by
number."""

from dataclasses import dataclass
from typing import Any, NamedTuple

from rillstep.core.fabric.edge import EMPTY, Edge, Place, Run
from rillstep.core.fabric.hook import FreeLoops
from rillstep.core.fabric.remembered import Identity, interned
from rillstep.core.memory import remember
from rillstep.core.tree import Again, Chain, Gesture, Line, Pattern, Row, Section

# A range of more rounds than this is not worked, and its rounds are not looked up.
MOST_ROUNDS = 2_000

LoopsLeft = tuple[tuple[tuple[str, int], FreeLoops], ...]


class State(NamedTuple):
    """All that a line can change. edge: None when it is not known; wrong: the line at which it first went wrong;
    rest: what was left unworked; refuted: the rows that are wrong, by kind and number; joined: the yarn, in the place
    where the next row begins."""

    edge: Edge | None
    says: tuple[tuple[int, str], ...]
    pending: Chain | None
    rows: int
    underside: int
    loops: LoopsLeft
    origin: tuple[str, int] | None
    wrong: int | None
    grew: int
    rest: Edge | None
    refuted: tuple[tuple[str, int], ...]
    joined: Gesture | None


@dataclass
class Piece:
    """Changes while the lines of a section are worked."""

    edge: Edge | None
    says: tuple[tuple[int, str], ...] = ()
    pending: Chain | None = None
    rows: int = 0
    underside: int = 0
    loops: LoopsLeft = ()
    origin: tuple[str, int] | None = None
    wrong: int | None = None
    grew: int = 0  # by how many stitches the last row did
    rest: Edge | None = None
    refuted: tuple[tuple[str, int], ...] = ()
    joined: Gesture | None = None

    @property
    def state(self) -> State:
        return State(
            self.edge,
            self.says,
            self.pending,
            self.rows,
            self.underside,
            self.loops,
            self.origin,
            self.wrong,
            self.grew,
            self.rest,
            self.refuted,
            self.joined,
        )

    @state.setter
    def state(self, state: State) -> None:
        (
            self.edge,
            self.says,
            self.pending,
            self.rows,
            self.underside,
            self.loops,
            self.origin,
            self.wrong,
            self.grew,
            self.rest,
            self.refuted,
            self.joined,
        ) = state

    @property
    def key(self) -> tuple[Any, ...]:
        """The state as a key: edges, chains and loops by identity; whoever keeps the key keeps the state as well."""
        return (
            id(self.edge),
            self.says,
            id(self.pending),
            self.rows,
            self.underside,
            id(self.loops),
            self.origin,
            self.wrong,
            self.grew,
            id(self.rest),
            self.refuted,
            id(self.joined),
        )

    def set_loops(self, origin: tuple[str, int], free: FreeLoops) -> None:
        """Loops left free by the row after `origin`, or what is left of them."""
        left = {**dict(self.loops), origin: _interned_free(free)}
        self.loops = _interned_loops(tuple([(row, Identity(loops)) for row, loops in left.items()]))

    def sides(self) -> tuple[Run, ...]:
        """The edges that follow the top when the work is rotated: row ends, foundation chain, row ends."""
        if not self.underside and self.rows < 1:
            return ()
        # Of a single row the ends are corners, which belong to the first and the last stitch.
        ends = (Run(Place("end"), self.rows),) if self.rows > (1 if self.underside else 0) else ()
        under = (Run(Place("ch"), self.underside),) if self.underside else ()
        return (*ends, *under, *ends)


@remember(4096)
def _interned_free(free: FreeLoops) -> FreeLoops:
    return free


@remember(4096)
def _interned_loops(loops: tuple[tuple[tuple[str, int], Identity], ...]) -> LoopsLeft:
    """One and the same for loops that are: told apart by what they are, so that rows that each leave loops cost no more
    than others."""
    return tuple([(row, free.it) for row, free in loops])  # type: ignore[misc]


def start_of(pattern: Pattern, section: Section, pieces: list[Piece], size: int) -> Piece:
    """The piece that a section goes on with; an empty one when it starts from nothing."""
    if section.on is not None and section.on.edge in ("joined pieces", "elsewhere"):
        return Piece(None)  # its edge is not known: the first round goes on from what it states
    if section.continues is None:
        return Piece(EMPTY)
    wanted = section.continues.lower()
    index = next((i for i in range(len(pieces) - 1, -1, -1) if pattern.sections[i].title.lower() == wanted), None)
    if index is None:
        return Piece(EMPTY)
    before = pieces[index]
    on = section.on
    if on is None:
        # A flat strip that becomes a tube, or a tube that goes on flat, is still one piece.
        piece = Piece(EMPTY)
        piece.state = before.state
        taken = [i for i in range(index + 1, len(pieces)) if (pattern.sections[i].continues or "").lower() == wanted]
        # What another piece that goes on from there has left, as a second strap takes it up.
        piece.rest = next((pieces[i].rest for i in reversed(taken) if pieces[i].rest is not None), piece.rest)
        return piece
    if on.edge == "side by side":
        if before.edge is None:
            return Piece(None)  # what is not known of a piece is not known of two of them
        edge = Edge(before.edge.runs * pattern.sections[index].made(size))
    elif on.edge == "foundation":
        edge = Edge((Run(Place("ch"), before.underside),) if before.underside else ())
    elif on.edge == "row ends":
        edge = Edge((Run(Place("end"), before.rows),) if before.rows else ())
    else:
        assert on.number is not None
        free = dict(before.loops).get((on.kind, on.number.at(size)))
        runs = () if free is None else free.front if on.loop == "front" else free.back
        closed = pattern.sections[index].worked not in ("rows", "rows from the same side")
        edge = Edge(runs, closed)
    if not edge.runs and before.wrong is not None:
        return Piece(None)  # it may be what a line that was not worked would have left
    piece = Piece(interned(edge))
    piece.says = before.says  # what was said of chains holds on the same piece
    piece.refuted = before.refuted
    return piece


class RowsByNumber:
    """The rows of a piece by their numbers, in a size: what rows that are worked again mean.

    They are asked for in the order of the lines, and looked up only when asked for. They may stand in a section that
    this
    one goes on from, where the rows are counted on.
    """

    def __init__(self, pattern: Pattern, index: int, size: int) -> None:
        self.lines, self.size = pattern.sections[index].lines, size
        self._pattern, self._index = pattern, index
        self._numbers: dict[tuple[str, int], Row] = {}
        self._looked_at = 0
        self._earlier: RowsByNumber | None = None

    def sources(self, line: Again) -> list[Row]:
        """The rows whose instructions a line uses; none when one of them is not there."""
        while self._looked_at < len(self.lines) and self.lines[self._looked_at] is not line:
            self._look_at(self.lines[self._looked_at])
            self._looked_at += 1
        return self._of(line)

    def _look_at(self, line: Line) -> None:
        if not isinstance(line, Row | Again) or self.size not in line.sizes:
            return
        rows = [line] if isinstance(line, Row) else self._of(line)
        first, times = line.first.at(self.size), line.rounds(self.size) if rows else 0
        for turn in range(min(max(times, 0), MOST_ROUNDS)):
            self._numbers[(line.kind, first + turn)] = rows[turn % len(rows)]

    def _of(self, line: Again) -> list[Row]:
        other = "Row" if line.kind == "Rnd" else "Rnd"  # "repeat row 2" of a list that is only numbered
        numbers = [number.values[self.size] or 0 for number in line.sources]
        own = range(line.first.at(self.size), line.first.at(self.size) + max(1, line.rounds(self.size)))
        found = [
            self._known(line.kind, number) or (self._known(other, number) if number not in own else None)
            for number in numbers
        ]
        return [row for row in found if row is not None] if all(found) else []

    def _known(self, kind: str, number: int) -> Row | None:
        row = self._numbers.get((kind, number))
        if row is not None:
            return row
        earlier = self._before()
        return earlier._known(kind, number) if earlier is not None else None

    def _before(self) -> "RowsByNumber | None":
        """The rows of the section that this one goes on from, all of them."""
        title = self._pattern.sections[self._index].continues
        if self._earlier is None and title is not None:
            sections = self._pattern.sections
            at = next((i for i in range(self._index - 1, -1, -1) if sections[i].title.lower() == title.lower()), None)
            if at is not None:
                self._earlier = RowsByNumber(self._pattern, at, self.size)
                for line in sections[at].lines:
                    self._earlier._look_at(line)
        return self._earlier
