"""Whole numbers nearest to wishes: least squares over whole steps, with least values, found exactly.

Branch and bound outwards from the real solution (Schnorr and Euchner, Math. Programming 66, 1994): the normal equations
are factored, and each unknown is tried in the order of its distance, as long as what is bought so far is cheaper than
the best that is known. Ends at a bound of its own, and says so.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from heapq import heappush, heapreplace
from math import ceil, floor, sqrt

# A hair of cost for each step keeps the solution unique: of equal ones the one with fewest steps holds.
HAIR = 1e-4
MOST_NODES = 100_000
# So far from the real solution, and from no steps, a step is looked for where least values stand against nearer ones.
FARTHEST = 120


@dataclass(frozen=True)
class Wish:
    """By how much each unknown moves something at one step, by how much it shall move, and how much that counts."""

    by_step: tuple[float, ...]
    wish: float
    weight: float = 1.0

    def cost(self, steps: Sequence[int]) -> float:
        """The weighted square of what is missed."""
        return self.weight * (sum(a * t for a, t in zip(self.by_step, steps, strict=True)) - self.wish) ** 2


@dataclass(frozen=True)
class Least:
    """A number that is not to fall below its least: what it is at no steps, and by how much each step moves it."""

    by_step: tuple[int, ...]
    value: int
    least: int

    def holds(self, steps: Sequence[int]) -> bool:
        return self.value + sum(a * t for a, t in zip(self.by_step, steps, strict=True)) >= self.least


@dataclass(frozen=True)
class Nearest:
    """The cheapest steps in the order of their cost, each (cost, steps); whole: no cheaper ones were left out."""

    found: tuple[tuple[float, tuple[int, ...]], ...]
    whole: bool


def cost_of(wishes: Sequence[Wish], steps: Sequence[int]) -> float:
    """What is missed of all wishes at some steps."""
    return sum(wish.cost(steps) for wish in wishes) + HAIR * sum(t * t for t in steps)


def nearest(wishes: Sequence[Wish], least: Sequence[Least], unknowns: int, most: int = 4) -> Nearest:
    """The cheapest whole steps, at most so many of them."""
    if unknowns == 0:
        return Nearest(((cost_of(wishes, ()), ()),) if all(one.holds(()) for one in least) else (), True)
    factor, real = _factored(wishes, unknowns)
    best: list[tuple[float, tuple[int, ...]]] = []  # a heap of negated costs
    nodes = 0
    steps = [0] * unknowns

    def bound() -> float:
        return -best[0][0] if len(best) == most else float("inf")

    def descend(at: int, spent: float) -> bool:
        """Tries the unknowns up to this one; False where there was no time for all."""
        nonlocal nodes
        centre = (
            real[at]
            - sum(factor[at][other] * (steps[other] - real[other]) for other in range(at + 1, unknowns))
            / factor[at][at]
        )
        low, high = (float("-inf"), float("inf")) if at else _between(steps, least)
        window = max(low, min(centre, 0) - FARTHEST), min(high, max(centre, 0) + FARTHEST)
        for value in _outwards(centre, *window):
            nodes += 1
            if nodes > MOST_NODES:
                return False
            cost = spent + (factor[at][at] * (value - centre)) ** 2
            if cost >= bound() - 1e-12:
                return True
            steps[at] = value
            if at:
                if not descend(at - 1, cost):
                    return False
            else:
                (heapreplace if len(best) == most else heappush)(best, (-cost, tuple(steps)))
        return True

    whole = descend(unknowns - 1, 0.0)
    order = sorted((cost_of(wishes, found), found) for _, found in best)
    return Nearest(tuple(order), whole)


def _between(steps: Sequence[int], least: Sequence[Least]) -> tuple[float, float]:
    """Between what the first unknown must lie so that all least values hold, at the steps of the others."""
    low, high = float("-inf"), float("inf")
    for one in least:
        by, rest = one.by_step[0], one.value + sum(a * t for a, t in zip(one.by_step[1:], steps[1:], strict=True))
        if by > 0:
            low = max(low, (one.least - rest) / by)
        elif by < 0:
            high = min(high, (one.least - rest) / by)
        elif rest < one.least:
            return 1.0, 0.0
    return low, high


def _outwards(centre: float, least: float, most: float) -> Iterator[int]:
    """The whole numbers between two others in the order of their distance from a third."""
    first, last = ceil(least - 1e-9), floor(most + 1e-9)
    low = min(floor(centre), last)
    high = max(low + 1, first)
    low = min(low, high - 1)
    while low >= first or high <= last:
        if high > last or (low >= first and centre - low <= high - centre):
            yield low
            low -= 1
        else:
            yield high
            high += 1


def _factored(wishes: Sequence[Wish], unknowns: int) -> tuple[list[list[float]], list[float]]:
    """The upper factor of the normal equations (Cholesky), and the real steps that cost least."""
    square = [
        [
            sum(wish.weight * wish.by_step[i] * wish.by_step[j] for wish in wishes) + (HAIR if i == j else 0.0)
            for j in range(unknowns)
        ]
        for i in range(unknowns)
    ]
    right = [sum(wish.weight * wish.by_step[i] * wish.wish for wish in wishes) for i in range(unknowns)]
    factor = [[0.0] * unknowns for _ in range(unknowns)]
    for i in range(unknowns):
        left = square[i][i] - sum(factor[k][i] ** 2 for k in range(i))
        factor[i][i] = sqrt(max(left, HAIR))
        for j in range(i + 1, unknowns):
            factor[i][j] = (square[i][j] - sum(factor[k][i] * factor[k][j] for k in range(i))) / factor[i][i]
    middle = [0.0] * unknowns
    for i in range(unknowns):
        middle[i] = (right[i] - sum(factor[k][i] * middle[k] for k in range(i))) / factor[i][i]
    real = [0.0] * unknowns
    for i in reversed(range(unknowns)):
        real[i] = (middle[i] - sum(factor[i][j] * real[j] for j in range(i + 1, unknowns))) / factor[i][i]
    return factor, real
