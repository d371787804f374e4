"""Lines of single sizes laid together: alike but for their numbers, they become one line with sets.

A block writes each size on its own, as if it were the only one. Lines with the same key are
merged here; sizes whose lines are built differently get lines of their own, under a size line.
"""

from collections.abc import Iterator, Sequence
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import Any

from rillstep.core.notation import tree
from rillstep.core.notation.tree import NOWHERE, Decimals, Line, Num


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
                groups.setdefault(_shape(line, numbers), []).append((size, line, numbers))
        for members in groups.values():
            sizes = tuple(size for size, _, _ in members)
            sets = (_set(sizes, values, n) for values in zip(*(numbers for _, _, numbers in members), strict=True))
            merged.append(replace(_filled(members[0][1], sets), sizes=sizes))
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


# Every kind of node in a tree: asking each value whether it is a dataclass would cost more.
_NODES = frozenset(kind for kind in vars(tree).values() if isinstance(kind, type) and is_dataclass(kind))


@cache
def _meaning(kind: Any) -> tuple[str, ...]:
    """The fields of a node that say what it means, but for the sizes; looked up once a type, as this is a hot path."""
    return tuple(f.name for f in fields(kind) if f.compare and f.name != "sizes")


def _shape(node: Any, numbers: list[Any]) -> Any:
    """What a node is, but for its numbers, which are put into `numbers` in order: lines of one shape can be merged.

    Numbers that change the wording (1 against more: "in next st", "in next 2 sts") merge
    well, as a set is always written in the plural.
    """
    kind = type(node)
    if kind is Num or kind is Decimals:
        numbers.append(node)
        return kind
    if kind is tuple:
        return tuple([_shape(item, numbers) for item in node])
    if kind in _NODES:
        return (kind, *[_shape(getattr(node, name), numbers) for name in _meaning(kind)])
    return node


def _set(sizes: tuple[int, ...], numbers: tuple[Any, ...], n: int) -> Any:
    """The numbers of some sizes as one set."""
    values: list[Any] = [None] * n
    for size, number in zip(sizes, numbers, strict=True):
        values[size] = number.values[0]
    return type(numbers[0])(tuple(values), NOWHERE, (NOWHERE,))


def _filled(node: Any, sets: Iterator[Any]) -> Any:
    """The node with its numbers replaced by these sets, in order."""
    kind = type(node)
    if kind is Num or kind is Decimals:
        return next(sets)
    if kind is tuple:
        return tuple([_filled(item, sets) for item in node])
    if kind in _NODES:
        return replace(node, **{name: _filled(getattr(node, name), sets) for name in _meaning(kind)})
    return node
