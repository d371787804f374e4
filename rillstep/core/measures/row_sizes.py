"""The size of the stitches of a row: by the gauge of that stitch, of that stitch pattern and of that hook.

Without a gauge of its own a stitch is estimated from the first swatch by the usual heights, and named as an estimate.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.fabric import Counts
from rillstep.core.gauge import Build, OwnGauge, chain_width_mm, gauge_of
from rillstep.core.stitches import basic, is_post
from rillstep.core.tree import Pattern, Section, Step, Work, words_of
from rillstep.core.tree.features import main_stitch

_HOOK = re.compile(
    r"\b(change|switch|go (?:up|down)|swap|using|with)\b[^.;]{0,20}?(\d{1,2}(?:\.\d{1,2})?)\s*-?\s*mm\b", re.IGNORECASE
)


@dataclass(frozen=True)
class RowSize:
    """width_mm: of what is counted across, which are stitches, or loops of a mesh. gauge: its name, for a reader."""

    width_mm: float
    height_mm: float
    chain_mm: float
    by_loops: bool
    gauge: str
    estimated: bool

    def across_mm(self, counts: Counts) -> float:
        """The length of a round or row: its loops by the gauge of the mesh; else its stitches, and the chains of its
        spaces."""
        if self.by_loops:
            return counts.spaces_of(None) * self.width_mm
        return counts.sts * self.width_mm + counts.chains * self.chain_mm

    def across(self, counts: Counts) -> str:
        """The formula of `across_mm`, with its numbers."""
        if self.by_loops:
            return f"{counts.spaces_of(None)} loops x {self.width_mm:.2f} mm"
        chains = f" + {counts.chains} chains x {self.chain_mm:.2f} mm" if counts.chains else ""
        return f"{counts.sts} sts x {self.width_mm:.2f} mm{chains}"


def hooks(pattern: Pattern, section: Section) -> dict[int, str]:
    """For each line of a piece, by its identity, the hook that words in or before it change to, in mm; "" before.

    "With a 4 mm hook" is no change, unless a gauge with that hook is there.
    """
    found: dict[int, str] = {}
    known = {gauge.hook for gauge in pattern.gauges}
    now = ""
    for line in section.lines:
        for match in (match for words in words_of(line) for match in _HOOK.finditer(words)):
            hook = f"{float(match[2]):g}"
            now = hook if hook in known or match[1].lower() not in ("with", "using") else now
        found[id(line)] = now
    return found


def row_size(
    pattern: Pattern, section: Section, steps: Sequence[Step], counts: Counts, usual: str | None, hook: str
) -> RowSize:
    """The size of the stitches of a row. usual: the stitch that its piece is mostly made of; hook: in mm, where it was
    changed. There is a gauge."""
    stitch = main_stitch(tuple(steps)) or usual
    us = basic(stitch).us if stitch is not None else pattern.gauges[0].stitch
    plain, guessed = gauge_of(pattern.gauges, us, hook)
    chain_mm, chain_guessed = chain_width_mm(pattern.gauges, pattern.own_gauges) or (plain.width_mm, True)
    own = _own(pattern.own_gauges, section, steps, counts, stitch)
    if own is not None:
        return RowSize(own.width_mm, own.height_mm, chain_mm, own.unit == "loops", own.name, False)
    around_posts = stitch is not None and is_post(stitch)
    estimated = guessed or around_posts or (bool(counts.chains) and chain_guessed)
    return RowSize(plain.width_mm, plain.height_mm, chain_mm, False, plain.stitch, estimated)


def _own(
    gauges: Sequence[OwnGauge], section: Section, steps: Sequence[Step], counts: Counts, stitch: str | None
) -> OwnGauge | None:
    """The gauge of the stitch pattern that a row is in, where there is one."""
    holds: dict[Build, bool] = {
        "mesh": bool(counts.spaces),
        "post": stitch is not None and is_post(stitch),
        "loop": _in_one_loop(steps),
    }
    return next((gauge for gauge in gauges if holds.get(gauge.build, False)), None)


def _in_one_loop(steps: Sequence[Step]) -> bool:
    works = [step for step in steps if isinstance(step, Work)]
    return bool(works) and all(step.loop in ("front", "back") for step in works)
