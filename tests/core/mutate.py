"""`make mutate`: every number of the corpus one more and one less in one size, stitch words swapped, rows dropped or doubled.

A change counts only when it alters the outcome: the counts of some row in some size, or whether a
row can be worked. (A word swapped for another stitch that changes no count does not count as altering.) It is found when the proof has a finding in a changed size at the changed line, or
one whose related lines or repairs name that line.
"""

import re
import sys
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from rillstep.core.fabric import LineWork
from rillstep.core.findings import Edit, Finding, apply_edits
from rillstep.core.notation import parse
from rillstep.core.proof import Proof, prove_text
from rillstep.core.tree import Again, Check, Pattern, Row, Setup
from rillstep.core.words.numbers import edit_value, numbers_in
from tests.core import clauses

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
    yield from _numbers(text, prove_text(text).pattern)
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
    """Stitches and spaces after each line, whether it can be worked, and what it states. Which stitch it is changes no count."""
    return [[_of_line(line) for line in work.lines] for work in proof.works]


def _of_line(line: LineWork) -> tuple[object, ...]:
    stated = [total.count.values for total in getattr(line.line, "totals", ())]
    return line.line.span.line, [(counts.sts, counts.spaces) for counts in line.rounds], line.trouble is None, stated


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


def stands_alone(mutant: Mutant, pattern: Pattern) -> bool:
    """Is the change beyond any proof? Nothing in the text says how many rows a section has, when its last line is dropped,
    doubled or ranges on to another number: the text that remains is true. (`Check:` lines are there to say it.)"""
    for section in pattern.sections:
        rows = [line for line in section.lines if isinstance(line, Row | Again)]
        # The last line of a section in some size: lines for other sizes only may stand behind it.
        last = {next((r.span.line for r in reversed(rows) if size in r.sizes), 0) for size in range(len(pattern.sizes))}
        if mutant.line not in last:
            continue
        if mutant.kind in ("dropped", "doubled"):
            return True
        row = next(r for r in rows if r.span.line == mutant.line)
        changed = [r for r in parse(mutant.text).pattern.lines() if r[1].span.line == mutant.line]
        return mutant.kind == "number" and bool(changed) and getattr(changed[0][1], "last", None) != row.last
    return False


def run(paths: list[Path]) -> tuple[Counter[str], list[str]]:
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
            elif stands_alone(mutant, prove_text(text).pattern):
                counted["alone"] += 1
            else:
                row = mutant.text.split("\n")[mutant.line - 1]
                survivors.append(f"{path.stem}:{mutant.line} {mutant.kind} {mutant.size}: {row[:150]}")
            if mutant.kind == "number":
                counted["numbers"] += 1
                counted["repaired"] += repaired(text, mutant, after)
    return counted, survivors


def in_parallel(paths: list[Path]) -> tuple[Counter[str], list[str]]:
    """`run`, a pattern at a time on every core, saying how each went."""
    counted: Counter[str] = Counter()
    survivors: list[str] = []
    with ProcessPoolExecutor() as pool:
        for path, (more, left) in zip(paths, pool.map(run, ([path] for path in paths)), strict=True):
            print(f"{path.stem}: {more['found']} of {more['altering']}", flush=True)
            counted, survivors = counted + more, survivors + left
    return counted, survivors


def main(paths: list[Path]) -> None:
    counted, survivors = in_parallel(paths)
    provable = counted["altering"] - counted["alone"]
    print(f"{counted['tried']:,} changes, {counted['altering']:,} alter the outcome, {counted['found']:,} found "
          f"({100 * counted['found'] / max(1, counted['altering']):.2f} %)")  # fmt: skip
    print(f"{counted['alone']:,} leave a text that is true (the last line of a section, with no check behind it); of the others "
          f"{100 * counted['found'] / max(1, provable):.2f} % are found")  # fmt: skip
    print(f"{counted['numbers']:,} single-number faults, {counted['repaired']:,} with the original among three repairs "
          f"({100 * counted['repaired'] / max(1, counted['numbers']):.1f} %)")  # fmt: skip
    for survivor in survivors:
        print("  survivor", survivor)
    _clauses(paths)


CLAUSES_A_TEXT = 24


def _of_clauses(path: Path) -> tuple[Counter[tuple[bool, str]], list[str]]:
    return clauses.run(path.read_text(), path.stem, CLAUSES_A_TEXT)


def _clauses(paths: list[Path]) -> None:
    """What became of clauses that were put into rows: those that change the work, and those that do not."""
    counted: Counter[tuple[bool, str]] = Counter()
    wrong: list[str] = []
    with ProcessPoolExecutor() as pool:
        for more, left in pool.map(_of_clauses, paths, chunksize=4):
            counted, wrong = counted + more, wrong + left
    for changes, what in ((True, "that change the work"), (False, "that change nothing")):
        came = {outcome: count for (changed, outcome), count in counted.items() if changed == changes}
        told = ", ".join(f"{count:,} {outcome}" for outcome, count in sorted(came.items(), key=lambda item: -item[1]))
        print(f"{sum(came.values()):,} clauses {what}: {told}")
    for one in wrong:
        if " proved: " in one or " refuted: " in one:
            print("  clause", one)


if __name__ == "__main__":
    names = sys.argv[1:]
    main([path for path in CORPUS if not names or path.stem in names])
