"""Habits of good text: starting chains that are said and alike, rounds that are joined."""

from collections import Counter
from collections.abc import Iterator, Sequence
from itertools import dropwhile

from rillstep.core.craft import basic
from rillstep.core.fabric.counting import begins_as, worked_as
from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.memory import remember
from rillstep.core.proof.repairs import is_true
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.tree import (
    Again,
    Chain,
    Check,
    Closing,
    FromHook,
    Gesture,
    Num,
    Onward,
    Repeat,
    Row,
    Section,
    Setup,
    Step,
    Work,
)
from rillstep.core.tree.features import main_stitch
from rillstep.core.words.asides import may_change_work
from rillstep.core.words.numbers import edit_value, numbers_in, with_value

# A longer chain begins no row: it goes across, or makes a loop.
LONGEST_START = 9

OUT_OF_STEP = "size-out-of-step"


def starting_chains(subject: Subject) -> list[Finding]:
    """A starting chain that differs between sizes or rounds, or that does not suit its stitch."""
    found: list[Finding] = []
    usual_of = _usual_lengths(subject)
    unsaid: set[tuple[int, str]] = set()  # asked once: what the first line says holds for those that follow
    for worked in subject.lines:
        line = worked.line
        if not isinstance(line, Row) or not line.steps:
            continue
        begun = _begun(worked)
        if begun is None or usual_of.get(begun[0]) not in (None, begun[1]):
            for chain in _of_start(line):
                if chain.length.at(line.sizes[0]) <= LONGEST_START:
                    usual = usual_of.get(_first_stitch(line)) if chain is line.steps[0] else None
                    found += _uneven(worked, line, chain, usual)
        if worked.warned:
            found += [*_warned(worked, unsaid), *_counted_in_some(worked, line.steps[0].span)]
    return found


def _of_start(line: Row) -> Iterator[Chain]:
    """The chain that a row begins with, and the one at its end that the next begins with."""
    begun = tuple(dropwhile(_only_moves, line.steps))
    if begun and isinstance(begun[0], Chain) and not _is_foundation(begun):
        yield begun[0]
    ends = tuple(dropwhile(lambda step: isinstance(step, Gesture), reversed(line.steps)))
    if len(ends) > 1 and isinstance(ends[0], Chain) and "turn" in line.gestures:
        yield ends[0]


def _only_moves(step: Step) -> bool:
    return isinstance(step, Gesture) or (isinstance(step, Work) and step.stitch == "sl st")


def _counted_in_some(worked: WorkedLine, span: Span) -> list[Finding]:
    """Where the text leaves open whether a chain counts, the total decides; and it must decide alike in every size."""
    counted = {
        work.size: any(counts == "st" for _, counts in work.turns[-1].around.says)
        for work in worked.done
        if work.turns and work.trouble is None
    }
    if len(set(counted.values())) < 2:
        return []
    few = min((True, False), key=lambda counts: sum(value == counts for value in counted.values()))
    odd = [size for size, counts in counted.items() if counts == few]
    names = " and ".join(worked.sizes[size] for size in odd)
    does = "counts as a stitch" if few else "does not count as a stitch"
    message = (
        f"The total is true in size {names} only when the starting chain {does}, "
        f"and in the other sizes only when it {'does not' if few else 'does'}."
    )
    return [
        Finding("starting-chain-uneven", "error", span, message, odd[0] if len(odd) == 1 and len(counted) > 2 else None)
    ]


def _warned(worked: WorkedLine, unsaid: set[tuple[int, str]]) -> list[Finding]:
    """What the work of a line warns of, once for all sizes."""
    found: list[Finding] = []
    seen: set[tuple[str, Span]] = set()
    for warning in (w for work in worked.done if work.last is not None for w in work.last.warnings):
        open_before = warning.code == "chain-unsaid" and (worked.section, warning.message) in unsaid
        if (warning.code, warning.span) not in seen and not open_before:
            seen.add((warning.code, warning.span))
            if warning.code == "chain-unsaid":
                unsaid.add((worked.section, warning.message))
            message = f"{warning.message[:1].upper()}{warning.message[1:]}."
            found.append(Finding(warning.code, "warning", warning.span, message))
    return found


def odd_numbers(worked: WorkedLine) -> list[Finding]:
    """A number in one size that breaks the step of the others, where the line is true with the one that keeps it as
    well: so that nothing else in the line tells which is meant."""
    found: list[Finding] = []
    line = worked.line
    if len(worked.sizes) < 3 or not isinstance(line, Row):
        return found
    for number, repeated in _numbers(line.steps, False):
        odd = _odd_one(number, repeated, worked.ascending)
        work = worked.works[odd[0]] if odd is not None else None
        if odd is None or work is None or work.trouble is not None or work.differences:
            continue
        size, usual = odd
        if not is_true(with_value(line, number, size, usual), size, work.start, work.around):
            continue
        message = f"{number.at(size)} breaks the step between the sizes{worked.in_size(size)}; {usual} would keep it."
        repair = Repair(f"Change {number.at(size)} to {usual}", (edit_value(number, size, usual),))
        found.append(Finding(OUT_OF_STEP, "warning", number.span, message, size, usual, number.at(size), (repair,)))
    return found


def odd_ranges(subject: Subject) -> list[Finding]:
    """A number of rounds that breaks the step of the sizes, where no label and no check after it counts them."""
    found: list[Finding] = []
    if len(subject.pattern.sizes) < 3:
        return found
    for section in subject.pattern.sections:
        for at, line in enumerate(section.lines):
            if not isinstance(line, Row | Again) or line.last is None or line.until is not None:
                continue
            if line.until_sts is not None or any(_counts_rows(one) for one in section.lines[at + 1 :]):
                continue
            rounds = [line.rounds(size) if size in line.sizes else None for size in range(len(subject.pattern.sizes))]
            odd = _odd_one(Num(tuple(rounds)), False, subject.ascending)
            if odd is not None and odd[0] in line.sizes:
                size, usual = odd
                message = (
                    f"{rounds[size]} rounds break the step between the sizes{subject.in_size(size)}; {usual} would "
                    "keep it, and nothing after them counts them."
                )
                found.append(Finding(OUT_OF_STEP, "warning", line.label_span, message, size, usual, rounds[size]))
    return found


def _counts_rows(line: object) -> bool:
    """Does a line tell how many rows stand before it?"""
    return isinstance(line, Check) or (isinstance(line, Row | Again) and bool(line.first.parts))


def _numbers(steps: tuple[Step, ...], repeated: bool) -> list[tuple[Num, bool]]:
    """Every number written in some steps, and whether it stands within a repeat."""
    found: list[tuple[Num, bool]] = []
    for step in steps:
        if isinstance(step, Repeat):
            found += _numbers(step.steps, True)
            found += [(number, False) for number in numbers_in(step.times)]
        else:
            found += [(number, repeated) for number in numbers_in(step)]
    return found


def _odd_one(number: Num, repeated: bool, ascending: Sequence[int]) -> tuple[int, int] | None:
    """(size, what would keep the step), when one size alone breaks it, from the smallest size to the largest."""
    held = [(size, value) for size in ascending if (value := number.values[size]) is not None]
    values = [value for _, value in held]
    if len(values) < 3 or len(set(values)) == 1:
        return None
    if repeated:
        usual, times = Counter(values).most_common(1)[0]
        if times == len(values) - 1:
            size = next(size for size, value in held if value != usual)
            return size, usual
    if values in (sorted(values), sorted(values, reverse=True)):
        return None
    for down in (False, True):
        for index, (size, _) in enumerate(held):
            rest = values[:index] + values[index + 1 :]
            if rest == sorted(rest, reverse=down):
                near = values[index - 1] if index else values[1]
                return size, near
    return None


def _first_stitch(line: Row) -> str:
    """The stitch that a starting chain counts as, with a space where one is part of it, or else the one that follows
    it at once; nothing when something else does."""
    chain = line.steps[0] if line.steps else None
    if isinstance(chain, Chain) and chain.counts not in (None, "none"):
        return f"{chain.counts} and a space" if chain.space is not None else str(chain.counts)
    second = line.steps[1] if len(line.steps) > 1 else None
    while isinstance(second, Repeat) and second.steps:
        second = second.steps[0]
    return second.stitch if isinstance(second, Work) else ""


def _is_foundation(steps: Sequence[Step]) -> bool:
    """Is the chain at the start the foundation itself ("Ch 21, sc in 2nd ch from hook, ...")?"""
    second = steps[1] if len(steps) > 1 else None
    if isinstance(second, Gesture):
        return second.kind in ("join into ring", "join")
    return isinstance(getattr(second, "into", None), FromHook)


def _usual_lengths(subject: Subject) -> dict[str, int]:
    """For each stitch, the starting chain of most of its rounds; only where three rounds or more agree."""
    counted: dict[str, Counter[int]] = {}
    for worked in subject.lines:
        if (begun := _begun(worked)) is not None:
            counted.setdefault(begun[0], Counter())[begun[1]] += 1
    best = {stitch: lengths.most_common(1)[0] for stitch, lengths in counted.items()}
    return {stitch: length for stitch, (length, lines) in best.items() if lines >= 3}


@remember(8192)
def _begun(worked: WorkedLine) -> tuple[str, int] | None:
    """The stitch that a round begins with and the chain before it, where that is the same in all sizes."""
    line = worked.line
    if (
        not isinstance(line, Row)
        or not line.steps
        or not isinstance(line.steps[0], Chain)
        or not (stitch := _first_stitch(line))
    ):
        return None
    lengths = {line.steps[0].length.at(size) for size in line.sizes}
    return (stitch, lengths.pop()) if len(lengths) == 1 else None


def _uneven(worked: WorkedLine, line: Row, first: Chain, usual_here: int | None) -> list[Finding]:
    """Sizes of a line whose starting chain is not what the other sizes, or the other rounds, have."""
    found: list[Finding] = []
    length = first.length.at(line.sizes[0])
    if usual_here in (None, length) and first.length.is_always(length):
        return found
    usual = _usual_of_line(first, line)
    for size in line.sizes:
        if (given := first.length.at(size)) != usual:
            message = f"The starting chain{worked.in_size(size)} is ch {given}; in other sizes it is ch {usual}."
            repair = Repair(f"Change {given} to {usual}", (edit_value(first.length, size, usual),))
            found.append(Finding("starting-chain-uneven", "error", first.span, message, size, usual, given, (repair,)))
    if not found and usual_here is not None and usual != usual_here and first.length.parts:
        message = f"This round begins with ch {usual}; the other rounds in this stitch begin with ch {usual_here}."
        edits = tuple(edit_value(first.length, size, usual_here) for size in line.sizes[:1])
        repairs = (Repair(f"Change {usual} to {usual_here}", edits),) if len(line.sizes) == 1 else ()
        found.append(Finding("starting-chain-uneven", "warning", first.span, message, None, usual_here, usual, repairs))
    return found


def _usual_of_line(first: Chain, line: Row) -> int:
    """The length that most sizes have; of equally many, the one that suits the stitch."""
    stitch = first.counts if first.counts not in (None, "none") else main_stitch(line.steps)
    standard = [basic(stitch).turning_chain] if stitch else [1]
    if first.counts in (None, "none"):
        standard.append(1)
    counted = Counter(first.length.at(size) for size in line.sizes)
    return max(counted, key=lambda length: (counted[length], length in standard, -length))


def kinds_left_out(worked: WorkedLine) -> list[Finding]:
    """A total by kinds that leaves a kind out: "6 V-sts, 2 dc" in a row that makes sc as well."""
    found: list[Finding] = []
    line = worked.line
    totals = getattr(line, "totals", ())
    named = {total.what for total in totals}
    beside = any(total.beside for total in totals)
    if not isinstance(line, Row) or beside:
        return found
    lengths = {t.length.values for t in totals if t.what == "sp" and t.length is not None}
    by_length = sum(t.what == "sp" and t.length is not None for t in totals) > 1
    for work in worked.done:
        if work.trouble is not None or not work.rounds:
            continue
        named_here = {values[work.size] for values in lengths}
        unnamed = [length for length, _ in work.rounds[-1].spaces if length not in named_here]
        if by_length and unnamed:
            message = f"The total{worked.in_size(work.size)} does not count the ch-{unnamed[0]} sps of this row."
            found.append(Finding("kind-not-counted", "warning", line.span, message, work.size))
        if "sts" in named or not named - {"sp", "ch"}:
            continue
        own = {stitch for stitch, _ in work.rounds[-1].outside}
        left_out = sorted(
            s
            for s in own
            if s not in named
            and not any(s in worked_as(name) or begins_as(s, name) or s.lower().endswith(f" {name}") for name in named)
            and s != "sl st"
        )
        if left_out:
            message = f"The total{worked.in_size(work.size)} does not count the {' and '.join(left_out)} of this row."
            found.append(Finding("kind-not-counted", "warning", line.span, message, work.size))
    return found


def closings(worked: WorkedLine) -> list[Finding]:
    """ "Ch 2, dc in first st (counts as ch-5 sp)": the chain and the height of the stitch come to that space."""
    line = worked.line
    if not isinstance(line, Row) or line.broken:
        return []
    found: list[Finding] = []
    for step in (one for one in line.steps if isinstance(one, Closing)):
        for size in line.sizes:
            chain, space, high = step.chain.at(size), step.space.at(size), basic(step.stitch).turning_chain
            if chain + high != space:
                message = (
                    f"Ch {chain} and a stitch as high as ch {high} come to a ch-{chain + high} space"
                    f"{worked.in_size(size)}, and this one is called a ch-{space} space: it is not proved."
                )
                found.append(Finding("closing-differs", "warning", step.span, message, size, space, chain + high))
    return found


def kept_words(worked: WorkedLine) -> list[Finding]:
    """Words kept behind a stitch that may say how it is worked: whether they change anything is not known."""
    line = worked.line
    if not isinstance(line, Row) or line.broken:
        return []
    message = (
        "It is not known whether these words change what is worked: they are kept as they stand, and the line is not "
        "proved. “Means:” in the head says what they are, or that they change nothing."
    )
    return [
        Finding("words-not-worked", "warning", one.span, message) for one in line.kept if may_change_work(one.words)
    ]


LONG_RING = 20


def twists(worked: WorkedLine) -> list[Finding]:
    """A long chain that is joined into a ring twists easily: always worth a word."""
    line = worked.line
    if not isinstance(line, Setup) or line.broken or "join into ring" not in line.gestures:
        return []
    length = max((s.length.at(size) for s in line.steps if isinstance(s, Chain) for size in line.sizes), default=0)
    if length < LONG_RING:
        return []
    message = (
        "A chain joined into a ring twists easily: lay it flat before joining, and look again after the first round."
    )
    return [Finding("chain-twists", "caution", line.span, message)]


def joins(subject: Subject) -> list[Finding]:
    """Rounds of a joined section are joined; those of a spiral are not."""
    found: list[Finding] = []
    for worked in subject.lines:
        line, section = worked.line, subject.pattern.sections[worked.section]
        if not isinstance(line, Row) or line.broken or line.kind != "Rnd":
            continue
        if any(isinstance(step, Onward) for step in line.steps[:1]):
            continue
        joined = _is_joined(line)
        if (
            section.worked.startswith("joined")
            and not joined
            and not line.gestures & {"fasten off", "do not join", "both layers"}
        ):
            message = "This section is worked in joined rounds, but this round is not joined."
            found.append(Finding("join-missing", "warning", line.span, message))
        if section.worked == "spiral rounds" and joined and not _ends_joined(section, line):
            message = "This section is worked in a spiral, but this round is joined."
            found.append(Finding("join-in-spiral", "warning", line.span, message))
    return found


def _is_joined(row: Row) -> bool:
    return bool(row.gestures & {"join", "join into ring"}) or any(isinstance(step, Closing) for step in row.steps)


def _ends_joined(section: Section, row: Row) -> bool:
    """Are all rounds from this one on joined? A spiral may be closed at its end."""
    rounds = [line for line in section.lines if isinstance(line, Row) and line.kind == "Rnd"]
    at = next(i for i, line in enumerate(rounds) if line is row)
    begins = at == 0 and len(rounds) > 3 and not any(map(_is_joined, rounds[1:]))  # the ring of a net, closed once
    return begins or (at > 0 and all(map(_is_joined, rounds[at:])))
