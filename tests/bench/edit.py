"""An edit in the sizes table, with eight sizes: until the new count is shown in the browser, and the share of the server."""

import os
import shutil
import signal
import statistics
import tempfile
import time
from pathlib import Path

from playwright.sync_api import sync_playwright

from rillstep.demo.data import nightfield
from rillstep.demo.mariadb import OwnMariaDb, free_port
from rillstep.demo.run import serve
from rillstep.document import Design, Size, dump
from rillstep.services import workbench
from rillstep.store.database import migrate
from tests.browser.conftest import ARGS, import_design, sign_up, step

EDITS = 20

# Sets a field as typing does, and waits for the drawn count to change.
_EDIT = """([label, value, shown]) => new Promise((done) => {
  const field = document.querySelector(`[aria-label="${label}"]`) ??
    [...document.querySelectorAll("label")].find((l) => l.innerText.trim() === label).control;
  const target = document.querySelector(`[data-testid="${shown}"]`);
  const before = target.innerText;
  const began = performance.now();
  const watch = new MutationObserver(() => {
    if (target.innerText === before) return;
    watch.disconnect();
    requestAnimationFrame(() => done(performance.now() - began));
  });
  watch.observe(target, { subtree: true, childList: true, characterData: true });
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
  set.call(field, value);
  field.dispatchEvent(new Event("input", { bubbles: true }));
})"""


def eight_sizes() -> Design:
    """The demo tote in eight sizes."""
    sizes = [
        Size(name=f"Size {n + 1}", width_mm=220 + 30 * n, height_mm=240 + 25 * n, depth_mm=80 + 6 * n, drop_mm=120)
        for n in range(8)
    ]
    return nightfield().model_copy(update={"sizes": sizes})


def server_ms() -> list[float]:
    """Milliseconds to work eight sizes through, each time with another width."""
    design, times = eight_sizes(), []
    for n in range(EDITS + 1):
        sizes = [design.sizes[0].model_copy(update={"width_mm": 230.0 + 15 * n}), *design.sizes[1:]]
        began = time.perf_counter()
        workbench.work(design.model_copy(update={"sizes": sizes}))
        times.append(1000 * (time.perf_counter() - began))
    return times[1:]


def browser_ms() -> list[float]:
    """Milliseconds from typing a width to the new count on the screen."""
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
        with sync_playwright() as driver:
            browser = driver.chromium.launch(executable_path="/usr/bin/chromium", args=ARGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            sign_up(page, f"http://127.0.0.1:{port}")
            import_design(page, dump(eight_sizes()))
            step(page, "Sizes")
            page.get_by_test_id("result-width-0").wait_for()
            times = []
            for n in range(EDITS + 1):
                width = str(23 + 1.5 * (n + 1))
                times.append(page.evaluate(_EDIT, ["Width of Size 1", width, "result-width-0"]))
            browser.close()
        return times[1:]
    finally:
        if server is not None:
            os.killpg(server.pid, signal.SIGTERM)
            server.wait(timeout=30)
        own.stop()
        shutil.rmtree(folder, ignore_errors=True)


def _line(what: str, times: list[float]) -> str:
    ninth = statistics.quantiles(times, n=10)[-1]
    return f"{what:<58} median {statistics.median(times):6.1f} ms   9 of 10 under {ninth:6.1f} ms"


def report() -> None:
    """Print both, and what the way to the browser adds."""
    inside, outside = server_ms(), browser_ms()
    print("An edit in the sizes table, eight sizes")
    print(_line("  solve, write, read back, work, prove, measure, yarn", inside))
    print(_line("  from typing to the new count on the screen (aim: 150)", outside))
    print(f"  screen against computation alone: {statistics.median(outside) / statistics.median(inside):.2f} times")
