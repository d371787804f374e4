"""Yarn for the screen, rounded once: print, parts and testers' pages show the same figures."""

import math
from collections.abc import Sequence
from typing import Literal

from rillstep.core.proof import Proof
from rillstep.core.yarn import ColourNeed, Known, Range
from rillstep.document import Design
from rillstep.services import views
from rillstep.services.yarn_needs import SizeYarn, facts_of, gauge_of

# The drawer is enough where it is in so many of 100 bags.
LIKELY = 0.9
# Below this it is hardly enough.
_MAYBE = 0.5
_TIGHTER = 0.95


def rounded(one: Range) -> tuple[int, int, int]:
    """Grams as they are shown: the middle to the nearest, the ends outwards."""
    return round(one.grams), math.floor(one.low_g + 1e-9), math.ceil(one.high_g - 1e-9)


def chance_shown(chance: float) -> int:
    """A chance in per cent; nothing is certain before it is made."""
    return min(99, max(1, round(100 * chance)))


def yarn_called(design: Design, colour: str) -> str:
    """The yarn of a colour, as readers are told of it: "B: Quiet Meridian", or its name alone."""
    yarn = next((one for one in design.yarns if one.colour == colour), design.yarns[0])
    return f"{yarn.colour}: {yarn.name}" if yarn.colour else yarn.name


def yarn_view(design: Design, needed: SizeYarn | None) -> views.YarnView | None:
    """The yarn of a size for the screen."""
    if needed is None:
        return None
    grams, low, high = rounded(needed.whole)
    own, own_low, own_high = rounded(needed.own)
    colours = [_colour_view(design, one) for one in needed.colours]
    enough = [one.enough for one in colours]
    fits = None if None in enough else all(one is not None and one >= 100 * LIKELY for one in enough)
    return views.YarnView(
        metres=round(needed.metres), grams=grams, low_g=low, high_g=high, own_grams=own, own_low_g=own_low,
        own_high_g=own_high, balls=needed.balls, weighed=needed.weighed, colours=colours,
        pieces=[
            views.PieceYarnView(
                piece=one.piece, grams=shown[0], low_g=shown[1], high_g=shown[2], basis=one.basis,
            )
            for one in needed.pieces for shown in (rounded(one.need),)
        ],
        within=list(dict.fromkeys(needed.within)), missing=list(needed.missing),
        once=list(needed.once), fits=fits,
    )  # fmt: skip


def _colour_view(design: Design, need: ColourNeed) -> views.ColourYarnView:
    yarn = next((one for one in design.yarns if one.colour == need.colour), design.yarns[0])
    grams, low, high = rounded(need.other)
    enough = None if yarn.have_g is None else chance_shown(need.other.likely_within(yarn.have_g))
    return views.ColourYarnView(
        colour=need.colour, yarn=yarn.name, metres=round(need.metres), grams=grams, low_g=low, high_g=high,
        balls=need.balls, grams_per_ball=yarn.grams_per_ball, left_g=round(need.left_g), have_g=yarn.have_g,
        enough=enough, lasts=_lasts(enough),
    )  # fmt: skip


def _lasts(enough: int | None) -> Literal["likely", "maybe", "hardly"] | None:
    if enough is None:
        return None
    return "likely" if enough >= 100 * LIKELY else "maybe" if enough >= 100 * _MAYBE else "hardly"


def answers_view(
    design: Design, proof: Proof, sizes: Sequence[views.YarnView | None], learnt: Known
) -> views.YarnAnswersView:
    """What the designer asks of the yarn, over all sizes."""
    fitting = [
        (yarn.grams, name)
        for yarn, name in zip(sizes, proof.pattern.sizes, strict=True) if yarn is not None and yarn.fits
    ]  # fmt: skip
    known = [yarn for yarn in sizes if yarn is not None]
    gauge = gauge_of(proof)
    tighter = None
    if gauge is not None and known:
        # So many more stitches on the same area, each of them so much smaller.
        tighter = round(100 * (_TIGHTER / _TIGHTER**2 - 1))
    return views.YarnAnswersView(
        problem=problem_of(design, proof), instead=_instead(design),
        in_drawer=any(yarn.have_g is not None for yarn in design.yarns),
        largest=max(fitting)[1] if fitting else None, scarce=_scarce(known),
        doubted=list(learnt.doubted) if known else [], tighter=tighter,
    )  # fmt: skip


def problem_of(design: Design, proof: Proof) -> str:
    """Why no yarn is estimated, and what to do; empty where it is."""
    if gauge_of(proof) is None:
        return "The text names no gauge."
    if not design.yarns:
        return "It is not known what the label of the yarn says."
    without = next((yarn.name for yarn in design.yarns if facts_of(yarn) is None), None)
    if without is not None:
        return f"“{without}” has no metres: write what its label says, or measure a length of it and weigh it."
    return ""


def _instead(design: Design) -> list[str]:
    """Thinner yarns that weigh as much a metre together as the first one with its strands."""
    facts = facts_of(design.yarns[0]) if design.yarns else None
    if facts is None:
        return []
    per_100 = 100 * facts.metres_per_ball / facts.grams_per_ball / facts.strands
    return [
        f"{many} strand{'s' if many > 1 else ''} with about {round(per_100 * many, -1):.0f} m in 100 g"
        for many in (1, 2, 3) if many != facts.strands
    ]  # fmt: skip


def _scarce(sizes: Sequence[views.YarnView]) -> str | None:
    """The colour that is likeliest not to be enough, where several were said and one is not."""
    found = [
        (one.enough, f"{one.colour}: {one.yarn}" if one.colour else one.yarn)
        for yarn in sizes if len(yarn.colours) > 1 for one in yarn.colours if one.enough is not None
    ]  # fmt: skip
    return min(found)[1] if found and min(found)[0] < 100 * LIKELY else None
