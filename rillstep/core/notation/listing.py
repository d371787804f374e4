"""Lists of abbreviations in one line: which of them define a stitch, or an abbreviation of the text's own."""

import re

from rillstep.core.findings import Finding
from rillstep.core.notation.header import KEYS, Header, define
from rillstep.core.notation.phrases import abbreviation_of
from rillstep.core.notation.renaming import own_abbreviation
from rillstep.core.stitches import Terms, stitch_words

MOST_LISTED = 40
LEAST_LISTED = 3
_OPENS = re.compile(r"\s{0,8}(?:[A-Za-z]{1,20} )?(?:abbreviations|stitches|key)(?: used)?\s{0,3}:", re.IGNORECASE)
_LISTED = re.compile(
    r"\s*(?:[A-Za-z][A-Za-z -]{0,40}?)\s*[(\[](?P<inside>[^()\[\]]{1,80})[)\]]\s*(?:[,;.]|and\b|$)", re.IGNORECASE
)
_EXPLAINED = re.compile(
    r"\W{0,3}(?P<name>[A-Za-z][\w -]{0,24}(?:\s?\([^()]{1,12}\))?)\s{0,3}(?:[:=]|\s[-–—]\s)\s{0,3}(?P<meaning>\S.*)"
)
# What a stitch of the pattern's own is made of, and no other name for it.
_MADE_OF = re.compile(
    r"^(?:[(\[]?\s{0,3}\d{1,3}\s{0,3}\w{1,20}\b.*\b(?:in|into)\b|[(\[][^()\[\]]*,.*\b(?:in|into)\b)", re.IGNORECASE
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


def take_definitions(head: Header, text: str, number: int, findings: list[Finding]) -> str:
    """A line of the head without what its list defines, which `head` takes: "sc: single crochet, V-st: (dc, ch 1, dc)
    in same st"."""
    opening = _OPENS.match(text)
    begin = opening.end() if opening is not None else 0
    rest, kept = begin, text[:begin]
    items = _explained(text, begin)
    for name, meaning in items:
        if _defines(name, meaning, len(items), head.terms) or _MADE_OF.match(meaning) is not None:
            continue
        if (short := abbreviation_of(name, meaning, head.terms)) is not None:
            head.phrases.append(short)
    for first, last in _defined(text, begin, head.terms):
        define(head, text[first:last], number, first, findings)
        kept, rest = kept + text[rest:first].rstrip(" ,;"), last
    return kept + text[rest:]


def _explained(text: str, begin: int) -> list[tuple[str, str]]:
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


def _defined(text: str, begin: int, terms: Terms) -> list[tuple[int, int]]:
    matches = [_EXPLAINED.fullmatch(text, first, last) for first, last in _items(text, begin)]
    if not all(matches):
        return []
    return [
        (match.start("name"), match.end())
        for match in matches
        if match is not None and _defines(match["name"], match["meaning"], len(matches), terms)
    ]


def _defines(name: str, meaning: str, items: int, terms: Terms) -> bool:
    if name.strip().lower() in KEYS:
        return False
    if own_abbreviation(name, meaning, terms) is not None:
        return True
    known = {*stitch_words(terms), "inc", "increase", "dec", "decrease"}
    return items >= LEAST_LISTED and _MADE_OF.match(meaning) is not None and name.strip().lower() not in known
