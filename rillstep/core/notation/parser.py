"""A pattern text into its tree. One line is read at a time, so one bad line never hides the next."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.clauses.labels import numbers_in_label, title_of
from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.clauses.totals import read_unknown
from rillstep.core.findings import Finding, Span, sort_findings
from rillstep.core.gauge import rounded
from rillstep.core.memory import remember
from rillstep.core.notation import header, rows
from rillstep.core.notation.body import read_body_line
from rillstep.core.notation.counted import explains_abbreviation, said_of_chains
from rillstep.core.notation.definitions import defines
from rillstep.core.notation.header import Header
from rillstep.core.notation.lines import Logical, logical_lines, put_back
from rillstep.core.notation.phrases import is_taught, lines_of_phrases
from rillstep.core.notation.sections import read_section
from rillstep.core.notation.text_so_far import TextSoFar, just
from rillstep.core.notation.unlisted_sizes import by_slashes, told_sizes
from rillstep.core.stitches import Terms, basic
from rillstep.core.tree import Again, Line, Pattern, Prose, Row, Section, Setup
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.sizes import all_sizes_then, is_size_line, limited, names_sizes, read_size_line, stops_here
from rillstep.core.words.stream import stream_over
from rillstep.core.words.tokens import Taught

MAX_CHARACTERS = 150_000
MAX_LINES = 1_000
MAX_LINE = 4_000
# So much of it in rows and rounds, which take far longer to read than words: some 360 rows in eight sizes, 700 in one.
MAX_INSTRUCTIONS = 45_000
# And so many of them, one in eight sizes counted eight times: each is worked in each.
MOST_WORKED = 4_800
# Long lines cost more than their length: of lines of 1,000 characters 40 are read, of 4,000 characters two.
MOST_LENGTH = 40_000_000
# What has so many errors is no pattern, or one in another language: the rest of it is not read.
MOST_ERRORS = 300


# "12 dc in ring (ch 3 counts as the first dc)": said within a row, of this one and of those after it.
# "## Walls": a heading as plain-text formats mark it, and no comment.
_MARKED_HEADING = re.compile(r"^#{2,6}\s+(?=[A-Za-z][^.]{0,47}$)")
_SAYS_COUNT = re.compile(
    r"\(((?:the\s+|beg(?:inning)?\s+|first\s+)*ch[- ]?\d{1,2}\s+(?:counts?|does not count|doesn't count)\b[^()]*)\)",
    re.IGNORECASE,
)


_TABLE = re.compile(r"^\s*[A-Za-z][A-Za-z ]{0,30}(?:\s{2,}|\t+)\d+(?:\.\d+)?(?:(?:\s{2,}|\t+)\d+(?:\.\d+)?){1,9}\s*$")

# "dc in each ch around with ch 3 as first dc" says the same.
_MADE_WITH = re.compile(r"\b(?:with|w/)\s*(?:a\s+)?ch[- ]?(\d{1,2})\s+as\s+(?:the\s+)?first\s+(\w+)", re.IGNORECASE)


@dataclass(frozen=True)
class Parsed:
    """A tree, and what could not be read."""

    pattern: Pattern
    findings: tuple[Finding, ...]


def parse(text: str, terms: Terms | None = None, ends: Mapping[int, tuple[int | None, ...]] | None = None) -> Parsed:
    """Read a pattern text. Never raises; whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says. ends: the last rows, for each size, of
    repetitions "until 4 sts remain", by their line, where they have been worked out (`fabric.readings.read`).
    """
    reading = TextSoFar(Header(terms=terms or "US", terms_known=terms is not None), ends=dict(ends or {}))
    if len(text) > MAX_CHARACTERS or text.count("\n") > MAX_LINES:
        span = Span(1, 1, 2)
        message = f"This text is too long: at most {MAX_LINES} lines and {MAX_CHARACTERS:,} characters are read."
        return Parsed(Pattern("", ("One size",), ()), (Finding("text-too-long", "error", span, message),))
    raws = [raw.rstrip("\r") for raw in text.split("\n")]
    header.told_by_a_row(reading.header, raws)
    told = told_sizes([raw if len(raw) <= MAX_LINE else "" for raw in raws])  # longer ones are not read
    if told is not None:
        raws = by_slashes(raws, told.names)
        reading.take_sizes(told.names)
        reading.findings.extend(told.findings)
    instructions = length = worked = 0
    kept: list[Span] = []
    for logical in logical_lines(raws):
        if told is not None and logical.number in told.lines:
            header.keep_measures(reading.header, logical.text)
            continue
        rows_before, findings_before, told_before = len(reading.lines), len(reading.findings), len(reading.header.extra)
        if findings_before > MOST_ERRORS and sum(f.severity == "error" for f in reading.findings) > MOST_ERRORS:
            message = f"More than {MOST_ERRORS} places of this text could not be read, so it is not read from here on."
            span = Span(logical.number, 1, max(2, len(logical.text) + 1))
            reading.findings.append(Finding("too-many-errors", "error", span, message))
            break
        size = len(logical.text.strip())  # a row that stands with others in one line is padded
        length += size**2 if len(logical.text) <= MAX_LINE else 0
        if instructions > MAX_INSTRUCTIONS or length > MOST_LENGTH or worked > MOST_WORKED:
            many = (
                f"More than {MAX_INSTRUCTIONS:,} characters of rows and rounds"
                if instructions > MAX_INSTRUCTIONS
                else "So many very long lines"
                if length > MOST_LENGTH
                else "So many rows in so many sizes"
            )
            message = (
                f"{many} are not read at once: from here on this text is not read. "
                f"Parts of it can be checked by themselves."
            )
            span = Span(logical.number, 1, max(2, len(logical.text) + 1))
            reading.findings.append(Finding("text-too-long", "error", span, message))
            break
        _read_line(reading, logical.text, logical.number, raws)
        if len(reading.header.extra) > told_before:
            kept.append(Span(logical.number, 1, max(2, len(logical.text) + 1)))
        if len(reading.lines) > rows_before and not isinstance(reading.lines[-1], Prose):
            instructions += size
            worked += len(reading.active)
        unknown = [f for f in reading.findings[findings_before:] if f.code == "kind-not-known"]
        if unknown:
            reading.lines[rows_before:] = [
                _stating(reading, line, unknown, logical.text) for line in reading.lines[rows_before:]
            ]
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
        tuple(kept),
        _rests(raws, head.phrases),
    )
    if not any(isinstance(line, Row) for _, line in pattern.lines()):
        message = "There are no rows or rounds here: start them with “Rnd 1:” or “Row 1:”."
        reading.findings.append(Finding("nothing-to-work", "error", Span(1, 1, 2), message))
    return Parsed(pattern, sort_findings(list(dict.fromkeys(reading.findings))))  # what is read twice is said once


def _rests(raws: Sequence[str], phrases: Sequence[Taught]) -> tuple[tuple[int, str], ...]:
    """The lines that hold a phrase which the text teaches, with the phrase."""
    if not phrases:
        return ()
    rows = [(number, raw[:MAX_LINE]) for number, raw in enumerate(raws, start=1) if not is_taught(raw)]
    return tuple((number, one.written) for one, number in lines_of_phrases(rows, phrases))


def _main_stitch(sections: Sequence[Section]) -> str | None:
    """The stitch that most rows are worked in."""
    stitches = [main_stitch(line.steps) for section in sections for line in section.lines if isinstance(line, Row)]
    counted = Counter(stitch for stitch in stitches if stitch is not None)
    return basic(counted.most_common(1)[0][0]).us if counted else None  # a post stitch is measured as its plain one


def _stating(reading: TextSoFar, line: Line, unknown: Sequence[Finding], text: str) -> Line:
    """A line with the totals that it states of what the text does not define, as they are written."""
    if not isinstance(line, Row | Again | Setup):
        return line
    context = replace(reading.context(), active=line.sizes)
    stated = [
        read_unknown(stream_over(text, line.span.line, context, one.span.column - 1, one.span.end_column - 1))
        for one in unknown
        if one.span.line == line.span.line
    ]
    return replace(line, stated=tuple(total for total in stated if total is not None))


@remember(4096)
def _put_back(line: Line, broken: bool, logical: Logical) -> Line:
    """Remembered by what was read, which is remembered too: typing in one line moves nothing in the others."""
    moved: Line = put_back(line, logical)
    return replace(moved, last_line=logical.pieces[-1].line) if isinstance(moved, Row | Again) else moved


def _broken(line: Line) -> bool:
    return isinstance(line, Row | Again | Setup) and line.broken


def _read_line(reading: TextSoFar, raw: str, number: int, raws: list[str]) -> None:
    if len(raw) > MAX_LINE:
        message = f"This line is too long to be read ({len(raw):,} characters; at most {MAX_LINE:,})."
        reading.findings.append(Finding("line-too-long", "error", Span(number, 1, MAX_LINE), message))
        return
    text = (
        (_MARKED_HEADING.sub(lambda match: " " * len(match[0]), raw) if raw[:2] == "##" else raw)
        .split("#", 1)[0]
        .rstrip()
    )
    if not text.strip():
        reading.defining = False
        return
    for said in _SAYS_COUNT.finditer(text):
        reading.said += said_of_chains(said[1], reading.header.terms)
    for made in _MADE_WITH.finditer(text):
        reading.said += said_of_chains(f"ch {made[1]} counts as {made[2]}", reading.header.terms)
    sizes = len(reading.header.sizes)
    if len(reading.active) < sizes and numbers_in_label(text) == sizes:
        reading.active = tuple(range(sizes))  # "Size L: ..." is over, whether it is said or not
    begins = reading.open is not None and reading.open.continues is not None and not reading.lines
    if reading.open is not None and not begins and _is_plain_row(text, reading.header.sizes):
        found = rows.read_row(text, number, reading.context(), tuple(reading.expected))
        if found is not None:
            reading.findings.extend(found[1])
            for line in found[0]:
                reading.add(line, [])
            return
    in_head = reading.open is None and not reading.sections
    if in_head and _TABLE.match(text) and len(reading.header.sizes) > 1:
        reading.header.extra.append(("Note", " ".join(text.split())))  # what a table tells of each size, and no row
        return
    if in_head and starts_label(text) is None:
        text = header.take_definitions(reading.header, text, number, reading.findings)
        if not text.strip():
            return
        if explains_abbreviation(text, reading.header.terms):
            reading.header.extra.append(("Note", " ".join(text.split())))
            return
    if starts_label(text) is None:
        reading.said += said_of_chains(text, reading.header.terms)
    key, colon, value = text.partition(":")
    word = " ".join(key.strip().lower().split())
    column = len(key) + 1
    if colon and word == "section":
        heading = read_section(
            value, Span(number, 1, len(text) + 1), reading.sections + just(reading), len(reading.header.sizes)
        )
        reading.findings.extend(heading.findings)
        reading.start(heading.section)
    elif in_head and (colon or not value) and word.strip("*_ ") in header.DEFINING:
        reading.defining = True
        if (spans := header.listed(value)) is not None:
            for first, last in spans:
                header.define(reading.header, value[first:last], number, column + first, reading.findings)
        elif value.strip() and re.search(r"[=:(]|\s[-–—]\s", value):
            header.define(reading.header, value, number, column, reading.findings)
    elif colon and (word in header.KEYS or word in header.ALIASES) and (in_head or word in ("define", "means")):
        header.read(reading.header, header.ALIASES.get(word, word), value, number, column, reading.findings)
        if in_head:
            reading.active = tuple(range(len(reading.header.sizes)))
            reading.restart()
    elif in_head and not starts_label(text) and (at := header.tells_gauge(text)) is not None:
        header.read(reading.header, "gauge", text[at:], number, at, reading.findings)
        if at:
            reading.header.extra.append(("Note", " ".join(text.split())))
    elif in_head and reading.defining and ("=" in text or colon) and not starts_label(text):
        header.define(reading.header, text, number, 0, reading.findings)
    elif in_head and not starts_label(text) and (at := defines(text, reading.header.terms)) is not None:
        header.define(reading.header, text[at:], number, at, reading.findings)
    elif is_size_line(text) or (not in_head and names_sizes(text, reading.header.sizes)):
        chosen, problems = read_size_line(text.rstrip().rstrip(":"), number, reading.header.sizes)
        reading.findings.extend(problems)
        reading.active = chosen or reading.active
    elif not in_head and (rest := all_sizes_then(text)) and starts_label(text[rest:]) is None:
        reading.active = tuple(range(len(reading.header.sizes)))
        read_body_line(reading, " " * rest + text[rest:], number, raws)
    elif not in_head and (done := stops_here(text, reading.header.sizes)) is not None:
        reading.add(Prose(text.strip(), reading.active, False, Span(number, 1, len(text) + 1)), [])
        reading.active = tuple(size for size in reading.active if size not in done) or reading.active
    else:
        read_body_line(reading, text, number, raws)


@remember(8192)
def _is_plain_row(text: str, sizes: tuple[str, ...]) -> bool:
    """Is a line of an open section a row and nothing else, whatever stands around it? Most are, and they are typed
    beside all the time."""
    label = starts_label(text)
    if label is None or label["word"].lower() in ("", "r"):
        return False
    like = text.lower().rfind(" as ") >= label.end()  # "Rows 2-7: as first tab"
    return not like and limited(text, sizes) is None and not title_of(text) and not names_sizes(text, sizes)


__all__ = ["Parsed", "parse"]
