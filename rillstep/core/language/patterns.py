"""Forms as data: a line of a table compiled to what is matched and what is built.

A table is a text. `== Total` begins a category (`== Total, the first that reads`: no form is looked at behind one that
reads); each line after it is one form of it:

    n:Count [ ch - ] %st => Total(n, 'sts') # 24 sts ! 24 rows

`[ ]` may be missing, `{ }` stands any number of times, `|` in any bracket is one of several; `a/b` are words alike,
`%st` is a class of words and `%%st` as many of them as come, `Space` another category or a terminal, `n:Space` the same
kept as `n`. Behind `=>` stands what it builds, behind `#` an example that it reads ("before << example >> after"),
behind `!` one that its category does not read.
"""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.language.classes import CLASSES

Op = (
    tuple[Literal["word"], frozenset[str]]
    | tuple[Literal["run"], frozenset[str]]  # as many of them as come, one at least
    | tuple[Literal["category"], str, str]  # the name that it is kept by, the category
    | tuple[Literal["maybe"], tuple["Op", ...]]
    | tuple[Literal["one of"], tuple[tuple["Op", ...], ...]]
    | tuple[Literal["many"], tuple["Op", ...]]
)


@dataclass(frozen=True)
class Call:
    """What a form builds: a builder by its name, with what was kept, constants, or other calls as its arguments.

    Each argument is the name of a capture, a capture of all that were kept by one name (`t*`), a constant in quotes, a
    number, or a call.
    """

    builder: str
    arguments: tuple["Call | str | int", ...]


@dataclass(frozen=True)
class GrammarForm:
    """A form of a category. ordered: of its category the first form that reads anything is
    taken, and no other."""

    category: str
    pattern: str
    ops: tuple[Op, ...]
    call: Call | str
    example: str
    refused: str
    ordered: bool


class TableError(Exception):
    """A table that is not well written; the message names the form."""


def forms_of(table: str) -> dict[str, tuple[GrammarForm, ...]]:
    """The forms of a table by category, each in its order. Raises TableError."""
    found: dict[str, list[GrammarForm]] = {}
    category, ordered = "", False
    for line in table.splitlines():
        if line.startswith("== "):
            category, _, how = line[3:].strip().partition(", ")
            if category in found:
                raise TableError(f"“{category}” is described twice")
            ordered = how == "the first that reads"
        elif "=>" in line:
            pattern, _, rest = line.partition("=>")
            call, _, example = f"{rest} ".partition(" # ")
            example, _, refused = example.partition(" ! ")
            known = found.setdefault(category, [])
            known.append(
                GrammarForm(
                    category, pattern.strip(), _ops(pattern), _call(call), example.strip(), refused.strip(), ordered
                )
            )
    return {name: tuple(forms) for name, forms in found.items()}


_BRACKETS = {"[": "]", "{": "}", "(": ")"}


def _ops(pattern: str) -> tuple[Op, ...]:
    words = pattern
    for mark in "[]{}()|":
        words = words.replace(mark, f" {mark} ")
    ops, _ = _sequence(tuple(words.split()), 0, "")
    return ops


def _sequence(items: tuple[str, ...], at: int, closing: str) -> tuple[tuple[Op, ...], int]:
    """The operations up to a closing bracket, and where that stands. Raises TableError."""
    ops: list[Op] = []
    while at < len(items) and items[at] not in (closing, "|"):
        item = items[at]
        if item in _BRACKETS:
            branches: list[tuple[Op, ...]] = []
            closed = _BRACKETS[item]
            while item != closed:
                branch, at = _sequence(items, at + 1, closed)
                branches.append(branch)
                item = items[at]
            inner: tuple[Op, ...] = branches[0] if len(branches) == 1 else (("one of", tuple(branches)),)
            ops += inner if closed == ")" else (("maybe", inner),) if closed == "]" else (("many", inner),)
        else:
            ops.append(_single(item))
        at += 1
    if closing and at >= len(items):
        raise TableError(f"“{closing}” is missing: {' '.join(items)}")
    return tuple(ops), at


def _single(item: str) -> Op:
    name, colon, category = item.partition(":")
    if colon and category[:1].isupper():
        return ("category", name, category)
    if item[:1].isupper():
        return ("category", "", item)
    if item.startswith("%%"):
        return ("run", CLASSES[item[2:]])
    words: set[str] = set()
    for word in item.split("/") if len(item) > 1 else (item,):
        words |= CLASSES[word[1:]] if word.startswith("%") and len(word) > 1 else {word}
    return ("word", frozenset(words))


def _call(text: str) -> Call | str:
    """What stands behind the arrow: "t", or "Total(n, 'sts')". Raises TableError."""
    call, rest = _argument(text.strip())
    if rest.strip() or isinstance(call, int):
        raise TableError(f"“{text}” does not say what is built")
    return call


def _argument(text: str) -> tuple[Call | str | int, str]:
    text = text.lstrip()
    if text.startswith("'"):
        inside, _, rest = text[1:].partition("'")
        return f"'{inside}", rest
    end = next((i for i, c in enumerate(text) if c in "(), "), len(text))
    name, rest = text[:end], text[end:].lstrip()
    if name.lstrip("-").isdigit():
        return int(name), rest
    if not rest.startswith("("):
        return name, rest
    arguments: list[Call | str | int] = []
    rest = rest[1:].lstrip()
    while not rest.startswith(")"):
        if not rest:
            raise TableError(f"“)” is missing: {text}")
        argument, rest = _argument(rest)
        arguments.append(argument)
        rest = rest.lstrip().removeprefix(",").lstrip()
    return Call(name, tuple(arguments)), rest[1:]
