"""A pasted text in one size is graded in the browser: measures, ways, locks, preview, undo, and a size more."""

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from rillstep.core.printing.unnaming import without_names
from rillstep.core.settling import read
from tests.browser.conftest import Opener, assert_axe, phone_of_tester

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

POUCH = (Path(__file__).parents[1] / "grading_texts" / "pouch.txt").read_text()
PLAIN = without_names(POUCH, read(POUCH))


def keep(page: Page, text: str) -> None:
    """Paste a text, and keep it as a design."""
    page.get_by_role("link", name="Check a pattern").click()
    page.locator(".cm-content").click()
    page.keyboard.insert_text(text)
    page.get_by_role("button", name="Keep it as a design").click()
    page.get_by_label("Name of the design").wait_for()


def step(page: Page, name: str) -> None:
    page.get_by_label("Steps of the work").get_by_role("link", name=re.compile(f"^{name}")).click()
    page.get_by_role("heading", name=name, exact=True).wait_for()


def target(page: Page, label: str, value: str) -> None:
    page.get_by_label(label, exact=True).fill(value)


def name_sample(page: Page, name: str) -> None:
    page.get_by_label("Name of size One size").fill(name)
    page.keyboard.press("Enter")
    page.get_by_label(f"Name of size {name}").wait_for()


def grade(page: Page) -> None:
    page.get_by_role("button", name="Grade to these").click()
    page.get_by_role("dialog").get_by_role("heading").first.wait_for(timeout=90_000)


def test_a_pasted_pouch_in_one_size_is_graded_to_four(page: Page) -> None:
    keep(page, PLAIN)
    step(page, "Sizes")
    expect(page.get_by_role("row", name=re.compile("Width, lying flat"))).to_contain_text("12.0 cm")
    expect(page.get_by_label("Height of Small")).to_have_count(0)  # nothing of a tote
    name_sample(page, "Small")
    for name in ("Medium", "Large", "Extra large"):
        page.get_by_role("button", name="Add a size").click()
        page.get_by_label(f"Name of size {name}").wait_for()
    target(page, "Height of Medium", "10")
    target(page, "Width, lying flat of Large", "18")
    target(page, "Cord: Length of Large", "70")
    target(page, "Width, lying flat of Extra large", "22")
    target(page, "Height of Extra large", "16")
    assert_axe(page, "targets of a text")
    grade(page)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Every line is proved in all of them.")
    expect(dialog.get_by_label("What is not met")).to_contain_text("Extra large: width comes to 24.0 cm, not 22.0 cm")
    expect(dialog.get_by_role("row", name=re.compile("Large.*Cord: Length"))).to_contain_text("70.0 cm")
    expect(dialog.get_by_label("Lines that change")).to_contain_text("Number: base rounds = 8 (8, 12, 16)")
    assert_axe(page, "the preview of graded sizes")
    dialog.get_by_label("Next best").get_by_role("listitem").filter(has_text="width, lying flat 18.0 cm").get_by_role(
        "button", name="Take this one"
    ).first.click()
    expect(dialog.get_by_label("Lines that change")).to_contain_text(
        "Number: base rounds = 8 (8, 12, 12)", timeout=90_000
    )
    dialog.get_by_role("button", name="Leave the text as it is").click()
    page.get_by_role("button", name="Undo").click()  # the numbers that were locked for it
    grade(page)
    dialog.get_by_role("button", name="Take these sizes").click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")
    expect(page.get_by_test_id("save-state")).to_have_text("saved")

    step(page, "Shape")
    expect(page.get_by_text("This bag grows in 3 ways.")).to_be_visible(timeout=90_000)
    expect(page.get_by_role("row", name=re.compile("^base rounds"))).to_contain_text("4 at a time, with wall repeats")
    page.get_by_test_id("number-wall-rounds-1").click()
    why = page.get_by_label("Reasons and findings")
    expect(why).to_contain_text("wall rounds: 20 in Medium")
    expect(why).to_contain_text("Height +0.5 cm")
    why.get_by_role("button", name="Lock 20").click()
    expect(page.get_by_label("locked at 20")).to_be_visible()
    page.get_by_test_id("number-base-rounds-2").click()
    expect(why).to_contain_text("Why no smaller? Rnd 23")
    assert_axe(page, "numbers of a text")

    step(page, "Sizes")  # a lock holds against a target
    target(page, "Height of Medium", "12")
    grade(page)
    expect(page.get_by_label("What is not met")).to_contain_text("Medium: height comes to 10.0 cm, not 12.0 cm")
    page.get_by_role("button", name="Back to the sizes").click()  # with the lock nothing changes
    page.get_by_role("button", name="Undo").click()  # the target
    page.get_by_role("button", name="Undo").click()  # the lock
    page.get_by_role("button", name="Undo").click()  # the sizes
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 1 size")
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")


def test_a_renamed_size_does_not_come_back_while_its_text_is_worked(page: Page) -> None:
    keep(page, PLAIN)
    step(page, "Sizes")
    held: list[Route] = []
    page.route("**/api/designs/*/work", lambda route: held.append(route))
    name_sample(page, "Small")
    page.get_by_role("button", name="Add a size").click()  # the text with the new name is not worked yet
    target(page, "Height of Medium", "10")
    expect(page.get_by_label(re.compile("^Name of size"))).to_have_count(2)
    held[-1].continue_()
    page.unroute("**/api/designs/*/work")
    expect(page.get_by_test_id("save-state")).to_have_text("saved")
    expect(page.get_by_label(re.compile("^Name of size"))).to_have_count(2)
    expect(page.get_by_label("Name of size One size")).to_have_count(0)


def test_a_target_that_was_not_worked_is_said_with_a_way_out(page: Page) -> None:
    keep(page, PLAIN)
    step(page, "Sizes")
    page.get_by_role("button", name="Add a size").click()
    page.route("**/api/grading/sizes", lambda route: route.abort())
    target(page, "Height of Small", "10")
    alert = page.get_by_role("alert").filter(has_text="The server does not answer.")
    alert.wait_for()
    page.unroute("**/api/grading/sizes")
    alert.get_by_role("button", name="Try again").click()
    expect(page.get_by_test_id("comes-to-Small-height")).to_contain_text("10.0 cm", timeout=90_000)
    expect(alert).to_have_count(0)


CLUTCH = (Path(__file__).parents[1] / "grading_texts" / "clutch.txt").read_text()


def test_a_clutch_goes_to_four_sizes_a_print_and_a_tester(page: Page, open_page: Opener) -> None:
    # 27 cm of the flat ones are 54 stitches and one to turn
    text, measure, cm, begins = (
        f"{without_names(CLUTCH, read(CLUTCH))}Note: Made by lamplight.\n",
        "Flap of Extra large",
        "9",
        "Ch 55.",
    )
    keep(page, text)
    step(page, "Sizes")
    name_sample(page, "Small")
    for name, width in (("Medium", "22"), ("Large", "24"), ("Extra large", "27")):
        page.get_by_role("button", name="Add a size").click()
        target(
            page,
            f"Width of {name}" if page.get_by_label(f"Width of {name}").count() else f"Width, lying flat of {name}",
            width,
        )
    target(page, measure, cm)
    grade(page)
    expect(page.get_by_role("dialog")).to_contain_text("Every line is proved in all of them.")
    page.get_by_role("button", name="Take these sizes").click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")
    expect(page.get_by_test_id("save-state")).to_have_text("saved")

    step(page, "Words")
    with page.expect_download() as pdf:
        page.get_by_role("button", name="PDF").click()
    assert Path(pdf.value.path()).read_bytes()[:5] == b"%PDF-"
    phone = phone_of_tester(page, "Extra large", open_page)
    expect(phone.get_by_test_id("step-text")).to_have_text(begins)

    step(page, "Words")  # what is typed later stays when a fifth size comes
    before = type_behind(page, "Note: Made by lamplight", " With a moth.")
    step(page, "Sizes")
    page.get_by_role("button", name="Add a size").click()
    page.get_by_label("Name of size Size 2").fill("Huge")
    page.keyboard.press("Enter")
    target(page, measure.replace("Extra large", "Huge"), str(int(cm) + 3))
    grade(page)
    page.get_by_role("button", name="Take these sizes").click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 5 sizes")
    step(page, "Words")
    page.get_by_text("Edit the text").click()
    page.locator(".cm-line", has_text="With a moth").wait_for()
    assert bare(before) == bare(page.locator(".cm-content").inner_text())


def type_behind(page: Page, words: str, more: str) -> str:
    """The text after something was typed at the end of one of its lines, and saved."""
    page.get_by_text("Edit the text").click()
    page.locator(".cm-line", has_text=words).click()
    page.keyboard.press("End")
    page.keyboard.insert_text(more)
    expect(page.get_by_test_id("save-state")).to_have_text("saved")
    return page.locator(".cm-content").inner_text()


def bare(text: str) -> list[str]:
    """The lines with each number or set as one mark, but for the line of sizes."""
    return [re.sub(r"\d+(?: \(\d+(?:, \d+)*\))?", "#", line) for line in text.split("\n") if "Sizes:" not in line]


def test_a_text_without_a_gauge_is_asked_for_it(page: Page) -> None:
    keep(page, re.sub(r"Gauge:.*\n", "", PLAIN))
    step(page, "Sizes")
    expect(page.get_by_text("Nothing of this bag is measured yet")).to_be_visible()
    step(page, "Yarn")
    expect(page.get_by_text("Yarn is not estimated yet. The text names no gauge.")).to_be_visible()
    step(page, "Swatch")
    assert_axe(page, "a text without a gauge")
    page.get_by_text("single crochet").click()
    page.get_by_label("Stitches in 10 cm").fill("20")
    page.get_by_label("Rows in 10 cm").fill("22")
    page.get_by_role("button", name="Write it into the text").click()
    expect(page.get_by_test_id("gauge")).to_have_text("20 × 22")
    step(page, "Sizes")
    expect(page.get_by_role("row", name=re.compile("Width, lying flat"))).to_contain_text("12.0 cm")


def test_a_smaller_size_stands_before_the_sample_and_another_can_be_the_sample(page: Page) -> None:
    keep(page, PLAIN)
    step(page, "Sizes")
    name_sample(page, "Middle")
    page.get_by_role("button", name="Add a size").click()
    expect(page.get_by_role("button", name="Grade to these")).to_be_in_viewport()
    target(page, "Height of Small", "6")
    grade(page)
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("heading").first).to_have_text("2 sizes: Small, Middle")
    take = dialog.get_by_role("button", name="Take these sizes")
    expect(take).to_be_in_viewport()
    take.click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 2 sizes")
    fields = page.get_by_label(re.compile("^Name of size"))
    expect(fields.nth(0)).to_have_value("Small")
    expect(page.get_by_label("What the sizes come to")).not_to_contain_text("Nothing is changed yet")
    expect(page.get_by_role("button", name="Delete Middle")).to_be_disabled()  # it is the sample, wherever it stands
    expect(page.get_by_label("Height of Middle")).to_have_count(0)
    page.get_by_role("button", name="Small: use as sample").click()
    target(page, "Height of Middle", "9")
    page.get_by_role("button", name="Delete Middle").click()
    expect(fields).to_have_count(1)
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 1 size")
    page.get_by_role("button", name="Undo").click()
    expect(fields).to_have_count(2)


def test_what_a_text_says_of_its_swatch_is_taken_by_a_press(page: Page) -> None:
    text = re.sub(r"Gauge:.*\n", "Tension: about 10 sts to 5 cm, 11 rows to 5 cm in sc\n", PLAIN, count=1)
    text = text.replace("Tension:", "4 mm hook, 100 g of DK cotton (50 g = 106 m)\nTension:", 1)
    keep(page, text)
    step(page, "Swatch")
    expect(page.get_by_test_id("gauge-said")).to_contain_text("Tension: about 10 sts to 5 cm, 11 rows to 5 cm in sc")
    expect(page.get_by_label("Stitches in 10 cm")).to_have_value("20")
    expect(page.get_by_label("Rows in 10 cm")).to_have_value("22")
    assert_axe(page, "a gauge that is offered")
    page.get_by_role("button", name="Write it into the text").click()
    expect(page.get_by_test_id("gauge")).to_have_text("20 × 22")
    expect(page.get_by_role("region", name="Hook").get_by_role("textbox")).to_have_value("4")
    yarn = page.get_by_label("A new yarn")
    expect(yarn.get_by_label("Name")).to_have_value("DK cotton")
    expect(yarn.get_by_label("Metres a ball")).to_have_value("106")
    yarn.get_by_role("button", name="Set the yarn").click()
    expect(page.get_by_role("button", name="Remove DK cotton")).to_be_visible()
