"""The slowest of the regular expressions on the longest lines that are read: no line may be worth a wait."""

import importlib
import pkgutil
import re
import time
from collections.abc import Iterator

import rillstep.core

PIECES = (
    " ", "9", "9 ", "9,", "9, ", "9 (", "9-", "9 - ", "a", "a ", "a, ", "a. ", "a: ", "a - ", "a (", "(", ")", "[", "*", "-", ".", ":", "1st ", "1st (",
    "sc in next st, ", "ch 3, ", "work 9 ", "for sizes ", "Size S, ", "stop here ", "stop here for S, ", "in each ", "of the ", "and ", "until ", "9 sts ", "9 rows ",
    "repeat row ", "(9) ", "make 9 ", "with ", "x", "9/", "= ", "sc", "   a",
)  # fmt: skip
BEFORE = ("", "Row 1: ", "a ", "9")
AFTER = ("", "!", ":", " 9 sts")
# Only matched at a place of the line, never searched for.
NEVER_SEARCHED = (
    "words.tokens._TOKEN",
    "words.expressions._PART",
    "notation.phrases._FORM",
    "notation.phrases._HEAD_LINE",
    "notation.phrases._BODY_LINE",
    "notation.setups._SET_UP_LEAD",
)
# What they read is short, and has no long gaps.
SHORTENED = ("notation.header._GAUGE", "notation.header._GAUGE_REVERSED", "notation.header._NO_ROWS")
LENGTH = 500  # a tenth of the longest line: what grows with the square of it takes a hundred times as long there


def expressions() -> Iterator[tuple[str, re.Pattern[str]]]:
    """Every expression of the core, by its name; once where several rooms share it."""
    known: set[int] = set()
    for module in pkgutil.walk_packages(rillstep.core.__path__, "rillstep.core."):
        if module.name.endswith("__main__"):
            continue
        for name, value in vars(importlib.import_module(module.name)).items():
            if isinstance(value, re.Pattern) and id(value) not in known:
                known.add(id(value))
                yield f"{module.name.removeprefix('rillstep.core.')}.{name}", value


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
                began = time.process_time()  # other processes are no fault of the expression
                way(line)
                worst = max(worst, (time.process_time() - began, name, repr(line[:40])))
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
