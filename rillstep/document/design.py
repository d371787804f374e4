"""The design document, version 2: a text, and beside it only what a text cannot say. Lengths are in mm.

Gauge, sizes, hook and yarn that the text names hold as they stand there. Targets and tolerances go by the name of a
measure ("width", "Cord.length"), locks by the name of a number of the text. The JSON Schema in docs/design.schema.json
is generated from these models.
"""

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field, StringConstraints, ValidationError, field_validator, model_validator

from rillstep.core.gauge import hook_in
from rillstep.document.schema import (
    MAX_SIZES,
    ExtraYarn,
    HookMm,
    Millimetres,
    Name,
    Parts,
    Strict,
    Swatch,
    Tolerance,
    Weighing,
    Yarn,
    one_line,
    refuse_same_names,
    size_name,
)

MeasureName = Annotated[str, Field(min_length=1, max_length=120)]
NumberName = Annotated[str, Field(min_length=1, max_length=80)]
# How much a measure counts against the others, where not all targets can be met: 1 is usual, 0 not at all.
Weight = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]
LockedNumber = Annotated[int, Field(ge=0, le=100_000)]


Carried = Literal["hand", "elbow", "shoulder"]
# Extra length of a handle for the arm or shoulder that it goes over, in mm. Usual values.
ALLOWANCE_MM: dict[Carried, float] = {"hand": 0.0, "elbow": 20.0, "shoulder": 40.0}

# The name of a size, as it can stand in any text.
SizeName = Annotated[Name, AfterValidator(size_name)]


MOST_YARNS, MOST_SWATCHES = 12, 20

# How far off a measure may be, in mm, where nothing else is said: a drop is measured less exactly.
USUAL_TOLERANCE_MM, USUAL_TOLERANCES_MM = 10.0, {"drop": 15.0}


def tolerance_mm(size: "Size | None", measure: str) -> float:
    """How far off a measure of a size may be, in mm."""
    usual = USUAL_TOLERANCES_MM.get(measure, USUAL_TOLERANCE_MM)
    return size.tolerances_mm.get(measure, usual) if size is not None else usual


class Size(Strict):
    """A size of the text, or one that is wanted: what it shall measure, and the numbers that it shall have."""

    name: SizeName
    targets_mm: dict[MeasureName, Millimetres] = Field(default={}, max_length=60)
    tolerances_mm: dict[MeasureName, Tolerance] = Field(default={}, max_length=60)
    locks: dict[NumberName, LockedNumber] = Field(default={}, max_length=200)


class Design(Strict):
    """A whole design. sizes: in the order in which they are wanted; sample: the size that the others are graded from,
    the first one of the text where it is not given. weights: how much measures count. yarns: one for each colour; the
    one without a colour is for all that no other is for. hook_mm: null where nothing is known beside the text. carried:
    where the bag hangs, which takes some of the length of a handle. made_mm: what was measured of the sample as it was
    made, by the names of measures."""

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
    weights: dict[MeasureName, Weight] = Field(default={}, max_length=60)
    yarns: list[Yarn] = Field(default=[], max_length=MOST_YARNS)
    hook_mm: HookMm | None = None
    swatches: list[Swatch] = Field(default=[], max_length=MOST_SWATCHES)
    weighings: list[Weighing] = Field(default=[], max_length=100)
    extras: list[ExtraYarn] = Field(default=[], max_length=40)
    carried: Carried = "hand"
    made_mm: dict[MeasureName, Millimetres] = Field(default={}, max_length=60)
    parts: Parts = Parts()
    notes: Annotated[str, Field(max_length=4000)] = ""

    @model_validator(mode="before")
    @classmethod
    def _one_of_each(cls, content: Any) -> Any:
        """Files of version 2 that were saved before a design could have several yarns and swatches."""
        if not isinstance(content, dict) or not {"yarn", "swatch"} & set(content):
            return content
        known = {key: value for key, value in content.items() if key not in ("yarn", "swatch")}
        for one, all_of in (("yarn", "yarns"), ("swatch", "swatches")):
            if content.get(one) is not None:
                known.setdefault(all_of, [content[one]])
        return known

    @field_validator("yarns")
    @classmethod
    def _own_colours(cls, value: list[Yarn]) -> list[Yarn]:
        colours = [yarn.colour.lower() for yarn in value]
        for at, colour in enumerate(colours):
            if colour in colours[:at]:
                raise ValueError(
                    f"two yarns are for colour “{value[at].colour}”; give each its own"
                    if colour
                    else "two yarns are for the same stitches; say which colour of the text one of them is for"
                )
        return value

    @field_validator("name")
    @classmethod
    def _no_comment(cls, value: str) -> str:
        return one_line(value)

    @field_validator("sizes")
    @classmethod
    def _different(cls, value: list[Size]) -> list[Size]:
        refuse_same_names([size.name for size in value])
        return value


def hook_said_mm(design: Design, said: str | None) -> float | None:
    """The hook in mm: as the text says it (its `Hook:` line), or as it is kept beside a text that says none."""
    own = hook_in(said or "")
    return own if own is not None else design.hook_mm


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
