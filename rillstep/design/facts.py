"""What follows from a design: each part is worked when it is first asked for, and once for a state of the design."""

from dataclasses import dataclass, field
from functools import cached_property

from rillstep.core.craft import Terms
from rillstep.core.drawings import Drawing, drawings_of
from rillstep.core.gauge import Gauge
from rillstep.core.gauge_asked import GaugeSaid, gauge_said, is_mesh, stitches_of
from rillstep.core.grading import Analysis
from rillstep.core.materials import YarnSaid, hook_said_in, yarn_said_in
from rillstep.core.measures import Measure
from rillstep.core.memory import Shelf
from rillstep.core.parts import Divided
from rillstep.core.proof import Hand, Proof, Question, Reprint, questions, reprint
from rillstep.core.yarn import Known, YarnFacts, kind_of
from rillstep.design.grading import analysis_of
from rillstep.design.growth import holds_of
from rillstep.design.parts import division_of
from rillstep.design.proving import allowance_of, proved, rows_of
from rillstep.design.sample import SampleGauge, sample_gauge_of
from rillstep.design.swatches import sentences_of
from rillstep.design.yarn import (
    SizeTakes,
    SizeYarn,
    gauge_of,
    hook_of,
    is_mostly_in,
    is_weighed,
    known_of,
    own_sizes_of,
    strands_said,
    takes_of,
    yarn_need,
    yarns_of,
)
from rillstep.design.yarn_answers import YarnAnswers, answers_of, problem_of
from rillstep.document import Design, dump


@dataclass(frozen=True, eq=False)
class Facts:
    """A design with what follows from it. proof: that of its text, or of the text as it would be. taught: what is known
    of the yarn where another text of the same design taught it."""

    design: Design
    proof: Proof
    taught: Known | None = None
    _prints: dict[tuple[Terms, int | None, Hand, bool], Reprint] = field(default_factory=dict, repr=False)

    @cached_property
    def gauge(self) -> Gauge | None:
        """The gauge of plain stitches in the first size; None where the text names none."""
        return gauge_of(self.proof)

    @cached_property
    def gauge_said(self) -> GaugeSaid | None:
        """What the text says of its gauge in other words."""
        return gauge_said(self.design.text, self.proof.pattern, self.design.units)

    @cached_property
    def stitches(self) -> tuple[str, ...]:
        """The stitches that a gauge may be counted in, in US terms."""
        return tuple(stitches_of(self.proof.works))

    @cached_property
    def is_mesh(self) -> bool:
        """Whether the bag is mostly a net."""
        return is_mesh(self.proof.works)

    @cached_property
    def hook_mm(self) -> float | None:
        """The hook in mm; None where neither the text nor the document says one."""
        return hook_of(self.design, self.proof)

    @cached_property
    def hook_is_in_text(self) -> bool:
        """Whether the text says the hook."""
        return hook_said_in(self.proof.pattern) is not None

    @cached_property
    def yarn_said(self) -> YarnSaid | None:
        """What the text says of its yarn."""
        return yarn_said_in(self.proof.pattern)

    @cached_property
    def strands_said(self) -> int:
        """How many strands the text says are held together."""
        return strands_said(self.design.text)

    @cached_property
    def yarns(self) -> dict[str, YarnFacts]:
        """What is known of the yarn of each colour; empty where one has no metres."""
        return yarns_of(self.design)

    @cached_property
    def takes(self) -> tuple[SizeTakes, ...]:
        """What takes yarn in each size."""
        return takes_of(self.design, self.proof, own_sizes_of(self.design, self.hook_mm))

    @cached_property
    def known(self) -> Known:
        """What swatches and weighings teach of the yarn."""
        if self.taught is not None:
            return self.taught
        return known_of(self.design, self.proof, self.yarns, self.takes if self.yarns else ())

    @cached_property
    def yarn_correction(self) -> float | None:
        """By how much more yarn than usual these hands take; None where nothing was weighed."""
        if self.gauge is None or not self.yarns or not is_weighed(self.design):
            return None
        return self.known.factor(kind_of(self.gauge.stitch))

    @cached_property
    def yarn_problem(self) -> str:
        """Why no yarn is estimated; empty where it is."""
        return problem_of(self.design, self.proof)

    @cached_property
    def needs(self) -> tuple[SizeYarn | None, ...]:
        """The yarn of each size; None where gauge or yarn is not known."""
        return tuple(self.need(size) for size in range(len(self.proof.works)))

    def need(self, size: int, lines: tuple[int, int] | None = None) -> SizeYarn | None:
        """The yarn of one size, or of a range of its lines."""
        if not self.yarns:
            return None
        return yarn_need(self.design, self.proof, size, self.takes[size], self.yarns, self.known, lines)

    @cached_property
    def answers(self) -> YarnAnswers:
        """What is asked of the yarn over all sizes."""
        return answers_of(self.design, self.proof, self.needs, self.known)

    @cached_property
    def swatches(self) -> tuple[tuple[str, ...], ...]:
        """What each swatch tells, in sentences."""
        return tuple(
            tuple(
                sentences_of(
                    self.design, self.proof, swatch, self.hook_mm, lambda stitch: is_mostly_in(self.takes, stitch)
                )
            )
            for swatch in self.design.swatches
        )

    @cached_property
    def measures(self) -> dict[str, Measure]:
        """The measures of the bag and of its pieces, by name."""
        return {one.called: one for one in (self.proof.bag.measures if self.proof.bag is not None else ())}

    @cached_property
    def holds(self) -> tuple[tuple[str, ...], ...]:
        """The things that fit in each size, the largest first."""
        return holds_of(self.proof)

    @cached_property
    def questions(self) -> tuple[Question, ...]:
        """What the text leaves open."""
        return tuple(questions(self.proof, self.design.text))

    @cached_property
    def drawings(self) -> tuple[tuple[Drawing, ...], ...]:
        """The drawings of each size; none where the text names no gauge."""
        bag = self.proof.bag
        if bag is None:
            return ()
        return tuple(
            tuple(drawings_of(bag, size, self.design.carried)) for size in range(len(self.proof.pattern.sizes))
        )

    @cached_property
    def sample(self) -> SampleGauge:
        """The gauge that the finished sample has."""
        return sample_gauge_of(self.design, self.proof)

    @property
    def analysis(self) -> Analysis:
        """How the design can grow. Raises NotGraded."""
        return analysis_of(self.design)

    def printed(self, terms: Terms, size: int | None, hand: Hand | None = None, whole: bool = False) -> Reprint:
        """The text as it is printed for all sizes or one, read back and proved; a line that is not proved stands as it
        was written. whole: no rounds are folded and nothing stands as it was written, as steps and parts need it."""
        key = (terms, size, hand or self.design.hand, whole)
        if key not in self._prints:
            source = None if whole else self.design.text
            self._prints[key] = reprint(
                self.proof.pattern, terms, size, allowance_of(self.design), key[2], fold=not whole, source=source
            )
        return self._prints[key]

    @cached_property
    def division(self) -> Divided:
        """The pattern cut into the parts of a crochet-along; for a proof without errors."""
        return division_of(self.design, self.proof)

    @cached_property
    def in_parts(self) -> "Facts":
        """What follows from the text as it is cut into parts."""
        return Facts(self.design, self.division.proof)


# Of designs that are open, by the rows of their proofs, which are kept on a shelf of their own.
_FACTS: Shelf[str, Facts] = Shelf(10_000, lambda facts: rows_of(facts.proof))


def facts_of(design: Design) -> Facts:
    """What follows from a design, as it was found before for this state of it."""
    key = dump(design)
    known = _FACTS.get(key)
    if known is None:
        known = Facts(design, proved(design.text, None, allowance_of(design)))
        _FACTS.put(key, known)
    return known
