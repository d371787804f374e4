"""The numbers of a label: "4", "5-9 (11)", "18 (22)-20 (24)", "2 and 3", "8-18/9-21"."""

import re

from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.tree import Num
from rillstep.core.words.numbers import edit_value
from rillstep.core.words.stitch_names import sees_stitch
from rillstep.core.words.stream import Stream, plain_num

_TO = r"\s*(?:[-–]|to|through)\s*"
_PAIR = re.compile(rf"(\d{{1,4}}){_TO}(\d{{1,4}})")
_BY_SLASH = re.compile(rf"\d{{1,4}}{_TO}\d{{1,4}}(?:\s*/\s*\d{{1,4}}{_TO}\d{{1,4}})+")


def label_numbers(stream: Stream) -> tuple[Num, Num | None]:
    """ "4", "5-9 (11)", "18 (22)-20 (24)", "18-20 (22-24)", "2 and 3"."""
    first = stream.need_number("the round or row")
    start = stream.at
    if stream.mark("-") and _instructs(stream):  # "R1 - 6sc in ring"
        stream.at = start
        return first, None
    stream.at = start
    if stream.mark("-", "—") or stream.word("to", "through", "thru"):
        stream.word("r", "rnd", "row", "round")
        stuck = _stuck_number(stream)
        if stuck is not None:
            return ranges(stream, first, stuck)
        token = stream.peek()
        if token is None or token.kind not in ("num", "expr"):
            stream.at = start
            return first, None
        return ranges(
            stream, first, _bare_ranges(stream) or _bare_set(stream) or stream.need_number("the last round or row")
        )
    several = ranges(stream, first, first)
    if several != (first, first):
        return several
    if stream.tokens and stream.peek() is not None and (bare := _bare_set(stream, first)) is not None:
        return bare, None
    if stream.word("and") or stream.mark("&"):
        stream.word("rnd", "row", "round")
        second = stream.need_number("the second round or row")
        stream.findings += _apart(first, second)
        return first, second
    return first, None


def _apart(first: Num, second: Num) -> list[Finding]:
    """ "Rnds 22 and 24": two rounds of which the second does not follow the first."""
    for size, (one, two) in enumerate(zip(first.values, second.values, strict=True)):
        if one is not None and two is not None and two != one + 1:
            message = (
                f"{one} and {two} do not follow each other: a line stands for rounds that do. Write each by itself, or "
                f"a range, “{one}-{two}”."
            )
            repairs = (Repair(f"Change {two} to {one + 1}", (edit_value(second, size, one + 1),)),)
            return [Finding("numbers-apart", "error", second.span, message, None, one + 1, two, repairs)]
    return []


def _instructs(stream: Stream) -> bool:
    """Is the number that comes next one of stitches?"""
    token, following = stream.peek(), stream.peek(1)
    if token is None or token.kind != "num" or following is None or following.kind != "word":
        return False
    start = stream.at
    stream.next()
    stitch = sees_stitch(stream)
    stream.at = start
    return stitch is not None or following.is_word("inc", "dec", "ch", "sts", "st", "chains")


def _bare_set(stream: Stream, first: Num | None = None) -> Num | None:
    """ "17, 21": one number for each size with only commas between, up to the end of the label; `first` was read
    already."""
    start, findings = stream.at, len(stream.findings)
    active = stream.context.active
    numbers = [] if first is None else [first]
    while len(numbers) < len(active):
        if numbers and not stream.mark(","):
            break
        number = stream.number()
        if number is None or len(number.parts) != 1:
            break
        numbers.append(number)
    return _as_set(stream, numbers, start, findings)


def _as_set(stream: Stream, numbers: list[Num], start: int, findings: int) -> Num | None:
    """The numbers as a set, where each size has one and the label ends behind them; else the stream stands at start
    again, with as many findings as it had there."""
    token = stream.peek()
    if len(numbers) == len(stream.context.active) > 1 and token is not None and token.is_mark(":", "."):
        return stream.set_of(numbers)
    del stream.findings[findings:]
    stream.at = start
    return None


def _bare_ranges(stream: Stream) -> Num | None:
    """The ends of "2-15, 2-18, 2-21": a range for each size with only commas between, all of which begin with the
    same row; the first is read already."""
    start, findings = stream.at, len(stream.findings)
    begins = stream.tokens[stream.at - 2]
    ends: list[Num] = []
    while (end := stream.number()) is not None and len(end.parts) == 1:
        ends.append(end)
        if not stream.mark(","):
            break
        again = stream.peek()
        if again is None or again.text != begins.text:
            break
        stream.next()
        if not (stream.mark("-") or stream.word("to")):
            break
    return _as_set(stream, ends, start, findings)


def _stuck_number(stream: Stream) -> Num | None:
    """The 9 of "R6-R9"."""
    token = stream.peek()
    stuck = re.match(r"^(?:r|rnd|row)(\d{1,4})$", token.text) if token is not None and token.kind == "word" else None
    if token is None or stuck is None:
        return None
    stream.next()
    end = token.span.end_column
    return plain_num(stream, int(stuck[1]), Span(token.span.line, end - len(stuck[1]), end))


def slash_ranges(stream: Stream, text: str) -> tuple[Num, Num] | None:
    """ "8-18/9-21": a range for each size; the slash would make a set of the numbers beside it."""
    start = stream.here().column - 1
    match = _BY_SLASH.match(text, start)
    active = stream.context.active
    if match is None or len(pairs := list(_PAIR.finditer(match[0]))) != len(active):
        return None
    line = stream.here().line
    firsts, lasts = (
        [
            plain_num(stream, int(pair[side]), Span(line, start + pair.start(side) + 1, start + pair.end(side) + 1))
            for pair in pairs
        ]
        for side in (1, 2)
    )
    while (token := stream.peek()) is not None and token.span.column - 1 < match.end():
        stream.next()
    return stream.set_of(firsts), stream.set_of(lasts)


def ranges(stream: Stream, first: Num, last: Num) -> tuple[Num, Num]:
    """ "18-20 (22-24)", "8 (10, 12-13)": a range, or one row, for each size."""
    start = stream.at
    firsts, lasts = [first], [last]
    if stream.mark("(", "["):
        while True:
            a = stream.number()
            if a is None:
                break
            b: Num | None = a  # one row in this size
            if stream.mark("-", "—") or stream.word("to", "through", "thru"):
                b = stream.number()
            if b is None:
                break
            firsts.append(a)
            lasts.append(b)
            if stream.mark(")", "]"):
                active = stream.context.active
                if len(firsts) == len(active):
                    return stream.set_of(firsts), stream.set_of(lasts)
                break
            if not stream.mark(",", ";", ":", "/", "|"):
                break
    stream.at = start
    return first, last
