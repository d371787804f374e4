"""How the sizes of a design grow from one to the next, with uneven steps marked; and what they hold."""

from collections.abc import Mapping, Sequence
from itertools import pairwise

from rillstep.core.contents import THINGS, Thing, fits, measures_for
from rillstep.core.lengths import Units, show_difference, show_length
from rillstep.core.proof import Proof
from rillstep.core.size_order import ascending
from rillstep.services import grading_views as views

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


def growth_rows(proof: Proof, numbers: Mapping[str, Sequence[int]], units: Units) -> list[views.GrowthRowView]:
    """The measures of the bag and the numbers by name, with the step from each size to the next."""
    found: list[views.GrowthRowView] = []
    order = ascending(list(measures_by_size(proof).values()))
    for one in proof.bag.measures if proof.bag is not None else ():
        if one.piece is not None or any(mm is None for mm in one.mm) or len(set(one.mm)) < 2:
            continue
        mm = [value for value in one.mm if value is not None]
        steps = [after - before for before, after in pairwise(mm)]
        found.append(
            views.GrowthRowView(
                label=one.label,
                values=[show_length(value, units) for value in mm],
                steps=[show_difference(step, units) for step in steps],
                uneven=_uneven(mm, order, _MM),
            )
        )
    for name, values in numbers.items():
        if len(set(values)) > 1:
            by = [after - before for before, after in pairwise(values)]
            found.append(
                views.GrowthRowView(
                    label=name,
                    values=[str(value) for value in values],
                    steps=[f"{step:+d}" for step in by],
                    uneven=_uneven(values, order, _STITCHES),
                )
            )
    return found


def thing_views() -> list[views.ThingView]:
    """The things that a size may have to hold, with what it must measure for them."""
    return [_thing(thing) for thing in THINGS]


def own_thing(width_mm: float, height_mm: float, depth_mm: float) -> views.ThingView:
    """A thing of the designer's own."""
    return _thing(Thing("own", "a thing of your own", width_mm, height_mm, depth_mm))


def _thing(thing: Thing) -> views.ThingView:
    return views.ThingView(key=thing.key, name=thing.name, targets_mm=measures_for(thing))


def held_things(proof: Proof) -> list[list[str]]:
    """For each size the things that fit in it, the largest first."""
    if proof.bag is None:
        return [[] for _ in proof.pattern.sizes]
    measures = [one for one in proof.bag.measures if one.piece is None]
    found = []
    for at in range(len(proof.pattern.sizes)):
        known = {one.name: mm for one in measures if (mm := one.mm[at]) is not None}
        found.append([thing.name for thing in _LARGEST_FIRST if fits(thing, known)])
    return found
