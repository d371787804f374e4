"""The ways in which a text with names grows, each found by working the text and proved.

A way changes one name by a step, or two together where one alone does not come out. It is tried by changing the
numbers, restating what follows, and proving the text at one step and at two; what does not come out is no way, and what
was found against it is the reason.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import product

from rillstep.core.fabric import work_pattern
from rillstep.core.findings import Finding, Span
from rillstep.core.grading.named_text import Place, changed, counting_on, free_numbers, restated, without_totals
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read

# A single name is tried up to this step; two together up to this many in all.
MOST_STEP = 24
MOST_TOGETHER = 8


@dataclass(frozen=True)
class Way:
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


@dataclass
class Trials:
    """A text in one size and what was found about it at other numbers; each is worked once."""

    text: str
    base: Mapping[str, int]
    counted: frozenset[Place]
    allowance_mm: float = 0.0
    known: dict[tuple[int, ...], Proof | Finding] = field(default_factory=dict)

    def at(self, change: Mapping[str, int], times: int = 1) -> Proof | Finding:
        """The proof at other numbers, or the first finding that refutes them."""
        values = {name: value + times * change.get(name, 0) for name, value in self.base.items()}
        key = tuple(values.values())
        if key not in self.known:
            self.known[key] = self._tried(values)
        return self.known[key]

    def _tried(self, values: Mapping[str, int]) -> Proof | Finding:
        if any(value < 1 for value in values.values()):
            return _too_small(next(name for name, value in values.items() if value < 1))
        text = changed(self.text, {name: (value,) for name, value in values.items()})
        work = work_pattern(without_totals(read(text).pattern), 0)
        stop = next((line for line in work.lines if line.trouble is not None), None)
        if stop is not None and stop.trouble is not None:  # what follows from it need not be restated
            return Finding(stop.trouble.code, "error", stop.line.span, stop.trouble.message)
        proof = prove_text(restated(text, self.counted), self.allowance_mm)
        return next((f for f in proof.findings if f.severity == "error"), proof)

    def holds(self, change: Mapping[str, int]) -> bool:
        """Whether the text comes out at one step of a change and at two."""
        return all(isinstance(self.at(change, times), Proof) for times in (1, 2))


def _too_small(name: str) -> Finding:
    return Finding("number-too-small", "error", Span(1, 1, 1), f"“{name}” would be less than one.")


def measures_at(proof: Proof) -> dict[str, float]:
    """The measures of a proof in one size by the names that targets call them: "width", "Strap.length"."""
    found = proof.bag.measures if proof.bag is not None else ()
    return {f"{one.piece}.{one.name}" if one.piece else one.name: one.mm[0] for one in found if one.mm[0] is not None}


def ways_of(trials: Trials) -> tuple[list[Way], dict[str, str]]:
    """The ways of a text, and for each name that no way moves the reason."""
    found: list[Way] = []
    stuck: dict[str, str] = {}
    names = list(trials.base)
    for name in names:
        step = next((step for step in range(1, MOST_STEP + 1) if trials.holds({name: step})), None)
        if step is not None:
            found.append(_way(trials, {name: step}, _why_not_one(trials, {name: step})))
        else:
            stuck[name] = _message(trials.at({name: 1}))
    for name in list(stuck):
        if name not in stuck:
            continue
        together = _together(trials, name, names)
        if together is not None:
            found.append(_way(trials, together, _why_not_one(trials, together)))
            for moved in together:
                stuck.pop(moved, None)
    return found, stuck


def _together(trials: Trials, name: str, names: Sequence[str]) -> dict[str, int] | None:
    """The smallest change of a name and one other that comes out."""
    sizes = [(a, b) for a, b in product(range(1, MOST_TOGETHER), range(-MOST_TOGETHER, MOST_TOGETHER)) if b]
    for own, other in sorted(sizes, key=lambda pair: (pair[0] + abs(pair[1]), pair[1] < 0)):
        if own + abs(other) > MOST_TOGETHER:
            break
        for beside in names:
            change = {name: own, beside: other}
            if beside != name and trials.holds(change):
                return change
    return None


def _why_not_one(trials: Trials, change: Mapping[str, int]) -> str:
    """What is against a smaller step, where the step is more than one."""
    least = min(change.values(), key=abs)
    if abs(least) == 1:
        return ""
    return _message(trials.at({name: by // abs(least) for name, by in change.items()}))


def _message(found: Proof | Finding) -> str:
    return found.message if isinstance(found, Finding) else ""


def _way(trials: Trials, change: Mapping[str, int], multiple: str) -> Way:
    here, there = trials.at({}), trials.at(change)
    assert isinstance(here, Proof) and isinstance(there, Proof)
    before, after = measures_at(here), measures_at(there)
    moved = {name: after[name] - mm for name, mm in before.items() if name in after and abs(after[name] - mm) > 1e-6}
    return Way(tuple(change.items()), moved, multiple)


def trials_of(text: str, allowance_mm: float = 0.0) -> Trials:
    """A text in one size, to be tried at other numbers of its names."""
    return Trials(text, free_numbers(text), counting_on(read(text).pattern), allowance_mm)
