"""Clauses put into true rows, a share of what `make mutate` does: none that changes the work leaves its line proved."""

from collections import Counter
from pathlib import Path

import pytest

from tests.core.clauses import CHANGING, HARMLESS, run

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
SHARES = 8
A_TEXT = 3


@pytest.mark.parametrize("share", range(SHARES))
def test_no_clause_that_changes_the_work_leaves_its_line_proved(share: int) -> None:
    counted: Counter[tuple[bool, str]] = Counter()
    left: list[str] = []
    for path in CORPUS[share :: 4 * SHARES]:
        more, wrong = run(path.read_text(), path.stem, A_TEXT)
        counted += more
        left += [one for one in wrong if " proved: " in one]
    assert left == []
    harmless = sum(count for (changes, _), count in counted.items() if not changes)
    assert harmless >= 5
    assert counted[False, "proved"] >= 0.9 * harmless
    assert counted[False, "refuted"] <= 0.01 * harmless + 1


def test_the_tables_are_large_and_of_different_clauses() -> None:
    assert len(set(CHANGING)) >= 60 and len(set(HARMLESS)) >= 40
    assert not set(CHANGING) & set(HARMLESS)
