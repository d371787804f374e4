"""The three views of a text: beside its proof, checked from elsewhere, and one line stitch by stitch."""

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield
from rillstep.document import dump
from tests.browser.conftest import assert_axe, import_design, put, saved, step

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

POUCH = """Pattern: Comet pouch
Sizes: S, M

Base
Make a magic ring.
Rnd 1: 8 hdc in ring; join. (8)
Rnd 2: Ch 2, 2 hdc in each st around; join. (16)
Rnd 3: Ch 2, [hdc in next st, 2 hdc in next st] 8 times; join. (24)
Rnd 4: Ch 2, [hdc in next 2 sts, 2 hdc in next st] 9 times; join. (32)
Rnd 5: Ch 2, hdc in each st around; join. (32)
"""


@pytest.fixture
def editing(page: Page) -> Page:
    """The text of a design beside its proof."""
    import_design(page, dump(nightfield()))
    step(page, "Words")
    page.get_by_text("Edit the text").click()
    page.locator(".cm-content").wait_for()
    return page


@pytest.fixture
def checking(page: Page) -> Page:
    """A text with one wrong number and an open question, pasted."""
    page.get_by_role("link", name="Check a pattern").click()
    page.locator(".cm-content").click()
    page.keyboard.insert_text(POUCH)
    expect(page.get_by_test_id("verdict")).to_contain_text("4 proved, 1 wrong in 2 sizes")
    return page


def totals(page: Page) -> list[str]:
    return page.get_by_label("Totals").get_by_role("row", name="Rnd 2").first.get_by_role("button").all_inner_texts()


def test_totals_of_every_size_follow_the_text_while_it_is_typed(editing: Page) -> None:
    expect(editing.get_by_test_id("totals-verdict")).to_have_text("13 proved")
    assert totals(editing)[1:] == ["48", "62", "70", "80"]
    put(editing, "2 hdc in each of next 4 sts", "2 hdc in each of next 5 sts")
    expect(editing.get_by_test_id("totals-verdict")).not_to_have_text("13 proved")
    expect(editing.get_by_label("Findings")).to_contain_text("Rnd 2")
    assert_axe(editing, "a wrong text beside its proof")
    editing.locator(".cm-content").focus()
    editing.keyboard.press("Control+z")
    expect(editing.get_by_test_id("totals-verdict")).to_have_text("13 proved")
    saved(editing)


def test_one_key_goes_to_what_is_wrong_and_mends_it(editing: Page) -> None:
    put(editing, "Number: after the handle = 16 (18", "Number: after the handle = 16 (19")
    expect(editing.get_by_test_id("totals-verdict")).not_to_have_text("13 proved")
    editing.keyboard.press("Control+Home")
    editing.keyboard.press("Control+Enter")  # goes there
    editing.keyboard.press("Control+Enter")  # mends it
    expect(editing.get_by_test_id("totals-verdict")).to_have_text("13 proved")


def test_words_are_completed_and_sections_folded(editing: Page) -> None:
    editing.locator(".cm-content").focus()
    editing.keyboard.press("Control+End")
    editing.keyboard.insert_text("\n")
    editing.keyboard.type("Rnd 99: Ch 1, fpd")
    options = editing.locator(".cm-tooltip-autocomplete")
    expect(options).to_contain_text("FPdc")
    expect(options).to_contain_text("front post double crochet")
    editing.keyboard.press("Tab")
    expect(editing.locator(".cm-content")).to_contain_text("Ch 1, FPdc")
    editing.keyboard.type(", bpd")
    expect(options).to_contain_text("BPdc")
    editing.keyboard.press("ArrowDown")
    editing.keyboard.press("Enter")  # chosen by an arrow, it is taken by Enter as well
    expect(editing.locator(".cm-content")).to_contain_text("Ch 1, FPdc, BPdc")
    for _ in range(8):
        editing.keyboard.press("Control+z")
    editing.keyboard.press("Control+Home")
    editing.locator(".cm-foldGutter span[title='Fold line']").first.click()
    expect(editing.locator(".cm-foldPlaceholder")).to_be_visible()
    expect(editing.locator(".cm-content")).not_to_contain_text("Hdc in 3rd ch from hook")
    editing.locator(".cm-foldPlaceholder").click()
    expect(editing.locator(".cm-foldPlaceholder")).to_have_count(0)


def test_a_total_opens_its_trace_its_chart_and_the_drawing(editing: Page) -> None:
    editing.get_by_role("button", name="Rnd 2, Rug: 70").click()
    line = editing.get_by_label("The line")
    expect(
        line.get_by_role("img", name="Rnd 2, size Rug: 62 of 62 places below are used, 70 stitches are made.")
    ).to_be_visible()
    expect(line.get_by_label("The steps of this row")).to_contain_text("takes 4, makes 8")
    line.get_by_label("Size", exact=True).select_option("Atlas")
    expect(line.get_by_role("img", name="Rnd 2, size Atlas: 40 of 40 places")).to_be_visible()
    assert_axe(editing, "a trace")
    line.get_by_text("Chart", exact=True).click()
    expect(line.get_by_alt_text("Chart of Rnd 2, size Atlas, right-handed")).to_be_visible()
    with editing.expect_download() as saved_file:
        line.get_by_role("button", name="SVG").click()
    assert saved_file.value.suggested_filename == "chart-of-rnd-2-size-atlas-right-handed.svg"
    assert_axe(editing, "a chart")
    line.get_by_role("link", name="Show in the drawing").click()
    editing.get_by_role("heading", name="Shape", level=1).wait_for()
    editing.get_by_role("link", name="Edit this line").click()
    expect(editing.locator(".cm-content")).to_be_visible()
    expect(editing.get_by_label("Totals").locator("tr.bg-mark-soft")).to_contain_text("Rnd 2")


def test_the_failing_stitch_is_marked(checking: Page) -> None:
    proof = checking.get_by_label("The proof")
    expect(proof).to_contain_text("Rnd 4: runs out of stitches")
    proof.get_by_role("button", name="Rnd 4, M").click()
    line = checking.get_by_label("The line")
    expect(line.get_by_test_id("trace-failing")).to_contain_text("2 missing")
    expect(line.get_by_text("runs out of stitches: 2 stitches missing.")).to_be_visible()
    expect(line.get_by_label("The steps of this row")).to_contain_text("stops here")
    expect(proof.get_by_label("depends on an earlier line")).to_have_count(1)
    proof.get_by_role("button", name="Change 9 to 8").click()
    expect(checking.get_by_test_id("verdict")).to_contain_text("5 proved")
    expect(line.get_by_test_id("trace-failing")).to_have_count(0)
    line.get_by_role("button", name="Close the line").click()
    expect(line).to_have_count(0)


def test_a_question_is_answered_in_the_text(checking: Page) -> None:
    questions = checking.get_by_label("Questions")
    expect(questions).to_contain_text("Does the ch 2 at the start of Rnd 2 count as a stitch?")
    questions.get_by_role("button", name="No, it is only a turning chain").click()
    expect(checking.locator(".cm-content")).to_contain_text("Ch 2 (does not count), 2 hdc")
    expect(questions).to_have_count(0)


def test_a_text_is_shown_as_it_would_be_printed(checking: Page) -> None:
    checking.get_by_text("As printed").click()
    expect(checking.get_by_test_id("printed")).to_contain_text("As it was written, and not proved: Rnd 4")
    checking.get_by_text("Proof", exact=True).click()
    checking.get_by_role("button", name="Change 9 to 8").click()
    expect(checking.get_by_test_id("verdict")).to_contain_text("5 proved")
    checking.get_by_text("As printed").click()
    printed = checking.get_by_test_id("printed")
    expect(printed).to_contain_text("Rnd 2: Ch 2, 2 hdc in each st around; join. — 16 sts")
    checking.get_by_text("UK", exact=True).click()
    expect(printed).to_contain_text("2 htr in each st around")
    checking.get_by_text("left-handed").click()
    expect(printed).to_contain_text("Left-handed: you work from left to right")
    checking.get_by_label("Size").select_option("M")
    expect(printed).to_contain_text("Sizes: M")
    assert_axe(checking, "a printed text")


def test_what_a_finding_means_is_told_where_it_stands(checking: Page) -> None:
    checking.get_by_role("button", name="What is “Running out of stitches”?").click()
    expect(checking.get_by_text("The line wants more places than the work below has.")).to_be_visible()
