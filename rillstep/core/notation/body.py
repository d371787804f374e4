"""One line of the body: a row, a set-up line, a heading, a piece like another, or words; tried in this order."""

import re
from dataclasses import replace

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.clauses.labels import title_of
from rillstep.core.clauses.totals import split_totals
from rillstep.core.findings import Finding, Span
from rillstep.core.notation import checks, header, plain_rows, rows
from rillstep.core.notation.copies import made_so_often, rows_like, worked_like
from rillstep.core.notation.counted import only_tells
from rillstep.core.notation.edgings import as_note, read_edging, read_plain_edging
from rillstep.core.notation.header import context_of
from rillstep.core.notation.sections import is_heading
from rillstep.core.notation.setups import SETUP, read_setup
from rillstep.core.notation.text_so_far import TextSoFar, begins_anew, just
from rillstep.core.notation.unlabelled import instructs, not_worked, starts_piece, title_ends
from rillstep.core.tree import Again, Along, Chain, Gesture, Line, Prose, Row, Setup
from rillstep.core.words.sizes import is_size_line, limited, names_sizes
from rillstep.core.words.stream import Context

# "turn", but not "turn the work round and work along the other side".
_TURNS = re.compile(r"\bacross\b|\bturn\b(?![^.;]{0,40}\b(?:other|opposite|bottom|underside|along)\b)", re.IGNORECASE)
_BARE = re.compile(r"^\s*(?:r\s*)?\d{1,3}\b", re.IGNORECASE)


def _in_rows(text: str) -> bool:
    """Is a line that begins with "R1" or "1." a row? It is where it says "turn" or "across"."""
    return _BARE.match(text) is not None and _TURNS.search(text) is not None


def read_body_line(reading: TextSoFar, text: str, number: int, raws: list[str]) -> None:
    """Read a line that is none of the head, and add what it is."""
    context = reading.context()
    if _in_rows(text) and (
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
    text = _side_by_side(_without_title(text, reading), reading)
    title = title_of(text)
    if title and (reading.open is None or reading.open.title.lower() != title.lower()):
        reading.head(title, span, text)
        context = context_of(reading.header, context.active, reading.context().kind)
    if (
        reading.open is not None
        and not reading.lines
        and starts_label(text) is None
        and _read_copy(reading, text, number, span)
    ):
        return
    found = _like_rows(reading, text, number, context) or rows.read_row(text, number, context, tuple(reading.expected))
    if found is not None:
        lines, problems = found
        reading.findings.extend(problems)
        for line in lines:
            reading.add(line, [])
        return
    reading.joins_piece(text)
    edging = read_plain_edging(text, number, context) if reading.has_rows() else None
    if edging is not None:
        reading.add(edging, [])
        return
    setup = read_setup(text, number, context) if not only_tells(text) else None
    if setup is not None:
        line, problems = setup
        worked = any(not isinstance(s, Chain | Gesture) and getattr(s, "stitch", "") != "sl st" for s in line.steps)
        if worked and _read_edging(reading, text, number, context):
            return
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
    if instructs(text) and _read_edging(reading, text, number, context):
        return
    unworked = instructs(text) and not plain_rows.makes_a_loop(text, number, context)
    told = [not_worked(span)] if unworked else _totals_of_words(text, number, context)
    reading.add(Prose(text.strip(), reading.active, False, span), told)


def _totals_of_words(text: str, number: int, context: Context) -> list[Finding]:
    """A total that a line of words states: it is printed, and nothing is held to it."""
    end, totals, problems, _ = split_totals(text, number, context, 0)
    counted = _STITCHES.search(text)
    if not totals and not problems and counted is None:
        return []
    span = (
        Span(number, counted.start() + 1, counted.end() + 1)
        if counted is not None
        else Span(number, end + 1, len(text) + 1)
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


def _read_edging(reading: TextSoFar, text: str, number: int, context: Context) -> bool:
    """The edge of a whole piece: its words are kept as a note, so that a maker still has them, and its total is gone
    on from."""
    told = read_edging(text, number, context) if reading.has_rows() else None
    if told is None:
        return False
    reading.add(Prose(as_note(text, context), reading.active, True, told[0].span), [])
    reading.add(told[0], [told[1]])
    return True


def _like_rows(
    reading: TextSoFar, text: str, number: int, context: Context
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """ "Rows 2-7 (9): as first tab": the rows of an earlier piece; None for any other line."""
    match = starts_label(text)
    if match is None or " as " not in f" {text.lower()}" or not reading.sections:
        return None
    label = rows.read_label(text, number, context, match, tuple(reading.expected))
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


def _names_pattern(reading: TextSoFar, text: str, number: int, raws: list[str]) -> bool:
    """Is a line at the very top the name of the pattern, and no heading of its first piece: something else is told
    before the rows?"""
    if (
        reading.header.name
        or reading.header.extra
        or reading.open is not None
        or reading.sections
        or text.rstrip().endswith(":")
    ):
        return False
    after = next((raw for raw in raws[number:] if raw.strip()), "")
    return not (starts_label(after) or SETUP.match(after))


def _read_titled_setup(reading: TextSoFar, text: str, number: int, span: Span) -> bool:
    """ "Strap: Ch 6.": a foundation with a title of its own begins a section."""
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


def _read_copy(reading: TextSoFar, text: str, number: int, span: Span) -> bool:
    """ "Back: work as for Front.": the lines of that piece once more; "Make 2.": how many of the open one."""
    before = [s for s in reading.sections + just(reading) if s.title]
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


def _read_unlabelled(reading: TextSoFar, text: str, number: int, context: Context, raws: list[str]) -> bool:
    """A row without a label; one with a title of its own ("Cord: ch 121, ...") begins a section."""
    following = _following(raws, number, reading)
    label = starts_label(following) if following is not None else None
    often = _MAKE_LAST.search(text)
    text = text[: often.start()] if often is not None else text
    zeroth = label is not None and following is not None and re.match(r"\s*1\b", following[label.end() :]) is not None
    found = rows.read_unlabelled(text, number, context, tuple(reading.expected), 0 if zeroth else 1)
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
        reading.open = replace(reading.open, make=(made,))
    return True


# "Cord: ch 80, sl st in 2nd ch from hook and in each ch. Make 2."
_MAKE_LAST = re.compile(r"(?<=[.;)])\s*make\s+\w+\s*[.!]?\s*$", re.IGNORECASE)


def _read_even(reading: TextSoFar, text: str, number: int, context: Context) -> bool:
    """ "Work even for 20 more rows.": so many in the stitch of the row before, and as that one is turned or joined."""
    lines = [*(line for section in reading.sections[-1:] for line in section.lines), *reading.lines]
    before = next((one for one in reversed(lines) if isinstance(one, Row | Again)), None)
    if isinstance(before, Again):  # as the last of the rows that were worked again
        named = before.sources[-1].values if before.sources else ()
        before = next((one for one in reversed(lines) if isinstance(one, Row) and one.first.values == named), None)
    found = plain_rows.read_even(text, number, context, tuple(reading.expected), before) if before is not None else None
    if found is not None:
        reading.add(found[0], found[1])
    return found is not None


def _following(raws: list[str], number: int, reading: TextSoFar) -> str | None:
    """The next line that holds instructions: a row, a set-up line or a piece like another, with at most some notes
    before it."""
    notes = 0
    known = reading.sections + just(reading)
    for raw in raws[number : number + MOST_NOTES]:
        if not raw.strip():
            continue
        is_row = starts_label(raw) is not None or (not notes and rows.begins_unlabelled(raw, reading.context()))
        if is_row or SETUP.match(raw) or worked_like(raw, number, known, reading.context()) is not None:
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
