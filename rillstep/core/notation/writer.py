"""The tree as text, in one canonical form: every instruction that is printed comes from here.

`parse(write(tree))` gives back the same tree, always.
"""

from collections.abc import Callable

from rillstep.core.lengths import GAUGE_SPAN
from rillstep.core.notation.tree import (
    Chain,
    Check,
    Decimals,
    Every,
    FromHook,
    Gesture,
    InRing,
    Into,
    Last,
    Line,
    Next,
    Num,
    Pattern,
    Prose,
    Repeat,
    Row,
    Same,
    Section,
    Setup,
    Skip,
    Step,
    ToEnd,
    Together,
    Total,
    What,
    Work,
)
from rillstep.core.stitches import LOOP_ABBREVIATIONS, Terms, abbreviation


def set_text(values: tuple[int | float | None, ...], form: Callable[[float], str] = lambda v: str(int(v))) -> str:
    """ "14 (18, 22)"; one plain number when all are equal; sizes in which it does not hold are left out."""
    shown = [form(v) for v in values if v is not None]
    if len(set(shown)) == 1:
        return shown[0]
    return f"{shown[0]} ({', '.join(shown[1:])})"


def _n(number: Num) -> str:
    return set_text(number.values)


def _ordinal(value: int) -> str:
    suffix = "th" if 10 <= value % 100 <= 20 else {1: "st", 2: "nd", 3: "rd"}.get(value % 10, "th")
    return f"{value}{suffix}"


def _what(what: What, plural: bool) -> str:
    match what.kind:
        case "sp":
            word = "sps" if plural else "sp"
            return word if what.length is None else f"ch-{_n(what.length)} {word}"
        case "st":
            return "sts" if plural else "st"
        case "ch":
            return "ch"
        case both:
            return both


def _end(end: ToEnd) -> str:
    if end.last is None:
        return end.word
    return "to last st" if end.last.is_always(1) else f"to last {_n(end.last)} sts"


def _into(into: Into, several: bool, terms: Terms) -> str:
    """ "in next 6 sts"; `several` stitches into each place asks for "in each of next 6 sts"."""
    match into:
        case Next(count, what):
            if count.is_always(1):
                return f"in next {_what(what, False)}"
            each = "each of " if several else ""
            return f"in {each}next {_n(count)} {_what(what, True)}"
        case Every(what, end):
            return f"in each {_what(what, False)} {_end(end)}"
        case Same(what):
            return f"in same {_what(what, False)}"
        case Last(what):
            return f"in last {_what(what, False)}"
        case FromHook(nth, counts_as):
            value = next(v for v in nth.values if v is not None)
            counted = f" (skipped ch count as {abbreviation(counts_as, terms)})" if counts_as else ""
            return f"in {_ordinal(value)} ch from hook{counted}"
        case InRing():
            return "in ring"


def write_step(step: Step, terms: Terms) -> str:
    """One step, in lower case."""
    match step:
        case Work(stitch, per, into, loop):
            front = f"{LOOP_ABBREVIATIONS[loop]} " if loop != "both" else ""
            count = "" if per.is_always(1) else f"{_n(per)} "
            return f"{front}{count}{abbreviation(stitch, terms)} {_into(into, not per.is_always(1), terms)}"
        case Together(stitch, legs, times, loop):
            front = f"{LOOP_ABBREVIATIONS[loop]} " if loop != "both" else ""
            body = f"{abbreviation(stitch, terms)}{_n(legs)}tog"
            return front + (body if times.is_always(1) else f"{body} {_n(times)} times")
        case Skip(count, what):
            return f"sk next {_what(what, False)}" if count.is_always(1) else f"sk next {_n(count)} {_what(what, True)}"
        case Chain(length, counts):
            said = {None: "", "none": " (does not count)"}.get(counts)
            return f"ch {_n(length)}" + (
                said if said is not None else f" (counts as {abbreviation(counts or '', terms)})"
            )
        case Repeat(steps, times):
            inside = write_steps(steps, terms, capital=False)
            return f"[{inside}] {_n(times)} times" if isinstance(times, Num) else f"[{inside}] {_end(times)}"
        case Gesture(kind):
            words = {"join into ring": "join without twisting", "adjustable ring": "make an adjustable ring"}
            return words.get(kind, kind)


def write_steps(steps: tuple[Step, ...], terms: Terms, capital: bool = True) -> str:
    """Steps in one sentence without its full stop; gestures are set off by semicolons."""
    text = ""
    for step in steps:
        piece = write_step(step, terms)
        gap = "; " if isinstance(step, Gesture) and text else ", "
        text = piece if not text else text + gap + piece
    return text[:1].upper() + text[1:] if capital else text


def write_total(total: Total, terms: Terms) -> str:
    """ "26 (32) sts", "2 ch-24 sps"."""
    one = total.count.is_always(1)
    if total.what == "sts":
        return f"{_n(total.count)} {'st' if one else 'sts'}"
    if total.what == "sp" and total.length is not None:
        return f"{_n(total.count)} ch-{_n(total.length)} {'sp' if one else 'sps'}"
    return f"{_n(total.count)} {abbreviation(total.what, terms)}"


def write_totals(totals: tuple[Total, ...], terms: Terms) -> str:
    """ "18 (22) sts, 2 ch-9 sps"."""
    return ", ".join(write_total(total, terms) for total in totals)


def write_label(row: Row) -> str:
    """ "Rnd 4", "Rnds 5-9 (11)", "Row 2 (WS)"."""
    side = f" ({row.side})" if row.side else ""
    if row.last is None:
        return f"{row.kind} {_n(row.first)}{side}"
    return f"{row.kind}s {_n(row.first)}-{_n(row.last)}{side}"


def write_check(check: Check, units: str) -> str:
    """The items of a check, without its key word."""
    items = []
    for item in check.items:
        if isinstance(item.number, Num):
            items.append(f"{_n(item.number)} {item.what}")
        else:
            items.append(f"{_decimals(item.number)} {units} {item.what}")
    return "; ".join(items)


def _decimals(number: Decimals) -> str:
    return set_text(number.values, lambda v: f"{v:.1f}")


def write_line(line: Line, terms: Terms, units: str) -> str:
    """One line of the body."""
    match line:
        case Row():
            totals = f" — {write_totals(line.totals, terms)}" if line.totals else ""
            return f"{write_label(line)}: {write_steps(line.steps, terms)}.{totals}"
        case Setup(steps):
            return f"{write_steps(steps, terms)}."
        case Check():
            return f"Check: {write_check(line, units)}."
        case Prose(text, _, note):
            return f"Note: {text}" if note else text


def write_section_head(section: Section) -> str:
    """ "Section: Wall (joined rounds, wall), continue from Base"."""
    kept = f", continue from {section.continues}" if section.continues else ""
    return f"Section: {section.title} ({section.worked}, {section.role}){kept}"


def size_line(sizes: tuple[int, ...], names: tuple[str, ...]) -> str:
    """ "Size L only:", "Sizes M and L only:", "All sizes:"."""
    if len(sizes) == len(names):
        return "All sizes:"
    chosen = [names[i] for i in sizes]
    if len(chosen) == 1:
        return f"Size {chosen[0]} only:"
    return f"Sizes {', '.join(chosen[:-1])} and {chosen[-1]} only:"


def _number_text(value: float) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".")


def _header_lines(pattern: Pattern, terms: Terms) -> list[str]:
    lines = [f"Pattern: {pattern.name}", f"Terms: {terms}", f"Sizes: {', '.join(pattern.sizes)}"]
    lines.append(f"Units: {pattern.units}")
    for gauge in pattern.gauges:
        across, up = gauge.per_span(pattern.units)
        span = f"{GAUGE_SPAN[pattern.units]} {pattern.units}"
        stitch = abbreviation(gauge.stitch, terms)
        lines.append(f"Gauge: {stitch} {_number_text(across)} sts x {_number_text(up)} rows = {span}")
    if pattern.finished is not None:
        lines.append(f"Finished: {write_check(pattern.finished, pattern.units)}.")
    lines += [f"{key}: {text}" for key, text in pattern.extra]
    return lines


def write(pattern: Pattern, terms: Terms = "US") -> str:
    """The whole pattern as canonical text in the given terms."""
    lines = _header_lines(pattern, terms)
    every = tuple(range(len(pattern.sizes)))
    for section in pattern.sections:
        lines += ["", write_section_head(section)]
        active = every
        for line in section.lines:
            if line.sizes != active:
                lines.append(size_line(line.sizes, pattern.sizes))
                active = line.sizes
            lines.append(write_line(line, terms, pattern.units))
    return "\n".join(lines) + "\n"
