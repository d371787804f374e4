"""The state of the work: an ordered run of places that a hook can go into.

Like places side by side are held as one run, and a run may be of a whole pattern of places
(a mesh, a rib), so that the cost of working a round follows the length of its text and not
the number of its stitches.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

from rillstep.core.craft import GATHERED

PlaceKind = Literal["st", "ch", "sp", "ring", "end"]


@dataclass(frozen=True)
class Place:
    """One place. `stitch` for tops of stitches; `length` in chains for a chain space.

    optional: may be worked into or not: the end chain that is reached a second time after
    working along the underside of a foundation chain.
    special, key: which special stitch it belongs to, and whether it is what that one offers.
    corner: a space within a corner, or the middle stitch of one. mark: the marker in it.
    at: its number, while a row is traced and every place counts by itself. begun: a chain left of a long space whose
    others were worked into one by one: it is not passed over.
    """

    kind: PlaceKind
    stitch: str = ""
    length: int = 0
    optional: bool = False
    special: str = ""
    key: bool = False
    corner: bool = False
    chain: bool = False  # a starting chain that counts as this stitch
    mark: str | None = None
    at: int | None = None
    begun: bool = False


@dataclass(frozen=True, eq=True)
class Run:
    """`count` like places side by side (count is at least 1), or `count` times the runs in `inner`."""

    place: Place
    count: int
    inner: tuple["Run", ...] = ()


PATTERN = Place("st", "pattern")  # stands for the place of a run that has inner ones


def pattern(inner: Iterable[Run], count: int) -> Run:
    """`count` times a few runs; one that is all of one kind is a plain run."""
    merged = merge(inner)
    if len(merged) == 1:
        one = merged[0]
        return Run(one.place, one.count * count, one.inner)
    return Run(PATTERN, count, merged)


def merge(runs: Iterable[Run]) -> tuple[Run, ...]:
    """Neighbouring like runs made one. Spaces stay apart from each other only in name: they are counted one by one."""
    merged: list[Run] = []
    for run in runs:
        if run.count <= 0:
            continue
        last = merged[-1] if merged else None
        if last is not None and last.place == run.place and last.inner == run.inner and run.place.mark is None:
            merged[-1] = Run(run.place, last.count + run.count, run.inner)
        else:
            merged.append(run)
    return tuple(merged)


def leaves(runs: Iterable[Run], times: int = 1) -> Iterator[tuple[Place, int]]:
    """Every kind of place with how many there are of it, pattern by pattern (not in order)."""
    for run in runs:
        if run.inner:
            yield from leaves(run.inner, times * run.count)
        else:
            yield run.place, times * run.count


@dataclass(frozen=True)
class Counts:
    """What a row offers: stitches by kind, chain spaces by their length in chains, special stitches by name."""

    stitches: tuple[tuple[str, int], ...] = ()
    spaces: tuple[tuple[int, int], ...] = ()
    specials: tuple[tuple[str, int], ...] = ()
    outside: tuple[tuple[str, int], ...] = ()  # stitches that are no part of a special one
    loose: int = 0  # chains that are places of their own, as those of a foundation

    @cached_property
    def sts(self) -> int:
        """Stitches of all kinds."""
        return sum(count for _, count in self.stitches)

    def of(self, stitch: str) -> int:
        """Stitches of a kind, or special stitches of a name."""
        return dict(self.specials).get(stitch) or dict(self.stitches).get(stitch, 0)

    def spaces_of(self, length: int | None) -> int:
        """Spaces of so many chains; all of them without a length."""
        return sum(count for chains, count in self.spaces if length in (None, chains))

    @cached_property
    def chains(self) -> int:
        """All chains, loose and in the spaces."""
        return self.loose + sum(length * count for length, count in self.spaces)


@dataclass(frozen=True)
class Edge:
    """The places in working order.

    foundation: a chain not worked into yet; closed: a round. assumed: made of a stated total, so that which stitches
    they are is not known.
    """

    runs: tuple[Run, ...] = ()
    closed: bool = False
    foundation: bool = False
    assumed: bool = False

    def count(self, *kinds: str) -> int:
        """Places of these kinds that must be worked; a space counts once under "sp", by chains under "ch"."""
        total = 0
        for place, count in leaves(self.runs):
            if place.optional:
                continue
            if place.kind in kinds:
                total += count
            elif place.kind == "sp" and "ch" in kinds:
                total += count * place.length
        return total

    def counts(self) -> Counts:
        return self._counts

    @cached_property
    def _counts(self) -> Counts:
        stitches: dict[str, int] = {}
        spaces: dict[int, int] = {}
        specials: dict[str, int] = {}
        outside: dict[str, int] = {}
        for place, count in leaves(self.runs):
            if place.kind == "st":
                stitches[place.stitch] = stitches.get(place.stitch, 0) + count
                if not place.special:
                    outside[place.stitch] = outside.get(place.stitch, 0) + count
            elif place.kind == "sp":
                spaces[place.length] = spaces.get(place.length, 0) + count
            if place.key:
                specials[place.special] = specials.get(place.special, 0) + count
        loose = sum(count for place, count in leaves(self.runs) if place.kind == "ch")
        by_name = (tuple(sorted(kind.items())) for kind in (stitches, specials, outside))
        stitches_, specials_, outside_ = by_name
        return Counts(stitches_, tuple(sorted(spaces.items())), specials_, outside_, loose)

    @cached_property
    def motifs(self) -> int:
        """Motifs in it: gathered stitches, and special ones."""
        counts = self.counts()
        return sum(n for stitch, n in counts.stitches if stitch in GATHERED) + sum(n for _, n in counts.specials)

    def turned(self) -> "Edge":
        """The same work seen from the other side: the order of the places is reversed."""
        return self._turned

    @cached_property
    def _turned(self) -> "Edge":
        if len(self.runs) == 1 and not self.runs[0].inner:
            return self
        return replace(self, runs=reversed_runs(self.runs))


def reversed_runs(runs: tuple[Run, ...]) -> tuple[Run, ...]:
    """The places in the opposite order."""
    return tuple(Run(run.place, run.count, reversed_runs(run.inner)) for run in reversed(runs))


def last_first(runs: list[Run]) -> list[Run]:
    """The same round of places, begun at the last one."""
    last = runs[-1]
    rest = [Run(last.place, last.count - 1, last.inner)] if last.count > 1 else []
    if last.inner:
        return last_first([*runs[:-1], *rest, *last.inner])
    return [Run(last.place, 1), *runs[:-1], *rest]


EMPTY = Edge()


def edge_of(runs: Iterable[Run], closed: bool) -> Edge:
    """An edge with neighbouring like runs made one."""
    return Edge(merge(runs), closed)


def stitches_edge(stitch: str, count: int, closed: bool) -> Edge:
    """An edge of `count` like stitches: what is known when only a stated total is."""
    return Edge((Run(Place("st", stitch), count),) if count > 0 else (), closed)
