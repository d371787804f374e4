"""Pieces made like another: "Back: work as for Front to the end of Row 34 (42).", "Make a second one in the same
way.", "Make 2."."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from rillstep.core.findings import Span
from rillstep.core.tree import Again, Gesture, Line, Num, Prose, Row, Section, Setup
from rillstep.core.words.stream import Context, NotUnderstood, Stream
from rillstep.core.words.tokens import plain, tokens_of

_LIKE = re.compile(
    r"^\s*(?:(?P<title>[A-Za-z][\w' ]{0,40}):\s*)?(?:(?:work|make|crochet|worked|made|follow|"
    r"repeat)\s+)?(?:this\s+(?:piece|panel)\s+)?(?:exactly\s+|just\s+)?"
    r"(?:the\s+same\s+(?:way\s+)?as(?:\s+for)?|same\s+as(?:\s+for)?|as\s+(?:given\s+|instructed\s+)?for|"
    r"like|as|(?:the\s+)?instructions\s+(?:of|for))\s+(?:the\s+)?(?P<rest>[A-Za-z].*)$",
    re.IGNORECASE,
)
# "Repeat rounds 1 to 6 (8)" where a piece begins: those of the one before.
_FROM_ONE = re.compile(
    r"^\s*(?:repeat|rep|work|make|crochet|follow)\s+(?:rows?|rn?ds?|rounds?)\s+1\s{0,3}(?:[-–]|"
    r"to|through|thru)\s{0,3}(?=\d)",
    re.IGNORECASE,
)
_UP_TO = re.compile(
    r"(?:,?\s{0,3}(?:up\s+)?(?:to|until|through|ending\s+after|finishing\s+after))\s+(?:the\s+)?(?:end\s+of\s+|"
    r"and\s+including\s+)?(?:rows?|rn?ds?|rounds?)\s+(?=\d)",
    re.IGNORECASE,
)
_MADE = re.compile(
    r"^\s*(?:make|work|crochet|repeat)\s+(?:(?P<number>\d{1,2}(?:\s*\(\d{1,2}(?:,\s*\d{1,2})*\))?"
    r"|two|three|four|six|eight)(?:\s+(?:alike|"
    r"the\s+same|of\s+these|in\s+total|pieces|times))?"
    r"|(?P<again>(?:this\s+|these\s+|the\s+same\s+|all\s+)?(?:steps\s+|instructions\s+)?(?:for|"
    r"on|with|along)\s+(?:the\s+)?(?:other|second|opposite|back|front|next|remaining)(?:\s+[a-z]+){0,3})"
    r"|(?P<more>(?:for\s+|to\s+make\s+)?(?:the\s+|a\s+)?(?:second|other)|another|one\s+more)(?:\s+[a-z]+){0,2}(?:\s+("
    r"?:in\s+the\s+same\s+way|the\s+same\s+way|the\s+same|exactly\s+the\s+same|in\s+the\s+same\s+manner|"
    r"as\s+the\s+first|like\s+(?:this|the\s+first)))?)"
    r"\s*[.!]?\s*$",
    re.IGNORECASE,
)
_WORDS = {"two": 2, "three": 3, "four": 4, "six": 6, "eight": 8}


@dataclass(frozen=True)
class Like:
    """A piece that is worked as another one: its own title ("" where none is given), that one, and its lines as far
    as they hold."""

    title: str
    source: Section
    lines: tuple[Line, ...]


def worked_like(text: str, line: int, before: Sequence[Section], context: Context) -> Like | None:
    """What a line says of a piece worked as an earlier one; None for any other line."""
    if (from_one := _FROM_ONE.match(text)) is not None:
        source = next((s for s in reversed(before) if s.continues is None and _counts_from_one(s)), None)
        return _copied(text, line, "", source, (from_one.end(), True), context) if source is not None else None
    match = _LIKE.match(text)
    if match is None:
        return None
    source = _named(match["rest"], before)
    length = len(source.title) if source is not None else 0
    if source is None and (short := _named_shortly(match["rest"], before)) is not None:
        source, length = short
    if source is None or (match["title"] or "").lower() == source.title.lower():
        return None
    start = match.start("rest") + length
    up_to = _UP_TO.match(text, start)
    at = (start, False) if up_to is None else (up_to.end(), True)
    return _copied(text, line, (match["title"] or "").strip(), source, at, context)


def _counts_from_one(section: Section) -> bool:
    first = next((one for one in section.lines if isinstance(one, Row)), None)
    return first is not None and first.first.is_always(1)


def _copied(text: str, line: int, title: str, source: Section, at: tuple[int, bool], context: Context) -> Like | None:
    """The lines of a piece, with what is said after it; at: where that begins, and whether the number of the last row
    does."""
    rest, numbered = at
    lines: tuple[Line, ...] = tuple(replace(one) for one in source.lines)
    if numbered:
        tokens = tokens_of(text, line, context.n_sizes, rest, len(context.active))
        stream = Stream(tokens, context, Span(line, 1, 1))
        try:
            last = stream.need_number("the last row")
        except NotUnderstood:
            return None
        if stream.findings:
            return None
        lines = _until(lines, last)
        rest = stream.tokens[stream.at - 1].span.end_column - 1
    words = text[rest:].strip(" .,;")
    goes_on = re.search(r"\b(?:do not|don't|without) fasten", plain(words), re.IGNORECASE) is not None
    if goes_on and lines and isinstance(lines[-1], Setup) and lines[-1].gestures == {"fasten off"}:
        lines = lines[:-1]
    if goes_on and lines and isinstance(lines[-1], Row):
        kept = tuple(s for s in lines[-1].steps if not (isinstance(s, Gesture) and s.kind == "fasten off"))
        lines = (*lines[:-1], replace(lines[-1], steps=kept))
    first, _, others = words.partition(" ")
    if words := others.lstrip() if first.lower() in ("but", "and") else words:
        lines = (
            *lines,
            Prose(words[0].upper() + words[1:] + ".", context.active, span=Span(line, rest + 1, len(text) + 1)),
        )
    return Like(title, source, lines)


def rows_like(text: str, first: Num, last: Num | None, before: Sequence[Section]) -> tuple[Line, ...]:
    """The rows of "Rows 2-7 (9): as first tab": those of an earlier piece with the same numbers; () where none is
    named so.

    text: what stands after the label. first, last: the numbers of the label.
    """
    match = _LIKE.match(text)
    if match is None or match["title"]:
        return ()
    rest = match["rest"].strip(" .")
    source = _named(rest, before) or next((s for s in before if s.lines and _is_short_for(rest, s.title)), None)
    if source is None:
        return ()
    lines = (line for line in _until(source.lines, last or first) if isinstance(line, Row | Again))
    return tuple(
        replace(line)
        for line in lines
        if all((first.values[i] or 0) <= line.first.at(i) for i in line.sizes if first.values[i] is not None)
    )


def _is_short_for(rest: str, title: str) -> bool:
    """ "first tab" for "First handle tab": words of a title in their order, of which the first and the last are
    given."""
    words, whole = rest.lower().split(), title.lower().split()
    at = iter(whole)
    return len(words) > 1 and (words[0], words[-1]) == (whole[0], whole[-1]) and all(word in at for word in words)


def _named(rest: str, before: Sequence[Section]) -> Section | None:
    """The section that some words begin with, the longest title first."""
    by_length = sorted((s for s in before if s.title and s.lines), key=lambda s: -len(s.title))
    for section in by_length:
        if re.match(rf"{re.escape(section.title)}\b", rest, re.IGNORECASE):
            return section
    return None


def _named_shortly(rest: str, before: Sequence[Section]) -> tuple[Section, int] | None:
    """ "the first one, but don't fasten off": a section whose title begins so, and how many characters name it."""
    match = re.match(
        r"(?P<which>first|left|front|top)(?:\s+(?:one|piece|side|strap|handle|tab))?\b", rest, re.IGNORECASE
    )
    if match is None:
        return None
    which = match["which"].lower()
    found = next((s for s in before if s.lines and s.title.lower().startswith(f"{which} ")), None)
    return (found, match.end()) if found is not None else None


def _until(lines: tuple[Line, ...], last: Num) -> tuple[Line, ...]:
    """The lines up to a row, in each size."""
    kept: list[Line] = []
    for line in lines:
        if isinstance(line, Row | Again):
            sizes = tuple(i for i in line.sizes if line.first.at(i) <= last.at(i))
            if not sizes:
                break
            if line.last is not None:
                sooner = [i for i in line.sizes if last.at(i) <= line.last.at(i)]
                ends = line.last.joined(last, sooner)
                here = line.last if ends == line.last else last
                line = replace(line, last=replace(here, values=ends.values, forms=ends.forms))
            line = line if sizes == line.sizes else replace(line, sizes=sizes)
        kept.append(line)
    return tuple(kept)


def made_so_often(text: str, so_far: int) -> tuple[int, ...] | None:
    """How often a piece is made, once or for each size, when that is all that a line says; None for any other line."""
    match = _MADE.match(text)
    if match is None:
        return None
    if match["number"]:
        word = _WORDS.get(match["number"].lower())
        return (word,) if word else tuple(int(number) for number in re.findall(r"\d+", match["number"]))
    return (so_far + 1,)
