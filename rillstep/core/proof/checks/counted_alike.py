"""One convention of counting for a whole text: no line picks the one with which its own number is true."""

from collections import Counter, defaultdict
from dataclasses import dataclass, replace

from rillstep.core.craft import basic
from rillstep.core.fabric import LineWork, Way, differing, ways_of_counting, work_row
from rillstep.core.fabric.taking import SKIPPED_CHAINS, first_mesh, known_of_skipped
from rillstep.core.findings import Finding, Repair, Span
from rillstep.core.memory import remember
from rillstep.core.printing.writer import write_label
from rillstep.core.proof.subject import Subject, WorkedLine
from rillstep.core.tree import Again, Chain, FromHook, Gesture, Row, Total, Work
from rillstep.core.words.numbers import edit_value

_PLAIN: Way = "as it stands"
_TOLD: dict[Way, str] = {
    "as it stands": "as they are",
    "with chains": "with each chain as a stitch",
    "of that name": "by that name",
    "with the first": "with the one that begins the round",
    "with posts": "with the post stitches among them",
    "outside": "without those of the motifs",
}


@dataclass(frozen=True)
class _Vote:
    """A total that is true by one way of counting, and not by another: which way, and what the other would make."""

    line: LineWork
    total: Total
    way: Way
    counts: dict[Way, int]


def counted_by_one_way(subject: Subject) -> list[Finding]:
    """Totals that are true by one way of counting, where those of other lines are true only by another."""
    votes: dict[tuple[Way, str], list[_Vote]] = defaultdict(list)
    for line in subject.lines:
        for vote, way in _votes_in(line):
            votes[way, vote.total.what].append(vote)
    found: list[Finding] = []
    for (way, _), cast in votes.items():
        ways = Counter({_PLAIN: 0, way: 0})
        ways.update(voted for _, voted in {(vote.line.line.span.line, vote.way) for vote in cast})
        if ways[_PLAIN] and ways[way]:
            usual = _PLAIN if ways[_PLAIN] >= ways[way] else way
            found += [_other_way(subject, vote, usual) for vote in cast if vote.way != usual]
    return found


@remember(8192)
def _votes_in(worked: WorkedLine) -> tuple[tuple[_Vote, Way], ...]:
    """What the totals of a line vote, each with the other way that it is about."""
    found: list[tuple[_Vote, Way]] = []
    for line in worked.done:
        if not isinstance(line.line, Row | Again) or not line.rounds or line.trouble is not None or line.differences:
            continue
        for total in line.line.totals:
            counts = ways_of_counting(total, line.line.totals, line.rounds[-1], line.size)
            stated, plain = total.count.at(line.size), counts[_PLAIN]
            for way, made in counts.items():
                if way != _PLAIN and made not in (plain, 0) and stated in (plain, made):
                    found.append((_Vote(line, total, _PLAIN if stated == plain else way, counts), way))
    return tuple(found)


def _other_way(subject: Subject, vote: _Vote, usual: Way) -> Finding:
    line, size = vote.line.line, vote.line.size
    assert isinstance(line, Row | Again)
    stated, made = vote.total.count.at(size), vote.counts[usual]
    message = (
        f"{write_label(line)} says {stated}{subject.in_size(size)}, counted {_TOLD[vote.way]}; other lines count "
        f"{_TOLD[usual]}, which makes {made} here."
    )
    repair = Repair(f"State {made}", (edit_value(vote.total.count, size, made),))
    return Finding("total-differs", "error", vote.total.count.span, message, size, stated, made, (repair,))


def chains_count_alike(subject: Subject) -> list[Finding]:
    """Beginning chains of which the text does not say whether they count: where one line is true only when they do, and
    another only when they do not, the fewer are wrong."""
    decided: dict[tuple[int, int], list[tuple[bool, LineWork, Span]]] = defaultdict(list)
    for worked in subject.lines:
        for line, length, counts, span in _decided_in(worked):
            decided[line.size, length].append((counts, line, span))
    found: list[Finding] = []
    for (size, length), lines in decided.items():
        counting = [one for one in lines if one[0]]
        not_counting = [one for one in lines if not one[0]]
        if not counting or not not_counting:
            continue
        fewer = counting if len(counting) < len(not_counting) else not_counting
        for counts, line, span in fewer:
            assert isinstance(line.line, Row)
            does = ("counts", "does not") if counts else ("does not count", "does")
            message = (
                f"{write_label(line.line)}{subject.in_size(size)} is true only when the chain of {length} at its start "
                f"{does[0]} as a stitch; in other rows it {does[1]}."
            )
            found.append(
                Finding("starting-chain-uneven", "error", span, message, size, None, None, _stated(line, counts))
            )
    return found


def spaces_count_alike(subject: Subject) -> list[Finding]:
    """Chains that count as a stitch and a space ("ch 4 (counts as dc and ch 1)"), where one leaves other chains for
    the stitch than the rest of the text does, or than in the other sizes."""
    told: list[tuple[str, int, int, Chain | None, LineWork]] = []
    for worked in subject.lines:
        for step in _chains_with_space(worked):
            for line in worked.done:
                assert step.space is not None
                left = step.length.at(line.size) - step.space.at(line.size)
                told.append((str(step.counts), left, line.size, step, line))
        for stitch, left, line in _left_by_foundation(worked):
            told.append((stitch, left, line.size, None, line))
    found: list[Finding] = []
    for stitch in dict.fromkeys(one[0] for one in told):
        lines = dict.fromkeys((one[1], one[4].line.span.line, one[2]) for one in told if one[0] == stitch)
        usual, many = Counter(left for left, _, _ in lines).most_common(1)[0]
        if many == len(lines) or 2 * many < len(lines):
            continue
        for name, left, size, begun, line in told:
            if name != stitch or left == usual or begun is None:
                continue
            assert isinstance(line.line, Row) and begun.space is not None
            length, right = begun.length.at(size), usual + begun.space.at(size)
            message = (
                f"{write_label(line.line)}{subject.in_size(size)}: ch {length} leaves {left} for the stitch that it "
                f"counts as; elsewhere that is {usual}, which makes ch {right}."
            )
            repair = Repair(f"Change {length} to {right}", (edit_value(begun.length, size, right),))
            found.append(
                Finding("starting-chain-uneven", "error", begun.length.span, message, size, right, length, (repair,))
            )
    return found


@remember(8192)
def _left_by_foundation(worked: WorkedLine) -> tuple[tuple[str, int, LineWork], ...]:
    """The stitch, and how many of the chains skipped at the start are that stitch, of a row that begins a mesh in its
    foundation ("dc in 8th ch from hook": 3, and 2 and 2 for the first space)."""
    found: list[tuple[str, int, LineWork]] = []
    for step in worked.line.steps if isinstance(worked.line, Row) else ():
        if isinstance(step, Work) and isinstance(step.into, FromHook) and step.into.counts_as is None:
            for line in worked.done:
                nth = step.into.nth.at(line.size)
                if (gap := first_mesh(nth, step.stitch)) and step.into.space is None:
                    found.append((step.stitch, nth - 1 - 2 * gap, line))
    return tuple(found)


def _stated(line: LineWork, counts: bool) -> tuple[Repair, ...]:
    assert isinstance(line.line, Row)
    total = line.line.totals[0]
    other = total.count.at(line.size) + (-1 if counts else 1)
    return (Repair(f"State {other}", (edit_value(total.count, line.size, other),)),)


@remember(8192)
def _chains_with_space(worked: WorkedLine) -> tuple[Chain, ...]:
    steps = worked.line.steps if isinstance(worked.line, Row) else ()
    return tuple(
        step
        for step in steps
        if isinstance(step, Chain) and step.space is not None and step.counts not in (None, "none")
    )


@remember(8192)
def _decided_in(worked: WorkedLine) -> tuple[tuple[LineWork, int, bool, Span], ...]:
    """What the total of a line settles of the chain that it begins with, in each size."""
    if not isinstance(worked.line, Row) or not worked.line.totals:
        return ()
    decided = ((line, _decided(line)) for line in worked.done if line.turns and line.trouble is None)
    return tuple((line, *one) for line, one in decided if one is not None)


def _decided(line: LineWork) -> tuple[int, bool, Span] | None:
    """(length, whether it counts, place) of a beginning chain of which the text leaves that open, and the total of the
    line settles it; None for any other."""
    row = line.line
    assert line.turns and isinstance(row, Row)
    around, known = line.turns[-1].around, dict(line.turns[-1].around.throughout)
    says = dict(around.says)
    for step in row.steps:
        match step:
            case Gesture() | Work(stitch="sl st"):
                continue
            case Work(stitch=stitch, into=FromHook(nth=nth, counts_as=None), span=span):
                skipped = nth.at(line.size) - 1
                open_ = (
                    skipped == basic(stitch).turning_chain > 1 and known_of_skipped(around, skipped + 1, stitch) is None
                )
                return (skipped, SKIPPED_CHAINS in says, span) if open_ else None
            case Chain(length=length, counts=None, span=span):
                many = length.at(line.size)
                warned = line.last is not None and any(w.code == "chain-unsaid" for w in line.last.warnings)
                if many in known or not warned or (many not in says and _may_count(line, many)):
                    return None
                return many, many in says, span
        return None
    return None


def _may_count(line: LineWork, length: int) -> bool:
    """Is a row true as well when the chain that it begins with counts?"""
    assert isinstance(line.line, Row)
    turn = line.turns[-1]
    counting = work_row(line.line, line.size, turn.edge, replace(turn.around, says=(*turn.around.says, (length, "st"))))
    return counting.trouble is None and not differing(line.line.totals, counting.counts, line.size)
