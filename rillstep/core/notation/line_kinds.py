"""What kind a line is: one ordered table. The first kind that takes the line holds; the last one takes any.

A new kind of line is a function in `head_lines` or `body_lines` and a row in this table, and nothing else.
"""

import re
from collections.abc import Callable, Sequence

from rillstep.core.clauses.labels import numbers_in_label, title_of
from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.findings import Finding, Span
from rillstep.core.memory import remember
from rillstep.core.notation import body_lines as body
from rillstep.core.notation import head_lines as head
from rillstep.core.notation.counted import said_of_chains
from rillstep.core.notation.limits import MAX_LINE
from rillstep.core.notation.lines import SourceLine
from rillstep.core.notation.text_so_far import TextSoFar
from rillstep.core.words.sizes import limited, names_sizes

# "## Walls": a heading as plain-text formats mark it, and no comment.
_MARKED_HEADING = re.compile(r"^#{2,6}\s+(?=[A-Za-z][^.]{0,47}$)")
# "12 dc in ring (ch 3 counts as the first dc)": said within a row, of this one and of those after it.
_SAYS_COUNT = re.compile(
    r"\(((?:the\s+|beg(?:inning)?\s+|first\s+)*ch[- ]?\d{1,2}\s+(?:counts?|does not count|doesn't count)\b[^()]*)\)",
    re.IGNORECASE,
)
# "dc in each ch around with ch 3 as first dc" says the same.
_MADE_WITH = re.compile(r"\b(?:with|w/)\s*(?:a\s+)?ch[- ]?(\d{1,2})\s+as\s+(?:the\s+)?first\s+(\w+)", re.IGNORECASE)


def _plain_row(reading: TextSoFar, line: SourceLine) -> bool:
    """A row of an open section and nothing else, whatever stands around it: most lines are, and they come first."""
    begins = reading.open is not None and reading.open.continues is not None and not reading.lines
    plain = reading.open is not None and not begins and _is_plain_row(line.text, reading.header.sizes)
    return plain and body.plain_row(reading, line)


@remember(8192)
def _is_plain_row(text: str, sizes: tuple[str, ...]) -> bool:
    label = starts_label(text)
    if label is None or label["word"].lower() in ("", "r"):
        return False
    like = text.lower().rfind(" as ") >= label.end()  # "Rows 2-7: as first tab"
    return not like and limited(text, sizes) is None and not title_of(text) and not names_sizes(text, sizes)


def _chains_counted(reading: TextSoFar, line: SourceLine) -> bool:
    """What a line without a label says of chains that begin a row is kept in mind; the line is read on."""
    if starts_label(line.text) is None:
        reading.said += said_of_chains(line.text, reading.header.terms)
    return False


KINDS: tuple[Callable[[TextSoFar, SourceLine], bool], ...] = (
    _plain_row,
    head.sizes_table,
    head.abbreviations,
    _chains_counted,
    head.section,
    head.special_stitches,
    head.head_line,
    head.gauge_in_prose,
    head.definition,
    head.size_line,
    head.all_sizes,
    head.stop_line,
    body.begin,
    body.note,
    body.check,
    body.fold,
    body.rows_in_all,
    body.for_some_sizes,
    body.titled,
    body.copy_under_heading,
    body.row,
    body.plain_edging,
    body.setup,
    body.titled_setup,
    body.copy,
    body.heading,
    body.misplaced_section,
    body.unlabelled_row,
    body.even_rows,
    body.words_of_the_head,
    body.edging,
    body.words,
)


def read_line(reading: TextSoFar, raw: str, number: int, raws: Sequence[str]) -> None:
    """Reads one line, and adds what it is to the text so far."""
    if len(raw) > MAX_LINE:
        message = f"This line is too long to be read ({len(raw):,} characters; at most {MAX_LINE:,})."
        reading.findings.append(Finding("line-too-long", "error", Span(number, 1, MAX_LINE), message))
        return
    marked = _MARKED_HEADING.sub(lambda match: " " * len(match[0]), raw) if raw[:2] == "##" else raw
    text = marked.split("#", 1)[0].rstrip()
    if not text.strip():
        reading.defining = False
        return
    if "ount" in text or " as " in text:
        for said in _SAYS_COUNT.finditer(text):
            reading.said += said_of_chains(said[1], reading.header.terms)
        for made in _MADE_WITH.finditer(text):
            reading.said += said_of_chains(f"ch {made[1]} counts as {made[2]}", reading.header.terms)
    sizes = len(reading.header.sizes)
    if len(reading.active) < sizes and numbers_in_label(text) == sizes:
        reading.active = tuple(range(sizes))  # "Size L: ..." is over, whether it is said or not
    line = SourceLine(text, number, raws, reading.context_of(text))
    for kind in KINDS:
        if kind(reading, line):
            return
