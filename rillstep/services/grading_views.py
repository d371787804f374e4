"""What the screens get of grading a text: its numbers by name, the ways in which it grows, and graded sizes."""

from pydantic import BaseModel

from rillstep.document import Design
from rillstep.services.views import LinesChangedView


class NumberView(BaseModel):
    """A number of the text by its name, with its value in each size of the text.

    section: the piece in which it stands first. places: in how many places it stands, 0 where that is not counted.
    lines: where it stands, in a text with names. reason: why nothing moves it; null where something does. ways: which
    of the ways move it.
    """

    name: str
    values: list[int]
    section: str
    places: int
    line: int
    lines: list[int]
    reason: str | None
    ways: list[int]


class MoveView(BaseModel):
    """By how much a step moves a measure, as it is shown."""

    name: str
    label: str
    piece: str | None
    shown: str


class GhostView(BaseModel):
    """The outline of a view after a step, as an SVG path in mm, y down. title: the view, as in the drawings."""

    title: str
    d: str


class GrowthView(BaseModel):
    """A way in which the bag grows: by how much each number changes at one step. multiple: why a step is no smaller.
    ghosts: what it does to the drawings of the sample."""

    label: str
    step: dict[str, int]
    moves: list[MoveView]
    multiple: str
    ghosts: list[GhostView]


class HeldView(BaseModel):
    """Numbers that do not move, with the reason and the lines in which they stand."""

    reason: str
    many: int
    lines: list[int]


class PlainNumberView(BaseModel):
    """A plain number of a text with names, at its place; words: its line."""

    line: int
    column: int
    value: int
    section: str
    words: str


class GrowthRowView(BaseModel):
    """A measure or a number in each size, and the step from each to the next, as they are shown."""

    label: str
    values: list[str]
    steps: list[str]
    uneven: bool


class ThingView(BaseModel):
    """A thing that a size may have to hold, and what the bag must measure for it, by the names of measures."""

    key: str
    name: str
    targets_mm: dict[str, float]


class GradingView(BaseModel):
    """How a text can grow. problem: why it cannot be graded, null where it can. named: it has names already; plain:
    then its numbers that have none."""

    problem: str | None
    sample: str
    sizes: list[str]
    named: bool
    numbers: list[NumberView]
    ways: list[GrowthView]
    held: list[HeldView]
    plain: list[PlainNumberView]
    growth: list[GrowthRowView]


class TargetView(BaseModel):
    """A target of a size against what it comes to."""

    size: str
    name: str
    label: str
    piece: str | None
    target: str
    result: str
    difference: str
    within: bool


class ChangedTextView(BaseModel):
    """A text with its sizes or its gauge changed. problem: why it was not; then the text is as it was."""

    problem: str | None
    text: str


class ChangedDesignView(BaseModel):
    """A design with other names. problem: why it was not changed; then it is as it was."""

    problem: str | None
    document: Design


class NextBestView(BaseModel):
    """Other numbers of a size, and what its targets come to with them. locks: the numbers that differ from the nearest
    ones."""

    size: str
    targets: list[TargetView]
    locks: dict[str, int]


class KeptDigitsView(BaseModel):
    """A number in kept words, which is not changed, and what it was that has changed: for the designer to look at."""

    line: int
    number: int
    was: str
    words: str


class StepsView(BaseModel):
    """The numbers that a size has at some steps of growth, by name. problem: why there are none."""

    problem: str | None
    locks: dict[str, int]


class GradedView(BaseModel):
    """A graded text before it is taken: nothing is kept yet. problem: why it was not graded.

    numbers: of each name the values size by size. notes: what is not met, and why. next_best: of the sizes with such
    notes, the numbers that come next. not_changed: digits in kept words to look at.
    """

    problem: str | None
    text: str
    sizes: list[str]
    proved: bool
    numbers: list[NumberView]
    targets: list[TargetView]
    notes: list[str]
    next_best: list[NextBestView]
    changes: list[LinesChangedView]
    not_changed: list[KeptDigitsView]
