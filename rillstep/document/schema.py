"""What stands beside the text of a design: yarn, swatch, parts. Lengths are in mm, weights in g, yarn lengths in m."""

from collections.abc import Sequence
from datetime import date
from typing import Annotated, Literal
from unicodedata import category

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, field_validator, model_validator

FORMAT = "rillstep-design"
VERSION = 2
MAX_SIZES = 10
# What weighs less cannot be weighed.
LEAST_WEIGHED_G = 0.1

Name = Annotated[str, Field(min_length=1, max_length=80)]
Millimetres = Annotated[float, Field(gt=0, le=3000, allow_inf_nan=False)]
Tolerance = Annotated[float, Field(ge=0, le=500, allow_inf_nan=False)]

# These have a meaning in pattern text, so they cannot stand in a name that is printed there.
_NOT_IN_NAMES = set(",:;#()[]{}\n\r\t")


def clean_name(value: str) -> str:
    bad = sorted(_NOT_IN_NAMES & set(value))
    if bad:
        raise ValueError(f"leave out {' '.join(repr(c) for c in bad)}: it has a meaning in pattern text")
    if any(category(character) == "Cc" for character in value):
        raise ValueError("leave out control characters")
    if not value.strip():
        raise ValueError("give it a name")
    return " ".join(value.split())


def size_name(value: str) -> str:
    """The name of a size, as it can stand in any text. Raises ValueError."""
    if value.strip().lower() in ("sizes", "only", "all"):
        raise ValueError("choose another name: this word has a meaning in pattern text")
    return clean_name(value)


def refuse_same_names(names: Sequence[str]) -> None:
    """Sizes have names of their own, whatever their case. Raises ValueError."""
    lower = [name.lower() for name in names]
    for name in lower:
        if lower.count(name) > 1:
            raise ValueError(f"two sizes are called “{name}”; give each its own name")


def one_line(value: str) -> str:
    """The name of a design, as it can stand in the head of a text and in print. Raises ValueError."""
    if "#" in value or any(category(character) == "Cc" for character in value):
        raise ValueError("leave out #, line breaks and control characters: they have a meaning in pattern text")
    return value


def _weighed(value: float) -> float:
    if 0 < value < LEAST_WEIGHED_G:
        raise ValueError(f"must be at least {LEAST_WEIGHED_G} g, or 0 where it was not weighed")
    return value


class Strict(BaseModel):
    """Refuses fields that are not known."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)


class Yarn(Strict):
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
        if set("#\n\r") & set(value):
            raise ValueError("leave out # and line breaks")
        return value


class Swatch(Strict):
    """A measured swatch: so many stitches and rows, so wide and high. `weight_g` 0: not weighed."""

    stitch: Literal["sc", "hdc", "dc"] = "hdc"
    stitches: Annotated[float, Field(gt=0, le=500, allow_inf_nan=False)] = 15
    rows: Annotated[float, Field(gt=0, le=500, allow_inf_nan=False)] = 11.5
    width_mm: Millimetres = 100
    height_mm: Millimetres = 100
    weight_g: Annotated[float, Field(ge=0, le=5000, allow_inf_nan=False), AfterValidator(_weighed)] = 0
    blocked: bool = False

    @model_validator(mode="after")
    def _plausible(self) -> "Swatch":
        width, height = self.width_mm / self.stitches, self.height_mm / self.rows
        if not (0.5 <= width <= 60 and 0.5 <= height <= 120):
            raise ValueError(
                f"one stitch would be {width:.2f} mm wide and {height:.2f} mm high; "
                "count and measure again (a stitch is 0.5 to 60 mm wide)"
            )
        if not 0.3 <= height / width <= 4:
            raise ValueError("a row would be more than 4 times as high as a stitch is wide, or less than a third")
        return self


class Parts(Strict):
    """A crochet-along: how many parts, and when they come out."""

    count: Annotated[int, Field(ge=2, le=6)] = 4
    start: Annotated[date, Field(ge=date(2000, 1, 1), le=date(2199, 12, 31))] = date(2027, 1, 8)
    every_days: Annotated[int, Field(ge=1, le=60)] = 7
