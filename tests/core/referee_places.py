"""The single places of the referee, and what it asks of the steps of a row."""

from dataclasses import dataclass, field, replace

from rillstep.core.fabric import Edge, Run
from rillstep.core.tree import (
    Chain,
    EachKind,
    Gesture,
    Group,
    Next,
    Num,
    Repeat,
    Skip,
    Special,
    Step,
    Together,
    What,
    Work,
)


@dataclass(frozen=True)
class P:
    """One place."""

    kind: str
    stitch: str = ""
    length: int = 0
    special: str = ""
    key: bool = False
    optional: bool = False
    chain: bool = field(default=False, compare=False)  # a starting chain that counts as this stitch
    begun: bool = field(default=False, compare=False)  # of a long chain that is worked chain by chain


Want = tuple[str, int | None, str]  # kinds as written, length, stitch

KINDS = {"st": {"st"}, "ch": {"ch"}, "sp": {"sp"}, "st and ch": {"st", "ch"}, "st and sp": {"st", "sp"}, "end": {"end"}}
PASSED = {"st": {"sp", "ch"}, "sp": {"st", "ch", "sp"}, "st and sp": {"ch"}}


class Fails(Exception):
    """The row cannot be worked as it says."""


def unrolled(edge: Edge) -> list[P]:
    return single(edge.runs)


def single(runs: tuple[Run, ...]) -> list[P]:
    places: list[P] = []
    for run in runs:
        if run.inner:
            places += single(run.inner) * run.count
        else:
            p = run.place
            places += [P(p.kind, p.stitch, p.length, p.special, p.key, chain=p.chain)] * run.count
    return places


def first_stitch(step: Step | None) -> str:
    match step:
        case Work(stitch=stitch) | Together(stitch=stitch):
            return stitch
        case Repeat(steps=(inner, *_)) | Group(steps=(inner, *_)) | EachKind(works=(inner, *_)):
            return first_stitch(inner)
        case _:
            return "sc"


HEIGHTS = {"sc": 1, "hdc": 2, "dc": 3, "tr": 4}


def height_of(step: Step | None) -> int:
    match step:
        case Work(stitch=stitch) | Together(stitch=stitch):
            return HEIGHTS.get(stitch.removeprefix("FP").removeprefix("BP"), 3)
        case Repeat(steps=steps) | Group(steps=steps):
            return next((h for h in map(height_of, steps) if h), 0)
        case EachKind(works=works):
            return height_of(works[0])
        case _:
            return 0


def low_of(step: Step | None) -> int:
    """A chain one lower than the stitch that follows at once is a usual habit; 0 where none follows so."""
    first = step
    while isinstance(first, Repeat):
        first = first.steps[0]
    height = height_of(step)
    return height - 1 if isinstance(first, Work | Together | EachKind) and height > 2 else 0


def whats(steps: tuple[Step, ...]) -> list[What]:
    """Every kind of place that some steps work into."""
    found: list[What] = []
    for step in steps:
        match step:
            case Work(into=into) | Group(into=into):
                what = getattr(into, "what", None)
                found += [what] if what is not None else []
            case Skip(what=what):
                found.append(what)
            case Together(into=into):
                found.append(getattr(into, "what", None) or What("st"))
            case Repeat(steps=inner):
                found += whats(inner)
            case EachKind(works=works):
                found += whats(works)
    return found


def offered(made: list[P], special: str) -> list[P]:
    """What a special stitch offers: its first space, or else its middle stitch; "Beg V-st" counts as a V-st."""
    spaces = [i for i, p in enumerate(made) if p.kind == "sp"]
    key = spaces[0] if spaces else len(made) // 2
    return [replace(p, special=special.removeprefix("Beg "), key=i == key) for i, p in enumerate(made)]


def takes_several(special: Special) -> bool:
    return any(isinstance(s, Skip) or (isinstance(s, Work) and isinstance(s.into, Next)) for s in special.steps)


def spanned(steps: tuple[Step, ...], size: int) -> int:
    """The stitches that each loop of a mesh at the end of a round passes over."""
    match [step for step in steps if not isinstance(step, Gesture)]:
        case [*_, Repeat(times=Num(), steps=(*inner, Chain()))]:
            skips = [step.count.at(size) for step in inner if isinstance(step, Skip) and step.what.kind == "st"]
            return skips[0] if len(skips) == 1 else -1
        case _:
            return -1
