"""Repairs are tried before they are offered: each one makes its line true, in its size and in no other."""

import random
import re
from pathlib import Path

import pytest

from rillstep.core.findings import Finding, apply_edits
from rillstep.core.notation import parse
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read
from rillstep.core.tree import Row, lines_of
from rillstep.core.words.numbers import edit_value, numbers_in

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))


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


@pytest.mark.parametrize("path", CORPUS, ids=[path.stem for path in CORPUS])
def test_every_repair_that_is_offered_makes_its_line_true(path: Path) -> None:
    text = path.read_text()
    for wrong, _, _ in slips(text, random.Random(path.stem), 6):
        for finding in errors(prove_text(wrong))[:3]:
            for repair in finding.repairs:
                mended = prove_text(apply_edits(wrong, repair.edits))
                again = [f for f in errors(mended) if f.span.line == finding.span.line and f.code == finding.code]
                assert not [f for f in again if f.size == finding.size], (wrong, finding, repair)


@pytest.mark.parametrize("path", CORPUS[::2], ids=[path.stem for path in CORPUS[::2]])
def test_a_slip_in_one_size_is_no_fault_of_the_others(path: Path) -> None:
    text = path.read_text()
    sizes = len(parse(text).pattern.sizes)
    if sizes < 2:
        pytest.skip("one size only")
    for wrong, row, size in slips(text, random.Random(path.stem + "!"), 6):
        for finding in errors(prove_text(wrong)):
            if finding.span.line in lines_of(row) and finding.size is not None:
                assert finding.size == size or finding.code == "starting-chain-uneven"


def test_the_text_is_offered_back_as_it_was() -> None:
    tried = offered = 0
    for path in CORPUS:
        text = path.read_text()
        for wrong, _, _ in slips(text, random.Random(path.stem), 3):
            found = errors(prove_text(wrong))
            if not found:
                continue
            tried += 1
            texts = [apply_edits(wrong, repair.edits) for repair in found[0].repairs[:3]]
            offered += any(prove_text(one).pattern == prove_text(text).pattern for one in texts)
    assert tried > 60
    assert offered / tried > 0.85
