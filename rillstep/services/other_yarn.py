"""The whole design in another yarn or with another hook, for the screen and the command line."""

from pydantic import BaseModel

from rillstep.core.lengths import GAUGE_SPAN, show_length
from rillstep.design import Facts, facts_of
from rillstep.design.other_yarn import OtherWay, OtherYarn, in_other_yarn
from rillstep.document import Design
from rillstep.services import views
from rillstep.services.text_changes import changes_of
from rillstep.services.yarn_views import yarn_view


class OtherSizeView(BaseModel):
    """A size in another yarn; its width and height as they are shown, "–" where they are not known; its yarn, null
    where that is not known."""

    size: str
    width: str
    height: str
    yarn: views.YarnView | None


class OtherWayView(BaseModel):
    """One of the two ways. problem: why it is not possible. notes: what is not met or stays as it is. design: all of it
    in the other yarn, null where the gauge is only expected."""

    problem: str
    sizes: list[OtherSizeView]
    notes: list[str]
    changes: list[views.LinesChangedView]
    design: Design | None


class OtherYarnView(BaseModel):
    """The design in another yarn. problem: why nothing can be said. sts, rows: over the span; measured: whether they
    were counted, and are not only expected. goes: what of the document tells nothing of the other yarn, and goes with
    it."""

    problem: str
    stitch: str
    span: int
    sts: float
    rows: float
    measured: bool
    goes: str
    counts: OtherWayView | None
    centimetres: OtherWayView | None


def other_yarn_view(design: Design, other: OtherYarn) -> OtherYarnView:
    """The design in another yarn or with another hook, in both ways."""
    facts = facts_of(design)
    found = in_other_yarn(facts, other)
    if isinstance(found, str):
        return OtherYarnView(
            problem=found, stitch="", span=0, sts=0, rows=0, measured=False, goes="", counts=None, centimetres=None
        )
    units = facts.design.units
    sts, rows = found.gauge.per_span(units)
    return OtherYarnView(
        problem="", stitch=found.gauge.stitch, span=GAUGE_SPAN[units], sts=sts, rows=rows, measured=found.measured,
        goes=found.goes, counts=_way(facts, found.counts, found.measured),
        centimetres=_way(facts, found.centimetres, found.measured),
    )  # fmt: skip


def _way(before: Facts, way: OtherWay, measured: bool) -> OtherWayView:
    after = way.facts
    if after is None:
        return OtherWayView(problem=way.problem, sizes=[], notes=list(way.notes), changes=[], design=None)
    return OtherWayView(
        problem="", sizes=[_size(after, at) for at in range(len(after.proof.works))], notes=list(way.notes),
        changes=changes_of(before.design.text, after.design.text), design=after.design if measured else None,
    )  # fmt: skip


def _size(after: Facts, at: int) -> OtherSizeView:
    shown = {
        name: show_length(mm, after.design.units) for name in ("width", "height")
        if (one := after.measures.get(name)) is not None and (mm := one.mm[at])
    }  # fmt: skip
    return OtherSizeView(
        size=after.proof.pattern.sizes[at], width=shown.get("width", "–"), height=shown.get("height", "–"),
        yarn=yarn_view(after.design, after.needs[at]),
    )  # fmt: skip
