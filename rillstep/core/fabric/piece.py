"""What is known of a piece while its lines are worked, in one size; where a section takes it up; and its rows by number."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any, NamedTuple

from rillstep.core.fabric.edge import EMPTY, Edge, Place, Run
from rillstep.core.fabric.hook import FreeLoops
from rillstep.core.fabric.remembered import interned
from rillstep.core.notation.tree import Again, Chain, Pattern, Row, Section

# A range of more rounds than this is not worked, and its rounds are not looked up.
MOST_ROUNDS = 2_000

LoopsLeft = tuple[tuple[tuple[str, int], FreeLoops], ...]


class State(NamedTuple):
    """All that a line can change. edge: None when it is not known; wrong: the line at which it first went wrong."""

    edge: Edge | None
    says: tuple[tuple[int, str], ...]
    pending: Chain | None
    rows: int
    underside: int
    loops: LoopsLeft
    origin: tuple[str, int] | None
    wrong: int | None
    grew: int


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

    @property
    def state(self) -> State:
        return State(
            self.edge, self.says, self.pending, self.rows, self.underside, self.loops, self.origin, self.wrong, self.grew
        )  # fmt: skip

    @state.setter
    def state(self, state: State) -> None:
        (
            self.edge, self.says, self.pending, self.rows, self.underside, self.loops, self.origin, self.wrong, self.grew
        ) = state  # fmt: skip

    @property
    def key(self) -> tuple[Any, ...]:
        """The state as a key: edges, chains and loops by identity; whoever keeps the key keeps the state as well."""
        return (
            id(self.edge), self.says, id(self.pending), self.rows, self.underside, id(self.loops), self.origin, self.wrong, self.grew
        )  # fmt: skip

    def set_loops(self, origin: tuple[str, int], free: FreeLoops) -> None:
        """Loops left free by the row after `origin`, or what is left of them."""
        self.loops = _interned_loops(tuple({**dict(self.loops), origin: free}.items()))

    def sides(self) -> tuple[Run, ...]:
        """The edges that follow the top when the work is rotated: row ends, foundation chain, row ends."""
        if not self.underside and self.rows < 1:
            return ()
        ends = (Run(Place("end"), self.rows),) if self.rows else ()
        under = (Run(Place("ch"), self.underside),) if self.underside else ()
        return (*ends, *under, *ends)


@lru_cache(maxsize=4096)
def _interned_loops(loops: LoopsLeft) -> LoopsLeft:
    return loops


def start_of(pattern: Pattern, section: Section, pieces: list[Piece], size: int) -> Piece:
    """The piece that a section goes on with; an empty one when it starts from nothing."""
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
        return piece
    if on.edge == "joined pieces":
        return Piece(None)  # what many pieces make together is not known: their first round goes on from what it states
    if on.edge == "foundation":
        return Piece(interned(Edge((Run(Place("ch"), before.underside),) if before.underside else ())))
    if on.edge == "row ends":
        return Piece(interned(Edge((Run(Place("end"), before.rows),) if before.rows else ())))
    assert on.number is not None
    free = dict(before.loops).get((on.kind, on.number.at(size)))
    runs = () if free is None else free.front if on.loop == "front" else free.back
    closed = pattern.sections[index].worked not in ("rows", "rows from the same side")
    return Piece(interned(Edge(runs, closed)))


class RowsByNumber:
    """The rows of a section by their numbers, in a size: what rows that are worked again mean.

    They are asked for in the order of the lines, and looked up only when asked for.
    """

    def __init__(self, section: Section, size: int) -> None:
        self.section, self.size = section, size
        self._by_number: dict[tuple[str, int], Row] = {}
        self._looked_at = 0

    def sources(self, line: Again) -> list[Row]:
        """The rows whose instructions a line uses; none when one of them is not there."""
        lines = self.section.lines
        while self._looked_at < len(lines) and lines[self._looked_at] is not line:
            before = lines[self._looked_at]
            self._looked_at += 1
            if not isinstance(before, Row | Again) or self.size not in before.sizes:
                continue
            rows = [before] if isinstance(before, Row) else self._of(before)
            if rows:
                first, times = before.first.at(self.size), before.rounds(self.size)
                for turn in range(min(max(times, 0), MOST_ROUNDS)):
                    self._by_number[(before.kind, first + turn)] = rows[turn % len(rows)]
        return self._of(line)

    def _of(self, line: Again) -> list[Row]:
        found = [self._by_number.get((line.kind, number.values[self.size] or 0)) for number in line.sources]
        return [row for row in found if row is not None] if all(found) else []
