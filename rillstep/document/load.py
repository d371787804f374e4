"""Reading and writing a design file; faults name the place and the offending value, all at once."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import Discriminator, Tag, TypeAdapter, ValidationError

from rillstep.document.json_text import NotJson, parsed
from rillstep.document.schema import FORMAT, MAX_SIZES, ToteDesign
from rillstep.document.text_design import TextDesign


def _version(content: Any) -> str:
    """The version of a design; a file that says nothing is of the first."""
    found = content.get("version", 1) if isinstance(content, dict) else getattr(content, "version", 1)
    return str(found)


# A design by its version: 1 is a tote by fields, 2 a text.
Design = Annotated[Annotated[ToteDesign, Tag("1")] | Annotated[TextDesign, Tag("2")], Discriminator(_version)]
_ADAPTER: TypeAdapter[ToteDesign | TextDesign] = TypeAdapter(Design)
_KINDS: dict[int, type[ToteDesign] | type[TextDesign]] = {1: ToteDesign, 2: TextDesign}

MAX_BYTES = 2_000_000


@dataclass(frozen=True)
class Fault:
    """One fault: where (`$.sizes[2].drop_mm`), what stood there, and what to do."""

    path: str
    value: str
    message: str


class BrokenDesign(ValueError):
    """The file cannot be used. `faults` has every reason."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        super().__init__("; ".join(f"{fault.path}: {fault.message}" for fault in faults))
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
    """("sizes", 2, "drop_mm") as `$.sizes[2].drop_mm`."""
    return "$" + "".join(f"[{part}]" if isinstance(part, int) else f".{part}" for part in location)


def faults_of(errors: Sequence[Any], skip: int = 0) -> list[Fault]:
    """Validation errors as faults; `skip` leading parts of the location are left out."""
    found = []
    for error in errors:
        template = _MESSAGES.get(error["type"])
        bounds = {k: f"{v:g}" if isinstance(v, int | float) else str(v) for k, v in error.get("ctx", {}).items()}
        message = template.format(**bounds) if template else error["msg"].removeprefix("Value error, ")
        if error["type"] == "too_long" and error["loc"][-1:] == ("sizes",):
            message = f"a design has at most {MAX_SIZES} sizes; delete one first"
        value = json.dumps(error.get("input"), default=str, ensure_ascii=False)
        shown = value if len(value) <= 60 else value[:57] + "..."
        found.append(Fault(path_of(error["loc"][skip:]), shown, message))
    return found


def load(source: str | bytes) -> ToteDesign | TextDesign:
    """Read a design file. Raises BrokenDesign."""
    if len(source) > MAX_BYTES:
        raise BrokenDesign(
            [Fault("$", "", f"the file is larger than {MAX_BYTES // 1_000_000} MB; a design is far smaller")]
        )
    try:
        content = parsed(source)
    except NotJson as error:
        raise BrokenDesign([Fault("$", "", f"{error}; choose a file that was saved as a design")]) from None
    if not isinstance(content, dict) or content.get("format") != FORMAT:
        raise BrokenDesign([Fault("$.format", "", f"this is no design file: “format” must be “{FORMAT}”")])
    version = content.get("version")
    if type(version) is not int or version not in _KINDS:
        raise BrokenDesign(
            [
                Fault(
                    "$.version",
                    str(content.get("version")),
                    "this version is not known; this program reads versions 1 and 2",
                )
            ]
        )
    try:
        return _KINDS[version].model_validate(content)
    except ValidationError as error:
        raise BrokenDesign(faults_of(error.errors(include_url=False))) from None


def design_schema() -> dict[str, Any]:
    """The JSON Schema of the design file, all versions."""
    return _ADAPTER.json_schema()


def dump(design: Design) -> str:
    """The design file: JSON, sorted as in the schema, one value a line."""
    return json.dumps(design.model_dump(mode="json"), indent=2, ensure_ascii=False) + "\n"
