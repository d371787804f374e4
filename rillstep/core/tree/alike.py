"""What a node says apart from its numbers: two lines of one shape differ in nothing else."""

from collections.abc import Callable, Iterator
from dataclasses import fields, is_dataclass, replace
from functools import cache
from operator import attrgetter
from types import NoneType, UnionType
from typing import Any, Literal, Union, get_args, get_origin, get_type_hints

from rillstep.core import tree
from rillstep.core.tree import Decimals, Num

# Every kind of node in a tree: asking each value whether it is a dataclass would cost more.
_NODES = frozenset(kind for kind in vars(tree).values() if isinstance(kind, type) and is_dataclass(kind))


@cache
def _meaning(kind: Any) -> tuple[str, ...]:
    """The fields of a node that say what it means, but for the sizes; looked up once a type, as this is a hot path."""
    return tuple(f.name for f in fields(kind) if f.compare and f.name != "sizes")


def _is_plain(hint: Any) -> bool:
    """Can a field of this type hold neither a number nor another node?"""
    if get_origin(hint) in (Union, UnionType):
        return all(_is_plain(one) for one in get_args(hint))
    return get_origin(hint) is Literal or hint in (str, int, bool, float, NoneType)


@cache
def _plan(kind: Any) -> tuple[Callable[[Any], Any], tuple[str, ...]]:
    """What takes the plain fields of a node at once, and the names of those that may hold numbers."""
    hints = get_type_hints(kind)
    plain = [name for name in _meaning(kind) if _is_plain(hints[name])]
    take = attrgetter(*plain) if plain else _nothing
    return take, tuple(name for name in _meaning(kind) if name not in plain)


def _nothing(_: Any) -> None:
    return None


def shape_of(node: Any, numbers: list[Any]) -> Any:
    """The shape of a node; its numbers are put into `numbers`, in order.

    Numbers that change the wording (1 against more: "in next st", "in next 2 sts") are of one
    shape, as a set is always written in the plural.
    """
    kind = type(node)
    if kind is Num or kind is Decimals:
        numbers.append(node)
        return kind
    if kind is tuple:
        return tuple([shape_of(item, numbers) for item in node])
    if kind in _NODES:
        plain, inner = _plan(kind)
        return (kind, plain(node), *[shape_of(getattr(node, name), numbers) for name in inner])
    return node


def filled(node: Any, numbers: Iterator[Any]) -> Any:
    """The node with its numbers replaced by these, in order."""
    kind = type(node)
    if kind is Num or kind is Decimals:
        return next(numbers)
    if kind is tuple:
        return tuple([filled(item, numbers) for item in node])
    if kind in _NODES:
        return replace(node, **{name: filled(getattr(node, name), numbers) for name in _meaning(kind)})
    return node
