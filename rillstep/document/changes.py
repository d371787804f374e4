"""What was changed of a design since a revision of it: lines of its text, and whole fields beside the text."""

from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from rillstep.document.design import Design

Line = Annotated[str, StringConstraints(strip_whitespace=False, max_length=400_000)]


class ChangedLines(BaseModel):
    """From the line of index `at` on, so many lines were taken out and these put in. Lines end at line feeds alone."""

    model_config = ConfigDict(extra="forbid")

    at: Annotated[int, Field(ge=0, le=400_000)]
    removed: Annotated[int, Field(ge=0, le=400_001)]
    lines: Annotated[list[Line], Field(max_length=400_001)] = []


class Changes(BaseModel):
    """lines: null where the text is as it was. fields: the fields beside the text that have another value, with it."""

    model_config = ConfigDict(extra="forbid")

    lines: ChangedLines | None = None
    fields: Annotated[dict[str, Any], Field(max_length=40)] = {}


def with_changes(base: Design, changes: Changes) -> Design:
    """A design with its changes. Raises ValidationError where a value is wrong, ValueError where the lines that were
    changed are not there."""
    content = {**base.model_dump(mode="json"), **changes.fields}
    if changes.lines is not None:
        if "text" in changes.fields:
            raise ValueError("the text is changed twice")
        old, new = base.text.split("\n"), changes.lines
        if new.at + new.removed > len(old):
            raise ValueError(f"the text has {len(old)} lines, and line {new.at + new.removed} of it was changed")
        content["text"] = "\n".join((*old[: new.at], *new.lines, *old[new.at + new.removed :]))
    return Design.model_validate(content)
