"""What a text leaves open, as questions with answers that are edits of the text.

A warning says that something is open; a question lets it be closed with one choice. Each answer
writes into the text what the designer knows and the text does not say.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.findings import Edit, Repair, Span
from rillstep.core.printing.writer import write_label, write_section_head
from rillstep.core.proof.prove import Proof
from rillstep.core.stitches import abbreviation
from rillstep.core.tree import ROLES, Chain, Row, Section, Work, lines_of


@dataclass(frozen=True)
class Question:
    """Something that the text leaves open. code: "chain-counts" or "which-wall"; the answers are edits."""

    code: str
    span: Span
    words: str
    answers: tuple[Repair, ...]


def questions(proof: Proof, text: str) -> tuple[Question, ...]:
    """What is asked about a proved text: starting chains first, once for each length in a section."""
    return (*_chains(proof), *_wall(proof, text.split("\n")))


def _chains(proof: Proof) -> Iterator[Question]:
    asked: set[tuple[str, str]] = set()
    for finding in proof.findings:
        if finding.code != "chain-unsaid":
            continue
        found = _row_at(proof, finding.span.line)
        if found is None:
            continue
        section, row = found
        chain = next((s for s in row.steps if isinstance(s, Chain) and s.span == finding.span), None)
        stitch = next((s.stitch for s in row.steps if isinstance(s, Work) and s.stitch != "sl st"), "dc")
        name = abbreviation(stitch, proof.pattern.terms)
        what = f"the ch {chain.length.at(row.sizes[0])}" if chain is not None else "the skipped chains"
        if (section.title, what) in asked:
            continue
        asked.add((section.title, what))
        end = Span(finding.span.line, finding.span.end_column, finding.span.end_column)
        count = "counts" if chain is not None else "skipped ch count"
        answers = [Repair(f"Yes, it is a {name}", (Edit(end, f" ({count} as {name})"),))]
        if chain is not None:
            answers.append(Repair("No, it is only a turning chain", (Edit(end, " (does not count)"),)))
        words = f"Does {what} at the start of {write_label(row)} count as a stitch?"
        yield Question("chain-counts", finding.span, words, tuple(answers))


def _row_at(proof: Proof, line: int) -> tuple[Section, Row] | None:
    for section, row in proof.pattern.lines():
        if isinstance(row, Row) and line in lines_of(row):
            return section, row
    return None


def _wall(proof: Proof, rows: list[str]) -> Iterator[Question]:
    """Which piece is the wall decides every measure; it is asked where there are several, and none is said to be it."""
    pattern = proof.pattern
    pieces = [s for s in pattern.sections if any(isinstance(line, Row) for line in s.lines)]
    if not pattern.gauges or len(pieces) < 2 or any(_says_role(rows, s, "wall") for s in pieces):
        return
    open_ones = [s for s in pieces if not any(_says_role(rows, s, role) for role in ROLES)]
    if not open_ones:
        return
    answers = []
    for section in open_ones:
        line = section.span.line
        head = write_section_head(
            Section(section.title, section.worked, "wall", (), section.continues, section.on, section.make)
        )
        answers.append(Repair(section.title, (Edit(Span(line, 1, len(rows[line - 1]) + 1), head),)))
    yield Question("which-wall", open_ones[0].span, "Which piece is the wall of the bag?", tuple(answers))


def _says_role(rows: list[str], section: Section, role: str) -> bool:
    words = rows[section.span.line - 1].lower().partition("(")[2]
    return role in [word.strip(" ).,") for word in words.replace(")", ",").split(",")]
