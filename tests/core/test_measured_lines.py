"""Lines by measure in a text that is graded: their lengths are what a target asks for."""

from rillstep.core.grading import GradedText, SizeWanted, analysed, grade_from, grade_text
from rillstep.core.proof import reader_text
from tests.core.test_measures import GAUGE, discs

TEXT = GAUGE + "Gauge: ch 20 = 10 cm\n" + discs(6) + (
    "Section: Wall (joined rounds, wall), continue from Base\n"
    "Rnds 7-{wall}: Ch 1, sc in each st around; join, until the wall measures 12 cm. — 36 sts\n"
    "Rnd {wall + 1}: Ch 1, sc in each st around; join. — 36 sts\n"
    "Section: Strap (rows, strip)\nCh until it measures 60 cm.\n"
    "Row 1: Sc in 2nd ch from hook, sc in each ch across. — 119 sts\n"
)  # fmt: skip


def measure(graded: GradedText, name: str) -> list[float]:
    assert graded.proof.bag is not None
    return [mm for one in graded.proof.bag.measures if one.called == name for mm in one.mm if mm is not None]


def test_a_target_is_met_by_the_length_of_its_line() -> None:
    analysis = analysed(TEXT)
    assert [set(line.moves) for line in analysis.lines] == [{"height", "Wall.height"}, {"strap", "Strap.length"}]
    graded = grade_from(
        analysis,
        [
            SizeWanted("S", {}, {}),
            SizeWanted("L", {"width": 120.0, "height": 200.0, "Strap.length": 800.0}, {}),
            SizeWanted("XL", {"Wall.height": 180.0}, {}),
        ],
    )
    assert graded.proof.ok and graded.notes == () and reader_text(graded.proof.pattern, "US").ok
    assert measure(graded, "height") == [125.0, 200.0, 180.0] and measure(graded, "width") == [90.0, 120.0, 90.0]
    assert abs(measure(graded, "strap")[1] - 800) <= 2.5
    assert "Rnds 7 (9, 7)-{wall}: Ch 1, sc in each st around; join, until the wall measures 12 (19.5, 17.5) cm." in (
        graded.text
    )
    assert "Ch until it measures 60 (80.5, 60) cm." in graded.text
    again = grade_text(
        graded.text, [*(SizeWanted(name, {}, {}) for name in ("S", "L", "XL")), SizeWanted("Q", {"height": 250.0}, {})]
    )
    assert again.proof.ok and "until the wall measures 12 (19.5, 17.5, 24.5) cm." in again.text
    assert measure(again, "height") == [125.0, 200.0, 180.0, 250.0]


def test_a_length_between_two_rounds_comes_to_the_nearer_one() -> None:
    graded = grade_text(TEXT, [SizeWanted("S", {}, {}), SizeWanted("L", {"height": 163.0}, {})])
    assert graded.proof.ok and abs(measure(graded, "height")[1] - 163) <= 3.0 and graded.notes == ()
