"""Rows that were worked before are not worked again: typing in one line re-works from there on only.

A row is known again by what it says in one size (its shape, and its numbers in that size) and by the
edge that it is worked on; edges that are equal are one and the same. So a change in one size works
that size again, and no other. What is remembered is never wrong text: a row with trouble or a
warning, which points at places in its line, is always worked anew.
"""

from typing import Any

from rillstep.core.fabric.edge import Edge
from rillstep.core.fabric.hook import Surroundings
from rillstep.core.fabric.working import RowWork, work_row
from rillstep.core.memory import Shelf, remember
from rillstep.core.tree import Num, Onward, Row
from rillstep.core.tree.alike import shape_of
from rillstep.core.watch import look

# What is remembered of rows weighs at most so much, some 150 MB; see `_weight`.
MOST_REMEMBERED = 400_000


class Identity:
    """Equal to another when both hold the very same thing (which is kept alive meanwhile)."""

    __slots__ = ("it",)

    def __init__(self, it: object) -> None:
        self.it = it

    def __hash__(self) -> int:
        return id(self.it)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Identity) and self.it is other.it


def _weight_of_edge(edge: Edge) -> int:
    return 8 + len(edge.runs) // 2


_EDGES: Shelf[Edge, Edge] = Shelf(MOST_REMEMBERED // 2, _weight_of_edge)


def interned(edge: Edge) -> Edge:
    """The first edge that was equal to this one: so rows on equal edges are the same work, wherever they come from."""
    known = _EDGES.get(edge)
    if known is not None:
        return known
    _EDGES.put(edge, edge)
    return edge


@remember(8192)
def _signature(row: Identity) -> tuple[Any, tuple[Num, ...]]:
    """The shape of a row's steps, and its numbers."""
    assert isinstance(row.it, Row)
    numbers: list[Num] = []
    return _one_of_its_shape((row.it.kind, shape_of(row.it.steps, numbers))), tuple(numbers)


@remember(8192)
def _one_of_its_shape(shape: Any) -> Identity:
    """Shapes are compared once; after that, by what they are."""
    return Identity(shape)


@remember(8192)
def _goes_on(row: Identity) -> bool:
    """Does a row only go on as the one before it?"""
    assert isinstance(row.it, Row)
    return any(isinstance(step, Onward) for step in row.it.steps)


def _weight(worked: tuple[RowWork, Edge]) -> int:
    """What a row weighs: a row of few runs 8, some 400 bytes each; one of many runs more."""
    return 8 + len(worked[1].runs) // 2 + len(worked[0].steps) // 4


_WORKED: Shelf[Any, tuple[RowWork, Edge]] = Shelf(MOST_REMEMBERED, _weight)


def worked(row: Row, size: int, edge: Edge, around: Surroundings, turned: bool) -> tuple[RowWork, Edge]:
    """The row worked, and the edge as the next row meets it; edges that are equal are the same one."""
    shape, numbers = _signature(Identity(row))
    key = (
        shape,
        tuple([number.values[size] for number in numbers]),
        Identity(edge),
        around.says,
        Identity(around.pending),
        around.sides,
        tuple([(key, Identity(free)) for key, free in around.loops]),
        tuple([Identity(s) for s in around.specials]),
        around.corners,
        around.rows,
        turned,
        around.grew if _goes_on(Identity(row)) else 0,
        Identity(around.rest),
        around.throughout,
    )
    known = _WORKED.get(key)
    if known is not None:
        return known
    look()
    work = work_row(row, size, edge, around)
    found = work, interned(work.edge.turned() if turned else work.edge)
    if work.trouble is None and not work.warnings:
        _WORKED.put(key, found)
    return found
