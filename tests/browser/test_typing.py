"""Whole patterns typed at the pace of a person: what stands in the editor is what was typed."""

import random
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

TYPED = Path(__file__).parents[1] / "typed"
# Milliseconds from key to key.
PACE_MS = (60, 150)
# As much of a text as is typed in half a minute or so; it holds head, sections, rounds and notes.
LETTERS = 330
BEGINS = {"orrery-backpack": "BODY", "lantern-pouch": "Bag", "comet-catcher": "BOTTOM"}


@pytest.mark.parametrize("name", BEGINS)
def test_what_is_typed_is_what_stands_there(page: Page, name: str) -> None:
    text = (TYPED / f"{name}.txt").read_text()
    start = text.index(f"\n{BEGINS[name]}\n") + 1
    typed = text[start : start + LETTERS]
    page.goto(page.url.rsplit("/", 1)[0] + "/check")
    editor = page.locator(".cm-content")
    editor.wait_for()
    editor.focus()
    page.keyboard.press("Control+a")
    page.keyboard.press("Delete")
    draw = random.Random(name)
    for letter in typed:
        page.keyboard.press("Enter" if letter == "\n" else letter) if letter == "\n" else page.keyboard.type(letter)
        page.wait_for_timeout(draw.randint(*PACE_MS))
    expect(page.locator(".cm-line").first).to_be_visible()
    shown = editor.evaluate(
        "host => [...host.querySelectorAll('.cm-line')].map((line) => line.textContent).join('\\n')"
    )
    assert shown == typed
