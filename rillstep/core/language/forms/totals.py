"""Stated totals: "24 (30, 36) sts, 4 ch-2 sps", "18 sc and a ch-12 loop", "26, 24, 22 sts", "7 scallops"."""

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from rillstep.core.findings import Finding, Span
from rillstep.core.language.classes import CLASSES
from rillstep.core.tree import Num, Total
from rillstep.core.words.stream import Stream, plain_num

TABLE = """
== Totals
[ Fill ] [ Lead ] t:Counted { [ Fill ] t:More } [ Fill ] => totals(t*) # 24 sts, 4 ch-2 sps ! in next 2 sts

== SetOff
t:Totals => t # 24 sts, 4 ch-2 sps
[ Fill ] [ Lead ] t:Loose { [ Fill ] t:LooseMore } [ Fill ] => totals(t*) # 60 zed

== Loose
t:Counted => t # 24 sts
n:Count w:AnyThing => thing(w, span) # 60 zed ! 2 in next

== LooseMore
[ Lead ] t:Loose => t # 24 sts
Remark => none # after 9th rnd

== More
[ Lead ] t:Counted => t # you have 24 sts
Remark => none # after 9th rnd

== Lead
[ you ] [ should/will ] [ now ] have [ now ] => none # you should now have
you'll have [ now ] => none # you'll have
there are/is [ now ] => none # there are
there should/will be [ now ] => none # there will be
[ a ] total [ of ] [ Fill ] => none # a total of
now => none # now
makes/making => none # makes

== Counted
t:Total and %ch [ - ] %sp { After } => with_spaces(t) # 20 hdc and ch-sps
t:Total { After } => t # 24 sts in total

== After
total/altogether/made/now/remain/remaining/rem/left/worked/around/across => none # remaining
in total/all => none # in total
[ on/in/for ] each/per/both side/sides/size/sizes/corner/corners/end/ends => none # each side
on/in each/the row/rnd/round => none # in the round

== Remark
after/at When => none # after 9th rnd
with/including/incl/counting [ . ] Includes => none # with the ch-3
-/—/; Counting => none # - skipped ch 2 do not count

== Count
n:Set => n # 16, 20
%opens n:Set %closes => n # (34, 42)
n:Num => n # 24

== Space
n:Num [ - ] %ch [ - ] %sp => n # 5ch-sp
%ch [ -/of ] n:Num [ - ] [ corner/button ] ( %sp | %opening ) => n # ch-2 sp

== Total
n:Count k:CountedKind => total(n, k) # 24 sts
n:Count [ in ] [ total/all/altogether ] AtEnd => Total(n, 'sts') # 24 in total
n:Count w:Thing [ of Idle Word ] => thing(w, span) # 7 scallops
l:Listed k:ListedKind => each_round(l, k) # 26, 24, 22 sts
[ a ] s:Space => Total(one(), 'sp', s) # a ch-12 loop
%ch - l:Num AtEnd => Total(one(), 'sp', l) # ch-3
a/an w:Thing [ of Idle Word ] => thing(w, span) # a button loop of 8 ch

== CountedKind
s:Space => kind('sp', s) # ch-2 sps
%st => kind('sts') # sts
%ch [ - ] [ corner/button ] ( %sp | %opening ) => kind('sp') # ch sps
%ch [ -/of ] l:Num => kind('sp', l) # ch-2
[ %ch ] ( %sp | %opening ) of l:Num [ %ch ] => kind('sp', l) # loop of 4 ch
%ch => kind('ch') # ch
[ corner ] %sp => kind('sp') # corner sps
%handle => kind('sp') # handles
corners => kind('sp') # corners
s:Stitch [ %st ] => kind(s) # dc

== ListedKind
%st => 'sts' # sts
s:Stitch [ %st ] => s # sc
"""


def _total(stream: Stream, count: Num, what: str, length: Num | None = None) -> Total:
    return Total(count, what, length)


def _counted(stream: Stream, count: Num, kind: tuple[str, Num | None]) -> Total:
    return Total(count, *kind)


def _each_round(stream: Stream, counts: tuple[Num, ...], what: str) -> Total:
    return Total(counts[-1], what, each=counts)


def _thing(stream: Stream, words: str, span: Span) -> str:
    """A thing of which the text does not define what it is, so that its number is not checked."""
    message = f"“{words.split()[0]}” is not a stitch that this text defines, so this number is not checked."
    stream.findings.append(Finding("kind-not-known", "warning", span, message))
    return words


def _with_spaces(stream: Stream, total: Total) -> tuple[Total, Total]:
    """As many spaces as stitches."""
    return total, Total(total.count, "sp")


def _totals(stream: Stream, counted: tuple[Total | tuple[Total, Total] | str, ...]) -> tuple[Total, ...]:
    found = tuple(
        one for some in counted for one in (some if isinstance(some, tuple) else (some,)) if isinstance(one, Total)
    )
    motifs = any(isinstance(one, str) and one.split()[0] in CLASSES["motif"] for one in counted)
    if motifs:  # "10 shells, 10 dc": those outside of them
        return tuple(one if one.what in ("sp", "ch", "sts") else replace(one, beside=True) for one in found)
    return found


BUILDERS: dict[str, Callable[..., Any]] = {
    "Total": _total,
    "total": _counted,
    "kind": lambda stream, what, length=None: (what, length),
    "each_round": _each_round,
    "one": lambda stream: plain_num(stream, 1),
    "thing": _thing,
    "with_spaces": _with_spaces,
    "totals": _totals,
}
