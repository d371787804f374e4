"""The tree as text, in one canonical form: every instruction that is printed comes from here.

`parse(write(tree))` gives back the same tree, always.
"""

from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.craft import Terms, abbreviation
from rillstep.core.gauge import OwnGauge
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units
from rillstep.core.notation.sections import usually_continues
from rillstep.core.printing.place_words import write_number
from rillstep.core.printing.step_words import write_sentence, write_step, write_steps, write_until
from rillstep.core.tree import (
    Again,
    Along,
    Check,
    CheckItem,
    Decimals,
    Line,
    Num,
    Pattern,
    Prose,
    Row,
    Section,
    Setup,
    Special,
    Total,
)
from rillstep.core.words.numbers import set_text


def write_total(total: Total, terms: Terms) -> str:
    """ "26 (32) sts", "2 ch-24 sps"."""
    one = total.count.is_always(1)
    before = "".join(f"{write_number(number)}, " for number in total.each[:-1])
    if before:
        return before + write_total(replace(total, each=()), terms)
    if total.what == "sts":
        return f"{write_number(total.count)} {'st' if one else 'sts'}"
    if total.what == "sp" and total.length is not None:
        return f"{write_number(total.count)} ch-{write_number(total.length)} {'sp' if one else 'sps'}"
    if total.what == "sp":
        return f"{write_number(total.count)} {'sp' if one else 'sps'}"
    return f"{write_number(total.count)} {abbreviation(total.what, terms)}"


def write_totals(totals: tuple[Total, ...], terms: Terms) -> str:
    """ "18 (22) sts, 2 ch-9 sps"."""
    return ", ".join(write_total(total, terms) for total in totals)


def write_label(row: Row | Again) -> str:
    """ "Rnd 4", "Rnds 5-9 (11)", "Row 2 (WS)"."""
    side = f" ({row.side})" if row.side else ""
    side += f" ({row.name})" if row.name else ""
    if row.last is None:
        return f"{row.kind} {write_number(row.first)}{side}"
    return f"{row.kind}s {_range(row, row.first, row.last)}{side}"


def _range(row: Row | Again, first: Num, last: Num) -> str:
    """ "5-9 (11)"; "8 (10, 12-13)" where some sizes have one row of it and others more."""
    rows = [row.rounds(size) for size in row.sizes]
    if first.shown or last.shown or min(rows) != 1 or max(rows) == 1:
        return f"{write_number(first)}-{write_number(last)}"
    each = [(first.at(size), last.at(size)) for size in row.sizes]
    told = [f"{a}" if a == b else f"{a}-{b}" for a, b in each]
    return f"{told[0]} ({', '.join(told[1:])})"


def write_check(check: Check, units: str) -> str:
    """The items of a check, without its key word."""
    if check.fold:
        return ", ".join(_folded(item) for item in check.items)
    items = []
    for item in check.items:
        if isinstance(item.number, Num):
            items.append(f"{write_number(item.number)} {item.what}")
        else:
            items.append(f"{_decimals(item.number)} {units} {item.what}")
    return "; ".join(items)


def _folded(item: CheckItem) -> str:
    assert isinstance(item.number, Num)
    return "in half" if item.what == "half" else f"{item.what} {write_number(item.number)} rows"


def check_word(check: Check) -> str:
    """The key word of a check: "Check", or "Fold"."""
    return "Fold" if check.fold else "Check"


def write_stated(line: Row | Again | Setup, terms: Terms) -> str:
    """The totals of a line, with those that are printed as they were written."""
    known = [write_totals(line.totals, terms)] if line.totals else []
    return ", ".join([*known, *(f"{write_number(total.count)} {total.what}" for total in line.stated)])


def _decimals(number: Decimals) -> str:
    return set_text(number.values, lambda v: f"{v:.1f}")


def write_line(line: Line, terms: Terms, units: str) -> str:
    """One line of the body."""
    match line:
        case Row():
            totals = f" — {write_stated(line, terms)}" if line.totals or line.stated else ""
            worked = write_sentence(line.steps, line.kept, terms) + write_until(line.until)
            return f"{write_label(line)}: {worked}.{totals}"
        case Again():
            totals = f" — {write_stated(line, terms)}" if line.totals or line.stated else ""
            return f"{write_label(line)}: {write_again(line, terms)}.{totals}"
        case Setup(steps):
            totals = f" ({write_stated(line, terms)})" if line.totals or line.stated else ""
            return f"{write_sentence(steps, line.kept, terms)}.{totals}"
        case Check():
            return f"{check_word(line)}: {write_check(line, units)}."
        case Prose(text, _, note):
            return f"Note: {text}" if note else text


def write_again(line: Again, terms: Terms = "US") -> str:
    """ "Rep Rnd 7", "Rep Rnds 7 and 8", "Rep Rows 2-5; fasten off", "Rep Row 2 until 4 sts remain"."""
    until = f" until {write_number(line.until_sts)} sts remain" if line.until_sts is not None else ""
    kept = "".join(f" ({one.words})" if one.bracket else f"; {one.words}" for one in line.kept)
    then = "".join(f"; {write_step(step, terms)}" for step in line.then)
    colour = f"With {line.begins[0].name}, " if line.begins else ""
    sources = _write_sources(line)
    return colour + (f"rep{sources[3:]}" if colour else sources) + until + write_until(line.until) + kept + then


def write_besides(line: Again, terms: Terms) -> tuple[str, ...]:
    """What is said of rows worked again besides which they are: what is kept as words, and what is done after them."""
    return (*(one.words for one in line.kept), *(write_step(step, terms) for step in line.then))


def _write_sources(line: Again) -> str:
    word, numbers = line.kind, [write_number(number) for number in line.sources]
    if not numbers:
        return "Rep"  # which rows could not be read
    if len(numbers) == 1:
        return f"Rep {word} {numbers[0]}"
    plain = [int(n) for n in numbers if n.isdigit()]
    if len(numbers) > 2 and plain == list(range(plain[0], plain[0] + len(numbers))) if plain else False:
        return f"Rep {word}s {numbers[0]}-{numbers[-1]}"
    return f"Rep {word}s {', '.join(numbers[:-1])} and {numbers[-1]}"


def write_section_head(section: Section, before: list[Section] | None = None) -> str:
    """ "Section: Wall (joined rounds, wall), continue from Base"; `before`: the sections before it."""
    kept = f", continue from {section.continues}" if section.continues else ""
    if not section.continues and usually_continues(section.role, before or []):
        kept = ", from nothing"
    if section.on is not None:
        kept += f", {_along(section.on)}"
    make = f", make {'/'.join(map(str, section.make))}" if section.make != (1,) else ""
    alike = {"": "", "mirrored": ", mirrored", "halves": ", halves alike"}[section.alike]
    return f"Section: {section.title} ({section.worked}, {section.role}{alike}{make}){kept}"


def _along(on: Along) -> str:
    if on.edge == "free loops" and on.number is not None:
        return f"in free {on.loop} loops of {on.kind} {write_number(on.number)}"
    if on.edge == "elsewhere":
        return "on a piece of another part"
    if on.edge == "joined pieces":
        return "on the joined pieces"
    if on.edge == "side by side":
        return "on the pieces side by side"
    return "along the foundation chain" if on.edge == "foundation" else "along the row ends"


def write_make(section: Section) -> str:
    """ "Make 2 of this piece, alike."; "" for a piece that is made once."""
    if section.make == (1,):
        return ""
    return f"Make {set_text(section.make)} of this piece, alike."


def write_special(special: Special, terms: Terms) -> str:
    """ "scallop = 5 dc in same st"."""
    words = special.words if not special.steps else write_steps(special.steps, terms, capital=False)
    return f"{special.name} = {words}"


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


def write_own_gauge(gauge: OwnGauge, units: Units) -> str:
    """ "mesh 10 loops x 12 rows = 10 cm", "ch 20 = 10 cm"."""
    span = f"{GAUGE_SPAN[units]} {units}"
    length = GAUGE_SPAN[units] * MM_PER[units]
    across = _number_text(length / gauge.width_mm)
    if gauge.build == "chain":
        return f"ch {across} = {span}"
    return f"{gauge.name} {across} {gauge.unit} x {_number_text(length / gauge.height_mm)} rows = {span}"


def _header_lines(pattern: Pattern, terms: Terms) -> list[str]:
    lines = [f"Pattern: {pattern.name}", f"Terms: {terms}", f"Sizes: {', '.join(pattern.sizes)}"]
    lines.append(f"Units: {pattern.units}")
    for gauge in pattern.gauges:
        across, up = gauge.per_span(pattern.units)
        span = f"{GAUGE_SPAN[pattern.units]} {pattern.units}"
        stitch = abbreviation(gauge.stitch, terms)
        hook = f" with {gauge.hook} mm hook" if gauge.hook else ""
        sizes = f" ({', '.join(gauge.sizes)})" if gauge.sizes else ""
        lines.append(f"Gauge{sizes}: {stitch} {_number_text(across)} sts x {_number_text(up)} rows = {span}{hook}")
    lines += [f"Gauge: {write_own_gauge(gauge, pattern.units)}" for gauge in pattern.own_gauges]
    if pattern.finished is not None:
        lines.append(f"Finished: {write_check(pattern.finished, pattern.units)}.")
    lines += [f"{key}: {text}" for key, text in pattern.extra]
    lines += [f"Define: {write_special(special, terms)}" for special in pattern.specials]
    return lines


def write(pattern: Pattern, terms: Terms = "US", numbers: Sequence[tuple[str, str]] = ()) -> str:
    """The whole pattern as canonical text in the given terms; numbers: names that it uses, and what they stand for."""
    lines = _header_lines(pattern, terms)
    lines += [f"Number: {name} = {value}" for name, value in numbers]
    every = tuple(range(len(pattern.sizes)))
    for index, section in enumerate(pattern.sections):
        lines += ["", write_section_head(section, list(pattern.sections[:index]))]
        active = every
        for line in section.lines:
            if line.sizes != active:
                lines.append(size_line(line.sizes, pattern.sizes))
                active = line.sizes
            lines.append(write_line(line, terms, pattern.units))
    return "\n".join(lines) + "\n"
