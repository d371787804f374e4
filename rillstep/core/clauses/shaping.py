"""Shaping: stitches worked together, and increases and decreases that are said in words of their own.

"sc2tog over next 2 sts", "increasing 1 st at each end", "2 sc in first and last st, sc in all others": the latter are
put into the steps that a maker works, so that each of them is printed and proved.
"""

import re
from dataclasses import replace

from rillstep.core.clauses.repeats import read_times
from rillstep.core.craft import Loop, stitch_words
from rillstep.core.reading.places import STITCHES, read_end, read_into, read_loop, read_what
from rillstep.core.tree import (
    Every,
    FromHook,
    Into,
    Last,
    Next,
    Nth,
    Num,
    Repeat,
    Spread,
    Step,
    ToEnd,
    Together,
    What,
    Work,
)
from rillstep.core.wordlists import phrase_list
from rillstep.core.words.lexicon import CHAIN, NEXT, STITCH
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import Token

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


_MORE = ("increasing", "increase", "inc")
_FEWER = ("decreasing", "decrease", "dec")
_OF_ROW = phrase_list(
    "of row | of the row | of rnd | of the rnd | of round | of the round | of each row | of every row"
)
_BOTH_ENDS = phrase_list(
    "at each end | at both ends | on each end | at each side | at both sides | each end | each side | on "
    "each side | at either end"
)
_BEGINNING = ("at beginning", "at the beginning", "at beg", "at start", "at the start", "at the beg")
_END = ("at end", "at the end")
_EVENLY = (
    "evenly spaced", "evenly", "evenly around", "evenly across", "spaced evenly", "evenly spaced around",
    "evenly spaced across",
)  # fmt: skip
_OTHERS = phrase_list(
    "all other | all others | all other sts | all the other sts | each other | every other | all "
    "remaining | all rem | the rest | each remaining | each rem | remaining | rem | the remaining | the "
    "others | the other"
)


def shaped(stream: Stream, work: Step) -> list[Step] | None:
    """What follows "sc in each st across" and changes its count; None (and nothing taken) when nothing of that comes
    next."""
    if not (isinstance(work, Work) and isinstance(work.into, Every) and work.per.is_always(1)):
        return None
    if replace(work.into.what, stitch="") != STITCHES:
        return None
    end = work.into.end
    if end.last is not None or end.what is not None or end.word == "marker":
        return None
    work = replace(work, into=replace(work.into, what=STITCHES))  # "each sc" of a row of sc
    start = stream.at
    stream.mark(",")
    stream.word("and", "while", "by")
    if stream.word("working", "making", "placing", "with", "work"):
        number = stream.number()
        if number is not None and number.is_always(2) and stitch_word(stream) == work.stitch:
            found = _every_so_many(stream, work, True)
            if found is not None:
                stream.count(start)
                return found
        stream.at = start
        return more_at_an_end(stream, work)
    more = stream.word(*_MORE)
    found = None
    if more or stream.word(*_FEWER):
        found = _every_so_many(stream, work, more) or _by(stream, work, more)
    if found is None:
        stream.at = start
    return found


def more_at_an_end(stream: Stream, work: Work) -> list[Step] | None:
    """ "..., placing 2 sc in the last st": as many more there as it says; None (and nothing taken) for anything
    else."""
    if not (isinstance(work.into, Every) and work.into.what in (STITCHES, What("ch"))):
        return None
    what = work.into.what
    start = stream.at
    stream.mark(",")
    stream.any_of("and", "while", "by")
    stream.word("working", "making", "placing", "with")
    number = stream.number()
    if number is not None and stitch_word(stream) == work.stitch and stream.word("in", "into"):
        stream.word("the")
        ends = (stream.word("first"), False)
        stream.any_of("and", "and the") if ends[0] else None
        ends = (ends[0], stream.word("last"))
        if any(ends) and stream.word(*STITCH, *CHAIN) and ((token := stream.peek()) is None or token.kind == "mark"):
            one = plain_num(stream, 1)
            first = [replace(work, per=number, into=Next(one, what))] if ends[0] else []
            end = ToEnd("last", one) if ends[1] else work.into.end
            last = [replace(work, per=number, into=Last(what))] if ends[1] else []
            return [*first, replace(work, into=Every(what, end)), *last]
    stream.at = start
    return None


def at_ends(stream: Stream, stitch: str, start: int) -> list[Step] | None:
    """ "Decrease 1 st at each end of row": the same, where it is all that is said; read after the word and its
    number."""
    more = any(token.is_word(*_MORE) for token in stream.tokens[start : stream.at])
    usual = "around" if stream.context.kind == "Rnd" else "across"
    every = Every(STITCHES, ToEnd(usual))  # type: ignore[arg-type]
    whole = Work(stitch, plain_num(stream, 1), every, span=stream.since(start))
    return _by(stream, whole, more)


def _by(stream: Stream, work: Work, more: bool) -> list[Step] | None:
    """After "increasing": "1 st at each end", "6 sts evenly"."""
    start = stream.at
    number = stream.number() or plain_num(stream, 1)
    named = stream.at
    if not stream.word(*STITCH) and stitch_word(stream) not in (None, work.stitch):
        stream.at = named
    both = stream.any_of(*_BOTH_ENDS)
    first = not both and stream.any_of(*_BEGINNING)
    if first and stream.any_of("and end", "and at end", "and the end"):
        both, first = True, False
    last = not both and not first and stream.any_of(*_END)
    if both or first or last:
        stream.any_of(*_OF_ROW)
        if number.is_always(1):
            stream.count(start)
            return _at(stream, work, more, (both or first, both or last))
    elif stream.any_of(*sorted(_EVENLY, key=len, reverse=True)):
        stream.any_of(
            "in each rnd",
            "in each round",
            "in every rnd",
            "in every round",
            "each rnd",
            "each round",
            "every rnd",
            "every round",
            "per rnd",
            "per round",
            "in each row",
            "each row",
        )
        return [Spread(work.stitch, number, more, work.into.end, stream.since(start))]  # type: ignore[union-attr]
    stream.at = start
    return None


def _at(stream: Stream, work: Work, more: bool, ends: tuple[bool, bool]) -> list[Step]:
    """One more or one fewer at the first end, the last one, or both."""
    one, two = plain_num(stream, 1), plain_num(stream, 2)
    stitch, span = work.stitch, work.span
    two_in_one = Work(stitch, two, Next(one, STITCHES), work.loop, span)
    together = Together(stitch, two, one, work.loop, span=span)
    left = one if more else two
    steps: list[Step] = [two_in_one if more else together] if ends[0] else []
    end = ToEnd("last", left) if ends[1] else work.into.end  # type: ignore[union-attr]
    steps.append(replace(work, into=Every(STITCHES, end)))
    if ends[1]:
        steps.append(Work(stitch, two, Last(STITCHES), work.loop, span) if more else together)
    return steps


def _every_so_many(stream: Stream, work: Work, more: bool) -> list[Step] | None:
    """ "increasing in every 4th st": a repeat of three plain ones and a double one. Decreases over so many are not
    read."""
    start = stream.at
    if more and stream.word("in", "on") and stream.word("every", "each") and (nth := _ordinal(stream)) and nth > 1:
        stream.word(*STITCH)
        stream.count(start)
        one = plain_num(stream, 1)
        plain = Work(work.stitch, one, Next(plain_num(stream, nth - 1), STITCHES), work.loop, work.span)
        double = Work(work.stitch, plain_num(stream, 2), Next(one, STITCHES), work.loop, work.span)
        return [Repeat((plain, double), work.into.end, work.span)]  # type: ignore[union-attr]
    stream.at = start
    return None


def _ordinal(stream: Stream) -> int:
    token = stream.peek()
    if token is None or token.kind != "ordinal":
        return 0
    stream.next()
    return int(token.text[:-2])


def two_and_others(stream: Stream, start: int, stitch: str, per: Num | None) -> list[Step] | None:
    """After "2 sc": "in first and last st, sc in all other sts", "in first and 13th st, hdc in the rest"; None for
    anything else."""
    begin = stream.at
    second = _second_place(stream)
    if second is not None and per is not None:
        stream.word(*STITCH)
        stream.mark(",", ";")
        stream.word("and", "with", "then", "work")
        stream.number()
        if (
            stitch_word(stream) == stitch
            and stream.word("in", "into")
            and stream.any_of(*sorted(_OTHERS, key=len, reverse=True))
        ):
            stream.word(*STITCH)
            stream.count(begin)
            return _with_others(stream, start, stitch, per, second)
    stream.at = begin
    return None


def _second_place(stream: Stream) -> int | None:
    """0 for the last one, else which; after "in first and"."""
    if not stream.word("in", "into"):
        return None
    stream.word("the", "each", "both")
    if not (stream.word("first") or _ordinal(stream) == 1):
        return None
    stream.word(*STITCH)
    if not (stream.word("and") or stream.mark("&")):
        return None
    stream.any_of("in the", "in", "the")
    if stream.word("last"):
        return 0
    nth = _ordinal(stream)
    return nth if nth > 1 else None


def _with_others(stream: Stream, start: int, stitch: str, per: Num, second: int) -> list[Step]:
    span, one = stream.since(start), plain_num(stream, 1)
    usual = ToEnd("around" if stream.context.kind == "Rnd" else "across")
    first = Work(stitch, per, Nth(one, STITCHES), span=span)
    if second == 0:
        middle = Work(stitch, one, Every(STITCHES, ToEnd("last", one)), span=span)
        return [first, middle, Work(stitch, per, Last(STITCHES), span=span)]
    between = Work(stitch, one, Next(plain_num(stream, second - 2), STITCHES), span=span)
    again = Work(stitch, per, Next(one, STITCHES), span=span)
    steps: list[Step] = [first, between, again] if second > 2 else [first, again]
    return [*steps, Work(stitch, one, Every(STITCHES, usual), span=span)]
