"""Texts for readers: equal rounds folded, each hand, notes that are true of this fabric, abbreviations that are used."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.printing.abbreviations import abbreviations_used
from rillstep.core.printing.folding import folded
from rillstep.core.printing.handed import left_handed, mirrored
from rillstep.core.printing.offered import offered
from rillstep.core.proof import advice, prove_text, reprint
from rillstep.core.tree import Row

RING = "Ch 24, join into a ring.\nRnd 1: Ch 1 (does not count), sc in each ch around; join. — 24 sts\n"
PLAIN = "Rnd {n}: Ch 1, sc in each st around; join. — 24 sts\n"
RUN = RING + "".join(PLAIN.format(n=n) for n in range(2, 8))


def labels(text: str) -> list[str]:
    return [line.split(":")[0] for line in text.split("\n") if line.startswith(("Rnd", "Row"))]


def test_equal_rounds_become_one_line() -> None:
    pattern = parse(RUN).pattern
    assert labels(write(folded(pattern))) == ["Rnd 1", "Rnds 2-7"]
    again = prove_text(write(folded(pattern)))
    assert again.ok and again.works[0].section_ends == prove_text(RUN).works[0].section_ends
    assert folded(folded(pattern)) == folded(pattern)


@pytest.mark.parametrize(
    "between",
    ["Note: count.\n", "Size M only:\n", "Rnd 4: Ch 1, hdc in each st around; join. — 24 sts\n", "Rnd 4: Ch 1, sc in each st around; join.\n",
     "Rnd 4 (WS): Ch 1, sc in each st around; join. — 24 sts\n"],
)  # fmt: skip
def test_rounds_that_differ_stay_apart(between: str) -> None:
    lines = [PLAIN.format(n=n) for n in (2, 3)] + [between] + [PLAIN.format(n=n) for n in (5, 6)]
    text = write(folded(parse("Sizes: S, M\n" + RING + "".join(lines)).pattern))
    assert "Rnds 2-6" not in text
    assert "Rnds 2-3" in text or "Rnd 2:" in text


def test_ranges_per_size_are_folded_on() -> None:
    text = (
        "Sizes: S, M\n"
        + RING
        + "Rnds 2-5 (7): Ch 1, sc in each st around; join. — 24 sts\nRnds 6-9 (8-11): Ch 1, sc in each st around; join. — 24 sts\n"
    )
    assert prove_text(text).ok
    assert labels(write(folded(parse(text).pattern))) == ["Rnd 1", "Rnds 2-9 (11)"]


MIRRORED = [
    ("Work towards the left.", "Work towards the right."), ("Pull it to the right.", "Pull it to the left."), ("Turn clockwise.", "Turn counter-clockwise."),
    ("Go counterclockwise.", "Go clockwise."), ("The leftmost stitch.", "The rightmost stitch."), ("Left of the marker.", "Right of the marker."),
    ("With right sides together.", "With right sides together."), ("The right side faces you.", "The right side faces you."), ("Use up the yarn left over.", "Use up the yarn left over."),
    ("4 sts left unworked.", "4 sts left unworked."), ("All right.", "All right."), ("At a right angle.", "At a right angle."), ("Cut right away.", "Cut right away."),
]  # fmt: skip


@pytest.mark.parametrize(("words", "other"), MIRRORED)
def test_directions_change_places_and_nothing_else_does(words: str, other: str) -> None:
    assert mirrored(words) == other
    assert mirrored(mirrored(words)) in (words, words.replace("counterclockwise", "counter-clockwise"))


def test_the_left_hand_gets_its_own_words_and_the_same_stitches() -> None:
    text = (
        "Note: Begin at the left.\n"
        + RING
        + "Note: the seam leans to the right.\nFold the left side over.\n"
        + PLAIN.format(n=2)
    )
    pattern = parse(text).pattern
    other = left_handed(pattern)
    assert [line for _, line in other.lines() if isinstance(line, Row)] == [
        line for _, line in pattern.lines() if isinstance(line, Row)
    ]
    written = write(other)
    for words in ("Note: Begin at the right.", "Note: the seam leans to the left.", "Fold the right side over."):
        assert words in written


ADVICE = [
    ("joined rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: Ch 1 (does not count), sc in each st around; join.",
     ["joined with a slip stitch", "not a stitch: skip it, and the joining slip stitch", "a line of stitches like a V"]),
    ("joined rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: Ch 3 (counts as dc), dc in each st around; join.",
     ["counts as a dc: the last stitch of the next round goes into its top", "ridges on the outside"]),
    ("spiral rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: Sc in each st around.", ["Worked in a spiral", "V"]),
    ("rows, panel", "Ch 25.", "Rows 1-9: Ch 1, sc in each st across; turn.", ["The ch 1 that begins a row is not a stitch", "each ridge is 2 rows"]),
    ("rows, panel", "Ch 25.", "Rows 1-9: Ch 1, BLO sc in each st across; turn.", ["ridges and the grooves between"]),
    ("joined rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: Ch 1, BLO sc in each st around; join.", ["the free front loops make"]),
    ("rows, panel", "Ch 25.", "Rows 1-9: Ch 3 (counts as dc), dc in each st across; turn.", ["bands of upright dc"]),
    ("joined rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: [Sc in next st, ch 1, sk 1] around; join. — 12 sts, 12 ch-1 sps", ["loops of chain"]),
    ("joined rounds, wall", "Ch 24, join into a ring.", "Rnds 1-9: Ch 1, sc in same st, sc in each st around; join.", ["“Same st” at the start of a round"]),
]  # fmt: skip


@pytest.mark.parametrize(("kind", "setup", "row", "told"), ADVICE, ids=[f"{a[0]} {a[2][:40]}" for a in ADVICE])
def test_notes_follow_from_the_fabric(kind: str, setup: str, row: str, told: list[str]) -> None:
    notes = advice(parse(f"Section: W ({kind})\n{setup}\n{row}").pattern, "US")
    for words in told:
        assert any(words in note for note in notes), (words, notes)
    assert len(notes) == len(set(notes))


def test_notes_name_sizes_and_hand_only_where_there_are_such() -> None:
    pattern = parse("Sizes: S, M, L\n" + RING).pattern
    assert advice(pattern, "US")[0].startswith("Numbers are given for S (M, L).")
    assert not any("Left-handed" in note for note in advice(pattern, "US"))
    assert any("Left-handed" in note for note in advice(pattern, "US", "left"))
    assert "counts as a htr" in " ".join(
        advice(parse(RING + "Rnd 2: Ch 2 (counts as hdc), hdc in each st around; join.").pattern, "UK")
    )


def test_abbreviations_are_those_that_are_used() -> None:
    text = (
        "Define: shell = 5 dc in same st\n"
        + RING
        + "Rnd 2: Ch 1, BLO sc in next 4 sts, FPtr around next st, sk 1, shell in next st, sc2tog, sc in each st around; join.\n"
    )
    names = dict(abbreviations_used(parse(text).pattern, "US"))
    assert names["FPtr"] == "front post treble crochet"
    assert names["sc2tog"] == "single crochet 2 stitches together"
    assert names["BLO"] == "back loops only" and names["sk"] == "skip" and names["dc"] == "double crochet"
    assert "hdc" not in names and "shell" not in names and "sp(s)" not in names
    assert dict(abbreviations_used(parse(text).pattern, "UK"))["sk"] == "miss"


def test_a_print_knows_where_each_line_comes_from() -> None:
    made = reprint(parse(RUN).pattern, "US")
    rows = [line for line in made.text.split("\n") if line.startswith("Rnd")]
    assert rows[1].startswith("Rnds 2-7")
    numbers = [n for n, line in enumerate(made.text.split("\n"), start=1) if line.startswith("Rnd")]
    assert [made.source_of(n) for n in numbers] == [2, 3]
    assert made.source_of(999) == 999


def test_words_are_offered_in_the_terms_of_the_text() -> None:
    us, uk = ({word.word for word in offered(terms)} for terms in ("US", "UK"))
    assert "hdc" in us and "hdc" not in uk
    assert "htr" in uk and "htr" not in us
    assert {"in next st", "join", "Rnd ", "Define: "} <= us & uk
    for terms in ("US", "UK"):
        for word in offered(terms):
            if word.kind == "stitch" and word.word not in ("ch", "inc", "sl st", "ss"):
                row = (
                    "around next st"
                    if word.word[:2] in ("FP", "BP")
                    else "in next st"
                    if "tog" not in word.word
                    else ""
                )
                findings = parse(f"Terms: {terms}\nRnd 1: {word.word} {row}, sc2tog.".replace(", sc2tog", "")).findings
                assert findings == (), word.word
