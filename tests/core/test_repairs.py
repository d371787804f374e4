"""Repairs are tried before they are offered: each one makes its line true, in its size and in no other."""

import random

from rillstep.core.findings import apply_edits
from rillstep.core.proof import prove_text
from tests.sweep.texts import CORPUS, errors, slips


def test_the_text_is_offered_back_as_it_was() -> None:
    tried = offered = 0
    for path in CORPUS[::8]:
        text = path.read_text()
        for wrong, _, _ in slips(text, random.Random(path.stem), 3):
            found = errors(prove_text(wrong))
            if not found:
                continue
            tried += 1
            texts = [apply_edits(wrong, repair.edits) for repair in found[0].repairs[:3]]
            offered += any(prove_text(one).pattern == prove_text(text).pattern for one in texts)
    assert tried > 60
    assert offered / tried > 0.85
