"""Rows repeated until they measure so much: as many as come nearest by the gauge, said, printed as both, and held to."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.proof import prove_text, reader_text
from rillstep.core.tree import Again

HEAD = "Gauge: hdc 15 sts x 10 rows = 10 cm\nGauge: sc 15 sts x 20 rows = 10 cm\nSizes: S, L\n"
RING = "Ch 40, join into a ring.\nRnd 1: Ch 1, hdc in each ch around; join. (40)\n"
HDC, SC = "Hdc in each st around; join.", "Sc in each st around; join."


def rows(text: str) -> list[tuple[int, ...]]:
    """How many rows each repetition stands for, in each size."""
    lines = [line for _, line in prove_text(text).pattern.lines() if isinstance(line, Again)]
    return [tuple(line.rounds(size) for size in line.sizes) for line in lines]


# what is written, and how many rows are repeated in each size: the first round of hdc is 1 cm high, one of sc 0.5 cm
MEASURED = [
    (RING + f"Rnd 2: {HDC}\nRep Rnd 2 until the wall measures 20 (24) cm.", (18, 22)),
    (RING + f"Rnd 2: {HDC}\nRep Rnd 2 until it measures 20 (24) cm.", (18, 22)),
    (RING + f"Rnd 2: {HDC}\nRepeat Rnd 2 until piece measures 10 inches.", (23, 23)),
    (RING + f"Rnd 2: {HDC}\nRep Rnd 2 until work measures 150 mm.", (13, 13)),
    (RING + f"Rnd 2: {SC}\nRep Rnd 2 until the wall measures 6.5 (8) cm.", (10, 13)),
    (RING + f"Rnd 2: {HDC}\nRnd 3: {SC}\nRep Rnds 2 and 3 until the wall measures 10 (13) cm.", (10, 14)),
    (RING + f"Rnd 2: {HDC}\nRnd 3: {SC}\nRep Rnds 2 and 3 until the wall measures 10.6 cm.", (10, 10)),
    (RING + f"Rnd 2: {HDC}\nRep Rnd 2 until the wall measures 1 cm.", (1, 1)),
    (RING + f"Rnd 2: {HDC}\nRep Rnd 2 3 more times.\nRnd 6: {SC}\nRep Rnd 6 until the wall measures 8 cm.", (5, 5)),
    ("Strap\nCh 7.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn.\nRow 2: Ch 1, hdc in each st across; turn.\n"
     "Rep Row 2 until the strap measures 60 (75) cm.", (58, 73)),
]  # fmt: skip


@pytest.mark.parametrize(("text", "made"), MEASURED, ids=[str(made) for _, made in MEASURED])
def test_rows_come_nearest_to_the_measure(text: str, made: tuple[int, ...]) -> None:
    proof = prove_text(HEAD + text)
    assert proof.ok and rows(HEAD + text)[-1] == made
    (said,) = [f for f in proof.findings if f.code == "rows-by-measure"]
    assert str(made[0]) in said.message and str(made[-1]) in said.message
    assert "rows-not-counted" not in {f.code for f in proof.findings}


@pytest.mark.parametrize("text", [text for text, _ in MEASURED], ids=[str(made) for _, made in MEASURED])
def test_both_are_printed_and_read_back(text: str) -> None:
    printed = reader_text(prove_text(HEAD + text).pattern, "US")
    assert printed.ok
    line = next(line for line in printed.text.split("\n") if "until" in line and not line.startswith("Note"))
    assert line.startswith(("Rnd", "Row")) and "measures" in line
    assert not [f for f in printed.proof.findings if f.code in ("length-differs", "rows-not-counted")]


def test_what_follows_has_its_number() -> None:
    text = HEAD + MEASURED[0][0] + f"\nRnd 21 (25): {SC}\nNext rnd: {SC}"
    assert [line.label for line in prove_text(text).lines][-2:] == ["Rnd 21", "Rnd 22"]
    assert prove_text(text).ok


@pytest.mark.parametrize(("stated", "wrong"), [("20 (24)", []), ("21 (24)", []), ("12 (24)", [0]), ("20 (30)", [1])])
def test_a_stated_number_of_rows_is_held_to_the_measure(stated: str, wrong: list[int]) -> None:
    text = HEAD + RING + f"Rnd 2: {HDC}\nRnds 3-{stated}: Rep Rnd 2 until the wall measures 20 (24) cm."
    found = [f for f in prove_text(text).findings if f.code == "length-differs"]
    assert [f.size for f in found] == wrong and all(f.severity == "warning" for f in found)


def test_without_a_gauge_it_is_not_known() -> None:
    proof = prove_text("Sizes: S, L\n" + MEASURED[0][0] + f"\nNext rnd: {SC}")
    assert "rows-not-counted" in {f.code for f in proof.findings}
    assert [line.mark for line in proof.lines][2] == "unchecked"
    assert [line.label for line in proof.lines][-1] == "Rnd 4"


def test_a_measure_of_something_else_is_no_height() -> None:
    text = HEAD + RING + f"Rnd 2: {HDC}\nRep Rnd 2 until the flap covers 8 cm of the front."
    assert "rows-not-counted" in {f.code for f in prove_text(text).findings}


@given(st.integers(30, 400), st.integers(30, 400), st.integers(8, 30))
@settings(max_examples=30, deadline=None)
def test_no_other_number_of_rows_comes_nearer(small_mm: int, large_mm: int, per_10_cm: int) -> None:
    text = (
        f"Gauge: hdc 15 sts x {per_10_cm} rows = 10 cm\nSizes: S, L\n{RING}Rnd 2: {HDC}\n"
        f"Rep Rnd 2 until the wall measures {small_mm} ({large_mm}) mm."
    )
    if small_mm == large_mm:
        text = text.replace(f"{small_mm} ({large_mm})", str(small_mm))
    row_mm = 100 / per_10_cm
    for made, wanted in zip(rows(text)[0], (small_mm, large_mm), strict=True):
        best = min(range(1, 400), key=lambda n: abs((n + 2) * row_mm - wanted))
        assert abs((made + 2) * row_mm - wanted) <= abs((best + 2) * row_mm - wanted) + 0.01
