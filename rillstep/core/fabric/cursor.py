"""A cursor over an edge: takes places in order, whole patterns of them at once, and remembers where it has been."""

from collections.abc import Iterable
from dataclasses import dataclass, replace

from rillstep.core.fabric.edge import Edge, Place, Run, leaves, pattern
from rillstep.core.memory import remember
from rillstep.core.tree import What, WhatKind

# Which kinds of place each wording takes.
TAKES: dict[WhatKind, tuple[str, ...]] = {
    "st": ("st",),
    "ch": ("ch",),
    "sp": ("sp",),
    "st and ch": ("st", "ch"),
    "st and sp": ("st", "sp"),
    "gap": (),
    "end": ("end",),
}
# Which kinds it passes over silently on its way ("next st" passes over chain spaces).
PASSES: dict[WhatKind, tuple[str, ...]] = {
    "st": ("sp", "ch"),
    "ch": (),
    "sp": ("st", "ch", "sp"),
    "st and ch": (),
    "st and sp": ("ch",),
    "gap": (),
    "end": (),
}
# A chain over an opening has at least so many stitches; shorter ones are loops of a mesh.
LEAST_OPENING = 4


@dataclass(frozen=True)
class Want:
    """Which places are meant: kinds, and of those only a length, a stitch, corners."""

    kind: WhatKind
    length: int | None = None
    stitch: str = ""
    corner: bool = False

    def units(self, place: Place) -> int:
        """How many of what is wanted one place is: 0 when it is another; its chains when chains are taken one by
        one."""
        if self.stitch and place.key and place.special == self.stitch:
            return 1
        kinds = TAKES[self.kind]
        if place.kind == "sp" and "ch" in kinds:
            return place.length
        if place.kind not in kinds:
            return 0
        if place.kind == "sp" and self.length not in (None, place.length):
            return 0
        if self.stitch and place.stitch != self.stitch:
            return 0
        return 0 if self.corner and not place.corner else 1

    def passes(self, place: Place) -> bool:
        """Is a place that is not meant passed over silently?"""
        if place.begun:
            return False
        if self.stitch or self.corner:
            return True
        return place.kind in PASSES[self.kind]


def want_of(what: What, size: int) -> Want:
    """What is named, in a size. Only key places of special stitches that are spaces need their own kind."""
    return Want(what.kind, what.length.at(size) if what.length else None, what.stitch, what.corner)


@remember(4096)
def _of_pattern(inner: tuple[Run, ...], want: Want) -> tuple[int, bool, bool]:
    """(how many of the wanted one pattern holds, whether all others in it are passed over, whether it ends with
    one)."""
    found, passable = 0, True
    for place, count in leaves(inner):
        units = want.units(place)
        found += units * count
        passable = passable and (units == 1 or (units == 0 and want.passes(place)))
    last = inner[-1]
    ends = bool(want.units(last.place)) if not last.inner else _of_pattern(last.inner, want)[2]
    return found, passable, ends


class Cursor:
    """Lives while one row is worked."""

    def __init__(self, edge: Edge) -> None:
        self._edge = edge
        self.rest: list[Run] = list(reversed(edge.runs))
        self.taken = 0
        self.uses: set[tuple[str, str, bool]] = set()
        self.worked_chains = 0

    def use(self, want: Want) -> None:
        """These kinds of place are worked into by this row."""
        for kind in TAKES[want.kind]:
            self.uses.add((kind, want.stitch if kind == "st" else "", want.corner))

    @property
    def kinds(self) -> set[str]:
        return {kind for kind, _, _ in self.uses}

    @property
    def is_lace(self) -> bool:
        """Does this row work into spaces, or into chosen stitches only? The name of the only stitch that there is
        chooses none."""
        if any(kind == "sp" for kind, _, _ in self.uses):
            return True
        chosen = any(stitch for _, stitch, _ in self.uses)
        return chosen and len({(place.stitch, place.special, place.kind) for place, _ in leaves(self._edge.runs)}) > 1

    def left(self, optional: bool = False) -> int:
        """Places left of the kinds that this row works into."""
        # A row that has worked into nothing of its own kind has left all stitches.
        uses = self.uses or {("st", "", False)}
        whole = {kind for kind, stitch, corner in uses if not stitch and not corner}
        total = 0
        for place, count in leaves(self.rest):
            if place.optional and not optional:
                continue
            if (
                place.kind in whole
                or (place.kind, place.stitch, False) in uses
                or (place.corner and any(kind == place.kind and corner for kind, _, corner in uses))
            ):
                total += count
            elif place.kind == "sp" and "ch" in whole:
                total += count * place.length
            elif place.key and ("st", place.special, False) in uses:
                total += count
        return total

    def ends_with_chain(self, want: Want) -> bool:
        """Is the last place of the edge the starting chain of its row, and wanted?"""
        last = self.rest[0] if self.rest else None
        return last is not None and not last.inner and last.place.chain and want.units(last.place) > 0

    @property
    def ends_with_bare_chain(self) -> bool:
        """Is the last place a starting chain that counts as a stitch, and the one before it no space?"""
        if not self.ends_with_chain(Want("st")) or len(self.rest) < 2:
            return False
        beside = self.rest[1]
        while beside.inner:
            beside = beside.inner[-1]
        return beside.place.kind == "st"

    def left_of(self, wants: "set[Want]") -> int:
        """Places left of any of these."""
        return left_in(self.rest, wants)

    def available(self, want: Want) -> int:
        """How many of the wanted places are still ahead, optional ones not counted."""
        return count_of(self.rest, want)

    def before(self, want: Want, stop: Want | str, last: int = 1) -> int | None:
        """How many of the wanted stand before the last so many of `stop` (or before a marker); None when there is no
        such place."""
        kept = list(self.rest)
        runs = self.cut(stop, last)
        self.rest = kept
        return None if runs is None else count_of(runs, want)

    def take(self, want: Want, count: int, use: bool = True) -> list[Run]:
        """Take up to `count` of the wanted places, in order; `use`: this row works into their kind, so none may be
        left."""
        if use:
            self.use(want)
        taken: list[Run] = []
        got = 0
        while got < count and self.rest:
            run = self.rest.pop()
            if run.inner:
                got += self._take_pattern(run, want, count - got, taken)
                continue
            place = run.place
            units = want.units(place)
            if units == 1 and not (place.kind == "sp" and "ch" in TAKES[want.kind]):
                here = min(run.count, count - got)
                self._leave(place, run.count - here)
                got += here
                taken.append(Run(place, here))
                if place.kind == "ch":
                    self.worked_chains += here
            elif units > 0:
                here = self._take_chains(run, count - got)
                got += here
                taken.append(Run(Place("ch", at=place.at), here))
            elif not want.passes(place):
                self.rest.append(run)
                break
        self.taken += got
        if want.stitch and taken and taken[-1].place.special == want.stitch:
            self._pass_rest_of(want.stitch)
        return taken

    def _pass_rest_of(self, special: str) -> None:
        """Working into a special stitch uses up all of it."""
        while (
            self.rest
            and not self.rest[-1].inner
            and self.rest[-1].place.special == special
            and not self.rest[-1].place.key
        ):
            self.rest.pop()

    def cut(self, stop: "Want | str", last: int = 1) -> list[Run] | None:
        """Everything before the last so many of `stop` (or before a marker), taken off in order; None when it is not
        ahead."""
        ahead = _stops(self.rest, stop)
        if ahead < last:
            return None
        skip = ahead - last if not isinstance(stop, str) else 0
        found: list[Run] = []
        while self.rest:
            run = self.rest.pop()
            stops = _stops((run,), stop)
            if stops == 0 or (not isinstance(stop, str) and stops <= skip):
                skip -= stops
                found.append(run)
            elif run.inner:
                if run.count > 1:
                    self.rest.append(Run(run.place, run.count - 1, run.inner))
                self.rest += reversed(run.inner)
            else:
                if skip:
                    found.append(Run(run.place, skip))
                self.rest.append(Run(run.place, run.count - skip))
                break
        return found

    def _take_pattern(self, run: Run, want: Want, needed: int, taken: list[Run]) -> int:
        """As many whole patterns as are wanted and can be taken at once; else one of them is opened up."""
        each, passable, ends = _of_pattern(run.inner, want)
        if passable and each == 0:
            return 0  # all of it is passed over
        # What stands behind the last wanted place is not passed over yet: that pattern is opened up.
        whole = min(run.count, (needed if ends else needed - 1) // each) if passable and each else 0
        if whole:
            chosen = [Run(place, count) for place, count in leaves(run.inner) if want.units(place)]
            taken.append(pattern(chosen, whole))
            if run.count > whole:
                self.rest.append(Run(run.place, run.count - whole, run.inner))
            return whole * each
        if run.count > 1:
            self.rest.append(Run(run.place, run.count - 1, run.inner))
        self.rest += reversed(run.inner)
        return 0

    def _leave(self, place: Place, count: int) -> None:
        if count > 0:
            self.rest.append(Run(place, count))

    def _take_chains(self, run: Run, wanted: int) -> int:
        """Chains of a chain space, one by one; a space begun is a space no longer."""
        chains = run.count * run.place.length
        here = min(chains, wanted)
        whole, part = divmod(here, run.place.length)
        self._leave(run.place, run.count - whole - (1 if part else 0))
        if part:
            begun = run.place.length >= LEAST_OPENING
            self._leave(Place("ch", at=run.place.at, begun=begun), run.place.length - part)
        return here


def count_of(runs: Iterable[Run], want: Want) -> int:
    """How many of the wanted there are in some runs."""
    return sum(want.units(place) * count for place, count in leaves(runs) if not place.optional)


def left_in(runs: Iterable[Run], wants: "set[Want]") -> int:
    """How many of any of these there are in some runs, each place once."""
    of_any_length = [replace(want, length=None) for want in wants]
    total = 0
    for place, count in leaves(runs):
        if not place.optional:
            total += count * max([want.units(place) for want in of_any_length], default=0)
    return total


def _stops(runs: Iterable[Run], stop: Want | str) -> int:
    if isinstance(stop, str):
        return sum(count for place, count in leaves(runs) if place.mark is not None and stop in ("", place.mark))
    return count_of(runs, stop)
