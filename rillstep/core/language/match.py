"""One matcher for all forms: recursive descent over the tokens of a line, each category read at most once at a place.

Each form is compiled once to a function that gives where it can end, with what it kept on the way; of several ways to
one end the first is kept. Matching takes nothing and builds nothing; what was chosen is built afterwards, token by
token, so that the ledger of the line holds what was read and nothing else.
"""

from collections.abc import Callable
from functools import cache
from typing import Any, NamedTuple

from rillstep.core.language.grammar import BUILDERS, FORMS, TERMINALS
from rillstep.core.language.lookahead import begun_by, begun_by_form, needed_by, needed_of
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
    if not begun_by(category)(stream.keys[stream.at]):
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
    """All readings of a category from a token on, one for each token at which one can end: the first of its table; read
    once."""
    found = stream.readings.get((category, at))
    return _read_anew(stream, category, at) if found is None else found


def _read_anew(stream: Stream, category: str, at: int) -> dict[int, Node]:
    found: dict[int, Node] = {}
    stream.readings[category, at] = found  # what begins with itself reads nothing there
    if category in TERMINALS:
        for end in TERMINALS[category].ends(stream, at):
            found[end] = Node(category, None, at, end)
        return found
    for form, needed, match in _forms_at(category, stream.keys[at]):
        if needed and needed.isdisjoint(stream.present):
            continue
        for end, kept in match(stream, at):
            if end not in found:
                found[end] = Node(category, form, at, end, kept)
        if form.ordered and found:
            break
    return found


@cache
def _forms_at(category: str, key: str) -> tuple[tuple[GrammarForm, frozenset[str], Match], ...]:
    """The forms of a category that can begin with a token, as functions, with the words of which each needs one; looked
    up once a word."""
    forms = FORMS[category]
    return tuple((form, needed_by(form), _compiled(form)) for form in forms if begun_by_form(form)(key))


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
    begins, needed = begun_by(category), needed_of(category)

    def match(stream: Stream, at: int) -> Ways:
        if not begins(stream.keys[at]) or (needed and needed.isdisjoint(stream.present)):
            return []
        found = stream.readings.get((category, at))
        if found is None:
            found = _read_anew(stream, category, at)
        if not found:
            return []
        if len(found) == 1:
            ((end, node),) = found.items()
            return [(last, ((name, node), *kept)) for last, kept in then(stream, end)]
        ways: Ways = []
        for end, node in sorted(found.items(), reverse=True):
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
