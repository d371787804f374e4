"""How a round is begun and ended, in the designer's own way of working."""

from dataclasses import dataclass, replace

from rillstep.core.craft import BY_US, Loop
from rillstep.core.tree import Chain, Gesture, Next, Num, Row, Same, Step, Total, What, Work
from rillstep.document.version1.merge import plain
from rillstep.document.version1.plan import TotePlan

ST = What("st")


@dataclass(frozen=True)
class Opener:
    """The beginning of a round: its starting chain, and what the first stitch is."""

    plan: TotePlan
    say: bool = True  # say that the chain does not count: once a section is enough

    @property
    def steps(self) -> tuple[Step, ...]:
        if self.plan.rounds == "spiral":
            return ()
        if self.plan.counted:
            return (Chain(plain(BY_US[self.plan.stitch].turning_chain), self.plan.stitch),)
        return (Chain(plain(1), "none" if self.say else None),)


def stitches(stitch: str, count: int, loop: Loop = "both") -> list[Step]:
    """One stitch in each of the next `count` places; nothing for none."""
    return [Work(stitch, plain(1), Next(plain(count), ST), loop)] if count > 0 else []


def skip_work(opener: Opener, steps: list[Step]) -> list[Step]:
    """The same steps begun as the round is begun: the first stitch named as "in same st".

    In a spiral the next stitch is the first one; where the starting chain counts it is the
    first stitch itself.
    """
    plan = opener.plan
    first = steps[0]
    assert isinstance(first, Work) and isinstance(first.into, Next)
    if plan.rounds == "spiral":
        return steps
    count, per = first.into.count.values[0] or 0, first.per.values[0] or 0
    rest: list[Step] = list(steps[1:])
    if count > 1:
        rest = [replace(first, into=replace(first.into, count=plain(count - 1))), *rest]
    if plan.counted:
        return [replace(first, per=plain(per - 1), into=Same(ST)), *rest] if per > 1 else rest
    return [replace(first, into=Same(ST)), *rest]


def row(plan: TotePlan, first: int, last: int | None, steps: list[Step], sts: int, *more: Total) -> Row:
    """A round of one size with its total, joined if rounds are joined."""
    steps = join_plain(steps)
    ending: tuple[Step, ...] = (Gesture("join"),) if plan.rounds == "joined" else ()
    to: Num | None = None if last is None else plain(last)
    return Row("Rnd", plain(first), to, (*steps, *ending), (Total(plain(sts), "sts"), *more), (0,))


def join_plain(steps: list[Step]) -> list[Step]:
    """Neighbouring runs of plain stitches become one."""
    joined: list[Step] = []
    for step in steps:
        before = joined[-1] if joined else None
        if _is_plain(step) and before is not None and _is_plain(before):
            assert isinstance(step, Work) and isinstance(before, Work)
            assert isinstance(step.into, Next) and isinstance(before.into, Next)
            count = (step.into.count.values[0] or 0) + (before.into.count.values[0] or 0)
            joined[-1] = replace(before, into=replace(before.into, count=plain(count)))
        else:
            joined.append(step)
    return joined


def _is_plain(step: Step) -> bool:
    return isinstance(step, Work) and isinstance(step.into, Next) and step.into.what == ST and step.per == Num((1,))
