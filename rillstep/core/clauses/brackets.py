"""Brackets: repeats, several stitches in one place, totals and remarks that stand in brackets."""

import re
from dataclasses import replace

from rillstep.core.clauses.repeats import CLOSING, DEEPEST, Reader, read_times
from rillstep.core.craft import BY_US, stitch_words
from rillstep.core.findings import Span
from rillstep.core.language.match import read
from rillstep.core.reading.places import read_counts, read_end, read_into, read_what, taken
from rillstep.core.reading.stated_totals import bracket_total
from rillstep.core.tree import (
    Chain,
    Closing,
    Every,
    Gesture,
    Group,
    InRing,
    Last,
    Next,
    Nth,
    Num,
    Repeat,
    Same,
    Skip,
    Step,
    Together,
    Work,
)
from rillstep.core.wordlists import word_list
from rillstep.core.words.asides import keep, keep_bracket
from rillstep.core.words.sizes import sizes_named
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import bracket_end


def read_bracket(stream: Stream, before: list[Step], read_steps: Reader) -> list[Step]:
    """A bracket: a total, a remark, a repeat, or a group in one place. Raises NotUnderstood."""
    start = stream.at
    if before and (total := bracket_total(stream)) is not None:
        return total
    if taken(stream, "SaidOfChain"):  # "(ch 3 counts as the first dc)": what is said of chains is read apart
        return []
    at = next((i for i in (-1, -2, 0) if len(before) > max(i, -i - 1) and isinstance(before[i], Chain)), None)
    if at is not None:
        counts, space = read_counts(stream)
        if counts is not None:  # said after other words: "ch 2, turn (counts as hdc)"
            chain = before[at]
            assert isinstance(chain, Chain)
            before[at] = Chain(chain.length, counts, space, chain.span)
            return []
    closing_step = _closing(stream, before)
    if closing_step is not None:
        del before[before.index(closing_step[0], len(before) - 3 if len(before) > 2 else 0)]
        before.pop()
        return [closing_step[2]]
    if (colour := _colour(stream)) is not None:
        return [colour]
    some = _for_some_sizes(stream, read_steps)
    if some is not None:
        return some
    if _remark(stream, before, read_steps):
        return []
    if (left := read(stream, "LeaveInBracket")) is not None:
        return [left]
    opening = stream.next().text
    closing = CLOSING[opening]
    if stream.depth >= DEEPEST:
        raise NotUnderstood(stream.since(start), "brackets are nested too deeply")
    stream.depth += 1
    findings = len(stream.findings)
    loop = stream.loop
    steps = read_steps(stream, closing)
    stream.loop = loop
    stream.depth -= 1
    stream.next()
    if not steps and len(stream.findings) == findings:
        return []  # all of it was kept as words, or nothing stands in it
    if (
        opening == "("
        and all(isinstance(step, Gesture) for step in steps)
        and (stream.peek() is None or stream.tokens[stream.at].kind == "mark")
    ):
        return list(steps)  # "(do not join)"
    return [_after(stream, steps, start)]


def _colour(stream: Stream) -> Gesture | None:
    """ "(MC) 3 sc, (CC) 1 sc": the colour of what comes next."""
    name, closing, following = stream.peek(1), stream.peek(2), stream.peek(3)
    letter = (
        name is not None and name.kind == "word" and (name.text in ("mc", "cc") or re.fullmatch("[a-h]", name.text))
    )
    works = following is not None and (following.kind in ("word", "num") or following.is_mark("*", "[", "("))
    if not letter or not works or closing is None or not closing.is_mark(")", "]"):
        return None
    start = stream.at
    stream.at += 3
    return Gesture("change colour", name.text.upper(), span=stream.since(start)) if name is not None else None


def _closing(stream: Stream, before: list[Step]) -> tuple[Step, Step, Closing] | None:
    """ "ch 2, dc in first sc (counts as last ch-5 sp)": the last space of a round, and the two steps that it is made
    of."""
    pair = [step for step in before[-3:] if not isinstance(step, Skip)][-2:]
    if len(pair) < 2:
        return None
    chain, work = pair
    if not (isinstance(chain, Chain) and isinstance(work, Work) and isinstance(work.into, Nth)):
        return None
    start = stream.at
    if stream.mark("(") and stream.any_of("counts as", "count as", "counting as", "counted as", "makes", "forms"):
        stream.any_of("the last", "last", "the", "a", "your last", "1", "one", "final")
        what = read_what(stream)
        stream.word("made")
        if what is not None and what.kind == "sp" and what.length is not None and stream.mark(")"):
            return chain, work, Closing(chain.length, work.stitch, what.length, chain.span.to(work.span))
    stream.at = start
    return None


def _for_some_sizes(stream: Stream, read_steps: Reader) -> list[Step] | None:
    """ "(for Large only: sc in last 2 sts)": steps that take nothing in the other sizes; None for any other bracket."""
    start = stream.at
    opening = stream.next().text
    words: list[str] = []
    while (token := stream.peek()) is not None and not token.is_mark(":", ")", "]") and len(words) < 8:
        words.append(stream.next().text)
    sizes = sizes_named(" ".join(words).replace(" ,", ","), stream.context.size_names) if stream.mark(":") else None
    if sizes is None:
        stream.at = start
        return None
    steps = read_steps(stream, CLOSING[opening])
    stream.next()
    stream.count(start)
    return [_only_in(step, set(sizes), stream.since(start)) for step in steps]


def _only_in(step: Step, sizes: set[int], span: Span) -> Step:
    """A step whose count is 0 in the sizes that are not named. Raises NotUnderstood when it has no count."""
    match step:
        case Work(into=Next(count=count) as into):
            return replace(step, into=replace(into, count=_where(count, sizes)))
        case Skip(count=count):
            return replace(step, count=_where(count, sizes))
        case _:
            raise NotUnderstood(
                span, "what is worked in some sizes only is written as a row of its own, under “Size L only:”"
            )


def _where(count: Num, sizes: set[int]) -> Num:
    return Num(tuple(v if v is None or i in sizes else 0 for i, v in enumerate(count.values)), count.span)


def _remark(stream: Stream, before: list[Step], read_steps: Reader) -> bool:
    """ "(first corner made)", "(RS)", "(2 sc in same st)" behind the same: what only tells, or tells once more what
    the step before it is."""
    start = stream.at
    if (
        stream.mark("[", "(")
        and (stream.word("rs", "ws", "us", "uk") or stream.any_of("right side", "wrong side"))
        and stream.mark("]", ")")
    ):
        keep(stream, start, bracket=True)
        return True
    stream.at = start
    if _is_multiple(stream):
        return True
    return (
        keep_bracket(stream)
        or taken(stream, "SameAgain")
        or _place_again(stream)
        or (bool(before) and says_again(stream, before[-1], read_steps))
    )


def _is_multiple(stream: Stream) -> bool:
    """ "(multiple of 6 + 2)": of which chains a pattern repeat can be made; it is kept."""
    start = stream.at
    stream.mark("[", "(")
    stream.word("a")
    if stream.any_of("multiple of", "multiples of") and stream.number() is not None:
        if stream.mark("+") or stream.word("plus"):
            stream.number()
        if stream.mark("]", ")"):
            stream.count(start)
            keep(stream, start, bracket=True)
            return True
    stream.at = start
    return False


_OF_PLACE_AGAIN = word_list(
    "same this that it one ch st stitch chain already holds holding has contains first where was made "
    "worked the a is you started began in as which middle center centre of shell fan group corner turn "
    "end also 1 2 3 top loop sp space round row rnd beginning start beg joining join into work increase "
    "point side other chs last"
)
_SAYS_PLACE = frozenset(["same", "already", "where", "started", "began", "middle", "center", "centre", "corner"])


def _place_again(stream: Stream) -> bool:
    """ "(same ch as first sc)", "(the middle of the shell)": where the stitch before went, told once more; taken
    whole."""
    start, end = stream.at, bracket_end(stream.tokens, stream.at)
    following = stream.tokens[end] if end is not None and end < len(stream.tokens) else None
    if end is None or (
        following is not None
        and (following.kind == "num" or following.is_word("in", "into", "around", "x", "twice", "times"))
    ):
        return False
    inner = stream.tokens[start + 1 : end - 1]
    known = stitch_words(stream.context.terms)
    if not all(token.text in known or token.text in _OF_PLACE_AGAIN for token in inner) or not _SAYS_PLACE & {
        t.text for t in inner
    }:
        return False
    if any(token.text in ("2", "3") for token in inner):
        return False
    stream.at = end
    stream.count(start)
    return True


def says_again(stream: Stream, step: Step, read_steps: Reader) -> bool:
    """A bracket that tells what the step before it is ("sc2tog (over next 2 sts)", "inc (2 sc in same st)"): taken
    whole; else nothing is."""
    start, end = stream.at, bracket_end(stream.tokens, stream.at)
    following = stream.tokens[end] if end is not None and end < len(stream.tokens) else None
    if (
        end is None
        or stream.tokens[start].text != "("
        or not (following is None or (following.kind == "mark" and not following.is_mark("*")))
    ):
        return False
    inner = stream.part(start + 1, end - 1)
    if isinstance(step, Together) and _is_over_its_legs(inner, step):
        stream.at = end
        stream.count(start)
        return True
    inner.at = 0
    inner.word("or", "i.e", "ie", "that", "is", "also", "called")
    told = read_steps(inner)
    one = told[0] if len(told) == 1 and not inner.findings else None
    if one is None or not _is_alike(step, one):
        return False
    stream.at = end
    stream.count(start)
    return True


def _is_over_its_legs(inner: Stream, step: Together) -> bool:
    """ "over next 2 sts", "worked over 2 sts"."""
    inner.word("worked", "work", "working")
    inner.word("over", "across", "in", "using", "on")
    inner.word("the", "each")
    inner.word("of")
    inner.word("next", "following")
    number = inner.number()
    if number is None or number != step.legs:
        return False
    read_what(inner)
    return inner.peek() is None


def _is_alike(step: Step, told: Step) -> bool:
    """Is what is told the step itself, or what one of it is?"""
    match step, told:
        case Together(stitch, legs, _), Together(again, so_many):
            return (stitch, legs) == (again, so_many)
        case Work(stitch, per), Work(again, so_many, Next(count)):
            return stitch == again and (so_many == per or (so_many.is_always(1) and count == per))
        case Work(stitch, per), Work(again, so_many):
            return (stitch, per) == (again, so_many)
        case _:
            return step == told


def _after(stream: Stream, steps: tuple[Step, ...], start: int) -> Step:
    """What the words after the closing bracket make of it."""
    comma = stream.at
    stream.mark(",")
    if stream.word("rep", "repeat"):
        stream.mark(",")
    number = read_times(stream, bracket=True)
    if number is not None:
        repeat = Repeat(steps, number, stream.since(start))
        return _all_in_one(stream, repeat, start) or repeat
    if stream.at == comma and stream.word("all"):
        comma = stream.at
    if stream.at == comma and stream.word("in", "into", "over", "around") and not _is_end(stream):
        into, _ = read_into(stream)
        first = in_one(steps, into, stream, start)
        return _and_each(stream, first, steps) or first
    if stream.tokens[stream.at - 1].is_word("around"):
        stream.at -= 1
    end = read_end(stream)
    if end is not None:
        return Repeat(steps, end, stream.since(start))
    stream.at = comma
    if len(steps) == 1 and isinstance(steps[0], Work | Together):
        return steps[0]
    raise NotUnderstood(stream.since(start), "how often to work the brackets is missing")


def _all_in_one(stream: Stream, repeat: Repeat, start: int) -> Group | None:
    """ "(2 dc, ch 1) 5 times in ring", "(dc, ch 1) 3 times all in next sp": all turns of it in one place."""
    begin = stream.at
    stream.word("all")
    if stream.word("in", "into"):
        into, _ = read_into(stream)
        single = isinstance(into, InRing | Same | Nth | Last | Every) or (
            isinstance(into, Next) and not into.count.parts
        )
        if single:
            return Group((repeat,), into, stream.since(start))
    stream.at = begin
    return None


def _and_each(stream: Stream, first: Step, steps: tuple[Step, ...]) -> Repeat | None:
    """ "(sc, hdc, sc) in same sp and in each ch-3 sp around": the same in all of them."""
    start = stream.at
    if isinstance(first, Group) and stream.word("and") and stream.word("in", "into"):
        begin = stream.at
        into, _ = read_into(stream)
        if isinstance(into, Every):
            again = Group(steps, into, stream.since(begin))
            return Repeat((first, again), plain_num(stream, 1), first.span.to(again.span))
    stream.at = start
    return None


def _is_end(stream: Stream) -> bool:
    """Is this "around" an end ("[...] around"), and no place ("around next st")?"""
    before = stream.tokens[stream.at - 1]
    token = stream.peek()
    if not before.is_word("around"):
        return False
    return token is None or token.kind == "mark" or token.is_word("to", "until", "ending", "join", "rep")


def in_one(steps: tuple[Step, ...], into: object, stream: Stream, start: int) -> Step:
    """Several stitches in one place; "(2 sc) in next st" is just "2 sc in next st"."""
    if len(steps) == 1 and isinstance(steps[0], Work) and steps[0].stitch in BY_US and _one_place(steps[0]):
        work = steps[0]
        per = work.per if not work.into.count.parts else work.into.count  # type: ignore[union-attr]
        return Work(work.stitch, per, into, work.loop, stream.since(start))  # type: ignore[arg-type]
    return Group(steps, into, stream.since(start))  # type: ignore[arg-type]


def _one_place(work: Work) -> bool:
    return (
        isinstance(work.into, Next)
        and work.into.what.kind == "st"
        and (work.per.is_always(1) or work.into.count.is_always(1))
    )
