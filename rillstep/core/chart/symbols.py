"""The symbols of stitch charts, as the craft draws them everywhere: a stem, its bars, and what stands at its foot."""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.stitches import GATHERED, POSTS, Loop

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


SYMBOLS: dict[str, Symbol] = {
    "ch": Symbol(0.5, "oval"),
    "sl st": Symbol(0.3, "dot"),
    "sc": Symbol(0.9, "cross"),
    "rsc": Symbol(0.9, "cross", wave=True),
    "esc": Symbol(1.2, "cross", slashes=1),
    "hdc": Symbol(1.35, "bar"),
    "dc": Symbol(1.9, "bar", slashes=1),
    "tr": Symbol(2.5, "bar", slashes=2),
    "dtr": Symbol(3.1, "bar", slashes=3),
    "puff": Symbol(1.7, "oval", strands=3),
    "bobble": Symbol(1.8, "bar", slashes=1, strands=3),
    "popcorn": Symbol(1.8, "oval", slashes=1, strands=3),
    "cluster": Symbol(1.8, "bar", slashes=1, strands=3),
}
assert set(GATHERED) <= set(SYMBOLS)


def symbol_of(stitch: str) -> Symbol:
    """The symbol of a stitch in US terms; a stitch of its own kind is drawn as a dc, which most of them are made of."""
    side = stitch[:2] if stitch[:2] in POSTS else ""
    found = SYMBOLS.get(stitch[2:] if side else stitch, SYMBOLS["dc"])
    if not side:
        return found
    return Symbol(found.height, found.head, found.slashes, found.strands, side, found.wave)  # type: ignore[arg-type]


# What a loop that is worked alone is drawn as, under the stitch.
UNDER: dict[Loop, str] = {"back": "arch", "front": "bowl", "third": "bar", "both": ""}
