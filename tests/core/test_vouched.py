"""A line that the designer vouches for: not worked, counted apart, printed without a claim, and no excuse for others."""

from dataclasses import replace

import pytest

from rillstep.core.findings import Span, apply_edits
from rillstep.core.notation.phrases import teach, vouchable
from rillstep.core.proof import counts_of, prove_text, reader_text

WORDS = "sc around the next 2 bars of the row below"
HEAD = "Pattern: A\nTerms: US\n{}\nBody\nCh 13.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (12 sc)\n"
VOUCHED = f'Means: "{WORDS}" = vouched\n'
ROWS = (
    f"Row 2: Ch 1, {WORDS}, sc in each st across, turn. (12 sc)\nRow 3: Ch 1, sc in each st across, turn. ({{}} sc)\n"
)


def marks(text: str) -> list[str]:
    return [line.mark for line in prove_text(text).lines]


def test_a_vouched_line_takes_its_total_and_has_a_mark_of_its_own() -> None:
    text = HEAD.format(VOUCHED) + ROWS.format(12)
    proof = prove_text(text)
    assert marks(text) == ["proved", "vouched", "proved"]
    assert proof.lines[2].depends == proof.lines[1].line and not proof.findings
    assert counts_of(proof).words() == "2 proved, 1 vouched for"


def test_it_excuses_no_other_line() -> None:
    assert marks(HEAD.format(VOUCHED) + ROWS.format(13)) == ["proved", "vouched", "wrong"]
    assert marks(HEAD.format("") + ROWS.format(12)) == ["proved", "not understood", "proved"]


def test_without_a_total_what_follows_is_not_known() -> None:
    text = (HEAD.format(VOUCHED) + ROWS.format(12)).replace("(12 sc)\nRow 3", "\nRow 3")
    assert marks(text) == ["proved", "vouched", "unchecked"]


def test_it_is_printed_as_it_was_written_and_claims_nothing() -> None:
    text = HEAD.format(VOUCHED) + ROWS.format(12)
    made = reader_text(prove_text(text).pattern, "US", source=text)
    line = next(line for line in made.text.split("\n") if WORDS in line)
    assert line.startswith("Note: As it was written, with the designer's word for it: Row 2") and not made.ok


@pytest.mark.parametrize("text", [ROWS.format(12), "Rows 2-5: Rep Row 1, " + WORDS + ". (12 sc)\n"])
def test_it_is_written_into_the_head_by_one_press(text: str) -> None:
    text = HEAD.format("") + text
    edit = teach(text, WORDS, "vouched", "US")
    assert not hasattr(edit, "code")
    assert "vouched" in marks(apply_edits(text, (edit,)))  # type: ignore[arg-type]


def test_a_wrong_label_is_wrong_all_the_same() -> None:
    text = HEAD.format(VOUCHED) + ROWS.format(12).replace("Row 2:", "Row 4:").replace("Row 3:", "Row 5:")
    assert marks(text)[1] == "wrong"


def test_one_word_vouches_for_nothing() -> None:
    """It would stand for every line that holds it."""
    text = HEAD.format('Means: "sc" = vouched\n') + ROWS.format(12)
    assert "vouched" not in marks(text)
    assert next(one.code for one in prove_text(text).findings) == "phrase-form"


def test_what_is_vouched_for_is_the_line_behind_its_label() -> None:
    text = HEAD.format("") + ROWS.format(12)
    finding = next(one for one in prove_text(text).findings if one.code == "not-understood")
    line = text.split("\n")[finding.span.line - 1]
    assert vouchable(line, finding) == line.partition(": ")[2]
    long = line.replace("Ch 1,", "Ch 1, " + "sc in next st, " * 20)
    told = Span(1, long.index("sc around") + 1, long.index(" of the row") + 1)
    assert vouchable(long, replace(finding, span=told)) == "sc around the next 2 bars"
    assert vouchable("Row 2: sc R", finding) == ""
