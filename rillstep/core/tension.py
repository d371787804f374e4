"""Tension: the gauge to expect from another hook or yarn, and how a hand that is off comes back to a gauge.

Source: a loop is as wide as hook and yarn together make it. Hook and yarn scaled by the same share scale the stitch by
it, so their two shares are 1 together; that the hook has a little more of it is an estimate (half a millimetre more at
4.5 mm takes one stitch of 15, as swatches in one yarn show).
"""

from dataclasses import dataclass

from rillstep.core.gauge import Gauge

# The share that hook and yarn have in the size of a stitch: exponents of the ratio of their thickness. Estimates.
HOOK_SHARE = 0.55
YARN_SHARE = 1 - HOOK_SHARE
# Hooks as they are sold, in mm.
HOOKS_MM = (2.0, 2.25, 2.5, 2.75, 3.0, 3.25, 3.5, 3.75, 4.0, 4.5, 5.0, 5.5, 6.0, 6.5, 7.0, 8.0, 9.0, 10.0, 12.0, 15.0)
# A gauge that is off by less is as good as counting allows.
WITHIN = 0.03
# What is left of a row's height after the hook, in mm, that is worth a word.
WORTH_MM = 0.2


@dataclass(frozen=True)
class Correction:
    """How a hand comes back to a gauge. wider: by which share its stitches are too wide (below 0: too narrow). hook_mm:
    the hook to take; None where the width is right. loop_mm: by how much each loop has to be drawn up higher (below 0:
    held lower) with that hook; 0 where the height is right then. left: by which share the width is still off with that
    hook, as no hook between is sold."""

    wider: float
    hook_mm: float | None
    loop_mm: float
    left: float


def expected(
    gauge: Gauge, hook_mm: float, other_hook_mm: float, metres_per_gram: float, other_metres_per_gram: float
) -> Gauge:
    """The gauge to expect with another hook and yarn; each pair of values is positive. A yarn is as thick as the root
    of what a metre of it weighs."""
    thicker = (metres_per_gram / other_metres_per_gram) ** 0.5
    times = _times(other_hook_mm, hook_mm) * thicker**YARN_SHARE
    return Gauge(gauge.stitch, gauge.width_mm * times, gauge.height_mm * times)


def correction(wanted: Gauge, own: Gauge, hook_mm: float) -> Correction:
    """How a hand that has a gauge with a hook comes to the one that is wanted, in the same stitch."""
    wider = own.width_mm / wanted.width_mm - 1
    hook, times = None, 1.0
    if abs(wider) > WITHIN:
        near = min((*HOOKS_MM, hook_mm), key=lambda one: abs(own.width_mm * _times(one, hook_mm) - wanted.width_mm))
        if near != hook_mm:
            hook, times = near, _times(near, hook_mm)
    higher_mm = wanted.height_mm - own.height_mm * times
    left = own.width_mm * times / wanted.width_mm - 1
    off = abs(higher_mm) > max(WORTH_MM, WITHIN * wanted.height_mm)
    return Correction(wider, hook, higher_mm if off else 0.0, left)


def _times(other_hook_mm: float, hook_mm: float) -> float:
    """How many times as wide a stitch is with another hook."""
    return float((other_hook_mm / hook_mm) ** HOOK_SHARE)
