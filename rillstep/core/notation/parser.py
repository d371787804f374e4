"""A pattern text into its tree. One line is read at a time, so one bad line never hides the next."""

from collections import Counter
from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.craft import Terms, basic
from rillstep.core.findings import Finding, Span, sort_findings
from rillstep.core.gauge import rounded
from rillstep.core.memory import remember
from rillstep.core.notation import header
from rillstep.core.notation.each_round import lines_to_read, take_worked_out
from rillstep.core.notation.header import Header
from rillstep.core.notation.limits import MAX_LINE, MOST_ERRORS, Extent, too_long
from rillstep.core.notation.line_kinds import read_line
from rillstep.core.notation.lines import Logical, logical_lines, put_back
from rillstep.core.notation.phrases import is_taught, lines_of_phrases
from rillstep.core.notation.setups import opening_of
from rillstep.core.notation.text_so_far import TextSoFar, WithNames
from rillstep.core.notation.unlisted_sizes import by_slashes, told_sizes
from rillstep.core.reading.stated_totals import unknown_total
from rillstep.core.tree import Again, Line, Pattern, Prose, Row, Section, Setup, lines_of
from rillstep.core.tree.changes import without_nothing
from rillstep.core.tree.features import main_stitch
from rillstep.core.watch import look
from rillstep.core.words.named_numbers import DEFINED, left_over, names_of, problem_of, resolved
from rillstep.core.words.named_numbers import put_back as put_back_braces
from rillstep.core.words.said_measures import said_measures
from rillstep.core.words.sizes import size_names
from rillstep.core.words.stream import InBraces, stream_over
from rillstep.core.words.tokens import Taught


@dataclass(frozen=True)
class Parsed:
    """A tree, what could not be read, the lines with names, and the names with what they stand for."""

    pattern: Pattern
    findings: tuple[Finding, ...]
    named: tuple[WithNames, ...] = ()
    numbers: tuple[tuple[str, str], ...] = ()


def parse(
    text: str,
    terms: Terms | None = None,
    ends: Mapping[int, tuple[int | None, ...]] | None = None,
    assumed: Sequence[str] = (),
) -> Parsed:
    """Reads a pattern text. Never raises; whatever is wrong is a finding.

    terms: what it is written in, where that is known better than the text says. ends: the last rows, for each size, of
    repetitions "until 4 sts remain", by their line, where they have been worked out (`core.settling.read`). assumed:
    lines of the head ("Means: ...", "Define: ...") that the text does not have, and that are read before it.
    """
    if (refused := too_long(text)) is not None:
        return Parsed(Pattern("", ("One size",), ()), (refused,))
    reading = TextSoFar(Header(terms=terms or "US", terms_known=terms is not None), ends=dict(ends or {}))
    raws = [raw.rstrip("\r") for raw in text.split("\n")]
    header.told_by_a_row(reading.header, raws)
    raws, naming = _name_sizes(reading, raws)
    reading.names = names_of(raws)
    take_worked_out(reading.names, raws, reading.ends)
    extent = Extent()
    kept: list[Span] = []
    read = _with_numbers(reading, raws)
    for logical in logical_lines(raws, read):
        if logical.number in naming:
            header.keep_measures(reading.header, logical.text)
            continue
        look()
        if assumed and (not reading.in_head or starts_label(logical.text) or opening_of(logical.text) is not None):
            _assume(reading, assumed, len(raws))  # by now the sizes are known
            assumed = ()
        extent.take(logical.text)
        if (stop := extent.exceeded(logical.text, logical.number, _errors(reading))) is not None:
            reading.findings.append(stop)
            break
        _read_logical(reading, logical, read, extent, kept)
    reading.close_section()
    _check_names(reading)
    pattern = _pattern(reading, raws, kept)
    vouched = {at for line in _rows(pattern) if line.vouched for at in lines_of(line)}
    reading.findings = [one for one in reading.findings if one.span.line not in vouched]
    if not any(isinstance(line, Row) for _, line in pattern.lines()):
        message = "There are no rows or rounds here: start them with “Rnd 1:” or “Row 1:”."
        reading.findings.append(Finding("nothing-to-work", "error", Span(1, 1, 2), message))
    # What is read twice is said once.
    findings = sort_findings(list(dict.fromkeys(reading.findings)))
    defined = reading.names.defined.items()
    numbers = tuple((name, one.text.strip()) for name, one in defined if not one.measured)
    return Parsed(pattern, findings, tuple(reading.named), numbers)


def _assume(reading: TextSoFar, assumed: Sequence[str], rows: int) -> None:
    """Takes lines of the head that the text does not have; they are numbered on from its last line."""
    for number, line in enumerate(assumed, start=rows + 1):
        key, _, value = line.partition(":")
        header.read(reading.header, key.lower(), value, number, len(key) + 1, reading.findings)


def _name_sizes(reading: TextSoFar, raws: list[str]) -> tuple[list[str], tuple[int, ...]]:
    """The lines with sets in the usual form, and which of them name sizes elsewhere than after "Sizes:"."""
    told = told_sizes([raw if len(raw) <= MAX_LINE else "" for raw in raws])  # longer ones are not read
    if told is None:
        return raws, ()
    reading.take_sizes(told.names)
    reading.findings.extend(told.findings)
    return by_slashes(raws, told.names), told.lines


def _with_numbers(reading: TextSoFar, raws: list[str]) -> list[str]:
    """The lines with numbers for their names, as far as those can be known before the lines are read."""
    sizes = reading.header.sizes if len(reading.header.sizes) > 1 else _listed_sizes(raws)
    every = tuple(range(len(sizes)))
    return [
        resolved(raw, number, reading.names, len(sizes), every).text if "{" in raw and not DEFINED.match(raw) else raw
        for number, raw in enumerate(raws, start=1)
    ]


def _listed_sizes(raws: Sequence[str]) -> tuple[str, ...]:
    """The names after "Sizes:"; one where there is no such line."""
    listed = (raw.partition(":")[2] for raw in raws if raw.lower().lstrip().startswith(("sizes:", "size:")))
    return size_names(next(listed, "")) or ("One size",)


def _errors(reading: TextSoFar) -> int:
    """How many errors there are; those of a text that has few findings need not be counted."""
    many = len(reading.findings) > MOST_ERRORS
    return sum(f.severity == "error" for f in reading.findings) if many else 0


def _read_logical(reading: TextSoFar, logical: Logical, raws: Sequence[str], extent: Extent, kept: list[Span]) -> None:
    """Reads one line, and puts what was found in it back to where it stands; `kept` takes lines of the head."""
    before, lines, findings, extra = (
        reading.lines,
        len(reading.lines),
        len(reading.findings),
        len(reading.header.extra),
    )
    if "{" in raws[logical.number - 1] or "{" in logical.text:
        _read_with_names(reading, logical, raws, extent)
    else:
        _read(reading, logical.text, logical.number, raws, extent)
    if len(reading.header.extra) > extra:
        kept.append(Span(logical.number, 1, max(2, len(logical.text) + 1)))
    if logical.pieces:
        lines = lines if reading.lines is before else 0  # it begins a section
        reading.lines[lines:] = [_put_back(one, _told_apart(one), logical) for one in reading.lines[lines:]]
        reading.findings[findings:] = [put_back(f, logical) for f in reading.findings[findings:]]


def _read(reading: TextSoFar, text: str, number: int, raws: Sequence[str], extent: Extent) -> None:
    """Reads one line as it stands."""
    lines, findings = len(reading.lines), len(reading.findings)
    read_line(reading, text, number, raws)
    if len(reading.lines) > lines and not isinstance(reading.lines[-1], Prose):
        extent.take_row(text, len(reading.active))
    unknown = [f for f in reading.findings[findings:] if f.code == "kind-not-known"]
    if unknown:
        reading.lines[lines:] = [_stating(reading, one, unknown, text) for one in reading.lines[lines:]]


def _read_with_names(reading: TextSoFar, logical: Logical, raws: Sequence[str], extent: Extent) -> None:
    """Reads a line with names, once for each of the rounds that it writes."""
    active, number = reading.active, logical.number
    stands_in = tuple(dict.fromkeys((number, *(piece.line for piece in logical.pieces))))
    for one in lines_to_read(reading, logical.text, number):
        before, lines, findings = reading.lines, len(reading.lines), len(reading.findings)
        reading.braces, reading.active = one.resolved.places, one.sizes
        _read(reading, one.resolved.text, number, raws, extent)
        reading.braces = ()
        lines = lines if reading.lines is before else 0  # it begins a section
        if one.sizes != active:
            reading.active = active
        fewer: Line | None = None
        if one.rnd is not None:
            read = reading.lines[lines:]
            reading.lines[lines:] = [without_nothing(line) for line in read]
            fewer = next((line for line, was in zip(reading.lines[lines:], read, strict=True) if line is not was), None)
        places = one.resolved.places
        if places:
            read = reading.lines[lines:]
            reading.lines[lines:] = [_at_braces(line, _told_apart(line), places, number) for line in read]
            reading.findings[findings:] = [put_back_braces(f, places, number) for f in reading.findings[findings:]]
        where = places if one.rnd is None else None
        reading.named.append(WithNames(stands_in, active, one.sizes, one.resolved.text, fewer, where))
        if one.rnd is None and not any(f.code == "name-not-defined" for f in reading.findings[findings:]):
            reading.findings.extend(left_over(logical.text, number, reading.names))
        reading.findings.extend(one.resolved.findings)


def _check_names(reading: TextSoFar) -> None:
    """Adds what is wrong with the definitions of names, each at its line; those that a measure defines have no number
    without a gauge."""
    for name in reading.names.open:
        told, why = f"“{name}” is not defined", f"“{name}” follows from a measure, and without a gauge it is not known"
        reading.findings[:] = [
            replace(f, message=f.message.replace(told, why)) if f.code == "name-not-defined" else f
            for f in reading.findings
        ]
    for name, defined in reading.names.defined.items():
        problem = problem_of(name, reading.names, len(reading.header.sizes))
        if problem is not None:
            span = Span(defined.line, defined.column, defined.column + max(1, len(defined.text)))
            reading.findings.append(Finding("number-form", "error", span, problem))


@remember(4096)
def _at_braces(line: Line, apart: Hashable, places: tuple[InBraces, ...], number: int) -> Line:
    """Remembered, as `_put_back` is; lines that say the same in different places are told apart by their number."""
    moved: Line = put_back_braces(line, places, number)
    return moved


def _pattern(reading: TextSoFar, raws: Sequence[str], kept: Sequence[Span]) -> Pattern:
    """The tree of all that was read."""
    head = reading.header
    reading.findings.extend(header.gauge_findings(head, raws))
    begins = min((section.span.line for section in reading.sections if section.span.line), default=1)
    if head.unnamed_gauge and (stitch := _main_stitch(reading.sections)) is not None:
        head.gauges[0] = replace(head.gauges[0], stitch=stitch)
    rests = _rests(raws, head.phrases)
    vouched = {number for number, phrase in rests if phrase in {one.written for one in head.phrases if one.vouched}}
    sections = tuple(_vouched(section, vouched) for section in reading.sections) if vouched else tuple(reading.sections)
    return Pattern(
        head.name,
        head.sizes,
        sections,
        head.units,
        tuple(rounded(gauge, head.units) for gauge in head.gauges),
        head.finished,
        tuple(head.extra),
        tuple(head.specials),
        head.terms,
        tuple(kept),
        rests,
        tuple(head.own_gauges),
        tuple(said_measures(raws[: begins - 1], len(head.sizes))) if head.gauges else (),
    )


def _rows(pattern: Pattern) -> Iterator[Row | Again]:
    return (line for _, line in pattern.lines() if isinstance(line, Row | Again))


def _vouched(section: Section, lines: set[int]) -> Section:
    """A section in which the rows that stand in some lines of the text are vouched for: they are not worked, and leave
    what they state."""
    return replace(
        section,
        lines=tuple(
            replace(line, broken=True, vouched=True)
            if isinstance(line, Row | Again) and lines.intersection(lines_of(line))
            else line
            for line in section.lines
        ),
    )


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
        unknown_total(stream_over(text, line.span.line, context, one.span.column - 1, one.span.end_column - 1))
        for one in unknown
        if one.span.line == line.span.line
    ]
    return replace(line, stated=tuple(total for total in stated if total is not None))


@remember(4096)
def _put_back(line: Line, apart: Hashable, logical: Logical) -> Line:
    """Remembered by what was read, which is remembered too: typing in one line moves nothing in the others."""
    moved: Line = put_back(line, logical)
    return replace(moved, last_line=logical.pieces[-1].line) if isinstance(moved, Row | Again) else moved


def _told_apart(line: Line) -> Hashable:
    """What equal lines may differ in: whether they were understood, and what their numbers are made of."""
    numbers = (line.first, line.last) if isinstance(line, Row | Again) else ()
    made_of = tuple(number and number.forms for number in numbers)
    return isinstance(line, Row | Again | Setup) and line.broken, made_of


__all__ = ["Parsed", "parse"]
