"""The main way by keyboard alone: paste, grade, lock, read the reason, take the second best, edit, a fifth size, print."""

import re
import time
from pathlib import Path

import pytest
from playwright.sync_api import Locator, Page, expect

from rillstep.core.printing.unnaming import without_names
from rillstep.core.settling import read

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

POUCH = (Path(__file__).parents[1] / "grading_texts" / "pouch.txt").read_text()
PLAIN = without_names(POUCH, read(POUCH))
# Nothing is further away than so many steps of the Tab key.
MOST_TABS = 160


# How many elements with a place in the order of Tab stand from the focus to a node, as nearly as the page says it.
_FAR = """(node) => {
  const all = [...document.querySelectorAll("a[href], button, input, select, textarea, summary, [tabindex]")];
  const tabbed = all.filter((one) => one.tabIndex >= 0 && !one.disabled && one.checkVisibility());
  return tabbed.indexOf(node) - tabbed.indexOf(document.activeElement);
}"""


def tab_to(page: Page, wanted: Locator) -> None:
    """Press Tab until something has the focus: most of the way at once, and then step by step."""
    wanted.wait_for()
    for _ in range(max(0, wanted.evaluate(_FAR) - 8)):
        page.keyboard.press("Tab")
    for _ in range(MOST_TABS):
        if wanted.evaluate("(node) => node === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{wanted} cannot be reached by Tab")


def press(page: Page, wanted: Locator) -> None:
    tab_to(page, wanted)
    page.keyboard.press("Enter")


def fill(page: Page, label: str, value: str) -> None:
    tab_to(page, page.get_by_label(label, exact=True))
    page.keyboard.press("ControlOrMeta+a")
    page.keyboard.insert_text(value)


def step(page: Page, name: str) -> None:
    press(page, page.get_by_label("Steps of the work").get_by_role("link", name=re.compile(f"^{name}")))
    page.get_by_role("heading", name=name, exact=True, level=1).wait_for()


def grade(page: Page) -> Locator:
    press(page, page.get_by_role("button", name="Grade to these"))
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("heading").first.wait_for(timeout=90_000)
    return dialog


def test_a_pouch_is_graded_edited_and_printed_by_keyboard(page: Page) -> None:
    began = time.monotonic()
    press(page, page.get_by_role("link", name="Check a pattern"))
    tab_to(page, page.locator(".cm-content"))
    page.keyboard.insert_text(PLAIN)
    press(page, page.get_by_role("button", name="Keep it as a design"))
    page.get_by_label("Name of the design").wait_for()
    step(page, "Sizes")
    fill(page, "Name of size One size", "Small")
    page.keyboard.press("Enter")
    page.get_by_label("Name of size Small").wait_for()
    for name in ("Medium", "Large", "Extra large"):
        press(page, page.get_by_role("button", name="Add a size"))
        page.get_by_label(f"Name of size {name}").wait_for()
    fill(page, "Height of Medium", "10")
    fill(page, "Width, lying flat of Large", "18")
    fill(page, "Width, lying flat of Extra large", "22")
    fill(page, "Height of Extra large", "16")
    expect(page.get_by_test_id("comes-to-Extra large-width")).to_contain_text("24.0 cm", timeout=90_000)
    dialog = grade(page)
    expect(dialog.get_by_label("What is not met")).to_contain_text("Extra large: width comes to 24.0 cm, not 22.0 cm")
    second = dialog.get_by_label("Next best").get_by_role("listitem").filter(has_text="width, lying flat 18.0 cm")
    press(page, second.get_by_role("button", name="Take this one").first)
    expect(dialog.get_by_label("Lines that change")).to_contain_text("(8, 12, 12)", timeout=90_000)
    press(page, dialog.get_by_role("button", name="Take these sizes"))
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")

    step(page, "Shape")
    page.get_by_text("This bag grows in 3 ways.").wait_for(timeout=90_000)
    press(page, page.get_by_test_id("number-wall-rounds-1"))
    why = page.get_by_label("Reasons and findings")
    expect(why).to_contain_text("wall rounds: 20 in Medium")
    press(page, why.get_by_role("button", name="Lock 20"))
    expect(page.get_by_label("locked at 20")).to_be_visible()

    step(page, "Words")
    page.keyboard.press("Tab")
    tab_to(page, page.get_by_label("Read", exact=True))
    page.keyboard.press("ArrowRight")
    tab_to(page, page.locator(".cm-content"))
    page.keyboard.press("ControlOrMeta+End")
    page.keyboard.insert_text("\nNote: Made by lamplight, with a moth.")
    expect(page.get_by_test_id("save-state")).to_have_text("saved")

    step(page, "Sizes")
    press(page, page.get_by_role("button", name="Add a size"))
    fill(page, "Height of Size 2", "18")
    dialog = grade(page)
    press(page, dialog.get_by_role("button", name="Take these sizes"))
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 5 sizes")

    step(page, "Words")
    with page.expect_download() as pdf:
        press(page, page.get_by_role("button", name="PDF"))
    assert Path(pdf.value.path()).read_bytes()[:5] == b"%PDF-"
    expect(page.get_by_text("with a moth")).to_be_visible()
    print(f"by keyboard: {time.monotonic() - began:.0f} s")
