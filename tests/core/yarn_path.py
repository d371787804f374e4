"""The yarn of a stitch, followed along its path: apart from the table of priors, and from nothing but its geometry.

A stitch is so wide and so high, and the yarn so thick (its diameter in the fabric, where it is pressed together). Loops
are followed at the middle of the yarn: legs are straight, turns are half circles around what they hold. Lengths in mm.
"""

import math


def _leg(along: float, across: float) -> float:
    return math.hypot(along, across)


def _half_turn(held: float, thick: float) -> float:
    """Half way around something of a diameter, at the middle of the yarn."""
    return math.pi * (held + thick) / 2


def chain(width: float, thick: float) -> float:
    """Two legs from one loop into the next, the turn around its neck (two strands), and the bump behind."""
    return 2 * _leg(width + thick / 2, thick / 2) + _half_turn(thick, thick) + width


def _top(width: float, thick: float) -> float:
    """The loop on top of each stitch is a chain, without the bump: that is the way to the next stitch."""
    return 2 * _leg(width + thick / 2, thick / 2) + _half_turn(thick, thick) + width / 2


def _up(height: float, width: float, held: float, thick: float) -> float:
    """A loop drawn up through the fabric: two slanting legs, and the turn around what it goes under."""
    return 2 * _leg(height, width / 2) + _half_turn(held, thick)


def _over(height: float, width: float, thick: float) -> float:
    """Yarn laid over the hook: a strand down and up again beside the loop, and the turn around its neck."""
    return 2 * _leg(height, width / 2) / 2 + _half_turn(thick, thick)


def slip(width: float, thick: float) -> float:
    """A chain that is drawn through the two strands below."""
    return chain(width, thick)


def sc(width: float, height: float, thick: float, held: float = 2.0) -> float:
    """Held: what it goes under, in strands: two of a stitch, one of a single loop, three of a chain."""
    return _up(height, width, held * thick, thick) + _top(width, thick)


def hdc(width: float, height: float, thick: float) -> float:
    return sc(width, height, thick) + _over(height, width, thick)


def dc(width: float, height: float, thick: float, held: float = 2.0) -> float:
    """Two loops on each other, half the height each, with the yarn that was laid over the hook beside both."""
    half = height / 2
    first = _up(half, width, held * thick, thick)
    second = 2 * _leg(half, thick) + _half_turn(2 * thick, thick)
    return first + _over(height, width, thick) + second + _top(width, thick)


def post_dc(width: float, height: float, thick: float) -> float:
    """It goes behind the post below, half a row further down: its first loop is longer by that, and lies around three
    strands side by side and the way to them and back."""
    deeper = 2 * height / 2 + height / 2  # both legs, and the yarn laid over
    around = 2 * (width - 3 * thick) / 2 + _half_turn(3 * thick, thick) - _half_turn(2 * thick, thick)
    return dc(width, height, thick) + deeper + around
