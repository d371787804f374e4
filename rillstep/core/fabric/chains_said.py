"""How a text counts the chains that begin a row: one convention for the whole of it, where it says so anywhere."""

from rillstep.core.fabric.remembered import Identity
from rillstep.core.memory import remember
from rillstep.core.notation.counted import said_of_chains
from rillstep.core.tree import Chain, Gesture, Pattern, Row, Work

Says = tuple[tuple[int, str], ...]
# A longer chain at the start of a row is a loop, or a stitch with a space beside it, and is told of at its place.
LONGEST = 5


@remember(64)
def said_throughout(pattern: Identity, size: int) -> Says:
    """(length, what it counts as) of the beginning chains of which the text says it, in any of its rows; nothing of a
    length of which it says two things. A stitch with a space beside it ("dc, ch 2") holds only where it is said."""
    assert isinstance(pattern.it, Pattern)
    said: dict[int, str | None] = {
        one.length: one.counts
        for _, text in pattern.it.extra
        for one in said_of_chains(text, pattern.it.terms)
        if one.length is not None
    }
    for row, chain in _told_at_their_place(pattern):
        if size not in row.sizes:
            continue
        length, counts = chain.length.at(size), chain.counts
        if length <= LONGEST:
            known = said.setdefault(length, counts)
            if known != counts:
                both = {known, counts}
                said[length] = None if known is None or "none" in both else "st"
    return tuple(sorted((length, counts) for length, counts in said.items() if counts is not None))


@remember(16)
def _told_at_their_place(pattern: Identity) -> tuple[tuple[Row, Chain], ...]:
    """The rows that say what the chain counts as that they begin with, and no space beside it."""
    assert isinstance(pattern.it, Pattern)
    rows = ((line, _begins_with(line)) for _, line in pattern.it.lines() if isinstance(line, Row))
    return tuple(
        (row, chain) for row, chain in rows if chain is not None and chain.counts is not None and chain.space is None
    )


def _begins_with(row: Row) -> Chain | None:
    """The first chain of a row, past what only moves the hook."""
    for step in row.steps:
        if isinstance(step, Chain):
            return step
        if not isinstance(step, Gesture) and not (isinstance(step, Work) and step.stitch == "sl st"):
            return None
    return None
