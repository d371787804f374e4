"""The order of sizes: added ones stand where ascending targets put them, those of the text stay where they are."""

from collections.abc import Mapping, Sequence
from itertools import pairwise
from math import log

# Measures in mm by the names that targets call them.
Measured = Mapping[str, float]


def ascending(made: Sequence[Measured]) -> tuple[int, ...]:
    """The indices of sizes from the smallest to the largest by their measures; in their order where they are as
    large."""
    return tuple(sorted(range(len(made)), key=lambda at: _excess(made[at], made[0], made[0])))


def placed(targets: Mapping[str, Measured], made: Mapping[str, Measured]) -> list[str]:
    """The names of the sizes that are wanted, in the order in which they are written and printed.

    targets: of each size, in the order in which they were wanted; made: the measures of those that the text has. A size
    that is added stands before the first one that is larger by the measures that it is wanted in; where the sizes of
    the text descend, before the first one that is smaller. One without targets stands last.
    """
    known = {name: {**made.get(name, {}), **own} for name, own in targets.items()}
    order = [name for name in targets if name in made]
    steps = [_excess(known[after], known[before], known[before]) for before, after in pairwise(order)]
    down = bool(steps) and max(steps) < 0
    for name in (name for name in targets if name not in made):
        beyond = (
            at
            for at, other in enumerate(order)
            if (excess := _excess(known[name], known[other], targets[name])) and (excess > 0) == down
        )
        order.insert(next(beyond, len(order)), name)
    return order


def _excess(one: Measured, other: Measured, over: Measured) -> float:
    """How much larger a size is than another: above zero where it is, by the ratios of their measures."""
    return sum(log(one[name] / other[name]) for name in over if min(one.get(name, 0), other.get(name, 0)) > 0)
