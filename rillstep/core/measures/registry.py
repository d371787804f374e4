"""The registry of measures: of every piece by itself, and of the bag that they make.

Each measure has its formula with its numbers, the rounds it is taken on and the gauge that it used; it is an estimate
where a stitch has no gauge of its own. A piece that could not be worked has no measures.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from rillstep.core.fabric import LineWork, SizeWork
from rillstep.core.measures.bag import Body, bag_formulas, body_of, edge_met, is_beside
from rillstep.core.measures.formulas import Formula
from rillstep.core.measures.piece_rounds import PieceRounds, rounds_of
from rillstep.core.measures.profile import SizeShape, profile_of
from rillstep.core.measures.row_sizes import hooks, row_sizes
from rillstep.core.measures.single_pieces import opening_formulas, piece_formulas
from rillstep.core.tree import Pattern, Section
from rillstep.core.tree.changes import in_gauge_of


@dataclass(frozen=True)
class Measure:
    """One measure of a piece, or of the bag (`piece` None): in mm for each size, None where it is not known.

    why: for each size the formula with its numbers, or what is missing. rounds, gauges: for each size.
    """

    name: str
    piece: str | None
    label: str
    mm: tuple[float | None, ...]
    estimated: bool
    why: tuple[str, ...]
    rounds: tuple[str, ...] = ()
    gauges: tuple[str, ...] = ()

    @property
    def called(self) -> str:
        """What targets call it: "width", or "Cord.length" for a measure of a piece."""
        return f"{self.piece}.{self.name}" if self.piece else self.name


@dataclass(frozen=True)
class BagMeasures:
    """What a bag is built of, the rounds of its pieces in each size, and its measures.

    whole: the formulas of the bag, for each size. allowance_mm: what a shoulder takes of the length of a handle.
    """

    pattern: Pattern
    body: Body
    pieces: tuple[tuple[PieceRounds | None, ...], ...]
    whole: tuple[tuple[Formula, ...], ...]
    allowance_mm: float = 0.0

    @cached_property
    def measures(self) -> tuple[Measure, ...]:
        """The measures of the bag, and those of every piece in the order of the text."""
        found = _merged(None, self.whole)
        for index, section in enumerate(self.pattern.sections):
            own = [
                _with_edge(_of_piece(in_gauge_of(self.pattern, size), pieces[index]), section, whole)
                for size, (pieces, whole) in enumerate(zip(self.pieces, self.whole, strict=True))
            ]
            found += _merged(section.title, own)
        return tuple(found)

    @cached_property
    def profiles(self) -> tuple[SizeShape, ...]:
        """The rounds of the bag's body in each size."""
        return tuple(profile_of(self.body, mine, own) for mine, own in zip(self.pieces, self.whole, strict=True))

    def at(self, size: int, line: int) -> list[Formula]:
        """The measures of the bag in one size, as far as it is worked by a line of the text."""
        so_far = [one.upto(line) if one is not None else None for one in self.pieces[size]]
        begun = tuple(i for i in self.body.pieces if (one := so_far[i]) is not None and one.rounds)
        pattern = in_gauge_of(self.pattern, size)
        return bag_formulas(pattern, replace(self.body, pieces=begun), so_far, size, self.allowance_mm)

    def of_piece(self, size: int, index: int, line: int) -> list[Formula]:
        """The measures of one piece in one size, as far as it is worked by a line of the text."""
        piece = self.pieces[size][index]
        so_far = piece.upto(line) if piece is not None else None
        return _of_piece(in_gauge_of(self.pattern, size), so_far) if so_far is not None and so_far.rounds else []


def bag_measures(pattern: Pattern, works: Sequence[SizeWork], allowance_mm: float = 0.0) -> BagMeasures | None:
    """All measures of a bag and its pieces; None where there is no gauge."""
    if not pattern.gauges:
        return None
    sections = range(len(pattern.sections))
    hook = [hooks(pattern, section) for section in pattern.sections]
    above = [one for one in pattern.sections if not is_beside(one) and not one.worked.startswith("rows")]
    titles = {(section.continues or "").lower() for section in above}
    on = [section.title.lower() in titles for section in pattern.sections]
    pieces: list[tuple[PieceRounds | None, ...]] = []
    for work in works:
        own = in_gauge_of(pattern, work.size)
        size_of = row_sizes(own)
        lines: list[list[LineWork]] = [[] for _ in sections]
        for line in work.lines:
            lines[line.section].append(line)
        pieces.append(tuple(rounds_of(own, i, work, lines[i], hook[i], size_of, on[i]) for i in sections))
    body = body_of(pattern, pieces[0] if pieces else ())
    whole = tuple(
        tuple(bag_formulas(in_gauge_of(pattern, work.size), body, mine, work.size, allowance_mm))
        for mine, work in zip(pieces, works, strict=True)
    )
    return BagMeasures(pattern, body, tuple(pieces), whole, allowance_mm)


def measures_of(pattern: Pattern, works: Sequence[SizeWork], allowance_mm: float = 0.0) -> tuple[Measure, ...]:
    """The measures of the bag, and those of every piece in the order of the text; none where there is no gauge."""
    found = bag_measures(pattern, works, allowance_mm)
    return found.measures if found is not None else ()


def _of_piece(pattern: Pattern, piece: PieceRounds | None) -> list[Formula]:
    if piece is None or not piece.known:
        return []
    return [*piece_formulas(pattern, piece), *(opening_formulas(piece) if piece.openings else [])]


def _with_edge(own: list[Formula], section: Section, whole: Sequence[Formula]) -> list[Formula]:
    met = edge_met(section, whole) if own and is_beside(section) else None
    return [*own, met] if met is not None else own


def _merged(piece: str | None, formulas: Sequence[Sequence[Formula]]) -> list[Measure]:
    """Formulas of each size as measures."""
    nothing = Formula("", "", None, "")
    names = list(dict.fromkeys(one.name for own in formulas for one in own))
    found = []
    for name in names:
        cells = [next((one for one in own if one.name == name), nothing) for own in formulas]
        label = next(one.label for one in cells if one.label)
        found.append(
            Measure(
                name,
                piece,
                label,
                tuple(one.mm for one in cells),
                any(one.estimated for one in cells),
                tuple(one.why for one in cells),
                tuple(one.rounds for one in cells),
                tuple(one.gauge for one in cells),
            )
        )
    return found
