"""What the step *Swatch* shows of gauge, hook and yarn."""

from pydantic import BaseModel


class GaugeView(BaseModel):
    """The gauge in force, over 10 cm or 4 in. stitch: in US terms; name: its abbreviation in the terms of the text."""

    stitch: str
    name: str
    sts: float
    rows: float
    span: int
    width_mm: float
    height_mm: float
    flat_increases: float
    yarn_correction: float | None


class HookView(BaseModel):
    """The hook in mm with its US letter; of_text: whether the text says it, and not the document beside it."""

    mm: float
    letter: str
    of_text: bool


class StitchView(BaseModel):
    """A stitch in US terms, and by its name in the terms of the text."""

    stitch: str
    name: str


class GaugeSaidView(BaseModel):
    """A line of the text that may tell its gauge and is not read as one. sts, rows: over 10 cm or 4 in."""

    line: int
    words: str
    stitch: str | None
    sts: float | None
    rows: float | None


class GaugeAskedView(BaseModel):
    """What the text is asked for as its gauge: in the stitches that it is worked in, the most first. mesh: whether it
    is mostly a mesh; mesh_known: whether its loops were measured."""

    stitches: list[StitchView]
    mesh: bool
    mesh_known: bool
    said: GaugeSaidView | None


class YarnSaidView(BaseModel):
    """What the text says of its yarn, to be taken over; null where it does not say."""

    words: str
    name: str
    weight_class: int | None
    grams_per_ball: float | None
    metres_per_ball: float | None
