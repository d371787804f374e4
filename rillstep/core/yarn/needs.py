"""Yarn for a size: by colour and by piece, with what else takes yarn, in metres, grams and balls."""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.yarn.model import Known, Range, predicted
from rillstep.core.yarn.priors import TAIL_MM, TIMES_LENGTH, WASTE, Kind
from rillstep.core.yarn.tally import NO_COLOUR, Used

LONGEST_MM = 1_000_000_000.0


@dataclass(frozen=True)
class YarnFacts:
    """What is known of a yarn, of one strand: `strands` are held together. carried: it is not cut where the colour
    changes."""

    grams_per_ball: float
    metres_per_ball: float
    strands: int = 1
    carried: bool = False

    @property
    def grams_per_mm(self) -> float:
        """The weight of what one stitch takes, per mm of one strand."""
        return self.strands * self.grams_per_ball / self.metres_per_ball / 1000


@dataclass(frozen=True)
class Extra:
    """What takes yarn besides stitches. kind: of `TIMES_LENGTH`. length_mm: of one of them; count: how many."""

    kind: str
    length_mm: float
    count: float = 1.0
    colour: str = NO_COLOUR

    @property
    def yarn_mm(self) -> float:
        """The length of yarn in one strand, in mm."""
        return TIMES_LENGTH[self.kind][0] * self.length_mm * self.count


@dataclass(frozen=True)
class ColourNeed:
    """Yarn in one colour: for another maker (that is what a buyer is), and in the designer's own hand.

    balls: whole ones that cover the upper end for another maker. left_g: what the last ball leaves in the middle.
    """

    colour: str
    yarn: YarnFacts
    metres: float
    other: Range
    own: Range
    balls: int
    left_g: float


def prior_g(used: Iterable[Used], yarns: Mapping[str, YarnFacts]) -> dict[Kind, float]:
    """The grams of lines by kind, by the priors. Every colour has a yarn."""
    found: dict[Kind, float] = {}
    for one in used:
        per_mm = yarns[one.colour].grams_per_mm
        for kind, mm in one.lengths_mm.items():
            found[kind] = found.get(kind, 0.0) + min(mm, LONGEST_MM) * per_mm
    return found


def colour_needs(
    used: Sequence[Used], extras: Sequence[Extra], yarns: Mapping[str, YarnFacts], known: Known
) -> tuple[ColourNeed, ...]:
    """The yarn of each colour, in the order in which the colours come. Every colour has a yarn."""
    colours = tuple(dict.fromkeys((*(one.colour for one in used), *(one.colour for one in extras))))
    return tuple(_need(colour, used, extras, yarns[colour], known) for colour in colours)


def _need(colour: str, used: Sequence[Used], extras: Sequence[Extra], yarn: YarnFacts, known: Known) -> ColourNeed:
    grams = _taken_g(colour, used, extras, yarn)
    other, mine = predicted(known, grams), predicted(known, grams, own=True)
    balls = max(1, math.ceil(other.high_g / yarn.grams_per_ball - 1e-9))
    return ColourNeed(
        colour,
        yarn,
        other.grams / yarn.grams_per_ball * yarn.metres_per_ball,
        other,
        mine,
        balls,
        balls * yarn.grams_per_ball - other.grams,
    )


def _taken_g(colour: str, used: Sequence[Used], extras: Sequence[Extra], yarn: YarnFacts) -> dict[Kind, float]:
    """All that a colour takes, in g by the priors: its stitches by kind, and as "seam" its ends, waste and extras."""
    own = [one for one in used if one.colour == colour]
    grams = prior_g(own, {colour: yarn})
    worked_mm = sum(min(mm, LONGEST_MM) for one in own for mm in one.lengths_mm.values())
    changes = 0 if yarn.carried else sum(one.changes for one in own)
    ends = 2 * TAIL_MM * (changes + 1 + math.floor(worked_mm * yarn.grams_per_mm / yarn.grams_per_ball))
    fixed_mm = ends + WASTE * worked_mm + sum(one.yarn_mm for one in extras if one.colour == colour)
    grams["seam"] = grams.get("seam", 0.0) + fixed_mm * yarn.grams_per_mm
    return grams


def taken_g(used: Sequence[Used], extras: Sequence[Extra], yarns: Mapping[str, YarnFacts]) -> dict[Kind, float]:
    """All that a bag takes in all of its colours, in g by the priors: what a weighing of all of it is held against."""
    found: dict[Kind, float] = {}
    for colour in dict.fromkeys((*(one.colour for one in used), *(one.colour for one in extras))):
        for kind, grams in _taken_g(colour, used, extras, yarns[colour]).items():
            found[kind] = found.get(kind, 0.0) + grams
    return found


def whole_need(needs: Sequence[ColourNeed]) -> Range:
    """The grams of all colours together. Their errors are mostly the same (one hand, one kind of stitch), so they are
    added as if they were."""
    whole = sum(one.other.grams for one in needs)
    if not whole:
        return Range(0.0, 0.0, 0.0)
    sd = sum(one.other.sd * one.other.grams for one in needs) / whole
    return Range(whole, sum(one.other.low_g for one in needs), sum(one.other.high_g for one in needs), sd)


def of_piece(used: Sequence[Used], piece: str) -> list[Used]:
    """The lines of one piece."""
    return [one for one in used if one.piece == piece]


def with_yarns(used: Sequence[Used], colours: Iterable[str]) -> list[Used]:
    """The lines with the colours that have a yarn of their own; all others are worked in the one that has no colour."""
    known = {colour.lower(): colour for colour in colours if colour}
    return [replace(one, colour=known.get(one.colour.lower(), NO_COLOUR)) for one in used]
