"""One matcher for all forms: recursive descent over the tokens of a line, each category read at most once at a place.

Matching takes nothing and builds nothing; what was chosen is built afterwards, token by token, so that the ledger of
the line holds what was read and nothing else.
"""

from collections.abc import Iterator
from functools import cache
from typing import Any, NamedTuple

from rillstep.core.language.grammar import BUILDERS, FORMS
from rillstep.core.language.patterns import Call, GrammarForm, Op
from rillstep.core.language.terminals import TERMINALS
from rillstep.core.words.stream import Stream


class Node(NamedTuple):
    """What was read: a form with what it kept, or a terminal (no form); tokens `start` to `end`, one past the last."""

    category: str
    form: GrammarForm | None
    start: int
    end: int
    kept: tuple[tuple[str, "Node"], ...] = ()


def readings(stream: Stream, category: str) -> dict[int, Node]:
    """All readings of a category from where the stream stands, by where they end; nothing is taken yet."""
    return _readings(stream, category, stream.at)


def longest(stream: Stream, category: str) -> Node | None:
    """The reading of a category that takes most tokens from where the stream stands; nothing is taken yet."""
    found = _readings(stream, category, stream.at)
    return found[max(found)] if found else None


def whole(stream: Stream, category: str) -> Node | None:
    """The reading of a category that takes all that is left of the stream; nothing is taken yet."""
    return _readings(stream, category, stream.at).get(len(stream.tokens))


def ends_of(stream: Stream, form: GrammarForm) -> set[int]:
    """Where this very form can end, read from where the stream stands."""
    return {end for end, _ in _run(stream, form.ops, 0, stream.at)}


def built(stream: Stream, node: Node) -> Any:
    """What a reading builds; its tokens are taken. Raises NotUnderstood where a number of it is none."""
    value = _built(stream, node)
    stream.at = node.end
    return value


def _built(stream: Stream, node: Node) -> Any:
    if node.form is None:
        return TERMINALS[node.category].build(stream, node.start, node.end)
    kept: dict[str, list[Any]] = {}
    for name, child in node.kept:
        kept.setdefault(name, []).append(_built(stream, child))
    return _evaluated(stream, node.form.call, kept, node)


def _evaluated(stream: Stream, call: Call | str | int, kept: dict[str, list[Any]], node: Node) -> Any:
    if isinstance(call, int):
        return call
    if isinstance(call, Call):
        arguments = [_evaluated(stream, one, kept, node) for one in call.arguments]
        return BUILDERS[call.builder](stream, *arguments)
    if call.startswith("'"):
        return call[1:]
    if call == "span":
        return stream.tokens[node.start].span.to(stream.tokens[node.end - 1].span)
    if call == "tokens":
        return stream.tokens[node.start : node.end]
    if call == "start":
        return node.start
    if call == "end":
        return node.end
    if call.endswith("*"):
        return tuple(kept.get(call[:-1], ()))
    return kept.get(call, [None])[0]


def _readings(stream: Stream, category: str, at: int) -> dict[int, Node]:
    """All readings of a category from a token on, one for each token at which one can end: the first of its table."""
    key = (category, at)
    found = stream.readings.get(key)
    if found is None:
        stream.readings[key] = found = {}  # what begins with itself reads nothing there
        if category in TERMINALS:
            for end in TERMINALS[category].ends(stream, at):
                found.setdefault(end, Node(category, None, at, end))
        else:
            text = _key(stream, at)
            for form in _forms_at(category, text):
                for end, kept in _run(stream, form.ops, 0, at):
                    if end not in found:
                        found[end] = Node(category, form, at, end, kept)
    return found


Kept = tuple[tuple[str, Node], ...]


def _run(stream: Stream, ops: tuple[Op, ...], i: int, at: int) -> Iterator[tuple[int, Kept]]:
    if i == len(ops):
        yield at, ()
        return
    op = ops[i]
    if op[0] == "word":
        if at < len(stream.tokens) and stream.tokens[at].text in op[1]:
            yield from _run(stream, ops, i + 1, at + 1)
    elif op[0] == "leaf":
        for end, node in sorted(_readings(stream, op[2], at).items(), reverse=True):
            for last, kept in _run(stream, ops, i + 1, end):
                yield last, ((op[1], node), *kept)
    elif op[0] == "many":
        for end, kept in _run(stream, op[1], 0, at):
            if end > at:
                for last, more in _run(stream, ops, i, end):
                    yield last, (*kept, *more)
        yield from _run(stream, ops, i + 1, at)
    else:
        branches = (op[1], ()) if op[0] == "maybe" else op[1]
        for branch in branches:
            for end, kept in _run(stream, branch, 0, at):
                for last, more in _run(stream, ops, i + 1, end):
                    yield last, (*kept, *more)


def _key(stream: Stream, at: int) -> str:
    """What a token is looked up by: its word, or its kind where that is a number."""
    if at >= len(stream.tokens):
        return ""
    token = stream.tokens[at]
    return "#" if token.kind in ("num", "expr", "ordinal") else token.text


@cache
def _forms_at(category: str, text: str) -> tuple[GrammarForm, ...]:
    """The forms of a category that can begin with a token; looked up once a word."""
    return tuple(form for form in FORMS[category] if _can_begin(form.ops, text) is not False)


def _can_begin(ops: tuple[Op, ...], text: str, seen: frozenset[str] = frozenset()) -> bool | None:
    """Can these begin with a token? None: they can be empty."""
    for op in ops:
        can: bool | None
        if op[0] == "word":
            can = text in op[1]
        elif op[0] == "leaf":
            can = _category_begins(op[2], text, seen)
        elif op[0] == "maybe" or op[0] == "many":
            can = True if _can_begin(op[1], text, seen) else None
        else:
            each = [_can_begin(branch, text, seen) for branch in op[1]]
            can = True if True in each else None if None in each else False
        if can is not None:
            return can
    return None


def _category_begins(category: str, text: str, seen: frozenset[str]) -> bool | None:
    if category in TERMINALS:
        return TERMINALS[category].begins(text)
    if category in seen:
        return False
    each = [_can_begin(form.ops, text, seen | {category}) for form in FORMS[category]]
    return True if True in each else None if None in each else False
