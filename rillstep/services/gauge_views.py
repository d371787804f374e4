"""The gauge of a design as the screens show it."""

import math

from rillstep.core.craft import abbreviation, full_name
from rillstep.core.gauge_asked import gauge_said, is_mesh, stitches_of
from rillstep.core.lengths import GAUGE_SPAN
from rillstep.core.materials import hook_said_in, yarn_said_in
from rillstep.core.proof import Proof
from rillstep.core.yarn import TIMES_LENGTH, Known, kind_of
from rillstep.document import Design
from rillstep.document.design import MOST_SWATCHES, MOST_YARNS, USUAL_TOLERANCE_MM, USUAL_TOLERANCES_MM
from rillstep.document.schema import MAX_SIZES
from rillstep.publish.booklet import hook_letter, weight_names
from rillstep.services import swatch_views as shown
from rillstep.services import views
from rillstep.services.yarn_needs import gauge_of, hook_of, is_weighed, yarns_of


def gauge_view(design: Design, proof: Proof, known: Known) -> shown.GaugeView | None:
    """The gauge with what follows from it; None where a text names none."""
    gauge = gauge_of(proof)
    if gauge is None:
        return None
    sts, rows = gauge.per_span(design.units)
    return shown.GaugeView(
        stitch=gauge.stitch, name=abbreviation(gauge.stitch, proof.pattern.terms),
        sts=sts, rows=rows, span=GAUGE_SPAN[design.units],
        width_mm=round(gauge.width_mm, 2), height_mm=round(gauge.height_mm, 2),
        flat_increases=round(2 * math.pi * gauge.height_mm / gauge.width_mm, 1),
        yarn_correction=known.factor(kind_of(gauge.stitch)) if yarns_of(design) and is_weighed(design) else None,
    )  # fmt: skip


def asked_view(design: Design, proof: Proof) -> shown.GaugeAskedView:
    """What the text is asked for as its gauge."""
    terms = proof.pattern.terms
    said = gauge_said(design.text, proof.pattern, design.units)
    return shown.GaugeAskedView(
        stitches=[shown.StitchView(stitch=one, name=full_name(one, terms)) for one in stitches_of(proof.works)],
        mesh=is_mesh(proof.works),
        mesh_known=any(one.build == "mesh" for one in proof.pattern.own_gauges),
        said=None if said is None else shown.GaugeSaidView(**vars(said)),
    )


def yarn_said_view(proof: Proof) -> shown.YarnSaidView | None:
    """What the text says of its yarn."""
    said = yarn_said_in(proof.pattern)
    return None if said is None else shown.YarnSaidView(**vars(said))


def hook_view(design: Design, proof: Proof) -> shown.HookView | None:
    """The hook that holds; None where neither the text nor the document says one."""
    mm = hook_of(design, proof)
    if mm is None:
        return None
    of_text = hook_said_in(proof.pattern) is not None
    return shown.HookView(mm=mm, letter=hook_letter(mm), of_text=of_text)


def craft_view(has_scale: bool) -> views.CraftView:
    """Usual values and limits, for the page to show."""
    return views.CraftView(
        extras=list(TIMES_LENGTH), has_scale=has_scale, yarn_classes=list(weight_names()),
        most_sizes=MAX_SIZES, most_yarns=MOST_YARNS, most_swatches=MOST_SWATCHES,
        usual_tolerance_mm=USUAL_TOLERANCE_MM, usual_tolerances_mm=USUAL_TOLERANCES_MM,
    )  # fmt: skip
