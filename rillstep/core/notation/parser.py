"""A pattern text into its tree. One line is read at a time, so one bad line never hides the next."""

import difflib
from collections.abc import Sequence
from dataclasses import dataclass, field

from rillstep.core.findings import Finding, Span, sort_findings
from rillstep.core.notation import header, rows
from rillstep.core.notation.header import Header
from rillstep.core.notation.stream import Context
from rillstep.core.notation.tree import ROLES, WORKED, Check, Line, Pattern, Prose, Row, Section

MAX_CHARACTERS = 400_000
MAX_LINES = 4_000
MAX_LINE = 4_000


@dataclass(frozen=True)
class Parsed:
    """A tree, and what could not be read."""

    pattern: Pattern
    findings: tuple[Finding, ...]


@dataclass
class _Reading:
    """What has been read so far; it lives for one call of `parse`."""

    header: Header
    sections: list[Section] = field(default_factory=list)
    open: Section | None = None
    lines: list[Line] = field(default_factory=list)
    active: tuple[int, ...] = (0,)
    findings: list[Finding] = field(default_factory=list)

    def context(self) -> Context:
        return Context(len(self.header.sizes), self.active, self.header.terms, tuple(self.header.numbers.items()))

    def close_section(self) -> None:
        if self.open is not None:
            was = self.open
            self.sections.append(Section(was.title, was.worked, was.role, tuple(self.lines), was.continues, was.span))
        self.open, self.lines = None, []

    def add(self, line: Line, findings: Sequence[Finding]) -> None:
        if self.open is None:
            kind = getattr(line, "kind", "Rnd")
            worked = "rows" if kind == "Row" else "joined rounds"
            self.open = Section("Pattern", worked, "wall", (), None, line.span)
        self.lines.append(line)
        self.findings.extend(findings)


def parse(text: str) -> Parsed:
    """Read a pattern text. Never raises; whatever is wrong is a finding."""
    reading = _Reading(Header())
    if len(text) > MAX_CHARACTERS or text.count("\n") > MAX_LINES:
        span = Span(1, 1, 2)
        message = f"This text is too long: at most {MAX_LINES} lines and {MAX_CHARACTERS:,} characters are read."
        return Parsed(Pattern("", ("One size",), ()), (Finding("text-too-long", "error", span, message),))
    for number, raw in enumerate(text.split("\n"), start=1):
        _read_line(reading, raw.rstrip("\r"), number)
    reading.close_section()
    head = reading.header
    pattern = Pattern(
        head.name,
        head.sizes,
        tuple(reading.sections),
        head.units,
        tuple(head.gauges),
        head.finished,
        tuple(head.extra),
        head.terms,
    )
    if not any(isinstance(line, Row) for _, line in pattern.lines()):
        message = "There are no rows or rounds here: start them with “Rnd 1:” or “Row 1:”."
        reading.findings.append(Finding("nothing-to-work", "error", Span(1, 1, 2), message))
    return Parsed(pattern, sort_findings(reading.findings))


def _read_line(reading: _Reading, raw: str, number: int) -> None:
    if len(raw) > MAX_LINE:
        message = f"This line is too long to be read ({len(raw):,} characters; at most {MAX_LINE:,})."
        reading.findings.append(Finding("line-too-long", "error", Span(number, 1, MAX_LINE), message))
        return
    text = raw.split("#", 1)[0].rstrip()
    if not text.strip():
        return
    key, colon, value = text.partition(":")
    word = key.strip().lower()
    column = len(key) + 1
    if colon and word == "section":
        _open_section(reading, value, Span(number, 1, len(text) + 1))
    elif reading.open is None and not reading.sections and colon and word in header.KEYS:
        header.read(reading.header, word, value, number, column, reading.findings)
        reading.active = tuple(range(len(reading.header.sizes)))
    elif colon and not value.strip() and word.split(" ")[0] in ("size", "sizes", "all"):
        _read_size_line(reading, key, number)
    else:
        _read_body_line(reading, text, number)


def _read_body_line(reading: _Reading, text: str, number: int) -> None:
    context = reading.context()
    span = Span(number, 1, len(text) + 1)
    lowered = text.lstrip().lower()
    if lowered.startswith("note:"):
        reading.add(Prose(text.split(":", 1)[1].strip(), reading.active, True, span), [])
        return
    if lowered.startswith("check:"):
        check, findings = rows.read_check(text, number, context)
        reading.add(check, findings)
        return
    found = rows.read_row(text, number, context) or rows.read_setup(text, number, context)
    if found is not None:
        reading.add(*found)
        return
    reading.add(Prose(text.strip(), reading.active, False, span), [])


def _read_size_line(reading: _Reading, key: str, number: int) -> None:
    sizes = reading.header.sizes
    text = key.strip()
    if text.lower() == "all sizes":
        reading.active = tuple(range(len(sizes)))
        return
    inner = text.split(" ", 1)[1] if " " in text else ""
    inner = inner.removesuffix(" only").removesuffix(" Only")
    by_name = {name.lower(): i for i, name in enumerate(sizes)}
    names = _split_names(inner, by_name)
    chosen = [by_name[name.lower()] for name in names if name.lower() in by_name]
    for name in names:
        if name.lower() not in by_name:
            at = key.find(name) + 1
            near = difflib.get_close_matches(name, sizes, 1)
            hint = f" Did you mean “{near[0]}”?" if near else f" The sizes are {', '.join(sizes)}."
            message = f"There is no size “{name}”.{hint}"
            reading.findings.append(Finding("size-not-defined", "error", Span(number, at, at + len(name)), message))
    if chosen:
        reading.active = tuple(sorted(set(chosen)))


def _split_names(inner: str, known: dict[str, int]) -> list[str]:
    """ "M, L and XL" into names; a size whose own name holds "and" or a comma is kept whole."""
    if inner.strip().lower() in known:
        return [inner.strip()]
    names: list[str] = []
    for part in inner.split(", "):
        pieces = part.split(" and ")
        while pieces:
            for take in range(len(pieces), 0, -1):
                name = " and ".join(pieces[:take]).strip().removeprefix("and ")
                if name.lower() in known or take == 1:
                    names.append(name)
                    pieces = pieces[take:]
                    break
    return names


def _open_section(reading: _Reading, value: str, span: Span) -> None:
    reading.close_section()
    reading.active = tuple(range(len(reading.header.sizes)))
    title, _, rest = value.strip().partition("(")
    inside, _, after = rest.partition(")")
    words = [word.strip().lower() for word in inside.split(",")] if rest else []
    worked = next((word for word in words if word in WORKED), None)
    role = next((word for word in words if word in ROLES), None)
    for word in words:
        if word and word not in WORKED and word not in ROLES:
            near = difflib.get_close_matches(word, [*WORKED, *ROLES], 1)
            hint = f" Did you mean “{near[0]}”?" if near else f" Known are: {', '.join([*WORKED, *ROLES])}."
            message = f"“{word}” does not say how a section is worked, nor what it is.{hint}"
            reading.findings.append(Finding("section-kind", "error", span, message))
    continues = None
    tail = after.strip(" ,.")
    if tail.lower().startswith("continue from "):
        continues = tail[len("continue from ") :].strip()
        if continues.lower() not in [section.title.lower() for section in reading.sections]:
            message = f"There is no section “{continues}” before this one to continue from."
            reading.findings.append(Finding("section-not-found", "error", span, message))
    elif role in ("wall", "trim") and reading.sections and reading.sections[-1].role in ("disc", "oval", "wall"):
        continues = reading.sections[-1].title
    reading.open = Section(title.strip(), worked or "joined rounds", role or "wall", (), continues, span)


__all__ = ["Check", "Parsed", "parse"]
