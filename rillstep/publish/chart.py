"""A stitch chart as SVG: black on white, with a legend of the symbols that are used and no others."""

import math
from collections.abc import Iterable
from html import escape

from rillstep.core.chart import MOST_OVALS, UNDER, Chart, Mark, Point, Symbol, symbol_of
from rillstep.core.craft import Terms, abbreviation, basic, full_name, is_post

SCALE = 26.0  # px of a stitch's width
_MARGIN = 30.0
_LEGEND_ROW = 26.0
_LEGEND_COLUMN = 280.0
_INK = ("#8a8f94", "#1c2a33")  # the work below, and the rows drawn


def svg_of(chart: Chart, title: str, terms: Terms, left_handed: bool = False) -> str:
    """The chart as one SVG document; for left-handers it is mirrored, but for its words.

    Rows on the right side are read from right to left by right-handers, and from left to right by left-handers.
    """
    flip = 1.0 if chart.around != left_handed else -1.0
    points = [p for mark in chart.marks for p in (mark.top, *mark.feet)] + [p for _, p in chart.labels]
    xs, ys = [flip * x * SCALE for x, _ in points] or [0.0], [-y * SCALE for _, y in points] or [0.0]
    x0, y0 = min(xs) - _MARGIN, min(ys) - _MARGIN
    width, height = max(xs) - x0 + _MARGIN, max(ys) - y0 + _MARGIN
    names = list(dict.fromkeys(_legend_key(mark) for mark in chart.marks))
    width = max(width, _LEGEND_COLUMN * min(2, len(names)) + 20)
    columns = max(1, int((width - 20) // _LEGEND_COLUMN))
    legend_top = y0 + height
    height += math.ceil(len(names) / columns) * _LEGEND_ROW + 18

    def at(point: Point) -> Point:
        return (flip * point[0] * SCALE, -point[1] * SCALE)

    body = [_stitch(mark, at) for mark in chart.marks]
    body += [_text(label, *at(point), "#0f6674", 600) for label, point in chart.labels]
    if chart.around:
        body.append(f'<circle cx="0" cy="0" r="7" stroke="{_INK[1]}"/>')
    if chart.cut:
        body.append(_text(f"and {chart.cut} more", x0 + 60, y0 + 14, _INK[0], 400))
    for index, (stitch, loop) in enumerate(names):
        x = x0 + 20 + (index % columns) * _LEGEND_COLUMN
        y = legend_top + 14 + (index // columns) * _LEGEND_ROW
        body.append(_legend(stitch, loop, x, y, terms))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="{x0:.1f} {y0:.1f} {width:.1f} {height:.1f}" '
        f'width="{width:.0f}" height="{height:.0f}" role="img" aria-label="{escape(title, quote=True)}">'
        f"<title>{escape(title)}</title>"
        f'<rect x="{x0:.1f}" y="{y0:.1f}" width="{width:.1f}" height="{height:.1f}" fill="#ffffff"/>'
        f'<g fill="none" stroke-width="1.5" stroke-linecap="round">{"".join(body)}</g></svg>\n'
    )


def _legend_key(mark: Mark) -> tuple[str, str]:
    return ("ch" if mark.chains or mark.stands else mark.stitch, mark.loop)


def _legend(stitch: str, loop: str, x: float, y: float, terms: Terms) -> str:
    symbol = symbol_of(stitch)
    scale = min(1.0, 16 / (symbol.height * SCALE))
    foot, top = (x + 8, y + symbol.height * SCALE * scale / 2), (x + 8, y - symbol.height * SCALE * scale / 2)
    drawn = _oval(x + 8, y, 0) if stitch == "ch" else _stem(symbol, [foot], top, scale) + _under(loop, foot, top)
    name = abbreviation(stitch, terms)
    spelled = {"ch": "chain", "sl st": "slip stitch"}.get(stitch, full_name(stitch, terms))
    known = is_post(stitch) or basic(stitch).us == stitch or stitch == "ch"
    words = f"{name}: {spelled}" if known and spelled != name else name
    words += {"back": ", back loop only", "front": ", front loop only", "third": ", back bar"}.get(loop, "")
    return f'<g stroke="{_INK[1]}">{drawn}</g>' + _text(words, x + 28, y + 4, _INK[1], 400, "start")


def _text(words: str, x: float, y: float, ink: str, weight: int, anchor: str = "middle") -> str:
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" fill="{ink}" stroke="none" font-family="Work Sans, Arial, sans-serif" '
        f'font-size="13" font-weight="{weight}" text-anchor="{anchor}">{escape(words)}</text>'
    )


def _stitch(mark: Mark, at) -> str:  # type: ignore[no-untyped-def]
    ink = _INK[mark.row >= 0]
    top, feet = at(mark.top), [at(foot) for foot in mark.feet]
    if mark.stitch == "ch" or mark.chains:
        drawn = _chains(mark, top, feet[0])
    elif mark.stands:
        drawn = _standing(mark.stands, feet[0], top)
    else:
        symbol = symbol_of(mark.stitch)
        drawn = _stem(symbol, feet, top, 1.0) + _under(mark.loop, feet[0], top)
    return f'<g stroke="{ink}">{drawn}</g>'


def _chains(mark: Mark, top: Point, foot: Point) -> str:
    """Chains lie across the direction of the stitches, in a shallow arch; a long run is an arc with its number."""
    count = max(1, mark.chains)
    angle = math.atan2(top[1] - foot[1], top[0] - foot[0]) + math.pi / 2
    along = (math.cos(angle), math.sin(angle))
    if mark.closed:  # a picot: a small loop on the edge
        return f'<circle cx="{top[0]:.1f}" cy="{top[1]:.1f}" r="5"/>'
    if count > MOST_OVALS:
        half = MOST_OVALS * 0.275 * SCALE
        a, b = (
            (top[0] - half * along[0], top[1] - half * along[1]),
            (top[0] + half * along[0], top[1] + half * along[1]),
        )
        up = (top[0] + along[1] * 14, top[1] - along[0] * 14)
        return f'<path d="M{a[0]:.1f} {a[1]:.1f}Q{up[0]:.1f} {up[1]:.1f} {b[0]:.1f} {b[1]:.1f}"/>' + _text(
            str(count), up[0], up[1], _INK[1], 400
        )
    pieces = []
    for index in range(count):
        offset = (index - (count - 1) / 2) * 0.55 * SCALE
        lift = 6.0 * (1 - (2 * offset / (count * 0.55 * SCALE)) ** 2) if count > 2 else 0.0
        x = top[0] + offset * along[0] + lift * along[1]
        y = top[1] + offset * along[1] - lift * along[0]
        pieces.append(_oval(x, y, math.degrees(angle)))
    return "".join(pieces)


def _standing(chains: int, foot: Point, top: Point) -> str:
    """Chains that stand for a stitch: one above the other."""
    angle = math.degrees(math.atan2(top[1] - foot[1], top[0] - foot[0]))
    steps = [(i + 0.5) / chains for i in range(chains)]
    return "".join(_oval(foot[0] + (top[0] - foot[0]) * s, foot[1] + (top[1] - foot[1]) * s, angle) for s in steps)


def _oval(x: float, y: float, degrees: float) -> str:
    return f'<ellipse cx="{x:.1f}" cy="{y:.1f}" rx="6.4" ry="3.3" transform="rotate({degrees:.0f} {x:.1f} {y:.1f})"/>'


def _stem(symbol: Symbol, feet: Iterable[Point], top: Point, scale: float) -> str:
    """From each foot to the top: the stem with its bars, and the head."""
    feet = list(feet)
    drawn = "".join(_leg(symbol, foot, top, scale) for foot in feet)
    foot = (sum(x for x, _ in feet) / len(feet), sum(y for _, y in feet) / len(feet))
    (ux, uy), _ = _direction(foot, top)
    arm = 6.5 * scale
    if symbol.head == "bar":
        drawn += _line((top[0] - arm * uy, top[1] + arm * ux), (top[0] + arm * uy, top[1] - arm * ux))
    if symbol.head == "oval":
        angle = math.degrees(math.atan2(ux, -uy))
        drawn += (
            f'<ellipse cx="{top[0]:.1f}" cy="{top[1]:.1f}" rx="{arm:.1f}" ry="{arm / 2:.1f}" '
            f'transform="rotate({angle:.0f} {top[0]:.1f} {top[1]:.1f})"/>'
        )
    if symbol.head == "dot":
        middle = ((foot[0] + top[0]) / 2, (foot[1] + top[1]) / 2)
        drawn += (
            f'<circle cx="{middle[0]:.1f}" cy="{middle[1]:.1f}" r="{3 * scale:.1f}" '
            f'fill="currentColor" color="{_INK[1]}"/>'
        )
    if symbol.wave:
        drawn += f'<path d="M{top[0] - 7:.1f} {top[1]:.1f}q3.5 -5 7 0t7 0"/>'
    return drawn


def _direction(foot: Point, top: Point) -> tuple[Point, float]:
    dx, dy = top[0] - foot[0], top[1] - foot[1]
    length = math.hypot(dx, dy)
    return ((dx / length, dy / length), length) if length else ((0.0, -1.0), 0.0)


def _leg(symbol: Symbol, foot: Point, top: Point, scale: float) -> str:
    (ux, uy), length = _direction(foot, top)
    if symbol.head == "dot":
        return ""
    own = min(length, symbol.height * SCALE * scale)
    if symbol.head == "cross":  # a cross half-way, and thin lines that say what it stands on where that is not clear
        middle = (top[0] - ux * own * 0.45, top[1] - uy * own * 0.45)
        arm = 5.5 * scale
        cross = [
            _line(
                (middle[0] + arm * (ux * s - uy), middle[1] + arm * (uy * s + ux)),
                (middle[0] - arm * (ux * s - uy), middle[1] - arm * (uy * s + ux)),
            )
            for s in (1, -1)
        ]
        stem = _line(foot, top) if symbol.slashes else ""
        lean = f'<g stroke-width="0.6">{_line(foot, middle)}</g>' if abs(ux) > 0.25 or length > own * 1.4 else ""
        return "".join(cross) + stem + lean
    drawn = ""
    for strand in range(symbol.strands):
        side = (strand - (symbol.strands - 1) / 2) * 9 * scale
        middle = ((foot[0] + top[0]) / 2 - side * uy, (foot[1] + top[1]) / 2 + side * ux)
        start = (foot[0] + ux * 3, foot[1] + uy * 3)
        drawn += (
            f'<path d="M{start[0]:.1f} {start[1]:.1f}Q{middle[0]:.1f} {middle[1]:.1f} {top[0]:.1f} {top[1]:.1f}"/>'
            if symbol.strands > 1
            else _line(start, top)
        )
    for slash in range(symbol.slashes):
        share = 0.38 + 0.16 * slash
        x, y = top[0] + (foot[0] - top[0]) * share, top[1] + (foot[1] - top[1]) * share
        arm = 4.5 * scale
        drawn += _line(
            (x - arm * (uy + ux * 0.6), y + arm * (ux - uy * 0.6)),
            (x + arm * (uy + ux * 0.6), y - arm * (ux - uy * 0.6)),
        )
    if symbol.post:
        turn = 1 if symbol.post == "FP" else -1
        end = (foot[0] - turn * 8 * uy, foot[1] + turn * 8 * ux)
        drawn += (
            f'<path d="M{foot[0] + ux * 3:.1f} {foot[1] + uy * 3:.1f}q{-ux * 6:.1f} '
            f'{-uy * 6:.1f} {end[0] - foot[0] - ux * 3:.1f} {end[1] - foot[1] - uy * 3:.1f}"/>'
        )
    return drawn


def _under(loop: str, foot: Point, top: Point) -> str:
    """What a stitch in one loop only stands on."""
    shape = UNDER.get(loop, "")  # type: ignore[call-overload]
    if not shape:
        return ""
    (ux, uy), _ = _direction(foot, top)
    a = (foot[0] + 7 * uy, foot[1] - 7 * ux)
    b = (foot[0] - 7 * uy, foot[1] + 7 * ux)
    bend = {"arch": 6, "bowl": -6, "bar": 0}[shape]
    return (
        f'<path d="M{a[0]:.1f} {a[1]:.1f}Q{foot[0] + ux * bend:.1f} {foot[1] + uy * bend:.1f} {b[0]:.1f} {b[1]:.1f}"/>'
    )


def _line(a: Point, b: Point) -> str:
    return f'<path d="M{a[0]:.1f} {a[1]:.1f}L{b[0]:.1f} {b[1]:.1f}"/>'
