"""One matcher for all forms: recursive descent over the tokens of a line, each category read at most once at a place.

Each form is compiled once to a function that gives where it can end, with what it kept on the way; of several ways to
one end the first is kept. Matching takes nothing and builds nothing; what was chosen is built afterwards, token by
token, so that the ledger of the line holds what was read and nothing else.
"""

from collections.abc import Callable
from functools import cache
from typing import Any, NamedTuple

from rillstep.core.language.grammar import BUILDERS, FORMS, TERMINALS
from rillstep.core.language.patterns import Call, GrammarForm, Op
from rillstep.core.words.stream import Stream


class Node(NamedTuple):
    """What was read: a form with what it kept, or a terminal (no form); tokens `start` to `end`, one past the last."""

    category: str
    form: GrammarForm | None
    start: int
    end: int
    kept: tuple[tuple[str, "Node"], ...] = ()


Kept = tuple[tuple[str, Node], ...]
Ways = list[tuple[int, Kept]]  # where it can end, with what was kept
Match = Callable[[Stream, int], Ways]


def readings(stream: Stream, category: str) -> dict[int, Node]:
    """All readings of a category from where the stream stands, by where they end; nothing is taken yet."""
    return _readings(stream, category, stream.at)


def longest(stream: Stream, category: str) -> Node | None:
    """The reading of a category that takes most tokens from where the stream stands; nothing is taken yet."""
    if not _begins(category, stream.keys[stream.at]):
        return None
    found = _readings(stream, category, stream.at)
    return found[max(found)] if found else None


def whole(stream: Stream, category: str) -> Node | None:
    """The reading of a category that takes all that is left of the stream; nothing is taken yet."""
    return _readings(stream, category, stream.at).get(len(stream.tokens))


def ends_of(stream: Stream, form: GrammarForm) -> set[int]:
    """Where this very form can end, read from where the stream stands."""
    return {end for end, _ in _compiled(form)(stream, stream.at)}


def read(stream: Stream, category: str) -> Any:
    """What the longest reading of a category builds, and its tokens are taken; None, and nothing taken, where none
    is read. Raises NotUnderstood where a number of it is none."""
    node = longest(stream, category)
    return None if node is None else built(stream, node)


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
    if call in _OF_NODE:
        return _OF_NODE[call](stream, node)
    if call.endswith("*"):
        return tuple(kept.get(call[:-1], ()))
    return kept.get(call, [None])[0]


# What a form may build with besides what it kept: where it stands.
_OF_NODE: dict[str, Callable[[Stream, Node], Any]] = {
    "span": lambda stream, node: stream.tokens[node.start].span.to(stream.tokens[node.end - 1].span),
    "tokens": lambda stream, node: stream.tokens[node.start : node.end],
    "start": lambda stream, node: node.start,
    "end": lambda stream, node: node.end,
}


def _readings(stream: Stream, category: str, at: int) -> dict[int, Node]:
    """All readings of a category from a token on, one for each token at which one can end: the first of its table."""
    key = (category, at)
    found = stream.readings.get(key)
    if found is None:
        stream.readings[key] = found = {}  # what begins with itself reads nothing there
        if category in TERMINALS:
            for end in TERMINALS[category].ends(stream, at):
                found[end] = Node(category, None, at, end)
        else:
            for form, match in _forms_at(category, stream.keys[at]):
                for end, kept in match(stream, at):
                    if end not in found:
                        found[end] = Node(category, form, at, end, kept)
                if form.ordered and found:
                    break
    return found


@cache
def _forms_at(category: str, key: str) -> tuple[tuple[GrammarForm, Match], ...]:
    """The forms of a category that can begin with a token, as functions; looked up once a word."""
    return tuple((form, _compiled(form)) for form in FORMS[category] if _can_begin(form.ops, key) is not False)


# --- compiling ---------------------------------------------------------------------


@cache
def _compiled(form: GrammarForm) -> Match:
    return _sequence(form.ops, lambda stream, at: [(at, ())])


def _sequence(ops: tuple[Op, ...], then: Match) -> Match:
    """What matches these operations, and then the rest."""
    for op in reversed(ops):
        then = _operation(op, then)
    return then


def _operation(op: Op, then: Match) -> Match:
    if op[0] == "word":
        return _word(op[1], then)
    if op[0] == "run":
        return _run(op[1], then)
    if op[0] == "category":
        return _category(op[1], op[2], then)
    if op[0] == "many":
        return _many(op[1], then)
    branches = (op[1], ()) if op[0] == "maybe" else op[1]
    return _one_of([_sequence(branch, then) if branch else then for branch in branches])


def _word(words: frozenset[str], then: Match) -> Match:
    def match(stream: Stream, at: int) -> Ways:
        return then(stream, at + 1) if stream.texts[at] in words else []

    return match


def _run(words: frozenset[str], then: Match) -> Match:
    def match(stream: Stream, at: int) -> Ways:
        end = at
        while stream.texts[end] in words:
            end += 1
        return then(stream, end) if end > at else []

    return match


def _category(name: str, category: str, then: Match) -> Match:
    def match(stream: Stream, at: int) -> Ways:
        if not _begins(category, stream.keys[at]):
            return []
        ways: Ways = []
        for end, node in sorted(_readings(stream, category, at).items(), reverse=True):
            _add(ways, [(last, ((name, node), *kept)) for last, kept in then(stream, end)])
        return ways

    return match


def _one_of(branches: list[Match]) -> Match:
    def match(stream: Stream, at: int) -> Ways:
        ways: Ways = []
        for branch in branches:
            _add(ways, branch(stream, at))
        return ways

    return match


def _many(ops: tuple[Op, ...], then: Match) -> Match:
    def match(stream: Stream, at: int) -> Ways:
        ways: Ways = []
        _add(ways, once(stream, at))
        _add(ways, then(stream, at))
        return ways

    once = _sequence(ops, match)
    return match


def _add(ways: Ways, more: Ways) -> None:
    """Ways to ends that none of those before leads to."""
    if not ways:
        ways += more
        return
    ends = {end for end, _ in ways}
    ways += [way for way in more if way[0] not in ends]


# --- what can begin with a word ----------------------------------------------------


@cache
def _begins(category: str, key: str) -> bool:
    """Can a category begin with a token, or be empty before it?"""
    return _category_begins(category, key, frozenset()) is not False


def _can_begin(ops: tuple[Op, ...], key: str, seen: frozenset[str] = frozenset()) -> bool | None:
    """Can these begin with a token? None: they can be empty."""
    for op in ops:
        can: bool | None
        if op[0] == "word" or op[0] == "run":
            can = key in op[1]
        elif op[0] == "category":
            can = _category_begins(op[2], key, seen)
        elif op[0] == "maybe" or op[0] == "many":
            can = True if _can_begin(op[1], key, seen) else None
        else:
            each = [_can_begin(branch, key, seen) for branch in op[1]]
            can = True if True in each else None if None in each else False
        if can is not None:
            return can
    return None


@cache
def _category_begins(category: str, key: str, seen: frozenset[str]) -> bool | None:
    if category in TERMINALS:
        return TERMINALS[category].begins(key)
    if category in seen:
        return False
    each = [_can_begin(form.ops, key, seen | {category}) for form in FORMS[category]]
    return True if True in each else None if None in each else False
