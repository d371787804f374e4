"""Rows that are worked again: by which numbers they are called in each size, in which colours, and how often by two
counts."""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.findings import Finding, Repair
from rillstep.core.tree import Again, Line, Num, Row, Section
from rillstep.core.words.asides import keep
from rillstep.core.words.lexicon import ROWS
from rillstep.core.words.numbers import edit_value
from rillstep.core.words.stream import Stream


def called(line: Again, before: Sequence[Line], sections: Sequence[Section], continues: str | None) -> Again:
    """The line with the numbers of its rows in every size.

    before: the lines above it in its section, which goes on from the section of `sections` that is titled `continues`.
    """
    if len(line.sizes) < 2:
        return line
    sources = tuple(_in_every_size(line, number, before, sections, continues) for number in line.sources)
    return line if sources == line.sources else replace(line, sources=sources)


def _in_every_size(
    line: Again, number: Num, before: Sequence[Line], sections: Sequence[Section], continues: str | None
) -> Num:
    first = min(line.sizes)
    one = number.at(first)
    if len(number.parts) > 1 or any(value not in (None, one) for value in number.values):
        return number
    while True:
        row = next((row for row in reversed(before) if _is_called(row, line.kind, one, first)), None)
        if row is not None:
            assert isinstance(row, Row | Again)
            at = one - row.first.at(first)
            own = number.joined(row.first.more(at), [size for size in line.sizes if size in row.sizes])
            return replace(own, span=number.span, parts=number.parts, offset=number.offset)
        title = (continues or "").lower()
        index = next((i for i in range(len(sections) - 1, -1, -1) if sections[i].title.lower() == title), None)
        if continues is None or index is None:
            return number
        before, continues, sections = sections[index].lines, sections[index].continues, sections[:index]


def _is_called(row: Line, kind: str, number: int, size: int) -> bool:
    if not isinstance(row, Row | Again) or row.kind != kind or size not in row.sizes:
        return False
    return row.first.at(size) <= number <= (row.last or row.first).at(size)


_ROWS = (*ROWS, "r")
_OF_COLOURS = (
    "working", "alternating", "changing", "using", "in", "with", "of", "colour", "colours", "color", "colors",
    "and", "then", "each", "every", "the", "yarn", "mc", "cc", "stripes",
               "as", "before", "same", "sequence", "order", "between", "to", "carrying", "two", "both", "at", "end",
               "these", *_ROWS)  # fmt: skip


def in_colours(stream: Stream) -> None:
    """ ", working 2 rows in B, 2 rows in C and 2 rows in A": the colours of rows that are repeated, up to how often
    they are."""
    start = stream.at
    if (
        stream.number() is not None
        and stream.word(*_ROWS)
        and stream.word("in", "with", "of")
        and stream.word("colour", "color", "a", "b", "mc", "cc")
    ):
        stream.at = start
        if keeps_colours(stream):  # "4 rows with colour 1 and 2 rows with colour 2"
            return
    stream.at = start
    if stream.word("working", "alternating", "changing", "using", "in") and not stream.sees("pattern"):
        stream.at = start
        if not keeps_colours(stream):
            stream.at = start


def keeps_colours(stream: Stream) -> bool:
    """Words of nothing but colours and how many rows each has, kept; up to "until", or to the end of the clause."""
    start = stream.at
    while (token := stream.peek()) is not None and (
        token.is_word(*_OF_COLOURS)
        or token.kind == "num"
        or token.is_mark(",", "-", "/")
        or (token.kind == "word" and len(token.text) == 1)
    ):
        stream.next()
    if stream.at == start or not (
        token is None or token.is_word("until", "till", "for") or token.is_mark(".", ";", ")")
    ):
        return False
    named = any(
        t.is_word("colour", "colours", "color", "colors", "mc", "cc", "yarn", "stripes")
        or (t.kind == "word" and len(t.text) == 1)
        for t in stream.tokens[start : stream.at]
    )
    if named:
        stream.count(start)
        keep(stream, start)
    return named


def ends_otherwise(first: Num, last: Num, sources: Sequence[Num], ends: Num | None, kind: str) -> list[Finding]:
    """ "Repeat Rows 3-5 until there are 61 rows, ending with a Row 5", where that comes to a Row 3."""
    found: list[Finding] = []
    for size, (a, b) in enumerate(zip(first.values, last.values, strict=True)):
        named = ends.values[size] if ends is not None else None
        if ends is None or a is None or b is None or named is None or b < a or not sources:
            continue
        comes = sources[(b - a) % len(sources)].at(size)
        if comes != named:
            message = f"{kind}s {a}-{b} end with {kind} {comes}, not with {kind} {named}."
            repair = Repair(f"Change {named} to {comes}", (edit_value(ends, size, comes),))
            where = size if len(first.values) > 1 else None
            found.append(Finding("rows-otherwise", "error", ends.span, message, where, comes, named, (repair,)))
    return found


def counted_otherwise(first: Num, last: Num, more: Num, rows: int, then: int, kind: str) -> list[Finding]:
    """ "Rnds 4-10: Rep Rnds 2 and 3 three times" are seven by their label, and six. The number may be one of rows, or
    count the rows
    that are repeated as the first time, but it means the same in every size. then: rows worked once more after them."""
    told = {
        size: b - a + 1
        for size, (a, b, n) in enumerate(zip(first.values, last.values, more.values, strict=True))
        if a is not None and b is not None and n is not None
    }
    counted = ((rows, 0), (1, 0), (rows, 1))
    ways = [
        {size: count for size in told if (count := (more.at(size) - less) * each + then) > then}
        for each, less in counted
    ]
    best = max(ways, key=lambda way: sum(way.get(size) == count for size, count in told.items()))
    each, less = counted[ways.index(best)]
    found: list[Finding] = []
    for size, count in told.items():
        expected = best.get(size, 0)
        if count == expected:
            continue
        message = f"{kind}s {first.at(size)}-{last.at(size)} are {count}; what is repeated makes {expected}."
        right = first.at(size) + expected - 1
        repairs: tuple[Repair, ...] = (
            (Repair(f"Change {last.at(size)} to {right}", (edit_value(last, size, right),)),) if last.parts else ()
        )
        if more.parts and not more.source and (count - then) % each == 0:
            times = (count - then) // each + less
            repairs += (Repair(f"Repeat {times} times", (edit_value(more, size, times),)),)
        where = size if len(last.values) > 1 else None
        found.append(Finding("rows-otherwise", "error", last.span, message, where, expected, count, repairs))
    return found


# "R 5" names a row as well.
ROW_WORDS = (*ROWS, "r")


def rows_in_all(stream: Stream) -> Num | None:
    """ "14 (18) rows worked", "16 rows in total": how many there are now."""
    start = stream.at
    stream.word("for")
    told = stream.any_of(
        "you should now have",
        "you should have",
        "you will have",
        "you now have",
        "there are",
        "you have",
        "there should be",
    )
    number = stream.number()
    if (
        number is not None
        and stream.word(*ROW_WORDS)
        and (
            told
            or stream.any_of(
                "worked",
                "in total",
                "total",
                "completed",
                "complete",
                "in all",
                "made",
                "done",
                "altogether",
                "have been worked",
            )
        )
    ):
        return number
    stream.at = start
    return None


def rows_besides(stream: Stream) -> Num | None:
    """ "until you have 72 sts, 9 rounds", "until you have 72 sts and 9 rounds in all": the rows that there are then."""
    start = stream.at
    stream.word("and", "or")
    number = stream.number()
    if number is not None and stream.word(*ROW_WORDS):
        stream.any_of("in total", "in all", "total", "altogether", "worked", "have been worked")
        return number
    stream.at = start
    return None


def rows_in_brackets(stream: Stream) -> Num | None:
    """ "(19 rows)", ": 48 (56) rows", "= 40 rows"."""
    start = stream.at
    if stream.mark("(", "[", ":", "-", "—", "="):
        number = stream.number()
        if number is not None and stream.word(*ROW_WORDS):
            stream.word("total", "worked")
            stream.any_of("in all", "in total")
            stream.mark(")", "]")
            if (token := stream.peek()) is None or token.is_mark(".", ";"):
                return number
    stream.at = start
    return None
