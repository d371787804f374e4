"""The design document, version 2: a text, and beside it only what a text cannot say. Lengths are in mm.

Gauge, sizes, hook and yarn that the text names hold as they stand there. Targets and tolerances go by the name of a
measure ("width", "Cord.length"), locks by the name of a number of the text. The JSON Schema in docs/design.schema.json
is generated from these models.
"""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints, ValidationError, field_validator

from rillstep.document.schema import (
    MAX_SIZES,
    Millimetres,
    Name,
    Parts,
    Strict,
    Swatch,
    Tolerance,
    Yarn,
    one_line,
    refuse_same_names,
    size_name,
)

MeasureName = Annotated[str, Field(min_length=1, max_length=120)]
NumberName = Annotated[str, Field(min_length=1, max_length=80)]
LockedNumber = Annotated[int, Field(ge=0, le=100_000)]


Carried = Literal["hand", "elbow", "shoulder"]

# The name of a size, as it can stand in any text.
SizeName = Annotated[Name, AfterValidator(size_name)]


class Size(Strict):
    """A size of the text, or one that is wanted: what it shall measure, and the numbers that it shall have."""

    name: SizeName
    targets_mm: dict[MeasureName, Millimetres] = Field(default={}, max_length=60)
    tolerances_mm: dict[MeasureName, Tolerance] = Field(default={}, max_length=60)
    locks: dict[NumberName, LockedNumber] = Field(default={}, max_length=200)


class Design(Strict):
    """A whole design. sizes: in the order in which they are wanted; sample: the size that the others are graded from,
    the first one of the text where it is not given. yarn, hook, swatch: null where nothing is known beside the text.
    carried: where the bag hangs, which takes some of the length of a handle. made_mm: what was measured of the sample
    as it was made, by the names of measures."""

    format: Literal["rillstep-design"] = "rillstep-design"
    version: Literal[2] = 2
    name: Name = "New bag"
    units: Literal["cm", "in"] = "cm"
    terms: Literal["US", "UK"] = "US"
    hand: Literal["right", "left"] = "right"
    # Every byte of the text is kept, also those at its ends.
    text: Annotated[str, StringConstraints(strip_whitespace=False, max_length=400_000)]
    sample: Name | None = None
    sizes: list[Size] = Field(default=[], max_length=MAX_SIZES)
    yarn: Yarn | None = None
    hook_mm: Annotated[float, Field(gt=0, le=40, allow_inf_nan=False)] | None = None
    swatch: Swatch | None = None
    carried: Carried = "hand"
    made_mm: dict[MeasureName, Millimetres] = Field(default={}, max_length=60)
    parts: Parts = Parts()
    notes: Annotated[str, Field(max_length=4000)] = ""

    @field_validator("name")
    @classmethod
    def _no_comment(cls, value: str) -> str:
        return one_line(value)

    @field_validator("sizes")
    @classmethod
    def _different(cls, value: list[Size]) -> list[Size]:
        refuse_same_names([size.name for size in value])
        return value


def sizes_named(names: Sequence[str]) -> list[Size]:
    """The sizes of a text, but for those whose names cannot be printed in another text; they stay in this one."""
    found: list[Size] = []
    for name in names[:MAX_SIZES]:
        try:
            size = Size(name=name)
        except ValidationError:
            continue
        if size.name.lower() not in [other.name.lower() for other in found]:
            found.append(size)
    return found
