"""Take the pictures of docs/screenshots from a running demo: python scripts/shots.py ADDRESS [NAME ...]."""

import re
import sys
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Browser, Page, sync_playwright

from rillstep.demo import data

WRONG = """Pattern: Comet pouch
Sizes: S, M

Base
Make a magic ring.
Rnd 1: 8 hdc in ring; join. (8)
Rnd 2: Ch 2 (does not count), 2 hdc in each st around; join. (16)
Rnd 3: Ch 2, [hdc in next st, 2 hdc in next st] 8 times; join. (24)
Rnd 4: Ch 2, [hdc in next 2 sts, 2 hdc in next st] 9 times; join. (32)
Rnd 5: Ch 2, hdc in each st around; join. (32)
"""
UNKNOWN = """Pattern: Dew cap
Sizes: Finder, Eyepiece

Base
Rnd 1: 6 sc in a magic ring. (6)
Rnd 2: 2 lean dc in each st around. (12)
Rnd 3: *Lean dc in next st, 2 lean dc in next st; rep from * around. (18)
Rnd 4: Sc into every top all the way round. (18)
Rnd 5: Sc in each st around, catching just the far strand. (18)
Rnds 6-9 (11): Sc in each st around. (18)
"""
OUT = Path(__file__).parents[1] / "docs" / "screenshots"
ARGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--no-first-run",
]


def sign_in(browser: Browser, address: str, dark: bool = False) -> Page:
    """A page of a signed-in designer, at 1280 x 800."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, color_scheme="dark" if dark else "light")
    page = context.new_page()
    page.goto(f"{address}/sign-in")
    page.get_by_label("E-mail address").fill(data.EMAIL)
    page.get_by_label("Password").fill(data.PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    page.get_by_role("heading", name="Designs").wait_for()
    return page


def open_step(page: Page, step: str, design: str = "Nightfield tote") -> None:
    page.goto(re.sub(r"(https?://[^/]+).*", r"\1/", page.url))
    page.get_by_role("link", name=design).click()
    page.get_by_test_id("proof-mark").wait_for()
    page.get_by_role("navigation").get_by_role("link", name=step).click()
    page.wait_for_timeout(1200)


def main(address: str, names: list[str], tester: str) -> None:
    with sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        page = sign_in(browser, address)

        def shot(name: str, prepare: Callable[[Page], object], on: Page = page) -> None:
            if names and name not in names:
                return
            prepare(on)
            on.wait_for_timeout(400)
            on.screenshot(path=OUT / f"{name}.png")

        def shape(p: Page) -> None:
            open_step(p, "Shape")
            p.get_by_test_id("number-wall-rounds-1").click(timeout=60_000)
            p.get_by_test_id("number-side-0").hover()

        def clutch(p: Page) -> None:
            open_step(p, "Shape", "Chart clutch")
            p.get_by_role("button", name="Panel", exact=True).click()
            p.get_by_text("This bag grows").wait_for(timeout=60_000)

        def preview(p: Page) -> None:
            open_step(p, "Sizes", "Eyepiece pouch")
            p.get_by_label("Width, lying flat of Eyepiece").fill("15")
            p.get_by_role("button", name="Grade to these").click()
            p.get_by_role("dialog").get_by_role("heading").first.wait_for(timeout=60_000)

        def edit(p: Page) -> None:
            open_step(p, "Words")
            p.get_by_text("Edit the text").click()
            p.locator(".cm-named").first.wait_for()
            p.locator(".cm-content").press("Control+End")
            p.locator(".cm-named").last.click()

        def check(p: Page) -> None:
            p.goto(f"{address}/check")
            p.locator(".cm-content").wait_for()
            if p.get_by_role("button", name="Try an example").is_visible():
                p.get_by_role("button", name="Try an example").click()
            p.get_by_test_id("verdict").wait_for()

        def asked(p: Page) -> None:
            p.goto(f"{address}/check")
            p.locator(".cm-content").wait_for()
            p.locator(".cm-content").click()
            p.keyboard.press("Control+a")
            p.keyboard.insert_text(UNKNOWN)
            p.get_by_role("region", name="Unknown words").wait_for()
            p.wait_for_timeout(500)

        def trace(p: Page) -> None:
            p.goto(f"{address}/check")
            p.locator(".cm-content").wait_for()
            p.locator(".cm-content").click()
            p.keyboard.press("Control+a")
            p.keyboard.insert_text(WRONG)
            p.get_by_role("button", name="Rnd 4, M").click()
            p.get_by_test_id("trace-failing").wait_for()

        def chart(p: Page) -> None:
            trace(p)
            p.get_by_role("button", name="Change 9 to 8").click()
            p.get_by_text("Chart", exact=True).click()
            p.get_by_alt_text("Chart of Rnd 4").wait_for()

        def listed(p: Page) -> None:
            p.goto(address)
            p.wait_for_timeout(6000)  # pictures that have to wait are asked for again

        shot("designs", listed)

        def beginning(p: Page) -> None:
            p.goto(address)
            p.get_by_role("button", name="New design").click()
            p.get_by_text("Folded clutch").wait_for()

        shot("new-design", beginning)
        shot("swatch", lambda p: open_step(p, "Swatch"))
        shot("sizes", lambda p: open_step(p, "Sizes"))
        shot("shape", shape)
        shot("shape-clutch", clutch)
        shot("preview", preview)
        shot("yarn", lambda p: open_step(p, "Yarn"))
        shot("words", lambda p: open_step(p, "Words"))
        shot("words-edit", edit)
        shot("check", check)
        shot("asked", asked)
        shot("trace", trace)
        shot("chart", chart)

        def with_testers(p: Page) -> None:
            open_step(p, "Testers")
            p.get_by_text("Ottilie").first.wait_for()

        shot("testers", with_testers)
        shot("parts", lambda p: open_step(p, "Parts"))
        if not names or "shape-dark" in names:
            shot("shape-dark", shape, sign_in(browser, address, dark=True))
        phone = browser.new_context(viewport={"width": 390, "height": 844}, device_scale_factor=2).new_page()

        def on_phone(p: Page) -> None:
            p.goto(f"{address}/t/{tester}")
            p.get_by_test_id("step-text").wait_for()

        shot("tester-phone", on_phone, phone)

        def welcome(p: Page) -> None:
            p.goto(f"{address}/sign-in")
            p.get_by_label("Lines that are proved").wait_for()

        stranger = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        shot("welcome", welcome, stranger)
        browser.close()


if __name__ == "__main__":
    secret = (Path(__file__).parents[1] / "var" / "demo" / "secret").read_text()
    main(sys.argv[1], sys.argv[2:], data.demo_token(secret, "Bram"))
