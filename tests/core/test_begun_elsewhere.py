"""Rows that begin in a place by its number, as the line before them says, and rows that are named as those worked into."""

import pytest

from rillstep.core.proof import prove_text, reprint

BAND = (
    "Terms: US\n\nBand\nCh 15.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. 14 sc.\n"
    "Row 2: Ch 1, sc in each sc across, turn. 14 sc.\n\nHandle\n"
)
ROWS = "\nRow 1: Ch 1, sc in same sc and in next 5 sc, turn. 6 sc.\nRow 2: Ch 1, sc in each sc across, turn. 6 sc."


@pytest.mark.parametrize(
    "words", ["Attach the yarn to the 5th sc.", "Join yarn in the 5th sc of Row 2.", "Rejoin yarn in 5th sc."]
)
def test_a_row_begins_where_the_line_before_it_joins_the_yarn(words: str) -> None:
    proof = prove_text(BAND + words + ROWS)
    assert [line.mark for line in proof.lines] == ["proved"] * 4
    assert [line.sts for line in proof.lines][2:] == [(6,), (6,)]


def test_too_few_are_left_behind_that_place() -> None:
    proof = prove_text(BAND + "Attach the yarn to the 11th sc." + ROWS)
    assert [line.mark for line in proof.lines][2:] == ["wrong", "proved"]
    assert "runs out" in next(f.message for f in proof.findings if f.severity == "error")


def test_another_row_than_the_last_is_not_checked_and_stays_in_print() -> None:
    text = BAND + "Join yarn in the 5th sc of Row 1." + ROWS
    proof = prove_text(text)
    assert [(f.span.line, f.code) for f in proof.findings if f.severity != "note"] == [(9, "place-not-checked")]
    assert "Join yarn in 5th sc of Row 1." in reprint(proof.pattern, "US", source=text).text
    missing = prove_text(text.replace("of Row 1.", "of Row 9."))
    assert [f.message for f in missing.findings if f.code == "row-not-found"] == ["Here: there is no Row 9 before it."]


def test_a_row_that_names_one_keeps_its_name_in_print() -> None:
    text = BAND + "Row 1: Join yarn in 5th sc of Row 2, ch 1, sc in same sc and in next 5 sc, turn. 6 sc."
    assert "5th sc of Row 2" in reprint(prove_text(text).pattern, "US", source=text).text


def test_stitches_along_each_of_some_sides_are_no_count() -> None:
    proof = prove_text(BAND + "Rnd 1: Join at a seam, ch 1, 31 sc evenly across each panel, sl st in first sc. 62 sc")
    assert proof.lines[-1].mark == "not understood"


def test_a_marker_that_only_words_place_is_not_known_and_not_missing() -> None:
    text = BAND.replace(
        "\n\nHandle\n",
        "\nMark the centre stitch.\nRow 3: Ch 1, sc in next 7 sc, 2 sc in marked sc, sc in next 6 sc, turn.",
    )
    proof = prove_text(text)
    assert proof.lines[-1].mark == "unchecked"
    assert [f.code for f in proof.findings if f.span.line == 8] == ["words-not-worked"]
    plain = prove_text(text.replace("Mark the centre stitch.\n", ""))
    assert plain.lines[-1].mark == "wrong"


def test_a_piece_goes_on_from_the_chain_above_its_heading() -> None:
    text = "US terms\n\nHandle (make 2)\nCh 9.\n\nFirst end\nRow 1: Sc in 2nd ch from hook and in each ch across, turn = 8 sc"
    proof = prove_text(text)
    assert proof.ok and [line.sts for line in proof.lines] == [(8,)]


@pytest.mark.parametrize(
    ("text", "sts"),
    [
        (
            "UK terms\nCh. 5, s.s. into first ch. to form a ring.\n"
            "1st round.—3 ch. (counts as first tr. throughout), 13 tr. into ring, s.s. to top of 3 ch. (14 tr.)\n"
            "2nd round.—1 ch., 1 d.c. into each tr. to end, s.s. to first d.c. (14 d.c.)",
            [(14,), (14,)],
        ),
        (
            "US terms\nMB (make bobble) = 5 dc in the same st, leaving the last loop of each on the hook, yarn over and through all loops\nRnd 1: 8 sc in magic ring. (8)\n"
            "Rnd 2: *MB, sc in next st; rep from * to end. [4 bobbles, 4 sc]",
            [(8,), (8,)],
        ),
        (
            "US terms, sizes S (M)\n\nBottom\nRnd 1: 6 sc in magic ring. (6)\nS: go to Sides.\n"
            "Rnd 2: Inc in each st. (12)\n\nSides, both sizes\nRnd 1: Sc in each st around. 6 (12)",
            [(6, 6), (None, 12), (6, 12)],
        ),
        (
            "US terms\n\nBag\nRnd 1: 6 sc in magic ring. (6)\nRnd 2: Sc in back loop of each sc around. (6)\n\n"
            "Flap\nJoin yarn in the first free front loop of Rnd 1.\nRow 1: Ch 1, sc in each of the 6 free loops. (6 sc)",
            [(6,), (6,), (6,)],
        ),
    ],
    ids=["stops behind each letter", "a stitch of another name", "a size goes on", "free loops"],
)  # fmt: skip
def test_what_other_hands_write(text: str, sts: list[tuple[int | None, ...]]) -> None:
    proof = prove_text(text)
    assert [line.mark for line in proof.lines] == ["proved"] * len(sts)
    assert [line.sts for line in proof.lines] == sts
    printed = reprint(proof.pattern, "US", source=text)
    assert printed.ok


def test_a_row_below_words_that_are_not_worked_is_not_called_wrong() -> None:
    text = (
        "UK terms\n\nBase\nWork 12tr into a magic ring; the 3 beginning chains are one of them. 12\n"
        "2nd round: 3ch, 1tr in the same place, *2tr in the next tr; rep from * to end, join. 24\n"
        "3rd round: 3ch, 1tr in each tr to end, join. 24"
    )
    proof = prove_text(text)
    assert [line.mark for line in proof.lines] == ["unchecked", "proved"]
    assert "words-not-worked" in [f.code for f in proof.findings if f.span.line == 5]


def test_a_new_chain_begins_at_its_own_beginning() -> None:
    strap = "Join yarn in the 5th sc.\nCh 7.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. 6 sc."
    assert prove_text(BAND + strap).lines[-1].sts == (6,)
    twice = (
        BAND + "Join yarn in the 5th sc.\nRow 1: Join yarn in 5th sc, ch 1, sc in same sc and in next 5 sc, turn. 6 sc."
    )
    assert prove_text(twice).lines[-1].mark == "proved"
