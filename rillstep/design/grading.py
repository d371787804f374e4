"""How a design can grow, and its text in the sizes that are wanted."""

from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.grading import Analysis, GradedText, NotGraded, SizeWanted, analysed, grade_from
from rillstep.core.grading.trials import MOST_PROVED
from rillstep.core.memory import Shelf
from rillstep.core.proof import Proof
from rillstep.core.size_order import placed
from rillstep.design.growth import measures_by_size
from rillstep.design.proving import allowance_of, rows_of
from rillstep.document import Design, Size
from rillstep.document.design import tolerance_mm


@dataclass(frozen=True)
class Target:
    """A target of a size, in mm: what is wanted, what comes out (None where it is not known) and how far off it may
    be."""

    size: str
    name: str
    wanted_mm: float
    made_mm: float | None
    tolerance_mm: float

    @property
    def within(self) -> bool:
        """Whether what comes out is within the tolerance; what is not known is not."""
        return self.made_mm is not None and abs(self.made_mm - self.wanted_mm) <= self.tolerance_mm + 1e-6


def _weight(analysis: Analysis) -> int:
    """The rows of all the proofs that an analysis may hold."""
    return MOST_PROVED * rows_of(analysis.sample.proof)


_ANALYSES: Shelf[tuple[str, str | None, float], Analysis] = Shelf(40_000, _weight)


def analysis_of(design: Design) -> Analysis:
    """The analysis of a design, as it was found before. It takes seconds, and each change of a target asks for it.
    Raises NotGraded."""
    key = (design.text, design.sample, allowance_of(design))
    known = _ANALYSES.get(key)
    if known is None:
        known = analysed(*key)
        _ANALYSES.put(key, known)
    return known


def size_wanted(design: Design, size: Size) -> SizeWanted:
    """A size with the targets that count."""
    counts = {name: mm for name, mm in size.targets_mm.items() if design.weights.get(name, 1.0)}
    return SizeWanted(size.name, counts, size.locks, design.weights)


def graded_from(analysis: Analysis, design: Design) -> GradedText:
    """The text in the sizes of a design, in their order. Raises NotGraded."""
    return grade_from(analysis, [size_wanted(design, size) for size in design.sizes])


def as_written(design: Design, proof: Proof) -> Design:
    """A design with its sizes in the order in which they are written. The sample that it names is as it is in the text:
    nothing is wanted of it."""
    sizes = {
        size.name: size.model_copy(update={"targets_mm": {}, "locks": {}}) if size.name == design.sample else size
        for size in design.sizes
    }
    if len(sizes) < len(design.sizes):
        return design  # two of one name, which grading refuses
    targets = {name: size_wanted(design, size).targets_mm for name, size in sizes.items()}
    return design.model_copy(update={"sizes": [sizes[name] for name in placed(targets, measures_by_size(proof))]})


def targets_of(design: Design, graded: GradedText) -> list[Target]:
    """The targets of all sizes with what comes out of each."""
    measures = {one.called: one for one in (graded.proof.bag.measures if graded.proof.bag is not None else ())}
    return [
        Target(size.name, name, size.targets_mm[name], one.mm[at], tolerance_mm(size, name))
        for at, size in enumerate(design.sizes)
        for name, one in measures.items()
        if name in size.targets_mm
    ]


@dataclass(frozen=True)
class NextBest:
    """Other numbers of a size that misses a target: the locks that make them, and what its targets come to."""

    size: str
    targets: tuple[Target, ...]
    locks: dict[str, int]


def next_best_of(design: Design, graded: GradedText) -> list[NextBest]:
    """The other numbers of sizes that miss a target."""
    return [
        NextBest(
            size.name,
            tuple(
                Target(size.name, name, size.targets_mm[name], mm, tolerance_mm(size, name))
                for name, mm in one.made_mm.items()
            ),
            {name: value for name, value in one.values.items() if value != graded.values[name][at]},
        )
        for at, size in enumerate(design.sizes)
        if size.name in graded.missed
        for one in graded.next_best.get(size.name, ())
    ]


def locks_of_steps(analysis: Analysis, steps: Sequence[int]) -> dict[str, int]:
    """The numbers of a size that is so many steps from the sample along each way of its growth: of the names that the
    ways move, the others follow from what is wanted. Raises NotGraded."""
    if len(steps) > len(analysis.ways):
        raise NotGraded(f"This bag can grow in {len(analysis.ways)} ways only.")
    moved: dict[str, int] = {}
    for way, many in zip(analysis.ways, steps, strict=False):
        for name, by in way.step:
            moved[name] = moved.get(name, analysis.sample.trials.base[name]) + (many * by)
    below = [name for name, value in moved.items() if value < 0]
    if below:
        raise NotGraded(f"“{below[0]}” would be less than nothing; take fewer steps.")
    return moved
