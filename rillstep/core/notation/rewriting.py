"""Ways of writing that say the same as plainer steps: they are put into those, once, after a row was read.

*A**, B; rep from * around, ending last rep at **    is  A, [B, A] around
[A] around, B                                        is  [A] to last n sts, B   (B takes n)
(ch 3, 2 dc, ch 2, 3 dc) in same sp, at the start    is  ch 3, (2 dc, ch 2, 3 dc) in same sp
..., ch 2, dc in first sc to close                   is  a last space of 5 chains, closed by the dc
"""

from dataclasses import replace
from itertools import pairwise

from rillstep.core.craft import basic
from rillstep.core.tree import (
    Chain,
    Closing,
    EachKind,
    Evenly,
    Every,
    FromHook,
    Gesture,
    Group,
    Last,
    Next,
    Nth,
    Num,
    Repeat,
    Same,
    Skip,
    Step,
    ToEnd,
    Together,
    TopOfChain,
    What,
    Work,
)

STITCH = What("st")


def rewritten(steps: tuple[Step, ...], kind: str) -> tuple[Step, ...]:
    """The steps of a row in their plainest form."""
    steps = _leading_group(
        _in_same_space(_first_space(_counting_foundation(_already_there(_remaining(tuple(map(_each_kind, steps)))))))
    )
    return _closed(_tail(steps), kind)


def _remaining(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "[A] to last 0 (10) sts, hdc in each remaining st": as many as the repeats leave, which may be none in a
    size."""
    found = list(steps)
    for at, (repeat, work) in enumerate(pairwise(steps)):
        left = repeat.times.last if isinstance(repeat, Repeat) and isinstance(repeat.times, ToEnd) else None
        if left is None or 0 not in left.values or not isinstance(work, Work) or not isinstance(work.into, Every):
            continue
        if work.into.what == STITCH and work.into.end.word in ("around", "across"):
            found[at + 1] = replace(work, into=Next(left, STITCH))
    return tuple(found)


def _each_kind(step: Step) -> Step:
    """ "[FPdc around each FPdc, BPdc around each BPdc] across": every stitch in its own way, as they come."""
    if not isinstance(step, Repeat) or not isinstance(step.times, ToEnd) or len(step.steps) < 2:
        return step
    works = tuple(one for one in step.steps if isinstance(one, Work) and isinstance(one.into, Every))
    kinds = {(one.into.what.kind, one.into.what.stitch) for one in works if isinstance(one.into, Every)}
    open_ended = all(_is_open(one.into.end) for one in works if isinstance(one.into, Every))
    if len(works) < len(step.steps) or len(kinds) < len(works) or not open_ended:
        return step
    every = tuple(replace(one, into=replace(one.into, end=step.times)) for one in works if isinstance(one.into, Every))
    return EachKind(every, step.times, step.span)


def _already_there(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "ch 1, rotate to work along the row ends: 16 sc along the side": the sides are named, and nothing is worked
    before them."""
    first = next((at for at, step in enumerate(steps) if not isinstance(step, Chain | Gesture)), len(steps))
    if first == len(steps) or not (
        isinstance(step := steps[first], Evenly) and step.along in ("row ends", "foundation")
    ):
        return steps
    return tuple(s for at, s in enumerate(steps) if at >= first or not (isinstance(s, Gesture) and s.kind == "rotate"))


def _counting_foundation(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "ch 4 (first 3 chs count as dc), 11 dc in 4th ch from hook": it is the skipped chains that count."""
    for at, (chain, work) in enumerate(pairwise(steps)):
        if (
            isinstance(chain, Chain)
            and isinstance(work, Work)
            and isinstance(work.into, FromHook)
            and chain.counts not in (None, "none")
        ):
            into = replace(work.into, counts_as=work.into.counts_as or chain.counts)
            return (*steps[:at], replace(chain, counts=None), replace(work, into=into), *steps[at + 2 :])
    return steps


def _first_space(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "Sc in 4th ch from hook, [ch 1, sk 1, sc in next ch] across": the chains skipped are a first space, over a
    chain of the foundation."""
    for at, (work, repeat) in enumerate(pairwise(steps)):
        if not (isinstance(work, Work) and isinstance(work.into, FromHook) and work.into.counts_as is None):
            continue
        low = basic(work.stitch).turning_chain == 1 and work.into.nth.is_always(4) and work.into.space is None
        if low and isinstance(repeat, Repeat) and repeat.steps and _skips_behind_chain(repeat):
            two = replace(_one_like(work.into.nth), values=tuple(v and 2 for v in _one_like(work.into.nth).values))
            return (*steps[:at], replace(work, into=replace(work.into, space=two)), *steps[at + 1 :])
    return steps


def _skips_behind_chain(repeat: Repeat) -> bool:
    """ "[ch 1, sk 1, ...]"."""
    chain, skip = (*repeat.steps, *repeat.steps)[:2]
    return isinstance(chain, Chain) and chain.length.is_always(1) and isinstance(skip, Skip)


def _leading_group(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """A group at the start of a row whose first chain stands for a stitch: the chain comes first, the rest into the
    same place."""
    at = next((i for i, s in enumerate(steps) if not _only_moves(s)), len(steps))
    group = steps[at] if at < len(steps) else None
    if not isinstance(group, Group) or len(group.steps) < 2:
        return steps
    chain, second = group.steps[0], group.steps[1]
    stitch = second.stitch if isinstance(second, Work | Together) else None
    if not isinstance(chain, Chain) or stitch is None or not chain.length.is_always(basic(stitch).turning_chain):
        return steps
    if not isinstance(group.into, Same | Nth | Next) or basic(stitch).turning_chain < 2:
        return steps
    rest = replace(group, steps=group.steps[1:], into=Same(group.into.what))
    moves = (
        () if isinstance(group.into, Same) or _joins(steps[:at]) or group.into.what.kind == "st" else _move_to(group)
    )
    return (*steps[:at], *moves, chain, rest, *steps[at + 1 :])


def _in_same_space(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """ "Ch 3, 2 dc, ch 2, 3 dc in same space" at the start: all of them go there, brackets or not."""
    at = next((i for i, s in enumerate(steps) if not _only_moves(s)), len(steps))
    if at == len(steps) or not isinstance(steps[at], Chain):
        return steps
    end = at + 1
    while end < len(steps) and (isinstance(steps[end], Chain) or _is_bare(steps[end])):
        end += 1
    last = steps[end] if end < len(steps) else None
    if end < at + 2 or not (isinstance(last, Work) and isinstance(last.into, Same) and last.into.what.kind == "sp"):
        return steps
    inner = replace(last, per=_one_like(last.per), into=Next(last.per, STITCH))
    return (*steps[: at + 1], Group((*steps[at + 1 : end], inner), last.into, last.span), *steps[end + 1 :])


def _is_bare(step: Step) -> bool:
    """ "2 dc", with no place of its own."""
    if not isinstance(step, Work) or not isinstance(step.into, Next):
        return False
    return step.into.what == STITCH and step.per.is_always(1)


def _one_like(number: Num) -> Num:
    return number.all(1)


def _move_to(group: Group) -> tuple[Step, ...]:
    """ "(ch 3, 2 dc) in next ch-2 sp" begins by moving there."""
    one = _one_like(group.steps[0].length)  # type: ignore[union-attr]
    return (Work("sl st", one, group.into, span=group.span),)


def _only_moves(step: Step) -> bool:
    return (isinstance(step, Work) and step.stitch == "sl st") or isinstance(step, Gesture)


def _joins(steps: tuple[Step, ...]) -> bool:
    return any(isinstance(s, Gesture) and s.kind == "join colour" and s.into is not None for s in steps)


def _tail(steps: tuple[Step, ...]) -> tuple[Step, ...]:
    """A repeat "around" that is not the last thing to take stitches goes on only as far as leaves enough for what
    follows."""
    for at, step in enumerate(steps):
        if not isinstance(step, Repeat) or not isinstance(step.times, ToEnd) or not _is_open(step.times):
            continue
        if _all_spaces(step.steps) and (last := _one_space(steps[at + 1 :])) is not None:
            return (*steps[:at], replace(step, times=ToEnd("last", last, "", What("sp"))), *steps[at + 1 :])
        taken = [_takes(s) for s in steps[at + 1 :]]
        only_top = _only_top(steps[at + 1 :])
        if any(t is None for t in taken) or not (only_top or _all_stitches(step.steps)):
            continue
        totals = [sum(values) for values in zip(*(t for t in taken if t), strict=True)]
        if not totals or any(total < 1 for total in totals):
            continue
        held = iter(totals)
        last = Num(tuple(None if v is None else next(held) for v in _sizes(steps[at + 1 :])))
        return (*steps[:at], replace(step, times=ToEnd("last", last)), *steps[at + 1 :])
    return steps


def _all_spaces(steps: tuple[Step, ...]) -> bool:
    """Does a repeat work into chain spaces only?"""
    works = [step for step in steps if not isinstance(step, Chain | Gesture)]
    return bool(works) and all(
        isinstance(s, Work | Group) and isinstance(s.into, Next) and s.into.what.kind == "sp" for s in works
    )


def _one_space(steps: tuple[Step, ...]) -> Num | None:
    """ "..., ch 1, sc in ch-2 sp": one space more, and nothing else; None for anything else."""
    works = [step for step in steps if not isinstance(step, Chain | Gesture)]
    one = works[0] if len(works) == 1 else None
    if not isinstance(one, Work) or not isinstance(one.into, Next) or one.into.what.kind != "sp":
        return None
    return _one_like(one.per) if one.into.count.is_always(1) else None


def _only_top(steps: tuple[Step, ...]) -> bool:
    """Is the top of the turning chain all that is worked after a repeat? It is spared, whatever the repeat is made
    of."""
    return all(
        isinstance(s, Gesture | Chain) or (isinstance(s, Work) and isinstance(s.into, TopOfChain)) for s in steps
    )


def _is_open(end: ToEnd) -> bool:
    return end.word in ("around", "across") and end.what is None


def _sizes(steps: tuple[Step, ...]) -> tuple[int | None, ...]:
    for step in steps:
        number = _count_of(step)
        if number is not None:
            return number.values
    return ()


def _count_of(step: Step) -> Num | None:
    match step:
        case Work(into=Next(count=count)) | Skip(count=count):
            return count
        case Work(into=TopOfChain(), per=per):
            return replace(per, values=tuple(None if v is None else 1 for v in per.values), parts=())
        case _:
            return None


def _takes(step: Step) -> list[int] | None:
    """Stitches that a step after a repeat takes, for each size in force; [] for none, None where that is not plain."""
    match step:
        case Gesture() | Chain():
            return []
        case Work(into=TopOfChain(), per=per):
            return [1 for v in per.values if v is not None]
        case Work(into=Next(count=count, what=what), stitch=stitch) if what == STITCH and stitch != "sl st":
            return [v for v in count.values if v is not None]
        case Skip(count=count, what=what, first=False) if what == STITCH:
            return [v for v in count.values if v is not None]
        case _:
            return None


def _all_stitches(steps: tuple[Step, ...]) -> bool:
    """Does a repeat work into stitches only, one after another?"""
    return all(
        isinstance(s, Chain | Gesture)
        or (isinstance(s, Work | Group) and isinstance(s.into, Next | Same) and s.into.what.kind == "st")
        or (isinstance(s, Skip) and s.what.kind == "st")
        or (isinstance(s, Together) and s.end is None)
        for s in steps
    )


def _closed(steps: tuple[Step, ...], kind: str) -> tuple[Step, ...]:
    """A round whose last space is closed by a stitch into the first one."""
    if kind != "Rnd":
        return steps
    at = len(steps)
    while at and isinstance(steps[at - 1], Gesture):
        at -= 1
    skips = at >= 3 and isinstance(steps[at - 2], Skip)  # "ch 2, sk last 2 sts, dc in first sc"
    if at < 2 + skips:
        return steps
    chain, work = steps[at - 2 - skips], steps[at - 1]
    if not (isinstance(chain, Chain) and isinstance(work, Work) and isinstance(work.into, Nth)):
        return steps
    height = basic(work.stitch).turning_chain
    if not work.into.nth.is_always(1) or not work.per.is_always(1) or height < 2:
        return steps
    space = Num(tuple(None if v is None else v + height for v in chain.length.values))
    closing = Closing(chain.length, work.stitch, space, chain.span.to(work.span))
    rest = tuple(s for s in steps[at:] if not (isinstance(s, Gesture) and s.kind == "join"))
    return (*steps[: at - 2 - skips], *steps[at - 1 - skips : at - 1], closing, *rest)


def in_first_chain(steps: tuple[Step, ...]) -> list[tuple[Step, ...]]:
    """ "Ch 4, 11 dc in first ch": all stitches in the first chain made, which is the furthest from the hook; the rest
    counts as one, or not."""
    at = next((i for i, step in enumerate(steps) if not isinstance(step, Gesture)), len(steps))
    chain, work = steps[at : at + 1], steps[at + 1] if at + 1 < len(steps) else None
    if not (chain and isinstance(chain[0], Chain) and isinstance(work, Work) and isinstance(work.into, Nth)):
        return []
    if not work.into.nth.is_always(1) or work.into.what.kind != "ch" or chain[0].counts is not None:
        return []
    return [
        (*steps[: at + 1], replace(work, into=FromHook(chain[0].length, counts, None)), *steps[at + 2 :])
        for counts in (work.stitch, None)
    ]


def around_chain(steps: tuple[Step, ...]) -> list[tuple[Step, ...]]:
    """ "Sc in each ch across; rotate, sc in each ch across": the second side with the chain first worked into, and
    with both end chains."""
    at = next((i for i, step in enumerate(steps) if isinstance(step, Gesture) and step.kind == "rotate"), len(steps))
    begun = any(isinstance(step, Work) and isinstance(step.into, FromHook) for step in steps[:at])
    work = steps[at + 1] if begun and at + 1 < len(steps) else None
    if not (
        isinstance(work, Work) and isinstance(work.into, Every) and work.per.is_always(1) and _is_open(work.into.end)
    ):
        return []
    if work.into.what.kind not in ("st", "ch"):
        return []
    one, what = _one_like(work.per), What("ch")
    side = (replace(work, into=Every(what, ToEnd("last", one, "", what))), replace(work, into=Last(what)))
    first = replace(work, into=Same(what))
    return [(*steps[: at + 1], *begins, *side, *steps[at + 2 :]) for begins in ((), (first,))]
