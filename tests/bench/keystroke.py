"""A keystroke in a long text: read, work and prove again; and how that grows with stitches and with rows."""

import statistics
import time

from rillstep.core.fabric import work_pattern
from rillstep.core.memory import forget
from rillstep.core.notation import parse
from rillstep.core.proof import prove_text
from rillstep.core.tree import Row
from tests.core.referee import unrolled, walk

SIZES = 8


def long_text(rows: int, stitches: int, body: int = 0) -> str:
    """A text of so many rows in eight sizes, of about so many stitches; `body` makes it differ from the others."""
    sts = [stitches + 12 * k - stitches % 12 for k in range(SIZES)]
    numbers = f"{sts[0]} ({', '.join(str(n) for n in sts[1:])})"
    halves = f"{sts[0] // 2} ({', '.join(str(n // 2) for n in sts[1:])})"
    head = f"Sizes: {', '.join(f'Size {k}' for k in range(SIZES))}\nSection: Wall (joined rounds, wall)\nCh {numbers}, join into a ring.\n"
    lines = [f"Rnd 1: Ch 1, sc in each ch around; join. — {numbers} sts"]
    kinds = (
        "Ch 1, sc in each st around; join. — {n} sts",
        "Ch 1, [FPdc around next st, BPdc around next st] around; join. — {n} sts",
        "Ch 1, [sc in next st, ch 1, sk next st] around; join. — {h} sts, {h} ch-1 sps",
        "Ch 1, sc in each st and sp around; join. — {n} sts",
        "Ch 1, [sc in next 2 sts, 2 sc in next st, sc2tog, sc in next st] around; join. — {n} sts",
        "Ch 1, sc in next 12 sts, [hdc in next 2 sts, dc in next st] to last 3 sts, sc in next 3 sts; join. — {n} sts",
    )
    for number in range(2, rows + 1):
        lines.append(f"Rnd {number}: {kinds[number % len(kinds)].format(n=numbers, h=halves)}")
    if body:
        lines[rows // 2] = (
            f"Rnd {rows // 2 + 1}: Ch 1, sc in next {body} sts, sc in each st around; join. — {numbers} sts"
        )
    return head + "\n".join(lines)


def median_ms(action: "list[str]") -> float:
    """Median milliseconds to prove texts that differ in one line, as while typing in it."""
    times = []
    for text in action:
        began = time.perf_counter()
        prove_text(text)
        times.append(1000 * (time.perf_counter() - began))
    return statistics.median(times[1:])


def keystrokes(rows: int, stitches: int, count: int = 9) -> list[str]:
    return [long_text(rows, stitches, body) for body in range(1, count + 1)]


def fast_and_slow_ms(stitches: int) -> tuple[float, float]:
    """Milliseconds to work a text in one size: by runs, and stitch by stitch."""
    pattern = parse(long_text(60, stitches)).pattern
    forget()  # or the rows that were worked above would only be looked up
    began = time.perf_counter()
    work = work_pattern(pattern, 0)
    fast = 1000 * (time.perf_counter() - began)
    # The walker's time is taken for a dozen rows, two of each kind, and scaled to all of them.
    walked = work.lines[2:14]
    began = time.perf_counter()
    for line in walked:
        assert isinstance(line.line, Row)
        assert walk(line.line, 0, line.start, line.around) == unrolled(line.end)
    return fast, 1000 * (time.perf_counter() - began) * (len(work.lines) - 2) / len(walked)


def report() -> None:
    """Print the figures of one run."""
    print("A keystroke: read, work and prove a text in eight sizes")
    base = median_ms(keystrokes(300, 300))
    print(f"  300 rows, 300 stitches (aim: 30)                         {base:8.1f} ms")
    for factor in (10, 100):
        ms = median_ms(keystrokes(300, 300 * factor, 4))
        print(
            f"  stitches times {factor:<4}                                      {ms:8.1f} ms   {ms / base:5.2f} times"
        )
    few = median_ms(keystrokes(30, 300))
    print(
        f"  a tenth of the rows                                      {few:8.1f} ms   {base / few:5.2f} times as much for ten times the rows"
    )
    for stitches, aim in ((300, 20), (3_000, 200)):
        fast, slow = fast_and_slow_ms(stitches)
        print(
            f"  against the slow walker, {stitches:>5} stitches (aim: {aim} times)   {fast:8.1f} ms against {slow:8.0f} ms: {slow / fast:6.1f} times"
        )
