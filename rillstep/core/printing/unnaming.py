"""A text without its names: plain numbers and sets for the braces, and each round of a range in a line of its own."""

from collections.abc import Sequence

from rillstep.core.notation.parser import Parsed
from rillstep.core.notation.text_so_far import WithNames
from rillstep.core.printing.writer import size_line, write_line
from rillstep.core.tree import Pattern
from rillstep.core.words.named_numbers import DEFINED


def without_names(text: str, parsed: Parsed) -> str:
    """The text with numbers in place of names; every line without a name stays as it is typed.

    parsed: what was read from this text. A round in which a run is 0 is written without it, in the usual words.
    """
    named: dict[int, list[WithNames]] = {}
    for one in parsed.named:
        named.setdefault(one.lines[0], []).append(one)
    joined = {line for one in parsed.named for line in one.lines[1:]}
    written: list[str] = []
    for number, raw in enumerate(text.split("\n"), start=1):
        here = named.get(number, ())
        if DEFINED.match(raw) or number in joined:
            continue
        if all(one.places is not None and one.lines == (number,) and one.sizes == one.active for one in here):
            written.append(_in_place(raw, here))
        else:
            written += _plain(here, parsed.pattern)
    return "\n".join(written)


def _in_place(raw: str, lines: Sequence[WithNames]) -> str:
    """A line of the text with the numbers in place of its braces, whatever else stands in it."""
    for text, place in reversed([(one.text, place) for one in lines for place in one.places or ()]):
        raw = raw[: place.written_start] + text[place.start : place.end] + raw[place.written_end :]
    return raw


def _plain(lines: Sequence[WithNames], pattern: Pattern) -> list[str]:
    """The lines that are read for one line with names; those for some sizes only say so."""
    written: list[str] = []
    force = before = lines[0].active
    for one in lines:
        if one.sizes != force:
            written.append(size_line(one.sizes, pattern.sizes))
            force = one.sizes
        written += [one.text] if one.row is None else [write_line(one.row, pattern.terms, pattern.units)]
    return [*written, size_line(before, pattern.sizes)] if force != before else written
