"""Stitches left unworked: "leave rem sts unworked", "leaving the last 4 sts unworked"; a number that is said is held
to."""

from rillstep.core.notation.asides import keep_phrase
from rillstep.core.notation.stream import Stream
from rillstep.core.notation.tree import Gesture, Next, Num, Total
from rillstep.core.notation.whats import STITCH, STITCHES, read_what

_REST = ("rest of the row", "rest of row", "rest of rnd", "rest of the rnd", "rest", "others")


def _only_these(stream: Stream) -> bool:
    """ "Continue on these 6 sts only": the others are left; how many these are is counted as a total."""
    start = stream.at
    stream.word("now", "and")
    if stream.any_of("continue", "continuing", "work", "working", "cont") and stream.word("on", "over", "across", "in"):
        stream.word("just", "only")
        if stream.word("these", "those"):
            stream.word("first", "last")
            number = stream.number()
            if stream.word(*STITCH) and stream.any_of("only", "for strap", "for the strap", "for first strap", "alone"):
                stream.totals += [] if number is None else [Total(number, "sts")]
                return True
    stream.at = start
    return False


def read_leave(stream: Stream) -> Gesture | None:
    """The gesture, if it comes next."""
    start = stream.at
    if _only_these(stream):
        return Gesture("leave rest unworked", span=stream.since(start))
    if not stream.word("leave", "leaving"):
        return None
    stream.word("the")
    stream.word("these", "those")
    stream.word("rem", "remaining", "last", "final", "other", "next")
    stream.word("the")
    number: Num | None = None
    if not stream.any_of(*_REST):
        number = stream.number()
        read_what(stream)
    if not stream.any_of("unworked", "un-worked", "free", "for now", "not worked", "open", "unjoined"):
        stream.at = start
        return None
    if any(stream.sees(word) for word in ("for", "as", "to", "at")):
        keep_phrase(stream, stream.at)  # what it is left for
    return Gesture("leave rest unworked", "", Next(number, STITCHES) if number else None, stream.since(start))
