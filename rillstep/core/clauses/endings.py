""" "..., rep from * around, ending with 3 dc in last st": how the last repeat ends, in the ways in which that is meant.

It may only describe what the repeat does anyway, replace the last step of the last repeat, or be
worked after the repeats, in the stitches that they leave. Which is meant shows when it is worked:
the ways are readings of the row (see `Stream.choose`), and the first that comes out holds.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace

from rillstep.core.clauses.repeats import less
from rillstep.core.clauses.uneven import read_uneven
from rillstep.core.reading.places import STITCHES
from rillstep.core.tree import (
    AsFirst,
    Chain,
    Every,
    Gesture,
    Group,
    Last,
    Next,
    Nth,
    Num,
    Repeat,
    Same,
    Skip,
    Step,
    ToEnd,
    Together,
    TopOfChain,
    Work,
)
from rillstep.core.wordlists import word_list
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import Token

Reader = Callable[[Stream], tuple[Step, ...]]

_ENDS = (
    *(f"{ends} {which}{last} {rep} {how}" for ends in ("ending", "end") for which in ("", "the ")
      for last in ("last", "final")
      for rep in ("repeat", "rep", "repetition") for how in ("with a", "with", "in")),
    "ending with a", "ending with", "end with", "ending in", "ending", "ends with", "end",
)  # fmt: skip


def read_ending(stream: Stream, before: list[Step], read_steps: Reader) -> list[Step] | None:
    """What an ending adds after a repeat; `before` is changed where the repeat itself is. None where no ending comes
    next. Raises NotUnderstood."""
    start = stream.at
    repeat = before[-1] if before else None
    if (uneven := read_uneven(stream, before)) is not None:
        return uneven
    if isinstance(repeat, Repeat) and _omits(stream, before, repeat):
        return []
    if not isinstance(repeat, Repeat) or not isinstance(repeat.times, ToEnd) or not stream.any_of(*_ENDS):
        return None
    begin = stream.at
    depth = 0
    while (token := stream.peek()) is not None and (depth or not token.is_mark(";", ".", "]", ")", "—")):
        depth += token.is_mark("(", "[") - token.is_mark(")", "]")
        stream.next()
    if any(
        t.is_mark("*", "**") or t.is_word("rep", "repeat", "rnd", "round", "row")
        for t in stream.tokens[begin : stream.at]
    ):
        stream.at = start
        return None
    inner = stream.part(begin, stream.at)
    steps = read_steps(inner)
    stream.adopt(inner, begin)
    if any(token.is_word("remaining", "rem", "leftover") for token in inner.tokens):
        if len(steps) == 1 and isinstance(steps[0], Work) and isinstance(steps[0].into, Every):
            return list(steps)  # "ending with sc in any remaining sts": as many as the repeats leave
        raise NotUnderstood(
            stream.since(start), "how many stitches the repeats leave is missing: “repeat from * to last 3 sts, ...”"
        )
    if inner.findings:
        raise NotUnderstood(stream.since(start), "how the last repeat ends is not understood")
    if not steps:
        return []  # kept as words
    worked: list[Step] = [step for step in steps if not isinstance(step, Gesture)]
    gestures: list[Step] = [step for step in steps if isinstance(step, Gesture)]
    if (
        len(worked) == 1
        and isinstance(worked[0], Work)
        and worked[0].stitch == "sl st"
        and stream.context.kind == "Rnd"
    ):
        stream.count(begin)  # "ending with a sl st in first st": in place of the last stitch, and closes the round
        return [Gesture("join", span=stream.since(start)), *gestures]
    if repeat.times.last is not None:
        return [*worked, *gestures]
    return [*_in_a_way(stream, begin, before, repeat, worked), *gestures]


# What is left out of the last repeat.
_OMITTED = word_list(
    "the last final corner corners ch chs chain chains sp sps space st sts stitch stitches of on in at "
    "end rep repeat repetition and loop lp shell group motif increase inc"
)
# Places at which the last repeat may end, that are tried.
MOST_CUTS = 3


def _omits(stream: Stream, before: list[Step], repeat: Repeat) -> bool:
    """ "[A, ch 1, B] around, omitting the last corner" is A, ch 1, [B, A, ch 1] around; `before` is changed, and the
    words are taken."""
    start = stream.at
    stream.word("but")
    if not stream.any_of("omitting", "omit", "leaving out", "leaving off", "leave off", "leave out"):
        stream.at = start
        return False
    begin = stream.at
    while stream.word(*_OMITTED) or stream.mark("-") or stream.number() is not None or stitch_word(stream) is not None:
        pass
    token = stream.peek()
    if stream.at == begin or not (token is None or token.is_mark(",", ";", ".", "—", ")", "]")):
        stream.at = start
        return False
    stream.count(start)
    words = stream.tokens[begin : stream.at]
    steps = _split(_unrolled(repeat.steps), words, stream)
    chain = any(token.is_word("ch", "chs", "chain", "chains") for token in words)
    kinds = [
        at for at, step in enumerate(steps) if at and isinstance(step, Chain) == chain and not isinstance(step, Gesture)
    ]
    if (said := _number_in(words)) is not None and not chain:
        kinds = [at for at in kinds if _is_so_many(_takes(stream, list(steps[at:])), said)]
    kinds = kinds[-MOST_CUTS:]
    if not kinds:
        stream.at = start
        return False
    cut = kinds[-1 - stream.choose(len(kinds), "omitted")]
    first, rest = steps[:cut], steps[cut:]
    times = repeat.times if isinstance(repeat.times, ToEnd) else less(repeat.times, 1)
    before[-1:] = [*first, Repeat((*rest, *first), times, repeat.span)]
    return True


def _number_in(words: Sequence[Token]) -> int | None:
    """The number of what is left out: "last 3 sc"."""
    said = next((token.members for token in words if token.kind == "num"), ())
    return int(said[0][0]) if len(said) == 1 else None


def _is_so_many(taken: Num | None, count: int) -> bool:
    return taken is not None and all(value in (None, count) for value in taken.values)


def _unrolled(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """Where some steps end with "[A, B] 2 times", the last turn stands by itself, so that a part of it can be left
    out."""
    last = steps[-1] if steps else None
    if not isinstance(last, Repeat) or isinstance(last.times, ToEnd):
        return steps
    if min((v for v in last.times.values if v is not None), default=0) < 2:
        return steps
    return (*steps[:-1], replace(last, times=less(last.times, 1)), *last.steps)


def _split(steps: tuple[Step, ...], words: Sequence[Token], stream: Stream) -> tuple[Step, ...]:
    """ "sc in next 4 sts", of which the last 2 are left out, as sc in the next 2 and in the next 2."""
    count = _number_in(words) or 1
    last = steps[-1] if steps else None
    if not isinstance(last, Work) or not isinstance(last.into, Next) or last.into.what != STITCHES:
        return steps
    if min((v for v in last.into.count.values if v is not None), default=0) <= count:
        return steps
    ahead = replace(last, into=replace(last.into, count=less(last.into.count, count)))
    return (*steps[:-1], ahead, replace(last, into=replace(last.into, count=plain_num(stream, count))))


def _tells_the_end(repeat: Repeat, worked: list[Step]) -> bool:
    """Is an ending what the repeat ends with, stitch by stitch?"""
    tail = [step for step in repeat.steps if not isinstance(step, Gesture)][-len(worked) :]
    return len(tail) == len(worked) and all(_is_the_same(a, b) for a, b in zip(tail, worked, strict=True))


def _is_the_same(usual: Step, told: Step) -> bool:
    """One stitch, chain or group told again; where it goes may be told otherwise ("in last st" for "in next st")."""
    match usual, told:
        case Work(stitch, per, into), Work(again, so_many, there):
            counts = [place.count for place in (into, there) if isinstance(place, Next)]
            return (stitch, per) == (again, so_many) and (len(counts) < 2 or counts[0] == counts[1])
        case Chain(length), Chain(again):
            return length == again
        case Skip(count), Skip(again):
            return count == again
        case Group(steps), Group(again):
            return steps == again
        case Together(stitch, legs, times), Together(again, so_many, often):
            return (stitch, legs, times) == (again, so_many, often)
        case _:
            return usual == told


def _in_a_way(stream: Stream, begin: int, before: list[Step], repeat: Repeat, worked: list[Step]) -> list[Step]:
    if _is_last_turn(repeat, worked):
        *first, usual = repeat.steps
        before[-1:] = [*first, Repeat((usual, *first), repeat.times, repeat.span)]
        stream.count(begin)
        return worked[-1:]
    worked = _into_first(stream, repeat, worked)
    replaced = _replaced(stream, repeat, worked)
    left = _takes(stream, worked)
    chain = len(worked) == 1 and isinstance(worked[0], Chain) and not isinstance(repeat.steps[-1], Chain | Skip)
    match stream.choose(3, "ending"):
        case 1 if left is not None:
            before[-1] = Repeat(repeat.steps, ToEnd("last", left), repeat.span)
            return worked
        case 2:
            return worked
        case _ if replaced is not None:
            before[-1:] = replaced
            return worked
        case _ if chain or _goes_elsewhere(repeat, worked) or not _tells_the_end(repeat, worked):
            return worked
        case _:
            stream.count(begin)
            return []  # told once more: what the repeat ends with anyway


def _into_first(stream: Stream, repeat: Repeat, worked: list[Step]) -> list[Step]:
    """An ending of a round "with 2 dc in first st", "in same st as ch 3": into the place that the round began in."""
    last, usual = (worked[0] if len(worked) == 1 else None), repeat.steps[-1]
    if (
        stream.context.kind != "Rnd"
        or len(repeat.steps) < 2
        or not (isinstance(last, Work) and isinstance(usual, Work))
    ):
        return worked
    begun = isinstance(last.into, Same | AsFirst) or (isinstance(last.into, Nth) and last.into.nth.is_always(1))
    own = {name for name, _ in stream.context.specials}  # "shell in next st ..., ending with 2 dc in first st"
    if (
        not begun
        or (last.stitch != usual.stitch and usual.stitch not in own)
        or not isinstance(last.into, Same | AsFirst | Nth)
    ):
        return worked
    return [replace(last, into=AsFirst(last.into.what))] if last.into.what.kind == "st" else worked


def _goes_elsewhere(repeat: Repeat, worked: list[Step]) -> bool:
    """Does an ending go into a stitch, where the repeat works into spaces only? Then it tells more than the repeat
    does."""
    into = [step.into for step in repeat.steps if isinstance(step, Work | Group)]
    spaces = bool(into) and all(isinstance(place, Next) and place.what.kind == "sp" for place in into)
    taken = any(isinstance(step, Skip | Together) for step in repeat.steps)
    return spaces and not taken and _into_stitch(worked)


def _into_stitch(worked: list[Step]) -> bool:
    """Is an ending one stitch into the last one, or into the top of the turning chain?"""
    last = worked[-1] if len(worked) == 1 else None
    return isinstance(last, Work) and (
        isinstance(last.into, TopOfChain) or (isinstance(last.into, Last) and last.into.what.kind == "st")
    )


def _is_last_turn(repeat: Repeat, worked: list[Step]) -> bool:
    """ "[ch 2, V-st in next sc, ch 2, sc in next dc] across, ending with ch 2, V-st in last sc, ch 2, sc in top of
    tch": a whole turn, told once more."""
    alike = len(worked) == len(repeat.steps) > 1 and all(
        (type(a), getattr(a, "stitch", ""), getattr(a, "per", None), getattr(a, "length", None))
        == (type(b), getattr(b, "stitch", ""), getattr(b, "per", None), getattr(b, "length", None))
        for a, b in zip(repeat.steps, worked, strict=True)
    )
    return alike and _into_stitch(worked[-1:])


def _replaced(stream: Stream, repeat: Repeat, worked: list[Step]) -> list[Step] | None:
    """ "[A, B] across, ending with 3 dc in last st": the last B is that; A, [B, A] to the last st, and then it."""
    last, usual = (worked[0] if len(worked) == 1 else None), repeat.steps[-1]
    in_space = isinstance(usual, Work) and isinstance(usual.into, Next) and usual.into.what.kind == "sp"
    if in_space and len(repeat.steps) > 1 and _into_stitch(worked):
        *first, _ = (
            repeat.steps
        )  # "[ch 3, sc in next sp] across, ending with sc in top of tch": ch 3 stands before that, too
        return [*first, Repeat((usual, *first), repeat.times, repeat.span)]
    if isinstance(last, Work) and isinstance(last.into, AsFirst):
        *first, _ = repeat.steps  # the other half of the shell that the round began with
        return [*first, Repeat((usual, *first), repeat.times, repeat.span)]
    if not (
        isinstance(last, Work)
        and isinstance(last.into, Last)
        and isinstance(usual, Work)
        and isinstance(usual.into, Next)
        and len(repeat.steps) > 1
        and usual.into.count.is_always(1)
        and (last.stitch, last.per) != (usual.stitch, usual.per)
    ):
        return None
    *first, _ = repeat.steps
    end = ToEnd("last", plain_num(stream, 1), "", None if last.into.what == STITCHES else last.into.what)
    return [*first, Repeat((usual, *first), end, repeat.span)]


def _takes(stream: Stream, steps: list[Step]) -> Num | None:
    """How many stitches some steps take, in each size in force; None where that is not plain, or none."""
    total = [0] * stream.context.n_sizes
    for step in steps:
        match step:
            case Work(into=Next(count=count)) | Skip(count=count):
                taken = count.values
            case Work(into=Last() | TopOfChain()):
                taken = plain_num(stream, 1).values
            case Together(legs=legs, into=None, end=None):
                taken = legs.values
            case Repeat(steps=inner, times=Num() as times) if (once := _takes(stream, list(inner))) is not None:
                pairs = zip(once.values, times.values, strict=True)
                taken = tuple(None if a is None or b is None else a * b for a, b in pairs)
            case Chain():
                continue
            case _:
                return None
        total = [a + (b or 0) for a, b in zip(total, taken, strict=True)]
    keep = set(stream.context.active)
    return Num(tuple(v if i in keep else None for i, v in enumerate(total))) if all(total[i] for i in keep) else None
