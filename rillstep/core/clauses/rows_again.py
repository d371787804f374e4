"""Rows worked again: "Rep Rnds 7 and 8", "Rep Row 2 until there are 31 rows", "Rep last 2 rows 4 more times"."""

import re
from dataclasses import dataclass
from typing import Literal

from rillstep.core.clauses.label_numbers import ranges
from rillstep.core.clauses.measured import read_until
from rillstep.core.clauses.sources import ROW_WORDS, in_colours, rows_besides, rows_in_all, rows_in_brackets
from rillstep.core.findings import Finding, Span
from rillstep.core.language.match import read
from rillstep.core.reading.places import taken
from rillstep.core.tree import Gesture, Num, Total, Until
from rillstep.core.wordlists import phrase_list
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import STITCH
from rillstep.core.words.stitch_names import stitch_word
from rillstep.core.words.stream import NotUnderstood, Stream, plain_num
from rillstep.core.words.tokens import bracket_end

_NTH = r"(?:\d{1,4}(?:st|nd|rd|th)|second|third|fourth|fifth|sixth|seventh|eighth)"
_START = re.compile(
    r"^\s*(?:(?:rows?|rn?ds?|rounds?)\s+\d+(?:\s*(?:,|-|to|and|&)\s*\d+)*\s+[a-z\d]+\s+more\s+times\b|"
    r"(?:continue\s+(?:to\s+)?|then\s+)?(?:rep(?:eat)?(?:ing)?|rpt|(?:(?:work|do)\s+)?(?:the\s+)?same\s+as|"
    r"(?:work\s+)?(?:as(?:\s+for)?|like)|work(?=\s+(?:(?:rows?|rn?ds?|rounds?)\s+\d|(?:these|"
    r"those|the\s+last|last)\s+\w+\s+(?:rows|rn?ds|rounds)\b)))\s+"
    r"(?:this\s+(?:\d{1,2}[\s-]+)?(?:rows?|rn?ds?|rounds?)\b|(?:the\s+|these\s+|those\s+)?(?:instructions\s+(?:of|"
    r"for)\s+)?(?:(?:last|previous|prev|first)\b|\d{1,2}\s+(?:rows?|rn?ds?|rounds?)\b|"
    r"(?:two|three|four|five|six)\s+(?:rows|rnds|rounds)\b|(?:rows?|rn?ds?|rounds?|"
    r"r)\.?\s*[\d{]|"
    rf"{_NTH}(?:\s*(?:,|-|to|and|&)\s*{_NTH})*\s+(?:[a-z]+\s+)?(?:row|rnd|round|rd)s?\b)))",
    re.IGNORECASE,
)

# How often rows are repeated, in words.
_MOVING = phrase_list(
    "moving to the middle of the loop | slipping to the middle of the loop | moving to the loop | moving "
    "to the sp | slipping to the sp"
)
_LEFT = phrase_list(
    "remain | remains | are left | left | rem | in total | in the row | on your row | in the round | in all"
)
_TIMES = phrase_list(
    "more times | times more | more time | additional times | times | time | x | rows more | rounds more "
    "| rnds more | more rows | more rnds | more rounds | rnds | rows | rounds | more"
)
_DONE = phrase_list(
    "have been worked in total | have been worked in all | are complete | are completed | are done | are "
    "worked | are finished | have been completed | are made | have been worked | in total | total | in "
    "all | completed | done"
)


@dataclass(frozen=True)
class AgainBody:
    """What a repetition says. Exactly one of `until` (rows in all) and `more` (times) is given without a label.

    last_rows: how many of the last rows are meant, where they are not numbered.
    total: rows in all that it states besides. then: a row that is worked once more after them.
    until_sts: stitches that are left when they have been repeated often enough. length: what the piece measures then,
    in mm. ends: which of the rows that are repeated comes last. after: a row, and the totals that are said of it.
    """

    sources: tuple[Num, ...]
    last_rows: Num | None = None
    until: Num | None = None
    more: Num | None = None
    total: Num | None = None
    by_measure: Span | None = None
    rest: int = 0
    then: tuple[Num, ...] = ()
    until_sts: Num | None = None
    length: Until | None = None
    ends: Num | None = None
    after: tuple[Num, tuple[Total, ...]] | None = None


def starts(text: str) -> bool:
    """Does an instruction begin as a repetition of rows?"""
    return _START.match(text) is not None


_WITH_COLOUR = re.compile(
    r"\s{0,3}(?:with|using|in)\s{1,3}(?:yarn\s|colou?r\s)?(?P<colour>[A-Za-z]{1,12}),\s{0,3}(?=rep(?:eat)?\b)",
    re.IGNORECASE,
)


def in_colour(text: str, line: int, start: int, end: int) -> tuple[str, tuple[Gesture, ...]]:
    """ "With CC, rep Rnd 2": the text with the colour blanked, and the change to it; any other text as it is."""
    match = _WITH_COLOUR.match(text, start, end)
    if match is None:
        return text, ()
    name = match["colour"].upper() if len(match["colour"]) <= 2 else match["colour"]
    change = Gesture("change colour", name, span=Span(line, match.start("colour") + 1, match.end("colour") + 1))
    return f"{text[:start]}{' ' * (match.end() - start)}{text[match.end() :]}", (change,)


def read_again(stream: Stream) -> AgainBody:
    """Read it. Raises NotUnderstood."""
    while stream.word(
        "continue",
        "to",
        "then",
        "work",
        "the",
        "rep",
        "repeat",
        "repeating",
        "like",
        "do",
        "as",
        "for",
        "same",
        "instructions",
        "of",
    ):
        pass
    sources: tuple[Num, ...] = ()
    last_rows: Num | None = None
    if stream.word("last", "previous", "prev", "this") or stream.word("these", "those") or _rows_counted(stream):
        last_rows = stream.number() or plain_num(stream, 1)
        stream.mark("-")
        if not stream.word(*ROW_WORDS):
            raise NotUnderstood(stream.here(), "which rows to repeat is missing")
        _called_a_pattern(stream)
    elif stream.word(*ROW_WORDS):
        stream.mark(".")
        sources = _sources(stream)
    elif (token := stream.peek()) is not None and token.kind == "ordinal":
        sources = _ordinals(stream)
        which, row = stream.peek(), stream.peek(1)
        if which is not None and row is not None and row.is_word(*ROW_WORDS) and which.kind == "word":
            stream.next()  # "as 3rd mesh round"
        stream.word(*ROW_WORDS)
    return read_how_often(stream, sources, last_rows)


def _called_a_pattern(stream: Stream) -> None:
    """ "this 6 row stripe pattern (4 rows A, 2 rows B)": what those rows are called, which is only told."""
    start = stream.at
    while stream.word(
        "stripe", "stripes", "colour", "color", "pattern", "sequence", "repeat", "stitch", "lace", "section"
    ):
        pass
    if stream.at > start and stream.peek() is not None and (end := bracket_end(stream.tokens, stream.at)) is not None:
        begin, inner = stream.at, stream.tokens[stream.at + 1 : end - 1]
        if all(
            t.kind == "num"
            or t.is_mark(",", ":")
            or len(t.text) == 1
            or t.is_word("mc", "cc", "in", "of", "with", "and", "each", "colour", "color", *ROW_WORDS)
            for t in inner
        ):
            stream.at = end
            stream.count(begin)
            keep(stream, begin, bracket=True)


def _rows_counted(stream: Stream) -> bool:
    """ "the 2 rounds": how many of the last ones are meant."""
    token, following = stream.peek(), stream.peek(1)
    return token is not None and token.kind == "num" and following is not None and following.is_word(*ROW_WORDS)


def read_how_often(stream: Stream, sources: tuple[Num, ...], last_rows: Num | None = None) -> AgainBody:
    """How often rows are repeated, or until when: all that is said of it. Raises NotUnderstood."""
    until = more = total = until_sts = None
    then: tuple[Num, ...] = ()
    by_measure: Span | None = None
    length: Until | None = None
    ends: Num | None = None
    after: tuple[Num, tuple[Total, ...]] | None = None
    while stream.peek() is not None:
        start = stream.at
        stream.mark(",", ";", ".")
        begin = stream.at
        in_colours(stream)
        if stream.peek() is None:
            break
        if stream.at > begin:
            continue
        stated = rows_in_all(stream) or rows_in_brackets(stream)
        if stated is not None:
            total = stated
        elif (named := _ends_with(stream, sources)) is not None:
            ends = named or ends
        elif following := _then(stream):
            then = following
        elif (remain := _until_sts(stream)) is not None:
            until_sts = remain
        elif (until_sts or more) is not None and (rows := rows_besides(stream)) is not None:
            total = rows
        elif stream.word("until", "till"):
            until, by_measure, length = _until(stream)
        elif stream.any_of("for a total of", "a total of"):
            total = stream.need_number("rows")
            stream.word(*ROW_WORDS)
        elif (number := _times(stream)) is not None:
            more = number
        elif (told := read(stream, "AfterRow")) is not None:
            after = told
        elif taken(stream, "RowsGrow"):
            message = "By how much these rows grow is not checked here; their total is."
            stream.findings.append(Finding("total-not-checked", "warning", stream.since(start), message))
        elif stream.any_of(*_MOVING):
            stream.any_of("each time", "every time", "at the start")  # as in the row that is repeated
            stream.any_of("without cutting yarn", "without cutting the yarn")
        elif stream.any_of(
            "alternately", "alternating", "in turn", "in sequence", "for pattern", "in pattern", "throughout"
        ):
            pass
        else:
            stream.at = start
            break
    return AgainBody(
        sources, last_rows, until, more, total, by_measure, stream.at, then, until_sts, length, ends, after
    )


def _until_sts(stream: Stream) -> Num | None:
    """ "until 4 (8) sts remain", "until there are 60 sts", "until you have 12 sc"."""
    start = stream.at
    if stream.word("until", "till"):
        stream.any_of("there are", "you have", "only", "you are left with", "a total of")
        stream.word("only")
        number = stream.number()
        if number is not None and (stream.word(*STITCH) or stitch_word(stream) is not None):
            stream.word(*STITCH)
            stream.any_of(*_LEFT)
            stream.any_of("in total", "in the row", "in the round", "in all")
            return number
    stream.at = start
    return None


def _ordinals(stream: Stream) -> tuple[Num, ...]:
    """ "2nd", "2nd and 3rd", "2nd to 5th"."""
    found: list[int] = []
    to = False
    while (token := stream.peek()) is not None and token.kind == "ordinal":
        stream.next()
        stream.count(stream.at - 1)
        number = int(token.text[:-2])
        found += range(found[-1] + 1, number + 1) if to and found[-1] < number < found[-1] + 200 else [number]
        following = stream.peek(1)
        if following is None or following.kind != "ordinal":
            break
        to = stream.mark("-") or stream.word("to", "through")
        if not to and not (stream.word("and") or stream.mark(",", "&")):
            break
    return tuple(plain_num(stream, number) for number in found)


def _ends_with(stream: Stream, sources: tuple[Num, ...]) -> Num | Literal[False] | None:
    """ ", ending with a Row 5": which of the rows that are repeated comes last; False where it is told otherwise than
    by its number ("ending with a WS row"), None for anything else."""
    start = stream.at
    if stream.word("ending", "end") and stream.any_of("with a", "with", "after a", "after", "on a", "on"):
        stream.word("the", "final", "last")
        side = stream.at
        if stream.word("rs", "ws", "right", "wrong") and (stream.word("side") or True) and stream.word(*ROW_WORDS):
            keep(stream, start)
            return False
        stream.at = side
        if stream.word(*ROW_WORDS) and stream.word("of") and stitch_word(stream) is not None:
            return False
        stream.at = side
        if (
            stream.word(*ROW_WORDS)
            and (number := stream.number()) is not None
            and any(number.values == one.values for one in sources)
        ):
            return number
    stream.at = start
    return None


def _then(stream: Stream) -> tuple[Num, ...]:
    """ "..., then Row 2 once more", "..., then Rows 2-8 once"; () for anything else."""
    start = stream.at
    stream.word("and")
    if stream.word("then", "work", "ending"):
        stream.any_of("with a", "with", "work", "rep", "repeat")
        stream.any_of("rep", "repeat")
        if stream.word(*ROW_WORDS) and (token := stream.peek()) is not None and token.kind == "num":
            found = _sources(stream)
            stream.any_of("once more", "one more time", "again", "once")
            return found
    stream.at = start
    return ()


def _sources(stream: Stream) -> tuple[Num, ...]:
    first = stream.need_number("the row to repeat")
    if stream.mark("-", "—") or stream.word("to", "through", "thru"):
        stream.word(*ROW_WORDS)
        last = stream.need_number("the last row to repeat")
        first, last = ranges(stream, first, last)
        low, high = first.values, last.values
        size = stream.context.active[0]
        count = (high[size] or 0) - (low[size] or 0)
        if not 0 < count < 200:
            raise NotUnderstood(stream.here(), "these rows cannot be repeated")
        middle = [Num(tuple(None if v is None else v + k for v in low)) for k in range(1, count)]
        return (first, *middle, last)
    found = [first]
    while True:
        start = stream.at
        if not (stream.mark(",", "&", "+") or stream.word("and")):
            return tuple(found)
        stream.word("and")
        stream.word(*ROW_WORDS)
        number = stream.number()
        token = stream.peek()
        if number is None or (token is not None and token.is_word("times", "time", "more", "x", *ROW_WORDS)):
            stream.at = start
            return tuple(found)
        found.append(number)


def _times(stream: Stream) -> Num | None:
    start = stream.at
    if stream.word("twice"):
        stream.word("more")
        return plain_num(stream, 2)
    if stream.word("once"):
        stream.word("more")
        return plain_num(stream, 1)
    stream.any_of("for the next", "for next", "for", "a further", "another")
    number = stream.number()
    if number is None:
        stream.at = start
        return None
    if stream.any_of(*_TIMES):
        return number
    stream.at = start
    return None


def _until(stream: Stream) -> tuple[Num | None, Span | None, Until | None]:
    """Until how many rows there are; or the words that tell it by a measure, and the length that they name."""
    start = stream.at
    told = stream.at
    while (token := stream.peek()) is not None and token.kind == "word" and stream.at - told < 6:
        if token.is_word("have", "has", "are", "is", "worked"):
            break
        stream.next()
    if not stream.word("have", "has", "are", "is"):
        stream.at = told
    stream.any_of("there are", "you have", "you have worked", "you've worked", "a total of", "total of")
    stream.any_of("a total of", "worked", "completed")
    number = stream.number()
    if number is not None and stream.word(*ROW_WORDS):
        stream.any_of(*_DONE)
        return number, None, None
    stream.at = start
    span = stream.here()
    length = read_until(stream)
    if length is not None:
        return None, length.span, length
    while (token := stream.peek()) is not None and not token.is_mark(".", ";", "—"):
        stream.next()
    stream.count(start)
    keep(stream, start - 1)  # "until it measures 20 cm": said not to be counted
    return None, span.to(stream.tokens[stream.at - 1].span), None
