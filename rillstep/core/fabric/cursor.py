"""A cursor over an edge: takes places in order, and remembers where it has been."""

from rillstep.core.fabric.edge import Edge, Place, Run
from rillstep.core.notation.tree import WhatKind

# Which kinds of place each wording takes.
TAKES: dict[WhatKind, tuple[str, ...]] = {
    "st": ("st",),
    "ch": ("ch",),
    "sp": ("sp",),
    "st and ch": ("st", "ch"),
    "st and sp": ("st", "sp"),
}
# Which kinds it passes over silently on its way ("next st" passes over chain spaces).
PASSES: dict[WhatKind, tuple[str, ...]] = {
    "st": ("sp", "ch"),
    "ch": (),
    "sp": ("st", "ch", "sp"),
    "st and ch": (),
    "st and sp": ("ch",),
}


class Cursor:
    """Lives while one row is worked."""

    def __init__(self, edge: Edge) -> None:
        self.rest: list[Run] = list(reversed(edge.runs))
        self.taken = 0
        self.kinds: set[str] = set()
        self.worked_chains = 0

    def left(self, optional: bool = False) -> int:
        """Places left of the kinds that this row works into."""
        total = 0
        for run in self.rest:
            place = run.place
            if place.optional and not optional:
                continue
            if place.kind in self.kinds:
                total += run.count
            elif place.kind == "sp" and "ch" in self.kinds:
                total += run.count * place.length
        return total

    def available(self, what: WhatKind, length: int | None = None) -> int:
        """How many places of a kind are still ahead, optional ones not counted."""
        kinds = TAKES[what]
        total = 0
        for run in self.rest:
            place = run.place
            if place.optional:
                continue
            if place.kind in kinds and (length is None or place.kind != "sp" or place.length == length):
                total += run.count
            elif place.kind == "sp" and "ch" in kinds:
                total += run.count * place.length
        return total

    def take(self, what: WhatKind, count: int, length: int | None = None) -> int:
        """Take up to `count` places; the answer is how many there were."""
        kinds, passes = TAKES[what], PASSES[what]
        self.kinds.update(kinds)
        got = 0
        while got < count and self.rest:
            run = self.rest.pop()
            place = run.place
            if place.kind in kinds and (place.kind != "sp" or length is None or place.length == length):
                here = min(run.count, count - got)
                self._leave(place, run.count - here)
                got += here
                if place.kind == "ch":
                    self.worked_chains += here
            elif place.kind == "sp" and "ch" in kinds:
                got += self._take_chains(run, count - got)
            elif place.kind not in passes:
                self.rest.append(run)
                break
        self.taken += got
        return got

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
            self._leave(Place("ch"), run.place.length - part)
        return here
