"""Sets for other sizes, in the style in which they stand."""

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.grading import NotResized, resized
from rillstep.core.grading.set_style import in_style


def places(raw: str) -> list[tuple[int, int]]:
    return [found.span() for found in re.finditer(r"\w+", raw)]


@pytest.mark.parametrize(
    ("raw", "sources", "made"),
    [
        ("10 (12, 14)", [0, 1, 2, 2], "10 (12, 14, 14)"),
        ("10 (12; 14)", [0, 1, 2, 2], "10 (12; 14; 14)"),
        ("10 (12)", [0, 1, 1], "10 (12, 12)"),
        ("10 (12, 14)", [1, 0], "12 (10)"),
        ("10 (12, 14)", [2], "14"),
        ("10/12/14", [0, 1, 2, 0], "10/12/14/10"),
        ("64 {76} {88}", [0, 1, 2, 1], "64 {76} {88} {76}"),
        ("64 {76} {88}", [0, 1], "64 {76}"),
        ("35, 43)", [0, 1, 1], "35, 43, 43)"),
        ("7", [0, 0], "7, 7"),
    ],
)
def test_brackets_and_separators_stay(raw: str, sources: list[int], made: str) -> None:
    assert in_style(raw, places(raw), sources) == made


@given(
    st.sampled_from((" (", "/", ", ", " {", " [")), st.sampled_from((", ", "/", "; ", " / ")),
    st.lists(st.integers(1, 99), min_size=3, max_size=6), st.integers(1, 4),
)  # fmt: skip
def test_what_is_added_and_taken_away_leaves_no_trace(first: str, inner: str, numbers: list[int], more: int) -> None:
    closing = {"(": ")", "{": "}", "[": "]"}.get(first.strip(), "")
    raw = f"{numbers[0]}{first}{inner.join(map(str, numbers[1:]))}{closing}"
    own = list(range(len(numbers)))
    wider = in_style(raw, places(raw), [*own, *[own[-1]] * more])
    assert len(places(wider)) == len(numbers) + more
    assert in_style(wider, places(wider), own) == raw


WORDS = """Lamp purse
Directions are for size S, with M in parentheses.
Rnd 1: 6 (8) sc in ring. (6, 8)
Rnd 2: 2 sc in each st around. (12, 16)
"""


def test_a_line_of_sizes_that_was_put_there_goes_again() -> None:
    three = resized(WORDS, ["S", "M", "L"], [0, 1, 1])
    assert "Sizes: S, M, L  # put here, as the words of this text name other sizes" in three
    assert "6 (8, 8) sc in ring. (6, 8, 8)" in three
    assert resized(three, ["S", "M"], [0, 1]) == WORDS


def test_words_beside_the_names_stay() -> None:
    text = "Sizes: Small, Large. One number is for both.\nRnd 1: 6 (8) sc in ring. (6, 8)\n"
    assert resized(text, ["Small", "Grand"], [0, 1]).startswith("Sizes: Small, Grand. One number is for both.\n")


def test_names_that_cannot_be_written_in_their_line_are_refused_with_it() -> None:
    text = "Bag\nSizes: 12 (14) loops\nRnd 1: 6 (8) sc in ring. (6, 8)\n"
    with pytest.raises(NotResized, match="Line 2 names the sizes in words"):
        resized(text, ["A", "B"], [0, 1])


def test_ranges_for_each_size_stay_as_they_are_written() -> None:
    text = "Sizes: S, M\nRnd 1: 6 sc in ring. (6 sts)\nRnds 2-4 (2-6): sc in each st around. (6 sts)\n"
    three = resized(text, ["S", "M", "L"], [0, 1, 1])
    assert "Rnds 2-4 (2-6, 2-6): sc" in three
    assert resized(three, ["S", "M"], [0, 1]) == text


def test_a_text_in_one_size_gets_a_plain_line_and_loses_it_again() -> None:
    text = "Lamp purse\nRnd 1: 6 sc in ring. (6 sts)\n"
    named = resized(text, ["Small"], [0])
    assert named == "Lamp purse\nSizes: Small\nRnd 1: 6 sc in ring. (6 sts)\n"
    assert resized(named, ["One size"], [0]) == text
    two = resized(named, ["Small", "Large"], [0, 0])
    assert two == "Lamp purse\nSizes: Small, Large\nRnd 1: 6 sc in ring. (6 sts)\n"
    assert resized(two, ["One size"], [0]) == text
