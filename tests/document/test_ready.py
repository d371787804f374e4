"""Ready bags: each is proved, measured, grows, and is another build."""

import pytest

from rillstep.core.grading import SizeWanted, grade_text
from rillstep.core.proof import prove_text, questions
from rillstep.document.ready import READY_BAGS, ReadyBag, ready_design


@pytest.mark.parametrize("bag", READY_BAGS, ids=lambda bag: bag.key)
def test_a_ready_bag_is_proved_measured_and_grows(bag: ReadyBag) -> None:
    design = ready_design(bag.key)
    assert design is not None and design.name == bag.title
    proof = prove_text(design.text)
    assert proof.ok and not [one for one in proof.findings if one.severity != "caution"]
    assert not questions(proof, design.text)
    assert proof.bag is not None
    measures = {one.called: one.mm[0] for one in proof.bag.measures}
    assert measures["width"] and measures["height"]
    # A bag that one would carry, and no hat.
    assert measures["height"] >= 0.6 * measures["width"]
    assert (measures.get("mouth") or measures["width"]) >= 0.6 * measures["width"]
    wanted = [SizeWanted("One size", {}, {}), SizeWanted("Larger", {"height": measures["height"] * 1.25}, {})]
    graded = grade_text(design.text, wanted)
    assert graded.proof.ok and graded.proof.pattern.sizes == ("One size", "Larger")
    made = next(one.mm for one in graded.proof.bag.measures if one.called == "height")  # type: ignore[union-attr]
    assert made[0] == measures["height"]
    step_mm = 37.5 if bag.key == "granny_squares" else 22.0  # a row of squares, folded; else two rows
    assert made[1] is not None and abs(made[1] - measures["height"] * 1.25) <= step_mm / 2 + 1


def test_there_is_no_other() -> None:
    assert ready_design("../secrets") is None
    assert len({ready_design(bag.key).text for bag in READY_BAGS}) == len(READY_BAGS)  # type: ignore[union-attr]
