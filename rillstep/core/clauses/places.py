"""Where a stitch goes: "in next 2 sts", "in each of next 3 sts", "in each st and ch around", "in top of turning ch"."""

from dataclasses import replace

from rillstep.core.clauses.chains import skipped_counts
from rillstep.core.clauses.ends import (
    along_a_side,
    base_of_chain,
    beginning_chain,
    counted_loops,
    loops_of,
    read_bars,
    read_end,
    read_loop,
    read_marked,
)
from rillstep.core.clauses.kinds import (
    STITCHES,
    every_row_end,
    plain_num,
    read_counted_space,
    read_what,
    what_or_stitch,
)
from rillstep.core.clauses.qualifying import from_where, made_before, qualifiers
from rillstep.core.craft import Loop
from rillstep.core.findings import Span
from rillstep.core.tree import (
    AsFirst,
    Every,
    FromHook,
    InRing,
    Into,
    Last,
    Next,
    Nth,
    Same,
    Skipped,
    ToEnd,
    TopOfChain,
    What,
)
from rillstep.core.words.lexicon import CHAIN, MOTIFS, NEXT, SPACE, STITCH
from rillstep.core.words.stitch_names import how_many, stitch_word
from rillstep.core.words.stream import BelowNamed, NotUnderstood, Stream


def read_into(stream: Stream) -> tuple[Into, Loop | None]:
    """What follows "in", "into", "around"; the loop too, where one is named. Raises NotUnderstood."""
    if (bars := read_bars(stream)) is not None:
        return bars, None
    counted = counted_loops(stream)
    if counted is not None:
        return counted, counted.loop
    loop = read_loop(stream)
    if loop is not None:
        stream.word("of", "in")
        found = loops_of(stream, loop)
        if found is not None:
            return found, loop
        token = stream.peek()
        if token is None or token.kind == "mark" or token.is_word("across", "around", "to", "until", "all"):
            return Every(STITCHES, _end_or_row(stream)), loop  # "sc in BLO", "sc in BLO across"
    bump = stream.any_of("the back bump of", "back bump of", "the back bumps of", "back bumps of")
    bump or stream.any_of("the bottom of", "bottom of")
    if base_of_chain(stream):
        return Same(STITCHES), None
    bump = stream.any_of("the back bump", "back bump", "back bumps") or bump
    stream.any_of("the post of", "post of", "the body of", "the top of", "base of")
    into = _of_special(stream, _place(stream))
    into = _in_bump(into) if bump else into
    below = qualifiers(stream)
    if below and isinstance(into, Next | Nth | Last | Same | Every) and into.what.kind == "st":
        if into.what.stitch and into.what.span.line:
            stream.named.append(BelowNamed(into.what.stitch, below, into.what.span, stream.at))
        into = replace(into, what=replace(into.what, stitch="", below=below))  # the stitch named is in the row below
    later = read_loop(stream)
    return into, loop or later


def _in_bump(into: Into) -> Into:
    """A place in the back bump of its chain."""
    if isinstance(into, FromHook):
        return replace(into, bump=True)
    return replace(into, what=replace(into.what, bump=True)) if isinstance(into, Next | Every | Nth | Last) else into


def _of_special(stream: Stream, into: Into) -> Into:
    """ "ch-1 sp of next V-st": what a stitch of the pattern's own offers; "first 2 ch of next loop" are just the next
    chains."""
    start = stream.at
    if isinstance(into, Next | Nth) and into.what.kind == "ch" and stream.word("of"):
        stream.any_of("next", "the next", "first", "the first", "same", "the")
        space = read_what(stream)
        if space is not None and space.kind == "sp":
            return into if isinstance(into, Next) else Next(into.nth, into.what)
    stream.at = start
    if isinstance(into, Next) and into.what.kind == "sp" and stream.word("of", "in"):
        if stream.word(*NEXT, "same", "last", "previous") and stream.word(*MOTIFS):
            return into  # "ch-3 sp of next block"
        stream.at = start
    if isinstance(into, Next | Every) and into.what.kind in ("sp", "st") and stream.word("of", "in"):
        whose = stream.word(*NEXT, "each", "every", "same", "last", "first")
        word = stream.tokens[stream.at - 1].text if whose else ""
        what = read_what(stream)
        if what is not None and what.stitch in {name for name, _ in stream.context.specials}:
            stream.count(max(0, start - 3))
            if word in ("each", "every"):
                return Every(what, _end_or_row(stream))
            return replace(into, what=what) if isinstance(into, Next) else into
    stream.at = start
    return into


_RINGS = (
    "ring",
    "adjustable ring",
    "adjustable loop",
    "magic circle",
    "magic loop",
    "center of ring",
    "centre of ring",
    "center of the ring",
    "magic ring",
    "circle",
    "mr",
    "mc",
    "center ring",
)
# What a ring that is pulled tight is called, and keeps being called in print.
RING_NAMES = frozenset(("magic ring", "magic circle", "magic loop", "adjustable loop"))

_JUST_MADE = tuple(
    words
    for loop in ("loop", "lp", "sp", "space", "ch sp", "arch")
    for words in (f"{loop} just made", f"{loop} just formed", f"{loop} just worked", f"last {loop} made")
)


def _place(stream: Stream) -> Into:
    stream.word("the")
    stream.word("the", "your", "a", "an")
    if stream.any_of(*_JUST_MADE):
        return Same(What("sp"))
    if made_before(stream):
        return Same(STITCHES)
    ring = stream.phrase(_RINGS)
    if ring is not None:
        return InRing(_RINGS[ring] if _RINGS[ring] in RING_NAMES else "")
    if stream.any_of("loop"):  # of the beginning, or one of chains: which it is shows when it is worked
        return Next(plain_num(stream, 1), What("sp")) if stream.choose(2, "loop") == 1 else InRing()
    if stream.free_loops is not None and stream.any_of("same loop", "same lp", "same st", "same place"):
        return replace(stream.free_loops, count=plain_num(stream, 1))
    if stream.word("same"):
        return _same(stream)
    if stream.word("joining") or stream.any_of("closing"):  # "around the post of joining dc": the loop that it closes
        if stitch_word(stream) is not None:
            return Same(What("sp"))
        stream.at -= 1
    if stream.word("indicated", "specified", "designated", "given"):
        return Same(read_what(stream) or STITCHES)
    if stream.word("any"):
        if stream.word("rem", "remaining", "leftover"):
            return _remaining(stream)
        return Next(plain_num(stream, 1), what_or_stitch(stream))
    if stream.word("unused", "unworked", "free") and stream.word("loop", "loops", "lps"):
        found = loops_of(stream, "both")
        if found is not None:
            return found
    if (ends := every_row_end(stream)) is not None:
        return Every(ends, _end_or_row(stream))
    if stream.any_of("each back bump", "every back bump"):
        return Every(What("ch", bump=True), _end_or_row(stream))
    if stream.any_of("center of", "centre of", "middle of", "the center of", "the centre of", "the middle of"):
        return _middle_of_motif(stream) or _place(stream)
    token = stream.peek()
    if token is not None and token.kind == "ordinal":
        return _ordinal(stream)
    if stream.any_of(*_JUST_SKIPPED):
        return Skipped(plain_num(stream, 1), STITCHES)
    if stream.word("last", "final"):
        number = how_many(stream)
        following = stream.peek()
        if number is None and (following is None or following.kind == "mark"):
            return Last(STITCHES)
        return Last(what_or_stitch(stream)) if number is None else Next(number, what_or_stitch(stream))
    if stream.any_of("top of", "3rd ch of"):
        return _top_of_chain(stream)
    marker = read_marked(stream)
    if marker is not None:
        return marker
    if stream.word("first"):
        first_space = read_counted_space(stream)
        if first_space is not None:
            return Nth(plain_num(stream, 1), first_space)
        number = how_many(stream)
        if number is not None:
            return Next(number, what_or_stitch(stream))
        return Nth(plain_num(stream, 1), beginning_chain(stream) or what_or_stitch(stream))
    if stream.word(*NEXT):
        if stream.word("skipped"):
            return Skipped(plain_num(stream, 1), read_what(stream) or STITCHES)
        return _next(stream)
    if stream.word("each", "every", "all", "ea"):
        return _each(stream)
    if stream.any_of("rem", "remaining"):
        return _remaining(stream)
    if stream.any_of("center", "centre", "middle"):
        return Next(plain_num(stream, 1), replace(what_or_stitch(stream), corner=True))
    counted = read_counted_space(stream)
    if counted is not None:
        return Next(plain_num(stream, 1), counted)
    number = how_many(stream)
    if stream.word("skipped", "sk", "missed"):
        return Skipped(number or plain_num(stream, 1), read_what(stream) or STITCHES)
    if number is not None:
        return Next(number, what_or_stitch(stream))
    if beginning_chain(stream) is not None:
        return TopOfChain()
    return Next(plain_num(stream, 1), what_or_stitch(stream))


_JUST_SKIPPED = (
    "st just skipped", "stitch just skipped", "sc just skipped", "just skipped st", "just skipped stitch",
    "st that was skipped", "st previously skipped",
    "previously skipped st", "previous skipped st", "last skipped st",
)  # fmt: skip


def _same(stream: Stream) -> Same | AsFirst:
    what = read_what(stream) or STITCHES
    stream.word("place")
    if _as_first(stream) or stream.any_of(
        "as first st",
        "as first sc",
        "as first hdc",
        "as first dc",
        "as the first st",
        "as first stitch",
        "as the first sc",
        "as the first hdc",
        "as the first dc",
        "as first tr",
        "as beg sc",
        "as your first st",
        "as your first sc",
    ):
        return AsFirst(what)
    if stream.word("as", "where"):
        _as_what(stream)
    return Same(what)


def _as_what(stream: Stream) -> None:
    """ "as ch 3", "as beg ch-3", "as joining", "as last dc", "as the last stitch was worked": what stands there
    already. Raises NotUnderstood."""
    start = stream.at
    stream.any_of("the one as", "that")
    stream.any_of("the", "your", "you")
    stream.word("last", "previous", "first", "beg", "beginning", "starting", "turning", "initial", "prev")
    number = stream.number()
    named = stream.word("joining") or stream.word("join", "joining", "joined", "sl", "ss", "slst", *SPACE)
    stream.word("st", "sts") if named else None
    if not named and stream.word(*CHAIN):
        named = True
        stream.mark("-")
        stream.number()
        stream.word(*SPACE)
    if not named and (stitch_word(stream) is not None or stream.word(*STITCH, "cluster", "shell", "group")):
        stream.word(*STITCH)
        named = True
    if not named and number is None:
        raise NotUnderstood(stream.since(start), "which place that is")
    stream.any_of("was made", "was worked", "is worked", "just made", "just worked", "was joined")
    stream.word("was", "worked", "made", "stands", "is", "in", "join", "joined")
    stream.count(start)


def _as_first(stream: Stream) -> bool:
    """ "as first 3 dc", "as the first 2 sc"."""
    start = stream.at
    if stream.word("as"):
        stream.word("the", "your")
        if stream.word("first") and stream.number() is not None and stitch_word(stream) is not None:
            stream.count(start)
            return True
    stream.at = start
    return False


def _top_of_chain(stream: Stream) -> Into:
    """ "top of turning ch", "top of beg ch-3", "top of ch-3"; the top of a stitch is just the stitch."""
    stream.word("the")
    start = stream.at
    if beginning_chain(stream) is None:
        stream.word("last", "next", "same", "first")
        start = stream.at
        if stream.number() is not None:  # "top of 3-ch"
            stream.mark("-")
            if stream.word(*CHAIN):
                stream.count(start)
                return TopOfChain()
        stream.at = start
        if not stream.word(*CHAIN):
            return Next(plain_num(stream, 1), read_what(stream) or STITCHES)
        stream.mark("-")
        stream.number()
    stream.count(start)
    return TopOfChain()


def _ordinal(stream: Stream) -> Into:
    token = stream.next()
    digits = token.text[:-2]
    span = Span(token.span.line, token.span.column, token.span.end_column - 2)
    number = stream.as_num(token) if token.members else plain_num(stream, int(digits), span)
    start = stream.at
    if stream.word(*CHAIN):
        if stream.any_of("from hook", "from the hook", "from your hook", "from"):
            return FromHook(number, *skipped_counts(stream))
        if stream.word("of") and (loop := _chain_of_loop(stream)) is not None:
            return loop
        stream.at = start + 1
        if stream.word("of"):  # "in 3rd ch of beg ch-3": the top of a chain that counts
            stream.word("the")
            if beginning_chain(stream) is None and stream.word(*CHAIN):
                stream.mark("-")
                stream.number()
            stream.count(start - 1)
            return TopOfChain()
    stream.at = start
    what = what_or_stitch(stream)
    return Nth(number, what, stream.any_of(*_OF_GROUP) or from_where(stream))


_OF_GROUP = tuple(
    f"of {which} {name}"
    for which in ("next", "the next", "each", "same", "first", "the first")
    for name in (
        "fan",
        "shell",
        "scallop",
        "group",
        "cluster",
        "set",
        "dc group",
        "5-dc group",
        "half shell",
        "half fan",
    )
)


def _middle_of_motif(stream: Stream) -> Next | None:
    """ "center of (next) shell", of which the text does not define what it is: the stitch that comes next."""
    start = stream.at
    stream.word("the", "a", "each")
    stream.word(*NEXT)
    own = {part for _, parts in stream.context.specials for part in parts}
    token = stream.peek()
    if token is not None and token.text not in own and stream.word(*MOTIFS):
        return Next(plain_num(stream, 1), STITCHES)
    stream.at = start
    return None


def _chain_of_loop(stream: Stream) -> Into | None:
    """ "3rd ch of next ch-5 loop": the loop is worked through one of its chains."""
    start = stream.at
    if stream.word("next", "each", "same", "the"):
        stream.at = start
        try:
            into = _place(stream)
        except NotUnderstood:
            into = None
        if into is not None and isinstance(into, Next | Every | Same) and into.what.kind == "sp":
            stream.count(max(0, start - 3))
            return into
    stream.at = start
    return None


def _next(stream: Stream) -> Into:
    start = stream.at
    if stream.word(*CHAIN) and stream.word("of"):
        stream.word("the")
        if beginning_chain(stream) is not None:
            return TopOfChain()  # "next ch of turning chain"
    stream.at = start
    marker = read_marked(stream) if stream.peek() is not None and stream.here() and _sees_marker(stream) else None
    if marker is not None:
        return marker
    counted = read_counted_space(stream)
    if counted is not None:
        return Next(plain_num(stream, 1), counted)
    number = how_many(stream)
    unsaid = number is None and (token := stream.peek()) is not None and token.is_word(*_SEVERAL)
    return Next(number or plain_num(stream, 1), what_or_stitch(stream), unsaid=unsaid)


_SEVERAL = ("sts", "stitches", "chs", "chains", "sps", "spaces")


def _sees_marker(stream: Stream) -> bool:
    token = stream.peek()
    return token is not None and token.is_word("marker", "marked")


def _each(stream: Stream) -> Into:
    stream.word("of")
    stream.word("the", "these", "those")
    if stream.word(*NEXT):
        return _next(stream)
    if stream.word("first", "last"):
        return Next(how_many(stream) or plain_num(stream, 1), what_or_stitch(stream))
    if stream.word("rem", "remaining"):
        return _remaining(stream)
    counted = read_counted_space(stream)
    if counted is None:
        number = how_many(stream)
        if stream.word("skipped", "sk", "missed"):
            return Skipped(number or plain_num(stream, 1), read_what(stream) or STITCHES)
        if number is not None:
            into = Next(number, what_or_stitch(stream))
            along_a_side(stream)
            return into
    token = stream.peek()
    if counted is None and token is not None and token.is_word("around", "across"):
        return Every(STITCHES, _end_or_row(stream))  # "sc in each around"
    alone = counted is None and (token is None or token.is_mark(".", ";", "(", "["))
    what = counted or (STITCHES if alone else what_or_stitch(stream))  # "sc in each." are all stitches
    qualifiers(stream)
    return Every(what, _end_or_row(stream))


def _end_or_row(stream: Stream) -> ToEnd:
    """The end named, or the end of the row when none is: nothing else can be meant by "in each st"."""
    end = read_end(stream)
    stream.implied_end = end is None
    return end or ToEnd("around" if stream.context.kind == "Rnd" else "across")


def _remaining(stream: Stream) -> Into:
    number = how_many(stream)
    what = what_or_stitch(stream)
    if number is not None:
        return Next(number, what)
    return Every(what, _end_or_row(stream))
