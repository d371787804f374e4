"""One line of the body: a row or round with its label and totals, rows worked again, a set-up line, a check."""

import re
from dataclasses import replace
from typing import Any, Literal

from rillstep.core.clauses import labels
from rillstep.core.clauses.measured import not_counted, open_label, split_until
from rillstep.core.clauses.named import named_in
from rillstep.core.clauses.steps import read_steps
from rillstep.core.findings import NOT_KNOWN, Finding, Span
from rillstep.core.memory import remember
from rillstep.core.notation import onward, rows_again
from rillstep.core.notation.edgings import as_note, is_edging, read_edging
from rillstep.core.notation.lines import usual_form
from rillstep.core.notation.rewriting import around_chain, in_first_chain, rewritten
from rillstep.core.notation.sources import counted_otherwise, ends_otherwise
from rillstep.core.notation.unlabelled import alone, even_rows, instructs, kind_of, starts_piece, title_ends, whole_row
from rillstep.core.reading.named_places import STITCHES
from rillstep.core.reading.round_joins import joined_in, with_space
from rillstep.core.reading.stated_totals import same_totals, split_totals
from rillstep.core.tree import (
    Again,
    Chain,
    Check,
    CheckItem,
    Every,
    Gesture,
    Kept,
    Line,
    Next,
    Num,
    Prose,
    Reading,
    Row,
    Step,
    Total,
    Work,
)
from rillstep.core.tree.leaves import Coming, coming
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.stream import FIRST, Choice, Context, NotUnderstood, Stream, problem_of, stream_over, uncounted


@remember(8192)
def read_row(
    text: str, line: int, context: Context, expected: Coming
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """A labelled line, or rows worked again; None when the line is neither.

    Remembered, so that typing in one line does not read the others again.
    """
    text = open_label(usual_form(text))
    match = labels.starts(text)
    span = Span(line, len(text) - len(text.lstrip()) + 1, len(text) + 1)
    if match is None:
        if onward.starts(text):
            return _onward(text, line, context, expected, span)
        return _unlabelled_again(text, line, context, expected, span) if rows_again.starts(text) else None
    label = read_label(text, line, context, match, expected)
    context = replace(context, kind=label.kind)
    label_span = Span(line, span.column, label.body + 1)
    at_end, open_total = split_totals(text, line, context, label.body)
    end, totals = at_end.end, at_end.totals
    findings = [*label.findings, *at_end.findings]
    text, colour = rows_again.in_colour(text, line, label.body, end)
    if not rows_again.starts(text[label.body : end]):
        text, until = split_until(text, line, context, label.body, end)
        findings += not_counted(until, label.last)
    if rows_again.starts(text[label.body : end]):
        return _labelled_again(text, line, context, label, (end, totals, findings), (span, label_span), colour)
    whole = _told_whole(text, line, context, label, end)
    if isinstance(whole, Finding):
        return (), (*findings, whole)
    if whole is not None:
        last, steps, until_sts, kept = whole
        counted = _until_totals(until_sts if last is not None else None)
        row = Row(
            label.kind, label.first, last, steps, same_totals(totals, counted), context.active, label.side, span,
            label_span,
            _breaks(findings), until_sts=until_sts if last is None else None, kept=kept, name=label.name, until=until,
        )  # fmt: skip
        return (row,), tuple(findings)
    body = instructions(text, line, context, label.body, end)
    many = even_rows(body) if label.last is not None else None
    if many is not None and _covers(label, many.many):  # "Rows 4-7: work 4 rows in sc"
        row = Row(
            label.kind, label.first, label.last, many.steps, totals, context.active, label.side, span, label_span,
            _breaks(findings),
            kept=many.kept, name=label.name, until=until,
        )  # fmt: skip
        return (row,), tuple(findings)
    reading, body = _read_body(body, label, totals)
    broken = label.kind == "Rnd" and _breaks(body.findings)
    edging = read_edging(text, line, context) if broken and is_edging(text[label.body :]) else None
    told: tuple[Line, ...] = ()
    if edging is not None:
        told = (Prose(as_note(text[label.body : end], context), context.active, True, span),)
        begins = tuple(step for step in reading.steps[:1] if isinstance(step, Chain))
        reading, body.findings = replace(reading, steps=(*begins, *edging[0].steps), kept=()), [edging[1]]
    findings += body.findings
    if not reading.steps and not findings:
        findings.append(Finding("row-empty", "error", span, "Nothing is worked in this line."))
    others: list[Any] = [
        _read_body(instructions(text, line, context, label.body, end), label, totals, choice)
        for choice in (() if context.decided else body.other_choices())
    ]
    if open_total is not None:
        others.append(
            _read_body(instructions(text, line, context, label.body, open_total.end), label, open_total.totals)
        )
    others = [one for one, other in others if not _breaks(other.findings) or _breaks(body.findings)]
    if reading.totals:
        others += [replace(reading, steps=steps) for steps in around_chain(reading.steps)]
        others += [replace(reading, steps=steps) for steps in in_first_chain(reading.steps)]
    if not reading.totals:
        others += [after for one in (reading, *others) if (after := _told_after(one.steps, one.kept)) is not None]
    row = Row(
        label.kind, label.first, label.last, reading.steps, reading.totals, context.active, label.side, span,
        label_span,
        _breaks(findings), 0, tuple(other for other in others if other != reading), kept=reading.kept, name=label.name,
        until=until, named=named_in(body, reading.steps),
    )  # fmt: skip
    return (*told, row), tuple(findings)


def read_label(text: str, line: int, context: Context, match: re.Match[str], expected: Coming) -> labels.Label:
    """The label of a row: the words up to a colon, where it ends there, so that the rest is read but once."""
    colon = text.find(":", match.end()) + 1
    if colon:
        label = labels.read_label(stream_over(text, line, context, match.end(), colon), match, expected, text)
        if label.body == colon and not label.findings:
            return label
    return labels.read_label(stream_over(text, line, context, match.end(), len(text)), match, expected, text)


def _told_whole(
    text: str, line: int, context: Context, label: labels.Label, end: int
) -> tuple[Num | None, tuple[Step, ...], Num | None, tuple[Kept, ...]] | Finding | None:
    """Rows of which a few words tell all: "Continue in this manner", "Next rnds: work 10 rounds even in sc"; (last,
    steps, until so many sts)."""
    if onward.starts(text[label.body : end]):
        try:
            step, said = onward.read_onward(text, line, context, label.body, end)
            return label.last or onward.last_of(said, label.first), (step,), said.until_sts, ()
        except NotUnderstood as problem:
            return problem_of(problem, "How these rows go on is not understood")
    body = instructions(text, line, context, label.body, end)
    even = even_rows(body) if label.last is None else None
    return (
        (_after(label.first, even.many, 1, -1), even.steps, None, even.kept)
        if even is not None and not body.findings
        else None
    )


def _onward(
    text: str, line: int, context: Context, expected: Coming, span: Span
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """ "Continue in this manner until there are 15 rounds. (120 sts)"; None where it is not said how many that are."""
    at_end, _ = split_totals(text, line, context, 0)
    end, totals, findings = at_end.end, at_end.totals, [*at_end.findings]
    first = expected.only(context.active)
    try:
        step, said = onward.read_onward(text, line, context, 0, end)
    except NotUnderstood:
        return None
    last = onward.last_of(said, first)
    if last is None and said.until_sts is None:
        return None
    until_sts = said.until_sts if last is None else None
    totals = same_totals(totals, _until_totals(said.until_sts if last is not None else None))
    kind: Literal["Row", "Rnd"] = "Row" if re.search(r"\brows?\b", text, re.IGNORECASE) else "Rnd"
    row = Row(
        kind, first, last, (step,), totals, context.active, None, span, span, _breaks(findings), until_sts=until_sts
    )
    return (row,), tuple(findings)


def _read_body(
    body: Stream, label: labels.Label, totals: tuple[Total, ...], choice: Choice = FIRST
) -> tuple[Reading, Stream]:
    """The instructions of a row, in one of the ways in which they can be read."""
    body.loop, body.choice = label.loop, choice
    body.ends_with_total = any(total.what not in ("sp", "ch") for total in totals)
    steps = read_steps(body)
    if not any(token.is_word("next") for token in body.tokens):
        steps = alone(steps, label.kind)
    if (
        (nth := joined_in(body.tokens))
        and (told := with_space(steps, nth)) != steps
        and body.choose(2, "joined in") == 0
    ):
        steps = told
    body.findings += uncounted(body, (steps, tuple(body.totals)))
    plain = rewritten(steps, label.kind)
    return Reading(plain, same_totals(totals, [*body.totals, *label.totals]), choice, kept_among(body, plain)), body


def _told_after(steps: tuple[Step, ...], kept: tuple[Kept, ...]) -> Reading | None:
    """ "Sc through both layers across, 30 sc.": so many at the end of what goes to the end are its total."""
    end = len(steps)
    while end and isinstance(steps[end - 1], Gesture):
        end -= 1
    *before, last = steps[:end] or (None,)
    works = [step for step in before if not isinstance(step, Gesture)]
    whole = works[-1] if works else None
    if not (
        isinstance(last, Work) and isinstance(last.into, Next) and last.into.what == STITCHES and last.into.count.parts
    ):
        return None
    if not (isinstance(whole, Work) and isinstance(whole.into, Every) and whole.into.end.word in ("around", "across")):
        return None
    totals = (Total(last.into.count, last.stitch),)
    return Reading((*before, *steps[end:]), totals, kept=kept) if last.per.is_always(1) else None


def _covers(label: labels.Label, many: Num) -> bool:
    """Are as many rows told as the label counts?"""
    assert label.last is not None
    values = zip(label.first.values, label.last.values, many.values, strict=True)
    return all(a is None or b is None or n == b - a + 1 for a, b, n in values)


def _breaks(findings: list[Finding]) -> bool:
    """Is something in a line not understood, so that what it makes is not known?"""
    return any(finding.severity == "error" or finding.code in NOT_KNOWN for finding in findings)


def _labelled_again(
    text: str, line: int, context: Context, label: labels.Label,
    read: tuple[int, tuple[Total, ...], list[Finding]], spans: tuple[Span, Span], begins: tuple[Gesture, ...],
) -> tuple[tuple[Line, ...], tuple[Finding, ...]]:  # fmt: skip
    end, totals, findings = read
    body = instructions(text, line, context, label.body, end)
    then: tuple[Gesture, ...] = ()
    sources: tuple[Num, ...] = ()
    otherwise: list[Finding] = []
    last, until_sts, length = label.last, None, None
    try:
        said = rows_again.read_again(body)
        until_sts, length = said.until_sts, said.length
        sources = said.sources or _last_rows(said, label.first)
        if [row.values for row in said.then] != [row.values for row in sources[: len(said.then)]] and not _ends_so(
            said, sources
        ):
            raise NotUnderstood(body.here(), "the rows worked once more are not the first of those repeated")
        if last is None and said.until is not None:
            last = said.until
        elif last is None and said.more is not None:
            last = _after(label.first, said.more, len(sources), -1)
        elif last is not None and said.more is not None and sources:
            otherwise = counted_otherwise(label.first, last, said.more, len(sources), len(said.then), label.kind)
        if last is not None:
            otherwise += ends_otherwise(label.first, last, sources, said.ends, label.kind)
        if said.after is not None:
            totals = same_totals(totals, _said_after(said.after, last or label.first))
        then = _done_then(body)
        body.count(0)  # each number is one of rows, or how often they are repeated
    except NotUnderstood as problem:
        findings.append(problem_of(problem, "These rows to repeat are not understood"))
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
        until=length,
        then=then,
        kept=kept_among(body, ()),
        name=label.name,
        side=label.side,
        begins=begins,
    )
    return (row,), (*findings, *otherwise)


def _said_after(after: tuple[Num, tuple[Total, ...]], last: Num) -> tuple[Total, ...]:
    """What is said of the last of some rows: "so after row 53 there are 26 hdc". Raises NotUnderstood where it is
    another row."""
    row, totals = after
    if row.values != last.values:
        raise NotUnderstood(row.span, "this is not the last of these rows")
    return totals


def _ends_so(said: rows_again.AgainBody, sources: tuple[Num, ...]) -> bool:
    """ "Repeat Rows 2-5 ending with a Row 5": only tells what comes last."""
    return len(said.then) == 1 and any(said.then[0].values == row.values for row in sources)


def _until_totals(until_sts: Num | None) -> list[Total]:
    """Where the rows are counted, the stitches that are left after them are a total."""
    return [Total(until_sts, "sts")] if until_sts is not None else []


def _done_then(body: Stream) -> tuple[Gesture, ...]:
    """What is done after a repetition of rows: only gestures and totals may stand there. Raises NotUnderstood."""
    start = body.at
    steps = read_steps(body)
    if any(
        isinstance(step, Gesture) and step.kind in ("leave rest unworked", "both layers", "rotate", "seam")
        for step in steps
    ):
        raise NotUnderstood(
            body.since(start), "what is done otherwise in rows that are worked again is written as a row of its own"
        )
    if not all(isinstance(step, Gesture) or (isinstance(step, Chain) and step.length.is_always(1)) for step in steps):
        raise NotUnderstood(
            body.since(start), "after rows that are worked again, only what ends them may stand, such as “fasten off”"
        )
    return tuple(step for step in steps if isinstance(step, Gesture) and step.kind not in ("turn", "join"))


def _unlabelled_again(
    text: str, line: int, context: Context, expected: Coming, span: Span
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    at_end, _ = split_totals(text, line, context, 0)
    end, totals, findings = at_end.end, at_end.totals, [*at_end.findings]
    if re.search(r"\b(?:rows?|rn?ds?|rounds?)\W*$", text, re.IGNORECASE):
        end, totals, findings = len(text), (), []  # "(19 rows)" counts rows
    body = instructions(text, line, context, 0, end)
    first = expected.only(context.active)
    try:
        said = rows_again.read_again(body)
    except NotUnderstood as problem:
        return (), (problem_of(problem, "These rows to repeat are not understood"),)
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
        last = _after(first, first.all(1), len(sources), -1)
    otherwise = ends_otherwise(first, last, sources, said.ends, kind) if last is not None else []
    try:
        then = _done_then(body)
    except NotUnderstood as problem:
        then = ()
        findings.append(problem_of(problem, "These rows to repeat are not understood"))
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
        until=said.length,
        then=then,
        kept=kept_among(body, ()),
    )
    lines: tuple[Line, ...] = (row,)
    if said.then and last is not None:
        lines = (replace(row, totals=(), then=(), kept=()), _then_again(row, last, said.then))
    if said.total is not None and (said.more is not None or said.then):
        what = "rows" if kind == "Row" else "rnds"
        item = CheckItem(what, said.total)  # type: ignore[arg-type]
        lines = (*lines, Check((item,), context.active, replace(span, line=line)))
    return lines, (*findings, *otherwise)


def _then_again(row: Again, last: Num, sources: tuple[Num, ...]) -> Again:
    """The rows that are worked once more after a repetition: "..., then Row 2 once more"."""
    first = last.counted_on(1)
    end = None if len(sources) == 1 else first.counted_on(len(sources) - 1)
    return replace(row, first=first, last=end, sources=sources)


def _after(first: Num, more: Num, rows: int, less: int) -> Num:
    """The last row, when from `first` on so many repeats of `rows` rows are worked."""
    return first.plus(more, max(1, rows), less)


def _last_rows(said: rows_again.AgainBody, first: Num) -> tuple[Num, ...]:
    if said.last_rows is None:
        return ()
    count = next(v for v in said.last_rows.values if v is not None)
    return tuple(first.counted_on(-k) for k in range(min(count, 200), 0, -1))


@remember(2048)
def read_unlabelled(
    text: str, line: int, context: Context, expected: Coming, anew: int
) -> tuple[Row, tuple[Finding, ...], int] | None:
    """A row without a label, where a line is that; None for any other. anew: the number of a row that begins a piece.

    The last of the answer is the column (0-based) at which it begins, after a title of its own.
    """
    start = title_ends(text)
    at_end, _ = split_totals(text, line, context, start)
    end, totals, problems = at_end.end, at_end.totals, at_end.findings
    span = Span(line, start + 1, len(text) + 1)
    text, until = split_until(text, line, context, start, end)
    stream = instructions(text, line, context, start, end)
    first = expected.only(context.active)
    even = even_rows(stream)
    if even is not None:
        last = _after(first, even.many, 1, -1)
        row = Row(
            even.kind, first, last, even.steps, totals, context.active, None, span, span,
            kept=even.kept, until=until,
        )  # fmt: skip
        return row, tuple(problems), start
    if not instructs(text):
        return None
    steps = read_steps(stream)
    stream.findings += uncounted(stream, (steps, tuple(stream.totals)))
    totals = same_totals(totals, stream.totals)
    if stream.findings or problems or not whole_row(steps, totals):
        return None
    kind = kind_of(steps, context.kind)
    if starts_piece(steps) or any(isinstance(step, Gesture) and step.kind == "adjustable ring" for step in steps):
        first = first.all(anew)
    others = []
    for choice in stream.other_choices():
        again_ = instructions(text, line, context, start, end)
        again_.choice = choice
        plain = rewritten(again_steps := read_steps(again_), kind)
        if not again_.findings and not uncounted(again_, (again_steps, tuple(again_.totals))):
            others.append(Reading(plain, totals, kept=kept_among(again_, plain)))
    plain = rewritten(steps, kind)
    row = Row(
        kind, first, None, plain, totals, context.active, None, span, span, readings=tuple(others),
        kept=kept_among(stream, plain), until=until, named=named_in(stream, steps),
    )  # fmt: skip
    return row, tuple(not_counted(until, None)), start


def begins_unlabelled(text: str, context: Context) -> bool:
    """Is a line a row without a label, as it stands by itself?"""
    return instructs(text) and read_unlabelled(text, 1, context, coming(Num((1,) * context.n_sizes)), 0) is not None
