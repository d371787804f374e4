"""Headings that are made several times and have no rows of their own: their parts stand below them."""

import re

from rillstep.core.tree import Again, Pattern, Prose, Row

_MADE = re.compile(
    r"^[*_#\s]{0,6}(?P<title>[A-Z][\w' ]{0,40}?)\s*[(,–-]\s*make\s+(?:[2-9]|\d\d|two|three|four|six|eight)\b",
    re.IGNORECASE,
)


def counted_once(pattern: Pattern) -> tuple[str, ...]:
    """The titles of such headings, where a section follows: it is not told which of those that follow are their parts,
    so each of them is counted once."""
    found = []
    for section, following in zip(pattern.sections, pattern.sections[1:], strict=False):
        rows = any(isinstance(line, Row | Again) for line in section.lines)
        if max(section.make) > 1 and not rows and max(following.make) == 1:
            found.append(section.title)
        last = section.lines[-1] if section.lines else None
        if isinstance(last, Prose) and max(following.make) == 1 and (match := _MADE.match(last.text)) is not None:
            found.append(match["title"].strip())
    return tuple(dict.fromkeys(found))
