"""The tote of the demo, from its text alone, against the solver that was made for totes: as near to its targets."""

import pytest

from rillstep.core.grading import SizeWanted, analysed, grade_from
from rillstep.core.proof import prove_text, reader_text
from tests.examples import four_sizes, totes

SIZES = four_sizes()
TEXT = totes()[0]
NAMES = ("width", "height", "depth", "drop")


def made(text_measures: object, name: str) -> list[float]:
    measures = {one.called: one.mm for one in text_measures}  # type: ignore[attr-defined]
    return [mm for mm in measures[name] if mm is not None]


@pytest.mark.parametrize("sample", ["Atlas"])
def test_a_tote_is_graded_from_its_published_text_as_near_as_by_its_solver(sample: str) -> None:
    """Rounds that some sizes lack, sides of an oval that is worked in rounds, lengths that the text states."""
    sizes = [
        SizeWanted(one.name, {} if one.name == sample else {name: getattr(one, f"{name}_mm") for name in NAMES}, {})
        for one in SIZES
    ]
    graded = grade_from(analysed(TEXT, sample), sizes)
    assert graded.proof.ok and graded.notes == () and reader_text(graded.proof.pattern, "US").ok
    assert "Sizes Rug and Tent only:" in TEXT and "only:" not in graded.text
    assert (
        "hdc in next {base stitches} sts, [hdc in next {base first run + rnd - 2} sts, 2 hdc in next st] 4 times"
        in (graded.text)
    )
    solved = prove_text(TEXT).bag
    assert graded.proof.bag is not None and solved is not None
    for name, off in zip(NAMES, (0.5, 0.5, 0.5, 6.0), strict=True):  # a drop is no sum of lengths: within two chains
        pairs = zip(made(graded.proof.bag.measures, name), made(solved.measures, name), SIZES, strict=True)
        for got, other, size in pairs:
            wanted = getattr(size, f"{name}_mm")
            assert abs(got - wanted) <= abs(other - wanted) + off, (name, size.name, got, other)


def test_lengths_that_the_text_states_follow() -> None:
    sizes = [SizeWanted(one.name, {}, {}) for one in SIZES]
    sizes[3] = SizeWanted("Tent", {"width": 427.0}, {})
    graded = grade_from(analysed(TEXT, "Atlas"), sizes)
    assert "Finished: 24.0 (28.7, 34.0, 42.7) cm wide;" in graded.text
    assert graded.proof.ok
