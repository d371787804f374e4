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


class TesterReport(BaseModel):
    """A tester's report at the end. Lengths in mm, null when not measured."""

    gauge_sts: float | None = None
    gauge_rows: float | None = None
    width_mm: float | None = None
    height_mm: float | None = None
    depth_mm: float | None = None
    drop_mm: float | None = None
    grams: float | None = None
    hours: float | None = None
    remarks: str = ""


class TesterPage(BaseModel):
    """All that a tester's phone needs. picture: her size as it lies, as SVG; empty where it is not known."""

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
    steps: list[StepView]
    place: int
    reported: list[LineReportView]
    report: TesterReport | None
