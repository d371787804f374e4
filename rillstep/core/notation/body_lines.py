"""The kinds of line that stand in the body: rows, set-up lines, headings, pieces like another, and words.

Each returns whether it took the line; those that only find something at its beginning blank it and return False.
"""

import re
from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.clauses.labels import title_of
from rillstep.core.findings import Finding, Span
from rillstep.core.notation import checks, header, plain_rows, rows
from rillstep.core.notation.copies import made_so_often, rows_like, worked_like
from rillstep.core.notation.counted import only_tells
from rillstep.core.notation.edgings import as_note, read_edging, read_plain_edging
from rillstep.core.notation.lines import SourceLine
from rillstep.core.notation.sections import is_heading
from rillstep.core.notation.setups import opening_of, read_setup
from rillstep.core.notation.text_so_far import TextSoFar, begins_anew, just
from rillstep.core.notation.unlabelled import instructs, not_worked, starts_piece, title_ends
from rillstep.core.reading.stated_totals import split_totals
from rillstep.core.tree import Again, Along, Chain, Gesture, Line, Prose, Row, Setup
from rillstep.core.tree.leaves import coming
from rillstep.core.words.sizes import is_size_line, limited, names_sizes
from rillstep.core.words.stream import Context

# "turn", but not "turn the work round and work along the other side".
_TURNS = re.compile(r"\bacross\b|\bturn\b(?![^.;]{0,40}\b(?:other|opposite|bottom|underside|along)\b)", re.IGNORECASE)
_BARE = re.compile(r"^\s*(?:r\s*)?\d{1,3}\b", re.IGNORECASE)


def _in_rows(text: str) -> bool:
    """Is a line that begins with "R1" or "1." a row? It is where it says "turn" or "across"."""
    return _BARE.match(text) is not None and _TURNS.search(text) is not None


def begin(reading: TextSoFar, line: SourceLine) -> bool:
    """The context in which a line of the body is read; none of them is taken here."""
    line.context = reading.context_of(line.text)
    begun = any(isinstance(one, Row) for one in reading.lines)
    if _in_rows(line.text) and (reading.open is None or (reading.guessed and not begun)):
        line.context = replace(line.context, kind="Row")
    before = next((one for one in reversed(reading.lines) if isinstance(one, Row | Again)), None)
    if before is not None and before.kind != line.context.kind and _BARE.match(line.text):
        line.context = replace(line.context, kind=before.kind)  # "Rnd 1: ...", "R2: ..."
    return False


def note(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Note: ..." """
    if not line.text.lstrip().lower().startswith(("note:", "notes:")):
        return False
    reading.add(Prose(line.text.split(":", 1)[1].strip(), reading.active, True, line.span), [])
    return True


def check(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Check: 30 (34) rnds; 24.0 (29.3) cm wide." """
    if not line.text.lstrip().lower().startswith("check:"):
        return False
    reading.add(*checks.read_check(line.text, line.number, line.context))
    return True


def fold(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Fold: front 30 rows, back 30 rows, flap 14 rows." """
    if not re.match(r"\s*fold\s*:", line.text, re.IGNORECASE):
        return False
    reading.add(*checks.read_fold(line.text, line.number, line.context))
    return True


def rows_in_all(reading: TextSoFar, line: SourceLine) -> bool:
    """ "14 (18) rows worked." """
    counted = checks.read_rows_in_all(line.text, line.number, line.context)
    if counted is not None:
        reading.add(counted, [])
    return counted is not None


def for_some_sizes(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Size M only: ..." and the like; what follows is read on."""
    limit = limited(line.text, reading.header.sizes)
    if limit is not None:
        line.text = limit.text
        line.context = replace(line.context, active=limit.sizes)
    return False


def titled(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Flap Row 1: ...": a section begins where the label names another than the open one; the row is read on."""
    line.text = _side_by_side(_without_title(line.text, reading), reading)
    title = title_of(line.text)
    if title and (reading.open is None or reading.open.title.lower() != title.lower()):
        reading.head(title, Span(line.number, 1, len(line.text) + 1), line.text)
        line.context = replace(line.context, kind=reading.context().kind)
    return False


def copy_under_heading(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Work as for Front." as the first line of a piece."""
    first = reading.open is not None and not reading.lines and starts_label(line.text) is None
    return first and copy(reading, line)


def row(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Rnd 4: ...", "Rows 2-7: as first tab", "Rep Rnds 2 and 3"."""
    like = _like_rows(reading, line.text, line.number, line.context)
    return plain_row(reading, line) if like is None else _add_rows(reading, like)


def plain_row(reading: TextSoFar, line: SourceLine) -> bool:
    """A row that is written out."""
    found = rows.read_row(line.text, line.number, line.context, coming(reading.expected))
    return found is not None and _add_rows(reading, found)


def _add_rows(reading: TextSoFar, found: tuple[tuple[Line, ...], tuple[Finding, ...]]) -> bool:
    reading.findings.extend(found[1])
    for one in found[0]:
        reading.add(one, [])
    return True


def plain_edging(reading: TextSoFar, line: SourceLine) -> bool:
    """ "64 (76) sc evenly around all edges; join." """
    reading.joins_piece(line.text)
    edge = read_plain_edging(line.text, line.number, line.context) if reading.has_rows() else None
    if edge is not None:
        reading.add(edge, [])
    return edge is not None


def setup(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Ch 31 (37, 43)." """
    found = read_setup(line.text, line.number, line.context) if not only_tells(line.text) else None
    if found is None:
        return False
    foundation, problems = found
    worked = any(not isinstance(s, Chain | Gesture) and getattr(s, "stitch", "") != "sl st" for s in foundation.steps)
    if worked and _read_edging(reading, line):
        return True
    reading.add(foundation, [*problems, not_worked(line.span)] if worked and not foundation.broken else problems)
    return True


def heading(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Strap" above its first row."""
    following = _following(line.raws, line.number, reading)
    if following is None or _names_pattern(reading, line) or not is_heading(line.text, following):
        return False
    reading.head(line.text, line.span, following)
    return True


def misplaced_section(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Section:" in the middle of a line is said to be so; the line is read on."""
    if (at := line.text.lower().find("section:")) > 0:
        message = "A section begins with the word “Section:” at the start of its line; this one is read as words only."
        reading.findings.append(Finding("section-misplaced", "error", Span(line.number, at + 1, at + 9), message))
    return False


def even_rows(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Work even for 20 more rows.": so many in the stitch of the row before, and as that one is turned or joined."""
    lines = [*(one for section in reading.sections[-1:] for one in section.lines), *reading.lines]
    before = next((one for one in reversed(lines) if isinstance(one, Row | Again)), None)
    if isinstance(before, Again):  # as the last of the rows that were worked again
        named = before.sources[-1].values if before.sources else ()
        before = next((one for one in reversed(lines) if isinstance(one, Row) and one.first.values == named), None)
    if before is None:
        return False
    found = plain_rows.read_even(line.text, line.number, line.context, coming(reading.expected), before)
    if found is not None:
        reading.add(found[0], found[1])
    return found is not None


def words_of_the_head(reading: TextSoFar, line: SourceLine) -> bool:
    """What is told before the first row or heading."""
    if not reading.in_head:
        return False
    header.told(reading.header, line.text.strip())
    if instructs(line.text) and "=" not in line.text and not only_tells(line.text):
        reading.findings.append(not_worked(line.span))
    return True


def edging(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Sc evenly around the base, 3 sc in each corner. [64 sc]" """
    return instructs(line.text) and _read_edging(reading, line)


# A line of words that says so works rows, whatever stands before it.
_REPEATS = tuple(
    f"{again} {rows}" for again in ("rep", "repeat") for rows in ("row", "rnd", "round", "last row", "last rnd")
)


def words(reading: TextSoFar, line: SourceLine) -> bool:
    """Whatever is left; what seems to instruct, or states a total, is said not to be looked at."""
    repeats = any(words in line.text.lower() for words in _REPEATS)
    unworked = (instructs(line.text) or repeats) and not plain_rows.makes_a_loop(line.text, line.number, line.context)
    findings = [not_worked(line.span)] if unworked else _totals_of_words(line.text, line.number, line.context)
    reading.add(Prose(line.text.strip(), reading.active, False, line.span, bool(findings)), findings)
    return True


def _totals_of_words(text: str, number: int, context: Context) -> list[Finding]:
    """A total that a line of words states: it is printed, and nothing is held to it."""
    at_end, _ = split_totals(text, number, context, 0)
    counted = _STITCHES.search(text)
    if at_end.end == len(text) and counted is None:
        return []
    span = (
        Span(number, counted.start() + 1, counted.end() + 1)
        if counted is not None
        else Span(number, at_end.end + 1, len(text) + 1)
    )
    return [
        Finding(
            "total-not-checked",
            "warning",
            span,
            "This line is kept as words, so the number that it states is not checked.",
        )
    ]


_STITCHES = re.compile(
    r"\d[\d\s(),/\[\]|:]{0,40}\s?(?:sl )?(?:sts?|stitches|sc|hdc|dc|tr|htr|dtr|ss|chs?|"
    r"chains|loops|sps|spaces)\b(?!\s*(?:x|=|and)\s*\d)",
    re.IGNORECASE,
)


def _read_edging(reading: TextSoFar, line: SourceLine) -> bool:
    """The edge of a whole piece: its words are kept as a note, so that a maker still has them, and its total is gone
    on from."""
    told = read_edging(line.text, line.number, line.context) if reading.has_rows() else None
    if told is None:
        return False
    reading.add(Prose(as_note(line.text, line.context), reading.active, True, told[0].span), [])
    reading.add(told[0], [told[1]])
    return True


def _like_rows(
    reading: TextSoFar, text: str, number: int, context: Context
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """ "Rows 2-7 (9): as first tab": the rows of an earlier piece; None for any other line."""
    match = starts_label(text)
    if match is None or " as " not in f" {text.lower()}" or not reading.sections:
        return None
    label = rows.read_label(text, number, context, match, coming(reading.expected))
    lines = rows_like(text[label.body :], label.first, label.last, reading.sections) if not label.findings else ()
    return (lines, ()) if lines else None


def _without_title(text: str, reading: TextSoFar) -> str:
    """ "Rep Mesh rnd 3 until there are 14 mesh rnds": the name of the rows that are counted by themselves, blanked."""
    name = reading.open.title if reading.open is not None else ""
    if not name or not re.match(r"\s*(?:rep|repeat|work)\b", text, re.IGNORECASE):
        return text
    own = re.compile(rf"\b{re.escape(name)}(?=\s+(?:rn?ds?|rounds?|rows?)\b)", re.IGNORECASE)
    return own.sub(lambda match: " " * len(match[0]), text)


def _side_by_side(text: str, reading: TextSoFar) -> str:
    """ "Dc in next 31 sts of second triangle, dc in 32 sts of first triangle": a first row over all pieces of one
    kind, one after
    another; which piece is meant is blanked, as they are alike."""
    section = reading.open
    if section is None or any(isinstance(line, Row) for line in reading.lines):
        return text
    for source in reversed(reading.sections):
        if max(source.make) < 2 or (section.continues is None and not reading.guessed):
            continue
        name = re.escape(source.title.lower().removesuffix("s"))
        pieces = re.compile(
            rf"\b(?:of|along|from|across)\s+(?:the\s+)?(first|second|third|fourth|other|next|front|back)\s+{name}s?\b",
            re.IGNORECASE,
        )
        named = {match[1].lower() for match in pieces.finditer(text)}
        if len(named) == max(source.make):
            reading.open = replace(section, continues=source.title, on=Along("side by side"))
            return pieces.sub(lambda match: " " * len(match[0]), text)
    return text


def _names_pattern(reading: TextSoFar, line: SourceLine) -> bool:
    """Is a line at the very top the name of the pattern, and no heading of its first piece: something else is told
    before the rows?"""
    if reading.header.name or reading.header.extra or not reading.in_head or line.text.rstrip().endswith(":"):
        return False
    after = next((raw for raw in line.raws[line.number :] if raw.strip()), "")
    return not (starts_label(after) or opening_of(after) is not None)


def titled_setup(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Strap: Ch 6.": a foundation with a title of its own begins a section."""
    text, number, span = line.text, line.number, line.span
    start = title_ends(text)
    setup = read_setup(" " * start + text[start:], number, reading.context()) if start else None
    if (
        setup is None
        or not begins_anew(setup[0])
        or not all(isinstance(step, Chain | Gesture) for step in setup[0].steps)
    ):
        return False
    title = text[:start].strip().rstrip(":")
    reading.head(title, span, text[start:])
    reading.add(*setup)
    return True


def copy(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Back: work as for Front.": the lines of that piece once more; "Make 2.": how many of the open one."""
    text, number, span = line.text, line.number, line.span
    before = [s for s in reading.sections + just(reading) if s.title]
    like = worked_like(text, number, before, reading.context())
    if like is not None and (like.title or (reading.open is not None and not reading.lines)):
        title = like.title or (reading.open.title if reading.open is not None else "")
        if not like.title:
            reading.open = None
        source = like.source
        reading.start(replace(source, title=title, lines=(), make=(1,), span=span), guessed=False)
        for one in like.lines:
            reading.add(one, [])
        return True
    made = made_so_often(text, reading.open.make[0]) if reading.open is not None else None
    if made is None or reading.open is None or len(made) not in (1, line.context.n_sizes):
        return False
    reading.open = replace(reading.open, make=made)
    return True


def unlabelled_row(reading: TextSoFar, line: SourceLine) -> bool:
    """A row without a label; one with a title of its own ("Cord: ch 121, ...") begins a section."""
    text, number, context = line.text, line.number, line.context
    following = _following(line.raws, number, reading)
    label = starts_label(following) if following is not None else None
    often = _MAKE_LAST.search(text)
    text = text[: often.start()] if often is not None else text
    zeroth = label is not None and following is not None and re.match(r"\s*1\b", following[label.end() :]) is not None
    found = rows.read_unlabelled(text, number, context, coming(reading.expected), 0 if zeroth else 1)
    if found is None:
        return False
    row, problems, start = found
    if often is not None and not starts_piece(row.steps):
        return False
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
    made = made_so_often(often[0].strip(), 1) if often is not None else None
    if made is not None and reading.open is not None:
        reading.open = replace(reading.open, make=made)
    return True


# "Cord: ch 80, sl st in 2nd ch from hook and in each ch. Make 2."
_MAKE_LAST = re.compile(r"(?<=[.;)])\s*make\s+\w+\s*[.!]?\s*$", re.IGNORECASE)


def _following(raws: Sequence[str], number: int, reading: TextSoFar) -> str | None:
    """The next line that holds instructions: a row, a set-up line or a piece like another, with at most some notes
    before it."""
    notes = 0
    known = reading.sections + just(reading)
    for raw in raws[number : number + MOST_NOTES]:
        if not raw.strip():
            continue
        is_row = starts_label(raw) is not None or (not notes and rows.begins_unlabelled(raw, reading.context()))
        if is_row or opening_of(raw) is not None or worked_like(raw, number, known, reading.context()) is not None:
            return raw
        bare = raw.strip().lower().rstrip(":.")
        if is_size_line(raw) or bare.endswith(" only") or names_sizes(raw, reading.header.sizes):
            continue
        notes += 1
        if notes > MOST_NOTES // 2 or not (_NOTE.match(raw) or raw.rstrip().endswith((".", "!"))):
            return None
    return None


MOST_NOTES = 10
_NOTE = re.compile(r"^\s*(?:notes?\b|with\b|using\b|working\b|work\b|now\b|\(|\*)", re.IGNORECASE)
