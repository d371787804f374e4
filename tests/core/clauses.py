"""Clauses put into rows that are true: those that change the work, none of which may leave its line proved as it was,
and those that change nothing, which should.

`{n}`, `{nth}` and `{st}` are filled with other numbers and stitches each time. Where a clause stands in a row varies too.
"""

import random
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.proof import Proof, prove_text
from rillstep.core.tree import Again, Gesture, Row

CHANGING = (
    "working last {n} sts together", "placing last {n} {st} in same st", "last {st} is skipped", "(using {st}2tog over last 2 sts)", "(always skip first {n} sts)",
    "skipping every {nth} st", "leaving the last {n} sts unworked", "but only in every other st", "working {n} {st} in each corner", "increasing in every {nth} st",
    "working {n} together at the end", "with {n} {st} in the last st", "adding {n} {st} at the end", "omitting the last {n} sts", "except in the first {n} sts",
    "then skip the next {n} sts", "and then {n} more {st} in the same st", "working two {st} together at each marker", "(work twice into the last st)", "(miss the first {st})",
    "last st worked twice", "first st left free", "every {nth} stitch doubled", "with a double increase in the middle", "working {st}2tog wherever two sts meet",
    "skipping the st behind each ch", "working into every second st only", "ending {n} sts before the marker", "stopping {n} sts short of the end", "finish with {n} {st} in one st",
    "repeat this once more", "work this part twice", "do this {n} times", "alternating {st} and skipped sts", "with one st fewer at each end", "with an extra st at each end",
    "joining the last two sts into one", "drop the last st", "leave one st between", "decrease once over the last two sts", "an increase falls on every {nth} st",
    "(a decrease over the first two sts)", "(repeat the last {n} sts)", "(two in the last st)", "(skip one, work one)", "(in every other st)", "(last two together)", "(not in the first st)",
    "not working the last {n}", "working the final {n} as one", "taking {n} sts at a time", "making {n} out of each", "halving the number of sts", "doubling the st count",
    "with {n} chains between", "with ch {n} between sts", "ch {n} after each st", "and a ch-{n} loop at the end", "with a picot of {n} ch on every {nth} st",
    "work {n} extra sts along the side", "pick up {n} sts at the corner", "go back and fill in the skipped sts", "turn after {n} sts", "stop at the marker and turn",
    "missing alternate sts", "gathering {n} sts into one", "{n} sts are left at the end", "the last {n} sts stay free", "in front loops of the last {n} sts only, the rest skipped",
    "replacing the last {st} by a decrease", "instead of the last {n} sts work one {st}", "unworked sts remain at both ends", "crossing every {nth} st over the next", "work the corner st three times",
    "(the first {n} sts are not worked)", "(last one is a decrease)", "(put {n} in the last)", "[skip the last st]", "skip st, work st", "cutting off the last {n} sts",
)  # fmt: skip
HARMLESS = (
    "pull tight", "pulling the yarn snug", "keeping your tension loose", "(take your time)", "for the bottom of the bag", "(this will be the front)", "taking care not to twist",
    "(pull ring closed)", "(handle made)", "(corner made)", "(first handle made)", "using a {n} mm hook", "leaving a long tail", "(leaving a {n} cm tail)", "as for the lining",
    "moving the marker up", "(move marker up)", "with RS facing", "(RS facing)", "holding the yarn at the back", "(see photo)", "(see notes)", "be careful here",
    "check the size against your flask", "(the bag will curl a little)", "working loosely", "(work loosely)", "gently", "(optional)", "lay the piece flat",
    "it may look wavy", "so that it lies flat", "(this is normal)", "with two strands held together", "do not cut yarn", "hide the tail as you go", "carrying the yarn along",
    "(weave in the tail)", "for the strap", "to make the rim firm", "(don't pull too tight)", "use your own colour here", "hold your work steady", "keep an even tension",
    "(it will look like a star)", "making sure the fabric is firm", "take a break", "(count carefully)",
)  # fmt: skip


@dataclass(frozen=True)
class Inserted:
    """A text with a clause in one of its lines, and whether the clause changes the work."""

    text: str
    line: int
    clause: str
    changes: bool


def inserted(text: str, proof: Proof, seed: str, most: int) -> Iterator[Inserted]:
    """The text with clauses put into its proved rows, one at a time, `most` of them; which and where is drawn from the seed."""
    draw = random.Random(seed)
    lines = text.split("\n")
    proved = {line.line for line in proof.lines if line.mark == "proved"}
    ends = {
        line.span.line: at
        for _, line in proof.pattern.lines()
        if line.span.line in proved and (at := _ends(line, lines))
    }
    clauses = [(clause, True) for clause in CHANGING] + [(clause, False) for clause in HARMLESS]
    for clause, changes in draw.sample(clauses * (1 + most // len(clauses)), most) if ends else ():
        number = draw.choice(sorted(ends))
        words = clause.format(
            n=draw.randint(2, 9), nth=draw.choice(("3rd", "4th", "5th")), st=draw.choice(("sc", "hdc", "dc"))
        )
        row, at = lines[number - 1], draw.choice(ends[number])
        gap = " " if words[0] in "([" else ", " if draw.random() < 0.8 else "; "
        changed = f"{row[:at]}{gap}{words}{row[at:]}"
        yield Inserted("\n".join([*lines[: number - 1], changed, *lines[number:]]), number, words, changes)


def _ends(line: object, lines: list[str]) -> list[int]:
    """Where steps of a row end, mostly the last one that makes stitches; [] for any other line."""
    if (isinstance(line, Again) and not line.totals and line.span.line == line.last_line) or (
        isinstance(line, Again) and not line.totals and not line.last_line
    ):
        return [len(lines[line.span.line - 1].rstrip(" ."))]
    if not isinstance(line, Row) or line.last_line not in (0, line.span.line) or "#" in lines[line.span.line - 1]:
        return []
    works = [
        step.span.end_column - 1
        for step in line.steps
        if not isinstance(step, Gesture) and step.span.line == line.span.line and step.span.end_column > 1
    ]
    return [works[-1]] * 3 + works if works else []


def outcome(one: Inserted, before: Proof, after: Proof) -> str:
    """What became of a clause: "worked" (other steps than before), "refuted", "not understood", "not checked" or "proved"."""
    line = next((proved for proved in after.lines if proved.line == one.line), None)
    if line is None:
        return "not understood"
    if line.mark == "proved" and (
        _steps(before, one.line) != _steps(after, one.line) or _sts(before, one.line) != line.sts
    ):
        return "worked"
    return {"wrong": "refuted", "unchecked": "not checked"}.get(line.mark, line.mark)


def _sts(proof: Proof, number: int) -> object:
    return next((line.sts for line in proof.lines if line.line == number), None)


def _steps(proof: Proof, number: int) -> list[object]:
    return [
        getattr(line, "steps", None)
        for _, line in proof.pattern.lines()
        if isinstance(line, Row | Again) and line.span.line == number
    ]


def run(text: str, seed: str, most: int) -> tuple[Counter[tuple[bool, str]], list[str]]:
    """How many clauses came to what, and those that should not have."""
    counted: Counter[tuple[bool, str]] = Counter()
    wrong: list[str] = []
    before = prove_text(text)
    for one in inserted(text, before, seed, most):
        came = outcome(one, before, prove_text(one.text))
        counted[one.changes, came] += 1
        if (one.changes and came == "proved") or (not one.changes and came != "proved"):
            wrong.append(f"{seed}:{one.line} {came}: {one.clause}: {one.text.splitlines()[one.line - 1][:160]}")
    return counted, wrong
