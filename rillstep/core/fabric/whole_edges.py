"""Stitches over a whole edge at once: so many evenly, more or fewer spread over a row, rows that go on, foundations."""

import re

from rillstep.core.craft import SC
from rillstep.core.fabric.cursor import Want
from rillstep.core.fabric.edge import Place, Run
from rillstep.core.fabric.hook import Hook, Stop, Trouble
from rillstep.core.fabric.taking import along_side, taken, until
from rillstep.core.fabric.wants import has
from rillstep.core.tree import Evenly, Foundation, Onward, Spread, ToEnd


def evenly(hook: Hook, step: Evenly) -> None:
    """So many stitches over a whole edge, whatever it has."""
    if step.along in ("row ends", "foundation"):
        want = Want("end" if step.along == "row ends" else "ch")
        if not has(hook, want):
            count = along_side(hook, want, ToEnd("across"), step.span)
        else:
            count = hook.cursor.available(want)
            hook.take(want, count, step.span)
    else:
        want = Want("st and ch")
        if not hook.cursor.rest and hook.on_side:
            hook.next_side(Want("st"))
        count = hook.cursor.available(want)
        if count:
            hook.take(want, count, step.span)
        hook.cursor.rest = []
    hook.spread_out = True
    hook.make([Run(Place("st", step.stitch), step.count.at(hook.size))], count)


def spread(hook: Hook, step: Spread) -> None:
    """Every stitch of the row, and some more or fewer: how many is known, and not where. Raises Stop."""
    want = Want("st")
    ahead = until(hook, want, step.end, step.span)
    change = step.change.at(hook.size)
    made = ahead + change if step.more else ahead - change
    # A stitch more or less goes into, or over, a stitch of its own.
    if ahead < 1 or (change > ahead if step.more else 2 * change > ahead):
        message = f"{change} cannot be spread over {ahead} stitches"
        raise Stop(Trouble("runs-out", step.span, message, missing=max(1, change - ahead)))
    taken(hook, want, ahead, step.span, "both")
    hook.make([Run(Place("st", step.stitch), made)], ahead)


# "increasing 8 sts in every round": by how many, where it is the same in all sizes.
_GROWS = re.compile(
    r"\b(?:inc|dec)\w* (\d{1,3}) (?:sts?|stitches|\w{1,3}) (?:in |on )?(?:each|every|per)(?: (?:rnd|round|row)|$)"
)


def onward(hook: Hook, step: Onward) -> None:
    """A row that grows or shrinks by as much as the one before it: how many stitches is known, and not where. Raises
    Stop."""
    if any(run.place.kind == "sp" or run.inner for run in hook.cursor.rest):
        raise Stop(
            Trouble("no-such-place", step.span, "lace cannot be gone on with in words: its rounds are written out")
        )
    said = _GROWS.search(step.words)
    if said is not None and int(said[1]) != abs(hook.around.grew):
        message = f"{said[1]} in each round are said here; the one before changed by {abs(hook.around.grew)}"
        raise Stop(Trouble("part-differs", step.span, message))
    ahead = hook.cursor.available(Want("st"))
    made = ahead + hook.around.grew
    if ahead < 1 or made < 1:
        raise Stop(Trouble("runs-out", step.span, "there is nothing left here to work into", missing=1))
    stitch = hook.cursor.rest[-1].place.stitch or SC.us
    taken(hook, Want("st"), ahead, step.span, "both")
    hook.make([Run(Place("st", stitch), made)], ahead)


def foundation(hook: Hook, step: Foundation) -> None:
    """Foundation stitches: they make the chain below them, whose underside can be worked along later. Raises Stop."""
    count = step.count.at(hook.size)
    if hook.edge.runs or hook.cursor.taken:
        raise Stop(Trouble("no-such-place", step.span, "foundation stitches begin a piece, and here is one already"))
    hook.make([Run(Place("st", step.stitch), count)] if count > 0 else [], 0)
    hook.cursor.worked_chains += count
