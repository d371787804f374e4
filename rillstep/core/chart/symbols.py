"""Which symbol stands for a stitch in a chart."""

from dataclasses import replace

from rillstep.core.craft import GATHERED_SYMBOLS, POSTS, STITCHES, Loop
from rillstep.core.craft.chart_symbol import Symbol

SYMBOLS: dict[str, Symbol] = {
    "ch": Symbol(0.5, "oval"),
    **{stitch.us: stitch.symbol for stitch in STITCHES},
    **GATHERED_SYMBOLS,
}


def symbol_of(stitch: str) -> Symbol:
    """The symbol of a stitch in US terms; a stitch of its own kind is drawn as a dc, which most of them are made of."""
    post = next((side for side in POSTS if stitch.startswith(side)), None)
    found = SYMBOLS.get(stitch[2:] if post else stitch, SYMBOLS["dc"])
    return replace(found, post=post) if post else found


# What a loop that is worked alone is drawn as, under the stitch.
UNDER: dict[Loop, str] = {"back": "arch", "front": "bowl", "third": "bar", "both": ""}
