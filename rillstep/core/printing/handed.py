"""Wording for the left hand, where the text names a direction.

Instructions say "next" and "turn", which hold for both hands. Directions stand only in what is
kept as words (notes, asides, stitches defined in words); there left and right, and clockwise and
counter-clockwise, change places. The right and the wrong side of the fabric stay what they are.
"""

import re
from dataclasses import replace

from rillstep.core.tree import Gesture, Line, Pattern, Prose, Row, Setup, Special, Step

_WORDS = {
    "left": "right", "right": "left", "leftmost": "rightmost", "rightmost": "leftmost", "leftwards": "rightwards",
    "rightwards": "leftwards", "clockwise": "counter-clockwise", "counter-clockwise": "clockwise",
    "counterclockwise": "clockwise", "anti-clockwise": "clockwise", "anticlockwise": "clockwise",
}  # fmt: skip
# "left" and "right" that are no direction: the right side, sides together, what is left over, all right.
_DIRECTION = re.compile(
    r"\b(?:(?:counter|anti)-?clockwise|clockwise|(?:left|right)(?:most|wards)"
    r"|(?<!left )(?<!all )right(?!\s+(?:sides?|angles?|away|up)\b)"
    r"|(?<!is )(?<!are )(?<!sts )(?<!stitches )(?<!loops )(?<!yarn )left(?!\s*(?:over|free|"
    r"unworked|alone|for)\b)(?!-over))"
    r"(?![A-Za-z])",
    re.IGNORECASE,
)


def left_handed(pattern: Pattern) -> Pattern:
    """The pattern for left-handed makers. Done twice it gives the words back, but for the spelling of
    counter-clockwise."""
    return replace(
        pattern,
        sections=tuple(replace(s, lines=tuple(map(_line, s.lines))) for s in pattern.sections),
        extra=tuple((key, mirrored(text) if key == "Note" else text) for key, text in pattern.extra),
        specials=tuple(_special(special) for special in pattern.specials),
    )


def mirrored(words: str) -> str:
    """Words with their directions mirrored."""
    return _DIRECTION.sub(lambda match: _like(match[0], _WORDS[match[0].lower()]), words)


def _like(old: str, new: str) -> str:
    return new.capitalize() if old[:1].isupper() else new


def _line(line: Line) -> Line:
    if isinstance(line, Prose):
        return replace(line, text=mirrored(line.text))
    if isinstance(line, Row | Setup):
        return replace(line, steps=tuple(map(_step, line.steps)))
    return line


def _step(step: Step) -> Step:
    return replace(step, name=mirrored(step.name)) if isinstance(step, Gesture) and step.kind == "aside" else step


def _special(special: Special) -> Special:
    return special if special.steps else replace(special, words=mirrored(special.words))
