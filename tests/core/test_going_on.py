"""Rows that are not written out: until so many stitches remain, in the same manner, as another piece; pieces folded and made alike."""

import pytest

from rillstep.core.findings import Span
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.tree import Again, Row

FLAP = (
    "Sizes: S, M\nCh 21 (29).\nRow 1: Sc in 2nd ch from hook, sc in next 19 (27) ch; turn. — 20 (28) sts\n"
    "Row 2: Ch 1, sc2tog, sc in each st to last 2 sts, sc2tog; turn. — 18 (26) sts\n"
    "Row 3: Ch 1, sc in each st across; turn. — 18 (26) sts\n"
)


@pytest.mark.parametrize(
    ("words", "last"),
    [
        ("Rep Rows 2 and 3 until 4 (8) sts remain.", (17, 21)), ("Repeat the last 2 rows until there are 4 (8) sts.", (17, 21)),
        ("Rep Rows 2-3 until you have 4 (8) sc.", (17, 21)), ("Rep Row 2 until 4 (8) sts remain.", (10, 12)),
        ("Repeat Row 2 until only 4 (8) stitches are left.", (10, 12)),
    ],
)  # fmt: skip
def test_how_often_is_worked_out(words: str, last: tuple[int, int]) -> None:
    proof = prove_text(FLAP + words + "\nNext row: Ch 1, sc in each st across. — 4 (8) sts")
    again, following = (line for _, line in list(proof.pattern.lines())[-2:])
    assert proof.ok
    assert isinstance(again, Again) and again.last is not None and again.last.values == last
    assert following.first.values == (last[0] + 1, last[1] + 1)  # type: ignore[union-attr]
    assert parse(write(proof.pattern)).pattern == proof.pattern


def test_a_number_that_is_never_come_to_is_said() -> None:
    findings = prove_text(FLAP + "Rep Row 2 until 5 (8) sts remain.").findings
    (finding,) = [f for f in findings if f.code == "until-not-met"]
    assert (finding.size, finding.expected, finding.span.line) == (0, 5, 6)
    assert "never comes to 5" in finding.message
    still = prove_text(FLAP + "Rep Row 3 until 5 (8) sts remain.")
    assert "until-not-met" in [f.code for f in still.findings]


def test_what_is_not_worked_out_is_written_and_read_as_it_was() -> None:
    tree = parse(FLAP + "Rep Row 2 until 4 (8) sts remain.").pattern
    assert "Rep Row 2 until 4 (8) sts remain" in write(tree)
    assert parse(write(tree)).pattern == tree


def test_a_range_with_the_stitches_at_its_end_is_held_to_them() -> None:
    good = FLAP + "Rows 4-10 (12): Rep Row 2 until 4 (8) sts remain."
    assert prove_text(good).ok
    assert [f.code for f in prove_text(good.replace("4-10 (12)", "4-9 (12)")).findings] == ["total-differs"]


@pytest.mark.parametrize(
    ("words", "rows"),
    [
        ("Rep Rows 2 and 3 4 times, then Row 2 once more.", 12), ("Rep Rows 2 and 3 4 more times, then Row 2 once more: 12 rows", 12),
        ("Repeat Rows 2 + 3 4 times. (11 rows)", 11), ("Rep Rows 2-3 4 times.", 11),
    ],
)  # fmt: skip
def test_repetitions_with_a_rest(words: str, rows: int) -> None:
    text = FLAP + words + f"\nCheck: {rows} rows."
    assert [f.code for f in prove_text(text).findings if f.severity == "error"] == []
    assert "check-differs" in [
        f.code for f in prove_text(text.replace(f": {rows} rows.", f": {rows + 1} rows.")).findings
    ]


# --- in the same manner ------------------------------------------------------------------

DISC = (
    "Sizes: S, M\nRnd 1: 6 sc in ring; join. — 6 sts\nRnd 2: Ch 1, 2 sc in each st around; join. — 12 sts\n"
    "Rnd 3: Ch 1, [sc in next st, 2 sc in next st] around; join. — 18 sts\n"
)


@pytest.mark.parametrize(
    "words",
    [
        "Continue in this manner until there are 7 (9) rnds. (42, 54 sts)",
        "Continue in the same way, working one more sc between increases, until you have 7 (9) rounds. — 42 (54) sts",
        "Rnds 4-7 (9): Continue as established. — 42 (54) sts", "Carry on like this for 4 (6) more rounds. — 42 (54) sts",
        "Rnds 4-7 (9): Continue in pattern as set; join. — 42 (54) sts",
    ],
)  # fmt: skip
def test_rounds_go_on_as_the_last_one_grew(words: str) -> None:
    proof = prove_text(DISC + words)
    assert [f.code for f in proof.findings if f.severity == "error"] == []
    assert proof.lines[-1].sts == (42, 54)
    assert parse(write(proof.pattern)).pattern == proof.pattern
    wrong = prove_text(DISC + words.replace("54", "53"))
    assert [(f.code, f.size) for f in wrong.findings if f.severity == "error"] == [("total-differs", 1)]


def test_rounds_that_did_not_grow_go_on_so_and_lace_does_not() -> None:
    plain = prove_text(
        DISC + "Rnd 4: Ch 1, sc in each st around; join.\nContinue in this manner until there are 9 rnds."
    )
    assert plain.lines[-1].sts == (18, 18)
    lace = prove_text(
        DISC + "Rnd 4: Ch 1, [sc in next st, ch 2, sk 1] around; join.\nContinue in this way until there are 9 rnds."
    )
    assert "no-such-place" in [f.code for f in lace.findings]


# --- pieces like another -------------------------------------------------------------------

FRONT = "Sizes: S, M\n\nFRONT\nCh 21 (25).\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (20, 24 sts)\nRows 2-20 (24): Ch 1, sc in each st across, turn. (20, 24 sts)\nRows 21 (25)-30 (34): Ch 1, sc in each st across, turn. (20, 24 sts)\n\n"


@pytest.mark.parametrize(
    ("words", "rows"),
    [
        ("BACK\nWork as for Front.", (30, 34)), ("Back: Work as for Front.", (30, 34)), ("BACK\nMake exactly the same as Front.", (30, 34)),
        ("BACK\nWork as for Front to the end of Row 20 (24).", (20, 24)), ("Back: as Front until Row 20 (24).", (20, 24)),
    ],
)  # fmt: skip
def test_a_piece_that_is_worked_as_another(words: str, rows: tuple[int, int]) -> None:
    proof = prove_text(FRONT + words)
    front, back = proof.pattern.sections
    assert (front.title, back.title.title()) == ("FRONT", "Back")
    made = [[line.rounds(size) for line in back.lines if isinstance(line, Row)] for size in (0, 1)]
    assert tuple(map(sum, made)) == rows
    assert proof.ok and parse(write(proof.pattern)).pattern == proof.pattern


@pytest.mark.parametrize(
    ("words", "make"),
    [("Make 2.", 2), ("Make two.", 2), ("Make another in the same way.", 2), ("Make a second panel the same.", 2), ("Make 3 alike.", 3)],
)  # fmt: skip
def test_how_many_are_made(words: str, make: int) -> None:
    (front,) = prove_text(FRONT + words).pattern.sections
    assert front.make == (make,)


def test_a_fault_in_a_piece_is_found_where_it_is_written() -> None:
    proof = prove_text(FRONT.replace("(20, 24 sts)\nRows 21", "(20, 25 sts)\nRows 21") + "BACK\nWork as for Front.")
    assert {(f.code, f.span.line, f.size) for f in proof.findings if f.severity == "error"} == {("total-differs", 6, 1)}


# --- folded, and lower down -----------------------------------------------------------------


@pytest.mark.parametrize(("chains", "closed", "code"), [(80, 40, None), (80, 39, "left-over"), (81, 40, "left-over")])
def test_a_ring_closed_at_the_bottom(chains: int, closed: int, code: str | None) -> None:
    text = (
        f"Section: Wall (joined rounds, wall)\nCh {chains}, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
        "Section: Bottom (rows, trim), along the foundation chain of Wall\n"
        f"Row 1: Working through both layers, sl st in next {closed} sts. Fasten off."
    )
    proof = prove_text(text)
    assert [f.code for f in proof.findings if f.severity == "error"] == ([] if code is None else [code])
    if code is None:
        assert parse(write(proof.pattern)).pattern == proof.pattern


@pytest.mark.parametrize(
    ("words", "sts"),
    [
        ("FPdc around next st 2 rows below, dc in next st", 20), ("FPdc around next dc two rows below, sk the sc behind it, dc in next st", 20),
        ("spike sc in next st, sc in next st", 20), ("sc in next st 1 row below, sc in next st", 20),
    ],
)  # fmt: skip
def test_stitches_that_reach_down_take_the_place_above(words: str, sts: int) -> None:
    text = f"Ch 21.\nRow 1: Dc in 4th ch from hook (skipped chs count as dc), dc in each ch across; turn.\nRow 2: Ch 1, sc in each st across, sc in last st; turn.\nRow 3: Ch 1, [{words}] across. — {sts} sts"
    text = text.replace("Ch 21.", "Ch 22.").replace(", sc in last st", "")
    proof = prove_text(text)
    assert [f.code for f in proof.findings if f.severity == "error"] == []
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert ("below" in write(proof.pattern)) is True


@pytest.mark.parametrize(
    "opening", ["Ch 2 (does not count), turn, ", "Turn, ch 2 (does not count), ", "Ch 2 (counts as hdc), turn, "]
)
def test_a_chain_before_the_turn_begins_the_row(opening: str) -> None:
    made = 21 if "counts as hdc" in opening else 20  # the chains skipped at first count as those that are made later
    text = f"Ch 22.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across. — {made} sts\n"
    text += f"Row 2: {opening}hdc in each st across. — {made} sts"
    proof = prove_text(text)
    assert [f.code for f in proof.findings if f.severity == "error"] == []
    assert proof.works[0].lines[-1].rounds[-1].spaces == ()


def test_a_row_that_only_makes_the_chain() -> None:
    text = (
        "Foundation rnd: Ch 36, join with sl st to first ch. (36 ch)\nRnd 1: Ch 1, sc in each ch around; join. (36 sc)"
    )
    assert prove_text(text).ok
    (finding,) = prove_text(text.replace("(36 ch)", "(35 ch)")).findings
    assert (finding.code, finding.span.line) == ("total-differs", 1)
    rows = prove_text("Row 1: Ch 21.\nRow 2: Sc in 2nd ch from hook and in each ch across, turn. (20 sc)")
    assert rows.ok and rows.findings == ()


def test_a_corner_is_the_next_one_however_many_are_ahead() -> None:
    text = (
        "Rnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join.\n"
        "Rnd 2: Sl st in next corner sp, ch 3, (2 dc, ch 2, 3 dc) in same sp, ch 1, [(3 dc, ch 2, 3 dc) in next corner sp, ch 1] 3 times; join.\n"
        "Rnd 3: Sl st in next corner sp, ch 3, (2 dc, ch 2, 3 dc) in same sp, ch 1, [[3 dc in next ch-1 sp, ch 1] to corner, (3 dc, ch 2, 3 dc) in next corner sp, ch 1] 3 times, "
        "[3 dc in next ch-1 sp, ch 1] around; join. — 36 dc, 4 ch-2 sps, 8 ch-1 sps"
    )
    assert prove_text("Make an adjustable ring.\n" + text).ok


def test_a_range_is_offered_another_end_where_a_check_counts_its_rows() -> None:
    text = "Sizes: S, M\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-9 (11): Ch 1, sc in each st around; join.\nCheck: 8 (11) rnds."
    (finding,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [repair.message for repair in finding.repairs] == ["End Rnds 2-9 (11) with 8", "State 9"]
    assert finding.repairs[0].edits[0].span == Span(4, 8, 9)


def test_another_row_to_repeat_is_offered() -> None:
    text = FLAP + "Rows 4-10 (12): Rep Row 4. — 4 (8) sts"
    findings = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [repair.message for repair in findings[0].repairs][:1] == ["Repeat Row 2"]


def test_a_row_below_is_no_number_of_rows() -> None:
    row = "Rnd 2: Sc in next 5 sts, [ch 3, sk next 5 sts, sc in next 5 sts] around, sc in next st 1 row below."
    tree = parse("Ch 12, join into a ring.\n" + row).pattern
    assert "1 row below" in write(tree) and parse(write(tree)).pattern == tree
