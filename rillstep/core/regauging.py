"""A whole text in another gauge, for another yarn or hook: with the same counts, or to the same centimetres."""

from collections.abc import Container
from dataclasses import dataclass

from rillstep.core.gauge import Gauge
from rillstep.core.grading import SizeWanted, analysed, grade_from
from rillstep.core.grading.gauge_lines import gauge_lines, with_gauge
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.lengths import Units
from rillstep.core.measures import is_beside
from rillstep.core.proof import Proof, prove_as_read

# What a bag shall measure as before; its other measures follow from these.
_OF_THE_BAG = ("width", "height", "drop")


@dataclass(frozen=True)
class Regauged:
    """A text in another gauge, with its proof. notes: which measures are not met, and why; and which gauges stay."""

    text: str
    proof: Proof
    notes: tuple[str, ...] = ()


def with_same_counts(text: str, gauge: Gauge, units: Units, allowance_mm: float = 0.0) -> Regauged:
    """The text with its counts as they are and another gauge of plain stitches: the lengths that it states follow."""
    written = with_gauge(text, gauge.stitch, *gauge.per_span(units), units)
    after, proof = proved_with_lengths(written, allowance_mm)
    stay = [line for line in gauge_lines(text) if line in gauge_lines(written)]
    return Regauged(
        after, proof, tuple(f"“{line}” stays as it is: measure it anew in the other yarn and hook." for line in stay)
    )


def to_same_measures(
    text: str, gauge: Gauge, units: Units, sample: str | None = None, allowance_mm: float = 0.0
) -> Regauged:
    """The text in another gauge of plain stitches, each of its sizes as near to the measures that it has now as its
    ways of growth allow; sample: the size that they are graded from, or its first one. Raises NotGraded."""
    before = prove_as_read(text, allowance_mm)
    same = with_same_counts(text, gauge, units, allowance_mm)
    analysis = analysed(same.text, sample, allowance_mm)
    moved = {name for way in analysis.ways for name in way.mm}
    moved |= {name for line in analysis.lines for name in line.moves}
    graded = grade_from(
        analysis, [SizeWanted(name, _measures(before, at, moved), {}) for at, name in enumerate(before.pattern.sizes)]
    )
    return Regauged(graded.text, graded.proof, (*same.notes, *graded.notes))


def _measures(proof: Proof, at: int, moved: Container[str]) -> dict[str, float]:
    """What a size measures now, in mm, of what can be moved: the bag, and what hangs on it or lies beside it."""
    beside = {section.title for section in proof.pattern.sections if is_beside(section)}
    known = {
        one.called: (one, mm)
        for one in (proof.bag.measures if proof.bag is not None else ())
        if one.called in moved and (mm := one.mm[at]) is not None
    }
    own = {name: mm for name, (one, mm) in known.items() if name in _OF_THE_BAG or one.piece in beside}
    return own or {name: mm for name, (_, mm) in known.items()}
