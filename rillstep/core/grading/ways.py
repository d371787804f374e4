"""The ways in which a text with names grows, each found by working the text and proved.

A way changes one name by a step, or several together where one alone does not come out. It is tried by changing the
numbers, restating what follows, and proving the text at one step and at two; what does not come out is no way, and what
was found against it is the reason.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from math import gcd

from rillstep.core.fabric import Trouble, work_pattern
from rillstep.core.grading.named_text import (
    CountedAs,
    Place,
    changed,
    counting_as,
    counting_on,
    free_numbers,
    restated,
    without_totals,
)
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read

# No name moves by more than this in one step; so many names move together; and so many changes are tried for each.
MOST_STEP = 48
MOST_TOGETHER = 4
MOST_TRIED = 40
# A text of very many names is not tried to its end.
MOST_TRIALS = 400


@dataclass(frozen=True)
class GrowthWay:
    """By how much each name changes at one step, and by how much each measure does, in mm.

    multiple: why the step is more than one; the finding against a step of one.
    """

    step: tuple[tuple[str, int], ...]
    mm: Mapping[str, float]
    multiple: str = ""

    @property
    def least(self) -> int:
        """The smallest change of one of its names."""
        return min(abs(by) for _, by in self.step)

    @property
    def label(self) -> str:
        """ "base rounds +4, gaps +3"."""
        return ", ".join(f"{name} {by:+d}" for name, by in self.step)


@dataclass(frozen=True)
class Refuted:
    """What refutes a text at other numbers: where, and by how many stitches it does not come out.

    amount: stitches left over, below 0 where some are missing; 0 for anything else. takes: of a repeat that does not
    come out even, what one turn takes.
    """

    line: int
    message: str
    amount: int = 0
    takes: int = 0


@dataclass
class Trials:
    """A text in one size and what was found about it at other numbers; each is worked once."""

    text: str
    base: Mapping[str, int]
    counted: frozenset[Place]
    counted_as: CountedAs
    allowance_mm: float = 0.0
    known: dict[tuple[int, ...], Proof | Refuted] = field(default_factory=dict)

    def at(self, change: Mapping[str, int], times: int = 1) -> Proof | Refuted:
        """The proof at other numbers, or the first thing that refutes them."""
        values = {name: value + times * change.get(name, 0) for name, value in self.base.items()}
        key = tuple(values.values())
        if key not in self.known:
            self.known[key] = self._tried(values)
        return self.known[key]

    def rewritten(self, values: Mapping[str, int]) -> str:
        """The text at other numbers, with what follows from them restated."""
        text = changed(self.text, {name: (value,) for name, value in values.items()})
        return restated(text, self.counted, self.counted_as)

    def _tried(self, values: Mapping[str, int]) -> Proof | Refuted:
        if any(value < 1 for value in values.values()):
            return Refuted(0, f"“{next(name for name, value in values.items() if value < 1)}” would be less than one.")
        text = changed(self.text, {name: (value,) for name, value in values.items()})
        work = work_pattern(without_totals(read(text).pattern), 0)
        stop = next((line for line in work.lines if line.trouble is not None), None)
        if stop is not None and stop.trouble is not None:  # what follows from it need not be restated
            return _stop(stop.line.span.line, stop.trouble)
        proof = prove_text(restated(text, self.counted, self.counted_as), self.allowance_mm)
        error = next((f for f in proof.findings if f.severity == "error"), None)
        return Refuted(error.span.line, error.message) if error is not None else proof

    def holds(self, change: Mapping[str, int]) -> bool:
        """Whether the text comes out at one step of a change and at two."""
        return all(isinstance(self.at(change, times), Proof) for times in (1, 2))


def _stop(line: int, trouble: Trouble) -> Refuted:
    left, missing = trouble.left or 0, trouble.missing or 0
    if trouble.code == "repeat-uneven":
        return Refuted(line, trouble.message, left, left + missing)
    return Refuted(line, trouble.message, left - missing)


def measures_at(proof: Proof) -> dict[str, float]:
    """The measures of a proof in one size by the names that targets call them: "width", "Strap.length"."""
    found = proof.bag.measures if proof.bag is not None else ()
    return {f"{one.piece}.{one.name}" if one.piece else one.name: one.mm[0] for one in found if one.mm[0] is not None}


def ways_of(trials: Trials) -> tuple[list[GrowthWay], dict[str, str]]:
    """The ways of a text, and for each name that no way moves the reason."""
    found: list[GrowthWay] = []
    stuck: dict[str, str] = {}
    moved: set[str] = set()
    for name in trials.base:
        if name in moved:
            continue
        if len(trials.known) >= MOST_TRIALS:
            stuck[name] = f"It was not looked for: {MOST_TRIALS} changes of this text were tried before."
            continue
        step = _search(trials, name)
        if step is None:
            stuck[name] = _message(trials.at({name: 1}))
            continue
        moved |= step.keys()
        found.append(_way(trials, step, _why_not_one(trials, step)))
    return found, {name: why for name, why in stuck.items() if name not in moved}


def _search(trials: Trials, name: str) -> dict[str, int] | None:
    """The first change of a name that comes out, with others where they are needed.

    Where a row does not come out by some stitches, another number that moves what is left there makes up for it; where
    a repeat does not come out even, the change is made so many times that it does.
    """
    waiting: list[dict[str, int]] = [{name: 1}]
    seen: set[tuple[tuple[str, int], ...]] = set()
    for _ in range(MOST_TRIED):
        if not waiting:
            return None
        change = waiting.pop(0)
        key = tuple(sorted(change.items()))
        if key in seen or max(map(abs, change.values())) > MOST_STEP:
            continue
        seen.add(key)
        if trials.holds(change):
            return change
        stop = trials.at(change)
        if isinstance(stop, Refuted):
            waiting += _mended(trials, change, stop)
    return None


def _mended(trials: Trials, change: dict[str, int], stop: Refuted) -> list[dict[str, int]]:
    """Changes that may come out where this one stops."""
    found: list[dict[str, int]] = []
    if stop.takes:
        times = stop.takes // gcd(stop.takes, stop.amount)
        found.append({name: times * by for name, by in change.items()})
    change, stop, sign = _with_some_left(trials, change, stop)
    for beside in trials.base if len(change) < MOST_TOGETHER else ():
        if beside in change:
            continue
        share = _share(trials, change, stop, beside)
        if share is not None:
            scaled = {name: sign * share.denominator * by for name, by in change.items()}
            found.append({**scaled, beside: sign * share.numerator})
    return sorted(found, key=lambda one: sum(map(abs, one.values())))


def _with_some_left(trials: Trials, change: dict[str, int], stop: Refuted) -> tuple[dict[str, int], Refuted, int]:
    """The change, or its opposite (-1), so that stitches are left over: what is missing is told of one step only."""
    if stop.amount < 0:
        opposite = {name: -by for name, by in change.items()}
        other = trials.at(opposite)
        if isinstance(other, Refuted) and other.line == stop.line and other.amount > 0:
            return opposite, other, -1
    return change, stop, 1


def _share(trials: Trials, change: dict[str, int], stop: Refuted, beside: str) -> Fraction | None:
    """By how much another number makes up for what does not come out, for each time the change is made; None where it
    does not touch that row."""
    for by in (-1, 1):
        other = trials.at({**change, beside: by})
        if isinstance(other, Proof) or other.line > stop.line:
            return Fraction(by)
        differs = stop.amount and other.amount not in (0, stop.amount) and (other.amount > 0 or by > 0)
        if other.line == stop.line and differs:
            return Fraction(-stop.amount * by, other.amount - stop.amount)
    return None


def _why_not_one(trials: Trials, change: Mapping[str, int]) -> str:
    """What is against a smaller step, where the step is more than one."""
    least = min(change.values(), key=abs)
    if abs(least) == 1:
        return ""
    return _message(trials.at({name: by // abs(least) for name, by in change.items()}))


def _message(found: Proof | Refuted) -> str:
    return found.message if isinstance(found, Refuted) else ""


def _way(trials: Trials, change: Mapping[str, int], multiple: str) -> GrowthWay:
    here, there = trials.at({}), trials.at(change)
    assert isinstance(here, Proof) and isinstance(there, Proof)
    before, after = measures_at(here), measures_at(there)
    moved = {name: after[name] - mm for name, mm in before.items() if name in after and abs(after[name] - mm) > 1e-6}
    return GrowthWay(tuple(change.items()), moved, multiple)


def trials_of(text: str, allowance_mm: float = 0.0) -> Trials:
    """A text in one size, to be tried at other numbers of its names."""
    pattern = read(text).pattern
    return Trials(text, free_numbers(text), counting_on(pattern), counting_as(pattern), allowance_mm)
