"""The numbers that stand in a line: find them, change one in one size, and write the change as an edit."""

from dataclasses import fields, is_dataclass, replace
from typing import Any, TypeVar

from rillstep.core.findings import Edit
from rillstep.core.notation.tree import Num
from rillstep.core.notation.writer import set_text

Node = TypeVar("Node")


def numbers_in(node: object) -> list[Num]:
    """Every number that is written in a node, in order; numbers that are only implied are left out."""
    if isinstance(node, Num):
        return [node] if node.parts else []
    if isinstance(node, tuple):
        return [number for item in node for number in numbers_in(item)]
    if is_dataclass(node):
        return [n for f in fields(node) if "span" not in f.name for n in numbers_in(getattr(node, f.name))]
    return []


def with_value(node: Node, number: Num, size: int, value: int) -> Node:
    """The same node with that number (told by its place) changed in one size."""
    return _changed(node, number, size, value)  # type: ignore[no-any-return]


def _changed(node: Any, number: Num, size: int, value: int) -> Any:
    if isinstance(node, Num):
        if node.parts and node.span == number.span:
            return replace(node, values=tuple(value if i == size else v for i, v in enumerate(node.values)))
        return node
    if isinstance(node, tuple):
        return tuple(_changed(item, number, size, value) for item in node)
    if is_dataclass(node) and not isinstance(node, type):
        changes = {f.name: _changed(getattr(node, f.name), number, size, value) for f in fields(node)}
        return replace(node, **changes)
    return node


def edit_value(number: Num, size: int, value: int) -> Edit:
    """The edit that writes `value` for one size: in its member of the set, or as a new set."""
    held = [i for i, v in enumerate(number.values) if v is not None]
    if len(number.parts) == len(held) and len(held) > 1:
        return Edit(number.parts[held.index(size)], str(value))
    if len(number.parts) == len(number.values) > 1:
        return Edit(number.parts[size], str(value))
    values = tuple(value if i == size else v for i, v in enumerate(number.values))
    return Edit(number.span, set_text(values))
