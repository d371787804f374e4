"""Small integer expressions over named numbers: `{2*side + 6}`."""

import ast
from collections.abc import Mapping

_LIMIT = 10**9


class ExpressionError(ValueError):
    """The expression names something undefined, or is not plain integer arithmetic."""


def evaluate(source: str, numbers: Mapping[str, tuple[int, ...]], n_sizes: int) -> tuple[int, ...]:
    """One value for each size. Allowed: whole numbers, names, + - * and // (or /, if it comes out even).

    Raises ExpressionError with a sentence for the reader.
    """
    if len(source) > 200:
        raise ExpressionError("this expression is too long")
    try:
        tree = ast.parse(source.strip(), mode="eval")
    except (SyntaxError, ValueError, MemoryError, RecursionError):
        raise ExpressionError(f"“{source}” is not a sum that can be worked out") from None
    return tuple(_value(tree.body, numbers, size) for size in range(n_sizes))


def _value(node: ast.expr, numbers: Mapping[str, tuple[int, ...]], size: int) -> int:
    match node:
        case ast.Constant(value=int() as value) if not isinstance(value, bool):
            result = value
        case ast.Name(id=name):
            if name not in numbers:
                raise ExpressionError(f"the number “{name}” is not defined")
            result = numbers[name][size]
        case ast.UnaryOp(op=ast.USub(), operand=operand):
            result = -_value(operand, numbers, size)
        case ast.BinOp(left=left, op=op, right=right):
            result = _combine(op, _value(left, numbers, size), _value(right, numbers, size))
        case _:
            raise ExpressionError("only whole numbers, names, +, -, * and / can be used in braces")
    if abs(result) > _LIMIT:
        raise ExpressionError("this number is too large")
    return result


def _combine(op: ast.operator, a: int, b: int) -> int:
    match op:
        case ast.Add():
            return a + b
        case ast.Sub():
            return a - b
        case ast.Mult():
            return a * b
        case ast.Div() | ast.FloorDiv():
            if b == 0 or a % b:
                raise ExpressionError(f"{a} divided by {b} is not a whole number")
            return a // b
        case _:
            raise ExpressionError("only +, -, * and / can be used in braces")
