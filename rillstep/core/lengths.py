"""Lengths for readers. Inside, every length is in millimetres; units are a matter of showing."""

from typing import Literal

Units = Literal["cm", "in"]

MM_PER: dict[Units, float] = {"cm": 10.0, "in": 25.4}

# The width over which gauge is counted, in the reader's unit.
GAUGE_SPAN: dict[Units, int] = {"cm": 10, "in": 4}


def in_units(length_mm: float, units: Units) -> float:
    """Millimetres in the reader's unit, rounded to one decimal as it is printed."""
    return round(length_mm / MM_PER[units] + 1e-9, 1)


def show_length(length_mm: float, units: Units) -> str:
    """For example "24.0 cm" or "9.4 in"."""
    return f"{in_units(length_mm, units):.1f} {units}"


def show_difference(length_mm: float, units: Units) -> str:
    """A signed difference, for example "+0.3 cm" or "−1.3 cm" (with a true minus sign)."""
    value = in_units(abs(length_mm), units)
    if value == 0:
        return f"0.0 {units}"
    return f"{'−' if length_mm < 0 else '+'}{value:.1f} {units}"
