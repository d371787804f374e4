"""Kinds of place: "sts", "ch-2 sp", "st and ch", "corner sp", "dc", "row ends", "sp between 3-dc groups"."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from rillstep.core.findings import Span
from rillstep.core.tree import NOWHERE, Num, What
from rillstep.core.words.stream import Stream
from rillstep.core.words.tokens import Token

TABLE = """
== What
w:Base => w # sts ! in next
%corner w:Base => cornered(w) # corner ch-2 sp
point of triangle w:Base => cornered(w) # point of triangle sp
( %corner | point of triangle ) => corner() # corner
( %corner | point of triangle ) between [ the | Idle ] sides => corner_between() # corner between two sides

== Base
[ unworked/remaining/rem/free/skipped ] w:Pair Left => unworked(w) # sts left unworked
unworked [ remaining/rem/free/skipped ] w:Pair => unworked(w) # unworked sts
[ remaining/rem/free/skipped ] w:Pair => w # rem sts

== Single
w:RowEnd => w # row end
w:AnySt => w # st
w:AnySp => w # ch-2 sp
w:AnyCh => w # ch
%corner w:Single => cornered(w) # corner sp
%corner => corner() # corner

== Left
[ previously ] left unworked => none # left unworked
that/which were left unworked => none # that were left unworked
left [ over ] from => none # left over from

== Pair
w:RowEnd => w # row ends
w:AnySt => w # dc
AnySt w:AndSt => w # hdc and 1ch-sp
NamedSt w:AndNamed => w # sc and bobble
w:AnySp => w # ch-3 sp
s:AnySp AndSp => st_and_sp(s) # ch-1 sp and st
w:AnyCh => w # chs
AnyCh Joint %st => st_and_ch() # ch and st
AnyCh and/or in/into %st Plural => st_and_ch() # ch and in sts

== AndNamed
Joint OtherSt [ %st ] NotIn => st() # sc << and bobble
{ , NamedSt } and NamedSt Joint s:WordSp => st_and_sp(s) # dc << , cluster and dc and ch-1 sp
, NamedSt { , NamedSt } Joint s:WordSp => st_and_sp(s) # dc << , cluster and ch-1 sp

== AndSt
Joint s:CountedSp => st_and_sp(s) # hdc << and 1ch-sp
Joint s:WordSp => st_and_sp(s) # st << and ch-1 sp
and/or in/into s:WordSp Plural => st_and_sp(s) # dc << and in ch-2 sps
Joint AnyCh => st_and_ch() # st << and ch
and/or in/into AnyCh Plural => st_and_ch() # sc << and in chs

== AndSp
Joint %st => none # and st
and/or in/into %st Plural => none # and in sts
Joint NamedSt SeesEnd => none # and sc >> around

== Joint
%and => none # and
and/or in/into %each => none # and in each
and/or %each => none # and each

== AnySt
%st => st() # sts
w:NamedSt => w # dc

== NamedSt
s:Stitch [ %st ] => named(s, span, tokens) # dc

== RowEnd
row end/ends => end() # row end
end/ends/side/sides of [ each/every/the ] row/rows => end() # ends of rows

== CountedSp
n:Num [ - ] %ch [ - ] %sp => sp(n) # 3ch-sp

== WordSp
%sp => sp() # sp
%handle [ %sp ] => sp() # handle
%handle %ch [ - ] %sp => sp() # handle ch-sp
%handle %ch NoNumber => sp() # handle chain
%ch [ Glued - ] n:Num [ - ] [ corner ] ( %sp | %handle ) => sp(n) # ch-2 sp
%ch [ Glued - ] n:Num NotFrom => sp(n) # ch-2
%ch [ Glued - ] n:Num [ - ] corner => sp(n) # ch-2 corner
%ch [ Glued - ] %sp => sp() # ch sp

== AnySp
w:CountedSp => w # 3ch-sp
w:WordSp => w # ch-3 sp
Stitch %sp => sp() # dc space
( %sp | %handle ) w:Between => w # sp between 3-dc groups
w:Between => w # between next 2 dc

== AnyCh
[ foundation ] %ch => ch() # foundation ch
%ch stitch/stitches => ch() # chain stitch

== Between
BetweenWhich [ the ] %group KnownGap => known_gap() # between groups
BetweenWhich [ the ] [ Two ] n:Held [ - ] s:Stitch [ - ] %group => gap_of(n, s) # between next two 3-dc groups
BetweenWhich [ the ] s:Stitch [ %st ] => gap(s) # between each dc
BetweenWhich [ the ] Two s:Stitch [ %st ] => gap(s) # between next 2 dc
BetweenWhich [ the ] [ Two ] %st => gap() # between sts

== BetweenWhich
between [ the/each/every/any ] [ next/first/these/those/of ] => none # between the next
"""


def _st(stream: Stream) -> What:
    return What("st")


def _named(stream: Stream, stitch: str, span: Span, tokens: Sequence[Token]) -> What:
    """Words that stand for a phrase which the text teaches stand nowhere themselves."""
    return What("st", stitch=stitch, span=NOWHERE if any(token.taught for token in tokens) else span)


def _sp(stream: Stream, length: Num | None = None) -> What:
    return What("sp", length)


def _st_and_sp(stream: Stream, space: What) -> What:
    return What("st and sp", space.length)


def _corner(stream: Stream) -> What:
    """Of a piece that was rotated, the corner is the first place of the next side, or one of its own between two
    sides."""
    return What("gap" if stream.choose(2, "corner") == 1 else "st and sp", corner=True)


def _cornered(stream: Stream, what: What) -> What:
    return replace(what, corner=True) if what.kind in ("st", "sp") else what


def _unworked(stream: Stream, what: What) -> What:
    return replace(what, unworked=True) if what.kind == "st" else what


def _gap(stream: Stream, stitch: str = "") -> What:
    return What("st", stitch=stitch or "", between=1)


def _gap_of(stream: Stream, many: Num, stitch: str) -> What:
    """The gap behind a group; those named later in the row as "groups" are the same."""
    legs = next((value for value in many.values if value is not None), 1)
    stream.between = What("st", stitch=stitch, between=legs)
    return stream.between


BUILDERS: dict[str, Callable[..., Any]] = {
    "st": _st,
    "named": _named,
    "sp": _sp,
    "ch": lambda stream: What("ch"),
    "end": lambda stream: What("end"),
    "st_and_sp": _st_and_sp,
    "st_and_ch": lambda stream: What("st and ch"),
    "corner": _corner,
    "corner_between": lambda stream: What("gap", corner=True),
    "cornered": _cornered,
    "unworked": _unworked,
    "gap": _gap,
    "gap_of": _gap_of,
    "known_gap": lambda stream: stream.between,
}
