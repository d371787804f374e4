"""What the words of a row name besides the places that it works into, held to what is there: the chain that a round
began with, the stitch that it is joined to, an earlier row; and another name for a stitch that is not there."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, fields, is_dataclass, replace
from functools import cache
from typing import Any, TypeVar

from rillstep.core.craft import BY_US, Terms, abbreviation, basic, is_called
from rillstep.core.fabric import LineWork, differing, work_row
from rillstep.core.fabric.edge import Edge, leaves
from rillstep.core.findings import Edit, Finding, Repair
from rillstep.core.memory import remember
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.tree import (
    Again,
    Chain,
    FromHook,
    Gesture,
    NamedBelow,
    NamedChain,
    NamedRow,
    NamedStitch,
    Row,
    Setup,
    Special,
    What,
    Work,
)
from rillstep.core.tree.leaves import ordinal_text
from rillstep.core.words.numbers import edit_value


def named_chains(subject: Subject) -> list[Finding]:
    """ "Sl st to top of ch 4" where the round began with ch 3; "3rd ch of beg ch-5" where its 3rd is not the top."""
    found: list[Finding] = []
    if not any(_named(line, NamedChain) for line in subject.lines):
        return found
    for work in subject.works:
        for index, line in enumerate(work.lines):
            if isinstance(line.line, Row) and line.line.named and not line.line.broken:
                before = work.lines[index - 1] if index and work.lines[index - 1].section == line.section else None
                found += _chains(subject, line, before)
    return found


def _chains(subject: Subject, line: LineWork, before: LineWork | None) -> Iterable[Finding]:
    assert isinstance(line.line, Row)
    for named in line.line.named:
        if not isinstance(named, NamedChain):
            continue
        size = line.size
        told = named.length.at(size) if named.length is not None else None
        begun = _begins_with(before if named.below else line, size, subject.pattern.specials)
        if not begun:
            continue
        row = "row below" if named.below else "round"
        where = subject.in_size(size)
        nth = named.nth.at(size) if named.nth is not None else None
        # "Top of ch-3" may be the part of a longer chain that is the stitch; "3rd ch of ch-5" names the whole.
        fits = [one for one in begun if told in (None, one.length) or (nth is None and told == one.top)]
        if not fits and named.length is not None:
            there = begun[0].length
            message = (
                f"{write_label(line.line)}{where}: this names a chain of {told}; the {row} begins with ch {there}."
            )
            repair = Repair(f"Change {told} to {there}", (edit_value(named.length, size, there),))
            yield Finding("chain-not-there", "error", named.length.span, message, size, there, told, (repair,))
        elif named.nth is not None and nth is not None and not any(one.may_be_joined(nth) for one in fits):
            top = fits[0].top or fits[0].length
            message = (
                f"{write_label(line.line)}{where}: the {ordinal_text(nth)} chain of ch {fits[0].length} is not its "
                f"top; that is the {ordinal_text(top)}."
            )
            yield Finding("chain-not-there", "error", named.nth.span, message, size, top, nth)


@dataclass(frozen=True)
class _Begun:
    """A chain that a round begins with; top: how many of its chains are the stitch, where a space stands beside it."""

    length: int
    top: int | None = None

    def may_be_joined(self, nth: int) -> bool:
        """Is this chain of it where a round is joined?"""
        return nth == self.top if self.top is not None else nth <= self.length


def _begins_with(line: LineWork | None, size: int, specials: Sequence[Special]) -> list[_Begun]:
    """The chains that the round of a line begins with, the last one first; none where it begins otherwise. A stitch of
    the text's own that begins with a chain ("Beg V-st") begins the round with it."""
    own = {special.name.lower(): special.steps[0] for special in specials if special.steps}
    found: list[_Begun] = []
    for step in line.steps if line is not None else ():
        match step:
            case Chain(length=length, counts=counts, space=space):
                many = length.at(size)
                top = many - space.at(size) if space is not None else None
                counted = counts in BY_US and many == basic(str(counts)).turning_chain
                found = [_Begun(many, many if top is None and counted else top)]
            case Work(into=FromHook(nth=nth)):
                return [*found, _Begun(nth.at(size) - 1)]
            case Work(stitch=stitch) if isinstance(first := own.get(stitch.lower()), Chain) and not found:
                many = first.length.at(size)
                return [_Begun(many, many - first.space.at(size) if first.space is not None else None)]
            case Gesture() | Work(stitch="sl st"):
                pass
            case _:
                break
    return found


def joined_stitches(subject: Subject) -> list[Finding]:
    """ "Sl st to first dc" of a round in which there is none."""
    found: list[Finding] = []
    for worked in subject.lines:
        for named in _named(worked, NamedStitch):
            for line in worked.done:
                if line.trouble is not None or line.stated or not line.rounds:
                    continue
                made = [place for place, _ in leaves(line.end.runs)]
                names = {name for place in made for name in (place.stitch, place.special)}
                if not made or any(is_called(name, named.stitch) for name in names):
                    continue
                assert isinstance(line.line, Row)
                name = abbreviation(named.stitch, subject.pattern.terms)
                message = f"{write_label(line.line)}{subject.in_size(line.size)}: there is no {name} to join to."
                kinds = {place.stitch for place in made if place.stitch}
                there = abbreviation(next(iter(kinds)), subject.pattern.terms) if len(kinds) == 1 else "st"
                repair = Repair(f"Change {name} to {there}", (Edit(named.span, there),))
                found.append(
                    Finding("stitch-not-there", "error", named.span, message, line.size, None, None, (repair,))
                )
    return found


N = TypeVar("N", NamedRow, NamedStitch, NamedBelow, NamedChain)


def _named(worked: WorkedLine, kind: type[N]) -> list[N]:
    """What the words of a line name, of one kind."""
    row = worked.line
    return [one for one in row.named if isinstance(one, kind)] if isinstance(row, Row) and row.named else []


def stitches_below(subject: Subject) -> list[Finding]:
    """ "FPtr around next 4 dc 2 rows below" where there is no dc 2 rows below."""
    found: list[Finding] = []
    if not any(_named(line, NamedBelow) for line in subject.lines):
        return found
    for work in subject.works:
        edges: list[Edge] = []  # what each round of the piece is worked on
        section = -1
        for line in work.lines:
            if line.section != section:
                edges, section = [], line.section
            if not line.turns:
                edges = []  # of a line that was not worked it is not known what it leaves
            for turn in line.turns:
                edges.append(turn.edge)
                for named in turn.source.named:
                    if isinstance(named, NamedBelow) and not _is_below(named, edges):
                        found.append(_not_below(subject, line, named))
    return found


def _is_below(named: NamedBelow, edges: Sequence[Edge]) -> bool:
    """Is the stitch in the row that is meant, or is it not known what that is? One row below is the row that is worked
    on, or the one below that: makers say both."""
    meant = edges[-named.below - 1 :] if named.below == 1 else edges[-named.below : -named.below + 1]
    if len(edges) <= named.below:
        return True
    return any(edge.assumed for edge in meant) or any(
        is_called(one, named.stitch)
        for edge in meant
        for place, _ in leaves(edge.runs)
        for one in (place.stitch, place.special)
    )


def _not_below(subject: Subject, line: LineWork, named: NamedBelow) -> Finding:
    assert isinstance(line.line, Row | Again)
    name = abbreviation(named.stitch, subject.pattern.terms)
    rows = "row" if named.below == 1 else f"{named.below} rows"
    message = f"{write_label(line.line)}{subject.in_size(line.size)}: there is no {name} {rows} below."
    span = named.span if isinstance(line.line, Row) else line.line.span
    return Finding("stitch-not-there", "error", span, message, line.size)


def named_spaces(subject: Subject) -> list[Finding]:
    """ "Sc in same ch-4 sp" where the spaces are of 5 chains."""
    found: list[Finding] = []
    for worked in subject.lines:
        for line in worked.done if _names_space(worked) else ():
            found += _spaces_not_there(subject, line)
    return found


@remember(8192)
def _names_space(worked: WorkedLine) -> bool:
    """Does a line name a space by its length?"""
    sources = {id(turn.source): turn.source for line in worked.done for turn in line.turns}
    return any(_is_by_length(what) for source in sources.values() for what in _places_in(source.steps))


def _is_by_length(what: What) -> bool:
    return what.kind == "sp" and what.length is not None and what.length.parts != ()


def _spaces_not_there(subject: Subject, line: LineWork) -> Iterable[Finding]:
    """The first space of a line that is named by a length that no space below it has."""
    assert isinstance(line.line, Row | Again)
    for turn in line.turns:
        lengths = {place.length for place, _ in leaves(turn.edge.runs) if place.kind == "sp"}
        for what in _places_in(turn.source.steps) if lengths and not turn.edge.assumed else ():
            told = what.length.at(line.size) if _is_by_length(what) and what.length is not None else None
            if told is None or told in lengths or what.length is None:
                continue
            there = min(lengths, key=lambda length: (abs(length - told), length))
            where = f"{write_label(line.line)}{subject.in_size(line.size)}"
            message = f"{where}: there is no ch-{told} space to work into; what is below is ch-{there}."
            repair = Repair(f"Change {told} to {there}", (edit_value(what.length, line.size, there),))
            own = isinstance(line.line, Row)
            span, repairs = (what.length.span, (repair,)) if own else (line.line.span, ())
            yield Finding("chain-not-there", "error", span, message, line.size, there, told, repairs)
            return


def named_rows(subject: Subject) -> list[Finding]:
    """A row that is named as the one worked into: an error where there is none, and said to be unchecked where it is
    another than the row before."""
    found: list[Finding] = []
    for work in subject.works:
        known: dict[str, list[int]] = {"Rnd": [], "Row": []}
        before: tuple[str, int] | None = None
        for line in work.lines:
            row = line.line
            for named in row.named if isinstance(row, Row | Setup) and not row.broken else ():
                if isinstance(named, NamedRow):
                    found += _row(subject, line, named, known[named.kind], before)
            if isinstance(row, Setup):
                continue
            first, times = row.first.at(work.size), max(0, row.rounds(work.size))
            if times:
                known[row.kind] += [first, first + times - 1]
                before = (row.kind, first + times - 1)
    return found


def _row(
    subject: Subject, line: LineWork, named: NamedRow, known: list[int], before: tuple[str, int] | None
) -> Iterable[Finding]:
    """known: the first and the last number of each line before it."""
    number = named.number.at(line.size)
    if before == (named.kind, number):
        return
    if isinstance(line.line, Row) and line.line.kind == named.kind and number in _own(line):
        return
    ranges = zip(known[::2], known[1::2], strict=True)
    where = subject.in_size(line.size)
    if not any(first <= number <= last for first, last in ranges):
        label = "Here" if isinstance(line.line, Setup) else write_label(line.line)
        message = f"{label}{where}: there is no {named.kind} {number} before it."
        nearest = before[1] if before is not None and before[0] == named.kind else None
        change = (edit_value(named.number, line.size, nearest),) if nearest is not None else ()
        repairs = (Repair(f"Change {number} to {nearest}", change),) if nearest is not None else ()
        yield Finding("row-not-found", "error", named.number.span, message, line.size, nearest, number, repairs)
    else:
        message = (
            f"The row before is worked into here, whatever its number: that it is {named.kind} {number} is not checked."
        )
        yield Finding("place-not-checked", "warning", named.number.span, message)


def _own(line: LineWork) -> range:
    """The rounds of a range, each of which is worked into by the next."""
    assert isinstance(line.line, Row)
    first = line.line.first.at(line.size)
    return range(first - 1, first + max(1, line.line.rounds(line.size)) - 1)


def other_names(line: LineWork, size: int, terms: Terms) -> tuple[Repair, ...]:
    """Another name for the stitch that a row names as a place and that is not there: the one that is, or any."""
    row = line.line
    if not isinstance(row, Row) or line.trouble is None or not line.trouble.stitches:
        return ()
    wrong, *there = line.trouble.stitches
    places = [what for what in _places_in(row.steps) if what.stitch == wrong and what.span.line]
    found: list[Repair] = []
    for name, stitch in [(abbreviation(one, terms), one) for one in there] + [("st", "")]:
        changed = replace(row, steps=_renamed(row.steps, wrong, stitch))
        work = work_row(changed, size, line.start, line.around)
        if work.trouble is None and not differing(row.totals, work.counts, size):
            edits = tuple(Edit(span, name) for span in sorted({what.span for what in places}))
            found.append(Repair(f"Change {abbreviation(wrong, terms)} to {name}", edits))
    return tuple(found)


@cache
def _fields(kind: Any) -> tuple[str, ...]:
    return tuple(f.name for f in fields(kind) if "span" not in f.name) if is_dataclass(kind) else ()


def _places_in(node: Any) -> list[What]:
    if isinstance(node, What):
        return [node]
    if isinstance(node, tuple):
        return [what for item in node for what in _places_in(item)]
    return [what for name in _fields(node.__class__) for what in _places_in(getattr(node, name))]


def _renamed(node: Any, wrong: str, stitch: str) -> Any:
    """A node in which every place that is called by one stitch is called by another."""
    if isinstance(node, What):
        return replace(node, stitch=stitch) if node.stitch == wrong else node
    if isinstance(node, tuple):
        return tuple([_renamed(item, wrong, stitch) for item in node])
    names = _fields(node.__class__)
    return replace(node, **{name: _renamed(getattr(node, name), wrong, stitch) for name in names}) if names else node
