"""The kinds of place that a text names: "sts", "ch-2 sp", "st and ch", "corner sp", "dc", "row ends"."""

from dataclasses import replace

from rillstep.core.findings import Span
from rillstep.core.tree import NOWHERE, Num, What
from rillstep.core.words.lexicon import CHAIN, GROUPS, HANDLES, NEXT, SPACE, STITCH
from rillstep.core.words.stitch_names import foundation_stitch, stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream

STITCHES = What("st")


CHAINS = What("ch")


def plain_num(stream: Stream, value: int, span: Span | None = None) -> Num:
    """A number that is not written, or is written once: the same in every size in force."""
    keep = set(stream.context.active)
    values = tuple(value if i in keep else None for i in range(stream.context.n_sizes))
    at = span or Span(stream.here().line, 1, 1)
    return Num(values, at, (span,) if span else ())


def first_ordinal(stream: Stream) -> bool:
    """Takes "1st", if it comes next."""
    token = stream.peek()
    if token is not None and token.kind == "ordinal" and token.text == "1st":
        stream.next()
        stream.count(stream.at - 1)
        return True
    return False


def read_what(stream: Stream) -> What | None:
    """ "sts", "ch", "ch-3 sp", "st and ch", "corner sp", "dc", "row ends"; None when no place is named."""
    start = stream.at
    counted = read_counted_space(stream)
    if counted is not None:
        return counted
    corner = stream.word("corner", "corners") or stream.any_of("tip", "point of triangle")
    unworked = stream.word("unworked") or stream.any_of("un-worked")
    stream.word("unworked", "remaining", "rem", "free", "skipped")
    if (
        stream.sees("foundation", "ch")
        or stream.sees("foundation", "chs")
        or stream.sees("foundation", "chain")
        or stream.sees("foundation", "chains")
    ):
        stream.next()  # "each of the 40 foundation ch"
    what = row_end(stream) or _stitch_or_chain(stream)
    if what is None and corner:
        # Of a piece that was rotated, the corner is the first place of the next side, or one of its own between two
        # sides.
        between = stream.any_of("between sides", "between the sides", "between two sides")
        return What("gap" if between or stream.choose(2, "corner") == 1 else "st and sp", corner=True)
    if what is None:
        stream.at = start
        return None
    if what.kind == "st" and (stream.any_of(*_LEFT) or unworked):
        what = replace(what, unworked=True)
    return replace(what, corner=True) if corner and what.kind in ("st", "sp") else what


_LEFT = (
    "left unworked",
    "that were left unworked",
    "which were left unworked",
    "previously left unworked",
    "left from",
    "left over from",
)


def read_counted_space(stream: Stream) -> What | None:
    """ "3ch-sp", "2 ch sp": a space of so many chains, its number first."""
    start = stream.at
    number = stream.number()
    if number is not None:
        stream.mark("-")
    if number is not None and stream.word(*CHAIN):
        stream.mark("-")
        if stream.word(*SPACE):
            return What("sp", number)
    stream.at = start
    return None


def every_row_end(stream: Stream) -> What | None:
    """ "end of each row": the row ends, all of them."""
    told = stream.any_of(
        "end of each row", "ends of each row", "end of every row", "ends of rows", "ends of the rows",
        "side of each row",
        "sides of rows", "the end of each row", "the ends of the rows", "the side of each row", "edge of each row",
    )  # fmt: skip
    return What("end") if told else None


def row_end(stream: Stream) -> What | None:
    """ "row end", "end of row"."""
    if stream.words("row", "end") or stream.words("row", "ends") or stream.words("row-end"):
        return What("end")
    if stream.any_of(
        "end of row", "end of each row", "end of rows", "ends of rows", "ends of each row", "end of every row"
    ):
        return What("end")
    return What("end") if stream.any_of("side of row", "side of each row", "sides of rows") else None


def _handle(stream: Stream) -> bool:
    """ "handle", "handle loop", "handle ch-sp": what was chained across."""
    if not stream.word(*HANDLES):
        return False
    start = stream.at
    if not stream.word(*SPACE) and stream.word(*CHAIN):
        stream.mark("-")
        token = stream.peek()
        if not stream.word(*SPACE) and token is not None and token.kind == "num":
            stream.at = start
    return True


def _stitch_or_chain(stream: Stream) -> What | None:
    if stream.word(*STITCH):
        return _and(stream, What("st"))
    if stream.word(*SPACE) or _handle(stream):
        return _between(stream) or _and(stream, What("sp"))
    if stream.sees("between"):
        return _between(stream)
    if stream.word(*CHAIN):
        if stream.word("stitch", "stitches"):  # "each chain stitch"
            return _and(stream, CHAINS)
        return _and(stream, _chain_or_space(stream))
    start = stream.at
    stitch = foundation_stitch(stream) or stitch_word(stream)
    if stitch is not None:
        if stream.word(*SPACE):
            return What("sp")
        stream.word(*STITCH)
        written = not any(token.taught for token in stream.tokens[start : stream.at])
        return _and(stream, What("st", stitch=stitch, span=stream.since(start) if written else NOWHERE))
    return None


def _between(stream: Stream) -> What | None:
    """ "sp between sts", "between next 2 dc", "sp between 3-dc groups": the gap behind a stitch, or behind a few;
    None for anything else."""
    start = stream.at
    if stream.word("between"):
        stream.word("the", "each", "every", "any")
        stream.word("next", "first", "these", "those", "of")
        stream.word("the")
        if stream.any_of(*GROUPS) and stream.between is not None:
            return stream.between  # "between groups": as those named before in the row
        number = stream.number()
        if (
            (second := stream.peek()) is not None
            and second.kind == "num"
            and number is not None
            and number.is_always(2)
        ):
            number = stream.number()  # "between next two 3-dc groups"
        many = next((v for v in number.values if v is not None), None) if number is not None else None
        stream.mark("-")
        stitch = stitch_word(stream)
        stream.mark("-")
        if stream.word(*GROUPS) and number is not None and many and stitch:
            stream.between = What("st", stitch=stitch, between=many)
            stream.count(start)
            return stream.between
        if stitch is not None or stream.word(*STITCH):
            stream.word(*STITCH)
            if number is None or number.is_always(2):
                stream.count(start)
            return What("st", stitch=stitch or "", between=1)
    stream.at = start
    return None


def _and(stream: Stream, first: What) -> What:
    """ "st and ch", "dc and ch-1 sp": two kinds taken as they come."""
    start = stream.at
    listed = 0
    while first.kind == "st" and first.stitch and stream.mark(",") and stitch_word(stream) is not None:
        stream.word(*STITCH)
        listed = stream.at
    stream.at = start
    if listed and stream.tokens[listed : listed + 1] and stream.tokens[listed].is_word("and"):
        first, stream.at, start = What("st"), listed, listed  # "each dc, cluster and ch-1 sp"
    if not (stream.word("and", "or") or stream.mark("&", "/")):
        return first
    anew = stream.word("in", "into")
    every = stream.word("each", "every", "ea")
    token = stream.peek()
    second = None
    before = stream.at
    if first.kind == "st" and first.stitch and stitch_word(stream) not in (None, first.stitch):
        stream.word(*STITCH)
        if not stream.sees("in") and not stream.sees("into"):
            return What("st")  # "each sc and bobble": all stitches
    stream.at = before
    counted = read_counted_space(stream) if token is not None and token.kind == "num" else None
    if counted is not None and first.kind == "st" and (every or not anew):
        return What("st and sp", counted.length)  # "each htr and 1ch-sp"
    if first.kind == "sp" and stitch_word(stream) is not None:
        stream.word(*STITCH)
        following = stream.peek()
        if following is not None and following.is_word("around", "across", "to"):
            return What("st and sp", first.length)  # "each ch-1 sp and sc across"
    stream.at = before
    if token is not None and token.is_word(*STITCH, *SPACE, *CHAIN):
        chain = stream.word(*CHAIN)
        whole = chain and stream.word("stitch", "stitches")  # "each sc and each chain stitch"
        second = CHAINS if whole else _chain_or_space(stream) if chain else What("st") if stream.word(*STITCH) else None
        if second is None and stream.word(*SPACE):
            second = What("sp")
        if anew and not every and second is not None and not stream.tokens[stream.at - 1].text.endswith("s"):
            stream.at = start
            return first  # "in next 2 dc and in ch-2 sp": another place, that one
    kinds = {first.kind, second.kind if second else ""}
    if kinds == {"st", "sp"}:
        length = first.length or (second.length if second else None)
        return What("st and sp", length)
    if kinds == {"st", "ch"}:
        return What("st and ch")
    stream.at = start
    return first


def _chain_or_space(stream: Stream) -> What:
    start = stream.at
    dash, before = stream.peek(), stream.tokens[stream.at - 1]
    if dash is not None and dash.is_mark("-") and dash.span.column > before.span.end_column:
        return CHAINS  # "1 sc in each ch - 25 sts": the dash stands for itself
    stream.mark("-")
    length = stream.number()
    if length is not None:
        stream.mark("-")
        stream.word("corner")
        if stream.word(*SPACE, *HANDLES):
            return What("sp", length)
        token = stream.peek()
        if token is None or not token.is_word("from"):
            return What("sp", length)
    stream.at = start
    stream.mark("-")
    if stream.word(*SPACE):
        return What("sp")
    stream.at = start
    return CHAINS


def what_or_stitch(stream: Stream) -> What:
    """The place named; raises NotUnderstood when there is none."""
    what = read_what(stream)
    if what is not None:
        return what
    token = stream.peek()
    before = stream.tokens[stream.at - 1] if stream.at else None
    if (
        (token is None or token.kind == "mark")
        and before is not None
        and (before.kind == "num" or before.is_word(*NEXT))
    ):
        return STITCHES  # "sc in next 4, ..."
    raise NotUnderstood(stream.here(), "where to work it is missing")
