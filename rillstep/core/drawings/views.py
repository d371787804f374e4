"""All views of a bag in one size: as it lies, its base from above, its pieces laid out flat, and as it hangs."""

from rillstep.core.drawings.flat_pieces import flat_piece, rings, row_strips
from rillstep.core.drawings.lying_bag import lying_bag
from rillstep.core.drawings.outlines import Drawing, Length
from rillstep.core.drawings.worn_strap import worn_strap
from rillstep.core.measures import BagMeasures
from rillstep.core.measures.bag import fold_of
from rillstep.core.measures.piece_rounds import PieceRounds
from rillstep.core.tree import Num


def drawings_of(bag: BagMeasures, size: int, carried: str = "hand") -> list[Drawing]:
    """The views of a bag in one size; what is not known is left out. carried: where it hangs."""
    mm = {one.name: value for one in bag.measures if one.piece is None and (value := one.mm[size]) is not None}
    pieces = bag.pieces[size]
    found = [
        lying_bag(bag.pattern, bag.body, pieces, bag.profiles[size], mm, size),
        _base(bag, pieces, mm),
        *(_piece(bag, index, size) for index in range(len(pieces))),
        worn_strap(mm, carried),
    ]
    return [one for one in found if one is not None and one.outlines]


def _base(bag: BagMeasures, pieces: tuple[PieceRounds | None, ...], mm: dict[str, float]) -> Drawing | None:
    """The base from above, of its own or the rounds that the wall begins with."""
    under = pieces[bag.body.base] if bag.body.base is not None else None
    wall = next((one for i in bag.body.pieces if (one := pieces[i]) is not None), None)
    straight = 0.0
    if under is not None and under.rounds:
        rounds = under.rounds
        straight = under.straight * rounds[0].size.width_mm
        in_rows = rounds[0].line.kind == "Row"
        outlines = row_strips(rounds, False) if in_rows else rings(rounds, straight)
    elif bag.body.build == "wall" and wall is not None and wall.base:
        outlines = rings(wall.base, 0.0)
    else:
        return None
    left, low, right, high = Drawing("base", "", outlines).box
    long = "base length" if "base length" in mm else "depth"
    spans = [Length((left, low), (right, low), (long,))]
    if long != "depth":
        spans.append(Length((right, low), (right, high), ("depth",)))
    return Drawing("base", "The base from above", outlines, tuple(spans))


def _piece(bag: BagMeasures, index: int, size: int) -> Drawing | None:
    """A piece that is laid out by itself: what is drawn as the wall or the base is not drawn again."""
    piece = bag.pieces[size][index]
    if piece is None or index == bag.body.base or (bag.body.build == "wall" and index in bag.body.pieces):
        return None
    title = piece.section.title
    length = next((one.mm[size] for one in bag.measures if one.piece == title and one.name == "length"), None)
    folds: list[int] = []
    fold = fold_of(bag.pattern) if bag.body.build == "folded" and index in bag.body.pieces else None
    for item in fold.items if fold is not None else ():
        many = item.number.values[size] if isinstance(item.number, Num) else None
        if many is not None and item.what != "half":
            folds.append((folds[-1] if folds else 0) + many)
        elif item.what == "half":
            folds.append(len(piece.rounds) // 2)
    return flat_piece(piece, length, size, folds)
