"""The tree as text, in one canonical form: every instruction that is printed comes from here.

`parse(write(tree))` gives back the same tree, always.
"""

import re
from collections.abc import Sequence
from dataclasses import replace

from rillstep.core.gauge import OwnGauge
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, Units
from rillstep.core.notation.sections import usually_continues
from rillstep.core.printing.place_words import write_end, write_into, write_number, write_what
from rillstep.core.stitches import LOOP_ABBREVIATIONS, Terms, abbreviation, is_post
from rillstep.core.tree import (
    Again,
    Along,
    Chain,
    Check,
    CheckItem,
    Closing,
    Decimals,
    EachKind,
    Evenly,
    Every,
    Foundation,
    Gesture,
    Group,
    Kept,
    Last,
    Line,
    Next,
    Nth,
    Num,
    Onward,
    Pattern,
    Prose,
    Repeat,
    Row,
    Same,
    Section,
    Setup,
    Skip,
    SkipTo,
    Special,
    Spread,
    Step,
    ToEnd,
    Together,
    Total,
    Until,
    What,
    Work,
)
from rillstep.core.tree.features import takes_the_rest
from rillstep.core.words.numbers import set_text


def _loop(loop: str) -> str:
    return f"{LOOP_ABBREVIATIONS[loop]} " if loop != "both" else ""  # type: ignore[index]


def _together(step: Together, terms: Terms) -> str:
    body = f"{_loop(step.loop)}{abbreviation(step.stitch, terms)}{write_number(step.legs)}tog"
    if step.into is not None:
        return f"{body} {write_into(step.into, False, terms)}"
    if step.end is not None:
        return f"{body} {write_end(step.end, terms)}"
    return body if step.times.is_always(1) else f"{body} {write_number(step.times)} times"


def _chain(step: Chain, terms: Terms) -> str:
    said = {None: "", "none": " (does not count)"}.get(step.counts)
    if said is None:
        space = f", ch {write_number(step.space)}" if step.space is not None else ""
        said = f" (counts as {abbreviation(step.counts or '', terms)}{space})"
    measured = f", or{write_until(step.until)[1:]}" if step.until is not None else ""
    return f"ch {write_number(step.length)}{said}{measured}"


_EVENLY = {
    "all edges": "around all edges",
    "edge": "across edge",
    "row ends": "along row ends",
    "foundation": "along foundation ch",
    "around": "around edge",
}
_GESTURES = {
    "join into ring": "join into a ring",
    "adjustable ring": "make an adjustable ring",
    "leave rest unworked": "leave rem sts unworked",
}


def _gesture(step: Gesture, terms: Terms) -> str:
    where = "" if step.into is None else f" {write_into(step.into, False, terms)}"
    match step.kind:
        case "place marker" | "move marker" | "remove marker":
            up = " up" if step.kind == "move marker" and not where else ""
            return f"{step.kind} {step.name}".rstrip() + up + where
        case "change colour":
            return f"change to {step.name} {step.how}".rstrip()
        case "join colour":
            return (f"join colour {step.name}" if step.name else "join yarn") + where
        case "seam":
            return f"with {step.name}"
        case "so far" if isinstance(step.into, Next):
            return f"({write_number(step.into.count)} sts)"
        case "both layers":
            return "fold flat and work through both layers"
        case "aside":
            return step.name
        case "leave rest unworked" if isinstance(step.into, Next):
            return (
                f"leave rem {write_number(step.into.count)} "
                f"{write_what(step.into.what, not step.into.count.is_always(1), terms)}"
                f" unworked"
            )
        case kind:
            return _GESTURES.get(kind, kind)


def write_step(step: Step, terms: Terms) -> str:
    """One step, in lower case."""
    match step:
        case Work(stitch, per, into, loop):
            count = "" if per.is_always(1) else f"{write_number(per)} "
            where = write_into(into, not per.is_always(1), terms)
            if is_post(stitch) and isinstance(into, Next | Every | Same | Last | Nth):
                where = where.replace("in ", "around ", 1)
            return f"{_loop(loop)}{count}{abbreviation(stitch, terms)} {where}"
        case Together():
            return _together(step, terms)
        case SkipTo(end):
            return f"sk {write_end(end, terms)}"
        case Skip(count, what, True):
            number = "" if count.is_always(1) else f"{write_number(count)} "
            return f"sk first {number}{write_what(what, bool(number), terms)}"
        case Skip(count, what):
            many = not count.is_always(1)
            return (
                f"sk next {write_number(count)} {write_what(what, True, terms)}"
                if many
                else f"sk next {write_what(what, False, terms)}"
            )
        case Chain():
            return _chain(step, terms)
        case Closing(length, stitch, space):
            return (
                f"ch {write_number(length)}, {abbreviation(stitch, terms)} in first "
                f"st to close (counts as ch-{write_number(space)} sp)"
            )
        case Group(steps, into):
            return f"({', '.join(_within(step, terms) for step in steps)}) {write_into(into, True, terms)}"
        case EachKind(works, end):
            pieces = [write_step(work, terms).removesuffix(f" {write_end(end, terms)}") for work in works]
            pieces = [piece.replace(" around each ", " in each ", 1) for piece in pieces]  # "in each FPdc and BPdc"
            return f"{' and '.join(pieces)} {write_end(end, terms)}"
        case Evenly(stitch, count, along):
            return f"{write_number(count)} {abbreviation(stitch, terms)} evenly {_EVENLY[along]}"
        case Onward(words):
            return words
        case Spread(stitch, change, more, end):
            word = "increasing" if more else "decreasing"
            return (
                f"{abbreviation(stitch, terms)} in each st {write_end(end, terms)}, "
                f"{word} {write_number(change)} {'st' if change.is_always(1) else 'sts'} "
                f"evenly"
            )
        case Foundation(stitch, count):
            return f"foundation {abbreviation(stitch, terms)} {write_number(count)}"
        case Repeat(steps, times):
            inside = write_steps(steps, terms, capital=False)
            return (
                f"[{inside}] {write_number(times)} times"
                if isinstance(times, Num)
                else f"[{inside}] {write_end(times, terms)}"
            )
        case Gesture():
            return _gesture(step, terms)


def _within(step: Step, terms: Terms) -> str:
    """A step of a group: all of them go into the one place that the group names."""
    match step:
        case Work(stitch, per, Next(count, What("st", None, "", False)), "both") if per.is_always(1):
            number = "" if count.is_always(1) else f"{write_number(count)} "
            return f"{number}{abbreviation(stitch, terms)}"
        case Repeat(steps, Num() as times):
            return f"[{', '.join(_within(one, terms) for one in steps)}] {write_number(times)} times"
        case _:
            return write_step(step, terms)


def write_steps(steps: tuple[Step, ...], terms: Terms, capital: bool = True) -> str:
    """Steps in one sentence without its full stop; gestures are set off by semicolons."""
    text = ""
    for before, step in zip((None, *steps), steps, strict=False):
        piece = write_step(step, terms)
        if isinstance(before, Repeat) and isinstance(before.times, ToEnd) and takes_the_rest(step):
            piece = _each_rem(piece)
        gap = "; " if isinstance(step, Gesture) and text else ", "
        text = piece if not text else text + gap + piece
    return text[:1].upper() + text[1:] if capital else text


def _each_rem(piece: str) -> str:
    return re.sub(r"\b(in|around) each st ", r"\1 each rem st ", piece)


def write_sentence(steps: tuple[Step, ...], kept: tuple[Kept, ...], terms: Terms) -> str:
    """Steps in one sentence without its full stop, with the words that are kept among them, as they were written."""
    if not kept:
        return write_steps(steps, terms)
    text, apart = "", False
    before: Step | None = None
    for index in range(len(steps) + 1):
        for words in (one for one in kept if one.after == index or (one.after > len(steps) and index == len(steps))):
            if words.bracket:
                text += f"{' ' if text else ''}({words.words})"
            else:
                text += f"{'; ' if text else ''}{words.words}"
                apart = True
        if index == len(steps):
            break
        piece = write_steps((steps[index],), terms, capital=not text)
        if isinstance(before, Repeat) and isinstance(before.times, ToEnd) and takes_the_rest(steps[index]):
            piece = _each_rem(piece)
        gap = "; " if apart or isinstance(steps[index], Gesture) else ", "
        text = piece if not text else text + gap + piece
        before, apart = steps[index], False
    return text


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
    return f"{row.kind}s {write_number(row.first)}-{write_number(row.last)}{side}"


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


def write_until(until: Until | None) -> str:
    """ ", until the wall measures 20 (24) cm"; nothing where no length is named."""
    if until is None:
        return ""
    length = f"{set_text(until.length.values, lambda v: f'{v:g}')} {until.unit}" if until.length is not None else ""
    return ", until " + " ".join(filter(None, (until.words, length, until.rest)))


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
