"""Nothing typed is lost: the server away, the tab closed, two tabs at once."""

import os
import signal

import pytest
from playwright.sync_api import Page, Route, expect

from rillstep.demo.data import pouch
from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.run import serve
from rillstep.document import dump
from rillstep.store.database import migrate
from tests.browser.conftest import Opener, import_design, saved, sign_up, step
from tests.canaries import server_log

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]


def test_the_server_goes_away_while_typing(open_page: Opener, mariadb: OwnMariaDb) -> None:
    url = mariadb.create_database("rillstep_away")
    migrate(url)
    port = free_port()
    server = serve(url, "a secret of the tests, and of no site", port, server_log())
    page = open_page()
    try:
        sign_up(page, f"http://127.0.0.1:{port}")
        import_design(page, dump(pouch()))
        step(page, "Swatch")
        os.killpg(server.pid, signal.SIGKILL)
        server.wait()
        page.get_by_label("Fibre").fill("pure stardust")
        expect(page.get_by_test_id("save-state")).to_contain_text("the server does not answer")
        page.get_by_label("Grams a ball").fill("52.5")
        server = serve(url, "a secret of the tests, and of no site", port, server_log())
        saved(page)
        page.reload()
        expect(page.get_by_label("Fibre")).to_have_value("pure stardust")
        expect(page.get_by_label("Grams a ball")).to_have_value("52.5")
    finally:
        os.killpg(server.pid, signal.SIGTERM)
        server.wait(timeout=30)


def test_a_tab_closed_before_the_save(page: Page) -> None:
    import_design(page, dump(pouch()))
    step(page, "Swatch")
    saved(page)
    here = page.url
    page.context.set_offline(True)
    page.get_by_label("Fibre").fill("half typed")
    page.context.set_offline(False)
    again = page.context.new_page()
    page.close()
    again.goto(here)
    expect(again.get_by_label("Fibre")).to_have_value("half typed")
    saved(again)
    again.evaluate("localStorage.clear()")
    again.reload()
    expect(again.get_by_label("Fibre")).to_have_value("half typed")


def test_what_is_corrected_while_it_is_being_refused_is_saved(page: Page) -> None:
    import_design(page, dump(pouch()))
    step(page, "Swatch")
    saved(page)
    held: list[Route] = []
    page.route("**/api/designs/*", lambda route: held.append(route))
    with page.expect_request(lambda request: request.method == "PATCH"):
        page.get_by_label("Grams a ball").fill("0")
    page.get_by_label("Grams a ball").fill("52.5")
    held[0].continue_()
    page.unroute("**/api/designs/*")
    saved(page)
    page.reload()
    expect(page.get_by_label("Grams a ball")).to_have_value("52.5")


@pytest.mark.parametrize("keep", ["Keep mine as a new revision", "Take what was saved"])
def test_two_tabs_do_not_overwrite_each_other(page: Page, open_page: Opener, keep: str) -> None:
    import_design(page, dump(pouch()))
    step(page, "Swatch")
    saved(page)
    # The other tab is in another browser: the same studio, nothing shared but the server.
    other = open_page(storage_state=page.context.storage_state())
    other.evaluate("localStorage.clear()") if other.url.startswith("http") else None
    other.goto(page.url)
    other.get_by_label("Fibre").fill("theirs")
    saved(other)
    page.get_by_label("Fibre").fill("mine")
    expect(page.get_by_role("alert")).to_contain_text("Nothing was overwritten")
    page.get_by_role("button", name=keep).click()
    saved(page)
    expect(page.get_by_label("Fibre")).to_have_value("mine" if keep.startswith("Keep") else "theirs")
    other.reload()
    expect(other.get_by_label("Fibre")).to_have_value("mine" if keep.startswith("Keep") else "theirs")
