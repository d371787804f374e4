"""Narrow windows, as at 200 % or on a phone: every step is there, nothing but tables scrolls sideways, and axe finds
nothing."""

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield, pouch
from rillstep.document import dump
from tests.browser.conftest import Opener, assert_axe, import_design, sign_up

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

STEPS = ("swatch", "sizes", "shape", "yarn", "words", "words?view=edit", "testers", "parts")


def is_within(page: Page, where: str) -> None:
    """The page itself is no wider than its window, and the heading of the step is seen."""
    wide = page.evaluate("() => [document.documentElement.scrollWidth, window.innerWidth]")
    assert wide[0] <= wide[1], (where, wide)
    expect(page.get_by_role("heading", level=1)).to_be_visible()


@pytest.mark.parametrize("width", [390, 640])
def test_every_step_fits_a_narrow_window(open_page: Opener, address: str, width: int) -> None:
    page = open_page(width, 800)
    sign_up(page, address)
    is_within(page, "designs")
    import_design(page, dump(pouch()))
    design = page.url.rsplit("/", 1)[0]
    for step in STEPS:
        page.goto(f"{design}/{step}")
        page.get_by_test_id("proof-mark").wait_for()
        page.wait_for_timeout(150)
        is_within(page, f"{step} at {width}")
        if width == 390:
            assert_axe(page, f"{step} at {width}")
    page.goto(f"{address}/check")
    page.get_by_role("textbox", name="Pattern text").fill("Rnd 1: 6 sc in ring. (6 sts)")
    page.get_by_text("Rnd 1").first.wait_for()
    is_within(page, "check")
    assert_axe(page, f"check at {width}")


def test_a_wide_window_has_columns_that_scroll_and_does_not_scroll_itself(open_page: Opener, address: str) -> None:
    page = open_page(1280, 800)
    sign_up(page, address)
    import_design(page, dump(nightfield()))
    design = page.url.rsplit("/", 1)[0]
    for step in STEPS:
        page.goto(f"{design}/{step}")
        page.get_by_test_id("proof-mark").wait_for()
        page.wait_for_timeout(300)
        high = page.evaluate("() => [document.scrollingElement.scrollHeight, window.innerHeight]")
        assert high[0] <= high[1], (step, high)
