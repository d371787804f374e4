"""The file of targets that a text is graded to: sizes, what they shall measure, and numbers that shall stay."""

from typing import Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from rillstep.core.grading import NotGraded, SizeWanted
from rillstep.core.lengths import MM_PER


class SizeTargets(BaseModel):
    """One size; a size without targets is the sample as it is. Measures are called "width", or "Strap.length". gauge:
    "sc 14 sts x 15 rows = 10 cm", where the size is in another yarn."""

    model_config = ConfigDict(extra="forbid")
    name: str = Field(min_length=1, max_length=40)
    targets: dict[str, float] = Field(default_factory=dict)
    locks: dict[str, int] = Field(default_factory=dict)
    gauge: str = Field(default="", max_length=200)


class Targets(BaseModel):
    """All sizes, in the order in which they are printed, and the unit of their targets."""

    model_config = ConfigDict(extra="forbid")
    units: Literal["cm", "in"] = "cm"
    sizes: list[SizeTargets]


def sizes_wanted(text: str) -> list[SizeWanted]:
    """The sizes of a file of targets, in mm. Raises NotGraded with the place of what is wrong."""
    try:
        told = Targets.model_validate_json(text)
    except ValidationError as error:
        faults = "; ".join(f"{'.'.join(map(str, one['loc'])) or 'the file'}: {one['msg']}" for one in error.errors())
        raise NotGraded(f"The targets cannot be read: {faults}.") from None
    unit = MM_PER[told.units]
    return [
        SizeWanted(
            size.name, {name: unit * value for name, value in size.targets.items()}, size.locks, gauge=size.gauge
        )
        for size in told.sizes
    ]
