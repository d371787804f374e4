"""Rows repeated until they measure so much: as many as come nearest by the gauge, said, printed as both, and held to."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.printing.named_source import write_source
from rillstep.core.proof import prove_text, reader_text
from rillstep.core.settling import read
from rillstep.core.tree import Again, Chain, Row, Setup

HEAD = "Gauge: hdc 15 sts x 10 rows = 10 cm\nGauge: sc 15 sts x 20 rows = 10 cm\nSizes: S, L\n"
RING = "Ch 40, join into a ring.\nRnd 1: Ch 1, hdc in each ch around; join. (40)\n"
HDC, SC = "Hdc in each st around; join.", "Sc in each st around; join."
BASE = (
    "Make an adjustable ring.\nRnd 1: Ch 1, 8 hdc in ring; join. (8)\nRnd 2: Ch 1, 2 hdc in each st around; join. (16)\n"
    "Rnd 3: Ch 1, [hdc in next st, 2 hdc in next st] 8 times; join. (24)\n"
)


def rows(text: str) -> list[tuple[int, ...]]:
    """How many rows each line by measure stands for, in each size."""
    lines = [line for _, line in prove_text(text).pattern.lines() if isinstance(line, Row | Again) and line.until]
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
    (RING + f"Rnds 2-{{wall}}: {HDC[:-1]} until the wall measures 20 (24) cm.", (19, 23)),
    (RING + f"Rnds 2-{{wall}}: {HDC[:-1]}, until it measures 20 (24) cm.\nRnd {{wall + 1}}: {SC} (40)", (19, 23)),
    (RING + f"Rnd 2: {HDC[:-1]} until the work measures 20 (24) cm. (40)", (19, 23)),
    (RING + f"Rnd 2 on: {HDC[:-1]} until it measures 20 (24) cm.", (19, 23)),
    (RING + "Rnds 2 and up: Hdc in each st around until it measures 20 (24) cm; join.", (19, 23)),
    (RING + "Next rnds: Ch 1, hdc in each st around, until the wall measures 20 (24) cm in height; join.", (19, 23)),
    (RING + "Hdc in each st around until the wall measures 20 (24) cm from the base.", (19, 23)),
    (RING + "Work 1 hdc in each st until the bag measures 20 (24) cm.", (19, 23)),
    (RING + "Work even in sc until the piece measures 20 (24) cm.", (38, 46)),
    (RING + "Continue in hdc rounds until it is 20 (24) cm high.", (19, 23)),
    (BASE + f"Rnds 4-{{wall}}: {HDC[:-1]} until the wall measures 20 (24) cm.", (20, 24)),
    (BASE + f"Rnd 4: {HDC}\nRep Rnd 4 until the sides measure 20 (24) cm from the base.", (19, 23)),
    ("Front\nCh 21.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn.\nRows 2-30 (33): Ch 1, hdc in each st "
     "across; turn.\nFlap\nCh 21.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn.\nRow 2 on: Ch 1, hdc in "
     "each st across; turn until the flap covers a third of the front.", (9, 10)),
    ("Front\nCh 21.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn.\nRows 2-20 (30): Ch 1, hdc in each st "
     "across; turn.\nFlap\nCh 21.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn.\nRow 2: Ch 1, hdc in "
     "each st across; turn.\nRepeat Row 2 until the flap covers half of the front.", (8, 13)),
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
    assert "until" in printed.text.split("Note:")[-1]
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


CHAIN = "Gauge: hdc 15 sts x 10 rows = 10 cm\nGauge: ch 20 = 10 cm\nSizes: S, L\nStrap\n"


@pytest.mark.parametrize(
    ("line", "made"),
    [
        ("Ch until it measures 60 (75) cm.", (120, 150)),
        ("Ch until the chain measures 60 cm, join into a ring.", (120, 120)),
        ("Ch 60 (75) cm.", (120, 150)),
        ("Make a chain of 60 (75) cm.", (120, 150)),
        ("Make a chain 600 (750) mm long.", (120, 150)),
        ("Ch 122 (148), or until it measures 60 (75) cm.", (122, 148)),
        ("Chain for about 24 (30) inches.", (122, 152)),
    ],
)
def test_a_chain_is_as_long_as_it_shall_be(line: str, made: tuple[int, ...]) -> None:
    row = (
        "Rnd 1: Hdc in each ch around; join."
        if "ring" in line
        else "Row 1: Sc in 2nd ch from hook, sc in each ch across."
    )
    proof = prove_text(f"{CHAIN}{line}\n{row}")
    assert proof.ok
    (chain,) = [
        step for _, row in proof.pattern.lines() if isinstance(row, Setup) for step in row.steps
        if isinstance(step, Chain)
    ]  # fmt: skip
    assert chain.length.values == made
    printed = reader_text(proof.pattern, "US")
    assert printed.ok and str(made[0]) in printed.text and "until" in printed.text
    assert proof.lines[0].sts == (made if "ring" in line else tuple(chains - 1 for chains in made))


def test_a_chain_without_a_gauge_of_its_own_is_estimated_narrower_than_a_stitch() -> None:
    text = CHAIN.replace("Gauge: ch 20 = 10 cm\n", "") + "Ch 60 cm.\nFasten off."
    setup, *_ = [row for _, row in prove_text(text).pattern.lines() if isinstance(row, Setup)]
    assert isinstance(setup.steps[0], Chain) and setup.steps[0].length.values == (100, 100)  # 0.9 x 6.67 mm


def test_a_chain_that_does_not_come_to_its_length_is_warned_of() -> None:
    found = prove_text(
        CHAIN + "Ch 150, or until it measures 60 cm.\nRow 1: Sc in 2nd ch from hook, sc in each ch across."
    ).findings
    assert [(f.code, f.severity) for f in found] == [("length-differs", "warning")]


def test_what_a_chain_by_length_carries_is_not_known_without_a_gauge() -> None:
    proof = prove_text(
        "Strap\nCh until it measures 60 cm.\nRow 1: Hdc in 3rd ch from hook, hdc in each ch across; turn."
    )
    assert [f.code for f in proof.findings if f.severity != "caution"] == ["chains-not-counted"]
    assert [line.mark for line in proof.lines] == ["unchecked"]


def test_a_name_that_a_measure_defines_says_so_without_a_gauge() -> None:
    text = RING + f"Rnds 2-{{wall}}: {HDC[:-1]} until the wall measures 20 cm.\nRnd {{wall + 1}}: {SC}"
    (found,) = [f for f in prove_text(text).findings if f.code == "name-not-defined"]
    assert "follows from a measure" in found.message and found.span.line == 4


def test_a_stated_count_of_a_labelled_row_is_held_to_the_measure() -> None:
    text = HEAD + RING + f"Rnds 2-15 (24): {HDC[:-1]} until the wall measures 20 (24) cm."
    assert [(f.code, f.size) for f in prove_text(text).findings if f.severity == "warning"] == [("length-differs", 0)]


def test_a_name_by_measure_is_a_name_in_the_source_print() -> None:
    parsed = read(HEAD + RING + f"Rnds 2-{{wall}}: {HDC[:-1]} until it measures 20 cm.\nRnd {{wall + 1}}: {SC} (40)")
    written = write_source(parsed)
    assert "{wall}" in written and "Number:" not in written
    assert read(written).pattern.sections == parsed.pattern.sections
