"""One line of the body: a row or round with its label and totals, rows worked again, a set-up line, a check."""

import re
from dataclasses import replace
from functools import lru_cache
from typing import Literal

from rillstep.core.findings import Finding, Span
from rillstep.core.notation import again, labels
from rillstep.core.notation.lexer import plain, tokens_of
from rillstep.core.notation.rewriting import rewritten
from rillstep.core.notation.steps import read_steps
from rillstep.core.notation.stream import Context, NotUnderstood, Stream
from rillstep.core.notation.totals import read_totals, same_totals
from rillstep.core.notation.tree import Again, Check, CheckItem, Gesture, Line, Num, Reading, Row, Setup, Total
from rillstep.core.notation.unlabelled import alone, even_rows, instructs, kind_of, starts_piece, title_ends, whole_row

_COUNTED = r"(?:(?:single|half double|half treble|double|treble|triple)(?: crochets?| trebles?)?|sts?|stitch(?:es)?|sps?|spaces?|scs?|hdcs?|dcs?|trs?|htrs?|dtrs?|chs?|loops?|corners?|total|clusters?|puffs?|groups?|shells?|petals?|picots?|bobbles?|fans?|blocks?|motifs?|increases?|sl\s*sts?|ss)"
_IN_WORDS = r"(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)"
_TOTAL_MARK = re.compile(
    r"(?:—|\s-{1,2}\s|(?<!otal)(?<=[a-z\])]):\s(?=\d[^:,;(\[.]*(?:[(\[][\d\s,:;/|]+[)\]][^:,;(\[.]*)?\.?\s*$)|(?<=[.;:])\s*-\s*(?=\d)|(?<!\w)=(?!\w)|\s=\s|>)(?=[^—]*$)(?=.*[\d{])"
)
_TOTAL_BRACKET = re.compile(
    r"(?P<before>\S)\s*[(\[<{](?P<inside>\s*(?:total\W*)?\d[^()\[\]<>]*(?:[(\[][\d\s,:;/|]*[)\]][^()\[\]<>]*)*)[)\]>}]\s*\.?\s*$",
    re.IGNORECASE,
)
_TOTAL_ALONE = re.compile(r"(?<=[.)\]])\s+(?P<inside>\d{1,5}(?:\s*[(/][\d\s,;/]*\)?)?)\s*\.?\s*$")
_TOTAL_SENTENCE = re.compile(
    rf"(?<=[.;)])\s+(?:you (?:should |will |now )*have\s+|there (?:are|should be|will be)\s+(?:now\s+)?|total:?\s*|you'll have\s+)?(?P<inside>(?:\d[\d\s,()/\[\]:]*|{_IN_WORDS}\s+)[a-z][^.;]*)\.?\s*$",
    re.IGNORECASE,
)
SETUP = re.compile(
    r"^\s*(?:\W*(?:foundation(?: chain| ch)?|set-?up|to begin|begin|start)\s*:\s*)?(?:(?:with|using)\s+(?:[^.;]|\.(?=\d)){1,60}?,\s*)?"
    r"(?:(?:with|using)\s+(?:[^.;,]|\.(?=\d)){1,60}?(?=\s(?:make|ch|chain|work)\s))?\s*(?:make a slip (?:knot|st)(?:\s+and|,)?(?:\s+then)?\s*)?(?:make|work|start with|begin with|crochet)?\s*(?:a\s+(?=ch|foundation))?(?:foundation\s+)?"
    r"(?P<rest>ch(?:ain)?\s*(?:of\s+)?[\d{]|make an adjustable ring|(?:make a |begin with a |start with a )?(?:magic|adjustable) (?:ring|circle)|mr\b|fasten off\b|cut (?:the )?yarn|"
    r"join\b|change to\b|switch to\b|turn\b|rotate\b|do not (?:turn|join|fasten)|with rs\b|place (?:a )?marker|sl st\b|ss\b|\d+\s*(?:\([\d\s,;/]*\)\s*)?(?:ch|chs|chain|chains)\b)",
    re.IGNORECASE,
)


# "R7/R8: ...", "R8-R18/R9-R21: ...": likewise.
_SLASH_WORDS = re.compile(
    r"^\s*(?:r|rnds?|rounds?|rows?)\.?\s*\d+(?:\s*[-–/]\s*(?:r|rnds?|rounds?|rows?)\.?\s*\d+){1,19}(?=\s*(?:[:.)]|[-–]\s))",
    re.IGNORECASE,
)
# "Rnd 1 <tab> sc in each st around <tab> 24": the columns of a table.
_COLUMNS = re.compile(
    r"^(\s*(?:r|rnds?|rounds?|rows?)\.?\s*\d[\d\s(),/–-]*?) ?(?:\t| \|)\s*(?!\d+\s*[|:.])(?=\S)", re.IGNORECASE
)
_LAST_COLUMN = re.compile(r"(?:\t| \|)(?=\s*\d[^\t|]*$)")
# "R7 (8, 9)-R20 (22, 24):": the second word of a range says nothing; it is blanked, so that columns stay true.
_RANGE_WORD = re.compile(
    r"^(\s*(?:r|rnds?|rounds?|rows?)\.?\s*\d[\d\s(),]*[-–—]\s*)(?:r|rnds?|rounds?|rows?)\.?\s*(?=\d)", re.IGNORECASE
)


def _one_word(text: str) -> str:
    """Words for rows after the first one in a label are blanked, so that columns stay true."""
    match = _SLASH_WORDS.match(text)
    if match is None:
        return text
    first = re.match(r"\s*[A-Za-z]+", text)
    start = first.end() if first is not None else 0
    return text[:start] + re.sub(r"[A-Za-z.]", " ", text[start : match.end()]) + text[match.end() :]


def _columns(text: str) -> str:
    """The columns of a table as a label, instructions and a total."""
    match = _COLUMNS.match(text)
    if match is None:
        return text
    text = text[: match.end(1)] + ":" + text[match.end(1) + 1 : match.end()].replace("|", " ") + text[match.end() :]
    return _LAST_COLUMN.sub(lambda m: "—".rjust(len(m[0])), text.rstrip(" |"), count=1)


def _stream(text: str, line: int, context: Context, start: int, end: int) -> Stream:
    """A stream over text[start:end], with true columns."""
    tokens = tokens_of(text[:end], line, context.n_sizes, start, len(context.active))
    return Stream(tokens, context, Span(line, max(1, end), end + 1))


def _problem(problem: NotUnderstood, what: str) -> Finding:
    return Finding(problem.code, "error", problem.span, f"{what}: {problem}." if str(problem) else f"{what}.")


@lru_cache(maxsize=8192)
def read_row(
    text: str, line: int, context: Context, expected: tuple[int, ...]
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """A labelled line, or rows worked again; None when the line is neither.

    Remembered, so that typing in one line does not read the others again.
    """
    text = _RANGE_WORD.sub(lambda m: m[1] + " " * (len(m[0]) - len(m[1])), _columns(_one_word(text)), count=1)
    match = labels.starts(text)
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    if match is None:
        return _unlabelled_again(text, line, context, expected, span) if again.starts(text) else None
    head = _stream(text, line, context, match.end(), len(text))
    label = labels.read_label(head, match, expected, text)
    context = replace(context, kind=label.kind)
    label_span = Span(line, span.column, label.body + 1)
    end, totals, problems, open_total = _split_totals(text, line, context, label.body)
    findings = [*label.findings, *problems]
    if again.starts(text[label.body : end]):
        return _labelled_again(text, line, context, label, (end, totals, findings), (span, label_span))
    body = _stream(text, line, context, label.body, end)
    even = even_rows(tuple(body.tokens), context, body.end) if label.last is None else None
    if even is not None and not body.findings:  # "Next rnds: work 10 rounds even in sc"
        last = _after(label.first, even[1], 1, -1)
        row = Row(
            label.kind,
            label.first,
            last,
            even[2],
            totals,
            context.active,
            label.side,
            span,
            label_span,
            _breaks(findings),
        )
        return (row,), tuple(findings)
    reading, body = _read_body(body, label, totals)
    findings += body.findings
    if not reading.steps and not findings:
        findings.append(Finding("row-empty", "error", span, "Nothing is worked in this line."))
    others = [
        _read_body(_stream(text, line, context, label.body, end), label, totals, choice)[0]
        for choice in range(1, body.choices)
    ]
    if open_total is not None:
        others.append(_read_body(_stream(text, line, context, label.body, open_total[0]), label, open_total[1])[0])
    row = Row(
        label.kind, label.first, label.last, reading.steps, reading.totals, context.active, label.side, span, label_span,
        _breaks(findings), 0, tuple(other for other in others if other != reading),
    )  # fmt: skip
    return (row,), tuple(findings)


def _read_body(body: Stream, label: labels.Label, totals: tuple[Total, ...], choice: int = 0) -> tuple[Reading, Stream]:
    """The instructions of a row, in one of the ways in which they can be read."""
    body.loop, body.choice = label.loop, choice
    steps = read_steps(body)
    if not any(token.is_word("next") for token in body.tokens):
        steps = alone(steps, label.kind)
    return Reading(rewritten(steps, label.kind), same_totals(totals, [*body.totals, *label.totals])), body


def _breaks(findings: list[Finding]) -> bool:
    """Is something in a line not understood, so that what it makes is not known?"""
    return any(finding.severity == "error" for finding in findings)


def _labelled_again(
    text: str, line: int, context: Context, label: labels.Label,
    read: tuple[int, tuple[Total, ...], list[Finding]], spans: tuple[Span, Span],
) -> tuple[tuple[Line, ...], tuple[Finding, ...]]:  # fmt: skip
    end, totals, findings = read
    body = _stream(text, line, context, label.body, end)
    sources: tuple[Num, ...] = ()
    last, until_sts = label.last, None
    try:
        said = again.read_again(body)
        until_sts = said.until_sts
        sources = said.sources or _last_rows(said, label.first)
        if said.then is not None and (not sources or said.then.values != sources[0].values):
            raise NotUnderstood(body.here(), "the row worked once more is not the first of those repeated")
        if last is None and said.until is not None:
            last = said.until
        elif last is None and said.more is not None:
            last = _after(label.first, said.more, len(sources), -1)
        _rest_is_read(body)
    except NotUnderstood as problem:
        findings.append(_problem(problem, "These rows to repeat are not understood"))
    findings += body.findings
    row = Again(
        label.kind,
        label.first,
        last,
        sources,
        same_totals(totals, [*body.totals, *_until_totals(until_sts if last is not None else None)]),
        context.active,
        *spans,
        _breaks(findings),
        until_sts=until_sts if last is None else None,
    )
    return (row,), tuple(findings)


def _until_totals(until_sts: Num | None) -> list[Total]:
    """Where the rows are counted, the stitches that are left after them are a total."""
    return [Total(until_sts, "sts")] if until_sts is not None else []


def _rest_is_read(body: Stream) -> None:
    """What stands after a repetition of rows may only be gestures and totals."""
    read_steps(body)


def _unlabelled_again(
    text: str, line: int, context: Context, expected: tuple[int, ...], span: Span
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    end, totals, findings, _ = _split_totals(text, line, context, 0)
    if re.search(r"\b(?:rows?|rnds?|rounds?)\W*$", text, re.IGNORECASE):
        end, totals, findings = len(text), (), []  # "(19 rows)" counts rows
    body = _stream(text, line, context, 0, end)
    keep = set(context.active)
    first = Num(tuple(v if i in keep else None for i, v in enumerate(expected)))
    try:
        said = again.read_again(body)
    except NotUnderstood as problem:
        return (), (_problem(problem, "These rows to repeat are not understood"),)
    sources = said.sources or _last_rows(said, first)
    kind: Literal["Row", "Rnd"] = "Row" if re.search(r"\brows?\b", text, re.IGNORECASE) else "Rnd"
    last: Num | None = None
    if said.until is not None:
        last = said.until
    elif said.more is not None:
        last = _after(first, said.more, len(sources), -1)
    elif said.total is not None:
        last = said.total
    elif said.by_measure is not None:
        message = "How many rows this makes is not said as a number; say “until there are … rows” to have it proved."
        findings.append(Finding("rows-not-counted", "warning", said.by_measure, message))
    elif said.until_sts is None:
        last = _after(first, Num(tuple(None if v is None else 1 for v in first.values)), len(sources), -1)
    read_steps(body)
    findings += body.findings
    broken = any(f.severity == "error" for f in findings)
    until_sts = said.until_sts if last is None else None
    counted = [*body.totals, *_until_totals(said.until_sts if last is not None else None)]
    row = Again(
        kind,
        first,
        last,
        sources,
        same_totals(totals, counted),
        context.active,
        span,
        span,
        broken,
        until_sts=until_sts,
    )
    lines: tuple[Line, ...] = (row,)
    if said.then is not None and last is not None:
        again_ = replace(
            row,
            first=_after(last, Num(tuple(None if v is None else 1 for v in last.values)), 1, 0),
            last=None,
            sources=(said.then,),
        )
        lines = (replace(row, totals=()), again_)
    if said.total is not None and (said.more is not None or said.then is not None):
        what = "rows" if kind == "Row" else "rnds"
        lines = (*lines, Check((CheckItem(what, said.total),), context.active, replace(span, line=line)))  # type: ignore[arg-type]
    return lines, tuple(findings)


def _after(first: Num, more: Num, rows: int, less: int) -> Num:
    """The last row, when from `first` on so many repeats of `rows` rows are worked."""
    pairs = zip(first.values, more.values, strict=True)
    return Num(tuple(None if a is None or b is None else a + b * max(1, rows) + less for a, b in pairs))


def _last_rows(said: again.AgainBody, first: Num) -> tuple[Num, ...]:
    if said.last_rows is None:
        return ()
    count = next(v for v in said.last_rows.values if v is not None)
    return tuple(Num(tuple(None if v is None else v - k for v in first.values)) for k in range(min(count, 200), 0, -1))


@lru_cache(maxsize=2048)
def read_unlabelled(
    text: str, line: int, context: Context, expected: tuple[int, ...], anew: int
) -> tuple[Row, tuple[Finding, ...], int] | None:
    """A row without a label, where a line is that; None for any other. anew: the number of a row that begins a piece.

    The last of the answer is the column (0-based) at which it begins, after a title of its own.
    """
    start = title_ends(text)
    end, totals, problems, _ = _split_totals(text, line, context, start)
    stream = _stream(text, line, context, start, end)
    span = Span(line, start + 1, len(text) + 1)
    coming = Num(tuple(v if i in set(context.active) else None for i, v in enumerate(expected)))
    even = even_rows(tuple(stream.tokens), context, stream.end)
    if even is not None:
        kind, many, steps = even
        last = _after(coming, many, 1, -1)
        return Row(kind, coming, last, steps, totals, context.active, None, span, span), tuple(problems), start  # type: ignore[arg-type]
    if not instructs(text):
        return None
    steps = read_steps(stream)
    totals = same_totals(totals, stream.totals)
    if stream.findings or problems or not whole_row(steps, totals):
        return None
    kind = kind_of(steps, context.kind)
    first = coming
    if starts_piece(steps):
        first = Num(tuple(None if v is None else anew for v in coming.values))
    row = Row(kind, first, None, rewritten(steps, kind), totals, context.active, None, span, span)  # type: ignore[arg-type]
    return row, (), start


@lru_cache(maxsize=2048)
def read_setup(text: str, line: int, context: Context) -> tuple[Setup, tuple[Finding, ...]] | None:
    """A set-up line such as "Ch 31 (37, 43)."; None when it is none."""
    match = SETUP.match(text)
    if match is None:
        return None
    stream = _stream(text, line, context, match.start("rest"), len(text))
    steps = read_steps(stream)
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    told = bool(stream.findings) or any(isinstance(step, Gesture) and step.kind == "aside" for step in steps)
    if told and not re.match(r"ch(ain)?\b", match["rest"], re.IGNORECASE):
        return None
    if not steps or starts_piece(steps):
        return None
    return Setup(steps, context.active, span, bool(stream.findings)), tuple(stream.findings)


Stated = tuple[int, tuple[Total, ...]]


def _split_totals(
    text: str, line: int, context: Context, start: int
) -> tuple[int, tuple[Total, ...], list[Finding], Stated | None]:
    """Where the instructions end, the totals stated after them, and what is wrong with these.

    The last is another (end, totals) where a bracket may be one or the other: in two sizes "x 6 (12)" is a set, or six times
    and twelve in all.
    """
    clean = plain(text)
    bracket = _TOTAL_BRACKET.search(clean, start)
    mark = _last_mark(clean, start)
    sentence = _TOTAL_SENTENCE.search(clean, start)
    other: Stated | None = None
    if bracket is not None:
        stated = (bracket.start("inside"), bracket.end("inside"))
        if _is_total(clean, line, context, bracket):
            return bracket.end("before"), *_read(text, line, context, *stated), None
        if re.fullmatch(r"\s*\d+\s*", bracket["inside"]) and bracket["before"].isdigit():
            other = (bracket.end("before"), _read(text, line, context, *stated)[0])
    if (
        mark is not None
        and sentence is not None
        and sentence.start() > mark.start()
        and _counts_only(sentence["inside"], context)
    ):
        mark = None  # "repeat rows 2 - 5; 21 sts": the dash is that of a range
    if mark is not None and re.search(r"[\d{]", clean[mark.end() :]) and not re.match(r"\s*[a-z]", clean[mark.end() :]):
        return mark.start(), *_read(text, line, context, mark.end(), len(text)), None
    alone_ = _TOTAL_ALONE.search(clean, start)
    if alone_ is not None and (
        bracket is None or bracket.start("inside") > alone_.start("inside")
    ):  # "(1 sc, 1 inc) around. 18"
        return alone_.start(), *_read(text, line, context, alone_.start("inside"), alone_.end("inside")), None
    if sentence is not None and _counts_only(sentence["inside"], context):
        return sentence.start(), *_read(text, line, context, sentence.start("inside"), sentence.end("inside")), None
    return len(text), (), [], other


def _counts_only(inside: str, context: Context) -> bool:
    """Is a sentence a total and nothing else?"""
    if inside.count("(") != inside.count(")"):
        return False  # it begins within a set: "(48; 56) sts"
    if re.search(r"\b(?:in|next|each|around|join|across)\b", inside.replace("in total", "").replace("in all", "")):
        return False
    own = any(re.search(rf"\b{re.escape(words[0])}", inside, re.IGNORECASE) for _, words in context.specials)
    return own or re.search(rf"\b{_COUNTED}\b", inside, re.IGNORECASE) is not None


def _last_mark(text: str, start: int) -> re.Match[str] | None:
    found = None
    for match in _TOTAL_MARK.finditer(text, start):
        found = match
    return found


def _is_total(text: str, line: int, context: Context, bracket: re.Match[str]) -> bool:
    """Bare numbers in brackets are a total when they are one number for each size; else they must say what they count."""
    inside = bracket["inside"]
    numbers = re.findall(r"\d+", inside)
    if re.search(rf"\b{_COUNTED}\b", inside, re.IGNORECASE):
        return not re.search(
            r"\b(?:in|next|each|ch \d+[,;])\b", re.sub(r"\bin total\b|\bin all\b", "", inside), re.IGNORECASE
        )
    if re.search(r"[a-z]", re.sub(r"total", "", inside, flags=re.IGNORECASE), re.IGNORECASE):
        return any(
            re.search(rf"\b{re.escape(' '.join(words))}", inside, re.IGNORECASE) for _, words in context.specials
        )
    after_number = text[: bracket.start("inside") - 1].rstrip()[-1:].isdigit()  # "12 (15, 18)" is a set
    if not after_number:
        return len(numbers) in (1, len(context.active))
    before = re.search(r"(\d+)\s*$", text[: bracket.start("inside") - 1].rstrip())
    repeats = int(before[1]) if before is not None else 0
    far = len(numbers) == 1 and int(numbers[0]) > 3 * repeats  # "x 6 (42)" is no set: sizes do not differ so much
    return len(numbers) == 1 and (len(context.active) != 2 or far)


def _read(text: str, line: int, context: Context, first: int, last: int) -> tuple[tuple[Total, ...], list[Finding]]:
    stream = _stream(text, line, context, first, last)
    try:
        return tuple(read_totals(stream)), stream.findings
    except NotUnderstood as problem:
        return (), [_problem(problem, "This total is not understood")]


@lru_cache(maxsize=512)
def read_rows_in_all(text: str, line: int, context: Context) -> Check | None:
    """ "14 (18) rows worked." as a line of its own: a check; None for any other line."""
    stream = _stream(text, line, context, 0, len(text))
    try:
        number = again.rows_in_all(stream)
    except NotUnderstood:
        return None
    if number is None or stream.findings or any(not token.is_mark(".") for token in stream.tokens[stream.at :]):
        return None
    what = "rows" if re.search(r"\brows?\b", text, re.IGNORECASE) else "rnds"
    return Check((CheckItem(what, number),), context.active, Span(line, 1, len(text) + 1))  # type: ignore[arg-type]


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
