"""Sizes that are renamed, added, moved and taken away again, on any text of the corpus."""

import re

from rillstep.core.grading import NotResized, resized
from rillstep.core.grading.resizing import ONE_SIZE
from rillstep.core.settling import read
from tests.sweep.texts import CorpusText

NEW = "Quasar"


def _bare(text: str) -> str:
    """The text without a line that says no more than a text without it."""
    return re.sub(rf"^sizes?: {ONE_SIZE}\n", "", text, flags=re.IGNORECASE | re.MULTILINE)


def sizes_come_and_go(one: CorpusText) -> None:
    """Each change and its opposite give the same text, byte for byte, or are refused with a word; what is between has
    the sizes that were asked for, and each is worked as the one that it begins as."""
    names = list(one.proof.pattern.sizes)
    own, last = list(range(len(names))), len(names) - 1
    for there, back in (
        (([NEW, *names[1:]], own), (names, own)),
        (([*names, NEW], [*own, last]), (names, own)),
        (([NEW, *names], [0, *own]), (names, [at + 1 for at in own])),
        (([*names[1:], names[0]], [*own[1:], 0]), (names, [last, *own[:-1]])),
    ):
        try:
            between = resized(one.text, *there)
        except NotResized as refused:
            assert re.search(r"^Line \d+|Lines for some sizes|The sizes of this text", str(refused))
            continue
        assert list(read(between).pattern.sizes) == there[0]
        try:
            assert _bare(resized(between, *back)) == _bare(one.text)
        except NotResized:
            continue
