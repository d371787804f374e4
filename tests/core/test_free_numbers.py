"""What nothing holds: a number that may change and stays proved is of a known kind."""

from pathlib import Path

import pytest

from rillstep.document.ready import READY_BAGS, ReadyBag
from tests.core.free_numbers import KINDS, WHAT, mutated

TYPED = sorted((Path(__file__).parents[1] / "typed").glob("*.txt"))
RING = "Make a magic ring.\nRnd 1: 6 sc in ring. (6 sts)\nRnd 2: 2 sc in each st around. (12 sts)\n"


@pytest.mark.parametrize("path", TYPED[::4], ids=lambda path: path.stem)
def test_a_typed_text_has_no_free_number_of_no_kind(path: Path) -> None:
    found = mutated(path.read_text())
    assert found.tried > 30
    assert [one for one in found.free if one.kind is None] == []
    assert len(found.free) <= found.tried * 0.1


@pytest.mark.parametrize("bag", READY_BAGS[:1], ids=lambda bag: bag.key)
def test_a_ready_bag_has_no_free_number_of_no_kind(bag: ReadyBag) -> None:
    found = mutated(bag.text)
    assert found.tried and [one for one in found.free if one.kind is None] == []


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        (f"{RING}Rnds 3-9: Sc in each st around. (12 sts)\n", "rounds"),
        ("Ch 21.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn.\n", "foundation"),
        (f"{RING}Rnd 3: Sc in next 6 sts, ch 4, sc in next 6 sts.\n", "chain"),
        (f"{RING}Rnd 3: Sc in next 6 sts, 2 sc in next st, sc in each st around. (13 sts)\n", "placement"),
        ("Ring\nMake a magic ring.\nRnd 1: 6 sc in ring.\n", "unstated"),
    ],
)
def test_a_free_number_is_of_its_kind(text: str, kind: str) -> None:
    found = mutated(text)
    assert kind in {one.kind for one in found.free}, found


def test_what_a_total_states_is_not_free() -> None:
    assert mutated(f"{RING}Rnd 3: [Sc in next st, inc] 6 times. (18 sts)\n").free == ()


def test_each_kind_is_told() -> None:
    assert set(KINDS) == set(WHAT) and len(KINDS) <= 8
