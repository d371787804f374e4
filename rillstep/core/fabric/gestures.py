"""What is done without making a stitch: joining, turning, markers; and slip stitches that only move the hook."""

from dataclasses import replace

from rillstep.core.fabric.edge import Run, reversed_runs
from rillstep.core.fabric.hook import Hook
from rillstep.core.fabric.places import places, wanted
from rillstep.core.notation.tree import Gesture, Nth, Step, Work


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
        case "leave rest unworked":
            hook.unworked = True
        case "place marker":
            _place_marker(hook, step)
        case "join colour" if step.into is not None and not hook.started:
            _join_at(hook, step)
        case _:
            pass


def _join_at(hook: Hook, step: Gesture) -> None:
    """A yarn joined in a named place: the row begins there."""
    into = step.into
    if isinstance(into, Nth) and into.nth.at(hook.size) > 1:
        hook.take(wanted(hook, into.what), into.nth.at(hook.size) - 1, step.span)


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
    for step in steps:
        assert isinstance(step, Work)
        before = list(hook.cursor.rest)
        count = places(hook, step.into, step.span)
        hook.slip_stitches += count
        passed += _between(before, hook.cursor.rest)
    hook.cursor.taken = 1  # "same st" is now where the hook has moved to
    hook.cursor.uses.clear()
    if passed:
        last = passed.pop()
        if last.count > 1:
            passed.append(Run(last.place, last.count - 1))
        hook.standing = Run(last.place, 1)
    if hook.edge.closed:
        hook.cursor.rest[:0] = list(reversed(passed))


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
