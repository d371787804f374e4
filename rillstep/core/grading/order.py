"""The order of sizes: added ones stand where ascending targets put them, those of the text stay where they are."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import log

from rillstep.core.grading.nearest_size import SizeWanted


def ascending(made_mm: Sequence[Mapping[str, float]]) -> tuple[int, ...]:
    """The indices of sizes from the smallest to the largest by their measures in mm; in their order where they are as
    large."""
    return tuple(sorted(range(len(made_mm)), key=lambda at: _excess(made_mm[at], made_mm[0], made_mm[0])))


def placed(wanted: Sequence[SizeWanted], made_mm: Mapping[str, Mapping[str, float]]) -> list[SizeWanted]:
    """The sizes in the order in which they are written and printed; made_mm: the measures of those that the text has.

    A size that is added stands before the first one that is larger by the measures that it is wanted in; where the
    sizes of the text descend, before the first one that is smaller. One without targets stands last.
    """
    known = {size.name: {**made_mm.get(size.name, {}), **size.targets_mm} for size in wanted}
    order = [size for size in wanted if size.name in made_mm]
    down = len(order) > 1 and all(
        _excess(known[other.name], known[one.name], known[one.name]) < 0 for one, other in pairwise(order)
    )
    for size in (size for size in wanted if size.name not in made_mm):
        beyond = (
            at
            for at, other in enumerate(order)
            if (excess := _excess(known[size.name], known[other.name], size.targets_mm))
            and (excess > 0 if down else excess < 0)
        )
        order.insert(next(beyond, len(order)), size)
    return order


def _excess(one: Mapping[str, float], other: Mapping[str, float], over: Mapping[str, float]) -> float:
    """How much larger a size is than another: above zero where it is, by the ratios of their measures."""
    return sum(log(one[name] / other[name]) for name in over if min(one.get(name, 0), other.get(name, 0)) > 0)
