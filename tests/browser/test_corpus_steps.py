"""Texts of the corpus in the browser: each step of each is there, and shows nothing of another design."""

import json

import pytest
from playwright.sync_api import Page, expect

from rillstep.document import dump
from tests.api.test_all_steps import CANARIES, CORPUS, canary
from tests.browser.conftest import assert_axe, import_design
from tests.browser.test_narrow import STEPS

pytestmark = [pytest.mark.browser, pytest.mark.xdist_group("browser")]

# Three of them, from all over the corpus.
SHARE = CORPUS[7 :: len(CORPUS) // 3][:3]

_KEEP = """async (text) => {
  const me = await (await fetch("/api/me")).json();
  const headers = { "Content-Type": "application/json", "X-CSRF-Token": me.csrf };
  const body = JSON.stringify({ text });
  const answer = await fetch("/api/designs/from-text", { method: "POST", headers, body });
  return (await answer.json()).id;
}"""


@pytest.fixture
def beside_a_canary(page: Page) -> Page:
    import_design(page, dump(canary()))
    return page


def test_texts_of_the_corpus_go_through_all_steps(beside_a_canary: Page) -> None:
    page = beside_a_canary
    site = page.url.split("/designs")[0]
    for at, path in enumerate(SHARE):
        number = page.evaluate(_KEEP, path.read_text())
        for step in STEPS:
            page.goto(f"{site}/designs/{number}/{step}")
            page.get_by_test_id("proof-mark").wait_for()
            expect(page.get_by_test_id("proof-mark"), f"{path.stem}: {step}").to_contain_text("proved")
            expect(page.get_by_role("heading", level=1)).to_be_visible()
            shown = page.inner_text("body")
            assert CANARIES.search(shown) is None and "undefined" not in shown, (path.stem, step)
            assert "Something went wrong" not in shown and "NaN" not in shown, (path.stem, step)
            if at == 0:
                assert_axe(page, f"{path.stem}: {step}")


def test_the_share_is_three_texts() -> None:
    assert len({json.dumps(path.read_text()) for path in SHARE}) == 3
