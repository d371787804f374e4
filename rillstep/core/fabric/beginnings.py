"""How a row begins: where the yarn was joined before it, on what was left unworked, with a chain of which nothing is
said; and markers that only words place."""

from dataclasses import replace

from rillstep.core.fabric.hook import Surroundings
from rillstep.core.fabric.remembered import Identity
from rillstep.core.memory import remember
from rillstep.core.tree import Again, Chain, Gesture, Next, Nth, Pattern, Prose, Row, Section, Setup, Skip


@remember(16)
def _marks_in_words(pattern: Identity) -> tuple[int, ...]:
    """The lines of words that mark a place: "Fold the piece and mark the centre stitch."."""
    assert isinstance(pattern.it, Pattern)
    lines = (line for _, line in pattern.it.lines() if isinstance(line, Prose))
    return tuple(line.span.line for line in lines if _MARKS & set(line.text.lower().replace(".", " ").split()))


_MARKS = {"mark", "marker", "markers", "marking", "pin"}


def is_marked_in_words(pattern: Identity, line: int) -> bool:
    """Do words above a line mark a place, so that a marker may be there that no row places?"""
    return any(marked < line for marked in _marks_in_words(pattern))


@remember(1024)
def begun_with(row: Identity, joined: Identity) -> Row:
    """A row with the joining of its yarn that the line before it says, where it says none itself."""
    assert isinstance(row.it, Row) and isinstance(joined.it, Gesture)
    if "join colour" in row.it.gestures:
        return row.it
    return replace(row.it, steps=(joined.it, *row.it.steps))


def begins_apart(source: Row) -> str:
    """ "skipped", where a yarn is joined anew after so many stitches skipped ("sk next 6 sts, join yarn in next st");
    "unworked", where it says so; else ""."""
    skips = ""
    for step in source.steps:
        if isinstance(step, Skip) and not step.first and step.what.kind == "st":
            skips = "unworked" if step.what.unworked else skips or "skipped"
        elif isinstance(step, Gesture) and step.kind == "join colour":
            unworked = isinstance(step.into, Next | Nth) and step.into.what.unworked
            return "unworked" if unworked else skips
        elif not isinstance(step, Gesture):
            return ""
    return ""


def begins_unsaid(source: Row, around: Surroundings, size: int) -> bool:
    """Does a row begin with a chain of two or more of which nothing that is understood says whether it counts?"""
    first = next((step for step in source.steps if not isinstance(step, Gesture)), None)
    if not isinstance(first, Chain) or first.counts is not None or first.length.at(size) < 2:
        return False
    return all(length != first.length.at(size) for length, _ in (*around.says, *around.throughout))


def numbered_join(line: Setup) -> Gesture | None:
    """The yarn that a line joins in a place by its number ("Attach the yarn to the 5th sc."): the next row begins
    there."""
    last = line.steps[-1] if line.steps else None
    joins = isinstance(last, Gesture) and last.kind == "join colour" and isinstance(last.into, Nth)
    return last if joins and isinstance(last, Gesture) else None


@remember(64)
def _after_words(section: Identity) -> frozenset[int]:
    assert isinstance(section.it, Section)
    found: set[int] = set()
    is_open = False
    for line in section.it.lines:
        if isinstance(line, Prose):
            is_open = is_open or line.instructs
        elif isinstance(line, Row | Again | Setup):
            if is_open and not isinstance(line, Setup):
                found.add(line.span.line)
            is_open = False
    return frozenset(found)


def follows_words(section: Identity, line: int) -> bool:
    """Does a row, by the number of its line, follow words that instruct and are not worked?"""
    return line in _after_words(section)
