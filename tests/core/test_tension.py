"""The gauge to expect from another hook or yarn, and how a hand that is off comes back to a gauge."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.gauge import Gauge
from rillstep.core.tension import HOOKS_MM, WITHIN, correction, expected

GAUGE = Gauge("sc", 5.0, 4.6)
_HOOKS = st.sampled_from(HOOKS_MM)


def test_half_a_millimetre_at_four_and_a_half_takes_a_stitch_of_fifteen() -> None:
    fifteen = Gauge("hdc", 100 / 15, 9.0)
    after = expected(fifteen, 4.5, 5.0, 2.0, 2.0)
    assert 100 / after.width_mm == pytest.approx(14.1, abs=0.2)


@given(hook=_HOOKS, times=st.floats(0.5, 2.0), metres=st.floats(0.5, 8.0))
def test_hook_and_yarn_scaled_alike_scale_the_stitch(hook: float, times: float, metres: float) -> None:
    # So many times as thick is the square of that as heavy.
    after = expected(GAUGE, hook, hook * times, metres, metres / times**2)
    assert after.width_mm == pytest.approx(GAUGE.width_mm * times)
    assert after.height_mm / after.width_mm == pytest.approx(GAUGE.height_mm / GAUGE.width_mm)


@given(hook=_HOOKS, width=st.floats(3.5, 7.0), height=st.floats(3.2, 6.6))
def test_no_other_hook_comes_nearer_and_the_rest_is_said(hook: float, width: float, height: float) -> None:
    own = Gauge("sc", width, height)
    found = correction(GAUGE, own, hook)
    widths = {one: expected(own, hook, one, 1.0, 1.0).width_mm for one in (*HOOKS_MM, hook)}
    if abs(width / 5.0 - 1) <= WITHIN:
        assert found.hook_mm is None
    else:
        taken = found.hook_mm if found.hook_mm is not None else hook
        assert abs(widths[taken] - 5.0) == pytest.approx(min(abs(one - 5.0) for one in widths.values()))
    after = expected(own, hook, found.hook_mm or hook, 1.0, 1.0)
    assert found.left == pytest.approx(after.width_mm / 5.0 - 1)
    assert found.loop_mm == pytest.approx(4.6 - after.height_mm) or abs(4.6 - after.height_mm) <= 0.21


def test_tight_hands_take_a_thicker_hook_and_low_loops_are_drawn_up() -> None:
    tight = correction(GAUGE, Gauge("sc", 4.6, 4.2), 4.5)
    assert tight.hook_mm == 5.0 and tight.wider < 0
    low = correction(GAUGE, Gauge("sc", 5.0, 4.1), 4.5)
    assert low.hook_mm is None and low.loop_mm == pytest.approx(0.5)
    assert correction(GAUGE, GAUGE, 4.5).loop_mm == 0
