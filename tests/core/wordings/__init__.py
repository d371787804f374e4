"""Ways of writing, as tables: each is worked, printed and read back, and a slip in it is found (`test_wordings`).

A new wording goes into one table: one row on a known edge into `rows`; a short text into the table of its subject; a way
in which a whole house writes into `test_house_styles`.
"""

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import Proof, prove_text


def counts(proof: Proof, size: int) -> tuple[int | None, ...]:
    """The stitches after each line, in one size."""
    return tuple(line.sts[size] for line in proof.lines)


def prints_back(text: str) -> None:
    """A text is printed as what it was, with the same stitches, in both terms."""
    proof = prove_text(text)
    for terms in ("US", "UK"):
        printed = write(proof.pattern, terms)  # type: ignore[arg-type]
        assert parse(printed).pattern == proof.pattern, printed
        assert counts(prove_text(printed), 0) == counts(proof, 0)
