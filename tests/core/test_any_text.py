"""Whatever is typed or pasted: it is read, worked, proved, asked about, traced, drawn and written, or answered with findings."""

import random
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.chart import chart_of, rows_for
from rillstep.core.findings import apply_edits
from rillstep.core.notation import parse
from rillstep.core.notation.limits import MAX_LINES
from rillstep.core.notation.lines import logical_lines
from rillstep.core.printing import write
from rillstep.core.printing.wrapping import wrapped
from rillstep.core.proof import prove_text, questions, reader_text
from rillstep.core.proof.catalogue import CATALOGUE, WITHOUT_EXAMPLE
from rillstep.publish.chart import svg_of

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
CODES = {entry.code for entry in CATALOGUE} | set(WITHOUT_EXAMPLE)

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


def answered(text: str) -> None:
    """Everything that Rillstep does with a text, done; nothing may be raised, and all that is found is known."""
    proof = prove_text(text)
    rows = text.split("\n")
    for finding in proof.findings:
        assert finding.code in CODES
        assert 1 <= finding.span.line <= len(rows)
        assert finding.size is None or finding.size < len(proof.pattern.sizes)
        for repair in finding.repairs:
            apply_edits(text, repair.edits)
    for question in questions(proof, text):
        for answer in question.answers:
            prove_text(apply_edits(text, answer.edits))
    for work in proof.works[:1]:
        for line in work.lines[:6]:
            if line.turns:
                try:
                    drawn, around = rows_for(work, line.line.span.line)
                except ValueError as too_long:  # a row that a torn number made thousands of stitches long
                    assert "not traced" in str(too_long)
                    continue
                assert svg_of(chart_of(drawn, around), "t", "US").startswith("<svg")
    written = write(proof.pattern)
    if written.count("\n") > MAX_LINES - 10:
        return  # printed with its empty lines it would be too long to be read
    assert (
        not proof.ok or parse(written).pattern == proof.pattern or any(f.severity != "caution" for f in proof.findings)
    )
    if proof.ok and proof.lines:
        reader_text(proof.pattern, "UK", 0, hand="left")


@given(st.lists(LINES, max_size=9))
@settings(max_examples=400, deadline=None)
def test_word_soup_is_answered(lines: list[str]) -> None:
    answered("\n".join(lines))


@given(st.text(max_size=200))
@settings(max_examples=200, deadline=None)
def test_any_characters_are_answered(text: str) -> None:
    answered(text)


@pytest.mark.parametrize("path", CORPUS, ids=[path.stem for path in CORPUS])
def test_a_torn_pattern_is_answered(path: Path) -> None:
    """Lines cut, doubled, swapped and run together, as when a page is pasted badly."""
    draw = random.Random(path.stem)
    for _ in range(5):
        lines = path.read_text().split("\n")
        for _ in range(draw.randint(1, 4)):
            at = draw.randrange(len(lines))
            kind = draw.randrange(4)
            if kind == 0:
                lines[at] = lines[at][draw.randrange(len(lines[at]) + 1) :]
            elif kind == 1:
                lines.insert(draw.randrange(len(lines)), lines[at])
            elif kind == 2:
                lines[at] = lines[at].replace(" ", "\n", draw.randint(1, 6))
            else:
                moved = lines.pop(draw.randrange(len(lines)))
                lines = [*lines, moved] if not lines else [*lines[:-1], f"{lines[-1]} {moved}"]
            lines = "\n".join(lines).split("\n")
        answered("\n".join(lines))


@given(st.lists(LINES, max_size=6))
@settings(max_examples=150, deadline=None)
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
@settings(max_examples=150, deadline=None)
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
