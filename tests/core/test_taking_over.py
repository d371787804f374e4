"""While somebody types: lines that a change does not reach are taken over, and what is taken over is what would be worked."""

import random
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.fabric import SizeWork, work_pattern
from rillstep.core.fabric.assumed import stated_edge
from rillstep.core.fabric.trace import unrolled
from rillstep.core.measures import SizeShape
from rillstep.core.memory import forget
from rillstep.core.notation import parse
from rillstep.core.proof import Proof, prove_text
from rillstep.core.proof.subject import Subject
from rillstep.core.tree import Pattern, Row

HEAD = "Sizes: S, M, L\n"
BASE = (
    "Section: Base (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: 6 sc in ring; join. — 6 sts\nRnd 2: Ch 1, 2 sc in each st around; join. — 12 sts\n"
    "Rnd 3: Ch 1, [sc in next st, 2 sc in next st] around; join. — 18 sts\n"
)
WALL = (
    "Section: Wall (joined rounds, wall), continue from Base\nRnd 4: Ch 1, sc in each st around; join. — 18 sts\nRnds 5-9 (11, 13): Ch 1, sc in each st around; join. — 18 sts\n"
    "Rnd 10 (12, 14): Rep Rnd 3. — 27 sts\nRnd 11 (13, 15): Ch 1, [sc in next 7 sts, sc2tog] around; join. — 24 sts\n"
)
TEXT = HEAD + BASE + WALL


def told(proof: Proof) -> object:
    return proof.lines, proof.findings


def as_new(text: str) -> object:
    forget()
    return told(prove_text(text))


def test_the_text_is_true() -> None:
    assert prove_text(TEXT).findings == ()


@pytest.mark.parametrize(
    ("before", "after"),
    [
        ("[sc in next st, 2 sc in next st] around; join. — 18 sts", "[sc in next 2 sts, 2 sc in next st] around; join. — 16 sts"),  # worked again below
        ("Rnd 1: 6 sc in ring", "Rnd 1: 8 sc in ring"),  # all that follows is reached
        ("[sc in next 7 sts, sc2tog] around; join. — 24 sts", "[sc in next 7 sts, sc2tog] around; join. — 25 sts"),  # the last line
        ("Rnd 4: Ch 1, sc in each st around; join. — 18 sts\n", ""),  # a line less
        ("Rnd 4: Ch 1", "Note: look up.\nRnd 4: Ch 1"),  # a line more that works nothing
        ("Make an adjustable ring.", "Ch 4; join into a ring."),  # another beginning
        ("Rnd 2: Ch 1, 2 sc in each st", "Rnd 2: Ch 1, blub in each st"),  # one that is not understood
        ("Sizes: S, M, L", "Sizes: S, M, XL"),  # other names
        ("Rnds 5-9 (11, 13)", "Rnds 5-9 (11, 12)"),  # one size only
        ("Rep Rnd 3", "Rep Rnd 2"),
    ],
)  # fmt: skip
def test_one_change_and_back_again(before: str, after: str) -> None:
    changed = TEXT.replace(before, after, 1)
    assert changed != TEXT
    fresh, fresh_changed = as_new(TEXT), as_new(changed)
    assert told(prove_text(TEXT)) == fresh
    assert told(prove_text(changed)) == fresh_changed
    assert told(prove_text(TEXT)) == fresh


@given(
    st.lists(
        st.tuples(st.integers(0, 30), st.sampled_from(["delete", "twice", "number", "swap"])), min_size=1, max_size=6
    )
)
@settings(max_examples=20, deadline=None)
def test_any_changes_one_after_another(edits: list[tuple[int, str]]) -> None:
    lines = TEXT.rstrip("\n").split("\n")
    texts = [TEXT]
    for place, kind in edits:
        at = 1 + place % (len(lines) - 1)
        if kind == "delete" and len(lines) > 4:
            del lines[at]
        elif kind == "twice":
            lines.insert(at, lines[at])
        elif kind == "swap":
            lines[at], lines[-1] = lines[-1], lines[at]
        else:
            lines[at] = lines[at].replace("2", "3", 1)
        texts.append("\n".join(lines))
    warm = [told(prove_text(text)) for text in texts]
    assert warm == [as_new(text) for text in texts]


def test_two_texts_in_turn_keep_their_own_answers() -> None:
    other = TEXT.replace("6 sc in ring; join. — 6", "7 sc in ring; join. — 7").replace("— 12 sts", "— 14 sts")
    answers = [told(prove_text(text)) for text in (TEXT, other, TEXT, other)]
    assert answers[0] == answers[2] != answers[1] == answers[3]


def works_of(text: str) -> list[SizeWork]:
    pattern = parse(text).pattern
    return [work_pattern(pattern, size) for size in range(len(pattern.sizes))]


def test_lines_after_a_change_are_the_very_same_where_it_comes_to_the_same() -> None:
    kept = works_of(TEXT)
    changed = works_of(TEXT.replace("Rnd 4: Ch 1, sc in each st around", "Rnd 4: Ch 1, sc in next 18 sts"))
    for before, after in zip(kept, changed, strict=True):
        same = [one is other for one, other in zip(before.lines, after.lines, strict=True)]
        assert same.count(False) == 1


def subject_of(text: str) -> Subject:
    pattern = parse(text).pattern
    shapes: tuple[SizeShape, ...] | None = None
    return Subject(pattern, tuple(work_pattern(pattern, size) for size in range(len(pattern.sizes))), shapes)


def test_a_line_is_looked_at_once_for_all_sizes() -> None:
    first, again = subject_of(TEXT), subject_of(TEXT + "Note: one more word.\n")
    assert all(one is other for one, other in zip(first.lines, again.lines, strict=True))
    changed = subject_of(TEXT.replace("— 24 sts", "— 25 sts"))
    assert [line.may_be_wrong for line in changed.lines].count(True) == 1
    assert [one is other for one, other in zip(first.lines, changed.lines, strict=True)].count(False) == 1


def test_a_line_for_some_sizes_has_no_work_in_the_others() -> None:
    text = "Sizes: S, L\nCh 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 24 sts\nSize L only:\nRnd 2: Ch 1, sc in each st around; join. — 24 sts"
    lines = subject_of(text).lines
    assert [tuple(work is not None for work in line.works) for line in lines] == [
        (True, True),
        (True, True),
        (False, True),
    ]
    assert [len(line.done) for line in lines] == [2, 2, 1]
    assert lines[-1].in_size(1) == " in size L"


@given(
    st.integers(0, 400),
    st.lists(st.tuples(st.integers(1, 40), st.integers(1, 9)), min_size=1, max_size=3, unique_by=lambda pair: pair[1]),
)
@settings(max_examples=40, deadline=None)
def test_stated_spaces_are_spread_among_the_stated_stitches(stitches: int, spaces: list[tuple[int, int]]) -> None:
    words = ", ".join(f"{count} ch-{length} sps" for count, length in spaces)
    row = next(
        line
        for _, line in parse(f"Ch 9.\nRow 1: Sc in each ch across. — {stitches} sts, {words}").pattern.lines()
        if isinstance(line, Row)
    )
    edge = stated_edge(row, stitches, 0, None)
    counts = edge.counts()
    assert counts.sts == stitches
    assert dict(counts.spaces) == {length: count for count, length in spaces}
    between, run = [], 0
    for place in unrolled(edge.runs):
        run = run + 1 if place.kind == "st" else 0
        if place.kind == "sp":
            between.append(run)
    groups = sum(count for count, _ in spaces)
    at = [i for i, place in enumerate(unrolled(edge.runs)) if place.kind == "sp"]
    sizes = [b - a - 1 for a, b in pairwise([-1, *at])]
    assert len(sizes) == groups and max(sizes) - min(sizes) <= 1


def test_a_long_text_is_worked_line_by_line_only_once() -> None:
    draw = random.Random(3)
    rows = "".join(
        f"Rnd {n}: Ch 1, sc in next {draw.randint(2, 40)} sts, sc in each st around; join. — 60 sts\n"
        for n in range(2, 60)
    )
    text = f"Ch 60, join into a ring.\nRnd 1: Sc in each ch around; join. — 60 sts\n{rows}"
    before = works_of(text)[0]
    after = works_of(text.replace("Rnd 30: Ch 1", "Rnd 30: Ch 1, sc in same st", 1))[0]
    taken_over = sum(one is other for one, other in zip(before.lines, after.lines, strict=True))
    assert taken_over == len(before.lines) - 1
    assert isinstance(parse(text).pattern, Pattern)
