"""The names of a design's numbers, changed by its designer: in the text, and in what goes by name beside it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from rillstep.core.grading import with_names, with_values
from rillstep.core.grading.named_text import named_values
from rillstep.core.grading.renaming import held, named, renamed, tied, untied
from rillstep.core.settling import read
from rillstep.core.tree import Again, Row, Setup
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in
from rillstep.core.words.numbers import numbers_in
from rillstep.design.proving import allowance_of
from rillstep.document import Design, Size

Verb = Literal["write", "rename", "hold", "tie", "untie", "name", "set"]
# So many plain numbers of a text are listed, that could have a name.
MOST_PLAIN = 300


class NameChange(BaseModel):
    """What shall change. write: names for all numbers that may move. rename: name is called other. hold: name is plain
    numbers again. tie: other is name everywhere. untie: name is called other on a line. name: the number at a line and
    a column (both from 1) is called other. set: name has these values, one for each size; on a line alone, where one is
    given, as other."""

    verb: Verb
    name: Annotated[str, Field(max_length=80)] = ""
    other: Annotated[str, Field(max_length=80)] = ""
    line: Annotated[int, Field(ge=0, le=100_000)] = 0
    column: Annotated[int, Field(ge=0, le=100_000)] = 0
    values: Annotated[list[Annotated[int, Field(ge=0, le=100_000)]], Field(max_length=10)] = []


def with_changed_names(design: Design, change: NameChange) -> Design:
    """The design with other names; the locks of its sizes go by them. Raises NotNamed, NotGraded."""
    text = _changed(design, change)
    if change.verb == "set":
        return _locked(design, text, change)
    called = {change.name: change.other} if change.verb == "rename" else {change.other: change.name}
    gone = {change.name} if change.verb == "hold" else set()
    sizes = [
        size.model_copy(update={"locks": _locks(size.locks, called if change.verb in ("rename", "tie") else {}, gone)})
        for size in design.sizes
    ]
    return design.model_copy(update={"text": text, "sizes": sizes})


def _changed(design: Design, change: NameChange) -> str:
    text = design.text
    match change.verb:
        case "write":
            return with_names(text, allowance_of(design))
        case "rename":
            return renamed(text, change.name, change.other)
        case "hold":
            return held(text, change.name)
        case "tie":
            return tied(text, change.name, change.other)
        case "untie":
            return untied(text, change.name, change.line, change.other)
        case "name":
            return named(text, change.line, change.column, change.other)
        case "set":
            if change.line:
                text = untied(text, change.name, change.line, change.other)
            return with_values(
                text, {change.other if change.line else change.name: change.values}, allowance_of(design)
            )


def _locked(design: Design, text: str, change: NameChange) -> Design:
    """The design with a number that was set by hand, held in each size in which it is another now."""
    name = change.other if change.line else change.name
    sizes = read(text).pattern.sizes
    before = named_values(design.text, len(sizes)).get(change.name, ())
    held_in = {size: value for size, was, value in zip(sizes, before, change.values, strict=False) if was != value}
    known = {size.name for size in design.sizes}
    own = [*design.sizes, *(Size(name=size) for size in held_in if size not in known)]
    wishes = [
        size.model_copy(update={"locks": {**size.locks, name: held_in[size.name]}}) if size.name in held_in else size
        for size in own
    ]
    return design.model_copy(update={"text": text, "sizes": wishes})


def _locks(locks: Mapping[str, int], called: Mapping[str, str], gone: set[str]) -> dict[str, int]:
    return {called.get(name, name): value for name, value in locks.items() if name not in gone}


@dataclass(frozen=True)
class PlainNumber:
    """A number of a row without a name: its line and column (from 1), its value, and the line as it is written."""

    line: int
    column: int
    value: int
    section: str
    words: str


def plain_numbers(text: str) -> list[PlainNumber]:
    """The plain numbers of the rows of a text with names: they are held as they are, until they have a name."""
    lines = text.split("\n")
    found: dict[tuple[int, int], PlainNumber] = {}
    for section, line in read(text).pattern.lines():
        if not isinstance(line, Row | Again | Setup):
            continue
        steps = line.steps if isinstance(line, Row | Setup) else ()
        for number in numbers_in(steps):
            value = next((one for one in number.values if one is not None), None)
            place = (number.span.line, number.span.column)
            raw = lines[place[0] - 1] if 0 < place[0] <= len(lines) else ""
            if value is not None and not number.source and raw[place[1] - 1 :].startswith(str(value)):
                found[place] = PlainNumber(place[0], place[1], value, section.title, raw)
    return [found[place] for place in sorted(found)][:MOST_PLAIN]


def sections_of_names(text: str) -> dict[str, str]:
    """In which section each name of a text stands first."""
    found: dict[str, str] = {}
    lines = text.split("\n")
    for section, line in read(text).pattern.lines():
        for braces in BRACES.finditer(lines[line.span.line - 1]):
            for name in names_in(braces[1]):
                found.setdefault(name, section.title)
    return found


def lines_of_names(text: str) -> dict[str, list[int]]:
    """On which lines of a text each name stands, but for its definition."""
    found: dict[str, list[int]] = {}
    for number, raw in enumerate(text.split("\n"), start=1):
        names = () if DEFINED.match(raw) else {name for braces in BRACES.finditer(raw) for name in names_in(braces[1])}
        for name in names:
            found.setdefault(name, []).append(number)
    return found
