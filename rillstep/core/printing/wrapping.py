"""Long lines broken well: between two instructions, never within a set of numbers, and indented.

What is broken here is read as one line again: `parse(wrapped(text))` is the tree of `parse(text)`.
"""

from rillstep.core.clauses.labels import starts as starts_label
from rillstep.core.notation.lines import MOST_PIECES

WIDTH = 92
_INDENT = "    "


def wrapped(text: str, width: int = WIDTH) -> str:
    """The text with its long rows broken; other lines stay as they are."""
    return "\n".join(_broken(line, width) for line in text.split("\n"))


def _broken(line: str, width: int) -> str:
    if len(line) <= width or starts_label(line) is None:
        return line
    pieces: list[str] = []
    rest = line
    while len(rest) > width and len(pieces) < MOST_PIECES - 1:
        at = _break_before(rest, width)
        if at is None:
            break
        pieces.append(rest[:at].rstrip())
        rest = _INDENT + rest[at:].lstrip()
    return "\n".join([*pieces, rest])


def _break_before(text: str, width: int) -> int | None:
    """The last place before `width` at which an instruction ends; outside brackets if it can be, else within square
    ones."""
    best: dict[int, int] = {}
    round_depth, square_depth = 0, _open_before(text)
    for index, char in enumerate(text[: width + 1]):
        round_depth += (char == "(") - (char == ")")
        square_depth += (char == "[") - (char == "]")
        if char in ",;" and text[index + 1 : index + 2] == " " and not round_depth and index > width // 3:
            best[min(square_depth, 1)] = index + 1
        if text[index : index + 3] == " — " and text[:index].strip():
            best[0] = index
    outside, inside = best.get(0), best.get(1)
    if outside is not None and (inside is None or outside > width // 2):
        return outside
    return inside


def _open_before(text: str) -> int:
    """How many square brackets that close in a text were opened in a line before it."""
    depth = lowest = 0
    for char in text:
        depth += (char == "[") - (char == "]")
        lowest = min(lowest, depth)
    return -lowest
