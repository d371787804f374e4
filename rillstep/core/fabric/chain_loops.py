"""Chains: at the start of a row, where they may stand for a stitch, and as loops."""

from rillstep.core.craft import BY_US, basic
from rillstep.core.fabric.cursor import Want
from rillstep.core.fabric.edge import Place, Run
from rillstep.core.fabric.hook import Hook, Stop, Trouble
from rillstep.core.tree import (
    Chain,
    Closing,
    EachKind,
    Group,
    InRing,
    Next,
    Repeat,
    Same,
    Special,
    Step,
    Together,
    Work,
)


def chain(hook: Hook, step: Chain, following: Step | None) -> None:
    """A chain: at the start of a row what it counts as, elsewhere a space. Raises Stop."""
    length = step.length.at(hook.size)
    if length < 1:
        raise Stop(Trouble("chain-of-none", step.span, "a chain has at least 1 stitch"))
    hook.chains += length
    if not hook.started:
        counts = _starting_chain(hook, step, length, following)
        if counts == "none":
            return
        if counts is not None:
            if hook.standing is not None:
                hook.standing = None
            elif (
                not any(run.place.kind == "ring" for run in hook.edge.runs)
                and hook.edge.runs
                and not _first_is_ring(following)
            ):
                hook.take(Want("st"), 1, step.span, use=False)
                hook.stands = hook.begun_in_first = True
            hook.make([Run(Place("st", counts, chain=True), 1)], 1)
            space = _space_beside(hook, step, length)
            if space:
                hook.make([Run(Place("sp", length=space), 1)])
            return
    hook.make([Run(Place("sp", length=length), 1)])


def closing(hook: Hook, step: Closing) -> None:
    """The last space of a round, closed by a stitch into its first one: the next round begins in it."""
    if not hook.made:
        raise Stop(Trouble("no-such-place", step.span, "there is no first stitch yet to close the round in"))
    hook.chains += step.chain.at(hook.size)
    hook.make([Run(Place("sp", length=step.space.at(hook.size)), 1)])
    hook.closed = hook.begins_last = True


def _space_beside(hook: Hook, step: Chain, length: int) -> int:
    """Chains of it that are a space beside the stitch that it counts as; 0 for none."""
    if step.space is not None:
        return step.space.at(hook.size)
    special = hook.special(step.counts)
    if special is not None and _begins_with_space(special):
        return max(0, length - basic(_first_of(special) or "").turning_chain)
    said = hook.says.get(length, "")
    return int(said.partition("+")[2]) if step.counts is None and "+" in said else 0


def _first_is_ring(following: Step | None) -> bool:
    return isinstance(getattr(following, "into", None), InRing)


def _starting_chain(hook: Hook, step: Chain, length: int, following: Step | None) -> str | None:
    """What a chain at the very start of a row is: "none", a stitch, or None for a chain loop."""
    first = _first_stitch(following)
    height = basic(first).turning_chain if first else 0
    lifts = first not in BY_US and length <= height and isinstance(getattr(following, "into", None), Same)
    said = hook.says.get(length) or (None if lifts else dict(hook.around.throughout).get(length))
    counts = step.counts or (said.split("+")[0] if said is not None else None)
    if counts is not None:
        special = hook.special(counts)
        if special is not None:
            return _first_of(special) or first  # "ch 4, dc in same st (counts as V-st)": it begins as that one does
        if step.counts is not None:
            hook.says[length] = counts if step.space is None else f"{counts}+{step.space.at(hook.size)}"
        if counts == "st":
            return first or "sc"
        standard = basic(counts).turning_chain if counts != "none" else height
        extra = _space_beside(hook, step, length)
        off = length - extra - standard  # a chain shorter by one is a common habit: it leaves no gap
        if length > 1 and first is not None and (off < -1 or off > (0 if counts == "none" else 1)):
            message = f"ch {length} does not reach the height of {counts if counts != 'none' else first}"
            hook.warnings.append(Trouble("turning-chain", step.span, message))
        return counts
    if length == 1 or lifts:
        return "none"  # "ch 2, puff in same sp" only lifts the hook
    if length == height or (length == height - 1 > 1 and _works_at_once(following)):
        message = f"the text does not say whether ch {length} counts as a stitch"
        hook.warnings.append(Trouble("chain-unsaid", step.span, message))
        return "none"
    usual_loop = height == 1 and _into_space(following)  # "ch 2, sc in first ch-1 sp": rows of moss stitch begin so
    if _works_at_once(following) and length == height + 1 and not usual_loop:
        message = (
            f"ch {length} is higher than {first} and is taken as a chain loop; a turning chain would be ch {height}"
        )
        hook.warnings.append(Trouble("turning-chain", step.span, message))
    return None


def _first_of(special: Special) -> str | None:
    """The stitch that a stitch of the pattern's own begins with."""
    return next((found for found in map(_first_stitch, special.steps) if found is not None), None)


def _begins_with_space(special: Special) -> bool:
    """Do chains follow its first stitch?"""
    steps = special.steps[0].steps if isinstance(special.steps[0], Group) else special.steps
    return len(steps) > 1 and isinstance(steps[1], Chain)


def _works_at_once(step: Step | None) -> bool:
    """Does the row go on with a stitch, and not with skipping or another chain?"""
    while isinstance(step, Repeat) and step.steps:
        step = step.steps[0]
    return isinstance(step, Work | Together | EachKind)


def _into_space(step: Step | None) -> bool:
    """Does the row go on in a chain space?"""
    while isinstance(step, Repeat) and step.steps:
        step = step.steps[0]
    return isinstance(step, Work) and isinstance(step.into, Next) and step.into.what.kind == "sp"


def _first_stitch(step: Step | None) -> str | None:
    match step:
        case Work(stitch=stitch) | Together(stitch=stitch):
            return stitch
        case Repeat(steps=steps) | Group(steps=steps):
            return next((found for found in map(_first_stitch, steps) if found is not None), None)
        case EachKind(works=works):
            return _first_stitch(works[0])
        case _:
            return None
