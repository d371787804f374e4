"""A text with names, its numbers changed: `Number:` lines and `Sizes:`, and what follows from them at its own place.

Every other byte of the text stays. What follows are plain totals, labels of rounds and checks that stand beside names:
they are restated as they are worked. Digits in kept words are not touched.
"""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.fabric import LineWork, SizeWork, work_pattern
from rillstep.core.fabric.counting import Way, ways_of_counting
from rillstep.core.findings import Edit, apply_edits
from rillstep.core.grading.renumbering import Numbering, Place, edit_of, numbering_edits, renumbered
from rillstep.core.grading.resizing import with_sizes
from rillstep.core.proof.checks.statements import counted_by
from rillstep.core.settling import read
from rillstep.core.tree import Again, Chain, Check, FromHook, Line, Num, Pattern, Row, Setup, Step, Work
from rillstep.core.words.numbers import set_text

_PLAIN = re.compile(
    r"^(\s*number\s*:\s*)([A-Za-z][\w ]*?)(\s*=\s*)(\d{1,5}(?:\s*\(\s*\d{1,5}(?:\s*,\s*\d{1,5})*\s*\))?)(\s*(?:#.*)?)$",
    re.IGNORECASE,
)
# Restating one number may change what follows from it.
MOST_PASSES = 4
_MOST_REPEATED = 60

Ways = Mapping[tuple[int, int, int], Way]  # by place, and the index of the total


@dataclass(frozen=True)
class Counting:
    """How the sample counts. ways: each of its totals. said: by their length what its starting chains count as, where
    only its totals tell; under 0 the chains that are skipped at the very start."""

    ways: Ways
    said: Mapping[int, str]


Stating = Row | Again | Setup


def named_values(text: str, n_sizes: int = 1) -> dict[str, tuple[int, ...]]:
    """The names that stand for plain numbers, in the order of the text, with their number in each size; names that
    are sums of others follow."""
    found: dict[str, tuple[int, ...]] = {}
    for raw in text.split("\n"):
        if (match := _PLAIN.match(raw)) is not None:
            numbers = tuple(int(number) for number in re.findall(r"\d+", match[4]))
            if len(numbers) in (1, n_sizes):
                found.setdefault(" ".join(match[2].split()), numbers * (n_sizes if len(numbers) == 1 else 1))
    return found


def free_numbers(text: str) -> dict[str, int]:
    """The names that stand for plain numbers in a text in one size."""
    return {name: values[0] for name, values in named_values(text).items()}


def changed(text: str, values: Mapping[str, Sequence[int]], sizes: Sequence[str] = ()) -> str:
    """The text with other numbers behind its names, for each size; sizes: their names, where there are several."""
    lines = text.split("\n")
    for at, raw in enumerate(lines):
        if (match := _PLAIN.match(raw)) is not None and (name := " ".join(match[2].split())) in values:
            lines[at] = f"{match[1]}{match[2]}{match[3]}{set_text(tuple(values[name]))}{match[5]}"
    return with_sizes("\n".join(lines), sizes) if sizes else "\n".join(lines)


def restated(text: str, numbering: Numbering, counted_as: Counting) -> str:
    """The text with plain totals, labels, references to rows and checks as they are worked, in every size; names and
    sums stay. numbering, counted_as: how the sample counts its rounds and its totals."""
    text = _repeated(renumbered(text, numbering))
    for _ in range(MOST_PASSES):
        pattern = read(text).pattern
        bare = without_totals(pattern, counted_as.said)
        works = [work_pattern(bare, size) for size in range(len(bare.sizes))]
        found = (*_totals(pattern, bare, works, counted_as.ways), *_checks(pattern, works))
        edits = {edit.span: edit for edit in found}
        if not edits:
            return text
        text = apply_edits(text, tuple(edits.values()))
    return text


def restated_once(text: str, full: Pattern, bare: Pattern, numbering: Numbering, counted_as: Counting) -> str:
    """The same of a text whose tree at its new numbers is known, so that it is not read for it. full: its tree, labels
    not counted on yet; bare: without what it states, labels counted on. What follows from what was restated is left."""
    works = [work_pattern(bare, size) for size in range(len(bare.sizes))]
    edits = {edit.span: edit for edit in (*_totals(full, bare, works, counted_as.ways), *_checks(full, works))}
    edits |= {edit.span: edit for edit in numbering_edits(full, numbering)}
    return apply_edits(text, tuple(edits.values())) if edits else text


def _repeated(text: str) -> str:
    """The text with how often rows are repeated as many times as their label says ("Rnds 4-9: Rep Rnds 2 and 3 three
    times"), in every size."""
    for _ in range(_MOST_REPEATED):
        repairs = [f.repairs[-1] for f in read(text).findings if f.code == "rows-otherwise" and f.repairs]
        edit = next((one.edits for one in repairs if one.message.startswith("Repeat ")), None)
        if edit is None:
            return text
        text = apply_edits(text, edit)
    return text


def without_totals(pattern: Pattern, said: Mapping[int, str]) -> Pattern:
    """The pattern without what it states: its work goes on from what is made, not from a total that is to change.

    said: what chains count as, where only the totals told it.
    """
    sections = tuple(
        replace(section, lines=tuple(_unstated(line, said) for line in section.lines)) for section in pattern.sections
    )
    return replace(pattern, sections=sections)


def _unstated(line: Line, said: Mapping[int, str]) -> Line:
    if isinstance(line, Row):
        first = next((at for at, step in enumerate(line.steps) if isinstance(step, Chain | Work)), -1)
        steps = tuple(_told(step, said) if at == first else step for at, step in enumerate(line.steps))
        return replace(line, totals=(), steps=steps if said else line.steps)
    return replace(line, totals=()) if isinstance(line, Again | Setup) else line


def _told(step: Step, said: Mapping[int, str]) -> Step:
    """The step with what its chain counts as."""
    match step:
        case Chain(counts=None, length=length) if (value := length.values[0]) is not None and value in said:
            return replace(step, counts=said[value])
        case Work(into=FromHook(counts_as=None) as into) if 0 in said:
            return replace(step, into=replace(into, counts_as=step.stitch))
    return step


def _said_in(pattern: Pattern) -> dict[int, str]:
    """What starting chains count as in a text in one size, where it takes its totals to know."""
    told: dict[int, str] = {}
    for line in work_pattern(pattern, 0).lines:
        told |= dict(line.around.says)
        if line.last is not None:
            told |= dict(line.last.says)
    return told


def _totals(pattern: Pattern, bare: Pattern, works: Sequence[SizeWork], counted_as: Ways) -> Iterator[Edit]:
    """Totals, each counted in the way in which the sample counts it."""
    for place, line, other in stating(pattern, bare):
        done = {size: works[size].of(other) for size in line.sizes}
        if not all(work is not None and _is_known(work) for work in done.values()):
            continue
        for at, total in enumerate(line.totals):
            way = counted_as.get((*place, at))
            if way is None:
                continue  # nothing that the sample shows how to count
            values = list(total.count.values)
            for size, work in done.items():
                assert work is not None
                ways = ways_of_counting(total, line.totals, work.rounds[-1], size)
                values[size] = ways.get(way, values[size])
            if (edit := edit_of(total.count, values)) is not None:
                yield edit
            yield from _each(line, at, done, way)


def _each(line: Stating, at: int, done: Mapping[int, LineWork | None], way: Way) -> Iterator[Edit]:
    """The total after each round of a range but the last, in a text in one size."""
    total = line.totals[at]
    ((size, work), *others) = done.items()
    if others or work is None:
        return
    for number, counts in zip(total.each[:-1], work.rounds, strict=False):
        value = ways_of_counting(total, line.totals, counts, size).get(way)
        if value is not None and (edit := edit_of(number, [value])) is not None:
            yield edit


def counting_of(pattern: Pattern) -> Counting:
    """How a text in one size counts: the way in which each of its totals is true."""
    said: dict[int, str] = {}
    bare = without_totals(pattern, said)
    work = work_pattern(bare, 0)
    if any(line.trouble is not None for line in work.lines):
        said = _said_in(pattern)
        bare = without_totals(pattern, said)
        work = work_pattern(bare, 0)
    found: dict[tuple[int, int, int], Way] = {}
    for place, line, other in stating(pattern, bare):
        done = work.of(other)
        if done is None or not _is_known(done):
            continue
        for at, total in enumerate(line.totals):
            ways = ways_of_counting(total, line.totals, done.rounds[-1], 0)
            way = next((one for one, count in ways.items() if count == total.count.at(0)), None)
            if way is not None:
                found.setdefault((*place, at), way)
    return Counting(found, said)


def stating(pattern: Pattern, bare: Pattern) -> Iterator[tuple[Place, Stating, Stating]]:
    """The lines that may state totals, with themselves in the text without totals; by section and line in it."""
    for index, (section, other) in enumerate(zip(pattern.sections, bare.sections, strict=True)):
        at, number = -1, 0
        for line, same in zip(section.lines, other.lines, strict=True):
            if isinstance(line, Row | Again | Setup) and isinstance(same, Row | Again | Setup):
                at, number = (at, number) if line.span.line == number else (at + 1, line.span.line)
                yield (index, at), line, same


def _is_known(done: LineWork) -> bool:
    return done.trouble is None and done.known and bool(done.rounds)


def _checks(pattern: Pattern, works: Sequence[SizeWork]) -> Iterator[Edit]:
    """Rounds, rows and stitches that a check counts in its section."""
    for index, section in enumerate(pattern.sections):
        for line in section.lines:
            if not isinstance(line, Check) or line.fold:
                continue
            for item in line.items:
                if not isinstance(item.number, Num) or item.what not in ("rnds", "rows", "sts"):
                    continue
                values = list(item.number.values)
                for size in line.sizes:
                    there = counted_by(works[size], line, item.what, index)
                    values[size] = values[size] if there is None else there
                if (edit := edit_of(item.number, values)) is not None:
                    yield edit
