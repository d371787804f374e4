"""Every wording of the tables: worked, printed and read back; a slip in it, or another total, is found."""

from collections.abc import Sequence

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from tests.core.wordings import besides, counts, otherwise, plainly, prints_back, unworked
from tests.core.wordings.rows import PUBLISHED, ROWS_OF_WORDS


def _made(sts: Sequence[int | None]) -> list[int]:
    return [count for count in sts if count is not None]


TABLES = (otherwise, besides, unworked, plainly)
TEXTS = [(what, *said) for table in TABLES for what, said in table.SAID.items()]
SLIPS = [(table.SAID[what][0], *slip) for table in TABLES for what, *slip in table.SLIPS]


@pytest.mark.parametrize(("what", "text", "first", "last"), TEXTS, ids=[text[0] for text in TEXTS])
def test_a_text_is_worked_printed_and_read_back(
    what: str, text: str, first: tuple[int | None, ...], last: tuple[int | None, ...] | None
) -> None:
    proof = prove_text(text)
    wrong = [f for f in proof.findings if f.severity == "error" or f.code == "not-worked"]
    assert [f for f in wrong if f.code != "starting-chain-uneven"] == []
    for size, stated in ((0, first), (-1, last)):  # a line that a size does not have makes None
        assert stated is None or _made(counts(proof, size)) == _made(stated)
    prints_back(text)


@pytest.mark.parametrize(("text", "before", "after", "code"), SLIPS, ids=[f"{slip[1]} -> {slip[2]}" for slip in SLIPS])
def test_a_slip_in_it_is_found(text: str, before: str, after: str, code: str) -> None:
    assert before in text
    found = {f.code for f in prove_text(text.replace(before, after, 1)).findings}
    assert code in found, found


@pytest.mark.parametrize(("before", "row", "stitches"), ROWS_OF_WORDS, ids=[row[:60] for _, row, _ in ROWS_OF_WORDS])
def test_a_row_is_worked_printed_and_read_back(before: str, row: str, stitches: int) -> None:
    proof = prove_text(before + row)
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    last = proof.works[0].lines[-1].last
    assert last is not None and last.trouble is None
    assert last.counts.sts == stitches
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert parse(write(proof.pattern, "UK")).pattern == proof.pattern


@pytest.mark.parametrize(("before", "n", "row", "stitches"), PUBLISHED, ids=[row[:70] for _, _, row, _ in PUBLISHED])
def test_a_published_row_and_no_total_one_off(before: str, n: int, row: str, stitches: int) -> None:
    """Whatever freedom there is in reading a row, it does not go so far that any total can be made true."""
    proof = prove_text(before.format(n=n, more=n + 1, row=row))
    unread = [f for f in proof.findings if f.severity == "error" or f.code in ("not-understood", "not-worked")]
    assert [f.message for f in unread] == []
    assert proof.lines[-1].sts == (stitches,)
    bare = row.rstrip(". ")
    if bare.endswith(")") or "ch 1, sk 1" in row:
        return  # says its total already; or has single chains, which some count as stitches
    for stated in (stitches - 1, stitches + 1):
        wrong = prove_text(before.format(n=n, more=n + 1, row=f"{bare}. — {stated} sts"))
        assert any(f.severity == "error" and f.span.line == 4 for f in wrong.findings), stated
