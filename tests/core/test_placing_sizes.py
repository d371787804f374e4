"""The order of sizes: added ones stand where ascending targets put them, and steps are compared from small to large."""

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.grading import SizeWanted, ascending, placed


def wanted(name: str, **targets: float) -> SizeWanted:
    return SizeWanted(name, targets, {})


TEXT = {"Small": {"width": 120.0, "height": 90.0}, "Large": {"width": 180.0, "height": 140.0}}


@pytest.mark.parametrize(
    ("added", "order"),
    [
        (wanted("New", width=100), "New Small Large"),
        (wanted("New", height=120), "Small New Large"),
        (wanted("New", width=240), "Small Large New"),
        (wanted("New", width=170, height=160), "Small Large New"),  # narrower by little, higher by more
        (wanted("New", width=120, height=90), "Small New Large"),  # as large as one: behind it
        (wanted("New"), "Small Large New"),
        (wanted("New", strap=300), "Small Large New"),  # nothing to compare
    ],
)
def test_an_added_size_stands_before_the_first_larger_one(added: SizeWanted, order: str) -> None:
    for sizes in permutations([wanted("Small"), wanted("Large"), added]):
        if [size.name for size in sizes if size.name in TEXT] == ["Small", "Large"]:
            assert " ".join(size.name for size in placed(sizes, TEXT)) == order


def test_sizes_that_descend_go_on_doing_so() -> None:
    sizes = [wanted("Large"), wanted("Small"), wanted("Huge", width=240), wanted("Tiny", width=80)]
    assert [size.name for size in placed(sizes, TEXT)] == ["Huge", "Large", "Small", "Tiny"]


@given(st.lists(st.integers(10, 400), min_size=1, max_size=9, unique=True), st.integers(10, 400))
def test_added_sizes_ascend_whatever_the_order_in_which_they_are_added(widths: list[int], sample: int) -> None:
    sizes = [wanted("Sample"), *(wanted(str(width), width=width) for width in widths if width != sample)]
    order = [
        sample if size.name == "Sample" else int(size.name) for size in placed(sizes, {"Sample": {"width": sample}})
    ]
    assert order == sorted(order) and len(order) == len(sizes)


def test_sizes_are_put_from_small_to_large_by_all_their_measures() -> None:
    made = [{"width": 120.0, "height": 90.0}, {"width": 100.0, "height": 80.0}, {"width": 180.0}]
    assert ascending(made) == (1, 0, 2)
    assert ascending([]) == () and ascending([{}, {}]) == (0, 1)
