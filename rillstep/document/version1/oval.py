"""The oval base: 3 (4, 6, ...) stitches into each end chain, and as many increases there in every round.

An end is made of wedges; a wedge has as many stitches as rounds were worked, and grows by one
in each round. The round begins within the first end: `begin` of its wedges stand at the start
of the round, the others at its end.

        wedges-begin   |begin        straight side
                 ....  v____________________________
               (      start ->                       )   <- the other end, `wedges` wedges
                 ''''  ____________________________''
                             <- straight side
"""

from rillstep.core.craft import BY_US
from rillstep.core.tree import Chain, FromHook, Gesture, Last, Line, Next, Repeat, Setup, Step, What, Work
from rillstep.document.version1.merge import plain
from rillstep.document.version1.plan import ToteCounts, TotePlan
from rillstep.document.version1.wording import Opener, row, skip_work, stitches

_CHAIN = What("ch")


def foundation_chain(plan: TotePlan, counts: ToteCounts) -> int:
    """Chains to begin with: both ends, the straight side, and the height of the first stitch."""
    return counts.side + 2 + BY_US[plan.stitch].turning_chain


def oval_lines(plan: TotePlan, counts: ToteCounts) -> list[tuple[str, Line]]:
    """The base of one size: its foundation chain and its rounds."""
    setup = Setup((Chain(plain(foundation_chain(plan, counts))),), (0,))
    lines: list[tuple[str, Line]] = [("setup", setup), ("1", _first_round(plan, counts))]
    for number in range(2, counts.base_rounds + 1):
        lines.append((str(number), _growing_round(plan, counts, number)))
    return lines


def _first_round(plan: TotePlan, counts: ToteCounts) -> Line:
    stitch, p, one = plan.stitch, counts.wedges, plain(1)
    nth = BY_US[stitch].turning_chain + 1
    along = Work(stitch, one, Next(plain(counts.side), _CHAIN))
    steps: list[Step] = [
        Work(stitch, one, FromHook(plain(nth), stitch if plan.counted else None)),
        along,
        Work(stitch, plain(p), Last(_CHAIN)),
        Gesture("rotate"),
        along,
        Work(stitch, plain(p - counts.begin), Last(_CHAIN)),
    ]
    return row(plan, 1, None, steps, 2 * counts.side + 2 * p)


def wedge(stitch: str, size: int, shifted: bool) -> list[Step]:
    """One wedge of `size` stitches worked with one increase: at its end, or moved to its middle."""
    one = plain(1)
    grow = Work(stitch, plain(2), Next(one, What("st")))
    before = (size - 1) // 2 if shifted else size - 1
    after = size - 1 - before
    return [*stitches(stitch, before), grow, *stitches(stitch, after)]


def _growing_round(plan: TotePlan, counts: ToteCounts, number: int) -> Line:
    stitch, p, begin = plan.stitch, counts.wedges, counts.begin
    size = number - 1
    shifted = plan.increases == "shifted" and number % 2 == 1
    one_wedge = wedge(stitch, size, shifted)
    opener = Opener(plan, say=number == 2)
    steps: list[Step] = [*opener.steps]
    # The first wedges are written out, so that the very first stitch can be named.
    steps += skip_work(opener, [step for _ in range(begin) for step in one_wedge])
    steps += stitches(stitch, counts.side)
    steps += _wedges(stitch, one_wedge, p)
    steps += stitches(stitch, counts.side)
    steps += _wedges(stitch, one_wedge, p - begin)
    return row(plan, number, None, steps, 2 * counts.side + 2 * p * number)


def _wedges(stitch: str, one: list[Step], times: int) -> list[Step]:
    """`times` wedges: a repeat, or "2 sc in each of next 3 sts" where a wedge is one increase."""
    if len(one) == 1:
        return [Work(stitch, plain(2), Next(plain(times), What("st")))]
    return list(one) if times == 1 else [Repeat(tuple(one), plain(times))]
