"""The bag as it lies, from its worked rounds: the wall round by round with its handles, panels, folds, squares."""

from collections.abc import Mapping, Sequence

from rillstep.core.drawings.flat_pieces import frames, half_rings, rings, row_strips
from rillstep.core.drawings.outlines import FABRIC, Drawing, Length, Outline, hanging, rectangle, shifted
from rillstep.core.measures.bag import Body, fold_of
from rillstep.core.measures.piece_rounds import PieceRounds, height_mm
from rillstep.core.measures.profile import SizeShape
from rillstep.core.measures.single_pieces import is_sideways
from rillstep.core.tree import Num, Pattern

_FILLED = 0.82
# How thick a handle is drawn where no round is worked over its chain, in mm.
_THIN_MM = 6.0


def lying_bag(
    pattern: Pattern,
    body: Body,
    pieces: Sequence[PieceRounds | None],
    shape: SizeShape,
    mm: Mapping[str, float],
    size: int,
) -> Drawing | None:
    """The bag in one size; None where it is not known how its pieces are joined. mm: the measures of the bag."""
    mine = [one for i in body.pieces if (one := pieces[i]) is not None and one.rounds]
    if not mine:
        return None
    outlines: tuple[Outline, ...]
    notes: tuple[str, ...]
    match body.build:
        case "wall":
            outlines, notes = _wall(shape, mm), ()
        case "panels":
            outlines, notes = (row_strips(mine[0].rounds, is_sideways(mine[0].section)), ("The back is alike.",))
        case "folded":
            outlines, notes = _folded(pattern, mine[0], size), ()
        case "squares":
            outlines, notes = _squares(mine[0], mm), ("The front.",)
        case "half-rounds":
            outlines, notes = half_rings(mine[0].rounds), ("The front, its straight edge at the bottom.",)
        case "rounds":
            outlines, notes = rings(mine[0].rounds, 0.0), ("The back is alike.",)
        case _:
            return None
    if not outlines:
        return None
    left, low, right, _ = Drawing("bag", "", outlines).box
    high = max(y for one in outlines if one.kind in FABRIC for _, y in one.points)
    spans = (Length((left, low), (right, low), ("width",)), Length((right, low), (right, high), ("height",)))
    return Drawing("bag", "The bag as it lies", outlines, spans, 1, notes)


def _wall(shape: SizeShape, mm: Mapping[str, float]) -> tuple[Outline, ...]:
    """Rounds upon each other, each as wide as it lies; where there is an opening, the handle stands over it."""
    found: list[Outline] = []
    up = foot = thick = gap = 0.0
    line = 0
    for one in shape.rounds:
        if one.flatness is not None:
            continue  # the base lies under it
        strip = (up, one.height_mm * _FILLED)
        label = f"Rnd {one.number}"
        if one.gap_mm and mm.get("drop"):
            side = (one.width_mm - one.gap_mm) / 2
            for left in (-one.width_mm / 2, one.gap_mm / 2):
                points = rectangle(left, strip[0], side, strip[1])
                found.append(Outline("work", points, True, one.line, label, one.sts))
            if not gap:
                gap, foot, line = one.gap_mm, up, one.line
            thick += one.height_mm
        else:
            points = rectangle(-one.width_mm / 2, strip[0], one.width_mm, strip[1])
            found.append(Outline("work", points, True, one.line, label, one.sts))
        up += one.height_mm
    if gap:
        inner = hanging(-gap / 2, gap / 2, foot, mm["drop"])
        thick = max(thick - shape.rounds[-1].height_mm, _THIN_MM) if thick else _THIN_MM
        outer = hanging(-gap / 2 - thick, gap / 2 + thick, foot, mm["drop"] + thick)
        found.append(Outline("handle", (*outer, *reversed(inner)), True, line, "Handle"))
    return tuple(found)


def _folded(pattern: Pattern, panel: PieceRounds, size: int) -> tuple[Outline, ...]:
    """The front of a panel that is folded, with its flap over it."""
    fold = fold_of(pattern)
    parts: dict[str, tuple[int, int]] = {}
    at = 0
    for item in fold.items if fold is not None else ():
        many = item.number.values[size] if isinstance(item.number, Num) else None
        if many is None or item.what == "half":
            break
        parts[item.what] = (at, at + many)
        at += many
    begin, end = parts.get("front", (0, max(1, len(panel.rounds) // 2)))
    sideways = is_sideways(panel.section)
    front = row_strips(panel.rounds[begin:end], sideways)
    if "flap" not in parts or sideways:
        return front
    top = height_mm(panel.rounds[begin:end])
    flap = row_strips(panel.rounds[slice(*parts["flap"])], False)
    # The flap hangs down from the upper edge: its first row is at the fold.
    hung = tuple(
        Outline("flap", tuple((x, top - y) for x, y in one.points), True, one.line, one.label, one.sts) for one in flap
    )
    return (*front, *hung)


def _squares(square: PieceRounds, mm: Mapping[str, float]) -> tuple[Outline, ...]:
    """Squares side by side, as many as fill the front; a part of one where it is folded across the middle."""
    one = frames(square.rounds)
    side = max(x for outline in one for x, _ in outline.points) * 2
    if not side or "width" not in mm or "height" not in mm:
        return ()
    across, up = round(mm["width"] / side), mm["height"] / side
    found: list[Outline] = []
    for column in range(across):
        for row in range(int(up)):
            right = (column - (across - 1) / 2) * side
            found += [
                Outline(
                    each.kind, shifted(each.points, right, (row + 0.5) * side), True, each.line, each.label, each.sts
                )
                for each in one
            ]
    if up > int(up):
        line, part = one[0].line, up - int(up)
        found += [
            Outline("square", rectangle((at - across / 2) * side, int(up) * side, side, part * side), True, line)
            for at in range(across)
        ]
    return tuple(found)
