"""Whatever is typed or pasted: it is read, worked, proved, asked about, traced, drawn and written, or answered with findings."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.notation import parse
from rillstep.core.notation.lines import logical_lines
from rillstep.core.printing.wrapping import wrapped
from tests.sweep.answers import answered

WORDS = [
    "sc",
    "hdc",
    "dc",
    "tr",
    "FPdc",
    "sl",
    "st",
    "ch",
    "1",
    "2",
    "3",
    "12",
    "in",
    "next",
    "st",
    "sts",
    "each",
    "around",
    "across",
    "same",
    "first",
    "last",
    "ring",
    "sp",
    "ch-2",
    "loop",
    "(",
    ")",
    "[",
    "]",
    "*",
    "**",
    ",",
    ";",
    ".",
    ":",
    "—",
    "rep",
    "from",
    "times",
    "more",
    "to",
    "marker",
    "A",
    "place",
    "turn",
    "join",
    "rotate",
    "fasten",
    "off",
    "leave",
    "rem",
    "unworked",
    "sk",
    "inc",
    "dec",
    "sc2tog",
    "puff",
    "(counts",
    "as",
    "dc)",
    "BLO",
    "FLO",
    "front",
    "loops",
    "of",
    "Rnd",
    "with",
    "B",
    "change",
    "colour",
    "ending",
    "at",
    "into",
    "magic",
    "evenly",
    "along",
    "row",
    "ends",
    "corner",
    "skipped",
    "working",
    "twice",
    "x",
    "6",
    "{side}",
    "12",
    "(15,",
    "18)",
    "Make",
    "an",
    "adjustable",
]
STARTS = (
    "Rnd 1: ", "Rnd 2: ", "Rnds 3-5: ", "Row 1: ", "Rep Rnd 2 ", "Ch 12", "Section: Wall (joined rounds, wall)", "Section: Flap (rows, panel, mirrored), continue from Wall",
    "Sizes: S, M, L", "Size M only:", "    ", "", "Note: ", "Check: ", "Gauge: sc 16 sts x 18 rows = 10 cm", "Define: V = ", "Kit: 10 g", "Yarn: 100 g = 200 m", "Sew Wall to Flap ", "BASE",
)  # fmt: skip
LINES = st.builds(
    lambda start, words: start + " ".join(words), st.sampled_from(STARTS), st.lists(st.sampled_from(WORDS), max_size=14)
)


@given(st.lists(LINES, max_size=9))
@settings(max_examples=133, deadline=None)
def test_word_soup_is_answered(lines: list[str]) -> None:
    answered("\n".join(lines))


@given(st.text(max_size=200))
@settings(max_examples=66, deadline=None)
def test_any_characters_are_answered(text: str) -> None:
    answered(text)


@given(st.lists(LINES, max_size=6))
@settings(max_examples=50, deadline=None)
def test_joined_lines_hold_every_character_of_theirs(lines: list[str]) -> None:
    raws = "\n".join(lines).split("\n")
    found = logical_lines(raws)
    assert [line.number for line in found] == sorted({line.number for line in found})
    whole = "".join("".join(line.text.split()) for line in found)
    assert whole == "".join("".join(raw.split()) for raw in raws)


@given(
    st.lists(
        st.sampled_from(
            [
                "sc in next 2 sts",
                "2 dc in next st",
                "[sc, ch 1] 3 (4, 5) times",
                "(dc, ch 2, dc) in next st",
                "ch 3",
                "sk 2",
            ]
        ),
        min_size=1,
        max_size=20,
    ),
    st.integers(30, 100),
)
@settings(max_examples=50, deadline=None)
def test_a_broken_line_is_the_same_row(steps: list[str], width: int) -> None:
    text = "Sizes: S, M, L\nCh 24, join into a ring.\nRnd 1: " + ", ".join(steps) + "; join."
    again = wrapped(text, width)
    assert parse(again).pattern == parse(text).pattern
    assert again.count("\n") >= text.count("\n")


HOSTILE = [
    "Rnd 1: sc in next st,\n" * 1_400,
    "Rnd 1: " + "(" * 3_000,
    "Ch 24, join into a ring.\n" + "Rnd 1: sc in each ch around,\n" + "    sc in next st,\n" * 1_000,
    "Sizes: S, M\n" + "BASE\nRnd 1: 6 sc in ring; join. (6)\n" * 700,
    "Section: A (rows, panel, mirrored)\nCh 390.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n" + "Row 2: [Sc in next 2 sts, ch 1, sk 1] 100 times, sc in each st across; turn.\n" * 60,
    "Ch 2000, join into a ring.\nRnd 1: Sc in each ch around; join.\n" + "".join(f"Rnd {n}: [Puff in next st, sc in next 4 sts] around; join.\n" for n in range(2, 40)),
    "Ch 24.\nRow 1: Sc in each ch across.\n" + "".join(f"Row {n}: Rep Row {n - 1}.\n" for n in range(2, 1_200)),
    "Rnd 1: 6 sc in ring. (" + ", ".join(str(n) for n in range(800)) + " sts)",
    "Special stitches\n" + "".join(f"s{n}: 5 dc in same st\n" for n in range(300)) + "Rnd 1: 6 sc in ring.",
    "*" * 3_000 + "\nRnd 1: " + "*sc**, " * 300,
]  # fmt: skip


@pytest.mark.parametrize("text", HOSTILE, ids=[f"{index}: {text[:40]!r}" for index, text in enumerate(HOSTILE)])
def test_hostile_texts_are_answered(text: str) -> None:
    answered(text)
