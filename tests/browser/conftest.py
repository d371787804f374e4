"""The real interface in headless Chromium, on the real server and MariaDB."""

import os
import re
import secrets
import signal
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright

from rillstep.demo.mariadb import free_port
from rillstep.demo.run import serve
from tests.canaries import server_log

SECRET = "a secret of the tests, and of no site"
# The machine is full of tests: long work that gave way to them would hardly be done.
BESIDE_OTHER_TESTS = {"RILLSTEP_RATE_LIMITS": "off", "RILLSTEP_HEAVY_NICE": "0", "RILLSTEP_DEADLINE_S": "120"}
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--no-first-run",
]
AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"

# Long work beside other tests on a slow machine.
expect.set_options(timeout=45_000)

# What Chromium says of itself and of requests that a test makes fail on purpose.
HARMLESS = ("Failed to load resource", "net::ERR", "Applying inline style violates")


@pytest.fixture(scope="session")
def address(database_url: str) -> Iterator[str]:
    port = free_port()
    server = serve(database_url, SECRET, port, server_log(), **BESIDE_OTHER_TESTS)
    yield f"http://127.0.0.1:{port}"
    os.killpg(server.pid, signal.SIGTERM)
    server.wait(timeout=30)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        yield browser
        browser.close()


Opener = Callable[..., Page]


@pytest.fixture
def open_page(browser: Browser) -> Iterator[Opener]:
    """Open a page in a context of its own; at the end nothing may have gone wrong on its console."""
    contexts: list[BrowserContext] = []
    complaints: list[str] = []

    def listen(page: Page) -> None:
        page.on("pageerror", lambda error: complaints.append(str(error)))
        page.on("console", lambda m: complaints.append(m.text) if m.type in ("error", "warning") else None)

    def make(width: int = 1280, height: int = 800, **options: Any) -> Page:
        context = browser.new_context(viewport={"width": width, "height": height}, accept_downloads=True, **options)
        context.set_default_timeout(60_000)
        context.on("page", listen)
        contexts.append(context)
        return context.new_page()

    yield make
    for context in contexts:
        context.close()
    assert [c for c in complaints if not any(word in c for word in HARMLESS)] == []


@pytest.fixture
def page(open_page: Opener, address: str) -> Page:
    """A new designer, signed up in the browser, at her empty list of designs."""
    page = open_page()
    sign_up(page, address)
    return page


def sign_up(page: Page, address: str) -> str:
    email = f"{secrets.token_hex(6)}@observing-night.example"
    page.goto(f"{address}/sign-in")
    page.get_by_role("button", name="I am new here").click()
    page.get_by_label("E-mail address").fill(email)
    page.get_by_label("Password (at least 10 characters)").fill("a long password")
    page.get_by_label("Name of your studio").fill("Night Shift Crochet")
    page.get_by_role("button", name="Make the account").click()
    page.get_by_role("heading", name="Nothing here yet").wait_for()
    return email


def import_design(page: Page, document: str) -> None:
    """Read a design file in the browser; ends at its workbench, worked."""
    page.get_by_role("button", name="New design").click()
    page.get_by_label("A design file", exact=True).set_input_files(
        {"name": "d.json", "mimeType": "application/json", "buffer": document.encode()}
    )
    page.get_by_test_id("proof-mark").wait_for()


def step(page: Page, name: str) -> None:
    """Go to a stepping stone."""
    page.get_by_role("navigation").get_by_role("link", name=name).click()
    page.get_by_role("heading", name=name, level=1).wait_for()


def saved(page: Page) -> None:
    """Wait until everything typed is saved."""
    page.get_by_test_id("save-state").get_by_text("saved", exact=True).wait_for()


def assert_axe(page: Page, where: str) -> None:
    """axe finds nothing."""
    page.evaluate(AXE.read_text())
    found = page.evaluate(
        "async () => (await axe.run(document)).violations.map(v => [v.id, v.nodes.map(n => n.html.slice(0, 160))])"
    )
    assert found == [], where


def put(page: Page, old: str, new: str) -> None:
    """Type over words of the text, as a hand would."""
    editor = page.locator(".cm-content")
    editor.evaluate(
        """(host, old) => {
            const walker = document.createTreeWalker(host, NodeFilter.SHOW_TEXT);
            const lines = [...host.querySelectorAll('.cm-line')];
            const line = lines.find((l) => l.textContent.includes(old));
            const range = document.createRange();
            let left = line.textContent.indexOf(old), length = old.length, started = false;
            const nodes = document.createTreeWalker(line, NodeFilter.SHOW_TEXT);
            for (let node = nodes.nextNode(); node; node = nodes.nextNode()) {
                const size = node.textContent.length;
                if (!started && left < size) { range.setStart(node, left); started = true; left += length; }
                if (started && left <= size) { range.setEnd(node, left); break; }
                left -= size;
            }
            host.focus();
            const selection = getSelection();
            selection.removeAllRanges();
            selection.addRange(range);
        }""",
        old,
    )
    page.wait_for_timeout(150)
    page.keyboard.insert_text(new)


def phone_of_tester(page: Page, size: str, open_page: Opener) -> Page:
    """The page of a new tester, on a phone: a test of the newest revision is opened for it."""
    step(page, "Testers")
    page.get_by_role("button", name=re.compile("^Open a test of revision")).click()
    page.get_by_label("Name of the tester").fill("Ottilie")
    page.get_by_label("Size", exact=True).select_option(size)
    page.get_by_role("button", name="Add tester").click()
    phone = open_page(390, 844, has_touch=True, is_mobile=True)
    phone.goto(page.get_by_test_id("tester-link").inner_text())
    return phone
