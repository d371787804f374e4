"""Every stated total of a share of the corpus, one more in one size: refuted, or its line was said before not to be checked."""

from pathlib import Path

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.proof import Proof, prove_text
from rillstep.core.tree import Total
from rillstep.core.words.numbers import edit_value

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
SHARE = 12


def silent(text: str, before: Proof) -> list[str]:
    """The stated totals that can be raised without a word."""
    marks = {line.line: line.mark for line in before.lines}
    said = {finding.span.line for finding in before.findings if finding.severity != "caution"}
    found: list[str] = []
    for _, line in before.pattern.lines():
        totals: tuple[Total, ...] = getattr(line, "totals", ())
        for total in (total for total in totals if total.count.parts):
            size, value = next((at, v) for at, v in enumerate(total.count.values) if v is not None)
            after = prove_text(apply_edits(text, (edit_value(total.count, size, value + 1),)))
            refuted = any(finding.severity == "error" for finding in after.findings)
            unchecked = marks.get(line.span.line) == "unchecked" or line.span.line in said
            if not refuted and not unchecked:
                found.append(text.split("\n")[line.span.line - 1])
    return found


@pytest.mark.parametrize("share", range(2))
def test_no_wrong_total_is_silent(share: int) -> None:
    paths = CORPUS[share :: 2 * SHARE]
    assert len(paths) > 10
    found = [row for path in paths for row in silent(path.read_text(), prove_text(path.read_text()))]
    assert found == []
