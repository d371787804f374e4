"""A whole side at once: stitches along it, the loops of a row, the other side of the chain, back bumps, and seams."""

import re
from typing import Literal

from rillstep.core.reading.named_places import read_into, read_loop
from rillstep.core.tree import Evenly, Gesture, Loops, Num, Step
from rillstep.core.words.stitch_names import sees_stitch
from rillstep.core.words.stream import NotUnderstood, Stream


def evenly(stream: Stream, start: int, stitch: str, per: Num | None) -> Step | None:
    """ "14 sc evenly along row ends": needs its number; without one it is only a manner of speaking."""
    at = stream.at
    stream.word("evenly")
    stream.word("spaced")
    if per is None and (count := stream.number()) is not None:
        stream.word("sts", "st", "stitches")
        per = count
    stream.word("across", "along", "around", "up", "down", "over", "in", "on", "to")
    begin = stream.at
    while (
        stream.word(*_OF_EDGE) or stream.mark("-") or _ordinal(stream) or _edges_counted(stream) or _rows_named(stream)
    ):
        pass
    words = [token.text for token in stream.tokens[begin : stream.at]]
    if per is None:
        stream.at = at
        return None
    said = " ".join(words)
    if re.search(r"\ball (?:the )?(?:four |4 )?(?:edges|sides)\b", said):
        return Evenly(stitch, per, "all edges", stream.since(start))
    if re.search(r"row|side|end|straight|diameter|flat", said):
        return Evenly(stitch, per, "row ends", stream.since(start))
    if "foundation" in said or "ch" in words or "chain" in words:
        return Evenly(stitch, per, "foundation", stream.since(start))
    around = any(t.is_word("around") for t in stream.tokens[at : stream.at])
    return Evenly(stitch, per, "around" if around else "edge", stream.since(start))


# What an edge is called, along which stitches are spread.
_OF_EDGE = (
    "the", "your", "this", "all", "each", "every", "whole", "entire", "outer", "inner", "upper", "lower", "first",
    "second", "other", "opposite", "next", "last", "same", "long", "short", "left", "right",
    "curved", "straight", "flat", "front", "back", "raw", "edge", "edges", "side", "sides", "row", "rows", "end",
    "ends", "of", "and", "top", "bottom", "base", "rim", "mouth", "opening", "armhole", "circle", "half",
    "diameter", "square", "motif", "rectangle", "panel", "piece", "bag", "body", "flap", "pocket", "gusset", "strap",
    "handle", "foundation", "chain", "ch", "starting", "beginning", "ring", "hole", "work",
    "around", "along", "across", "down", "up", "over", "perimeter", "outside", "circumference", "way", "pouch",
    "purse", "tote", "handles", "straps", "these", "those", "semicircle", "fan", "triangle", "tab", "band", "neck",
)  # fmt: skip


def _ordinal(stream: Stream) -> bool:
    token = stream.peek()
    if token is not None and token.kind == "ordinal" and token.text[0] in "123":
        stream.next()
        stream.count(stream.at - 1)
        return True
    return False


def _rows_named(stream: Stream) -> bool:
    """The 1 and 2 of "the side of rows 1 and 2": which row ends they are."""
    start = stream.at
    before = stream.tokens[start - 1] if start else None
    if before is not None and before.is_word("rows", "row") and stream.number() is not None:
        if stream.word("and", "to") or stream.mark("-"):
            stream.number()
        stream.count(start)
        return True
    return False


def _edges_counted(stream: Stream) -> bool:
    """The 4 of "all 4 sides"."""
    following = stream.peek(1)
    if following is not None and following.is_word("sides", "edges") and stream.number() is not None:
        stream.count(stream.at - 1)
        return True
    return False


_SIDE = (
    "other", "next", "opposite", "second", "first", "left", "right", "short", "long", "remaining", "same", "bottom",
    "top", "lower", "upper",
)  # fmt: skip
_EDGES: tuple[tuple[str, Literal["edge", "row ends", "foundation"]], ...] = (
    ("row ends", "row ends"), ("ends of the rows", "row ends"), ("ends of rows", "row ends"),
    ("sides of the rows", "row ends"),
    ("edge of the rows", "row ends"), ("side edge", "row ends"), ("side", "row ends"),
    ("foundation chain", "foundation"),
    ("foundation ch", "foundation"), ("foundation edge", "foundation"), ("foundation row", "foundation"),
    ("foundation", "foundation"),
    ("bottom", "foundation"), ("starting chain", "foundation"), ("beginning chain", "foundation"),
    ("bottom edge", "foundation"), ("cast on edge", "foundation"),
    ("last row", "edge"), ("top edge", "edge"), ("top", "edge"), ("final row", "edge"),
)  # fmt: skip


_EDGES = tuple(sorted(_EDGES, key=lambda edge: -len(edge[0])))  # "bottom edge" before "bottom"
_EDGE_WORDS = tuple(words for words, _ in _EDGES)


def along_side(stream: Stream, start: int, stitch: str, per: Num | None) -> Step | None:
    """ "work 8 sc along the row ends", "20 sc across the foundation chain": so many over that side, spread as they
    fit."""
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
            if index is not None and stream.sees("of") and _EDGES[index][0] == "top":
                break  # "2 dc in top of ch-3"
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
                stream.counted.append((begin, here))
                return Evenly(stitch, per, _EDGES[index][1], stream.since(start))
    stream.at = at
    return None


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
        "cont",
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
    if (
        here is None
        or here.is_mark(",", ":", ";", ".", "-")
        or (stream.at > start + 2 and sees_stitch(stream) is not None)
    ):
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
