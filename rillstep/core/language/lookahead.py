"""What a form can begin with, and what it needs: words that are looked for before it is tried."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cache, reduce

from rillstep.core.language.grammar import FORMS, TERMINALS
from rillstep.core.language.patterns import GrammarForm, Op

# --- what can begin with a word ----------------------------------------------------


@dataclass(frozen=True)
class _Beginning:
    """With which words something can begin, with which terminals, and whether it can be empty."""

    words: frozenset[str] = frozenset()
    terminals: frozenset[str] = frozenset()
    empty: bool = False

    def or_else(self, other: "_Beginning") -> "_Beginning":
        """Of either."""
        return _Beginning(self.words | other.words, self.terminals | other.terminals, self.empty or other.empty)

    def and_then(self, other: "_Beginning") -> "_Beginning":
        """Of one after the other."""
        if not self.empty:
            return self
        return _Beginning(self.words | other.words, self.terminals | other.terminals, other.empty)


def _beginning_of(ops: tuple[Op, ...], known: Mapping[str, _Beginning]) -> _Beginning:
    found = _Beginning(empty=True)
    for op in ops:
        if op[0] == "word" or op[0] == "run":
            one = _Beginning(op[1])
        elif op[0] == "category":
            one = known[op[2]]
        elif op[0] == "maybe" or op[0] == "many":
            one = replace(_beginning_of(op[1], known), empty=True)
        else:
            one = reduce(_Beginning.or_else, (_beginning_of(branch, known) for branch in op[1]))
        found = found.and_then(one)
        if not found.empty:
            break
    return found


@cache
def _beginnings() -> dict[str, _Beginning]:
    """With what each category can begin: worked out until nothing is added, as categories hold each other."""
    known = {
        name: _Beginning(empty=True) if one.begins("") is None else _Beginning(terminals=frozenset((name,)))
        for name, one in TERMINALS.items()
    }
    known |= {category: _Beginning() for category in FORMS}
    changed = True
    while changed:
        changed = False
        for category, forms in FORMS.items():
            found = reduce(_Beginning.or_else, (_beginning_of(form.ops, known) for form in forms))
            if found != known[category]:
                known[category], changed = found, True
    return known


@cache
def begun_by(category: str) -> Callable[[str], bool]:
    """Whether a category can begin with a token, or be empty before it."""
    return _test_of(_beginnings()[category])


@cache
def begun_by_form(form: GrammarForm) -> Callable[[str], bool]:
    """Whether a form can begin with a token, or be empty before it."""
    return _test_of(_beginning_of(form.ops, _beginnings()))


def _test_of(beginning: _Beginning) -> Callable[[str], bool]:
    tests = [TERMINALS[name].begins for name in sorted(beginning.terminals)]
    if beginning.empty:
        return lambda key: True
    if not tests:
        return beginning.words.__contains__
    known: dict[str, bool] = {}

    def begins(key: str) -> bool:
        found = known.get(key)
        if found is None:
            found = known[key] = key in beginning.words or any(test(key) for test in tests)
        return found

    return begins


# --- what is needed somewhere ------------------------------------------------------


@cache
def needed_of(category: str) -> frozenset[str]:
    """Words of which every reading of a category holds one; none where it has a reading without any."""
    return _needs().get(category) or frozenset()


@cache
def needed_by(form: GrammarForm) -> frozenset[str]:
    """Words of which every reading of a form holds one; none where it has a reading without any."""
    return _needed(form.ops, _needs()) or frozenset()


@cache
def _needs() -> dict[str, frozenset[str] | None]:
    """The words that each category needs, worked out until nothing is added; None: no word in particular."""
    known: dict[str, frozenset[str] | None] = dict.fromkeys(TERMINALS)
    known |= {category: frozenset() for category in FORMS}
    changed = True
    while changed:
        changed = False
        for category, forms in FORMS.items():
            if (before := known[category]) is None:
                continue
            each = [_needed(form.ops, known) for form in forms]
            found = None if None in each else before.union(*(one for one in each if one is not None))
            if found != before:
                known[category], changed = found, True
    return known


def _needed(ops: tuple[Op, ...], known: Mapping[str, frozenset[str] | None]) -> frozenset[str] | None:
    """The fewest words of which one stands in whatever these match; None where there are no such."""
    fewest: frozenset[str] | None = None
    for op in ops:
        one: frozenset[str] | None = None
        if op[0] == "word" or op[0] == "run":
            one = op[1]
        elif op[0] == "category":
            one = known[op[2]]
        elif op[0] == "one of":
            each = [_needed(branch, known) for branch in op[1]]
            one = None if None in each else frozenset().union(*(words for words in each if words is not None))
        if one is not None and (fewest is None or len(one) < len(fewest)):
            fewest = one
    return fewest
