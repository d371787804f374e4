"""Numbers and places in words, as they are printed: "12 (15)", "in next 3 sts", "to last st"."""

from dataclasses import replace

from rillstep.core.craft import Terms, abbreviation
from rillstep.core.tree import (
    AsFirst,
    Bars,
    Every,
    FromHook,
    InRing,
    Into,
    Last,
    Loops,
    Marked,
    Next,
    Nth,
    Num,
    Same,
    Skipped,
    ToEnd,
    TopOfChain,
    What,
)
from rillstep.core.tree.leaves import ordinal_text
from rillstep.core.words.numbers import set_text


def write_number(number: Num) -> str:
    """A number for each size, as a set where they differ: "14 (18, 22)"."""
    return number.shown or set_text(number.values)


def write_what(what: What, plural: bool, terms: Terms = "US") -> str:
    """The kind of place: "sts", "ch-2 sp", "corner"."""
    if what.below:
        rows = "row" if what.below == 1 else "rows"
        return f"{write_what(replace(what, below=0), plural, terms)} {what.below} {rows} below"
    if what.of_row is not None:
        of_row = f"of {what.of_row.kind} {write_number(what.of_row.number)}"
        return f"{write_what(replace(what, of_row=None), plural, terms)} {of_row}"
    if what.unworked:
        return f"unworked {write_what(replace(what, unworked=False), plural, terms)}"
    corner = "corner " if what.corner else ""
    match what.kind:
        case "gap":
            return "corner between sides"
        case "st and sp" if what.corner:
            return "corner"
        case "sp" | "st and sp":
            word = "sps" if plural else "sp"
            space = word if what.length is None else f"ch-{write_number(what.length)} {word}"
            return corner + space if what.kind == "sp" else f"st and {space}"
        case "st" if what.between == 1:
            return (
                f"{'sps' if plural else 'sp'} between {abbreviation(what.stitch, terms) + ' ' if what.stitch else ''}"
                f"sts"
            )
        case "st" if what.between:
            return (
                f"{'sps' if plural else 'sp'} between {what.between}-{abbreviation(what.stitch or 'dc', terms)} groups"
            )
        case "st" if what.stitch:
            name = abbreviation(what.stitch, terms)
            return corner + (f"{name} sts" if plural else name)
        case "st":
            return corner + ("sts" if plural else "st")
        case "ch":
            return "ch"
        case "end":
            return "row ends" if plural else "row end"
        case both:
            return both


def write_end(end: ToEnd, terms: Terms = "US") -> str:
    """Where a walk along the edge ends: "around", "to last 3 sts"."""
    if end.word == "marker":
        return f"to marker {end.marker}".rstrip()
    if end.what is not None and end.last is None:
        return f"to {write_what(end.what, False, terms)}"
    if end.last is None:
        return end.word
    what = end.what or What("st")
    return (
        f"to last {write_what(what, False, terms)}"
        if end.last.is_always(1)
        else f"to last {write_number(end.last)} {write_what(what, True, terms)}"
    )


def write_into(into: Into, several: bool, terms: Terms) -> str:
    """ "in next 6 sts"; `several` stitches into each place asks for "in each of next 6 sts"."""
    words = _into(into, several, terms)
    bump = isinstance(into, Next | Every | Nth | Last) and into.what.bump
    return words.replace("in ", "in back bump of ", 1) if bump else words


def _into(into: Into, several: bool, terms: Terms) -> str:
    match into:
        case Next(count, what, True):
            return f"over next {write_number(count)} {write_what(what, True, terms)}"
        case Next(count, what):
            if into.unsaid:
                return f"in next {write_what(what, True, terms)}"
            if count.is_always(1):
                return f"in next {write_what(what, False, terms)}"
            each = "each of " if several else ""
            return f"in {each}next {write_number(count)} {write_what(what, True, terms)}"
        case Every(what, end):
            return f"in each {write_what(what, False, terms)} {write_end(end, terms)}"
        case Same(what):
            return f"in same {write_what(what, False, terms)}"
        case Last(what):
            return f"in last {write_what(what, False, terms)}"
        case Nth(nth, what, here):
            which = (
                "first"
                if nth.is_always(1) and not here
                else f"{nth.shown}th"
                if nth.shown
                else set_text(nth.values, lambda value: ordinal_text(int(value)))
            )
            return f"in {which} {write_what(what, False, terms)}{' of next group' if here else ''}"
        case Marked(marker, stitch):
            called = abbreviation(stitch, terms) if stitch else "st"
            return f"in st with marker {marker}" if marker else f"in marked {called}"
        case Bars(kind, number, count):
            few = write_number(count)
            return f"around next {few} {'bar' if few == '1' else 'bars'} of {kind} {write_number(number)}"
        case Loops(loop, kind, number, count):
            named = {"third": "back bars", "both": "free loops"}.get(loop, f"{loop} loops")
            if number is None:
                free = "free " if loop == "both" else f"free {loop} "
                return f"in each {free}loop" if count is None else f"in next {write_number(count)} {free}loops"
            few = "" if count is None else f"next {write_number(count)} sts "
            return f"in {named} of {few}{kind} {write_number(number)}"
        case FromHook(nth, counts_as, space, in_bump):
            bump = "back bump of " if in_bump else ""
            value = next(v for v in nth.values if v is not None)
            said = [abbreviation(counts_as, terms)] if counts_as else []
            said += [f"ch-{write_number(space)} sp"] if space is not None else []
            counted = f" (skipped ch count as {' and '.join(said)})" if said else ""
            return f"in {bump}{ordinal_text(value)} ch from hook{counted}"
        case InRing(called):
            return f"in {called or 'ring'}"
        case AsFirst(what):
            return f"in same {write_what(what, False, terms)} as first st"
        case TopOfChain():
            return "in top of turning ch"
        case Skipped(count, what):
            many = not count.is_always(1)
            return (
                f"in {write_number(count)} skipped {write_what(what, True, terms)}"
                if many
                else f"in skipped {write_what(what, False, terms)}"
            )
