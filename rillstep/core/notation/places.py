"""Where a stitch goes: "in next 2 sts", "in each of next 3 sts", "in each st and ch around", "in top of turning ch"."""

from dataclasses import replace

from rillstep.core.findings import Span
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import (
    Every,
    FromHook,
    InRing,
    Into,
    Last,
    Loops,
    Marked,
    Next,
    Nth,
    Num,
    Same,
    ToEnd,
    What,
)
from rillstep.core.notation.vocabulary import sees_stitch, stitch_word
from rillstep.core.stitches import Loop

STITCHES = What("st")
CHAINS = What("ch")

STITCH = ("st", "sts", "stitch", "stitches", "st(s)", "stich", "stiches")
SPACE = ("sp", "sps", "space", "spaces", "sp(s)", "loop", "loops", "lp", "lps", "arch", "arches", "gap", "gaps")
CHAIN = ("ch", "chs", "chain", "chains", "ch(s)")
NEXT = ("next", "nxt", "following", "foll")
_ROW = ("row", "rows", "rnd", "rnds", "round", "rounds")
_BEGINNING = ("turning", "starting", "beginning", "beg", "start", "initial", "first")


def plain_num(stream: Stream, value: int, span: Span | None = None) -> Num:
    """A number that is not written, or is written once: the same in every size in force."""
    keep = set(stream.context.active)
    values = tuple(value if i in keep else None for i in range(stream.context.n_sizes))
    at = span or Span(stream.here().line, 1, 1)
    return Num(values, at, (span,) if span else ())


def read_what(stream: Stream) -> What | None:
    """ "sts", "ch", "ch-3 sp", "st and ch", "corner sp", "dc", "row ends"; None when no place is named."""
    start = stream.at
    corner = stream.word("corner", "corners")
    stream.word("unworked", "remaining", "rem", "free", "skipped")
    what = _row_end(stream) or _stitch_or_chain(stream)
    if what is None and corner:
        return What("st and sp", corner=True)
    if what is None:
        stream.at = start
        return None
    return replace(what, corner=True) if corner and what.kind in ("st", "sp") else what


def _row_end(stream: Stream) -> What | None:
    if stream.words("row", "end") or stream.words("row", "ends") or stream.words("row-end"):
        return What("end")
    if stream.any_of(
        "end of row", "end of each row", "end of rows", "ends of rows", "ends of each row", "end of every row"
    ):
        return What("end")
    return What("end") if stream.any_of("side of row", "side of each row", "sides of rows") else None


def _stitch_or_chain(stream: Stream) -> What | None:
    if stream.word(*STITCH):
        return _and(stream, What("st"))
    if stream.word(*SPACE):
        return _and(stream, What("sp"))
    if stream.word(*CHAIN):
        return _and(stream, _chain_or_space(stream))
    stitch = stitch_word(stream)
    if stitch is not None:
        if stream.word(*SPACE):
            return What("sp")
        stream.word(*STITCH)
        return _and(stream, What("st", stitch=stitch))
    return None


def _and(stream: Stream, first: What) -> What:
    """ "st and ch", "dc and ch-1 sp": two kinds taken as they come."""
    start = stream.at
    if not (stream.word("and", "or") or stream.mark("&", "/")):
        return first
    stream.word("in")
    stream.word("each", "every")
    token = stream.peek()
    second = None
    if token is not None and token.is_word(*STITCH, *SPACE, *CHAIN):
        second = _chain_or_space(stream) if stream.word(*CHAIN) else What("st") if stream.word(*STITCH) else None
        if second is None and stream.word(*SPACE):
            second = What("sp")
    kinds = {first.kind, second.kind if second else ""}
    if kinds == {"st", "sp"}:
        length = first.length or (second.length if second else None)
        return What("st and sp", length)
    if kinds == {"st", "ch"}:
        return What("st and ch")
    stream.at = start
    return first


def _chain_or_space(stream: Stream) -> What:
    start = stream.at
    stream.mark("-")
    length = stream.number()
    if length is not None:
        stream.mark("-")
        stream.word("corner")
        if stream.word(*SPACE):
            return What("sp", length)
        token = stream.peek()
        if token is None or not token.is_word("from"):
            return What("sp", length)
    stream.at = start
    stream.mark("-")
    if stream.word(*SPACE):
        return What("sp")
    stream.at = start
    return CHAINS


_ALONG = (
    "the row", "row", "the side", "side", "the foundation chain", "foundation chain", "foundation ch", "foundation edge",
    "foundation", "the edge", "edge", "the top", "the chain", "row ends", "the row ends",
)  # fmt: skip


def read_end(stream: Stream) -> ToEnd | None:
    """ "around", "across", "to last 3 sts", "to marker"; None when no end is named."""
    stream.mark(",")
    stream.word("all", "even", "evenly")
    if stream.word("around", "round"):
        return _last_of(stream) or ToEnd("around")
    if stream.word("across", "along"):
        stream.any_of(*_ALONG)
        if stream.words("to", "end"):
            return ToEnd("across")
        return _last_of(stream) or ToEnd("across")
    if stream.any_of("to the end of the row", "to the end of the rnd", "to the end of the round", "to end of the row"):
        return ToEnd("across")
    if stream.any_of(
        "to end of row", "to end of rnd", "to end of round", "to the end", "to end", "until end", "until the end"
    ):
        stream.any_of("of row", "of rnd", "of round", "of the rnd", "of the round", "of the row")
        return ToEnd("across")
    return _last_of(stream)


def _last_of(stream: Stream) -> ToEnd | None:
    start = stream.at
    if not (stream.word("to", "until", "till") or stream.words("up", "to")):
        return None
    stream.word("within")
    stream.word("the")
    if stream.word("last", "final"):
        last = stream.number() or plain_num(stream, 1)
        what = read_what(stream)
        stream.any_of("remain", "remains", "rem", "remaining", "before marker", "of row", "of rnd", "of round")
        return ToEnd("last", last, "", what if what is not None and what != STITCHES and not what.stitch else None)
    number = stream.number()
    if number is not None and stream.word(*STITCH):
        if stream.any_of(
            "remain", "rem", "remains", "are left", "left", "before end", "before the end", "from end", "from the end"
        ):
            return ToEnd("last", number)
    elif number is None:
        marker = read_marker(stream)
        if marker is not None:
            return ToEnd("marker", None, marker)
        stream.word("next")
        if stream.word("corner"):
            named = read_what(stream)
            what = What("st and sp", corner=True) if named is None else replace(named, corner=True)
            return ToEnd("last", None, "", what)
    stream.at = start
    return None


def read_marker(stream: Stream) -> str | None:
    """ "marker", "marker A", "first marker", "marked st", "st with marker A"; the answer is its name, "" for the next one."""
    start = stream.at
    stream.word("the", "next", "first", "a")
    if stream.word("marked"):
        stream.word(*STITCH, *CHAIN, *SPACE)
        return ""
    stream.any_of("st with the", "st with", "stitch with the", "stitch with", "st with a")
    if stream.word("marker", "m", "sm", "pm", "markers"):
        return _marker_name(stream)
    stream.at = start
    return None


def _marker_name(stream: Stream) -> str:
    token = stream.peek()
    if token is not None and token.kind == "word" and len(token.text) == 1 and token.text not in ("x",):
        stream.at += 1
        return token.text.upper()
    return ""


def what_or_stitch(stream: Stream) -> What:
    """The place named; raises NotUnderstood when there is none."""
    what = read_what(stream)
    if what is not None:
        return what
    raise NotUnderstood(stream.here(), "where to work it is missing")


def read_loop(stream: Stream) -> Loop | None:
    """ "BLO", "back loops only", "the front loop of", "back bar of"; None when no loop is named."""
    start = stream.at
    stream.word("in", "through", "into")
    stream.word("the")
    loop: Loop | None = None
    if stream.word("blo", "bl", "tbl") or stream.words("b", "l", "o"):
        loop = "back"
    elif stream.word("flo", "fl", "tfl"):
        loop = "front"
    elif stream.any_of(
        "back bar", "back bars", "third loop", "third loops", "3rd loop", "3rd loops", "back hump", "back humps"
    ):
        loop = "third"
    elif stream.word("back", "front") and stream.word("loop", "loops", "lp", "lps", "loop(s)"):
        loop = "back" if any(t.is_word("back") for t in stream.tokens[start : stream.at]) else "front"
    if loop is None:
        token = stream.peek()
        ordinal = token is not None and token.kind == "ordinal" and token.text == "3rd"
        stream.at = start
        if ordinal and (following := stream.peek(1)) is not None and following.is_word("loop", "loops", "lp", "lps"):
            stream.at += 2
            return "third"
        return None
    stream.word("only")
    return loop


def read_into(stream: Stream) -> tuple[Into, Loop | None]:
    """What follows "in", "into", "around"; the loop too, where one is named. Raises NotUnderstood."""
    loop = read_loop(stream)
    if loop is not None:
        stream.word("of", "in")
        found = _loops(stream, loop)
        if found is not None:
            return found, loop
    stream.any_of(
        "the back bump of", "back bump of", "the back bumps of", "back bumps of", "the bottom of", "bottom of"
    )
    stream.any_of(
        "the back bump", "back bump", "back bumps", "the post of", "post of", "the body of", "the top of", "base of"
    )
    into = _place(stream)
    _qualifiers(stream)
    later = read_loop(stream)
    return into, loop or later


def _loops(stream: Stream, loop: Loop) -> Loops | None:
    """ "front loops of Rnd 6": loops left free earlier."""
    start = stream.at
    count = None
    if stream.word("each", "every"):
        pass
    elif stream.word("next"):
        count = stream.number() or plain_num(stream, 1)
        stream.word(*STITCH)
    stream.word("st", "sts")
    stream.any_of("on", "of", "from", "in")
    word = stream.peek()
    if word is not None and word.is_word(*_ROW):
        stream.at += 1
        number = stream.number()
        if number is not None:
            return Loops(loop, "Rnd" if word.text.startswith(("rn", "rou")) else "Row", number, count)
    stream.at = start
    return None


def _place(stream: Stream) -> Into:
    stream.word("the")
    stream.word("the", "your")
    if stream.any_of(
        "ring", "center of ring", "centre of ring", "center of the ring", "magic ring", "mr", "center ring", "loop"
    ):
        return InRing()
    if stream.word("same"):
        return _same(stream)
    token = stream.peek()
    if token is not None and token.kind == "ordinal":
        return _ordinal(stream)
    if stream.word("last", "final"):
        return Last(what_or_stitch(stream))
    if stream.any_of("top of", "3rd ch of"):
        return _top_of_chain(stream)
    marker = read_marker(stream)
    if marker is not None:
        return Marked(marker)
    if stream.word("first"):
        return Nth(plain_num(stream, 1), _beginning_chain(stream) or what_or_stitch(stream))
    if stream.word(*NEXT):
        return _next(stream)
    if stream.word("each", "every", "all", "ea"):
        return _each(stream)
    if stream.any_of("rem", "remaining"):
        return _remaining(stream)
    if stream.any_of("center", "centre", "middle"):
        return Next(plain_num(stream, 1), replace(what_or_stitch(stream), corner=True))
    number = stream.number()
    if number is not None:
        return Next(number, what_or_stitch(stream))
    if _beginning_chain(stream) is not None:
        return Next(plain_num(stream, 1), STITCHES)
    return Next(plain_num(stream, 1), what_or_stitch(stream))


def _same(stream: Stream) -> Same:
    what = read_what(stream) or STITCHES
    stream.word("place")
    if stream.word("as"):
        while (token := stream.peek()) is not None and token.kind in ("word", "num", "ordinal"):
            stream.at += 1
            if token.is_word("join", "joining", "stitch", "st", "ch", "worked", "made") and not stream.sees("st"):
                break
    return Same(what)


def _beginning_chain(stream: Stream) -> What | None:
    """ "turning ch", "beg ch-3": a chain that counts is a stitch of the row before."""
    start = stream.at
    if stream.word(*_BEGINNING) and stream.word(*CHAIN):
        stream.mark("-")
        stream.number()
        if not stream.word(*SPACE):
            return STITCHES
    stream.at = start
    if stream.word("tch", "tc", "turning"):
        return STITCHES
    stream.at = start
    return None


def _top_of_chain(stream: Stream) -> Next:
    stream.word("the")
    if _beginning_chain(stream) is None:
        stream.word("last", "next", "same", "first")
        if stream.word(*CHAIN):
            stream.mark("-")
            stream.number()
        else:
            return Next(plain_num(stream, 1), read_what(stream) or STITCHES)
    return Next(plain_num(stream, 1), STITCHES)


def _ordinal(stream: Stream) -> Into:
    token = stream.next()
    digits = token.text[:-2]
    span = Span(token.span.line, token.span.column, token.span.end_column - 2)
    number = plain_num(stream, int(digits), span)
    start = stream.at
    if stream.word(*CHAIN):
        if stream.any_of("from hook", "from the hook", "from your hook", "from"):
            return FromHook(number, _skipped_counts(stream))
        if stream.word("of"):  # "in 3rd ch of beg ch-3": the top of a chain that counts
            stream.word("the")
            if _beginning_chain(stream) is None and stream.word(*CHAIN):
                stream.mark("-")
                stream.number()
            return Next(plain_num(stream, 1), STITCHES)
    stream.at = start
    return Nth(number, what_or_stitch(stream))


def _skipped_counts(stream: Stream) -> str | None:
    start = stream.at
    if stream.mark("(", "["):
        stream.word("the")
        if (
            stream.any_of(
                "skipped ch",
                "skipped chs",
                "skipped chains",
                "skipped sts",
                "sk ch",
                "sk chs",
                "unworked ch",
                "unworked chs",
                "missed ch",
            )
            or True
        ):
            stream.number()
            stream.word("sts", "chs", "ch", "skipped", "chains")
            if stream.any_of("do not count", "does not count", "don't count"):
                while not stream.mark(")", "]"):
                    stream.next()
                return None
            if stream.any_of("count as", "counts as", "counted as"):
                stream.any_of("the first", "first", "a", "1", "1st", "one")
                token = stream.peek()
                if token is not None and token.kind in ("ordinal", "num"):
                    stream.at += 1
                counts = stitch_word(stream)
                if counts is not None:
                    while not stream.mark(")", "]"):
                        stream.next()
                    return counts
    stream.at = start
    return None


def _next(stream: Stream) -> Into:
    marker = read_marker(stream) if stream.peek() is not None and stream.here() and _sees_marker(stream) else None
    if marker is not None:
        return Marked(marker)
    number = stream.number() or plain_num(stream, 1)
    return Next(number, what_or_stitch(stream))


def _sees_marker(stream: Stream) -> bool:
    token = stream.peek()
    return token is not None and token.is_word("marker", "marked")


def _each(stream: Stream) -> Into:
    stream.word("of")
    stream.word("the", "these", "those")
    if stream.word(*NEXT):
        return _next(stream)
    if stream.word("first", "last"):
        return Next(stream.number() or plain_num(stream, 1), what_or_stitch(stream))
    if stream.word("rem", "remaining"):
        return _remaining(stream)
    number = stream.number()
    if number is not None:
        return Next(number, what_or_stitch(stream))
    what = what_or_stitch(stream)
    _qualifiers(stream)
    return Every(what, _end_or_row(stream))


def _end_or_row(stream: Stream) -> ToEnd:
    """The end named, or the end of the row when none is: nothing else can be meant by "in each st"."""
    return read_end(stream) or ToEnd("around" if stream.context.kind == "Rnd" else "across")


def _remaining(stream: Stream) -> Into:
    number = stream.number()
    what = what_or_stitch(stream)
    if number is not None:
        return Next(number, what)
    return Every(what, _end_or_row(stream))


def _qualifiers(stream: Stream) -> None:
    """ "of the previous round", "from Rnd 3", "below", "made": whose places they are; the row before is meant anyway."""
    while True:
        start = stream.at
        if stream.any_of("below", "made", "just made", "of ch", "of chain", "of foundation ch", "of foundation chain"):
            continue
        if stream.word("of", "from", "on", "in"):
            stream.word("the")
            if stream.word("previous", "prev", "last", "preceding", "prior", "current", "this"):
                if stream.word(*_ROW):
                    continue
            elif stream.word(*_ROW):
                stream.number()
                if stream.word("below"):
                    continue
                if stream.at > start + 2 or stream.peek() is None or not stream.sees("of"):
                    continue
            elif stream.any_of(
                "foundation ch", "foundation chain", "chain", "ch", "base", "starting chain", "row below", "rnd below"
            ):
                continue
        stream.at = start
        return


__all__ = ["CHAINS", "STITCHES", "plain_num", "read_end", "read_into", "read_what", "sees_stitch", "what_or_stitch"]
