"""A whole side at once: stitches along it, the loops of a row, the other side of the chain, back bumps, and seams."""

import re
from typing import Literal

from rillstep.core.tree import Evenly, Num, Step
from rillstep.core.wordlists import word_list
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
    if {"each", "every"} & set(words):
        raise NotUnderstood(stream.since(start), "along how many sides or pieces it is worked is missing")
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
_OF_EDGE = word_list(
    "the your this all each every whole entire outer inner upper lower first second other opposite next "
    "last same long short left right curved straight flat front back raw edge edges side sides row rows "
    "end ends of and top bottom base rim mouth opening armhole circle half diameter square motif "
    "rectangle panel piece bag body flap pocket gusset strap handle foundation chain ch starting "
    "beginning ring hole work around along across down up over perimeter outside circumference way pouch "
    "purse tote handles straps these those semicircle fan triangle tab band neck"
)


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


_SIDE = word_list("other next opposite second first left right short long remaining same bottom top lower upper")
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
