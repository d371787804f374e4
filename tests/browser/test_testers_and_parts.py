"""The tester's phone, and the crochet-along."""

from pathlib import Path

import pytest
from icalendar import Calendar
from playwright.sync_api import Page, expect

from rillstep.demo.data import nightfield, pouch
from rillstep.document import dump
from tests.browser.conftest import Opener, assert_axe, import_design, saved, step

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


@pytest.fixture
def bench(page: Page) -> Page:
    import_design(page, dump(nightfield()))
    return page


def test_the_testers_phone_path(bench: Page, open_page: Opener) -> None:
    step(bench, "Testers")
    bench.get_by_role("button", name="Open a test of revision 1").click()
    bench.get_by_label("Name of the tester").fill("Ottilie")
    bench.get_by_label("Size", exact=True).select_option("Flask")
    bench.get_by_label("Terms").select_option("UK")
    bench.get_by_role("button", name="Add tester").click()
    link = bench.get_by_test_id("tester-link").inner_text()

    phone = open_page(390, 844, has_touch=True, is_mobile=True)
    phone.goto(link)
    expect(phone.get_by_test_id("step-text")).to_have_text("Ch 27.")
    assert_axe(phone, "tester's page")
    for _ in range(3):
        phone.get_by_role("button", name="Done, next").click()
    expect(phone.get_by_test_id("step-label")).to_have_text("Rnd 3")
    expect(phone.get_by_text("70 sts")).to_be_visible()
    phone.get_by_role("button", name="One more").click()
    phone.get_by_role("button", name="One more").click()
    expect(phone.get_by_test_id("counter")).to_have_text("2")
    phone.get_by_role("button", name="It did not come out").click()
    phone.get_by_label("How many did you get?").fill("71")
    phone.get_by_label("What happened?").fill("One too many at the far end")
    phone.get_by_role("button", name="Send to the designer").click()
    expect(phone.get_by_text("You reported 71")).to_be_visible()
    phone.get_by_role("button", name="Back").click()
    expect(phone.get_by_test_id("step-label")).to_have_text("Rnd 2")
    phone.get_by_role("button", name="Done, next").click()
    phone.wait_for_timeout(500)

    again = open_page(390, 844)  # another phone: the place is on the server
    again.goto(link)
    expect(again.get_by_test_id("step-label")).to_have_text("Rnd 3")
    again.get_by_role("button", name="Materials, notes").click()
    expect(again.get_by_text("htr: half treble crochet")).to_be_visible()
    again.get_by_role("button", name="Back to the work").click()
    while again.get_by_role("button", name="Done, next").is_visible():
        again.get_by_role("button", name="Done, next").click()
    expect(again.get_by_role("heading", name="The bag is done")).to_be_visible()
    again.get_by_label("Width, lying flat (cm)").fill("28,5")
    again.get_by_label("Height (cm)").fill("33")
    again.get_by_label("Yarn used (g)").fill("150")
    again.get_by_label("Hours").fill("x")
    expect(again.get_by_role("button", name="Send the report")).to_be_disabled()
    again.get_by_label("Hours").fill("11")
    again.get_by_label("Remarks").fill("A joy")
    again.get_by_role("button", name="Send the report").click()
    expect(again.get_by_text("The designer has your report")).to_be_visible()

    bench.reload()
    expect(bench.get_by_text("71 instead of 70. One too many")).to_be_visible()
    expect(bench.get_by_role("cell", name="28.5 cm", exact=True)).to_be_visible()
    expect(bench.get_by_role("row", name="Height 29.6 cm 33.0 cm +3.4 cm", exact=True)).to_be_visible()
    with bench.expect_response("**/withdraw"):
        bench.get_by_role("button", name="Withdraw").click()
    expect(bench.get_by_role("button", name="Withdraw")).to_be_disabled()
    again.reload()
    expect(again.get_by_role("alert")).to_contain_text("ask the designer for a new one")

    step(bench, "Yarn")
    reported = bench.get_by_label("Weights that testers reported")
    expect(reported).to_contain_text("Ottilie reported 150 g for Flask")
    reported.get_by_role("button", name="Take Ottilie’s weight").click()
    expect(bench.get_by_label("Weighed", exact=True)).to_contain_text("the bag in Flask, made by Ottilie: 150 g")
    expect(reported).to_have_count(0)


def test_a_phone_without_connection_keeps_the_place(bench: Page, open_page: Opener) -> None:
    step(bench, "Testers")
    bench.get_by_role("button", name="Open a test of revision 1").click()
    bench.get_by_label("Name of the tester").fill("Bram")
    bench.get_by_role("button", name="Add tester").click()
    link = bench.get_by_test_id("tester-link").inner_text()
    phone = open_page(390, 844)
    phone.goto(link)
    phone.get_by_test_id("step-text").wait_for()
    phone.context.set_offline(True)
    phone.get_by_role("button", name="Done, next").click()
    expect(phone.get_by_text("No connection just now")).to_be_visible()
    phone.context.set_offline(False)
    expect(phone.get_by_text("No connection just now")).to_be_hidden()
    fresh = open_page(390, 844)
    fresh.goto(link)
    expect(fresh.get_by_test_id("step-label")).to_have_text("Rnd 1")


def test_a_guessed_link_gets_a_clear_answer(open_page: Opener, address: str) -> None:
    phone = open_page(390, 844)
    phone.goto(f"{address}/t/guessed-guessed-guessed")
    expect(phone.get_by_role("alert")).to_contain_text("This link opens nothing")


def test_the_parts(bench: Page) -> None:
    step(bench, "Parts")
    expect(bench.get_by_role("article")).to_have_count(4)
    bench.get_by_label("Parts", exact=True).select_option("5")
    expect(bench.get_by_role("article")).to_have_count(5)
    bench.get_by_label("First part on").fill("2027-03-05")
    bench.get_by_label("Days between").fill("14")
    expect(bench.get_by_label("Part 2", exact=True)).to_contain_text("March 19, 2027")
    first = bench.get_by_label("Part 1", exact=True)
    expect(first).to_contain_text("Checkpoint")
    expect(first.get_by_role("row", name="Stitches 72 86 102 120")).to_be_visible()
    first.get_by_text("Its lines").click()
    expect(first).to_contain_text("Hdc in 3rd ch from hook")
    with bench.expect_download() as calendar:
        bench.get_by_role("button", name="Calendar file").click()
    events = Calendar.from_ical(Path(calendar.value.path()).read_bytes()).walk("VEVENT")
    assert [str(event.decoded("dtstart")) for event in events] == [
        "2027-03-05",
        "2027-03-19",
        "2027-04-02",
        "2027-04-16",
        "2027-04-30",
    ]
    with bench.expect_download() as pdf:
        bench.get_by_role("button", name="PDF of part 3").click()
    assert Path(pdf.value.path()).read_bytes()[:5] == b"%PDF-"
    saved(bench)


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_axe_finds_nothing_on_the_main_views(open_page: Opener, address: str, theme: str) -> None:
    from tests.browser.conftest import sign_up

    page = open_page(color_scheme=theme)
    page.goto(f"{address}/sign-in")
    page.get_by_role("heading", name="Sign in").wait_for()
    assert_axe(page, "sign in")
    sign_up(page, address)
    assert_axe(page, "empty list")
    import_design(page, dump(pouch()))
    for name in ("Swatch", "Sizes", "Shape", "Yarn", "Words", "Testers", "Parts"):
        step(page, name)
        page.wait_for_timeout(400)
        assert_axe(page, name)
    step(page, "Shape")
    page.get_by_test_id("number-wall-rounds-0").click(timeout=60_000)
    assert_axe(page, "with a reason")
    step(page, "Words")
    page.get_by_text("Edit the text").click()
    page.locator(".cm-content").wait_for()
    assert_axe(page, "editor")
    page.get_by_role("button", name="revision 1").click()
    page.get_by_text("Choose a revision").wait_for()
    assert_axe(page, "revisions")
