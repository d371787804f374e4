"""What is done without making a stitch: joining, turning, markers, colours, the ends of things."""

from rillstep.core.clauses.endings import read_leave
from rillstep.core.clauses.joins import colour_gesture, end_of_join, names_colour, read_colour, read_join
from rillstep.core.clauses.markers import read_marker_gesture
from rillstep.core.clauses.sides import OF_A_SIDE, read_row_loop, read_seam, reads_other_side
from rillstep.core.craft import stitch_words
from rillstep.core.reading.named_places import read_into
from rillstep.core.tree import Chain, Gesture, GestureKind, Last, Step, TopOfChain
from rillstep.core.words.asides import keep, keep_finish, keep_phrase
from rillstep.core.words.lexicon import CHAIN, RING_NAMES, SPACE, STITCH
from rillstep.core.words.stitch_names import picot, sees_stitch, stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream
from rillstep.core.words.tokens import Token

_PLAIN: tuple[tuple[str, GestureKind], ...] = (
    ("do not join", "do not join"), ("don't join", "do not join"), ("without joining", "do not join"),
    ("do not turn", "do not turn"), ("don't turn", "do not turn"), ("without turning", "do not turn"),
    ("no turn", "do not turn"), ("turn the work", "turn"), ("turn your work", "turn"), ("turn work", "turn"),
    ("turn", "turn"), ("rotate your work", "rotate"),
    ("rotate the work", "rotate"), ("rotate work", "rotate"), ("rotate piece", "rotate"), ("rotate", "rotate"),
    ("fold flat and work through both layers", "both layers"), ("fasten off", "fasten off"),
    ("finish off", "fasten off"), ("break yarn", "fasten off"),
    ("cut yarn", "fasten off"), ("cut the yarn", "fasten off"), ("fo", "fasten off"),
    ("make an adjustable ring", "adjustable ring"), ("make a magic ring", "adjustable ring"),
    ("make a mr", "adjustable ring"), ("make a magic loop", "adjustable ring"),
    ("make a magic circle", "adjustable ring"), ("magic loop", "adjustable ring"),
    ("adjustable ring", "adjustable ring"), ("magic ring", "adjustable ring"),
    ("magic circle", "adjustable ring"), ("mr", "adjustable ring"),
)  # fmt: skip
_RING_WORDS = tuple(
    f"{verb} {ring}"
    for verb in (
        "make a",
        "make an",
        "start with a",
        "start with an",
        "begin with a",
        "begin with an",
        "starting with a",
        "create a",
        "form a",
        "start in a",
        "begin in a",
    )
    for ring in (
        "magic ring",
        "magic circle",
        "magic loop",
        "adjustable ring",
        "adjustable loop",
        "slip ring",
        "sliding ring",
    )
)
_RING_WORDS = (
    *_RING_WORDS,
    "make a ring",
    "using the magic ring method",
    "using the magic circle method",
    "using a magic ring",
    "using an adjustable ring",
)
_PLAIN = (*((words, "adjustable ring") for words in _RING_WORDS), *_PLAIN)
_TURNED = (
    "turn the work round", "turn the work around", "turn work around", "turn your work around", "turn round",
    "turn around", "turn your work", "turn the work", "turn work", "turn the piece", "turn piece", "turn",
    "rotate your work", "rotate the work",
    "rotate work", "rotate the piece", "rotate piece", "rotate", "rotating", "turning the work", "turning",
)  # fmt: skip
_PLAIN_WORDS = tuple(words for words, _ in _PLAIN)


def _ring_in(words: str) -> str:
    """What the words of a gesture call a ring that is no plain one: "magic circle"; "" where they name none."""
    return "magic ring" if words == "mr" or words.endswith(" mr") else next((r for r in RING_NAMES if r in words), "")


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
        or (second.is_mark("(") and token.text in ("mc", "cc"))
    )
    return second.is_mark(":") or (begins and (stitch or _counts_in_colour(second, third)))


def _counts_in_colour(second: Token, third: Token | None) -> bool:
    """ "*A 5, B 1": so many stitches in each colour, of the kind that the row names or sc."""
    return second.kind == "num" and (third is None or third.is_mark(",", ";", ".", "]", ")", "*"))


# How a stitch stands to others: it takes what it takes all the same.
_BESIDE = (
    "working in front of", "working behind", "work in front of", "work behind", "working over", "in front of",
    "behind", "pushing", "enclosing",
)  # fmt: skip


_OF_BESIDE = (
    "the", "a", "an", "next", "last", "same", "skipped", "sk", "missed", "previous", "prev", "first", "second", "all",
    "both", "these", "those", "this", "that", "each",
    "other", "of", "and", "at", "row", "rnd", "round", "rows", "below", "work", "piece", "fabric", "yarn", "tail",
    "ends", "end", "cable", "loop", "loops", "lp", "lps", "just", "not",
    "them", "it", "foundation", "strand", "strands", "handle", "strap", "cord", "layers", "layer", "together",
    "pieces", "panels", "motifs", "edges", "squares", "circles", "thicknesses", "behind", "front", "back",
)  # fmt: skip


def _to_where(stream: Stream) -> None:
    """The words of an aside that tell where: stitches and chains that are there already; to a mark, or to a stitch
    that is worked after "made"."""
    start = stream.at
    while (token := stream.peek()) is not None:
        named = token.kind == "num" or stitch_word_ahead(stream) or token.is_word(*_OF_BESIDE, *STITCH, *CHAIN, *SPACE)
        if token.is_word("made", "worked", "formed") or (token.is_word("st", "sts") and sees_stitch_after(stream)):
            stream.next()
            break
        if not named and not (token.is_mark("-") and stream.at > start):
            break
        stream.next()
    stream.count(start)


_FACING = (
    "with rs facing", "with ws facing", "with right side facing", "with wrong side facing",
    "with the right side facing", "with the wrong side facing",
    "with rs facing you", "with rs of work facing", "with right side of work facing", "rs facing", "ws facing",
    "right side facing", "wrong side facing",
)  # fmt: skip
# One piece folded on itself, or two held together: what is meant shows when it is worked.
_BOTH_LAYERS = (
    "working through both layers", "work through both layers", "through both layers", "working in both layers",
    "working through both thicknesses",
    "working through both edges", "working through both sides", "work through both thicknesses",
    "through both thicknesses",
    "working through both circles", "working through both pieces", "working through both panels",
    "working through both squares",
    "working through both motifs", "working through both", "working through all layers", "work through both pieces",
    "work through both panels",
)  # fmt: skip
_TWIST = (
    "being careful not to twist", "taking care not to twist", "making sure not to twist", "careful not to twist",
    "without twisting", "making sure the chain is not twisted", "making sure that the chain is not twisted",
    "making sure it is not twisted", "making sure the ch is not twisted",
)  # fmt: skip


def _is_last_place(stream: Stream) -> bool:
    """ "... ending in top of tch": the last place, which the last stitch goes into anyway."""
    start = stream.at
    stream.any_of("the last", "last", "a", "the", "your last")
    stream.number()
    if stitch_word(stream) is not None:
        stream.word("in", "into")
    try:
        into, _ = read_into(stream)
    except NotUnderstood:
        into = None
    if not isinstance(into, Last | TopOfChain):
        return False
    stream.count(start)
    return True


def stitch_word_ahead(stream: Stream) -> bool:
    """Is the next word a stitch by its short name?"""
    token = stream.peek()
    return token is not None and token.kind == "word" and token.text in stitch_words(stream.context.terms)


def sees_stitch_after(stream: Stream) -> bool:
    """Does a stitch come after the next word?"""
    start = stream.at
    stream.next()
    found = sees_stitch(stream) is not None
    stream.at = start
    return found


def read_gesture(stream: Stream) -> list[Step] | None:
    """A gesture, if one comes next."""
    start = stream.at
    token = stream.peek()
    assert token is not None
    if token.kind != "word":
        return None
    if token.text == "pm" or token.text in ("place", "put", "insert", "move", "remove", "mark", "moving", "placing"):
        return read_marker_gesture(stream, start)
    if stream.any_of(*_TWIST):
        stream.any_of("the chain", "the ch", "chain", "ch", "chs", "it", "your chain", "your ch", "the sts")
        keep(stream, start)
        return []
    if stream.any_of("ending with a", "ending with", "end with", "ending in", "ending") and (
        stream.sees("join")
        or stream.sees("joining")
        or stream.any_of("sl st", "slst", "ss", "slip st", "a sl st", "a slip st")
    ):  # "ending with a sl st in first st": closes the round
        if stream.word("join", "joining"):
            stream.any_of("with a sl st", "with sl st", "with a ss", "with ss")
        return end_of_join(stream, start)
    stream.at = start
    if stream.any_of("ending in", "ending at", "ending with", "end with", "end in") and _is_last_place(stream):
        return []
    stream.at = start
    if stream.any_of(*_BESIDE):
        _to_where(stream)
        return [Gesture("aside", " ".join(t.text for t in stream.tokens[start : stream.at]), span=stream.since(start))]
    if token.is_word("mc", "cc") and (following := stream.peek(1)) is not None and following.is_mark(","):
        stream.next()  # "MC, sc in each st around"
        return [Gesture("change colour", token.text.upper(), span=stream.since(start))]
    if _is_colour(stream):  # "A: sc in next 2 sts; B: ...", "(A 2 sc, B inc)"
        stream.next()
        stream.mark(":")
        return [Gesture("change colour", token.text.upper(), span=stream.since(start))]
    if _turns_out(stream):
        return [Gesture("aside", " ".join(t.text for t in stream.tokens[start : stream.at]), span=stream.since(start))]
    leave = read_leave(stream)
    if leave is not None:
        return [leave]
    if stream.any_of(*_TURNED):  # "turn your work and continue along the other side of the chain"
        stream.mark(",")
        stream.any_of("so that you can", "so you can", "in order to", "so as to") or stream.word("and", "then", "to")
        if reads_other_side(stream):
            return [Gesture("rotate", span=stream.since(start))]
        stream.at = start
    if stream.any_of("turn work to", "turn the work to", "turn to", "turn piece to"):
        side = {"side", "chain", "ch", "edge", "underside", "bottom"}
        begin = stream.at
        while stream.word(*OF_A_SIDE):
            pass
        if side & {t.text for t in stream.tokens[begin : stream.at]}:
            return [Gesture("rotate", span=stream.since(start))]
        stream.at = start
    index = stream.phrase(_PLAIN_WORDS)
    if index is not None:
        kind = _PLAIN[index][1]
        _rest_of_aside(stream, kind)
        return [Gesture(kind, _ring_in(_PLAIN[index][0]), span=stream.since(start))]
    if _breaks_off(stream):
        return [Gesture("fasten off", span=stream.since(start))]
    if token.is_word("join", "attach", "attaching", "rejoin", "reattach", "sl", "slst", "ss", "slip"):
        return read_join(stream, start)
    if token.is_word("change", "switch", "changing", "switching"):
        return read_colour(stream, start)
    if (nth := _nth_colour(stream)) is not None:
        return [Gesture("change colour", nth, span=stream.since(start))]
    if token.is_word("using", "with", "in") and names_colour(stream):
        stream.next()
        return colour_gesture(stream, start, "change colour")
    if stream.any_of(*_BOTH_LAYERS):
        if not (stream.sees("loops") or stream.sees("lps")):
            if sees_stitch(stream) is None:
                _to_where(stream)
            return [layers(stream, start)]
        stream.at = start
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
        "cont",
        "continuing",
        "down",
        "now",
        "across",
    ):
        return read_row_loop(stream, start)
    if stream.any_of(*_FACING):
        return [Gesture("aside", " ".join(t.text for t in stream.tokens[start : stream.at]), span=stream.since(start))]
    if stream.words("with") and (
        stream.sees("rs") or stream.sees("right") or stream.sees("wrong") or stream.sees("ws")
    ):
        return read_seam(stream, start)
    stream.at = start
    if picot(stream):
        return [Gesture("aside", "picot", span=stream.since(start))]
    return None


def _turns_out(stream: Stream) -> bool:
    """ "Turn the tote inside out": whatever it is called."""
    start = stream.at
    if stream.word("turn", "turning"):
        stream.word("the", "your")
        if (token := stream.peek()) is not None and token.kind == "word" and not token.is_word("inside", "right"):
            stream.next()
        if stream.any_of("inside out", "right side out"):
            return True
    stream.at = start
    return False


def made_with_chain(stream: Stream) -> Chain | None:
    """ "dc in each ch around with ch 3 as first dc": the chain that is the first stitch of its row, wherever in the
    row that is said; None for anything else."""
    start = stream.at
    stream.word("with", "w")
    stream.mark("/")
    stream.word("a", "the")
    length = stream.number() if stream.word("ch", "chain") else None
    if length is not None and stream.word("as", "for"):
        span = stream.since(start)
        stream.word("the", "a")
        stream.word("first")
        counts = stitch_word(stream) or ("st" if stream.word(*STITCH) else None)
        if counts is not None:
            stream.word(*STITCH)
            return Chain(length, counts, span=span)
    stream.at = start
    return None


def layers(stream: Stream, start: int) -> Gesture:
    """ "Working through both layers": words about two pieces, or one round folded flat, whichever comes out."""
    words = " ".join(token.text for token in stream.tokens[start : stream.at])
    span = stream.since(start)
    return Gesture("both layers", span=span) if stream.choose(2, "layers") == 1 else Gesture("aside", words, span=span)


def _rest_of_aside(stream: Stream, kind: GestureKind) -> None:
    """ "Fasten off, leaving a long tail", "turn to work along ...": the how of a gesture is no instruction."""
    if kind == "fasten off":
        stream.mark(",")
        token = stream.peek()
        if token is not None and token.kind == "word" and not token.is_word("leaving", "and", "weave", "then"):
            _colour_named(stream)
        start = stream.at
        if keep_finish(stream):
            return
        stream.mark(",")
        stream.word("and", "then")
        if not (any(stream.sees(word) for word in ("leaving", "weave", "darn")) and keep_phrase(stream, stream.at)):
            stream.at = start
    elif kind == "turn":
        stream.any_of(
            "to work across last row",
            "to work across the last row",
            "to work back",
            "to work across",
            "to work back across",
        )
    elif kind == "rotate":
        start = stream.at
        if stream.number() is not None:
            stream.word("degrees", "deg") or stream.mark("°")
            stream.count(start)
        stream.any_of("the piece", "piece")
        if stream.word("to"):
            stream.word("work", "working", "crochet", "go", "continue")
            while stream.word(*OF_A_SIDE):
                pass


def _nth_colour(stream: Stream) -> str | None:
    """ "With second shade, ..." as colour 2; None for anything else."""
    start = stream.at
    if stream.word("using", "with", "in"):
        stream.word("the", "your")
        token = stream.peek()
        if token is not None and (token.kind == "ordinal" or token.is_word("first")):
            stream.next()
            if stream.word("colour", "color", "shade", "yarn"):
                stream.count(start)
                return f"colour {token.text[:-2] if token.kind == 'ordinal' else 1}"
    stream.at = start
    return None


def _breaks_off(stream: Stream) -> bool:
    """ "Break A", "break off B", "cut colour A and": a yarn that is named."""
    start = stream.at
    if stream.word("break", "cut"):
        stream.word("off")
        begin = stream.at
        _colour_named(stream)
        if stream.at > begin:
            following = stream.peek(1)
            if stream.sees("and") and following is not None and len(following.text) == 1:
                stream.next()  # "cut A and B"
                stream.next()
            return True
    stream.at = start
    return False


def _colour_named(stream: Stream) -> None:
    """ "Fasten off A", "fasten off colour B", "cut MC": which yarn, where it is named."""
    start = stream.at
    if stream.word("both", "all", "the"):
        stream.any_of("colours", "colors", "yarns", "strands", "ends", "yarn", "colour", "color")
        return
    stream.any_of("colour", "color", "yarn")
    token = stream.peek()
    if (
        token is not None
        and token.kind == "word"
        and (stream.at > start or len(token.text) == 1 or token.text in ("mc", "cc"))
    ):
        stream.next()
    else:
        stream.at = start
