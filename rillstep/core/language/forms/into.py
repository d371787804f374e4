"""Where a stitch goes: "in next 2 sts", "in each st and ch around", "in top of turning ch", "BLO of next sc"."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any, Literal

from rillstep.core.craft import Loop
from rillstep.core.tree import (
    AsFirst,
    Bars,
    Every,
    FromHook,
    InRing,
    Into,
    Last,
    Loops,
    NamedRow,
    Next,
    Nth,
    Num,
    Same,
    Skipped,
    ToEnd,
    TopOfChain,
    What,
)
from rillstep.core.words.stream import BelowNamed, RowNamed, Stream, plain_num

TABLE = """
== Into
b:Bars => place(b) # next 2 bars of Rnd 6 ! around
c:CountedLoops => loops_place(c) # next 20 front loops of Rnd 14
l:Loop [ of/in ] f:LoopsOf => place(loops_in(f, l), l) # front loops of Rnd 6
l:Loop [ of/in ] SeesEndOrStop [ e:End ] => place(every_st(e), l) # BLO across
[ l:Loop [ of/in ] ] [ Bump of ] BaseOfChain => place(same(), l) # base of ch-3
[ l:Loop [ of/in ] ] p:Placed { q:Qualifier } [ m:Loop ] => qualified(p, q*, l, m) # back loop of next st of previous row
[ l:Loop [ of/in ] ] Bump [ of ] p:Placed { q:Qualifier } [ m:Loop ] => qualified(in_bump(p), q*, l, m) # back bump of next ch
[ l:Loop [ of/in ] ] Bottom p:Placed { q:Qualifier } [ m:Loop ] => qualified(p, q*, l, m) # bottom of next ch
[ l:Loop [ of/in ] ] [ the ] top of p:Placed { q:Qualifier } [ m:Loop ] => qualified(p, q*, l, m) # the top of next st

== Bump
[ the ] back bump/bumps => none # the back bump

== Bottom
[ the ] bottom/post/body of => none # the post of
post/base of => none # base of

== Placed
p:Place => p # next st
p:ChainsIn => p # next 2 ch of next loop
p:Place AfterSpace of/in %next/same/last/previous %motif => p # ch-3 sp of next block
p:Place of/in %next/same/last/first s:Special => of_special(p, s, start, end) # ch-1 sp of next V-st
p:Place of/in each/every s:Special [ e:End ] => of_each(p, s, start, end, e) # ch-1 sp of each V-st

== ChainsIn
[ each of ] [ the ] %next n:Num %ch of [ the ] [ next/first/same ] AnySp => next(n, ch()) # next 2 ch of next loop
%next %ch of [ the ] [ next/first/same ] AnySp => next(one(), ch()) # next ch of next loop
[ each of ] [ the ] first n:Num %ch of [ the ] [ next/first/same ] AnySp => next(n, ch()) # first 2 ch of next loop
[ the ] first %ch of [ the ] [ next/first/same ] AnySp => next(one(), ch()) # first ch of next loop

== Place
[ the/your/a/an ] p:Spot => p # the next st
the your/a/an p:Spot => p # the your next st

== Spot
JustMade => same(sp()) # loop just made
MadeBefore => same() # last dc made
r:Ring => ring(r) # magic ring
loop => loop() # loop
same loop/lp/st/place KnownLoops => same_loop() # same st
same [ w:Single ] [ place ] => same(w) # same st
both w:Single => next(two(), w) # both sts
same [ w:Single ] [ place ] AsFirstSt => as_first(w) # same st as first sc
same [ w:Single ] [ place ] AsWhat => same(w) # same st as beg ch-3
joining/closing Stitch => same(sp()) # joining dc
indicated/specified/designated/given [ w:What ] => same(w) # indicated st
any rem/remaining/leftover p:Rest => p # any remaining st
any w:Where => next(one(), w) # any sc
unused/unworked/free loop/loops/lps f:LoopsOf => loops_in(f, 'both') # free loops of Rnd 6
EachRowEnd [ e:End ] => every(end(), e) # end of each row
each/every back bump [ e:End ] => every(back_bump(), e) # each back bump
MiddleOf [ the/a/each ] [ %next ] Motif => next(one(), st()) # centre of next shell
MiddleOf p:Place => p # centre of next V-st
p:Ordinal => p # 3rd ch of next loop
JustSkipped => skipped(one()) # st just skipped
last/final Stop => last(st()) # last
last/final n:Num w:Where => next(n, w) # last 3 sts
last/final w:What => last(w) # last st
top of p:TopOf => p # top of turning ch
m:Marked => m # st with marker A
first w:CountedSp => nth(one(), w) # first 3-ch sp
first n:Num w:Where => next(n, w) # first 3 sts
first BegChain => nth(one(), st()) # first turning ch
first w:What => nth(one(), w) # first st
%next skipped [ w:What ] => skipped(one(), w) # next skipped st
p:NextOnes => p # next 2 sts
each/every/all/ea [ of ] [ the/these/those ] p:EachOnes => p # each of the next 2 sts
rem/remaining p:Rest => p # remaining sts
center/centre/middle w:What => next(one(), middle(w)) # middle st
w:CountedSp => next(one(), w) # 3-ch sp
[ n:Num ] skipped/sk/missed [ w:What ] => skipped(n, w) # 2 skipped sts
n:Num w:Where => next(n, w) # 3 sts
BegChain => top() # turning ch
NotFree w:What => next(one(), w) # ch-2 sp

== Where
w:What => w # sts
Omitted => st() # next <<

== JustMade
loop/lp/sp/space/arch just made/formed/worked => none # loop just made
ch sp just made/formed/worked => none # ch sp just made
last loop/lp/sp/space/arch made => none # last loop made
last ch sp made => none # last ch sp made

== MadeBefore
[ the ] [ top of [ the ] ] [ last ] ( Stitch | %st ) just made/worked/completed => none # sc just worked
[ the ] [ top of [ the ] ] last ( Stitch | %st ) made/worked => none # last dc made

== Ring
ring/circle => none # ring
adjustable ring => none # adjustable ring
n:RingName => n # magic circle
mr/mc => none # mr
center/centre [ of [ the ] ] ring => none # centre of the ring

== RingName
magic circle => 'magic circle' # magic circle
magic ring => 'magic ring' # magic ring
magic loop => 'magic loop' # magic loop
adjustable loop => 'adjustable loop' # adjustable loop

== AsFirstSt
as [ the/your ] first %st => none # as the first st
as [ the/your ] first Stitch => none # as your first sc
as beg sc => none # as beg sc
as [ the/your ] first Idle Stitch => none # as the first 3 dc

== AsWhat
as/where [ the one as | that ] [ the/your/you ] [ OfBefore ] [ Idle ] AsThing [ WasMade ] => none # as last dc
as/where [ the one as | that ] [ the/your/you ] [ OfBefore ] Idle [ WasMade ] => none # as first 3

== OfBefore
last/previous/first/beg/beginning/starting/turning/initial/prev => none # last

== AsThing
joining [ %st ] => none # joining
join/joined/sl/ss/slst [ %st ] => none # join
%sp [ %st ] => none # space
%ch [ - ] [ Idle ] [ %sp ] => none # ch-3
Stitch [ %st ] => none # dc
%st => none # st
cluster/shell/group [ %st ] => none # cluster

== WasMade
was made/worked/joined => none # was made
is worked => none # is worked
just made/worked => none # just made
was/worked/made/stands/is/in/join/joined => none # worked

== EachRowEnd
[ the ] end/ends/side/edge of each/every row => none # end of each row
[ the ] ends/sides of [ the ] rows => none # ends of rows

== MiddleOf
[ the ] center/centre/middle of => none # centre of

== JustSkipped
st/stitch/sc just skipped => none # st just skipped
just skipped st/stitch => none # just skipped st
st that was skipped => none # st that was skipped
st previously skipped => none # st previously skipped
previously/previous/last skipped st => none # last skipped st

== TopOf
[ the ] BegChain => top() # turning ch
[ the ] [ last/next/same/first ] Idle [ - ] %ch => top() # 3-ch
[ the ] [ last/next/same/first ] %ch [ - ] [ Idle ] => top() # ch-3
[ the ] [ last/next/same/first ] w:What => next(one(), w) # next st

== NextOnes
%next %ch of [ the ] BegChain => top() # next ch of turning ch
m:NextMarked => m # next marker
%next w:CountedSp => next(one(), w) # next 3ch-sp
%next n:Num w:Where => next(n, w) # next 2 sts
%next Several w:What => next_some(w) # next sts
%next w:Where => next(one(), w) # next st

== NextMarked
next SeesMarker m:Marked => m # next marker

== EachOnes
p:NextOnes => p # next 2 sts
first/last [ n:Num ] w:Where => next(n, w) # first 3 sts
rem/remaining p:Rest => p # remaining sts
w:CountedSp [ e:End ] => every(w, e) # 3ch-sp
n:Num skipped/sk/missed [ w:What ] => skipped(n, w) # 2 skipped sts
n:Num w:Where [ AlongSide ] => next(n, w) # 30 sts along the bottom
SeesAround [ e:End ] => every_st(e) # around
EachStop => every_st() # each <<
w:What { q:Qualifier } [ e:End ] => every(w, e, q*) # st across
skipped/sk/missed [ w:What ] => skipped(one(), w) # skipped st

== Rest
n:Num w:Where => next(n, w) # 3 sts
w:What [ e:End ] => every(w, e) # sts

== Ordinal
o:Nth %ch from [ [ the/your ] hook ] [ c:SkippedCount ] => from_hook(o, c) # 2nd ch from hook
Idle %ch of p:SpacePlace => p # 3rd ch of next ch-5 loop
Idle %ch of [ the ] BegChain => top() # 3rd ch of beg ch-3
Idle of [ the ] [ OfBeginning ] Idle [ - ] %ch => top() # 3rd of the 4 ch
Idle of [ the ] [ OfBeginning ] %ch - Idle => top() # 3rd of beg ch-4
Idle %ch of [ the ] [ %ch [ - ] [ Idle ] ] => top() # 3rd ch of ch-3
o:Nth w:What OfGroup => nth(o, w, 1) # 3rd dc of next fan
o:Nth w:What FromWhere => nth(o, w, 1) # 18th st from where the chain begins
o:Nth w:Where => nth(o, w) # 3rd st

== SpacePlace
next/the [ n:Num ] w:AnySp => next(n, w) # next ch-5 loop
each [ of ] [ the ] w:AnySp [ e:End ] => every(w, e) # each ch-5 loop
each [ of ] [ the ] next [ n:Num ] w:AnySp => next(n, w) # each of next 2 ch-5 loops
same w:AnySp => same(w) # same loop

== OfGroup
of next/each/same/first fan/shell/scallop/group/cluster/set => none # of next fan
of the [ next/first ] fan/shell/scallop/group/cluster/set => none # of the next fan
of [ the ] next/each/same/first [ Idle - ] dc group => none # of next dc group
of [ the ] next/each/same/first half shell/fan => none # of next half shell

== FromWhere
from/after/past where [ the ] chain begins/starts => none # from where the chain begins
from/after/past where [ the ] yarn was joined => none # from where the yarn was joined
from/after/past where you joined => none # from where you joined
from/after/past the hook => none # from the hook
from/after/past NotHook Phrase => none # after the tab

== CountedLoops
[ each ] [ of ] [ the ] [ %next/first ] [ the ] n:Num [ %free ] [ remaining ] l:Loop f:LoopsOf => counted_in(loops_in(f, l), n) # next 20 front loops of Rnd 14
[ each ] [ of ] [ the ] %next/first [ the ] %free [ remaining ] l:Loop f:LoopsOf => counted_in(loops_in(f, l), one()) # first free front loop of Rnd 16
[ each ] [ of ] [ the ] [ %next/first ] [ the ] n:Num %free [ remaining ] l:Loop => free_loops(l, n) # next 4 free front loops
[ each ] [ of ] [ the ] %next/first [ the ] %free [ remaining ] l:Loop => free_loops(l, one()) # next free front loop
each [ of ] the n:Num [ remaining ] l:Loop => free_loops(l, n) # each of the 34 back loops
[ each ] [ of ] [ the ] [ %next/first ] [ the ] n:Num %free [ remaining ] loops/lps => free_loops('both', n) # each of the 36 free loops
each/every %free l:Loop [ across/around ] => all_free(l) # each free front loop

== Qualifier
n:Held %row below/down => below(n) # 2 rows below
%row below/down => none # row below
formed/made/created by [ the/a/this/that/your ] [ Previous ] [ Idle ] [ - ] By => none # formed by dc
below/made => none # made
just made => none # just made
of ch/chain => none # of chain
of foundation ch/chain => none # of foundation ch
of/from/on/in [ the ] previous/prev/last/preceding/prior/current/this %row => none # of the previous round
of/from/on/in [ the ] k:RowWord n:Held [ below ] => row_named(k, n, end) # of Rnd 3
of/from/on/in the %row [ below ] => none # of the row below
of/from/on/in %row below => none # of row below
of/from/on/in [ the ] PieceNamed => none # of the back panel
of/from/on/in [ the ] PartNamed => none # of the foundation ch

== Previous
next/last/previous/first/beg/beginning/turning/skipped => none # last

== By
Stitch => none # dc
%ch/%st/join/joining/skipping/it => none # skipping

== PartNamed
[ right/left ] edge => none # right edge
right/left/beginning/corner/chain/ch/base => none # beginning
end of row => none # end of row
foundation [ ch/chain/row/edge ] => none # foundation chain
starting/beginning/original/initial chain => none # starting chain
beg ch => none # beg ch
row/rnd below => none # row below

== PieceNamed
[ WhichPiece ] bag/body/panel/piece/strap/handle/flap/gusset/pocket/circle/square/base/wall/band NoLoop => none # back panel
[ WhichPiece ] main body NoLoop => none # main body
front/back NoLoop => none # front

== WhichPiece
front/back/main/bag/first/second/side/bottom/top => none # front
"""

Place = tuple[Into, Loop | None]
Qualifier = int | NamedRow | None


def _place(stream: Stream, into: Into, loop: Loop | None = None) -> Place:
    return into, loop


def _every(stream: Stream, what: What, end: ToEnd | None = None, below: Sequence[Qualifier] = ()) -> Every:
    """To the end that is named, or to the end of the row: nothing else can be meant by "in each st"."""
    stream.implied_end = end is None
    row = _below(stream, Every(what, end or ToEnd("around" if stream.context.kind == "Rnd" else "across")), below)
    assert isinstance(row, Every)
    return row


def _below(stream: Stream, into: Into, qualifiers: Sequence[Qualifier]) -> Into:
    """A place of the row that its words name, or so many rows below itself: the stitch that is named stands there."""
    of_row = next((one for one in qualifiers if isinstance(one, NamedRow)), None)
    if of_row is not None and isinstance(into, Next | Nth | Last | Every):
        into = replace(into, what=replace(into.what, of_row=of_row))
    rows = next((number for number in reversed(qualifiers) if isinstance(number, int) and number), 0)
    if not rows or not isinstance(into, Next | Nth | Last | Same | Every) or into.what.kind != "st":
        return into
    if into.what.stitch and into.what.span.line:
        stream.named.append(BelowNamed(into.what.stitch, rows, into.what.span, stream.at))
    return replace(into, what=replace(into.what, stitch="", below=rows))


def _qualified(
    stream: Stream, into: Into, below: Sequence[Qualifier], loop: Loop | None, later: Loop | None = None
) -> Place:
    return _below(stream, into, below), loop or later


def _in_bump(stream: Stream, into: Into) -> Into:
    """A place in the back bump of its chain."""
    if isinstance(into, FromHook):
        return replace(into, bump=True)
    return replace(into, what=replace(into.what, bump=True)) if isinstance(into, Next | Every | Nth | Last) else into


def _of_special(stream: Stream, into: Into, what: What, start: int, end: int) -> Into:
    """ "ch-1 sp of next V-st": what a stitch of the pattern's own offers, with the numbers that tell which."""
    stream.counted.append((start, end))
    return replace(into, what=what) if isinstance(into, Next) and into.what.kind in ("sp", "st") else into


def _of_each(stream: Stream, into: Into, what: What, start: int, end: int, to: ToEnd | None = None) -> Into:
    stream.counted.append((start, end))
    if not isinstance(into, Next | Every) or into.what.kind not in ("sp", "st"):
        return into
    return _every(stream, what, to)


def _loop(stream: Stream) -> Into:
    """The loop of the beginning, or one of chains: which it is shows when it is worked."""
    return Next(plain_num(stream, 1), What("sp")) if stream.choose(2, "loop") == 1 else InRing()


def _same_loop(stream: Stream) -> Into:
    assert stream.free_loops is not None
    return replace(stream.free_loops, count=plain_num(stream, 1))


def _next_some(stream: Stream, what: What) -> Next:
    return Next(plain_num(stream, 1), what, unsaid=True)


def _skipped(stream: Stream, count: Num | None, what: What | None = None) -> Skipped:
    return Skipped(count or plain_num(stream, 1), what or What("st"))


def _from_hook(stream: Stream, nth: Num, counts: tuple[str, Num | None] | None = None) -> FromHook:
    stitch, space = counts or ("none", None)
    return FromHook(nth) if stitch == "none" else FromHook(nth, stitch, space)


def _loops_in(stream: Stream, of: tuple[Literal["Rnd", "Row"], Num, Num | None], loop: Loop) -> Loops:
    kind, number, count = of
    return Loops(loop, kind, number, count)


def _loops_of(
    stream: Stream, kind: str, number: Num, count: Num | None = None, which: str = ""
) -> tuple[str, Num, Num | None]:
    return kind, number, count or (plain_num(stream, 1) if which else None)


def _free_loops(stream: Stream, loop: Loop, count: Num) -> Loops:
    """Loops left free in a row that was named before, or in the last that left any."""
    known = stream.free_loops
    if known is not None and known.loop == loop:
        return replace(known, count=count)
    return Loops(loop, "Rnd", None, count)


def _below_by(stream: Stream, rows: Num) -> int:
    return next((value for value in rows.values if value is not None), 0)


def _row_named(stream: Stream, kind: str, number: Num, end: int) -> NamedRow:
    stream.named.append(RowNamed(kind, number, end))
    return NamedRow("Row" if kind == "Row" else "Rnd", number)


BUILDERS: dict[str, Callable[..., Any]] = {
    "place": _place,
    "loops_place": lambda stream, loops: (loops, loops.loop),
    "qualified": _qualified,
    "in_bump": _in_bump,
    "of_special": _of_special,
    "of_each": _of_each,
    "next": lambda stream, count, what: Next(count or plain_num(stream, 1), what),
    "next_some": _next_some,
    "nth": lambda stream, nth, what, here=0: Nth(nth, what, bool(here)),
    "last": lambda stream, what: Last(what),
    "same": lambda stream, what=None: Same(what or What("st")),
    "as_first": lambda stream, what=None: AsFirst(what or What("st")),
    "every": _every,
    "every_st": lambda stream, end=None: _every(stream, What("st"), end),
    "skipped": _skipped,
    "top": lambda stream: TopOfChain(),
    "two": lambda stream: plain_num(stream, 2),
    "ring": lambda stream, name=None: InRing(name or ""),
    "loop": _loop,
    "same_loop": _same_loop,
    "middle": lambda stream, what: replace(what, corner=True),
    "back_bump": lambda stream: What("ch", bump=True),
    "from_hook": _from_hook,
    "loops_in": _loops_in,
    "loops_of": _loops_of,
    "counted_in": lambda stream, loops, count: replace(loops, count=count),
    "free_loops": _free_loops,
    "all_free": lambda stream, loop: Loops(loop, "Rnd", None),
    "bars": lambda stream, kind, number, count=None: Bars(kind, number, count or plain_num(stream, 1)),
    "below": _below_by,
    "row_named": _row_named,
}
