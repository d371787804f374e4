"""How far rounds that are written by their number can go on: no run of theirs falls below nothing in the last one."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from math import lcm

from rillstep.core.tree.forms import Form, constant
from rillstep.core.words.expressions import ExpressionError
from rillstep.core.words.named_numbers import BRACES, Names, holds_round, names_of

_RANGE = re.compile(r"^\s*([A-Za-z]+\.?\s*[^:]*?[-–]\s*(?:\{([^{}]*)\}|(\d+)))\s*[:.]")


@dataclass(frozen=True)
class Floor:
    """A whole multiple of a run in the last round of a range: what it is now, by how much each name moves it, and the
    range as it is written. It is not less than 0."""

    label: str
    value: int
    by_name: Mapping[str, int]


def floors_of(text: str) -> list[Floor]:
    """The runs that become fewer from round to round, in a text in one size."""
    lines = text.split("\n")
    names = names_of(lines)
    found = []
    for line in lines:
        match = _RANGE.match(line)
        if match is None or not holds_round(line[match.end() :]):
            continue
        try:
            last = _form(names, match[2]) if match[2] else constant(int(match[3]))
            sums = [braces[1] for braces in BRACES.finditer(line, match.end())]
            found += [
                floor for source in dict.fromkeys(sums) if (floor := _floor(match[1], source, last, names)) is not None
            ]
        except ExpressionError:  # no sum of names, and nothing is known of it
            continue
    return found


def _form(names: Names, source: str, rnd: int | None = None) -> Form:
    found = names.sum(source, 0, 1, rnd)
    if found.form is None:
        raise ExpressionError("it is no sum of names")
    return found.form


def _value(form: Form, names: Names) -> Fraction:
    return form.constant + sum(factor * _of(names, name) for name, factor in form.terms)


def _of(names: Names, name: str) -> Fraction:
    found = names.values(name, 1)[0]
    if isinstance(found, str):
        raise ExpressionError(found)
    return found.value


def _floor(label: str, source: str, last: Form, names: Names) -> Floor | None:
    """The floor of a sum of a range; None for one that does not become less from round to round."""
    end = int(_value(last, names))
    there = _form(names, source, end)
    slope = _value(there, names) - _value(_form(names, source, end - 1), names)
    if slope >= 0:
        return None
    # The number of the last round moves as well.
    form = there.plus(Form(Fraction(0), last.terms), slope)
    value = _value(there, names)
    times = lcm(value.denominator, *(factor.denominator for _, factor in form.terms))
    return Floor(label, int(value * times), {name: int(factor * times) for name, factor in form.terms})
