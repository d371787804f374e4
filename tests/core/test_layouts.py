"""Pieces of which many are made, in each size; their layout; and rounds worked on them joined."""

import pytest

from rillstep.core.gauge import Gauge
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.printing.project import one_size
from rillstep.core.proof import prove_text
from rillstep.core.yarn import StitchSizes, tally

STAR = "Ch 4, join into a ring.\nRnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join. — 12 dc, 4 ch-2 sps\n"


def star(make: str, words: str, sizes: str = "S, L") -> str:
    return f"Sizes: {sizes}\nSTAR SQUARE ({make})\n{STAR}{words}\n"


@pytest.mark.parametrize(
    ("make", "words", "wrong"),
    [
        ("make 12", "Arrange the squares in 3 rows of 4.", []),
        ("make 12", "Arrange the squares in 3 rows of 5.", [("layout-count", None)]),
        ("make 8 (12)", "Join the squares in 2 rows of 4 (3 rows of 4).", []),
        ("make 8 (12)", "Join the squares in 2 rows of 4 (3 rows of 5).", [("layout-count", 1)]),
        ("make 8 (12)", "Sew the squares together, 2 (3) rows of 4.", []),
        ("make 8 (12)", "Sew the squares together, 2 (2) rows of 4.", [("layout-count", 1)]),
        ("make 6/12", "Lay the squares out as a 2 (3) x 3 (4) grid.", []),
        ("make 6/12", "Whipstitch the squares 3 (4) across and 2 (3) down.", []),
        ("make 7/13", "Arrange the squares in 2 (3) rows of 3 (4), leaving one for the pocket.", []),
        ("make 7", "There are 2 rows of 3 squares on the picture.", []),
    ],
)
def test_a_layout_takes_as_many_as_are_made(make: str, words: str, wrong: list[tuple[str, int | None]]) -> None:
    proof = prove_text(star(make, words))
    assert [(f.code, f.size) for f in proof.findings if f.severity == "error"] == wrong


def test_how_many_are_made_is_written_and_counted_for_each_size() -> None:
    proof = prove_text(star("make 8 (12)", "Join."))
    section = proof.pattern.sections[0]
    assert section.make == (8, 12) and (section.made(0), section.made(1)) == (8, 12)
    assert "make 8/12" in write(proof.pattern)
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert one_size(proof.pattern, 1).sections[0].make == (12,)
    sizes = StitchSizes(Gauge("dc", 6.0, 12.0), 5.4)
    small, large = (sum(one.stitches for one in tally(proof.pattern, work, sizes)) for work in proof.works)
    assert (small, large) == (8 * 12, 12 * 12)


@pytest.mark.parametrize("make", ["make two", "make both", "make 2", "Make 2 alike"])
def test_how_many_in_words(make: str) -> None:
    assert prove_text(star(make, "")).pattern.sections[0].make == (2,)


def test_a_number_for_another_number_of_sizes_is_none() -> None:
    assert prove_text(star("make 8 (12, 14)", "")).pattern.sections[0].make == (1,)


def test_a_round_on_joined_pieces_goes_on_from_its_total() -> None:
    edge = (
        "TOP EDGE\nRnd 1: Ch 1, sc in each st around; join. — 80 sts\nRnd 2: Ch 1, sc in each st around; join. — 81 sts"
    )
    proof = prove_text(star("make 12", f"Arrange the squares in 3 rows of 4.\n{edge}"))
    assert [f.code for f in proof.findings] == ["edge-not-counted", "total-differs"]
    assert "on the joined pieces" in write(proof.pattern)
    assert [line.proved for line in proof.lines] == [True, False, False]


def test_a_round_spread_evenly_over_joined_pieces_is_known() -> None:
    edge = "TOP EDGE\nRnd 1: Ch 1, work 80 sc evenly around; join. — 80 sts\nRnd 2: Ch 1, [sc in next 8 sts, sc2tog] around; join. — 72 sts"
    proof = prove_text(star("make 12", f"Arrange the squares in 3 rows of 4.\n{edge}"))
    assert proof.findings == () and [line.sts for line in proof.lines][1:] == [(80, 80), (72, 72)]


def test_two_panels_are_no_motifs() -> None:
    text = "Front (make 2)\nCh 21.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. — 20 sts\nBORDER\nRnd 1: Ch 1, sc in each st around. — 20 sts"
    assert prove_text(text).ok
