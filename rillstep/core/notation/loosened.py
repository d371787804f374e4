"""Loose spelling made plain, token by token, at one door: what is glued is cut apart, and what says nothing is left
out.

Every token keeps its place in the text, so findings still point at what was written.
"""

import re
from collections.abc import Sequence

from rillstep.core.findings import Span
from rillstep.core.notation.tokens import Token

_GLUED_CHAIN = re.compile(r"^(ch)(\d{1,3})(sps?|spaces?|lps?|loops?)?$")
_GLUED_SKIP = re.compile(r"^(sk|skip|miss)(\d{1,3})$")
_GLUED_ROW = re.compile(r"^(r|rnd|row|round)(\d{1,4})$")
_OTHER_NAMES = {
    "hk": "hook",
    "col": "colour",
    "rds": "rnds",
    "rpt": "rep",
    "reps": "rep",
    "rd": "rnd",
    "chsp": "sp",
    "foundtn": "foundation",
}
# Abbreviations with a full stop of their own: it ends no sentence.
_STOPPED = ("ea", "nxt", "foll", "beg", "prev", "rem", "cont", "tog")
_UNITS = ("st", "sts", "ch", "chs", "sp", "sps", "rnd", "row")
_GOES_ON = ("around", "across", "of", "to", "from", "and", "in")


def loosened(tokens: Sequence[Token]) -> tuple[Token, ...]:
    """The tokens of a line as the reader expects them."""
    found: list[Token] = []
    at = 0
    while at < len(tokens):
        token = tokens[at]
        before = found[-1] if found else None
        following = tokens[at + 1] if at + 1 < len(tokens) else None
        if token.is_mark(".") and before is not None and _no_stop(before, following):
            at += 1
            continue
        if token.kind == "word":
            found += _cut(token)
        else:
            found.append(token)
        at += 1
    return tuple(found)


def _no_stop(before: Token, following: Token | None) -> bool:
    if following is None or following.kind not in ("word", "num"):
        return False
    return before.is_word(*_STOPPED) or (before.is_word(*_UNITS) and following.is_word(*_GOES_ON))


def _cut(token: Token) -> list[Token]:
    """ "ch3" is "ch 3", "ch1sp" is "ch 1 sp"; other names become the usual one."""
    row = _GLUED_ROW.match(token.text) or _GLUED_SKIP.match(token.text)
    if row is not None:
        return _two(token, row[1], row[2])
    glued = _GLUED_CHAIN.match(token.text)
    if glued is None:
        name = _OTHER_NAMES.get(token.text)
        return [token if name is None else Token("word", name, token.span)]
    line, column = token.span.line, token.span.column
    word, number, space = glued.groups()
    middle = column + len(word)
    digits = Span(line, middle, middle + len(number))
    pieces = [Token("word", word, Span(line, column, middle)), Token("num", number, digits, ((float(number), digits),))]
    if space:
        pieces.append(Token("word", "sp", Span(line, digits.end_column, token.span.end_column)))
    return pieces


def _two(token: Token, word: str, number: str) -> list[Token]:
    line, column = token.span.line, token.span.column
    digits = Span(line, column + len(word), token.span.end_column)
    return [
        Token("word", word, Span(line, column, column + len(word))),
        Token("num", number, digits, ((float(number), digits),)),
    ]
