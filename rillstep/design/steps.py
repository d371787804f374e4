"""The steps of a maker's page: a size one line at a time, a range of rounds one step for each round."""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.craft import Terms
from rillstep.core.fabric import RowsByNumber
from rillstep.core.printing.step_words import write_sentence
from rillstep.core.printing.writer import check_word, write_besides, write_check, write_line, write_make, write_stated
from rillstep.core.proof import Hand
from rillstep.core.tree import Again, Check, Prose, Row, Setup
from rillstep.design.facts import Facts

StepKind = Literal["row", "setup", "words"]


@dataclass(frozen=True)
class Step:
    """line: the number of the line in the text for all sizes, where the designer reads reports. label: "Rnd 4"; of:
    what it is one of; total: as it is stated, in words; sts: the stated stitches, None where none are."""

    line: int
    section: str
    label: str
    of: str
    text: str
    total: str
    sts: int | None
    kind: StepKind


def steps_of(facts: Facts, size: str, terms: Terms, hand: Hand) -> list[Step]:
    """The steps of a size in their order; none where there is no such size."""
    if size not in facts.proof.pattern.sizes:
        return []
    index = facts.proof.pattern.sizes.index(size)
    pattern = facts.printed(terms, index, hand, whole=True).proof.pattern
    whole = facts.printed(terms, None, "right", whole=True).proof.pattern
    steps: list[Step] = []
    for at, (section, of_all) in enumerate(zip(pattern.sections, whole.sections, strict=True)):
        title = section.title
        originals = [line for line in of_all.lines if index in line.sizes]
        by_number = RowsByNumber(pattern, at, 0)
        if (often := write_make(section)) and originals:
            steps.append(Step(originals[0].span.line, title, "How many", "", often, "", None, "words"))
        for line, original in zip(section.lines, originals, strict=True):
            number = original.span.line
            if isinstance(line, Setup):
                steps.append(Step(number, title, "", "", write_line(line, terms, pattern.units), "", None, "setup"))
            elif isinstance(line, Prose):
                steps.append(Step(number, title, "Note" if line.note else "", "", line.text, "", None, "words"))
            elif isinstance(line, Check):
                told = f"{write_check(line, pattern.units)}."
                steps.append(Step(number, title, check_word(line), "", told, "", None, "words"))
            elif isinstance(line, Row | Again):
                rows = [line] if isinstance(line, Row) else by_number.sources(line)
                steps += _rounds(line, rows, number, title, terms)
    return steps


def _rounds(line: Row | Again, rows: list[Row], number: int, title: str, terms: Terms) -> list[Step]:
    """A step for each round of a line. Makers read the rows in full, not "rep"."""
    first, rounds = line.first.at(0), line.rounds(0)
    of = f"{line.kind}s {first}–{first + rounds - 1}, worked alike" if rounds > 1 else ""
    sts = next((t.count.at(0) for t in line.totals if t.what == "sts"), None)
    steps = []
    for offset in range(rounds if rows else 0):
        source, label = rows[offset % len(rows)], f"{line.kind} {first + offset}"
        text = f"{write_sentence(source.steps, source.kept, terms)}."
        if isinstance(line, Again) and offset == rounds - 1:
            text += "".join(f" {words[:1].upper()}{words[1:]}." for words in write_besides(line, terms))
        steps.append(Step(number, title, label, line.name or of, text, write_stated(line, terms), sts, "row"))
    return steps
