"""One line in one size, stitch by stitch: its trace and its chart, as data for the screen."""

from rillstep.core.chart import chart_of, positions, rows_for, trace_of
from rillstep.core.craft import Terms, abbreviation
from rillstep.core.fabric import Trace, TracedStitch
from rillstep.core.fabric.edge import Place
from rillstep.core.printing.step_words import write_step
from rillstep.core.printing.writer import write_label
from rillstep.core.proof import Proof
from rillstep.core.tree import Again, Row
from rillstep.design import proved
from rillstep.publish.chart import svg_of
from rillstep.services import trace_views
from rillstep.services.errors import Invalid, NotFound


def trace_view(
    text: str, written: Terms | None, line: int, size: str, turn: int, terms: Terms
) -> trace_views.TraceView:
    """The work before and after one round of a line of a text, shown in terms; written: the terms of the text, where
    they are known. Raises NotFound, Invalid."""
    proof = proved(text, written)
    index, row = _row(proof, line, size)
    trace = _traced(proof, index, line, turn)
    if trace is None:
        raise NotFound("This line is not worked in this size: what comes before it is not known.")
    work = proof.works[index].of_line(line)
    assert work is not None
    below, made = [p.place for p in trace.below], trace.made
    below_x, made_x = positions(trace)
    trouble = trace.work.trouble
    return trace_views.TraceView(
        line=line, size=size, label=write_label(row), turn=turn, turns=len(work.turns),
        rounds=max(1, row.rounds(index)),
        below=[
            trace_views.TracePlaceView(x=x, label=_label(place, terms), kind=place.kind, became=traced.became)
            for x, place, traced in zip(below_x, below, trace.below, strict=True)
        ],
        made=[
            trace_views.TraceStitchView(
                x=x, number=number, label=_label(stitch.place, terms), kind=stitch.place.kind, into=list(stitch.into),
                step=stitch.step, loop=stitch.loop, closed=stitch.closed,
            )
            for x, stitch, number in zip(made_x, made, _numbers(made), strict=True)
        ],
        width=max([*below_x, *made_x], default=0.0),
        ahead=trace.ahead, trouble=trouble.told(terms) if trouble else None,
        missing=trouble.missing if trouble else 0,
        took=sum(p.became in ("worked", "skipped") for p in trace.below),
        sts=trace.work.counts.sts, spaces=trace.work.counts.spaces_of(None),
        steps=_steps(trace, terms),
    )  # fmt: skip


def chart_view(
    text: str, written: Terms | None, line: int, size: str, terms: Terms, left_handed: bool
) -> trace_views.ChartView:
    """The stitch chart of a line on the row before it, or of a motif from its ring on; as `trace_view`. Raises
    NotFound, Invalid."""
    proof = proved(text, written)
    index, row = _row(proof, line, size)
    try:
        rows, around = rows_for(proof.works[index], line)
    except ValueError as error:
        raise Invalid(f"This row is too long for a chart: {error}.") from None
    if not rows:
        raise NotFound("This line is not worked in this size: what comes before it is not known.")
    hand = "left" if left_handed else "right"
    title = f"Chart of {write_label(row)}, size {size}, {hand}-handed"
    return trace_views.ChartView(
        title=title, svg=svg_of(chart_of(rows, around), title, terms, left_handed), rows=[r.label for r in rows],
        around=around,
    )  # fmt: skip


def _row(proof: Proof, line: int, size: str) -> tuple[int, Row | Again]:
    if size not in proof.pattern.sizes:
        raise Invalid(f"There is no size “{size}” in this pattern; choose one of {', '.join(proof.pattern.sizes)}.")
    row = next(
        (row for _, row in proof.pattern.lines() if row.span.line == line and isinstance(row, Row | Again)), None
    )
    if row is None or not isinstance(row, Row | Again):
        raise NotFound("There is no round or row in this line of the text.")
    index = proof.pattern.sizes.index(size)
    if index not in row.sizes:
        raise NotFound(f"{write_label(row)} is not worked in size {size}.")
    return index, row


def _traced(proof: Proof, index: int, line: int, turn: int) -> Trace | None:
    try:
        return trace_of(proof.works[index], line, turn)
    except ValueError as error:
        raise Invalid(f"This row is too long to be drawn stitch by stitch: {error}.") from None


def _steps(trace: Trace, terms: Terms) -> list[trace_views.TraceStepView]:
    """Every step with its count; those after the one in which the row came to a stop were not worked."""
    found: list[trace_views.TraceStepView] = []
    counts = trace.work.steps
    for index, step in enumerate(trace.steps):
        at = index - trace.first_step
        count = counts[at] if 0 <= at < len(counts) else None
        found.append(
            trace_views.TraceStepView(
                words=write_step(step, terms), took=count.took if count else 0, made=count.made if count else 0,
                stops=trace.work.trouble is not None and at == len(counts),
            )
        )  # fmt: skip
    return found


def _numbers(made: tuple[TracedStitch, ...]) -> list[int]:
    """Which stitch of its row each is; 0 for chains."""
    stitches = [stitch.place.kind != "sp" for stitch in made]
    return [sum(stitches[: index + 1]) * is_stitch for index, is_stitch in enumerate(stitches)]


def _label(place: Place, terms: Terms) -> str:
    if place.kind == "sp":
        return f"ch-{place.length}"
    return abbreviation(place.stitch, terms) if place.stitch else place.kind
