"""A bag round by round, from the base up, in one size: what drawings, checkpoints and flatness are made of."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.measures.bag import Body
from rillstep.core.measures.formulas import Formula
from rillstep.core.measures.piece_rounds import PieceRounds, WorkedRound
from rillstep.core.tree.features import Opening

FLAT_LOW, FLAT_HIGH = 0.95, 1.05
# A base in another stitch than the swatch is measured by an estimated height: only what is far off is told of it.
ESTIMATED_LOW, ESTIMATED_HIGH = 0.85, 1.15


@dataclass(frozen=True)
class RoundShape:
    """One round in one size. Widths and heights in mm.

    sts: stitches around; a handle opening's chains are not part of the body's `width_mm`.
    gap_mm: width of the handle opening in the front, 0 where there is none.
    flatness: only for the rounds of a base; about 0.95 to 1.05 lies flat.
    """

    line: int
    section: int
    number: int
    stitch: str
    sts: int
    width_mm: float
    height_mm: float
    gap_mm: float = 0.0
    flatness: float | None = None


@dataclass(frozen=True)
class SizeShape:
    """One size of a bag, from its worked rounds. All in mm; 0 for what it has not, or what is not known."""

    rounds: tuple[RoundShape, ...]
    straight_mm: float = 0.0
    base_length_mm: float = 0.0
    base_depth_mm: float = 0.0
    width_mm: float = 0.0
    height_mm: float = 0.0
    openings: tuple[Opening, ...] = ()
    drop_mm: float = 0.0


def oval_flatness(sts: int, radius_mm: float, straight: float, width_mm: float) -> float:
    """Stitches there are over stitches that the outline has room for. An oval with straight sides of s stitches lies
    flat where N w equals its outline 2 s w + 2 pi n h.

    radius_mm: the height of all its rounds. width_mm: of a stitch.
    """
    return sts * width_mm / (2 * straight * width_mm + 2 * math.pi * radius_mm)


def profile_of(body: Body, pieces: Sequence[PieceRounds | None], whole: Sequence[Formula]) -> SizeShape:
    """The rounds of a bag's body in their order. whole: the measures of the bag in this size."""
    base = pieces[body.base] if body.base is not None else None
    mine = [one for one in (base, *(pieces[i] for i in body.pieces)) if one is not None]
    if not mine:  # what there is, though it is not known how it is joined
        mine = [one for one in pieces if one is not None]
    rounds: list[RoundShape] = []
    width_mm = 0.0
    openings: tuple[Opening, ...] = ()
    for piece in mine:
        openings = openings or piece.openings
        radius_mm = 0.0
        lies_flat = piece.section.role in ("disc", "oval")
        for one in piece.rounds:
            if lies_flat:
                radius_mm += one.size.height_mm
                rounds.append(_of_base(piece, one, radius_mm))
                continue
            if not one.opening:
                width_mm = one.across_mm / (2 if one.line.kind == "Rnd" else 1)
            rounds.append(_of_wall(piece, one, width_mm))
    mm = {one.name: one.mm or 0.0 for one in whole}
    straight = base.straight * base.rounds[0].size.width_mm if base is not None and base.rounds else 0.0
    return SizeShape(
        tuple(rounds),
        straight,
        mm.get("base length", mm.get("depth", 0.0)),
        mm.get("depth", 0.0),
        mm.get("width", 0.0),
        mm.get("height", 0.0),
        openings,
        mm.get("drop", 0.0),
    )


def _of_base(piece: PieceRounds, one: WorkedRound, radius_mm: float) -> RoundShape:
    width = one.size.width_mm
    flat = oval_flatness(one.counts.sts, radius_mm, piece.straight, width)
    return RoundShape(
        one.line.span.line,
        piece.index,
        one.number,
        one.stitch,
        one.counts.sts,
        piece.straight * width + 2 * radius_mm,
        one.size.height_mm,
        0.0,
        flat,
    )


def _of_wall(piece: PieceRounds, one: WorkedRound, width_mm: float) -> RoundShape:
    sts = one.counts.sts + one.counts.chains if one.opening else one.counts.sts
    gap = piece.openings[0].skip * one.size.width_mm if one.opening and piece.openings else 0.0
    return RoundShape(
        one.line.span.line, piece.index, one.number, one.stitch, sts, width_mm, one.size.height_mm, gap, None
    )
