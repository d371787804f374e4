"""The size of the stitches of a row: by the gauge of that stitch, of that stitch pattern and of that hook.

Without a gauge of its own a stitch is estimated from the first swatch by the usual heights, and named as an estimate.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass

from rillstep.core.craft import basic, is_post
from rillstep.core.fabric import Counts, LineWork
from rillstep.core.gauge import Build, chain_width_mm, gauge_of
from rillstep.core.tree import Pattern, Section, words_of

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


def row_sizes(pattern: Pattern) -> Callable[[LineWork, Counts, str | None, str], RowSize]:
    """The size of the stitches of each row, by its line, its counts, the stitch that its piece is mostly made of, and
    the hook in mm where it was changed. There is a gauge."""
    chain_mm, chain_guessed = chain_width_mm(pattern.gauges, pattern.own_gauges) or (0.0, True)
    known: dict[tuple[str | None, str, bool, bool, bool], RowSize] = {}

    def of(line: LineWork, counts: Counts, usual: str | None, hook: str) -> RowSize:
        stitch = line.main_stitch or usual
        key = (stitch, hook, line.in_one_loop, bool(counts.spaces), counts.chains > 0)
        if key not in known:
            known[key] = _row_size(pattern, stitch, hook, key[2:], chain_mm, chain_guessed)
        return known[key]

    return of


def _row_size(
    pattern: Pattern, stitch: str | None, hook: str, kind: tuple[bool, bool, bool], chain_mm: float, chain_guessed: bool
) -> RowSize:
    """kind: all stitches in one loop; chain spaces; chains at all."""
    in_one_loop, spaces, chains = kind
    us = basic(stitch).us if stitch is not None else pattern.gauges[0].stitch
    plain, guessed = gauge_of(pattern.gauges, us, hook)
    around_posts = stitch is not None and is_post(stitch)
    holds: dict[Build, bool] = {"mesh": spaces, "post": around_posts, "loop": in_one_loop}
    own = next((gauge for gauge in pattern.own_gauges if holds.get(gauge.build, False)), None)
    if own is not None:
        return RowSize(own.width_mm, own.height_mm, chain_mm, own.unit == "loops", own.name, False)
    estimated = guessed or around_posts or (chains and chain_guessed)
    return RowSize(plain.width_mm, plain.height_mm, chain_mm, False, plain.stitch, estimated)
