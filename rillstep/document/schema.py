"""What stands beside the text of a design: yarn, swatch, parts. Lengths are in mm, weights in g, yarn lengths in m."""

from collections.abc import Sequence
from datetime import date
from typing import Annotated
from unicodedata import category

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, field_validator, model_validator

from rillstep.core.yarn.priors import TIMES_LENGTH
from rillstep.core.yarn.stitch_mix import read_stitches

FORMAT = "rillstep-design"
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


def of_one_line(value: str) -> str:
    """Words that are printed in a line of a text. Raises ValueError."""
    if set("#\n\r") & set(value):
        raise ValueError("leave out # and line breaks")
    return value


class Strict(BaseModel):
    """Refuses fields that are not known."""

    model_config = ConfigDict(extra="forbid", str_strip_whitespace=True)


Grams = Annotated[float, Field(ge=LEAST_WEIGHED_G, le=20_000, allow_inf_nan=False)]
Metres = Annotated[float, Field(ge=0.1, le=20_000, allow_inf_nan=False)]
HookMm = Annotated[float, Field(gt=0, le=40, allow_inf_nan=False)]
Count = Annotated[float, Field(gt=0, le=500, allow_inf_nan=False)]
SwatchWeight = Annotated[float, Field(ge=0, le=5000, allow_inf_nan=False), AfterValidator(_weighed)]
Strands = Annotated[int, Field(ge=1, le=3)]


class Yarn(Strict):
    """A yarn as its label says, in one colour. colour: what the text calls it ("A"); empty: all that no other yarn of
    the design is for. metres_per_ball: null where the label says none; measured_m of it that weigh measured_g tell the
    same, and hold where both are known. have_g: what lies in the drawer; null: not said. carried:
    it is not cut where the colour changes."""

    name: Name = "My yarn"
    colour: Annotated[str, Field(max_length=40)] = ""
    weight_class: Annotated[int, Field(ge=0, le=7)] = 4
    fibre: Annotated[str, Field(max_length=80)] = ""
    grams_per_ball: Annotated[float, Field(ge=0.1, le=5000, allow_inf_nan=False)] = 100
    metres_per_ball: Metres | None = 200
    measured_m: Metres | None = None
    measured_g: Grams | None = None
    strands: Strands = 1
    have_g: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] | None = None
    carried: bool = False

    @field_validator("name", "fibre", "colour")
    @classmethod
    def _one_line(cls, value: str) -> str:
        return of_one_line(value)


def refuse_odd_stitch(width_mm: float, height_mm: float) -> None:
    """A stitch of a swatch is of a size and a shape that a hook can make. Raises ValueError."""
    _refuse_size(width_mm, height_mm)
    if not 0.3 <= height_mm / width_mm <= 4:
        raise ValueError("a row would be more than 4 times as high as a stitch is wide, or less than a third")


def _refuse_size(width_mm: float, height_mm: float) -> None:
    if not (0.5 <= width_mm <= 60 and 0.5 <= height_mm <= 120):
        raise ValueError(
            f"one stitch would be {width_mm:.2f} mm wide and {height_mm:.2f} mm high; "
            "count and measure again (a stitch is 0.5 to 60 mm wide)"
        )


class Swatch(Strict):
    """A measured swatch: so many stitches and rows, so wide and high, as they were counted and measured.

    stitch: a stitch ("hdc"), or those of one repeat of a stitch pattern ("FPdc, BPdc", "sc, 3 ch"), all of which are
    counted in `stitches`. blocked: whether width and height were measured after blocking; raw_*: before it; hanging_mm:
    the height with load_g hanging on it. yarn: the colour of its yarn. strands, hook_mm: null: those of the design.
    weight_g 0: not weighed.
    """

    stitch: Annotated[str, Field(min_length=1, max_length=120)] = "hdc"
    stitches: Count = 15
    rows: Count = 11.5
    width_mm: Millimetres = 100
    height_mm: Millimetres = 100
    weight_g: SwatchWeight = 0
    blocked: bool = False
    raw_width_mm: Millimetres | None = None
    raw_height_mm: Millimetres | None = None
    hanging_mm: Millimetres | None = None
    load_g: Grams | None = None
    yarn: Annotated[str, Field(max_length=40)] = ""
    strands: Strands | None = None
    hook_mm: HookMm | None = None

    @field_validator("stitch")
    @classmethod
    def _known(cls, value: str) -> str:
        read_stitches(value)
        return value

    @model_validator(mode="after")
    def _plausible(self) -> "Swatch":
        width_mm, height_mm = self.width_mm / self.stitches, self.height_mm / self.rows
        mix = read_stitches(self.stitch)
        if any(name == "ch" for name, _ in mix.stitches):  # chains hang in loops: a repeat is as wide as it comes
            _refuse_size(width_mm * mix.total, height_mm)
        else:
            refuse_odd_stitch(width_mm, height_mm)
        return self


class Weighing(Strict):
    """What something made from the text weighs. of: a piece by its title; empty: the whole bag. size: by its name.
    pieces: so many of a piece that is made several times; 0: all of them. colour: only what is of this colour was
    weighed; empty: all. balls: where not the work was weighed but what is left of so many balls; 0: the work. maker:
    whoever made it; empty: the designer."""

    of: Annotated[str, Field(max_length=120)] = ""
    size: Name
    pieces: Annotated[int, Field(ge=0, le=200)] = 0
    colour: Annotated[str, Field(max_length=40)] = ""
    grams: Grams
    balls: Annotated[int, Field(ge=0, le=100)] = 0
    maker: Annotated[str, Field(max_length=80)] = ""


class ExtraYarn(Strict):
    """What takes yarn besides stitches: a seam, a cord, a tassel. kind: as `core.yarn.priors` names it. measure:
    that which its length follows in each size; else length_mm is its length."""

    kind: str
    measure: Annotated[str, Field(max_length=120)] = ""
    length_mm: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None
    count: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)] = 1
    colour: Annotated[str, Field(max_length=40)] = ""

    @field_validator("kind")
    @classmethod
    def _known(cls, value: str) -> str:
        if value not in TIMES_LENGTH:
            raise ValueError(f"choose one of: {', '.join(TIMES_LENGTH)}")
        return value

    @model_validator(mode="after")
    def _has_a_length(self) -> "ExtraYarn":
        if not self.measure and self.length_mm is None:
            raise ValueError("say how long it is, or which measure it is as long as")
        return self


class Parts(Strict):
    """A crochet-along: how many parts, and when they come out."""

    count: Annotated[int, Field(ge=2, le=6)] = 4
    start: Annotated[date, Field(ge=date(2000, 1, 1), le=date(2199, 12, 31))] = date(2027, 1, 8)
    every_days: Annotated[int, Field(ge=1, le=60)] = 7
