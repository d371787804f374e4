"""The workbench: one selection everywhere, locks, undo, bad input, hand edits with repairs."""

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield
from rillstep.document import dump
from rillstep.services import workbench
from tests.browser.conftest import import_design, saved, step

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


@pytest.fixture
def bench(page: Page) -> Page:
    import_design(page, dump(nightfield()))
    return page


def test_bar_row_and_text_line_light_up_together(bench: Page) -> None:
    step(bench, "Base, wall, handles")
    bars = bench.get_by_test_id("silhouette-1").locator("g[data-line]")
    expect(bars).to_have_count(34)
    bars.nth(10).click()
    line = bars.nth(10).get_attribute("data-line")
    marked = bench.locator(f"g[data-line='{line}']").first
    expect(marked).to_have_css("fill", "rgb(185, 119, 14)")
    expect(bench.get_by_test_id(f"text-line-{line}")).to_have_attribute("aria-pressed", "true")
    expect(bench.get_by_role("row", name="Wall rounds")).to_have_class("bg-mark-soft")
    bench.get_by_test_id("number-handle_chain-2").click()
    expect(bench.get_by_role("heading", name="Why 50 in Rug?")).to_be_visible()
    expect(bench.get_by_role("row", name="Handle: chain")).to_have_class("bg-mark-soft")
    handle = bench.get_by_test_id("silhouette-2").locator("path").first
    expect(handle).to_have_attribute("stroke", "var(--mark)")
    step(bench, "Words")
    expect(bench.locator("[data-line].bg-mark-soft")).to_contain_text("sk next")


def test_a_lock_and_the_reason_why_one_cannot_be(bench: Page) -> None:
    step(bench, "Base, wall, handles")
    bench.get_by_test_id("number-side-1").click()
    bench.get_by_role("button", name="Lock 24").click()
    expect(bench.get_by_test_id("number-side-1")).to_have_text("24")
    expect(bench.get_by_test_id("number-around-1")).to_have_text("88")
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("13 proved")
    bench.get_by_label("Wall is a multiple of").fill("24")
    expect(bench.get_by_test_id("number-around-1")).to_have_text("96")
    bench.get_by_test_id("number-around-0").click()
    expect(bench.get_by_text("It must be a multiple of 24")).to_be_visible()
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_test_id("number-around-1")).to_have_text("88")


def test_sizes_are_added_copied_moved_and_deleted_and_all_is_undone(bench: Page) -> None:
    step(bench, "Sizes")

    def names() -> list[str]:
        count = bench.locator("[aria-label^='Name of size']").count()
        return [bench.get_by_label(f"Name of size {n}").input_value() for n in range(1, count + 1)]

    assert names() == ["Atlas", "Flask", "Rug", "Tent"]
    bench.get_by_role("button", name="Copy Rug").click()
    assert names() == ["Atlas", "Flask", "Rug", "Rug copy", "Tent"]
    bench.get_by_role("button", name="Move Tent left").click()
    assert names() == ["Atlas", "Flask", "Rug", "Tent", "Rug copy"]
    bench.get_by_role("button", name="Delete Atlas").click()
    assert names() == ["Flask", "Rug", "Tent", "Rug copy"]
    for _ in range(3):
        bench.get_by_role("button", name="Undo").click()
    assert names() == ["Atlas", "Flask", "Rug", "Tent"]
    for _ in range(6):
        bench.get_by_role("button", name="Add a larger size").click()
    expect(bench.get_by_role("button", name="Add a larger size")).to_be_disabled()
    expect(bench.get_by_text("at most 10 sizes")).to_be_visible()
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("in 10 sizes")
    saved(bench)


def test_bad_input_is_named_at_its_field_and_nothing_is_lost(bench: Page) -> None:
    step(bench, "Swatch")
    field = bench.get_by_label("are wide (cm)")
    field.fill("0")
    expect(bench.get_by_text("must be more than 0").first).to_be_visible()
    expect(bench.get_by_test_id("save-state")).to_contain_text("see the marked field")
    expect(bench.get_by_test_id("gauge")).to_have_text("15 × 11.5")
    field.fill("wide")
    expect(bench.get_by_text("Write a number")).to_be_visible()
    field.fill("12")
    saved(bench)
    step(bench, "Sizes")
    bench.get_by_label("Width of Atlas", exact=True).fill("6")
    expect(bench.get_by_label("Reasons and findings")).to_contain_text("The depth of Atlas comes to 3.5 cm")
    expect(bench.get_by_label("Reasons and findings")).to_contain_text("More rounds would need more than")
    bench.get_by_label("Name of size 1").fill("Flask")
    expect(bench.get_by_role("alert").first).to_contain_text("two sizes are called")
    bench.get_by_label("Name of size 1").fill("Atlas")
    saved(bench)


def test_a_broken_design_file_is_refused_with_the_place(page: Page) -> None:
    bad = dump(nightfield()).replace('"drop_mm": 160.0', '"drop_mm": -4')
    page.get_by_role("button", name="New design").click()
    page.get_by_label("A design file", exact=True).set_input_files(
        {"name": "d.json", "mimeType": "application/json", "buffer": bad.encode()}
    )
    expect(page.get_by_role("alert")).to_contain_text("$.sizes[2].drop_mm: must be more than 0")
    page.get_by_label("A design file", exact=True).set_input_files(
        {"name": "d.json", "mimeType": "application/json", "buffer": b" " * 3_200_000}
    )
    expect(page.get_by_role("alert")).to_contain_text("larger than 3 MB")


def test_a_number_edited_by_hand_is_found_and_repaired(bench: Page) -> None:
    step(bench, "Words")
    bench.get_by_text("Edit the text").click()
    editor = bench.locator(".cm-content")
    editor.click()
    bench.keyboard.press("Control+Home")
    before = "Rnd 2: Ch 1 (does not count), 2 hdc in same st, hdc in next 16 (2"
    text = workbench.work(nightfield()).text
    for _ in range(text.index(before) + len(before)):
        bench.keyboard.press("ArrowRight")
    bench.keyboard.press("Delete")
    bench.keyboard.type("4")
    finding = bench.get_by_label("Findings", exact=True)
    expect(finding).to_contain_text("Rnd 2 in size Flask: runs out of stitches: 1 stitch missing")
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("12 proved")
    expect(bench.locator(".cm-lint-marker-error")).to_have_count(1)
    bench.get_by_text("Read", exact=True).click()
    expect(bench.get_by_text("This text is not proved")).to_be_visible()
    bench.get_by_role("button", name="PDF").click()
    expect(bench.get_by_text("not printed as if it were")).to_be_visible()
    bench.get_by_role("button", name="Change 24 to 23").click()
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("13 proved")
    expect(bench.get_by_text("This text is not proved")).to_be_hidden()
    saved(bench)


def test_an_old_revision_is_compared_and_brought_back(bench: Page) -> None:
    step(bench, "Swatch")
    bench.get_by_label("Hook").fill("6")
    expect(bench.get_by_role("button", name="revision 2")).to_be_visible()
    bench.get_by_role("button", name="revision 2").click()
    bench.get_by_role("button", name="1 ·").click()
    expect(bench.get_by_role("row", name="hook_mm 4.5 6.0")).to_be_visible()
    bench.get_by_role("button", name="Bring it back").click()
    expect(bench.get_by_label("Hook")).to_have_value("4.5")
    expect(bench.get_by_role("button", name="revision 3")).to_be_visible()
