"""The rounds that one line of a text stands for, each worked on the one before."""

from dataclasses import dataclass, replace

from rillstep.core.craft import basic
from rillstep.core.fabric.assumed import Worked, go_on, hangs_on_what_is_assumed
from rillstep.core.fabric.beginnings import (
    begins_apart,
    begins_unsaid,
    begun_with,
    follows_words,
    is_marked_in_words,
    numbered_join,
)
from rillstep.core.fabric.chains_said import Says
from rillstep.core.fabric.counting import differing, stated_sts
from rillstep.core.fabric.edge import EMPTY, Counts, Edge, Run, leaves, stitches_edge
from rillstep.core.fabric.hook import MOST_STEPS_IN_ALL, FreeLoops, Surroundings, Trouble, Turn
from rillstep.core.fabric.piece import MOST_ROUNDS, Piece
from rillstep.core.fabric.remembered import Identity, interned, worked
from rillstep.core.fabric.taking import SKIPPED_CHAINS, known_of_skipped
from rillstep.core.fabric.worked_lines import LineWork
from rillstep.core.fabric.working import RowWork, work_row, work_setup
from rillstep.core.findings import Span
from rillstep.core.tree import (
    Again,
    Chain,
    Evenly,
    FromHook,
    Gesture,
    Line,
    Pattern,
    Row,
    Section,
    Setup,
    Skip,
    TopOfChain,
    Work,
)

# What is wrong in so many lines of one size is no pattern, or another size's: the rest of it is not worked.
MOST_WRONG = 60


@dataclass
class Budget:
    """How many steps may still be worked in this pattern and size, and how many lines may still be wrong."""

    left: int = MOST_STEPS_IN_ALL
    wrong: int = MOST_WRONG
    told: bool = False  # that it is used up, which is said once

    @property
    def used_up(self) -> bool:
        return self.left < 0 or self.wrong < 0


@dataclass(frozen=True)
class Where:
    """Where lines are worked: the section of a pattern, in a size; corners: whether the pattern names corners
    anywhere; throughout: what it says anywhere of chains that begin a row."""

    pattern: Pattern
    index: int
    size: int
    corners: bool
    throughout: Says
    budget: Budget

    @property
    def section(self) -> Section:
        return self.pattern.sections[self.index]


def work_line(line: Line, where: Where, piece: Piece, sources: list[Row]) -> tuple[LineWork, int]:
    """A line worked on its piece, which is then as the line leaves it, and the steps that it took.

    sources: the rows whose instructions it uses.
    """
    index, size, budget = where.index, where.size, where.budget
    start = piece.edge or EMPTY
    if isinstance(line, Setup):
        return _work_setup_line(line, index, size, piece, start), 0
    assert isinstance(line, Row | Again)
    if budget.used_up:
        trouble = None if budget.told else _used_up(budget, line.label_span)
        budget.told = True
        return replace(go_on(line, index, size, piece, (), None, trouble), known=False), 0
    if isinstance(line, Again) and not sources:
        trouble = (
            None if line.broken else Trouble("row-not-found", line.label_span, "the rows to work again are not there")
        )
        return go_on(line, index, size, piece, (), None, trouble), 0
    if piece.edge is None and isinstance(line, Row) and not line.broken and (count := _spread_over_all(line, size)):
        piece.edge = start = interned(
            replace(stitches_edge("sc", count, closed=True), assumed=True)
        )  # whatever edge it is, it is worked so
    # What copies a row that was not understood, or is wrong, is not worked: its faults would only grow.
    if isinstance(line, Row) and piece.joined is not None:
        sources = [begun_with(Identity(line), Identity(piece.joined))]
    piece.joined = None
    if line.broken or piece.edge is None or any(_is_refuted(source, line, piece, size) for source in sources):
        return go_on(line, index, size, piece, (), None, None), 0
    times = line.rounds(size)
    if times > MOST_ROUNDS:
        message = f"more than {MOST_ROUNDS:,} rounds in one line are not worked"
        return go_on(line, index, size, piece, (), None, Trouble("too-large", line.label_span, message)), 0
    return _work_rounds(line, where, piece, sources)


def _is_refuted(source: Row, line: Worked, piece: Piece, size: int) -> bool:
    """Is a row that a line works again not understood, or wrong itself?"""
    return source.broken or (source is not line and (source.kind, source.first.at(size)) in piece.refuted)


def _used_up(budget: Budget, span: Span) -> Trouble:
    if budget.left < 0:
        return Trouble("too-large", span, "this pattern takes more steps than Rillstep works")
    message = f"more than {MOST_WRONG} lines before this one are wrong, so those from here on are not worked"
    return Trouble("too-many-errors", span, message)


def _spread_over_all(line: Row, size: int) -> int:
    """How many stitches a row works evenly around, where it does nothing else: it says the same of any edge."""
    works = [step for step in line.steps if not isinstance(step, Chain | Gesture)]
    one = works[0] if len(works) == 1 else None
    return one.count.at(size) if isinstance(one, Evenly) and one.along in ("around", "edge") else 0


def _work_rounds(line: Worked, where: Where, piece: Piece, sources: list[Row]) -> tuple[LineWork, int]:
    """All rounds that a line stands for, each on the one before, and the steps that they took."""
    index, section, size = where.index, where.section, where.size
    spent = 0
    start = here = piece.edge or EMPTY
    times, first_number = line.rounds(size), line.first.at(size)
    rounds: list[Counts] = []
    last: RowWork | None = None
    turns: list[Turn] = []
    beginning = around = _around(piece, where)
    by_chance = False  # whether what comes out hangs on what is only assumed
    for turn in range(times):
        if spent > where.budget.left:
            message = "this pattern takes more steps than Rillstep works"
            trouble = Trouble("too-large", line.label_span, message)
            return go_on(line, index, size, piece, tuple(rounds), last, trouble), spent
        source = sources[turn % len(sources)]
        before, was_pending = here, piece.pending
        around = _around(piece, where) if turn else beginning
        how = (turn == times - 1, _is_turned(source, section))
        on_rest = not turn and _on_rest(source, line, size, piece, around, how)
        if on_rest:
            start = before = here = piece.rest or EMPTY
            beginning = around = replace(around, rest=None, pending=None)
        last, here, around = _best_reading(source, line, size, here, around, how)
        turns.append(Turn(source, before, around, how[1] or "turn" in source.gestures))
        spent += last.spent
        by_chance = by_chance or hangs_on_what_is_assumed(source, before)
        by_chance = by_chance or (piece.wrong is not None and begins_unsaid(source, around, size))
        if last.trouble and not turn and follows_words(Identity(section), line.span.line):
            last = replace(last, trouble=None, warnings=(Trouble("words-not-worked", line.label_span, _ON_WORDS),))
            gone_on = go_on(line, index, size, piece, (), last, None, source)
            return replace(gone_on, around=beginning, turns=tuple(turns)), spent
        if last.trouble:
            # What is missing in a piece that went wrong before may be what a line that was not worked would have left.
            hangs = by_chance or (last.trouble.code in ("no-such-place", "marker-missing") and piece.wrong is not None)
            if last.trouble.code == "marker-missing" and is_marked_in_words(Identity(where.pattern), line.span.line):
                message = "the marker is placed in words that are not worked, so where it is is not known"
                last = replace(last, trouble=None, warnings=(Trouble("words-not-worked", last.trouble.span, message),))
                hangs = True
            known, told = ((), None) if hangs else (tuple(rounds), last.trouble)
            gone_on = go_on(line, index, size, piece, known, last, told, source)
            return replace(gone_on, around=beginning, turns=tuple(turns)), spent
        _keep(piece, last, line.kind, first_number + turn, on_rest)
        piece.grew = last.counts.sts - before.counts().sts
        rounds.append(last.counts)
        same_loops = last.free is None and not last.used_loops
        if before is here and was_pending is piece.pending and len(sources) == 1 and same_loops:
            if line.kind == "Row":
                piece.rows += times - turn - 1
            rounds += [rounds[-1]] * (times - turn - 1)
            piece.origin = (line.kind, first_number + times - 1)
            break
    if last is not None and differing(line.totals, last.counts, size):
        if last.row is not turns[-1].source:  # a remembered row may have stood elsewhere in the text
            last = work_row(turns[-1].source, size, turns[-1].edge, turns[-1].around)
        sts = stated_sts(line.totals, size)
        if follows_words(Identity(section), line.span.line):
            by_chance, last = True, replace(last, warnings=(Trouble("words-not-worked", line.label_span, _ON_WORDS),))
        if by_chance or (sts is not None and sts != last.counts.sts):
            gone_on = go_on(line, index, size, piece, () if by_chance else tuple(rounds), last, None, sources[-1])
            return replace(gone_on, around=beginning, turns=tuple(turns)), spent
    piece.edge = None if by_chance and stated_sts(line.totals, size) is None else here
    source_last = sources[(times - 1) % len(sources)] if times > 0 else None
    work = LineWork(
        line,
        index,
        start,
        here,
        tuple(rounds),
        last,
        source=source_last,
        around=beginning,
        turns=tuple(turns),
        size=size,
    )
    return work, spent


_ON_WORDS = "the line before it is kept as words and not worked, so what this is worked on is not known"


def _around(piece: Piece, where: Where) -> Surroundings:
    rows = where.section.worked in ("rows", "rows from the same side") or piece.rows > 0
    return Surroundings(
        piece.says,
        piece.pending,
        piece.sides(),
        piece.loops,
        where.pattern.specials,
        where.corners,
        rows,
        piece.grew,
        piece.rest,
        where.throughout,
    )


def _on_rest(source: Row, line: Worked, size: int, piece: Piece, around: Surroundings, how: tuple[bool, bool]) -> bool:
    """Is a row worked on what an earlier one left unworked? It is where it begins anew after some skipped stitches,
    or says so, and comes out."""
    begins = begins_apart(source)
    if piece.rest is None or not begins:
        return False
    edge, apart = piece.rest, replace(around, rest=None, pending=None)
    work, _, _ = _best_reading(source, line, size, edge, apart, how)
    return begins == "unworked" or not (work.trouble or (how[0] and differing(line.totals, work.counts, size)))


def _best_reading(
    source: Row, line: Worked, size: int, edge: Edge, around: Surroundings, how: tuple[bool, bool]
) -> tuple[RowWork, Edge, Surroundings]:
    """The row worked, and as what it was read; where the text leaves open whether a chain counts, the reading that
    makes its total true is taken."""
    is_last, turned = how
    work, end = worked(source, size, edge, around, turned)
    fails = bool(work.trouble) or (is_last and bool(differing(line.totals, work.counts, size)))
    top = _into_top(source)
    unsaid = _unsaid(source, work, around, size) if fails or top else None
    if unsaid is None:
        return work, end, around
    length, span = unsaid
    counting = replace(around, says=(*around.says, (length, _into_top(source) or "st")))
    other, other_end = worked(source, size, edge, counting, turned)
    if other.trouble is not None or (is_last and differing(line.totals, other.counts, size)):
        return work, end, around
    warnings = work.warnings or (Trouble("chain-unsaid", span, _UNSAID if fails else _UNSAID_TOP),)
    return replace(other, warnings=warnings), other_end, counting


def _into_top(source: Row) -> str:
    """The stitch that a row works into the top of a turning chain, as only those do who count such chains; "" for
    none."""
    return next(
        (step.stitch for step in source.steps if isinstance(step, Work) and isinstance(step.into, TopOfChain)), ""
    )


_UNSAID = "the text does not say that the skipped chains count as a stitch; the total is true when they do"
_UNSAID_TOP = "the text does not say whether this chain counts; it does here, as the top of such a chain is worked into"


def _unsaid(source: Row, work: RowWork, around: Surroundings, size: int) -> tuple[int, Span] | None:
    """(length, place) of a chain of which the text does not say whether it counts; length 0 for the chains skipped at
    first."""
    steps = list(source.steps)
    while steps and (isinstance(steps[0], Gesture) or getattr(steps[0], "stitch", "") == "sl st"):
        steps.pop(0)  # a ring, and slip stitches that only move the hook
    first = steps[0] if steps else None
    second = steps[1] if isinstance(first, Chain) and len(steps) > 1 else first
    if isinstance(second, Work) and isinstance(second.into, FromHook) and not second.into.counts_as:
        nth = second.into.nth.at(size)
        known = known_of_skipped(around, nth, second.stitch)
        return (SKIPPED_CHAINS, second.span) if nth > 2 and known is None else None
    if any(w.code == "chain-unsaid" for w in work.warnings):
        chain = first if isinstance(first, Chain) else around.pending
        return (chain.length.at(size), chain.span) if chain is not None else None
    if isinstance(first, Chain) and first.counts is None and isinstance(second, Skip) and _into_top(source):
        length = first.length.at(size)  # "ch 3, sk first 2 sts, shell in next st, ..., dc in top of turning ch"
        said = any(length == known for known, _ in (*around.says, *around.throughout))
        return (length, first.span) if not said and length == basic(_into_top(source)).turning_chain else None
    return None


def _is_turned(source: Row, section: Section) -> bool:
    """Rows are turned, said or not, before the next one meets them."""
    flat = section.worked in ("rows", "joined and turned rounds") and (source.kind == "Row" or section.worked != "rows")
    return flat and not source.gestures & {"turn", "do not turn"}


def _keep(piece: Piece, work: RowWork, kind: str, number: int, on_rest: bool) -> None:
    """What a worked row leaves for later: loops, the underside, stitches left unworked, what is known of chains."""
    piece.says = work.says
    piece.pending = work.pending
    if work.free is not None and piece.origin is not None:
        piece.set_loops(piece.origin, work.free)
    for used_kind, used, loop, count in work.used_loops:
        free = dict(piece.loops).get((used_kind, used))
        if free is not None:
            front, back = (count, 0) if loop == "front" else (0, count)
            piece.set_loops((used_kind, used), FreeLoops(_after(free.front, front), _after(free.back, back)))
    if work.rest is not None or on_rest:
        piece.rest = interned(Edge(work.rest)) if work.rest else None
    if work.underside:
        piece.underside = work.underside
    piece.origin = (kind, number)
    if kind == "Row" and not work.edge.foundation:
        piece.rows += 1


def _after(runs: tuple[Run, ...], used: int) -> tuple[Run, ...]:
    """What is left of some loops when so many are worked: which of them these are, the words need not say."""
    if not used:
        return runs
    left: list[Run] = []
    for place, count in leaves(runs):
        here = min(count, used)
        used -= here
        if count > here:
            left.append(Run(place, count - here))
    return tuple(left)


def _work_setup_line(line: Setup, index: int, size: int, piece: Piece, start: Edge) -> LineWork:
    end = None if line.broken else work_setup(line, size)
    if end is not None:
        end = interned(end)
        piece.edge, piece.rows, piece.underside, piece.origin, piece.pending = end, 0, 0, None, None
        piece.wrong = piece.joined = None
    elif line.broken:
        piece.edge = None
    else:
        piece.joined = numbered_join(line)
    return LineWork(line, index, start, end if end is not None else start, known=not line.broken, size=size)
