"""Rounds that grow, found: neighbouring lines of one shape whose numbers change by the same each time, as one line.

"Rnd 3: [sc in next st, 2 sc in next st] 6 times" and those after it are "Rnds 3-9: [sc in next {rnd - 2} sts, 2 sc in
next st] 6 times". Rounds may take turns: those that grow and plain ones, or increases that are shifted from round to
round; then the line has what each turn does. A round in which a run is one stitch, or none, is worded otherwise and
belongs to them: whether the one line says the same of it is told by reading it.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

from rillstep.core.grading.growing_line import LABEL, NUMBER, RUN, GrowingLine, GrowingRound
from rillstep.core.tree import Row, Section

# So many rounds of one shape are a growing sequence; two may be chance, but where the round before grows alike.
LEAST_GROWING = 3
# So many rounds take turns at most.
MOST_TURNS = 3


def growing_lines(
    section: Section, rows: Sequence[str], reads_alike: Callable[[GrowingLine], bool], known: Sequence[GrowingLine] = ()
) -> list[GrowingLine]:
    """The growing lines of a section. reads_alike: whether the text says the same with one in place of its lines.
    known: those of the same section in other sizes, which may have more rounds of them, or fewer."""
    own = list(_of_section(section, rows, reads_alike))
    taken = {number for line in own for number in line.lines}
    single = [number for number in _single_rows(section) if number not in taken]
    for line in known:
        if all(line.begin != mine.begin for mine in own):
            fewer = _as_known(line, single, rows, reads_alike)
            own += [fewer] if fewer is not None else []
    return sorted(own, key=lambda line: line.lines)


def _as_known(
    known: GrowingLine, single: Sequence[int], rows: Sequence[str], reads_alike: Callable[[GrowingLine], bool]
) -> GrowingLine | None:
    """The rounds of a section that are those of a growing line of another size; None where there are none."""
    labels = {int(label[4]): number for number in single if (label := LABEL.match(rows[number - 1])) is not None}
    lines: list[int] = []
    while known.begin + len(lines) in labels:
        lines.append(labels[known.begin + len(lines)])
    own = _with_own_numbers(known, lines, rows)
    for many in range(len(lines), 0, -1):
        line = replace(own, lines=tuple(lines[:many]))
        if reads_alike(line):
            return line
    return None


def _with_own_numbers(known: GrowingLine, lines: Sequence[int], rows: Sequence[str]) -> GrowingLine:
    """The growing line of another size with the numbers of this one, where a round of its has the same words."""
    if len(known.turns) > 1:
        return known
    (shape,) = known.turns
    for at, number in enumerate(lines):
        label = LABEL.match(rows[number - 1])
        assert label is not None
        body = rows[number - 1][label.end() :]
        if tuple(NUMBER.split(body)) == shape.parts:
            there = replace(shape, values=tuple(map(int, NUMBER.findall(body))))
            return replace(known, turns=(replace(there, values=tuple(there.at(-at))),))
    return known


def _single_rows(section: Section) -> list[int]:
    """The lines of a section that are one round each."""
    return [
        line.span.line
        for line in section.lines
        if isinstance(line, Row) and line.last is None and line.last_line in (0, line.span.line)
    ]


def _of_section(
    section: Section, rows: Sequence[str], reads_alike: Callable[[GrowingLine], bool]
) -> Iterator[GrowingLine]:
    single = _single_rows(section)
    totals = {
        line.span.line: line.totals[0].count.at(0)
        for line in section.lines
        if isinstance(line, Row) and line.totals and line.totals[0].count.values[0] is not None
    }
    at = 0
    while at < len(single):
        line = _from(at, single, rows, totals, reads_alike)
        if line is not None:
            yield line
        at = single.index(line.lines[-1]) + 1 if line is not None else at + 1


def _from(
    at: int,
    single: Sequence[int],
    rows: Sequence[str],
    totals: dict[int, int],
    reads_alike: Callable[[GrowingLine], bool],
) -> GrowingLine | None:
    """The growing line that begins at a round, or just before it; None where there is none."""
    run = _run_of(single, at, rows, 1)
    steps = _steps(rows, run[0], run[1]) if len(run) > 1 else _guessed(rows, single, at, totals)
    if steps is not None and any(steps):
        line = _widened(_line_of(rows, run, [steps]), single, rows, reads_alike)
        if len(line.lines) >= LEAST_GROWING or (len(line.lines) == 2 and _grows_before(line, single, totals)):
            return line
    for many in range(2, MOST_TURNS + 1):
        run = _run_of(single, at, rows, many)
        if len(run) < 2 * many:
            continue
        turns = [_steps(rows, run[turn], run[turn + many]) for turn in range(many)]
        told = [one for one in turns if one is not None]
        if not any(map(any, told)) or ":" not in _line_of(rows, run, told).turns[0].parts[0]:
            continue
        line = _widened(_line_of(rows, run, told), single, rows, reads_alike)
        # Each twice may be chance; a run that comes from nothing, or one more round, is none.
        if len(line.lines) > 2 * many and reads_alike(line):
            return line
    return None


def _run_of(single: Sequence[int], at: int, rows: Sequence[str], many: int) -> list[int]:
    """The lines from one on that go on in the same manner, so many taking turns."""
    run = [single[at]]
    while at + len(run) < len(single) and _goes_on(run, single[at + len(run)], rows, many):
        run.append(single[at + len(run)])
    return run


def _grows_before(line: GrowingLine, single: Sequence[int], totals: dict[int, int]) -> bool:
    """Whether the round before two growing ones has a total that goes up, or down, by as much."""
    at = single.index(line.lines[0])
    if at == 0 or any(one not in totals for one in (single[at - 1], *line.lines[:2])):
        return False
    before, first, second = (totals[one] for one in (single[at - 1], *line.lines[:2]))
    return second != first and second - first == first - before


def _widened(
    line: GrowingLine, single: Sequence[int], rows: Sequence[str], reads_alike: Callable[[GrowingLine], bool]
) -> GrowingLine:
    """The line with neighbours that are worded otherwise, as a run of theirs is one stitch or none."""
    for back in (True, False):
        while True:
            at = single.index(line.lines[0 if back else -1]) + (-1 if back else 1)
            if not 0 <= at < len(single):
                break
            label = LABEL.match(rows[single[at] - 1])
            number = line.begin - 1 if back else line.end + 1
            wide = _with(line, single[at], back)
            turn = wide.turns[(number - wide.begin) % len(wide.turns)]
            numbers = turn.at((number - wide.begin) // len(wide.turns))
            few = [value for step, value in zip(turn.steps, numbers, strict=True) if step]
            if label is None or int(label[4]) != number or min(few, default=9) not in (0, 1) or not reads_alike(wide):
                break
            line = wide
    return line


def _with(line: GrowingLine, number: int, back: bool) -> GrowingLine:
    if not back:
        return replace(line, lines=(*line.lines, number))
    turns = (line.turns[-1].back(), *line.turns[:-1])
    return replace(line, lines=(number, *line.lines), begin=line.begin - 1, turns=turns)


def _guessed(rows: Sequence[str], single: Sequence[int], at: int, totals: dict[int, int]) -> tuple[int, ...] | None:
    """By how much the numbers of a line change, if its runs grow by one a round and its total as from the round before;
    whether they do is told by reading the round before as such a line."""
    raw = rows[single[at] - 1]
    label = LABEL.match(raw)
    if at == 0 or label is None or "{" in raw or any(number not in totals for number in single[at - 1 : at + 1]):
        return None
    total, by = totals[single[at]], totals[single[at]] - totals[single[at - 1]]
    body = raw[label.end() :]
    if by == 0 or not RUN.search(body):
        return None
    sign = 1 if by > 0 else -1
    places = list(NUMBER.finditer(body))
    runs = {match.start(1) for match in RUN.finditer(body)}
    last = max((n for n, place in enumerate(places) if int(place[0]) == total), default=-1)
    return tuple(sign if place.start() in runs else by if n == last else 0 for n, place in enumerate(places))


def _line_of(rows: Sequence[str], run: Sequence[int], steps: Sequence[tuple[int, ...]]) -> GrowingLine:
    """The growing line of some rounds; steps: for each turn by how much its numbers change."""
    labels = [LABEL.match(rows[number - 1]) for number in run[: len(steps)]]
    turns = []
    for number, label, by in zip(run, labels, steps, strict=False):
        assert label is not None
        body = rows[number - 1][label.end() :]
        turns.append(GrowingRound(tuple(NUMBER.split(body)), by, tuple(map(int, NUMBER.findall(body)))))
    label = labels[0]
    assert label is not None
    word = "row" if label[2].lower() == "row" else "rnd"
    return GrowingLine(tuple(run), int(label[4]), label[1], label[2], label[3] or " ", word, tuple(turns))


def _goes_on(run: Sequence[int], following: int, rows: Sequence[str], many: int) -> bool:
    """Whether a round is the next one of some that take turns: its number, and its shape where its turn was before."""
    a, b = LABEL.match(rows[run[-1] - 1]), LABEL.match(rows[following - 1])
    if a is None or b is None or int(b[4]) != int(a[4]) + 1:
        return False
    if len(run) < many:
        return True
    step = _steps(rows, run[-many], following)
    return step is not None and (len(run) < 2 * many or step == _steps(rows, run[-2 * many], run[-many]))


def _steps(rows: Sequence[str], one: int, other: int) -> tuple[int, ...] | None:
    """By how much each number of a line differs from another one; None for lines of another shape."""
    first, second = rows[one - 1], rows[other - 1]
    a, b = LABEL.match(first), LABEL.match(second)
    if a is None or b is None or "{" in first + second:
        return None
    body, then = first[a.end() :], second[b.end() :]
    if NUMBER.sub("#", body) != NUMBER.sub("#", then):
        return None
    return tuple(int(y) - int(x) for x, y in zip(NUMBER.findall(body), NUMBER.findall(then), strict=True))
