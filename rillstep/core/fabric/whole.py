"""A whole pattern worked in one size: every line on the one before, section by section.

Where a line cannot be worked, or its total differs from the stated one, the work goes on
from the stated total: so an error in one line does not hide those of later lines, and does
not paint them all red either.
"""

from dataclasses import dataclass, field, replace

from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Place, Run, stitches_edge
from rillstep.core.fabric.hook import Budget, FreeLoops, Surroundings, Trouble
from rillstep.core.fabric.totals import differing, stated_sts
from rillstep.core.fabric.working import RowWork, work_row, work_setup
from rillstep.core.notation.tree import (
    Again,
    Chain,
    EachKind,
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

MOST_ROUNDS = 2_000
Worked = Row | Again


@dataclass(frozen=True)
class LineWork:
    """A line worked in one size.

    rounds: the counts after each round that the line stands for; edges: the edge before each.
    source: the row whose instructions were used last (the line itself, but for rows worked again).
    start: what it was worked on; end: what the next line is worked on.
    stated: the work went on from the stated total, as the worked one could not be used.
    known: is what comes out known at all?
    """

    line: Row | Again | Setup
    section: int
    start: Edge
    end: Edge
    rounds: tuple[Counts, ...] = ()
    last: RowWork | None = None
    trouble: Trouble | None = None
    stated: bool = False
    known: bool = True
    source: Row | None = None
    around: Surroundings = field(default_factory=Surroundings)

    @property
    def steps(self) -> tuple[Step, ...]:
        """The instructions that were worked."""
        if isinstance(self.line, Again):
            return self.source.steps if self.source is not None else ()
        return self.line.steps


@dataclass(frozen=True)
class SizeWork:
    """All lines of a pattern in one size."""

    size: int
    lines: tuple[LineWork, ...]
    section_ends: tuple[Edge, ...]

    def of_line(self, number: int) -> LineWork | None:
        """The work of the line at a line number of the text."""
        return next((work for work in self.lines if work.line.span.line == number), None)


@dataclass
class _Piece:
    """What is known of a piece while its lines are worked, in one size."""

    edge: Edge | None
    says: tuple[tuple[int, str], ...] = ()
    pending: Chain | None = None
    rows: int = 0
    underside: int = 0
    loops: dict[tuple[str, int], FreeLoops] = field(default_factory=dict)
    by_number: dict[tuple[str, int], Row] = field(default_factory=dict)
    origin: tuple[str, int] | None = None

    def sides(self) -> tuple[Run, ...]:
        """The edges that follow the top when the work is rotated: row ends, foundation chain, row ends."""
        if not self.underside and self.rows < 1:
            return ()
        ends = (Run(Place("end"), self.rows),) if self.rows else ()
        under = (Run(Place("ch"), self.underside),) if self.underside else ()
        return (*ends, *under, *ends)


def work_pattern(pattern: Pattern, size: int) -> SizeWork:
    """Work every line that holds for a size."""
    pieces: list[_Piece] = []
    worked: list[LineWork] = []
    corners, budget = _names_corners(pattern), Budget()
    for index, section in enumerate(pattern.sections):
        piece = _start_of(pattern, section, pieces, size)
        for line in section.lines:
            if size not in line.sizes or not isinstance(line, Row | Again | Setup):
                continue
            worked.append(_work_line(line, (index, section), size, piece, pattern, (corners, budget)))
        pieces.append(piece)
    return SizeWork(size, tuple(worked), tuple(piece.edge or EMPTY for piece in pieces))


def _names_corners(pattern: Pattern) -> bool:
    """Does any line speak of corners? Only then are they kept apart."""
    return any(_corner_in(line.steps) for _, line in pattern.lines() if isinstance(line, Row))


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


def _start_of(pattern: Pattern, section: Section, pieces: list[_Piece], size: int) -> _Piece:
    if section.continues is None:
        return _Piece(EMPTY)
    wanted = section.continues.lower()
    index = next((i for i in range(len(pieces) - 1, -1, -1) if pattern.sections[i].title.lower() == wanted), None)
    if index is None:
        return _Piece(EMPTY)
    before = pieces[index]
    on = section.on
    if on is None:
        # A flat strip that becomes a tube, or a tube that goes on flat, is still one piece.
        return _Piece(
            before.edge, before.says, before.pending, before.rows, before.underside, before.loops, {}, before.origin
        )
    if on.edge == "foundation":
        return _Piece(Edge((Run(Place("ch"), before.underside),) if before.underside else ()))
    if on.edge == "row ends":
        return _Piece(Edge((Run(Place("end"), before.rows),) if before.rows else ()))
    assert on.number is not None
    free = before.loops.get((on.kind, on.number.at(size)))
    runs = () if free is None else free.front if on.loop == "front" else free.back
    closed = pattern.sections[index].worked not in ("rows", "rows from the same side")
    return _Piece(Edge(runs, closed))


def _work_line(
    line: Line, where: tuple[int, Section], size: int, piece: _Piece, pattern: Pattern, common: tuple[bool, Budget]
) -> LineWork:
    index, section = where
    start = piece.edge or EMPTY
    if isinstance(line, Setup):
        return _work_setup_line(line, index, size, piece, start)
    assert isinstance(line, Row | Again)
    sources = _sources(line, piece, size)
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
    rounds: list[Counts] = []
    last: RowWork | None = None
    here = start
    first_number = line.first.at(size)
    beginning = _around(piece, section, pattern, common)
    for turn in range(times):
        source = sources[turn % len(sources)]
        before, was_pending = here, piece.pending
        last = _best_reading(source, line, size, here, _around(piece, section, pattern, common), turn == times - 1)
        if last.trouble:
            return replace(
                _go_on(line, index, size, piece, tuple(rounds), last, last.trouble, source), around=beginning
            )
        here = _after_row(last, source, section, (line.kind, first_number + turn))
        _keep(piece, last, line.kind, first_number + turn)
        rounds.append(last.counts)
        alike = replace(before, origin=None) == replace(here, origin=None) and was_pending == piece.pending
        if alike and len(sources) == 1 and last.free is None:
            _count_rows(piece, line, times - turn - 1, first_number)
            rounds += [rounds[-1]] * (times - turn - 1)
            here = replace(here, origin=(index, line.kind, first_number + times - 1))
            piece.origin = (line.kind, first_number + times - 1)
            break
    piece.by_number.update({(line.kind, first_number + turn): sources[turn % len(sources)] for turn in range(times)})
    if last is not None and differing(line.totals, last.counts, size):
        sts = stated_sts(line.totals, size)
        if sts is not None and sts != last.counts.sts:
            return replace(_go_on(line, index, size, piece, tuple(rounds), last, None, sources[-1]), around=beginning)
    piece.edge = here
    source_last = sources[(times - 1) % len(sources)] if times > 0 else None
    return LineWork(line, index, start, here, tuple(rounds), last, source=source_last, around=beginning)


def _sources(line: Worked, piece: _Piece, size: int) -> list[Row]:
    """The rows whose instructions a line uses; none when one of them is not there."""
    if isinstance(line, Row):
        return [line]
    found = [piece.by_number.get((line.kind, number.values[size] or 0)) for number in line.sources]
    return [row for row in found if row is not None] if all(found) else []


def _around(piece: _Piece, section: Section, pattern: Pattern, common: tuple[bool, Budget]) -> Surroundings:
    rows = section.worked in ("rows", "rows from the same side")
    return Surroundings(
        piece.says, piece.pending, piece.sides(), tuple(piece.loops.items()), pattern.specials, common[0], rows or piece.rows > 0, common[1]
    )  # fmt: skip


def _best_reading(source: Row, line: Worked, size: int, edge: Edge, around: Surroundings, is_last: bool) -> RowWork:
    """The row worked; where the text leaves open whether a chain counts, the reading that makes its total true is taken."""
    work = work_row(source, size, edge, around)
    unsaid = [w for w in work.warnings if w.code == "chain-unsaid"]
    if not unsaid or not (work.trouble or (is_last and differing(line.totals, work.counts, size))):
        return work
    chain = source.steps[0] if source.steps and isinstance(source.steps[0], Chain) else around.pending
    if chain is None:
        return work
    other = work_row(source, size, edge, replace(around, says=(*around.says, (chain.length.at(size), "st"))))
    true = other.trouble is None and not (is_last and differing(line.totals, other.counts, size))
    return replace(other, warnings=work.warnings) if true else work


def _after_row(work: RowWork, source: Row, section: Section, label: tuple[str, int]) -> Edge:
    """The edge as the next row meets it: rows are turned, said or not."""
    edge = work.edge
    gestures = {step.kind for step in source.steps if isinstance(step, Gesture)}
    flat = section.worked in ("rows", "joined and turned rounds") and (source.kind == "Row" or section.worked != "rows")
    if flat and not gestures & {"turn", "do not turn"}:
        edge = edge.turned()
    return replace(edge, origin=(0, label[0], label[1]))  # type: ignore[arg-type]


def _keep(piece: _Piece, work: RowWork, kind: str, number: int) -> None:
    """What a worked row leaves for later: loops, the underside, what is known of chains."""
    piece.says = work.says
    piece.pending = work.pending
    if work.free is not None and piece.origin is not None:
        piece.loops[piece.origin] = work.free
    for used_kind, used, loop in work.used_loops:
        free = piece.loops.get((used_kind, used))
        if free is not None:
            piece.loops[(used_kind, used)] = FreeLoops((), free.back) if loop == "front" else FreeLoops(free.front, ())
    if work.underside:
        piece.underside = work.underside
    piece.origin = (kind, number)
    if kind == "Row":
        piece.rows += 1


def _count_rows(piece: _Piece, line: Worked, more: int, _: int) -> None:
    if line.kind == "Row":
        piece.rows += more


def _work_setup_line(line: Setup, index: int, size: int, piece: _Piece, start: Edge) -> LineWork:
    end = None if line.broken else work_setup(line, size)
    if end is not None:
        piece.edge, piece.rows, piece.underside, piece.origin, piece.pending = end, 0, 0, None, None
    elif line.broken:
        piece.edge = None
    return LineWork(line, index, start, end if end is not None else start, known=not line.broken)


def _go_on(
    line: Worked,
    index: int,
    size: int,
    piece: _Piece,
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
    if isinstance(line, Row):
        piece.by_number.update(
            {
                (line.kind, n): line
                for n in range(line.first.at(size), min(number, line.first.at(size) + MOST_ROUNDS) + 1)
            }
        )
    if line.kind == "Row":
        piece.rows += max(0, line.rounds(size)) if line.rounds(size) <= MOST_ROUNDS else 0
    sts = stated_sts(line.totals, size)
    if sts is None:
        known = trouble is None and not line.broken and last is not None
        piece.edge = last.edge if known and last is not None else None
        return LineWork(line, index, start, piece.edge or EMPTY, rounds, last, trouble, known=known, source=source)
    end = _stated_edge(line, sts, size, source)
    piece.edge = end
    return LineWork(line, index, start, end, rounds, last, trouble, stated=True, source=source)


def _stated_edge(line: Worked, sts: int, size: int, source: Row | None) -> Edge:
    steps = line.steps if isinstance(line, Row) else source.steps if source is not None else ()
    stitch = _main_stitch(steps)
    spaces = [(t.count.at(size), t.length.at(size) if t.length else 1) for t in line.totals if t.what == "sp"]
    if not spaces:
        return stitches_edge(stitch, sts, closed=line.kind == "Rnd")
    runs: list[Run] = []
    groups = max(1, min(sum(count for count, _ in spaces), 5_000))
    if len(spaces) == 1 and groups and sts % groups == 0:
        inner = (Run(Place("st", stitch), sts // groups), Run(Place("sp", length=spaces[0][1]), 1))
        return Edge((Run(Place("st", "pattern"), groups, inner),) if sts else inner[1:], line.kind == "Rnd")
    left = sts
    for count, length in spaces:
        for k in range(min(count, 5_000)):
            here = left // max(1, groups)
            left, groups = left - here, groups - 1
            runs += [Run(Place("st", stitch), here), Run(Place("sp", length=length), 1)]
            del k
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
