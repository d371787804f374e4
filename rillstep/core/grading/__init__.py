"""Grading from the text: the numbers of a text in one size that has names are moved, and the other sizes proved."""

from rillstep.core.grading.nearest import Graded, NotGraded, SizeWanted, grade_text

__all__ = ["Graded", "NotGraded", "SizeWanted", "grade_text"]
