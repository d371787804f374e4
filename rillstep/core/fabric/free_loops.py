"""Places that were left: loops free in an earlier row, and stitches passed over just before."""

from rillstep.core.fabric.hook import Hook, Stop, Trouble, counted
from rillstep.core.findings import Span
from rillstep.core.tree import Loops


def passed_over(hook: Hook, count: int, span: Span) -> int:
    """Places that were skipped just before, and are worked into now: a crossed stitch."""
    if count > hook.skipped:
        missing = count - hook.skipped
        raise Stop(
            Trouble("no-such-place", span, f"{missing} more would have to be skipped before this", missing=missing)
        )
    hook.skipped -= count
    if hook.trace is not None:
        hook.trace.go_back(count)
    return count


def _last_left(hook: Hook, into: Loops, span: Span) -> tuple[str, int]:
    """The last row with such loops free. Raises Stop."""
    for origin, free in reversed(hook.around.loops):
        if (free.front and into.loop != "back") or (free.back and into.loop != "front"):
            return origin
    name = "" if into.loop == "both" else f"{into.loop} "
    raise Stop(Trouble("no-such-place", span, f"there are no free {name}loops here"))


def free_loops(hook: Hook, into: Loops, span: Span) -> int:
    """Loops that an earlier row left free."""
    kind, number = (into.kind, into.number.at(hook.size)) if into.number is not None else _last_left(hook, into, span)
    free = dict(hook.around.loops).get((kind, number))
    loop = into.loop
    if loop == "both":  # "the free loops": those that there are
        loop = "front" if free is not None and free.front else "back"
    runs = () if free is None else free.front if loop == "front" else free.back
    key = (kind, number, loop)
    used = sum(count for *row, count in hook.used_loops if tuple(row) == key)
    total = counted(list(runs)) - used
    if total <= 0:
        why = "are worked already" if used else "are not free"
        name = "" if into.loop == "both" else f"{loop} "
        raise Stop(Trouble("no-such-place", span, f"the {name}loops of {kind} {number} {why}"))
    count = into.count.at(hook.size) if into.count is not None else total
    if count > total:
        missing = count - total
        raise Stop(Trouble("runs-out", span, f"runs out of free loops: {missing} missing", missing=missing))
    hook.used_loops.append((*key, count))
    if hook.trace is not None:
        hook.trace.note(hook.trace.numbered(runs)[:count])
    hook.cursor.rest = []
    hook.cursor.taken += count
    return count
