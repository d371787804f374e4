"""Whole patterns typed at the pace of a person: what stands in the editor is what was typed."""

import time
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import Opener, sign_up

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

TYPED = Path(__file__).parents[1] / "typed"
# Seconds from key to key, as they are in a row of keys.
PACE_S = (0.06, 0.11, 0.08, 0.15, 0.07, 0.12, 0.09)
# As much of a text as is typed in a short while; it holds head, sections, rounds and notes.
LETTERS = 130
BEGINS = {"orrery-backpack": "BODY", "lantern-pouch": "Bag", "comet-catcher": "BOTTOM"}


def part_of(name: str) -> str:
    text = (TYPED / f"{name}.txt").read_text()
    start = text.index(f"\n{BEGINS[name]}\n") + 1
    return text[start : start + LETTERS]


def test_what_is_typed_is_what_stands_there(open_page: Opener, address: str) -> None:
    """By three people at once, key by key in turn, so that each waits for the next key as a person does."""
    pages = {name: open_page() for name in BEGINS}
    for page in pages.values():
        sign_up(page, address)
        page.goto(f"{address}/check")
        editor = page.locator(".cm-content")
        editor.wait_for()
        editor.focus()
        page.keyboard.press("Control+a")
        page.keyboard.press("Delete")
    typed = {name: part_of(name) for name in BEGINS}
    for at in range(LETTERS):
        due = time.monotonic() + PACE_S[at % len(PACE_S)]
        for name, page in pages.items():
            letter = typed[name][at]
            if letter == "\n":
                page.keyboard.press("Enter")
            else:
                page.keyboard.type(letter)
        pages["lantern-pouch"].wait_for_timeout(max(0.0, due - time.monotonic()) * 1000)
    for name, page in pages.items():
        expect(page.locator(".cm-line").first).to_be_visible()
        assert shown(page) == typed[name], name


def shown(page: Page) -> str:
    lines: str = page.locator(".cm-content").evaluate(
        "host => [...host.querySelectorAll('.cm-line')].map((line) => line.textContent).join('\\n')"
    )
    return lines
