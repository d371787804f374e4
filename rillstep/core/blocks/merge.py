"""Lines of single sizes laid together: alike but for their numbers, they become one line with sets.

A block writes each size on its own, as if it were the only one. Lines with the same key are
merged here; sizes whose lines are built differently get lines of their own, under a size line.
"""

from collections.abc import Sequence
from dataclasses import fields, replace
from functools import cache
from typing import Any

from rillstep.core.notation.tree import NOWHERE, Decimals, Line, Num


def plain(value: int) -> Num:
    """A number of a pattern in one size."""
    return Num((value,), NOWHERE, (NOWHERE,))


def merge_lines(per_size: Sequence[Sequence[tuple[str, Line]]]) -> tuple[Line, ...]:
    """All sizes' lines in one run. Each size gives (key, line) in order; keys order alike in all sizes."""
    n = len(per_size)
    merged: list[Line] = []
    for key in _keys_in_order(per_size):
        groups: dict[Any, list[tuple[int, Line]]] = {}
        for size, lines in enumerate(per_size):
            line = dict(lines).get(key)
            if line is not None:
                groups.setdefault(_shape(line), []).append((size, line))
        for members in groups.values():
            sizes = tuple(size for size, _ in members)
            merged.append(replace(_merge([line for _, line in members], sizes, n), sizes=sizes))
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


@cache
def _meaning(kind: Any) -> tuple[str, ...]:
    """The fields of a node that say what it means, but for the sizes; looked up once a type, as this is a hot path."""
    return tuple(f.name for f in fields(kind) if f.compare and f.name != "sizes")


def _shape(node: Any) -> Any:
    """What a node is, but for its numbers: lines of one shape can be merged.

    Numbers that change the wording (1 against more: "in next st", "in next 2 sts") merge
    well, as a set is always written in the plural.
    """
    kind: Any = type(node)
    if kind is Num or kind is Decimals:
        return kind
    if kind is tuple:
        return tuple([_shape(item) for item in node])
    if hasattr(kind, "__dataclass_fields__"):
        return (kind, *[_shape(getattr(node, name)) for name in _meaning(kind)])
    return node


def _merge(nodes: list[Any], sizes: tuple[int, ...], n: int) -> Any:
    first = nodes[0]
    kind: Any = type(first)
    if kind is Num or kind is Decimals:
        by_size = dict(zip(sizes, (node.values[0] for node in nodes), strict=True))
        return kind(tuple(by_size.get(i) for i in range(n)), NOWHERE, (NOWHERE,))
    if kind is tuple:
        return tuple(_merge([node[i] for node in nodes], sizes, n) for i in range(len(first)))
    if hasattr(kind, "__dataclass_fields__"):
        return replace(
            first, **{name: _merge([getattr(node, name) for node in nodes], sizes, n) for name in _meaning(kind)}
        )
    return first
