"""A pattern text into its tree. One line is read at a time, so one bad line never hides the next."""

import difflib
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from rillstep.core.findings import Finding, Span, sort_findings
from rillstep.core.gauge import rounded
from rillstep.core.notation import header, rows
from rillstep.core.notation.header import Header, context_of
from rillstep.core.notation.joining import Logical, logical_lines, put_back
from rillstep.core.notation.labels import starts as starts_label
from rillstep.core.notation.sections import is_heading, read_heading, read_section
from rillstep.core.notation.stream import Context
from rillstep.core.notation.tree import Again, Chain, Gesture, Line, Pattern, Prose, Row, Section, Setup
from rillstep.core.stitches import Terms

MAX_CHARACTERS = 200_000
MAX_LINES = 1_500
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
    expected: list[int] = field(default_factory=lambda: [1])  # the number of the next row, for each size
    defining: bool = False
    guessed: bool = True  # how the open section is worked was not said
    findings: list[Finding] = field(default_factory=list)

    def context(self) -> Context:
        kind = "Row" if self.open is not None and self.open.worked.startswith("rows") else "Rnd"
        return context_of(self.header, self.active, kind)

    def close_section(self) -> None:
        if self.open is not None:
            worked = _spiral(self.lines) if self.guessed and self.open.worked == "joined rounds" else self.open.worked
            self.sections.append(replace(self.open, lines=tuple(self.lines), worked=worked))
        self.open, self.lines = None, []
        self.restart()

    def restart(self) -> None:
        self.expected = [1] * len(self.header.sizes)

    def start(self, section: Section, guessed: bool = False) -> None:
        self.close_section()
        self.open, self.guessed = section, guessed
        self.active = tuple(range(len(self.header.sizes)))

    def add(self, line: Line, findings: Sequence[Finding]) -> None:
        if self.open is None:
            kind = getattr(line, "kind", "Rnd")
            worked = "rows" if kind == "Row" else "joined rounds"
            self.open = Section("Pattern", worked, "wall", (), span=line.span)
        elif (
            isinstance(line, Row)
            and line.kind == "Row"
            and self.open.title == "Pattern"
            and not any(isinstance(one, Row) for one in self.lines)
        ):
            self.open = replace(self.open, worked="rows")
        self.lines.append(line)
        self.findings.extend(findings)
        if isinstance(line, Row | Again):
            last = line.last or line.first
            for size in line.sizes:
                self.expected[size] = (last.values[size] or 0) + 1
        elif isinstance(line, Setup) and _begins_anew(line):
            self.restart()


def _spiral(lines: list[Line]) -> str:
    """Rounds of which none is joined are worked in a spiral, where the text does not say how."""
    rounds = [line for line in lines if isinstance(line, Row) and line.kind == "Rnd"]
    joined = any(isinstance(step, Gesture) and step.kind == "join" for row in rounds for step in row.steps)
    return "joined rounds" if joined or not rounds else "spiral rounds"


def _begins_anew(line: Setup) -> bool:
    """Does a set-up line begin a new piece?"""
    return any(isinstance(s, Chain) or (isinstance(s, Gesture) and s.kind == "adjustable ring") for s in line.steps)


def parse(text: str, terms: Terms | None = None) -> Parsed:
    """Read a pattern text. Never raises; whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says.
    """
    reading = _Reading(Header(terms=terms or "US", terms_known=terms is not None))
    if len(text) > MAX_CHARACTERS or text.count("\n") > MAX_LINES:
        span = Span(1, 1, 2)
        message = f"This text is too long: at most {MAX_LINES} lines and {MAX_CHARACTERS:,} characters are read."
        return Parsed(Pattern("", ("One size",), ()), (Finding("text-too-long", "error", span, message),))
    raws = [raw.rstrip("\r") for raw in text.split("\n")]
    for logical in logical_lines(raws):
        rows_before, findings_before = len(reading.lines), len(reading.findings)
        _read_line(reading, logical.text, logical.number, raws)
        if logical.pieces:
            reading.lines[rows_before:] = [
                _put_back(line, _broken(line), logical) for line in reading.lines[rows_before:]
            ]
            reading.findings[findings_before:] = [put_back(f, logical) for f in reading.findings[findings_before:]]
    reading.close_section()
    head = reading.header
    pattern = Pattern(
        head.name,
        head.sizes,
        tuple(reading.sections),
        head.units,
        tuple(rounded(gauge, head.units) for gauge in head.gauges),
        head.finished,
        tuple(head.extra),
        tuple(head.specials),
        head.terms,
    )
    if not any(isinstance(line, Row) for _, line in pattern.lines()):
        message = "There are no rows or rounds here: start them with “Rnd 1:” or “Row 1:”."
        reading.findings.append(Finding("nothing-to-work", "error", Span(1, 1, 2), message))
    return Parsed(pattern, sort_findings(reading.findings))


@lru_cache(maxsize=4096)
def _put_back(line: Line, broken: bool, logical: Logical) -> Line:
    """Remembered by what was read, which is remembered too: typing in one line moves nothing in the others."""
    moved: Line = put_back(line, logical)
    return replace(moved, last_line=logical.pieces[-1].line) if isinstance(moved, Row | Again) else moved


def _broken(line: Line) -> bool:
    return isinstance(line, Row | Again | Setup) and line.broken


def _read_line(reading: _Reading, raw: str, number: int, raws: list[str]) -> None:
    if len(raw) > MAX_LINE:
        message = f"This line is too long to be read ({len(raw):,} characters; at most {MAX_LINE:,})."
        reading.findings.append(Finding("line-too-long", "error", Span(number, 1, MAX_LINE), message))
        return
    text = raw.split("#", 1)[0].rstrip()
    if not text.strip():
        reading.defining = False
        return
    key, colon, value = text.partition(":")
    word = " ".join(key.strip().lower().split())
    column = len(key) + 1
    in_head = reading.open is None and not reading.sections
    if colon and word == "section":
        heading = read_section(
            value, Span(number, 1, len(text) + 1), reading.sections + _just(reading), len(reading.header.sizes)
        )
        reading.findings.extend(heading.findings)
        reading.start(heading.section)
    elif in_head and (colon or not value) and word.strip("*_ ") in header.DEFINING:
        reading.defining = True
        if value.strip():
            header.define(reading.header, value, number, column, reading.findings)
    elif colon and (word in header.KEYS or word in header.ALIASES) and (in_head or word == "define"):
        header.read(reading.header, header.ALIASES.get(word, word), value, number, column, reading.findings)
        if in_head:
            reading.active = tuple(range(len(reading.header.sizes)))
            reading.restart()
    elif in_head and reading.defining and ("=" in text or colon) and not starts_label(text):
        header.define(reading.header, text, number, 0, reading.findings)
    elif colon and not value.strip() and word.split(" ")[0] in ("size", "sizes", "all"):
        _read_size_line(reading, key, number)
    else:
        _read_body_line(reading, text, number, raws)


def _just(reading: _Reading) -> list[Section]:
    """The section still open counts as one before the next."""
    return [reading.open] if reading.open is not None else []


def _read_body_line(reading: _Reading, text: str, number: int, raws: list[str]) -> None:
    context = reading.context()
    span = Span(number, 1, len(text) + 1)
    lowered = text.lstrip().lower()
    if lowered.startswith(("note:", "notes:")):
        reading.add(Prose(text.split(":", 1)[1].strip(), reading.active, True, span), [])
        return
    if lowered.startswith("check:"):
        check, findings = rows.read_check(text, number, context)
        reading.add(check, findings)
        return
    found = rows.read_row(text, number, context, tuple(reading.expected))
    if found is not None:
        lines, problems = found
        reading.findings.extend(problems)
        for line in lines:
            reading.add(line, [])
        return
    setup = rows.read_setup(text, number, context)
    if setup is not None:
        reading.add(*setup)
        return
    following = _following(raws, number)
    if following is not None and is_heading(text, following):
        reading.start(read_heading(text, span, reading.sections + _just(reading), following), guessed=True)
        return
    if (at := lowered.find("section:")) > 0:
        message = "A section begins with the word “Section:” at the start of its line; this one is read as words only."
        at += len(text) - len(lowered)
        reading.findings.append(Finding("section-misplaced", "error", Span(number, at + 1, at + 9), message))
    if reading.open is None and not reading.sections:
        header.told(reading.header, text.strip())
        return
    reading.add(Prose(text.strip(), reading.active, False, span), [])


def _following(raws: list[str], number: int) -> str | None:
    """The next line that holds anything, if it is a row or a set-up line."""
    for raw in raws[number : number + 4]:
        if raw.strip():
            is_row = starts_label(raw) is not None
            return raw if is_row or rows.SETUP.match(raw) else None
    return None


def _read_size_line(reading: _Reading, key: str, number: int) -> None:
    sizes = reading.header.sizes
    text = key.strip()
    if text.lower() == "all sizes":
        reading.active = tuple(range(len(sizes)))
        return
    inner = text.split(" ", 1)[1] if " " in text else ""
    if inner.lower().endswith(" only"):
        inner = inner[: -len(" only")]
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
    for part in inner.replace(" & ", " and ").split(", "):
        pieces = part.split(" and ")
        while pieces:
            for take in range(len(pieces), 0, -1):
                name = " and ".join(pieces[:take]).strip().removeprefix("and ")
                if name.lower() in known or take == 1:
                    names.append(name)
                    pieces = pieces[take:]
                    break
    return [name for name in names if name]


__all__ = ["Parsed", "parse"]
