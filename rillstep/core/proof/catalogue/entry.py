"""An entry of the catalogue of findings."""

from dataclasses import dataclass
from typing import Literal

from rillstep.core.findings import Severity

Group = Literal["reading", "counting", "places", "sizes and numbers", "habits", "shape and pieces"]


@dataclass(frozen=True)
class Entry:
    """A finding. `example` is a whole text in which it is found, in `line` of it."""

    code: str
    severity: Severity
    group: Group
    title: str
    meaning: str
    way_out: str
    example: str
    line: int
