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


def test_a_repair_of_which_one_keeps_its_ending() -> None:
    """ "3rd" is made "2nd", and "third" as well."""
    head = "Pattern: A\nTerms: US\n\nBody\nCh 13.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (12 sc)\n"
    for told in ("4th", "fourth"):
        text = head.replace("2nd", told)
        texts = [apply_edits(text, repair.edits) for repair in errors(prove_text(text))[0].repairs]
        assert head in texts
