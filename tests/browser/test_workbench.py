"""The workbench: one selection everywhere, locks, undo, bad input, hand edits with repairs."""

import re

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield, pouch
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
    expect(bench.get_by_text("as written, not proved")).to_have_count(1)
    bench.get_by_role("button", name="Undo").click()
    expect(bench.get_by_test_id("proof-mark")).to_contain_text("13 proved")
    expect(bench.get_by_text("This text is not proved")).to_be_hidden()
    saved(bench)


def test_an_old_revision_is_compared_and_brought_back(bench: Page) -> None:
    step(bench, "Swatch")
    bench.get_by_label("Grams a ball").fill("120")
    expect(bench.get_by_role("button", name="revision 2")).to_be_visible()
    bench.get_by_role("button", name="revision 2").click()
    bench.get_by_role("button", name="1 ·").click()
    expect(bench.get_by_role("row", name="Yarn 1: grams a ball 100 120")).to_be_visible()
    bench.get_by_role("button", name="Bring it back").click()
    expect(bench.get_by_label("Grams a ball")).to_have_value("100")
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


def test_a_name_opens_by_key_beside_it(bench: Page) -> None:
    step(bench, "Words")
    bench.get_by_text("Edit the text").click()
    bench.locator(".cm-named").first.wait_for()
    bench.evaluate(
        """() => {
          const content = document.querySelector(".cm-content");
          const view = (content.cmTile ?? content.cmView).view;
          view.focus();
          view.dispatch({ selection: { anchor: view.state.doc.toString().indexOf("{handle chain}") } });
        }"""
    )
    bench.keyboard.press("Alt+Enter")
    form = bench.get_by_label("The numbers of handle chain")
    expect(form.get_by_label("handle chain in Flask")).to_have_value("43")


def test_a_name_is_untied_in_one_line_and_tied_again(page: Page) -> None:
    import_design(page, dump(pouch()))
    step(page, "Shape")
    page.get_by_test_id("number-base-rounds-0").wait_for(timeout=90_000)
    page.get_by_test_id("number-base-rounds-0").click()
    name = page.get_by_label("The name base rounds")
    name.get_by_role("button", name="Untie").click()
    name.get_by_label("Its own name there").fill("wall begins")
    name.get_by_label("In line").select_option(index=1)
    assert_axe(page, "untying")
    name.get_by_role("button", name="Untie").last.click()
    page.get_by_test_id("number-wall-begins-0").wait_for(timeout=90_000)
    page.get_by_test_id("number-base-rounds-0").click()
    name.get_by_role("button", name="Tie").click()
    name.get_by_role("button", name="Move with “wall begins”").click()
    expect(page.get_by_test_id("number-wall-begins-0")).to_have_count(0)
    expect(page.get_by_test_id("proof-mark")).to_contain_text("15 proved in 3 sizes")


def test_the_gauge_of_a_measured_sample_is_written_into_the_text(page: Page) -> None:
    import_design(page, dump(pouch()))
    step(page, "Swatch")
    sample = page.get_by_label("The finished sample")
    sample.get_by_label("Width, lying flat of the sample", exact=True).fill("13")
    sample.get_by_label("Height of the sample", exact=True).fill("8")
    expect(page.get_by_test_id("sample-gauge")).to_contain_text("18.5 ± ")
    assert_axe(page, "a measured sample")
    sample.get_by_role("button", name="Write it into the text").click()
    expect(page.get_by_test_id("gauge")).to_contain_text("18.46")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_test_id("gauge")).to_contain_text("20 × 22")


def test_swatches_yarns_and_the_hook_are_kept(page: Page) -> None:
    import_design(page, dump(pouch()))
    step(page, "Swatch")
    page.get_by_role("button", name="Another swatch").click()
    form = page.get_by_label("A new swatch")
    form.get_by_label("Stitch of the swatch").fill("FPdc, BPtc")
    for label, value in (("Stitches", "20"), ("Rows", "10"), ("Width (cm)", "10"), ("Height (cm)", "10")):
        form.get_by_label(label, exact=True).fill(value)
    form.get_by_role("button", name="Keep the swatch").click()
    swatches = page.get_by_label("Swatches", exact=True)
    expect(swatches).to_contain_text("“BPtc” is no stitch that is known")
    stitch = swatches.get_by_label("Stitch of the swatch").nth(1)
    expect(stitch).to_have_value("FPdc, BPtc")  # it stays, to be mended
    stitch.fill("FPdc, BPdc")
    saved(page)
    page.get_by_role("button", name="Another colour or yarn").click()
    yarn = page.get_by_label("A new yarn")
    yarn.get_by_label("Name").fill("Soft Eclipse")
    yarn.get_by_label("Colour in the text").fill("B")
    yarn.get_by_label("Weight class").select_option("4")
    yarn.get_by_label("Grams a ball").fill("50")
    yarn.get_by_role("button", name="Set the yarn").click()
    expect(page.get_by_label("Yarn", exact=True).first).to_contain_text("Without metres there are no grams")
    hook = page.get_by_label("Hook", exact=True)
    hook.get_by_role("textbox").fill("4.5")
    hook.get_by_role("button", name="Write the hook into the text").click()
    expect(hook).to_contain_text("As the text says it.")
    assert_axe(page, "swatches and yarns")
    saved(page)
    page.reload()
    expect(page.get_by_label("Hook", exact=True).get_by_role("textbox")).to_have_value("4.5")
    expect(page.get_by_role("group", name="Yarn of colour B")).to_be_visible()
