"""Statements about the work so far: "Check: 30 (34) rnds; 24.0 (29.3) cm wide.", "14 (18) rows worked."."""

import re

from rillstep.core.clauses.sources import rows_in_all
from rillstep.core.findings import Finding, Span
from rillstep.core.memory import remember
from rillstep.core.tree import Check, CheckItem
from rillstep.core.words.stream import Context, NotUnderstood, Stream, plain_num, problem_of, stream_over


@remember(512)
def read_rows_in_all(text: str, line: int, context: Context) -> Check | None:
    """ "14 (18) rows worked." as a line of its own: a check; None for any other line."""
    stream = stream_over(text, line, context, 0, len(text))
    try:
        number = rows_in_all(stream)
    except NotUnderstood:
        return None
    if number is None or stream.findings or any(not token.is_mark(".") for token in stream.tokens[stream.at :]):
        return None
    what = "rows" if re.search(r"\brows?\b", text, re.IGNORECASE) else "rnds"
    return Check((CheckItem(what, number),), context.active, Span(line, 1, len(text) + 1))  # type: ignore[arg-type]


def read_check(text: str, line: int, context: Context, start: int | None = None) -> tuple[Check, list[Finding]]:
    """ "Check: 30 (34) rnds; 72 (88) sts; 24.0 (29.3) cm wide." """
    begin = text.index(":") + 1 if start is None else start
    stream = stream_over(text, line, context, begin, len(text))
    items: list[CheckItem] = []
    findings: list[Finding] = []
    while (token := stream.peek()) is not None:
        if stream.mark(";", ",", "."):
            continue
        try:
            items.append(_read_check_item(stream))
        except NotUnderstood as problem:
            findings.append(problem_of(problem, "This check is not understood"))
            while (token := stream.peek()) is not None and not token.is_mark(";"):
                stream.next()
    span = Span(line, begin + 1 if start else 1, len(text) + 1)
    return Check(tuple(items), context.active, span), findings + stream.findings


_FOLDED = ("front", "back", "bottom", "flap", "top")


def read_fold(text: str, line: int, context: Context) -> tuple[Check, list[Finding]]:
    """ "Fold: front 30 (34) rows, back 30 (34) rows, flap 14 rows.", "Fold: in half." """
    stream = stream_over(text, line, context, text.index(":") + 1, len(text))
    items: list[CheckItem] = []
    findings: list[Finding] = []
    try:
        if stream.any_of("in half"):
            items.append(CheckItem("half", plain_num(stream, 2)))
        while (token := stream.peek()) is not None:
            if stream.mark(",", ";", ".") or stream.word("and", "then", "the"):
                continue
            if not stream.word(*_FOLDED):
                raise NotUnderstood(token.span, "each part is named: front, back, bottom, flap, top")
            items.append(CheckItem(token.text, stream.need_number("rows")))  # type: ignore[arg-type]
            stream.word("rows", "row")
        if not items:
            raise NotUnderstood(stream.here(), "say the rows of each part, such as “front 30 rows, back 30 rows”")
    except NotUnderstood as problem:
        findings.append(problem_of(problem, "This fold is not understood"))
    return Check(tuple(items), context.active, Span(line, 1, len(text) + 1), True), findings + stream.findings


def _read_check_item(stream: Stream) -> CheckItem:
    token = stream.next()
    if token.kind != "num":
        raise NotUnderstood(token.span, "a number is missing here")
    if stream.word("rnds", "rnd", "rounds"):
        return CheckItem("rnds", stream.as_num(token))
    if stream.word("rows", "row"):
        return CheckItem("rows", stream.as_num(token))
    if stream.word("sts", "st"):
        return CheckItem("sts", stream.as_num(token))
    if stream.word("cm", "in"):
        for word in ("wide", "high", "deep", "drop"):
            if stream.word(word):
                return CheckItem(word, stream.as_decimals(token))
    raise NotUnderstood(stream.here(), "what is counted or measured is missing (rnds, sts, cm wide, cm high)")
