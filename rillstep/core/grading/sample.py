"""The sample that a text is graded from: one of its sizes, with names, and the numbers that its other sizes have."""

from collections.abc import Mapping
from dataclasses import dataclass

from rillstep.core.grading.lift import Held, lift
from rillstep.core.grading.named_text import named_values
from rillstep.core.grading.resizing import NotResized, resized
from rillstep.core.grading.slots import SIDE_OF_A_SQUARE
from rillstep.core.grading.trials import Trials, trials_of
from rillstep.core.proof import Proof, prove_text
from rillstep.core.settling import read

SQUARES_STAY = (
    "Squares that are worked in rounds stay as they are; how many there are, and what is worked around them, moves."
)


class NotGraded(ValueError):
    """The text or the targets cannot be graded; the message says why, and a way out."""


@dataclass(frozen=True)
class Sample:
    """A size of a text as a text of its own, with names, proved.

    size: its name. held: numbers that do not move, with the reason, where the text was without names. places: in how
    many places of the text each name stands; empty for a text that came with names. of_sizes: for each size of the
    text, in order, the numbers of the names.
    """

    size: str
    trials: Trials
    proof: Proof
    held: tuple[Held, ...]
    places: Mapping[str, int]
    of_sizes: Mapping[str, Mapping[str, int]]


def sample_of(text: str, at: int = 0, allowance_mm: float = 0.0) -> Sample:
    """A size of a text to grade from; a text without names is lifted. Raises NotGraded."""
    proof = prove_text(text, allowance_mm)
    error = next((f for f in proof.findings if f.severity == "error"), None)
    if error is not None:
        raise NotGraded(f"The text is graded when it comes out as it is: line {error.span.line}: {error.message}")
    sizes = proof.pattern.sizes
    try:
        texts = [resized(text, [name], [index]) if len(sizes) > 1 else text for index, name in enumerate(sizes)]
    except NotResized as refused:
        raise NotGraded(str(refused)) from None
    held: tuple[Held, ...] = ()
    places: dict[str, int] = {}
    if not named_values(text, len(sizes)):
        # What is equal in one size may differ in another: each size is lifted with the others beside it.
        lifted = [lift(one, [other for other in texts if other is not one]) for one in texts]
        first = lifted[at]
        if first is not None:
            held, places = first.held, {name: many for name, _, many in first.names}
        texts = [one.text if one is not None else plain for one, plain in zip(lifted, texts, strict=True)]
    own = texts[at]
    trials = trials_of(own, allowance_mm)
    if not trials.base and any(one.reason == SIDE_OF_A_SQUARE for one in held):
        raise NotGraded(f"{SQUARES_STAY} Say how many are made (“make 12”), or write what shall move as a name.")
    if not trials.base:
        raise NotGraded(
            "No number of this text is seen to move: write those that shall as “Number: wall rounds = 12”, "
            "and {wall rounds} where it stands."
        )
    values: dict[str, Mapping[str, int]] = {}
    for name, one in zip(sizes, texts, strict=True):
        numbers = {key: each[0] for key, each in named_values(one).items()}
        if numbers.keys() != trials.base.keys() or not _same_but_for_names(own, one, trials):
            raise NotGraded(
                f"Size {name} differs from {sizes[at]} in more than the numbers that have names; name them, or print "
                "one size and grade that."
            )
        values[name] = numbers
    whole = proof if own == text else prove_text(own, allowance_mm)
    if whole.bag is None:
        raise NotGraded("There is no “Gauge:” line in this text, so no target can be held to it.")
    return Sample(sizes[at], trials, whole, held, places, values)


def _same_but_for_names(own: str, other: str, trials: Trials) -> bool:
    """Whether another size is the sample at the values of its own names."""
    if own == other:
        return True
    there = trials.rewritten({name: each[0] for name, each in named_values(other).items()})
    return read(there).pattern.sections == read(other).pattern.sections
