"""A strap or handle on a neutral outline of a body, empty and loaded, so that a drop is seen and not only read."""

from collections.abc import Mapping

from rillstep.core.drawings.outlines import Drawing, Length, Outline, Point, rectangle
from rillstep.core.measures.straps import HANDLE_STRETCH

# A neutral body of 1.70 m, half of its outline in mm from the ground up: to the right of the middle.
_HALF: tuple[Point, ...] = (
    (40, 0), (110, 0), (95, 90), (120, 480), (165, 820), (175, 900), (140, 1080), (150, 1250), (195, 1370),
    (180, 1420), (60, 1460), (55, 1500), (85, 1580), (75, 1670), (0, 1700),
)  # fmt: skip
# Where a bag hangs, from the ground up and from the middle, in mm.
_HANGS: Mapping[str, Point] = {"shoulder": (165, 1415), "elbow": (215, 1080), "hand": (225, 760)}


def worn_strap(mm: Mapping[str, float], carried: str) -> Drawing | None:
    """The bag as it hangs. mm: the measures of the bag; None where no drop is known of it, and no strap."""
    if "width" not in mm or "height" not in mm:
        return None
    drop = mm.get("drop")
    if drop is None and "strap" in mm:  # both ends sit at the sides
        half = mm["strap"] * (1 + HANDLE_STRETCH) / 2
        gap = mm["width"] / 2
        drop = (half**2 - gap**2) ** 0.5 if half > gap else 0.0
        carried = "shoulder"
    if not drop:
        return None
    empty = drop / (1 + HANDLE_STRETCH)
    x, y = _HANGS[carried]
    body = (*_HALF, *((-right, up) for right, up in reversed(_HALF)))
    wide = min(mm["width"], 2 * drop)
    found = [Outline("body", body)]
    for word, length in (("empty", empty), ("loaded", drop)):
        feet = ((x - wide / 2, y - length), (x, y), (x + wide / 2, y - length))
        found.append(Outline("edge" if word == "empty" else "strap", feet, False, 0, word))
    bag = rectangle(x - mm["width"] / 2, y - drop - mm["height"], mm["width"], mm["height"])
    found.append(Outline("work", bag))
    on_ground = ("Loaded, it reaches the ground.",) if y - drop - mm["height"] < 0 else ()
    notes = (f"Hung from the {carried}, loaded ({HANDLE_STRETCH:.0%} longer, as usual); dotted: empty.", *on_ground)
    span = Length((x + mm["width"] / 2 + 20, y), (x + mm["width"] / 2 + 20, y - drop), ("drop",))
    return Drawing("strap", "As it hangs", tuple(found), (span,), 1, notes)
