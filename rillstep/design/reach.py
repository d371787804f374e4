"""How large a bag can be with the yarn that is there: sizes are graded and estimated until one is no longer enough."""

from dataclasses import dataclass

from rillstep.core.grading import NotGraded, SizeWanted, grade_from
from rillstep.core.proof import Proof
from rillstep.design.facts import Facts
from rillstep.design.yarn import SizeYarn
from rillstep.design.yarn_answers import LIKELY

# Shares of the sample that are tried to find the largest one, in per cent.
LEAST_SHARE, MOST_SHARE, SHARE_STEP = 40, 240, 5


@dataclass(frozen=True)
class Reach:
    """The sample at a share of its width and height, in per cent, with the yarn that it takes; chance: how likely what
    is there is enough."""

    percent: int
    proof: Proof
    needed: SizeYarn
    chance: float


def largest(facts: Facts, have_g: float | None) -> Reach | str:
    """How large the sample can be made with so many grams, or with what is in the drawer, so that it is likely enough:
    the largest share of its width and height, in steps of 5 %; or why that is not known, in words."""
    problem = facts.yarn_problem
    if have_g is None and not any(yarn.have_g is not None for yarn in facts.design.yarns):
        problem = problem or "Say how many grams there are."
    if problem:
        return problem
    try:
        _ = facts.analysis
    except NotGraded as refused:
        return str(refused)
    shares = range(LEAST_SHARE, MOST_SHARE + 1, SHARE_STEP)
    low, high = 0, len(shares)  # what is below `low` is enough, what is from `high` on is not
    best: Reach | None = None
    while low < high:
        at = (low + high) // 2
        made = at_share(facts, shares[at], have_g)
        if made is not None and made.chance >= LIKELY:
            best, low = made, at + 1
        else:
            high = at
    return best or "It is not enough for the smallest bag of this kind."


def at_share(facts: Facts, percent: int, have_g: float | None) -> Reach | None:
    """The sample at a share of its width and height, with its yarn; None where it does not come out. Raises
    NotGraded."""
    bag = facts.analysis.sample.proof.bag
    sample = {one.called: one.mm[0] for one in (bag.measures if bag is not None else ())}
    targets = {name: mm * percent / 100 for name in ("width", "height") if (mm := sample.get(name)) is not None}
    if not targets:
        return None
    try:
        graded = grade_from(facts.analysis, [SizeWanted("Tried", targets, {})])
    except NotGraded:
        return None
    # What was weighed was weighed of the sizes that there are.
    needed = Facts(facts.design, graded.proof, facts.known).need(0)
    if needed is None:
        return None
    return Reach(percent, graded.proof, needed, _chance(facts, needed, have_g))


def _chance(facts: Facts, needed: SizeYarn, have_g: float | None) -> float:
    """How likely the yarn is enough: all of it together, or the scarcest colour of the drawer."""
    if have_g is not None:
        return needed.whole.likely_within(have_g)
    held = {yarn.colour: yarn.have_g for yarn in facts.design.yarns}
    chances = [one.other.likely_within(have) for one in needed.colours if (have := held.get(one.colour)) is not None]
    return min(chances, default=0.0)
