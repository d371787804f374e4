"""Where a walk along an edge ends, loops, markers, the chain that begins a row: "around", "to last 3 sts", "BLO"."""

from collections.abc import Callable
from typing import Any

from rillstep.core.findings import Span
from rillstep.core.tree import Marked, Num, ToEnd, What
from rillstep.core.words.stream import Stream, plain_num

TABLE = """
== End
[ , ] [ AllTheWay ] around/round [ About ] => around() # around the edge
[ , ] [ AllTheWay ] around/round [ About ] e:LastOf => e # around to last 3 sts
[ , ] [ AllTheWay ] across/along [ Along ] [ FromSide ] [ to [ the ] end [ of [ the ] row/rnd/round ] ] => across() # across the row
[ , ] [ AllTheWay ] across/along [ Along ] [ FromSide ] e:LastOf => e # across to last 3 sts
[ , ] [ AllTheWay ] SeesUpDown AlongSide => across() # up the second side
[ , ] [ AllTheWay ] Back Stop => across() # back along the chain
[ , ] [ AllTheWay ] to [ the ] end [ of [ the ] row/rnd/round ] => across() # to the end of the row
[ , ] [ AllTheWay ] until [ the ] end [ of [ the ] row/rnd/round ] => across() # until end
[ , ] [ AllTheWay ] e:LastOf => e # to last 3 sts

== AllTheWay
all/even/evenly => none # evenly
all [ the ] way => none # all the way
completely/entirely => none # completely

== About
[ the ] [ outer/entire/curved/whole ] edge => none # the outer edge
the curve/opening/top/bag/base/rnd/round/motif/square/circle/outside/rim => none # the curve
opening/entire bag => none # entire bag
the whole bag => none # the whole bag

== Along
[ the ] [ last/top/first ] row => none # the last row
[ the ] side/edge/bottom/top/chain => none # the side
[ the ] foundation [ ch/chain/edge ] => none # the foundation chain
[ the ] bottom/top edge => none # bottom edge
[ the ] row ends => none # the row ends

== FromSide
from left/right to left/right => none # from left to right

== AlongSide
up/down/along/across [ the/this/that ] { WhichSide } side/edge/length [ SideOf ] => none # up the second side
across/along Along => none # along the bottom

== WhichSide
other/opposite/same/left/right/long/short/remaining/whole/entire/first/next => none # opposite
Idle => none # 2nd

== SideOf
of [ the ] panel/piece/bag/work/rows => none # of the panel

== Back
back => none # back
back along the ch/chain => none # back along the chain
back across => none # back across
back to the bag/body/top => none # back to the bag

== Reach
[ up ] to => none # up to
until/till => none # until
until/till you reach => none # until you reach
until/till reaching => none # until reaching
until/till you come to => none # until you come to

== LastOf
Reach [ within ] [ the ] last/final [ n:Num ] [ w:LastWhat ] [ Remain ] => to_last(n, w) # to last 3 sts
Reach [ within ] [ the ] n:Num %st BeforeEnd => to_last(n) # until 3 sts remain
Reach [ within ] [ the ] n:Num ( are left | remain | left ) => to_last(n) # until 2 are left
Reach [ within ] m:Marked => to_marker(m) # to marker
Reach [ within ] [ the ] BegChain => to_last() # to turning ch
Reach [ within ] [ the ] [ next ] corner [ w:What ] => to_corner(w) # to next corner
Reach [ within ] [ the ] [ next ] w:AnySp => to_space(w) # to next ch-2 sp
Reach [ within ] [ the ] [ next ] w:AnyCh => to_chain() # to the chain

== LastWhat
w:What => w # sts
%motif/side => sp() # shell

== Remain
%remain => none # remain
before marker => none # before marker
of row/rnd/round => none # of row

== BeforeEnd
remain/remains/rem/left => none # remain
are left => none # are left
before/from [ the ] end => none # before the end

== Marked
[ the/next/first/a ] marked ( %st | %ch | %sp ) => marked() # marked st
[ the/next/first/a ] marked s:Stitch => marked(s, span) # marked sc
[ the/next/first/a ] marked => marked() # marked
[ the/next/first/a ] [ st/stitch with [ the/a ] ] marker/m/sm/pm/markers [ n:Letter ] => marked_by(n) # st with marker A

== Loop
[ in/through/into ] [ the ] both loops/lps [ of ] => 'both' # both loops of
[ in/through/into ] [ the ] blo/bl/tbl [ only ] => 'back' # BLO
[ in/through/into ] [ the ] b l o [ only ] => 'back' # b l o
[ in/through/into ] [ the ] back loop/loops/lp/lps [ only ] => 'back' # back loops only
[ in/through/into ] [ the ] flo/fl/tfl [ only ] => 'front' # in FLO
[ in/through/into ] [ the ] front loop/loops/lp/lps [ only ] => 'front' # the front loop
[ in/through/into ] [ the ] back bar/bars/hump/humps [ only ] => 'third' # back bar
[ in/through/into ] [ the ] Third loop/loops/lp/lps [ only ] => 'third' # 3rd loop

== BegChain
%beginning %ch [ - ] [ Idle ] NotSpace => none # beg ch-3
t - %ch => none # t-ch
tch/tc/turning => none # tch

== BaseOfChain
[ the/same ] [ %st | place ] [ at/as/in ] [ the ] base/foot/bottom of [ the ] [ OfBeginning ] ChainOf => none # base of ch-3

== OfBeginning
beg/beginning/starting/turning/first/initial => none # beg

== ChainOf
Idle [ - ] %ch [ - ] [ Idle ] => none # 3 ch
%ch [ - ] Idle => none # ch-3
%ch [ - ] NotSpace => none # ch

== Bars
[ each of ] [ the ] [ %next ] n:Num bar/bars of/on k:RowWord r:Num [ NearIt ] => bars(k, r, n) # next 2 bars of Rnd 6
[ each of ] [ the ] %next bar/bars of/on k:RowWord r:Num [ NearIt ] => bars(k, r) # next bar of Row 4

== LoopsOf
[ each/every ] [ st/sts ] [ on/of/from/in ] k:RowWord r:Num => loops_of(k, r) # of Rnd 6
next [ n:Num ] [ %st ] [ st/sts ] [ on/of/from/in ] k:RowWord r:Num => loops_of(k, r, n, 'next') # next 3 sts of Rnd 6
"""


def _to_last(stream: Stream, count: Num | None = None, what: What | None = None) -> ToEnd:
    kind = None if what is None or what == What("st") else what
    if kind is not None and kind.corner and kind.kind == "st and sp":
        kind = What("sp", corner=True)
    return ToEnd("last", count or plain_num(stream, 1), "", kind)


def _to_corner(stream: Stream, what: What | None = None) -> ToEnd:
    """ "to next corner" stops at the space there."""
    if what is None or what.kind == "st and sp":
        return ToEnd("last", None, "", What("sp", what.length if what else None, corner=True))
    return ToEnd("last", None, "", What(what.kind, what.length, what.stitch, True, span=what.span))


def _marked(stream: Stream, stitch: str | None = None, span: Span | None = None) -> Marked:
    return Marked("", stitch, span) if stitch and span else Marked("")


BUILDERS: dict[str, Callable[..., Any]] = {
    "around": lambda stream: ToEnd("around"),
    "across": lambda stream: ToEnd("across"),
    "to_last": _to_last,
    "to_marker": lambda stream, marked: ToEnd("marker", None, marked.marker),
    "to_corner": _to_corner,
    "to_space": lambda stream, what: ToEnd("last", None, "", what),
    "to_chain": lambda stream: ToEnd("last", None, "", What("sp")),  # what was chained across, as a whole
    "marked": _marked,
    "marked_by": lambda stream, letter: Marked(letter or ""),
}
