"""Bags of five builds, pasted in one size: graded to four, taken, printed and given to a tester, at the settings that are
shipped; `make fuzz` does it beside a core that is busy with something else."""

import os
import re
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from rillstep.demo.mariadb import free_port
from rillstep.demo.run import serve
from rillstep.document.ready import READY_BAGS
from tests.browser.conftest import SECRET, Opener, phone_of_tester, sign_up, step
from tests.canaries import server_log

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

ALL = os.environ.get("RILLSTEP_ALL") == "1"
# The measure that grows, and by how much from size to size.
BUILDS = {
    "round_pouch": ("Height", (10, 12, 14)), "oval_mesh": ("Height", (32, 36, 40)),
    "folded_clutch": ("Width", (24, 26, 28)), "granny_squares": ("Height", (26.2, 30, 33.8)),
    "two_panels": ("Height", (28, 31, 34)),
}  # fmt: skip
TEXTS = {bag.key: bag.text for bag in READY_BAGS}


@pytest.fixture(scope="module")
def shipped(database_url: str) -> Iterator[str]:
    """A server as it is shipped, and with all builds a process that computes all the while."""
    port = free_port()
    busy = subprocess.Popen([sys.executable, "-c", "while True: pass"]) if ALL else None
    server = serve(database_url, SECRET, port, server_log())
    yield f"http://127.0.0.1:{port}"
    os.killpg(server.pid, signal.SIGTERM)
    server.wait(timeout=30)
    if busy is not None:
        busy.kill()
        busy.wait()


def graded(page: Page) -> None:
    """The preview of the sizes; work that was stopped at its deadline is gone on with, as it offers."""
    page.get_by_role("button", name="Grade to these").click()
    heading = page.get_by_role("dialog").get_by_role("heading").first
    on = page.get_by_role("button", name="Go on")
    for _ in range(4):
        heading.or_(on.first).first.wait_for(timeout=120_000)
        if heading.count():
            return
        on.first.click()
    raise AssertionError("the sizes are not found")


@pytest.mark.parametrize("key", BUILDS if ALL else ["oval_mesh"])
def test_a_build_goes_from_paste_to_tester(open_page: Opener, shipped: str, key: str, tmp_path: Path) -> None:
    page = open_page()
    sign_up(page, shipped)
    page.get_by_role("link", name="Check a pattern").click()
    page.locator(".cm-content").click()
    page.keyboard.insert_text(TEXTS[key])
    page.get_by_role("button", name="Keep it as a design").click()
    page.get_by_label("Name of the design").wait_for()
    step(page, "Sizes")
    page.get_by_label("Name of size One size").fill("Small")
    page.keyboard.press("Enter")
    page.get_by_label("Name of size Small").wait_for()
    measure, wanted = BUILDS[key]
    for name, cm in zip(("Medium", "Large", "Extra large"), wanted, strict=True):
        page.get_by_role("button", name="Add a size").click()
        page.get_by_label(re.compile(f"^{measure}(, lying flat)? of {name}$")).first.fill(str(cm))
    graded(page)
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("Every line is proved in all of them.")
    take = dialog.get_by_role("button", name="Take these sizes")
    expect(take).to_be_in_viewport()
    take.click()
    expect(page.get_by_test_id("proof-mark")).to_contain_text("in 4 sizes")
    expect(page.get_by_test_id("save-state")).to_have_text("saved")

    step(page, "Words")
    with page.expect_download(timeout=120_000) as pdf:
        page.get_by_role("button", name="PDF").click()
    assert Path(pdf.value.path()).read_bytes()[:5] == b"%PDF-"
    phone = phone_of_tester(page, "Extra large", open_page)
    expect(phone.get_by_test_id("step-text")).to_be_visible()
    wide = phone.evaluate("() => [document.documentElement.scrollWidth, window.innerWidth]")
    assert wide[0] <= wide[1]
