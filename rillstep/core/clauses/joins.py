"""Joining: a round to its beginning, a chain into a ring, a new colour; and changing colours."""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.craft import GATHERED, stitch_words
from rillstep.core.reading.named_places import read_into, taken
from rillstep.core.tree import Chain, Gesture, GestureKind, Into, Loops, Nth, Num, Step, Work
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.asides import keep_phrase
from rillstep.core.words.lexicon import CHAIN, CRAFT
from rillstep.core.words.stitch_names import foundation_stitch, sees_stitch, stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import Token

_RING = (
    "to form a ring", "to form ring", "to form a loop", "to form loop", "to make a loop", "into a loop", "in a loop",
    "to form a circle", "into a ring", "in a ring", "into ring", "to make a ring", "without twisting",
    "being careful not to twist", "taking care not to twist", "making sure not to twist",
)  # fmt: skip
_RINGS: tuple[str, ...] = (
    *_RING,
    *(
        f"{to} {a}{ring}"
        for to in ("to form", "to make", "into", "in")
        for a in ("a large ", "a big ", "a small ", "a long ", "one large ")
        for ring in ("ring", "loop", "circle")
    ),
)
_SLIPPED = (
    "a sl st", "sl st", "ss", "a ss", "slst", "a slst", "slip st", "a slip st", "slip stitch", "a slip stitch",
)  # fmt: skip


def read_join(stream: Stream, start: int) -> list[Step] | None:
    """ "join", "join with sl st in first st", "sl st in first sc to join"; a new colour; a chain into a ring."""
    if stream.word("join", "joining", "attach", "attaching", "rejoin", "reattach"):
        if stream.any_of(*_RINGS):
            return [Gesture("join into ring", span=stream.since(start))]
        if _joins_colour(stream) or (stream.at == start + 1 and _joins_anywhere(stream)):
            return colour_gesture(stream, start, "join colour")
        stream.any_of("the rnd", "rnd", "round", "the round")
        short = stream.word("w") and stream.mark("/")
        joined = not (short or stream.word("with", "by")) or stream.any_of(*_SLIPPED)
        if not joined and (closed := _closing_stitch(stream, start)) is not None:
            return [closed]
        if not joined and (sees_stitch(stream) is not None or stream.sees("a")):
            stream.at = start
            return None
        stream.any_of("a sl st", "sl st")
        return end_of_join(stream, start)
    if start == 0 or not stream.any_of("sl st", "slst", "ss", "slip st", "slip stitch", "sl sts"):
        return None  # at the very start it moves the hook; there is nothing to join yet
    if stream.any_of(
        "to join",
        "and join",
        "to close",
        "to close the round",
        "to close the rnd",
        "to close rnd",
        "to close round",
        "join",
    ):
        return end_of_join(stream, start)
    if stream.context.kind == "Rnd" and (stream.peek() is None or (stream.mark(".") and stream.peek() is None)):
        return [Gesture("join", span=stream.since(start))]  # "...; sl st." at the end of a round closes it
    if stream.any_of(*_RINGS):
        return [Gesture("join into ring", span=stream.since(start))]
    if stream.word("in", "into", "to"):
        stream.word("the")
        closes = stream.word("first") or taken(stream, "FirstOne")
        if closes and (token := stream.peek()) is not None and token.kind == "num":
            stream.at = start  # "sl st in first 3 sts" moves along
            return None
        top = not _in_last_made(stream) and stream.any_of("top of", "beg", "beginning", "starting", "joining")
        if not closes and not top:
            closes = _chain_of_beginning(stream)
        if closes or top:
            _tail(stream)
            if stream.any_of(*_RINGS):
                return [Gesture("join into ring", span=stream.since(start))]
            return [Gesture("join", span=stream.since(start))]
    stream.at = start
    return None


def _in_last_made(stream: Stream) -> bool:
    """ "sl st in top of sc just made": a picot is closed, and no round."""
    start = stream.at
    made = taken(stream, "MadeBefore")
    stream.at = start
    return made


def _closing_stitch(stream: Stream, start: int) -> Step | None:
    """ "..., ch 2, join with dc in first sc": the stitch that closes the last loop of a round."""
    at = stream.at
    stream.word("a", "an")
    stitch = stitch_word(stream)
    if stitch is not None and stream.word("in", "into", "to"):
        try:
            into, _ = read_into(stream)
        except NotUnderstood:
            into = None
        if isinstance(into, Nth):
            return Work(stitch, plain_num(stream, 1), into, "both", stream.since(start))
    stream.at = at
    return None


def _chain_of_beginning(stream: Stream) -> bool:
    """ "3rd ch of beg ch-3": the top of the chain that began the round."""
    start = stream.at
    token = stream.peek()
    if token is not None and token.kind == "ordinal":
        stream.next()
        stream.count(start)
        if stream.word("of") and (stream.number() is not None or stream.word("beg", "beginning", "starting", "the")):
            stream.count(start)
            _tail(stream)  # "3rd of 6 ch"
            return True
        if stream.word(*CHAIN):
            after = stream.peek()
            closes = stream.context.kind == "Rnd" and (after is None or after.is_mark(".", "(", "["))
            if stream.word("of") or closes:
                return True
    stream.at = start
    return False


def joined_in(tokens: Sequence[Token]) -> int:
    """The 3 of "..., join in 3rd ch of beg ch-5": which chain of the one that began the round is its top; 0 where
    that is not said."""
    for at in range(len(tokens) - 1, 0, -1):
        before = {token.text for token in tokens[max(0, at - 6) : at]}
        if tokens[at].kind == "ordinal" and before & {"join", "ss", "slst", "sl", "slip"}:
            rest = [token.text for token in tokens[at + 1 : at + 7]]
            rest = rest[1:] if rest[:1] and rest[0] in CHAIN else rest
            return int(tokens[at].text[:-2]) if rest[:1] == ["of"] and set(rest) & set(CHAIN) else 0
    return 0


def with_space(steps: tuple[Step, ...], nth: int) -> tuple[Step, ...]:
    """The steps of a round whose first chain is joined to in its nth chain: that many are a stitch, and the others a
    space beside it."""
    at = next(
        (i for i, s in enumerate(steps) if not (isinstance(s, Gesture) or getattr(s, "stitch", "") == "sl st")), -1
    )
    chain = steps[at] if at >= 0 else None
    stitch = main_stitch(steps[at + 1 :]) if at >= 0 else None
    if not isinstance(chain, Chain) or chain.counts is not None or stitch is None or nth < 2:
        return steps
    if any(v is not None and v <= nth for v in chain.length.values):
        return steps
    space = Num(tuple(None if v is None else v - nth for v in chain.length.values))
    return (*steps[:at], replace(chain, counts=stitch, space=space), *steps[at + 1 :])


def end_of_join(stream: Stream, start: int) -> list[Step]:
    """The rest of a joining: where it is joined, which is the beginning of the round anyway."""
    if stream.any_of(*_RINGS):
        return [Gesture("join into ring", span=stream.since(start))]
    if stream.word("in", "into", "to"):
        _tail(stream)
        if stream.any_of(*_RINGS):
            return [Gesture("join into ring", span=stream.since(start))]
    return [Gesture("join", span=stream.since(start))]


def _tail(stream: Stream) -> None:
    """The words that say where a round is joined, as far as they are words for places."""
    begin = stream.at
    known = {
        *stitch_words(stream.context.terms),
        *GATHERED,
        *(part for _, parts in stream.context.specials for part in parts),
    }
    while (token := stream.peek()) is not None and not token.is_mark(",", ";", ".", "[", "(", ")", "]", "—"):
        if token.is_word("turn", "ch", "chain", "fasten", "and", "into") and not _within_chain(stream):
            break
        if any(stream.sees("to", verb) for verb in ("form", "make", "work")):
            break
        if token.kind == "word" and (stitch_word(stream) or foundation_stitch(stream)) is not None:
            continue
        if not (
            token.kind in ("num", "ordinal")
            or token.is_mark("-", "/", "'")
            or token.is_word(*_OF_PLACE)
            or token.text in known
        ):
            break
        stream.next()
    stream.count(begin)


# Words for the place that a round is joined to.
_OF_PLACE = (
    "the", "a", "your", "first", "beg", "beginning", "starting", "start", "joining", "initial", "turning", "last",
    "same", "top", "base", "st", "sts", "stitch", "stitches", *CHAIN, "sp", "space", "loop", "lp",
    "loops", "lps", "of", "at", "to", "in", "as", "rnd", "round", "row", "this", "that", "made", "skipped",
    "previous", "prev", "next", "corner", "ring", "close", "join", "both", "back", "front", "blo", "flo",
    "only", "through", "marked", "marker", "where", "you", "began", "started", "yarn", "was", "joined", "one", "real",
    "v", "with", "sl", "ss", "slst", "slip", "from", "begin", "foundation", "counted", "which", "counts",
    "group", "motif", "side", "seam", "edge", "post", "around", "two", "under", "opening", "tch", "picot", "fan",
    "shell", "any",
)  # fmt: skip


def _within_chain(stream: Stream) -> bool:
    """ "ch" is part of where ("top of beg ch-3") when a word of beginnings or "of" stands before it."""
    before = stream.tokens[stream.at - 1]
    here = stream.peek()
    if here is None or not here.is_word(*CHAIN):
        return False
    at = stream.at - 1 - before.is_mark("-")
    if stream.tokens[at].kind == "num":  # "3rd ch of 5 ch", "top of 3-ch"
        before = stream.tokens[at - 1]
    return (
        before.is_word("of", "beg", "beginning", "starting", "start", "turning", "first", "the", "in", "top")
        or before.kind == "ordinal"
    )


def _joins_colour(stream: Stream) -> bool:
    return (
        stream.sees("colour")
        or stream.sees("color")
        or stream.sees("yarn")
        or stream.sees("new")
        or stream.sees("contrast")
        or _letter(stream)
    )


def _joins_anywhere(stream: Stream) -> bool:
    """ "Join in any ch-2 sp", "join with sl st in any corner": where the yarn begins, and no end of a round."""
    at = stream.at
    stream.any_of("with a sl st", "with sl st", "with a ss", "with ss")
    anywhere = stream.any_of("in any", "to any", "into any", "at any")
    stream.at = at
    return anywhere


def names_colour(stream: Stream) -> bool:
    """Does a word such as "with" name a colour ("With B, ...", "using colour A, ...")?"""
    following, after = stream.peek(1), stream.peek(2)
    if following is not None and following.kind == "ordinal" and after is not None:
        return after.is_word("colour", "color", "shade", "yarn")  # "with second shade"
    if following is None or following.kind != "word":
        return False
    if following.is_word("colour", "color", "yarn", "mc", "cc"):
        return True
    goes_on = (
        after is None
        or after.is_mark(",", ":", "-")
        or after.kind == "num"
        or after.is_word("ch", *stitch_words(stream.context.terms))
    )
    return len(following.text) == 1 and following.text != "x" and goes_on


def _letter(stream: Stream) -> bool:
    token = stream.peek()
    if token is None or token.kind != "word" or not (len(token.text) == 1 or token.text in ("mc", "cc")):
        return False
    following = stream.peek(1)
    if following is not None and following.is_mark("/"):  # "join w/ sl st"
        return False
    return following is None or following.kind == "mark" or following.is_word("in", "with", "to", "at", "and")


def read_colour(stream: Stream, start: int) -> list[Step] | None:
    """ "Change to B": the colour from here on."""
    stream.next()
    stream.word("to")
    return colour_gesture(stream, start, "change colour")


_DONE = ("on", "for", "when", "before", "during", "as", "after", "while", "in", "at")
_OF_DONE = (
    "the", "last", "final", "yo", "yoh", "yarn", "over", "of", "st", "sts", "stitch", "each", "every", "row", "rnd",
    "round", "this", "previous", "before", "loops", "loop", "on", "hook", "you", "pull", "through",
    "with", "new", "old", "colour", "color", "completing", "finishing", "joining", "join", "sl", "ss", "slst", "two",
    "are", "left", "remain", "working", "end", "at", "in", "making", "it", "step", "a", "needed",
    "chart", "shown", "required", "to", "go", "as", "when", "ch",
)  # fmt: skip


def _as_it_is_done(stream: Stream) -> str:
    """ "on last yo of last st", "when 2 loops are left on the hook": how a colour is changed, in words; "" where
    nothing is said of it."""
    start = stream.at
    if not stream.word(*_DONE):
        return ""
    while stream.word(*_OF_DONE) or stream.mark("-") or stitch_word(stream) is not None or _two(stream):
        if stream.tokens[stream.at - 1].is_word("row", "rnd", "round"):
            stream.number()
    token = stream.peek()
    if token is None or token.kind == "mark":
        stream.count(start)
        return stream.written(start, stream.at)
    stream.at = start
    keep_phrase(stream, start)
    return ""


def _two(stream: Stream) -> bool:
    """The 2 of "when 2 loops are left on the hook"."""
    token = stream.peek()
    if token is not None and token.kind == "num" and token.text in ("2", "two"):
        stream.next()
        return True
    return False


def colour_gesture(stream: Stream, start: int, kind: GestureKind) -> list[Step]:
    """The colour named, and the place where it is joined. Words that name no place are left out."""
    stream.any_of("to", "new yarn", "new colour", "new color", "colour", "color", "yarn", "the yarn")
    words: list[str] = []
    if (
        (numbered := stream.peek()) is not None
        and numbered.kind == "num"
        and stream.tokens[stream.at - 1].is_word("colour", "color")
    ):
        words.append(f"colour {numbered.text}")
        stream.next()
        stream.count(stream.at - 1)
    while (
        (token := stream.peek()) is not None
        and token.kind == "word"
        and not token.is_word(
            "in",
            "with",
            "to",
            "and",
            "at",
            "ch",
            "on",
            "for",
            "when",
            "before",
            "during",
            "as",
            "after",
            "while",
            "throughout",
            *(stitch_words(stream.context.terms) if words else ()),
        )
        and not (words and token.text in CRAFT)
    ):
        words.append(token.text)
        stream.next()
    into: Into | None = None
    how = _as_it_is_done(stream) if kind == "change colour" else ""
    stream.any_of("with a sl st", "with sl st", "with a ss", "with ss")
    where = stream.at
    if stream.word("in", "to", "at", "into"):
        stream.word("any")
        try:
            into, _ = read_into(stream)
        except NotUnderstood:
            if not keep_phrase(stream, where):
                stream.next()
                _tail(stream)
    if isinstance(
        into, Loops
    ):  # "join yarn in first free front loop of Rnd 16": what is worked there names them itself
        stream.free_loops, into = replace(into, count=None), None
    return [
        Gesture(
            kind,
            " ".join(words).upper() if len(" ".join(words)) <= 2 else " ".join(words),
            into,
            stream.since(start),
            how,
        )
    ]
