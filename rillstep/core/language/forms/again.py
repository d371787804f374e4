"""Rows worked again: by how much they grow, and what there is after one of them."""

from collections.abc import Callable
from typing import Any

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
"""

BUILDERS: dict[str, Callable[..., Any]] = {"after": lambda stream, row, totals: (row, totals)}
