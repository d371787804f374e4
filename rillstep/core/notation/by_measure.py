"""Rows that are worked until a length is reached: "Rnds 5-{wall}: Hdc in each st around until the wall measures 20 cm".

How many rows that makes is worked out by the gauge (`core.heights`), and the text is read again with it known. A name
for the last of them that nothing else defines has what was worked out; until then the range is open.
"""

import re
from collections.abc import Mapping, Sequence
from fractions import Fraction

from rillstep.core.clauses.measured import read_until
from rillstep.core.findings import Finding
from rillstep.core.tree import Num, Until
from rillstep.core.tree.forms import of_name
from rillstep.core.words.expressions import NAME, Value
from rillstep.core.words.named_numbers import Definition, Names
from rillstep.core.words.stream import Context, stream_over

_UNTIL = re.compile(r"[,;]?\s*\b(?:until|till)\b", re.IGNORECASE)
_OPEN = re.compile(
    rf"^(\s*(?:rn?ds?|rounds?|rows?)\.?\s*\d+)(\s*[-–—]\s*\{{\s*({NAME.pattern})\s*\}})(?=[^{{}}]*:)", re.IGNORECASE
)

_ON = re.compile(
    r"^(\s*(?:rn?ds?|rounds?|rows?)\.?\s*\d+)(\s*(?:and\s+)?(?:on(?:wards?)?|up))(?=\s*:.*\b(?:until|till)\b)",
    re.IGNORECASE,
)


def split_until(text: str, line: int, context: Context, start: int, end: int) -> tuple[str, Until | None]:
    """The text of a row without "until the wall measures 20 cm", with blanks in its place, and the length."""
    for match in _UNTIL.finditer(text, start, end):
        stream = stream_over(text, line, context, match.end(), end)
        until = read_until(stream)
        after = stream.peek()
        if until is not None and (after is None or after.kind not in ("word", "num")):
            upto = after.span.column - 1 if after is not None else end
            if text[upto : upto + 1] == ",":
                upto += 1
            return text[: match.start()] + " " * (upto - match.start()) + text[upto:], until
    return text, None


def not_counted(until: Until | None, last: Num | None) -> list[Finding]:
    """What is to be said of rows by measure of which nothing else tells how many they are."""
    if until is None or last is not None:
        return []
    message = (
        "How many rows this makes is not said as a number; say “until there are … rows”, or add a gauge, such as "
        "“Gauge: hdc 15 sts x 12 rows = 10 cm”, to have it proved."
    )
    return [Finding("rows-not-counted", "warning", until.span, message)]


def open_label(text: str) -> str:
    """ "Rnd 2 on: ... until it measures 20 cm": the line with a plain label."""
    match = _ON.match(text)
    return text if match is None else match[1] + " " * len(match[2]) + text[match.end() :]


def open_range(text: str, names: Names) -> str:
    """The line with a plain label, as long as the name of its last row has no number."""
    match = _OPEN.match(text)
    if match is None or " ".join(match[3].split()) in names.defined or not _UNTIL.search(text, match.end()):
        return text
    names.open.add(" ".join(match[3].split()))
    return match[1] + " " * len(match[2]) + text[match.end() :]


def take_worked_out(names: Names, raws: Sequence[str], ends: Mapping[int, tuple[int | None, ...]]) -> None:
    """Gives the names that a measure defines the rows that were worked out for it, by the line of the range."""
    for number, values in ends.items():
        match = _OPEN.match(raws[number - 1]) if 0 < number <= len(raws) else None
        name = " ".join(match[3].split()) if match is not None else ""
        if match is None or name in names.defined or not _UNTIL.search(raws[number - 1], match.end()):
            continue
        names.defined[name] = Definition("", number, 1, measured=True)
        names.known[name, len(values)] = tuple(
            "it is measured in other sizes only" if value is None else Value(Fraction(value), of_name(name))
            for value in values
        )
