"""The design document, version 1: a tote by fields, as old files and revisions hold it. It is read, and becomes a text.

Lengths are in mm.
"""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints, field_validator, model_validator

from rillstep.document.schema import (
    MAX_SIZES,
    Count,
    Millimetres,
    Name,
    Parts,
    Strict,
    SwatchWeight,
    Tolerance,
    of_one_line,
    one_line,
    refuse_odd_stitch,
    refuse_same_names,
    size_name,
)


class Way(Strict):
    """The designer's way of working."""

    rounds: Literal["joined", "spiral"] = "joined"
    chain_counts: bool = False
    increases: Literal["stacked", "shifted"] = "stacked"
    base_edge: Literal["plain", "back loops"] = "plain"
    brim_rounds: Annotated[int, Field(ge=0, le=20)] = 2
    over_rounds: Annotated[int, Field(ge=1, le=10)] = 2
    wall_multiple: Annotated[int, Field(ge=1, le=24)] = 1
    handle_share: Annotated[float, Field(ge=0.1, le=0.8, allow_inf_nan=False)] = 0.4
    carried: Literal["hand", "elbow", "shoulder"] = "hand"


class Locks(Strict):
    """Numbers held by hand in one size; null is free."""

    side: Annotated[int, Field(ge=1, le=5000)] | None = None
    base_rounds: Annotated[int, Field(ge=1, le=500)] | None = None
    extra: Annotated[int, Field(ge=0, le=500)] | None = None
    around: Annotated[int, Field(ge=4, le=10000)] | None = None
    wall_rounds: Annotated[int, Field(ge=1, le=1500)] | None = None
    handle_skip: Annotated[int, Field(ge=1, le=5000)] | None = None
    handle_chain: Annotated[int, Field(ge=1, le=5000)] | None = None


class PlainYarn(Strict):
    """A yarn as its label says."""

    name: Name = "My yarn"
    weight_class: Annotated[int, Field(ge=0, le=7)] = 4
    fibre: Annotated[str, Field(max_length=80)] = ""
    grams_per_ball: Annotated[float, Field(ge=0.1, le=5000, allow_inf_nan=False)] = 100
    metres_per_ball: Annotated[float, Field(ge=0.1, le=20000, allow_inf_nan=False)] = 200
    strands: Annotated[int, Field(ge=1, le=3)] = 1

    @field_validator("name", "fibre")
    @classmethod
    def _one_line(cls, value: str) -> str:
        return of_one_line(value)


class PlainSwatch(Strict):
    """A measured swatch in a plain stitch. `weight_g` 0: not weighed."""

    stitch: Literal["sc", "hdc", "dc"] = "hdc"
    stitches: Count = 15
    rows: Count = 11.5
    width_mm: Millimetres = 100
    height_mm: Millimetres = 100
    weight_g: SwatchWeight = 0
    blocked: bool = False

    @model_validator(mode="after")
    def _plausible(self) -> "PlainSwatch":
        refuse_odd_stitch(self.width_mm / self.stitches, self.height_mm / self.rows)
        return self


class ToteSize(Strict):
    """What one size must measure when it is finished, with a tolerance either way."""

    name: Name
    width_mm: Millimetres
    height_mm: Millimetres
    depth_mm: Millimetres
    drop_mm: Millimetres
    width_tolerance_mm: Tolerance = 10
    height_tolerance_mm: Tolerance = 10
    depth_tolerance_mm: Tolerance = 10
    drop_tolerance_mm: Tolerance = 15
    locks: Locks = Locks()

    @field_validator("name")
    @classmethod
    def _printable(cls, value: str) -> str:
        return size_name(value)


class ToteDesign(Strict):
    """A whole design. `text` is the pattern text if it was edited by hand; null: written from the numbers."""

    format: Literal["rillstep-design"] = "rillstep-design"
    version: Literal[1] = 1
    name: Name = "New tote"
    units: Literal["cm", "in"] = "cm"
    terms: Literal["US", "UK"] = "US"
    hand: Literal["right", "left"] = "right"
    yarn: PlainYarn = PlainYarn()
    hook_mm: Annotated[float, Field(gt=0, le=40, allow_inf_nan=False)] = 5.0
    swatch: PlainSwatch = PlainSwatch()
    way: Way = Way()
    sizes: Annotated[list[ToteSize], Field(min_length=1, max_length=MAX_SIZES)]
    text: Annotated[str, StringConstraints(strip_whitespace=False, max_length=400_000)] | None = None
    parts: Parts = Parts()
    notes: Annotated[str, Field(max_length=4000)] = ""

    @field_validator("name")
    @classmethod
    def _no_comment(cls, value: str) -> str:
        return one_line(value)

    @field_validator("sizes")
    @classmethod
    def _different(cls, value: list[ToteSize]) -> list[ToteSize]:
        refuse_same_names([size.name for size in value])
        return value
