"""Which places are meant by a kind that is named, and whether there are any."""

from dataclasses import replace

from rillstep.core.craft import BY_US, is_called, is_post, other_side
from rillstep.core.fabric.cursor import Want, want_of
from rillstep.core.fabric.edge import Run, leaves
from rillstep.core.fabric.hook import NOWHERE, Hook, Trouble
from rillstep.core.findings import Span
from rillstep.core.tree import What


def wanted(hook: Hook, what: What) -> Want:
    """What is named; a stitch that the edge has none of means any stitch, as a corner does where none is marked."""
    if what.unworked:
        hook.reach_unworked(NOWHERE)
    want = want_of(what, hook.size)
    if is_post(want.stitch) and hook.around.rows and _is_next(hook, other_side(want.stitch)):
        want = replace(
            want, stitch=other_side(want.stitch)
        )  # after a turn, what was worked around the back looks like the front
    if want.stitch and not has(hook, want) and not hook.cursor.available(want):
        _called_wrong(hook, what)
        want = replace(want, stitch="")
    if want.corner and want.kind == "st and sp":  # a bare "corner": its space, where corners have one
        spaces, stitches = replace(want, kind="sp"), replace(want, kind="st")
        any_space = replace(spaces, corner=False)
        want = next((w for w in (spaces, stitches, any_space) if has(hook, w)), stitches)
    if want.corner and not has(hook, want):
        want = replace(want, corner=False)
    return want


def _called_wrong(hook: Hook, what: What) -> None:
    """Note a stitch that is named and is not there, where it is known what is."""
    if hook.absent is not None or hook.edge.assumed or hook.on_side or not what.span.line:
        return
    there = {place.special or place.stitch or place.kind for place, _ in leaves(hook.edge.runs)}
    if any(
        is_called(place.stitch, what.stitch) or is_called(place.special, what.stitch)
        for place, _ in leaves(hook.edge.runs)
    ):
        return
    names = tuple(sorted(there & set(BY_US)))
    made = "; what is below is {1}" if names else ""
    message = f"there is no {{0}} here to work into{made}"
    hook.absent = Trouble("stitch-not-there", what.span, message, stitches=(what.stitch, *names[:1]))


def is_of_kind(hook: Hook, stitch: str, span: Span) -> None:
    """Note where the place that comes next is another stitch than the one it is called by."""
    run = _next_run(hook)
    if run is None or hook.absent is not None or hook.edge.assumed:
        return
    if not any(is_called(one, stitch) for one in (run.place.stitch, run.place.special)):
        message = "the one that is marked is no {0}; it is {1}"
        hook.absent = Trouble("stitch-not-there", span, message, stitches=(stitch, run.place.stitch or "st"))


def _next_run(hook: Hook) -> Run | None:
    """The like places that come next."""
    run = hook.cursor.rest[-1] if hook.cursor.rest else None
    while run is not None and run.inner:
        run = run.inner[0]
    return run


def next_is_marked(hook: Hook) -> bool:
    """Is there a marker in the place that comes next?"""
    run = _next_run(hook)
    return run is not None and run.place.mark is not None


def _is_next(hook: Hook, stitch: str) -> bool:
    run = _next_run(hook)
    return run is not None and run.place.stitch == stitch


def run_ahead(hook: Hook, want: Want) -> int:
    """How many of the wanted come next without anything between."""
    ahead = 0
    for run in reversed(hook.cursor.rest):
        while run.inner:
            run = run.inner[0]
        if not want.units(run.place):
            break
        ahead += run.count
    return ahead


def has(hook: Hook, want: Want) -> bool:
    """Has the edge of this row any such place?"""
    return any(want.units(place) for place, _ in leaves(hook.edge.runs))


def is_chain(run: Run) -> bool:
    """Is a run a chain just made?"""
    return run.place.kind == "sp" and not run.inner
