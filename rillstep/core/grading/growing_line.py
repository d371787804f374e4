"""A growing line: rounds of one shape as one line of the text, and how it is written with names.

"Rnds 3-{base rounds}: [sc in next {rnd - 2} sts, 2 sc in next st] 6 times" is written from the numbers of its first
round and by how much each changes. Runs that stay the same from round to round, as the sides of an oval do, may have
names; what the line states as its total counts them.
"""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

LABEL = re.compile(r"^(\s*)(rnd|round|row|r)(\.?\s*)(\d+)(?=\s*(?:\([^()]*\))?\s*[:.])", re.IGNORECASE)
NUMBER = re.compile(r"\d+")
RUN = re.compile(r"\bnext (\d+) (?!times)", re.IGNORECASE)


@dataclass(frozen=True)
class GrowingRound:
    """What every round does, or every second or third: the words between its numbers, and for each number its value at
    the first such round and by how much it changes until the next one."""

    parts: tuple[str, ...]
    steps: tuple[int, ...]
    values: tuple[int, ...]

    def at(self, times: int) -> list[int]:
        """Its numbers so many rounds of the same turn later."""
        return [value + step * times for step, value in zip(self.steps, self.values, strict=True)]

    def is_run(self, at: int) -> bool:
        """Whether a number is a run: "in next 4 sts"."""
        return re.search(r"\bnext $", self.parts[at], re.IGNORECASE) is not None and not re.match(
            r" times\b", self.parts[at + 1], re.IGNORECASE
        )

    def is_total(self, at: int) -> bool:
        """Whether a number is the total at the end of the line."""
        return at == len(self.values) - 1 and re.search(r"[—–(\[-]\s*$", self.parts[at]) is not None

    def counted(self, constant: Mapping[int, str]) -> dict[int, int]:
        """How often each of some runs is worked in the round: once, or as often as the repeat that it stands in."""
        found = {}
        for at in constant:
            depth, times = 0, 1
            for after in range(at + 1, len(self.parts)):
                for mark in re.findall(r"[\[\]]", self.parts[after]):
                    depth += 1 if mark == "[" else -1
                    if depth < 0:
                        close = re.search(r"\]\s*(?:x\s*)?$", self.parts[after], re.IGNORECASE)
                        times *= self.values[after] if close is not None and after < len(self.values) else 1
                        depth = 0
            found[at] = times
        return found

    def back(self) -> "GrowingRound":
        """The same, begun one such round before."""
        return replace(self, values=tuple(self.at(-1)))


@dataclass(frozen=True)
class GrowingLine:
    """Lines of a text that are one growing line. lines: their numbers. begin: the number of the first round. word: what
    the number of the round is called in it. turns: what the rounds do by turns; mostly one for all."""

    lines: tuple[int, ...]
    begin: int
    indent: str
    label: str
    gap: str
    word: str
    turns: tuple[GrowingRound, ...]

    @property
    def end(self) -> int:
        """The number of the last round."""
        return self.begin + len(self.lines) - 1

    @property
    def run(self) -> tuple[int, int] | None:
        """Which turn, and which number in it, is the first run that grows."""
        numbers = ((turn, at) for turn, one in enumerate(self.turns) for at, step in enumerate(one.steps) if step)
        return next(numbers, None)

    @property
    def first_run(self) -> int:
        """The first run that grows, in the first round that has it."""
        assert self.run is not None
        return self.turns[self.run[0]].values[self.run[1]]

    def constants(self) -> Iterator[tuple[tuple[int, int], int]]:
        """Runs that are the same in every round: which turn and which number in it, and the stitches."""
        for number, turn in enumerate(self.turns):
            for at, (step, value) in enumerate(zip(turn.steps, turn.values, strict=True)):
                if not step and turn.is_run(at):
                    yield (number, at), value

    def written(
        self,
        last: str,
        before: Sequence[tuple[str, int]] = (),
        start: str = "",
        constant: Mapping[tuple[int, int], str] | None = None,
    ) -> str:
        """The one line. last: the sum that the number of the last round is. before: names by which the number of the
        first round moves, with their values. start: the name of the run in the first round, where that has one; numbers
        that change by as much are counted from it. constant: names of runs that stay the same."""
        bodies = []
        for number, turn in enumerate(self.turns):
            own = {at: name for (which, at), name in (constant or {}).items() if which == number}
            numbers = [own.get(at) or self._number(number, at, before, start, own) for at in range(len(turn.steps))]
            numbers = [f"{{{text}}}" if at in own else text for at, text in enumerate(numbers)]
            bodies.append("".join(a + b for a, b in zip(turn.parts, [*numbers, ""], strict=True)))
        first, *others = bodies
        body = " // ".join([first, *(re.sub(r"^[^:]*:\s*", "", other) for other in others)])
        begin = str(self.begin)
        if before:  # it moves with those that are worked before it
            rest = self.begin - sum(much for _, much in before)
            begin = "{" + " + ".join(name for name, _ in before) + _more(rest) + "}"
        return f"{self.indent}{self.label}s{self.gap}{begin}-{last}{body}"

    def _number(
        self, turn: int, at: int, before: Sequence[tuple[str, int]], start: str, constant: Mapping[int, str]
    ) -> str:
        """ "{rnd - 2}", "{6*rnd}", "{(rnd - 1)/2}", "{taper - 2*(row - rows) + 8}"."""
        own = self.turns[turn]
        step, value = own.steps[at], own.values[at]
        counted = {} if own.is_run(at) else own.counted(constant)
        if self.run is None or not (step or (counted and own.is_total(at))):
            return str(value)
        rate = Fraction(step, len(self.turns))
        run_step = self.turns[self.run[0]].steps[self.run[1]]
        # What grows by a multiple of the run, as a total does by a repeat, is counted from it by as much.
        share = step // run_step if start and step % run_step == 0 else 0
        terms = {start: share} if share else {}
        for place, times in counted.items():
            terms[constant[place]] = terms.get(constant[place], 0) + times
        first = self.begin + turn - sum(much for _, much in before)
        more = value - share * self.first_run - rate * first
        more -= sum(times * own.values[place] for place, times in counted.items())
        named = " + ".join(name if times == 1 else f"{times}*{name}" for name, times in terms.items())
        return "{" + _sum_of(named, rate, [self.word, *(name for name, _ in before)], more) + "}"


def _sum_of(named: str, rate: Fraction, names: Sequence[str], more: Fraction) -> str:
    """A name, so many times a number of rounds, and a rest; names: what the number is, and what is taken from it."""
    over = rate.denominator
    times, rest = abs(rate.numerator), int(more * over)
    number = " - ".join(names)
    if times > 1:
        number = f"{times}*({number})" if len(names) > 1 else f"{times}*{number}"
    if over > 1:
        if rate > 0:
            share = f"({number}{_more(rest)})/{over}"
            return f"{named} + {share}" if named else share
        return f"{named} - ({number}{_more(-rest)})/{over}" if named else f"({rest} - {_in_brackets(number)})/{over}"
    if not rate:
        return f"{named}{_more(rest)}"
    if rate > 0:
        return f"{named + ' + ' if named else ''}{number}{_more(rest)}"
    return f"{named} - {_in_brackets(number)}{_more(rest)}" if named else f"{rest} - {_in_brackets(number)}"


def _in_brackets(number: str) -> str:
    return f"({number})" if " - " in number and "*" not in number else number


def _more(by: int) -> str:
    return "" if not by else f" {'+' if by > 0 else '-'} {abs(by)}"
