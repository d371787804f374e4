"""Lines as they are published: rows without labels, named rows, sizes said beside a row, and words that only tell."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.printing.writer import write_label
from rillstep.core.proof import prove_text, reprint
from rillstep.core.tree import Again, Prose, Row

SIZES = "Sizes: S, M, L\nSection: W (joined rounds, wall)\nCh 24 (30, 36), join into a ring.\nRnd 1: Sc in each ch around; join.\n"
ONE = "Section: W (joined rounds, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"


def errors(text: str) -> list[str]:
    return [f"{f.code} {f.message}" for f in prove_text(text).findings if f.severity == "error"]


def totals(text: str) -> list[tuple[int | None, ...]]:
    return [line.sts for line in prove_text(text).lines]


# --- rows with names of their own, and without labels


@pytest.mark.parametrize(
    ("label", "printed"),
    [
        ("Next rnd:", "Rnd 2"), ("Next rnd (eyelets):", "Rnd 2 (eyelets)"), ("Eyelet rnd:", "Rnd 2 (Eyelet rnd)"),
        ("Decrease round (for the rim):", "Rnd 2 (Decrease round, for the rim)"),
        ("Handle rnd:", "Rnd 2 (Handle rnd)"), ("Rnd 2 (24 sts):", "Rnd 2"), ("2nd rnd:", "Rnd 2"), ("Last round:", "Rnd 2"), ("R2:", "Rnd 2"),
        ("Next 3 rnds:", "Rnds 2-4"), ("For the next 3 rounds:", "Rnds 2-4"), ("2.", "Rnd 2"),
    ],
)  # fmt: skip
def test_labels(label: str, printed: str) -> None:
    text = f"{ONE}{label} Sc in each st around; join."
    rows = [line for _, line in parse(text).pattern.lines() if isinstance(line, Row)]
    assert write_label(rows[-1]) == printed
    assert errors(text) == []


@pytest.mark.parametrize(
    "label", ["For Rnd 2:", "Repeat Rnd 1:", "At the end of Rnd 2:", "Note for Rnd 2:", "After Row 2:"]
)
def test_what_only_speaks_of_a_row_is_no_label(label: str) -> None:
    rows = [line for _, line in parse(f"{ONE}{label} rest a little.").pattern.lines() if isinstance(line, Row)]
    assert len(rows) == 1


def test_a_numbered_row_with_a_name_begins_a_piece() -> None:
    text = f"{ONE}Border Rnd 1: Sc in each st around; join.\nBorder Rnd 2: [Sc in next 3 sts, 2 sc in next st] around; join. — 30 sts"
    sections = parse(text).pattern.sections
    assert [(s.title, s.continues) for s in sections] == [("W", None), ("Border", "W")]
    assert totals(text) == [(24,), (24,), (30,)]
    assert errors(text) == []


@pytest.mark.parametrize(
    ("line", "rounds", "sts"),
    [
        ("Work 10 rounds even in hdc.", 10, 24), ("Work even in sc for 6 rounds.", 6, 24), ("Continue in sc for 8 more rnds.", 8, 24),
        ("Sc in each st around for 5 rounds.", 5, 24), ("Work 4 rnds of hdc through both loops.", 4, 24), ("BLO sc around for 3 rounds.", 3, 24),
        ("Work five rounds even in sc.", 5, 24), ("Next rnds: Work 7 rounds even in sc.", 7, 24),
    ],
)  # fmt: skip
def test_plain_rounds_by_their_number(line: str, rounds: int, sts: int) -> None:
    text = f"{ONE}{line}\nNext rnd: Sc in each st around; join."
    rows = [row for _, row in parse(text).pattern.lines() if isinstance(row, Row)]
    assert rows[1].rounds(0) == rounds
    assert rows[2].first.at(0) == 2 + rounds
    assert totals(text)[1:] == [(sts,), (sts,)]


def test_a_set_of_plain_rounds() -> None:
    text = f"{SIZES}Work 10 (12, 14) rounds even in sc.\nNext rnd: Sc in each st around; join. — 24 (30, 36) sts"
    rows = [row for _, row in parse(text).pattern.lines() if isinstance(row, Row)]
    assert [rows[1].rounds(size) for size in range(3)] == [10, 12, 14]
    assert rows[2].first.values == (12, 14, 16)
    assert errors(text) == []


def test_a_cord_in_one_line() -> None:
    text = f"{ONE}Cord: ch 121, sl st in 2nd ch from hook and in each ch across. 120 sl sts"
    pattern = prove_text(text).pattern
    assert [s.title for s in pattern.sections] == ["W", "Cord"]
    assert totals(text)[-1] == (120,)
    assert errors(text.replace("120 sl sts", "119 sl sts"))


def test_a_strap_with_all_its_rows_in_one_line() -> None:
    text = f"{ONE}Strap: Ch 6. Row 1: Sc in 2nd ch from hook and in each of next 4 ch. (5 sts) Row 2: Ch 1, turn, sc in each st. Repeat Row 2 until the strap has 40 rows."
    assert errors(text) == []
    lines = [
        line
        for section, line in prove_text(text).pattern.lines()
        if section.title == "Strap" and isinstance(line, Row | Again)
    ]
    assert sum(line.rounds(0) for line in lines) == 40
    wrong = text.replace("(5 sts)", "(6 sts)")
    found = [f for f in prove_text(wrong).findings if f.severity == "error"]
    assert [(f.code, wrong.split("\n")[f.span.line - 1][f.span.column - 1]) for f in found] == [("total-differs", "6")]


def test_a_line_that_seems_to_instruct_is_never_dropped_silently() -> None:
    text = f"{ONE}Sc in next 2 sts and see how it looks."
    assert [(f.code, f.span.line) for f in prove_text(text).findings if f.severity != "caution"] == [("not-worked", 4)]
    assert not [f for f in prove_text(f"{ONE}Weave in the ends and block.").findings if f.severity != "caution"]


def test_rows_stated_besides_are_counted() -> None:
    rows = "Section: P (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across.\nRow 2: Ch 1, turn, sc in each st across.\n"
    assert errors(rows + "Rep Row 2, 12 more times. 14 rows worked.") == []
    assert [e.split()[0] for e in errors(rows + "Rep Row 2, 12 more times. 15 rows worked.")] == ["check-differs"]


# --- sizes


@pytest.mark.parametrize(
    "line",
    [
        "Size L only:\nRnd 2: Sc in each st around; join.", "L only:\nRnd 2: Sc in each st around; join.", "(L only)\nRnd 2: Sc in each st around; join.",
        "Rnd 2 (L only): Sc in each st around; join.", "Rnd 2 - L only: Sc in each st around; join.", "L only: Rnd 2: Sc in each st around; join.",
        "[L only] Rnd 2: Sc in each st around; join.", "Rnd 2 for L: Sc in each st around; join.", "Rnd 2: Sc in each st around; join. — - (-, 36) sts",
    ],
)  # fmt: skip
def test_a_round_for_one_size(line: str) -> None:
    proof = prove_text(SIZES + line)
    assert [f for f in proof.findings if f.severity == "error"] == []
    assert proof.lines[-1].sts == (None, None, 36)


def test_a_dash_stands_for_no_number() -> None:
    text = f"{SIZES}Rnd 2: [Sc in next 4 sts, 2 sc in next st] - (6, 6) times, sc in next - (0, 6) sts; join. — - (36, 42) sts"
    proof = prove_text(text)
    assert proof.lines[-1].sts == (None, 36, 42)
    assert parse(write(proof.pattern)).pattern == proof.pattern


def test_a_size_that_is_not_there_is_named() -> None:
    found = prove_text(f"{SIZES}Size XL only:\nRnd 2: Sc in each st around; join.").findings
    assert ("size-not-defined", 5) in [(f.code, f.span.line) for f in found]


def test_numbers_in_words_are_a_set() -> None:
    text = f"{SIZES}Repeat Rnd 2 ten (twelve, fourteen) more times.".replace(
        "Rnd 1: Sc in each ch around; join.\n",
        "Rnd 1: Sc in each ch around; join.\nRnd 2: Sc in each st around; join.\n",
    )
    again = [line for _, line in parse(text).pattern.lines() if isinstance(line, Again)]
    assert [again[0].rounds(size) for size in range(3)] == [10, 12, 14]


# --- words that only tell


@pytest.mark.parametrize(
    "words",
    [
        "pull ring closed",
        "weave in the tail",
        "to even out the round",
        "keeping the tension loose",
        "be careful here",
        "yo and pull through",
    ],
)
def test_talk_is_kept_and_printed(words: str) -> None:
    text = f"{ONE}Rnd 2: Sc in each st around, {words}; join."
    pattern = parse(text).pattern
    assert errors(text) == []
    told = [kept.words for _, row in pattern.lines() if isinstance(row, Row) for kept in row.kept]
    assert told == [words]
    assert parse(write(pattern)).pattern == pattern


@pytest.mark.parametrize(
    "words",
    [
        "trun the work over",
        "sz in next st",
        "wobble in next st",
        "skp the next one",
        "5 xyz",
        "frogs",
        "dc in nxet st",
        "hcd in next st",
    ],
)
def test_a_slip_of_the_pen_is_no_talk(words: str) -> None:
    assert errors(f"{ONE}Rnd 2: Sc in each st around, {words}; join.")


def test_a_heading_with_a_note_under_it() -> None:
    text = f"{ONE}Fasten off.\n\nTOP EDGING\nNote: work loosely.\nRnd 1: Join yarn in first st, sc in each st around; join. — 24 sts"
    pattern = prove_text(text).pattern
    assert [s.title for s in pattern.sections] == ["W", "TOP EDGING"]
    assert any(isinstance(line, Prose) and line.note for line in pattern.sections[1].lines)
    assert errors(text) == []


def test_a_piece_made_apart_does_not_go_on_from_the_wall() -> None:
    text = f"{ONE}Section: Tie (rows, wall), from nothing\nCh 10.\nRow 1: Sc in 2nd ch from hook, sc in each ch across. — 9 sts"
    pattern = prove_text(text).pattern
    assert pattern.sections[1].continues is None
    assert parse(write(pattern)).pattern == pattern


def test_a_line_kept_as_words_is_printed_and_does_not_stop_the_print() -> None:
    proof = prove_text(f"{ONE}Joining: with wrong sides together, sc evenly around 3 sides.")
    printed = reprint(proof.pattern, "US")
    assert printed.ok
    assert "sc evenly around 3 sides" in printed.text


def test_a_set_up_round_is_the_first_when_the_second_follows() -> None:
    text = "Section: W (joined rounds, wall)\nCh 24, join into a ring.\nSet-up round: Sc in each ch around; join.\nRnd {n}: Sc in each st around; join."
    assert errors(text.format(n=1)) == [] == errors(text.format(n=2))
    assert [e.split()[0] for e in errors(text.format(n=3))] == ["numbers-gap"]
