"""Yarn on the screen: weighed on a scale, asked of the drawer, tried in another yarn."""

import os
import re
import signal
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import comet, graded_bag, nightfield
from rillstep.demo.mariadb import free_port
from rillstep.demo.run import serve
from rillstep.demo.scale import SimulatedScale, on_socket
from rillstep.document import dump
from tests.browser.conftest import BESIDE_OTHER_TESTS, SECRET, Opener, assert_axe, import_design, saved, sign_up, step
from tests.canaries import server_log

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


def test_yarn_is_weighed_asked_and_seen_at_a_glance(page: Page) -> None:
    import_design(page, dump(comet()))
    step(page, "Yarn")
    expect(page.get_by_test_id("scarce")).to_have_text("B: Quiet Meridian, amber")
    expect(page.get_by_test_id("largest-size")).to_have_text("no size yet")
    expect(page.get_by_role("row", name=re.compile("^Wall"))).to_contain_text("from the swatch in FPdc, BPdc")
    assert_axe(page, "yarn of two colours")
    page.goto(page.url.replace("/yarn", "/swatch"))
    page.get_by_role("group", name="Yarn of colour B").get_by_label("In the drawer").fill("40")
    saved(page)
    step(page, "Yarn")
    expect(page.get_by_test_id("largest-size")).to_have_text("One size")
    page.get_by_label("How large with so much").fill("300")
    page.get_by_role("button", name="Try", exact=True).click()
    expect(page.get_by_test_id("largest")).to_contain_text("of the sample", timeout=90_000)
    weighed = page.get_by_label("Weighed", exact=True)
    weighed.get_by_label("What", exact=True).select_option("Wall")
    weighed.get_by_label("Grams").fill("400")
    weighed.get_by_role("button", name="Add the weighing").click()
    expect(page.get_by_label("The drawer")).to_contain_text("Not used, as it cannot be what it is said to be: Wall")
    weighed.get_by_role("button", name="Remove: Wall in One size: 400 g").click()
    expect(page.get_by_label("The drawer")).not_to_contain_text("Not used")
    before = page.get_by_role("row", name=re.compile("^Grams")).inner_text()
    extra = page.get_by_label("What else uses yarn")
    extra.get_by_label("Kind").select_option("tassel")
    extra.get_by_label("How many").fill("4")
    extra.get_by_label("Length (cm)").fill("10")
    extra.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("row", name=re.compile("^Grams"))).not_to_have_text(before)
    assert_axe(page, "weighings and tassels")


@pytest.fixture(scope="module")
def weighing(database_url: str) -> Iterator[tuple[str, SimulatedScale]]:
    """A server beside a scale."""
    scale, port = SimulatedScale(), free_port()
    with on_socket(scale) as address:
        beside = {**BESIDE_OTHER_TESTS, "RILLSTEP_SCALE": address}
        server = serve(database_url, SECRET, port, server_log(), **beside)
        yield f"http://127.0.0.1:{port}", scale
        os.killpg(server.pid, signal.SIGTERM)
        server.wait(timeout=30)


def test_a_swatch_lies_on_the_scale(open_page: Opener, weighing: tuple[str, SimulatedScale]) -> None:
    address, scale = weighing
    page = open_page()
    sign_up(page, address)
    import_design(page, dump(nightfield()))
    step(page, "Swatch")
    field = page.get_by_label("Swatches").get_by_label("Weight (g)")
    scale.put(11.8)
    page.get_by_role("button", name="Weigh now: the swatch in hdc").click()
    expect(field).to_have_value(re.compile(r"^1[12](\.\d)?$"))
    saved(page)
    scale.silent = True
    page.get_by_role("button", name="Weigh now: the swatch in hdc").click()
    expect(page.get_by_role("alert")).to_contain_text("stopped talking")
    field.fill("12.5")  # a weight that is typed does as well
    saved(page)
    assert_axe(page, "a scale that stopped talking")


def test_a_design_is_tried_in_another_yarn_and_taken(page: Page) -> None:
    import_design(page, dump(graded_bag("clutch")))
    step(page, "Yarn")
    other = page.get_by_label("Another yarn or hook", exact=True)
    other.get_by_role("button", name="Try another yarn or hook").click()
    other.get_by_label("Metres a ball").fill("120")
    other.get_by_role("button", name="Work it out").click()
    same = other.get_by_label("The same measures", exact=True)
    expect(same).to_contain_text("make a swatch in that yarn first", timeout=90_000)
    expect(same.get_by_role("button")).to_have_count(0)
    other.get_by_label("Stitches in 10 cm").fill("17")
    other.get_by_label("Rows in 10 cm").fill("19")
    other.get_by_role("button", name="Work it out").click()
    take = same.get_by_role("button", name="Take it with the same measures")
    take.wait_for(timeout=90_000)
    expect(same).to_contain_text("go with it; the revisions before keep them. Taking it can be undone.")
    assert_axe(page, "another yarn")
    take.click()
    saved(page)
    expect(page.get_by_test_id("proof-mark")).to_contain_text("proved in 3 sizes")
    expect(page.get_by_label("Weighed", exact=True).get_by_role("listitem")).to_have_count(0)
    step(page, "Swatch")
    expect(page.get_by_test_id("gauge")).to_have_text("17 × 19")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("gauge")).to_have_text("20 × 22")
    expect(page.get_by_label("Swatches").get_by_role("group")).to_have_count(1)
