"""The sample that a text is graded from: one of its sizes, with names, and the numbers that its other sizes have."""

from collections.abc import Mapping
from dataclasses import dataclass
from difflib import SequenceMatcher

from rillstep.core.grading.gauge_lines import gauges_in
from rillstep.core.grading.lift import Held, lift, same_work
from rillstep.core.grading.measured_lines import at_lengths, lengths_in
from rillstep.core.grading.named_text import named_values
from rillstep.core.grading.resizing import NotResized, resized
from rillstep.core.grading.slots import SIDE_OF_A_SQUARE
from rillstep.core.grading.stated_lengths import proved_with_lengths
from rillstep.core.grading.trials import Trials, trials_of
from rillstep.core.proof import Proof, prove_as_read
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
    text, in order, the numbers of the names; of_lengths: the lengths of its lines by measure;
    of_gauges: the gauges of sizes that have others than the sample.
    """

    size: str
    trials: Trials
    proof: Proof
    held: tuple[Held, ...]
    places: Mapping[str, int]
    of_sizes: Mapping[str, Mapping[str, int]]
    of_lengths: Mapping[str, tuple[float, ...]]
    of_gauges: Mapping[str, tuple[str, ...]]


def sample_of(text: str, at: int = 0, allowance_mm: float = 0.0) -> Sample:
    """A size of a text to grade from; a text without names is lifted. Raises NotGraded."""
    proof = prove_as_read(text, allowance_mm)
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
    own, numbers = texts[at], [{name: each[0] for name, each in named_values(one).items()} for one in texts]
    if not named_values(text, len(sizes)):
        # What is equal in one size may differ in another: the sample is lifted with the others beside it.
        others = [index for index in range(len(sizes)) if index != at]
        lifted = lift(own, [texts[index] for index in others])
        if lifted is not None:
            own, held, places = lifted.text, lifted.held, {name: many for name, _, many in lifted.names}
            order = [at, *others]
            numbers = [{name: each[order.index(k)] for name, each in lifted.values.items()} for k in range(len(sizes))]
    trials = trials_of(own, allowance_mm)
    if not trials.base and any(one.reason == SIDE_OF_A_SQUARE for one in held):
        raise NotGraded(f"{SQUARES_STAY} Say how many are made (“make 12”), or write what shall move as a name.")
    if not trials.base:
        raise NotGraded(
            "No number of this text is seen to move: write those that shall as “Number: wall rounds = 12”, "
            "and {wall rounds} where it stands."
        )
    values: dict[str, Mapping[str, int]] = {}
    lengths = {
        name: tuple(value for _, value, _ in lengths_in(read(one).pattern))
        for name, one in zip(sizes, texts, strict=True)
    }
    for index, name in enumerate(sizes):
        differs = _differs(trials, numbers[index], texts[index]) if numbers[index].keys() == trials.base.keys() else 0
        if differs is not None:
            where = f" (line {_line_in(text, texts[index], differs)})" if differs else ""
            raise NotGraded(
                f"Size {name} differs from {sizes[at]} in more than the numbers that have names{where}; name them, or "
                "print one size and grade that."
            )
        values[name] = numbers[index]
    whole = proof if own == text else prove_as_read(own, allowance_mm)
    if whole.bag is None:
        raise NotGraded("There is no “Gauge:” line in this text, so no target can be held to it.")
    gauges = {name: gauges_in(one) for name, one in zip(sizes, texts, strict=True)}
    gauges = {name: own for name, own in gauges.items() if own != gauges[sizes[at]]}
    return Sample(sizes[at], trials, whole, held, places, values, lengths, gauges)


def _differs(trials: Trials, numbers: Mapping[str, int], other: str) -> int | None:
    """The line of another size at which it is not the sample at its own numbers, 0 where a section differs; None where
    it is the same."""
    pattern = read(other).pattern
    pairs = list(zip(lengths_in(trials.full), lengths_in(pattern), strict=False))
    text = at_lengths(trials.text, {span: (value,) for (span, was, _), (_, value, _) in pairs if value != was})
    if dict(numbers) == dict(trials.base) and text == trials.text:
        return None
    there = read(proved_with_lengths(trials.rewritten(numbers, text), trials.allowance_mm)[0]).pattern
    if same_work(there, pattern):
        return None
    lines = zip(there.lines(), pattern.lines(), strict=False)
    return next((line.span.line for (_, one), (_, line) in lines if one != line), 0)


def _line_in(text: str, other: str, number: int) -> int:
    """The line of a text that stands in one of its sizes at a line."""
    blocks = SequenceMatcher(None, text.split("\n"), other.split("\n"), autojunk=False).get_opcodes()
    return next(
        (i + min(number - 1 - k, j - i - 1) + 1 for _, i, j, k, m in blocks if k < number <= m and j > i), number
    )
