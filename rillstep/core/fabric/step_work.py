"""What each step of a row takes from the edge below and puts on the edge above."""

from rillstep.core.fabric.chain_loops import chain, closing
from rillstep.core.fabric.cursor import Want
from rillstep.core.fabric.hook import Hook
from rillstep.core.fabric.hook_moves import gesture
from rillstep.core.fabric.repeat_walk import repeat
from rillstep.core.fabric.stitching import each_kind, group, together, work
from rillstep.core.fabric.taking import reaches, until
from rillstep.core.fabric.wants import wanted
from rillstep.core.fabric.whole_edges import evenly, foundation, onward, spread
from rillstep.core.tree import (
    Chain,
    Closing,
    EachKind,
    Evenly,
    Foundation,
    Gesture,
    Group,
    Onward,
    Repeat,
    Skip,
    SkipTo,
    Spread,
    Step,
    Together,
    Work,
)
from rillstep.core.tree.features import takes_the_rest


def do_all(hook: Hook, steps: tuple[Step, ...]) -> None:
    """Work steps one after another."""
    for index, step in enumerate(steps):
        step_of(hook, step, steps[index + 1] if index + 1 < len(steps) else None)


def step_of(hook: Hook, step: Step, following: Step | None) -> None:
    """Work one step; `following` is the one after it. Raises Stop."""
    hook.spend(step.span)
    if hook.trace is not None and not isinstance(step, Repeat):
        hook.trace.begin(step)
    match step:
        case Work():
            work(hook, step)
        case Together():
            together(hook, step)
        case Skip(count, what, first):
            many = count.at(hook.size) - (
                1 if first and hook.stands else 0
            )  # the starting chain stands on the first one
            if many <= 0:
                reaches(hook, what, following, step.span)
                return
            if what.unworked:
                hook.reach_unworked(step.span)
            hook.take(wanted(hook, what), many, step.span, skipping=True)
            hook.skipped += many
            reaches(hook, what, following, step.span)
            if hook.edge.foundation and not hook.made:  # a turning chain, no part of the foundation's underside
                hook.cursor.worked_chains -= many
        case SkipTo(end):
            many = until(hook, Want("st"), end, step.span)
            hook.take(Want("st"), many, step.span, skipping=True)
            hook.skipped += many
        case Chain():
            chain(hook, step, following)
        case Closing():
            closing(hook, step)
        case Group(steps, into):
            group(hook, steps, into, step.span)
        case EachKind():
            each_kind(hook, step)
        case Evenly():
            evenly(hook, step)
        case Onward():
            onward(hook, step)
        case Spread():
            spread(hook, step)
        case Foundation():
            foundation(hook, step)
        case Repeat():
            repeat(hook, step, takes_the_rest(following))
        case Gesture():
            gesture(hook, step)
    hook.started = hook.started or not isinstance(step, Gesture)
