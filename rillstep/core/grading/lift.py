"""A plain text in one size as a text with names: what may move gets a name, and the lines stay as they are typed.

Rounds of one shape whose numbers rise or fall by constant steps become one line that is written by the number of the
round; ranges of plain rounds, foundation chains, runs, repeats and long chains get a name each; equal numbers that play
the same part in a section share one. What is held says why. A text is lifted only where it reads back to the same tree.
"""

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, fields, is_dataclass

from rillstep.core.findings import Edit, Span, apply_edits
from rillstep.core.notation.parser import Parsed
from rillstep.core.settling import read
from rillstep.core.tree import (
    Again,
    Chain,
    Gesture,
    Line,
    Next,
    Num,
    Repeat,
    Row,
    Section,
    Setup,
    Skip,
    Step,
    Total,
    What,
    Work,
)
from rillstep.core.words.named_numbers import BRACES, DEFINED, names_in, names_of
from rillstep.core.words.numbers import numbers_in

# So many rounds of one shape are a growing sequence; two may be chance.
LEAST_GROWING = 3
# Shorter chains begin a ring, and shorter runs are details.
LEAST_CHAIN, LEAST_RUN = 6, 2
_LABEL = re.compile(r"^(\s*)(rnd|round|row|r)(\.?\s*)(\d+)(?=\s*(?:\([^()]*\))?\s*[:.])", re.IGNORECASE)
_NUMBER = re.compile(r"\d+")


@dataclass(frozen=True)
class Held:
    """A number that does not move: where, what it is, and why."""

    line: int
    value: int
    reason: str


@dataclass(frozen=True)
class Lifted:
    """The text with names; names: what each stands for, and how many places share it."""

    text: str
    names: tuple[tuple[str, int, int], ...]
    held: tuple[Held, ...]


@dataclass
class _Naming:
    """Names that are given so far, by section, part and value, and the edits that put them in."""

    taken: set[str]
    names: dict[tuple[int, str, int], str] = field(default_factory=dict)
    edits: dict[Span, str] = field(default_factory=dict)
    values: dict[str, int] = field(default_factory=dict)

    def name(self, section: int, title: str, part: str, value: int) -> str:
        """The name of a number; equal ones of the same part in a section share it."""
        key = (section, part, value)
        if key not in self.names:
            plain = " ".join(re.findall(r"[A-Za-z][A-Za-z0-9]*", title)).lower()
            wanted = part if plain in ("", "pattern") else f"{plain} {part}"
            name, more = wanted, 2
            while name in self.taken or name in ("rnd", "row", "round"):
                name, more = f"{wanted} {more}", more + 1
            self.taken.add(name)
            self.names[key] = name
            self.values[name] = value
        return self.names[key]


def lift(text: str) -> Lifted | None:
    """The text with names for what may move; None where the text does not read back to the same tree with them, or
    comes in several sizes."""
    parsed = read(text)
    if len(parsed.pattern.sizes) > 1:
        return None
    for growing in (True, False):
        lifted = _lifted(text, parsed, growing)
        if read(lifted.text).pattern.sections == parsed.pattern.sections:
            return lifted
    return None


def _lifted(text: str, parsed: Parsed, growing: bool) -> Lifted:
    rows = text.split("\n")
    naming = _Naming(set(names_of(rows).defined))
    held: list[Held] = []
    gone: set[int] = set()
    written: dict[int, str] = {}
    ends: dict[str, str] = {}
    for index, section in enumerate(parsed.pattern.sections):
        end = ends.get((section.continues or "").lower(), "0")
        sequences = list(_sequences(section, rows)) if growing else []
        inside = {line: sequence for sequence in sequences for line in sequence}
        for line in section.lines:
            number = line.span.line
            if number in inside:
                sequence = inside[number]
                if number == sequence[0]:
                    last = int(_label_of(rows[sequence[-1] - 1]))
                    name = naming.name(index, section.title, _rounds_word(line), last)
                    written[number] = _by_number(rows, sequence, name)
                    gone |= set(sequence[1:])
                    end = name
                continue
            end = _name_numbers(index, section, line, naming, held, end, bool(sequences))
        ends[section.title.lower()] = end
    chains = {value: name for (_, part, value), name in naming.names.items() if part == "chains"}
    for length in _lengths(parsed.pattern):
        elsewhere = length.span.line not in written and length.span.line not in gone
        if _is_plain(length) and elsewhere and length.at(0) in chains:
            naming.edits.setdefault(length.span, chains[length.at(0)])
    edited = apply_edits(text, tuple(Edit(span, f"{{{name}}}") for span, name in naming.edits.items())).split("\n")
    kept = [written.get(at, raw) for at, raw in enumerate(edited, start=1) if at not in gone]
    definitions = [f"Number: {name} = {value}" for name, value in naming.values.items()]
    at = _head_ends(kept)
    sums = [*naming.edits.values(), *(match[1] for line in written.values() for match in BRACES.finditer(line))]
    used = Counter(name for one in sums for name in names_in(one))
    names = tuple((name, value, used[name]) for name, value in naming.values.items())
    return Lifted("\n".join([*kept[:at], *definitions, *kept[at:]]), names, tuple(held))


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
    """The line before which definitions stand: behind the last line of the head that has a key word."""
    last = 0
    for at, raw in enumerate(rows):
        if re.match(r"\s*(?:pattern|terms|units|gauge|yarn|hook|define|number|finished)\s*:", raw, re.IGNORECASE):
            last = at + 1
        elif DEFINED.match(raw) is None and re.match(r"\s*(?:section\s*:|rnd|row|ch\b|make)", raw, re.IGNORECASE):
            break
    return last


def _rounds_word(line: Line) -> str:
    return "rows" if isinstance(line, Row | Again) and line.kind == "Row" else "rounds"


def _name_numbers(
    index: int, section: Section, line: Line, naming: _Naming, held: list[Held], end: str, grows: bool
) -> str:
    """Names the numbers of a line that may move; the answer is the sum that the number of its last round is. grows:
    the section has rounds that grow, whose number of increases stays."""
    if isinstance(line, Setup):
        for step in line.steps:
            if isinstance(step, Chain):
                _name(index, section, "chain", step.length, naming, held, LEAST_CHAIN, "it begins a ring or a row")
        return end
    if not isinstance(line, Row | Again):
        return end
    if isinstance(line, Row):
        for at, step in enumerate(line.steps):
            if grows and isinstance(step, Repeat):
                held += [Held(n.span.line, n.at(0), "it is how the base grows") for n in numbers_in(step)]
                continue
            _name_step(index, section, step, line.steps[at - 1] if at else None, at, naming, held)
    many = line.rounds(line.sizes[0])
    if line.last is None or not _is_plain(line.last):
        return _simple(f"{end} + {many}")
    name = naming.name(index, section.title, _rounds_word(line), many)
    total = f"{end} + {name}"
    if line.first.at(line.sizes[0]) != _value_of(end, naming) + 1:
        total = f"{line.first.at(line.sizes[0]) - 1} + {name}"
    naming.edits[line.last.span] = _simple(total)
    return _simple(total)


def _name_step(
    index: int, section: Section, step: Step, before: Step | None, at: int, naming: _Naming, held: list[Held]
) -> None:
    match step:
        case Work(into=Next(count=count)):
            _name(index, section, "stitches", count, naming, held, LEAST_RUN, "one stitch is a detail")
        case Repeat(times=Num() as times):
            _name(index, section, "repeats", times, naming, held, 2, "it is done once")
            held += [Held(n.span.line, n.at(0), "it stands inside a repeat") for n in numbers_in(step.steps)]
        case Skip(count=count) if isinstance(before, Chain):
            held.append(Held(count.span.line, count.at(0), "an opening is made for a hand: it stays"))
        case Chain(length=length) if at:
            _name(index, section, "chains", length, naming, held, LEAST_CHAIN, "it is a space or a picot")
        case Gesture():
            pass
        case _:
            held += [Held(n.span.line, n.at(0), "it is part of how a stitch is made") for n in numbers_in(step)]


def _is_plain(number: Num) -> bool:
    return not number.source and len(number.parts) == 1 and not number.offset


def _name(
    index: int, section: Section, part: str, number: Num, naming: _Naming, held: list[Held], least: int, why: str
) -> None:
    """Names a number, or says why it is held."""
    if not _is_plain(number) or not number.span.line:
        return
    value = number.at(0)
    if value < least:
        held.append(Held(number.span.line, value, why))
        return
    naming.edits[number.span] = naming.name(index, section.title, part, value)


def _value_of(total: str, naming: _Naming) -> int:
    """What a sum of names comes to."""
    parts = [part.strip() for part in total.split("+")]
    return sum(int(part) if part.isdigit() else naming.values[part] for part in parts)


def _simple(total: str) -> str:
    """The sum with its plain numbers added up, behind the names."""
    parts = [part.strip() for part in total.split("+")]
    plain = sum(int(part) for part in parts if part.isdigit())
    names = [part for part in parts if not part.isdigit()]
    return " + ".join([*names, *([str(plain)] if plain or not names else [])])


# --- rounds that grow


def _label_of(raw: str) -> str:
    match = _LABEL.match(raw)
    return match[4] if match is not None else ""


def _sequences(section: Section, rows: Sequence[str]) -> Iterator[list[int]]:
    """Lines of the text that are neighbouring rounds of one shape, whose numbers change by the same each time."""
    numbers = [
        line.span.line for line in section.lines
        if isinstance(line, Row) and line.last is None and line.last_line in (0, line.span.line)
    ]  # fmt: skip
    at = 0
    while at < len(numbers):
        run = [numbers[at]]
        while at + len(run) < len(numbers) and _goes_on(run, numbers[at + len(run)], rows):
            run.append(numbers[at + len(run)])
        if len(run) >= LEAST_GROWING and _steps(rows, run[0], run[1]) and any(_steps(rows, run[0], run[1]) or ()):
            yield run
            at += len(run)
        else:
            at += 1


def _goes_on(run: Sequence[int], following: int, rows: Sequence[str]) -> bool:
    step = _steps(rows, run[-1], following)
    return step is not None and (len(run) < 2 or step == _steps(rows, run[-2], run[-1]))


def _steps(rows: Sequence[str], one: int, other: int) -> tuple[int, ...] | None:
    """By how much each number of a line differs from the line before; None for lines of another shape."""
    first, second = rows[one - 1], rows[other - 1]
    a, b = _LABEL.match(first), _LABEL.match(second)
    if a is None or b is None or int(b[4]) != int(a[4]) + 1 or "{" in first + second:
        return None
    body, then = first[a.end() :], second[b.end() :]
    if _NUMBER.sub("#", body) != _NUMBER.sub("#", then):
        return None
    return tuple(int(y) - int(x) for x, y in zip(_NUMBER.findall(body), _NUMBER.findall(then), strict=True))


def _by_number(rows: Sequence[str], sequence: Sequence[int], name: str) -> str:
    """The lines as one, written by the number of the round."""
    first = rows[sequence[0] - 1]
    label = _LABEL.match(first)
    steps = _steps(rows, sequence[0], sequence[1])
    assert label is not None and steps is not None
    begin, moves = int(label[4]), iter(steps)
    word = "row" if label[2].lower() == "row" else "rnd"

    def by_round(match: re.Match[str]) -> str:
        step = next(moves)
        return match[0] if not step else f"{{{_sum(step, int(match[0]) - step * begin, word)}}}"

    gap = label[3] or " "
    return f"{label[1]}{label[2]}s{gap}{begin}-{{{name}}}{_NUMBER.sub(by_round, first[label.end() :])}"


def _sum(step: int, more: int, word: str) -> str:
    """ "rnd - 2", "6*rnd", "40 - 2*rnd"."""
    times = word if abs(step) == 1 else f"{abs(step)}*{word}"
    if step < 0:
        return f"{more} - {times}"
    return times if not more else f"{times} {'+' if more > 0 else '-'} {abs(more)}"
