"""The state of the work: an ordered run of places that a hook can go into.

Like places side by side are held as one run, so that the cost of working a plain round
follows the length of its text and not the number of its stitches.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

PlaceKind = Literal["st", "ch", "sp", "ring"]


@dataclass(frozen=True)
class Place:
    """One place. `stitch` for tops of stitches; `length` in chains for a chain space.

    `optional` places may be worked into or not: the end chain that is reached a second time
    after working along the underside of a foundation chain.
    """

    kind: PlaceKind
    stitch: str = ""
    length: int = 0
    optional: bool = False


@dataclass(frozen=True)
class Run:
    """`count` like places side by side; count is at least 1."""

    place: Place
    count: int


@dataclass(frozen=True)
class Counts:
    """What a row offers: stitches by kind, and chain spaces by their length in chains."""

    stitches: tuple[tuple[str, int], ...] = ()
    spaces: tuple[tuple[int, int], ...] = ()

    @property
    def sts(self) -> int:
        return sum(count for _, count in self.stitches)

    def of(self, stitch: str) -> int:
        return dict(self.stitches).get(stitch, 0)

    def spaces_of(self, length: int) -> int:
        return dict(self.spaces).get(length, 0)

    @property
    def chains(self) -> int:
        """All chains in the spaces."""
        return sum(length * count for length, count in self.spaces)


@dataclass(frozen=True)
class Edge:
    """The places in working order. `foundation`: a chain not worked into yet; `closed`: a round."""

    runs: tuple[Run, ...] = ()
    closed: bool = False
    foundation: bool = False

    def count(self, *kinds: str) -> int:
        """Places of these kinds that must be worked; a space counts once under "sp", by chains under "ch"."""
        total = 0
        for run in self.runs:
            if run.place.optional:
                continue
            if run.place.kind in kinds:
                total += run.count
            elif run.place.kind == "sp" and "ch" in kinds:
                total += run.count * run.place.length
        return total

    def counts(self) -> Counts:
        stitches: dict[str, int] = {}
        spaces: dict[int, int] = {}
        for run in self.runs:
            if run.place.kind == "st":
                stitches[run.place.stitch] = stitches.get(run.place.stitch, 0) + run.count
            elif run.place.kind == "sp":
                spaces[run.place.length] = spaces.get(run.place.length, 0) + run.count
        return Counts(tuple(sorted(stitches.items())), tuple(sorted(spaces.items())))

    def turned(self) -> "Edge":
        """The same work seen from the other side: the order of the places is reversed."""
        return Edge(tuple(reversed(self.runs)), self.closed, self.foundation)


EMPTY = Edge()


def edge_of(runs: Iterable[Run], closed: bool) -> Edge:
    """An edge with neighbouring like runs made one."""
    merged: list[Run] = []
    for run in runs:
        if run.count <= 0:
            continue
        if merged and merged[-1].place == run.place and run.place.kind != "sp":
            merged[-1] = Run(run.place, merged[-1].count + run.count)
        else:
            merged.append(run)
    return Edge(tuple(merged), closed)


def stitches_edge(stitch: str, count: int, closed: bool) -> Edge:
    """An edge of `count` like stitches: what is known when only a stated total is."""
    return Edge((Run(Place("st", stitch), count),) if count > 0 else (), closed)
