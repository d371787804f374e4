"""Repeats: so many times, or until an end that must come out exactly."""

from dataclasses import replace

from rillstep.core.fabric.cursor import Want, left_in, want_of
from rillstep.core.fabric.edge import Run
from rillstep.core.fabric.hook import MOST_STITCHES, Hook, Stop, Trouble
from rillstep.core.fabric.repeat_sums import Turns
from rillstep.core.fabric.stitching import MOST_REPEATS
from rillstep.core.fabric.taking import to_marker
from rillstep.core.fabric.wants import wanted
from rillstep.core.findings import Span
from rillstep.core.tree import Chain, EachKind, Group, Num, Repeat, Skip, Step, ToEnd, Together, What, Work

# While a row is traced, what is left is counted after so many turns; in between it is reckoned.
_LOOKS_AGAIN = 32


def repeat(hook: Hook, step: Repeat, rest_follows: bool = False) -> None:
    """Work the steps of a repeat as often as it says; rest_follows: the next step takes what is left. Raises Stop."""
    if step.steps and isinstance(step.steps[0], Chain):
        hook.started = True  # each turn makes this chain: it is a loop, and begins no row
    if isinstance(step.times, Num):
        times = step.times.at(hook.size)
        if times > MOST_REPEATS:
            raise Stop(Trouble("too-large", step.span, f"more than {MOST_REPEATS:,} repeats are not worked"))
        _repeat_times(hook, step.steps, times)
        return
    whole = rest_follows and step.times.last is None and step.times.what is None and step.times.word != "marker"
    hook.may_end = whole
    _repeat_to_end(hook, step, step.times, whole)


def _repeat_times(hook: Hook, steps: tuple[Step, ...], times: int) -> None:
    turns = Turns()
    done = 0
    while done < times:
        _turn(hook, steps)
        done += 1
        done += _skip(hook, turns, done, times - done)


def _turn(hook: Hook, steps: tuple[Step, ...]) -> None:
    """One turn of a repeat."""
    outer, hook.counted_from = hook.counted_from, hook.cursor.taken
    hook.do_all(hook, steps)
    hook.counted_from = outer


def _skip(hook: Hook, turns: Turns, done: int, most: int | None) -> int:
    if hook.trace is not None:
        return 0
    skipped = turns.skip(hook.cursor.rest, hook.made, _freed(hook), hook.tally, done, most)
    if skipped is None:
        return 0
    hook.add(skipped.tally)
    return skipped.turns


def _freed(hook: Hook) -> list[Run]:
    """The loops being freed by this row: a row frees front loops or back loops, hardly ever both."""
    return hook.freed_front if hook.freed_front else hook.freed_back


def _repeat_to_end(hook: Hook, step: Repeat, end: ToEnd, whole: bool) -> None:
    """Work the brackets until exactly `last` places are left; anything else is an error with its remainder.

    whole: as often as they come out whole instead, and what is left is worked by the next step.
    """
    hook.settle()
    whats = _whats(step.steps)
    if any(what.kind == "sp" for what in whats) and any(what.between > 1 for what in whats):
        # The gaps between groups are met on the way from space to space, and the stitches before them are passed over.
        whats = [what for what in whats if what.between < 2]
        hook.cursor.uses -= {use for use in hook.cursor.uses if use[0] == "st"}
    wants = {_in_repeat(hook, what) for what in whats}
    for want in wants:
        hook.cursor.use(want)
    here = _left_before(hook, wants, end, step.span)
    if not here and end.word == "marker":  # the row has come to a marker: the repeat goes on to the next one
        here = sum(to_marker(hook, want, end.marker) or 0 for want in wants)
    takes = done = 0
    turns = Turns()
    while here > 0 and not (whole and takes > here):
        before = here
        try:
            _turn(hook, step.steps)
        except Stop as stop:
            if stop.trouble.code != "runs-out" or not takes:
                raise
            message = f"the repeat takes {takes} and does not come out even: {before} left for its last turn"
            raise Stop(Trouble("repeat-uneven", step.span, message, takes - before, before)) from None
        done += 1
        if hook.trace is not None and takes and before > 2 * takes * _LOOKS_AGAIN and done % _LOOKS_AGAIN:
            here = before - takes  # every place is held by itself then: they are counted anew only now and then
            continue
        hook.spend(step.span, len(hook.cursor.rest) // 4)
        now = _left_before(hook, wants, end, step.span)
        takes = takes or before - now
        if now >= before:
            raise Stop(Trouble("repeat-stuck", step.span, "the repeat takes no stitch, so it never ends"))
        if now > 0 and (skipped := _skip(hook, turns, done, now // (before - now))):
            done += skipped
            now = _left_before(hook, wants, end, step.span)
        if done > MOST_STITCHES:
            raise Stop(Trouble("too-large", step.span, "more repeats than Rillstep works in one row"))
        here = now
    if here < 0:
        message = f"the repeat takes {takes} and does not come out even"
        raise Stop(Trouble("repeat-uneven", step.span, message, -here, takes + here))


def _in_repeat(hook: Hook, what: What) -> Want:
    """What a repeat works into; on a foundation chain, its chains."""
    want = wanted(hook, what) if what.stitch or what.corner else want_of(what, hook.size)
    return replace(want, kind="ch", stitch="") if hook.edge.foundation and want.kind == "st" else want


def _left_before(hook: Hook, wants: set[Want], end: ToEnd, span: Span) -> int:
    """Places that a repeat works into that are left before its end; negative when the end has been passed."""
    cursor = hook.cursor
    if end.word == "marker":
        ahead = [cursor.before(want, end.marker) for want in wants]
        if None in ahead:
            raise Stop(Trouble("marker-missing", span, "there is no such marker ahead"))
        return sum(n for n in ahead if n is not None)
    if end.what is None and end.last is None:
        return cursor.left_of(wants)
    stop = _in_repeat(hook, end.what or What("st"))
    stops = cursor.available(stop)
    # "to corner" is to the next one, however many are ahead.
    last = end.last.at(hook.size) if end.last else max(1, stops) if end.what is not None else 1
    if last < 1:
        return cursor.left_of(wants)
    if end.what is None and stops != cursor.left_of(wants) and not any(want.kind == "st" for want in wants):
        # What is left is counted in what the repeat works into; a chain that counts, without a space beside it, is
        # none of that.
        return cursor.left_of(wants) - (0 if last == 1 and cursor.ends_with_bare_chain else last)
    if stops < last:
        return stops - last
    kept = list(cursor.rest)
    runs = cursor.cut(stop, last) or []
    found = left_in(runs, wants)
    cursor.rest = kept
    return found


def _whats(steps: tuple[Step, ...]) -> list[What]:
    found: list[What] = []
    for step in steps:
        match step:
            case Work(into=into) | Group(into=into):
                what = getattr(into, "what", None)
                if what is not None:
                    found.append(what)
            case Skip(what=what):
                found.append(what)
            case Together(into=into):
                found.append(getattr(into, "what", None) or What("st"))
            case Repeat(steps=inner):
                found += _whats(inner)
            case EachKind(works=works):
                found += _whats(works)
            case _:
                pass
    return found
