"""Sizes by their names: lines that name some of them, rows that hold for some, and texts that tell them in their own way."""

from pathlib import Path

import pytest

from rillstep.core.notation.unlisted_sizes import told_sizes
from rillstep.core.words.sizes import all_sizes_then, limited, names_sizes, sizes_named, split_names, stops_here

NAMES = ("S", "M", "L", "Extra large")


@pytest.mark.parametrize(
    ("words", "sizes"),
    [
        ("S", (0,)),
        ("Size M only", (1,)),
        ("Sizes M and L only:", (1, 2)),
        ("for the S, M & L", (0, 1, 2)),
        ("extra large", (3,)),
        ("M/L", (1, 2)),
        ("all sizes", (0, 1, 2, 3)),
        ("Both sizes continue", (0, 1, 2, 3)),
        ("M bags only", (1,)),
        ("XXL", None),
        ("M and the rest", None),
        ("", None),
    ],
)
def test_words_that_name_sizes(words: str, sizes: tuple[int, ...] | None) -> None:
    assert sizes_named(words, NAMES) == sizes


def test_a_name_that_holds_and_is_kept_whole() -> None:
    known = {"lock and key": 0, "plain": 1}
    assert split_names("Lock and key and Plain", known) == ["Lock and key", "Plain"]


@pytest.mark.parametrize(
    ("line", "sizes", "rest"),
    [
        ("Large only: Rnd 8: Sc around.", (2,), "Rnd 8: Sc around."),
        ("[L only] Rnd 8: Sc around.", (2,), "Rnd 8: Sc around."),
        ("M and L only - Rnd 8: Sc around.", (1, 2), "Rnd 8: Sc around."),
        ("All sizes - Last rnd: Sc around.", (0, 1, 2, 3), "Last rnd: Sc around."),
        ("Rnd 8 (M, L only): Sc around.", (1, 2), None),
        ("Rnd 8 - L only: Sc around.", (2,), None),
        ("Rnd 8: Sc around. - (-, 24, 30)", (2, 3), None),
        ("Rnd 8: Sc around.", None, None),
        ("Rnd 3 (2): Sc around.", None, None),
    ],
)
def test_a_row_for_some_sizes(line: str, sizes: tuple[int, ...] | None, rest: str | None) -> None:
    line = line.replace("Large", "L")
    found = limited(line, NAMES)
    assert (found.sizes if found is not None else None) == sizes
    if found is not None:
        assert len(found.text) == len(line)  # columns stay true
    if rest is not None and found is not None:
        assert found.text.strip() == rest


@pytest.mark.parametrize(
    ("line", "sizes"),
    [
        ("Stop here for S; the others go on.", (0,)),
        ("Stop here for S and M.", (0, 1)),
        ("Stop here for S, M and L continue.", (0,)),
        ("Size M: stop here, go to Body.", (1,)),
        ("S: end the base here", (0,)),
        ("Stop here for tea.", None),
        ("Sc in next st and stop there.", None),
    ],
)
def test_sizes_for_which_a_piece_is_done(line: str, sizes: tuple[int, ...] | None) -> None:
    assert stops_here(line, NAMES) == sizes


def test_a_single_size_never_stops() -> None:
    assert stops_here("Stop here for S.", ("S",)) is None


@pytest.mark.parametrize(
    ("line", "named"),
    [
        ("M and L only:", True),
        ("(L only)", True),
        ("All sizes:", True),
        ("L is the largest.", False),
        ("L", True),
        ("M and L", True),
        ("All", False),
    ],
)
def test_a_line_that_only_names_sizes(line: str, named: bool) -> None:
    assert names_sizes(line, NAMES) is named


def test_what_follows_all_sizes() -> None:
    assert "All sizes, sides: joined"[all_sizes_then("All sizes, sides: joined") :] == "sides: joined"
    assert not all_sizes_then("Sc in all sizes") and not all_sizes_then("All sizes:")


@pytest.mark.parametrize(
    ("lines", "names"),
    [
        (["Sizes: S, M, L"], ("S", "M", "L")),
        (["Size", "S (M, L)"], ("S", "M", "L")),
        (["SIZES S/M (L/XL)"], ("S/M", "L/XL")),
        (["Sizes: S[M:L]"], ("S", "M", "L")),
        (["Sizes: Small (20 cm), Large (26 cm)"], ("Small", "Large")),
        (["For sizes S, M and L"], ("S", "M", "L")),
        (["Written for small with medium and large in parentheses."], ("Small", "Medium", "Large")),
        (["2 sizes: Teen and Adult"], ("Teen", "Adult")),
        (["Size: S/M", "Rnd 1: Ch 26, 2 sc in 2nd ch."], ("S/M",)),
        (["Size: S/M", "Rnd 1: Ch 26 (32)."], ("S", "M")),
        (["Ch 12 (15, 18).", "Row 1: Sc in next 11 (14, 17) ch."], ("1", "2", "3")),
        (["A bag", "Row 1: Sc in each ch."], None),
        (["Fits 20 (26) cm"], None),
    ],
)
def test_sizes_told_in_a_text(lines: list[str], names: tuple[str, ...] | None) -> None:
    told = told_sizes([*lines, "Row 2: Sc in each st."])
    assert (told.names if told is not None else None) == names


def test_sizes_in_words_are_not_named_a_second_time() -> None:
    text = (Path(__file__).parents[1] / "corpus" / "pasted_stardust_phone.txt").read_text()
    told = told_sizes(text.split("\n"))
    assert told is not None and told.names == ("1", "2")
    assert [(finding.code, finding.repairs) for finding in told.findings] == [("sizes-not-named", ())]
