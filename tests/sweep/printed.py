"""What of a text is found again in its print: every kept sentence and every number, but for a closed list of reasons."""

import re

from rillstep.core.tree import Again, Pattern, Prose, Row, Setup

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
