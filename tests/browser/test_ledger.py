"""What the proof says of each word: kept, unchecked, not understood; phrases taught; and print that loses nothing."""

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import assert_axe

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

TEXT = """Pattern: Comet pouch
Sizes: S, M

Base (worked in a spiral)
Rnd 1: 6 sc in a magic ring. (6)
Rnd 2: 2 sc in each st around, pull the ring snug. (12)
Rnd 3: Sc in bb of each st around. (12)
Rnd 4: Sc the comet way in each st around. (12)
Rnd 5: *Sc in next st, inc; rep from * around. (18 sts, 4 wishes)
Fasten off and weave in all ends.
Make 2 of these.
"""


@pytest.fixture
def bench(page: Page) -> Page:
    page.get_by_role("link", name="Check a pattern").click()
    page.locator(".cm-content").wait_for()
    page.locator(".cm-content").click()
    page.keyboard.insert_text(TEXT)
    page.get_by_test_id("verdict").wait_for()
    return page


def test_marks_phrases_and_print(bench: Page) -> None:
    verdict = bench.get_by_test_id("verdict")
    proof = bench.get_by_label("The proof")
    expect(verdict).to_contain_text("2 not understood")
    expect(bench.locator(".cm-kept", has_text="pull the ring snug")).to_be_visible()
    expect(bench.locator(".cm-unchecked", has_text="4 wishes")).to_be_visible()
    expect(bench.get_by_role("row", name="Rnd 2").get_by_label("proved")).to_be_visible()
    expect(bench.get_by_role("row", name="Rnd 3").get_by_label("not understood")).to_be_visible()
    expect(bench.get_by_role("row", name="Rnd 5").get_by_label("worked, not checked")).to_be_visible()

    proof.get_by_role("button", name="Say what “in bb” means").click()
    meaning = proof.get_by_label("They mean")
    meaning.click()
    bench.keyboard.type("in ne")
    expect(bench.get_by_role("option", name="in next st").first).to_be_visible()
    assert_axe(bench, "teaching a phrase")
    bench.keyboard.press("Escape")
    bench.keyboard.press("Control+a")
    bench.keyboard.type("in back loop ")
    proof.get_by_label("Keep it among my phrases").check()
    proof.get_by_role("button", name="They mean this").click()
    expect(bench.get_by_label("Pattern text")).to_contain_text('Means: "in bb" = in back loop')
    expect(verdict).to_contain_text("(1 with your phrases)")
    expect(bench.get_by_role("row", name="Rnd 3").get_by_label("proved with your phrases: in bb")).to_be_visible()

    proof.get_by_role("button", name="Say what “the comet way” means").click()
    proof.get_by_role("button", name="These words change nothing").click()
    expect(verdict).to_contain_text("4 proved (2 with your phrases), 1 not checked")

    # Print resolves what is taught, and keeps every word that was kept.
    bench.get_by_text("As printed").click()
    printed = bench.get_by_test_id("printed")
    for words in ("pull the ring snug", "BLO sc in each st around", "the comet way", "weave in all ends", "make 2"):
        expect(printed).to_contain_text(words)
    expect(printed).not_to_contain_text("in bb")

    # Another text of the studio is offered the phrase at once.
    bench.get_by_label("Pattern text").click()
    bench.keyboard.press("Control+a")
    bench.keyboard.insert_text(TEXT)
    bench.get_by_text("Proof", exact=True).click()
    proof.get_by_role("button", name="From your phrases: “in bb”").click()
    expect(bench.get_by_label("Pattern text")).to_contain_text('Means: "in bb" = in back loop')
    bench.get_by_role("link", name="Rillstep").click()
    expect(bench.get_by_label("Your phrases")).to_contain_text("“in bb” means in back loop")
    bench.get_by_role("button", name="Forget “in bb”").click()
    expect(bench.get_by_label("Your phrases")).to_have_count(0)
