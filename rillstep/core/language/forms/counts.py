"""Whether chains count: "(counts as dc)", "(3 skipped chs do not count)", "counts as dc, ch 2", "(= 1 dc)"."""

from collections.abc import Callable
from typing import Any

from rillstep.core.findings import Span
from rillstep.core.tree import Chain, Num
from rillstep.core.words.stream import Stream

TABLE = """
== InBracket
LB [ this ] [ Scope ] c:CountsAs RB => c # (counts as dc)

== SkippedCount
c:InBracket => c # (counts as dc)
LB [ ChainSaid ] Says [ the/a ] n:SpaceOf [ Scope ] RB => counts_as(nothing, n) # (the 3 skipped chs count as a ch-2 sp)
LB [ ChainSaid ] Says [ the/a ] n:SpaceOf and [ a/the ] turning ch/chain [ Scope ] RB => counts_as(nothing, n) # (skipped chs count as a ch-1 sp and a turning ch)
LB [ ChainSaid ] Says [ the ] [ first ] Idle s:Stitch [ %st ] [ Scope ] RB => counts_as(s) # (counts as first 2 dc)
LB [ ChainSaid ] Says [ Which ] s:Stitch n:Beside , sk/skip/miss Idle %ch RB => counts_as(s, n) # (counts as dc, ch 1, skip 1 ch)

== ChainAsFirst
with/w [ / ] [ a/the ] ch/chain n:Num as/for [ the/a ] [ first ] s:Stitch [ %st ] => first_chain(n, s, span) # with ch 3 as first dc
with/w [ / ] [ a/the ] ch/chain n:Num as/for [ the/a ] [ first ] %st => first_chain(n, 'st', span) # with ch 3 as the first st

== SpaceOf
%ch [ - ] n:Num [ - ] [ %sp ] => n # ch-2 sp
n:Num [ - ] %ch [ - ] [ %sp ] => n # 2 ch sp

== StandsFor
LB [ first/the/a | Idle ] s:Stitch RB => s # (first dc)

== SameAgain
LB [ the ] same What AsFirstSt RB => none # (the same ch as the first 2 sc)
LB [ the ] same What AsWhat RB => none # (same st as beg ch-3)
LB where you put/made/worked [ your/the ] first ( Stitch | %st ) RB => none # (where you put your first sc)

== SaidOfChain
LB [ the/beg/beginning/first ] %ch [ - ] Idle Says [ Which ] ( Stitch | %st ) [ Scope ] RB => none # (ch 3 counts as the first dc)
LB [ the/beg/beginning/first ] %ch [ - ] Idle Says [ Which ] RB => none # (ch 3 counts as the first one)
LB [ the/beg/beginning/first ] %ch [ - ] Idle SaysNot [ as [ a ] st/stitch ] [ Scope ] RB => none # (ch 1 does not count)

== BehindMark
-/—/,/./; [ this ] c:CountsAs [ -/— ] => c # - counts as first hdc -

== CountsAs
[ ChainSaid ] Says [ Which ] s:Stitch [ %st ] [ n:Beside ] [ Scope ] => counts_as(s, n) # first 3 chs count as dc ! 3 dc
[ ChainSaid ] Says [ Which ] %st [ n:Beside ] [ Scope ] => counts_as('st', n) # counts as a st
[ ChainSaid ] Says [ Which ] %ch Idle and [ a ] s:Stitch [ Scope ] => counts_as(s) # counts as ch 1 and dc
[ ChainSaid ] SaysNot [ as [ a ] st/stitch ] [ Scope ] => counts_as('none') # does not count as a stitch

== ChainSaid
{ ChainWord } %ch [ %st ] => none # the first 3 chs
skipped/missed/unused ChainWord { ChainWord } => none # skipped 3

== ChainWord
the/this/these/those/your/first/beg/beginning/starting/turning/skipped/skip/sk/missed/unused/base => none # first
Idle => none # 3

== Says
[ will/to ] count/counts/counted/counting [ as/for ] => none # counts as
equals/equal => none # equals
stands/stand for => none # stands for
= => none # =

== SaysNot
do/does/did/will not count/counts => none # does not count
don't/doesn't/never/not count/counts/counted => none # not counted
[ is ] not a st/stitch => none # not a st
no st/stitch => none # no st

== Which
the/your/a/one => none # the
[ the/your ] first => none # the first
[ the/your ] FirstOrOne => none # 1
[ the/your ] first FirstOrOne => none # first 1

== Beside
,/+/&/and/plus [ a ] n:Num [ - ] %ch [ - ] [ %sp ] => n # and 2 ch
,/+/&/and/plus [ a ] %ch [ - ] n:Num [ - ] [ %sp ] => n # , ch 2
"""


def _counts_as(stream: Stream, stitch: str, space: Num | None = None) -> tuple[str, Num | None]:
    """The stitch that a chain counts as ("none" where it does not), and the chains of it that are a space beside it."""
    return stitch, space


def _first_chain(stream: Stream, length: Num, stitch: str, span: Span) -> Chain:
    """ "dc in each ch around with ch 3 as first dc": the chain that is the first stitch of its row, wherever in the
    row that is said."""
    return Chain(length, stitch, span=span)


BUILDERS: dict[str, Callable[..., Any]] = {"counts_as": _counts_as, "first_chain": _first_chain}
