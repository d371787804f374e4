"""Reading and writing a design file; faults name the place and the offending value, all at once."""

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import BeforeValidator, ValidationError

from rillstep.core.lengths import in_units
from rillstep.core.memory import remember
from rillstep.document.design import Design
from rillstep.document.fields import field_called, is_length
from rillstep.document.json_text import NotJson, parsed
from rillstep.document.schema import FORMAT, MAX_SIZES
from rillstep.document.version1 import ToteDesign, upgraded

MAX_BYTES = 2_000_000
# Where a design stands in the body of a request.
_DOCUMENT = re.compile(r"^\$\.document\b")


@dataclass(frozen=True)
class Fault:
    """One fault: where (`$.sizes[2].name`), what stood there, and what to do. field: as the screen calls the place."""

    path: str
    value: str
    message: str
    field: str = ""

    @property
    def words(self) -> str:
        """The fault as a sentence."""
        return f"{self.field or field_called(self.path)}: {self.message}"


class BrokenDesign(ValueError):
    """The file cannot be used. `faults` has every reason."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        super().__init__("; ".join(fault.words for fault in faults))
        self.faults = tuple(faults)


_MESSAGES = {
    "missing": "this is missing",
    "extra_forbidden": "this is not known here; remove it, or check its spelling",
    "float_parsing": "write a number, such as 24 or 24.5",
    "int_parsing": "write a whole number",
    "int_from_float": "write a whole number",
    "greater_than": "must be more than {gt}",
    "greater_than_equal": "must be at least {ge}",
    "less_than": "must be less than {lt}",
    "less_than_equal": "must be at most {le}",
    "finite_number": "write a finite number",
    "string_too_short": "cannot be empty",
    "string_too_long": "can have at most {max_length} characters",
    "too_long": "there can be at most {max_length}; remove some",
    "too_short": "there must be at least {min_length}",
    "literal_error": "must be {expected}",
    "string_type": "write a text in quotes",
    "date_from_datetime_parsing": "write a date like 2027-01-08",
    "date_parsing": "write a date like 2027-01-08",
}


def path_of(location: Sequence[int | str]) -> str:
    """("sizes", 2, "name") as `$.sizes[2].name`."""
    return "$" + "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in location)


def faults_of(errors: Sequence[Any], skip: int = 0) -> list[Fault]:
    """Validation errors as faults; `skip` leading parts of the location are left out."""
    found = []
    for error in errors:
        template = _MESSAGES.get(error["type"])
        path = path_of(error["loc"][skip:])
        bounds = {k: _bound(path, v) for k, v in error.get("ctx", {}).items()}
        message = template.format(**bounds) if template else error["msg"].removeprefix("Value error, ")
        if error["type"] == "too_long" and error["loc"][-1:] == ("sizes",):
            message = f"a design has at most {MAX_SIZES} sizes; delete one first"
        value = json.dumps(error.get("input"), default=str, ensure_ascii=False)
        shown = value if len(value) <= 60 else value[:57] + "..."
        found.append(Fault(path, shown, message, field_called(_DOCUMENT.sub("$", path))))
    return found


def _bound(path: str, value: Any) -> str:
    """A limit as it is told: of a length in both units, as it is not known here which the designer uses."""
    if not isinstance(value, int | float):
        return str(value)
    if is_length(path) and value:
        return f"{in_units(value, 'cm'):g} cm ({in_units(value, 'in'):g} in)"
    return f"{value:g}"


@remember(64)
def _of_version_1(content: str) -> Design:
    """A design of version 1, upgraded; it takes a second, and lists ask for it again. Raises ValidationError."""
    return upgraded(ToteDesign.model_validate_json(content))


def _newest(content: Any) -> Any:
    """The content of a design in the newest version; one that says nothing is of the first."""
    if isinstance(content, dict) and content.get("version", 1) == 1:
        try:
            return _of_version_1(json.dumps(content, sort_keys=True))
        except ValidationError as error:
            faults = faults_of(error.errors(include_url=False))
            raise ValueError("this design is of version 1, and " + "; ".join(one.words for one in faults[:5])) from None
    return content


# A design as it comes from outside: one of an older version is upgraded.
AnyDesign = Annotated[Design, BeforeValidator(_newest)]


def load(source: str | bytes) -> Design:
    """Read a design file; one of an older version is upgraded. Raises BrokenDesign."""
    if len(source) > MAX_BYTES:
        raise BrokenDesign(
            [Fault("$", "", f"the file is larger than {MAX_BYTES // 1_000_000} MB; a design is far smaller")]
        )
    try:
        content = parsed(source)
    except NotJson as error:
        raise BrokenDesign([Fault("$", "", f"{error}; choose a file that was saved as a design")]) from None
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        raise BrokenDesign([Fault("$.format", "", f"this is no design file; it must be “{FORMAT}”")])
    version = content.get("version")
    if type(version) is not int or version not in (1, 2):
        raise BrokenDesign(
            [Fault("$.version", str(content.get("version")), "it is not known; this program reads versions 1 and 2")]
        )
    try:
        return _of_version_1(json.dumps(content, sort_keys=True)) if version == 1 else Design.model_validate(content)
    except ValidationError as error:
        raise BrokenDesign(faults_of(error.errors(include_url=False))) from None


def design_schema() -> dict[str, Any]:
    """The JSON Schema of the design file."""
    return Design.model_json_schema()


def dump(design: Design) -> str:
    """The design file: JSON, sorted as in the schema, one value a line."""
    return json.dumps(design.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"
