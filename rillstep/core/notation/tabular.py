"""Rows as tables and lists write them, put into the usual form before they are read: columns become a label and a
total.

What says nothing is blanked and not cut out, so that every place in the line stays true.
"""

import re

from rillstep.core.notation.labels import ORDINALS

# "R7/R8: ...", "R8-R18/R9-R21: ...": likewise.
_SLASH_WORDS = re.compile(
    r"^\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d+(?:\s*[-–/]\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d+){1,19}(?=\s*(?:[:.)]|"
    r"[-–]\s))",
    re.IGNORECASE,
)
# "R2-R20 [R26] [R32]:", "R10-R12 (R12-R14):"
_SET_WORDS = re.compile(
    r"^\s*(?:r|rn?ds?|rounds?|rows?)\.?\s{0,2}\d+(?:(?:[\s(),\[\]/–—-]{1,4}|\sto\s)(?:(?:r|"
    r"rn?ds?|rounds?|rows?)\.?\s{0,2})?\d+){1,39}[)\]]?(?=\s{0,3}:)",
    re.IGNORECASE,
)
# "Rnd 1 <tab> sc in each st around <tab> 24": the columns of a table.
_COLUMNS = re.compile(
    r"^(\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d[\d\s(),/–-]*?) ?(?:\t| \|)\s*(?!\d+\s*[|:.])(?=\S)", re.IGNORECASE
)
_LAST_COLUMN = re.compile(r"(?:\t| \|)(?=\s*\d[^\t|]*$)")
# "R7 (8, 9)-R20 (22, 24):": the second word of a range says nothing; it is blanked, so that columns stay true.
_RANGE_WORD = re.compile(
    r"^(\s*(?:r|rn?ds?|rounds?|rows?)\.?\s*\d[\d\s(),]*[-–—]\s*)(?:r|rn?ds?|rounds?|rows?)\.?\s*(?=\d)", re.IGNORECASE
)


# "**24 sc**" at the end of a line: a total that is marked as bold.
_BOLD = re.compile(r"\*\*(\d[^*]{0,60})\*\*(?=\s*$)")


def usual_form(text: str) -> str:
    """A line with its label in the usual form; any other line as it is."""
    text = _BOLD.sub(r" (\1) ", _numbers(text))
    return _RANGE_WORD.sub(lambda m: m[1] + " " * (len(m[0]) - len(m[1])), _columns(_one_word(text)), count=1)


def _numbers(text: str) -> str:
    """ "13th (15th, 17th) round:": ordinals in a set are numbers as any others."""
    if ORDINALS.match(text) is None:
        return text
    colon = text.index(":")
    return re.sub(r"(?<=\d)(?:st|nd|rd|th)\b", "  ", text[:colon], flags=re.IGNORECASE) + text[colon:]


def _one_word(text: str) -> str:
    """Words for rows after the first one in a label are blanked, so that columns stay true."""
    match = _SLASH_WORDS.match(text) or _SET_WORDS.match(text)
    if match is None:
        return text
    first = re.match(r"\s*[A-Za-z]+", text)
    start = first.end() if first is not None else 0
    told = re.sub(
        r"\bto\b|[A-Za-z.]", lambda letter: letter[0] if len(letter[0]) > 1 else " ", text[start : match.end()]
    )
    return text[:start] + told + text[match.end() :]


def _columns(text: str) -> str:
    """The columns of a table as a label, instructions and a total."""
    match = _COLUMNS.match(text)
    if match is None:
        return text
    text = text[: match.end(1)] + ":" + text[match.end(1) + 1 : match.end()].replace("|", " ") + text[match.end() :]
    return _LAST_COLUMN.sub(lambda m: "—".rjust(len(m[0])), text.rstrip(" |"), count=1)
