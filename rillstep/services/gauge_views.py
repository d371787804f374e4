"""The gauge of a design as the screens show it."""

import math

from rillstep.core.lengths import GAUGE_SPAN
from rillstep.core.proof import Proof
from rillstep.core.yarn import correction
from rillstep.document import Design
from rillstep.publish.booklet import hook_letter, weight_name
from rillstep.services import views
from rillstep.services.yarn_needs import gauge_of, weighed_swatch, yarn_facts


def gauge_view(design: Design, proof: Proof) -> views.GaugeView | None:
    """The gauge with what follows from it; None where a text names none."""
    gauge, facts = gauge_of(proof), yarn_facts(design)
    if gauge is None:
        return None
    sts, rows = gauge.per_span(design.units)
    return views.GaugeView(
        stitch=gauge.stitch, sts=sts, rows=rows, span=GAUGE_SPAN[design.units],
        width_mm=round(gauge.width_mm, 2), height_mm=round(gauge.height_mm, 2),
        flat_increases=round(2 * math.pi * gauge.height_mm / gauge.width_mm, 1),
        hook_letter=hook_letter(design.hook_mm) if design.hook_mm is not None else "",
        weight_name=weight_name(design.yarn.weight_class) if design.yarn is not None else "",
        yarn_correction=None if facts is None else correction(gauge, facts, weighed_swatch(design)),
    )  # fmt: skip
