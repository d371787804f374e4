"""What a bag shall hold: neutral things with their dimensions, what a bag must measure for them, and what fits in it.

A thing stands in a bag that gives way to it: around the bag, twice its width lying flat, go the four sides of the
thing, and its height stays below the mouth. Stretch is not counted on; the ease is room to put a hand in.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from itertools import permutations

# Room beside and above a thing, in mm. Usual values.
EASE_MM, EASE_UP_MM = 15.0, 20.0


@dataclass(frozen=True)
class Thing:
    """A thing as it stands: wide, high and deep in mm. upright: it is kept standing."""

    key: str
    name: str
    width_mm: float
    height_mm: float
    depth_mm: float
    upright: bool = False


THINGS = (
    Thing("phone", "a phone", 78, 160, 10),
    Thing("purse", "a small purse", 110, 95, 25),
    Thing("spectacles", "a spectacle case", 165, 65, 40),
    Thing("eyepiece", "an eyepiece", 60, 100, 60, True),
    Thing("bottle", "a water bottle", 75, 230, 75, True),
    Thing("flask", "a thermos flask", 90, 290, 90, True),
    Thing("paperback", "a paperback", 130, 200, 30),
    Thing("notebook", "a notebook (A5)", 150, 212, 15),
    Thing("tablet", "a tablet", 180, 250, 10),
    Thing("atlas", "a star atlas (A4)", 212, 300, 20),
    Thing("laptop", "a 13 inch computer", 310, 220, 20),
    Thing("lunch", "a lunch box", 190, 130, 75),
    Thing("tripod", "a small folded tripod", 100, 350, 100, True),
    Thing("rug", "a rolled rug", 180, 400, 180),
)


def measures_for(thing: Thing) -> dict[str, float]:
    """What a bag must measure to hold a thing, in mm, by the names of measures."""
    return {
        "width": thing.width_mm + thing.depth_mm + EASE_MM,
        "height": thing.height_mm + EASE_UP_MM,
        "depth": thing.depth_mm,
    }


def fits(thing: Thing, mm: Mapping[str, float]) -> bool:
    """Whether a bag of these measures holds a thing, turned as it may be. Unknown width or height: it is not said."""
    width, height = mm.get("width"), mm.get("height")
    if width is None or height is None:
        return False
    sides = (thing.width_mm, thing.height_mm, thing.depth_mm)
    ways = [sides] if thing.upright else set(permutations(sides))
    return any(wide + deep + EASE_MM <= width and high + EASE_UP_MM <= height for wide, high, deep in ways)
