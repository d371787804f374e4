"""Meanings of words tried by working the text with each of them: which come out, which are one and the same work."""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from time import monotonic

from rillstep.core.assumptions.meanings import Meaning, counted, meanings
from rillstep.core.assumptions.unread import Unread
from rillstep.core.craft import Terms
from rillstep.core.fabric import trace_row
from rillstep.core.memory import remember
from rillstep.core.proof import LineProof, Proof, prove_as_read
from rillstep.core.tree import Again, Row
from rillstep.core.watch import look

MOST_TRIALS = 24
# No further trial is begun after so long; one proof takes a few hundredths of a second.
MOST_SECONDS = 1.5
MOST_OFFERS = 4
REFUTED = ("wrong", "not understood")
# What a total is the same with and without.
UNDECIDED = ("loops", "nothing")
# What may be taken for the words although others of their lines are not understood.
_ALSO_IN_PART = ("near stitch", "stitch", "place")
_LEAST_IN_PART = 0.6
# A line that is wrong with it tells nothing where so many others come out.
_PROVED_FOR_EACH_WRONG = 3
# So many rounds of a line tell where its stitches go.
_ROUNDS_LOOKED_AT = 2
_MOST_STITCHES = 1_500


@dataclass(frozen=True)
class TriedMeaning:
    """A meaning with which lines come out. makes: what the first of them makes then; decided_by: the total that says
    so, "" where none does; whole: all words of these lines are understood with it."""

    meaning: Meaning
    makes: str
    decided_by: str
    whole: bool


@dataclass(frozen=True)
class _Trial:
    meaning: Meaning
    proof: Proof
    work: object
    proved: int
    decided: bool
    whole: bool

    @property
    def rank(self) -> float:
        return self.meaning.prior + (0.4 if self.whole else 0) + (0.1 if self.decided else 0)


def offers(
    text: str, unread: Unread, terms: Terms, told: str, before: Proof, assumed: tuple[str, ...]
) -> tuple[TriedMeaning, ...]:
    """The meanings with which the lines of some words come out, best first; of those that are the same work, one."""
    own = tuple(word for special in before.pattern.specials for word in special.name.lower().split())
    ends, tried = monotonic() + MOST_SECONDS, 0
    found: list[_Trial] = []
    waiting = meanings(unread, terms, told, own)
    if unread.position == "aside":
        bare = prove_as_read(_without(text, unread), terms=terms, assumed=assumed)
        waiting = sorted([*counted(unread, _differences(unread, bare)), *waiting], key=lambda one: -one.prior)
    while waiting and tried < MOST_TRIALS and monotonic() < ends:
        look()
        meaning = waiting.pop(0)
        after = prove_as_read(text, terms=terms, assumed=(*assumed, meaning.head))
        tried += 1
        trial = _judged(unread, meaning, before, after)
        if trial is not None:
            found.append(trial)
    return tuple(_offer(unread, trial) for trial in _different(sorted(found, key=lambda one: -one.rank)))[:MOST_OFFERS]


def _without(text: str, unread: Unread) -> str:
    """The text without the words, in the first line that has them: what it makes then tells what they may add."""
    rows = text.split("\n")
    at = unread.lines[0] - 1
    rows[at] = re.sub(rf",?\s*{re.escape(unread.words)}", "", " ".join(rows[at].split()), count=1)
    return "\n".join(rows)


def _judged(unread: Unread, meaning: Meaning, before: Proof, after: Proof) -> _Trial | None:
    """A trial with which more is understood and nothing more is wrong; None for any other."""
    if [line.line for line in after.lines] != [line.line for line in before.lines]:
        return None
    held = _held(unread, after)
    marks = [line.mark for line in held]
    most = marks.count("proved") >= max(1, _PROVED_FOR_EACH_WRONG * marks.count("wrong"))
    if not held or _bad(after) - _bad(before) or ("wrong" in marks and not most):
        return None
    whole = "not understood" not in marks
    likely = meaning.kind in _ALSO_IN_PART and meaning.prior >= _LEAST_IN_PART
    if not whole and (not likely or _open(unread, after) >= _open(unread, before)):
        return None
    decided = whole and any(line.mark == "proved" and _stated(after, line) for line in held)
    if meaning.kind == "several" and not decided:
        return None
    proved = sum(line.mark == "proved" for line in after.lines)
    return _Trial(meaning, after, _work(unread, after), proved, decided, whole)


def _stated(proof: Proof, line: LineProof) -> str:
    """The total of a line as one sees it: "24 sts", or of what else it counts; "" where it states none."""
    counts = dict.fromkeys(str(count) for count in line.stated if count is not None)
    if counts:
        return ", ".join(counts)
    rows = (one for _, one in proof.pattern.lines() if isinstance(one, Row | Again) and one.span.line == line.line)
    total = next((total for row in rows for total in row.totals), None)
    if total is None:
        return ""
    return ", ".join(dict.fromkeys(str(count) for count in total.count.values if count is not None))


def _held(unread: Unread, proof: Proof) -> list[LineProof]:
    return [line for line in proof.lines if any(line.line <= at <= line.last_line for at in unread.lines)]


def _bad(proof: Proof) -> set[int]:
    return {line.line for line in proof.lines if line.mark in REFUTED}


def _open(unread: Unread, proof: Proof) -> int:
    return sum(one.code == "not-understood" and one.span.line in unread.lines for one in proof.findings)


def _differences(unread: Unread, proof: Proof) -> list[int]:
    """By how many stitches the first line of some words misses its total, in each size: more than 0 for too few."""
    held = _held(unread, proof)
    if not held or held[0].mark == "not understood":
        return []
    found = [f for f in proof.findings if f.code == "total-differs" and f.span.line == held[0].line]
    by_size = {f.size: (f.expected, f.found) for f in found if f.expected is not None and f.found is not None}
    return [int(stated) - int(made) for stated, made in by_size.values()]


@remember(512)
def _work(unread: Unread, proof: Proof) -> object:
    """Where each stitch of the lines goes and of which loop, in the smallest and the largest size; not what it is
    called."""
    found: list[object] = [tuple((line.sts, line.spaces) for line in proof.lines)]
    works = proof.works[:: max(1, len(proof.works) - 1)]
    for line in (one for work in works for one in work.lines):
        if not isinstance(line.line, Row | Again) or line.line.span.line not in unread.lines:
            continue
        for turn in line.turns[:_ROUNDS_LOOKED_AT]:
            if turn.edge.count("st", "sp", "ch", "end") > _MOST_STITCHES:
                found.append((turn.source.steps,))
                continue
            made = trace_row(turn.source, line.size, turn.edge, turn.around).made
            found.append(tuple((one.place.kind, one.place.length, one.into, one.loop) for one in made))
    return tuple(found)


def _different(trials: Iterable[_Trial]) -> list[_Trial]:
    kept: list[_Trial] = []
    for trial in trials:
        if kept and kept[0].whole and not trial.whole:
            continue
        if not any(one.work == trial.work for one in kept):
            kept.append(trial)
    return kept


def _offer(unread: Unread, trial: _Trial) -> TriedMeaning:
    first = next(iter(_held(unread, trial.proof)))
    counts = [str(count) for count in first.sts if count is not None]
    makes = f"{first.label}: {', '.join(dict.fromkeys(counts))} sts" if counts and trial.whole else ""
    told = trial.decided and trial.meaning.kind not in UNDECIDED  # no total tells of loops
    proved = (line for line in _held(unread, trial.proof) if line.mark == "proved")
    by = next(((line, stated) for line in proved if (stated := _stated(trial.proof, line))), None)
    decided = f"{by[0].label} ({by[1]})" if told and by is not None else ""
    return TriedMeaning(trial.meaning, makes, decided, trial.whole)
