"""`make mutate`: every number of the corpus one more and one less in one size, stitch words swapped, rows dropped or doubled.

A change counts only when it alters the outcome: the counts of some row in some size, or whether a
row can be worked. It is found when the proof has a finding in a changed size at the changed line, or
one whose related lines or repairs name that line.
"""

import re
import sys
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from rillstep.core.findings import Edit, Finding, apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.numbers import edit_value, numbers_in
from rillstep.core.notation.tree import Again, Check, Pattern, Row, Setup
from rillstep.core.proof import Proof, prove_text

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
SWAPS = {
    "sc": "hdc",
    "hdc": "dc",
    "dc": "sc",
    "tr": "dc",
    "sc2tog": "sc",
    "inc": "sc",
    "dec": "sc",
    "sk": "sc in",
    "shell": "sc",
    "puff": "sc",
}


@dataclass(frozen=True)
class Mutant:
    """A changed text. `line`: where; `size`: in which size, None for all."""

    kind: str
    line: int
    size: int | None
    text: str
    original: tuple[str, ...] = ()


def mutants(text: str) -> Iterator[Mutant]:
    """All changes of a text."""
    yield from _numbers(text, parse(text).pattern)
    lines = text.split("\n")
    for index, line in enumerate(lines):
        if not re.match(r"\s*(rnds?|rounds?|rows?|r\d)", line, re.IGNORECASE):
            continue
        for word in re.finditer(r"\b(?:" + "|".join(SWAPS) + r")\b", line):
            changed = line[: word.start()] + SWAPS[word[0]] + line[word.end() :]
            yield Mutant("word", index + 1, None, "\n".join([*lines[:index], changed, *lines[index + 1 :]]))
        yield Mutant("dropped", index + 1, None, "\n".join([*lines[:index], "", *lines[index + 1 :]]))
        yield Mutant("doubled", index + 1, None, "\n".join([*lines[:index], line, *lines[index:]]))


def _numbers(text: str, pattern: Pattern) -> Iterator[Mutant]:
    for _, line in pattern.lines():
        if not isinstance(line, Row | Again | Setup | Check):
            continue
        for number in numbers_in(line):
            for size, value in enumerate(number.values):
                if value is None:
                    continue
                for new in (value + 1, value - 1):
                    if new < 0 or _is_ordinal(text, number.span):
                        continue
                    edit = edit_value(number, size, new)
                    yield Mutant(
                        "number", line.span.line, size if len(number.values) > 1 else None, apply_edits(text, (edit,))
                    )


def _is_ordinal(text: str, span: object) -> bool:
    row = text.split("\n")[span.line - 1]  # type: ignore[attr-defined]
    return re.match(r"(st|nd|rd|th)\b", row[span.end_column - 1 :]) is not None  # type: ignore[attr-defined]


def alters(before: Proof, after: Proof) -> bool:
    """Does a change alter what is worked, or what is stated?"""
    return _outcome(before) != _outcome(after)


def _outcome(proof: Proof) -> list[object]:
    return [
        [
            (
                line.line.span.line,
                line.rounds,
                line.trouble is None,
                [t.count.values for t in getattr(line.line, "totals", ())],
            )
            for line in work.lines
        ]
        for work in proof.works
    ]


def is_found(mutant: Mutant, before: Proof, after: Proof) -> bool:
    """Is there a new finding that points at the change, in its size?"""
    known = {_key(f) for f in before.findings}
    near = {mutant.line} if mutant.kind == "number" else {mutant.line - 1, mutant.line, mutant.line + 1}
    for finding in after.findings:
        if finding.severity == "caution" or _key(finding) in known:
            continue
        if mutant.size is not None and finding.size not in (None, mutant.size):
            continue
        lines = {finding.span.line, *(span.line for span in finding.related)}
        lines |= {edit.span.line for repair in finding.repairs for edit in repair.edits}
        if lines & near:
            return True
    return False


def _key(finding: Finding) -> tuple[object, ...]:
    return (finding.code, finding.span, finding.size, finding.found, finding.expected)


def repaired(original: str, mutant: Mutant, after: Proof) -> bool:
    """Is the true original among the first three repairs of the first finding in that size?"""
    wanted = parse(original).pattern
    for finding in after.findings:
        if finding.severity == "error" and finding.repairs:
            for repair in finding.repairs[:3]:
                edits: tuple[Edit, ...] = repair.edits
                if parse(apply_edits(mutant.text, edits)).pattern == wanted:
                    return True
    return False


def run(paths: list[Path], say: bool = True) -> tuple[Counter[str], list[str]]:
    """Counts of tried, altering, found, and (of numbers) repaired; and the survivors."""
    counted: Counter[str] = Counter()
    survivors: list[str] = []
    for path in paths:
        text = path.read_text()
        before = prove_text(text)
        for mutant in mutants(text):
            after = prove_text(mutant.text)
            counted["tried"] += 1
            if not alters(before, after):
                continue
            counted["altering"] += 1
            if is_found(mutant, before, after):
                counted["found"] += 1
            else:
                row = mutant.text.split("\n")[mutant.line - 1]
                survivors.append(f"{path.stem}:{mutant.line} {mutant.kind} {mutant.size}: {row[:150]}")
            if mutant.kind == "number":
                counted["numbers"] += 1
                counted["repaired"] += repaired(text, mutant, after)
        if say:
            print(f"{path.stem}: {counted['found']} of {counted['altering']}", flush=True)
    return counted, survivors


def main(paths: list[Path]) -> None:
    counted, survivors = run(paths)
    print(f"{counted['tried']:,} changes, {counted['altering']:,} alter the outcome, {counted['found']:,} found "
          f"({100 * counted['found'] / max(1, counted['altering']):.2f} %)")  # fmt: skip
    print(f"{counted['numbers']:,} single-number faults, {counted['repaired']:,} with the original among three repairs "
          f"({100 * counted['repaired'] / max(1, counted['numbers']):.1f} %)")  # fmt: skip
    for survivor in survivors:
        print("  survivor", survivor)


if __name__ == "__main__":
    names = sys.argv[1:]
    main([path for path in CORPUS if not names or path.stem in names])
