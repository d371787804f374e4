"""What a text leaves open, as questions with answers that are edits of the text.

A warning says that something is open; a question lets it be closed with one choice. Each answer
writes into the text what the designer knows and the text does not say.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.craft import abbreviation
from rillstep.core.findings import Edit, Repair, Span
from rillstep.core.measures import is_beside
from rillstep.core.printing.writer import write_label, write_section_head
from rillstep.core.proof.prove import Proof
from rillstep.core.tree import ROLES, Again, Chain, Row, Section, Work, lines_of
from rillstep.core.words.numbers import set_text


@dataclass(frozen=True)
class Question:
    """Something that the text leaves open. code: "chain-counts", "which-wall", "how-folded" or "how-joined"; the
    answers are edits."""

    code: str
    span: Span
    words: str
    answers: tuple[Repair, ...]


def questions(proof: Proof, text: str) -> tuple[Question, ...]:
    """What is asked about a proved text: starting chains first, once for each length in a section."""
    rows = text.split("\n")
    joined = tuple(_joined(proof, rows))
    may_be_a_wall = proof.bag is not None and proof.bag.body.build in ("wall", "unknown")
    return (*_chains(proof), *joined, *(_wall(proof, rows) if may_be_a_wall and not joined else ()))


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


def _joined(proof: Proof, rows: list[str]) -> Iterator[Question]:
    """How one panel is folded, or two are joined, decides the height of a bag."""
    if proof.bag is None or proof.bag.body.build != "unknown":
        return
    pattern = proof.pattern
    panels = [
        s for s in pattern.sections if not is_beside(s) and any(isinstance(line, Row | Again) for line in s.lines)
    ]
    made = sum(max(section.make) for section in panels)
    if not panels or made > 2 or any(section.role in ("square", "fan") for section in panels):
        return
    end = max(max(lines_of(line)) for line in panels[-1].lines if isinstance(line, Row | Again))
    after = Span(end, len(rows[end - 1]) + 1, len(rows[end - 1]) + 1)
    if made == 2:
        words = "How are the two panels joined?"
        sewn = Repair("Sewn together along their sides", (Edit(after, "\nNote: The panels are sewn together."),))
        yield Question("how-joined", panels[0].span, words, (sewn,))
        return
    half = Repair("In half", (Edit(after, "\nFold: in half."),))
    at = pattern.sections.index(panels[0])
    found = [len(one.rounds) for pieces in proof.bag.pieces if (one := pieces[at]) is not None]
    answers = [half]
    if len(found) == len(pattern.sizes) and all(many >= 5 for many in found):
        flap = [many // 5 for many in found]
        front = [(many - few) // 2 for many, few in zip(found, flap, strict=True)]
        rest = [many - 2 * one for many, one in zip(found, front, strict=True)]
        parts = (("front", front), ("back", front), ("flap", rest))
        told = "Fold: " + ", ".join(f"{name} {set_text(tuple(many))} rows" for name, many in parts) + "."
        answers.append(Repair("Front, back and a flap (write your rows)", (Edit(after, f"\n{told}"),)))
    yield Question("how-folded", panels[0].span, "How is the panel folded?", tuple(answers))


def _says_role(rows: list[str], section: Section, role: str) -> bool:
    words = rows[section.span.line - 1].lower().partition("(")[2]
    return role in [word.strip(" ).,") for word in words.replace(")", ",").split(",")]
