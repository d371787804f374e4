"""Where a line cannot be worked, or its total differs: what its stated total leaves for the next line to be worked
on."""

from dataclasses import replace

from rillstep.core.craft import BY_US, GATHERED, basic_of
from rillstep.core.fabric.counting import stated_sts
from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Place, Run, pattern, stitches_edge
from rillstep.core.fabric.hook import Trouble
from rillstep.core.fabric.piece import MOST_ROUNDS, Piece
from rillstep.core.fabric.remembered import interned
from rillstep.core.fabric.worked_lines import LineWork
from rillstep.core.fabric.working import RowWork
from rillstep.core.tree import Again, EachKind, Group, Repeat, Row, Step, Together, Work
from rillstep.core.tree.features import places_named

Worked = Row | Again


def go_on(
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
    sts = None if _counts_own(line) or _counts_gathered(line, source) else stated_sts(line.totals, size)
    if sts is None:
        known = trouble is None and not line.broken and last is not None
        # What came out on stitches that were only assumed, and by its kinds, tells nothing: no rounds are given then.
        piece.edge = last.edge if known and last is not None and rounds else None
        return LineWork(
            line, index, start, piece.edge or EMPTY, rounds, last, trouble, known=known, source=source, size=size
        )
    end = interned(stated_edge(line, sts, size, source))
    piece.edge = end
    return LineWork(line, index, start, end, rounds, last, trouble, stated=True, source=source, size=size)


def _counts_own(line: Worked) -> bool:
    """Does a total count stitches of the text's own, of which it is not known here how many places each has?"""
    return any(
        total.what not in ("sts", "sp", "ch", *GATHERED) and basic_of(total.what) not in BY_US for total in line.totals
    )


def _counts_gathered(line: Worked, source: Row | None) -> bool:
    """Does a total count nothing but bobbles and the like, among the plain stitches that its row works as well?"""
    steps = line.steps if isinstance(line, Row) else source.steps if source is not None else ()
    counted = [total.what for total in line.totals if total.what not in ("sp", "ch")]
    return bool(counted) and all(what in GATHERED for what in counted) and _main_stitch(steps) not in GATHERED


def hangs_on_what_is_assumed(source: Row, edge: Edge) -> bool:
    """Does a row work into more than plain stitches, where of the row below only its stated total is known? That it
    does not come out tells nothing of it then."""
    return edge.assumed and any(what.kind != "st" or what.stitch or what.corner for what in places_named(source.steps))


def stated_edge(line: Worked, sts: int, size: int, source: Row | None) -> Edge:
    """The stated stitches, of the kind that the row works, with the stated spaces spread among them."""
    steps = line.steps if isinstance(line, Row) else source.steps if source is not None else ()
    stitch = _main_stitch(steps)
    spaces = [(t.count.at(size), t.length.at(size) if t.length else 1) for t in line.totals if t.what == "sp"]
    if not spaces:  # "30 sc, 9 ch": all of them in one space
        spaces = [(1, t.count.at(size)) for t in line.totals if t.what == "ch" and t.count.at(size) > 0]
    groups = sum(count for count, _ in spaces)
    if not groups:
        return replace(stitches_edge(stitch, sts, closed=line.kind == "Rnd"), assumed=True)
    small, large = divmod(sts, groups)  # `large` of the groups have one stitch more than the others: the last ones
    runs: list[Run] = []
    left = groups
    for count, length in spaces:
        few = max(0, min(count, left - large))
        left -= count
        for stitches, times in ((small, few), (small + 1, count - few)):
            if times > 0:
                group = (Run(Place("st", stitch), stitches), Run(Place("sp", length=length), 1))
                runs.append(pattern([run for run in group if run.count > 0], times))
    return Edge(tuple(runs), line.kind == "Rnd", assumed=True)


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
