"""Repeats that are computed rather than walked.

A repeat is worked turn by turn, but after each turn the places that are left are compared
with those after earlier turns. When they differ only in how often one pattern of places still
stands there, the turns between them will go on alike, so they are counted at once: the places
they take go from that count, and what they made is written down as a run of a pattern. A few
turns are always kept back, so that the end is worked as it stands.
"""

from dataclasses import dataclass, field

from rillstep.core.fabric.edge import Run, pattern

# Turns that are remembered: no pattern of rows repeats only after more than these.
_REMEMBERED = 24
# A pattern of places that is nearly used up is worked to its end turn by turn.
_KEPT_BACK = 2


@dataclass(frozen=True)
class _After:
    """How things stood after a turn: the places left, the turns done, and what was counted and written down by then."""

    rest: tuple[Run, ...]
    turns: int
    made: int
    freed: int
    tally: tuple[int, ...]


@dataclass(frozen=True)
class TurnsSkipped:
    """Turns counted at once, and what they add to each count."""

    turns: int
    tally: tuple[int, ...]


@dataclass
class Turns:
    """The turns of one repeat; lives while it is worked."""

    past: list[_After] = field(default_factory=list)

    def skip(
        self, rest: list[Run], made: list[Run], freed: list[Run], tally: tuple[int, ...], done: int, most: int | None
    ) -> TurnsSkipped | None:
        """Turns that can be counted at once; `rest`, `made` and `freed` are changed as if they had been worked.

        most: how many turns are still wanted at the most (None: as long as there are places).
        """
        here = _After(tuple(rest), done, len(made), len(freed), tally)
        for before in reversed(self.past):
            if before.rest == here.rest and most is not None:
                return self._standing_still(before, made, tally, done, most)
            at = _only_difference(before.rest, here.rest)
            if at is None:
                continue
            step = before.rest[at].count - rest[at].count
            period = done - before.turns
            times = max(0, rest[at].count // step - _KEPT_BACK)
            if most is not None:
                times = min(times, most // period)
            if times < 1:
                break
            run = rest[at]
            rest[at] = Run(run.place, run.count - times * step, run.inner)
            for written, then in ((made, before.made), (freed, before.freed)):
                if written[then:]:
                    written[then:] = [pattern(written[then:], times + 1)]
            self.past.clear()
            return TurnsSkipped(
                times * period, tuple(times * (b - a) for a, b in zip(before.tally, tally, strict=True))
            )
        self.past = [*self.past[-_REMEMBERED:], here]
        return None

    def _standing_still(
        self, before: _After, made: list[Run], tally: tuple[int, ...], done: int, most: int
    ) -> TurnsSkipped | None:
        """Turns that take no place at all (chains, stitches into one place) are all alike."""
        times = most // (done - before.turns)
        if times < 1:
            return None
        if made[before.made :]:
            made[before.made :] = [pattern(made[before.made :], times + 1)]
        self.past.clear()
        return TurnsSkipped(
            times * (done - before.turns), tuple(times * (b - a) for a, b in zip(before.tally, tally, strict=True))
        )


def _only_difference(before: tuple[Run, ...], after: tuple[Run, ...]) -> int | None:
    """The one place at which the rests differ, by count alone; None when they differ otherwise."""
    if len(before) != len(after):
        return None
    found: int | None = None
    for index, (one, other) in enumerate(zip(before, after, strict=True)):
        if one is other or one == other:
            continue
        if found is not None or one.place != other.place or one.inner != other.inner or one.count <= other.count:
            return None
        found = index
    return found
