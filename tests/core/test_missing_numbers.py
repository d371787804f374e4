"""Numbers that a row leaves out: those that make it come out are offered, and none is assumed."""

import re
from pathlib import Path

import pytest

from rillstep.core.assumptions import ask
from rillstep.core.findings import apply_edits
from rillstep.core.printing import write
from rillstep.core.proof import prove_as_read, prove_text

CORPUS = Path(__file__).parents[1] / "corpus"
BASE = "Sizes: S, M\nRnd 1: 6 (8) sc in a magic ring. (6 (8))\nRnd 2: 2 sc in each st around. (12 (16))\n"


@pytest.mark.parametrize(
    ("row", "words", "number"),
    [
        ("Rnd 3: [Sc in next sts, 2 sc in next st] around. (15 (20))", "next … sts", "3"),
        ("Rnd 3: [Sc in next st, 2 sc in next st] times. (18 (24))", "] … times", "6 (8)"),
        ("Rnd 3: [Sc in next st, sk sts, 2 sc in next st] around. (9 (12))", "sk … sts", "2"),
    ],
)
def test_a_number_that_is_left_out_is_the_one_with_which_the_totals_come_out(row: str, words: str, number: str) -> None:
    asked = ask(BASE + row)
    (missing,) = asked.numbers
    assert (missing.words, missing.line, missing.answers[0].number) == (words, 4, number)
    assert not asked.proof.lines[-1].proved, "until it is answered, the line is what it is"
    assert prove_text(apply_edits(BASE + row, (missing.answers[0].edit,))).lines[-1].proved


def test_a_number_that_nothing_tells_has_no_answer() -> None:
    row = "Rnd 3: Sc in each st around, ch, fasten off. (12 (16))"
    for missing in ask(BASE + row).numbers:
        assert missing.answers == ()


@pytest.mark.parametrize("place", ["next sts", "next stitches", "each of next sts"])
def test_several_places_without_their_number_are_not_proved_whatever_comes_out(place: str) -> None:
    text = f"{BASE}Rnd 3: [Sc in {place}, sc in next st] around. (12 (16))"
    proof = prove_text(text)
    assert proof.lines[-1].mark == "unchecked" and "number-missing" in [one.code for one in proof.findings]
    assert prove_text(text.replace(place, "next st")).lines[-1].proved
    assert "sc in next sts" in write(proof.pattern).lower(), "print keeps what is written"


def test_a_row_that_is_wrong_and_leaves_nothing_out_is_asked_nothing() -> None:
    assert ask(BASE + "Rnd 3: [Sc in next 3 sts, 2 sc in next st] around. (16 (20))").numbers == ()


def test_numbers_left_out_in_rows_of_the_corpus_are_found_again() -> None:
    first = asked = silent = 0
    for path in sorted(CORPUS.glob("*.txt"))[::7]:
        text = path.read_text()
        rows = text.split("\n")
        proved = [line for line in prove_as_read(text).lines if line.proved and any(line.stated)]
        places = ((line, re.search(r"in next (\d+) sts", rows[line.line - 1])) for line in proved)
        line, found = next(((line, found) for line, found in places if found), (None, None))
        if line is None or found is None:
            continue
        rows[line.line - 1] = rows[line.line - 1].replace(found[0], "in next sts", 1)
        result = ask("\n".join(rows))
        silent += any(one.line == line.line and one.proved for one in result.proof.lines)
        answers = [one.answers for one in result.numbers if one.line == line.line]
        asked += bool(answers)
        first += bool(answers and answers[0] and answers[0][0].number == found[1])
    assert asked >= 8 and first >= 0.8 * asked and silent == 0, (asked, first, silent)
