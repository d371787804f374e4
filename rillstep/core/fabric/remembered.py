"""Rows that were worked before are not worked again: typing in one line re-works from there on only.

A row is known again by what it is, not by what it says: the reader gives the same row for the
same line, and the work gives the same edge for the same row, so to know them again costs nothing.
"""

from functools import lru_cache

from rillstep.core.fabric.edge import Edge
from rillstep.core.fabric.hook import FreeLoops, Surroundings
from rillstep.core.fabric.working import RowWork, work_row
from rillstep.core.notation.tree import Chain, Row, Special


class Same:
    """Equal to another when both hold the very same thing (which is kept alive meanwhile)."""

    __slots__ = ("it",)

    def __init__(self, it: object) -> None:
        self.it = it

    def __hash__(self) -> int:
        return id(self.it)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Same) and self.it is other.it


@lru_cache(maxsize=20_000)
def interned(edge: Edge) -> Edge:
    """The first edge that was equal to this one: so rows on equal edges are the same work, wherever they come from."""
    return edge


def worked(row: Row, size: int, edge: Edge, around: Surroundings, turned: bool) -> tuple[RowWork, Edge]:
    """The row worked, and the edge as the next row meets it; edges that are equal are the same one."""
    return _worked(
        Same(row), size, Same(edge), around.says, Same(around.pending), around.sides,
        tuple((key, Same(free)) for key, free in around.loops), tuple(Same(s) for s in around.specials),
        (around.corners, around.rows, turned),
    )  # fmt: skip


@lru_cache(maxsize=50_000)
def _worked(
    row: Same, size: int, edge: Same, says: tuple[tuple[int, str], ...], pending: Same, sides: object,
    loops: tuple[tuple[tuple[str, int], Same], ...], specials: tuple[Same, ...], how: tuple[bool, bool, bool],
) -> tuple[RowWork, Edge]:  # fmt: skip
    held, below, chain = row.it, edge.it, pending.it
    assert isinstance(held, Row) and isinstance(below, Edge) and isinstance(chain, Chain | None)
    free = tuple((key, one.it) for key, one in loops if isinstance(one.it, FreeLoops))
    own = tuple(one.it for one in specials if isinstance(one.it, Special))
    around = Surroundings(says, chain, sides, free, own, how[0], how[1])  # type: ignore[arg-type]
    work = work_row(held, size, below, around)
    end = work.edge.turned() if how[2] else work.edge
    return work, interned(end)
