"""A pattern written elsewhere: pasted, refuted, repaired, proved, and kept as a design."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_axe
from tests.intake.documents import ROWS, pages, word_document

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


@pytest.fixture
def bench(page: Page) -> Page:
    page.get_by_role("link", name="Check a pattern").click()
    page.get_by_role("heading", name="Check a pattern").wait_for()
    return page


def test_a_pasted_pattern_is_refuted_repaired_and_kept(bench: Page) -> None:
    bench.locator(".cm-content").wait_for()
    assert_axe(bench, "empty check")
    bench.get_by_role("button", name="Try an example").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("4 proved, 1 wrong in 2 sizes")
    proof = bench.get_by_label("The proof")
    expect(proof).to_contain_text("Rnd 5 says 31 sts in size Three lenses; these steps make 30 (1 too few).")
    expect(proof).to_contain_text("line 10")
    expect(bench.get_by_role("row", name="Rnd 4")).to_contain_text("24")
    assert_axe(bench, "a refuted pattern")
    bench.get_by_role("button", name="State 30 as the total of Rnd 5").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("5 proved in 2 sizes")
    bench.reload()  # what was pasted is kept in this browser until it is kept as a design
    expect(bench.get_by_test_id("verdict")).to_contain_text("5 proved")
    bench.get_by_role("button", name="Keep it as a design").click()
    expect(bench.get_by_label("Name of the design")).to_have_value("Eyepiece pouch")
    expect(bench.get_by_label("Instructions")).to_contain_text("2 sc in each st around")


def test_uk_terms_and_a_text_without_rounds(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.insert_text("Rnd 1: 6 dc in a magic ring. (6 dc)\nRnd 2: 2 htr in each st around. (12 htr)")
    expect(bench.get_by_label("The proof")).to_contain_text("“htr” is a UK name")
    bench.get_by_text("UK terms").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("2 proved")
    bench.locator(".cm-content").click()
    bench.keyboard.press("Control+a")
    bench.keyboard.insert_text("Dear reader, this is a letter.")
    expect(bench.get_by_label("The proof")).to_contain_text("There are no rows or rounds here")


def test_a_text_that_says_its_terms_is_read_in_them(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.insert_text(
        "Comet pouch (UK)\n4 mm hook\nRnd 1: 6 dc in ring. (6 dc)\nRnd 2: 2 htr in each st. (12 htr)"
    )
    expect(bench.get_by_label("UK terms")).to_be_checked()
    expect(bench.get_by_test_id("verdict")).to_contain_text("2 proved")
    bench.get_by_text("US terms").click()  # what is chosen goes before what the text says
    expect(bench.get_by_label("The proof")).to_contain_text("“htr” is a UK name")


def test_sizes_that_are_not_named_are_told_and_named_with_one_click(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.insert_text(
        "Ch 21 (25, 29).\nRow 1: Sc in 2nd ch from hook and in each ch across. (20, 24, 28)\nRows 2-9 (11, 13): Ch 1, turn, sc in each st. (20, 24, 28)"
    )
    expect(bench.get_by_test_id("verdict")).to_contain_text("2 proved in 3 sizes")
    proof = bench.get_by_label("The proof")
    expect(proof).to_contain_text("No sizes are named")
    proof.get_by_role("button", name="Name the sizes").click()
    expect(proof).not_to_contain_text("No sizes are named")
    expect(bench.locator(".cm-content")).to_contain_text("Sizes: 1, 2, 3")


def test_an_unknown_word_is_asked_once_answered_with_a_press_and_taken_back(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.insert_text(
        "Rnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 blorp in each st around. (12)\n"
        "Rnd 3: *Blorp in next st, 2 blorp in next st; rep from * around. (18)"
    )
    questions = bench.get_by_role("region", name="Unknown words")
    expect(questions).to_contain_text("What is “blorp”?")
    expect(bench.get_by_test_id("verdict")).to_contain_text("1 proved, 2 assumed")
    expect(questions).to_contain_text("Rnd 2: 12 sts, as its total says; assumed until you answer")
    assert_axe(bench, "an unknown word")
    questions.get_by_role("button", name="a stitch, one into each place").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("3 proved")
    expect(bench.locator(".cm-content")).to_contain_text('Means: "blorp" = a stitch')
    expect(questions).to_have_count(0)
    bench.locator(".cm-content").click()
    bench.keyboard.press("Control+z")
    expect(bench.locator(".cm-content")).not_to_contain_text("Means:")
    questions.get_by_role("button", name="Say what “blorp” means").click()
    bench.keyboard.press("Tab")
    bench.wait_for_timeout(2_500)  # what is being said is not taken away by an answer that comes in meanwhile
    expect(questions.get_by_role("button", name="They mean this")).to_be_visible()


def test_the_text_of_a_document_is_shown_taken_and_undone(bench: Page) -> None:
    bench.locator(".cm-content").click()
    bench.keyboard.insert_text("Rnd 1: 8 sc in a magic ring. (8)")
    pdf = {
        "name": "pouch.pdf",
        "mimeType": "application/pdf",
        "buffer": pages("".join(f"<p>{row}</p>" for row in ROWS)),
    }
    word = {"name": "pouch.docx", "mimeType": "application/zip", "buffer": word_document()}
    bench.get_by_label("Open a file").set_input_files(word)  # type: ignore[arg-type]
    dialog = bench.get_by_role("dialog", name="The text of pouch.docx")
    expect(dialog.get_by_label("What to look at")).to_contain_text("Heads and feet of pages were left out")
    assert_axe(bench, "the text of a document")
    dialog.get_by_role("button", name="Leave it").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("1 proved")
    bench.get_by_label("Open a file").set_input_files(pdf)  # type: ignore[arg-type]
    dialog = bench.get_by_role("dialog", name="The text of pouch.pdf")
    expect(dialog).to_contain_text("Rnd 3: *Sc in next st, inc; rep from * around. (18)")
    dialog.get_by_role("button", name="Take this text").click()
    expect(bench.get_by_test_id("verdict")).to_contain_text("3 proved")
    bench.locator(".cm-content").click()
    bench.keyboard.press("Control+z")
    expect(bench.get_by_test_id("verdict")).to_contain_text("1 proved")
    bench.get_by_label("Open a file").set_input_files(
        {"name": "scan.pdf", "mimeType": "application/pdf", "buffer": b"%PDF-1.4"}
    )
    expect(bench.get_by_role("alert")).to_contain_text("This PDF is damaged")
