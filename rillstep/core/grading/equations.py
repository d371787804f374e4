"""What the numbers of a text must keep to, found line by line, and the directions that keep to all of it.

A direction says by how much each name changes. At first each name may move by itself. The text is worked at one step of
every direction; the first line at which some do not come out tells by how many stitches. So it is an equation: what is
left over there must be 0, or a multiple of what a repeat takes. The directions that keep to it are found exactly
(`lattice`), and the text is worked at those, until all come through. The numbers are those of the engine itself: no
rule of it is written twice, and a form that it does not follow is not claimed.
"""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field

from rillstep.core.grading.lattice import Vector, is_independent, plus, scaled, shortened, size, where_zero
from rillstep.core.grading.trials import MOST_PROVED, MOST_WORKED, Refuted, Trials
from rillstep.core.watch import report

Place = tuple[int, int, str]

# Lines that are looked at, and the largest step of a name.
MOST_EQUATIONS = 60
MOST_STEP = 60
_MOST_VISITS = 4
# So many sums of directions are worked, or proved, to come past a line that does not tell what it takes.
_MOST_MENDED, _MOST_PROVED = 40, 10
# Multiples of a direction that are tried where a line does not tell what it takes.
_MULTIPLES = (2, 3, 4, 5, 6, 8, 10, 12)


@dataclass(frozen=True)
class Equation:
    """What a line asks: that nothing is left over, or a multiple of what it takes (0 where it must be nothing).

    direction: the smallest step that it stands against.
    """

    label: str
    message: str
    takes: int
    direction: Vector


@dataclass
class Found:
    """The directions of a text, what they keep to, and for each name the line that it does not come past."""

    directions: list[Vector]
    equations: list[Equation] = field(default_factory=list)
    stuck: dict[int, Refuted] = field(default_factory=dict)


# Stages of the work, as they are reported: equations, of at most as many as there are numbers.
WORKING, FINDING = "Working which numbers move together", "Finding what the whole proof asks of them"


def directions_of(trials: Trials) -> Found:
    """The directions in which the numbers of a text move so that every line comes out."""
    names = list(trials.base)
    found = Found([tuple(int(i == j) for j in range(len(names))) for i in range(len(names))])
    for deep in (False, True):  # what is worked first, as it is quick; then what is found in the whole proof
        _narrow(trials if deep else trials.worked_only(), found)
    return found


def _narrow(trials: Trials, found: Found) -> None:
    """Leaves of the directions those that come through."""
    visits: Counter[Place] = Counter()
    for done in range(MOST_EQUATIONS):
        report(FINDING if trials.proves else WORKING, min(done, len(trials.base)), len(trials.base))
        stops = [(v, _outcome(trials, v)) for v in found.directions]
        places = [stop.place for _, stop in stops if stop is not None and stop.section >= 0]
        unmovable = [(v, stop) for v, stop in stops if stop is not None and stop.section < 0]
        for v, stop in unmovable:
            _give_up(found, v, stop)
        if unmovable:
            found.directions = [v for v in found.directions if v not in {u for u, _ in unmovable}]
            continue
        if not places or _is_enough(trials):
            break
        first = min(places)
        visits[first] += 1
        if visits[first] > _MOST_VISITS:  # what it asks is no linear form
            here = [(v, stop) for v, stop in stops if stop is not None and stop.place == first]
            for v, at in here:
                _give_up(found, v, at)
            found.directions = [v for v in found.directions if v not in {u for u, _ in here}]
            continue
        found.directions = shortened(_past(trials, found, first, stops))
    found.directions = [v for v in found.directions if _outcome(trials, v) is None]


def _outcome(trials: Trials, vector: Vector) -> Refuted | None:
    """Where one step of a direction stops. What an equation stands against comes out neither way, so a step that comes
    out backwards is too large for some number, and not wrong; one that makes a number negative is tried backwards."""
    stop = _at(trials, vector)
    if stop is None:
        return None
    back = _at(trials, scaled(vector, -1))
    return back if back is None or stop.section < 0 else stop


def _is_enough(trials: Trials) -> bool:
    return len(trials.worked) > MOST_WORKED or len(trials.known) > MOST_PROVED


def _at(trials: Trials, vector: Vector) -> Refuted | None:
    if max(map(abs, vector), default=0) > MOST_STEP:
        return Refuted(0, "It would take a step of more than can be tried.", section=-1)
    return trials.refuted(dict(zip(trials.base, vector, strict=True)))


def _past(trials: Trials, found: Found, first: Place, stops: Sequence[tuple[Vector, Refuted | None]]) -> list[Vector]:
    """The directions that come past a line, from those of which some do not."""
    free = [v for v, stop in stops if stop is None or stop.place != first]
    told: list[tuple[Vector, int, Refuted]] = []
    untold: list[tuple[Vector, Refuted]] = []
    beside: list[Vector] = []  # what an equation took out may still be part of a sum, where amounts told half
    for v, stop in stops:
        if stop is None or stop.place != first:
            continue
        left = _left_over(trials, v, first)
        if left is None:
            untold.append((v, stop))
        else:
            told.append((v, left, stop))
    if told:
        takes = max((stop.takes for _, _, stop in told), default=0)
        kept, given_up = where_zero([v for v, _, _ in told], [left for _, left, _ in told], takes)
        good = [v for v in kept if _comes_past(trials, v, first)]
        untold += [(v, stop) for v in kept if v not in good and (stop := _outcome(trials, v)) is not None]
        free += good
        if given_up is not None:
            beside = [given_up]
            stop = next((s for v, _, s in told if v == given_up), told[0][2])
            found.equations.append(Equation(stop.label, stop.message, takes, given_up))
            if not takes and not stop.code and _may_be_a_multiple(trials, given_up, first):
                untold.append((given_up, stop))
            elif not takes:
                _give_up(found, given_up, stop)
    for v, stop in untold:
        others = dict.fromkeys(u for u in (*(u for u, _ in untold), *beside) if u != v)
        mended = _mended(trials, v, first, free, list(others))
        if mended is None:
            _give_up(found, v, stop)
        else:
            free.append(mended)
            found.equations.append(Equation(stop.label, stop.message, 0, v))
    return free


def _left_over(trials: Trials, vector: Vector, first: Place) -> int | None:
    """By how many stitches a line does not come out at one step of a direction; None where it does not tell.

    What is missing is told of one instruction only, so it is taken from the opposite step, which leaves them over.
    """
    stop, back = _at(trials, vector), _at(trials, scaled(vector, -1))
    if stop is not None and stop.place == first and stop.amount > 0:
        return stop.amount
    if back is not None and back.place == first and back.amount > 0:
        return -back.amount
    if stop is not None and stop.place == first and stop.amount < 0:
        return stop.amount
    if back is not None and back.place == first and back.amount < 0:
        return -back.amount
    return None


def _may_be_a_multiple(trials: Trials, vector: Vector, first: Place) -> bool:
    """Whether a line comes out at some multiple of a step, as one does that takes several and does not tell how
    many."""
    return any(
        _comes_past(trials, scaled(vector, times), first) for times in _MULTIPLES if times >= max(_MULTIPLES) / 2
    )


def _comes_past(trials: Trials, vector: Vector, first: Place) -> bool:
    stop = _outcome(trials, vector)
    return stop is None or stop.place > first


def _mended(
    trials: Trials, vector: Vector, first: Place, free: Sequence[Vector], others: Sequence[Vector]
) -> Vector | None:
    """The smallest multiple of a direction, or its sum with another one, that comes past a line, and is no sum of those
    that do."""
    multiples = [scaled(vector, times) for times in _MULTIPLES]
    sums = [plus(scaled(vector, a), one, b) for one in others for a in (1, 2) for b in (-2, -1, 1, 2)]
    # A line that leaves a stitch or two unsaid comes out without another number, and not without this one.
    beside = [plus(vector, one, times) for one in free for times in (-1, 1)]
    for candidates in (sorted([*multiples, *sums], key=size), sorted(beside, key=size)):
        for one in candidates[: _MOST_PROVED if trials.proves else _MOST_MENDED]:
            if max(map(abs, one)) > MOST_STEP or not is_independent(one, free) or _is_enough(trials):
                continue
            if _comes_past(trials, one, first):
                return one
    return None


def _give_up(found: Found, vector: Vector, stop: Refuted) -> None:
    for at, by in enumerate(vector):
        if by:
            found.stuck.setdefault(at, stop)
