"""The catalogue of findings is complete, and each of its examples shows what it says."""

import re
from pathlib import Path

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.proof import prove_text
from rillstep.core.proof.catalogue import CATALOGUE, WITHOUT_EXAMPLE, Entry, as_markdown, entry_of

ROOT = Path(__file__).parents[2]
CORE = ROOT / "rillstep" / "core"


@pytest.mark.parametrize("entry", CATALOGUE, ids=[entry.code for entry in CATALOGUE])
def test_each_example_shows_its_finding(entry: Entry) -> None:
    findings = prove_text(entry.example).findings
    found = [f for f in findings if f.code == entry.code]
    assert found, [f.code for f in findings]
    assert (found[0].severity, found[0].span.line) == (entry.severity, entry.line)
    assert found[0].message.endswith((".", "?", "”."))
    assert found[0].message[:1].isupper() or found[0].message[:1] in "“0123456789"
    row = entry.example.split("\n")[entry.line - 1]
    assert 1 <= found[0].span.column <= found[0].span.end_column <= max(len(row) + 2, 4_001)


@pytest.mark.parametrize("entry", CATALOGUE, ids=[entry.code for entry in CATALOGUE])
def test_each_repair_of_an_example_takes_its_finding_away(entry: Entry) -> None:
    finding = next(f for f in prove_text(entry.example).findings if f.code == entry.code)
    for repair in finding.repairs:
        mended = prove_text(apply_edits(entry.example, repair.edits))
        again = [f for f in mended.findings if f.span.line == finding.span.line and f.severity == "error"]
        assert [f for f in again if f.code == entry.code] == [], repair.message


def test_every_code_of_the_core_is_in_the_catalogue() -> None:
    known = {entry.code for entry in CATALOGUE} | set(WITHOUT_EXAMPLE)
    made: set[str] = set()
    for path in CORE.rglob("*.py"):
        if path.name == "catalogue.py":
            continue
        text = path.read_text()
        made |= set(re.findall(r'(?:Finding|Trouble)\(\s*"([a-z]+(?:-[a-z]+)+)"', text))
        made |= set(re.findall(r'code\s*(?:=|: str =)\s*"([a-z]+(?:-[a-z]+)+)"', text))
        made |= set(re.findall(r'NotUnderstood\([^)]*, "([a-z]+(?:-[a-z]+)+)"\)', text))
    assert len(made) > 40
    assert made - known - {"chain-counts", "which-wall", "how-folded", "how-joined"} == set()


def test_codes_are_told_apart_and_explained() -> None:
    codes = [entry.code for entry in CATALOGUE]
    assert len(codes) == len(set(codes))
    for entry in CATALOGUE:
        assert entry.title and not entry.title.endswith(".")
        assert entry.meaning.endswith(".")
        assert entry.way_out.endswith((".", "”."))
    assert entry_of("total-differs") is CATALOGUE[0]
    assert entry_of("never-heard-of") is None


def test_the_page_of_the_documentation_is_written_from_it() -> None:
    page = (ROOT / "docs" / "findings.md").read_text()
    assert page == as_markdown()
    for entry in CATALOGUE:
        assert f"### {entry.title}\n\n`{entry.code}`, {entry.severity}." in page
