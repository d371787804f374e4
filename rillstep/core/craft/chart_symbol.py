"""The symbols of stitch charts, as the craft draws them everywhere: a stem, its bars, and what stands at its foot."""

from dataclasses import dataclass
from typing import Literal

Head = Literal["dot", "cross", "bar", "none", "oval"]


@dataclass(frozen=True)
class Symbol:
    """How a stitch is drawn. height: in widths of a stitch; slashes: bars across the stem, one for each yarn over of
    a dc.

    strands: stems side by side that begin and end together (a puff, a cluster).
    post: the hook at its foot, for stitches around the post.
    """

    height: float
    head: Head
    slashes: int = 0
    strands: int = 1
    post: Literal["", "FP", "BP"] = ""
    wave: bool = False
