"""Measures of a piece by itself, by what it is.

A disc is measured by its diameter, an oval by length and depth, a wall by its width lying flat and its height, a piece
in rows by its width and height, a half-round by radius and edge, a strap by its length and width. Sources: a flat disc
or oval end of n rounds has the radius n h; an oval with straight sides of s stitches is s w + 2 n h long and 2 n h
wide; a wall of N stitches lies N w / 2 wide.
"""

import math
import re

from rillstep.core.gauge import chain_width_mm
from rillstep.core.measures.formulas import Formula, of_rounds, sum_of_heights
from rillstep.core.measures.piece_rounds import PieceRounds, WorkedRound, height_mm
from rillstep.core.measures.straps import rise_of
from rillstep.core.tree import Pattern, Section, words_of

_LONG = re.compile(
    r"\b(?:strap|handle|cord|tie|drawstring|strip|band|belt|loop|gusset|side|i-cord|trim|tab)s?\b", re.IGNORECASE
)
HALF_ROUND = re.compile(r"\b(?:half[ -]?(?:circle|round|moon)|semi-?circle)s?\b", re.IGNORECASE)
_SIDEWAYS = re.compile(r"\b(?:sideways|side[ -]to[ -]side|turned on its side)\b", re.IGNORECASE)


def piece_formulas(pattern: Pattern, piece: PieceRounds) -> list[Formula]:
    """The measures of a piece in one size."""
    section, title = piece.section, piece.section.title
    if not piece.rounds:
        width, estimated = chain_width_mm(pattern.gauges, pattern.own_gauges) or (0.0, True)
        why = f"{piece.chains} chains x {width:.2f} mm"
        return [Formula("length", "Length", piece.chains * width, why, estimated, title, "ch")]
    if piece.lies_flat and section.role not in ("oval", "square", "fan", "strip", "tube", "trim"):
        why = f"2 x ({sum_of_heights(piece.rounds)})"
        return [of_rounds("diameter", "Diameter", 2 * height_mm(piece.rounds), why, piece.rounds, title)]
    if section.role == "oval" and piece.lies_flat:
        return _oval(piece)
    if section.role == "fan" or HALF_ROUND.search(title):
        return _half_round(piece)
    if section.role == "square":
        across = _square_side_mm(piece)
        return [of_rounds("side", "Side", across, f"2 x ({sum_of_heights(piece.rounds)})", piece.rounds, title)]
    if piece.rounds[0].line.kind == "Row" and section.worked.startswith("rows"):
        return _flat(section, piece)
    return _around(section, piece)


def _square_side_mm(piece: PieceRounds) -> float:
    """A square in rounds from its centre is as wide as its rounds on both sides of it."""
    return 2 * height_mm(piece.rounds)


def _oval(piece: PieceRounds) -> list[Formula]:
    """The straight middle and the rounds at both ends; across, the rounds on both sides."""
    title, width = piece.section.title, piece.rounds[0].size.width_mm
    ends = f"2 x ({sum_of_heights(piece.rounds)})"
    depth = 2 * height_mm(piece.rounds)
    return [
        of_rounds(
            "length",
            "Length",
            piece.straight * width + depth,
            f"{piece.straight} sts x {width:.2f} mm + {ends}",
            piece.rounds,
            title,
        ),
        of_rounds("depth", "Depth", depth, ends, piece.rounds, title),
    ]


def _half_round(piece: PieceRounds) -> list[Formula]:
    """Rows around a centre on the straight edge: the radius is the height of the rows."""
    title, radius, rows = piece.section.title, height_mm(piece.rounds), sum_of_heights(piece.rounds)
    last = piece.rounds[-1]
    return [
        of_rounds("radius", "Radius", radius, rows, piece.rounds, title),
        of_rounds("width", "Width", 2 * radius, f"2 x ({rows})", piece.rounds, title),
        of_rounds("edge", "Edge", last.across_mm, last.size.across(last.counts), (last,), title),
    ]


def is_sideways(section: Section) -> bool:
    """Whether a piece is worked from side to side, as its heading or its words say."""
    words = " ".join([section.title, *(one for line in section.lines for one in words_of(line))])
    return _SIDEWAYS.search(words) is not None


def _flat(section: Section, piece: PieceRounds) -> list[Formula]:
    """A piece in rows: across its widest row, and up its rows; the other way round for one worked sideways. A strap is
    long where its rows are many."""
    title, widest = section.title, piece.widest
    across = (widest.across_mm, widest.size.across(widest.counts), (widest,))
    up = (height_mm(piece.rounds), sum_of_heights(piece.rounds), piece.rounds)
    if section.role in ("strip", "trim") or _LONG.search(title):
        (width, why, on), (length, because, along) = sorted((across, up), key=lambda pair: pair[0])
        return [
            of_rounds("length", "Length", length, because, along, title),
            of_rounds("width", "Width", width, why, on, title),
        ]
    (width, why, on), (height, because, along) = (up, across) if is_sideways(section) else (across, up)
    return [
        of_rounds("width", "Width", width, why, on, title),
        of_rounds("height", "Height", height, because, along, title),
    ]


def _around(section: Section, piece: PieceRounds) -> list[Formula]:
    """A piece in rounds, lying flat: half of its widest round, of its last and its first one, and up its rounds. The
    rounds that begin it and lie flat are its base."""
    title, widest = section.title, piece.widest
    around = widest.size.across(widest.counts)
    if section.role == "tube" or (_LONG.search(title) and section.continues is None):
        return [
            of_rounds("length", "Length", height_mm(piece.rounds), sum_of_heights(piece.rounds), piece.rounds, title),
            of_rounds("around", "Around", widest.across_mm, around, (widest,), title),
            of_rounds("width", "Width", widest.across_mm / math.pi, f"({around}) / pi", (widest,), title),
        ]
    wall = piece.wall or piece.rounds
    found = [
        of_rounds("width", "Width lying flat", widest.across_mm / 2, f"({around}) / 2", (widest,), title),
        *mouth_and_foot(wall, title),
        of_rounds("height", "Height", height_mm(wall), sum_of_heights(wall), wall, title),
    ]
    if piece.base and piece.wall:
        why = f"2 x ({sum_of_heights(piece.base)})"
        found.append(of_rounds("base", "Base across", 2 * height_mm(piece.base), why, piece.base, title))
    return found


def mouth_and_foot(wall: tuple[WorkedRound, ...], title: str) -> list[Formula]:
    """Half of the last round and of the first one."""
    return [
        of_rounds(name, label, one.across_mm / 2, f"({one.size.across(one.counts)}) / 2", (one,), title)
        for name, label, one in (("mouth", "Mouth lying flat", wall[-1]), ("foot", "Foot lying flat", wall[0]))
    ]


def opening_formulas(piece: PieceRounds) -> list[Formula]:
    """The opening of a handle that is worked in the wall: its width, and how high its chain stands over it."""
    if not piece.openings or not piece.wall:
        return []
    opening, size = piece.openings[0], piece.wall[0].size
    gap, chain = opening.skip * size.width_mm, opening.chain * size.width_mm
    on = tuple(one for one in piece.wall if one.opening)[:1]
    title = piece.section.title
    return [
        of_rounds("opening", "Opening, width", gap, f"{opening.skip} sts x {size.width_mm:.2f} mm", on, title),
        of_rounds(
            "rise",
            "Opening, rise",
            rise_of(chain, gap),
            f"{opening.chain} chains, worked over, x {size.width_mm:.2f} mm, over the opening",
            on,
            title,
        ),
    ]
