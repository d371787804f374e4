"""The gauge of a design as the screens show it."""

import math

from rillstep.core.gauge import hook_in
from rillstep.core.lengths import GAUGE_SPAN
from rillstep.core.proof import Proof
from rillstep.core.yarn import TIMES_LENGTH, Known, kind_of
from rillstep.document import Design
from rillstep.document.design import MOST_SWATCHES, MOST_YARNS, USUAL_TOLERANCE_MM, USUAL_TOLERANCES_MM
from rillstep.document.schema import MAX_SIZES
from rillstep.publish.booklet import hook_letter, weight_names
from rillstep.services import views
from rillstep.services.yarn_needs import gauge_of, hook_of, is_weighed, yarns_of


def gauge_view(design: Design, proof: Proof, known: Known) -> views.GaugeView | None:
    """The gauge with what follows from it; None where a text names none."""
    gauge = gauge_of(proof)
    if gauge is None:
        return None
    sts, rows = gauge.per_span(design.units)
    return views.GaugeView(
        stitch=gauge.stitch, sts=sts, rows=rows, span=GAUGE_SPAN[design.units],
        width_mm=round(gauge.width_mm, 2), height_mm=round(gauge.height_mm, 2),
        flat_increases=round(2 * math.pi * gauge.height_mm / gauge.width_mm, 1),
        yarn_correction=known.factor(kind_of(gauge.stitch)) if yarns_of(design) and is_weighed(design) else None,
    )  # fmt: skip


def hook_view(design: Design, proof: Proof) -> views.HookView | None:
    """The hook that holds; None where neither the text nor the document says one."""
    mm = hook_of(design, proof)
    if mm is None:
        return None
    of_text = hook_in(dict(proof.pattern.extra).get("Hook", "")) is not None
    return views.HookView(mm=mm, letter=hook_letter(mm), of_text=of_text)


def craft_view(has_scale: bool) -> views.CraftView:
    """Usual values and limits, for the page to show."""
    return views.CraftView(
        extras=list(TIMES_LENGTH), has_scale=has_scale, yarn_classes=list(weight_names()),
        most_sizes=MAX_SIZES, most_yarns=MOST_YARNS, most_swatches=MOST_SWATCHES,
        usual_tolerance_mm=USUAL_TOLERANCE_MM, usual_tolerances_mm=USUAL_TOLERANCES_MM,
    )  # fmt: skip
