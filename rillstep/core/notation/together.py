"""Stitches worked together: "sc2tog over next 2 sts", "dc3tog in same st", "sc 2 tog", "next 2 sts together"."""

import re

from rillstep.core.notation.ends import read_end, read_loop
from rillstep.core.notation.places import read_into
from rillstep.core.notation.repeats import read_times
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tokens import Token
from rillstep.core.notation.tree import FromHook, Into, Num, Step, ToEnd, Together
from rillstep.core.notation.whats import NEXT, plain_num, read_what
from rillstep.core.stitches import Loop, stitch_words

_TOGETHER = re.compile(r"^((?:fp|bp)?[a-z]+?)(\d{1,2})(?:tog|cl)$")
STUCK = re.compile(r"^([a-z]+?)(\d{1,4})$")


def sees_place_of_loop(stream: Stream) -> bool:
    """ "sc in BLO of next st" names its loop where the place is read."""
    token = stream.peek()
    return token is not None and token.is_word("in", "into", "through")


def together_word(stream: Stream, token: Token) -> tuple[str, int] | None:
    """ "sc2tog", "sc 2 tog", "2 sc tog"."""
    words = stitch_words(stream.context.terms)
    if token.kind == "word" and (match := _TOGETHER.match(token.text)):
        us = words.get(match.group(1))
        if us is not None and int(match.group(2)) > 0:
            stream.next()
            if stream.mark("-") and not stream.word("tog"):
                stream.at -= 1
            return us, int(match.group(2))
    if token.kind == "word" and (stuck := STUCK.match(token.text)) and words.get(stuck.group(1)):
        following = stream.peek(1)
        if (
            following is not None
            and following.is_mark("-")
            and (third := stream.peek(2)) is not None
            and third.is_word("tog", "together")
        ):
            for _ in range(3):
                stream.next()
            stream.count(stream.at - 3)
            return words[stuck.group(1)], int(stuck.group(2))
        if following is not None and following.is_word("tog", "together"):
            stream.next()
            stream.next()
            return words[stuck.group(1)], int(stuck.group(2))
    return None


def read_together(stream: Stream, start: int, what: tuple[str, int], leading: Num | None, loop: Loop) -> Step:
    """After the word: how often, to what end, or in which one place."""
    stitch, legs = what
    loop = read_loop(stream) or loop if not sees_place_of_loop(stream) else loop
    times: Num | None = leading
    end: ToEnd | None = None
    into: Into | None = None
    if stream.word("over", "across", "using", "in", "into", "around", "on"):
        if stream.tokens[stream.at - 1].is_word("around", "across") and not _opens_number(stream):
            stream.at -= 1
        else:
            into = _together_place(stream, legs)
    if into is None:
        end = read_end(stream)
        if end is None and times is None:
            times = read_times(stream) or stream.number()
    return Together(
        stitch, plain_num(stream, legs), times or plain_num(stream, 1), loop, end, into, stream.since(start)
    )


def _opens_number(stream: Stream) -> bool:
    token = stream.peek()
    return token is not None and (token.kind == "num" or token.is_word("next", "the", "same"))


def _together_place(stream: Stream, legs: int) -> Into | None:
    """ "over next 2 sts" says no more than the word did; "in same st", "in next st", "in next sp" gathers all legs
    there."""
    at = stream.at
    stream.word("the")
    each = stream.word("each")
    stream.word("of")
    stream.word(*NEXT)
    number = stream.number()
    if number is not None and number.is_always(legs) and legs > 1:
        stream.word("2") if each else None
        read_what(stream)
        stream.count(at)
        return None
    stream.at = at
    into, _ = read_into(stream)
    if isinstance(into, FromHook):
        raise NotUnderstood(stream.since(at), "stitches are worked together over stitches, not from the hook")
    return into
