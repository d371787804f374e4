"""How large a bag can be with the yarn that is there: sizes are graded and estimated until one is no longer enough."""

from rillstep.core.grading import NotGraded, SizeWanted, grade_from
from rillstep.core.lengths import show_length
from rillstep.core.proof import Proof
from rillstep.document import Design
from rillstep.services import views
from rillstep.services.grading import analysis_of
from rillstep.services.workbench import proof_of
from rillstep.services.yarn_needs import SizeYarn, yarn_need
from rillstep.services.yarn_views import LIKELY, chance_shown, problem_of, rounded

# Shares of the sample that are tried to find the largest one, in per cent.
LEAST_SHARE, MOST_SHARE, SHARE_STEP = 40, 240, 5


def largest_of(design: Design, have_g: float | None) -> views.LargestView:
    """How large the sample can be made with so many grams, or with what is in the drawer, so that it is likely enough:
    the largest share of its width and height, in steps of 5 %."""
    none = views.LargestView(problem="", percent=0, width="", height="", grams=0, enough=0)
    problem = problem_of(design, proof_of(design))
    if have_g is None and not any(yarn.have_g is not None for yarn in design.yarns):
        problem = problem or "Say how many grams there are."
    if problem:
        return none.model_copy(update={"problem": problem})
    try:
        analysis_of(design)
    except NotGraded as refused:
        return none.model_copy(update={"problem": str(refused)})
    shares = range(LEAST_SHARE, MOST_SHARE + 1, SHARE_STEP)
    low, high = 0, len(shares)  # what is below `low` is enough, what is from `high` on is not
    best: views.LargestView | None = None
    while low < high:
        at = (low + high) // 2
        made = at_share(design, shares[at])
        if made is not None and _is_enough(design, made[1], have_g):
            chance = _chance(design, made[1], have_g)
            best, low = _largest(design, shares[at], *made, chance), at + 1
        else:
            high = at
    return best or none.model_copy(update={"problem": "It is not enough for the smallest bag of this kind."})


def at_share(design: Design, percent: int) -> tuple[Proof, SizeYarn] | None:
    """The sample at a share of its width and height, with its yarn; None where it does not come out."""
    analysis = analysis_of(design)
    sample = {
        one.called: one.mm[0] for one in (analysis.sample.proof.bag.measures if analysis.sample.proof.bag else ())
    }
    targets = {name: mm * percent / 100 for name in ("width", "height") if (mm := sample.get(name)) is not None}
    if not targets:
        return None
    try:
        graded = grade_from(analysis, [SizeWanted("Tried", targets, {})])
    except NotGraded:
        return None
    needed = yarn_need(design, graded.proof, 0)
    return (graded.proof, needed) if needed is not None else None


def _is_enough(design: Design, needed: SizeYarn, have_g: float | None) -> bool:
    return _chance(design, needed, have_g) >= LIKELY


def _chance(design: Design, needed: SizeYarn, have_g: float | None) -> float:
    """How likely the yarn is enough: all of it together, or the scarcest colour of the drawer."""
    if have_g is not None:
        return needed.whole.likely_within(have_g)
    held = {yarn.colour: yarn.have_g for yarn in design.yarns}
    chances = [one.other.likely_within(have) for one in needed.colours if (have := held.get(one.colour)) is not None]
    return min(chances, default=0.0)


def _largest(design: Design, percent: int, proof: Proof, needed: SizeYarn, chance: float) -> views.LargestView:
    made = {one.called: one.mm[0] for one in (proof.bag.measures if proof.bag is not None else ())}
    shown = {name: show_length(mm, design.units) for name in ("width", "height") if (mm := made.get(name)) is not None}
    return views.LargestView(
        problem="", percent=percent, width=shown.get("width", "–"), height=shown.get("height", "–"), 
        grams=rounded(needed.whole)[0], enough=chance_shown(chance),
    )  # fmt: skip
