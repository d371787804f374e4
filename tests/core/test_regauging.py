"""A whole text in another gauge: the same counts measure otherwise, the same centimetres are counted otherwise."""

from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.gauge import Gauge
from rillstep.core.grading import NotGraded
from rillstep.core.proof import Proof, prove_as_read
from rillstep.core.regauging import to_same_measures, with_same_counts

TEXTS = Path(__file__).parents[1] / "grading_texts"
BAGS = Path(__file__).parents[2] / "rillstep" / "demo" / "bags"


def scaled(text: str, times: float) -> Gauge:
    gauge = prove_as_read(text).pattern.gauges[0]
    return Gauge(gauge.stitch, gauge.width_mm * times, gauge.height_mm * times)


def measures(proof: Proof) -> dict[str, tuple[float | None, ...]]:
    assert proof.bag is not None
    return {one.called: one.mm for one in proof.bag.measures}


def totals(proof: Proof) -> list[list[object]]:
    return [[line.rounds for line in work.lines] for work in proof.works]


@pytest.mark.parametrize("path", [*sorted(TEXTS.glob("*.txt")), BAGS / "panels.txt"], ids=lambda path: path.stem)
def test_the_same_counts_measure_so_much_more(path: Path) -> None:
    text = path.read_text()
    before, after = prove_as_read(text), with_same_counts(text, scaled(text, 1.1), "cm")
    assert after.proof.ok and totals(after.proof) == totals(before)
    for name, own in measures(before).items():
        if name in ("width", "height"):
            # The gauge is printed to 0.01 stitch.
            assert measures(after.proof)[name] == pytest.approx([1.1 * (mm or 0.0) for mm in own], rel=0.002)


@settings(max_examples=12, deadline=None)
@given(times=st.floats(0.85, 1.2), name=st.sampled_from(["clutch", "ring_tote"]))
def test_the_same_centimetres_come_out_within_half_a_step(times: float, name: str) -> None:
    text = (TEXTS / f"{name}.txt").read_text()
    before, after = measures(prove_as_read(text)), to_same_measures(text, scaled(text, times), "cm")
    assert after.proof.ok
    for each in ("width", "height"):
        for was, comes in zip(before[each], measures(after.proof)[each], strict=True):
            assert was is not None and comes is not None and abs(was - comes) <= 10


def test_all_sizes_keep_their_centimetres() -> None:
    text = (BAGS / "panels.txt").read_text()
    before, after = measures(prove_as_read(text)), to_same_measures(text, scaled(text, 1.1), "cm")
    for name in ("width", "height"):
        assert measures(after.proof)[name] == pytest.approx(before[name], abs=6)
    assert len(after.proof.pattern.sizes) == 2


def test_a_gauge_that_stays_is_named_and_what_cannot_be_graded_is_refused() -> None:
    text = (BAGS / "comet.txt").read_text()
    assert "post rib" in with_same_counts(text, scaled(text, 1.1), "cm").notes[0]
    with pytest.raises(NotGraded, match="when it comes out as it is"):
        wrong = text.replace("(24)", "(25)", 1).replace("24 sts", "25 sts", 1)
        to_same_measures(wrong, scaled(text, 1.1), "cm")
