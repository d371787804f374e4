"""From an empty start to proved instructions in four sizes; and by keyboard alone."""

import re
import time
from io import BytesIO
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect
from pypdf import PdfReader

from rillstep.core.proof import prove_text
from tests.browser.conftest import saved, step

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


def fill(page: Page, label: str, value: str) -> None:
    page.get_by_label(label).fill(value)


def test_from_an_empty_start_to_proved_instructions_in_four_sizes(page: Page) -> None:
    began = time.monotonic()
    page.get_by_role("button", name="New design").click()
    page.get_by_role("button", name="A tote by its measures").click()
    page.get_by_label("Name of the design").fill("Comet carrier")
    page.get_by_text("single crochet").click()
    for label, value in (
        ("Stitches", "20"),
        ("are wide (cm)", "12.5"),
        ("Rows", "22"),
        ("are high (cm)", "13"),
        ("Weight (g)", "11"),
    ):
        page.get_by_label(label, exact=True).fill(value)
    expect(page.get_by_test_id("gauge")).to_have_text("16 × 16.92")
    page.get_by_role("link", name="Sizes", exact=True).last.click()
    for _ in range(3):
        page.get_by_role("button", name="Add a larger size").click()
    for index, (name, width) in enumerate((("Cap", "20"), ("Scarf", "26"), ("Coat", "32"), ("Cape", "38"))):
        page.get_by_label(f"Name of size {index + 1}").fill(name)
        page.get_by_label(f"Width of {name}", exact=True).fill(width)
    expect(page.get_by_test_id("result-width-3")).to_contain_text("38.1 cm")
    step(page, "Base, wall, handles")
    expect(page.get_by_test_id("silhouette-3")).to_be_visible()
    expect(page.get_by_test_id("number-around-3")).to_have_text("122")
    step(page, "Yarn")
    expect(page.get_by_text("9 of 10 bags need")).to_be_visible()
    step(page, "Words")
    expect(page.get_by_label("Instructions").get_by_role("heading", name="Comet carrier")).to_be_visible()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")
    mark = page.get_by_test_id("proof-mark").inner_text()
    assert re.fullmatch(r"\d+ proved in 4 sizes", mark.strip())
    with page.expect_download() as text:
        page.get_by_role("button", name="Text").click()
    proof = prove_text(Path(text.value.path()).read_text())
    assert proof.findings == ()
    assert proof.pattern.sizes == ("Cap", "Scarf", "Coat", "Cape")
    with page.expect_download() as pdf:
        page.get_by_role("button", name="PDF").click()
    assert "Comet carrier" in PdfReader(BytesIO(Path(pdf.value.path()).read_bytes())).pages[0].extract_text()
    saved(page)
    page.reload()
    expect(page.get_by_label("Name of the design")).to_have_value("Comet carrier")
    assert time.monotonic() - began < 300


def test_the_main_path_works_by_keyboard_alone(page: Page) -> None:
    def tab_to(name: str, most: int = 80) -> None:
        for _ in range(most):
            page.keyboard.press("Tab")
            focused = page.evaluate(
                "() => { const e = document.activeElement; return e.getAttribute('aria-label') || e.labels?.[0]?.innerText || e.innerText || '' }"
            )
            if focused.replace("\n", " ").strip().startswith(name):
                return
        raise AssertionError(f"“{name}” cannot be reached by Tab")

    tab_to("New design")
    page.keyboard.press("Enter")
    tab_to("A tote by its measures")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Swatch", level=1).wait_for()
    page.get_by_test_id("gauge").wait_for()
    tab_to("Stitches")
    page.keyboard.type("16")
    expect(page.get_by_test_id("gauge")).to_contain_text("16 ×")
    tab_to("Sizes")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Sizes", level=1).wait_for()
    tab_to("Add a larger size")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name of size 2")).to_be_visible()
    page.keyboard.press("Control+z")
    expect(page.get_by_label("Name of size 2")).to_be_hidden()
    page.keyboard.press("Control+Shift+Z")
    expect(page.get_by_label("Name of size 2")).to_be_visible()
    page.locator("body").press("Home")
    tab_to("Base, wall, handles")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Base, wall, handles", level=1).wait_for()
    page.get_by_test_id("number-around-0").wait_for()
    tab_to("Stitches around, Small")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Why").wait_for()
    tab_to("Lock")
    page.keyboard.press("Enter")
    page.get_by_text("You locked it").wait_for()
    page.get_by_role("link", name="Words").focus()
    page.keyboard.press("Enter")
    page.get_by_label("Instructions").wait_for()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 2 sizes")
