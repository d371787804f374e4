"""Lines of single sizes laid together: alike but for their numbers, they become one line with sets.

A block writes each size on its own, as if it were the only one. Lines with the same key are
merged here; sizes whose lines are built differently get lines of their own, under a size line.
"""

from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from rillstep.core.tree import NOWHERE, Line, Num
from rillstep.core.tree.alike import filled, shape_of


def plain(value: int) -> Num:
    """A number of a pattern in one size."""
    return Num((value,), NOWHERE, (NOWHERE,))


def merge_lines(per_size: Sequence[Sequence[tuple[str, Line]]]) -> tuple[Line, ...]:
    """All sizes' lines in one run. Each size gives (key, line) in order; keys order alike in all sizes."""
    n = len(per_size)
    by_key = [dict(lines) for lines in per_size]
    merged: list[Line] = []
    for key in _keys_in_order(per_size):
        groups: dict[Any, list[tuple[int, Line, list[Any]]]] = {}
        for size, lines in enumerate(by_key):
            line = lines.get(key)
            if line is not None:
                numbers: list[Any] = []
                groups.setdefault(shape_of(line, numbers), []).append((size, line, numbers))
        for members in groups.values():
            sizes = tuple(size for size, _, _ in members)
            sets = (_set(sizes, values, n) for values in zip(*(numbers for _, _, numbers in members), strict=True))
            merged.append(replace(filled(members[0][1], sets), sizes=sizes))
    return tuple(merged)


def _keys_in_order(per_size: Sequence[Sequence[tuple[str, Line]]]) -> list[str]:
    """Every key once, in an order that agrees with each size's own."""
    order: list[str] = []
    for lines in per_size:
        at = 0
        for key, _ in lines:
            if key in order:
                at = order.index(key) + 1
            else:
                order.insert(at, key)
                at += 1
    return order


def _set(sizes: tuple[int, ...], numbers: tuple[Any, ...], n: int) -> Any:
    """The numbers of some sizes as one set."""
    values: list[Any] = [None] * n
    for size, number in zip(sizes, numbers, strict=True):
        values[size] = number.values[0]
    return type(numbers[0])(tuple(values), NOWHERE, (NOWHERE,))
