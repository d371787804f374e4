"""A measure and the formula that it comes from."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.measures.piece_rounds import WorkedRound


@dataclass(frozen=True)
class Formula:
    """A measure of a piece or a bag in one size. mm: None where it is not known, and then `why` says what is missing.

    rounds: which rounds it is measured on, with their piece. gauge: the names of the gauges that were used.
    """

    name: str
    label: str
    mm: float | None
    why: str
    estimated: bool = False
    rounds: str = ""
    gauge: str = ""


def of_rounds(
    name: str, label: str, mm: float, why: str, rounds: Sequence[WorkedRound], piece: str, chain: bool = False
) -> Formula:
    """A measure that is taken on some rounds of a piece; chain: on a chain whose width is estimated."""
    numbers = [one.number for one in rounds]
    kind = rounds[0].line.kind if rounds else ""
    told = (
        f"{kind}s {min(numbers)}-{max(numbers)}" if len(set(numbers)) > 1 else f"{kind} {numbers[0]}" if rounds else ""
    )
    gauges = ", ".join(dict.fromkeys(one.size.gauge for one in rounds))
    estimated = chain or any(one.size.estimated for one in rounds)
    return Formula(name, label, mm, why, estimated, f"{piece}, {told}" if told else piece, gauges)


def sum_of_heights(rounds: Sequence[WorkedRound]) -> str:
    """ "18 rounds x 5.00 mm + 1 row x 8.00 mm"."""
    heights = Counter((one.line.kind, round(one.size.height_mm, 2)) for one in rounds)
    word = {"Rnd": "round", "Row": "row"}
    return " + ".join(
        f"{count} {word[kind]}{'s' if count > 1 else ''} x {height:.2f} mm" for (kind, height), count in heights.items()
    )
