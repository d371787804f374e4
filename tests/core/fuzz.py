"""`make fuzz`: generated texts worked by the fast engine and by the slow walker; both must agree, and print must read back."""

import random
import sys
import time
from concurrent.futures import ProcessPoolExecutor

from rillstep.core.fabric import Edge, Surroundings, work_pattern, work_row
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.tree import Row
from tests.core import generate
from tests.core.referee import unrolled, walk

MOST_PLACES = 4_000


def texts(seed: int, count: int) -> tuple[int, int]:
    """Work `count` generated texts; the answer is (rows compared, rows that came out). Fails with the text that differs."""
    draw = random.Random(seed)
    rows = true = 0
    for _ in range(count):
        text = generate.HEAD + generate.start(draw)
        edge = _end(text)
        for number in range(2, 2 + draw.randint(1, 4)):
            line = generate.row(draw, edge, number)
            row, around = _row(generate.HEAD + line)
            fast, slow = work_row(row, 0, edge, around), walk(row, 0, edge, around)
            assert (fast.trouble is None) == (slow is not None), (text, line, fast.trouble, slow and len(slow))
            rows += 1
            tree = parse(text + "\n" + line).pattern
            assert parse(write(tree)).pattern == tree, (text, line, write(tree))
            assert parse(write(tree, "UK")).pattern == tree, (text, line)
            if slow is None:
                break
            assert unrolled(fast.edge) == slow, (text, line)
            true += 1
            if not slow or len(slow) > MOST_PLACES:
                break
            text, edge = text + "\n" + line, fast.edge
    return rows, true


def _end(text: str) -> Edge:
    return work_pattern(parse(text).pattern, 0).section_ends[-1]


def _row(text: str) -> tuple[Row, Surroundings]:
    parsed = parse(text)
    assert not parsed.findings, (text, parsed.findings)
    line = parsed.pattern.sections[0].lines[0]
    assert isinstance(line, Row)
    return line, Surroundings(specials=parsed.pattern.specials)


def main(wanted: int) -> None:
    """A thousand texts at a time, on every core."""
    began = time.monotonic()
    seeds = range(0, wanted, 1_000)
    with ProcessPoolExecutor() as pool:
        done = list(pool.map(texts, seeds, [min(1_000, wanted - seed) for seed in seeds]))
    compared, came_out = sum(rows for rows, _ in done), sum(true for _, true in done)
    seconds = time.monotonic() - began
    print(f"{wanted:,} texts, {compared:,} rows compared, {came_out:,} came out; all agree ({seconds:.0f} s)")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 100_000)
