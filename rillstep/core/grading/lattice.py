"""Whole-number directions: those of a set on which a linear form is 0, or a multiple of a number; and short ones.

All directions are vectors over the same names. The set of all sums of whole multiples of some directions is their
lattice; what is left of it under a form is found exactly, so no direction of it is missed (the basis is saturated).
"""

from collections.abc import Callable, Sequence
from fractions import Fraction
from math import gcd

Vector = tuple[int, ...]

# A direction is shortened by others so many times at most.
_MOST_PASSES = 50


def plus(one: Vector, other: Vector, times: int = 1) -> Vector:
    """The sum of a vector and so many times another."""
    return tuple(a + times * b for a, b in zip(one, other, strict=True))


def scaled(one: Vector, times: int) -> Vector:
    """So many times a vector."""
    return tuple(times * a for a in one)


def where_zero(
    directions: Sequence[Vector], form: Sequence[int], modulus: int = 0
) -> tuple[list[Vector], Vector | None]:
    """A basis of what is left of a lattice where a form is 0, or a multiple of the modulus; form: its value at each
    direction. The second answer is the direction that was given up, or made a multiple of; None where the form is 0
    throughout.

    Euclid's algorithm on the values: the others are reduced by the direction of the smallest value until one is left.
    """
    free = [v for v, value in zip(directions, form, strict=True) if _part(value, modulus) == 0]
    rest = [(v, _part(value, modulus)) for v, value in zip(directions, form, strict=True) if _part(value, modulus)]
    while len(rest) > 1:
        rest.sort(key=lambda one: (abs(one[1]), size(one[0])))
        least, value = rest[0]
        after = [rest[0]]
        for v, other in rest[1:]:
            times = _nearest(other, value)
            v, other = plus(v, least, -times), _part(other - times * value, modulus)
            if other:
                after.append((v, other))
            else:
                free.append(v)
        rest = after
    if not rest:
        return free, None
    last, value = rest[0]
    if modulus:
        free.append(scaled(last, modulus // gcd(value, modulus)))
    return free, last


def _part(value: int, modulus: int) -> int:
    """The value, by a modulus the one nearest to 0."""
    if not modulus:
        return value
    value %= modulus
    return value - modulus if 2 * value > modulus else value


def _nearest(value: int, by: int) -> int:
    """The whole number nearest to a quotient."""
    return (2 * value + abs(by)) // (2 * abs(by)) * (1 if by > 0 else -1)


def is_independent(vector: Vector, others: Sequence[Vector]) -> bool:
    """Whether a vector is no sum of (parts of) others, and not 0."""
    rows: list[tuple[int, list[Fraction]]] = []
    for one in (*others, vector):
        row = [Fraction(a) for a in one]
        for at, other in rows:
            if row[at]:
                times = row[at] / other[at]
                row = [a - times * b for a, b in zip(row, other, strict=True)]
        at = next((at for at, a in enumerate(row) if a), -1)
        if at >= 0:
            rows.append((at, row))
        elif one is vector:
            return False
    return True


def size(vector: Vector) -> int:
    """How much a direction asks of a reader: many names, large steps, and steps against each other cost."""
    used = [a for a in vector if a]
    against = 3 if any(a > 0 for a in used) and any(a < 0 for a in used) else 0
    return sum(map(abs, used)) + 2 * len(used) + against


def shortened(directions: Sequence[Vector], cost: Callable[[Vector], int] = size) -> list[Vector]:
    """The same lattice by short directions, each mostly upwards; the shortest first."""
    found = list(directions)
    for _ in range(_MOST_PASSES):
        changed = False
        for i in range(len(found)):
            for j in range(len(found)):
                if i == j:
                    continue
                best = min((plus(found[i], found[j], times) for times in (-2, -1, 1, 2)), key=cost)
                if cost(best) < cost(found[i]):
                    found[i], changed = best, True
        if not changed:
            break
    return sorted((v if sum(v) > 0 or (sum(v) == 0 and v > scaled(v, -1)) else scaled(v, -1) for v in found), key=cost)


def times_of(vector: Vector, directions: Sequence[Vector]) -> tuple[Fraction, ...] | None:
    """How many times each of some independent directions adds up to a vector; None where they do not."""
    many = len(directions)
    rows = [[*(Fraction(d[at]) for d in directions), Fraction(value)] for at, value in enumerate(vector)]
    done: list[list[Fraction]] = []
    for column in range(many):
        pivot = next((row for row in rows if row[column]), None)
        if pivot is None:
            return None
        rows = [row for row in rows if row is not pivot]
        pivot = [a / pivot[column] for a in pivot]
        rows = [[a - row[column] * b for a, b in zip(row, pivot, strict=True)] for row in rows]
        done = [[a - row[column] * b for a, b in zip(row, pivot, strict=True)] for row in done]
        done.append(pivot)
    return None if any(row[many] for row in rows) else tuple(row[many] for row in done)
