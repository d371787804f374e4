"""A crochet-along: the pattern cut into parts at round boundaries, balanced by stitches.

Every size is cut in the same line of the text. Within a range of like rounds each size is cut
where its own stitches balance best ("Rnds 2-14 (16)" and "Rnds 15 (17)-30 (34)"); elsewhere
the cut falls between two lines.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from rillstep.core.fabric import LineWork, SizeWork
from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import Proof, prove
from rillstep.core.tree import Again, Line, Num, Pattern, Row

MOST_PARTS = 6


@dataclass(frozen=True)
class Checkpoint:
    """What the work looks like at the end of a part, in one size. Measures in mm, None without a gauge."""

    sts: int | None
    half: int | None
    width_mm: float | None
    height_mm: float | None


@dataclass(frozen=True)
class Part:
    """One part: its lines by (section, line) index, its stitches per size, and its checkpoint per size."""

    number: int
    lines: tuple[tuple[int, int], ...]
    stitches: tuple[int, ...]
    checkpoints: tuple[Checkpoint, ...]
    first_line: int
    last_line: int


@dataclass(frozen=True)
class Divided:
    """The pattern as it is printed in parts, proved again as a whole."""

    pattern: Pattern
    proof: Proof
    parts: tuple[Part, ...]


@dataclass(frozen=True)
class _Cut:
    """After this line; or within it, after so many of its rounds in each size."""

    section: int
    line: int
    within: tuple[int, ...] | None
    badness: float


def _line_stitches(works: Sequence[SizeWork], line: Line) -> list[list[int]]:
    """Stitches of each round of a line, for each size."""
    found: list[list[int]] = []
    for work in works:
        mine: LineWork | None = work.of_line(line.span.line) if isinstance(line, Row | Again) else None
        found.append([counts.sts + counts.chains for counts in mine.rounds] if mine else [])
    return found


def _best_cut(pattern: Pattern, works: Sequence[SizeWork], share: float, after: tuple[int, int]) -> _Cut | None:
    """The round boundary, later than line `after`, nearest to `share` of the stitches in all sizes."""
    n = len(pattern.sizes)
    totals = [max(1, sum(sum(_line_stitches(works, line)[s]) for _, line in pattern.lines())) for s in range(n)]
    done = [0] * n
    best: _Cut | None = None
    flat = [(i, j, line) for i, section in enumerate(pattern.sections) for j, line in enumerate(section.lines)]
    last_row = max((i, j) for i, j, line in flat if isinstance(line, Row | Again))
    for i, j, line in flat:
        rounds = _line_stitches(works, line)
        if isinstance(line, Row | Again):
            # Rounds that grow say the total of their last; where they are cut it would stand behind the first of them.
            alike = not line.totals or all(len(set(mine)) < 2 for mine in rounds)
            whole = line.sizes == tuple(range(n)) and alike
            if isinstance(line, Row) and (i, j) >= after and line.last is not None and whole:
                within = _within(rounds, done, totals, share)
                if within is not None:
                    badness = _badness(
                        [d + sum(r[:k]) for d, r, k in zip(done, rounds, within, strict=True)], totals, share
                    )
                    if best is None or badness < best.badness:
                        best = _Cut(i, j, within, badness)
            done = [d + sum(r) for d, r in zip(done, rounds, strict=True)]
            if (i, j) >= after and (i, j) < last_row:
                badness = _badness(done, totals, share)
                if best is None or badness < best.badness:
                    best = _Cut(i, j, None, badness)
    return best


def _badness(done: list[int], totals: list[int], share: float) -> float:
    return sum(abs(d / t - share) for d, t in zip(done, totals, strict=True))


def _within(rounds: list[list[int]], done: list[int], totals: list[int], share: float) -> tuple[int, ...] | None:
    """After how many rounds each size is cut; None when a size has no boundary inside this line."""
    found = []
    for mine, before, total in zip(rounds, done, totals, strict=True):
        if len(mine) < 2:
            return None
        found.append(min(range(1, len(mine)), key=lambda k: (abs((before + sum(mine[:k])) / total - share), k)))
    return tuple(found)


def _split(row: Row, within: tuple[int, ...]) -> tuple[Row, Row]:
    assert row.last is not None
    cut = Num(tuple(row.first.at(s) + k - 1 for s, k in enumerate(within)), parts=row.last.parts)
    start = Num(tuple(v + 1 for v in cut.values if v is not None), parts=row.first.parts)
    one = None if cut.values == row.first.values else cut
    two = None if start.values == row.last.values else row.last
    return replace(row, last=one), replace(row, first=start, last=two)


def divide(pattern: Pattern, count: int, allowance_mm: float = 0.0) -> Divided:
    """Cut a proved pattern into `count` parts (1 to 6), or fewer when it has fewer rounds."""
    assert 1 <= count <= MOST_PARTS
    pattern = parse(write(pattern)).pattern
    proof = prove(pattern, (), allowance_mm)
    ends: list[tuple[int, int]] = []
    for number in range(1, count):
        after = (ends[-1][0], ends[-1][1] + 1) if ends else (0, 0)
        cut = _best_cut(pattern, proof.works, number / count, after)
        if cut is None:
            break
        if cut.within is not None:
            lines = list(pattern.sections[cut.section].lines)
            row = lines[cut.line]
            assert isinstance(row, Row)
            lines[cut.line : cut.line + 1] = _split(row, cut.within)
            sections = list(pattern.sections)
            sections[cut.section] = replace(sections[cut.section], lines=tuple(lines))
            pattern = parse(write(replace(pattern, sections=tuple(sections)))).pattern
            proof = prove(pattern, (), allowance_mm)
        ends.append((cut.section, cut.line))
    return Divided(pattern, proof, _parts(pattern, proof, ends))


def _parts(pattern: Pattern, proof: Proof, ends: list[tuple[int, int]]) -> tuple[Part, ...]:
    groups: list[list[tuple[int, int]]] = [[]]
    rest = list(ends)
    for i, section in enumerate(pattern.sections):
        for j, line in enumerate(section.lines):
            past = rest and (i, j) > rest[0]
            if past and (isinstance(line, Row | Again) or (i, j)[0] > rest[0][0]):
                rest.pop(0)
                groups.append([])
            groups[-1].append((i, j))
    return tuple(_part(pattern, proof, number, lines) for number, lines in enumerate(groups, start=1))


def _part(pattern: Pattern, proof: Proof, number: int, lines: list[tuple[int, int]]) -> Part:
    numbers = [pattern.sections[i].lines[j].span.line for i, j in lines]
    first, last = min(numbers), max(numbers)
    stitches = []
    checkpoints = []
    for size, work in enumerate(proof.works):
        mine = [w for w in work.lines if first <= w.line.span.line <= last and isinstance(w.line, Row | Again)]
        stitches.append(sum(counts.sts + counts.chains for w in mine for counts in w.rounds))
        checkpoints.append(_checkpoint(proof, work, size, last))
    return Part(number, tuple(lines), tuple(stitches), tuple(checkpoints), first, last)


def _checkpoint(proof: Proof, work: SizeWork, size: int, last: int) -> Checkpoint:
    rows = [w for w in work.lines if w.line.span.line <= last and isinstance(w.line, Row | Again) and w.rounds]
    sts = rows[-1].rounds[-1].sts if rows else None
    half = sts // 2 if sts is not None and sts % 2 == 0 else None
    if proof.shapes is None or proof.bag is None:
        return Checkpoint(sts, half, None, None)
    so_far = {one.name: one.mm for one in proof.bag.at(size, last)}
    base = [r.width_mm for r in proof.shapes[size].rounds if r.line <= last and r.flatness is not None]
    return Checkpoint(sts, half, so_far.get("width") or max(base, default=None), so_far.get("height"))
