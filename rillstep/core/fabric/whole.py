"""A whole pattern worked in one size: every line on the one before, section by section.

Where a line cannot be worked, or its total differs from the stated one, the work goes on
from the stated total: so an error in one line does not hide those of later lines, and does
not paint them all red either.

Typing changes one line of many: what was worked before on the same is not worked again, and the
lines before and after that a change does not reach are taken over from the last time as a whole.
"""

from collections.abc import Callable, Iterable
from dataclasses import replace
from itertools import takewhile
from operator import is_
from typing import Any, NamedTuple

from rillstep.core.fabric.chains_said import said_throughout
from rillstep.core.fabric.edge import EMPTY
from rillstep.core.fabric.piece import Piece, RowsByNumber, State, start_of
from rillstep.core.fabric.remembered import Identity
from rillstep.core.fabric.rounds import Budget, Where, work_line
from rillstep.core.fabric.worked_lines import LineWork, PieceEnd, SizeWork
from rillstep.core.memory import Shelf, remember
from rillstep.core.tree import Again, Line, Pattern, Row, Section, Setup
from rillstep.core.tree.features import places_named


def work_pattern(pattern: Pattern, size: int, until: Callable[[LineWork], bool] | None = None) -> SizeWork:
    """Work every line that holds for a size.

    until: whether a line is the last that is wanted; those after it are left.
    """
    pieces: list[Piece] = []
    worked: list[LineWork] = []
    # Keys hold what things are, by identity; what is kept with them keeps these things alive.
    specials = tuple(map(id, pattern.specials))
    corners, budget = _names_corners(Identity(pattern)), Budget()
    throughout = said_throughout(Identity(pattern), size)
    for index, section in enumerate(pattern.sections):
        piece = start_of(pattern, section, pieces, size)
        place = _number_of((index, size, section.worked, corners, specials, throughout))
        known = _work_section(Where(pattern, index, size, corners, throughout, budget), place, piece, until)
        worked += [one.work for one in known]
        if until is not None and known and until(known[-1].work):
            return SizeWork(size, tuple(worked), ())
        pieces.append(piece)
    ends = tuple(PieceEnd(piece.edge or EMPTY, piece.rows, piece.underside) for piece in pieces)
    return SizeWork(size, tuple(worked), ends)


class _Known(NamedTuple):
    """A line that was worked, what its piece is after it, the steps that it took, is it wrong; and what its key
    stands for."""

    work: LineWork
    state: State
    spent: int
    wrong: bool
    alive: object


class _Run(NamedTuple):
    """A section as it was worked last: its lines, the key of its piece before each, and what was worked.

    fixed: from here on no line works others again, so that lines and key alone say what is worked; before: the lines of
    the sections before it, where a line of it may work those again.
    """

    lines: list[Line]
    keys: list[Any]
    known: list[_Known]
    fixed: int
    spent: int
    wrong: int
    before: list[Line]


_RUNS: Shelf[object, _Run] = Shelf(256)


def _work_section(where: Where, place: object, piece: Piece, until: Callable[[LineWork], bool] | None) -> list[_Known]:
    """Its lines, worked; the piece is then as the last one leaves it."""
    pattern, index, size, budget, section = where.pattern, where.index, where.size, where.budget, where.section
    lines, fixed = _lines_of(Identity(section), _size_apart(Identity(section), size, len(pattern.sizes)))
    last = _RUNS.get(place)
    before = [line for earlier in pattern.sections[:index] for line in earlier.lines] if fixed else []
    if (
        last is None
        or until is not None
        or last.spent >= budget.left
        or last.wrong >= budget.wrong
        or not last.keys
        or last.keys[0] != piece.key
        or (fixed and not (len(before) == len(last.before) == _alike(before, last.before)))
    ):
        last = _Run([], [], [], 0, 0, 0, [])
    alike = _alike(lines, last.lines)
    # So many lines at the end are those of the last time; where the piece is as it was then, they are worked as then.
    ending = _alike(reversed(lines), reversed(last.lines))
    shift = len(last.lines) - len(lines)
    keys, known = last.keys[:alike], last.known[:alike]
    if alike:
        piece.state = known[-1].state
        _charge(budget, known)
    rows = RowsByNumber(pattern, index, size)
    for at in range(alike, len(lines)):
        line, key = lines[at], piece.key
        if at >= len(lines) - ending and at + shift >= last.fixed and last.keys[at + shift] == key:
            keys += last.keys[at + shift :]
            known += last.known[at + shift :]
            _charge(budget, last.known[at + shift :])
            piece.state = known[-1].state
            break
        keys.append(key)
        known.append(_work_known(line, where, place, piece, rows))
        if until is not None and until(known[-1].work):
            return known
    if until is None and not budget.used_up:
        spent, wrong = sum(one.spent for one in known), sum(one.wrong for one in known)
        _RUNS.put(place, _Run(lines, keys, known, fixed, spent, wrong, before))
    return known


def _charge(budget: Budget, known: list[_Known]) -> None:
    """As if it had been worked now, so that what is remembered changes no answer."""
    budget.left -= sum(one.spent for one in known)
    budget.wrong -= sum(one.wrong for one in known)


@remember(256)
def _lines_of(section: Identity, size: int | None) -> tuple[list[Line], int]:
    """The lines of a section that are worked in a size, or in all of them; and where those begin after which none
    works others again."""
    assert isinstance(section.it, Section)
    lines: list[Line] = [
        line
        for line in section.it.lines
        if isinstance(line, Row | Again | Setup) and (size is None or size in line.sizes)
    ]
    return lines, max((at + 1 for at, line in enumerate(lines) if isinstance(line, Again)), default=0)


@remember(256)
def _size_apart(section: Identity, size: int, sizes: int) -> int | None:
    """The size, where a section has lines for some sizes only; else None, as it is the same in all."""
    assert isinstance(section.it, Section)
    return size if any(len(line.sizes) < sizes for line in section.it.lines) else None


def _alike(lines: Iterable[Line], others: Iterable[Line]) -> int:
    """How many of them at the beginning are the very same."""
    return len(list(takewhile(bool, map(is_, lines, others))))


def _work_known(line: Line, where: Where, place: object, piece: Piece, rows: RowsByNumber) -> _Known:
    """A line, worked; or what it was when it was worked before on the same."""
    budget = where.budget
    sources = rows.sources(line) if isinstance(line, Again) else [line] if isinstance(line, Row) else []
    key = (id(line), place, piece.key, tuple(map(id, sources)) if isinstance(line, Again) else None)
    known = _LINES.get(key) if not budget.used_up else None
    if known is not None and known.spent < budget.left:
        piece.state = known.state
        _charge(budget, [known])
        return known
    alive = (line, sources, piece.state, where.pattern.specials)
    work, spent = work_line(line, where, piece, sources)
    work = _judged(work, piece)
    wrong = work.trouble is not None or bool(work.differences)
    if wrong and isinstance(line, Row):
        piece.refuted = (*piece.refuted, (line.kind, line.first.at(where.size)))
    known = _Known(work, piece.state, spent, wrong, alive)
    _charge(budget, [known])
    if not budget.used_up:
        _LINES.put(key, known)
    return known


@remember(4096)
def _number_of(place: tuple[Any, ...]) -> object:
    """One thing for all places that are equal: a key that holds it need not look into it."""
    return object()


def _judged(work: LineWork, piece: Piece) -> LineWork:
    """The line, marked as depending on the one where its piece first went wrong; or noted as being that one."""
    depends = None if isinstance(work.line, Setup) else piece.wrong
    if depends is None and (work.trouble is not None or work.stated or not work.known):
        piece.wrong = work.line.span.line
    return work if depends is None else replace(work, depends=depends)


_LINES: Shelf[Any, _Known] = Shelf(20_000)


@remember(16)
def _names_corners(pattern: Identity) -> bool:
    """Does any line speak of corners? Only then are they kept apart. Asked for every size, so it is remembered."""
    assert isinstance(pattern.it, Pattern)
    return any(_row_names_corner(Identity(line)) for _, line in pattern.it.lines() if isinstance(line, Row))


@remember(8192)
def _row_names_corner(row: Identity) -> bool:
    assert isinstance(row.it, Row)
    return any(what.corner for what in places_named(row.it.steps))
