"""The kinds of line that stand in the head, and those that say for which sizes the lines after them hold.

Each returns whether it took the line: what it is goes into the header or the text so far.
"""

import re

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.notation import header
from rillstep.core.notation.counted import explains_abbreviation
from rillstep.core.notation.definitions import defines
from rillstep.core.notation.lines import SourceLine
from rillstep.core.notation.name_lists import KEYS, listed
from rillstep.core.notation.sections import read_section, worked_as_told
from rillstep.core.notation.text_so_far import TextSoFar, just
from rillstep.core.tree import Prose
from rillstep.core.words.gauges import sizes_of_gauge, tells_gauge
from rillstep.core.words.sizes import all_sizes_then, is_size_line, names_sizes, read_size_line, stops_here

_TABLE = re.compile(r"^\s*[A-Za-z][A-Za-z ]{0,30}(?:\s{2,}|\t+)\d+(?:\.\d+)?(?:(?:\s{2,}|\t+)\d+(?:\.\d+)?){1,9}\s*$")


def _keep(reading: TextSoFar, line: SourceLine) -> None:
    reading.header.extra.append(("Note", " ".join(line.text.split())))


def _key(text: str) -> tuple[str, str, int]:
    """The words before a colon in lower case, what follows it, and the column where that begins; "" without a colon."""
    key, colon, value = text.partition(":")
    return (" ".join(key.strip().lower().split()) if colon else ""), value, len(key) + 1


def sizes_table(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Width   30   36   41": what a table tells of each size."""
    taken = reading.in_head and _TABLE.match(line.text) is not None and len(reading.header.sizes) > 1
    if taken:
        _keep(reading, line)
    return taken


def abbreviations(reading: TextSoFar, line: SourceLine) -> bool:
    """Abbreviations listed in one line; where some of it is none, that is read on as another line."""
    if not reading.in_head or starts_label(line.text) is not None:
        return False
    line.text = header.take_definitions(reading.header, line.text, line.number, reading.findings)
    if not line.text.strip():
        return True
    taken = explains_abbreviation(line.text, reading.header.terms)
    if taken:
        _keep(reading, line)
    return taken


def section(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Section: Flap (rows, panel), continue from Wall"."""
    key, value, _ = _key(line.text)
    if key != "section":
        return False
    heading = read_section(value, line.span, reading.sections + just(reading), len(reading.header.sizes))
    reading.findings.extend(heading.findings)
    reading.start(worked_as_told(heading.section, value, line.raws[line.number :]))
    return True


def special_stitches(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Special stitches:", with definitions behind it or in the lines after it."""
    word, _, value = line.text.partition(":")
    column, number = len(word) + 1, line.number
    if not reading.in_head or " ".join(word.lower().split()).strip("*_ ") not in header.DEFINING:
        return False
    reading.defining = True
    if (spans := listed(value)) is not None:
        for first, last in spans:
            header.define(reading.header, value[first:last], number, column + first, reading.findings)
    elif value.strip() and re.search(r"[=:(]|\s[-–—]\s", value):
        header.define(reading.header, value, number, column, reading.findings)
    return True


def head_line(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Sizes: S, M, L": a key of the head and its value; stitches, phrases and numbers are defined
    anywhere."""
    key, value, column = _key(line.text)
    if reading.in_head and (sizes := sizes_of_gauge(line.text[: column - 1])):
        header.read_gauge_of_sizes(reading.header, sizes, value, line.number, column, reading.findings)
        return True
    key = header.ALIASES.get(key, key)
    if key not in KEYS or not (reading.in_head or key in ("define", "means", "number")):
        return False
    in_head = reading.in_head
    header.read(reading.header, key, value, line.number, column, reading.findings)
    if in_head:
        reading.active = tuple(range(len(reading.header.sizes)))
        reading.restart()
    return True


def gauge_in_prose(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Gauge is 18 sts and 20 rows to 10 cm"."""
    at = tells_gauge(line.text) if reading.in_head and not starts_label(line.text) else None
    if at is None:
        return False
    header.read(reading.header, "gauge", line.text[at:], line.number, at, reading.findings)
    if at:
        _keep(reading, line)
    return True


def definition(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Scallop: 5 dc in same st", under "Special stitches" or wherever it is one by its words."""
    if not reading.in_head or starts_label(line.text):
        return False
    at = 0 if reading.defining and re.search("[=:]", line.text) else defines(line.text, reading.header.terms)
    if at is None:
        return False
    header.define(reading.header, line.text[at:], line.number, at, reading.findings)
    return True


def size_line(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Sizes M and L only:": the lines after it hold for these."""
    sizes = reading.header.sizes
    if not is_size_line(line.text) and (reading.in_head or not names_sizes(line.text, sizes)):
        return False
    chosen, problems = read_size_line(line.text.rstrip().rstrip(":"), line.number, sizes)
    reading.findings.extend(problems)
    reading.active = chosen or reading.active
    return True


def all_sizes(reading: TextSoFar, line: SourceLine) -> bool:
    """ "All sizes:" with more behind it, which is read on as another line."""
    rest = 0 if reading.in_head else all_sizes_then(line.text)
    if rest and starts_label(line.text[rest:]) is None:
        reading.active = tuple(range(len(reading.header.sizes)))
        line.text = " " * rest + line.text[rest:]
    return False


def stop_line(reading: TextSoFar, line: SourceLine) -> bool:
    """ "Size S: stop here."; the other sizes go on."""
    done = None if reading.in_head else stops_here(line.text, reading.header.sizes)
    if done is None:
        return False
    reading.add(Prose(line.text.strip(), reading.active, False, line.span), [])
    reading.active = tuple(size for size in reading.active if size not in done) or reading.active
    return True
