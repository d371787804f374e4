"""The trace of one row: every new stitch with the place that it went into.

The engine itself works the row; each place of the edge below is only given a number first, so
that like places are not one run any more, and a recorder on the hook notes which of them were
taken and what was made over them. A trace is thus never another opinion about the row.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from typing import Literal

from rillstep.core.fabric.edge import Place, Run
from rillstep.core.tree import Step

# A longer edge is not traced: nobody can look at it, and every stitch of it is held by itself.
MOST_TRACED = 4_000

Became = Literal["worked", "skipped", "passed", "left"]


@dataclass(frozen=True)
class TracedPlace:
    """A place of the work before. passed: silently, as lace does; left: not reached, or left over."""

    place: Place
    became: Became


@dataclass(frozen=True)
class TracedStitch:
    """A new stitch or chain space; `into` has the places that it stands on, as indexes (none for chains).

    step: which of the row's steps that were worked made it. More than one place: worked together.
    closed: a chain that was made into a picot, and is no place any more.
    """

    place: Place
    into: tuple[int, ...]
    step: int
    loop: str = "both"
    closed: bool = False


@dataclass
class Recorder:
    """Notes what a hook does; lives while one row is traced."""

    below: list[Place] = field(default_factory=list)
    taken: list[int] = field(default_factory=list)
    made: list[TracedStitch] = field(default_factory=list)
    skipping: set[int] = field(default_factory=set)
    rest: tuple[Run, ...] = ()
    steps: tuple[Step, ...] = ()
    first: int = 0  # the steps before it only move the hook
    step: int = 0
    loop: str = "both"

    def numbered(self, runs: Iterable[Run]) -> tuple[Run, ...]:
        """The same places, each with a number of its own. Raises ValueError when they are too many."""
        found: list[Run] = []
        for place in unrolled(runs):
            if len(self.below) >= MOST_TRACED:
                raise ValueError(f"more than {MOST_TRACED:,} places are not traced")
            found.append(Run(replace(place, at=len(self.below)), 1))
            self.below.append(place)
        return tuple(found)

    def begin(self, step: object) -> None:
        """A step is worked now."""
        self.loop = getattr(step, "loop", "both")

    def note(self, runs: Iterable[Run], skipping: bool = False) -> None:
        """Places that were taken."""
        for run in runs:
            if run.place.at is not None:
                self.taken += [run.place.at] * run.count  # chains of one space, taken one by one, are several
                if skipping:
                    self.skipping.add(run.place.at)

    def ring(self) -> tuple[Run, ...]:
        """A ring that the text only takes for granted; the one that there is already, else a new one."""
        return () if self.below else self.numbered([Run(Place("ring"), 1)])

    def go_back(self, count: int) -> None:
        """Work into places that were skipped before: the oldest first."""
        self.taken += sorted(self.skipping)[:count]

    def make(self, runs: Iterable[Run], over: int) -> None:
        """New stitches over the last `over` places that were taken, shared out evenly; none for a chain."""
        made = list(unrolled(runs))
        if not over or not made:
            self.made += [TracedStitch(place, (), self.step) for place in made]
            return
        places = self.taken[-over:]
        for index, place in enumerate(made):
            if not places or _is_chain(place):
                into: tuple[int, ...] = ()
            elif len(places) <= len(made):
                into = (places[index * len(places) // len(made)],)
            else:  # several places under one stitch
                first, end = (i * len(places) // len(made) for i in (index, index + 1))
                into = tuple(places[first:end])
            self.skipping.difference_update(into)
            self.made.append(TracedStitch(place, into, self.step, self.loop))

    def close(self) -> None:
        """The chain made last is a picot now."""
        self.made[-1] = replace(self.made[-1], closed=True)

    def places(self) -> tuple[TracedPlace, ...]:
        """What became of each place."""
        on = {at for stitch in self.made for at in stitch.into}
        left = {run.place.at for run in self.rest}
        taken = set(self.taken)

        def became(at: int) -> Became:
            if at in on:
                return "worked"
            if at in left:
                return "left"
            return "skipped" if at in self.skipping or at in taken else "passed"

        return tuple(TracedPlace(place, became(at)) for at, place in enumerate(self.below))


def unrolled(runs: Iterable[Run]) -> Iterable[Place]:
    """Every place by itself, in order."""
    for run in runs:
        for _ in range(run.count):
            if run.inner:
                yield from unrolled(run.inner)
            else:
                yield run.place


def _is_chain(place: Place) -> bool:
    return place.kind == "sp"
