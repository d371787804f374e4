"""How long the yarn of a stitch is, before anything was weighed: the one table of priors.

A stitch takes ratio x (width + height) of yarn, a chain or a slip stitch ratio x width. Kinds whose build changes the
path of the yarn (around a post, into a space, in one loop, several worked together) have a ratio of their own. A path
followed for a usual yarn thickness comes within a fifth of each ratio (`tests/core/yarn_path.py`); where a ratio is
from nothing else, its source says "estimate".
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

Kind = Literal["chain", "slip", "sc", "hdc", "dc", "space", "loop", "post", "group", "seam"]


@dataclass(frozen=True)
class Prior:
    """ratio: yarn length over the size of the stitch, or over that of the plain stitch (`of_plain`). sd: how far the
    ratio of a yarn and a hook may be off, as a share."""

    ratio: float
    sd: float
    source: str
    of_plain: bool = False


PRIORS: Mapping[Kind, Prior] = {
    "chain": Prior(3.8, 0.11, "path: three strands along it and a turn around the next loop; stretched in a mesh"),
    "slip": Prior(3.8, 0.11, "path: as a chain that is drawn through the fabric"),
    "sc": Prior(3.5, 0.11, "path: a loop up, and a chain on it"),
    "hdc": Prior(4.0, 0.11, "path: as sc, with a strand more between"),
    "dc": Prior(4.2, 0.11, "path: two loops on each other, and a chain on them; taller ones have more of them"),
    "space": Prior(1.03, 0.11, "path: around a chain in place of two strands, within 5 %", of_plain=True),
    "loop": Prior(0.95, 0.11, "path: around one strand in place of two", of_plain=True),
    "post": Prior(1.38, 0.11, "path: around the stitch below, and from half a row further down", of_plain=True),
    "group": Prior(2.8, 0.16, "estimate: several stitches that are finished as one", of_plain=True),
    "seam": Prior(1.0, 0.20, "estimate: lengths of seams, cords and tassels as their lines say"),
}

# Shares of the whole, as standard deviations. Source: estimates, to be replaced by weighings.
BETWEEN_HANDS = 0.08
WITHIN_HAND = 0.03
BALLS = 0.03
# A kitchen scale that shows whole grams, and is off by half a gram besides: the standard deviation of both, in g.
SCALE_G = 0.6
# Yarn that is cut off, woven in and thrown away, as a share of what is worked.
WASTE = 0.02
TAIL_MM = 150.0

# How long seams, cords and trimmings take yarn, in lengths of themselves. Source: estimates.
TIMES_LENGTH: Mapping[str, tuple[float, str]] = {
    "whipstitch seam": (3.0, "a turn around both edges at each stitch"),
    "mattress seam": (2.5, "to and fro between both edges"),
    "slip stitch seam": (4.5, "as a row of slip stitches"),
    "single crochet seam": (6.5, "as a row of single crochet"),
    "twisted cord": (3.0, "two strands, doubled on themselves, less their take-up"),
    "braid": (3.75, "three strands, a quarter longer than the braid"),
    "chain cord": (3.6, "as a chain"),
    "starting-chain surplus": (3.8, "chains that are made to be sure, and taken out"),
    "fringe": (2.0, "each strand is folded once"),
    "tassel": (60.0, "thirty strands folded once, of its length"),
    "tail": (1.0, "as long as it is left"),
    "swatch or sample": (1.0, "the metres that it took"),
}
