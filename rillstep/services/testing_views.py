"""What the screens of a test get: its testers, their steps and reports."""

from datetime import datetime

from pydantic import BaseModel

from rillstep.services import views


class LineReportView(BaseModel):
    tester: str
    size: str
    line: int
    label: str
    expected: int | None
    found: int | None
    note: str
    reported_at: datetime


class ComparedView(BaseModel):
    """Measured against predicted, as shown text; `off` is true beyond the tolerance."""

    label: str
    predicted: str
    measured: str
    difference: str
    off: bool


class TesterView(BaseModel):
    id: int
    name: str
    size: str
    terms: str
    hand: str
    withdrawn: bool
    place: int
    steps: int
    seen_at: datetime | None
    finished: bool
    compared: list[ComparedView]
    grams: float | None
    hours: float | None
    remarks: str


class TestView(BaseModel):
    """A test of one revision. text: its frozen text, for reports at their place. is_current: whether the text of the
    design is the same still, as it was last saved."""

    id: int
    revision: int
    opened_at: datetime
    closed: bool
    testers: list[TesterView]
    reports: list[LineReportView]
    text: str
    is_current: bool


class TestsView(BaseModel):
    tests: list[TestView]


class InvitedView(BaseModel):
    """A new tester with her private path; it is shown once and cannot be read back."""

    tester: TesterView
    path: str


class StepView(BaseModel):
    """One line to work, one round at a time."""

    line: int
    section: str
    label: str
    of: str
    text: str
    total: str
    sts: int | None
    kind: str


class AskedView(BaseModel):
    """A measure that a maker is asked for at the end."""

    name: str
    label: str


class TesterReport(BaseModel):
    """A tester's report at the end. measures_mm: by the names that she was asked for; what was not measured is left
    out, or null."""

    gauge_sts: float | None = None
    gauge_rows: float | None = None
    measures_mm: dict[str, float] = {}
    grams: float | None = None
    hours: float | None = None
    remarks: str = ""


class TesterPage(BaseModel):
    """All that a tester's phone needs. picture: her size as it lies, as SVG; empty where it is not known. asked: the
    measures that her bag has; mm_per_unit: of the unit that she writes them in."""

    title: str
    tester: str
    size: str
    terms: str
    hand: str
    units: str
    closed: bool
    gauge: str
    materials: list[str]
    abbreviations: list[views.TextPair]
    notes: list[str]
    cautions: list[str]
    picture: str
    asked: list[AskedView]
    mm_per_unit: float
    steps: list[StepView]
    place: int
    reported: list[LineReportView]
    report: TesterReport | None
