"""What the head of a text says of its hook and its yarn, in whatever words: to be taken over, never assumed."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from rillstep.core.gauge import hook_in
from rillstep.core.tree import Pattern

_NUMBER = r"(?<!\d)\d{1,5}(?:[.,]\d{1,3})?"
_HOOK = re.compile(
    rf"({_NUMBER})\s?mm\b[^.;,\n]{{0,30}}\bhooks?\b|\bhooks?\b[^.;,\n]{{0,25}}?({_NUMBER})\s?mm\b", re.IGNORECASE
)
_YARN = re.compile(
    r"\b(?:yarn|cotton|acrylic|wool|jute|raffia|linen|balls?|skeins?|worsted|chunky|aran|dk|\d[- ]?ply)\b",
    re.IGNORECASE,
)
_GRAMS = re.compile(r"\d\s?g\b", re.IGNORECASE)
# "(100 g = 110 m)", "(150 g, 470 m)", "50 g / 106 m".
_LABEL = re.compile(
    rf"({_NUMBER})\s?g(?:rams?)?\s?(?:=|,|/|per)\s?(?:about\s)?({_NUMBER})\s?m(?:et(?:re|er)s?)?\b", re.IGNORECASE
)
# Weight classes by the words that makers use for them, the more exact ones first.
_CLASSES = (
    (6, r"super[- ](?:chunky|bulky)|t-shirt yarn"),
    (7, r"jumbo"),
    (5, r"chunky|bulky"),
    (1, r"fingering|sock yarn|4[- ]?ply|super fine"),
    (3, r"\bdk\b|double knit\w*|8[- ]?ply|light worsted"),
    (2, r"\bsport\b|baby yarn|5[- ]?ply"),
    (4, r"worsted|\baran\b|10[- ]?ply|medium[- ]weight"),
    (0, r"\blace(?:weight)?\b"),
)
# What stands before the name of a yarn: how much of it there is.
_AMOUNT = re.compile(
    r"^(?:about\s+)?\d{1,5}(?:[.,]\d{1,3})?\s?(?:g|grams?|balls?|skeins?|m|metres)\b\s*(?:\([^)]*\)\s*)?(?:of\s+)?",
    re.IGNORECASE,
)
_MOST = 80


@dataclass(frozen=True)
class YarnSaid:
    """What a text says of its yarn. words: the line; name: what it calls it; weight_class: 0 to 7; grams and metres of
    a ball; None where it does not say."""

    words: str
    name: str
    weight_class: int | None = None
    grams_per_ball: float | None = None
    metres_per_ball: float | None = None


def hook_said_in(pattern: Pattern) -> float | None:
    """The hook that the head of a text names first, in mm: in its `Hook:` line, else in any other."""
    own = hook_in(dict(pattern.extra).get("Hook", ""))
    if own is not None:
        return own
    found = next((match for words in _head(pattern) if (match := _HOOK.search(words))), None)
    return float((found[1] or found[2]).replace(",", ".")) if found is not None else None


def yarn_said_in(pattern: Pattern) -> YarnSaid | None:
    """What the head of a text says of its yarn: in its `Yarn:` line, else in the first that names yarn and grams."""
    own = dict(pattern.extra).get("Yarn")
    words = own or next((one for one in _head(pattern) if _YARN.search(one) and _GRAMS.search(one)), None)
    if words is None:
        return None
    label = _LABEL.search(words)
    of_class = next((number for number, words_of in _CLASSES if re.search(words_of, words, re.IGNORECASE)), None)
    grams, metres = (_number(label[1]), _number(label[2])) if label is not None else (None, None)
    return YarnSaid(words, _name(words), of_class, grams, metres)


def _head(pattern: Pattern) -> Iterator[str]:
    yield from (words for _, words in pattern.extra)


def _name(words: str) -> str:
    """What a yarn is called: the first part of the words that names one, without how much of it there is."""
    parts = [_AMOUNT.sub("", part.strip()).removeprefix("of ") for part in re.split(r"[(),;.:]", words)]
    parts = [part for part in parts if part]
    return next((part for part in parts if _YARN.search(part)), parts[0] if parts else words.strip())[:_MOST]


def _number(words: str) -> float:
    return float(words.replace(",", "."))
