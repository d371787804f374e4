"""What a tote is to be: its ways of working, what each size must measure, and its free numbers."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from rillstep.core.gauge import Gauge

# The numbers that can be locked by hand in one size, in the order in which they are worked.
LOCKABLE = ("side", "base_rounds", "extra", "around", "wall_rounds", "handle_skip", "handle_chain")


@dataclass(frozen=True)
class TotePlan:
    """A tote: oval base, plain wall, brim, and two handles worked as part of the edge.

    brim_rounds: plain rounds between the wall and the handle round.
    over_rounds: rounds worked over chains and stitches after the handle round.
    wall_multiple: the number of stitches around is a multiple of this.
    handle_share: how much of the front a handle opening takes, 0 to 1.
    allowance_mm: extra length of a handle for a shoulder.
    """

    gauge: Gauge
    rounds: Literal["joined", "spiral"] = "joined"
    chain_counts: bool = False
    increases: Literal["stacked", "shifted"] = "stacked"
    base_edge: Literal["plain", "back loops"] = "plain"
    brim_rounds: int = 2
    over_rounds: int = 2
    wall_multiple: int = 1
    handle_share: float = 0.4
    allowance_mm: float = 0.0

    @property
    def stitch(self) -> str:
        return self.gauge.stitch

    @property
    def counted(self) -> bool:
        """Does a starting chain count as a stitch? Never in a spiral, nor for single crochet."""
        return self.chain_counts and self.rounds == "joined" and self.stitch != "sc"

    @property
    def wedges(self) -> int:
        """Increases at each end of the oval in every round.

        A flat disc needs 2 pi h / w increases a round; each end is half a disc. At least 2
        (3 when the starting chain counts, as two of an end's stitches then begin the round).
        """
        ideal = math.pi * self.gauge.height_mm / self.gauge.width_mm
        return max(3 if self.counted else 2, round(ideal))

    @property
    def begin(self) -> int:
        """How many of an end's wedges stand at the beginning of the round: the rest end it."""
        return 2 if self.counted else 1

    @property
    def half_step(self) -> int:
        """Half the stitches around come in steps of this, so that both halves are alike."""
        return self.wall_multiple // math.gcd(self.wall_multiple, 2)

    @property
    def top_rounds(self) -> int:
        """Rounds above the wall: brim, handle round, rounds over it."""
        return self.brim_rounds + 1 + self.over_rounds


@dataclass(frozen=True)
class SizeTarget:
    """What one size must measure, in mm, each with a tolerance either way; locks by name."""

    name: str
    width_mm: float
    height_mm: float
    depth_mm: float
    drop_mm: float
    width_tolerance_mm: float = 10.0
    height_tolerance_mm: float = 10.0
    depth_tolerance_mm: float = 10.0
    drop_tolerance_mm: float = 15.0
    locks: Mapping[str, int] = field(default_factory=dict)


@dataclass(frozen=True)
class ToteCounts:
    """The free numbers of one size, and what follows from them.

    side: straight stitches on each side of the oval; extra: increases added on each long
    side in the first wall round; begin, wedges: as in the plan.
    """

    wedges: int
    begin: int
    side: int
    base_rounds: int
    extra: int
    wall_rounds: int
    handle_skip: int
    handle_chain: int

    @property
    def half(self) -> int:
        """Stitches of the front alone."""
        return self.side + self.wedges * self.base_rounds + self.extra

    @property
    def around(self) -> int:
        return 2 * self.half

    @property
    def before_handle(self) -> int:
        """Stitches from the start of the round to the first handle: its centre is the front's centre."""
        return self.begin * self.base_rounds + (self.side + self.extra - self.handle_skip) // 2

    @property
    def between_handles(self) -> int:
        return self.half - self.handle_skip

    @property
    def after_handle(self) -> int:
        return self.between_handles - self.before_handle

    @property
    def top(self) -> int:
        """Stitches of the rounds over the handles."""
        return 2 * (self.between_handles + self.handle_chain)
