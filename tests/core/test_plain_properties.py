"""What holds for any numbers of the plain published wording: first spaces, handles, shells, own abbreviations, ranges, edges."""

import re
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from rillstep.core.notation import parse
from rillstep.core.notation.definitions import own_abbreviation
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.settling import read
from rillstep.core.tree import Row
from rillstep.core.words.sizes import sizes_named

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
US = [path for path in CORPUS if "UK" not in path.read_text() and " sc" in path.read_text()]


def errors(text: str) -> list[tuple[str, int]]:
    return [(f.code, f.span.line) for f in prove_text(text).findings if f.severity == "error"]


def sts(text: str) -> list[int | None]:
    return [line.sts[0] for line in prove_text(text).lines]


@settings(deadline=None, max_examples=15)
@given(st.integers(2, 60), st.integers(1, 30))
def test_moss_stitch_keeps_its_count_from_any_chain(stitches: int, rows: int) -> None:
    body = (
        "Row 1: Sc in 4th ch from hook, *ch 1, skip 1 ch, sc in next ch; rep from * to end. Turn. ({n} sc)\n"
        "Rows 2-{last}: Ch 2, skip first sc, *sc in next ch-1 sp, ch 1, skip next sc; rep from * to last sp, sc in last ch-2 sp. Turn. ({n} sc)\n"
        "Row {end}: Ch 1, sc in each st and each sp across. ({all} sc)"
    )
    text = body.format(n=stitches, last=rows + 1, end=rows + 2, all=2 * stitches)
    assert errors(f"Ch {2 * stitches + 2}.\n{text}") == []
    assert errors(f"Ch {2 * stitches + 3}.\n{text}")[0][1] == 2


@settings(deadline=None, max_examples=15)
@given(st.integers(1, 40), st.integers(4, 60), st.integers(1, 12))
def test_every_way_of_working_over_handles_makes_the_same(side: int, chain: int, skip: int) -> None:
    middle = 2 * side  # so that they lie opposite each other
    rim = 2 * side + middle + 2 * skip
    made = 2 * side + middle + 2 * chain
    before = (
        f"Rnd 1: Ch 1, {rim} fsc; join. ({rim})\n"
        f"Rnd 2: Ch 1, {side} sc, ch {chain}, sk {skip}, {middle} sc, ch {chain}, sk {skip}, {side} sc; join.\nRnd 3: Ch 1, "
    )
    for way in (
        "sc in each sc and each ch around",
        "sc in each sc and each chain stitch around",
        "*sc in each st to the chain, sc in each ch; rep from * once more, sc to end",
        "sc in each st until you reach the chain, sc in each ch, sc in each st until next chain, sc in each ch, sc in remaining sts",
        f"(sc in each sc to handle, {chain} sc in handle ch-sp) twice, sc in each sc to end",
        f"sc in each of next {side} sc, {chain} sc over handle chain, sc in each of next {middle} sc, {chain} sc along the chain, sc in each of last {side} sc",
    ):
        text = f"{before}{way}; join. ({made})"
        assert errors(text) == [], way
        assert sts(text)[-1] == made
        assert ("total-differs", 3) in errors(f"{before}{way}; join. ({made + 1})"), way


@settings(deadline=None, max_examples=15)
@given(st.integers(2, 40), st.integers(2, 4))
def test_half_shells_close_a_round_of_any_length(shells: int, half: int) -> None:
    whole = 2 * half - 1
    text = (
        f"Ch {6 * shells}, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join.\n"
        f"Rnd 2: Ch 3 (counts as dc), {half - 1} dc in same st, *skip 2 sts, sc in next st, skip 2 sts, {whole} dc in next st; repeat from * around, "
        f"ending with {{}} dc in first st; join. ({(whole + 1) * shells})"
    )
    assert errors(text.format(half - 1)) == []
    assert errors(text.format(half)) == [("total-differs", 3)]


@settings(deadline=None, max_examples=15)
@given(st.integers(3, 9), st.integers(2, 8), st.integers(1, 9))
def test_what_the_last_repeat_leaves_out_was_worked_at_the_start(times: int, after: int, first: int) -> None:
    assume(first < after)
    below = times * (after + 1)
    text = (
        f"Ch {below}, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join.\n"
        f"Rnd 2: Ch 1, sc in first {first} sts, *3 sc in next st, sc in next {after} sts; rep from * {times - 1} times more, omitting last {{}} sc. Join. ({below + 2 * times} sc)"
    )
    assert errors(text.format(first)) == []
    assert errors(text.format(first + 1)) != []


@settings(deadline=None, max_examples=15)
@given(st.integers(2, 20), st.integers(2, 20), st.integers(8, 200))
def test_an_edge_told_in_a_sentence_gives_its_stitches(across: int, rows: int, total: int) -> None:
    text = (
        f"Base\nCh {across + 1}.\nRow 1: Sc in 2nd ch from hook and across. [{across}]\nRows 2-{rows + 1}: Ch 1, turn, sc across. [{across}]\n"
        f"Sc evenly around the base, 3 sc in each corner: {total} sts.\nBody\nRnd 1: Ch 1, sc around, join. [{total}]"
    )
    assert errors(text) == []
    assert sts(text)[-1] == total
    assert errors(write(prove_text(text).pattern)) == []


@settings(deadline=None, max_examples=15)
@given(st.integers(2, 6), st.integers(1, 30), st.integers(-3, 3))
def test_a_range_is_as_long_as_what_is_repeated(sources: int, times: int, off: int) -> None:
    rows = "".join(f"Rnd {n}: Ch 1, sc around; join.\n" for n in range(2, sources + 2))
    first = sources + 2
    last = first + sources * times - 1 + off
    assume(last >= first)
    text = f"Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n{rows}Rnds {first}-{last}: Rep Rnds 2-{sources + 1} {times} times."
    told = last - first + 1
    meant = {sources * times, times, sources * (times - 1)}  # repeats, rounds, or repeats with those that are there
    found = errors(text)
    assert (found == []) == (told in meant)
    assert not found or found == [("rows-otherwise", sources + 3)]


@pytest.mark.parametrize("path", US[::6], ids=[path.stem for path in US[::6]])
def test_a_pattern_in_abbreviations_of_its_own_is_the_same_pattern(path: Path) -> None:
    text = path.read_text()
    first = next(
        i
        for i, raw in enumerate(text.split("\n"))
        if re.match(r"\s*(?:rn?d|round|row|r|ch|\d|section|base|make|mr)", raw, re.IGNORECASE)
    )
    lines = text.split("\n")
    renamed = "\n".join(["Qsc = sc", *lines[:first], *(re.sub(r"\bsc\b", "Qsc", raw) for raw in lines[first:])])
    if first == 0 or read(text).pattern.sections == ():
        return
    ours, theirs = prove_text(text), prove_text(renamed)
    if len(theirs.lines) < len(ours.lines):
        pytest.skip("a row without a label is told by its stitch")
    assert [line.sts for line in theirs.lines] == [line.sts for line in ours.lines]


@pytest.mark.parametrize(
    ("name", "meaning", "words"),
    [
        ("X", "sc", ("sc",)),
        ("V", "sc increase", ("sc", "increase")),
        ("A", "invisible decrease", ("invisible", "decrease")),
        ("BO", "bobble", ("bobble",)),
        ("DS", "double crochet", ("double", "crochet")),
        ("x", "sc", None),  # times
        ("sc", "single crochet", None),  # known
        ("st", "stitch", None),
        ("A", "white", None),  # a colour
        ("RS", "right side", None),
        ("V", "2 sc in next st", None),  # a stitch of its own
        ("Longer name", "sc", None),
    ],
)
def test_what_an_abbreviation_of_its_own_is(name: str, meaning: str, words: tuple[str, ...] | None) -> None:
    assert own_abbreviation(name, meaning, "US") == words


@pytest.mark.parametrize(
    ("said", "sizes"),
    [
        ("Largest size only", (3,)),
        ("two largest sizes only", (2, 3)),
        ("last three sizes", (1, 2, 3)),
        ("3 larger sizes", (1, 2, 3)),
        ("smallest size", (0,)),
        ("first two sizes only", (0, 1)),
        ("All sizes but the smallest", (1, 2, 3)),
        ("all sizes except the largest", (0, 1, 2)),
        ("larger size only", None),  # of four sizes, which?
        ("four largest sizes", None),
        ("large purse", None),
    ],
)
def test_sizes_called_by_their_place_among_four(said: str, sizes: tuple[int, ...] | None) -> None:
    assert sizes_named(said, ("S", "M", "L", "XL")) == sizes


@settings(deadline=None, max_examples=15)
@given(st.sampled_from(["", " only", " only:"]), st.integers(2, 8))
def test_the_largest_is_the_last_of_any_number_of_sizes(tail: str, count: int) -> None:
    names = tuple(f"No {n}" for n in range(count))
    assert sizes_named(f"largest size{tail}", names) == (count - 1,)
    assert sizes_named(f"smallest size{tail}", names) == (0,)


@pytest.mark.parametrize(
    ("told", "counts", "space"),
    [
        ("", None, None),
        (" (skipped ch count as dc)", "dc", None),
        (" (the 3 skipped chs count as a ch-2 sp)", None, 2),
        (" (skipped chs count as dc and ch-1 sp)", "dc", 1),
        (" (skipped 4 ch count as dc + ch 1)", "dc", 1),
        (" (skipped chs do not count as a stitch)", None, None),
    ],
)
def test_what_skipped_chains_count_as(told: str, counts: str | None, space: int | None) -> None:
    pattern = parse(f"Ch 20.\nRow 1: Dc in 5th ch from hook{told}, dc in each ch across.").pattern
    (row,) = [line for _, line in pattern.lines() if isinstance(line, Row)]
    into = row.steps[0].into  # type: ignore[union-attr]
    assert into.counts_as == counts  # type: ignore[union-attr]
    assert (into.space.at(0) if into.space is not None else None) == space  # type: ignore[union-attr]
    assert parse(write(pattern)).pattern == pattern
