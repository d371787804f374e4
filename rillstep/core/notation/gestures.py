"""What is done without making a stitch: joining, turning, markers, colours, the ends of things."""

from rillstep.core.notation.ends import read_loop
from rillstep.core.notation.leaving import read_leave
from rillstep.core.notation.places import read_into
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import Gesture, GestureKind, Into, Loops, Step
from rillstep.core.notation.vocabulary import picot, sees_stitch
from rillstep.core.notation.whats import CHAIN
from rillstep.core.stitches import stitch_words

_PLAIN: tuple[tuple[str, GestureKind], ...] = (
    ("do not join", "do not join"), ("don't join", "do not join"), ("without joining", "do not join"),
    ("do not turn", "do not turn"), ("don't turn", "do not turn"), ("without turning", "do not turn"),
    ("no turn", "do not turn"), ("turn the work", "turn"), ("turn work", "turn"), ("turn", "turn"),
    ("rotate the work", "rotate"), ("rotate work", "rotate"), ("rotate piece", "rotate"), ("rotate", "rotate"),
    ("fasten off", "fasten off"), ("finish off", "fasten off"), ("break yarn", "fasten off"),
    ("cut yarn", "fasten off"), ("cut the yarn", "fasten off"), ("fo", "fasten off"),
    ("make an adjustable ring", "adjustable ring"), ("make a magic ring", "adjustable ring"),
    ("make a mr", "adjustable ring"), ("adjustable ring", "adjustable ring"), ("magic ring", "adjustable ring"),
    ("magic circle", "adjustable ring"), ("mr", "adjustable ring"),
)  # fmt: skip
_PLAIN_WORDS = tuple(words for words, _ in _PLAIN)
_RING = (
    "to form a ring", "to form ring", "into a ring", "in a ring", "into ring", "to make a ring", "without twisting",
    "being careful not to twist", "taking care not to twist", "making sure not to twist",
)  # fmt: skip
_SLIPPED = (
    "a sl st", "sl st", "ss", "a ss", "slst", "a slst", "slip st", "a slip st", "slip stitch", "a slip stitch",
)  # fmt: skip


def _is_colour(stream: Stream) -> bool:
    """Is a letter by itself at the start of a clause a colour, and no article?"""
    token, second, third = stream.peek(), stream.peek(1), stream.peek(2)
    if (
        token is None
        or second is None
        or not (len(token.text) == 1 or token.text in ("mc", "cc"))
        or token.text in ("x", "r")
    ):
        return False
    begins = stream.at == 0 or stream.tokens[stream.at - 1].is_mark("(", "[", "*", ",", ";", ":", ".")
    words = stitch_words(stream.context.terms)
    stitch = (
        second.text in words
        or second.is_word("inc", "dec")
        or (second.kind == "num" and third is not None and third.text in words)
    )
    return second.is_mark(":") or (begins and stitch)


# How a stitch stands to others: it takes what it takes all the same.
_BESIDE = (
    "working in front of",
    "working behind",
    "work in front of",
    "work behind",
    "working over",
    "in front of",
    "behind",
    "pushing",
    "enclosing",
)


def _to_where(stream: Stream) -> None:
    """The words of an aside, to a mark, or to a stitch that is worked after "made"."""
    while (token := stream.peek()) is not None and token.kind in ("word", "num"):
        stream.at += 1
        if token.is_word("made", "worked") or (token.is_word("st", "sts") and sees_stitch(stream) is not None):
            return


_FACING = (
    "with rs facing", "with ws facing", "with right side facing", "with wrong side facing", "with the right side facing", "with the wrong side facing",
    "with rs facing you", "with rs of work facing", "with right side of work facing", "rs facing", "ws facing", "right side facing", "wrong side facing",
)  # fmt: skip
_TWIST = (
    "being careful not to twist", "taking care not to twist", "making sure not to twist", "careful not to twist",
    "without twisting",
)  # fmt: skip


def read_gesture(stream: Stream) -> list[Step] | None:
    """A gesture, if one comes next."""
    start = stream.at
    token = stream.peek()
    assert token is not None
    if token.kind != "word":
        return None
    if token.text == "pm" or token.text in ("place", "put", "insert", "move", "remove", "mark", "moving", "placing"):
        return _read_marker_gesture(stream, start)
    if stream.any_of(*_TWIST):
        return []
    if stream.any_of(
        "ending with", "end with", "ending", "ending in"
    ):  # says how the last repeat ends: no more than it does
        depth = 0
        while (after := stream.peek()) is not None and (depth or not after.is_mark(";", ".", "]", ")", "—")):
            depth += after.is_mark("(", "[") - after.is_mark(")", "]")
            stream.at += 1
        return []
    if stream.any_of(*_BESIDE):
        _to_where(stream)
        return [Gesture("aside", " ".join(t.text for t in stream.tokens[start : stream.at]), span=stream.since(start))]
    if _is_colour(stream):  # "A: sc in next 2 sts; B: ...", "(A 2 sc, B inc)"
        stream.at += 1
        stream.mark(":")
        return [Gesture("change colour", token.text.upper(), span=stream.since(start))]
    leave = read_leave(stream)
    if leave is not None:
        return [leave]
    if stream.any_of("turn work to", "turn the work to", "turn to", "turn piece to"):
        side = {"side", "chain", "ch", "edge", "underside", "bottom"}
        begin = stream.at
        while (token_ := stream.peek()) is not None and token_.kind == "word":
            stream.at += 1
        if side & {t.text for t in stream.tokens[begin : stream.at]}:
            return [Gesture("rotate", span=stream.since(start))]
        stream.at = start
    index = stream.phrase(_PLAIN_WORDS)
    if index is not None:
        kind = _PLAIN[index][1]
        _rest_of_aside(stream, kind)
        return [Gesture(kind, span=stream.since(start))]
    if token.is_word("join", "attach", "attaching", "rejoin", "reattach", "sl", "slst", "ss", "slip"):
        return _read_join(stream, start)
    if token.is_word("change", "switch", "changing", "switching"):
        return _read_colour(stream, start)
    if token.is_word("using", "with", "in") and names_colour(stream):
        stream.next()
        return _colour(stream, start, "change colour")
    if token.is_word(
        "working",
        "work",
        "in",
        "blo",
        "flo",
        "through",
        "along",
        "on",
        "continue",
        "continuing",
        "down",
        "now",
        "across",
    ):
        return _read_row_loop(stream, start)
    if stream.any_of(*_FACING):
        return [Gesture("aside", " ".join(t.text for t in stream.tokens[start : stream.at]), span=stream.since(start))]
    if stream.words("with") and (
        stream.sees("rs") or stream.sees("right") or stream.sees("wrong") or stream.sees("ws")
    ):
        return _read_seam(stream, start)
    stream.at = start
    if picot(stream):
        return [Gesture("aside", "picot", span=stream.since(start))]
    return None


def _rest_of_aside(stream: Stream, kind: GestureKind) -> None:
    """ "Fasten off, leaving a long tail", "turn to work along ...": the how of a gesture is no instruction."""
    if kind == "fasten off":
        stream.mark(",")
        token = stream.peek()
        if token is not None and token.kind == "word" and not token.is_word("leaving", "and", "weave", "then"):
            _colour_named(stream)
        stream.mark(",")
        if stream.word("leaving", "and", "weave"):
            while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
                stream.at += 1
    elif kind == "rotate":
        if stream.peek() is not None and stream.tokens[stream.at].kind == "num":
            stream.at += 1
            stream.word("degrees", "deg")
        stream.any_of("the piece", "piece")
        if stream.word("to"):
            while (token := stream.peek()) is not None and token.kind == "word":
                stream.at += 1


def _colour_named(stream: Stream) -> None:
    """ "Fasten off A", "fasten off colour B", "cut MC": which yarn, where it is named."""
    start = stream.at
    stream.any_of("colour", "color", "yarn")
    token = stream.peek()
    if (
        token is not None
        and token.kind == "word"
        and (stream.at > start or len(token.text) == 1 or token.text in ("mc", "cc"))
    ):
        stream.at += 1
    else:
        stream.at = start


def _read_marker_gesture(stream: Stream, start: int) -> list[Step] | None:
    kind: GestureKind = "place marker"
    token = stream.next()
    if token.text in ("move", "moving"):
        kind = "move marker"
    elif token.text == "remove":
        kind = "remove marker"
    if token.text == "mark":
        stream.any_of("this", "the", "that")
    if not (stream.sees("a", "marker") or stream.sees("a", "stitch")) and stream.word(
        "the", "st", "your", "each", "both"
    ):
        pass
    elif stream.sees("a", "marker") or stream.sees("a", "stitch") or stream.sees("a", "st"):
        stream.word("a")
        stream.word("st", "stitch")
    if token.text not in ("pm", "mark") and not stream.word("marker", "markers", "m", "sm", "stitch"):
        stream.at = start
        return None
    stream.word("marker", "markers")
    name = ""
    here = stream.peek()
    if here is not None and here.kind == "word" and len(here.text) == 1 and here.text != "x":
        stream.at += 1
        name = here.text.upper()
    into: Into | None = None
    stream.any_of(
        "up each round as you go", "up each rnd as you go", "up as you go", "up each round", "up each rnd", "up"
    )
    if stream.word("in", "on", "into", "at", "around", "to"):
        before = stream.at
        try:
            if stream.any_of(
                "this st",
                "this stitch",
                "last st made",
                "st just made",
                "stitch just made",
                "last st worked",
                "this sc",
                "the st just made",
                "the last st made",
            ):
                into = None
            else:
                into, _ = read_into(stream)
                stream.any_of("of rnd", "of round", "of row", "of the rnd", "of this rnd", "made", "of each rnd")
        except NotUnderstood:
            stream.at = before
            while (token_ := stream.peek()) is not None and not token_.is_mark(",", ";", "."):
                stream.at += 1
    elif stream.word("for", "as"):
        while (rest := stream.peek()) is not None and rest.kind == "word":
            stream.at += 1
    return [Gesture(kind, name, into, stream.since(start))]


def _read_join(stream: Stream, start: int) -> list[Step] | None:
    """ "join", "join with sl st in first st", "sl st in first sc to join"; a new colour; a chain into a ring."""
    if stream.word("join", "joining", "attach", "attaching", "rejoin", "reattach"):
        if stream.any_of(*_RING):
            return [Gesture("join into ring", span=stream.since(start))]
        if _joins_colour(stream):
            return _colour(stream, start, "join colour")
        stream.any_of("the rnd", "rnd", "round", "the round")
        short = stream.word("w") and stream.mark("/")
        joined = not (short or stream.word("with", "by")) or stream.any_of(*_SLIPPED)
        if not joined and (sees_stitch(stream) is not None or stream.sees("a")):
            stream.at = start
            return None
        stream.any_of("a sl st", "sl st")
        return _end_of_join(stream, start)
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
        return _end_of_join(stream, start)
    if stream.context.kind == "Rnd" and (stream.peek() is None or (stream.mark(".") and stream.peek() is None)):
        return [Gesture("join", span=stream.since(start))]  # "...; sl st." at the end of a round closes it
    if stream.any_of(*_RING):
        return [Gesture("join into ring", span=stream.since(start))]
    if stream.word("in", "into", "to"):
        stream.word("the")
        closes = stream.word("first", "1st") or (stream.peek() is not None and stream.here() and _first_ordinal(stream))
        if closes and (token := stream.peek()) is not None and token.kind == "num":
            stream.at = start  # "sl st in first 3 sts" moves along
            return None
        top = stream.any_of("top of", "beg", "beginning", "starting", "joining")
        if not closes and not top:
            closes = _chain_of_beginning(stream)
        if closes or top:
            _tail(stream)
            if stream.any_of(*_RING):
                return [Gesture("join into ring", span=stream.since(start))]
            return [Gesture("join", span=stream.since(start))]
    stream.at = start
    return None


def _first_ordinal(stream: Stream) -> bool:
    token = stream.peek()
    if token is not None and token.kind == "ordinal" and token.text == "1st":
        stream.at += 1
        return True
    return False


def _chain_of_beginning(stream: Stream) -> bool:
    """ "3rd ch of beg ch-3": the top of the chain that began the round."""
    start = stream.at
    token = stream.peek()
    if token is not None and token.kind == "ordinal":
        stream.at += 1
        if stream.word(*CHAIN) and stream.word("of"):
            return True
    stream.at = start
    return False


def _end_of_join(stream: Stream, start: int) -> list[Step]:
    if stream.any_of(*_RING):
        return [Gesture("join into ring", span=stream.since(start))]
    if stream.word("in", "into", "to"):
        _tail(stream)
        if stream.any_of(*_RING):
            return [Gesture("join into ring", span=stream.since(start))]
    return [Gesture("join", span=stream.since(start))]


def _tail(stream: Stream) -> None:
    """The words that say where a round is joined, to the end of the clause."""
    while (token := stream.peek()) is not None and not token.is_mark(",", ";", ".", "[", "(", ")", "]", "—"):
        if token.is_word("turn", "ch", "chain", "fasten", "and", "into") and not _within_chain(stream):
            return
        if stream.sees("to", "form") or stream.sees("to", "make"):
            return
        stream.at += 1


def _within_chain(stream: Stream) -> bool:
    """ "ch" is part of where ("top of beg ch-3") when a word of beginnings or "of" stands before it."""
    before = stream.tokens[stream.at - 1]
    here = stream.peek()
    if here is None or not here.is_word(*CHAIN):
        return False
    if before.kind == "num":  # "3rd ch of 5 ch"
        before = stream.tokens[stream.at - 2]
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


def names_colour(stream: Stream) -> bool:
    """Does a word such as "with" name a colour ("With B, ...", "using colour A, ...")?"""
    following = stream.peek(1)
    if following is None or following.kind != "word":
        return False
    if following.is_word("colour", "color", "yarn", "mc", "cc"):
        return True
    after = stream.peek(2)
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


def _read_colour(stream: Stream, start: int) -> list[Step] | None:
    stream.next()
    stream.word("to")
    return _colour(stream, start, "change colour")


def _colour(stream: Stream, start: int, kind: GestureKind) -> list[Step]:
    stream.any_of("to", "new yarn", "new colour", "new color", "colour", "color", "yarn", "the yarn")
    words: list[str] = []
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
    ):
        words.append(token.text)
        stream.at += 1
    into: Into | None = None
    if kind == "change colour" and stream.word(
        "on", "for", "when", "before", "during", "as", "after", "while", "in", "at"
    ):
        while (token := stream.peek()) is not None and token.kind != "mark":
            stream.at += 1  # how it is done: "on last yo of last st"
    stream.any_of("with a sl st", "with sl st")
    if stream.word("in", "to", "at"):
        stream.word("any")
        try:
            into, _ = read_into(stream)
        except NotUnderstood:
            _tail(stream)
    return [
        Gesture(
            kind, " ".join(words).upper() if len(" ".join(words)) <= 2 else " ".join(words), into, stream.since(start)
        )
    ]


_TOWARDS = ("along", "on", "in", "down", "into", "across", "up", "to", "around")
_OTHER = ("opposite", "other", "bottom", "underside", "unused", "free", "remaining", "second")


def _read_other_side(stream: Stream) -> bool:
    """ "Working along the opposite side of the foundation chain": the work is rotated."""
    start = stream.at
    stream.any_of("working", "work", "continue working", "continue", "continuing", "now working", "now work")
    if stream.word(*_TOWARDS):
        stream.word("the", "back")
        begin = stream.at
        if stream.word(*_OTHER):
            while (
                (token := stream.peek()) is not None
                and token.kind == "word"
                and not token.is_word("work", "sc", "hdc", "dc")
            ):
                stream.at += 1
            words = {token.text for token in stream.tokens[begin : stream.at]}
            if words & {"side", "chain", "ch", "edge", "underside", "loops", "bottom"} and not words & {"st", "sts"}:
                return True
    stream.at = start
    return False


_BUMPS = (
    "back bumps of ch", "back bump of ch", "back bumps of the ch", "back bumps of chain",
    "back bumps of foundation ch", "back bumps of the foundation chain", "the back bumps of the ch",
    "the back bumps of the chain", "the back bumps", "back bumps", "the back bump", "back bump",
)  # fmt: skip


def _read_row_loop(stream: Stream, start: int) -> list[Step] | None:
    """ "Working in back loops only, ...": holds for the rest of the line."""
    stream.word("working", "work")
    free = _free_loops(stream)
    if free is not None:
        stream.free_loops = free
        return []
    stream.at = start
    if _read_other_side(stream):
        return [Gesture("rotate", span=stream.since(start))]
    stream.word("working", "work")
    if (
        stream.word("in", "into")
        and stream.any_of(*_BUMPS)
        and ((after := stream.peek()) is None or after.kind == "mark")
    ):
        return [Gesture("aside", "working in back bumps of ch", span=stream.since(start))]
    stream.at = start
    stream.word("working", "work")
    loop = read_loop(stream)
    if loop is None:
        stream.at = start
        return None
    stream.any_of(
        "of each st", "of all sts", "throughout", "for this rnd", "for this row", "for this round", "this rnd",
        "this row",
    )  # fmt: skip
    here = stream.peek()
    if here is None or here.is_mark(",", ":", ";", "-") or (stream.at > start + 2 and sees_stitch(stream) is not None):
        stream.loop = loop
        return []
    stream.at = start
    return None


def _free_loops(stream: Stream) -> Loops | None:
    """ "Working in the unused loops of Rnd 6, ...": the row is worked into them."""
    start = stream.at
    if stream.word("in", "into", "through"):
        try:
            into, _ = read_into(stream)
        except NotUnderstood:
            into = None
        here = stream.peek()
        if isinstance(into, Loops) and (here is None or here.is_mark(",", ":", ";", "-")):
            return into
    stream.at = start
    return None


def _read_seam(stream: Stream, start: int) -> list[Step]:
    while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
        stream.at += 1
    return [Gesture("seam", " ".join(t.text for t in stream.tokens[start + 1 : stream.at]), span=stream.since(start))]
