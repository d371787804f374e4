"""One line of the body: a row or round with its label and totals, a set-up line, a check."""

import re
from functools import lru_cache

from rillstep.core.findings import Finding, Span
from rillstep.core.notation.lexer import tokens_of
from rillstep.core.notation.steps import read_steps
from rillstep.core.notation.stream import Context, NotUnderstood, Stream
from rillstep.core.notation.tree import Check, CheckItem, Num, Row, Setup, Total
from rillstep.core.stitches import stitch_words

_LABEL = re.compile(r"^\s*(?P<word>rnds?|rounds?|rows?|r)\.?\s*(?=[\d{])", re.IGNORECASE)
_TOTAL_MARK = re.compile(r"(?:—|\s[-–]\s|(?<!\w)=(?!\w)|\s=\s)(?=[^—]*$)")
_TOTAL_BRACKET = re.compile(
    r"\((?=\d)(?P<inside>(?:[^()]|\([\d\s,]*\))*\b(?:sts?|stitch(?:es)?|sps?)\s*)\)\s*\.?\s*$", re.IGNORECASE
)
_SETUP = re.compile(r"^\s*(ch\s*[\d{]|chain\s*[\d{]|make an adjustable ring|fasten off\b)", re.IGNORECASE)


def _stream(text: str, line: int, context: Context, start: int, end: int) -> Stream:
    """A stream over text[start:end], with true columns."""
    tokens = tokens_of(text[:end], line, context.n_sizes, start)
    return Stream(tokens, context, Span(line, max(1, end), end + 1))


def _problem(problem: NotUnderstood, what: str) -> Finding:
    return Finding(problem.code, "error", problem.span, f"{what}: {problem}." if str(problem) else f"{what}.")


@lru_cache(maxsize=4096)
def read_row(text: str, line: int, context: Context) -> tuple[Row, tuple[Finding, ...]] | None:
    """A labelled line; None when the line does not start with a label.

    Remembered, so that typing in one line does not read the others again.
    """
    label = _LABEL.match(text)
    colon = text.find(":")
    if label is None or colon < 0:
        return None
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    stream = _stream(text, line, context, label.end(), colon)
    findings: list[Finding] = []
    everywhere = Num(tuple(1 if i in context.active else None for i in range(context.n_sizes)))
    first, last, side = everywhere, None, None
    try:
        first = stream.need_number("the round or row")
        if stream.mark("-") or stream.word("to"):
            last = stream.need_number("the last round or row")
        if stream.mark("("):
            side = stream.next().text.upper()
            stream.mark(")")
        if stream.peek() is not None:
            raise NotUnderstood(stream.here(), "only numbers stand between “Rnd” and the colon")
    except NotUnderstood as problem:
        findings.append(_problem(problem, "This label is not understood"))
    findings += stream.findings
    end, totals, total_findings = _read_totals(text, line, context, colon + 1)
    body = _stream(text, line, context, colon + 1, end)
    steps = read_steps(body)
    if not steps and not body.findings:
        findings.append(Finding("row-empty", "error", span, "Nothing is worked in this line."))
    findings += body.findings + total_findings
    kind = "Row" if label["word"].lower().startswith("row") else "Rnd"
    label_span = Span(line, span.column, colon + 1)
    row = Row(kind, first, last, steps, totals, context.active, side, span, label_span, bool(findings))  # type: ignore[arg-type]
    return row, tuple(findings)


@lru_cache(maxsize=1024)
def read_setup(text: str, line: int, context: Context) -> tuple[Setup, tuple[Finding, ...]] | None:
    """A set-up line such as "Ch 31 (37, 43)."; None when it is none."""
    if not _SETUP.match(text):
        return None
    stream = _stream(text, line, context, 0, len(text))
    steps = read_steps(stream)
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    return Setup(steps, context.active, span, bool(stream.findings)), tuple(stream.findings)


def _read_totals(text: str, line: int, context: Context, start: int) -> tuple[int, tuple[Total, ...], list[Finding]]:
    """Where the instructions end, and the totals stated after them."""
    bracket = _TOTAL_BRACKET.search(text, start)
    mark = _TOTAL_MARK.search(text, start)
    if bracket is not None and (mark is None or mark.start() < bracket.start()):
        end, first, last = bracket.start(), bracket.start("inside"), bracket.end("inside")
    elif mark is not None:
        end, first, last = mark.start(), mark.end(), len(text)
    else:
        return len(text), (), []
    stream = _stream(text, line, context, first, last)
    totals: list[Total] = []
    try:
        while stream.peek() is not None:
            if stream.mark(",", ".", ";", "(", ")") or stream.word("and"):
                continue
            totals.append(_read_total(stream))
    except NotUnderstood as problem:
        return end, tuple(totals), [_problem(problem, "This total is not understood")]
    return end, tuple(totals), stream.findings


def _read_total(stream: Stream) -> Total:
    count = stream.need_number("stitches")
    if stream.word("st", "sts", "stitch", "stitches"):
        return Total(count, "sts")
    if stream.word("ch", "chain"):
        stream.mark("-")
        length = stream.need_number("chains in the space")
        stream.mark("-")
        if not stream.word("sp", "sps", "space", "spaces"):
            raise NotUnderstood(stream.here(), "“sps” is missing")
        return Total(count, "sp", length)
    token = stream.peek()
    stitch = stitch_words(stream.context.terms).get(token.text) if token else None
    if token is None or stitch is None:
        raise NotUnderstood(stream.here(), "what is counted is missing, such as “sts”")
    stream.at += 1
    return Total(count, stitch)


def read_check(text: str, line: int, context: Context, start: int | None = None) -> tuple[Check, list[Finding]]:
    """ "Check: 30 (34) rnds; 72 (88) sts; 24.0 (29.3) cm wide." """
    begin = text.index(":") + 1 if start is None else start
    stream = _stream(text, line, context, begin, len(text))
    items: list[CheckItem] = []
    findings: list[Finding] = []
    while (token := stream.peek()) is not None:
        if stream.mark(";", ",", "."):
            continue
        try:
            items.append(_read_check_item(stream))
        except NotUnderstood as problem:
            findings.append(_problem(problem, "This check is not understood"))
            while (token := stream.peek()) is not None and not token.is_mark(";"):
                stream.at += 1
    span = Span(line, begin + 1 if start else 1, len(text) + 1)
    return Check(tuple(items), context.active, span), findings + stream.findings


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
