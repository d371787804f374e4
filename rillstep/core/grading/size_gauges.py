"""Sizes in a gauge of their own: the same counts in a thicker yarn, or the same centimetres in another one."""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.grading.gauge_lines import in_gauge
from rillstep.core.grading.nearest_size import Model
from rillstep.core.grading.trials import Refuted, measures_at, trials_of
from rillstep.core.proof import Proof, prove_as_read


class GaugeNotRead(ValueError):
    """A gauge of a size that is not understood; the message says how one is written."""


def model_in(model: Model, text: str, gauges: Sequence[str], allowance_mm: float = 0.0) -> Model:
    """What a size in other gauges is found from. Raises GaugeNotRead."""
    there = in_gauge(text, gauges)
    proof = prove_as_read(there, allowance_mm)
    if len(proof.pattern.gauges) + len(proof.pattern.own_gauges) < len(gauges) or not proof.pattern.gauges:
        raise GaugeNotRead(f"“{'; '.join(gauges)}” is no gauge: write it like “sc 20 sts x 22 rows = 10 cm”.")
    trials = trials_of(there, allowance_mm)
    known = measures_at(proof)
    ways = []
    for way in model.ways:
        one = trials.at(dict(way.step))
        after = measures_at(one) if isinstance(one, Proof) else {}
        moved = {name: after[name] - mm for name, mm in known.items() if name in after and abs(after[name] - mm) > 1e-6}
        ways.append(way if isinstance(one, Refuted) else replace(way, mm=moved))
    gauge = proof.pattern.gauges[0]
    return replace(model, ways=ways, known_mm=known, stitch_mm=gauge.width_mm, row_mm=gauge.height_mm)
