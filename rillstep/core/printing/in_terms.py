"""Words that are kept, in the other terms: "dc through both layers" of a UK text is "sc through both layers" in US."""

import re
from dataclasses import replace
from functools import cache

from rillstep.core.craft import SL_ST, STITCHES, Terms
from rillstep.core.tree import Check, Line, Pattern, Prose


def in_terms(pattern: Pattern, terms: Terms) -> Pattern:
    """The pattern with the stitches that its words name called as in other terms; the same object in its own. The steps
    name no terms, and are written in any."""
    if pattern.terms == terms:
        return pattern
    sections = tuple(
        replace(section, lines=tuple(_line(line, pattern.terms) for line in section.lines))
        for section in pattern.sections
    )
    extra = tuple((key, translated(text, pattern.terms) if key == "Note" else text) for key, text in pattern.extra)
    return replace(pattern, sections=sections, extra=extra)


def _line(line: Line, terms: Terms) -> Line:
    if isinstance(line, Prose):
        return replace(line, text=translated(line.text, terms))
    if isinstance(line, Check) or not line.kept:
        return line
    return replace(line, kept=tuple(replace(one, words=translated(one.words, terms)) for one in line.kept))


def translated(words: str, terms: Terms) -> str:
    """Words in terms, in the other ones; capitals at the beginning of a name stay."""
    names = _names(terms)

    def other(match: re.Match[str]) -> str:
        found = names[" ".join(match[1].lower().split())]
        return (found[:1].upper() + found[1:] if match[1][:1].isupper() else found) + match[2]

    return _pattern(terms).sub(other, words)


@cache
def _names(terms: Terms) -> dict[str, str]:
    """Every name of a stitch in terms, with what it is called in the other ones."""
    found: dict[str, str] = {}
    for stitch in STITCHES:
        if stitch is SL_ST:
            continue
        short, long = (stitch.us, stitch.us_name) if terms == "US" else (stitch.uk, stitch.uk_name)
        to_short, to_long = (stitch.uk, stitch.uk_name) if terms == "US" else (stitch.us, stitch.us_name)
        found |= {short: to_short, long: to_long}
        for post in ("fp", "bp") if " " not in short else ():
            found[post + short] = post.upper() + to_short
        if long.endswith("treble crochet"):
            found.setdefault(long.removesuffix(" crochet"), to_long)
    return found


@cache
def _pattern(terms: Terms) -> re.Pattern[str]:
    names = sorted(_names(terms), key=len, reverse=True)
    words = "|".join(re.escape(name).replace(r"\ ", r"\s+") for name in names)
    return re.compile(rf"(?<![\w-])({words})((?:\d*tog)?s?)(?![\w])", re.IGNORECASE)
