"""Whole patterns of many kinds and wordings: every line true in every size, however it is printed.

Their totals were counted by hand when they were written (a few slips of the hand were mended when the engine
disagreed and was right); the slow walker counts once more each row that it can walk.
"""

from pathlib import Path

import pytest

from tests.sweep.properties import QUICK, of_share
from tests.sweep.texts import CORPUS, CorpusText, walkable


@pytest.mark.parametrize(("index", "path"), list(enumerate(CORPUS)), ids=[path.stem for path in CORPUS])
def test_what_holds_of_every_text(index: int, path: Path) -> None:
    one = CorpusText(path)
    for holds in (*QUICK, *of_share(index)):
        holds(one)


def test_the_slow_walker_walks_most_rows() -> None:
    """Some 4,600 of 6,800 rows of the whole corpus; here those of every eighth text."""
    assert sum(len(walkable(CorpusText(path).proof)) for path in CORPUS[::8]) > 450
