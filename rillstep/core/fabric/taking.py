"""Which places a step means, and taking them: next, each, same, last, marked, the loops left free, a side of the
piece."""

from dataclasses import replace

from rillstep.core.craft import basic
from rillstep.core.fabric.cursor import TAKES, Want
from rillstep.core.fabric.edge import PATTERN, Place, Run, leaves
from rillstep.core.fabric.free_loops import free_loops, passed_over
from rillstep.core.fabric.hook import Hook, Stop, Surroundings, Trouble, counted, places_word
from rillstep.core.fabric.wants import has, is_chain, is_of_kind, next_is_marked, run_ahead, wanted
from rillstep.core.findings import Span
from rillstep.core.tree import (
    AsFirst,
    Bars,
    Every,
    FromHook,
    Group,
    InRing,
    Into,
    Last,
    Loops,
    Marked,
    Next,
    Nth,
    Same,
    Skipped,
    Step,
    ToEnd,
    TopOfChain,
    What,
    Work,
)


def places(hook: Hook, into: Into, span: Span, loop: str = "both", stitch: str = "dc") -> int:
    """Take the places that `into` names; the answer is how many there are. Raises Stop."""
    size = hook.size
    match into:
        case Next(number, what) if what.between > 1:
            places_before = number.at(size) * what.between
            if "sp" in hook.cursor.kinds:
                return counted(hook.take(wanted(hook, what), places_before, span, use=False)) // what.between
            return taken(hook, wanted(hook, what), places_before, span, loop) // what.between
        case Next(number, What("gap")):
            if hook.cursor.rest or not (hook.sides or hook.on_side) or hook.cursor.taken == hook.cornered:
                raise Stop(Trouble("no-such-place", span, _NO_CORNER))
            hook.cornered = hook.cursor.taken
            return number.at(size)  # it is between the last place of this side and the first of the next one
        case Last(What("gap")):
            if hook.cursor.rest or not hook.on_side:
                raise Stop(Trouble("no-such-place", span, _NO_CORNER))
            return 1
        case Next(number, What("end") as what) if not has(hook, wanted(hook, what)):
            _onto_side(hook, wanted(hook, what), span)
            return taken(hook, wanted(hook, what), number.at(size), span, loop)
        case Next(number, what):
            if what.corner and not hook.cursor.rest and hook.sides:
                hook.on_side = True  # round the corner to the next side
            return taken(hook, wanted(hook, what), number.at(size), span, loop)
        case Every(what, end) if what.between > 1:
            return _between_groups(hook, what, end, span)
        case Every(what, end):
            return _every(hook, what, end, span, loop)
        case Same(what):
            _same(hook, what, span, loop)
            return 1
        case Last(what):
            return _last(hook, what, span, loop)
        case AsFirst(what):
            if hook.made and (not hook.cursor.rest or not hook.cursor.available(wanted(hook, what))):
                return 1  # all of the round is worked: its first place is worked into once more
            if hook.made and hook.begun_in_first:
                return 1
            return _last(hook, what, span, loop)
        case Nth(nth, what, here):
            want = wanted(hook, what)
            if nth.at(size) < 1:
                raise Stop(Trouble("chain-of-none", span, "places are counted from 1"))
            if here:
                before = nth.at(size) - 1
                hook.take(want, before, span)
                found = taken(hook, want, 1, span, loop)
                rest = min(
                    before, run_ahead(hook, want)
                )  # it is the middle of its group: the rest is passed over as well
                hook.take(want, rest, span, skipping=True)
                return found
            # Counted from the start of the row, or of this turn of a repeat; from here, where that is passed already.
            since = hook.cursor.taken - hook.counted_from
            ahead = nth.at(size) - 1 - (since if since < nth.at(size) else 0)
            if ahead > 0:
                hook.take(want, ahead, span)
            elif nth.at(size) > 1:
                pass
            elif hook.standing is not None or hook.stands:
                _same(hook, what, span, loop)
                return 1
            return taken(hook, want, 1, span, loop)
        case FromHook():
            return _from_hook(hook, into, span, stitch)
        case InRing():
            ring = not hook.edge.runs or any(run.place.kind == "ring" for run in hook.edge.runs)
            if not ring and not (hook.edge.foundation and hook.edge.closed):
                raise Stop(Trouble("no-such-place", span, "there is no ring here to work into"))
            if hook.trace is not None:
                hook.trace.note(hook.cursor.rest or hook.trace.ring())
            hook.cursor.rest = []
            return 1
        case Marked():
            return _marked(hook, into, span)
        case Bars(count=bars):  # how many there are is looked up by the proof
            hook.cursor.rest = []
            return bars.at(size)
        case Loops():
            return free_loops(hook, into, span)
        case TopOfChain():
            return _top_of_chain(hook, span)
        case Skipped(number, _):
            return passed_over(hook, number.at(size), span)


_NO_CORNER = "there is no corner between two sides here"


def _between_groups(hook: Hook, what: What, end: ToEnd, span: Span) -> int:
    """Gaps between groups of so many stitches: the groups must come out even. Raises Stop."""
    count = _every(hook, what, end, span, "both")
    groups, left = divmod(count, what.between)
    if left:
        message = f"groups of {what.between} do not come out even: {left} left for the last one"
        raise Stop(Trouble("repeat-uneven", span, message, what.between - left, left))
    return groups


def taken(hook: Hook, want: Want, count: int, span: Span, loop: str, use: bool = True) -> int:
    """Take so many places; the loops that are not worked stay free. Raises Stop."""
    if want.kind == "st" and hook.cursor.rest and hook.cursor.rest[-1].place.kind == "ring":
        if hook.trace is not None:
            hook.trace.note(hook.cursor.rest)
        return count  # "6 sc" on a ring go into the ring
    taken = hook.take(want, count, span, use)
    if loop == "back":
        hook.freed_front += taken
    elif loop == "front":
        hook.freed_back += taken
    if hook.moving:
        _carry_marks(hook, taken)
    return counted(taken)


def reaches(hook: Hook, passed: What, following: Step | None, span: Span, spared: int = 0) -> None:
    """Whether so many stitches passed by their number lead to the place that comes next by its name: "sk 2 dc, 3 dc in
    next ch-2 sp", "sk 2 dc, shell in next sc". Raises Stop where more than `spared` are left before it."""
    into = following.into if isinstance(following, Work | Group) else None
    if passed.kind == "ch" and isinstance(into, TopOfChain):
        chains = hook.cursor.available(Want("ch"))
        if chains and hook.made:
            message = f"{chains} {places_word({'ch'}, chains)} left over before the top of the turning chain"
            raise Stop(Trouble("left-over", span, message, left=chains))
        return
    if passed.kind != "st" or passed.stitch == "sl st" or not isinstance(into, Next) or into.what.below:
        return
    if into.what.kind != "sp" and (into.what.stitch in ("", passed.stitch) or not passed.stitch):
        return
    want = wanted(hook, into.what)
    ahead = hook.cursor.available(want)
    left = hook.cursor.before(Want("st"), want, ahead) if ahead else None
    if spared and left == 0 and _begins_with_chain(hook):
        message = "runs out of stitches before the next space: 1 missing; the round is joined to its starting chain"
        raise Stop(Trouble("runs-out", span, message, missing=1))
    if left and left > spared:
        message = f"{left} {places_word({'st'}, left)} left over before the place that is named next"
        raise Stop(Trouble("left-over", span, message, left=left))


def _begins_with_chain(hook: Hook) -> bool:
    """Does the round below begin with a chain that counts as a stitch, which no "next" stitch is?"""
    first = next(iter(leaves(hook.edge.runs)), None)
    return first is not None and first[0].chain


def _carry_marks(hook: Hook, taken: list[Run]) -> None:
    """Markers are moved up: the next stitch made carries the mark of the place that it goes into."""
    marks = [place.mark for place, _ in leaves(taken) if place.mark is not None]
    if marks:
        hook.carried = marks[-1]


def _every(hook: Hook, what: What, end: ToEnd, span: Span, loop: str) -> int:
    want = wanted(hook, what)
    if hook.edge.foundation and want.kind == "st":
        want = replace(want, kind="ch", stitch="")
    if hook.on_side or (want.kind == "end" and not has(hook, want)):
        return along_side(hook, want, end, span)
    count = until(hook, want, end, span)
    if want.kind == "ch" and not hook.edge.foundation and end.what is None and end.last is None:
        count = min(count, _to_next(hook, want, Want("st")) or count)  # "sc in each ch": of the chain that comes next
    if hook.spares_chain and end.word in ("around", "across") and hook.cursor.ends_with_chain(want) and count > 1:
        count -= 1  # its top is named by itself later in the row
    hook.cursor.use(want)
    if count < 1:
        if count == 0 and (end.word in ("last", "marker") or hook.may_end):
            return 0
        raise Stop(Trouble("runs-out", span, "there is nothing left here to work into", missing=1 - count))
    return taken(hook, want, count, span, loop)


def until(hook: Hook, want: Want, end: ToEnd, span: Span) -> int:
    """How many of the wanted places stand before an end."""
    hook.settle()
    if end.word == "marker":
        found = to_marker(hook, want, end.marker)
        if found is None:
            name = f" {end.marker}" if end.marker else ""
            raise Stop(Trouble("marker-missing", span, f"there is no marker{name} ahead"))
        return found
    underside = hook.edge.foundation and any(run.place.optional for run in hook.cursor.rest)
    if end.what is not None and not underside:
        stop = wanted(hook, end.what)
        last = end.last.at(hook.size) if end.last else 0
        found = hook.cursor.before(want, stop, last) if last else _to_next(hook, want, stop)
        if found is None:
            raise Stop(Trouble("no-such-place", span, "the place at which this should end is not ahead"))
        return found
    # Along the underside of a foundation, "to last ch" means the one first worked into: it may be worked into again.
    again = sum(run.count for run in hook.cursor.rest if run.place.optional) if underside and end.last else 0
    return hook.cursor.available(want) + again - (end.last.at(hook.size) if end.last else 0)


def to_marker(hook: Hook, want: Want, name: str) -> int | None:
    """How many stand before a marker; where the row has come to one already, the one after it is meant."""
    if name or not hook.cursor.taken or not next_is_marked(hook):
        return hook.cursor.before(want, name)
    kept, taken = list(hook.cursor.rest), hook.cursor.taken
    first = hook.cursor.take(want, 1, use=False)
    found = hook.cursor.before(want, name)
    hook.cursor.rest, hook.cursor.taken = kept, taken
    return None if found is None else found + len(first)


def _to_next(hook: Hook, want: Want, stop: Want) -> int | None:
    """How many of the wanted stand before the next place of a kind."""
    ahead = hook.cursor.available(stop)
    return hook.cursor.before(want, stop, ahead) if ahead else None


def along_side(hook: Hook, want: Want, end: ToEnd, span: Span) -> int:
    """Along a side of the piece: row ends or the foundation chain. Raises Stop."""
    _onto_side(hook, want, span)
    kind = hook.cursor.rest[-1].place.kind
    side = Want(kind)  # type: ignore[arg-type]
    count = hook.cursor.available(side) - (end.last.at(hook.size) if end.last else 0)
    return counted(hook.take(side, max(0, count), span))


def _onto_side(hook: Hook, want: Want, span: Span) -> None:
    """To the side that comes next, where the hook is not on one. Raises Stop."""
    if not hook.on_side:
        if not any(want.kind in (side.place.kind, "st") for side in hook.sides):
            raise Stop(Trouble("no-such-place", span, "there are no row ends here to work into", missing=1))
        left = hook.cursor.left()
        if left and not hook.unworked and not hook.made and not hook.cursor.taken:
            hook.sides.append(
                Run(PATTERN, 1, tuple(reversed(hook.cursor.rest)))
            )  # the top is met again as the last side
        elif left and not hook.unworked:
            message = f"{left} {places_word(hook.cursor.kinds, left)} left over before the row ends"
            raise Stop(Trouble("left-over", span, message, left=left))
        hook.on_side = True
        hook.cursor.rest = []
        hook.cursor.uses.clear()
    if not hook.cursor.rest:
        hook.next_side(want)
    if not hook.cursor.rest:
        raise Stop(Trouble("no-such-place", span, "there are no row ends here to work into", missing=1))


def _same(hook: Hook, what: What, span: Span, loop: str) -> None:
    if hook.standing is not None:
        hook.standing = None
    elif hook.cursor.taken == 0 and not hook.on_side:
        taken(hook, wanted(hook, what), 1, span, loop, use=False)
        hook.begun_in_first = True


def _last(hook: Hook, what: What, span: Span, loop: str) -> int:
    want = wanted(hook, what)
    if hook.edge.foundation and want.kind == "st":
        want = replace(want, kind="ch", stitch="")
    if hook.on_side and hook.cursor.rest:
        want = Want(hook.side_kind())
    ahead = hook.cursor.available(want)
    if ahead > 1 and hook.cursor.is_lace:
        hook.take(want, ahead - 1, span)  # what lies between is passed over, as lace does
    elif ahead > 1:
        message = f"{ahead - 1} {places_word(set(TAKES[want.kind]), ahead - 1)} left over before the last one"
        raise Stop(Trouble("left-over", span, message, left=ahead - 1))
    return taken(hook, want, 1, span, loop)


# Under this length `says` remembers whether the chains skipped at the very start count.
SKIPPED_CHAINS = 0


def _from_hook(hook: Hook, into: FromHook, span: Span, stitch: str) -> int:
    nth = into.nth.at(hook.size)
    if hook.made and hook.cursor.taken and is_chain(hook.made[-1]):
        return _close_picot(hook, nth, span)
    if not hook.edge.foundation or hook.cursor.taken:
        raise Stop(Trouble("no-such-place", span, "there is no new foundation chain here"))
    if nth < 2:
        raise Stop(Trouble("no-such-place", span, "the chain on the hook itself cannot be worked into"))
    hook.take(Want("ch"), nth, span)
    # The chains skipped at the start are not places; the walk back along the underside
    # ends at the chain first worked into.
    hook.cursor.taken -= nth - 1
    hook.cursor.worked_chains -= nth - 1
    counts = into.counts_as or (stitch if _skipped_count(hook, nth, stitch) else None)
    said = into.space.at(hook.size) if into.space is not None else 0
    gap = said or (first_mesh(nth, stitch) if into.counts_as is None else 0)
    if counts or (gap and not said):
        hook.make([Run(Place("st", counts or stitch, chain=True), 1)])
    if gap:
        hook.make([Run(Place("sp", length=gap), 1)])
    return 1


def _skipped_count(hook: Hook, nth: int, stitch: str) -> bool:
    """Do the chains skipped before "4th ch from hook" count as a stitch? As such a chain at the start of a row does, of
    which the text says it, or else by the total of the row."""
    known = known_of_skipped(hook.around, nth, stitch)
    return hook.says.get(SKIPPED_CHAINS) == "st" if known is None else known


def known_of_skipped(around: Surroundings, nth: int, stitch: str) -> bool | None:
    """Whether the chains skipped before a stitch count, by what the text says of a beginning chain as long; None where
    it says nothing."""
    said = dict(around.throughout).get(nth - 1, "")
    height = basic(stitch).turning_chain if stitch else 0
    return None if not said or nth - 1 > height else said != "none"


def first_mesh(nth: int, stitch: str) -> int:
    """ "dc in 8th ch from hook": the chains skipped are the first stitch of a mesh and its space over as many chains;
    0 for no mesh."""
    height = basic(stitch).turning_chain if stitch else 0
    extra = nth - 1 - height
    return extra // 2 if height > 2 and extra > 0 and extra % 2 == 0 else 0


def _close_picot(hook: Hook, nth: int, span: Span) -> int:
    """A stitch back into a chain just made: the chain becomes a knot on the edge, and no place."""
    length = hook.made[-1].place.length
    if nth > length:
        raise Stop(Trouble("no-such-place", span, f"the chain just made has only {length}", missing=nth - length))
    if nth < length:
        message = f"ch {length} is closed in the {nth}. chain: the picot stands on a stalk of {length - nth}"
        hook.warnings.append(Trouble("picot-stalk", span, message))
    last = hook.made.pop()
    if hook.trace is not None:
        hook.trace.close()
    hook.made_count -= 1
    if last.count > 1:
        hook.made.append(Run(last.place, last.count - 1))
    return 0


def _marked(hook: Hook, into: Marked, span: Span) -> int:
    marker = into.marker
    ahead = hook.cursor.before(Want("st"), marker)
    if ahead is None:
        name = f" {marker}" if marker else ""
        raise Stop(Trouble("marker-missing", span, f"there is no marker{name} ahead"))
    if ahead and hook.started and hook.cursor.taken:
        message = f"{ahead} {places_word({'st'}, ahead)} left over before the marked one"
        raise Stop(Trouble("left-over", span, message, left=ahead))
    if ahead:
        hook.take(Want("st"), ahead, span)
    if into.stitch:
        is_of_kind(hook, into.stitch, into.span)
    return taken(hook, Want("st"), 1, span, "both")


def _top_of_chain(hook: Hook, span: Span) -> int:
    """The chain that began the row below; where it does not count there is nothing to work into, whatever it looks
    like."""
    ahead = hook.cursor.available(Want("st"))
    if ahead > 1 and not hook.cursor.is_lace:
        message = f"{ahead - 1} {places_word({'st'}, ahead - 1)} left over before the turning chain"
        raise Stop(Trouble("left-over", span, message, left=ahead - 1))
    if not ahead:
        raise Stop(
            Trouble(
                "false-stitch", span, "the chain that began the row below is not a stitch here: leave it", missing=1
            )
        )
    hook.take(Want("st"), ahead, span)
    return 1
