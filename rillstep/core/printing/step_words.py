"""Steps in words, as they are printed: "2 sc in next st, [ch 1, sk next st] around; join"."""

import re

from rillstep.core.craft import LOOP_ABBREVIATIONS, Terms, abbreviation, is_post
from rillstep.core.printing.place_words import write_end, write_into, write_number, write_what
from rillstep.core.tree import (
    Chain,
    Closing,
    EachKind,
    Evenly,
    Every,
    Foundation,
    Gesture,
    Group,
    Kept,
    Last,
    Next,
    Nth,
    Num,
    Onward,
    Repeat,
    Same,
    Skip,
    SkipTo,
    Spread,
    Step,
    ToEnd,
    Together,
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
        case "adjustable ring" if step.name:
            return f"make {'an' if step.name[0] in 'aeiou' else 'a'} {step.name}"
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
            return (
                f"{step.manner + ' ' if step.manner else ''}{_loop(loop)}{count}{abbreviation(stitch, terms)} {where}"
            )
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
            return f"[{inside}] {_times(times)}" if isinstance(times, Num) else f"[{inside}] {write_end(times, terms)}"
        case Gesture():
            return _gesture(step, terms)


def _times(times: Num) -> str:
    """ "once", "6 (8) times"."""
    return "once" if times.is_always(1) and not times.shown else f"{write_number(times)} times"


def _within(step: Step, terms: Terms) -> str:
    """A step of a group: all of them go into the one place that the group names."""
    match step:
        case Work(stitch, per, Next(count, What("st", None, "", False)), "both") if per.is_always(1):
            number = "" if count.is_always(1) else f"{write_number(count)} "
            return f"{number}{abbreviation(stitch, terms)}"
        case Repeat(steps, Num() as times):
            return f"[{', '.join(_within(one, terms) for one in steps)}] {_times(times)}"
        case _:
            return write_step(step, terms)


def write_steps(steps: tuple[Step, ...], terms: Terms, capital: bool = True) -> str:
    """Steps in one sentence without its full stop; gestures are set off by semicolons."""
    text = ""
    for before, step in zip((None, *steps), steps, strict=False):
        piece = write_step(step, terms)
        if isinstance(before, Repeat) and isinstance(before.times, ToEnd) and takes_the_rest(step):
            piece = _each_rem(piece)
        text = piece if not text else text + _gap(before, step) + piece
    return text[:1].upper() + text[1:] if capital else text


def _gap(before: Step | None, step: Step) -> str:
    """What stands between two steps: gestures are set off, and a standing stitch is what a yarn is joined with."""
    if isinstance(step, Work) and step.manner and isinstance(before, Gesture) and before.kind == "join colour":
        return " with a "
    return "; " if isinstance(step, Gesture) else ", "


def _each_rem(piece: str) -> str:
    return re.sub(r"\b(in|around) each st ", r"\1 each rem st ", piece)


# Words that are kept stand beside a step as "loosely" does; more of them are a clause of their own.
MOST_BESIDE = 3


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
                short = len(words.words.split()) <= MOST_BESIDE
                text += f"{('' if not text else ', ' if short else '; ')}{words.words}"
                apart = not short
        if index == len(steps):
            break
        piece = write_steps((steps[index],), terms, capital=not text)
        if isinstance(before, Repeat) and isinstance(before.times, ToEnd) and takes_the_rest(steps[index]):
            piece = _each_rem(piece)
        text = piece if not text else text + ("; " if apart else _gap(before, steps[index])) + piece
        before, apart = steps[index], False
    return text


def write_until(until: Until | None) -> str:
    """ ", until the wall measures 20 (24) cm"; nothing where no length is named."""
    if until is None:
        return ""
    length = f"{set_text(until.length.values, lambda v: f'{v:g}')} {until.unit}" if until.length is not None else ""
    return ", until " + " ".join(filter(None, (until.words, length, until.rest)))
