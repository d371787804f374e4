"""Where a walk along an edge ends: "around", "to last 3 sts", "to marker"; and markers, loops and beginning chains by
name."""

from dataclasses import replace

from rillstep.core.clauses.kinds import STITCHES, plain_num, read_what
from rillstep.core.craft import Loop
from rillstep.core.tree import Bars, Loops, Marked, ToEnd, What
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import CHAIN, MOTIFS, NEXT, ROWS, SPACE, STITCH
from rillstep.core.words.stitch_names import how_many, stitch_word
from rillstep.core.words.stream import Stream

_BEGINNING = ("turning", "starting", "beginning", "beg", "start", "initial", "first")


_ALONG = (
    "the row", "row", "the last row", "last row", "the top row", "top row", "the first row", "the side", "side",
    "the foundation chain", "foundation chain", "foundation ch", "foundation edge", "the foundation edge",
    "the foundation",
    "foundation", "the edge", "edge", "bottom edge", "the bottom edge", "bottom", "the bottom", "top", "top edge",
    "the top edge", "the top", "the chain", "row ends", "the row ends",
)  # fmt: skip


_ABOUT = (
    "the curve", "the edge", "edge", "the opening", "opening", "the top", "the bag", "the base", "the outer edge",
    "outer edge", "the entire edge", "the curved edge",
    "curved edge", "the whole edge", "the rnd", "the round", "the motif", "the square", "the circle", "the whole bag",
    "entire bag", "the outside", "the rim",
)  # fmt: skip


def read_end(stream: Stream) -> ToEnd | None:
    """ "around", "across", "to last 3 sts", "to marker"; None (and nothing taken) when no end is named."""
    start = stream.at
    end = _end(stream)
    if end is None:
        stream.at = start
    if end is not None and end.what is not None and end.what.corner and end.what.kind == "st and sp":
        return replace(end, what=replace(end.what, kind="sp"))  # "to next corner" stops at the space there
    return end


def _end(stream: Stream) -> ToEnd | None:
    stream.mark(",")
    if not stream.any_of("all the way", "all way", "completely", "entirely"):
        stream.word("all", "even", "evenly")
    if stream.word("around", "round"):
        stream.any_of(*_ABOUT)
        return _last_of(stream) or ToEnd("around")
    if stream.word("across", "along"):
        stream.any_of(*_ALONG)
        stream.any_of("from left to right", "from right to left")
        if stream.words("to", "end"):
            return ToEnd("across")
        return _last_of(stream) or ToEnd("across")
    if along_a_side(stream) or _back(stream):
        return ToEnd("across")
    if stream.any_of("to the end of the row", "to the end of the rnd", "to the end of the round", "to end of the row"):
        return ToEnd("across")
    if stream.any_of(
        "to end of row", "to end of rnd", "to end of round", "to the end", "to end", "until end", "until the end"
    ):
        stream.any_of("of row", "of rnd", "of round", "of the rnd", "of the round", "of the row")
        return ToEnd("across")
    return _last_of(stream)


_WHICH = (
    "other", "opposite", "same", "left", "right", "long", "short", "remaining", "whole", "entire", "first", "next",
)  # fmt: skip


def _back(stream: Stream) -> bool:
    """ "sc in each ch back", "back along the chain": to where the chain began."""
    start = stream.at
    if stream.any_of(
        "back along the chain",
        "back along the ch",
        "back across",
        "back to the bag",
        "back to the body",
        "back to the top",
        "back",
    ):
        token = stream.peek()
        if token is None or token.is_mark(",", ".", ";", "(", "[", "—"):
            return True
    stream.at = start
    return False


def along_a_side(stream: Stream) -> bool:
    """ "up the second side", "down this edge", "along the other long side": that side, to its end."""
    start = stream.at
    if stream.word("up", "down", "along", "across"):
        stream.word("the", "this", "that")
        which = stream.at
        while (token := stream.peek()) is not None and (token.kind == "ordinal" or token.is_word(*_WHICH)):
            stream.next()
        stream.count(which)
        if stream.word("side", "edge", "length"):
            stream.any_of(
                "of the panel", "of panel", "of the piece", "of the bag", "of the work", "of the rows", "of rows"
            )
            return True
    stream.at = start
    if stream.word("across", "along") and stream.any_of(*_ALONG):
        return True  # "30 sts along the bottom"
    stream.at = start
    return False


_REACHING = tuple(f"{until} {how}" for until in ("until", "till") for how in ("you reach", "reaching", "you come to"))


def _last_of(stream: Stream) -> ToEnd | None:
    start = stream.at
    if not (stream.any_of(*_REACHING) or stream.word("to", "until", "till") or stream.words("up", "to")):
        return None
    stream.word("within")
    stream.word("the")
    if stream.word("last", "final"):
        last = how_many(stream) or plain_num(stream, 1)
        what = read_what(stream) or (
            What("sp") if stream.word(*MOTIFS, "side") else None
        )  # "to last shell": to its space
        stream.any_of("remain", "remains", "rem", "remaining", "before marker", "of row", "of rnd", "of round")
        return ToEnd("last", last, "", what if what is not None and what != STITCHES else None)
    number = stream.number()
    if number is not None and stream.word(*STITCH):
        if stream.any_of(
            "remain", "rem", "remains", "are left", "left", "before end", "before the end", "from end", "from the end"
        ):
            return ToEnd("last", number)
    elif number is not None and stream.any_of("are left", "remain", "left"):
        return ToEnd("last", number)  # "until 2 are left"
    elif number is None:
        marker = read_marker(stream)
        if marker is not None:
            return ToEnd("marker", None, marker)
        if beginning_chain(stream) is not None:
            return ToEnd("last", plain_num(stream, 1))
        stream.word("next")
        if stream.word("corner"):
            named = read_what(stream)
            what = What("st and sp", corner=True) if named is None else replace(named, corner=True)
            return ToEnd("last", None, "", what)
        space = read_what(stream)
        if space is not None and space.kind in ("sp", "ch"):  # "to the chain": what was chained across, as a whole
            return ToEnd("last", None, "", space if space.kind == "sp" else What("sp"))
    stream.at = start
    return None


def read_marker(stream: Stream) -> str | None:
    """ "marker", "marker A", "first marker", "marked st", "st with marker A"; the answer is its name, "" for the next
    one."""
    marked = read_marked(stream)
    return marked.marker if marked is not None else None


def read_marked(stream: Stream) -> Marked | None:
    """The same, with the stitch that carries it where that is named: "marked sc"."""
    start = stream.at
    stream.word("the", "next", "first", "a")
    if stream.word("marked"):
        named = stream.at
        if stream.word(*STITCH, *CHAIN, *SPACE) or (stitch := stitch_word(stream)) is None:
            return Marked("")
        return Marked("", stitch, stream.since(named))
    stream.any_of("st with the", "st with", "stitch with the", "stitch with", "st with a")
    if stream.word("marker", "m", "sm", "pm", "markers"):
        return Marked(_marker_name(stream))
    stream.at = start
    return None


def _marker_name(stream: Stream) -> str:
    token = stream.peek()
    if token is not None and token.kind == "word" and len(token.text) == 1 and token.text not in ("x",):
        stream.next()
        return token.text.upper()
    return ""


def read_loop(stream: Stream) -> Loop | None:
    """ "BLO", "back loops only", "the front loop of", "back bar of"; None when no loop is named."""
    start = stream.at
    stream.word("in", "through", "into")
    stream.word("the")
    loop: Loop | None = None
    if stream.any_of("both loops of", "both lps of", "both loops", "both lps"):
        return "both"
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
        token, following = stream.peek(), stream.peek(1)
        third = token is not None and token.kind == "ordinal" and token.text == "3rd"
        if third and following is not None and following.is_word("loop", "loops", "lp", "lps"):
            stream.next()
            stream.next()
            stream.count(start)
            stream.word("only")
            return "third"
        stream.at = start
        return None
    stream.count(start)
    stream.word("only")
    return loop


def beginning_chain(stream: Stream) -> What | None:
    """ "turning ch", "beg ch-3": a chain that counts is a stitch of the row before."""
    start = stream.at
    if stream.word(*_BEGINNING) and stream.word(*CHAIN):
        stream.mark("-")
        stream.number()
        if not stream.word(*SPACE):
            stream.count(start)
            return STITCHES
    stream.at = start
    if stream.word("t") and stream.mark("-") and stream.word(*CHAIN):
        return STITCHES  # "t-ch"
    stream.at = start
    if stream.word("tch", "tc", "turning"):
        return STITCHES
    stream.at = start
    return None


_FREE = ("free", "unused", "unworked")


def base_of_chain(stream: Stream) -> bool:
    """ "base of 3 ch", "the st at base of ch-3": the place that the starting chain stands on."""
    start = stream.at
    stream.word("the", "same")
    stream.word(*STITCH, "place")
    stream.word("at", "as", "in")
    stream.word("the")
    if stream.word("base", "foot", "bottom") and stream.word("of"):
        stream.word("the")
        stream.word("beg", "beginning", "starting", "turning", "first", "initial")
        number = stream.number()
        if number is not None:
            stream.mark("-")
        if stream.word(*CHAIN):
            stream.mark("-")
            length = number or stream.number()
            if length is not None or not stream.word(*SPACE):
                stream.count(start)
                return True
    stream.at = start
    return False


def counted_loops(stream: Stream) -> Loops | None:
    """ "each of next 20 (26) front loops of Rnd 14 (18)"."""
    start = stream.at
    each = stream.word("each")
    stream.word("of")
    the = stream.word("the")
    first = stream.word(*NEXT, "first")
    stream.word("the")
    number = stream.number()
    if number is None and first and (stream.sees("free") or stream.sees("unused") or stream.sees("unworked")):
        number = plain_num(stream, 1)  # "the first free front loop of Rnd 16"
    if number is not None:
        free = stream.word(*_FREE)
        stream.word("remaining")
        loop = read_loop(stream)
        found = loops_of(stream, loop) if loop is not None else None
        if found is not None:
            return replace(found, count=number)
        free = free or (each and the and not first)  # "each of the 34 back loops"
        if free and loop in ("front", "back"):
            known = stream.free_loops
            return (
                replace(known, count=number)
                if known is not None and known.loop == loop
                else Loops(loop, "Rnd", None, number)
            )
    stream.at = start
    if stream.word("each", "every") and stream.word(*_FREE) and (loop := read_loop(stream)) in ("front", "back"):
        stream.any_of("across", "around")
        return Loops(loop, "Rnd", None)
    stream.at = start
    return None


def read_bars(stream: Stream) -> Bars | None:
    """ "around the next 2 bars of Rnd 6", "around each of next 3 bars on Row 4"; None for any other words."""
    start = stream.at
    stream.any_of("each of", "the")
    stream.word("the")
    count = (stream.number() or plain_num(stream, 1)) if stream.word(*NEXT) else stream.number()
    if count is not None and stream.word("bar", "bars") and stream.word("of", "on"):
        kind, number = stream.peek(), None
        if kind is not None and kind.is_word(*ROWS):
            stream.next()
            number = stream.number()
        if kind is not None and number is not None:
            _beside(stream)
            return Bars("Row" if kind.text.startswith("row") else "Rnd", number, count)
    stream.at = start
    return None


def _beside(stream: Stream) -> None:
    """Words that say where on the surface: "beside the marker", "next to the side"."""
    before = stream.at
    stream.mark(",", ";")
    start = stream.at
    if not stream.word("beside", "near", "below", "above") and not stream.any_of("next to", "close to"):
        stream.at = before
        return
    while (token := stream.peek()) is not None and token.kind == "word":
        stream.next()
    keep(stream, start)


def loops_of(stream: Stream, loop: Loop) -> Loops | None:
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
    if word is not None and word.is_word(*ROWS):
        stream.next()
        number = stream.number()
        if number is not None:
            return Loops(loop, "Row" if word.text.startswith("row") else "Rnd", number, count)
    stream.at = start
    return None
