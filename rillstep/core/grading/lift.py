"""A plain text in one size as a text with names: what may move gets a name, and the lines stay as they are typed.

Equal numbers that play the same part in a section share a name; where the text is known in other sizes as well, only
those that are equal in all of them. What is held says why; a number that is held and differs between the sizes is
freed. A text is lifted only where it reads back to the same tree.
"""

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, fields, is_dataclass, replace

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.grading.gauge_lines import below_title
from rillstep.core.grading.growing import growing_lines
from rillstep.core.grading.growing_line import LABEL, GrowingLine
from rillstep.core.grading.slots import Slot, slots_of
from rillstep.core.notation.parser import Parsed
from rillstep.core.settling import read
from rillstep.core.tree import Num, Pattern, Row, Section, Total, What
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in, names_of


@dataclass(frozen=True)
class Held:
    """A number that does not move: where, what it is, and why."""

    line: int
    value: int
    reason: str


@dataclass(frozen=True)
class Lifted:
    """The text with names; names: what each stands for, and how many places share it. values: of each name in this
    size and in those beside it."""

    text: str
    names: tuple[tuple[str, int, int], ...]
    held: tuple[Held, ...]
    values: Mapping[str, tuple[int, ...]] = field(default_factory=dict)


@dataclass
class _Naming:
    """Names that are given so far, by section, part and values, and the edits that put them in."""

    taken: set[str]
    names: dict[tuple[int, str, tuple[int, ...]], str] = field(default_factory=dict)
    edits: dict[Span, str] = field(default_factory=dict)
    piece: int = 0  # the first section that is worked as the one whose numbers are named
    values: dict[str, tuple[int, ...]] = field(default_factory=dict)

    def name(self, slot: Slot, values: tuple[int, ...]) -> str:
        """The name of a number; those that are equal in all sizes, and of the same part in a section, share it."""
        key = (self.piece, slot.part, values)
        if key not in self.names:
            plain = " ".join(re.findall(r"[A-Za-z][A-Za-z0-9]*", slot.title)).lower()
            wanted = slot.part if plain in ("", "pattern") else f"{plain} {slot.part}"
            name, more = wanted, 2
            while name in self.taken or name in ("rnd", "row", "round"):
                name, more = f"{wanted} {more}", more + 1
            self.taken.add(name)
            self.names[key] = name
            self.values[name] = values
        return self.names[key]


def lift(text: str, beside: Sequence[str] = ()) -> Lifted | None:
    """The text with names for what may move; beside: the same text in its other sizes. None where the text does not
    read back to the same tree with the names, comes in several sizes, or is not of one form with those beside it."""
    parsed = read(text)
    others = [read(other) for other in beside]
    if any(len(one.pattern.sizes) > 1 for one in (parsed, *others)):
        return None
    texts = list(zip((text, *beside), (parsed, *others), strict=True))
    for growing, single in ((True, True), (True, False), (False, True), (False, False)):
        own, *besides = _slots(texts, growing, single)
        if any(_form(one) != _form(own) for one in besides):
            continue
        lifted = _lifted(text, parsed, own, besides)
        if same_work(read(lifted.text).pattern, parsed.pattern):
            return lifted
    return None


def same_work(one: Pattern, other: Pattern) -> bool:
    """Whether two texts say the same; a range of one round is that round."""
    return _single(one.sections) == _single(other.sections)


def _single(sections: tuple[Section, ...]) -> list[Section]:
    return [
        replace(
            section,
            lines=tuple(
                replace(line, last=None)
                if isinstance(line, Row) and line.last is not None and line.last.values == line.first.values
                else line
                for line in section.lines
            ),
        )
        for section in sections
    ]


def _form(slots: Sequence[Slot]) -> list[tuple[int, str, str]]:
    """What texts of one form have alike: which numbers stand where."""
    return [(slot.section, slot.part, slot.kind) for slot in slots]


def _slots(texts: Sequence[tuple[str, Parsed]], growing: bool, single: bool) -> list[list[Slot]]:
    """The slots of a text in each of its sizes."""
    lines: list[dict[int, list[GrowingLine]]] = [{} for _ in texts]
    known: dict[int, list[GrowingLine]] = {}
    for _ in (1, 2) if growing else ():  # what one size shows of rounds that grow, another may have fewer of
        lines = [_growing(text, parsed, known) for text, parsed in texts]
        for of_text in lines:
            for index, found in of_text.items():
                known.setdefault(index, []).extend(found)
        if len(texts) == 1:
            break
    return [
        slots_of(parsed.pattern, text.split("\n"), found, single)
        for (text, parsed), found in zip(texts, lines, strict=True)
    ]


def _growing(text: str, parsed: Parsed, known: Mapping[int, Sequence[GrowingLine]]) -> dict[int, list[GrowingLine]]:
    rows = text.split("\n")

    def reads_alike(line: GrowingLine) -> bool:
        one = [
            line.written(str(line.end)) if at == line.lines[0] else raw
            for at, raw in enumerate(rows, start=1)
            if at not in line.lines[1:]
        ]
        return same_work(read("\n".join(one)).pattern, parsed.pattern)

    return {
        index: growing_lines(section, rows, reads_alike, known.get(index, ()))
        for index, section in enumerate(parsed.pattern.sections)
    }


def _lifted(text: str, parsed: Parsed, own: Sequence[Slot], beside: Sequence[Sequence[Slot]]) -> Lifted:
    rows = text.split("\n")
    naming = _Naming(set(names_of(rows).defined))
    alike = _alike(own, beside)
    held: list[Held] = []
    written: dict[int, str] = {}
    labels: dict[Span, str] = {}
    gone: set[int] = set()
    ends: dict[str, str] = {}
    starts = [ends.get((section.continues or "").lower(), "0") for section in parsed.pattern.sections]
    end, at, start = "0", -1, ""
    constant: dict[tuple[int, int], str] = {}
    for index, slot in enumerate(own):
        while at < slot.section:
            if at >= 0:
                ends[parsed.pattern.sections[at].title.lower()] = end
            at += 1
            starts[at] = end = ends.get((parsed.pattern.sections[at].continues or "").lower(), "0")
        values = (slot.value, *(other[index].value for other in beside))
        naming.piece = alike[slot.section]
        if slot.kind == "rounds":
            end = _simple(f"{end} + {slot.value}")
        elif not slot.is_named or (slot.held and len(set(values)) == 1):
            if slot.held:
                held.append(Held(slot.span.line, slot.value, slot.held))
        elif slot.kind == "start":
            start = naming.name(slot, values)
        elif slot.kind == "constant":
            constant[slot.place] = naming.name(slot, values)
        elif slot.kind == "growing":
            assert slot.growing is not None
            before = [(part, naming.values[part][0]) for part in end.split(" + ") if not part.isdigit()]
            if before:  # its first round moves with those before it
                many = (slot.value - slot.first + 1, *(o[index].value - o[index].first + 1 for o in beside))
                name = naming.name(slot, many)
                end = _simple(f"{end} + {name}")
            else:
                end = naming.name(slot, values)
            written[slot.span.line] = slot.growing.written(f"{{{end}}}", before, start, constant)
            gone |= set(slot.growing.lines[1:])
            start, constant = "", {}
        elif slot.kind == "single":
            name = naming.name(slot, values)
            goes_on = slot.first == _value_of(end, naming) + 1
            end = _simple(f"{end} + {name}" if goes_on else f"{slot.first - 1} + {name}")
            label = LABEL.match(rows[slot.span.line - 1])
            assert label is not None
            place = Span(slot.span.line, label.start(2) + 1, label.end(4) + 1)
            labels[place] = f"{label[2]}s{label[3] or ' '}{label[4]}-{{{end}}}"
        elif slot.kind == "range":
            name = naming.name(slot, values)
            goes_on = slot.first == _value_of(end, naming) + 1
            end = _simple(f"{end} + {name}" if goes_on else f"{slot.first - 1} + {name}")
            naming.edits[slot.span] = end
        else:
            naming.edits[slot.span] = naming.name(slot, values)
    chains = {values[0]: name for (_, part, values), name in naming.names.items() if part == "chains"}
    for length in _lengths(parsed.pattern):
        elsewhere = length.span.line not in written and length.span.line not in gone
        if not length.source and len(length.parts) == 1 and elsewhere and length.at(0) in chains:
            naming.edits.setdefault(length.span, chains[length.at(0)])
    edits = [
        *(Edit(span, f"{{{name}}}") for span, name in naming.edits.items()),
        *(Edit(*one) for one in labels.items()),
    ]
    edited = apply_edits(text, tuple(edits)).split("\n")
    kept = [written.get(at, raw) for at, raw in enumerate(edited, start=1) if at not in gone]
    definitions = [f"Number: {name} = {values[0]}" for name, values in naming.values.items()]
    head = _head_ends(kept)
    lines = (*written.values(), *labels.values())
    sums = [*naming.edits.values(), *(match[1] for line in lines for match in BRACES.finditer(line))]
    used = Counter(name for one in sums for name in names_in(one))
    names = tuple((name, values[0], used[name]) for name, values in naming.values.items())
    return Lifted("\n".join([*kept[:head], *definitions, *kept[head:]]), names, tuple(held), dict(naming.values))


def _alike(own: Sequence[Slot], beside: Sequence[Sequence[Slot]]) -> dict[int, int]:
    """For each section the first one with the same numbers in the same places: a front and a back move together."""
    forms: dict[int, list[tuple[object, ...]]] = {}
    for index, slot in enumerate(own):
        values = (slot.value, *(other[index].value for other in beside))
        forms.setdefault(slot.section, []).append((slot.part, slot.kind, slot.held, values))
    first: dict[tuple[tuple[object, ...], ...], int] = {}
    return {
        section: first.setdefault(tuple(form), section) if len(form) > 1 else section  # one number may be chance
        for section, form in forms.items()
    }


def _lengths(node: object) -> Iterator[Num]:
    """The lengths by which chain spaces are called: "in ch-60 sp", "2 ch-60 sps"; they move with the chain."""
    if isinstance(node, What | Total) and node.length is not None:
        yield node.length
    if isinstance(node, tuple):
        for item in node:
            yield from _lengths(item)
    elif is_dataclass(node) and not isinstance(node, type):
        for one in fields(node):
            yield from _lengths(getattr(node, one.name))


def _head_ends(rows: Sequence[str]) -> int:
    """The line before which definitions stand: behind the last line of the head that has a key word, or the title."""
    last = below_title(rows)
    for at, raw in enumerate(rows):
        if re.match(
            r"\s*(?:pattern|terms|units|sizes?|gauge|yarn|hook|define|number|finished)\s*:", raw, re.IGNORECASE
        ):
            last = at + 1
        elif DEFINED.match(raw) is None and re.match(r"\s*(?:section\s*:|rnd|row|ch\b|make)", raw, re.IGNORECASE):
            break
    return last


def _value_of(total: str, naming: _Naming) -> int:
    """What a sum of names comes to."""
    parts = [part.strip() for part in total.split("+")]
    return sum(int(part) if part.isdigit() else naming.values[part][0] for part in parts)


def _simple(total: str) -> str:
    """The sum with its plain numbers added up, behind the names."""
    parts = [part.strip() for part in total.split("+")]
    plain = sum(int(part) for part in parts if part.isdigit())
    names = [part for part in parts if not part.isdigit()]
    return " + ".join([*names, *([str(plain)] if plain or not names else [])])
