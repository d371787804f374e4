"""Sizes as people name them: in every usual form they are found, under these names, and every set has a number for each."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.notation.unlisted_sizes import by_slashes, told_sizes
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.words.sizes import size_names

TWO = (
    "Rnd 1: 6 (8) sc in ring. (6 (8))\n"
    "Rnd 2: 2 sc in each st around. 12 (16) sts\n"
    "Rnd 3: sc in next 6 (8) sts, 2 sc in next 6 (8) sts. (18 (24))\n"
    "Rnds 4-8 (10): sc in each st around. 18 (24) sts"
)
THREE = (
    "Rnd 1: 6 (8, 10) sc in ring. (6 (8, 10))\n"
    "Rnd 2: 2 sc in each st around. 12 (16, 20) sts\n"
    "Rnds 3-8 (10, 12): sc in each st around. 12 (16, 20) sts"
)
SLASHES = THREE.replace(" (8, 10)", "/8/10").replace(" (16, 20)", "/16/20").replace(" (10, 12)", "/10/12")
TURNS = THREE.replace(" (8, 10)", " (8) 10").replace(" (16, 20)", " (16) 20").replace(" (10, 12)", " (10) 12")
BRACES = THREE.replace("(8, 10)", "{8, 10}").replace("(16, 20)", "{16, 20}").replace("(10, 12)", "{10, 12}")
DASHES = SLASHES.replace("/", "-").replace("Rnds 3-8-10-12", "Rnds 3-8")
S, L = ("Small", "Large"), ("Small", "Medium", "Large")
NUMBERED = ("1", "2", "3")

# what is told before the first round, the rounds, the names
TOLD = [
    ("S (M, L)", THREE, ("S", "M", "L")),
    ("SIZES\nSmall, Medium, Large", THREE, L),
    ("Small [Medium, Large]", THREE, L),
    ("Sizes: Small/Medium/Large", SLASHES, L),
    ("This pattern is written in size Small with changes for Medium and Large in parentheses.", THREE, L),
    ("Pattern includes sizes 1, 2 and 3.", THREE, NUMBERED),
    ("Sizes included: Mini, Regular, Large.", THREE, ("Mini", "Regular", "Large")),
    ("Three sizes: Mini - Regular - Large", THREE, ("Mini", "Regular", "Large")),
    ("Available in 3 sizes S(M,L)", THREE, ("S", "M", "L")),
    ("Size S [M] {L}", THREE, ("S", "M", "L")),
    ("Size: S (M) L", TURNS, ("S", "M", "L")),
    ("Sizes: Small {Medium, Large}", BRACES, L),
    ("[Small, Medium, Large]", THREE, L),
    ("Toddler/Child/Adult", SLASHES, ("Toddler", "Child", "Adult")),
    ("sm/lg", TWO, ("sm", "lg")),
    ("Star Stitch Clutch (S/L)", TWO, ("S", "L")),
    ("One pattern, 2 sizes (phone / wallet)", TWO, ("phone", "wallet")),
    ("Sizes: mini (regular)", TWO, ("mini", "regular")),
    ("Size: Child (Adult) sizes", TWO, ("Child", "Adult")),
    ("SIZES: Standard (Wide) mat", TWO, ("Standard", "Wide")),
    ("Sizes: Small (8 inches), Medium (10 inches), Large (12 inches)", THREE, L),
    ('Size: S (8"), M (10"), L (12")', THREE, ("S", "M", "L")),
    ("Sizes: 20cm [25cm, 30cm] across", THREE, ("20cm", "25cm", "30cm")),
    ("Sizes: A: 60 sts around; B: 72 sts around", TWO, ("A", "B")),
    ("size 1: 13 squares wide; size 2: 17 squares wide", TWO, ("1", "2")),
    ("Sizes: 12 (14) loops", TWO, ("12 loops", "14 loops")),
    ("Size: one design, three sizes - S [M, L]", THREE, ("S", "M", "L")),
    ("Sizes: 2 sizes (market, beach)", TWO, ("market", "beach")),
    ("Sizes\nSmall: 18 cm diameter\nLarge: 24 cm diameter", TWO, S),
    ("Sizes\n• Small: 15 cm\n• Medium: 20 cm\n• Large: 25 cm", THREE, L),
    ("For sizes 1 (2:3)", THREE, NUMBERED),
    ("Sizes  A   B   C", THREE, ("A", "B", "C")),
    ("Sizes\nA) e-reader\nB) laptop sleeve", TWO, ("e-reader", "laptop sleeve")),
    ("Sizes\n1. mini\n2. midi\n3. maxi", THREE, ("mini", "midi", "maxi")),
    ("To fit: phone [tablet]", TWO, ("phone", "tablet")),
    ("Available in two sizes, standard and jumbo (in parentheses).", TWO, ("standard", "jumbo")),
    ("Cotton yarn. Sizes: coin (card, phone)", THREE, ("coin", "card", "phone")),
    ("Alkaid Bucket, 3 sizes (S-M-L)", DASHES, ("S", "M", "L")),
    ("Sizes: S-M-L", DASHES, ("S", "M", "L")),
    ("Finished size: Small: 8\" x 9\"; Large: 10\" x 12\"", TWO, S),
    ("Bag sizes: Pouch, Tote", TWO, ("Pouch", "Tote")),
    ("Comes in S, M & L.", THREE, ("S", "M", "L")),
    ("Small & Large", TWO, S),
    ("SMALL (LARGE)", TWO, ("SMALL", "LARGE")),
    ("The numbers for the three sizes are given as small/medium/large", SLASHES, L),
    ("This pattern includes two sizes. Numbers for the larger size are in brackets.", TWO, ("Smaller", "Larger")),
    ("Basket Bag in Two Sizes", TWO, None),
    ("Choose your size: pouch, clutch or tote", THREE, None),
    ("Figures for larger sizes are given in round brackets.", THREE, None),
    ('To fit: 13" (15", 17") laptop', THREE, None),
    ("Where only one figure appears, this applies to all sizes.", THREE, None),
    ("Size options: Pouch / Tote", TWO, None),
]  # fmt: skip


@pytest.mark.parametrize(("told", "rounds", "names"), TOLD, ids=[told[:40] for told, _, _ in TOLD])
def test_sizes_are_found(told: str, rounds: str, names: tuple[str, ...] | None) -> None:
    """None: how many there are is known, and the reader is asked for their names."""
    proof = prove_text(f"Comet Bag\n{told}\n\n{rounds}")
    assert [f for f in proof.findings if f.severity == "error"] == []
    if names is not None:
        assert tuple(name.lower() for name in proof.pattern.sizes) == tuple(name.lower() for name in names)
    else:
        assert len(proof.pattern.sizes) == (2 if rounds == TWO else 3)
    assert proof.lines[-1].sts == ((18, 24) if rounds == TWO else (12, 16, 20))
    again = parse(write(proof.pattern)).pattern
    assert again == proof.pattern


@pytest.mark.parametrize("names", ["Sizes: Small, Large", "Sizes: S (M, L, XL)", "Sizes – Baby, Large"])
def test_sets_that_all_have_another_length_are_believed(names: str) -> None:
    proof = prove_text(f"Comet Bag\n{names}\n\n{THREE}")
    assert proof.pattern.sizes == NUMBERED
    assert "sizes-not-named" in {f.code for f in proof.findings}
    assert proof.lines[-1].sts == (12, 16, 20)


def test_one_set_of_the_named_length_is_enough_to_believe_the_names() -> None:
    text = f"Sizes: S, M\n\n{THREE}\nRnd 9 (11): sc in next 5 (7) sts, leave rem sts unworked."
    codes = {f.code for f in prove_text(text).findings}
    assert "set-length" in codes and "sizes-not-named" not in codes


def test_a_slip_in_one_set_changes_no_names() -> None:
    proof = prove_text(f"Sizes: S, M, L\n\n{THREE.replace('12 (16, 20) sts', '12 (16) sts', 1)}")
    assert proof.pattern.sizes == ("S", "M", "L")
    assert "set-length" in {f.code for f in proof.findings}


def test_dashes_between_three_sizes_are_read_as_slashes_and_keep_their_columns() -> None:
    raws = [
        "3 sizes: S - M - L",
        "R1: 6 - 8 - 10 sc in ring (6 - 8 - 10)",
        "R2-R8 - R2-R10 - R2-R12: sc around",
        "R3-5: sc",
    ]
    told = told_sizes(raws)
    assert told is not None and told.names == ("S", "M", "L")
    made = by_slashes(raws, told.names)
    assert made[1:] == ["R1: 6 / 8 / 10 sc in ring (6 / 8 / 10)", "R2-R8 / R2-R10 / R2-R12: sc around", "R3-5: sc"]
    assert [len(raw) for raw in made] == [len(raw) for raw in raws]
    assert by_slashes(raws, ("A", "B", "C")) == raws  # not told so


@pytest.mark.parametrize(
    ("text", "names"),
    [
        ("S, M", ("S", "M")),
        ("S (M, L)", ("S", "M", "L")),
        ("S (M) L (XL)", ("S", "M", "L", "XL")),
        ("S/M (L/XL)", ("S/M", "L/XL")),
        ("Small and Large", ("Small", "Large")),
        ("one, two and three", ("one", "two", "three")),
        ('8" (10", 12")', ('8"', '10"', '12"')),
        ("20 cm (25 cm)", ("20 cm", "25 cm")),
        ("9 squares (13 squares)", ("9 squares", "13 squares")),
        ("1 (2:3:4)", ("1", "2", "3", "4")),
        ("1 [2] {3}", ("1", "2", "3")),
        ("two sizes (day, evening)", ("day", "evening")),
        ("3 squares high; 4 squares high", ("3 squares high", "4 squares high")),
    ],
)
def test_names_in_one_line(text: str, names: tuple[str, ...]) -> None:
    assert size_names(text) == names


@pytest.mark.parametrize(
    ("line", "sts"),
    [
        ("Size L\nRnd 2: 2 sc in each st. (12)", (None, 12)),
        ("Size L only:\nRnd 2: 2 sc in each st. (12)", (None, 12)),
        ("For L only\nRnd 2: 2 sc in each st. (12)", (None, 12)),
        ("L bag only:\nRnd 2: 2 sc in each st. (12)", (None, 12)),
        ("Rnd 2 (L only): 2 sc in each st. (12)", (None, 12)),
        ("2. (L) 2 sc in each st. (12)", (None, 12)),
        ("Rnd 2 (L) 2 sc in each st. (12)", (None, 12)),
        ("Both sizes\nRnd 2: 2 sc in each st. (12)", (12, 12)),
        ("Size L:\nRnd 2: 2 sc in each st. (12)\nRnd 2 (3): sc in each st. (6 (12))", (6, 12)),
        ("Size L:\nRnd 2: 2 sc in each st. (12)\nRnd 2/3: sc in each st. (6/12)", (6, 12)),
    ],
)
def test_rows_for_some_sizes(line: str, sts: tuple[int | None, int]) -> None:
    proof = prove_text(f"Sizes: S, L\nRnd 1: 6 sc in ring. (6)\n{line}")
    assert [f for f in proof.findings if f.severity == "error"] == []
    assert proof.lines[-1].sts == sts
