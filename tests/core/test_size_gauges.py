"""Sizes in a gauge of their own: read, measured, printed, cut down to one size, and graded to."""

import pytest

from rillstep.core.grading import GradedText, NotGraded, SizeWanted, grade_text, resized
from rillstep.core.grading.trials import measures_at
from rillstep.core.printing.project import one_size
from rillstep.core.proof import Proof, prove_text, reader_text, reprint

THICK = "sc 14 sts x 15 rows = 10 cm"
BODY = (
    "Section: Body (joined rounds, wall)\nCh 40, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 40 sts\n"
    "Rnds 2-20: Ch 1, sc in each st around; join. — 40 sts\nSew the foundation edge flat.\n"
)
PLAIN = "Pattern: Two yarns\nGauge: sc 20 sts x 20 rows = 10 cm\n" + BODY
TWO = f"Pattern: Two yarns\nSizes: S, L\nGauge: sc 20 sts x 20 rows = 10 cm\nGauge (L): {THICK}\n" + BODY


def measure(proof: Proof, name: str) -> list[float]:
    assert proof.bag is not None
    return [round(mm, 1) for one in proof.bag.measures if one.called == name for mm in one.mm if mm is not None]


def test_the_same_counts_in_a_thicker_yarn_are_a_larger_size() -> None:
    """By hand: 20 stitches across are 20 x 100/14 mm, 20 rounds are 20 x 100/15 mm."""
    proof = prove_text(TWO)
    assert proof.ok
    assert measure(proof, "width") == [100.0, 142.9] and measure(proof, "height") == [100.0, 133.3]
    printed = reader_text(proof.pattern, "US")
    assert printed.ok and f"Gauge (L): {THICK}" in printed.text
    again = prove_text(reprint(proof.pattern, "US", 1).text)
    assert again.ok and measure(again, "width") == [142.9]
    assert one_size(proof.pattern, 1).gauges[0].sizes == ()


def test_a_line_by_measure_has_as_many_rounds_as_its_size_takes() -> None:
    text = TWO.replace("Rnds 2-20:", "Rnds 2-{wall}:").replace(
        "join. — 40 sts\nSew", "join, until the wall measures 20 cm.\nSew"
    )
    proof = prove_text(text)
    assert proof.ok and measure(proof, "height") == [200.0, 200.0]
    assert [line.last.values for _, line in proof.pattern.lines() if getattr(line, "last", None)] == [(40, 30)]


@pytest.mark.parametrize(
    ("text", "code", "words"),
    [
        (TWO.replace("(L)", "(XL)"), "size-not-defined", "The sizes are S, L."),
        (TWO.replace("Gauge: sc 20 sts x 20 rows = 10 cm\n", ""), "gauge-missing", "no gauge for S"),
        (TWO.replace(THICK, "mesh 10 loops x 12 rows = 10 cm"), "gauge-form", "is for all sizes"),
    ],
    ids=range(3),
)
def test_what_is_wrong_with_a_gauge_of_a_size_is_said(text: str, code: str, words: str) -> None:
    assert any(f.code == code and words in f.message for f in prove_text(text).findings)


def test_a_size_goes_with_its_gauge() -> None:
    assert f"Gauge: {THICK}" in resized(TWO, ["L"], [1]) and "20 sts x 20" not in resized(TWO, ["L"], [1])
    assert "14 sts" not in resized(TWO, ["S"], [0])
    three = resized(TWO, ["Small", "Large", "Larger"], [0, 1, 1])
    assert f"Gauge (Large, Larger): {THICK}" in three and prove_text(three).ok
    assert resized(three, ["S", "L"], [0, 1]) == TWO


def graded(*sizes: SizeWanted, text: str = PLAIN) -> GradedText:
    found = grade_text(text, sizes)
    assert found.proof.ok and found.notes == ()
    return found


def test_the_same_centimetres_in_another_yarn_are_graded_to() -> None:
    first = graded(
        SizeWanted("S", {}, {}),
        SizeWanted("Counts", {}, {}, gauge=THICK),
        SizeWanted("Cm", {"width": 100.0, "height": 100.0}, {}, gauge=THICK),
    )
    assert first.values == {"body chain": (40, 40, 28), "body rounds": (19, 19, 14)}
    assert measure(first.proof, "width") == [100.0, 142.9, 100.0] and measure(first.proof, "height")[2] == 100.0
    assert f"Gauge (Counts, Cm): {THICK}\n" in first.text
    names = [SizeWanted(name, {}, {}) for name in ("S", "Counts", "Cm")]
    again = graded(*names, SizeWanted("Q", {"width": 150.0}, {}), text=first.text)
    assert f"Gauge (Counts, Cm): {THICK}\n" in again.text and measure(again.proof, "width") == [
        100.0,
        142.9,
        100.0,
        150.0,
    ]
    assert measures_at(again.proof)["width"] == 100.0


def test_a_gauge_that_is_none_is_refused() -> None:
    with pytest.raises(NotGraded, match="“thick” is no gauge"):
        grade_text(PLAIN, [SizeWanted("S", {}, {}), SizeWanted("L", {"width": 100.0}, {}, gauge="thick")])
