"""Lists of abbreviations and stitches in the head: which of their items define something."""

import re

from rillstep.core.craft import Terms, stitch_words
from rillstep.core.notation.definitions import own_abbreviation
from rillstep.core.wordlists import word_list

KEYS = word_list("pattern terms sizes units gauge yarn hook define number colour note finished kit means")
MOST_LISTED = 40


LEAST_LISTED = 3


_LISTED = re.compile(
    r"\s*(?:[A-Za-z][A-Za-z -]{0,40}?)\s*[(\[](?P<inside>[^()\[\]]{1,80})[)\]]\s*(?:[,;.]|and\b|$)", re.IGNORECASE
)


_EXPLAINED = re.compile(
    r"\W{0,3}(?P<name>[A-Za-z][\w -]{0,24}(?:\s?\([^()]{1,12}\))?)\s{0,3}(?:[:=]|\s[-–—]\s)\s{0,3}(?P<meaning>\S.*)"
)


# What a stitch of the pattern's own is made of, and no other name for it.
MADE_OF = re.compile(
    r"^(?:\s{0,3}[a-z]{2,4}\d{1,2}tog\s(?:all\s)?(?:in|into)\b|[(\[]?\s{0,3}\d{1,3}\s{0,3}\w{1,20}\b.*\b(?:in|into)\b|"
    r"[(\[][^()\[\]]*,.*\b(?:in|into)\b)",
    re.IGNORECASE,
)


def listed(value: str) -> list[tuple[int, int]] | None:
    """ "chain (ch), increase (inc = 2 hdc in one st)": where stitches are defined in a list of abbreviations; None
    for anything else."""
    found: list[tuple[int, int]] = []
    at = 0
    for count in range(MOST_LISTED):
        match = _LISTED.match(value, at)
        if match is None or match.end() == at:
            return None
        if "=" in match["inside"]:
            found.append(match.span("inside"))
        at = match.end()
        if not value[at:].strip():
            return found if count else None
    return None


def explained(text: str, begin: int) -> list[tuple[str, str]]:
    """The items of a list of abbreviations, each with its meaning; none where something else is listed."""
    matches = [_EXPLAINED.fullmatch(text, first, last) for first, last in _items(text, begin)]
    return [(match["name"], match["meaning"]) for match in matches if match is not None] if all(matches) else []


def _items(text: str, begin: int) -> list[tuple[int, int]]:
    items: list[tuple[int, int]] = []
    depth, start = 0, begin
    for at in range(begin, len(text) + 1):
        letter = text[at] if at < len(text) else ","
        depth += (letter in "([") - (letter in ")]")
        if letter in ",;" and depth < 1:
            items.append((start, at))
            start = at + 1
    return items[:MOST_LISTED]


def defined_in(text: str, begin: int, terms: Terms) -> list[tuple[int, int]]:
    """Where each of the items stands that define something; none where something else is listed."""
    matches = [_EXPLAINED.fullmatch(text, first, last) for first, last in _items(text, begin)]
    if not all(matches):
        return []
    return [
        (match.start("name"), match.end())
        for match in matches
        if match is not None and defines(match["name"], match["meaning"], len(matches), terms)
    ]


def defines(name: str, meaning: str, items: int, terms: Terms) -> bool:
    """Does an item of a list define a name of the text's own, and tell no known one?"""
    if name.strip().lower() in KEYS:
        return False
    if own_abbreviation(name, meaning, terms) is not None:
        return True
    known = {*stitch_words(terms), "inc", "increase", "dec", "decrease"}
    return items >= LEAST_LISTED and MADE_OF.match(meaning) is not None and name.strip().lower() not in known
