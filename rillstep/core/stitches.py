"""Vocabulary of the craft: stitches with their heights, US and UK names and abbreviations.

Inside Rillstep a stitch is always named by its US abbreviation; UK names exist only at
the two edges, where text is read and where it is written. The same words mean different
stitches on the two sides of the ocean ("dc"), so nothing is ever guessed from one word.
"""

from dataclasses import dataclass
from typing import Literal

Terms = Literal["US", "UK"]


@dataclass(frozen=True)
class Stitch:
    """One basic stitch.

    turning_chain: chains that match its height at the start of a row.
    height_ratio: usual row height relative to single crochet, used only to estimate a
    stitch without a swatch of its own (and shown as an estimate).
    yarn_ratio: yarn length over (width + height) of the stitch; see `core.yarn`.
    """

    us: str
    uk: str
    us_name: str
    uk_name: str
    turning_chain: int
    height_ratio: float
    yarn_ratio: float


SL_ST = Stitch("sl st", "ss", "slip stitch", "slip stitch", 0, 0.4, 3.0)
SC = Stitch("sc", "dc", "single crochet", "double crochet", 1, 1.0, 3.7)
HDC = Stitch("hdc", "htr", "half double crochet", "half treble crochet", 2, 1.5, 3.9)
DC = Stitch("dc", "tr", "double crochet", "treble crochet", 3, 2.1, 3.9)
TR = Stitch("tr", "dtr", "treble crochet", "double treble crochet", 4, 2.8, 4.0)
DTR = Stitch("dtr", "trtr", "double treble crochet", "triple treble crochet", 5, 3.5, 4.0)

STITCHES: tuple[Stitch, ...] = (SL_ST, SC, HDC, DC, TR, DTR)
BY_US = {stitch.us: stitch for stitch in STITCHES}
BY_UK = {stitch.uk: stitch for stitch in STITCHES}

# Yarn in a chain, over the width of the chain: it has no height of its own.
CHAIN_YARN_RATIO = 4.0

FRONT_AND_BACK = ("both", "back", "front")
Loop = Literal["both", "back", "front"]
LOOP_ABBREVIATIONS: dict[Loop, str] = {"both": "", "back": "BLO", "front": "FLO"}


def abbreviation(us: str, terms: Terms) -> str:
    """The abbreviation of a stitch (named in US terms) in the given terms."""
    return us if terms == "US" else BY_US[us].uk


def full_name(us: str, terms: Terms) -> str:
    """The full name of a stitch (named in US terms) in the given terms."""
    return BY_US[us].us_name if terms == "US" else BY_US[us].uk_name


def stitch_words(terms: Terms) -> dict[str, str]:
    """Every accepted word for a stitch in the given terms, mapped to its US abbreviation."""
    words: dict[str, str] = {"slst": "sl st", "ss": "sl st", "slip": "sl st"}
    for stitch in STITCHES:
        if stitch is not SL_ST:
            words[stitch.us if terms == "US" else stitch.uk] = stitch.us
    return words
