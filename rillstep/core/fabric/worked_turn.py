"""One round of a line, as it was worked."""

from dataclasses import dataclass

from rillstep.core.fabric.edge import Edge
from rillstep.core.fabric.hook import Surroundings
from rillstep.core.tree import Row


@dataclass(frozen=True)
class Turn:
    """One round of a line: whose instructions were worked, on which edge, and what it could reach besides.

    turned: the next row meets its places in the opposite order.
    """

    source: Row
    edge: Edge
    around: Surroundings
    turned: bool
