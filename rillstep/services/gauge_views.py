"""The gauge of a design as the screens show it."""

from rillstep.core.craft import abbreviation, full_name
from rillstep.core.lengths import GAUGE_SPAN
from rillstep.core.yarn import TIMES_LENGTH
from rillstep.design import Facts
from rillstep.document.design import MOST_SWATCHES, MOST_YARNS, USUAL_TOLERANCE_MM, USUAL_TOLERANCES_MM
from rillstep.document.schema import MAX_SIZES
from rillstep.publish.booklet import hook_letter, weight_names
from rillstep.services import swatch_views as shown
from rillstep.services import views


def gauge_view(facts: Facts) -> shown.GaugeView | None:
    """The gauge with what follows from it; None where a text names none."""
    gauge, units = facts.gauge, facts.design.units
    if gauge is None:
        return None
    sts, rows = gauge.per_span(units)
    return shown.GaugeView(
        stitch=gauge.stitch, name=abbreviation(gauge.stitch, facts.proof.pattern.terms),
        sts=sts, rows=rows, span=GAUGE_SPAN[units],
        width_mm=round(gauge.width_mm, 2), height_mm=round(gauge.height_mm, 2),
        flat_increases=round(gauge.flat_increases, 1), yarn_correction=facts.yarn_correction,
    )  # fmt: skip


def asked_view(facts: Facts) -> shown.GaugeAskedView:
    """What the text is asked for as its gauge."""
    pattern, said = facts.proof.pattern, facts.gauge_said
    return shown.GaugeAskedView(
        stitches=[shown.StitchView(stitch=one, name=full_name(one, pattern.terms)) for one in facts.stitches],
        mesh=facts.is_mesh, mesh_known=any(one.build == "mesh" for one in pattern.own_gauges),
        said=None if said is None else shown.GaugeSaidView(**vars(said)),
    )  # fmt: skip


def yarn_said_view(facts: Facts) -> shown.YarnSaidView | None:
    """What the text says of its yarn."""
    return None if facts.yarn_said is None else shown.YarnSaidView(**vars(facts.yarn_said))


def hook_view(facts: Facts) -> shown.HookView | None:
    """The hook that holds; None where neither the text nor the document says one."""
    if facts.hook_mm is None:
        return None
    return shown.HookView(mm=facts.hook_mm, letter=hook_letter(facts.hook_mm), of_text=facts.hook_is_in_text)


def craft_view(has_scale: bool) -> views.CraftView:
    """Usual values and limits, for the page to show."""
    return views.CraftView(
        extras=list(TIMES_LENGTH), has_scale=has_scale, yarn_classes=list(weight_names()),
        most_sizes=MAX_SIZES, most_yarns=MOST_YARNS, most_swatches=MOST_SWATCHES,
        usual_tolerance_mm=USUAL_TOLERANCE_MM, usual_tolerances_mm=USUAL_TOLERANCES_MM,
    )  # fmt: skip
