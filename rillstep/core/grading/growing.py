"""Rounds that grow: neighbouring lines of one shape whose numbers change by the same each time, as one line.

"Rnd 3: [sc in next st, 2 sc in next st] 6 times" and those after it are "Rnds 3-9: [sc in next {rnd - 2} sts, 2 sc in
next st] 6 times". A round in which a run is one stitch, or none, is worded otherwise and belongs to them: whether the
one line says the same of it is told by reading it.
"""

import re
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from rillstep.core.tree import Row, Section

# So many rounds of one shape are a growing sequence; two may be chance, but where the round before grows alike.
LEAST_GROWING = 3
LABEL = re.compile(r"^(\s*)(rnd|round|row|r)(\.?\s*)(\d+)(?=\s*(?:\([^()]*\))?\s*[:.])", re.IGNORECASE)
_NUMBER = re.compile(r"\d+")
_RUN = re.compile(r"\bnext (\d+) (?!times)", re.IGNORECASE)


@dataclass(frozen=True)
class GrowingLine:
    """Lines of a text that are one growing line. lines: their numbers. begin: the number of the first round. word: what
    the number of the round is called in it. body: the line behind its label, with each number that changes as (step,
    value at the first round). open: its last rounds shrink to nothing."""

    lines: tuple[int, ...]
    begin: int
    indent: str
    label: str
    gap: str
    word: str
    parts: tuple[str, ...]
    steps: tuple[int, ...]
    values: tuple[int, ...]

    @property
    def end(self) -> int:
        """The number of the last round."""
        return self.begin + len(self.lines) - 1

    @property
    def run(self) -> int | None:
        """Which of the numbers is that of the first run that grows."""
        return next((at for at, step in enumerate(self.steps) if step), None)

    def written(self, last: str, before: Sequence[tuple[str, int]] = (), start: str = "") -> str:
        """The one line. last: the sum that the number of the last round is. before: names by which the number of the
        first round moves, with their values. start: the name of the run in the first round, where that has one; numbers
        that change by as much are counted from it."""
        numbers = [self._number(at, before, start) for at in range(len(self.steps))]
        body = "".join(a + b for a, b in zip(self.parts, [*numbers, ""], strict=True))
        return f"{self.indent}{self.label}s{self.gap}{self.begin}-{last}{body}"

    def _number(self, at: int, before: Sequence[tuple[str, int]], start: str) -> str:
        """ "{rnd - 2}", "{6*rnd}", "{taper - 2*(row - rows) + 8}"."""
        step, value, run = self.steps[at], self.values[at], self.run
        if not step or run is None:
            return str(value)
        names = [name for name, _ in before]
        number = f"({' - '.join([self.word, *names])})" if names and abs(step) > 1 else " - ".join([self.word, *names])
        first = self.begin - sum(much for _, much in before)
        # What grows by a multiple of the run, as a total does by a repeat, is counted from it by as much.
        share = step // self.steps[run] if start and step % self.steps[run] == 0 else 0
        named = {0: "", 1: start}.get(share, f"{share}*{start}")
        more = value - step * first - share * self.values[run]
        times = number if abs(step) == 1 else f"{abs(step)}*{number}"
        if step < 0:
            times = times if abs(step) > 1 or not names else f"({times})"
            return f"{{{named} - {times}{_more(more)}}}" if named else f"{{{more} - {times}}}"
        return f"{{{named + ' + ' if named else ''}{times}{_more(more)}}}"


def _more(by: int) -> str:
    return "" if not by else f" {'+' if by > 0 else '-'} {abs(by)}"


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
    for many in range(len(lines), 0, -1):
        line = replace(known, lines=tuple(lines[:many]))
        if reads_alike(line):
            return line
    return None


def _single_rows(section: Section) -> list[int]:
    """The lines of a section that are one round each."""
    return [
        line.span.line for line in section.lines
        if isinstance(line, Row) and line.last is None and line.last_line in (0, line.span.line)
    ]  # fmt: skip


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
        run = [single[at]]
        while at + len(run) < len(single) and _goes_on(run, single[at + len(run)], rows):
            run.append(single[at + len(run)])
        steps = _steps(rows, run[0], run[1]) if len(run) > 1 else _guessed(rows, single, at, totals)
        if steps is None or not any(steps):
            at += 1
            continue
        line = _widened(_line_of(rows, run, steps), single, rows, reads_alike)
        if len(line.lines) < 2:
            at += 1
            continue
        if len(line.lines) >= LEAST_GROWING or _grows_before(line, single, totals):
            yield line
            at = single.index(line.lines[-1]) + 1
        else:
            at += 1


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
            few = [value for step, value in zip(wide.steps, _at(wide, number), strict=True) if step]
            if label is None or int(label[4]) != number or min(few, default=9) not in (0, 1) or not reads_alike(wide):
                break
            line = wide
    return line


def _with(line: GrowingLine, number: int, back: bool) -> GrowingLine:
    if not back:
        return replace(line, lines=(*line.lines, number))
    values = tuple(value - step for step, value in zip(line.steps, line.values, strict=True))
    return replace(line, lines=(number, *line.lines), begin=line.begin - 1, values=values)


def _at(line: GrowingLine, number: int) -> list[int]:
    """The numbers of the line in a round."""
    return [value + step * (number - line.begin) for step, value in zip(line.steps, line.values, strict=True)]


def _guessed(rows: Sequence[str], single: Sequence[int], at: int, totals: dict[int, int]) -> tuple[int, ...] | None:
    """By how much the numbers of a line change, if its runs grow by one a round and its total as from the round before;
    whether they do is told by reading the round before as such a line."""
    raw = rows[single[at] - 1]
    label = LABEL.match(raw)
    if at == 0 or label is None or "{" in raw or any(number not in totals for number in single[at - 1 : at + 1]):
        return None
    total, by = totals[single[at]], totals[single[at]] - totals[single[at - 1]]
    body = raw[label.end() :]
    if by == 0 or not _RUN.search(body):
        return None
    sign = 1 if by > 0 else -1
    places = list(_NUMBER.finditer(body))
    runs = {match.start(1) for match in _RUN.finditer(body)}
    last = max((n for n, place in enumerate(places) if int(place[0]) == total), default=-1)
    return tuple(sign if place.start() in runs else by if n == last else 0 for n, place in enumerate(places))


def _line_of(rows: Sequence[str], run: Sequence[int], steps: tuple[int, ...]) -> GrowingLine:
    first = rows[run[0] - 1]
    label = LABEL.match(first)
    assert label is not None
    body = first[label.end() :]
    return GrowingLine(
        tuple(run), int(label[4]), label[1], label[2], label[3] or " ",
        "row" if label[2].lower() == "row" else "rnd",
        tuple(_NUMBER.split(body)), steps, tuple(map(int, _NUMBER.findall(body))),
    )  # fmt: skip


def _goes_on(run: Sequence[int], following: int, rows: Sequence[str]) -> bool:
    step = _steps(rows, run[-1], following)
    return step is not None and (len(run) < 2 or step == _steps(rows, run[-2], run[-1]))


def _steps(rows: Sequence[str], one: int, other: int) -> tuple[int, ...] | None:
    """By how much each number of a line differs from the line before; None for lines of another shape."""
    first, second = rows[one - 1], rows[other - 1]
    a, b = LABEL.match(first), LABEL.match(second)
    if a is None or b is None or int(b[4]) != int(a[4]) + 1 or "{" in first + second:
        return None
    body, then = first[a.end() :], second[b.end() :]
    if _NUMBER.sub("#", body) != _NUMBER.sub("#", then):
        return None
    return tuple(int(y) - int(x) for x, y in zip(_NUMBER.findall(body), _NUMBER.findall(then), strict=True))
