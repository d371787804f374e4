"""What the screens get of one line: its trace, its chart, and words to write it with."""

from pydantic import BaseModel


class TracePlaceView(BaseModel):
    """A place of the work before; `x` in widths of a stitch."""

    x: float
    label: str
    kind: str
    became: str


class TraceStitchView(BaseModel):
    """A new stitch, and the places that it went into, as indexes.

    number: which stitch of its row it is, 0 for a space. step: which step of the row made it.
    """

    x: float
    number: int
    label: str
    kind: str
    into: list[int]
    step: int
    loop: str
    closed: bool


class TraceStepView(BaseModel):
    """A step with what it takes and makes; `stops`: the row came to a stop in it."""

    words: str
    took: int
    made: int
    stops: bool


class TraceView(BaseModel):
    """One round of a line in one size, unrolled. `turns`: the rounds of it that differ, out of `rounds`.

    ahead: the place where the hook stands when the row comes to a stop; missing: places that are not there.
    """

    line: int
    size: str
    label: str
    turn: int
    turns: int
    rounds: int
    below: list[TracePlaceView]
    made: list[TraceStitchView]
    width: float
    ahead: int | None
    trouble: str | None
    missing: int
    took: int
    sts: int
    spaces: int
    steps: list[TraceStepView]


class ChartView(BaseModel):
    """A stitch chart as an SVG document."""

    title: str
    svg: str
    rows: list[str]
    around: bool


class PrintedView(BaseModel):
    text: str


class WordView(BaseModel):
    """A word that the notation knows. kind: stitch, place, end, gesture, line or head."""

    word: str
    kind: str
    help: str
