"""Rounds that grow in other ways than alike each round: by turns, shifted, to a point, at both ends of a piece."""

import re

import pytest

from rillstep.core.grading import GradedText, SizeWanted, grade_text, lift
from rillstep.core.grading.lift import same_work
from rillstep.core.printing.unnaming import without_names
from rillstep.core.proof import prove_text, reader_text
from rillstep.core.settling import read

GAUGE = "Gauge: sc 20 sts x 20 rows = 10 cm\n"
RING = "Section: Base (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: Ch 1, 6 sc in ring; join. — 6 sts\n"


def run(many: int) -> str:
    return "next st" if many == 1 else f"next {many} sts"


def wall(begin: int, around: int) -> str:
    rounds = f"Rnds {begin}-{begin + 11}: Ch 1, sc in each st around; join. — {around} sts\n"
    return "Section: Wall (joined rounds, wall)\n" + rounds


def every_other(last: int) -> str:
    """A base that increases in every other round, with a wall."""
    lines = [RING + "Rnd 2: Ch 1, 2 sc in each st around; join. — 12 sts\n"]
    around = 12
    for rnd in range(3, last + 1):
        if rnd % 2:
            lines.append(f"Rnd {rnd}: Ch 1, sc in each st around; join. — {around} sts\n")
        else:
            around += 6
            lines.append(
                f"Rnd {rnd}: Ch 1, [sc in {run(rnd // 2 - 1)}, 2 sc in next st] 6 times; join. — {around} sts\n"
            )
    return GAUGE + "".join(lines) + wall(last + 1, around)


def shifted(last: int) -> str:
    """A base whose increases do not stand over each other, with a wall."""
    lines = [RING + "Rnd 2: Ch 1, 2 sc in each st around; join. — 12 sts\n"]
    for rnd in range(3, last + 1):
        half = f"sc in {run(rnd // 2 - 1)}"
        turn = f"sc in {run(rnd - 2)}, 2 sc in next st" if rnd % 2 else f"{half}, 2 sc in next st, {half}"
        lines.append(f"Rnd {rnd}: Ch 1, [{turn}] 6 times; join. — {6 * rnd} sts\n")
    return GAUGE + "".join(lines) + wall(last + 1, 6 * last)


FLAP = GAUGE + "Section: Panel (rows, panel)\nCh 31.\n" + "".join([
    "Row 1: Sc in 2nd ch from hook and in each ch across; turn. — 30 sts\n",
    "Rows 2-40: Ch 1, sc in each st across; turn. — 30 sts\n",
    *(f"Row {41 + 2 * n}: Ch 1, sc2tog, sc in next {26 - 2 * n} sts, sc2tog; turn. — {28 - 2 * n} sts\n"
      f"Row {42 + 2 * n}: Ch 1, sc in each st across; turn. — {28 - 2 * n} sts\n" for n in range(4)),
    "Fold: front 20 rows, back 20 rows, flap 8 rows.\n",
])  # fmt: skip
LEAF = GAUGE + "Section: Leaf (rows, panel)\nCh 4.\n" + "".join([
    "Row 1: Sc in 2nd ch from hook and in next 2 ch; turn. — 3 sts\n",
    *(f"Row {n}: Ch 1, 2 sc in next st, sc in {run(2 * n - 3)}, 2 sc in next st; turn. — {2 * n + 1} sts\n"
      for n in range(2, 6)),
    "Rows 6-20: Ch 1, sc in each st across; turn. — 11 sts\n",
    *(f"Row {n}: Ch 1, sc2tog, sc in {run(49 - 2 * n)}, sc2tog; turn. — {51 - 2 * n} sts\n" for n in range(21, 25)),
])  # fmt: skip


def measure(graded: GradedText, name: str) -> tuple[float | None, ...]:
    assert graded.proof.bag is not None
    return next(one.mm for one in graded.proof.bag.measures if one.called == name)


def graded(text: str, **targets_mm: float) -> GradedText:
    targets = {name.replace("__", "."): mm for name, mm in targets_mm.items()}
    found = grade_text(text, [SizeWanted("A", {}, {}), SizeWanted("B", targets, {})])
    assert found.proof.ok and found.notes == ()
    assert reader_text(found.proof.pattern, "US").ok
    return found


@pytest.mark.parametrize(
    ("text", "line"),
    [
        (every_other(12), "Rnds 4-{base rounds}: Ch 1, [sc in next {(rnd - 2)/2} sts, 2 sc in next st] 6 times; join. — "
         "{3*rnd + 6} sts // Ch 1, sc in each st around; join. — {3*rnd + 3} sts"),
        (shifted(9), "Rnds 3-{base rounds}: Ch 1, [sc in next {rnd - 2} sts, 2 sc in next st] 6 times; join. — {6*rnd} sts "
         "// Ch 1, [sc in next {(rnd - 2)/2} sts, 2 sc in next st, sc in next {(rnd - 2)/2} sts] 6 times; join. — {6*rnd} sts"),
        (FLAP, "Rows {panel rows + 2}-{panel rows + panel rows 2 + 1}: Ch 1, sc2tog, sc in next "
         "{panel first run - (row - panel rows) + 2} sts, sc2tog; turn. — {panel first run - (row - panel rows) + 4} sts "
         "// Ch 1, sc in each st across; turn. — {panel first run - (row - panel rows) + 5} sts"),
        (LEAF, "Rows 2-{leaf rows}: Ch 1, 2 sc in next st, sc in next {2*row - 3} sts, 2 sc in next st; turn. — {2*row + 1} sts"),
    ],
)  # fmt: skip
def test_rounds_that_take_turns_become_one_line(text: str, line: str) -> None:
    lifted = lift(text)
    assert lifted is not None and line in lifted.text.split("\n")
    parsed = read(lifted.text)
    assert same_work(parsed.pattern, read(text).pattern)
    assert same_work(read(without_names(lifted.text, parsed)).pattern, read(text).pattern)


@pytest.mark.parametrize("last", [8, 9, 10, 11])
def test_a_base_grown_every_other_round_grows_by_two(last: int) -> None:
    """By hand: six stitches more in two rounds are 15 mm of a wall that lies flat."""
    found = graded(every_other(last), width=15.0 * (last // 2 + 1) + 30)
    assert found.values["base rounds"] == (last, last + 4)
    assert measure(found, "width") == (15.0 * (last // 2 + 1), 15.0 * (last // 2 + 3))


@pytest.mark.parametrize("last", [8, 9])
def test_a_base_of_shifted_increases_grows_by_single_rounds(last: int) -> None:
    found = graded(shifted(last), width=15.0 * last + 15)
    assert found.values["base rounds"] == (last, last + 1)
    assert "Rnds 3-{base rounds}: Ch 1, [sc in next {rnd - 2} sts" in found.text
    assert all(line.mark == "proved" for line in found.proof.lines)


def test_a_flap_that_tapers_every_other_row_stays_on_its_panel() -> None:
    found = graded(FLAP, width=200, flap=60)
    assert measure(found, "width") == (150.0, 200.0) and measure(found, "flap") == (40.0, 60.0)
    assert found.values["panel chain"] == (31, 41) and found.values["panel first run"] == (26, 36)


def test_a_piece_that_tapers_at_both_ends_is_longer_and_wider() -> None:
    found = graded(LEAF, Leaf__width=75, Leaf__height=145)
    assert measure(found, "Leaf.width") == (55.0, 75.0) and measure(found, "Leaf.height") == (120.0, 145.0)


TURNS = GAUGE + "Sizes: S, L\nNumber: base = 5 (6)\n" + RING + (
    "Rnds 2-{base}: Ch 1, 2 sc in each st around; join. // Ch 1, sc in each st around; join. — {(rnd + 1)/2*6} sts\n"
)  # fmt: skip


def test_each_size_begins_with_the_first_turn_and_has_as_many_rounds_as_it_says() -> None:
    plain = without_names(TURNS, read(TURNS))
    rounds = re.findall(r"^(?:Size L only:|Rnd \d+: Ch 1, (?:2 )?sc in each)", plain, re.MULTILINE)
    assert rounds == [
        "Rnd 2: Ch 1, 2 sc in each", "Rnd 3: Ch 1, sc in each", "Rnd 4: Ch 1, 2 sc in each", "Rnd 5: Ch 1, sc in each",
        "Size L only:", "Rnd 6: Ch 1, 2 sc in each",
    ]  # fmt: skip


def test_what_is_wrong_in_a_turn_is_found_where_it_stands() -> None:
    text = TURNS.replace("sc in each st around; join. —", "blub in each st around; join. —")
    line = next(n for n, raw in enumerate(text.split("\n"), start=1) if "blub" in raw)
    places = {(f.span.line, f.span.column) for f in prove_text(text).findings if "blub" in f.message}
    assert places == {(line, text.split("\n")[line - 1].index("blub") + 1)}
    sums = TURNS.replace("{(rnd + 1)/2*6}", "{rnd // 2 * 6}")  # within braces it is a sum, and no turn
    assert "// Ch 1" in sums and not any(f.code == "number-not-worked-out" for f in read(sums).findings)


SQUARES = (
    "Gauge: dc 16 sts x 8 rows = 10 cm\nSection: Square (make 8, joined rounds, square)\nCh 4, join into a ring.\n"
    "Rnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join. — 12 dc, 4 ch-2 sps\n"
    "Rnd 2: Sl st to corner sp, ch 3 (counts as dc), (2 dc, ch 2, 3 dc) in same sp, "
    "[ch 1, (3 dc, ch 2, 3 dc) in next ch-2 sp] 3 times, ch 1; join. — 24 dc, 4 ch-2 sps, 4 ch-1 sps\n"
)
LAID_OUT = SQUARES + "Finishing\nArrange the squares in 2 rows of 4 and sew them.\n"


def test_a_bag_of_squares_grows_by_its_layout() -> None:
    """Two rows of four squares of 5 cm; a column more takes two squares."""
    found = graded(LAID_OUT, width=250)
    assert "(make 8 (10), joined rounds, square)" not in found.text  # numbers stand behind their names
    assert "in {square layout rows} rows of {square layout columns} and sew" in found.text
    assert found.values == {"square pieces": (8, 10), "square layout rows": (2, 2), "square layout columns": (4, 5)}
    assert measure(found, "width") == (200.0, 250.0)


def test_a_square_in_rounds_stays_and_says_so() -> None:
    found = grade_text(SQUARES, [SizeWanted("A", {}, {}), SizeWanted("B", {"Square.side": 100}, {})])
    assert "Squares that are worked in rounds stay as they are" in found.notes[0]
    lifted = lift(SQUARES)
    assert lifted is not None and any("how many sides a square has" in one.reason for one in lifted.held)


def test_a_taper_that_comes_to_its_end_says_so() -> None:
    found = grade_text(
        FLAP,
        [
            SizeWanted("A", {}, {}),
            SizeWanted("B", {"flap": 200, "Panel.height": 400}, {"panel rows": 39, "panel chain": 31}),
        ],
    )
    assert found.proof.ok
    assert any("come to their end: no run is less than nothing" in note for note in found.notes), found.notes
