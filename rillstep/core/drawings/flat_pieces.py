"""Pieces laid out flat: rows as strips, discs and ovals as rings, squares as frames, chains as a line."""

from collections.abc import Sequence

from rillstep.core.drawings.outlines import FABRIC, Drawing, Length, Outline, Point, half_round, rectangle, stadium
from rillstep.core.measures.piece_rounds import PieceRounds, WorkedRound, height_mm
from rillstep.core.measures.single_pieces import HALF_ROUND, is_sideways

# A strip is drawn a little lower than it is, so that rounds are told apart.
_FILLED = 0.82
# How wide a chain is drawn, in mm: no length of it follows from this.
_CHAIN_MM = 4.0


def flat_piece(piece: PieceRounds, length_mm: float | None, size: int, folds: Sequence[int] = ()) -> Drawing | None:
    """A piece as it lies on the table. length_mm: of a piece that is nothing but a chain. folds: after how many rows it
    is folded. None where nothing of it is known."""
    title, many = piece.section.title, piece.section.made(size)
    if not piece.rounds:
        if not length_mm:
            return None
        chain = Outline("strap", rectangle(-length_mm / 2, 0, length_mm, _CHAIN_MM), True, _first_line(piece))
        spans = (Length((-length_mm / 2, 0), (length_mm / 2, 0), (f"{title}.length",)),)
        return Drawing("piece", title, (chain,), spans, many)
    outlines = _outlines(piece, folds)
    return Drawing("piece", title, outlines, _spans(piece, outlines), many, _notes(piece))


def _first_line(piece: PieceRounds) -> int:
    return piece.section.lines[0].span.line if piece.section.lines else 0


def _outlines(piece: PieceRounds, folds: Sequence[int]) -> tuple[Outline, ...]:
    rows = piece.rounds[0].line.kind == "Row"
    if piece.section.role == "fan" or HALF_ROUND.search(piece.section.title):
        return half_rings(piece.rounds)
    if piece.section.role == "square" and not rows:
        return frames(piece.rounds)
    if rows:
        strips = row_strips(piece.rounds, is_sideways(piece.section), tall=_is_tall(piece))
        return (*strips, *_fold_lines(piece.rounds, folds))
    if piece.lies_flat:
        return rings(piece.rounds, piece.straight * piece.rounds[0].size.width_mm)
    return row_strips(piece.rounds, False, around=True)


def _is_tall(piece: PieceRounds) -> bool:
    """Whether a piece is much longer than wide: it is laid across, as a strap is."""
    return height_mm(piece.rounds) > 3 * max(one.across_mm for one in piece.rounds)


def _label(one: WorkedRound) -> str:
    return f"{one.line.kind} {one.number}"


def row_strips(
    rounds: Sequence[WorkedRound], sideways: bool, tall: bool = False, around: bool = False
) -> tuple[Outline, ...]:
    """Rows one upon the other; beside each other for what is worked sideways, or lies across as it is long. around:
    what is worked in rounds lies flat, half as wide."""
    found: list[Outline] = []
    at = 0.0
    beside = sideways or tall
    total = height_mm(rounds)
    for one in rounds:
        across, high = one.across_mm / (2 if around else 1), one.size.height_mm
        if beside:
            points = rectangle(at - total / 2, 0, high * _FILLED, across)
        else:
            points = rectangle(-across / 2, at, across, high * _FILLED)
        found.append(Outline("work", points, True, one.line.span.line, _label(one), one.counts.sts))
        at += high
    return tuple(found)


def rings(rounds: Sequence[WorkedRound], straight_mm: float) -> tuple[Outline, ...]:
    """A disc or an oval from above: the last round first, so that each lies on the one around it."""
    radius = height_mm(rounds)
    found: list[Outline] = []
    for one in reversed(rounds):
        points = stadium(straight_mm, radius, 0.0)
        found.append(Outline("work", points, True, one.line.span.line, _label(one), one.counts.sts))
        radius -= one.size.height_mm
    return tuple(found)


def half_rings(rounds: Sequence[WorkedRound]) -> tuple[Outline, ...]:
    """A half-round, row by row."""
    found: list[Outline] = []
    inner = 0.0
    for one in rounds:
        outer = inner + one.size.height_mm
        points = half_round(inner + one.size.height_mm * _FILLED, inner)
        found.append(Outline("work", points, True, one.line.span.line, _label(one), one.counts.sts))
        inner = outer
    return tuple(found)


def frames(rounds: Sequence[WorkedRound]) -> tuple[Outline, ...]:
    """A square that is worked in rounds: each side is a quarter of what is around it."""
    found: list[Outline] = []
    for one in reversed(rounds):
        side = one.across_mm / 4
        points = rectangle(-side / 2, -side / 2, side, side)
        found.append(Outline("square", points, True, one.line.span.line, _label(one), one.counts.sts))
    return tuple(found)


def _fold_lines(rounds: Sequence[WorkedRound], folds: Sequence[int]) -> list[Outline]:
    wide = max(one.across_mm for one in rounds) / 2
    heights = [height_mm(rounds[:at]) for at in folds if 0 < at < len(rounds)]
    return [Outline("fold", ((-wide - 6, up), (wide + 6, up)), False) for up in heights]


def _spans(piece: PieceRounds, outlines: Sequence[Outline]) -> tuple[Length, ...]:
    """Across and up, by the names that the measures of the piece may have."""
    left, low, right, high = Drawing("piece", "", tuple(one for one in outlines if one.kind in FABRIC)).box
    title = piece.section.title
    flat = piece.rounds[0].line.kind != "Row" and piece.lies_flat
    across: tuple[Point, Point] = ((left, low), (right, low))
    up: tuple[Point, Point] = ((right, low), (right, high))
    names = ("length", "width", "height", "side", "diameter", "depth")
    measures = tuple(f"{title}.{name}" for name in names)
    return (
        (Length(*across, measures),)
        if flat and not piece.straight
        else (Length(*across, measures), Length(*up, measures))
    )


def _notes(piece: PieceRounds) -> tuple[str, ...]:
    return () if piece.known else ("A row of this piece does not come out; it is drawn as it is stated.",)
