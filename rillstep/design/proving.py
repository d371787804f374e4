"""Proofs of texts, kept for the next that asks for the same."""

from rillstep.core.craft import Terms
from rillstep.core.memory import Shelf
from rillstep.core.proof import Proof, prove_text
from rillstep.document import ALLOWANCE_MM, Design


def rows_of(proof: Proof) -> int:
    """How many rows a proof holds, each counted in every size; some 4 kB each."""
    return 1 + sum(len(work.lines) for work in proof.works)


# Proofs are immutable, and several screens ask for the same text; kept are some 80 MB of them.
_PROVED: Shelf[tuple[str, Terms | None, float], Proof] = Shelf(20_000, rows_of)


def proved(text: str, terms: Terms | None = None, allowance_mm: float = 0.0) -> Proof:
    """The proof of a text, as it was found before."""
    key = (text, terms, allowance_mm)
    known = _PROVED.get(key)
    if known is None:
        known = prove_text(text, allowance_mm, terms)
        _PROVED.put(key, known)
    return known


def allowance_of(design: Design) -> float:
    """What a shoulder takes of the length of a handle, in mm; a text says nothing of it."""
    return ALLOWANCE_MM[design.carried]
