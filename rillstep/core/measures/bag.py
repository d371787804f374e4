"""Measures of a bag, made of its pieces by how they are joined.

A wall in rounds stands on its base. Without a wall, panels are seamed, one panel is folded, squares are laid out, or
half-rounds are joined by a gusset. What the text does not tell is not known, and no measure is made of it. Nothing is
summed over pieces that do not stand on each other.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.measures.arrangement import layout_of
from rillstep.core.measures.formulas import Formula, of_rounds, sum_of_heights
from rillstep.core.measures.piece_rounds import PieceRounds, WorkedRound, height_mm
from rillstep.core.measures.single_pieces import (
    HALF_ROUND,
    is_sideways,
    mouth_and_foot,
    opening_formulas,
    piece_formulas,
)
from rillstep.core.measures.straps import HANDLE_STRETCH, rise_of
from rillstep.core.tree import Check, Num, Pattern, Section, words_of

Build = Literal["wall", "panels", "folded", "squares", "half-rounds", "rounds", "none", "unknown"]

# What is never the body of a bag, by its name.
_BESIDE = re.compile(
    r"\b(?:strap|handle|cord|tie|drawstring|strip|band|belt|loop|gusset|pocket|trim|tassel|edging|border|i-cord|flap|"
    r"tab|ear|lanyard|lining|closure|button|bow|flower|leaf|leaves|charm|appliqu[eé]|keeper|fringe|pom-?pom)s?\b",
    re.IGNORECASE,
)
_MAIN = re.compile(r"\b(?:body|wall|walls|bag|main|sides|pouch|purse|tote|basket)\b", re.IGNORECASE)
# Handles and edges that are worked in rounds on the wall go up with it.
_GROWN = re.compile(r"\b(?:handle|edging|border)s?\b", re.IGNORECASE)
_EDGE = re.compile(r"\b(?:edge|edging|rim|joining|joined|join|seam|border|trim|assembly|finishing)\b", re.IGNORECASE)
_ROUND = re.compile(r"\b(?:circle|disc|round)s?\b", re.IGNORECASE)
_SIDE = re.compile(r"side|sides|side strip", re.IGNORECASE)
_SEAMED = re.compile(
    r"\b(?:seam|sew|whip ?stitch|mattress|join|joined|joining|together|attach|slip stitch|connect|assembl|matching|"
    r"both (?:layers|panels|pieces))\w*\b",
    re.IGNORECASE,
)
_IN_HALF = re.compile(r"\bfold(?:ed|ing)?\b[^.;]{0,40}\bin half\b", re.IGNORECASE)


def is_beside(section: Section) -> bool:
    """Whether a piece is no part of a bag's body: a strap, a cord, a gusset, a pocket, a flap, a trim. Handles and
    edges that go on from another piece in rounds belong to it, whatever they are called."""
    goes_on = section.continues is not None and not section.worked.startswith("rows")
    grown = goes_on and _GROWN.search(section.title) is not None
    return section.role in ("strip", "tube", "trim") or (_BESIDE.search(section.title) is not None and not grown)


@dataclass(frozen=True)
class Body:
    """What a bag is built of: its wall or panels, and the base under them. why: what is missing, where that is so."""

    build: Build
    pieces: tuple[int, ...] = ()
    base: int | None = None
    why: str = ""


def body_of(pattern: Pattern, pieces: Sequence[PieceRounds | None]) -> Body:
    """What a bag is built of. pieces: as they are worked in a size."""
    sections = pattern.sections
    mine = [i for i, one in enumerate(pieces) if one is not None and one.rounds and not is_beside(sections[i])]
    single = [i for i in mine if max(sections[i].make) < 3]
    around = [i for i in single if _is_wall(pieces[i])]
    groups = _standing(sections, around)
    discs = [i for i in mine if _is_disc(sections[i], pieces[i])]
    two = sum(max(sections[i].make) for i in discs) == 2
    walls = [group for group in groups if not _joins_panels(sections, group, two)]
    if len(walls) > 1:
        walls = [group for group in walls if any(_MAIN.search(sections[i].title) for i in group)] or walls
    if len(walls) == 1:
        return Body("wall", tuple(walls[0]), _under(sections, walls[0][0], mine))
    if walls:
        return Body("unknown", why="it is not told which of its pieces in rounds is the wall")
    joined = [i for group in groups for i in group]
    rest = [i for i in mine if i not in joined]
    return _of_flat_pieces(pattern, pieces, rest, discs, bool(joined))


def _is_wall(piece: PieceRounds | None) -> bool:
    """Whether a piece in rounds goes up, and is not all base, square or half-round."""
    if piece is None or piece.rounds[0].line.kind == "Row" or piece.section.role in ("square", "fan"):
        return False
    return not piece.lies_flat and max(piece.section.make) == 1


def _index(sections: Sequence[Section], title: str | None) -> int | None:
    wanted = (title or "").lower()
    return next((i for i, one in enumerate(sections) if wanted and one.title.lower() == wanted), None)


def _standing(sections: Sequence[Section], around: Sequence[int]) -> list[list[int]]:
    """Pieces in rounds that stand upon each other, from the lowest up."""
    groups: list[list[int]] = []
    for index in around:
        below = _index(sections, sections[index].continues)
        on = next((group for group in groups if below in group), None)
        if on is not None and sections[index].on is None:
            on.append(index)
        else:
            groups.append([index])
    return groups


def _is_disc(section: Section, piece: PieceRounds | None) -> bool:
    """Whether a piece is round and flat: it is nothing but a base, or one of two circles."""
    if piece is None or piece.rounds[0].line.kind == "Row" or section.role in ("square", "fan"):
        return False
    return piece.lies_flat or (max(section.make) == 2 and _ROUND.search(section.title) is not None)


def _joins_panels(sections: Sequence[Section], group: Sequence[int], two_discs: bool) -> bool:
    """Whether rounds only join panels, or run along their edge: "Joining", "Top edge"; "Side" between two discs."""
    edge = all(_EDGE.search(sections[i].title) for i in group)
    return edge or (two_discs and all(_SIDE.fullmatch(sections[i].title.strip()) for i in group))


def _under(sections: Sequence[Section], lowest: int, mine: Sequence[int]) -> int | None:
    """The base that a wall goes on from."""
    below = _index(sections, sections[lowest].continues)
    return below if below is not None and below in mine else None


def _all_words(pattern: Pattern) -> str:
    return ". ".join(words for section in pattern.sections for line in section.lines for words in words_of(line))


def _of_flat_pieces(
    pattern: Pattern, pieces: Sequence[PieceRounds | None], mine: Sequence[int], discs: Sequence[int], joined: bool
) -> Body:
    sections, words = pattern.sections, _all_words(pattern)
    motifs = [i for i in mine if sections[i].role == "square" or max(sections[i].make) > 2]
    if motifs:
        if layout_of(pattern) is not None and sections[motifs[0]].role == "square":
            return Body("squares", tuple(motifs[:1]))
        return Body("unknown", why="it is not told how its motifs are laid out, such as “arranged in 3 rows of 4”")
    fans = [i for i in mine if sections[i].role == "fan" or HALF_ROUND.search(sections[i].title)]
    if sum(max(sections[i].make) for i in fans) == 2:
        return Body("half-rounds", tuple(fans))
    panels = [i for i in mine if i not in discs and _is_panel(sections[i], pieces[i])]
    if sum(max(sections[i].make) for i in discs) == 2 and not panels:
        return Body("rounds", tuple(discs))
    if discs and panels:
        return Body("unknown", why="it is not told how its pieces are joined")
    made = sum(max(sections[i].make) for i in panels)
    if not panels:
        return Body("none")
    gusset = any("gusset" in section.title.lower() for section in sections)
    if made == 2 and (joined or gusset or _SEAMED.search(words)):
        return Body("panels", tuple(panels))
    if made == 2:
        return Body("unknown", why="it is not told how its two panels are joined")
    if made == 1 and (fold_of(pattern) is not None or _IN_HALF.search(words)):
        return Body("folded", tuple(panels))
    if made == 1:
        why = "it is not told how its panel is folded, such as “Fold: front 30 rows, back 30 rows”"
        return Body("unknown", why=why)
    return Body("unknown", why="it is not told how its pieces are joined")


def _is_panel(section: Section, piece: PieceRounds | None) -> bool:
    return section.continues is None and piece is not None and piece.rounds[0].line.kind == "Row"


def _agreeing(panels: Sequence[list[Formula]], name: str) -> Formula | None:
    """A measure in which all panels agree, to a millimetre; not known where they do not."""
    found = [one for own in panels for one in own if one.name == name]
    if not found:
        return None
    apart = max(one.mm or 0.0 for one in found) - min(one.mm or 0.0 for one in found)
    if apart <= 1.0:
        return found[0]
    return Formula(name, found[0].label, None, f"the panels differ by {apart:.0f} mm")


def fold_of(pattern: Pattern) -> Check | None:
    """The line that tells how a panel is folded."""
    lines = [line for _, line in pattern.lines() if isinstance(line, Check) and line.fold]
    return lines[-1] if lines else None


def bag_formulas(
    pattern: Pattern, body: Body, pieces: Sequence[PieceRounds | None], size: int, allowance_mm: float = 0.0
) -> list[Formula]:
    """The measures of a bag in one size. allowance_mm: what a shoulder takes of the length of a handle."""
    mine = [one for i in body.pieces if (one := pieces[i]) is not None]
    if body.build == "none":
        found = []
    elif body.build == "unknown" or len(mine) < len(body.pieces) or not mine:
        why = body.why or "a piece of its body is not worked"
        found = [Formula(name, label, None, why) for name, label in (("width", "Width"), ("height", "Height"))]
    elif not all(one.known for one in mine):
        why = "a round of its body does not come out"
        found = [Formula(name, label, None, why) for name, label in (("width", "Width"), ("height", "Height"))]
    elif body.build == "wall":
        under = pieces[body.base] if body.base is not None else None
        found = _wall(pattern, mine, under, allowance_mm)
    elif body.build == "panels":
        found = _panels(pattern, mine)
    elif body.build == "folded":
        found = _folded(pattern, mine[0], size)
    elif body.build == "rounds":
        across = _agreeing([[_across(one)] for one in mine], "diameter")
        found = [
            replace(across, name=name, label=label)
            for name, label in (("width", "Width"), ("height", "Height"))
            if across
        ]
    elif body.build == "squares":
        found = _squares(pattern, mine[0], size)
    else:
        found = _half_rounds(pattern, mine[0])
    return [*found, *_beside(pattern, body, pieces)]


def _wall(
    pattern: Pattern, walls: Sequence[PieceRounds], under: PieceRounds | None, allowance_mm: float
) -> list[Formula]:
    rounds = tuple(one for piece in walls for one in piece.wall)
    title = " and ".join(piece.section.title for piece in walls)
    opened = next((i for i, one in enumerate(rounds) if one.opening), len(rounds))
    free = rounds[:opened] or rounds
    widest = max(free, key=lambda one: one.across_mm)
    around = widest.size.across(widest.counts)
    found = [
        of_rounds("width", "Width, lying flat", widest.across_mm / 2, f"({around}) / 2", (widest,), title),
        of_rounds("height", "Height", height_mm(rounds), sum_of_heights(rounds), rounds, title),
        *_depth(pattern, walls[0], under),
        *mouth_and_foot(free, title),
    ]
    with_openings = next((piece for piece in walls if piece.openings), None)
    if with_openings is not None:
        found += [*opening_formulas(with_openings), _drop(with_openings, allowance_mm)]
    return found


def _drop(piece: PieceRounds, allowance_mm: float) -> Formula:
    """How far a handle in the wall hangs, with the usual stretch under a load."""
    opening, width = piece.openings[0], piece.wall[0].size.width_mm
    length = opening.chain * width * (1 + HANDLE_STRETCH) - allowance_mm
    on = tuple(one for one in piece.wall if one.opening)[:1]
    shoulder = f" - {allowance_mm:.0f} mm over the shoulder" if allowance_mm else ""
    why = (
        f"{opening.chain} chains, worked over, x {width:.2f} mm + {HANDLE_STRETCH:.0%} stretch{shoulder}, "
        f"over {opening.skip} sts"
    )
    return of_rounds(
        "drop", "Drop of the handles", rise_of(length, opening.skip * width), why, on, piece.section.title, True
    )


def _depth(pattern: Pattern, wall: PieceRounds, under: PieceRounds | None) -> list[Formula]:
    """The base that a wall stands on: of its own, or the rounds that the wall's piece begins with."""
    if under is None or not under.rounds:
        if not wall.base:
            return []
        why = f"2 x ({sum_of_heights(wall.base)})"
        return [of_rounds("depth", "Depth of the base", 2 * height_mm(wall.base), why, wall.base, wall.section.title)]
    if not under.known:
        return [Formula("depth", "Depth of the base", None, "a round of the base does not come out")]
    own = {one.name: one for one in piece_formulas(pattern, under)}
    if under.section.role == "oval":
        return [
            replace(own["depth"], label="Depth of the base"),
            replace(own["length"], name="base length", label="Length of the base"),
        ]
    if (across := own.get("diameter") or own.get("side")) is not None:
        return [replace(across, name="depth", label="Depth of the base")]
    if "width" in own and "height" in own:
        short, long = sorted((own["width"], own["height"]), key=lambda one: one.mm or 0.0)
        return [
            replace(short, name="depth", label="Depth of the base"),
            replace(long, name="base length", label="Length of the base"),
        ]
    return []


def _panels(pattern: Pattern, panels: Sequence[PieceRounds]) -> list[Formula]:
    """Two panels seamed: as wide and as high as each of them."""
    own = [piece_formulas(pattern, panel) for panel in panels]
    return [one for name in ("width", "height") if (one := _agreeing(own, name)) is not None]


def _folded(pattern: Pattern, panel: PieceRounds, size: int) -> list[Formula]:
    """One panel folded: across it is as wide as the bag; its rows make front, back, bottom and flap in turn."""
    title = panel.section.title
    own = {one.name: one for one in piece_formulas(pattern, panel)}
    sideways = is_sideways(panel.section)
    across = own.get("height" if sideways else "width")
    if across is None:
        return []
    fold = fold_of(pattern)
    width = replace(across, name="width", label="Width")
    if fold is None or any(item.what == "half" for item in fold.items):
        why = f"({sum_of_heights(panel.rounds)}) / 2"
        return [width, of_rounds("height", "Height", height_mm(panel.rounds) / 2, why, panel.rounds, title)]
    found, at = [width], 0
    heights: dict[str, Formula] = {}
    for item in fold.items:
        assert isinstance(item.number, Num)
        many = item.number.values[size]
        if many is None or at + many > len(panel.rounds):
            return [width, Formula("height", "Height", None, "the fold has more rows than the panel")]
        rows: tuple[WorkedRound, ...] = panel.rounds[at : at + many]
        at += many
        if rows:
            heights[item.what] = of_rounds("", "", height_mm(rows), sum_of_heights(rows), rows, title)
    for what, name, label in (("front", "height", "Height"), ("bottom", "depth", "Depth"), ("flap", "flap", "Flap")):
        if what in heights:
            found.append(replace(heights[what], name=name, label=label))
    return found


def _squares(pattern: Pattern, square: PieceRounds, size: int) -> list[Formula]:
    """Squares side by side: across by the columns, up by the rows of the layout; folded in half where that is said."""
    layout = layout_of(pattern)
    own = piece_formulas(pattern, square)[0]
    assert layout is not None and own.mm is not None
    down, across = layout.rows[size], layout.columns[size]
    half = _IN_HALF.search(_all_words(pattern)) is not None
    high = down / 2 if half else float(down)
    wide = replace(own, name="width", label="Width", mm=across * own.mm, why=f"{across} squares x {own.mm:.2f} mm")
    up = replace(own, name="height", label="Height", mm=high * own.mm, why=f"{high:g} squares x {own.mm:.2f} mm")
    return [wide, up]


def _across(disc: PieceRounds) -> Formula:
    why = f"2 x ({sum_of_heights(disc.rounds)})"
    return of_rounds("diameter", "Diameter", 2 * height_mm(disc.rounds), why, disc.rounds, disc.section.title)


def _half_rounds(pattern: Pattern, fan: PieceRounds) -> list[Formula]:
    """Two half-rounds: as wide as their straight edge, as high as their radius."""
    own = {one.name: one for one in piece_formulas(pattern, fan)}
    return [own["width"], replace(own["radius"], name="height", label="Height")]


_NAMED = (
    ("strap", r"\b(?:strap|handle)s?\b", "length"),
    ("flap", r"\bflap\b", "height"),
    ("depth", r"\bgusset\b", "width"),
)
_OF_BAG = {"strap": "Strap, length", "flap": "Flap", "depth": "Depth, by the gusset"}


def _beside(pattern: Pattern, body: Body, pieces: Sequence[PieceRounds | None]) -> list[Formula]:
    """What a bag measures by the pieces beside its body: the strap, the flap, the width of a gusset."""
    found: list[Formula] = []
    for index, piece in enumerate(pieces):
        if piece is None or index in body.pieces or index == body.base or not piece.known:
            continue
        for name, words, which in _NAMED:
            if not re.search(words, piece.section.title, re.IGNORECASE) or any(one.name == name for one in found):
                continue
            own = {one.name: one for one in piece_formulas(pattern, piece)}
            if which in own:
                found.append(replace(own[which], name=name, label=_OF_BAG[name]))
    return found


def edge_met(section: Section, whole: Sequence[Formula]) -> Formula | None:
    """The edge of the body that a piece beside it meets, to hold its length or width against: a gusset runs down two
    sides and along the bottom, a flap and a pocket lie across, a trim goes around the mouth. None where not known."""
    mm = {one.name: one.mm for one in whole if one.mm is not None}
    width, height, mouth = mm.get("width"), mm.get("height"), mm.get("mouth")
    title = section.title.lower()
    if "gusset" in title and width is not None and height is not None:
        why = f"{width:.1f} mm wide + 2 x {height:.1f} mm high"
        return Formula("meets", "Edge that it meets", width + 2 * height, why)
    if re.search(r"\b(?:flap|pocket)\b", title) and width is not None:
        return Formula("meets", "Edge that it meets", width, f"{width:.1f} mm wide")
    if re.search(r"\b(?:trim|edging|border)\b", title) and mouth is not None:
        return Formula("meets", "Edge that it meets", 2 * mouth, f"2 x {mouth:.1f} mm of the mouth")
    return None
