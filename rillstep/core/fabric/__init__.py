"""The work on the hook: rows and rounds worked one on another, per size."""

from rillstep.core.fabric.assumed import Worked
from rillstep.core.fabric.counting import Way, differing, found_of, stated_sts, ways_of_counting
from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Place, Run
from rillstep.core.fabric.hook import Surroundings, Trouble, Turn
from rillstep.core.fabric.piece import MOST_ROUNDS, RowsByNumber
from rillstep.core.fabric.trace import TracedPlace, TracedStitch
from rillstep.core.fabric.whole import work_pattern
from rillstep.core.fabric.worked_lines import LineWork, PieceEnd, SizeWork
from rillstep.core.fabric.working import RowWork, Trace, trace_row, work_row, work_setup

__all__ = [
    "EMPTY",
    "MOST_ROUNDS",
    "Counts",
    "Edge",
    "LineWork",
    "PieceEnd",
    "Place",
    "RowWork",
    "RowsByNumber",
    "Run",
    "SizeWork",
    "Surroundings",
    "Trace",
    "TracedPlace",
    "TracedStitch",
    "Trouble",
    "Turn",
    "Way",
    "Worked",
    "differing",
    "found_of",
    "stated_sts",
    "trace_row",
    "ways_of_counting",
    "work_pattern",
    "work_row",
    "work_setup",
]
