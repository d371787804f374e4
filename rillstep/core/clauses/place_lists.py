"""A stitch in one place or several: "in 2nd ch from hook and in each ch across", "in each st and 2 sc in each ch-2 sp
around"."""

from dataclasses import replace

from rillstep.core.clauses.repeats import read_times
from rillstep.core.clauses.shaping import more_at_an_end, shaped
from rillstep.core.craft import Loop
from rillstep.core.reading.places import STITCHES, read_end, read_into, read_loop, read_what
from rillstep.core.tree import (
    Chain,
    EachKind,
    Every,
    FromHook,
    Gesture,
    Group,
    Into,
    Loops,
    Next,
    Nth,
    Num,
    Same,
    Step,
    Together,
    What,
    Work,
)
from rillstep.core.wordlists import word_list
from rillstep.core.words.lexicon import CHAIN, NEXT
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import Stream, plain_num

PLACE_WORDS = word_list("in into around over through on to at between")


def in_colour(stream: Stream) -> Gesture | None:
    """ "4 sc in A", "sc 4 with B": a colour by its letter, and no place; the change to it comes before the stitches."""
    start = stream.at
    if stream.word("in", "with"):
        token = stream.peek()
        following = stream.peek(1)
        letter = token is not None and token.kind == "word" and (len(token.text) == 1 or token.text in ("mc", "cc"))
        if token is not None and token.is_word("mc") and stream.choose(2, "colour or ring") == 1:
            stream.at = start  # "6 sc in mc": where it is no colour, it is the ring
            return None
        if token is not None and letter and (following is None or following.kind == "mark"):
            stream.next()
            return Gesture("change colour", token.text.upper(), span=stream.since(start))
    stream.at = start
    return None


def is_end(stream: Stream, stitch: str) -> bool:
    """ "sc around", "sc to last 2 sts" name an end; "FPdc around next st" and "sl st to next ch-2 sp" name a place."""
    token = stream.peek()
    following = stream.peek(1)
    if (
        token is not None
        and token.is_word("all")
        and following is not None
        and following.is_word("around", "across", "along")
    ):
        return True
    if token is None or not token.is_word("around", "to"):
        return False
    if stitch == "sl st" and token.is_word("to") and following is not None:
        return following.is_word("last", "end", "within", "marker", "marked")
    if following is None or following.kind == "mark":
        return True
    if token.is_word("to"):
        return following.is_word("last", "end", "within", "marker", "the", "corner", "next", "first", "marked")
    return following.is_word(
        "to", "until", "join", "turn", "working", "and", "then", "increasing", "decreasing", "inc", "dec", "while", "by"
    )


def in_places(stream: Stream, start: int, stitch: str, per: Num | None, loop: Loop) -> list[Step]:
    """One place or several: "in 2nd ch from hook and in each ch across", "in each st and 2 sc in each ch-2 sp
    around"."""
    return more_places(stream, start, _one(stream, start, stitch, per, loop), per, loop)


def _only_names_loops(stream: Stream) -> bool:
    """ "sc in each st around, working in FLO": of the stitches before, and no further place."""
    start = stream.at
    named = stream.word("working", "work") and stream.word("in", "into", "through") and read_loop(stream) is not None
    alone = named and ((here := stream.peek()) is None or here.kind == "mark")
    stream.at = start
    return bool(alone)


def more_places(stream: Stream, start: int, first: Step, per: Num | None, loop: Loop) -> list[Step]:
    """The places that follow the first one: "... and in each ch across", or several kinds in one walk."""
    if (colour := in_colour(stream)) is not None:
        return [colour, first]
    shaping = shaped(stream, first)
    if shaping is not None:
        return shaping
    stitch = first.stitch if isinstance(first, Work | Together) else "sc"
    steps: list[Step] = [first]
    while True:
        at = stream.at
        comma = stream.mark(",")
        if _only_names_loops(stream):
            stream.at = at
            break
        joined = stream.word("and", "then") or stream.mark("&")
        joined = (stream.word("working", "making", "placing", "with") and _is_every(steps)) or joined
        if not joined and not (comma and (_is_open_each(stream, steps) or _whole_then_space(stream, steps))):
            stream.at = at
            break
        if stream.sees("of", "each") or stream.sees("of", "next"):  # "in back loop of same st and of each st around"
            stream.next()
            loop = steps[-1].loop if isinstance(steps[-1], Work) else loop
        token = stream.peek()
        begin = stream.at
        end = (
            read_end(stream)
            if token is not None and (token.is_word("across") or (token.is_word("around") and is_end(stream, stitch)))
            else None
        )
        if end is not None:
            what = STITCHES if not any(isinstance(getattr(s, "into", None), FromHook) for s in steps) else What("ch")
            steps.append(Work(stitch, per or plain_num(stream, 1), Every(what, end), loop, stream.since(begin)))
            continue
        if token is not None and (token.is_word("in", "into", "around", "each", "every") or token.is_word(*NEXT)):
            steps.append(_one(stream, begin, stitch, per, loop))
            continue
        second = _another_kind(stream, steps)
        if second is not None:
            steps.append(second)
            continue
        stream.at = at
        break
    if len(steps) > 1 and isinstance(steps[-1], Work) and (ends := more_at_an_end(stream, steps[-1])) is not None:
        return [*steps[:-1], *ends]  # "in 2nd ch from hook and in each ch across, working 2 sc in last ch"
    begin = len(steps)
    while begin and isinstance(steps[begin - 1], Work | Group) and _is_every(steps[:begin]):
        begin -= 1  # "in same st and in each dc and ch-1 sp around": those before are places of their own
    return [*steps[:begin], _as_kinds(stream, start, steps[begin:])] if _are_kinds(steps[begin:]) else steps


def _is_every(steps: list[Step]) -> bool:
    return isinstance(steps[-1], Work | Group) and isinstance(steps[-1].into, Every)


def _whole_then_space(stream: Stream, steps: list[Step]) -> bool:
    """ "sc in each st across, 2 sc in ch-2 sp": all stitches are named already, so the spaces between them are
    meant."""
    last = steps[-1]
    if not (
        isinstance(last, Work)
        and isinstance(last.into, Every)
        and last.into.what.kind in ("st", "st and sp", "st and ch")
        and last.into.end.word in ("around", "across")
    ):
        return False
    at = stream.at
    stream.number()
    found = stitch_word(stream) is not None and stream.word("in", "into")
    stream.word("the", "each", "every")
    what = read_what(stream) if found else None
    stream.at = at
    return what is not None and what.kind == "sp"


def _is_open_each(stream: Stream, steps: list[Step]) -> bool:
    """ "1 dc in each tr, ...": an "each" with no end may be the first of several kinds."""
    last = steps[-1]
    rest = any(token.is_word("remaining", "rem") for token in stream.tokens[stream.at : stream.at + 4])
    return isinstance(last, Work) and isinstance(last.into, Every) and stream.implied_end and not rest


def _one(stream: Stream, start: int, stitch: str, per: Num | None, loop: Loop) -> Step:
    over = stream.sees("over") and any(stitch == name for name, _ in stream.context.specials)
    if not stream.sees("between"):  # "2 dc between next 2 sts" names the place itself
        stream.word(*PLACE_WORDS)
    into, named = read_into(stream)
    if over and isinstance(into, Next) and into.count.parts:
        into = replace(into, over=True)
    if stream.free_loops is not None and isinstance(into, Every) and into.what == STITCHES:
        into = stream.free_loops
    if isinstance(into, Loops):
        named, loop = "both", "both"  # the place says which loops
    if isinstance(into, Next) and stream.word("together", "tog"):
        return Together(stitch, into.count, plain_num(stream, 1), named or loop, None, None, stream.since(start))
    times = None
    if isinstance(into, Next | Same | Nth) and not stream.sees("around"):
        times = _times_of_place(stream, into)
    return Work(stitch, per or plain_num(stream, 1), times or into, named or loop, stream.since(start))


def _times_of_place(stream: Stream, into: Into) -> Into | None:
    """ "2 sc in next st 3 times" works three places."""
    if not isinstance(into, Next) or into.count.parts:
        return None
    number = read_times(stream)
    return replace(into, count=number) if number is not None else None


def _are_kinds(steps: list[Step]) -> bool:
    """ "sc in each st and in each ch-1 sp around": several kinds in one walk, each place in its own way."""
    whats = [step.into.what for step in steps if isinstance(step, Work | Group) and isinstance(step.into, Every)]
    ends = [step.into.end.what for step in steps if isinstance(step, Work | Group) and isinstance(step.into, Every)]
    if What("sp") in ends[-1:] and any(what.kind == "ch" for what in whats):
        return False  # "sc in each ch, sc in each st until next chain": one chain after another
    return len(whats) == len(steps) > 1 and len(
        {(w.kind, w.stitch, str(w.length and w.length.values)) for w in whats}
    ) == len(whats)


def _as_kinds(stream: Stream, start: int, steps: list[Step]) -> EachKind:
    last = steps[-1]
    assert isinstance(last, Work | Group) and isinstance(last.into, Every)
    end = last.into.end
    works = tuple(
        replace(step, into=Every(step.into.what, end))
        for step in steps
        if isinstance(step, Work | Group) and isinstance(step.into, Every)
    )
    return EachKind(works, end, stream.since(start))


def _another_kind(stream: Stream, steps: list[Step]) -> Step | None:
    """ "... and 2 sc in each ch-2 sp around"."""
    first = steps[-1]
    if not (isinstance(first, Work) and isinstance(first.into, Every)):
        return None
    at = stream.at
    group = _group_of_kind(stream)
    if group is not None:
        return group
    stream.word("work", "make", "place")
    number = stream.number()
    stitch = stitch_word(stream)
    around = stitch is not None and number is not None and stream.word("around", "over")  # "60 sc around each chain"
    if stitch is None or not (around or stream.word("in", "into", "per")):
        stream.at = at
        return None
    bare = not stream.sees("next") and not stream.sees("same")
    second = _one(stream, at, stitch, number, "both")
    if (
        isinstance(second, Work)
        and isinstance(second.into, Next)
        and bare
        and second.into.what.kind == "sp"
        and not second.into.count.parts
    ):
        end = read_end(stream) or first.into.end
        return replace(second, into=Every(second.into.what, end))  # "... and 4 sc in ch-4 sp": as each one comes
    if not isinstance(second, Work) or not isinstance(second.into, Every):
        stream.at = at
        return None
    if around and second.into.what == What("ch"):
        return replace(second, into=replace(second.into, what=What("sp")))
    return second


def _group_of_kind(stream: Stream) -> Group | None:
    """ "... and (sc, ch 2, sc) in each corner sp": its stitches are plain ones and chains."""
    start = stream.at
    steps: list[Step] = []
    if stream.mark("("):
        while not stream.mark(")"):
            begin = stream.at
            if stream.word(*CHAIN) and (length := stream.number()) is not None:
                steps.append(Chain(length, span=stream.since(begin)))
            elif (number := stream.number() or plain_num(stream, 1)) and (stitch := stitch_word(stream)) is not None:
                steps.append(Work(stitch, plain_num(stream, 1), Next(number, STITCHES), "both", stream.since(begin)))
            else:
                steps = []
                break
            stream.mark(",")
    if steps and stream.word("in", "into"):
        into, _ = read_into(stream)
        if isinstance(into, Every):
            return Group(tuple(steps), into, stream.since(start))
    stream.at = start
    return None
