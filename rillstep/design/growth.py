"""How the sizes of a design grow from one to the next, with uneven steps marked; and what they hold."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from rillstep.core.contents import THINGS, fits
from rillstep.core.proof import Proof
from rillstep.core.size_order import ascending

_LARGEST_FIRST = sorted(THINGS, key=lambda thing: -thing.width_mm * thing.height_mm * thing.depth_mm)
# Steps are uneven that differ by more than this share of their mean, and by more than this many stitches or mm.
_SHARE, _STITCHES, _MM = 0.25, 1.0, 8.0


def _uneven(values: Sequence[float], order: Sequence[int], least: float) -> bool:
    """Whether the steps from the smallest size to the largest differ by more than rounding to whole stitches does."""
    if len(values) < 3:
        return False
    steps = [values[after] - values[before] for before, after in pairwise(order)]
    mean = sum(abs(step) for step in steps) / len(steps)
    return max(steps) - min(steps) > max(least, _SHARE * mean)


def measures_by_size(proof: Proof) -> dict[str, dict[str, float]]:
    """Of each size by its name the measures in mm, by the names that targets call them."""
    measures = proof.bag.measures if proof.bag is not None else ()
    return {
        name: {one.called: mm for one in measures if (mm := one.mm[at]) is not None}
        for at, name in enumerate(proof.pattern.sizes)
    }


@dataclass(frozen=True)
class Growth:
    """How a measure of the bag (in mm), or a number by name, grows from each size to the next."""

    label: str
    values: tuple[float, ...]
    is_length: bool
    uneven: bool

    @property
    def steps(self) -> tuple[float, ...]:
        """From each size to the next, in the order in which the sizes are written."""
        return tuple(after - before for before, after in pairwise(self.values))


def growth_of(proof: Proof, numbers: Mapping[str, Sequence[int]]) -> list[Growth]:
    """The measures of the bag and the numbers by name that are not alike in all sizes."""
    order = ascending(list(measures_by_size(proof).values()))
    found: list[Growth] = []
    for one in proof.bag.measures if proof.bag is not None else ():
        if one.piece is None and not any(mm is None for mm in one.mm) and len(set(one.mm)) > 1:
            mm = tuple(value for value in one.mm if value is not None)
            found.append(Growth(one.label, mm, True, _uneven(mm, order, _MM)))
    found += [
        Growth(name, tuple(values), False, _uneven(values, order, _STITCHES))
        for name, values in numbers.items()
        if len(set(values)) > 1
    ]
    return found


def holds_of(proof: Proof) -> tuple[tuple[str, ...], ...]:
    """For each size the things that fit in it, the largest first."""
    measures = [one for one in (proof.bag.measures if proof.bag is not None else ()) if one.piece is None]
    found = []
    for at in range(len(proof.pattern.sizes)):
        known = {one.name: mm for one in measures if (mm := one.mm[at]) is not None}
        found.append(tuple(thing.name for thing in _LARGEST_FIRST if fits(thing, known)))
    return tuple(found)
