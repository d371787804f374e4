"""A line that works rows again: "Rnds 9-20: Rep Rnds 7 and 8", "Rep Row 2 until there are 31 rows. Fasten off."."""

import re
from dataclasses import replace
from typing import Literal

from rillstep.core.clauses import labels, rows_again
from rillstep.core.clauses.sources import counted_otherwise, ends_otherwise
from rillstep.core.clauses.steps import read_steps
from rillstep.core.findings import NOT_KNOWN, Finding, Span
from rillstep.core.reading.stated_totals import same_totals, split_totals
from rillstep.core.tree import Again, Chain, Check, CheckItem, Gesture, Line, Num, Total
from rillstep.core.tree.leaves import Coming
from rillstep.core.words.asides import instructions, kept_among
from rillstep.core.words.stream import Context, NotUnderstood, Stream, problem_of


def breaks(findings: list[Finding]) -> bool:
    """Is something in a line not understood, so that what it makes is not known?"""
    return any(finding.severity == "error" or finding.code in NOT_KNOWN for finding in findings)


def until_totals(until_sts: Num | None) -> list[Total]:
    """Where the rows are counted, the stitches that are left after them are a total."""
    return [Total(until_sts, "sts")] if until_sts is not None else []


def labelled_again(
    text: str,
    line: int,
    context: Context,
    label: labels.Label,
    read: tuple[int, tuple[Total, ...], list[Finding]],
    spans: tuple[Span, Span],
    begins: tuple[Gesture, ...],
) -> tuple[tuple[Line, ...], tuple[Finding, ...]]:
    """The rows of a label that are worked as others are."""
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
            last = after_so_many(label.first, said.more, len(sources), -1)
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
        same_totals(totals, [*body.totals, *until_totals(until_sts if last is not None else None)]),
        context.active,
        *spans,
        breaks(findings),
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


def unlabelled_again(
    text: str, line: int, context: Context, expected: Coming, span: Span
) -> tuple[tuple[Line, ...], tuple[Finding, ...]] | None:
    """Rows worked again that have no label: they go on from the last row."""
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
        last = after_so_many(first, said.more, len(sources), -1)
    elif said.total is not None:
        last = said.total
    elif said.by_measure is not None:
        message = "How many rows this makes is not said as a number; say “until there are … rows” to have it proved."
        findings.append(Finding("rows-not-counted", "warning", said.by_measure, message))
    elif said.until_sts is None:
        last = after_so_many(first, first.all(1), len(sources), -1)
    otherwise = ends_otherwise(first, last, sources, said.ends, kind) if last is not None else []
    try:
        then = _done_then(body)
    except NotUnderstood as problem:
        then = ()
        findings.append(problem_of(problem, "These rows to repeat are not understood"))
    findings += body.findings
    broken = any(f.severity == "error" for f in findings)
    until_sts = said.until_sts if last is None else None
    counted = [*body.totals, *until_totals(said.until_sts if last is not None else None)]
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


def after_so_many(first: Num, more: Num, rows: int, less: int) -> Num:
    """The last row, when from `first` on so many repeats of `rows` rows are worked."""
    return first.plus(more, max(1, rows), less)


def _last_rows(said: rows_again.AgainBody, first: Num) -> tuple[Num, ...]:
    if said.last_rows is None:
        return ()
    count = next(v for v in said.last_rows.values if v is not None)
    return tuple(first.counted_on(-k) for k in range(min(count, 200), 0, -1))
