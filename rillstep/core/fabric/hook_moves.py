"""What is done without making a stitch: joining, turning, markers; and slip stitches that only move the hook."""

from dataclasses import replace

from rillstep.core.fabric.cursor import Want
from rillstep.core.fabric.edge import Run, leaves, reversed_runs
from rillstep.core.fabric.hook import Hook, Stop, Trouble, places_word
from rillstep.core.fabric.taking import places, reaches
from rillstep.core.fabric.wants import wanted
from rillstep.core.tree import Gesture, Next, Nth, Num, Step, What, WhatKind, Work


def gesture(hook: Hook, step: Gesture) -> None:
    """Do what makes no stitch. Raises Stop."""
    match step.kind:
        case "join" | "join into ring":
            hook.closed = True
        case "turn":
            if hook.started:
                hook.turned = True
            else:
                hook.cursor.rest = list(reversed_runs(tuple(hook.cursor.rest)))
        case "rotate":
            hook.rotate(step.span)
        case "both layers" if not hook.cursor.taken:
            _fold(hook, step)
        case "leave rest unworked":
            _leave(hook, step)
        case "place marker":
            _place_marker(hook, step)
        case "join colour" if step.into is not None and not hook.made:
            _join_at(hook, step)
        case _:
            pass


def _fold(hook: Hook, step: Gesture) -> None:
    """A round laid flat: each place now stands for it and the one behind it. Raises Stop when one has none behind
    it."""
    kind: WhatKind = "ch" if hook.cursor.available(Want("st")) == 0 else "st"
    count = hook.cursor.available(Want(kind))
    if count % 2:
        message = f"folded flat, {count} {places_word({kind}, count)} leave one over"
        raise Stop(Trouble("left-over", step.span, message, left=1))
    front = hook.cursor.take(Want(kind), count // 2)
    hook.cursor.worked_chains = 0
    hook.cursor.taken = 0
    hook.cursor.rest = list(reversed(front))


def _leave(hook: Hook, step: Gesture) -> None:
    """What is left is not worked; when the text says how many that are, it must be so many. Raises Stop."""
    hook.unworked = True
    if isinstance(step.into, Next):
        said, left = step.into.count.at(hook.size), hook.cursor.left()
        if said != left:
            message = f"the text leaves {said} unworked; {left} are left"
            raise Stop(Trouble("unworked-differs", step.span, message, max(0, said - left), max(0, left - said)))


def _join_at(hook: Hook, step: Gesture) -> None:
    """A yarn joined in a named place: the row begins there."""
    into = step.into
    if isinstance(into, Next | Nth) and into.what.kind == "sp" and hook.edge.closed:
        slip = Num(
            tuple(1 if v is not None else None for v in (into.count if isinstance(into, Next) else into.nth).values)
        )
        move_along(hook, (Work("sl st", slip, into, span=step.span),))
        hook.slip_stitches -= 1  # it is joined there, and not slipped
        return
    if isinstance(into, Nth) and into.nth.at(hook.size) > 1:
        hook.take(wanted(hook, into.what), into.nth.at(hook.size) - 1, step.span)
    hook.cursor.taken = 0  # "same st" is the place that the yarn is joined in
    hook.joined_within = True
    hook.started = False  # a chain that comes next begins the row


def _place_marker(hook: Hook, step: Gesture) -> None:
    """A marker in the stitch just made, or in the first one of the row."""
    if not hook.made:
        return
    first = isinstance(step.into, Nth) and step.into.nth.at(hook.size) == 1
    index = 0 if first else -1
    run = hook.made[index]
    while run.inner:  # open the pattern at its end
        rest = [Run(run.place, run.count - 1, run.inner)] if run.count > 1 else []
        hook.made[index:] = [*rest, *run.inner] if not first else [*run.inner, *rest, *hook.made[1:]]
        run = hook.made[index]
    marked = Run(replace(run.place, mark=step.name), 1)
    rest = [Run(run.place, run.count - 1)] if run.count > 1 else []
    hook.made[index : index + 1 if first else None] = [marked, *rest] if first else [*rest, marked]


def move_along(hook: Hook, steps: tuple[Step, ...]) -> None:
    """Slip stitches that only move the hook: in a round the places passed come last, in a row they are left behind."""
    passed: list[Run] = []
    if not steps:
        return
    hook.slipping = True
    passing: What | None = None  # what the slip stitches before went along
    for step in steps:
        assert isinstance(step, Work)
        if passing is not None:
            reaches(hook, passing, step, step.span, spared=int(step is steps[1] and _joined_to(hook, passing)))
        passing = step.into.what if isinstance(step.into, Next) else None
        before = list(hook.cursor.rest)
        count = _into_loop(hook, step) or places(hook, step.into, step.span)
        hook.slip_stitches += count
        passed += _between(before, hook.cursor.rest)
    hook.slipping = False
    hook.cursor.taken = 1  # "same st" is now where the hook has moved to
    hook.cursor.uses.clear()
    if passed:
        last = passed.pop()
        if last.count > 1:
            passed.append(Run(last.place, last.count - 1))
        hook.standing = Run(last.place, 1)
    if hook.edge.closed:
        hook.cursor.rest[:0] = list(reversed(passed))


def _joined_to(hook: Hook, passing: What) -> bool:
    """Is the round joined to a first stitch of the kind that is passed? Then "next" is the one after it, or counts it
    too."""
    first = next(iter(leaves(hook.edge.runs)), None)
    return hook.edge.closed and first is not None and passing.stitch in ("", first[0].stitch)


def _into_loop(hook: Hook, step: Work) -> int:
    """ "sl st in next 2 chs" of a loop moves into that loop: it is still one space. The answer is 0 for anything
    else."""
    into = step.into
    if not isinstance(into, Next) or into.what.kind != "ch" or hook.cursor.available(Want("ch")) == 0:
        return 0
    chains = into.count.at(hook.size)
    ahead = next((run for run in reversed(hook.cursor.rest) if run.inner or run.place.kind != "st"), None)
    if ahead is None or ahead.inner or ahead.place.kind != "sp" or chains > ahead.place.length:
        return 0
    hook.take(Want("sp"), 1, step.span)
    return chains


def _between(before: list[Run], after: list[Run]) -> list[Run]:
    """The single places that stood on `before` and do not stand on `after`, in working order."""
    old, new = _flat(before), _flat(after)
    return old[: len(old) - len(new)]


def _flat(stack: list[Run]) -> list[Run]:
    flat: list[Run] = []
    for run in reversed(stack):
        if run.inner:
            for _ in range(run.count):
                flat += _flat(list(reversed(run.inner)))
        else:
            flat += [Run(run.place, 1)] * run.count
    return flat
