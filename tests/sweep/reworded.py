"""Right rows of the shipped texts said in other words that mean the same: none of them may be called wrong.

    python -m tests.sweep.reworded 300

Each rewording is one that a designer would write; they are put into rows that are proved, several at once, and the
whole text is proved again. Counted are rows that stay proved, that are asked about or not understood, and that are
called wrong: the last must be none.
"""

import random
import re
import sys
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import ProcessPoolExecutor
from functools import partial

from rillstep.core.assumptions import ask
from rillstep.core.proof import prove_as_read
from rillstep.core.tree import Row
from tests.core.free_numbers import shipped

Replace = str | Callable[[re.Match[str]], str]
_WORDS = {
    2: "two",
    3: "three",
    4: "four",
    5: "five",
    6: "six",
    7: "seven",
    8: "eight",
    9: "nine",
    10: "ten",
    12: "twelve",
}


def _in_words(match: re.Match[str]) -> str:
    number = int(match[2])
    return f"{match[1]}{_WORDS.get(number, number)}{match[3]}"


# What is written, and what may stand there instead.
REWORDINGS: tuple[tuple[str, tuple[Replace, ...]], ...] = (
    (r"in each st around\b", ("in every stitch around", "into each stitch all the way round", "in each stitch of the round",
                              "in all sts around", "in every st to the end of the round")),
    (r"in each st across\b", ("in every stitch across", "into each stitch to the end of the row", "in each st to the end",
                              "in all stitches across", "in every st along the row")),
    (r"in (?:each of )?next (\d+) sts\b", (r"into each of the next \1 stitches", r"in the following \1 sts",
                                           r"over the next \1 stitches", r"in next \1 stitches")),
    (r"in next st\b", ("into the next stitch", "in the following st", "in the next st")),
    (r"in first st\b", ("into the first stitch", "in the 1st st", "in the very first st")),
    (r"in last st\b", ("into the last stitch", "in the final st", "in the last st of all")),
    (r"in same st\b", ("into the same stitch", "in the same st again", "into that same stitch")),
    (r"\bsk next (\d+) sts\b", (r"skip the next \1 stitches", r"miss the next \1 sts", r"skip \1 sts")),
    (r"\bsk next st\b", ("skip the next stitch", "miss 1 st", "skip 1")),
    (r"\bCh (\d+), turn\b", (r"Turn, ch \1", r"Chain \1 and turn", r"Ch \1. Turn")),
    (r"^(\w+ \d+: )Ch (\d+),", (r"\1Chain \2,", r"\1Make \2 chains,", r"\1\2 ch,")),
    (r", ch (\d+),", (r", chain \1,", r", make \1 chains,", r", \1 ch,")),
    (r"; join\.", (". Join.", ", join with a sl st.", "; join with sl st to first st.")),
    (r"\* around(?! to)\b", ("* all the way around", "* to end of round", "* to the end")),
    (r"\* across(?! to)\b", ("* to the end", "* to end of row", "* along the row")),
    (r"\brep from \*", ("repeat from *", "rep. from *", "keep repeating from *")),
    (r"(\] )(\d+)( times)", (_in_words, r"\1x \2", r"\1\2x", r"\1 a total of \2 times")),
    (r"(?<!\d )\((\d+)\)$", (r"– \1 sts", r"[\1 sts]", r"= \1 stitches", r"(\1 sts in total)", r". Total: \1 sts", r"– \1 sts in all")),
    (r"(?<!\d )\((\d+) sts\)$", (r"– \1 sts", r"[\1]", r"(total \1 sts)", r"– you have \1 sts")),
    (r"^Rnd (\d+):", (r"Round \1:", r"R\1:", r"Rnd \1 -", r"RND \1.")),
    (r"^Row (\d+):", (r"ROW \1:", r"Row \1 –", r"Row \1.", r"R\1:")),
    (r"\bsc\b", ("single crochet",)),
    (r"\bhdc\b", ("half double crochet",)),
)  # fmt: skip


def cases(seed: int) -> Iterator[tuple[str, int, str]]:
    """(text, line, the line in other words) without end, in US terms, drawn at random from rows that are proved."""
    chance = random.Random(seed)
    texts = [text for text in shipped().values() if "UK" not in text]
    while True:
        text = chance.choice(texts)
        proof = prove_as_read(text)
        rows = {line.span.line for _, line in proof.pattern.lines() if isinstance(line, Row)}
        right = [line.line for line in proof.lines if line.proved and line.line in rows]
        if not right:
            continue
        at = chance.choice(right)
        written = text.split("\n")[at - 1]
        said = reworded(written, chance)
        if said != written:
            yield text, at, said


def reworded(line: str, chance: random.Random) -> str:
    """The line with one to three of its turns of phrase said otherwise."""
    able = [(pattern, others) for pattern, others in REWORDINGS if re.search(pattern, line)]
    for pattern, others in chance.sample(able, min(len(able), chance.randint(1, 3))):
        line = re.sub(pattern, chance.choice(others), line, count=1)
    return line


def outcome(case: tuple[str, int, str]) -> tuple[str, str]:
    """What becomes of the row, and of those below it: (proved | asked | not understood | wrong, what is found)."""
    text, at, said = case
    lines = text.split("\n")
    lines[at - 1] = said
    asked = ask("\n".join(lines))
    before = {line.line for line in prove_as_read(text).lines if line.proved}
    errors = [f for f in asked.proof.findings if f.severity == "error" and f.code != "not-understood"]
    found = next((f"{f.span.line}: {f.message}" for f in errors if f.span.line in before), "")
    if found:
        return "wrong", found
    mark = next((line.mark for line in asked.proof.lines if line.line == at), "prose")
    if mark in ("proved", "true") and any(at in question.lines for question in asked.questions):
        mark = "asked"
    unread = next((f.message for f in asked.proof.findings if f.span.line == at and f.severity != "note"), "")
    return mark, unread


def main(count: int, seed: int) -> None:
    draw = cases(seed)
    some = [next(draw) for _ in range(count)]
    with ProcessPoolExecutor() as pool:
        found = list(pool.map(partial(outcome), some, chunksize=4))
    print(dict(Counter(mark for mark, _ in found)))
    for (text, at, said), (mark, why) in zip(some, found, strict=True):
        if mark != "proved":
            print(f"- {mark}: {text.split(chr(10))[at - 1]}\n  -> {said}\n     {why}")


if __name__ == "__main__":
    main(*(int(one) for one in (*sys.argv[1:], *("300", "7")[len(sys.argv) - 1 :])))
