"""Names of numbers, changed: what the text says stays the same in every size, and each change has its opposite."""

import re

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from rillstep.core.grading import with_names
from rillstep.core.grading.lift import same_work
from rillstep.core.grading.renaming import NotNamed, held, named, renamed, tied, untied
from rillstep.core.proof import prove_text
from rillstep.core.settling import read
from rillstep.core.words.named_numbers import names_of
from rillstep.demo.texts import bag_text, sample_text

TOTE = bag_text("nightfield")
POUCH = sample_text("pouch")
NAMES = list(names_of(TOTE.split("\n")).defined)


def can_be_named(line: int, column: int) -> bool:
    try:
        named(TOTE, line, column, "canary")
    except NotNamed:
        return False
    return True


def alike(one: str, other: str) -> bool:
    return same_work(read(one).pattern, read(other).pattern)


@settings(deadline=None, max_examples=40)
@given(st.sampled_from(NAMES), st.from_regex(r"[a-z]{1,8}( [a-z0-9]{1,6}){0,2}", fullmatch=True))
def test_a_name_is_changed_everywhere_and_back(name: str, new: str) -> None:
    assume(new not in {*NAMES, "rnd", "row", "round"})
    there = renamed(TOTE, name, new)
    assert alike(there, TOTE) and f"{{{name}}}" not in there
    assert renamed(there, new, name) == TOTE


def test_names_that_are_part_of_others_stay_whole() -> None:
    text = TOTE.replace("between the handles", "side 2")
    assert "{side 2}" in renamed(text, "side", "long side") and "{2*long side + 8}" in renamed(
        text, "side", "long side"
    )


@pytest.mark.parametrize("name", ["wall rounds", "handle chain", "before the handle"])
def test_a_held_number_is_plain_again_and_can_be_named(name: str) -> None:
    plain = held(TOTE, name)
    assert alike(plain, TOTE) and f"Number: {name}" not in plain and prove_text(plain).ok
    if name == "wall rounds":
        assert "Rnds 2-25 (29, 34, 39): Ch 1" in plain
        line = next(at for at, raw in enumerate(plain.split("\n"), start=1) if raw.startswith("Rnds 2-25"))
        again = named(plain, line, len("Rnds 2-") + 1, "wall rounds")
        assert alike(again, TOTE) and "Rnds 2-{wall rounds}: Ch 1" in again


def test_what_is_nothing_drops_out_of_a_sum() -> None:
    text = with_names(bag_text("nightfield").replace("Pattern", "Pattern"), 0.0)
    assert text == TOTE, "a text that has names stays as it is"
    pouch = with_names(POUCH)
    assert alike(pouch, POUCH)
    more = pouch.replace("{rnd - 2}", "{start + rnd - 2}").replace("Number: base", "Number: start = 0\nNumber: base", 1)
    assert alike(more, pouch) and held(more, "start") == pouch


def test_numbers_are_tied_and_untied() -> None:
    line = next(at for at, raw in enumerate(TOTE.split("\n"), start=1) if raw.startswith("Rnd 2: Ch 1 (does"))
    apart = untied(TOTE, "side", line, "second side")
    assert alike(apart, TOTE) and "hdc in next {second side} sts" in apart and "{2*second side + 16}" in apart
    assert "Number: side = 16 (23, 27, 32)\nNumber: second side = 16 (23, 27, 32)\n" in apart
    assert tied(apart, "side", "second side") == TOTE


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda: renamed(TOTE, "side", "wall rounds"), "already; to give both one name, tie them"),
        (lambda: renamed(TOTE, "side", "rnd"), "letters, digits and spaces"),
        (lambda: renamed(TOTE, "side", "2 much"), "begins with a letter"),
        (lambda: renamed(TOTE, "sides", "edge"), "no number “sides”"),
        (lambda: held(TOTE, "side"), "differs between the sizes"),
        (lambda: tied(TOTE, "side", "base rounds"), "“side” is 16 (23, 27, 32), and “base rounds” is 5 (5, 6, 7)"),
        (lambda: tied(TOTE, "side", "side"), "tied to another one"),
        (lambda: untied(TOTE, "wall rounds", 5, "x"), "does not stand in line 5"),
        (lambda: named(TOTE, 1, 1, "x"), "No plain number stands in line 1"),
        (lambda: named(TOTE, 10_000, 1, "x"), "No plain number"),
    ],
)  # fmt: skip
def test_what_cannot_be_named_says_why(change: object, says: str) -> None:
    with pytest.raises(NotNamed, match=re.escape(says)):
        change()  # type: ignore[operator]


# Where the plain numbers of the instructions stand that can have a name.
PLACES = [
    (at, number.start() + 1)
    for at, raw in enumerate(TOTE.split("\n"), start=1)
    for number in re.finditer(r"\d+", raw)
    if can_be_named(at, number.start() + 1)
]


@settings(deadline=None, max_examples=40)
@given(st.sampled_from(PLACES))
def test_any_number_that_gets_a_name_says_what_it_said(place: tuple[int, int]) -> None:
    after = named(TOTE, *place, "canary")
    assert alike(after, TOTE) and "{canary}" in after


def test_most_numbers_of_the_rounds_can_have_a_name() -> None:
    rounds = [raw for raw in TOTE.split("\n") if raw.startswith(("Rnd", "Ch "))]
    assert len(PLACES) >= 20 and len({line for line, _ in PLACES}) >= len(rounds) // 2
