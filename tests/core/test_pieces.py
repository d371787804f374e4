"""What the proof sees beyond counts: sides, motifs, seams, straps, yarns, the start of rounds; and repairs further up."""

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text, questions
from rillstep.core.proof.checks.drift import LEAN

RING = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
WALL = "Section: Wall (joined rounds, wall)\n" + RING


def codes(text: str, *wanted: str) -> list[tuple[str, int, int | None]]:
    return [(f.code, f.span.line, f.size) for f in prove_text(text).findings if not wanted or f.code in wanted]


# --- sides


def flap(kind: str, last: str, rows: int = 6) -> str:
    shaped = "".join(f"Row {n}: Ch 1, sc2tog, sc in each st to last 2 sts, sc2tog; turn.\n" for n in range(2, 2 + rows))
    return f"Section: Flap ({kind})\nCh 31.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n{shaped}Row {2 + rows}: {last}; turn.\n"


@pytest.mark.parametrize(
    ("kind", "last", "found"),
    [
        ("rows, panel", "Ch 1, sc2tog, sc2tog, sc in each st across", "warning"),
        ("rows, panel, mirrored", "Ch 1, sc2tog, sc2tog, sc in each st across", "error"),
        ("rows, panel, symmetrical", "Ch 1, 2 sc in next st, sc in each st across", "error"),
        ("rows, panel, mirrored", "Ch 1, 2 sc in first st, sc in each st to last st, 2 sc in last st", None),
        ("rows, panel, mirrored", "Ch 1, sc in each st across", None),
        ("rows, panel, mirrored", "Ch 1, sc in next 8 sts, 2 sc in next 2 sts, sc in next 8 sts", None),
        ("rows, panel, mirrored", "Ch 1, [sc in next 2 sts, ch 1, sk 1] 6 times", "error"),
        ("rows, panel, mirrored", "Ch 1, sc in next st, [sc in next st, ch 1, sk 1] 7 times, sc in next 3 sts", "error"),
        ("rows, panel, mirrored", "Ch 1, sc in next 2 sts, [ch 2, sk 2, sc in next 2 sts] 4 times", None),
        ("rows, strip", "Ch 1, sc2tog, sc2tog, sc in each st across", None),
    ],
)  # fmt: skip
def test_left_and_right(kind: str, last: str, found: str | None) -> None:
    text = flap(kind, last)
    findings = [f for f in prove_text(text).findings if f.code == "sides-not-alike"]
    assert [f.severity for f in findings] == ([found] if found else [])
    assert all(f.span.line == 10 for f in findings)


def test_what_is_only_noticed_needs_rows_that_agree() -> None:
    assert codes(flap("rows, panel", "Ch 1, sc2tog, sc2tog, sc in each st across", rows=2), "sides-not-alike") == []
    mixed = flap("rows, panel", "Ch 1, sc2tog, sc in each st across").replace(
        "Row 5: Ch 1, sc2tog, sc in each st to last 2 sts, sc2tog", "Row 5: Ch 1, sc2tog, sc in each st across"
    )
    assert codes(mixed, "sides-not-alike") == []  # two of seven are no slip


@pytest.mark.parametrize(
    ("row", "alike"),
    [
        ("[2 sc in next st, sc in next 11 sts] 2 times", True), ("[2 sc in next st, sc in next 5 sts] 4 times", True),
        ("2 sc in next st, sc in next 11 sts, sc in next st, 2 sc in next st, sc in next 10 sts", False),
        ("3 sc in next st, sc in each st around", False), ("[sc in next st, hdc in next st] around", True),
        ("Sc in next 12 sts, hdc in next 12 sts", False), ("[sc2tog, sc in next 10 sts] 2 times", True),
    ],
)  # fmt: skip
def test_front_and_back(row: str, alike: bool) -> None:
    text = "Section: Wall (joined rounds, wall, halves alike)\n" + RING + f"Rnd 2: {row}; join.\n"
    assert codes(text, "sides-not-alike") == ([] if alike else [("sides-not-alike", 4, None)])


# --- motifs

STRAIGHT = "Rnd {n}: [Puff in next st, sc in next 5 sts] around; join.\n"
SHIFTED = (
    "Rnd {n}: Sc in next 3 sts, puff in next st, [sc in next 5 sts, puff in next st] 3 times, sc in next 2 sts; join.\n"
)


def rounds(*kinds: str) -> str:
    return WALL + "".join(kind.format(n=n) for n, kind in enumerate(kinds, start=2))


def test_motifs_change_places_or_stack_but_not_now_and_then() -> None:
    wanted = "alternation-broken"
    assert codes(rounds(STRAIGHT, SHIFTED, STRAIGHT, SHIFTED), wanted) == []
    assert codes(rounds(STRAIGHT, STRAIGHT, STRAIGHT, STRAIGHT), wanted) == []
    assert codes(rounds(STRAIGHT, SHIFTED, STRAIGHT, STRAIGHT, SHIFTED), wanted) == [(wanted, 7, None)]
    between = "Rnd {n}: Sc in each st around; join.\n"
    assert codes(rounds(STRAIGHT, between, SHIFTED, between, STRAIGHT, between, STRAIGHT), wanted) == [
        (wanted, 10, None)
    ]
    again = rounds(STRAIGHT, SHIFTED) + "Rnds 4-9: Rep Rnds 2 and 3.\n"
    assert codes(again, wanted) == []


@pytest.mark.parametrize(
    ("row", "odd"),
    [("[Puff in next st, sc in next 5 sts] around", False), ("[Puff in next st, sc in next 4 sts] 4 times, sc in next 4 sts", True),
     ("[Puff in next st, sc in next 3 sts, puff in next st, sc in next 7 sts] around", False), ("Puff in next st, sc in each st around", False)],
)  # fmt: skip
def test_motifs_are_even_around(row: str, odd: bool) -> None:
    assert codes(WALL + f"Rnd 2: {row}; join.", "motifs-uneven") == ([("motifs-uneven", 4, None)] if odd else [])


def test_own_stitches_are_motifs_too() -> None:
    text = (
        "Define: shell = 5 dc in same st\n"
        + WALL
        + "Rnd 2: [Shell in next st, sc in next 4 sts] 4 times, sc in next 4 sts; join."
    )
    assert codes(text, "motifs-uneven") == [("motifs-uneven", 5, None)]


@pytest.mark.parametrize(
    ("row", "odd"),
    [("[Sc in next 4 sts, ch 2, sk 1] 4 times, sc in next 3 sts, ch 3, sk 1", True), ("[Sc in next 3 sts, ch 2, sk 1] 6 times", False),
     ("[Sc in next 2 sts, ch 2, sk 1, sc in next 2 sts, ch 3, sk 1] 4 times", False), ("[Sc in next 4 sts, ch 2, sk 1] 4 times, sc in next 3 sts, ch 6, sk 1", False)],
)  # fmt: skip
def test_one_space_unlike_the_others(row: str, odd: bool) -> None:
    assert codes(WALL + f"Rnd 2: {row}; join.", "space-odd") == ([("space-odd", 4, None)] if odd else [])


# --- pieces

PANELS = (
    "Sizes: S, M\nSection: Front (rows, panel)\nCh 21 (25).\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
    "Rows 2-{a} ({b}): Ch 1, sc in each st across; turn.\nSection: Gusset (rows, strip)\nCh 7.\n"
    "Row 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-{c} ({d}): Ch 1, sc in each st across; turn.\n{seam}\n"
)  # fmt: skip
SEWN = "Sew the row ends of Front to the row ends of Gusset."


@pytest.mark.parametrize(
    ("numbers", "seam", "sizes"),
    [
        ((10, 12, 10, 12), SEWN, []), ((10, 12, 10, 14), SEWN, [1]), ((10, 12, 11, 13), SEWN, [0, 1]),
        ((10, 12, 20, 24), "Sew the last row of Front to the row ends of Gusset.", []),
        ((10, 12, 20, 25), "Join the top edge of Front to the side of Gusset.", [1]),
        ((10, 12, 11, 13), "Sew Front to Gusset evenly along the sides.", []), ((10, 12, 11, 13), "Sew Front to Gusset.", []),
        ((10, 12, 11, 13), "Admire the row ends of Front and Gusset.", []),
        ((10, 12, 11, 13), "With RS together, sl st through both row ends of Front and row ends of Gusset.", [0, 1]),
    ],
)  # fmt: skip
def test_seams(numbers: tuple[int, int, int, int], seam: str, sizes: list[int]) -> None:
    text = PANELS.format(**dict(zip("abcd", numbers, strict=True)), seam=seam)
    found = [f for f in prove_text(text).findings if f.code == "seam-unequal"]
    assert [f.size for f in found] == sizes
    for finding in found:
        assert finding.expected != finding.found


def straps(first: str, second: str, rows: int) -> str:
    one = "Ch 7.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-{n}: Ch 1, sc in each st across; turn.\n"
    return f"Section: {first} (rows, strip)\n{one.format(n=30)}Section: {second} (rows, strip)\n{one.format(n=rows)}"


@pytest.mark.parametrize(
    ("first", "second", "rows", "found"),
    [("First strap", "Second strap", 30, 0), ("First strap", "Second strap", 29, 1), ("Left handle", "Right handle", 31, 1), ("Strap 1", "Strap 2", 31, 1),
     ("Shoulder strap", "Hand strap", 12, 0), ("First panel", "Second panel", 29, 0)],
)  # fmt: skip
def test_two_straps(first: str, second: str, rows: int, found: int) -> None:
    assert len(codes(straps(first, second, rows), "straps-not-alike")) == found


@pytest.mark.parametrize(
    ("begin", "sew", "found"),
    [
        ("sc in next 6 sts", "Sew the end of the strap to sts 13 to 18 of the wall.", None), ("sc in next 6 sts", "Sew the end to sts 14 to 19.", "not centred"),
        ("sl st in next 3 sts, sc in next 6 sts", "Sew the end to sts 16 to 21.", None), ("sc in next 6 sts", "Sew the end to sts 13-17.", "is joined to 5"),
        ("sc in next 6 sts", "Sew it on.", None), ("sc in next 6 sts", "Count to sts 14 to 19.", None),
    ],
)  # fmt: skip
def test_a_strap_grown_from_the_edge(begin: str, sew: str, found: str | None) -> None:
    text = (
        WALL
        + f"Section: Strap (rows, strip), continue from Wall\nRow 1: {begin}, leave rem sts unworked; turn.\nRows 2-40: Ch 1, sc in each st across; turn.\n{sew}"
    )
    messages = [f.message for f in prove_text(text).findings if f.code == "strap-not-centred"]
    assert (len(messages) == 1 and found in messages[0]) if found else messages == []


# --- yarns


@pytest.mark.parametrize(
    ("lines", "found"),
    [
        ("Fasten off.\nRnd 2: Sc in each st around; join.", ["yarn-not-joined"]), ("Fasten off.\nRnd 2: Join yarn in first st, sc in each st around; join.", []),
        ("Rnd 2: Sc in each st around; join, fasten off.\nRnd 3: Sc in each st around; join.", ["yarn-not-joined"]),
        ("Rnd 2: Change to B, sc in each st around; join.", []), ("Rnd 2: Join B in first st, sc in each st around; join.", ["yarn-not-ended"]),
        ("Fasten off.\nRnd 2: With B, sc in each st around; join.", []), ("Fasten off.", []), ("Fasten off.\nJoin colour B in any st.\nRnd 2: Sc in each st around; join.", []),
    ],
)  # fmt: skip
def test_yarn_is_joined_and_ended(lines: str, found: list[str]) -> None:
    assert [code for code, _, _ in codes(WALL + lines, "yarn-not-joined", "yarn-not-ended")] == found


def test_rows_from_the_same_side_cut_their_yarn_each_time() -> None:
    text = "Section: Strip (rows from the same side, strip)\nCh 24.\nRow 1: Sc in each ch across. Fasten off.\nRow 2: Sc in each st across. Fasten off."
    assert codes(text, "yarn-not-joined", "yarn-not-ended") == []


@pytest.mark.parametrize(
    ("head", "name", "found"),
    [
        ("Colour: A dusk, B ember", "B", 0),
        ("Colour: A dusk, B ember", "C", 1),
        ("Colour: dusk and ember", "ember", 0),
        ("Yarn: any", "C", 0),
    ],
)
def test_colours_are_declared(head: str, name: str, found: int) -> None:
    assert (
        len(codes(f"{head}\n{WALL}Rnd 2: Change to {name}, sc in each st around; join.", "colour-not-defined")) == found
    )


# --- the start of rounds

HANDLES = "Rnd {n}: Sc in next 4 sts, ch 9, sk 4, sc in next 8 sts, ch 9, sk 4, sc in next 4 sts"


@pytest.mark.parametrize(
    ("kind", "stitch", "count", "moved"),
    [("spiral rounds", "sc", 12, 6), ("spiral rounds", "sc", 3, None), ("spiral rounds", "dc", 13, 3), ("joined rounds", "sc", 12, None)],
)  # fmt: skip
def test_a_start_that_has_moved(kind: str, stitch: str, count: int, moved: int | None) -> None:
    end = "; join." if kind.startswith("joined") else "."
    text = f"Section: Wall ({kind}, wall)\nCh 24, join into a ring.\nRnd 1: Sc in each ch around{end}\nRnds 2-{count}: {stitch} in each st around{end}\n{HANDLES.format(n=count + 1)}{end}"
    found = [f.found for f in prove_text(text).findings if f.code == "start-drifted"]
    assert found == ([] if moved is None else [moved])
    assert LEAN == 0.5


def test_slip_stitches_move_the_start_and_a_marker_moves_it_back() -> None:
    moves = "".join(
        f"Rnd {n}: Sl st in next 2 sts, ch 1, sc in same st, sc in each st around; join.\n" for n in range(2, 6)
    )
    assert [
        f.found
        for f in prove_text(WALL + moves + HANDLES.format(n=6) + "; join.").findings
        if f.code == "start-drifted"
    ] == [8]


# --- repairs further up

TRIM = """Sizes: S, M
Section: Trim (rows, trim)
Ch 30 (37).
Row 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 29 (36) sts
Row 2: Ch 1, sc in each st across; turn. — 29 (36) sts
Row 3: Ch 1, sc in next st, *sk 1, 5 dc in next st, sk 1, sc in next st; rep from * across. — 43 (55) sts
"""


def test_the_nearest_base_on_either_side_is_offered_and_mends_all_of_it() -> None:
    (finding,) = [f for f in prove_text(TRIM).findings if f.severity == "error"]
    assert (finding.code, finding.span.line, finding.size) == ("repeat-uneven", 6, 1)
    upstream = [repair for repair in finding.repairs if "to begin with" in repair.message]
    assert [repair.message.split(" to ")[0] for repair in upstream] == [
        "Chain 34 instead of 37",
        "Chain 38 instead of 37",
    ]
    for repair in upstream:
        mended = apply_edits(TRIM, repair.edits)
        assert prove_text(mended).ok
        assert [line.sts[0] for line in prove_text(mended).lines] == [29, 29, 43]


def test_no_base_is_offered_that_leaves_trouble_behind() -> None:
    text = TRIM.replace(
        "Row 2: Ch 1, sc in each st across; turn. — 29 (36) sts",
        "Row 2: Ch 1, [sc in next 1 (4) st] 29 (9) times; turn. — 29 (36) sts",
    )
    (finding,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [repair for repair in finding.repairs if "to begin with" in repair.message] == []


# --- dependence and questions


def test_lines_below_a_wrong_one_are_judged_and_marked() -> None:
    text = (
        WALL
        + "Rnd 2: Sc in each st around; join. — 25 sts\nRnd 3: Sc in next 25 sts; join. — 25 sts\nRnd 4: Sc in each st around; join. — 25 sts\n"
    )
    text += "Ch 10.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn."
    proof = prove_text(text)
    assert [f.span.line for f in proof.findings if f.severity == "error"] == [4]
    assert [(line.line, line.depends, line.proved) for line in proof.lines] == [
        (3, None, True),
        (4, None, False),
        (5, 4, True),
        (6, 4, True),
        (8, None, True),
    ]


def test_a_question_about_a_chain_is_asked_once_and_answered_in_the_text() -> None:
    text = WALL + "Rnd 2: Ch 2, hdc in each st around; join.\nRnd 3: Ch 2, hdc in each st around; join.\n"
    (question,) = questions(prove_text(text), text)
    assert question.code == "chain-counts" and question.span.line == 4
    assert [answer.message for answer in question.answers] == ["Yes, it is a hdc", "No, it is only a turning chain"]
    yes, no = (apply_edits(text, answer.edits) for answer in question.answers)
    assert "Ch 2 (counts as hdc), hdc" in yes and "Ch 2 (does not count), hdc" in no
    for answered in (yes, no):
        assert questions(prove_text(answered), answered) == ()
        assert codes(answered, "chain-unsaid") == []
    assert [line.sts for line in prove_text(yes).lines] == [(24,), (24,), (24,)]


def test_the_chains_skipped_at_first_are_asked_about_too() -> None:
    text = "Ch 26.\nRow 1: Dc in 4th ch from hook, dc in each ch across; turn. (24 dc)"
    (question,) = questions(prove_text(text), text)
    answered = apply_edits(text, question.answers[0].edits)
    assert "4th ch from hook (skipped ch count as dc)," in answered
    assert prove_text(answered).ok and questions(prove_text(answered), answered) == ()


def test_which_piece_is_the_wall_is_asked_where_measures_need_it() -> None:
    pieces = "Base\nMake a magic ring.\nRnd 1: 8 sc in ring; join. (8)\nBody\nRnd 2: Ch 1, 2 sc in each st around; join. (16)\n"
    gauged = "Gauge: sc 14 sts x 16 rows = 10 cm\n" + pieces
    assert questions(prove_text(pieces), pieces) == ()
    (question,) = questions(prove_text(gauged), gauged)
    assert question.code == "which-wall" and [answer.message for answer in question.answers] == ["Base", "Body"]
    answered = apply_edits(gauged, question.answers[1].edits)
    assert "Section: Body (joined rounds, wall), continue from Base" in answered
    assert questions(prove_text(answered), answered) == () and prove_text(answered).ok


@pytest.mark.parametrize(
    "begin", ["Standing sc in first st, sc in next 23 sts", "Standing dc in any st, dc in next 23 sts"]
)
def test_a_standing_stitch_joins_its_own_yarn(begin: str) -> None:
    text = WALL + f"Fasten off.\nRnd 2: {begin}; join. — 24 sts\n"
    proof = prove_text(text)
    assert codes(text, "yarn-not-joined") == []
    assert proof.ok
    assert parse(write(proof.pattern)).pattern == proof.pattern
