"""The gauge that a finished sample has: found again from its measures, with what does not agree."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.gauge import Gauge
from rillstep.core.proof import prove_text
from rillstep.core.sample_gauge import fitted_gauge
from rillstep.demo.texts import sample_text

POUCH = prove_text(sample_text("pouch"))
START = POUCH.pattern.gauges[0]


def made(sts: float, rows: float) -> dict[str, float]:
    """What the pouch measures in another gauge."""
    text = sample_text("pouch").replace("sc 20 sts x 22 rows", f"sc {sts} sts x {rows} rows")
    bag = prove_text(text).bag
    assert bag is not None
    return {one.called: mm for one in bag.measures if (mm := one.mm[0]) is not None}


@settings(deadline=None, max_examples=15)
@given(st.integers(10, 34), st.integers(10, 34), st.integers(0, 6))
def test_a_gauge_is_found_again_from_what_it_makes(sts: int, rows: int, seed: int) -> None:
    all_of_it = made(sts, rows)
    names = [("width", "height"), ("width", "depth"), ("mouth", "height", "depth"), ("Base.diameter", "foot")][seed % 4]
    found = fitted_gauge(POUCH.pattern, POUCH.works, START, {name: all_of_it[name] for name in names})
    assert found is not None
    assert found.gauge.per_span("cm") == pytest.approx((sts, rows), rel=0.002)
    assert all(one.agrees for one in found.compared)
    assert found.width_error_mm is not None and found.height_error_mm is not None


def test_one_measure_tells_of_one_direction_only() -> None:
    found = fitted_gauge(POUCH.pattern, POUCH.works, START, {"width": made(18, 22)["width"]})
    assert found is not None and found.height_error_mm is None and found.width_error_mm is not None
    assert found.gauge.height_mm == START.height_mm
    assert found.gauge.per_span("cm")[0] == pytest.approx(18, rel=0.001)
    # 48 stitches around, half of them across: a tape that lies within 3 mm and 1.5 % tells 24 stitches
    assert found.width_error_mm == pytest.approx((3**2 + (0.015 * 133.3) ** 2) ** 0.5 / 24, rel=0.01)


def test_what_does_not_agree_is_said_with_its_own_gauge() -> None:
    wide, blocked = made(20, 22), made(16, 22)
    found = fitted_gauge(
        POUCH.pattern, POUCH.works, START,
        {"width": wide["width"], "mouth": wide["mouth"], "foot": blocked["foot"], "height": wide["height"]},
    )  # fmt: skip
    assert found is not None
    agree = {one.name: one.agrees for one in found.compared}
    assert not agree["foot"] and agree["height"]
    foot = next(one for one in found.compared if one.name == "foot")
    assert foot.own_sts == pytest.approx(16, rel=0.01) and foot.own_rows is None


def test_a_text_without_a_gauge_gets_one() -> None:
    text = "\n".join(line for line in sample_text("pouch").split("\n") if not line.startswith("Gauge:"))
    proof = prove_text(text)
    assert proof.bag is None
    wanted = made(25, 24)
    found = fitted_gauge(
        proof.pattern, proof.works, Gauge("sc", 5.0, 5.0), {name: wanted[name] for name in ("foot", "height")}
    )
    assert found is not None and found.gauge.per_span("cm") == pytest.approx((25, 24), rel=0.002)


@pytest.mark.parametrize("made_mm", [{}, {"nothing": 10.0}, {"width": 0.0001}])
def test_nothing_is_made_of_nothing(made_mm: dict[str, float]) -> None:
    found = fitted_gauge(POUCH.pattern, POUCH.works, START, made_mm)
    assert found is None or found.gauge.width_mm > 0
