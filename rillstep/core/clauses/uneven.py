"""A last repeat that is uneven on purpose: "[sc in next 6 sts, 2 sc in next st] around; ends 2 sts short, on purpose".

It is worked as "[...] to last 5 sts, sc in next 5 sts", and the words are printed with it; without "on purpose" it is
an error that the repeat does not come out.
"""

from dataclasses import replace

from rillstep.core.tree import Chain, Next, Repeat, Skip, Step, ToEnd, Together, Work
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import STITCH
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num

_ENDS = ("ends", "ending", "end", "it ends", "the last repeat ends", "last repeat ends", "this ends")


def read_uneven(stream: Stream, before: list[Step]) -> list[Step] | None:
    """The steps of the last repeat, as far as it goes; the repeat in `before` is changed. None for any other words.

    Raises NotUnderstood where it cannot be told which steps those are.
    """
    start = stream.at
    short = stream.number() if stream.any_of(*_ENDS) else None
    told = short is not None and stream.word(*STITCH) and stream.word("short", "early")
    stream.mark(",")
    if short is None or not told or not stream.any_of("on purpose", "by design", "as it should"):
        stream.at = start
        return None
    few = {value for value in short.values if value is not None}
    stream.count(start)
    keep(stream, start)
    at = max((i for i, step in enumerate(before) if isinstance(step, Repeat)), default=-1)
    repeat = before[at] if at >= 0 else None
    if not isinstance(repeat, Repeat) or not isinstance(repeat.times, ToEnd) or len(few) != 1:
        raise NotUnderstood(stream.since(start), "a repeat to the end of the row stands before this")
    takes = [_taken(step) for step in repeat.steps]
    if None in takes or not (left := sum(n or 0 for n in takes) - few.pop()) > 0:
        raise NotUnderstood(stream.since(start), "the repeat does not take more stitches than these")
    head = _head(stream, repeat.steps, left)
    if repeat.times.word == "last":
        if before[at + 1 :] != head:  # it was written out already
            raise NotUnderstood(stream.since(start), "the stitches after the repeat are not those of its beginning")
        return []
    before[at] = replace(repeat, times=ToEnd("last", plain_num(stream, left)))
    return head


def _taken(step: Step) -> int | None:
    """How many stitches a step takes in every size; None where that is not plain."""
    match step:
        case Work(into=Next(count=count)) | Skip(count=count) | Together(legs=count, into=None, end=None):
            values = {value for value in count.values if value is not None}
            return values.pop() if len(values) == 1 else None
        case Chain():
            return 0
        case _:
            return None


def _head(stream: Stream, steps: tuple[Step, ...], left: int) -> list[Step]:
    """The steps that take the first so many stitches of a repeat. Raises NotUnderstood."""
    head: list[Step] = []
    for step in steps:
        taken = _taken(step) or 0
        if taken <= left:
            head.append(step)
            left -= taken
        elif isinstance(step, Work) and isinstance(step.into, Next):
            head.append(replace(step, into=replace(step.into, count=plain_num(stream, left))))
            left = 0
        elif isinstance(step, Skip):
            head.append(replace(step, count=plain_num(stream, left)))
            left = 0
        else:
            raise NotUnderstood(stream.here(), "it would end within a step of the repeat")
        if not left:
            return head
    return head
