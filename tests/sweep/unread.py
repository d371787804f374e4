"""Rows of the shipped texts made unreadable: nothing that stands after such a row may be called wrong for it.

    python -m tests.sweep.unread 300

What follows a row that is not understood is not known, or goes on from what is stated: it is never refuted by it.
"""

import random
import re
import sys
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor

from rillstep.core.proof import prove_as_read
from rillstep.core.tree import Row
from tests.core.free_numbers import shipped

_LABEL = re.compile(r"\W*(?:row|round|rnd|rd|r)s? ?\d[\d ,()/-]*$", re.IGNORECASE)


def cases(seed: int) -> Iterator[tuple[str, int]]:
    """(text, line of a row in it) without end, from texts in which nothing is wrong."""
    chance = random.Random(seed)
    texts = list(shipped().values())
    while True:
        text = chance.choice(texts)
        proof = prove_as_read(text)
        lines = text.split("\n")
        rows = [line.span.line for _, line in proof.pattern.lines() if isinstance(line, Row)]
        rows = [at for at in rows if _LABEL.match(lines[at - 1].partition(":")[0])]
        if rows and not any(found.severity == "error" for found in proof.findings):
            yield text, chance.choice(rows)


def blamed(case: tuple[str, int]) -> list[str]:
    """What is called wrong elsewhere when the row is not understood."""
    text, at = case
    lines = text.split("\n")
    lines[at - 1] = lines[at - 1].partition(":")[0] + ": work glimber over the wobble."
    found = prove_as_read("\n".join(lines)).findings
    return [f"{f.span.line} {f.code}: {f.message}" for f in found if f.severity == "error" and f.span.line != at]


def main(count: int, seed: int) -> None:
    draw = cases(seed)
    some = [next(draw) for _ in range(count)]
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(blamed, some, chunksize=4))
    print(f"{sum(map(bool, found))} of {count} unread rows have others called wrong")
    for (text, at), wrong in zip(some, found, strict=True):
        if wrong:
            print(f"- {text.split(chr(10))[at - 1]}\n  " + "\n  ".join(wrong))


if __name__ == "__main__":
    main(*(int(one) for one in (*sys.argv[1:], *("300", "7")[len(sys.argv) - 1 :])))
