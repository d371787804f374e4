"""Edits as they are seen in the browser: a keystroke in a long text, and a changed target; and the server's share."""

import os
import shutil
import signal
import statistics
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from rillstep.demo.data import pouch
from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.run import serve
from rillstep.document import ChangedLines, Changes, Design, dump, with_changes
from rillstep.services import grading, workbench
from rillstep.store.database import migrate
from tests.bench.keystroke import long_text
from tests.browser.conftest import ARGS, import_design, sign_up, step

EDITS = 20
# The line of Rnd 2 in the long text, and its row in the table of totals.
LINE, ROW = 5, 2

# Writes another total into a line, as typing does, and waits for the row to be drawn with it.
_TYPE = """([line, row, many]) => new Promise((done) => {
  const editor = document.querySelector(".cm-content");
  const view = (editor.cmTile ?? editor.cmView).view;
  const target = document.querySelectorAll(".proof-table tbody tr")[row];
  const before = target.innerText;
  const watch = new MutationObserver(() => {
    if (target.innerText === before) return;
    watch.disconnect();
    requestAnimationFrame(() => done(performance.now() - began));
  });
  watch.observe(target, { subtree: true, childList: true, characterData: true });
  setTimeout(() => done(-1), 9000);
  const { from, to, text } = view.state.doc.line(line);
  const began = performance.now();
  view.dispatch({ changes: { from, to, insert: text.replace(/— \\d+ /, `— ${many} `) } });
})"""

# Sets a target as typing does, and waits for what it comes to.
_TARGET = """([label, value]) => new Promise((done) => {
  const field = [...document.querySelectorAll("label")].find((l) => l.innerText.trim() === label).control;
  const cell = field.closest("td");
  let asked = false;
  const watch = new MutationObserver(() => {
    const comes = cell.querySelector("[data-testid]");
    if (!comes) return;
    if (comes.className.includes("opacity")) asked = true;
    else if (asked) {
      watch.disconnect();
      requestAnimationFrame(() => done(performance.now() - began));
    }
  });
  watch.observe(cell, { subtree: true, childList: true, characterData: true, attributes: true });
  setTimeout(() => done(-1), 9000);
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  const began = performance.now();
  set.call(field, value);
  field.dispatchEvent(new Event("input", { bubbles: true }));
})"""


def long_design() -> Design:
    """A text of 300 rows in eight sizes."""
    return Design(name="Long", text=long_text(300, 300))


def typed_ms() -> list[float]:
    """Milliseconds to work the long text through, each time with another total in one line."""
    base, times = long_design(), []
    line = base.text.split("\n")[LINE - 1]
    for n in range(EDITS + 1):
        changes = Changes(lines=ChangedLines(at=LINE - 1, removed=1, lines=[line.replace("150 ", f"{400 + n} ", 1)]))
        began = time.perf_counter()
        workbench.work(with_changes(base, changes)).model_dump_json()
        times.append(1000 * (time.perf_counter() - began))
    return times[1:]


def graded_ms() -> list[float]:
    """Milliseconds to grade the demo pouch, each time with another width."""
    design, times = pouch(), []
    for n in range(EDITS + 1):
        last = design.sizes[-1]
        size = last.model_copy(update={"targets_mm": {**last.targets_mm, "width": 161.0 + 2.7 * n}})
        began = time.perf_counter()
        grading.graded_view(design.model_copy(update={"sizes": [*design.sizes[:-1], size]}))
        times.append(1000 * (time.perf_counter() - began))
    return times[1:]


@contextmanager
def _served() -> Iterator[str]:
    """The application on a database of its own; its address."""
    folder = Path(tempfile.mkdtemp(prefix="rillstep-bench-"))
    own = OwnMariaDb(folder)
    own.start()
    server = None
    try:
        url = own.create_database("rillstep_bench")
        migrate(url)
        port = free_port()
        server = serve(
            url, "a secret of the tests, and of no site", port, RILLSTEP_RATE_LIMITS="off", RILLSTEP_LOG_LEVEL="WARNING"
        )
        yield f"http://127.0.0.1:{port}"
    finally:
        if server is not None:
            os.killpg(server.pid, signal.SIGTERM)
            server.wait(timeout=30)
        own.stop()
        shutil.rmtree(folder, ignore_errors=True)


def browser_ms() -> tuple[list[float], list[float]]:
    """Milliseconds from a keystroke to the new total on the screen, and from a target to what it comes to."""
    with _served() as address, sync_playwright() as driver:
        browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        sign_up(page, address)
        import_design(page, dump(long_design()))
        step(page, "Words")
        page.get_by_text("Edit the text", exact=True).click()
        page.locator(".cm-content").wait_for()
        page.locator(".proof-table tbody tr").nth(299).wait_for()
        typed = _times(page, _TYPE, [[LINE, ROW, 400 + n] for n in range(EDITS + 4)])
        page.goto(address)
        import_design(page, dump(pouch()))
        step(page, "Sizes")
        page.get_by_label("Width, lying flat of Barlow").fill("19")
        page.get_by_test_id("comes-to-Barlow-width").wait_for()
        wanted = [["Width, lying flat of Barlow", str(16.1 + 0.27 * n)] for n in range(EDITS + 4)]
        graded = _times(page, _TARGET, wanted)
        browser.close()
        return typed, graded


def _times(page: Page, script: str, each: list[list[object]]) -> list[float]:
    """What a script takes; the first ones warm both processes of the server."""
    times = []
    for arguments in each:
        times.append(float(page.evaluate(script, arguments)))
        page.wait_for_timeout(1000)  # until it is saved
    return times[4:]


def _line(what: str, times: list[float]) -> str:
    ninth = statistics.quantiles(times, n=10)[-1]
    return f"{what:<58} median {statistics.median(times):6.1f} ms   9 of 10 under {ninth:6.1f} ms"


def report() -> None:
    """Print both, and what the way to the browser adds."""
    typed_inside, graded_inside = typed_ms(), graded_ms()
    typed, graded = browser_ms()
    print("A keystroke in a text of 300 rows in eight sizes")
    print(_line("  make the change, work, prove, measure, write", typed_inside))
    print(_line("  from the keystroke to the total on the screen (aim: 150)", typed))
    print(f"  screen against computation alone: {statistics.median(typed) / statistics.median(typed_inside):.2f} times")
    print("A target changed in the sizes table of the pouch, three sizes")
    print(_line("  find, write, prove", graded_inside))
    print(_line("  from typing to what it comes to on the screen (aim: 400)", graded))
    print(
        f"  screen against computation alone: {statistics.median(graded) / statistics.median(graded_inside):.2f} times"
    )
