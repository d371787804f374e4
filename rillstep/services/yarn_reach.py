"""How large a bag can be with the yarn that is there, for the screen."""

from rillstep.core.lengths import show_length
from rillstep.design import facts_of
from rillstep.design.reach import largest
from rillstep.design.yarn import rounded
from rillstep.design.yarn_answers import chance_shown
from rillstep.document import Design
from rillstep.services import views


def largest_view(design: Design, have_g: float | None) -> views.LargestView:
    """The largest bag of which the yarn is likely enough; or why that is not known."""
    found = largest(facts_of(design), have_g)
    if isinstance(found, str):
        return views.LargestView(problem=found, percent=0, width="", height="", grams=0, enough=0)
    bag, units = found.proof.bag, design.units
    made = {one.called: mm for one in (bag.measures if bag is not None else ()) if (mm := one.mm[0]) is not None}
    shown = {name: show_length(made[name], units) for name in ("width", "height") if name in made}
    return views.LargestView(
        problem="", percent=found.percent, width=shown.get("width", "–"), height=shown.get("height", "–"),
        grams=rounded(found.needed.whole)[0], enough=chance_shown(found.chance),
    )  # fmt: skip
