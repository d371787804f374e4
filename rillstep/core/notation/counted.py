"""What a sentence says of chains that begin a row: "Turning chains do not count as stitches.", "The ch-3 counts as a dc throughout."

It holds for the rows after it as if it stood in brackets behind the first such chain of each section.
"""

import re
from dataclasses import dataclass, replace
from functools import lru_cache

from rillstep.core.notation.lexer import plain
from rillstep.core.notation.tree import Chain, Gesture, Line, Row
from rillstep.core.stitches import BY_US, Terms, basic, stitch_words

_SUBJECT = (
    r"(?:(?:turning|beginning|starting|initial|beg|start)\s+(?:chains?|chs?)\b(?:[- ]?(?P<a>\d))?|\bch(?:ain)?[- ]?(?P<b>\d)\b|\b(?P<c>\d)[- ]?ch(?:ain)?\b"
    r"|\bch(?:ain)?s?\s+at\s+(?:the\s+)?(?:start|beginning|end)\b)"
)
_SAYS = re.compile(
    rf"{_SUBJECT}(?:[^.;:()]|\([^()]*\)){{0,90}}?\b(?:(?P<no>(?:do(?:es)?\s*(?:not|n't)|never|not)\s*counts?|(?:is|are)\s*(?:not|n't)\s+counted)"
    r"|counts?\s+as\s+(?:(?:a|an|one|the|1|your|first|1st)\s+)*(?P<stitch>[a-z]+(?: [a-z]+)*))",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class ChainSaid:
    """length: of the chain, None for any; counts: "none", or the stitch that it counts as ("st": whatever the row is worked in)."""

    length: int | None
    counts: str


@lru_cache(maxsize=2048)
def said_of_chains(text: str, terms: Terms) -> tuple[ChainSaid, ...]:
    """What a line of words says; nothing for any other line."""
    words = stitch_words(terms)
    found: list[ChainSaid] = []
    for match in _SAYS.finditer(plain(text)):
        number = match["a"] or match["b"] or match["c"]
        length = int(number) if number else None
        if match["no"]:
            found.append(ChainSaid(length, "none"))
        elif (counts := _stitch(match["stitch"].lower(), words)) is not None:
            found.append(ChainSaid(length, counts))
    return tuple(found)


def only_tells(text: str) -> bool:
    """Does a line begin with what it says of chains, so that it works nothing itself?"""
    return _SAYS.match(plain(text).strip().removeprefix("The ").removeprefix("the ")) is not None


def _stitch(named: str, words: dict[str, str]) -> str | None:
    parts = named.split()
    for take in range(len(parts), 0, -1):
        us = words.get(" ".join(parts[:take]))
        if us is not None:
            return us
    return "st" if parts[0] in ("st", "stitch", "stitches", "sts") else None


def with_said(lines: list[Line], said: list[ChainSaid]) -> list[Line]:
    """The lines of a section with what was said put to the first row that each of it is about."""
    lines = list(lines)
    for one in said:
        for at, line in enumerate(lines):
            if not isinstance(line, Row) or (place := _unsaid(line, one)) is None:
                continue
            chain = line.steps[place]
            assert isinstance(chain, Chain)
            steps = (*line.steps[:place], replace(chain, counts=one.counts), *line.steps[place + 1 :])
            lines[at] = replace(line, steps=steps)
            if one.length is not None:
                break
    return lines


def _unsaid(row: Row, said: ChainSaid) -> int | None:
    """Where in a row the chain stands that begins it, when that is one of those meant and the row does not say it itself."""
    place = next((i for i, step in enumerate(row.steps) if not isinstance(step, Gesture)), len(row.steps))
    chain = row.steps[place] if place < len(row.steps) else None
    if not isinstance(chain, Chain) or chain.counts is not None:
        return None
    lengths = {value for value in chain.length.values if value is not None}
    if len(lengths) != 1 or (length := lengths.pop()) < 2:
        return None
    height = basic(said.counts).turning_chain if said.counts in BY_US else length
    wanted = said.length if said.length is not None else height
    return place if length == wanted and place + 1 < len(row.steps) else None
