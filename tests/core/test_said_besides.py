"""Things that published patterns say besides the rows, or with them: what each of them changes in the counts, and what a slip in it gives."""

import pytest

from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from tests.core.wordings.otherwise import RING, WIDE


@pytest.mark.parametrize(
    ("made", "stated", "odd"),
    [("8", "8", None), ("7 (8, 8)", "8", 0), ("8", "8 (9, 8)", 1), ("7 (8, 7)", "8", 1), ("7", "8", None)],
)
def test_whether_a_chain_counts_is_the_same_in_every_size(made: str, stated: str, odd: int | None) -> None:
    text = f"Sizes: S, M, L\nCh 4, join into a ring.\nRnd 1: Ch 2, {made} hdc in ring; join. ({stated})"
    uneven = [f for f in prove_text(text).findings if f.code == "starting-chain-uneven"]
    assert [f.size for f in uneven] == ([] if odd is None else [odd])


def test_nothing_is_offered_where_another_size_has_nothing() -> None:
    text = "Sizes: S, L\nCh 24 (30), join into a ring.\nRnd 1: Sc in each ch around; join. 24 (30) sts\n" + (
        "Rnd 2: Ch 1, *sc in next 4 sts, sc2tog; repeat from * to last 0 (1) sts, sc in each remaining st; join. (20, 25)"
    )
    (wrong,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert (wrong.code, wrong.size) == ("repeat-uneven", 1)
    assert "Change 1 to 0" in [repair.message for repair in wrong.repairs]


def test_what_the_repeats_leave_is_worked_or_must_be_said() -> None:
    text = (
        RING
        + "Rnd 2: Ch 1, *sc in next 7 sts, sc2tog, repeat from * around, ending with {} in any remaining sts; join."
    )
    proof = prove_text(text.format("sc"))
    assert [f for f in proof.findings if f.severity == "error"] == [] and proof.lines[-1].sts == (22,)
    (error,) = [f for f in prove_text(text.format("sc, 2 dc")).findings if f.severity == "error"]
    assert error.code == "not-understood" and "to last 3 sts" in error.message


def test_increases_every_few_rounds_are_not_taken_for_every_round() -> None:
    text = (
        RING
        + "Rnd 2: Ch 1, *sc in next 5 sts, 2 sc in next st; rep from * around; join. (28)\nContinue increasing 4 sts every 3rd rnd until you have 40 sts."
    )
    assert "not-worked" in {f.code for f in prove_text(text).findings}
    other = text.replace(
        "Continue increasing 4 sts every 3rd rnd", "Continue in this manner, increasing 4 sts every other round,"
    )
    assert other != text and "not-worked" in {f.code for f in prove_text(other).findings}


def test_a_corner_where_a_side_is_not_done_is_no_place() -> None:
    text = (
        WIDE
        + "Rows 2-4: Ch 1, sc in each st across, turn. (20)\nRnd 1: Ch 1, sc in next 3 row ends, 2 sc in last corner between sides; join."
    )
    assert "no-such-place" in {f.code for f in prove_text(text).findings}


@pytest.mark.parametrize(
    ("gauge", "stitch"),
    [
        ("20 sts and 22 rounds to 10 cm in double crochet", "dc"),
        ("16 sts x 10 rows = 10 cm in waffle stitch", "sc"),
        ("14 hdc and 11 rows = 10 cm", "hdc"),
    ],
)
def test_gauges_in_many_words(gauge: str, stitch: str) -> None:
    pattern = prove_text(f"Gauge: {gauge}\n{WIDE}").pattern
    assert [one.stitch for one in pattern.gauges] == [stitch]


def test_a_gauge_without_rows_is_said_and_measures_nothing() -> None:
    proof = prove_text(f'Gauge: 5 sc = 1"\n{WIDE}')
    assert "gauge-rows" in {f.code for f in proof.findings} and proof.shapes is None and proof.ok


@pytest.mark.parametrize(
    ("named", "sizes"),
    [
        ("Size: One size; see the notes for a bigger one.", ("One size",)),
        ("SIZES: XS, S, M (given as XS (S, M))", ("XS", "S", "M")),
        ("Kids size first, adult size in parentheses.", ("Kids", "Adult")),
        ("SIZE A (B, C)", ("A", "B", "C")),
        ("Size A [Size B]", ("A", "B")),
        ("Size 1 (2)", ("1", "2")),
        ("Size: Small {Medium} {Large}", ("Small", "Medium", "Large")),
        ("This pattern includes 2 sizes - Regular (Plus).", ("Regular", "Plus")),
        ("Sizes: Pocket [Full]", ("Pocket", "Full")),
    ],
)
def test_sizes_as_they_are_told(named: str, sizes: tuple[str, ...]) -> None:
    assert prove_text(f"Bag\n{named}\n{WIDE}").pattern.sizes == sizes


def test_a_section_whose_rows_are_counted_on_goes_on_from_the_one_before() -> None:
    text = f"Net\n{RING}Top band\nRnd 2: Ch 1, 2 sc in first st, sc in each st around; join. (25)\nRnd 3: Ch 1, sc in each st around; join. (25)\nHandle\nRnd 4: Ch 1, sc in each st around; join. (25)"
    assert [s.continues for s in prove_text(text).pattern.sections] == [None, "Net", "Top band"]


def test_words_about_growth_name_no_stitch_of_other_terms() -> None:
    text = (
        RING
        + "Rnd 2: Ch 1, *sc in next 5 sts, 2 sc in next st; rep from * around; join. (28)\nRnds 3-4: Continue to increase 4 sc every rnd. (36)"
    )
    proof = prove_text(text)
    assert proof.ok and "increase 4 sts every rnd" in write(proof.pattern, "UK")


def test_a_note_that_speaks_of_another_gauge_is_a_note() -> None:
    text = f"Note: with a 6 mm hook, 12 hdc and 9 rows = 10 cm.\nGauge: sc 20 sts x 22 rows = 10 cm\n{WIDE}"
    pattern = prove_text(text).pattern
    assert [gauge.stitch for gauge in pattern.gauges] == ["sc"] and len(pattern.extra) == 1


def test_an_oval_that_begins_with_its_own_chain_is_measured_as_one() -> None:
    text = (
        "GAUGE\nWith 5.5 mm hook, 12 hdc and 9 rounds = 4 in. / 10 cm.\nBASE\nRound 1: With MC, ch 26. 2 hdc in the 3rd ch from hook (beginning chs do not count as a st). Hdc in each ch until last ch. "
        "4 hdc in last ch. Turn to work down the other side of the chain. Hdc in each ch until last ch. 2 hdc in last ch. Sl st to first hdc. (52)\n"
        "Round 2: Ch 1, 2 hdc in first 2 sts, hdc in next 22 sts, 2 hdc in next 4 sts, hdc in next 22 sts, 2 hdc in last 2 sts. Sl st to first hdc. (60)"
    )
    proof = prove_text(text)
    assert proof.ok and not [f for f in proof.findings if f.code.startswith("base-")]
    assert proof.shapes is not None and proof.shapes[0].rounds[-1].sts == 60


def test_a_base_of_rows_is_a_rectangle() -> None:
    proof = prove_text(
        "Gauge: sc 20 sts x 22 rows = 10 cm\nBase\nCh 9.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (8)\nRows 2-30: Ch 1, sc in each st across, turn. (8)"
    )
    assert proof.pattern.sections[0].role == "panel" and not [f for f in proof.findings if f.code.startswith("base-")]
