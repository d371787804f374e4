"""Grading from the text: the numbers of a text in one size get names and are moved, and the other sizes proved."""

from rillstep.core.grading.lift import Lifted, lift
from rillstep.core.grading.nearest import (
    Analysis,
    GradedText,
    analysed,
    grade_from,
    grade_text,
    with_names,
    with_values,
)
from rillstep.core.grading.nearest_size import SizeWanted
from rillstep.core.grading.resizing import NotResized, resized
from rillstep.core.grading.sample import NotGraded, Sample, sample_of

__all__ = [
    "Analysis",
    "GradedText",
    "Lifted",
    "NotGraded",
    "NotResized",
    "Sample",
    "SizeWanted",
    "analysed",
    "grade_from",
    "grade_text",
    "lift",
    "resized",
    "sample_of",
    "with_names",
    "with_values",
]
