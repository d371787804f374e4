"""Numbers of a tree by their place in the text: found, changed, and written as sets."""

from collections.abc import Callable, Mapping
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import Any, TypeVar

from rillstep.core.findings import Edit, Span
from rillstep.core.tree import Line, Num, Pattern

Node = TypeVar("Node")


def set_text(values: tuple[int | float | None, ...], form: Callable[[float], str] = lambda v: str(int(v))) -> str:
    """ "14 (18, 22)"; one plain number when all are equal; sizes in which it does not hold are left out."""
    shown = [form(v) for v in values if v is not None]
    if len(set(shown)) == 1:
        return shown[0]
    return f"{shown[0]} ({', '.join(shown[1:])})"


@cache
def _names(kind: Any) -> tuple[str, ...]:
    """The fields of a kind of node in which numbers can stand; none for anything that is no node."""
    return tuple(f.name for f in fields(kind) if "span" not in f.name) if is_dataclass(kind) else ()


def numbers_in(node: object) -> list[Num]:
    """Every number that is written in a node, in order; numbers that are only implied are left out."""
    return [number for number in every_number(node) if number.parts]


def every_number(node: object) -> list[Num]:
    """Every number of a node, those too that are only implied, or stand in the meaning of a phrase."""
    if isinstance(node, Num):
        return [node]
    if isinstance(node, tuple):
        return [number for item in node for number in every_number(item)]
    kind: Any = type(node)
    return [n for name in _names(kind) for n in every_number(getattr(node, name))]


def with_value(node: Node, number: Num, size: int, value: int) -> Node:
    """The same node with that number (told by its place) changed in one size."""
    return _changed(node, number, size, value)  # type: ignore[no-any-return]


def _changed(node: Any, number: Num, size: int, value: int) -> Any:
    """The node itself where nothing in it changes: only the way down to the number is built anew."""
    if isinstance(node, Num):
        if node.parts and node.span == number.span:
            return replace(node, values=tuple(value if i == size else v for i, v in enumerate(node.values)))
        return node
    if isinstance(node, tuple):
        items = [_changed(item, number, size, value) for item in node]
        return node if all(new is old for new, old in zip(items, node, strict=True)) else tuple(items)
    changes = {}
    kind: Any = type(node)
    for name in _names(kind):
        old = getattr(node, name)
        if (new := _changed(old, number, size, value)) is not old:
            changes[name] = new
    return replace(node, **changes) if changes else node


def with_forms(node: Node, change: Mapping[str, int]) -> Node:
    """The same node with its names changed by so much: each number that is made of them moves by its form."""

    def moved(number: Num) -> Num:
        if not number.forms:
            return number
        values = tuple(
            value
            if value is None or form is None
            else value + int(sum(form.of(name) * by for name, by in change.items()))
            for value, form in zip(number.values, number.forms, strict=True)
        )
        return number if values == number.values else replace(number, values=values)

    return _with_numbers(node, moved)  # type: ignore[no-any-return]


def with_values(node: Node, values: Mapping[Span, tuple[int | None, ...]]) -> Node:
    """The same node with other values of the numbers at some places."""

    def changed(number: Num) -> Num:
        return replace(number, values=values[number.span]) if number.span in values else number

    return _with_numbers(node, changed)  # type: ignore[no-any-return]


def _with_numbers(node: Any, change: Callable[[Num], Num]) -> Any:
    """The node with its numbers changed; itself where nothing in it changes."""
    if isinstance(node, Num):
        return change(node)
    if isinstance(node, tuple):
        items = [_with_numbers(item, change) for item in node]
        return node if all(new is old for new, old in zip(items, node, strict=True)) else tuple(items)
    kind: Any = type(node)
    changes = {}
    for name in _names(kind):
        old = getattr(node, name)
        if (new := _with_numbers(old, change)) is not old:
            changes[name] = new
    return replace(node, **changes) if changes else node


def edit_value(number: Num, size: int, value: int) -> Edit:
    """The edit that writes `value` for one size: in its member of the set, or as a new set."""
    written = value - number.offset
    held = [i for i, v in enumerate(number.values) if v is not None]
    if len(number.parts) == len(held) and len(held) > 1:
        return Edit(number.parts[held.index(size)], str(written))
    if len(number.parts) == len(number.values) > 1:
        return Edit(number.parts[size], str(written))
    values = tuple(
        written if i == size else None if v is None else v - number.offset for i, v in enumerate(number.values)
    )
    return Edit(number.span, set_text(values))


def with_line(pattern: Pattern, old: Line, new: Line) -> Pattern:
    """The pattern with one line of it (told by itself, not by what it says) changed; other sections stay the same
    objects."""
    sections = tuple(
        replace(s, lines=tuple(new if line is old else line for line in s.lines))
        if any(line is old for line in s.lines)
        else s
        for s in pattern.sections
    )
    return replace(pattern, sections=sections)
