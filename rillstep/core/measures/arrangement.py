"""How squares are laid out: "Arrange the squares in 3 rows of 4 (5)", "join in a 4 x 4 grid"."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from rillstep.core.tree import Pattern, words_of

_SET = (
    r"(?<![\d/])\d{1,3}(?:\s{0,2}[(\[]\s{0,2}\d{1,3}(?:\s{0,2}[,;:/|]\s{0,2}\d{1,3}){0,11}\s{0,2}[)\]]|"
    r"(?:\s{0,2}/\s{0,2}\d{1,3}){1,11})?"
)
LAYS_OUT = re.compile(
    r"\b(?:arrange|lay|join|sew|seam|assemble|place|connect|whip ?stitch|crochet|stitch)\w*\b", re.IGNORECASE
)
_ROWS_OF = re.compile(
    rf"(?P<down>{_SET})\s+(?:rows?|strips?|columns?)\s+(?:of|with)\s+(?P<across>{_SET})(?:\s*(?:each|"
    rf"squares?|motifs?))?"
    rf"|(?P<wide>{_SET})\s*(?:x|×|by)\s*(?P<high>{_SET})\s+(?:grid|layout|squares|motifs|rectangle|panel)"
    rf"|(?P<over>{_SET})\s+(?:squares |motifs )?across\s+(?:and|by|x)\s+(?P<below>{_SET})\s+(?:squares "
    rf"|motifs )?(?:down|high|up)",
    re.IGNORECASE,
)


@dataclass(frozen=True)
class Layout:
    """Rows and columns of squares, for each size."""

    rows: tuple[int, ...]
    columns: tuple[int, ...]


def _numbers(text: str) -> list[int]:
    return [int(number) for number in re.findall(r"\d+", text)]


def layout_of(pattern: Pattern) -> Layout | None:
    """The layout that the words of a text tell in every size; None where they tell none, or several."""
    sizes = len(pattern.sizes)
    for _, line in pattern.lines():
        words = ". ".join(words_of(line))
        if LAYS_OUT.search(words) and (layout := layout_in(words, sizes)) is not None:
            return layout
    return None


def places_in(words: str) -> tuple[tuple[int, int], tuple[int, int]] | None:
    """Where the rows and the columns of a layout stand in some words, as (begin, end) counted from 0; None where they
    tell no layout, several, or one in sets."""
    found = list(_ROWS_OF.finditer(words)) if LAYS_OUT.search(words) else []
    if len(found) != 1:
        return None
    match = found[0]
    rows, columns = _groups(match)
    plain = match[rows].isdigit() and match[columns].isdigit()
    return (match.span(rows), match.span(columns)) if plain else None


def layout_in(words: str, sizes: int) -> Layout | None:
    """The layout that some words tell; None when they tell none, or not for every size."""
    found = list(_ROWS_OF.finditer(words))
    if len(found) == 1:
        return _of(found[0], sizes)
    each = [one for match in found if (one := _of(match, 1)) is not None]  # "2 rows of 4 (3 rows of 4)"
    if len(found) != sizes or len(each) != sizes:
        return None
    return Layout(tuple(one.rows[0] for one in each), tuple(one.columns[0] for one in each))


def _of(match: re.Match[str], sizes: int) -> Layout | None:
    rows, columns = (match[group] for group in _groups(match))
    down, across = _spread(_numbers(rows), sizes), _spread(_numbers(columns), sizes)
    return Layout(down, across) if down is not None and across is not None else None


def _groups(match: re.Match[str]) -> tuple[str, str]:
    """The groups of a layout that hold its rows and its columns."""
    if match["down"]:
        across = re.match(r"\s+columns?", match[0][len(match["down"]) :], re.IGNORECASE)
        return ("across", "down") if across else ("down", "across")
    return ("high", "wide") if match["wide"] else ("below", "over")


def _spread(numbers: Sequence[int], sizes: int) -> tuple[int, ...] | None:
    if len(numbers) == 1:
        return (numbers[0],) * sizes
    return tuple(numbers) if len(numbers) == sizes else None
