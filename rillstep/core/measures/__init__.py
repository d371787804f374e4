"""Measures in mm from worked rounds: of each piece, of the bag, and of what hangs from it."""

from rillstep.core.measures.bag import Body, is_beside
from rillstep.core.measures.profile import RoundShape, SizeShape
from rillstep.core.measures.registry import BagMeasures, Measure, bag_measures, measures_of

__all__ = ["BagMeasures", "Body", "Measure", "RoundShape", "SizeShape", "bag_measures", "is_beside", "measures_of"]
