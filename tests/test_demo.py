"""The bags of the demo: of six builds, each true in all sizes, and graded by the application from its sample."""

import pytest

from rillstep.core.drawings import drawings_of
from rillstep.core.proof import prove_text
from rillstep.demo.data import GRADED, graded_bag, nightfield, steward
from rillstep.demo.texts import bag_text, sample_text
from rillstep.services import grading

BUILDS = {"pouch": "wall", "mesh": "wall", "clutch": "folded", "panels": "panels", "squares": "squares"}


@pytest.mark.parametrize("key", GRADED)
def test_a_bag_is_what_grading_its_sample_gives(key: str) -> None:
    sample = graded_bag(key, sample_text(key))
    assert len(prove_text(sample.text).pattern.sizes) == 1
    graded = grading.graded_view(sample)
    assert graded.problem is None and graded.proved and graded.notes == []
    assert all(target.within for target in graded.targets)
    assert graded.text == bag_text(key)


@pytest.mark.parametrize("design", [nightfield(), steward(), *map(graded_bag, GRADED)], ids=lambda design: design.name)
def test_a_bag_is_true_in_two_to_five_sizes_and_drawn(design: object) -> None:
    assert hasattr(design, "text")
    proof = prove_text(design.text)
    assert proof.ok and 2 <= len(proof.pattern.sizes) <= 5
    assert proof.bag is not None
    for size in range(len(proof.pattern.sizes)):
        assert drawings_of(proof.bag, size)[0].view == "bag"


@pytest.mark.parametrize("key", BUILDS)
def test_the_bags_are_of_different_builds(key: str) -> None:
    bag = prove_text(bag_text(key)).bag
    assert bag is not None and bag.body.build == BUILDS[key]
    names = {one.called for one in bag.measures}
    assert {
        "pouch": "Cord.length",
        "mesh": "strap",
        "clutch": "flap",
        "panels": "Trim.around",
        "squares": "Square.side",
    }[key] in names
