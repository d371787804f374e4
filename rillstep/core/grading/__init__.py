"""Grading from the text: the numbers of a text in one size get names and are moved, and the other sizes proved."""

from rillstep.core.grading.lift import Lifted, lift
from rillstep.core.grading.nearest import GradedText, NotGraded, SizeWanted, grade_text

__all__ = ["GradedText", "Lifted", "NotGraded", "SizeWanted", "grade_text", "lift"]
