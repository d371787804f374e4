"""Places told by what they are of: loops left free in an earlier round, and the foot of the starting chain."""

from dataclasses import replace

from rillstep.core.notation.ends import read_loop
from rillstep.core.notation.stream import Stream
from rillstep.core.notation.tree import Loops
from rillstep.core.notation.whats import CHAIN, NEXT, ROWS, SPACE, STITCH, plain_num
from rillstep.core.stitches import Loop

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
