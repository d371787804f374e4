"""What has been read of a text so far: its head, its sections, the one that is open, and the number that comes next."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from rillstep.core.clauses.sources import called
from rillstep.core.findings import Finding, Span
from rillstep.core.notation import header
from rillstep.core.notation.counted import ChainSaid, with_said
from rillstep.core.notation.header import Header, context_of
from rillstep.core.notation.sections import colour_of, part_title, piece_joined, piece_named, read_heading, says_more
from rillstep.core.tree import (
    Again,
    Along,
    Chain,
    Closing,
    FromHook,
    Gesture,
    InRing,
    Line,
    Next,
    Nth,
    Num,
    Prose,
    Row,
    Section,
    Setup,
    Skip,
    Total,
    words_of,
)
from rillstep.core.words.named_numbers import Names
from rillstep.core.words.stream import MOST_OPEN, Context, InBraces
from rillstep.core.words.tokens import Taught

_TOLD_JOINED = re.compile(
    r"\b(?:join|rejoin|attach)\s+(?:the\s+)?(?:new\s+)?(?:yarn|colou?r\s+\w+|[A-C])\b[^.;]*\b(?:in|to|at|with)\b",
    re.IGNORECASE,
)


def _in_the_middle(line: Line) -> bool:
    """Is a first row numbered as a later one, and begun on stitches that are there: "Row 8: Ch 1, sc in each st
    across"?"""
    if not isinstance(line, Row) or not line.first.parts or any(v is not None and v < 2 for v in line.first.values):
        return False
    return not any(isinstance(getattr(step, "into", None), FromHook | InRing) for step in line.steps)


@dataclass(frozen=True)
class WithNames:
    """A line with names as it was read: with numbers, for some of the sizes in force.

    lines: where it stands. row: set where it was read without a run of 0 that its text still has. places: where the
    numbers stand in it; None for a round that is written by the number of the round.
    """

    lines: tuple[int, ...]
    active: tuple[int, ...]
    sizes: tuple[int, ...]
    text: str
    row: Line | None = None
    places: tuple[InBraces, ...] | None = None


@dataclass
class TextSoFar:
    """What has been read so far; it lives for one call of `parse`."""

    header: Header
    sections: list[Section] = field(default_factory=list)
    open: Section | None = None
    lines: list[Line] = field(default_factory=list)
    heading: tuple[Prose | Setup, ...] = ()  # what the heading of the open section says besides its title
    active: tuple[int, ...] = (0,)
    expected: Num = field(default_factory=lambda: Num((1,)))  # the number of the next row, for each size
    defining: bool = False
    guessed: bool = True  # how the open section is worked was not said
    ends: dict[int, tuple[int | None, ...]] = field(default_factory=dict)  # of rows "until 4 sts remain", by their line
    said: list[ChainSaid] = field(default_factory=list)  # of chains that begin a row, in words
    findings: list[Finding] = field(default_factory=list)
    opened: int = 0  # rows whose words leave open how they are meant
    _told: tuple[object, ...] = ()  # what the last context was made of, as most lines share one
    _context: Context | None = None
    _narrowed: dict[tuple[Taught, ...], Context] = field(default_factory=dict)
    held: Setup | None = None  # where the next row begins, told in a line of its own
    names: Names = field(default_factory=Names)
    braces: tuple[InBraces, ...] = ()  # of the line that is being read
    named: list[WithNames] = field(default_factory=list)

    @property
    def in_head(self) -> bool:
        """Whether nothing but the head has been read."""
        return self.open is None and not self.sections

    def context_of(self, text: str) -> Context:
        """The context of a line, with those phrases of the text that may stand in it: another phrase changes no line
        that does not hold it."""
        context = self.context()
        if not context.phrases:
            return context
        lower = text.lower()
        phrases = tuple(one for one in context.phrases if all(w in lower for w in one.words if w.isalpha()))
        if phrases not in self._narrowed:
            self._narrowed[phrases] = replace(context, phrases=phrases)
        return self._narrowed[phrases]

    def context(self) -> Context:
        kind: Literal["Rnd", "Row"] = "Row" if self.open is not None and self.open.worked.startswith("rows") else "Rnd"
        head, decided = self.header, self.opened >= MOST_OPEN
        told = (
            kind,
            self.active,
            self.braces,
            decided,
            head.sizes,
            head.terms,
            len(head.special_words),
            len(head.renamed),
            len(head.phrases),
            len(head.gauges),
            len(head.own_gauges),
        )
        if told != self._told or self._context is None:
            context = context_of(head, self.active, kind, self.braces)
            self._narrowed.clear()
            self._told, self._context = told, replace(context, decided=True) if decided else context
        return self._context

    def has_rows(self) -> bool:
        """Is there something made already, whose edge can be gone on from?"""
        lines = [*(line for section in self.sections for line in section.lines), *self.lines]
        return any(isinstance(line, Row) for line in lines)

    def close_section(self) -> None:
        if self.open is not None:
            self._let_go()
            self.lines = with_said(_set_up_first(self.lines), self.said)
            worked = _spiral(self.lines) if self.guessed and self.open.worked == "joined rounds" else self.open.worked
            on = Along("elsewhere") if self._is_on_another() else self.open.on
            heading = () if _in_colours(self.lines) else self.heading
            self.sections.append(replace(self.open, lines=(*heading, *self.lines), worked=worked, on=on))
        self.open, self.lines, self.heading = None, [], ()
        self.restart()

    def _let_go(self) -> None:
        """What was held for a row that does not come stays a line of its own."""
        if self.held is not None:
            self.lines.append(self.held)
            self.held = None

    def _is_on_another(self) -> bool:
        """Is the first piece of the text joined to something that is not in it, as in a part of a crochet-along?"""
        if self.sections or self.open is None or self.open.on is not None or self.open.continues is not None:
            return False
        at = next((i for i, one in enumerate(self.lines) if isinstance(one, Row | Again)), None)
        before = self.lines[:at]
        anew = any(isinstance(one, Setup) and begins_anew(one) for one in before)
        if at is not None and not anew and _in_the_middle(self.lines[at]):
            return True
        return (
            at is not None
            and not anew
            and any(any(_TOLD_JOINED.search(words) for words in words_of(one)) or _joins(one) for one in before)
        )

    def restart(self) -> None:
        self.expected = Num((1,) * len(self.header.sizes))

    def take_sizes(self, names: tuple[str, ...]) -> None:
        self.header.told_sizes = names
        self.header.sizes = names[: header.MAX_SIZES] or self.header.sizes
        self.active = tuple(range(len(self.header.sizes)))
        self.restart()

    def start(self, section: Section, guessed: bool = False) -> None:
        self.close_section()
        self.open, self.guessed = section, guessed
        self.active = tuple(range(len(self.header.sizes)))

    def part(self, line: Row) -> None:
        """A row that is counted from 1 again after a line of words: they name another part, worked on the same
        piece."""
        if self.open is None or 1 not in line.first.values or not line.first.parts:
            return
        if not all(line.first.values[size] == 1 and self.expected.at(size) > 1 for size in line.sizes):
            return
        at = max((i for i, one in enumerate(self.lines) if not isinstance(one, Prose)), default=-1) + 1
        before_it = next((one for one in reversed(self.lines) if isinstance(one, Row | Again)), None)
        words = [one.text for one in self.lines[at:] if isinstance(one, Prose) and not one.note]
        title = next(filter(None, map(part_title, words)), "")
        if before_it is None or not title:
            return
        if before_it.kind != line.kind:
            return  # rows that become rounds are counted from 1 again
        told, self.lines = self.lines[at:], self.lines[:at]
        before = [*self.sections, *just(self)]
        self.head(title, line.span, "Row 1:" if line.kind == "Row" else "Rnd 1:")
        assert self.open is not None
        named = piece_named([one.text for one in told if isinstance(one, Prose)], before)
        self.open = replace(self.open, continues=named or self.open.continues or before[-1].title)
        self.lines = told

    def head(self, title: str, span: Span, following: str) -> None:
        """A section begun by a heading; `following` is what stands after it."""
        before = [*self.sections, *just(self)]
        section = read_heading(title, span, before, following, len(self.header.sizes))
        self.start(section, guessed=True)
        colour = colour_of(title)
        if colour:
            self.heading = (Setup((Gesture("change colour", colour, span=span),), self.active, span),)
        elif says_more(title, section):
            self.heading = (Prose(" ".join(title.strip(" *_#:").split()), self.active, True, span),)

    def joins_piece(self, text: str) -> None:
        """ "Join yarn to top right corner of Back." under a heading: the piece that the section goes on from."""
        section = self.open
        if section is None or not self.guessed or any(isinstance(one, Row | Again) for one in self.lines):
            return
        named = piece_joined(text, self.sections)
        if named is not None and named != section.title:
            self.open = replace(section, continues=named)

    def _after(self, last: Num, sizes: Sequence[int]) -> Num:
        """The number of the row after a last one, in some sizes; the others stay where they are."""
        if last.forms or self.expected.forms:
            return self.expected.joined(last.counted_on(1), sizes)
        values = list(self.expected.values)
        for size in sizes:
            values[size] = (last.values[size] or 0) + 1
        return Num(tuple(values))

    def add(self, line: Line, findings: Sequence[Finding]) -> None:
        if isinstance(line, Setup) and takes_up(line):
            self.held = line
            return
        if isinstance(line, Row):
            self.opened += bool(line.readings) and not line.broken
            self.part(line)
            if self.held is not None and self.held.sizes == line.sizes:
                line, self.held = replace(line, steps=(*self.held.steps, *line.steps)), None
        if not isinstance(line, Prose):
            self._let_go()
        if isinstance(line, Row | Again) and line.last is None and line.span.line in self.ends:
            ends = self.ends[line.span.line]
            last = Num(ends, forms=(None,) * len(ends))
            until = (Total(line.until_sts, "sts"),) if line.until_sts is not None else ()
            line = replace(line, last=last, until_sts=None, totals=(*line.totals, *until))
        if isinstance(line, Again) and self.open is not None:
            line = called(line, self.lines, self.sections, self.open.continues)
        if self.open is None:
            kind = getattr(line, "kind", "Rnd")
            worked = "rows" if kind == "Row" else "joined rounds"
            self.open = Section("Pattern", worked, "wall", (), span=line.span)
        elif (
            isinstance(line, Row)
            and line.kind == "Row"
            and self.guessed
            and not any(isinstance(one, Row) for one in self.lines)
        ):
            role = "panel" if self.open.role == "oval" else self.open.role  # a base of rows is a rectangle
            self.open = replace(self.open, worked="rows", role=role)
        elif isinstance(line, Prose) and _names_foundation(line, self.open) and not self.lines:
            self.open = replace(self.open, on=Along("foundation"))
        self.lines.append(line)
        self.findings.extend(findings)
        if isinstance(line, Row | Again):
            self.expected = self._after(line.last or line.first, line.sizes)
        elif isinstance(line, Setup) and begins_anew(line):
            self.restart()


def _in_colours(lines: Sequence[Line]) -> bool:
    """Does a first row join or change to a colour itself?"""
    first = next((line for line in lines if isinstance(line, Row)), None)
    return (
        first is not None
        and bool(first.gestures & {"join colour", "change colour"})
        and any(isinstance(step, Gesture) and "colour" in step.kind and step.name for step in first.steps[:1])
    )


def _names_foundation(line: Prose, section: Section) -> bool:
    """ "Join yarn at one corner of the foundation chain": the edge that a section goes on from."""
    told = re.search(
        r"\b(?:join|attach|rejoin)\b.*\b(?:foundation|starting|beginning)\s+(?:chain|ch|edge)\b",
        line.text,
        re.IGNORECASE,
    )
    return section.continues is not None and section.on is None and told is not None


def _set_up_first(lines: list[Line]) -> list[Line]:
    """A set-up round that is followed by round 2 is the first one."""
    at = [i for i, line in enumerate(lines) if isinstance(line, Row | Again)][:2]
    if len(at) < 2:
        return lines
    first, second = lines[at[0]], lines[at[1]]
    assert isinstance(first, Row | Again) and isinstance(second, Row | Again)
    if first.first.parts or not first.first.is_always(0) or not second.first.is_always(2) or first.last is not None:
        return lines
    one = replace(first, first=first.first.all(1))
    return [one if i == at[0] else line for i, line in enumerate(lines)]


def _spiral(lines: list[Line]) -> str:
    """Rounds of which none is joined, or only the last few, are worked in a spiral, where the text does not say how."""
    rounds = [line for line in lines if isinstance(line, Row) and line.kind == "Rnd"]
    joined = [
        any(isinstance(s, Closing) or (isinstance(s, Gesture) and s.kind == "join") for s in row.steps)
        for row in rounds
    ]
    first = joined.index(True) if any(joined) else len(joined)
    ends_joined = all(joined[first:]) and 2 * first > len(joined)
    few = 2 * joined.count(True) < len(joined) and not joined[0]
    begins_joined = joined[:1] == [True] and joined.count(True) == 1 and len(joined) > 3
    return (
        "spiral rounds" if rounds and (first == len(joined) or ends_joined or begins_joined or few) else "joined rounds"
    )


def _joins(line: Line) -> bool:
    """Does a set-up line join a yarn in a place that it names?"""
    return isinstance(line, Setup) and any(
        isinstance(step, Gesture) and step.kind == "join colour" and step.into is not None for step in line.steps
    )


def takes_up(line: Setup) -> bool:
    """ "Sk next 12 sts, join yarn in next st.": does a line say where the next row begins on stitches that were
    left?"""
    skips = any(isinstance(step, Skip) for step in line.steps)
    joins = next((s for s in line.steps if isinstance(s, Gesture) and s.kind == "join colour"), None)
    unworked = joins is not None and isinstance(joins.into, Next | Nth) and joins.into.what.unworked
    return not line.broken and joins is not None and (skips or unworked)


def begins_anew(line: Setup) -> bool:
    """Does a set-up line begin a new piece?"""
    return any(isinstance(s, Chain) or (isinstance(s, Gesture) and s.kind == "adjustable ring") for s in line.steps)


def just(reading: TextSoFar) -> list[Section]:
    """The section that is still open, as one before the next."""
    return [replace(reading.open, lines=tuple(reading.lines))] if reading.open is not None else []
