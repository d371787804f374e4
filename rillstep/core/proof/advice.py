"""What a maker needs to be told beside the lines: where a chain is no stitch, and how to see and count the rows of
this fabric.

Every note follows from the pattern itself, so that it is true of this text and there only where it is needed.
"""

from collections.abc import Iterator
from typing import Literal

from rillstep.core.craft import Terms, abbreviation, basic
from rillstep.core.tree import Again, Chain, EachKind, Evenly, Group, Pattern, Repeat, Row, Same, Section, Step, Work
from rillstep.core.tree.features import main_stitch

Hand = Literal["right", "left"]

SPIRAL = "Worked in a spiral: do not join. Put a marker in the first stitch of each round and move it up."
LEFT_HANDED = "Left-handed: you work from left to right, and the side of the bag where a round begins is mirrored."


def advice(pattern: Pattern, terms: Terms, hand: Hand = "right") -> tuple[str, ...]:
    """The notes of a pattern, each once, in the order in which a maker meets what they are about."""
    notes = list(_sizes(pattern))
    for section in pattern.sections:
        if any(isinstance(line, Row) for line in section.lines):
            notes += [*_beginning(section, terms), *_counting(section, terms)]
    if hand == "left":
        notes.append(LEFT_HANDED)
    return tuple(dict.fromkeys(notes))


def _sizes(pattern: Pattern) -> Iterator[str]:
    if len(pattern.sizes) > 1:
        yield (
            f"Numbers are given for {pattern.sizes[0]} ({', '.join(pattern.sizes[1:])}). "
            "One number alone holds for all sizes."
        )


def _rows(section: Section) -> list[Row]:
    return [line for line in section.lines if isinstance(line, Row) and line.steps]


def _beginning(section: Section, terms: Terms) -> Iterator[str]:
    """How rounds begin and end, and whether the chain at the start is a stitch."""
    if section.worked == "spiral rounds":
        yield SPIRAL
        return
    chains = [row.steps[0] for row in _rows(section) if isinstance(row.steps[0], Chain) and len(row.steps) > 1]
    rounds = section.worked.startswith("joined")
    if rounds:
        yield "Rounds are joined with a slip stitch in the first stitch."
    counted = [c for c in chains if c.counts not in (None, "none")]
    not_counted = [c for c in chains if c.counts == "none" or c.length.is_always(1)]
    word = "round" if rounds else "row"
    for which, stitch in dict.fromkeys((_of(c), abbreviation(c.counts or "", terms)) for c in counted):
        name = f"a {stitch}" if stitch != "st" else "a stitch"
        yield (
            f"The {which} that begins a {word} counts as {name}: the last stitch of the next {word} goes into its top."
        )
    for which in dict.fromkeys(_of(c) for c in not_counted):
        yield (
            f"The {which} that begins a round is not a stitch: skip it, and the joining slip stitch too, when you come "
            "round."
            if rounds
            else f"The {which} that begins a row is not a stitch: skip it. The first stitch goes into the last one of "
            "the row below."
        )
    if rounds and not counted and any(_is_same(row.steps) for row in _rows(section)):
        yield "“Same st” at the start of a round is the stitch that you joined to."


def _of(chain: Chain) -> str:
    """ "ch 3": a chain by its length, so that one that counts and another that does not are told apart."""
    lengths = sorted({value for value in chain.length.values if value is not None})
    return f"ch {lengths[0]}" if len(lengths) == 1 else "chain"


def _is_same(steps: tuple[Step, ...]) -> bool:
    return any(isinstance(getattr(step, "into", None), Same) for step in steps[:2])


def _is_plain(steps: tuple[Step, ...], stitch: str) -> bool:
    """Is a row worked in one stitch, through both loops?"""
    for step in steps:
        if isinstance(step, Work) and (step.stitch not in (stitch, "sl st") or step.loop != "both"):
            return False
        if isinstance(step, Group | EachKind | Evenly):
            return False
        if isinstance(step, Repeat) and not _is_plain(step.steps, stitch):
            return False
    return True


def _counting(section: Section, terms: Terms) -> Iterator[str]:
    """How the rows of this fabric are seen and counted."""
    rows = _rows(section)
    counted = sum(line.rounds(line.sizes[0]) for line in section.lines if isinstance(line, Row | Again))
    if not rows or counted < 3:
        return
    stitch = main_stitch(tuple(step for row in rows for step in row.steps)) or "sc"
    flat = section.worked == "rows" or section.worked == "joined and turned rounds"
    word = "rows" if section.worked.startswith("rows") else "rounds"
    loops = {step.loop for row in rows for step in row.steps if isinstance(step, Work)}
    spaces = sum(any(total.what == "sp" for total in row.totals) for row in rows) * 2 > len(rows)
    if spaces:
        yield f"To count {word}, count the loops of chain, straight up one above the other."
    elif "back" in loops and flat:
        yield f"To count {word}, count the ridges and the grooves between them: each is one of the {word}."
    elif "back" in loops:
        yield f"To count {word}, count the ridges that the free front loops make: each round in back loops leaves one."
    elif flat and basic(stitch).turning_chain <= 1:
        if not all(_is_plain(row.steps, stitch) for row in rows):
            return  # ridges stand for other numbers of rows there
        yield f"To count {word}, count the ridges: each ridge is 2 {word}, as every second one shows its back."
    elif flat:
        yield f"To count {word}, count the bands of upright {abbreviation(stitch, terms)}: each band is one."
    elif basic(stitch).turning_chain <= 1:
        yield (
            f"To count {word}, look at the outside: each is a line of stitches like a "
            f"V. Count them straight up from the marker."
        )
    else:
        yield f"To count {word}, count the ridges on the outside, straight up from where they begin."
