"""Worked again: how often, from which star; by how much rows grow, and what there is after one of them."""

from collections.abc import Callable
from typing import Any

from rillstep.core.words.stream import plain_num

TABLE = """
== RowsGrow
%growing [ by ] Idle %st [ in/on ] each/every/per [ %row ] => none # decreasing 2 sts each row
LB %growing [ by ] Idle %st [ [ in/on ] each/every/per [ %row ] ] RB => none # (increasing 2 sts)
you lose/gain/add Idle %st [ in/on ] each/every/per [ %row ] => none # you lose two stitches in each row

== AfterRow
[ so ] after %row r:Held t:StatedThen => after(r, t) # so after row 53 there are 26 hdc

== StatedThen
[ , ] there are/is t:Totals => t # there are 26 hdc
[ , ] you [ will/should ] [ now ] have t:Totals => t # you have 26 hdc

== Times
[ -/, ] [ InTotal ] twice [ InTotal ] => times(2) # twice
[ -/, ] [ InTotal ] twice more => times(3) # twice more
[ -/, ] [ InTotal ] once [ InTotal ] => times(1) # once
[ -/, ] [ InTotal ] once more => times(2) # once more
[ -/, ] [ InTotal ] thrice [ InTotal ] => times(3) # thrice
[ -/, ] [ InTotal ] x n:Num => n # x 6 ! x
[ -/, ] [ InTotal ] n:Num times/time/x [ InTotal ] => n # a total of 6 times
[ -/, ] [ InTotal ] n:Num times/time/x [ InTotal ] more => more(n) # 6 times more
[ -/, ] [ InTotal ] n:Num more/additional/further time/times => more(n) # 5 more times
[ -/, ] [ InTotal ] n:Num more => more(n) # 5 more ! 5

== InTotal
[ for ] a total of => none # for a total of
[ in ] total => none # in total
in all => none # in all
altogether => none # altogether

== FromStar
[ from/between ] [ the ] Stars Stars => none # between * *
[ from/between ] [ the ] Stars [ to/and Stars ] => none # between * and *
[ from ] [ the ] StarWord => none # from the asterisk
from/between => none # from

== Stars
*/** [ StarWord ] => none # *

== StarWord
asterisk/star/asterisks/stars/s => none # star
"""

BUILDERS: dict[str, Callable[..., Any]] = {
    "after": lambda stream, row, totals: (row, totals),
    "times": plain_num,
    "more": lambda stream, number: number.more(1),  # it counts those after the first one
}
