"""What a test freezes of its design: the text for all sizes, what each size is said to measure and need, and the steps
of a tester's page. All of it follows from the document alone."""

from pydantic import BaseModel

from rillstep.core.craft import Terms
from rillstep.core.lengths import Units
from rillstep.core.proof import Hand
from rillstep.design import Facts, facts_of
from rillstep.design.steps import steps_of
from rillstep.design.tested import asked_of
from rillstep.design.yarn import gauge_of, rounded
from rillstep.document import load as read_file
from rillstep.services import testing_views, views
from rillstep.services.drawing_views import small_picture
from rillstep.services.words import booklet_of


class MeasureSnapshot(testing_views.AskedView):
    """A measure that a maker is asked for, with what is predicted and how far off it may be, in mm."""

    mm: float
    tolerance_mm: float


class SizeSnapshot(BaseModel):
    """A size of a test: how many steps it has; gauge, as stitches and rows over 10 cm or 4 in, None where it is not
    known; the measures that it has; the yarn in grams, with the least and the most."""

    name: str
    steps: int
    gauge: tuple[float, float] | None
    asked: list[MeasureSnapshot]
    yarn_g: tuple[float, float, float] | None


class TestSnapshot(BaseModel):
    """A test's design; proved: whether it can be given to testers at all."""

    proved: bool
    units: Units
    text: str
    sizes: list[SizeSnapshot]

    def size(self, name: str) -> SizeSnapshot | None:
        """A size by its name."""
        return next((size for size in self.sizes if size.name == name), None)


class PageSnapshot(BaseModel):
    """What all testers of one size, terms and hand read. picture: the bag as it lies in this size, as SVG."""

    title: str
    units: str
    gauge: str
    materials: list[str]
    abbreviations: list[views.TextPair]
    notes: list[str]
    cautions: list[str]
    picture: str = ""
    asked: list[testing_views.AskedView]
    steps: list[testing_views.StepView]


def snapshot_of_test(document: str) -> TestSnapshot:
    """What a test's lists are made of."""
    facts = facts_of(read_file(document))
    return TestSnapshot(
        proved=facts.proof.ok, units=facts.design.units, text=facts.printed(facts.design.terms, None, whole=True).text,
        sizes=[_size(facts, at) for at in range(len(facts.proof.pattern.sizes))],
    )  # fmt: skip


def _size(facts: Facts, at: int) -> SizeSnapshot:
    design, name = facts.design, facts.proof.pattern.sizes[at]
    gauge, yarn = gauge_of(facts.proof, at), facts.needs[at]
    return SizeSnapshot(
        name=name, steps=len(steps_of(facts, name, design.terms, "right")),
        gauge=gauge.per_span(design.units) if gauge is not None else None,
        asked=[MeasureSnapshot(**vars(one)) for one in asked_of(facts, at)],
        yarn_g=rounded(yarn.whole) if yarn is not None else None,
    )  # fmt: skip


def snapshot_of_page(document: str, size: str, terms: Terms, hand: Hand) -> PageSnapshot:
    """A tester's page, apart from what she has reported."""
    facts = facts_of(read_file(document).model_copy(update={"hand": hand}))
    made, _ = booklet_of(facts, terms, size)
    return PageSnapshot(
        title=facts.design.name, units=facts.design.units, gauge=made.gauge, materials=list(made.materials),
        abbreviations=[views.TextPair(name=a, text=b) for a, b in made.abbreviations], notes=list(made.notes),
        cautions=[c.text for c in made.cautions], picture=small_picture(facts.design, size),
        asked=[
            testing_views.AskedView(name=one.name, label=one.label)
            for one in asked_of(facts, facts.proof.pattern.sizes.index(size))
        ],
        steps=[testing_views.StepView(**vars(step)) for step in steps_of(facts, size, terms, hand)],
    )  # fmt: skip
