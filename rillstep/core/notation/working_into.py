"""What a clause says of the whole row: its loops, the other side of the chain, back bumps; and seams."""

from rillstep.core.notation.ends import read_loop
from rillstep.core.notation.places import read_into
from rillstep.core.notation.stream import NotUnderstood, Stream
from rillstep.core.notation.tree import Gesture, Loops, Step
from rillstep.core.notation.vocabulary import sees_stitch

_TOWARDS = ("along", "on", "in", "down", "into", "across", "up", "to", "around")
# What a side of a chain or a piece is called.
OF_A_SIDE = (
    "the", "your", "other", "opposite", "second", "long", "short", "next", "side", "sides", "of", "foundation",
    "starting", "beginning", "initial", "base", "original", "chain", "ch",
    "chs", "chains", "edge", "edges", "underside", "bottom", "loops", "loop", "along", "down", "up", "back", "free",
    "unused", "remaining", "row", "rows", "ends", "end", "piece", "work",
    "now", "towards", "to", "beg", "panel", "strip", "left", "right", "first", "in", "on", "across",
)  # fmt: skip
_OTHER = ("opposite", "other", "bottom", "underside", "unused", "free", "remaining", "second")


def reads_other_side(stream: Stream) -> bool:
    """ "Working along the opposite side of the foundation chain": the work is rotated."""
    start = stream.at
    stream.any_of(
        "working",
        "work",
        "go back",
        "go",
        "continue working",
        "continue",
        "continuing",
        "now working",
        "now work",
        "crochet",
        "crocheting",
    )
    stream.word("back", "now")
    if stream.word(*_TOWARDS):
        stream.word("the", "back")
        begin = stream.at
        if stream.word(*_OTHER):
            while stream.word(*OF_A_SIDE):
                pass
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


def read_row_loop(stream: Stream, start: int) -> list[Step] | None:
    """ "Working in back loops only, ...": holds for the rest of the line."""
    stream.word("working", "work")
    free = _free_loops(stream)
    if free is not None:
        stream.free_loops = free
        return []
    stream.at = start
    if reads_other_side(stream):
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
        "this row", "again",
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


def read_seam(stream: Stream, start: int) -> list[Step]:
    """A seam, kept as its words to the end of the sentence."""
    while (token := stream.peek()) is not None and not token.is_mark(".", ";"):
        stream.next()
    stream.count(start)
    return [Gesture("seam", " ".join(t.text for t in stream.tokens[start + 1 : stream.at]), span=stream.since(start))]
