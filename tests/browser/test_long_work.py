"""Long work on the screen: how far it is, stopping it, and what is said at its deadline; and what a browser keeps."""

import os
import re
import signal
from collections.abc import Iterator

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.mariadb import free_port
from rillstep.demo.run import serve
from rillstep.document import Design, dump
from tests.abuse.heavy_texts import long_to_grade
from tests.browser.conftest import BESIDE_OTHER_TESTS, SECRET, Opener, import_design, sign_up, step
from tests.canaries import server_log

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

# Its analysis is long, and the work of its text is not: what is stopped is the analysis.
LONG = long_to_grade()
ANALYSIS = re.compile("^(Working which|Finding|Proving)")


@pytest.fixture(scope="module")
def short(database_url: str) -> Iterator[str]:
    """A server that ends long work after three seconds: a proof is shorter, beside other tests too."""
    port = free_port()
    server = serve(database_url, SECRET, port, server_log(), **{**BESIDE_OTHER_TESTS, "RILLSTEP_DEADLINE_S": "3"})
    yield f"http://127.0.0.1:{port}"
    os.killpg(server.pid, signal.SIGTERM)
    server.wait(timeout=30)


def test_long_work_says_how_far_it_is_and_can_be_stopped(page: Page) -> None:
    import_design(page, dump(Design(text=LONG)))
    step(page, "Shape")
    progress = page.get_by_role("progressbar")
    progress.wait_for(timeout=60_000)
    expect(page.get_by_text("Being checked: each number is moved")).to_be_visible()
    page.get_by_label("Long work").get_by_text(ANALYSIS).wait_for()
    page.get_by_role("button", name="Stop").click()
    alert = page.get_by_role("alert").filter(has_text="This was stopped. Nothing was changed, and what was found")
    alert.wait_for(timeout=60_000)
    expect(progress).to_have_count(0)
    alert.get_by_role("button", name="Go on").click()
    page.get_by_label("Long work").get_by_text(ANALYSIS).wait_for()
    expect(alert).to_have_count(0)
    page.get_by_role("button", name="Stop").click()  # the next test computes, too
    alert.wait_for(timeout=60_000)


def test_at_the_deadline_it_is_said_what_to_do(open_page: Opener, short: str) -> None:
    page = open_page()
    sign_up(page, short)
    import_design(page, dump(Design(text=LONG)))
    step(page, "Shape")
    alert = page.get_by_role("alert").filter(has_text="This took longer than 3 seconds and was stopped.")
    alert.wait_for(timeout=60_000)
    expect(alert).to_contain_text("go on, or work with fewer sizes at a time, or with a shorter text.")
    expect(alert.get_by_role("button", name="Go on")).to_be_visible()


def test_what_one_left_unsaved_is_not_shown_to_the_next_and_is_there_again(page: Page, address: str) -> None:
    email = page.get_by_text("@observing-night.example").text_content()
    page.goto(f"{address}/check")
    page.get_by_role("textbox", name="Pattern text").fill("Rnd 1: 6 sc in ring. (6 sts)")
    page.get_by_text("Rnd 1").first.wait_for()
    page.goto(address)
    page.get_by_role("button", name="Sign out").click()
    page.get_by_role("heading", name="Sign in").wait_for()
    sign_up(page, address)
    page.goto(f"{address}/check")
    expect(page.get_by_role("textbox", name="Pattern text")).to_have_text("")
    page.goto(address)
    page.get_by_role("button", name="Sign out").click()
    page.get_by_label("E-mail address").fill((email or "").split("·")[-1].replace("Sign out", "").strip())
    page.get_by_label("Password").fill("a long password")
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Designs").wait_for()
    page.goto(f"{address}/check")
    expect(page.get_by_role("textbox", name="Pattern text")).to_contain_text("6 sc in ring")


def test_many_designs_are_shown_by_pages_and_found_by_name(page: Page) -> None:
    post = """async (names) => {
        const csrf = (await (await fetch("/api/me")).json()).csrf;
        for (const name of names)
            await fetch("/api/designs/from-text", {
                method: "POST", headers: { "Content-Type": "application/json", "X-CSRF-Token": csrf },
                body: JSON.stringify({ text: `${name}\\n\\nRnd 1: 6 sc in ring. (6 sts)` }),
            });
    }"""
    page.evaluate(post, [f"Lamp pouch {number}" for number in range(51)])
    page.reload()
    page.get_by_text("page 1 of 2, 51 designs").wait_for()
    page.get_by_role("button", name="Older").click()
    expect(page.get_by_role("link", name="Lamp pouch 0", exact=False).first).to_be_visible()
    page.get_by_role("searchbox").fill("pouch 27")
    page.get_by_role("link", name="Lamp pouch 27").wait_for()
    expect(page.get_by_role("link", name="Lamp pouch")).to_have_count(1)
    page.get_by_role("searchbox").fill("no such bag")
    page.get_by_text("No design has “no such bag” in its name.").wait_for()
