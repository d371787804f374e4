"""Yarn: what is worked of each kind, and the metres, grams and balls that it takes in another maker's hand."""

from rillstep.core.yarn.counted_once import counted_once
from rillstep.core.yarn.model import FAR_OFF, Known, Range, Weighed, learned, predicted
from rillstep.core.yarn.needs import (
    ColourNeed,
    Extra,
    YarnFacts,
    colour_needs,
    of_piece,
    prior_g,
    taken_g,
    whole_need,
    with_yarns,
)
from rillstep.core.yarn.priors import PRIORS, TIMES_LENGTH, Kind, Prior
from rillstep.core.yarn.stitch_mix import NotStitches, StitchMix, read_stitches
from rillstep.core.yarn.tally import (
    StitchSizes,
    Used,
    kind_of,
    kinds_of,
    length_mm,
    mix_lengths_mm,
    stitch_sizes,
    tally,
)

__all__ = [
    "FAR_OFF", "PRIORS", "TIMES_LENGTH", "ColourNeed", "Extra", "Kind", "Known", "NotStitches", "Prior", "Range",
    "StitchMix", "StitchSizes", "Used", "Weighed", "YarnFacts", "colour_needs", "counted_once", "kind_of", "kinds_of",
    "learned", "length_mm", "mix_lengths_mm", "of_piece", "predicted", "prior_g", "read_stitches", "stitch_sizes",
    "tally", "taken_g", "whole_need", "with_yarns",
]  # fmt: skip
