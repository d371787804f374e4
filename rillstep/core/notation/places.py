"""Where a hook goes, as read from text: "in each of next 3 sts", "in each st and ch around"."""

from collections.abc import Callable

from rillstep.core.findings import Span
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import (
    Every,
    FromHook,
    InRing,
    Into,
    Last,
    Next,
    Num,
    Same,
    ToEnd,
    What,
)

STITCHES = What("st")
CHAINS = What("ch")
STITCHES_AND = {"ch": What("st and ch"), "sp": What("st and sp")}


def plain_num(stream: Stream, value: int, span: Span | None = None) -> Num:
    """A number that is not written, or is written once: the same in every size in force."""
    keep = set(stream.context.active)
    values = tuple(value if i in keep else None for i in range(stream.context.n_sizes))
    at = span or Span(stream.here().line, 1, 1)
    return Num(values, at, (span,) if span else ())


def read_what(stream: Stream) -> What | None:
    """ "sts", "ch", "ch-3 sp", "st and ch"; None when no place is named."""
    if stream.word("st", "sts", "stitch", "stitches", "st(s)"):
        start = stream.at
        if stream.word("and"):
            stream.word("each")
            if stream.word("sp", "sps", "space", "spaces"):
                return STITCHES_AND["sp"]
            if stream.word("ch", "chs", "chain", "chains"):
                return STITCHES_AND["ch"]
            stream.at = start
        return STITCHES
    if stream.word("sp", "sps", "space", "spaces"):
        return What("sp")
    if stream.word("ch", "chs", "chain", "chains"):
        return _chain_or_space(stream)
    return None


def _chain_or_space(stream: Stream) -> What:
    start = stream.at
    stream.mark("-")
    length = stream.number()
    if length is not None:
        stream.mark("-")
        if stream.word("sp", "sps", "space", "spaces"):
            return What("sp", length)
    stream.at = start
    return What("sp") if stream.word("sp", "sps", "space", "spaces") else CHAINS


def read_end(stream: Stream) -> ToEnd | None:
    """ "around", "across", "to last 3 sts"; None when no end is named."""
    if stream.word("around"):
        return ToEnd("around")
    if stream.word("across"):
        return ToEnd("across")
    if stream.words("to", "last"):
        number = stream.number() or plain_num(stream, 1)
        read_what(stream)
        return ToEnd("last", number)
    return None


def _what_or_stitch(stream: Stream, stitch_word: Callable[[Stream], str | None]) -> What:
    what = read_what(stream)
    if what is not None:
        return what
    if stitch_word(stream) is not None:  # "in each sc around": any stitch of the row before
        return STITCHES
    raise NotUnderstood(stream.here(), "where to work it is missing")


def read_into(stream: Stream, stitch_word: Callable[[Stream], str | None]) -> Into:
    """What follows "in". Raises NotUnderstood."""
    stream.word("the")
    if stream.word("ring"):
        return InRing()
    if stream.word("same"):
        return Same(_what_or_stitch(stream, stitch_word))
    if stream.word("last"):
        return Last(_what_or_stitch(stream, stitch_word))
    if stream.word("next"):
        return _read_next(stream, stitch_word)
    if stream.word("each"):
        stream.word("of")
        stream.word("the")
        if stream.word("next"):
            return _read_next(stream, stitch_word)
        what = _what_or_stitch(stream, stitch_word)
        end = read_end(stream)
        if end is None:
            raise NotUnderstood(stream.here(), "“around”, “across” or another end is missing")
        return Every(what, end)
    token = stream.peek()
    if token is not None and token.kind == "ordinal":
        return _read_from_hook(stream, stitch_word)
    raise NotUnderstood(stream.here(), "where to work it is missing")


def _read_next(stream: Stream, stitch_word: Callable[[Stream], str | None]) -> Next:
    number = stream.number() or plain_num(stream, 1)
    return Next(number, _what_or_stitch(stream, stitch_word))


def _read_from_hook(stream: Stream, stitch_word: Callable[[Stream], str | None]) -> FromHook:
    token = stream.next()
    digits = token.text[:-2]
    span = Span(token.span.line, token.span.column, token.span.end_column - 2)
    if not (stream.word("ch", "chain") and stream.words("from", "hook")):
        raise NotUnderstood(stream.here(), "“ch from hook” is missing")
    counts: str | None = None
    start = stream.at
    if stream.mark("(") and stream.words("skipped", "ch"):
        if not (stream.words("count", "as") or stream.words("counts", "as")):
            raise NotUnderstood(stream.here(), "what the skipped chains count as is missing")
        counts = stitch_word(stream)
        if counts is None or not stream.mark(")"):
            raise NotUnderstood(stream.here(), "a “)” is missing")
    else:
        stream.at = start
    return FromHook(plain_num(stream, int(digits), span), counts)
