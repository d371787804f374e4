"""Stitches: "2 sc in next st", "hdc 6", "FPdc around next st", "sc2tog over next 2 sts", "inc", "sc evenly along row ends"."""

from dataclasses import replace
from typing import Literal

from rillstep.core.findings import Span
from rillstep.core.notation.brackets import read_times
from rillstep.core.notation.ends import read_end, read_loop
from rillstep.core.notation.places import read_into
from rillstep.core.notation.shaping import at_ends, shaped, two_and_others
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.together import STUCK, read_together, sees_place_of_loop, together_word
from rillstep.core.notation.tokens import Token
from rillstep.core.notation.tree import (
    Chain,
    EachKind,
    Evenly,
    Every,
    Foundation,
    FromHook,
    Gesture,
    Group,
    Into,
    Loops,
    Next,
    Nth,
    Num,
    Same,
    Skip,
    Step,
    ToEnd,
    Together,
    What,
    Work,
)
from rillstep.core.notation.vocabulary import sees_stitch, stitch_word
from rillstep.core.notation.whats import CHAIN, NEXT, STITCH, STITCHES, plain_num, read_what
from rillstep.core.stitches import BY_US, Loop, stitch_words

_INCREASE = ("inc", "incs", "increase", "increases", "increasing")
_DECREASE = ("dec", "decs", "decrease", "decreases", "invdec", "decreasing")
# "2 sc around" is two in each; a larger number is that of all of them.
MOST_IN_EACH = 3
_PLACE_WORDS = ("in", "into", "around", "over", "through", "on", "to", "at", "between")
_WORKED_WITH = (
    "work", "make", "place", "standing", "a", "an", "the", "another", "more", "additional", "then", "begin",
    "beginning", "start", "starting", "with",
)  # fmt: skip


def read_works(stream: Stream, start: int) -> list[Step]:
    """A clause that works stitches; a standing stitch joins its own yarn. Raises NotUnderstood."""
    if stream.word("standing"):
        joined = Gesture("join colour", span=stream.since(start))
        return [joined, *read_works(stream, stream.at)]
    skipped = _starting_in(stream, start)
    if skipped is not None:
        return [skipped]
    while stream.word(*_WORKED_WITH):
        pass
    stream.word("long", "spike", "deep") if not stream.sees("spike", "st") and not stream.sees(
        "spike", "stitch"
    ) else None
    founded = _foundation(stream, start)
    if founded is not None:
        return [founded]
    loop = read_loop(stream) or stream.loop
    stream.mark(",", ":")
    leading = _leading_number(stream)
    dash = stream.at
    if not (leading is not None and stream.mark("-") and sees_stitch(stream) is not None):
        stream.at = dash
    stream.word("more", "additional")
    token = stream.peek()
    if token is None:
        raise NotUnderstood(stream.since(start), "what to work is missing")
    together = together_word(stream, token)
    if together is not None:
        return [read_together(stream, start, together, leading, loop)]
    if stream.word("inv", "invisible") or token.is_word(*_DECREASE):
        stream.word(*_DECREASE)
        if (shaping := at_ends(stream, _row_stitch(stream), start)) is not None:
            return shaping
        return [read_together(stream, start, (_row_stitch(stream), 2), leading, loop)]
    if token.is_word(*_INCREASE):
        stream.at += 1
        if (shaping := at_ends(stream, _row_stitch(stream), start)) is not None:
            return shaping
        return _increase(stream, start, _row_stitch(stream), leading, loop)
    stitch = stitch_word(stream)
    if stitch is None:
        return _read_stuck(stream, start, token, leading, loop)
    if leading is not None and stream.word("shell", "shells", "fan", "fans"):  # "5-dc shell": five in one place
        return _places(stream, start, stitch, leading, loop)
    if stream.word(*_INCREASE):
        return _increase(stream, start, stitch, leading, loop)
    if stream.word(*_DECREASE):
        return [read_together(stream, start, (stitch, 2), leading, loop)]
    return _after_stitch(stream, start, stitch, leading, loop)


def _foundation(stream: Stream, start: int) -> Step | None:
    """ "fsc 25", "25 fsc", "foundation hdc 30", "30 foundation single crochet stitches"."""
    at = stream.at
    count = stream.number()
    token = stream.peek()
    stitch = None
    if token is not None and token.kind == "word" and token.text[:1] == "f":
        stitch = stitch_words(stream.context.terms).get(token.text[1:])
        if stitch in BY_US:
            stream.at += 1
        elif stream.word("foundation"):
            stitch = stitch_word(stream)
    if stitch is not None and stitch in BY_US:
        count = count or stream.number()
        stream.word(*STITCH)
        if count is not None:
            return Foundation(stitch, count, stream.since(start))
    stream.at = at
    return None


def _starting_in(stream: Stream, start: int) -> Step | None:
    """ "Starting in 2nd ch from hook, ...": what lies before it is left."""
    if stream.any_of(
        "starting in",
        "beginning in",
        "start in",
        "begin in",
        "starting with",
        "beginning with",
        "starting at",
        "beginning at",
    ):
        stream.word("the")
        into, _ = read_into(stream)
        if isinstance(into, FromHook | Nth):
            nth = into.nth.at(stream.context.active[0])
            what = What("ch") if isinstance(into, FromHook) else into.what
            if nth > 1:
                return Skip(plain_num(stream, nth - 1), what, False, stream.since(start))
    stream.at = start
    return None


def _leading_number(stream: Stream) -> Num | None:
    """ "2 sc", but not the 2 of "2-dc cluster" when that is a defined name."""
    if stream.peek() is not None and sees_stitch(stream) is not None:
        return None
    return stream.number()


def _row_stitch(stream: Stream) -> str:
    """What "inc" is made of where no stitch is named: the first stitch that the line names, or sc."""
    words = stitch_words(stream.context.terms)
    for token in stream.tokens:
        us = words.get(token.text) if token.kind == "word" else None
        if us is None and token.kind == "word" and (stuck := STUCK.match(token.text)):
            us = words.get(stuck.group(1))
        if us is not None and us in BY_US and us != "sl st":
            return us
    return "sc"


_LAYERS = (
    "through both layers", "through both pieces", "through both circles", "through both panels", "through both thicknesses", "through both sides",
    "through both squares", "through all layers", "through both edges", "through both motifs", "through both", "through all thicknesses",
)  # fmt: skip


def _after_stitch(stream: Stream, start: int, stitch: str, leading: Num | None, loop: Loop) -> list[Step]:
    at = stream.at
    if stream.any_of(*_LAYERS) and not stream.sees("loops") and not stream.sees("lps"):
        words = " ".join(token.text for token in stream.tokens[at : stream.at])
        both = Gesture("aside", f"working {words}", span=stream.since(at))
        return [both, *_after_stitch(stream, start, stitch, leading, loop)]
    stream.at = at
    if stream.mark("-") and not (stream.sees("blo") or stream.sees("flo")):  # "sc-blo"
        stream.at -= 1
    stream.word("loosely", "tightly", "neatly", "carefully", "firmly")
    loop = read_loop(stream) or loop if not sees_place_of_loop(stream) else loop
    count = stream.number()
    if count is not None and stream.word("tog", "together"):
        return [read_together(stream, start, (stitch, count.at(stream.context.active[0])), leading, loop)]
    if count is not None and not _opens_place(stream):
        return [Work(stitch, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))]
    per = leading if count is None else count
    if (colour := _in_colour(stream)) is not None:
        return [
            colour,
            Work(stitch, plain_num(stream, 1), Next(per or plain_num(stream, 1), STITCHES), loop, stream.since(start)),
        ]
    if stream.word("evenly") or stream.sees("even") or stream.sees("evenly"):
        evenly = _evenly(stream, start, stitch, per)
        if evenly is not None:
            return [evenly]
    if stream.word("per"):
        what = read_what(stream) or STITCHES
        usual = ToEnd("around" if stream.context.kind == "Rnd" else "across")
        per_each = Every(what, read_end(stream) or usual)
        return [Work(stitch, per or plain_num(stream, 1), per_each, loop, stream.since(start))]
    others = two_and_others(stream, start, stitch, per)
    if others is not None:
        return others
    along = _along_side(stream, start, stitch, per)
    if along is not None:
        return [along]
    if _counts_off(stream):
        stream.next()
    token = stream.peek()
    if (
        token is not None
        and not _is_end(stream, stitch)
        and (token.is_word(*_PLACE_WORDS, "each", "every", "all", "ea", "first") or token.is_word(*NEXT))
    ):
        return _places(stream, start, stitch, per, loop)
    end = read_end(stream)
    if end is not None and per is not None and any(v is not None and v > MOST_IN_EACH for v in per.values):
        return [Evenly(stitch, per, "edge", stream.since(start))]  # "22 sc along the bottom": in all, not in each
    if end is not None:
        whole = Work(stitch, per or plain_num(stream, 1), Every(STITCHES, end), loop, stream.since(start))
        return _more_places(stream, start, whole, per, loop)
    times = read_times(stream)
    if times is not None and per is None:
        return [Work(stitch, plain_num(stream, 1), Next(times, STITCHES), loop, stream.since(start))]
    return [Work(stitch, plain_num(stream, 1), Next(per or plain_num(stream, 1), STITCHES), loop, stream.since(start))]


def _in_colour(stream: Stream) -> Gesture | None:
    """ "4 sc in A", "sc 4 with B": a colour by its letter, and no place; the change to it comes before the stitches."""
    start = stream.at
    if stream.word("in", "with"):
        token = stream.peek()
        following = stream.peek(1)
        letter = token is not None and token.kind == "word" and (len(token.text) == 1 or token.text in ("mc", "cc"))
        if token is not None and letter and (following is None or following.kind == "mark"):
            stream.at += 1
            return Gesture("change colour", token.text.upper(), span=stream.since(start))
    stream.at = start
    return None


def _counts_off(stream: Stream) -> bool:
    """ "sl st across first 4 sts": so many, and no end."""
    token, following = stream.peek(), stream.peek(1)
    if token is None or following is None or not token.is_word("across", "along", "over"):
        return False
    third = stream.peek(2)
    if following.is_word("to", "in", "into") and stream.tokens[stream.at - 1].is_word(
        "st", "sts", "ss", "slst", "stitch"
    ):
        return True  # "sl st across to first corner sp"
    return following.is_word(*NEXT, "first") and third is not None and third.kind == "num"


def _is_end(stream: Stream, stitch: str) -> bool:
    """ "sc around", "sc to last 2 sts" name an end; "FPdc around next st" and "sl st to next ch-2 sp" name a place."""
    token = stream.peek()
    if token is None or not token.is_word("around", "to"):
        return False
    following = stream.peek(1)
    if stitch == "sl st" and token.is_word("to") and following is not None:
        return following.is_word("last", "end", "within", "marker", "marked")
    if following is None or following.kind == "mark":
        return True
    if token.is_word("to"):
        return following.is_word("last", "end", "within", "marker", "the", "corner", "next", "first", "marked")
    return following.is_word(
        "to", "until", "join", "turn", "working", "and", "then", "increasing", "decreasing", "inc", "dec", "while", "by"
    )


def _opens_place(stream: Stream) -> bool:
    token = stream.peek()
    return token is not None and token.is_word("in", "into", "around", "over")


def _evenly(stream: Stream, start: int, stitch: str, per: Num | None) -> Step | None:
    """ "14 sc evenly along row ends": needs its number; without one it is only a manner of speaking."""
    at = stream.at
    stream.word("evenly")
    stream.word("spaced")
    if per is None and (count := stream.number()) is not None:
        stream.word("sts", "st", "stitches")
        per = count
    stream.word("across", "along", "around", "up", "down", "over", "in", "on", "to")
    words: list[str] = []
    while (
        (token := stream.peek()) is not None
        and token.kind in ("word", "num")
        and not token.is_word("to", "turn", "join")
    ):
        words.append(token.text)
        stream.at += 1
    if per is None:
        stream.at = at
        return None
    said = " ".join(words)
    if "row" in said or "side" in said or "end" in said:
        return Evenly(stitch, per, "row ends", stream.since(start))
    if "foundation" in said or "ch" in words or "chain" in words:
        return Evenly(stitch, per, "foundation", stream.since(start))
    around = any(t.is_word("around") for t in stream.tokens[at : stream.at])
    return Evenly(stitch, per, "around" if around else "edge", stream.since(start))


_SIDE = (
    "other",
    "next",
    "opposite",
    "second",
    "first",
    "left",
    "right",
    "short",
    "long",
    "remaining",
    "same",
    "bottom",
    "top",
    "lower",
    "upper",
)
_EDGES: tuple[tuple[str, Literal["edge", "row ends", "foundation"]], ...] = (
    ("row ends", "row ends"), ("ends of the rows", "row ends"), ("ends of rows", "row ends"), ("sides of the rows", "row ends"),
    ("edge of the rows", "row ends"), ("side edge", "row ends"), ("side", "row ends"), ("foundation chain", "foundation"),
    ("foundation ch", "foundation"), ("foundation edge", "foundation"), ("foundation row", "foundation"), ("foundation", "foundation"),
    ("bottom", "foundation"), ("starting chain", "foundation"), ("beginning chain", "foundation"), ("bottom edge", "foundation"), ("cast on edge", "foundation"),
    ("last row", "edge"), ("top edge", "edge"), ("top", "edge"), ("final row", "edge"),
)  # fmt: skip


_EDGES = tuple(sorted(_EDGES, key=lambda edge: -len(edge[0])))  # "bottom edge" before "bottom"
_EDGE_WORDS = tuple(words for words, _ in _EDGES)


def _along_side(stream: Stream, start: int, stitch: str, per: Num | None) -> Step | None:
    """ "work 8 sc along the row ends", "20 sc across the foundation chain": so many over that side, spread as they fit."""
    at = stream.at
    if (
        per is not None
        and not per.is_always(1)
        and stream.word("along", "down", "up", "across", "over", "on", "into", "in")
    ):
        stream.word("the")
        begin = stream.at
        while stream.word(*_SIDE) or ((token := stream.peek()) is not None and token.kind == "ordinal"):
            token = stream.peek()
            stream.at += token is not None and token.kind == "ordinal"
        for here in range(stream.at, begin - 1, -1):
            stream.at = here
            index = stream.phrase(_EDGE_WORDS)
            if index is not None:
                stream.any_of(
                    "of the base",
                    "of base",
                    "of the panel",
                    "of the piece",
                    "of your rows",
                    "of the rows",
                    "of the work",
                    "of the rectangle",
                )
                return Evenly(stitch, per, _EDGES[index][1], stream.since(start))
    stream.at = at
    return None


def _places(stream: Stream, start: int, stitch: str, per: Num | None, loop: Loop) -> list[Step]:
    """One place or several: "in 2nd ch from hook and in each ch across", "in each st and 2 sc in each ch-2 sp around"."""
    return _more_places(stream, start, _one(stream, start, stitch, per, loop), per, loop)


def _more_places(stream: Stream, start: int, first: Step, per: Num | None, loop: Loop) -> list[Step]:
    if _is_every([first]) and (colour := _in_colour(stream)) is not None:
        return [colour, first]
    shaping = shaped(stream, first)
    if shaping is not None:
        return shaping
    stitch = first.stitch if isinstance(first, Work | Together) else "sc"
    steps: list[Step] = [first]
    while True:
        at = stream.at
        comma = stream.mark(",")
        joined = stream.word("and", "then") or stream.mark("&")
        joined = (stream.word("working", "making", "placing") and _is_every(steps)) or joined
        if not joined and not (comma and (_is_open_each(stream, steps) or _whole_then_space(stream, steps))):
            stream.at = at
            break
        token = stream.peek()
        begin = stream.at
        end = (
            read_end(stream)
            if token is not None and (token.is_word("across") or (token.is_word("around") and _is_end(stream, stitch)))
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
    return [_as_kinds(stream, start, steps)] if _are_kinds(steps) else steps


def _is_every(steps: list[Step]) -> bool:
    return isinstance(steps[-1], Work) and isinstance(steps[-1].into, Every)


def _whole_then_space(stream: Stream, steps: list[Step]) -> bool:
    """ "sc in each st across, 2 sc in ch-2 sp": all stitches are named already, so the spaces between them are meant."""
    last = steps[-1]
    if not (
        isinstance(last, Work)
        and isinstance(last.into, Every)
        and last.into.what.kind == "st"
        and last.into.end.word in ("around", "across")
    ):
        return False
    at = stream.at
    stream.number()
    found = (
        stitch_word(stream) is not None and stream.word("in", "into") and (stream.word("the", "each", "every") or True)
    )
    what = read_what(stream) if found else None
    stream.at = at
    return what is not None and what.kind == "sp"


def _is_open_each(stream: Stream, steps: list[Step]) -> bool:
    """ "1 dc in each tr, ...": an "each" with no end may be the first of several kinds."""
    last = steps[-1]
    return isinstance(last, Work) and isinstance(last.into, Every) and stream.implied_end


def _one(stream: Stream, start: int, stitch: str, per: Num | None, loop: Loop) -> Step:
    stream.word(*_PLACE_WORDS)
    into, named = read_into(stream)
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
    number = stream.number()
    stitch = stitch_word(stream)
    if stitch is None or not stream.word("in", "into"):
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
        return replace(
            second, into=Every(second.into.what, first.into.end)
        )  # "... and 4 sc in ch-4 sp": as each one comes
    if not isinstance(second, Work) or not isinstance(second.into, Every):
        stream.at = at
        return None
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


def _increase(stream: Stream, start: int, stitch: str, leading: Num | None, loop: Loop) -> list[Step]:
    """ "inc", "inc in next st", "inc in each st around", "inc 3 times"."""
    two = plain_num(stream, 2)
    if stream.mark("("):  # "inc (2 sc in same st)": what it is, said once more
        while stream.peek() is not None and not stream.mark(")"):
            stream.at += 1
    token = stream.peek()
    if token is not None and (token.is_word("in", "into", "each", "every") or token.is_word(*NEXT)):
        return _places(stream, start, stitch, two, loop)
    end = read_end(stream)
    if end is not None:
        return [Work(stitch, two, Every(STITCHES, end), loop, stream.since(start))]
    times = read_times(stream) or stream.number()
    return [Work(stitch, two, Next(leading or times or plain_num(stream, 1), STITCHES), loop, stream.since(start))]


def _read_stuck(stream: Stream, start: int, token: Token, leading: Num | None, loop: Loop) -> list[Step]:
    """ "sc6": a stitch and its count written together; or "next 2 sts": the stitch of the clause before is not meant."""
    stuck = STUCK.match(token.text) if token.kind == "word" else None
    us = stitch_words(stream.context.terms).get(stuck.group(1)) if stuck else None
    if stuck is None or us is None or leading is not None:
        raise NotUnderstood(stream.since(start))
    stream.at += 1
    digits = Span(token.span.line, token.span.end_column - len(stuck.group(2)), token.span.end_column)
    count = plain_num(stream, int(stuck.group(2)), digits)
    return [Work(us, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))]
