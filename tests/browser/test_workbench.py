"""The workbench: one selection everywhere, locks, undo, bad input, hand edits with repairs."""

import re

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield
from rillstep.document import dump
from tests.browser.conftest import assert_axe, import_design, put, saved, step

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


@pytest.fixture
def bench(page: Page) -> Page:
    import_design(page, dump(nightfield()))
    return page


def test_a_round_a_row_and_a_line_light_up_together(bench: Page) -> None:
    step(bench, "Shape")
    rounds = bench.get_by_test_id("drawing-1").locator("path[data-kind=work]")
    expect(rounds).to_have_count(37)  # 34 rounds of wall and brim; where a handle is, each has two sides
    rounds.nth(10).click()
    line = rounds.nth(10).get_attribute("data-line")
    expect(rounds.nth(10)).to_have_css("fill", "rgb(185, 119, 14)")
    expect(bench.get_by_test_id(f"text-line-{line}")).to_have_attribute("aria-pressed", "true")
    expect(bench.get_by_role("row", name="wall rounds")).to_have_class(re.compile("bg-mark-soft"), timeout=60_000)
    bench.get_by_test_id("number-handle-chain-2").hover()
    bench.get_by_test_id("number-side-0").hover()
    expect(bench.get_by_test_id("ghost")).to_be_visible()
    bench.get_by_test_id("number-handle-chain-2").click()
    expect(bench.get_by_role("heading", name="handle chain: 50 in Rug")).to_be_visible()
    bench.get_by_role("button", name="The base from above").click()
    expect(bench.get_by_role("img", name="The base from above, Tent: 33.5 cm by 12.2 cm")).to_be_visible()
    bench.get_by_text("over each other").click()
    expect(bench.get_by_role("img", name=re.compile("The base from above, Atlas.*; .*Tent"))).to_be_visible()
    assert_axe(bench, "drawings over each other")
    rounds = bench.get_by_test_id("drawing-0").locator("path[data-kind=work]")
    rounds.first.click(force=True)
    step(bench, "Words")
    expect(bench.locator("[data-line].bg-mark-soft").first).to_contain_text("Hdc")


def test_bad_input_is_named_at_its_field_and_nothing_is_lost(bench: Page) -> None:
    step(bench, "Swatch")
    field = bench.get_by_label("Grams a ball (g)")
    field.fill("0")
    expect(bench.get_by_text("must be at least 0.1").first).to_be_visible()
    expect(bench.get_by_test_id("save-state")).to_contain_text("see the marked field")
    expect(bench.get_by_test_id("gauge")).to_have_text("15 × 11.5")
    field.fill("heavy")
    expect(bench.get_by_text("Write a number")).to_be_visible()
    field.fill("120")
    saved(bench)


def test_a_broken_design_file_is_refused_with_the_place(page: Page) -> None:
    bad = dump(nightfield()).replace('"drop": 160.0', '"drop": -4')
    page.get_by_role("button", name="New design").click()
    page.get_by_label("A design file", exact=True).set_input_files(
        {"name": "d.json", "mimeType": "application/json", "buffer": bad.encode()}
    )
    expect(page.get_by_role("alert")).to_contain_text("Drop wanted in size 3: must be more than 0")
    page.get_by_label("A design file", exact=True).set_input_files(
        {"name": "d.json", "mimeType": "application/json", "buffer": b" " * 3_200_000}
    )
    expect(page.get_by_role("alert")).to_contain_text("larger than 3 MB")


def test_a_number_edited_by_hand_is_found_and_repaired(bench: Page) -> None:
    step(bench, "Words")
    bench.get_by_text("Edit the text").click()
    bench.locator(".cm-content").wait_for()
    put(bench, "37 (43, 50, 56)", "37 (44, 50, 56)")
    finding = bench.get_by_label("Findings", exact=True)
    expect(finding).to_contain_text("138")
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("wrong")
    bench.get_by_text("Read", exact=True).click()
    expect(bench.get_by_text("This text is not proved")).to_be_visible()
    bench.get_by_role("button", name="PDF").click()
    expect(bench.get_by_text("not printed as if it were")).to_be_visible()
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("13 proved")
    expect(bench.get_by_text("This text is not proved")).to_be_hidden()
    saved(bench)


def test_an_old_revision_is_compared_and_brought_back(bench: Page) -> None:
    step(bench, "Swatch")
    bench.get_by_label("Hook").fill("6")
    expect(bench.get_by_role("button", name="revision 2")).to_be_visible()
    bench.get_by_role("button", name="revision 2").click()
    bench.get_by_role("button", name="1 ·").click()
    expect(bench.get_by_role("row", name="Hook (mm) 4.5 6")).to_be_visible()
    bench.get_by_role("button", name="Bring it back").click()
    expect(bench.get_by_label("Hook")).to_have_value("4.5")
    expect(bench.get_by_role("button", name="revision 3")).to_be_visible()


def test_sizes_are_copied_moved_and_deleted_in_the_text_and_all_is_undone(bench: Page) -> None:
    step(bench, "Sizes")

    def names() -> list[str]:
        return [field.input_value() for field in bench.get_by_label(re.compile("^Name of size")).all()]

    def wait_for(*wanted: str) -> None:
        expect(bench.get_by_test_id("proof-mark")).to_contain_text(f"13 proved in {len(wanted)} sizes")
        assert names() == list(wanted)

    wait_for("Atlas", "Flask", "Rug", "Tent")
    bench.get_by_role("button", name="Copy Rug").click()
    bench.get_by_label("Name of size Rug copy").wait_for()
    wait_for("Atlas", "Flask", "Rug", "Rug copy", "Tent")
    bench.get_by_role("button", name="Move Tent left").click()
    expect(bench.get_by_label(re.compile("^Name of size")).nth(3)).to_have_value("Tent")
    wait_for("Atlas", "Flask", "Rug", "Tent", "Rug copy")
    bench.get_by_role("button", name="Delete Flask").click()
    expect(bench.get_by_label("Name of size Flask")).to_have_count(0)
    wait_for("Atlas", "Rug", "Tent", "Rug copy")
    for _ in range(3):
        bench.get_by_role("button", name="Undo").click()
    wait_for("Atlas", "Flask", "Rug", "Tent")
    saved(bench)
    bench.get_by_label("What Tent must hold").select_option("laptop")
    expect(bench.get_by_label("Width, lying flat of Tent")).to_have_value("34.5")
    bench.get_by_label("Rug in per cent of the sample").fill("150")
    bench.keyboard.press("Enter")
    expect(bench.get_by_label("Width, lying flat of Rug")).to_have_value("36")


def test_a_number_is_changed_where_it_stands(bench: Page) -> None:
    step(bench, "Words")
    bench.get_by_text("Edit the text").click()
    chips = bench.locator(".cm-named")
    expect(chips.first).to_have_text("20 (27, 31, 36)")
    expect(bench.locator(".cm-content")).not_to_contain_text("{side")
    bench.get_by_label("Show names, and not their numbers").check()
    expect(bench.locator(".cm-content")).to_contain_text("Ch {side + 4}.")
    bench.get_by_label("Show names, and not their numbers").uncheck()
    put(bench, "Number: handle chain = 37", "Number: handle chain = 37")  # the text is in view
    bench.get_by_role("row", name="Wall").first.get_by_role("button").first.click()
    bench.locator(".cm-line", has_text="ch 37 (43, 50, 56), sk").locator(".cm-named", has_text="37 (43").first.click()
    form = bench.get_by_label("The numbers of handle chain")
    form.get_by_label("handle chain in Flask").fill("45")
    assert_axe(bench, "the numbers of a name")
    form.get_by_role("button", name="Change").click()
    expect(bench.locator(".cm-content")).to_contain_text("118 (142, 160, 184) sts")
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("13 proved")
    bench.get_by_role("button", name="Undo").click()
    expect(bench.locator(".cm-content")).to_contain_text("118 (138, 160, 184) sts")
