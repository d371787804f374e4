"""Gauge and yarn of a design, from the gauge that its text names."""

import math

from rillstep.core.gauge import Gauge
from rillstep.core.proof import Proof
from rillstep.core.tree.changes import in_gauge_of
from rillstep.core.yarn import WeighedSwatch, YarnFacts, YarnNeed, need, tally
from rillstep.document import Design
from rillstep.services import views


def gauge_of(proof: Proof, size: int = 0) -> Gauge | None:
    """The gauge of plain stitches of a size; None for a text that names none."""
    return next(iter(in_gauge_of(proof.pattern, size).gauges), None)


def yarn_facts(design: Design) -> YarnFacts | None:
    """What the label of the yarn says; None where it is not known."""
    yarn = design.yarn
    return YarnFacts(yarn.grams_per_ball, yarn.metres_per_ball, yarn.strands) if yarn is not None else None


def weighed_swatch(design: Design) -> WeighedSwatch:
    """The swatch with its weight; of no weight where there is none."""
    swatch = design.swatch
    return (
        WeighedSwatch(swatch.stitches, swatch.rows, swatch.weight_g) if swatch is not None else WeighedSwatch(1, 1, 0)
    )


def yarn_needs(design: Design, proof: Proof) -> list[YarnNeed | None]:
    """Yarn for each size of a proved text."""
    return [yarn_need(design, proof, size) for size in range(len(proof.works))]


def yarn_need(design: Design, proof: Proof, size: int, from_line: int = 0, to_line: int = 10**9) -> YarnNeed | None:
    """Yarn for one size, for all lines or for a range of line numbers; None where gauge or yarn is not known."""
    gauge, facts = gauge_of(proof, size), yarn_facts(design)
    if gauge is None or facts is None:
        return None
    return need(
        tally(proof.works[size], from_line, to_line, proof.pattern.sections), gauge, facts, weighed_swatch(design)
    )


def yarn_view(needed: YarnNeed | None) -> views.YarnView | None:
    """The yarn of a size for the screen."""
    if needed is None:
        return None
    return views.YarnView(
        metres=round(needed.metres), grams=round(needed.grams), low_g=math.floor(needed.low_g),
        high_g=math.ceil(needed.high_g), balls=needed.balls, weighed=needed.weighed,
    )  # fmt: skip
