"""The numbers of a text that may get a name, in the order of the text, and those that are held, with the reason."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from rillstep.core.findings import Span
from rillstep.core.grading.growing_line import LABEL, GrowingLine
from rillstep.core.measures.arrangement import places_in
from rillstep.core.tree import (
    Again,
    Chain,
    Check,
    Evenly,
    Foundation,
    Gesture,
    Group,
    Line,
    Next,
    Num,
    Pattern,
    Prose,
    Repeat,
    Row,
    Section,
    Setup,
    Skip,
    Step,
    Work,
)
from rillstep.core.words.numbers import numbers_in

# Shorter chains begin a ring, and shorter runs are details.
LEAST_CHAIN, LEAST_RUN = 6, 2
_MAKE = re.compile(r"\bmake\s+(\d{1,3})\b(?!\s*(?:[(\[/]|,\s*\d))", re.IGNORECASE)
_MOTIF = re.compile(r"\b(?:squares?|motifs?|hexagons?|patch(?:es)?|granny|blocks?)\b", re.IGNORECASE)
# Why the sides of a square in rounds stay.
SIDE_OF_A_SQUARE = "it is how many sides a square has: squares worked in rounds stay as they are"
_PLAIN = re.compile(r"\b(?:in|into) each (?:st|stitch|sc|hdc|dc|tr)\b[^,;(]*(?:around|across)?", re.IGNORECASE)

SlotKind = Literal["number", "range", "single", "growing", "start", "constant", "rounds"]


@dataclass(frozen=True)
class Slot:
    """A number of a text in one size. part: what it is called ("chain", "rounds"). held: why it does not move.

    kind: a number by itself; the end of a range of rounds, which is so many more than the round before, or of a plain
    round that may be one (`single`); the end of a growing line (`growing`), and before it its run in the first round
    (`start`) and runs that stay (`constant`, at their `place` in it); or rounds that are only counted. first: the
    number of the first round of those.
    """

    section: int
    title: str
    part: str
    value: int
    span: Span
    held: str = ""
    kind: SlotKind = "number"
    first: int = 0
    growing: GrowingLine | None = None
    place: tuple[int, int] = (0, 0)

    @property
    def is_named(self) -> bool:
        """Whether it can have a name at all."""
        return bool(self.span.line) and self.kind != "rounds"


def slots_of(
    pattern: Pattern, rows: Sequence[str], growing: Mapping[int, Sequence[GrowingLine]], single: bool
) -> list[Slot]:
    """The slots of a text in one size. growing: the growing lines of each section. single: whether the last plain round
    of a section may be several."""
    return [
        replace(slot, section=index, title=section.title)
        for index, section in enumerate(pattern.sections)
        for slot in _of_section(section, rows, growing.get(index, ()), single)
    ]


def _of_section(section: Section, rows: Sequence[str], growing: Sequence[GrowingLine], single: bool) -> Iterator[Slot]:
    yield from _made(section, rows)
    inside = {number: line for line in growing for number in line.lines}
    beginning = True  # nothing is worked in the section before
    lone = _lone_round(section, rows) if single and not growing else None
    for line in section.lines:
        whole = inside.get(line.span.line)
        if line is lone and isinstance(line, Row):
            size = line.sizes[0]
            yield Slot(0, "", _rounds_word(line), 1, line.label_span, kind="single", first=line.first.at(size))
        elif whole is None:
            yield from _laid_out(line, rows)
            slots = _of_line(line, bool(growing), beginning)
            yield from map(_as_side, slots) if _is_square(section) else slots
        elif line.span.line == whole.lines[0]:
            span = Span(whole.lines[0], 1, 1)
            if whole.run is not None and (section.continues is not None or not _begins_at_ring(section, whole)):
                yield Slot(0, "", "first run", whole.first_run, span, kind="start", growing=whole)
            for place, value in whole.constants():
                if value >= LEAST_RUN:
                    yield Slot(0, "", "stitches", value, span, kind="constant", growing=whole, place=place)
            yield Slot(0, "", _rounds_word(line), whole.end, span, kind="growing", first=whole.begin, growing=whole)
        beginning = beginning and not isinstance(line, Row | Again | Setup)


def _is_square(section: Section) -> bool:
    """Whether a section is a square, or another motif, in rounds."""
    motif = section.role == "square" or _MOTIF.search(section.title) is not None
    return motif and any(isinstance(line, Row) and line.kind == "Rnd" for line in section.lines)


def _as_side(slot: Slot) -> Slot:
    """The slot of a square: how often its sides are repeated is held."""
    return replace(slot, held=SIDE_OF_A_SQUARE) if slot.part == "repeats" and slot.value in (3, 4) else slot


def _lone_round(section: Section, rows: Sequence[str]) -> Row | None:
    """The last round of a section without ranges, where it is plain, so that there can be more of it."""
    lines = [line for line in section.lines if isinstance(line, Row | Again)]
    if len(lines) < 2 or any(line.last is not None for line in lines) or not isinstance(lines[-1], Row):
        return None
    last = lines[-1]
    raw = rows[last.span.line - 1]
    label = LABEL.match(raw)
    plain = (
        label is not None and len(label[2]) > 2 and _PLAIN.search(raw) and not re.search(r"\d", _rest(raw, label.end()))
    )
    return last if plain and last.first.parts and not last.first.source else None


def _rest(raw: str, at: int) -> str:
    """What a line does: without its label, its chain at the beginning and its total."""
    return re.sub(r"\bch\s*\d\b|[—(\[].*$|\b\d+\s*(?:sts?|sc|hdc|dc)\b\.?\s*$", "", raw[at:], flags=re.IGNORECASE)


def _begins_at_ring(section: Section, growing: GrowingLine) -> bool:
    """Whether rounds that grow begin at a ring, so that how many stitches there are follows from the round alone."""
    chains = [
        step.length.at(0)
        for line in section.lines
        if isinstance(line, Setup | Row)
        for step in line.steps[:1]
        if isinstance(step, Chain) and step.length.values[0] is not None
    ]
    return growing.begin <= 5 and max(chains, default=0) < LEAST_CHAIN


def _made(section: Section, rows: Sequence[str]) -> Iterator[Slot]:
    """How many of a piece are made, where its heading says so in one number."""
    if not section.span.line or section.make == (1,):
        return
    raw = rows[section.span.line - 1]
    match = _MAKE.search(raw)
    motif = section.role == "square" or _MOTIF.search(section.title) is not None
    if match is not None and motif and int(match[1]) == section.made(0) > 2:
        yield Slot(0, "", "pieces", int(match[1]), Span(section.span.line, match.start(1) + 1, match.end(1) + 1))


def _laid_out(line: Line, rows: Sequence[str]) -> Iterator[Slot]:
    """The rows and columns of a layout, where words tell them in one number each."""
    if not isinstance(line, Prose) or line.note or not line.span.line:
        return
    raw = rows[line.span.line - 1]
    places = places_in(raw)
    for part, (begin, end) in zip(("layout rows", "layout columns"), places or (), strict=False):
        yield Slot(0, "", part, int(raw[begin:end]), Span(line.span.line, begin + 1, end + 1))


def _rounds_word(line: Line) -> str:
    return "rows" if isinstance(line, Row | Again) and line.kind == "Row" else "rounds"


def _of_line(line: Line, grows: bool, beginning: bool) -> Iterator[Slot]:
    """The slots of a line; grows: its section has rounds that grow, whose number of increases stays.
    beginning: it is the first one of its section, so that its chain is what is worked into."""
    if isinstance(line, Setup):
        for step in line.steps:
            if isinstance(step, Chain):
                yield from _number("chain", step.length, LEAST_CHAIN, "it begins a ring or a row")
            elif isinstance(step, Foundation | Evenly):
                yield from _of_step(step, None, 0)
        return
    if isinstance(line, Check) and line.fold:
        for item in line.items:
            if isinstance(item.number, Num):
                yield from _number(f"fold {item.what}", item.number, 1, "it is no part of the fold")
    if not isinstance(line, Row | Again):
        return
    if isinstance(line, Row):
        for at, step in enumerate(line.steps):
            if grows and isinstance(step, Repeat):
                yield from (_held("repeat", n, "it is how the base grows") for n in numbers_in(step))
            elif at == 0 and beginning and isinstance(step, Chain):
                yield from _number("chain", step.length, LEAST_CHAIN, "it begins a ring or a row")
            else:
                yield from _of_step(step, line.steps[at - 1] if at else None, at)
    size = line.sizes[0]
    first, many = line.first.at(size), line.rounds(size)
    if line.last is not None and _is_plain(line.last):
        yield Slot(0, "", _rounds_word(line), many, line.last.span, kind="range", first=first)
    else:
        yield Slot(0, "", _rounds_word(line), many, line.span, kind="rounds", first=first)


def _of_step(step: Step, before: Step | None, at: int) -> Iterator[Slot]:
    match step:
        case Work(per=per) if per.at(0) > 1:
            yield from (_held("increase", n, "it is how it grows") for n in numbers_in(step))
        case Work(into=Next(count=count)):
            yield from _number("stitches", count, LEAST_RUN, "one stitch is a detail")
        case Group(into=Next(count=count)):
            yield from _number("stitches", count, LEAST_RUN, "one stitch is a detail")
            yield from (_held("detail", n, "it is part of how a stitch is made") for n in numbers_in(step.steps))
        case Evenly(count=count):
            yield from _number("edge stitches", count, LEAST_RUN, "one stitch is a detail")
        case Foundation(count=count):
            yield from _number("foundation", count, LEAST_RUN, "it begins a ring or a row")
        case Repeat(times=Num() as times):
            yield from _number("repeats", times, 2, "it is done once")
            yield from (_held("repeat", n, "it stands inside a repeat") for n in numbers_in(step.steps))
        case Skip(count=count) if isinstance(before, Chain):
            yield _held("opening", count, "an opening is made for a hand: it stays")
        case Skip(count=count):
            yield from _number("gap", count, LEAST_RUN, "one stitch is a detail")
        case Chain(length=length) if at:
            yield from _number("chains", length, LEAST_CHAIN, "it is a space or a picot")
        case Gesture():
            pass
        case _:
            yield from (_held("detail", n, "it is part of how a stitch is made") for n in numbers_in(step))


def _held(part: str, number: Num, why: str) -> Slot:
    span = number.span if _is_plain(number) else Span(0, 1, 1)
    return Slot(0, "", part, number.at(0), span, why)


def _is_plain(number: Num) -> bool:
    return not number.source and len(number.parts) == 1 and not number.offset


def _number(part: str, number: Num, least: int, why: str) -> Iterator[Slot]:
    if _is_plain(number) and number.span.line:
        yield Slot(0, "", part, number.at(0), number.span, "" if number.at(0) >= least else why)
