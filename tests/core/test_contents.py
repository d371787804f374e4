"""What fits in a bag, and what a bag must measure for it."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from rillstep.core.contents import EASE_MM, EASE_UP_MM, THINGS, Thing, fits, measures_for

sides = st.floats(5, 600)


@pytest.mark.parametrize("thing", THINGS, ids=lambda thing: thing.key)
def test_a_bag_that_is_made_for_a_thing_holds_it_and_a_smaller_one_does_not(thing: Thing) -> None:
    wanted = measures_for(thing)
    assert fits(thing, wanted)
    upright = Thing(thing.key, thing.name, thing.width_mm, thing.height_mm, thing.depth_mm, True)
    assert not fits(upright, {**wanted, "width": wanted["width"] - 1})
    assert not fits(upright, {**wanted, "height": wanted["height"] - 1})


@given(sides, sides, sides, st.floats(-20, 300), st.floats(-20, 300))
def test_a_larger_bag_holds_no_less(wide: float, high: float, deep: float, wider: float, higher: float) -> None:
    thing = Thing("own", "a thing", wide, high, deep)
    wanted = measures_for(thing)
    width, height = wanted["width"] + wider, wanted["height"] + higher
    assume(fits(thing, {"width": width, "height": height}))
    assert fits(thing, {"width": width + 1, "height": height}) and fits(thing, {"width": width, "height": height + 1})
    assert 2 * width >= 2 * EASE_MM + 2 * (min(wide, high, deep) + sorted((wide, high, deep))[1]) - 1e-6
    assert height >= EASE_UP_MM


def test_what_is_not_known_holds_nothing() -> None:
    assert not any(fits(thing, {"height": 900.0}) for thing in THINGS)
