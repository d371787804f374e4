"""Plain published wording: what each line makes in the first and the last size, that it is printed back, and that slips are found."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from tests.core.wordings.plainly import BASE, RING, TWO

EDGES = [
    "Do not turn. Sc evenly along the short side: 12 sc. Sc along the starting chain: 20 sc. Sc along the other short side: 12 sc. Sl st in first sc. [64]",
    "Do not turn. Work 12 sc evenly along the row ends, 20 sc along the foundation chain, 12 sc along the row ends, join. [64 sc]",
    "Now work sc evenly around the whole piece: 12 sc on each short side and 20 sc on each long side. Join. [64 sc]",
    "Edging: Sc evenly around the edge of the base (64 sc), join.",
    "Do not fasten off. Sc around the outside of the rectangle: 64 sts.",
    "Rnd 13: Ch 1, sc evenly around all four sides, placing 3 sc in each corner, join. [64 sc]",
]  # fmt: skip


@pytest.mark.parametrize("edge", EDGES)
def test_an_edge_told_in_a_sentence_is_gone_on_from(edge: str) -> None:
    text = f"{BASE}{edge}\nBody\nRnd 1: Ch 1, sc around, join. [64]"
    proof = prove_text(text)
    assert [f.code for f in proof.findings] == ["edge-not-checked"] and proof.lines[-1].sts == (64,)
    assert "64 sc evenly around all edges" in write(proof.pattern) and "Note: In US terms: " in write(proof.pattern)
    assert "Note: In US terms: " in write(proof.pattern, "UK") and "64 dc evenly around" in write(proof.pattern, "UK")
    printed = prove_text(write(proof.pattern))
    assert [f.code for f in printed.findings] == [] and printed.lines[-1].sts == (64,)
    assert "total-differs" in {f.code for f in prove_text(text.replace("join. [64]", "join. [65]")).findings}


def test_a_round_of_which_something_else_is_not_understood_hides_nothing() -> None:
    proof = prove_text(f"{BASE}Rnd 13: Ch 1, sc in nxxt 5 sts, sc evenly around the base, join. [64 sc]")
    assert "not-understood" in {f.code for f in proof.findings}


@pytest.mark.parametrize(
    "words",
    [
        "Sc through both layers evenly around three sides: 60 sc.",
        "Sew the side seams together evenly.",
        "Sc evenly around the edge.",
        "Sc 12 (14) along the sides and 20 (24) along the bottom edge.",
    ],
)
def test_what_tells_no_edge_of_one_piece_stays_words(words: str) -> None:
    proof = prove_text(f"{BASE}{words}")
    assert "edge-not-checked" not in {f.code for f in proof.findings} and proof.lines[-1].sts == (20,)


@pytest.mark.parametrize(
    ("line", "right"),
    [
        ("Rnds 4-9: Rep Rnds 2-3 3 times.", None),
        ("Rnds 4-9: Rep Rnds 2 and 3 three times more.", None),
        ("Rnds 4-7: Rep Rnds 2-3 3 times.", None),  # as the first time, and twice more
        ("Rnds 4-8: Rep Rnd 3 for 5 more rounds.", None),
        ("Rnds 4-10: Rep Rnds 2-3 3 times, then Rnd 2 once more.", None),
        ("Rnds 4-10: Rep Rnds 2-3 3 times.", 9),
        ("Rnds 4-9: Rep Rnd 3 five times.", 8),
    ],
)
def test_a_range_is_held_to_how_often_rows_are_repeated(line: str, right: int | None) -> None:
    text = RING + "Rnd 2: Ch 1, sc around; join. (24)\nRnd 3: Ch 1, sc around; join. (24)\n" + line
    found = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [f.code for f in found] == ([] if right is None else ["rows-otherwise"])
    assert right is None or found[0].repairs[0].edits[0].text == str(right)


def test_a_range_is_held_to_it_in_each_size() -> None:
    text = TWO + RING + "Rnd 2: Ch 1, sc around; join. (24)\nRnds 3-6 (9): Rep Rnd 2 4 (6) times."
    (found,) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert (found.code, found.size, found.expected, found.found) == ("rows-otherwise", 1, 6, 7)


def test_what_follows_from_such_a_range_is_not_said_again() -> None:
    text = (
        RING
        + "Rnd 2: Ch 1, sc around; join. (24)\nRnds 3-7: Rep Rnd 2 4 times.\nRnd 7: Ch 1, sc around; join. (24)\nCheck: 7 rnds."
    )
    assert [f.code for f in prove_text(text).findings if f.severity == "error"] == ["rows-otherwise"]


@pytest.mark.parametrize(
    ("total", "odd"),
    [
        ("8 (10) dc", None),
        ("4 (5) dc", None),
        ("8 (5) dc", (None, 4)),  # with the post stitches in one size, and without them in the other
        ("4 (10) dc", (None, 5)),
    ],
)
def test_a_total_counts_alike_in_every_size(total: str, odd: tuple[int | None, int] | None) -> None:
    text = (
        f"{TWO}Ch 4, join into a ring.\nRnd 1: Ch 1, 8 (10) sc in ring; join. (8 (10) sc)\n"
        f"Rnd 2: Ch 1, *fpdc around next st, dc in next st; rep from * around; join. ({total})"
    )
    found = [(f.size, f.found) for f in prove_text(text).findings if f.code == "total-differs"]
    assert found == [] if odd is None else found[0][0] is None and found[0][1] in (odd[1], 4, 5, 8, 10)


@pytest.mark.parametrize(("times", "size"), [("5 (6)", 0), ("6 (5)", 1)])
def test_an_open_row_is_meant_as_the_others_of_the_text(times: str, size: int) -> None:
    text = f"{TWO}1: 6 sc in magic ring (6)\n2: *2 sc in next; rep from * 6 times. (12)\n3: *sc 1, 2 sc in next; rep from * {times} times. (18)\n4: *2 sc in next, sc 2; rep from * 6 times. (24)"
    found = [f for f in prove_text(text).findings if f.severity == "error"]
    assert {(f.span.line, f.size) for f in found} == {(4, size)}


@pytest.mark.parametrize(
    ("said", "chosen"),
    [
        ("Larger size only", (False, True)),
        ("smaller size", (True, False)),
        ("Largest size only:", (False, True)),
        ("All sizes except the smallest", (False, True)),
        ("Both sizes", (True, True)),
    ],
)
def test_sizes_are_named_by_their_place(said: str, chosen: tuple[bool, bool]) -> None:
    text = f"{TWO}{RING}{said}\nRnd 2: Ch 1, 2 sc in first st, sc in each st around; join."
    assert tuple(count is not None for count in prove_text(text).lines[-1].sts) == chosen


@pytest.mark.parametrize(
    ("line", "defined", "renamed"),
    [
        ("X = sc, V = increase, T = hdc", 0, 3),
        ("ch: chain, sc: single crochet, shell: 5 dc in same st, tch: turning chain", 1, 0),
        ("A = white, B = blue, C = grey", 0, 0),  # colours
        ("inc = 2 sc in one st, dec = sc2tog, MC = main colour", 0, 0),
        ("Note: Puff", 0, 0),
    ],
)
def test_what_a_list_of_abbreviations_defines(line: str, defined: int, renamed: int) -> None:
    pattern = parse(f"{line}\n{RING}").pattern
    assert len(pattern.specials) == defined
    row = parse(f"{line}\n{RING}Rnd 2: 24 X; join. (24)")
    assert (not any(f.severity == "error" for f in row.findings)) == (renamed > 0)
