"""A pattern text into its tree. One line is read at a time, so one bad line never hides the next."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from rillstep.core.findings import Finding, Span, sort_findings
from rillstep.core.gauge import rounded
from rillstep.core.notation import checks, header, rows
from rillstep.core.notation.copies import made_so_often, worked_like
from rillstep.core.notation.counted import ChainSaid, only_tells, said_of_chains, with_said
from rillstep.core.notation.features import main_stitch
from rillstep.core.notation.header import Header, context_of
from rillstep.core.notation.joining import Logical, logical_lines, put_back
from rillstep.core.notation.labels import in_rows, title_of
from rillstep.core.notation.labels import starts as starts_label
from rillstep.core.notation.sections import is_heading, part_title, piece_named, read_heading, read_section
from rillstep.core.notation.sizes import is_size_line, limited, read_size_line, sizes_named
from rillstep.core.notation.specials import defines
from rillstep.core.notation.stream import Context
from rillstep.core.notation.told_sizes import told_sizes
from rillstep.core.notation.tree import (
    Again,
    Along,
    Chain,
    Closing,
    Gesture,
    Line,
    Pattern,
    Prose,
    Row,
    Section,
    Setup,
    Total,
)
from rillstep.core.notation.unlabelled import instructs, not_worked, starts_piece, title_ends
from rillstep.core.stitches import Terms

MAX_CHARACTERS = 150_000
MAX_LINES = 1_000
MAX_LINE = 4_000
# What has so many errors is no pattern, or one in another language: the rest of it is not read.
MOST_ERRORS = 300


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
    ends: dict[int, tuple[int | None, ...]] = field(default_factory=dict)  # of rows "until 4 sts remain", by their line
    said: list[ChainSaid] = field(default_factory=list)  # of chains that begin a row, in words
    findings: list[Finding] = field(default_factory=list)

    def context(self) -> Context:
        kind = "Row" if self.open is not None and self.open.worked.startswith("rows") else "Rnd"
        return context_of(self.header, self.active, kind)

    def close_section(self) -> None:
        if self.open is not None:
            self.lines = with_said(_set_up_first(self.lines), self.said)
            worked = _spiral(self.lines) if self.guessed and self.open.worked == "joined rounds" else self.open.worked
            self.sections.append(replace(self.open, lines=tuple(self.lines), worked=worked))
        self.open, self.lines = None, []
        self.restart()

    def restart(self) -> None:
        self.expected = [1] * len(self.header.sizes)

    def take_sizes(self, names: tuple[str, ...]) -> None:
        self.header.told_sizes = names
        self.header.sizes = names[: header.MAX_SIZES] or self.header.sizes
        self.active = tuple(range(len(self.header.sizes)))
        self.restart()

    def start(self, section: Section, guessed: bool = False) -> None:
        self.close_section()
        self.open, self.guessed = section, guessed
        self.active = tuple(range(len(self.header.sizes)))

    def part(self, line: Row) -> None:
        """A row that is counted from 1 again after a line of words: they name another part, worked on the same piece."""
        at = max((i for i, one in enumerate(self.lines) if not isinstance(one, Prose)), default=-1) + 1
        before_it = next((one for one in reversed(self.lines) if isinstance(one, Row | Again)), None)
        words = next((one for one in self.lines[at:] if isinstance(one, Prose) and not one.note), None)
        title = part_title(words.text) if words is not None else ""
        anew = all(line.first.values[size] == 1 and self.expected[size] > 1 for size in line.sizes)
        if self.open is None or before_it is None or not anew or not line.first.parts or not title:
            return
        if before_it.kind != line.kind:
            return  # rows that become rounds are counted from 1 again
        told, self.lines = self.lines[at:], self.lines[:at]
        before = [*self.sections, *_just(self)]
        self.head(title, line.span, "Row 1:" if line.kind == "Row" else "Rnd 1:")
        assert self.open is not None
        named = piece_named([one.text for one in told if isinstance(one, Prose)], before)
        self.open = replace(self.open, continues=named or self.open.continues or before[-1].title)
        self.lines = told

    def head(self, title: str, span: Span, following: str) -> None:
        """A section begun by a heading; `following` is what stands after it."""
        before = [*self.sections, *_just(self)]
        self.start(read_heading(title, span, before, following, len(self.header.sizes)), guessed=True)

    def add(self, line: Line, findings: Sequence[Finding]) -> None:
        if isinstance(line, Row):
            self.part(line)
        if isinstance(line, Again) and line.until_sts is not None and line.span.line in self.ends:
            last = replace(line.first, values=self.ends[line.span.line], parts=())
            line = replace(line, last=last, until_sts=None, totals=(*line.totals, Total(line.until_sts, "sts")))
        if self.open is None:
            kind = getattr(line, "kind", "Rnd")
            worked = "rows" if kind == "Row" else "joined rounds"
            self.open = Section("Pattern", worked, "wall", (), span=line.span)
        elif (
            isinstance(line, Row)
            and line.kind == "Row"
            and self.guessed
            and not any(isinstance(one, Row) for one in self.lines)
        ):
            self.open = replace(self.open, worked="rows")
        elif isinstance(line, Prose) and _names_foundation(line, self.open) and not self.lines:
            self.open = replace(self.open, on=Along("foundation"))
        self.lines.append(line)
        self.findings.extend(findings)
        if isinstance(line, Row | Again):
            last = line.last or line.first
            for size in line.sizes:
                self.expected[size] = (last.values[size] or 0) + 1
        elif isinstance(line, Setup) and _begins_anew(line):
            self.restart()


def _names_foundation(line: Prose, section: Section) -> bool:
    """ "Join yarn at one corner of the foundation chain": the edge that a section goes on from."""
    told = re.search(
        r"\b(?:join|attach|rejoin)\b.*\b(?:foundation|starting|beginning)\s+(?:chain|ch|edge)\b",
        line.text,
        re.IGNORECASE,
    )
    return section.continues is not None and section.on is None and told is not None


def _set_up_first(lines: list[Line]) -> list[Line]:
    """A set-up round that is followed by round 2 is the first one."""
    at = [i for i, line in enumerate(lines) if isinstance(line, Row | Again)][:2]
    if len(at) < 2:
        return lines
    first, second = lines[at[0]], lines[at[1]]
    assert isinstance(first, Row | Again) and isinstance(second, Row | Again)
    if first.first.parts or not first.first.is_always(0) or not second.first.is_always(2) or first.last is not None:
        return lines
    one = replace(first, first=replace(first.first, values=tuple(None if v is None else 1 for v in first.first.values)))
    return [one if i == at[0] else line for i, line in enumerate(lines)]


def _spiral(lines: list[Line]) -> str:
    """Rounds of which none is joined, or only the last few, are worked in a spiral, where the text does not say how."""
    rounds = [line for line in lines if isinstance(line, Row) and line.kind == "Rnd"]
    joined = [
        any(isinstance(s, Closing) or (isinstance(s, Gesture) and s.kind == "join") for s in row.steps)
        for row in rounds
    ]
    first = joined.index(True) if any(joined) else len(joined)
    ends_joined = all(joined[first:]) and 2 * first > len(joined)
    return "spiral rounds" if rounds and (first == len(joined) or ends_joined) else "joined rounds"


def _begins_anew(line: Setup) -> bool:
    """Does a set-up line begin a new piece?"""
    return any(isinstance(s, Chain) or (isinstance(s, Gesture) and s.kind == "adjustable ring") for s in line.steps)


def parse(text: str, terms: Terms | None = None, ends: Mapping[int, tuple[int | None, ...]] | None = None) -> Parsed:
    """Read a pattern text. Never raises; whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says. ends: the last rows, for each size, of
    repetitions "until 4 sts remain", by their line, where they have been worked out (`fabric.readings.read`).
    """
    reading = _Reading(Header(terms=terms or "US", terms_known=terms is not None), ends=dict(ends or {}))
    if len(text) > MAX_CHARACTERS or text.count("\n") > MAX_LINES:
        span = Span(1, 1, 2)
        message = f"This text is too long: at most {MAX_LINES} lines and {MAX_CHARACTERS:,} characters are read."
        return Parsed(Pattern("", ("One size",), ()), (Finding("text-too-long", "error", span, message),))
    raws = [raw.rstrip("\r") for raw in text.split("\n")]
    told = told_sizes(raws)
    if told is not None:
        reading.take_sizes(told.names)
        reading.findings.extend(told.findings)
    for logical in logical_lines(raws):
        if told is not None and logical.number in told.lines:
            continue
        rows_before, findings_before = len(reading.lines), len(reading.findings)
        if findings_before > MOST_ERRORS and sum(f.severity == "error" for f in reading.findings) > MOST_ERRORS:
            message = f"More than {MOST_ERRORS} places of this text could not be read, so it is not read from here on."
            span = Span(logical.number, 1, max(2, len(logical.text) + 1))
            reading.findings.append(Finding("too-many-errors", "error", span, message))
            break
        _read_line(reading, logical.text, logical.number, raws)
        if logical.pieces:
            reading.lines[rows_before:] = [
                _put_back(line, _broken(line), logical) for line in reading.lines[rows_before:]
            ]
            reading.findings[findings_before:] = [put_back(f, logical) for f in reading.findings[findings_before:]]
    reading.close_section()
    head = reading.header
    if head.unnamed_gauge and (stitch := _main_stitch(reading.sections)) is not None:
        head.gauges[0] = replace(head.gauges[0], stitch=stitch)
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
    return Parsed(pattern, sort_findings(list(dict.fromkeys(reading.findings))))  # what is read twice is said once


def _main_stitch(sections: Sequence[Section]) -> str | None:
    """The stitch that most rows are worked in."""
    stitches = [main_stitch(line.steps) for section in sections for line in section.lines if isinstance(line, Row)]
    counted = Counter(stitch for stitch in stitches if stitch is not None)
    return counted.most_common(1)[0][0] if counted else None


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
    if reading.open is not None and _is_plain_row(text, reading.header.sizes):
        found = rows.read_row(text, number, reading.context(), tuple(reading.expected))
        if found is not None:
            reading.findings.extend(found[1])
            for line in found[0]:
                reading.add(line, [])
            return
    if starts_label(text) is None:
        reading.said += said_of_chains(text, reading.header.terms)
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
    elif in_head and not starts_label(text) and (at := defines(text, reading.header.terms)) is not None:
        header.define(reading.header, text[at:], number, at, reading.findings)
    elif is_size_line(text) or (not in_head and _names_sizes(text, reading.header.sizes)):
        chosen, problems = read_size_line(text.rstrip().rstrip(":"), number, reading.header.sizes)
        reading.findings.extend(problems)
        reading.active = chosen or reading.active
    else:
        _read_body_line(reading, text, number, raws)


@lru_cache(maxsize=8192)
def _is_plain_row(text: str, sizes: tuple[str, ...]) -> bool:
    """Is a line of an open section a row and nothing else, whatever stands around it? Most are, and they are typed beside all the time."""
    label = starts_label(text)
    if label is None or label["word"].lower() in ("", "r"):
        return False
    return limited(text, sizes) is None and not title_of(text) and not _names_sizes(text, sizes)


def _names_sizes(text: str, sizes: tuple[str, ...]) -> bool:
    """ "Medium and Large only:", "(Large only)", "All sizes:": a line of its own that names sizes and nothing else."""
    bare = text.strip().strip("()[]*_").strip()
    marked = bare.endswith(":") or bare.lower().rstrip(".").endswith((" only", "all sizes", "both sizes"))
    return len(sizes) > 1 and marked and sizes_named(bare.rstrip("."), sizes) is not None


def _just(reading: _Reading) -> list[Section]:
    """The section still open counts as one before the next."""
    return [replace(reading.open, lines=tuple(reading.lines))] if reading.open is not None else []


def _read_body_line(reading: _Reading, text: str, number: int, raws: list[str]) -> None:
    context = reading.context()
    if in_rows(text) and (
        reading.open is None or (reading.guessed and not any(isinstance(line, Row) for line in reading.lines))
    ):
        context = replace(context, kind="Row")
    span = Span(number, 1, len(text) + 1)
    lowered = text.lstrip().lower()
    if lowered.startswith(("note:", "notes:")):
        reading.add(Prose(text.split(":", 1)[1].strip(), reading.active, True, span), [])
        return
    if lowered.startswith("check:"):
        check, findings = checks.read_check(text, number, context)
        reading.add(check, findings)
        return
    counted = checks.read_rows_in_all(text, number, context)
    if counted is not None:
        reading.add(counted, [])
        return
    limit = limited(text, reading.header.sizes)
    if limit is not None:
        text, context = limit.text, context_of(reading.header, limit.sizes, context.kind)
    text = _without_title(text, reading)
    title = title_of(text)
    if title and (reading.open is None or reading.open.title.lower() != title.lower()):
        reading.head(title, span, text)
        context = context_of(reading.header, context.active, reading.context().kind)
    found = rows.read_row(text, number, context, tuple(reading.expected))
    if found is not None:
        lines, problems = found
        reading.findings.extend(problems)
        for line in lines:
            reading.add(line, [])
        return
    setup = rows.read_setup(text, number, context) if not only_tells(text) else None
    if setup is not None:
        line, problems = setup
        worked = any(not isinstance(s, Chain | Gesture) and getattr(s, "stitch", "") != "sl st" for s in line.steps)
        reading.add(line, [*problems, not_worked(span)] if worked and not line.broken else problems)
        return
    if _read_titled_setup(reading, text, number, span) or _read_copy(reading, text, number, span):
        return
    following = _following(raws, number, reading)
    named = _names_pattern(reading, text, number, raws)
    if following is not None and not named and is_heading(text, following):
        reading.head(text, span, following)
        return
    if (at := lowered.find("section:")) > 0:
        message = "A section begins with the word “Section:” at the start of its line; this one is read as words only."
        at += len(text) - len(lowered)
        reading.findings.append(Finding("section-misplaced", "error", Span(number, at + 1, at + 9), message))
    if _read_unlabelled(reading, text, number, context, raws) or _read_even(reading, text, number, context):
        return
    if reading.open is None and not reading.sections:
        header.told(reading.header, text.strip())
        reading.findings += [not_worked(span)] if instructs(text) and "=" not in text and not only_tells(text) else []
        return
    unworked = instructs(text) and not rows.makes_a_loop(text, number, context)
    reading.add(Prose(text.strip(), reading.active, False, span), [not_worked(span)] if unworked else [])


def _without_title(text: str, reading: _Reading) -> str:
    """ "Rep Mesh rnd 3 until there are 14 mesh rnds": the name of the rows that are counted by themselves, blanked."""
    name = reading.open.title if reading.open is not None else ""
    if not name or not re.match(r"\s*(?:rep|repeat|work)\b", text, re.IGNORECASE):
        return text
    own = re.compile(rf"\b{re.escape(name)}(?=\s+(?:rnds?|rounds?|rows?)\b)", re.IGNORECASE)
    return own.sub(lambda match: " " * len(match[0]), text)


def _names_pattern(reading: _Reading, text: str, number: int, raws: list[str]) -> bool:
    """Is a line at the very top the name of the pattern, and no heading of its first piece: something else is told before the rows?"""
    if (
        reading.header.name
        or reading.header.extra
        or reading.open is not None
        or reading.sections
        or text.rstrip().endswith(":")
    ):
        return False
    after = next((raw for raw in raws[number:] if raw.strip()), "")
    return not (starts_label(after) or rows.SETUP.match(after))


def _read_titled_setup(reading: _Reading, text: str, number: int, span: Span) -> bool:
    """ "Strap: Ch 6.": a foundation with a title of its own begins a section."""
    start = title_ends(text)
    setup = rows.read_setup(" " * start + text[start:], number, reading.context()) if start else None
    if (
        setup is None
        or not _begins_anew(setup[0])
        or not all(isinstance(step, Chain | Gesture) for step in setup[0].steps)
    ):
        return False
    title = text[:start].strip().rstrip(":")
    reading.head(title, span, text[start:])
    reading.add(*setup)
    return True


def _read_copy(reading: _Reading, text: str, number: int, span: Span) -> bool:
    """ "Back: work as for Front.": the lines of that piece once more; "Make 2.": how many of the open one."""
    before = [s for s in reading.sections + _just(reading) if s.title]
    like = worked_like(text, number, before, reading.context())
    if like is not None and (like.title or (reading.open is not None and not reading.lines)):
        title = like.title or (reading.open.title if reading.open is not None else "")
        if not like.title:
            reading.open = None
        source = like.source
        reading.start(replace(source, title=title, lines=(), make=(1,), span=span), guessed=False)
        for line in like.lines:
            reading.add(line, [])
        return True
    made = made_so_often(text, reading.open.make[0]) if reading.open is not None else None
    if made is None or reading.open is None:
        return False
    reading.open = replace(reading.open, make=(made,))
    return True


def _read_unlabelled(reading: _Reading, text: str, number: int, context: Context, raws: list[str]) -> bool:
    """A row without a label; one with a title of its own ("Cord: ch 121, ...") begins a section."""
    following = _following(raws, number, reading)
    label = starts_label(following) if following is not None else None
    second = label is not None and following is not None and re.match(r"\s*2\b", following[label.end() :]) is not None
    found = rows.read_unlabelled(text, number, context, tuple(reading.expected), 1 if second else 0)
    if found is None:
        return False
    row, problems, start = found
    title = text[:start].strip().rstrip(":")
    if title and starts_piece(row.steps):
        reading.head(title, row.span, text[start:])
    elif starts_piece(row.steps):
        reading.restart()
    chain, *rest = row.steps
    if isinstance(chain, Chain) and starts_piece(row.steps):
        reading.add(Setup((chain,), row.sizes, chain.span), [])
        row = replace(row, steps=tuple(rest))
    reading.add(row, problems)
    return True


def _read_even(reading: _Reading, text: str, number: int, context: Context) -> bool:
    """ "Work even for 20 more rows.": so many in the stitch of the row before, and as that one is turned or joined."""
    before = next((one for one in reversed(reading.lines) if isinstance(one, Row | Again)), None)
    found = rows.read_even(text, number, context, tuple(reading.expected), before) if isinstance(before, Row) else None
    if found is not None:
        reading.add(found[0], found[1])
    return found is not None


def _following(raws: list[str], number: int, reading: _Reading) -> str | None:
    """The next line that holds instructions: a row, a set-up line or a piece like another, with at most some notes before it."""
    notes = 0
    known = reading.sections + _just(reading)
    for raw in raws[number : number + MOST_NOTES]:
        if not raw.strip():
            continue
        is_row = starts_label(raw) is not None
        if is_row or rows.SETUP.match(raw) or worked_like(raw, number, known, reading.context()) is not None:
            return raw
        if is_size_line(raw) or raw.strip().lower().rstrip(":.").endswith(" only"):
            continue
        notes += 1
        if notes > MOST_NOTES // 2 or not (_NOTE.match(raw) or raw.rstrip().endswith((".", "!"))):
            return None
    return None


MOST_NOTES = 10
_NOTE = re.compile(r"^\s*(?:notes?\b|with\b|using\b|working\b|work\b|now\b|\(|\*)", re.IGNORECASE)

__all__ = ["Parsed", "parse"]
