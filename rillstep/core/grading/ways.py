"""The ways in which a text with names grows: each direction of its equations, proved and printed at several steps."""

from collections.abc import Mapping
from dataclasses import dataclass

from rillstep.core.grading.equations import Equation, Found, directions_of
from rillstep.core.grading.lattice import Vector, scaled, size
from rillstep.core.grading.trials import Refuted, Trials, measures_at
from rillstep.core.memory import Memory
from rillstep.core.proof import Proof, reader_text
from rillstep.core.watch import report

# Steps at which a way is proved before it is offered; those down only where no number becomes too small.
_UP, _DOWN = (1, 2), (-1, -2)
_MULTIPLES = (2, 3, 4)
_EVEN_MM = 0.5
_PERIOD = "Its rows go in a pattern, and a part of it is of another height."


@dataclass(frozen=True)
class GrowthWay:
    """By how much each name changes at one step, and by how much each measure does, in mm.

    multiple: why the step is no smaller; empty where it is one. down: so many steps down are proved, at most two.
    """

    step: tuple[tuple[str, int], ...]
    mm: Mapping[str, float]
    multiple: str = ""
    down: int = 2

    @property
    def least(self) -> int:
        """The smallest change of one of its names."""
        return min(abs(by) for _, by in self.step)

    @property
    def label(self) -> str:
        """ "base rounds +4, gaps +3"."""
        return ", ".join(f"{name} {by:+d}" for name, by in self.step)

    @property
    def rule(self) -> str:
        """The way as a sentence for makers."""
        (name, by), *others = sorted(self.step, key=lambda one: one[1] < 0)
        many = "any number more or fewer" if abs(by) == 1 else f"any multiple of {abs(by)} more or fewer"
        told = ", ".join(f"“{other}” {abs(a)} {'more' if (a > 0) == (by > 0) else 'fewer'}" for other, a in others)
        return f"“{name}” may be {many}." + (f" For each {abs(by)} more, {told}." if told else "")


def ways_of(trials: Trials) -> tuple[list[GrowthWay], dict[str, str]]:
    """The ways of a text, and for each name that no way moves the reason."""
    with Memory().in_use():
        return _ways_of(trials)


def _ways_of(trials: Trials) -> tuple[list[GrowthWay], dict[str, str]]:
    names = list(trials.base)
    found = directions_of(trials)
    held: list[Vector] = []
    against: dict[int, str] = {at: _told(stop) for at, stop in found.stuck.items()}
    for done, vector in enumerate(found.directions):
        report("Proving the ways to grow", done, len(found.directions))
        # A taper that ends in a point can only be shorter.
        multiples = (scaled(vector, times) for times in (1, -1, *_MULTIPLES))
        proved = [one for one in multiples if _refuted_at(trials, one, _UP) is None and _prints(trials, one)]
        if proved:  # rows of a period are measured by whole periods
            even = next((one for one in proved if _is_even(trials, one)), proved[0])
            if even != proved[0]:
                found.equations.append(Equation("", _PERIOD, 0, vector))
            held.append(even)
            continue
        why = _refuted_at(trials, vector, _UP)
        against.update({at: why.message for at, by in enumerate(vector) if why and by and at not in against})
    ways = [_way(trials, vector, found) for vector in sorted(held, key=size)]
    moved = {at for vector in held for at, by in enumerate(vector) if by}
    usual = "no step of it comes out by itself or with one other number"
    return ways, {name: against.get(at, usual) for at, name in enumerate(names) if at not in moved}


def _refuted_at(trials: Trials, vector: Vector, steps: tuple[int, ...]) -> Refuted | None:
    """What refutes a direction at some step; None where the text is proved at all of them."""
    change = dict(zip(trials.base, vector, strict=True))
    for times in steps:
        if isinstance(found := trials.at(change, times), Refuted):
            return found
    return None


def _prints(trials: Trials, vector: Vector) -> bool:
    """Whether the text at one step is printed for readers and proved as it is printed."""
    proof = trials.at(dict(zip(trials.base, vector, strict=True)))
    return isinstance(proof, Proof) and reader_text(proof.pattern, proof.pattern.terms).ok


def _is_even(trials: Trials, vector: Vector) -> bool:
    """Whether two steps of a direction move every measure twice as far as one; a drop is no sum of lengths."""
    change = dict(zip(trials.base, vector, strict=True))
    proofs = [trials.at(change, times) for times in (0, 1, 2)]
    none, one, two = (measures_at(proof) if isinstance(proof, Proof) else {} for proof in proofs)
    return all(
        abs((two[name] - mm) - 2 * (one[name] - mm)) <= _EVEN_MM
        for name, mm in none.items()
        if name in one and name in two and not name.endswith("drop")
    )


def _told(stop: Refuted) -> str:
    return f"{stop.label}: {stop.message}" if stop.label else stop.message


def _way(trials: Trials, vector: Vector, found: Found) -> GrowthWay:
    step = {name: by for name, by in zip(trials.base, vector, strict=True) if by}
    here, there = trials.at({}), trials.at(step)
    assert isinstance(here, Proof) and isinstance(there, Proof)
    before, after = measures_at(here), measures_at(there)
    moved = {name: after[name] - mm for name, mm in before.items() if name in after and abs(after[name] - mm) > 1e-6}
    down = next((at for at, times in enumerate(_DOWN) if isinstance(trials.at(step, times), Refuted)), len(_DOWN))
    return GrowthWay(tuple(step.items()), moved, _why_no_smaller(vector, found), down)


def _why_no_smaller(vector: Vector, found: Found) -> str:
    """The line that stands against a smaller step of a direction; empty where one of its numbers moves by one."""
    if min(abs(by) for by in vector if by) == 1:
        return ""
    concerned = [one for one in found.equations if any(a and b for a, b in zip(one.direction, vector, strict=True))]
    if not concerned:
        return "A smaller step does not come out."
    if any(one.message == _PERIOD for one in concerned):
        return _PERIOD
    told = [f"{one.label} takes {one.takes} stitches at a time." for one in concerned if one.takes]
    return " ".join(dict.fromkeys(told)) or f"{concerned[-1].label or 'The text'} comes out at no smaller step."
