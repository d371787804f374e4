"""Stitches: "2 sc in next st", "hdc 6", "FPdc around next st", "sc2tog over next 2 sts", "inc", "sc evenly along row
ends"."""

from dataclasses import replace

from rillstep.core.clauses.increases import read_increase
from rillstep.core.clauses.place_lists import PLACE_WORDS, in_colour, in_places, is_end, more_places
from rillstep.core.clauses.repeats import read_times
from rillstep.core.clauses.shaping import (
    STUCK,
    at_ends,
    read_together,
    sees_place_of_loop,
    together_word,
    two_and_others,
)
from rillstep.core.clauses.sides import along_side, evenly
from rillstep.core.craft import BY_US, Loop, stitch_words
from rillstep.core.findings import Span
from rillstep.core.reading.places import STITCHES, read_end, read_into, read_loop, read_what
from rillstep.core.tree import (
    Evenly,
    Every,
    Foundation,
    FromHook,
    Gesture,
    InRing,
    Last,
    Next,
    Nth,
    Num,
    Skip,
    Step,
    ToEnd,
    What,
    Work,
)
from rillstep.core.wordlists import phrase_list, word_list
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import CHAIN, DECREASE, INCREASE, NEXT, STITCH
from rillstep.core.words.stitch_names import foundation_stitch, sees_stitch, stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import Token

# "2 sc around" is two in each; a larger number is that of all of them.
MOST_IN_EACH = 3
_WORKED_WITH = word_list(
    "work make place standing a an the another more additional then begin beginning start starting with "
    "continue continuing"
)


def read_works(stream: Stream, start: int) -> list[Step]:
    """A clause that works stitches; a standing stitch joins its own yarn. Raises NotUnderstood."""
    if stream.word("standing"):
        joined = Gesture("join colour", span=stream.since(start))
        return [joined, *_standing(read_works(stream, stream.at))]
    skipped = _starting_in(stream, start)
    if skipped is not None:
        return _from_there(stream, skipped)
    stands = False
    while (
        (token := stream.peek()) is not None
        and token.is_word(*_WORKED_WITH)
        and (token.is_word("standing") or sees_stitch(stream) is None)
    ):
        stands = stands or token.is_word("standing")
        stream.next()  # unless it is the first word of a stitch of the pattern's own ("Beginning cluster")
    if stands:
        return _standing(read_works(stream, stream.at))
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
    if stream.word("inv", "invisible") or token.is_word(*DECREASE):
        before = stream.at
        if not (stream.mark("-") and stream.word(*DECREASE)):  # "inv-dec"
            stream.at = before
            stream.word(*DECREASE)
        if (shaping := at_ends(stream, _row_stitch(stream), start)) is not None:
            return shaping
        return [read_together(stream, start, (_row_stitch(stream), 2), leading, loop)]
    if token.is_word(*INCREASE):
        stream.next()
        if (shaping := at_ends(stream, _row_stitch(stream), start)) is not None:
            return shaping
        return read_increase(stream, start, _row_stitch(stream), leading, loop)
    stitch = stitch_word(stream)
    if stitch is None:
        return _read_stuck(stream, start, token, leading, loop)
    if leading is not None and stream.word("shell", "shells", "fan", "fans"):  # "5-dc shell": five in one place
        return in_places(stream, start, stitch, leading, loop)
    if stream.word(*INCREASE):
        return read_increase(stream, start, stitch, leading, loop)
    if stream.word(*DECREASE):
        return [read_together(stream, start, (stitch, 2), leading, loop)]
    steps = _after_stitch(stream, start, stitch, leading, loop)
    below = BY_US[stitch].below if stitch in BY_US else 0
    return [_lower(step, below) for step in steps] if below else steps


def _standing(steps: list[Step]) -> list[Step]:
    """Steps of which the first stitch joins its own yarn."""
    first = steps[0] if steps else None
    return [replace(first, manner="standing"), *steps[1:]] if isinstance(first, Work) else steps


def read_coloured(stream: Stream, start: int) -> Step | None:
    """The 5 of "A 5, B 1": so many stitches of the kind that the row names; None where more is said."""
    count = stream.number()
    following = stream.peek()
    if count is not None and (following is None or following.is_mark(",", ";", ".", "]", ")", "*")):
        return Work(_row_stitch(stream), plain_num(stream, 1), Next(count, STITCHES), stream.loop, stream.since(start))
    stream.at = start
    return None


def _foundation(stream: Stream, start: int) -> Step | None:
    """ "fsc 25", "25 fsc", "foundation hdc 30", "30 foundation single crochet stitches"."""
    at = stream.at
    count = stream.number()
    stitch = foundation_stitch(stream)
    if stitch is not None:
        count = count or stream.number()
        stream.word(*STITCH)
        if count is not None:
            return Foundation(stitch, count, stream.since(start))
    stream.at = at
    return None


def _lower(step: Step, below: int) -> Step:
    """A spike stitch goes into the row below its place, where nothing else is said."""
    if isinstance(step, Work) and isinstance(step.into, Next | Nth | Last | Every) and step.into.what == STITCHES:
        return replace(step, into=replace(step.into, what=replace(step.into.what, below=below)))
    return step


def _from_there(stream: Stream, where: Skip | FromHook) -> list[Step]:
    """What is worked from a place that was named first: "Starting in 2nd ch from hook, sc in each ch". Raises
    NotUnderstood."""
    if isinstance(where, Skip):
        return [where]
    stream.mark(",", ":")
    steps = read_works(stream, stream.at)
    work = steps[0]
    if isinstance(work, Work) and isinstance(work.into, Every):
        return [replace(work, into=where), *steps]
    if isinstance(work, Work) and isinstance(work.into, Next):
        rest = Num(
            tuple(None if v is None else v - 1 for v in work.into.count.values),
            work.into.count.span,
            work.into.count.parts,
            -1,
        )
        first = replace(work, into=where)
        others = replace(work, into=Next(rest, What("ch")))
        return [first, *([others] if any(v for v in rest.values) else []), *steps[1:]]
    raise NotUnderstood(stream.here(), "what to work from there is missing")


def _starting_in(stream: Stream, start: int) -> Skip | FromHook | None:
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
        following = stream.peek(1)
        stream.count(start)
        if isinstance(into, FromHook) and following is not None and not following.is_mark("("):
            return into
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


_LAYERS = phrase_list(
    "through both layers | through both pieces | through both circles | through both panels | through "
    "both thicknesses | through both sides | through both squares | through all layers | through both "
    "edges | through both motifs | through both | through all thicknesses"
)


def _so_many_in_loop(stream: Stream, start: int, stitch: str, count: Num) -> Work | None:
    """ "36 sc in BLO": so many, each in the back loop of one stitch, and not so many in each; the other way is tried
    as well."""
    at = stream.at
    if stream.word("in", "into") and (loop := read_loop(stream)) is not None:
        token = stream.peek()
        if (token is None or token.kind == "mark") and stream.choose(2, "in a loop") == 0:
            return Work(stitch, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))
    stream.at = at
    return None


_BUMPS = (
    "through the back bump", "through the back bumps", "in the back bump", "in the back bumps", "into the back bump",
    "in back bump", "in back bumps",
)  # fmt: skip


def _after_stitch(stream: Stream, start: int, stitch: str, leading: Num | None, loop: Loop) -> list[Step]:
    at = stream.at
    if stream.any_of(*_LAYERS) and not stream.sees("loops") and not stream.sees("lps"):
        words = " ".join(token.text for token in stream.tokens[at : stream.at])
        folded = words.endswith(("layers", "both", "thicknesses", "sides", "edges")) and stream.choose(2, "layers") == 1
        both = Gesture(
            "both layers" if folded else "aside", "" if folded else f"working {words}", span=stream.since(at)
        )
        return [both, *_after_stitch(stream, start, stitch, leading, loop)]
    stream.at = at
    if stream.mark("-") and not (stream.sees("blo") or stream.sees("flo")):  # "sc-blo"
        stream.at -= 1
    told = stream.at
    if stream.word("loosely", "tightly", "neatly", "carefully", "firmly"):
        keep(stream, told)
    if leading is not None and (so_many := _so_many_in_loop(stream, start, stitch, leading)) is not None:
        return [so_many]
    bracket = stream.at
    if stream.mark("(", "["):  # "sc (through the back loop) in next 3 sts"
        within = read_loop(stream)
        bumps = within is None and stream.any_of(*_BUMPS)
        if (within is not None or bumps) and stream.mark(")", "]"):
            loop = within or loop
            if bumps:
                keep(stream, bracket, bracket=True)
        else:
            stream.at = bracket
    if (own := _next_loops(stream, start, stitch, leading)) is not None:
        return [own]
    loop = read_loop(stream) or loop if not sees_place_of_loop(stream) else loop
    if leading is not None and stream.any_of("mr", "magic ring", "magic circle", "magic loop", "adjustable ring"):
        return [Work(stitch, leading, InRing(), loop, stream.since(start))]  # "6sc mr"
    count = stream.number()
    if count is not None and stream.word("tog", "together"):
        stream.count(at)
        return [read_together(stream, start, (stitch, count.at(stream.context.active[0])), leading, loop)]
    if count is not None and (stream.sees("evenly") or stream.sees("even")):
        spread = evenly(stream, start, stitch, count)
        if spread is not None:
            return [spread]  # "sc 16 evenly around the opening"
    if count is not None and not _opens_place(stream):
        return [Work(stitch, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))]
    per = leading if count is None else count
    if (colour := in_colour(stream)) is not None:
        return [
            colour,
            Work(stitch, plain_num(stream, 1), Next(per or plain_num(stream, 1), STITCHES), loop, stream.since(start)),
        ]
    if stream.word("evenly") or stream.sees("even") or stream.sees("evenly"):
        spread = evenly(stream, start, stitch, per)
        if spread is not None:
            return [spread]
    if stream.word("per"):
        what = read_what(stream) or STITCHES
        usual = ToEnd("around" if stream.context.kind == "Rnd" else "across")
        per_each = Every(what, read_end(stream) or usual)
        return [Work(stitch, per or plain_num(stream, 1), per_each, loop, stream.since(start))]
    others = two_and_others(stream, start, stitch, per)
    if others is not None:
        return others
    if per is not None and _over_chain(stream):
        return [Work(stitch, per, Next(plain_num(stream, 1), What("sp")), loop, stream.since(start))]
    along = along_side(stream, start, stitch, per)
    if along is not None:
        return [along]
    counts_off = _counts_off(stream) and not (
        stream.sees("over") and any(stitch == name for name, _ in stream.context.specials)
    )
    if counts_off:
        stream.next()
    token = stream.peek()
    if (
        token is not None
        and not is_end(stream, stitch)
        and (
            token.is_word(*PLACE_WORDS, "each", "every", "all", "ea", "first")
            or token.is_word(*NEXT)
            or (counts_off and token.kind == "num")
        )
    ):
        return in_places(stream, start, stitch, per, loop)
    end = read_end(stream)
    if end is not None and per is not None and any(v is not None and v > MOST_IN_EACH for v in per.values):
        return [Evenly(stitch, per, "edge", stream.since(start))]  # "22 sc along the bottom": in all, not in each
    if end is not None:
        whole = Work(stitch, per or plain_num(stream, 1), Every(STITCHES, end), loop, stream.since(start))
        return more_places(stream, start, whole, per, loop)
    times = read_times(stream)
    if times is not None and per is None:
        return [Work(stitch, plain_num(stream, 1), Next(times, STITCHES), loop, stream.since(start))]
    if stitch == "sl st" and per is None and _ends_round(stream):
        return [Gesture("join", span=stream.since(start))]  # "..., sl st." and nothing more
    return [Work(stitch, plain_num(stream, 1), Next(per or plain_num(stream, 1), STITCHES), loop, stream.since(start))]


def _next_loops(stream: Stream, start: int, stitch: str, per: Num | None) -> Work | None:
    """ "sc in next 10 front loops": so many stitches, each in that loop of one; not where loops are named that were
    left free."""
    at = stream.at
    if stream.free_loops is None and stream.word("in", "into", "through"):
        each = stream.words("each", "of")
        stream.word("the")
        if stream.word(*NEXT) and (count := stream.number()) is not None:
            loop = read_loop(stream)
            token = stream.peek()
            ends = token is None or token.is_mark(",", ";", ".", ")", "]", "*", "-")
            if loop in ("front", "back") and ends and (each or per is None):
                return Work(stitch, per or plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))
    stream.at = at
    return None


def _over_chain(stream: Stream) -> bool:
    """ "12 sc along chain", "60 sc over the handle chain": what was chained across, as a whole."""
    start = stream.at
    if stream.word("along", "across", "over"):
        stream.word("the", "this", "next", "each", "first", "second")
        stream.word("next", "handle", "strap")
        token = stream.peek(1)
        if stream.word(*CHAIN) and (token is None or token.is_mark(",", ".", ";", "(", "[", "—", "*")):
            return True
    stream.at = start
    return False


def _ends_round(stream: Stream) -> bool:
    """Is this the end of a round, after other stitches of it?"""
    rest = stream.tokens[stream.at :]
    return (
        stream.context.kind == "Rnd"
        and not stream.depth
        and len(stream.tokens) > 4
        and all(t.is_mark(".") for t in rest)
    )


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
    if following.kind == "num":
        return third is not None and third.is_word(*STITCH, *CHAIN)  # "sl st across 40 sts"
    return following.is_word(*NEXT, "first") and third is not None and third.kind == "num"


def _opens_place(stream: Stream) -> bool:
    token = stream.peek()
    return token is not None and token.is_word("in", "into", "around", "over")


def _read_stuck(stream: Stream, start: int, token: Token, leading: Num | None, loop: Loop) -> list[Step]:
    """ "sc6": a stitch and its count written together; or "next 2 sts": the stitch of the clause before is not
    meant."""
    stuck = STUCK.match(token.text) if token.kind == "word" else None
    us = stitch_words(stream.context.terms).get(stuck.group(1)) if stuck else None
    if stuck is None or us is None or leading is not None:
        raise NotUnderstood(stream.since(start))
    stream.next()
    digits = Span(token.span.line, token.span.end_column - len(stuck.group(2)), token.span.end_column)
    count = plain_num(stream, int(stuck.group(2)), digits)
    return [Work(us, plain_num(stream, 1), Next(count, STITCHES), loop, stream.since(start))]
