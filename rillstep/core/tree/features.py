"""What a row shows by its words alone: the stitch that it is mostly made of, the openings that it makes, what takes
the rest."""

from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.tree import (
    Chain,
    EachKind,
    Every,
    Gesture,
    Group,
    Next,
    Repeat,
    Same,
    Skip,
    Step,
    Together,
    What,
    Work,
)


@dataclass(frozen=True)
class Opening:
    """A handle opening: `skip` stitches passed over by `chain` chains, after `start` stitches of the round."""

    start: int
    skip: int
    chain: int

    @property
    def centre(self) -> float:
        return self.start + self.skip / 2


def main_stitch(steps: tuple[Step, ...]) -> str | None:
    """The stitch that a row is mostly made of: the first one worked that is not a slip stitch."""
    for step in steps:
        match step:
            case Work(stitch=stitch) | Together(stitch=stitch) if stitch != "sl st":
                return stitch
            case Repeat(steps=inner) | Group(steps=inner) | EachKind(works=inner) if (
                found := main_stitch(inner)
            ) is not None:
                return found
            case _:
                pass
    return None


def openings_of(steps: tuple[Step, ...], size: int) -> tuple[Opening, ...]:
    """The handle openings of a round: a chain followed at once by skipped stitches."""
    found: list[Opening] = []
    at = 0
    for index, step in enumerate(steps):
        match step:
            case Work(into=Next(count=count)):
                at += count.at(size)
            case Work(into=Same()) if index <= 1:
                at += 1
            case Skip(count=count):
                before = steps[index - 1] if index else None
                if isinstance(before, Chain):
                    found.append(Opening(at, count.at(size), before.length.at(size)))
                at += count.at(size)
            case Chain(counts=counts) if index == 0 and counts not in (None, "none"):
                at += 1
            case Work(into=Every()) | Repeat() | Group() | EachKind():
                return tuple(found)
            case _:
                pass
    return tuple(found)


def takes_the_rest(step: Step | None) -> bool:
    """ "[sc in next 16 sts, sc2tog] around, sc in each rem st": does a step take what the repeats before it leave, if
    anything?"""
    return (
        isinstance(step, Work)
        and isinstance(step.into, Every)
        and step.into.what == What("st")
        and step.into.end.word in ("around", "across")
    )


def places_named(steps: tuple[Step, ...]) -> Iterator[What]:
    """Each kind of place that steps name, as where they go into or where they end, within repeats and groups as
    well."""
    for step in steps:
        if isinstance(step, Chain | Gesture):
            continue
        into = getattr(step, "into", step)
        end = step.times if isinstance(step, Repeat) else getattr(into, "end", None)
        for what in (getattr(into, "what", None), getattr(end, "what", None)):
            if what is not None:
                yield what
        if isinstance(step, Repeat | Group):
            yield from places_named(step.steps)
        elif isinstance(step, EachKind):
            yield from places_named(step.works)


def stitches_worked(steps: tuple[Step, ...]) -> Iterator[str]:
    """Each stitch that steps work, within repeats and groups as well."""
    for step in steps:
        match step:
            case Work(stitch=stitch) | Together(stitch=stitch):
                yield stitch
            case Repeat(steps=inner) | Group(steps=inner) | EachKind(works=inner):
                yield from stitches_worked(inner)
            case _:
                pass
