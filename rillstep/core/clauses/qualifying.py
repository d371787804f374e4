"""Words that say whose places are meant: "of the previous round", "from Rnd 3", "2 rows below", "just made"."""

from rillstep.core.words.asides import keep_phrase
from rillstep.core.words.lexicon import CHAIN, ROWS, STITCH
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import RowNamed, Stream

_PIECES = (
    "bag", "body", "panel", "piece", "strap", "handle", "flap", "gusset", "pocket", "circle", "square", "base",
    "main body", "wall", "band",
)  # fmt: skip
_WHICH = ("front", "back", "main", "bag", "first", "second", "side", "bottom", "top")


def _piece(stream: Stream) -> bool:
    """ "of the front", "of Back panel", "of the bag": the piece that they belong to, by its name."""
    start = stream.at
    which = stream.word(*_WHICH)
    named = stream.any_of(*_PIECES) or (which and stream.tokens[start].is_word("front", "back"))
    if named and not any(stream.sees(word) for word in ("loop", "loops", "lp", "lps", "post")):
        return True
    stream.at = start
    return False


def qualifiers(stream: Stream) -> int:
    """ "of the previous round", "from Rnd 3", "below", "made": whose places they are; the row before is meant anyway.

    The answer is how many rows below they are where that is said ("2 rows below"), else 0.
    """
    below = 0
    while True:
        start = stream.at
        number = stream.number()
        if stream.word(*ROWS) and stream.word("below", "down"):
            below = next((v for v in number.values if v is not None), 0) if number is not None else 0
            stream.count(start)
            continue
        stream.at = start
        if stream.any_of("formed by", "made by", "created by"):
            stream.any_of("the", "a", "this", "that", "your")
            stream.any_of("next", "last", "previous", "first", "beg", "beginning", "turning", "skipped")
            stream.number()
            stream.mark("-")
            if stitch_word(stream) is None and not stream.word(*CHAIN, *STITCH, "join", "joining", "skipping", "it"):
                stream.at = start
                return below
            stream.count(start)  # "space formed by dc": which one it is, it is anyway
            continue
        if stream.any_of("below", "made", "just made", "of ch", "of chain", "of foundation ch", "of foundation chain"):
            continue
        if stream.word("of", "from", "on", "in"):
            stream.word("the")
            if stream.word("previous", "prev", "last", "preceding", "prior", "current", "this"):
                if stream.word(*ROWS):
                    continue
            elif stream.word(*ROWS):
                kind = "Row" if stream.tokens[stream.at - 1].text.startswith("row") else "Rnd"
                number = stream.number()
                if number is not None:
                    stream.count(start)
                    stream.named.append(RowNamed(kind, number, stream.at))
                if stream.word("below"):
                    continue
                if number is not None or stream.at > start + 2 or stream.peek() is None or not stream.sees("of"):
                    continue
            elif _piece(stream) or stream.any_of(
                "right edge",
                "left edge",
                "right",
                "left",
                "edge",
                "beginning",
                "corner",
                "end of row",
                "foundation ch",
                "foundation chain",
                "foundation row",
                "foundation edge",
                "foundation",
                "chain",
                "ch",
                "base",
                "starting chain",
                "row below",
                "rnd below",
                "beginning chain",
                "beg ch",
                "original chain",
                "initial chain",
            ):
                continue
        stream.at = start
        return below


def from_where(stream: Stream) -> bool:
    """ "sk next 12 sts from the first tab", "in 18th st from where the chain begins": from where they are counted, as
    they are anyway."""
    start = stream.at
    if stream.word("from", "after", "past"):
        if stream.any_of(
            "where the chain begins",
            "where the chain starts",
            "where chain begins",
            "where you joined",
            "where yarn was joined",
            "where the yarn was joined",
            "the hook",
        ):
            return True
        return keep_phrase(stream, start)
    return False


def made_before(stream: Stream) -> bool:
    """ "in last dc made", "in sc just worked": the stitch that this row made last, as a picot is closed in."""
    start = stream.at
    stream.word("the")
    stream.any_of("top of the", "top of")
    last = stream.word("last")
    if (stitch_word(stream) is not None or stream.word(*STITCH)) and (
        stream.any_of("just made", "just worked", "just completed") or (last and stream.word("made", "worked"))
    ):
        return True
    stream.at = start
    return False
