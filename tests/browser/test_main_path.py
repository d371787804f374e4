"""From an empty start to proved instructions in four sizes."""

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


def test_from_an_empty_start_to_proved_instructions_in_four_sizes(page: Page) -> None:
    began = time.monotonic()
    page.get_by_role("button", name="New design").click()
    page.get_by_role("button", name="Tote with handles").click()
    page.get_by_label("Name of the design").fill("Comet carrier")
    step(page, "Swatch")
    page.get_by_label("Stitches in 10 cm").fill("16")
    page.get_by_role("button", name="Write it into the text").click()
    expect(page.get_by_test_id("gauge")).to_have_text("16 × 11.5")
    step(page, "Sizes")
    page.get_by_label("Name of size One size").fill("Cap")
    page.keyboard.press("Enter")
    page.get_by_label("Name of size Cap").wait_for()
    for name, usual, width in (("Scarf", "Small", "26"), ("Coat", "Small", "32"), ("Cape", "Small", "38")):
        page.get_by_role("button", name="Add a size").click()
        page.get_by_label(f"Name of size {usual}").fill(name)
        page.keyboard.press("Enter")
        page.get_by_label(f"Width, lying flat of {name}", exact=True).fill(width)
    page.get_by_role("button", name="Grade to these").click()
    page.get_by_role("button", name="Take these sizes").click(timeout=60_000)
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")
    expect(page.get_by_role("img", name=re.compile("The bag as it lies, Cape: 38"))).to_be_visible()
    step(page, "Yarn")
    expect(page.get_by_text("it is not known what the label of the yarn says")).to_be_visible()
    step(page, "Words")
    expect(page.get_by_label("Instructions").get_by_role("heading", name="Comet carrier")).to_be_visible()
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
    assert time.monotonic() - began < 180
