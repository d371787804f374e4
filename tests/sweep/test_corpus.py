"""Whole patterns of many kinds and wordings: every line true in every size, however it is printed.

Their totals were counted by hand when they were written (a few slips of the hand were mended when the engine
disagreed and was right); the slow walker counts once more each row that it can walk.
"""

from collections import Counter
from pathlib import Path

import pytest

from tests.sweep.outcomes import texts
from tests.sweep.pinned import BODIES, OUTCOMES, PINNED, its_outcomes_are_those_that_were_seen
from tests.sweep.properties import QUICK, of_share
from tests.sweep.texts import CORPUS, CorpusText, walkable


@pytest.mark.parametrize(("index", "path"), list(enumerate(CORPUS)), ids=[path.stem for path in CORPUS])
def test_what_holds_of_every_text(index: int, path: Path) -> None:
    one = CorpusText(path)
    for holds in (*QUICK, *of_share(index)):
        holds(one)


@pytest.mark.parametrize("path", [path for path in texts().values() if path not in CORPUS], ids=lambda path: path.stem)
def test_what_comes_of_other_texts_is_what_was_seen(path: Path) -> None:
    its_outcomes_are_those_that_were_seen(CorpusText(path))


def test_the_slow_walker_walks_most_rows() -> None:
    """Some 4,600 of 6,800 rows of the whole corpus; here those of every eighth text."""
    assert sum(len(walkable(CorpusText(path).proof)) for path in CORPUS[::8]) > 450


def test_every_text_of_the_corpus_is_in_the_tables() -> None:
    assert set(BODIES) == set(PINNED) == {path.stem for path in CORPUS}
    assert set(OUTCOMES) == set(texts())


def test_most_lines_are_proved_and_not_merely_worked() -> None:
    counted: Counter[str] = Counter()
    for runs in PINNED.values():
        counted.update({mark: int(many) for many, mark in (run.split(" ", 1) for run in reversed(runs.split(", ")))})
    assert set(counted) == {"proved", "unchecked"} and counted["unchecked"] < 0.05 * counted["proved"]
