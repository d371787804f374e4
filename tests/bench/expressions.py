"""The slowest of the regular expressions on the longest lines that are read: no line may be worth a wait."""

import importlib
import pkgutil
import re
import time
from collections.abc import Iterator

import rillstep.core.notation as notation

PIECES = (
    " ", "9", "9 ", "9,", "9, ", "9 (", "9-", "9 - ", "a", "a ", "a, ", "a. ", "a: ", "a - ", "a (", "(", ")", "[", "*", "-", ".", ":", "1st ", "1st (",
    "sc in next st, ", "ch 3, ", "work 9 ", "for sizes ", "Size S, ", "stop here ", "stop here for S, ", "in each ", "of the ", "and ", "until ", "9 sts ", "9 rows ",
    "repeat row ", "(9) ", "make 9 ", "with ", "x", "9/", "= ", "sc", "   a",
)  # fmt: skip
BEFORE = ("", "Row 1: ", "a ", "9")
AFTER = ("", "!", ":", " 9 sts")
NEVER_SEARCHED = ("lexer._TOKEN",)
SHORTENED = (
    "header._GAUGE",
    "header._GAUGE_REVERSED",
    "header._NO_ROWS",
)  # what they read is short, and has no long gaps
LENGTH = 500  # a tenth of the longest line: what grows with the square of it takes a hundred times as long there


def expressions() -> Iterator[tuple[str, re.Pattern[str]]]:
    """Every expression with which a line is read, by its name."""
    for module in pkgutil.iter_modules(notation.__path__):
        for name, value in vars(importlib.import_module(f"{notation.__name__}.{module.name}")).items():
            if isinstance(value, re.Pattern):
                yield f"{module.name}.{name}", value


def lines(length: int) -> Iterator[str]:
    """Lines of one thing again and again, between beginnings and ends of others."""
    for piece in PIECES:
        for before in BEFORE:
            for after in AFTER:
                yield before + piece * ((length - len(before) - len(after)) // len(piece)) + after


def slowest(most: int = 5) -> list[tuple[float, str, str]]:
    """(seconds, expression, beginning of the line) of the slowest ones."""
    found: list[tuple[float, str, str]] = []
    for name, expression in dict(expressions()).items():
        if name in SHORTENED:
            continue
        worst = (0.0, name, "")
        for line in lines(LENGTH):
            for way in (expression.match,) if name in NEVER_SEARCHED else (expression.match, expression.search):
                began = time.perf_counter()
                way(line)
                worst = max(worst, (time.perf_counter() - began, name, repr(line[:40])))
            if worst[0] > 0.5:
                break
        found.append(worst)
    return sorted(found, reverse=True)[:most]


def report() -> None:
    print(f"slowest regular expressions on one line of {LENGTH} characters")
    for seconds, name, line in slowest():
        print(f"  {1000 * seconds:8.2f} ms  {name}  {line}")


if __name__ == "__main__":
    report()
