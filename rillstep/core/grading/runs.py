"""The names of a text whose share is kept where it can be: runs of stitches and gaps of the width, rounds of the
height."""

from collections.abc import Iterator

from rillstep.core.tree import Again, Chain, Next, Num, Pattern, Row, Skip, Work


def runs_of(pattern: Pattern) -> frozenset[str]:
    """The names of which runs and gaps are made; what an opening takes is no run, as it is made for a hand. A number of
    rounds that a run is counted by is none either."""
    return frozenset(name for number in _runs(pattern) for name in _names(number)) - rounds_of(pattern)


def rounds_of(pattern: Pattern) -> frozenset[str]:
    """The names of which numbers of rounds are made."""
    return frozenset(name for number in _ends(pattern) for name in _names(number))


def _ends(pattern: Pattern) -> Iterator[Num]:
    """The numbers of the rounds of a text."""
    for _, line in pattern.lines():
        if isinstance(line, Row | Again):
            yield from (number for number in (line.first, line.last) if number is not None)


def _runs(pattern: Pattern) -> Iterator[Num]:
    for _, line in pattern.lines():
        if not isinstance(line, Row):
            continue
        for at, step in enumerate(line.steps):
            match step:
                case Work(into=Next(count=count)):
                    yield count
                case Skip(count=count) if not at or not isinstance(line.steps[at - 1], Chain):
                    yield count


def _names(number: Num) -> tuple[str, ...]:
    form = number.forms[0] if number.forms else None
    return tuple(name for name, _ in form.terms) if form is not None else ()
