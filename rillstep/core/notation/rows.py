"""One line of the body: a row or round with its label and totals, rows worked again, a set-up line, a check."""

import re
from dataclasses import replace
from typing import Any, Literal

from rillstep.core.clauses import labels, rows_again
from rillstep.core.clauses.again_lines import after_so_many, breaks, labelled_again, unlabelled_again, until_totals
from rillstep.core.clauses.measured import not_counted, open_label, split_until
from rillstep.core.clauses.named import named_in
from rillstep.core.clauses.steps import read_steps
from rillstep.core.findings import Finding, Span
from rillstep.core.memory import remember
from rillstep.core.notation import onward
from rillstep.core.notation.edgings import as_note, is_edging, read_edging
from rillstep.core.notation.lines import usual_form
from rillstep.core.notation.rewriting import around_chain, in_first_chain, rewritten
from rillstep.core.notation.unlabelled import alone, even_rows, instructs, kind_of, starts_piece, title_ends, whole_row
from rillstep.core.reading.places import STITCHES
from rillstep.core.reading.round_joins import joined_in, with_space
from rillstep.core.reading.stated_totals import same_totals, split_totals
from rillstep.core.tree import Chain, Every, Gesture, Kept, Line, Next, Num, Prose, Reading, Row, Step, Total, Work
from rillstep.core.tree.features import stitches_worked
from rillstep.core.tree.leaves import Coming, coming
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.ledger import uncounted
from rillstep.core.words.stream import FIRST, Choice, Context, NotUnderstood, Stream, problem_of, stream_over


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
        return unlabelled_again(text, line, context, expected, span) if rows_again.starts(text) else None
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
        return labelled_again(text, line, context, label, (end, totals, findings), (span, label_span), colour)
    whole = _told_whole(text, line, context, label, end)
    if isinstance(whole, Finding):
        return (), (*findings, whole)
    if whole is not None:
        last, steps, until_sts, kept = whole
        counted = until_totals(until_sts if last is not None else None)
        row = Row(
            label.kind,
            label.first,
            last,
            steps,
            same_totals(totals, counted),
            context.active,
            label.side,
            span,
            label_span,
            breaks(findings),
            until_sts=until_sts if last is None else None,
            kept=kept,
            name=label.name,
            until=until,
        )
        return (row,), tuple(findings)
    body = instructions(text, line, context, label.body, end)
    many = even_rows(body) if label.last is not None else None
    if many is not None and _covers(label, many.many):  # "Rows 4-7: work 4 rows in sc"
        row = Row(
            label.kind,
            label.first,
            label.last,
            many.steps,
            totals,
            context.active,
            label.side,
            span,
            label_span,
            breaks(findings),
            kept=many.kept,
            name=label.name,
            until=until,
        )
        return (row,), tuple(findings)
    reading, body = _read_body(body, label, totals)
    broken = label.kind == "Rnd" and breaks(body.findings)
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
    others = [one for one, other in others if not breaks(other.findings) or breaks(body.findings)]
    if reading.totals:
        others += [replace(reading, steps=steps) for steps in around_chain(reading.steps)]
        others += [replace(reading, steps=steps) for steps in in_first_chain(reading.steps)]
    if not reading.totals:
        others += [after for one in (reading, *others) if (after := _told_after(one.steps, one.kept)) is not None]
    row = Row(
        label.kind,
        label.first,
        label.last,
        reading.steps,
        reading.totals,
        context.active,
        label.side,
        span,
        label_span,
        breaks(findings),
        0,
        tuple(other for other in others if other != reading),
        kept=reading.kept,
        name=label.name,
        until=until,
        named=named_in(body, reading.steps),
    )
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
        (after_so_many(label.first, even.many, 1, -1), even.steps, None, even.kept)
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
    totals = same_totals(totals, until_totals(said.until_sts if last is not None else None))
    kind: Literal["Row", "Rnd"] = "Row" if re.search(r"\brows?\b", text, re.IGNORECASE) else "Rnd"
    row = Row(
        kind, first, last, (step,), totals, context.active, None, span, span, breaks(findings), until_sts=until_sts
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
    stated = _without_unnamed(body, same_totals(totals, [*body.totals, *label.totals]), steps)
    return Reading(plain, stated, choice, kept_among(body, plain)), body


def _without_unnamed(body: Stream, totals: tuple[Total, ...], steps: tuple[Step, ...]) -> tuple[Total, ...]:
    """The totals without those of a stitch of the text's own that the row does not work by its name: "2 half shells",
    of which each is written out. They are said not to be checked."""
    own = {name for name, _ in body.context.specials}
    worked = set(stitches_worked(steps))
    unnamed = [total for total in totals if total.what in own - worked and not _is_part_of(total.what, worked)]
    for total in unnamed:
        start = total.count.span
        rest = re.match(r"[\s\w-]*", body.text[start.end_column - 1 :])
        span = replace(start, end_column=start.end_column + (len(rest[0].rstrip()) if rest is not None else 0))
        message = f"“{total.what}” is not worked by its name in this row, so this number is not checked."
        body.findings.append(Finding("kind-not-known", "warning", span, message))
    return tuple(total for total in totals if total not in unnamed)


def _is_part_of(name: str, worked: set[str]) -> bool:
    """ "11 clusters" of a 3-dc cluster, and of the beginning cluster."""
    return any(name.lower() in other.lower() for other in worked)


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
        last = after_so_many(first, even.many, 1, -1)
        row = Row(
            even.kind, first, last, even.steps, totals, context.active, None, span, span, kept=even.kept, until=until
        )
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
        kind,
        first,
        None,
        plain,
        totals,
        context.active,
        None,
        span,
        span,
        readings=tuple(others),
        kept=kept_among(stream, plain),
        until=until,
        named=named_in(stream, steps),
    )
    return row, tuple(not_counted(until, None)), start


def begins_unlabelled(text: str, context: Context) -> bool:
    """Is a line a row without a label, as it stands by itself?"""
    return instructs(text) and read_unlabelled(text, 1, context, coming(Num((1,) * context.n_sizes)), 0) is not None
