"""Small sums over named numbers: `{2*side + 6}`, `{8 * rnd}`, `{wall rounds - 2}`.

Whole numbers, names, + - * and / (which must come out even) or // (rounded down), and brackets. A name is letters,
digits and single spaces, and begins with a letter. Each value comes with its linear form in the names.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from rillstep.core.memory import remember
from rillstep.core.tree.forms import Form, constant

MOST_OF_EXPRESSION = 200
MOST_DEEP = 20
LIMIT = 10**9
NAME = re.compile(r"[A-Za-z][A-Za-z0-9_]*(?: [A-Za-z0-9_]+)*")
_PART = re.compile(rf"\s*(?:(?P<number>\d{{1,9}})(?![\w.])|(?P<name>{NAME.pattern})|(?P<mark>//|[-+*/()−×]))")
_MARKS = {"−": "-", "×": "*"}


class ExpressionError(ValueError):
    """The expression names something undefined, or is not plain integer arithmetic; the message is for a reader."""


@dataclass(frozen=True)
class Value:
    """What an expression comes to in one size; its form is None where it is no sum of names (rounded, by itself)."""

    value: Fraction
    form: Form | None

    def whole(self) -> int:
        """The value as a whole number. Raises ExpressionError."""
        if self.value.denominator != 1:
            raise ExpressionError(f"this is {_mixed(self.value)}, which is not a whole number")
        return int(self.value)


def _mixed(value: Fraction) -> str:
    return f"{float(value):.2f}".rstrip("0")


@dataclass(frozen=True)
class Expression:
    """A sum as it was written: a number, a name, or two sums with what is done to them."""

    kind: Literal["number", "name", "sum"]
    number: int = 0
    name: str = ""
    mark: str = ""
    left: "Expression | None" = None
    right: "Expression | None" = None

    def names(self) -> frozenset[str]:
        inner = [one.names() for one in (self.left, self.right) if one is not None]
        return frozenset({self.name} if self.kind == "name" else ()).union(*inner)


@remember(2048)
def expression(source: str) -> Expression:
    """Reads a sum. Raises ExpressionError with a sentence for the reader."""
    if len(source) > MOST_OF_EXPRESSION:
        raise ExpressionError("this expression is too long")
    parts: list[re.Match[str]] = []
    at = 0
    while source[at:].strip():
        part = _PART.match(source, at)
        if part is None:
            raise ExpressionError(f"“{source.strip()}” is not a sum that can be worked out")
        parts.append(part)
        at = part.end()
    found, rest = _sum(parts, 0, 0, source)
    if rest < len(parts):
        raise ExpressionError(f"“{source.strip()}” is not a sum that can be worked out")
    return found


def _mark(parts: list[re.Match[str]], at: int) -> str:
    mark = (parts[at]["mark"] or "") if at < len(parts) else ""
    return _MARKS.get(mark, mark)


def _sum(parts: list[re.Match[str]], at: int, depth: int, source: str) -> tuple[Expression, int]:
    left, at = _product(parts, at, depth, source)
    while (mark := _mark(parts, at)) in ("+", "-"):
        right, at = _product(parts, at + 1, depth, source)
        left = Expression("sum", mark=mark, left=left, right=right)
    return left, at


def _product(parts: list[re.Match[str]], at: int, depth: int, source: str) -> tuple[Expression, int]:
    left, at = _factor(parts, at, depth, source)
    while (mark := _mark(parts, at)) in ("*", "/", "//"):
        right, at = _factor(parts, at + 1, depth, source)
        left = Expression("sum", mark=mark, left=left, right=right)
    return left, at


def _factor(parts: list[re.Match[str]], at: int, depth: int, source: str) -> tuple[Expression, int]:
    if depth > MOST_DEEP:
        raise ExpressionError("this expression has too many brackets")
    if at < len(parts):
        part = parts[at]
        if part["number"]:
            return Expression("number", number=int(part["number"])), at + 1
        if part["name"]:
            return Expression("name", name=part["name"]), at + 1
        if _mark(parts, at) == "-":
            inner, rest = _factor(parts, at + 1, depth + 1, source)
            return Expression("sum", mark="-", left=Expression("number"), right=inner), rest
        if _mark(parts, at) == "(":
            inner, rest = _sum(parts, at + 1, depth + 1, source)
            if _mark(parts, rest) == ")":
                return inner, rest + 1
    raise ExpressionError(f"“{source.strip()}” is not a sum that can be worked out")


def evaluate(one: Expression, value_of: Callable[[str], Value]) -> Value:
    """What a sum comes to. value_of: the value of a name, in the size in question; may raise ExpressionError.

    Raises ExpressionError: a division by nothing, one name times another, or a number beyond a thousand million.
    """
    if one.kind == "number":
        return Value(Fraction(one.number), constant(one.number))
    if one.kind == "name":
        return value_of(one.name)
    assert one.left is not None and one.right is not None
    left, right = evaluate(one.left, value_of), evaluate(one.right, value_of)
    match one.mark:
        case "+" | "-":
            found = _added(left, right, Fraction(1 if one.mark == "+" else -1))
        case "*":
            found = _multiplied(left, right)
        case _:
            found = _divided(left, right, one.mark == "//")
    if abs(found.value) > LIMIT:
        raise ExpressionError("this number is too large")
    return found


def _added(left: Value, right: Value, sign: Fraction) -> Value:
    both = left.form is not None and right.form is not None
    form = left.form.plus(right.form, sign) if both and left.form and right.form else None
    return Value(left.value + sign * right.value, form)


def _is_constant(value: Value) -> bool:
    return value.form is not None and not value.form.terms


def _multiplied(left: Value, right: Value) -> Value:
    value = left.value * right.value
    if _is_constant(left) and right.form is not None:
        return Value(value, right.form.times(left.value))
    if _is_constant(right) and left.form is not None:
        return Value(value, left.form.times(right.value))
    if left.form is not None and right.form is not None:
        raise ExpressionError("one name times another is not a number that can be graded; give it a name of its own")
    return Value(value, None)


def _divided(left: Value, right: Value, down: bool) -> Value:
    if not right.value:
        raise ExpressionError("this divides by nothing")
    if not _is_constant(right):
        raise ExpressionError("a number is divided by a plain number only, not by a name")
    value = left.value / right.value
    if down:
        rounded = value.denominator != 1 or (left.form is not None and left.form.terms)
        return Value(Fraction(value.numerator // value.denominator), None if rounded else constant(value))
    return Value(value, left.form.times(1 / right.value) if left.form is not None else None)
