"""Colours of rows that are worked again: "Rep Rows 2-5 in the same colours"."""

from rillstep.core.notation.asides import keep
from rillstep.core.notation.stream import Stream
from rillstep.core.notation.whats import ROWS

_ROWS = (*ROWS, "r")
_OF_COLOURS = (
    "working", "alternating", "changing", "using", "in", "with", "of", "colour", "colours", "color", "colors",
    "and", "then", "each", "every", "the", "yarn", "mc", "cc", "stripes",
               "as", "before", "same", "sequence", "order", "between", "to", "carrying", "two", "both", "at", "end",
               "these", *_ROWS)  # fmt: skip


def in_colours(stream: Stream) -> None:
    """ ", working 2 rows in B, 2 rows in C and 2 rows in A": the colours of rows that are repeated, up to how often
    they are."""
    start = stream.at
    if (
        stream.number() is not None
        and stream.word(*_ROWS)
        and stream.word("in", "with", "of")
        and stream.word("colour", "color", "a", "b", "mc", "cc")
    ):
        stream.at = start
        if keeps_colours(stream):  # "4 rows with colour 1 and 2 rows with colour 2"
            return
    stream.at = start
    if stream.word("working", "alternating", "changing", "using", "in") and not stream.sees("pattern"):
        stream.at = start
        if not keeps_colours(stream):
            stream.at = start


def keeps_colours(stream: Stream) -> bool:
    """Words of nothing but colours and how many rows each has, kept; up to "until", or to the end of the clause."""
    start = stream.at
    while (token := stream.peek()) is not None and (
        token.is_word(*_OF_COLOURS)
        or token.kind == "num"
        or token.is_mark(",", "-", "/")
        or (token.kind == "word" and len(token.text) == 1)
    ):
        stream.next()
    if stream.at == start or not (
        token is None or token.is_word("until", "till", "for") or token.is_mark(".", ";", ")")
    ):
        return False
    named = any(
        t.is_word("colour", "colours", "color", "colors", "mc", "cc", "yarn", "stripes")
        or (t.kind == "word" and len(t.text) == 1)
        for t in stream.tokens[start : stream.at]
    )
    if named:
        stream.count(start)
        keep(stream, start)
    return named
