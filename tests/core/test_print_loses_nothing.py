"""Print loses nothing: every kept sentence and every number of a text is found again in print, or left out for a closed reason."""

import re
from pathlib import Path

import pytest

from rillstep.core.proof import prove_text, reader_text
from rillstep.core.proof.prove import Proof
from rillstep.core.tree import Again, Check, Pattern, Prose, Row, Setup

CORPUS = sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))
NUMBER = re.compile(r"\d+(?:\.\d+)?")
_SET = r"[\d\s,:;/|(){}\[\]]*"  # the rest of a set of numbers
# Why a number of the source need not stand in print as it is: what stands before it in its line, and what after.
# The list is closed: a seventh reason is a loss.
REASONS = {
    # How many rows: the numbers of their labels say so, and rounds that are alike are folded into one line.
    "rows": (r"", rf"^{_SET}\s*(?:more\s+|further\s+)*(?:rows?|rn?ds?|rounds?)\b"),
    "label": (r"^\W*(?:rn?ds?|rounds?|rows?|r)[^:.*]*$|^\W*rep", r""),
    # "7 more times" is "8 times", or "around".
    "times": (r"", rf"^{_SET}\s*(?:more\s+|further\s+)*times"),
    # Given again over the usual length.
    "gauge": (r"gauge|tension|^", r".*=|$"),
    # "18 sc from the 2nd ch on" is one there, and 17 in the next.
    "chain": (r"\b(?:2nd|second|3rd|third)\s+ch[^;]*$", rf"^{_SET}\s*(?:sc|dc|hdc|ch|chs|sts)\b"),
    # How many are made of a piece where that is no number for each size; "rotate 90 degrees" is "rotate".
    "pieces": (r"\bmake\b[^.]*$|\brotate[^.]*$", r""),
}  # fmt: skip


# A line of the head that gives a number its name: the number stands where the name is used.
NAMED = re.compile(r"\s*(?:number|means)\s*:", re.IGNORECASE)


def has_reason(row: str, number: re.Match[str]) -> bool:
    """Is there one of the reasons for which this number of a line is left out?"""
    before, after = row[: number.start()], row[number.end() :]
    for name, (left, right) in REASONS.items():
        if name == "gauge" and not re.search(r"gauge|tension|\brows\b.*=|=.*\brows\b", row, re.IGNORECASE):
            continue
        if re.search(left, before, re.IGNORECASE) and re.search(right, after, re.IGNORECASE):
            return True
    return False


def plainly(text: str) -> str:
    """A text without its line breaks and marks of print, in lower case."""
    return re.sub(r"[\s*_]+", " ", text).lower()


def kept_words(pattern: Pattern) -> list[str]:
    """Everything that is kept as words in a pattern: in rows, between them, and in its head."""
    found = [value for _, value in pattern.extra]
    for _, line in pattern.lines():
        if isinstance(line, Row | Again | Setup):
            found += [one.words for one in line.kept]
        elif isinstance(line, Prose):
            found.append(line.text)
    return found


def lost_numbers(text: str, printed: str) -> list[tuple[int, str]]:
    """Numbers of a text that are nowhere in print, each with its line, and that no reason explains."""
    there = {*NUMBER.findall(printed), "1"}
    rows = [row.split("#")[0] for row in text.split("\n")]
    return [
        (at, number[0])
        for at, row in enumerate(rows, start=1)
        for number in NUMBER.finditer(row)
        if number[0] not in there and not NAMED.match(row) and not has_reason(row, number)
    ]


@pytest.mark.parametrize("path", CORPUS, ids=[path.stem for path in CORPUS])
def test_words_and_numbers_are_found_again(path: Path) -> None:
    text = path.read_text()
    proof: Proof = prove_text(text)
    assert len(REASONS) <= 6
    kept = [plainly(words) for words in kept_words(proof.pattern)]
    for size in (None, len(proof.pattern.sizes) - 1):
        made = reader_text(proof.pattern, proof.pattern.terms, size)
        assert made.ok
        printed = plainly(made.text)
        mine = kept if size is None else [
            plainly(words) for words in kept_words(made.proof.pattern)
        ]  # fmt: skip
        assert [words for words in mine if words not in printed] == []
        if size is None:
            assert lost_numbers(text, made.text) == []
        totals = sum(isinstance(line, Check) for _, line in made.proof.pattern.lines())
        assert totals <= sum(isinstance(line, Check) for _, line in proof.pattern.lines())


def test_a_number_that_is_lost_is_found_to_be_lost() -> None:
    assert lost_numbers("Ch 24.\nRnd 2: Sc in 7 sts. (12)\nSew on 8 stars.", "Ch 24.") == [
        (2, "7"),
        (2, "12"),
        (3, "8"),
    ]
