"""Whole patterns of many kinds and wordings: every line true in every size, however it is printed.

Their totals were counted by hand when they were written (a few slips of the hand were mended when the engine
disagreed and was right); the slow walker counts once more each row that it can walk.
"""

from pathlib import Path

import pytest

from rillstep.core.fabric import work_row
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text, reprint
from rillstep.core.tree import Chain, Gesture, Row, Same
from tests.core.referee import unrolled, walk

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))


def by_name(path: Path) -> str:
    return path.stem


@pytest.mark.parametrize("path", CORPUS, ids=by_name)
def test_every_line_is_true_in_every_size(path: Path) -> None:
    proof = prove_text(path.read_text())
    assert [f for f in proof.findings if f.severity == "error"] == []
    assert proof.lines
    assert all(line.mark in ("proved", "unchecked") for line in proof.lines)


@pytest.mark.parametrize("path", CORPUS, ids=by_name)
def test_it_is_printed_and_proved_in_all_ways(path: Path) -> None:
    pattern = prove_text(path.read_text()).pattern
    for terms in ("US", "UK"):
        assert parse(write(pattern, terms)).pattern == pattern  # type: ignore[arg-type]
        for size in (None, *range(len(pattern.sizes))):
            printed = reprint(pattern, terms, size)  # type: ignore[arg-type]
            assert printed.ok, [f for f in (*printed.problems, *printed.proof.findings) if f.severity == "error"]


def test_the_slow_walker_counts_the_same() -> None:
    """Every row that it can walk: foundations, rings, sides, markers and loops left free are beyond it."""
    walked = 0
    for path in CORPUS:
        proof = prove_text(path.read_text())
        for work in proof.works:
            for line in work.lines:
                if not isinstance(line.line, Row) or line.around.pending or not _walkable(line.line, line.start):
                    continue
                slow = walk(line.line, work.size, line.start, line.around)
                fast = work_row(line.line, work.size, line.start, line.around)
                assert slow == unrolled(fast.edge), (path.stem, line.line.span.line)
                walked += 1
    assert walked > 4_500  # of some 6,800


def _walkable(row: Row, start: object) -> bool:
    words = str(row.steps)
    beyond = (
        "InRing",
        "FromHook",
        "Marked",
        "Loops(",
        "Evenly",
        "rotate",
        "corner=True",
        "'marker'",
        "kind='end'",
        "join colour",
        "picot",
        "TopOfChain",
        "Foundation",
        "Spread",
        "between=1",
        "AsFirst",
        "change colour",
        "cable",
    )
    if row.kind == "Row" and getattr(start, "closed", False):
        return False  # a part of a round
    if any(run.place.kind == "ring" for run in getattr(start, "runs", ())):
        return False  # "8 hdc" into a ring made in the line before
    turned = [step for step in row.steps if not isinstance(step, Gesture)][-1:]
    if row.kind == "Row" and turned and isinstance(turned[0], Chain):
        return False  # the turning chain of the next row
    moves = any(getattr(step, "stitch", "") == "sl st" for step in row.steps[:3])
    fresh = getattr(start, "foundation", False) or not getattr(start, "runs", ())
    first, second = (*row.steps, None, None)[:2]
    begins = isinstance(first, Chain) and first.space is not None and isinstance(getattr(second, "into", None), Same)
    tube = isinstance(first, Chain) and "kind='ch'" in words  # a chain worked into where its round ends
    return not begins and not tube and not moves and not fresh and not any(word in words for word in beyond)
