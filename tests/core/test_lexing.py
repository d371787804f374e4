"""A line cut into tokens: what each of them is, where it stands, and that nothing of the line is lost."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.words.tokens import MOST_REMEMBERED, tokens_of


def shown(text: str, sizes: int = 1, active: int = 0) -> list[str]:
    """Tokens in short: words as they are, numbers as "#12" or "#12/15", marks as they are."""
    found = []
    for token in tokens_of(text, 1, sizes, 0, active):
        values = "/".join(f"{value:g}" for value, _ in token.members)
        found.append(f"#{values}" if token.kind == "num" else token.text)
    return found


ONE_SIZE = {
    "plain words": ("Sc in next 2 sts", "sc in next #2 sts"),
    "typographic marks": ("Rnds 3–5: “Sc” × 6", 'rnds #3 - #5 : " sc " x #6'),
    "glued chains": ("ch3, ch1sp, ch-2 sp", "ch #3 , ch #1 sp , ch - #2 sp"),
    "glued skips and rows": ("sk2, R12, rnd3", "sk #2 , r #12 , rnd #3"),
    "numbers in words": ("twenty-one stitches", "#21 stitches"),
    "ordinals in words": ("the second chain", "the 2nd chain"),
    "ordinals": ("in 2nd ch", "in 2nd ch"),
    "times stuck to a number": ("(sc, inc) x6", "( sc , inc ) x #6"),
    "a star that multiplies": ("(sc, inc)*6", "( sc , inc ) x #6"),
    "stars of a run": ("*sc, inc* 6 times", "* sc , inc * #6 times"),
    "two stars": ("*sc** inc", "* sc ** inc"),
    "decimals": ("3.5 mm hook", "#3.5 mm hook"),
    "an expression": ("sc in next {a + 2} sts", "sc in next {a + 2} sts"),
    "a stop that ends no sentence": ("sc in ea. st", "sc in ea st"),
    "an aside in brackets": ("sc in next st (move marker up)", "sc in next st ( move marker up )"),
    "a bracket that is worked": ("(sc made) in next st", "( sc made ) in next st"),
    "words that begin as numbers do": ("tension, sixer, often", "tension , sixer , often"),
    "nothing": ("   \t ", ""),
}


@pytest.mark.parametrize("what", ONE_SIZE)
def test_a_line_in_one_size(what: str) -> None:
    text, tokens = ONE_SIZE[what]
    assert " ".join(shown(text)) == tokens


SETS = {
    "round brackets": ("ch 12 (15, 18)", "ch #12/15/18"),
    "square brackets": ("ch 12 [15, 18]", "ch #12/15/18"),
    "braces": ("ch 12 {15} {18}", "ch #12/15/18"),
    "colons": ("ch 12 (15: 18)", "ch #12/15/18"),
    "slashes": ("12/15/18 sts", "#12/15/18 sts"),
    "bars": ("12 | 15 | 18 sts", "#12/15/18 sts"),
    "commas before what they count": ("12, 15, 18 sts", "#12/15/18 sts"),
    "commas after a chain": ("chain 12, 15, 18.", "chain #12/15/18 ."),
    "commas that part clauses": ("sc 12, 15 hdc", "sc #12 , #15 hdc"),
    "all of it in brackets": ("ch (12, 15, 18)", "ch #12/15/18"),
    "a glued chain": ("ch12 (15, 18)", "ch #12/15/18"),
    "in words": ("four (five, six) times", "#4/5/6 times"),
    "slashes for another number of sizes": ("12/15 sts", "#12 / #15 sts"),
    "more slashes than there can be sizes": ("1/2/3/4/5/6/7/8/9/10/11/12", " / ".join(f"#{n}" for n in range(1, 13))),
}


@pytest.mark.parametrize("what", SETS)
def test_a_set_is_one_number(what: str) -> None:
    text, tokens = SETS[what]
    assert " ".join(shown(text, sizes=3)) == tokens


def test_a_set_for_the_sizes_in_force() -> None:
    assert shown("15/18 sts", sizes=3, active=2) == ["#15/18", "sts"]


def test_members_stand_where_they_are_written() -> None:
    (token,) = tokens_of("12 (15, 18)", 7, 3)
    assert [(value, span.column, span.end_column) for value, span in token.members] == [
        (12, 1, 3),
        (15, 5, 7),
        (18, 9, 11),
    ]
    assert {span.line for _, span in token.members} == {7}


WORDS = st.lists(
    st.sampled_from(["sc", "inc", "ch3", "ch-2", "12", "(15,", "18)", "7/8/9", "2nd", "twenty-one", "x6", "*", "**", ",", ";", ":", ".", "—", "“", "”", "[", "]", "(", ")", "{a}", "ea.", "ch1sp", "3.5", "é", "ß", "中", "…", "'n'"]), max_size=30
)  # fmt: skip


@given(WORDS, st.integers(1, 4), st.integers(0, 9))
def test_tokens_stand_in_order_and_within_the_line(words: list[str], sizes: int, start: int) -> None:
    text = " ".join(words)
    end = start
    for token in tokens_of(text, 3, sizes, min(start, len(text))):
        assert token.span.line == 3
        assert end < token.span.column <= len(text) and token.span.column < token.span.end_column <= len(text) + 1
        assert all(
            token.span.column <= span.column < span.end_column <= token.span.end_column for _, span in token.members
        )
        end = token.span.end_column - 1


@given(st.text(max_size=120))
def test_any_characters_are_cut(text: str) -> None:
    line = " ".join(text.splitlines())
    for token in tokens_of(line, 1, 2):
        assert line[token.span.column - 1 : token.span.end_column - 1].strip()


@given(WORDS)
def test_long_lines_are_cut_as_short_ones(words: list[str]) -> None:
    text = " ".join(words)
    padded = " " * (MOST_REMEMBERED + 1) + text
    short, long = tokens_of(text, 1, 3), tokens_of(padded, 1, 3)
    assert [(t.kind, t.text) for t in short] == [(t.kind, t.text) for t in long]
    assert all(b.span.column - a.span.column == MOST_REMEMBERED + 1 for a, b in zip(short, long, strict=True))
