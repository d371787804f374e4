"""The whole text in the usual words, with its names where they stand: what a designer goes on writing in.

Each round that is written by its number is a line of its own, with its numbers; readers get no names at all.
"""

from dataclasses import fields, is_dataclass, replace
from typing import Any

from rillstep.core.notation.parser import Parsed
from rillstep.core.printing.writer import write
from rillstep.core.tree import Num
from rillstep.core.words.named_numbers import names_in
from rillstep.core.words.stream import THE_ROUND


def write_source(parsed: Parsed) -> str:
    """The text of what was read, with its definitions; it reads back to the same tree."""
    return write(_with_names(parsed.pattern), parsed.pattern.terms, parsed.numbers)


def _with_names(node: Any) -> Any:
    """The node with every number shown as the sum that it was written as."""
    if isinstance(node, Num):
        if not node.source or names_in(node.source) & THE_ROUND:
            return node
        more = f" {'+' if node.offset > 0 else '-'} {abs(node.offset)}" if node.offset else ""
        return replace(node, shown=f"{{{node.source}{more}}}")
    if isinstance(node, tuple):
        return tuple(_with_names(item) for item in node)
    if is_dataclass(node) and not isinstance(node, type):
        return replace(node, **{f.name: _with_names(getattr(node, f.name)) for f in fields(node)})
    return node
