"""Which numbers of a text nothing holds (a part of `make mutate`): each number of an instruction is raised and lowered by one, and what stays
proved is sorted by code into a closed list of kinds.

A number that is changed without a finding, in a line that is still called proved, is *free*: the maker would make
another bag, and a true one. What no kind covers is a hole of the proof.
"""

import random
from collections import Counter
from collections.abc import Iterator, Mapping
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal, get_args

from rillstep.core.findings import Span, apply_edits
from rillstep.core.proof import Proof, prove_as_read
from rillstep.core.tree import (
    Again,
    Chain,
    Closing,
    EachKind,
    Evenly,
    Every,
    Foundation,
    Group,
    Line,
    NamedChain,
    Next,
    Num,
    Repeat,
    Row,
    Same,
    Setup,
    Skip,
    SkipTo,
    Step,
    Together,
    Work,
)
from rillstep.core.words.numbers import edit_value, numbers_in
from rillstep.document.ready import READY_BAGS

FreeKind = Literal["rounds", "foundation", "chain", "edge", "stitch", "placement", "unstated", "copied"]
# So many of those that stay proved are printed, drawn at random.
JUDGED = 100
KINDS: tuple[FreeKind, ...] = get_args(FreeKind)
WHAT: dict[FreeKind, str] = {
    "rounds": "how many plain rounds there are, where nothing after them counts them",
    "foundation": "a foundation on which all that follows is worked by “each” and “around”",
    "chain": "the length of a chain that nothing is worked into by its number",
    "edge": "stitches along row ends, a seam or another piece (held by nothing yet)",
    "stitch": "how one stitch, or the group in one place, is made, where no total counts it",
    "placement": "where in its row something stands: all counts stay the same",
    "unstated": "a row of which no total and no later row tells how many it makes",
    "copied": "which of several rows is worked again, where another comes out as well",
}


@dataclass(frozen=True)
class FreeNumber:
    """A change that stays proved: where, what was changed into what, and its kind; None where no kind covers it."""

    line: int
    size: int
    was: int
    now: int
    span: Span
    kind: FreeKind | None
    row: str


@dataclass(frozen=True)
class Mutated:
    """What came of all changes of a text: how many were tried, and those that stay proved."""

    tried: int
    free: tuple[FreeNumber, ...]


def mutated(text: str) -> Mutated:
    """Every number of every instruction one up and one down, in each size by itself."""
    before = prove_as_read(text)
    proved = {line.line for line in before.lines if line.proved}
    tried, free = 0, []
    for line, number, size, now in _changes(before):
        tried += 1
        changed = apply_edits(text, (edit_value(number, size, now),))
        after = prove_as_read(changed)
        if _is_found(before, after):
            continue
        marks = {one.line: one.mark for one in after.lines}
        own = line.span.line
        if isinstance(line, Row | Again) and not (own in proved and marks.get(own) == "proved"):
            continue  # the line is said not to be proved
        kind = _kind_of(line, number, size, before, after)
        was = number.at(size)
        free.append(FreeNumber(own, size, was, now, number.span, kind, changed.split("\n")[own - 1].strip()))
    return Mutated(tried, tuple(free))


def _changes(proof: Proof) -> Iterator[tuple[Row | Again | Setup, Num, int, int]]:
    seen: set[tuple[Span, int]] = set()
    for _, line in proof.pattern.lines():
        if not isinstance(line, Row | Again | Setup) or line.broken:
            continue
        for number in numbers_in(line):
            for size, value in enumerate(number.values):
                alone = len(number.parts) > 1
                if value is None or (number.span, size if alone else -1) in seen:
                    continue
                seen.add((number.span, size if alone else -1))
                written = value - number.offset
                yield from ((line, number, size, value + by) for by in (1, -1) if written + by >= 0)


def _is_found(before: Proof, after: Proof) -> bool:
    """Is something said that was not said before, or a line no longer proved?"""
    known = {(f.code, f.span.line, f.size, f.message) for f in before.findings}
    new = any(f.severity != "caution" and (f.code, f.span.line, f.size, f.message) not in known for f in after.findings)
    return new or [one.mark for one in after.lines] != [one.mark for one in before.lines]


def _kind_of(line: Line, number: Num, size: int, before: Proof, after: Proof) -> FreeKind | None:
    spans = {number.span, *number.parts}
    if isinstance(line, Again) and any(_at(one, spans) for one in line.sources):
        return "copied"
    if isinstance(line, Row | Again) and (_at(line.first, spans) or (line.last is not None and _at(line.last, spans))):
        return "rounds"
    steps = list(_every(line.steps)) if isinstance(line, Row | Setup) else []
    if isinstance(line, Row) and any(
        isinstance(named, NamedChain) and named.length is not None and _at(named.length, spans) for named in line.named
    ):
        return "chain"
    step = next((one for one in reversed(steps) if any(_at(n, spans) for n in numbers_in(one))), None)
    if isinstance(line, Setup):
        match step:
            case Chain() | Foundation():
                return "foundation"
            case Work():
                return "placement"
            case _:
                return None
    if isinstance(step, Evenly) or (isinstance(step, Work) and _is_edge(step)):
        return "edge"
    same = _counts(before, size) == _counts(after, size)
    match step:
        case Chain() | Closing():
            return "chain"
        case Together() | Group():
            return "stitch"
        case Work(per=per, into=into) if _at(per, spans) or isinstance(into, Same):
            return "stitch" if same else "unstated"
        case Work() | Skip() | SkipTo() | Repeat() | EachKind() if same:
            return "placement"
        case Work() | Skip() | SkipTo() | Repeat() | EachKind():
            return "unstated"
        case Foundation():
            return "foundation"
        case _:
            return None


def _at(number: Num, spans: set[Span]) -> bool:
    return number.span in spans or any(part in spans for part in number.parts)


def _is_edge(step: Work) -> bool:
    what: Any = getattr(step.into, "what", None)
    return what is not None and what.kind == "end"


def _every(steps: tuple[Step, ...]) -> Iterator[Step]:
    """Steps with what they hold, the outer ones first."""
    for step in steps:
        yield step
        if isinstance(step, Repeat | Group):
            yield from _every(step.steps)
        elif isinstance(step, EachKind):
            yield from _every(step.works)


def _counts(proof: Proof, size: int) -> list[object]:
    return [[(one.sts, one.spaces) for one in line.rounds] for line in proof.works[size].lines]


__all__ = ["KINDS", "WHAT", "Every", "FreeKind", "FreeNumber", "Mutated", "Next", "mutated"]


def shipped() -> dict[str, str]:
    """The texts that are counted, by name: the corpus, the ready bags, and the ten as designers type them."""
    folder = Path(__file__).parents[1]
    paths = [*sorted((folder / "corpus").glob("*.txt")), *sorted((folder / "typed").glob("*.txt"))]
    return {**{path.stem: path.read_text() for path in paths}, **{f"ready {bag.key}": bag.text for bag in READY_BAGS}}


def report(texts: Mapping[str, str]) -> None:
    """Prints how many changes stay proved, by kind, each that no kind covers, and a hundred to be judged by hand."""
    tried, kinds, holes, every = 0, Counter[FreeKind | None](), [], []
    with ProcessPoolExecutor() as pool:
        for name, found in zip(texts, pool.map(mutated, texts.values()), strict=True):
            tried += found.tried
            kinds.update(one.kind for one in found.free)
            told = [(one.kind, f"{name}:{one.line} {one.was} -> {one.now}: {one.row}") for one in found.free]
            every += told
            holes += [words for kind, words in told if kind is None]
    print(f"{tried:,} numbers changed by one, {kinds.total():,} stay proved, {len(holes)} of them of no kind")
    for kind in KINDS:
        print(f"{kinds[kind]:6,} {kind}: {WHAT[kind]}")
    for hole in holes:
        print("  of no kind", hole)
    for kind, words in random.Random("judged by hand").sample(every, min(JUDGED, len(every))):
        print(f"  {kind}: {words}")


if __name__ == "__main__":
    report(shipped())
