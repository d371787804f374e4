"""The public reference of the notation: each of its patterns is true, and prints back to itself."""

import re
from pathlib import Path

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text

PAGE = (Path(__file__).parents[2] / "docs" / "notation.md").read_text()
PATTERNS = re.findall(r"```pattern\n(.*?)```", PAGE, re.DOTALL)


def test_the_page_has_patterns() -> None:
    assert len(PATTERNS) >= 5


@pytest.mark.parametrize("text", PATTERNS, ids=lambda t: t.split("\n")[0][:30])
def test_a_pattern_of_the_page_is_true(text: str) -> None:
    proof = prove_text(text)
    assert [f for f in proof.findings if f.severity == "error"] == []
    manner = {f.span.line for f in proof.findings if f.code == "manner-not-worked"}
    assert all(line.proved != (line.line in manner) for line in proof.lines)
    assert parse(write(proof.pattern)).pattern == proof.pattern
