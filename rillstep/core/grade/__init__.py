"""Grading: whole numbers for every size that come closest to what was asked for."""

from rillstep.core.grade.plan import LOCKABLE, SizeTarget, ToteCounts, TotePlan
from rillstep.core.grade.solve import Graded, GradedSize, GradeNote, grade

__all__ = ["LOCKABLE", "GradeNote", "Graded", "GradedSize", "SizeTarget", "ToteCounts", "TotePlan", "grade"]
