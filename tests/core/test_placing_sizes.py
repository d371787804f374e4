"""The order of sizes: added ones stand where ascending targets put them, and steps are compared from small to large."""

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.size_order import ascending, placed

Targets = dict[str, float]


TEXT = {"Small": {"width": 120.0, "height": 90.0}, "Large": {"width": 180.0, "height": 140.0}}


@pytest.mark.parametrize(
    ("added", "order"),
    [
        ({"width": 100}, "New Small Large"),
        ({"height": 120}, "Small New Large"),
        ({"width": 240}, "Small Large New"),
        ({"width": 170, "height": 160}, "Small Large New"),  # narrower by little, higher by more
        ({"width": 120, "height": 90}, "Small New Large"),  # as large as one: behind it
        ({}, "Small Large New"),
        ({"strap": 300}, "Small Large New"),  # nothing to compare
    ],
)
def test_an_added_size_stands_before_the_first_larger_one(added: Targets, order: str) -> None:
    sizes: list[tuple[str, Targets]] = [("Small", {}), ("Large", {}), ("New", added)]
    for some in permutations(sizes):
        if [name for name, _ in some if name in TEXT] == ["Small", "Large"]:
            assert " ".join(placed(dict(some), TEXT)) == order


def test_sizes_that_descend_go_on_doing_so() -> None:
    sizes: dict[str, Targets] = {"Large": {}, "Small": {}, "Huge": {"width": 240}, "Tiny": {"width": 80}}
    assert placed(sizes, TEXT) == ["Huge", "Large", "Small", "Tiny"]


@given(st.lists(st.integers(10, 400), min_size=1, max_size=9, unique=True), st.integers(10, 400))
def test_added_sizes_ascend_whatever_the_order_in_which_they_are_added(widths: list[int], sample: int) -> None:
    sizes: dict[str, Targets] = {"Sample": {}, **{str(width): {"width": width} for width in widths if width != sample}}
    order = [sample if name == "Sample" else int(name) for name in placed(sizes, {"Sample": {"width": sample}})]
    assert order == sorted(order) and len(order) == len(sizes)


def test_sizes_are_put_from_small_to_large_by_all_their_measures() -> None:
    made = [{"width": 120.0, "height": 90.0}, {"width": 100.0, "height": 80.0}, {"width": 180.0}]
    assert ascending(made) == (1, 0, 2)
    assert ascending([]) == () and ascending([{}, {}]) == (0, 1)
