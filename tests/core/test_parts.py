"""A crochet-along: cut between rounds, balanced, nothing lost, proved again."""

from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.notation import parse
from rillstep.core.parts import divide
from rillstep.core.proof import prove, prove_text, reprint
from rillstep.core.tree import Check, Row
from tests.examples import MESH_TOTE, totes


@pytest.mark.parametrize("text", totes(), ids=range(len(totes())))
@pytest.mark.parametrize("count", [2, 4, 6])
def test_parts_hold_every_round_once_and_are_balanced(text: str, count: int) -> None:
    whole = parse(text).pattern
    divided = divide(whole, count)
    assert divided.proof.ok
    assert len(divided.parts) == count
    before = prove(whole)
    for size in range(len(whole.sizes)):
        all_rounds = [c.sts for w in before.works[size].lines for c in w.rounds]
        cut_rounds = [c.sts for w in divided.proof.works[size].lines for c in w.rounds]
        assert cut_rounds == all_rounds
        total = sum(part.stitches[size] for part in divided.parts)
        longest = max(c.sts + c.chains for w in before.works[size].lines for c in w.rounds)
        for part in divided.parts:
            assert abs(part.stitches[size] - total / count) <= 2.5 * longest
    numbers = [line for part in divided.parts for line in part.lines]
    assert numbers == sorted(numbers)
    assert len(numbers) == len(divided.pattern.lines())


def test_each_part_ends_with_a_round_and_its_checkpoint() -> None:
    divided = divide(parse(totes()[0]).pattern, 4)
    for part in divided.parts:
        section, line = part.lines[-1]
        last = divided.pattern.sections[section].lines[line]
        assert isinstance(last, Row | Check)
        for size, point in enumerate(part.checkpoints):
            rows = [w for w in divided.proof.works[size].lines if w.line.span.line <= part.last_line and w.rounds]
            assert point.sts == rows[-1].rounds[-1].sts
            assert point.half == (point.sts or 0) / 2
            assert point.width_mm


@given(st.integers(1, 6))
@settings(max_examples=6, deadline=None)
def test_a_short_pattern_gives_as_many_parts_as_it_can(count: int) -> None:
    divided = divide(parse(MESH_TOTE).pattern, count)
    assert 1 <= len(divided.parts) <= count
    assert divided.proof.ok
    assert all(sum(part.stitches) > 0 for part in divided.parts)


def test_rounds_that_grow_are_not_cut_within() -> None:
    text = (
        "Rnd 1: 6 sc in ring. (6 sts)\nRnd 2: 2 sc in each st around. (12 sts)\n"
        "Rnds 3-30: Sc in each st around, increasing 6 sts evenly. (180 sts)\nRnd 31: Sc in each st around. (180 sts)\n"
    )
    for count in (2, 3, 4):
        divided = divide(prove_text(text).pattern, count)
        assert reprint(divided.pattern, "US", None, fold=False).ok


@pytest.mark.parametrize(
    "path", sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))[::9], ids=lambda p: p.stem
)
def test_the_last_checkpoint_is_the_bag_in_every_size(path: Path) -> None:
    proof = prove_text(path.read_text())
    last = divide(proof.pattern, 3).parts[-1]
    for size, point in enumerate(last.checkpoints):
        made = {one.name: one.mm[size] for one in proof.bag.measures if one.piece is None} if proof.bag else {}
        for got, name in ((point.width_mm, "width"), (point.height_mm, "height")):
            if made.get(name) is not None:
                assert got == pytest.approx(made[name], abs=0.05), name
