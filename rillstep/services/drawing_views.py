"""The drawings of a design for the screen: paths in mm, and lengths as they are written."""

from typing import Literal

from pydantic import BaseModel

from rillstep.core.drawings import Drawing, Length
from rillstep.core.lengths import Units, show_length
from rillstep.core.measures import Measure
from rillstep.design import Facts, facts_of
from rillstep.document import Design
from rillstep.publish.drawing import path_of, svg_of_drawing

_EMPTY = "<svg xmlns='http://www.w3.org/2000/svg' width='1' height='1'/>"


class DrawnPathView(BaseModel):
    """An outline as an SVG path in mm, y down. line: of the text, 0 where it comes from none; sts: of its round."""

    kind: Literal["work", "square", "fold", "handle", "strap", "body", "flap", "edge"]
    d: str
    line: int
    label: str
    sts: int | None


class SpanLineView(BaseModel):
    """A length that is written beside a drawing."""

    x1: float
    y1: float
    x2: float
    y2: float
    text: str


class BoxView(BaseModel):
    """The part of the plane that a view takes up in all sizes, so that they are on one scale. In mm."""

    x: float
    y: float
    width: float
    height: float


class DrawingView(BaseModel):
    """One view in one size; see `Drawing`."""

    estimated: bool
    many: int
    notes: list[str]
    outlines: list[DrawnPathView]
    spans: list[SpanLineView]


class ViewOfSizes(BaseModel):
    """One view in all sizes; a size in which it is not known is null. name: of the size."""

    view: Literal["bag", "base", "piece", "strap"]
    title: str
    box: BoxView
    sizes: list[DrawingView | None]


class DrawingsView(BaseModel):
    """All views of a design, for its sizes in their order. problem: why there are none."""

    problem: str | None
    sizes: list[str]
    views: list[ViewOfSizes]


def drawings_view(design: Design) -> DrawingsView:
    """The drawings of a design in all its sizes."""
    facts = facts_of(design)
    proof, made = facts.proof, facts.drawings
    if not made:
        return DrawingsView(
            problem="Nothing is drawn yet: the text names no gauge.", sizes=list(proof.pattern.sizes), views=[]
        )
    keys = list(dict.fromkeys((one.view, one.title) for drawings in made for one in drawings))
    views = []
    for key in keys:
        own = [next((one for one in drawings if (one.view, one.title) == key), None) for drawings in made]
        views.append(_view(facts, own))
    return DrawingsView(problem=None, sizes=list(proof.pattern.sizes), views=views)


def _view(facts: Facts, own: list[Drawing | None]) -> ViewOfSizes:
    known = [one for one in own if one is not None]
    boxes = [one.box for one in known]
    left, low = min(box[0] for box in boxes), min(box[1] for box in boxes)
    right, high = max(box[2] for box in boxes), max(box[3] for box in boxes)
    return ViewOfSizes(
        view=known[0].view, title=known[0].title,
        box=BoxView(x=round(left, 1), y=round(-high, 1), width=round(right - left, 1), height=round(high - low, 1)),
        sizes=[None if one is None else _drawing(one, facts, at) for at, one in enumerate(own)],
    )  # fmt: skip


def _drawing(one: Drawing, facts: Facts, size: int) -> DrawingView:
    told = [(span, measure) for span in one.spans if (measure := _measured(span, facts.measures, size)) is not None]
    return DrawingView(
        estimated=any(measure.estimated for _, measure in told), many=one.many, notes=list(one.notes),
        outlines=[
            DrawnPathView(kind=each.kind, d=path_of(each), line=each.line, label=each.label, sts=each.sts)
            for each in one.outlines
        ],
        spans=[
            SpanLineView(
                x1=round(span.begin[0], 1), y1=round(-span.begin[1], 1), x2=round(span.end[0], 1),
                y2=round(-span.end[1], 1), text=_written(measure, size, facts.design.units),
            )
            for span, measure in told
        ],
    )  # fmt: skip


def _measured(span: Length, measures: dict[str, Measure], size: int) -> Measure | None:
    """The measure that is as long as a span is drawn, a row more or less; None where none is."""
    for name in span.measures:
        length = measures[name].mm[size] if name in measures else None
        if length is not None and abs(length - span.mm) <= max(3.0, 0.03 * length):
            return measures[name]
    return None


def _written(measure: Measure, size: int, units: Units) -> str:
    """A measure beside a drawing; one that is estimated says so."""
    length = show_length(measure.mm[size] or 0.0, units)
    return f"≈ {length}" if measure.estimated else length


# How high the largest bag is printed, in CSS pixels.
_PRINTED_PX = 110


def printed_pictures(facts: Facts, size: str | None) -> list[tuple[str, str]]:
    """The bag as it lies, as it is printed: the name and the SVG of each size, or of one, on one scale; none where it
    is not known how it lies."""
    shown = [
        (name, drawing)
        for name, drawings in zip(facts.proof.pattern.sizes, facts.drawings, strict=False)
        if size in (None, "all", name)
        for drawing in drawings[:1] if drawing.view == "bag"
    ]  # fmt: skip
    highest = max((_height(one) for _, one in shown), default=1.0)
    return [
        (name, svg_of_drawing(one, f"{facts.design.name}, {name}", round(_PRINTED_PX * _height(one) / highest)))
        for name, one in shown
    ]


def _height(one: Drawing) -> float:
    """In mm."""
    return one.box[3] - one.box[1]


def small_picture(design: Design, size: str | None = None) -> str:
    """The bag as it lies as a small SVG, in one size, the largest if none is given; an empty one where it is not
    known."""
    facts = facts_of(design)
    names = facts.proof.pattern.sizes
    if not facts.drawings:
        return _EMPTY
    at = names.index(size) if size in names else len(names) - 1
    shown = next((one for one in facts.drawings[at] if one.view in ("bag", "piece")), None)
    return _EMPTY if shown is None else svg_of_drawing(shown, f"{design.name}, {names[at]}")
