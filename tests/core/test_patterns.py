"""The thirty patterns are counted right: their referee is arithmetic, and knows nothing of the reader."""

from pathlib import Path

import pytest

from rillstep.core.proof import prove_as_read
from rillstep.core.proof.prove import UNREAD
from tests.patterns.counts import counted, patterns, steps_of


@pytest.mark.parametrize("folder", ["open", "sealed"])
def test_every_row_comes_out(folder: str) -> None:
    found = [counted(path.with_suffix(".count")) for path in patterns(folder)]
    assert len(found) == 15
    assert all(len(rows) >= 3 for rows in found)


@pytest.mark.parametrize("path", [*patterns("open"), *patterns("sealed")], ids=lambda path: path.stem)
def test_no_row_of_them_is_called_wrong(path: Path) -> None:
    """Each of them is right in every number: what is not understood may be asked about, and is never refuted."""
    proof = prove_as_read(path.read_text())
    assert [f.message for f in proof.findings if f.severity == "error" and f.code not in UNREAD] == []
    assert any(line.proved for line in proof.lines)


def test_a_row_that_does_not_come_out_is_told() -> None:
    assert steps_of("6*(1 1>2) 2>1") == (14, 19)
    for wrong in ("6*(1", "1 x"):
        with pytest.raises(ValueError):
            steps_of(wrong)


def test_a_wrong_count_is_refused(tmp_path: Path) -> None:
    path = tmp_path / "a.count"
    path.write_text("R1: start 0; 0>6 = 6\nR2: 6*(1>2) = 13\n")
    with pytest.raises(ValueError, match="R2 makes"):
        counted(path)
    path.write_text("R1: start 0; 0>6 = 6\nR2: 7*(1>2) = 14\n")
    with pytest.raises(ValueError, match="R2 takes"):
        counted(path)
