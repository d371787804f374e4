"""How a line begins that works a foundation and has no label: "Ch 31 (37, 43)", "With A, make a slip knot and ch 9"."""

from collections.abc import Callable, Iterable
from typing import Any

from rillstep.core.language.terminals import Terminal, is_any, sees, zero
from rillstep.core.words.stream import Stream

TABLE = """
== SetUp
[ h:Leaving ] [ LeadsIn ] { h:Holding } [ h:HoldingOnly ] [ SlipKnot ] [ Making ] [ a SeesChain ] [ foundation ] at:Opens => set_up(at, h*) # with two strands held together, ch 9
foundation chain : Making at:OpensBare => set_up_bare(at) # foundation chain: work 31
foundation chain : at:OpensBare => set_up_bare(at) # foundation chain: 31

== Leaving
leaving UpToComma , => ahead(start, end) # leaving a long tail,

== LeadsIn
foundation [ chain/ch ] :/, => none # foundation chain:
set-up/setup/begin/start :/, => none # start:
set - up :/, => none # set - up:
to begin/start :/, => none # to begin,

== Holding
with/using UpToComma , => ahead(start, end) # with A,
and UpToComma , => ahead(start, end) # and yarn A,

== HoldingOnly
with/using UpToMaking => ahead(start, end) # with a 4 mm hook >> make

== SlipKnot
make a slip knot/st [ and/, ] [ then ] => none # make a slip knot and

== Making
make/work/crochet => none # make
start/begin/commence with => none # start with
in/into a/an/the/your SeesRing => none # in a >> magic ring

== Opens
OpensChain => start # ch 31
ch/chain [ of ] until/till/for/about => start # ch until
ch/chain [ of ] a length of => start # ch a length of
[ make/begin/start [ with ] a/an ] magic/adjustable/slip/sliding ring/circle/loop => start # magic ring
mr => start # mr
fasten off => start # fasten off
cut [ the ] yarn => start # cut yarn
join/rejoin/attach/reattach/turn/rotate => start # join
change/switch to => start # change to
sk/skip/miss JoinsLater => start # sk >> 9 sts and join
do not turn/join/fasten => start # do not turn
with rs => start # with RS
place [ a ] marker/markers => start # place a marker
sl st => start # sl st
ss => start # ss

== OpensChain
ch/chain [ of ] LB Idle => start # ch (31
ch/chain [ of ] Idle => start # ch 31
Idle %ch => start # 31 ch

== OpensBare
Idle NotCounted => start # 31
"""
# Words ahead of a foundation that say with what it is made, at most.
_MOST_AHEAD = 14
_MAKING = frozenset(("make", "ch", "chain", "work"))


def _up_to(stop: Callable[[Stream, int], bool]) -> Callable[[Stream, int], Iterable[int]]:
    """Words up to what ends them."""

    def ends(stream: Stream, at: int) -> Iterable[int]:
        for end in range(at, min(at + _MOST_AHEAD, len(stream.tokens)) + 1):
            if end > at and stop(stream, end):
                yield end
                return
            if end == len(stream.tokens) or stream.tokens[end].is_mark(".", ";", ",", ":"):
                return

    return ends


def _nothing(stream: Stream, start: int, end: int) -> None:
    return None


def _joins_later(stream: Stream, at: int) -> bool:
    """ "Sk the first 9 sts, join yarn in the next": the yarn is joined within the sentence."""
    for text in stream.texts[at : at + 20]:
        if text in (".", ""):
            return False
        if text in ("join", "rejoin", "attach", "reattach"):
            return True
    return False


TERMINALS: dict[str, Terminal] = {
    "UpToComma": Terminal(is_any, _up_to(lambda stream, at: stream.texts[at] == ","), _nothing),
    "UpToMaking": Terminal(is_any, _up_to(lambda stream, at: stream.texts[at] in _MAKING), _nothing),
    "SeesChain": sees("ch", "chain", "foundation"),
    "SeesRing": sees("magic", "adjustable", "slip", "sliding"),
    "JoinsLater": zero(_joins_later),
    "NotCounted": zero(lambda stream, at: stream.texts[at] not in ("ch", "st", "sts", "sc", ",", "(", "[")),
}
BUILDERS: dict[str, Callable[..., Any]] = {
    # Where it begins, and from where to where it is said with what.
    "set_up": lambda stream, at, ahead: (at, ahead, False),
    "set_up_bare": lambda stream, at: (at, (), True),
    "ahead": lambda stream, start, end: (start, end),
}
