"""The tote: an oval base, a plain wall, a brim, and two handles worked as part of the edge."""

from rillstep.core.craft import Loop
from rillstep.core.lengths import Units, in_units
from rillstep.core.tree import (
    Chain,
    Check,
    CheckItem,
    Decimals,
    Every,
    Gesture,
    Line,
    Next,
    Pattern,
    Section,
    Setup,
    Skip,
    Step,
    ToEnd,
    Total,
    What,
    Work,
)
from rillstep.document.version1.merge import merge_lines, plain
from rillstep.document.version1.oval import oval_lines
from rillstep.document.version1.plan import ToteCounts, TotePlan
from rillstep.document.version1.solve import Graded, GradedSize
from rillstep.document.version1.wording import ST, Opener, join_plain, row, skip_work, stitches

Lines = list[tuple[str, Line]]


def tote_pattern(
    name: str, plan: TotePlan, graded: Graded, units: Units, extra: tuple[tuple[str, str], ...] = ()
) -> Pattern:
    """The whole pattern of a graded tote, in all its sizes."""
    worked = "spiral rounds" if plan.rounds == "spiral" else "joined rounds"
    sizes = graded.sizes
    sections = [
        Section("Base", worked, "oval", merge_lines([_base(plan, s, units) for s in sizes])),
        Section("Wall", worked, "wall", merge_lines([_wall(plan, s, units) for s in sizes]), "Base"),
        Section("Brim and handles", worked, "wall", merge_lines([_top(plan, s, units) for s in sizes]), "Wall"),
    ]
    finished = merge_lines([[("finished", _finished(size, units))] for size in sizes])[0]
    assert isinstance(finished, Check)
    names = tuple(size.target.name for size in sizes)
    return Pattern(name, names, tuple(sections), units, (plan.gauge,), finished, extra)


def _measure(length_mm: float, units: Units) -> Decimals:
    return Decimals((in_units(length_mm, units),))


def _check(rounds: int, sts: int, measures: dict[str, float], units: Units) -> Check:
    items = [CheckItem("rnds", plain(rounds)), CheckItem("sts", plain(sts))]
    items += [CheckItem(what, _measure(mm, units)) for what, mm in measures.items()]  # type: ignore[arg-type]
    return Check(tuple(items), (0,))


def _finished(size: GradedSize, units: Units) -> Check:
    measures = {"wide": size.width_mm, "high": size.height_mm, "deep": size.depth_mm}
    items = tuple(CheckItem(what, _measure(mm, units)) for what, mm in measures.items())  # type: ignore[arg-type]
    return Check(items, (0,))


def _base(plan: TotePlan, size: GradedSize, units: Units) -> Lines:
    counts, gauge = size.counts, plan.gauge
    length = counts.side * gauge.width_mm + 2 * counts.base_rounds * gauge.height_mm
    sts = counts.around - 2 * counts.extra
    check = _check(counts.base_rounds, sts, {"wide": length, "deep": size.depth_mm}, units)
    return [*oval_lines(plan, counts), ("check", check)]


def _wall(plan: TotePlan, size: GradedSize, units: Units) -> Lines:
    counts = size.counts
    lines: Lines = [("1", _first_wall_round(plan, counts))]
    if counts.wall_rounds > 1:
        lines.append(("2", row(plan, 2, counts.wall_rounds, _plain_round(plan), counts.around)))
    measures = {"wide": size.width_mm, "high": counts.wall_rounds * plan.gauge.height_mm}
    return [*lines, ("check", _check(counts.wall_rounds, counts.around, measures, units))]


def _plain_round(plan: TotePlan, what: What = ST, loop: Loop = "both", say: bool = False) -> list[Step]:
    every = Work(plan.stitch, plain(1), Every(what, ToEnd("around")), loop)
    return [*Opener(plan, say).steps, every]


def _first_wall_round(plan: TotePlan, counts: ToteCounts) -> Line:
    loop: Loop = "back" if plan.base_edge == "back loops" else "both"
    if not counts.extra:
        return row(plan, 1, None, _plain_round(plan, loop=loop, say=True), counts.around)
    opener = Opener(plan)
    ends = counts.wedges * counts.base_rounds
    begin = counts.begin * counts.base_rounds
    long_side = spread(counts.side, counts.extra, plan.stitch, loop)
    body = join_plain(
        [
            *stitches(plan.stitch, begin, loop),
            *long_side,
            *stitches(plan.stitch, ends, loop),
            *long_side,
            *stitches(plan.stitch, ends - begin, loop),
        ]
    )
    return row(plan, 1, None, [*opener.steps, *skip_work(opener, body)], counts.around)


def spread(side: int, extra: int, stitch: str, loop: Loop = "both") -> list[Step]:
    """`extra` increases spread over `side` stitches, evenly and the same from both ends.

    The plain stitches fill extra + 1 gaps; what does not divide goes to the gaps in pairs from
    the middle out, so that gap i and gap extra - i are equal.
    """
    gaps = [(side - extra) // (extra + 1)] * (extra + 1)
    left = (side - extra) % (extra + 1)
    if left % 2:
        gaps[extra // 2] += 1
        left -= 1
    inner = extra // 2 - 1 if extra % 2 == 0 else extra // 2
    for index in range(left // 2):
        gaps[inner - index] += 1
        gaps[extra - (inner - index)] += 1
    grow = Work(stitch, plain(2), Next(plain(1), ST), loop)
    steps: list[Step] = []
    for index, gap in enumerate(gaps):
        steps += stitches(stitch, gap, loop)
        if index < extra:
            steps.append(grow)
    return steps


def _top(plan: TotePlan, size: GradedSize, units: Units) -> Lines:
    counts, brim = size.counts, plan.brim_rounds
    lines: Lines = []
    if brim:
        lines.append(("brim", row(plan, 1, brim if brim > 1 else None, _plain_round(plan, say=True), counts.around)))
    lines.append(("handles", _handle_round(plan, counts, brim + 1)))
    over = plan.over_rounds
    if over:
        first = _plain_round(plan, What("st and ch"))
        lines.append(("over", row(plan, brim + 2, None, first, counts.top)))
    if over > 1:
        last = brim + 1 + over if over > 2 else None
        lines.append(("top", row(plan, brim + 3, last, _plain_round(plan), counts.top)))
    lines.append(("off", Setup((Gesture("fasten off"),), (0,))))
    rounds = plan.top_rounds
    sts = counts.top if over else 2 * counts.between_handles
    lines.append(("check", _check(rounds, sts, {"wide": size.width_mm, "high": size.height_mm}, units)))
    return lines


def _handle_round(plan: TotePlan, counts: ToteCounts, number: int) -> Line:
    """Along the edge, chain, skip, go on: two openings, each centred on its side of the base."""
    opener, stitch = Opener(plan, say=number == 1), plan.stitch
    handle: list[Step] = [Chain(plain(counts.handle_chain)), Skip(plain(counts.handle_skip), ST)]
    steps: list[Step] = [
        *opener.steps,
        *skip_work(opener, stitches(stitch, counts.before_handle)),
        *handle,
        *stitches(stitch, counts.between_handles),
        *handle,
        *stitches(stitch, counts.after_handle),
    ]
    spaces = Total(plain(2), "sp", plain(counts.handle_chain))
    return row(plan, number, None, steps, 2 * counts.between_handles, spaces)
