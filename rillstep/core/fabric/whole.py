"""A whole pattern worked in one size: every line on the one before, section by section.

Where a line cannot be worked, or its total differs from the stated one, the work goes on
from the stated total: so an error in one line does not hide those of later lines, and does
not paint them all red either.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, NamedTuple

from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Place, Run, stitches_edge
from rillstep.core.fabric.hook import MOST_STEPS_IN_ALL, FreeLoops, Surroundings, Trouble
from rillstep.core.fabric.lines import LineWork, PieceEnd, SizeWork, Turn
from rillstep.core.fabric.piece import MOST_ROUNDS, Piece, RowsByNumber, State, start_of
from rillstep.core.fabric.places import SKIPPED_CHAINS
from rillstep.core.fabric.remembered import Same, interned, worked
from rillstep.core.fabric.remembered import forget as forget_rows
from rillstep.core.fabric.totals import differing, stated_sts
from rillstep.core.fabric.working import RowWork, work_row, work_setup
from rillstep.core.findings import Span
from rillstep.core.notation.tree import (
    Again,
    Chain,
    EachKind,
    FromHook,
    Gesture,
    Group,
    Line,
    Pattern,
    Repeat,
    Row,
    Section,
    Setup,
    Step,
    Together,
    What,
    Work,
)

Worked = Row | Again


@dataclass
class _Budget:
    """Steps that may still be worked in this pattern and size."""

    left: int = MOST_STEPS_IN_ALL


def work_pattern(pattern: Pattern, size: int, until: Callable[[LineWork], bool] | None = None) -> SizeWork:
    """Work every line that holds for a size; lines that were worked before on the same are not worked again.

    until: whether a line is the last that is wanted; those after it are left.
    """
    pieces: list[Piece] = []
    worked: list[LineWork] = []
    # Keys hold what things are, by identity; what is kept with them keeps these things alive.
    specials = tuple(map(id, pattern.specials))
    corners, budget = _names_corners(Same(pattern)), _Budget()
    for index, section in enumerate(pattern.sections):
        piece = start_of(pattern, section, pieces, size)
        rows = RowsByNumber(section, size)
        place = _number_of((index, size, section.worked, corners, specials))
        for line in section.lines:
            if size not in line.sizes or not isinstance(line, Row | Again | Setup):
                continue
            sources = rows.sources(line) if isinstance(line, Again) else [line] if isinstance(line, Row) else []
            key = (id(line), place, piece.key, tuple(map(id, sources)) if isinstance(line, Again) else None)
            known = _LINES.get(key) if budget.left > 0 else None
            if known is None:
                alive = (line, sources, piece.state, pattern.specials)
                left = budget.left
                work = _work_line(line, (index, section), size, piece, (pattern, corners, budget), sources)
                known = _Known(_judged(work, piece, size), piece.state, left - budget.left, alive)
                if budget.left > 0:
                    _remember(key, known)
            else:
                piece.state = known.state
                budget.left -= known.spent
            worked.append(known.work)
            if until is not None and until(known.work):
                return SizeWork(size, tuple(worked), ())
        pieces.append(piece)
    ends = tuple(PieceEnd(piece.edge or EMPTY, piece.rows, piece.underside) for piece in pieces)
    return SizeWork(size, tuple(worked), ends)


@lru_cache(maxsize=4096)
def _number_of(place: tuple[Any, ...]) -> object:
    """One thing for all places that are equal: a key that holds it need not look into it."""
    return object()


class _Known(NamedTuple):
    """A line that was worked, what its piece is after it, the steps that it took; and what its key stands for."""

    work: LineWork
    state: State
    spent: int
    alive: object


def _judged(work: LineWork, piece: Piece, size: int) -> LineWork:
    """The line, marked as depending on the one where its piece first went wrong; or noted as being that one."""
    depends = None if isinstance(work.line, Setup) else piece.wrong
    if depends is None and (work.trouble is not None or work.stated or not work.known):
        piece.wrong = work.line.span.line
    return replace(work, depends=depends, size=size)


MOST_LINES_REMEMBERED = 20_000
_LINES: dict[Any, _Known] = {}


def _remember(key: Any, known: _Known) -> None:
    if len(_LINES) >= MOST_LINES_REMEMBERED:
        _LINES.clear()
    _LINES[key] = known


def forget() -> None:
    """Forget all work, as a measurement of it needs."""
    _LINES.clear()
    forget_rows()


@lru_cache(maxsize=16)
def _names_corners(pattern: Same) -> bool:
    """Does any line speak of corners? Only then are they kept apart. Asked for every size, so it is remembered."""
    assert isinstance(pattern.it, Pattern)
    return any(row_names_corner(Same(line)) for _, line in pattern.it.lines() if isinstance(line, Row))


@lru_cache(maxsize=8192)
def row_names_corner(row: Same) -> bool:
    """Does a row speak of corners? Asked for every size, so it is remembered."""
    assert isinstance(row.it, Row)
    return _corner_in(row.it.steps)


@lru_cache(maxsize=8192)
def _gestures(row: Same) -> frozenset[str]:
    assert isinstance(row.it, Row)
    return frozenset(step.kind for step in row.it.steps if isinstance(step, Gesture))


def _corner_in(steps: tuple[Step, ...]) -> bool:
    for step in steps:
        into = getattr(step, "into", None)
        what = getattr(into, "what", None) or getattr(step, "what", None)
        end = getattr(into, "end", None) or getattr(step, "times", None)
        if any(isinstance(w, What) and w.corner for w in (what, getattr(end, "what", None))):
            return True
        inner = getattr(step, "steps", None) or getattr(step, "works", None)
        if isinstance(step, Repeat | Group | EachKind) and inner and _corner_in(inner):
            return True
    return False


def _work_line(
    line: Line,
    where: tuple[int, Section],
    size: int,
    piece: Piece,
    common: tuple[Pattern, bool, _Budget],
    sources: list[Row],
) -> LineWork:
    index, section = where
    start = piece.edge or EMPTY
    if isinstance(line, Setup):
        return _work_setup_line(line, index, size, piece, start)
    assert isinstance(line, Row | Again)
    if isinstance(line, Again) and not sources:
        trouble = (
            None if line.broken else Trouble("row-not-found", line.label_span, "the rows to work again are not there")
        )
        return _go_on(line, index, size, piece, (), None, trouble)
    if line.broken or piece.edge is None:
        return _go_on(line, index, size, piece, (), None, None)
    times = line.rounds(size)
    if times > MOST_ROUNDS:
        message = f"more than {MOST_ROUNDS:,} rounds in one line are not worked"
        return _go_on(line, index, size, piece, (), None, Trouble("too-large", line.label_span, message))
    return _work_rounds(line, (index, section), size, piece, common, sources)


def _work_rounds(
    line: Worked,
    where: tuple[int, Section],
    size: int,
    piece: Piece,
    common: tuple[Pattern, bool, _Budget],
    sources: list[Row],
) -> LineWork:
    """All rounds that a line stands for, each on the one before."""
    index, section = where
    start = here = piece.edge or EMPTY
    times, first_number = line.rounds(size), line.first.at(size)
    rounds: list[Counts] = []
    last: RowWork | None = None
    turns: list[Turn] = []
    beginning = around = _around(piece, section, common)
    for turn in range(times):
        if common[2].left < 0:
            message = "this pattern takes more steps than Rillstep works"
            return _go_on(line, index, size, piece, tuple(rounds), last, Trouble("too-large", line.label_span, message))
        source = sources[turn % len(sources)]
        before, was_pending = here, piece.pending
        around = _around(piece, section, common) if turn else beginning
        how = (turn == times - 1, _is_turned(source, section))
        last, here, around = _best_reading(source, line, size, here, around, how)
        turns.append(Turn(source, before, around, how[1] or "turn" in _gestures(Same(source))))
        common[2].left -= last.spent  # as if it had been worked now, so that what is remembered changes no answer
        if last.trouble:
            gone_on = _go_on(line, index, size, piece, tuple(rounds), last, last.trouble, source)
            return replace(gone_on, around=beginning, turns=tuple(turns))
        _keep(piece, last, line.kind, first_number + turn)
        piece.grew = last.counts.sts - before.counts().sts
        rounds.append(last.counts)
        if before is here and was_pending is piece.pending and len(sources) == 1 and last.free is None:
            if line.kind == "Row":
                piece.rows += times - turn - 1
            rounds += [rounds[-1]] * (times - turn - 1)
            piece.origin = (line.kind, first_number + times - 1)
            break
    if last is not None and differing(line.totals, last.counts, size):
        if times == 1:  # for its steps at their own places in this line; a remembered row may have stood elsewhere
            last = work_row(sources[0], size, start, beginning)
        sts = stated_sts(line.totals, size)
        if sts is not None and sts != last.counts.sts:
            gone_on = _go_on(line, index, size, piece, tuple(rounds), last, None, sources[-1])
            return replace(gone_on, around=beginning, turns=tuple(turns))
    piece.edge = here
    source_last = sources[(times - 1) % len(sources)] if times > 0 else None
    return LineWork(
        line, index, start, here, tuple(rounds), last, source=source_last, around=beginning, turns=tuple(turns)
    )


def _around(piece: Piece, section: Section, common: tuple[Pattern, bool, _Budget]) -> Surroundings:
    rows = section.worked in ("rows", "rows from the same side") or piece.rows > 0
    pattern, corners, _ = common
    return Surroundings(
        piece.says, piece.pending, piece.sides(), piece.loops, pattern.specials, corners, rows, piece.grew
    )  # fmt: skip


def _best_reading(
    source: Row, line: Worked, size: int, edge: Edge, around: Surroundings, how: tuple[bool, bool]
) -> tuple[RowWork, Edge, Surroundings]:
    """The row worked, and as what it was read; where the text leaves open whether a chain counts, the reading that makes its total true is taken."""
    is_last, turned = how
    work, end = worked(source, size, edge, around, turned)
    fails = bool(work.trouble) or (is_last and bool(differing(line.totals, work.counts, size)))
    unsaid = _unsaid(source, work, around, size) if fails else None
    if unsaid is None:
        return work, end, around
    length, span = unsaid
    counting = replace(around, says=(*around.says, (length, "st")))
    other, other_end = worked(source, size, edge, counting, turned)
    if other.trouble is not None or (is_last and differing(line.totals, other.counts, size)):
        return work, end, around
    warnings = work.warnings or (Trouble("chain-unsaid", span, _UNSAID),)
    return replace(other, warnings=warnings), other_end, counting


_UNSAID = "the text does not say that the skipped chains count as a stitch; the total is true when they do"


def _unsaid(source: Row, work: RowWork, around: Surroundings, size: int) -> tuple[int, Span] | None:
    """(length, place) of a chain of which the text does not say whether it counts; length 0 for the chains skipped at first."""
    steps = list(source.steps)
    while steps and isinstance(steps[0], Work) and steps[0].stitch == "sl st":
        steps.pop(0)  # slip stitches that only move the hook
    first = steps[0] if steps else None
    second = steps[1] if isinstance(first, Chain) and len(steps) > 1 else first
    if isinstance(second, Work) and isinstance(second.into, FromHook) and not second.into.counts_as:
        return (SKIPPED_CHAINS, second.span) if second.into.nth.at(size) > 2 else None
    if any(w.code == "chain-unsaid" for w in work.warnings):
        chain = first if isinstance(first, Chain) else around.pending
        return (chain.length.at(size), chain.span) if chain is not None else None
    return None


def _is_turned(source: Row, section: Section) -> bool:
    """Rows are turned, said or not, before the next one meets them."""
    flat = section.worked in ("rows", "joined and turned rounds") and (source.kind == "Row" or section.worked != "rows")
    return flat and not _gestures(Same(source)) & {"turn", "do not turn"}


def _keep(piece: Piece, work: RowWork, kind: str, number: int) -> None:
    """What a worked row leaves for later: loops, the underside, what is known of chains."""
    piece.says = work.says
    piece.pending = work.pending
    if work.free is not None and piece.origin is not None:
        piece.set_loops(piece.origin, work.free)
    for used_kind, used, loop in work.used_loops:
        free = dict(piece.loops).get((used_kind, used))
        if free is not None:
            left = FreeLoops((), free.back) if loop == "front" else FreeLoops(free.front, ())
            piece.set_loops((used_kind, used), left)
    if work.underside:
        piece.underside = work.underside
    piece.origin = (kind, number)
    if kind == "Row" and not work.edge.foundation:
        piece.rows += 1


def _work_setup_line(line: Setup, index: int, size: int, piece: Piece, start: Edge) -> LineWork:
    end = None if line.broken else work_setup(line, size)
    if end is not None:
        end = interned(end)
        piece.edge, piece.rows, piece.underside, piece.origin, piece.pending = end, 0, 0, None, None
        piece.wrong = None
    elif line.broken:
        piece.edge = None
    return LineWork(line, index, start, end if end is not None else start, known=not line.broken)


def _go_on(
    line: Worked,
    index: int,
    size: int,
    piece: Piece,
    rounds: tuple[Counts, ...],
    last: RowWork | None,
    trouble: Trouble | None,
    source: Row | None = None,
) -> LineWork:
    """Go on from the stated totals: stitches of the kind that the row works, and spaces spread among them."""
    start = piece.edge or EMPTY
    number = (line.last or line.first).at(size)
    piece.pending = last.pending if last is not None else None
    piece.origin = (line.kind, number)
    if line.kind == "Row":
        piece.rows += max(0, line.rounds(size)) if line.rounds(size) <= MOST_ROUNDS else 0
    sts = stated_sts(line.totals, size)
    if sts is None:
        known = trouble is None and not line.broken and last is not None
        piece.edge = last.edge if known and last is not None else None
        return LineWork(line, index, start, piece.edge or EMPTY, rounds, last, trouble, known=known, source=source)
    end = interned(_stated_edge(line, sts, size, source))
    piece.edge = end
    return LineWork(line, index, start, end, rounds, last, trouble, stated=True, source=source)


def _stated_edge(line: Worked, sts: int, size: int, source: Row | None) -> Edge:
    steps = line.steps if isinstance(line, Row) else source.steps if source is not None else ()
    stitch = _main_stitch(steps)
    spaces = [(t.count.at(size), t.length.at(size) if t.length else 1) for t in line.totals if t.what == "sp"]
    if not spaces:  # "30 sc, 9 ch": all of them in one space
        spaces = [(1, t.count.at(size)) for t in line.totals if t.what == "ch" and t.count.at(size) > 0]
    if not spaces:
        return stitches_edge(stitch, sts, closed=line.kind == "Rnd")
    runs: list[Run] = []
    groups = max(1, min(sum(count for count, _ in spaces), 5_000))
    if len(spaces) == 1 and groups and sts % groups == 0:
        inner = (Run(Place("st", stitch), sts // groups), Run(Place("sp", length=spaces[0][1]), 1))
        return Edge((Run(Place("st", "pattern"), groups, inner),) if sts else inner[1:], line.kind == "Rnd")
    left = sts
    for count, length in spaces:
        for _ in range(min(count, 5_000)):
            here = left // max(1, groups)
            left, groups = left - here, groups - 1
            runs += [Run(Place("st", stitch), here), Run(Place("sp", length=length), 1)]
    runs.append(Run(Place("st", stitch), left))
    return Edge(tuple(run for run in runs if run.count > 0), line.kind == "Rnd")


def _main_stitch(steps: tuple[Step, ...]) -> str:
    for step in steps:
        match step:
            case Work(stitch=stitch) | Together(stitch=stitch):
                return stitch
            case Repeat(steps=inner) | Group(steps=inner):
                return _main_stitch(inner)
            case EachKind(works=works):
                return _main_stitch(works)
            case _:
                pass
    return "sc"
