"""What is read or held wrongly to this day: each case is a strict expected failure, until what it asks for is built."""

import pytest

from rillstep.core.parts import divide
from rillstep.core.proof import Proof, prove_text

BEGIN = "Make a magic ring.\nRnd 1: 6 sc in ring. (6)\nRnd 2: 2 sc in each st around. (12)\n"
not_yet = pytest.mark.xfail(strict=True, raises=AssertionError)


def marks(text: str) -> list[str]:
    return [line.mark for line in prove_text(text).lines]


def errors(proof: Proof) -> list[str]:
    return [finding.code for finding in proof.findings if finding.severity == "error"]


@not_yet
@pytest.mark.parametrize(
    ("notes", "name"),
    [
        ("Notes\n1) Worked in rounds.\n2) Ch 2 counts as a hdc.\n3) Row 3 sets the pattern.\n\nBase\n", ""),
        ("NOTE 1: ch 1 never counts\nNOTE 2: work in the back loop of Rnd 2 only\nBase\n", ""),
    ],
)
def test_a_numbered_note_is_a_note(notes: str, name: str) -> None:
    proof = prove_text(notes + BEGIN)
    assert [line.mark for line in proof.lines] == ["proved", "proved"] and proof.pattern.name == name


@not_yet
@pytest.mark.parametrize(
    "sentence",
    [
        "With a 4 mm hook, I get 18 stitches and 20 rows over four inches of single crochet.",
        "My swatch of 20 sts by 22 rows came to 10 cm each way.",
    ],
)
def test_a_gauge_is_read_from_a_sentence(sentence: str) -> None:
    assert len(prove_text(f"{sentence}\n\n{BEGIN}").pattern.gauges) == 1


PANEL = "Panel\nCh 21.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (20)\nRows 2-20: Ch 1, sc in each st across; turn. (20)\n"


@not_yet
def test_an_edge_has_the_stitches_of_what_it_is_worked_along() -> None:
    border = "Border\nRnd 1: Work 31 sc evenly along each side edge and 20 sc along each short edge. (102)\n"
    proof = prove_text(PANEL + border)
    assert errors(proof) and "not-understood" not in errors(proof)


@not_yet
@pytest.mark.parametrize(
    "words", ["Place markers in stitches 5 and 29 of Rnd 3.", "Weave the cord through the 12 eyelets of Rnd 4."]
)
def test_a_number_in_kept_words_is_held_to_what_it_counts(words: str) -> None:
    text = f"Body\n{BEGIN}Rnd 3: [Sc in next st, inc] 6 times. (18)\nRnd 4: [Sc in next 2 sts, ch 1, sk next st] 6 times. (18)\n"
    assert prove_text(text + words + "\n").findings


STRIP = "Ch 21.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (20)\nRow 2: Ch 1, sc in each st across, turn. (20)\n"


def most_of_a_part(text: str) -> float:
    """The longest of two parts, as a share of all stitches that are worked; a piece counts as often as it is made."""
    divided = divide(prove_text(text).pattern, 2)
    assert len(divided.parts) == 2
    work = divided.proof.works[0]
    sections = divided.pattern.sections
    done = [
        sum(
            counts.sts * sections[line.section].made(0)
            for line in work.lines
            if part.first_line <= line.line.span.line <= part.last_line
            for counts in line.rounds
        )
        for part in divided.parts
    ]
    return max(done) / sum(done)


@not_yet
def test_a_line_that_repeats_a_row_is_cut_within_it() -> None:
    assert most_of_a_part(f"PANEL\n{STRIP}Rows 3-60: Rep Row 2. (20)\n") < 0.6


@not_yet
def test_a_piece_that_is_made_twice_counts_twice_where_parts_are_balanced() -> None:
    """The strap is made four times: 480 stitches, as many as the panel and the tab together."""
    panel = f"PANEL\n{STRIP}Row 3: Ch 1, sc in each st across, turn. (20)\n" + "".join(
        f"Row {n}: Ch 1, sc in each st across, turn. (20)\n" for n in range(4, 21)
    )
    tab = "TAB\n" + STRIP + "Rows 3-5: Ch 1, sc in each st across, turn. (20)\n"
    strap = "STRAP (make 4)\n" + STRIP + "Rows 3-6: Ch 1, sc in each st across, turn. (20)\n"
    assert most_of_a_part(f"{panel}\n{tab}\n{strap}") < 0.6
