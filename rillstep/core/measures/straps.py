"""Straps and handles that hang: a strap that hangs d below two points a apart is 2 sqrt(d^2 + (a/2)^2) long."""

import math

from rillstep.core.gauge import Gauge

# A worked chain or strap grows this much under a usual load. A default, named as such
# wherever it is used, until a strap has been hung and measured.
HANDLE_STRETCH = 0.05


def rise_of(length_mm: float, gap_mm: float) -> float:
    """How high in mm a strap of that length stands over a gap; 0 where it is pulled tight."""
    return math.sqrt(length_mm**2 - gap_mm**2) / 2 if length_mm > gap_mm else 0.0


def drop_of(chain: int, skip: int, gauge: Gauge, allowance_mm: float = 0.0) -> float:
    """Drop in mm of a loaded handle of `chain` chains, worked over, over `skip` skipped stitches (0 if it is pulled
    tight)."""
    return rise_of(chain * gauge.chain_mm * (1 + HANDLE_STRETCH) - allowance_mm, skip * gauge.width_mm)


def handle_length_mm(drop_mm: float, gap_mm: float, allowance_mm: float = 0.0) -> float:
    """Worked (unloaded) length in mm of a handle for a drop, over a gap, with an allowance for the shoulder."""
    loaded = 2 * math.sqrt(drop_mm**2 + (gap_mm / 2) ** 2) + allowance_mm
    return loaded / (1 + HANDLE_STRETCH)
