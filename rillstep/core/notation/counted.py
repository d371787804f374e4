"""What a sentence says of chains that begin a row: "Turning chains do not count as stitches.", "The ch-3 counts as a
dc throughout."

It holds for the rows after it as if it stood in brackets behind the first such chain of each section.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from rillstep.core.craft import BY_US, Terms, basic, long_names, stitch_words
from rillstep.core.memory import remember
from rillstep.core.tree import Chain, FromHook, Gesture, Line, Pattern, Row
from rillstep.core.wordlists import phrase_list
from rillstep.core.words.tokens import plain

_SUBJECT = (
    r"(?:(?:turning|beginning|starting|initial|beg|start)\s+(?:chains?|chs?)\b(?:[- ]?(?P<a>\d))?|"
    r"\bch(?:ain)?[- ]?(?P<b>\d)\b|\b(?P<c>\d)[- ]?ch(?:ain)?\b"
    r"|\bch(?:ain)?s?\s+at\s+(?:the\s+)?(?:start|beginning|end)\b)"
)
_SAYS = re.compile(
    rf"{_SUBJECT}(?:[^.;:()]|\([^()]*\)){{0,90}}?\b(?:(?P<no>(?:do(?:es)?\s*(?:not|n't)|"
    rf"never|not)\s*counts?|(?:is|are)\s*(?:not|n't)\s+counted)"
    r"|(?:counts?\s+as|=)\s+(?:(?:a|an|one|the|1|your|first|1st)\s+)*(?P<stitch>[a-z]+(?: [a-z]+)*))",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class ChainSaid:
    """length: of the chain, None for any; counts: "none", or the stitch that it counts as ("st": whatever the row is
    worked in)."""

    length: int | None
    counts: str


@remember(2048)
def said_of_chains(text: str, terms: Terms) -> tuple[ChainSaid, ...]:
    """What a line of words says; nothing for any other line."""
    found: list[ChainSaid] = []
    for match in _SAYS.finditer(plain(text)):
        number = match["a"] or match["b"] or match["c"]
        length = int(number) if number else None
        if match["no"]:
            found.append(ChainSaid(length, "none"))
        elif (counts := stitch_named(match["stitch"].lower().split(), terms)) is not None:
            found.append(ChainSaid(length, counts))
    return tuple(found)


_ABBREVIATION = re.compile(
    r"^\W*(?P<short>[A-Za-z][\w/]{0,9}(?:[ -][A-Za-z]\w{0,5}){0,2}(?:\([^()]{1,6}\))?)\s*(?:=|"
    r":|\s[-–—]\s|\t)\s*(?P<long>[A-Za-z][A-Za-z /()'-]{1,60}?)\.?$"
)
_MEANS = re.compile(r"^\W*(?:inc|dec|invdec|increase|decrease)\s*(?:=|:|\s[-–—]\s)\s*\S.{0,80}$", re.IGNORECASE)
_ABBREVIATED = phrase_list(
    "ch | chs | st | sts | sk | sp | sps | rep | rnd | rnds | beg | rs | ws | rs/ws | tog | yo | yoh | "
    "inc | dec | blo | flo | lp | lps | mm | cm | pm | mr | fo | prev | rem | cont | patt | foll | ss | "
    "slst | sl st | cc | mc | bl | fl | m | approx | alt | ch sp | ch-sp"
)


def explains_abbreviation(text: str, terms: Terms) -> bool:
    """ "ch - chain", "RS/WS = right side/wrong side": a line of a list of abbreviations, and no row."""
    match = _ABBREVIATION.match(text)
    if match is None:
        return _MEANS.match(text) is not None  # "INC: increase: 2 dc in the same stitch"
    short = " ".join(re.sub(r"\([^()]*\)", "", match["short"]).lower().split())
    return short in _ABBREVIATED or short in stitch_words(terms)


def only_tells(text: str) -> bool:
    """Does a line begin with what it says of chains, so that it works nothing itself?"""
    return _SAYS.match(plain(text).strip().removeprefix("The ").removeprefix("the ")) is not None


def stitch_named(named: list[str], terms: Terms) -> str | None:
    """The stitch that some words begin with: its long name, or its short one; "st" for a stitch of whatever kind."""
    for words, name in long_names(terms).get(named[0], ()):
        if tuple(named[: len(words)]) == words:
            return name
    return stitch_words(terms).get(named[0]) or (
        "st" if named[0] in ("st", "stitch", "stitches", "sts", "one") else None
    )


def as_noted(pattern: Pattern, terms: Terms) -> Pattern:
    """The pattern with what its notes, written in these terms, say of chains put to the rows that they are about."""
    said = [one for _, text in pattern.extra for one in said_of_chains(text, terms)]
    sections = tuple(replace(s, lines=tuple(with_said(s.lines, said))) for s in pattern.sections)
    return replace(pattern, sections=sections)


def with_said(lines: Sequence[Line], said: Sequence[ChainSaid]) -> list[Line]:
    """The lines of a section with what was said put to the first row that begins with such a chain, unless one before
    says it."""
    changed = list(lines)
    if not said:
        return changed
    known: set[int] = set()
    for at, line in enumerate(lines):
        place = _starts_with_chain(line)
        if place is None:
            continue
        assert isinstance(line, Row)
        chain = line.steps[place]
        assert isinstance(chain, Chain)
        # A length that differs in one size is a slip there, and no reason to know nothing of the others.
        lengths = {value for value in chain.length.values if value is not None}
        counts = next((one.counts for one in said if any(_is_about(one, length) for length in lengths)), None)
        if chain.counts is None and not lengths <= known and counts is not None:
            steps = (*line.steps[:place], replace(chain, counts=counts), *line.steps[place + 1 :])
            changed[at] = replace(line, steps=steps)
        if chain.counts is not None or counts is not None:
            known |= lengths
    return changed


def _is_about(said: ChainSaid, length: int) -> bool:
    height = basic(said.counts).turning_chain if said.counts in BY_US else length
    return length == (said.length if said.length is not None else height)


def _starts_with_chain(line: Line) -> int | None:
    """Where in a row the chain stands that begins it, one that is long enough to be a stitch; None for any other
    line."""
    if not isinstance(line, Row):
        return None
    place = next((i for i, step in enumerate(line.steps) if not isinstance(step, Gesture)), len(line.steps))
    chain = line.steps[place] if place + 1 < len(line.steps) else None
    if not isinstance(chain, Chain) or isinstance(getattr(line.steps[place + 1], "into", None), FromHook):
        return None  # a chain that is worked into itself is the foundation
    lengths = {value for value in chain.length.values if value is not None}
    return place if lengths and min(lengths) > 1 else None
