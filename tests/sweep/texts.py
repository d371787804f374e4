"""The texts of the corpus with their proofs and prints, and slips of the pen in them."""

import random
import re
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path
from typing import Literal

from rillstep.core.fabric.worked_lines import LineWork
from rillstep.core.findings import Finding, apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.parser import Parsed
from rillstep.core.printing import write
from rillstep.core.proof import Proof, Reprint, prove_text, reader_text, reprint
from rillstep.core.settling import read
from rillstep.core.tree import Chain, Gesture, Pattern, Prose, Row, Same
from rillstep.core.words.numbers import edit_value, every_number, numbers_in

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
TERMS: tuple[Literal["US", "UK"], ...] = ("US", "UK")
WIDTHS = (40, 64, 92)
# Texts whose sizes are named nowhere: without the sets of their rows there is only one.
SIZES_BY_SETS = ("pasted_kitalpha_granny_purse", "pasted_mizar_motif_bag", "pasted_stardust_phone")


@dataclass(frozen=True)
class CorpusText:
    """A text, its proof, and what it is printed as."""

    path: Path

    @property
    def name(self) -> str:
        return self.path.stem

    @cached_property
    def text(self) -> str:
        return self.path.read_text()

    @cached_property
    def proof(self) -> Proof:
        return prove_text(self.text)

    @property
    def pattern(self) -> Pattern:
        return self.proof.pattern

    @cached_property
    def prints(self) -> dict[tuple[str, int | None], Reprint]:
        """In its own terms all sizes, and each by itself; in the others all."""
        own, sizes = self.pattern.terms, range(len(self.pattern.sizes))
        other: Literal["US", "UK"] = "UK" if own == "US" else "US"
        wanted: list[tuple[Literal["US", "UK"], int | None]] = [(own, None), (other, None)]
        if len(sizes) > 1:  # one size by itself is the same print
            wanted += [*((own, size) for size in sizes)]
        return {(terms, size): reprint(self.pattern, terms, size) for terms, size in wanted}

    @cached_property
    def readers(self) -> dict[str, Reprint]:
        """Texts that stand alone: for all sizes and the last, and for the other hand and terms."""
        own, last = self.pattern.terms, len(self.pattern.sizes) - 1
        return {
            "all": reader_text(self.pattern, own),
            "last": reader_text(self.pattern, own, last if last else None),
            "left": reader_text(self.pattern, "UK" if own == "US" else "US", hand="left"),
        }

    @cached_property
    def written(self) -> dict[str, tuple[str, Parsed]]:
        texts = {terms: write(self.pattern, terms) for terms in TERMS}
        return {terms: (text, parse(text)) for terms, text in texts.items()}


def errors(proof: Proof) -> list[Finding]:
    return [finding for finding in proof.findings if finding.severity == "error"]


def slips(text: str, draw: random.Random, count: int) -> list[tuple[str, Row, int]]:
    """Texts with one number off by one in one size: (text, the row, the size)."""
    rows = [line for _, line in read(text).pattern.lines() if isinstance(line, Row) and numbers_in(line.steps)]
    found = []
    for row in draw.sample(rows, min(count, len(rows))):
        # "2nd" is written once for all sizes: nobody gets it wrong in one of them.
        numbers = [
            n
            for n in numbers_in(row.steps)
            if not re.match(r"(?:st|nd|rd|th)\b", text.split("\n")[n.span.line - 1][n.span.end_column - 1 :])
        ]
        if not numbers:
            continue
        number = draw.choice(numbers)
        size = draw.choice(row.sizes)
        value = number.at(size) + draw.choice((1, -1))
        if value > 0:
            found.append((apply_edits(text, (edit_value(number, size, value),)), row, size))
    return found


def answer(proof: Proof) -> object:
    counts = [[(w.line.span.line, w.rounds, w.trouble, w.depends, w.end) for w in work.lines] for work in proof.works]
    return proof.lines, proof.findings, counts


def typed(draw: random.Random, text: str) -> str:
    """The text with one number, word or line changed, as while somebody types."""
    lines = text.split("\n")
    at = draw.randrange(len(lines))
    numbers = list(re.finditer(r"\d+", lines[at]))
    kind = draw.random()
    if kind < 0.6 and numbers:
        number = draw.choice(numbers)
        lines[at] = lines[at][: number.start()] + str(draw.randint(1, 30)) + lines[at][number.end() :]
    elif kind < 0.75:
        lines[at] = lines[at][: draw.randrange(len(lines[at]) + 1)]
    elif kind < 0.9:
        lines.insert(at, draw.choice(lines))
    else:
        del lines[at]
    return "\n".join(lines)


def walkable(proof: Proof) -> list[tuple[int, Row, LineWork]]:
    """The rows that the slow walker can walk, each with its size and its work; foundations, rings, sides, markers and
    loops left free are beyond it."""
    return [
        (work.size, line.line, line)
        for work in proof.works
        for line in work.lines
        if isinstance(line.line, Row) and not line.around.pending and _is_walkable(line.line, line.start)
    ]


def _is_walkable(row: Row, start: object) -> bool:
    words = str(row.steps)
    beyond = (
        "InRing",
        "FromHook",
        "Marked",
        "Loops(",
        "Evenly",
        "rotate",
        "corner=True",
        "'marker'",
        "kind='end'",
        "join colour",
        "picot",
        "TopOfChain",
        "Foundation",
        "Spread",
        "between=1",
        "AsFirst",
        "change colour",
        "cable",
    )
    if row.kind == "Row" and getattr(start, "closed", False):
        return False  # a part of a round
    if any(run.place.kind == "ring" for run in getattr(start, "runs", ())):
        return False  # "8 hdc" into a ring made in the line before
    turned = [step for step in row.steps if not isinstance(step, Gesture)][-1:]
    if row.kind == "Row" and turned and isinstance(turned[0], Chain):
        return False  # the turning chain of the next row
    moves = any(getattr(step, "stitch", "") == "sl st" for step in row.steps[:3])
    fresh = getattr(start, "foundation", False) or not getattr(start, "runs", ())
    first, second = (*row.steps, None, None)[:2]
    begins = isinstance(first, Chain) and first.space is not None and isinstance(getattr(second, "into", None), Same)
    tube = isinstance(first, Chain) and "kind='ch'" in words  # a chain worked into where its round ends
    return not begins and not tube and not moves and not fresh and not any(word in words for word in beyond)


def with_names(text: str, pattern: Pattern) -> tuple[str, int]:
    """The text with a name for every set of numbers that its tree holds, defined at its end; and how many sets."""
    sizes, rows = len(pattern.sizes), text.split("\n")
    sets = {
        number.span: number.values
        for _, line in pattern.lines()
        if not isinstance(line, Prose)
        for number in every_number(line)
        if len(number.parts) == sizes > 1 and not number.offset and number.span.line
    }
    names: dict[tuple[int | None, ...], str] = {}
    replaced = 0
    for span in sorted(sets, key=lambda span: (span.line, span.column), reverse=True):
        row = rows[span.line - 1]
        written = row[span.column - 1 : span.end_column - 1]
        if re.search(r"[A-Za-z–—{-]", written) or tuple(map(int, re.findall(r"\d+", written))) != sets[span]:
            continue  # two sets that stand within each other, ordinals
        name = names.setdefault(sets[span], f"n{len(names) + 1}")
        rows[span.line - 1] = f"{row[: span.column - 1]}{{{name}}}{row[span.end_column - 1 :]}"
        replaced += 1
    defined = [f"Number: {name} = {values[0]} ({', '.join(map(str, values[1:]))})" for values, name in names.items()]
    return "\n".join([*rows, *defined]), replaced
