"""A drawing as SVG: a path for each outline, in mm, y down as SVG has it."""

from collections.abc import Sequence
from html import escape

from rillstep.core.drawings import Drawing, Outline

# For paper and small pictures; the workbench has its own colours.
_FILLS = {
    "work": "#5b7f8c",
    "square": "#5b7f8c",
    "flap": "#86a3ad",
    "handle": "#5b7f8c",
    "body": "#e4e0d6",
    "strap": "none",
}
_LINES = {"fold": "stroke-dasharray='6 4'", "edge": "stroke-dasharray='3 5'"}
_MARGIN_MM = 6.0


def path_of(outline: Outline) -> str:
    """The points of an outline as the `d` of an SVG path, in mm."""
    first, *others = ((f"{x:.1f} {-y:.1f}") for x, y in outline.points)
    return f"M{first}" + "".join(f"L{one}" for one in others) + ("Z" if outline.closed else "")


def svg_of_drawing(drawing: Drawing, title: str, height: int = 96) -> str:
    """A whole SVG file of a drawing, so many pixels high; title: what it shows, for those who do not see it."""
    left, low, right, high = drawing.box
    box = (left - _MARGIN_MM, -high - _MARGIN_MM, right - left + 2 * _MARGIN_MM, high - low + 2 * _MARGIN_MM)
    width = max(1, round(height * box[2] / box[3]))
    paths = "".join(_path(one) for one in _joined(drawing.outlines))
    return (
        f"<svg xmlns='http://www.w3.org/2000/svg' role='img' viewBox='{' '.join(f'{n:.1f}' for n in box)}' "
        f"width='{width}' height='{height}'><title>{escape(title)}</title>{paths}</svg>"
    )


def _path(outline: tuple[str, str]) -> str:
    kind, d = outline
    fill = _FILLS.get(kind, "none")
    # Rounds are told apart by the gaps between them; a line around each would hide them in a small picture.
    stroke = {"work": "none", "flap": "none", "handle": "none", "square": "#f7f4ec"}.get(kind, "#3c4a50")
    return f"<path d='{d}' fill='{fill}' stroke='{stroke}' stroke-width='1.2' {_LINES.get(kind, '')}/>"


def _joined(outlines: Sequence[Outline]) -> list[tuple[str, str]]:
    """Neighbouring outlines of one kind as one path: a small picture needs no line of its own for each round."""
    found: list[tuple[str, str]] = []
    for one in outlines:
        if found and found[-1][0] == one.kind and one.closed:
            found[-1] = (one.kind, found[-1][1] + path_of(one))
        else:
            found.append((one.kind, path_of(one)))
    return found
