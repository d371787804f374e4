"""The text of a tote with names: its sizes are their numbers, and the words are those of the writer.

How a number of a line follows from the side and from its round is found by writing the line at other sides and rounds:
the wording is the writer's alone.
"""

import re
from collections.abc import Sequence

from rillstep.core.lengths import Units
from rillstep.core.printing import write
from rillstep.core.printing.writer import write_line
from rillstep.core.words.numbers import set_text
from rillstep.document.version1.oval import oval_lines
from rillstep.document.version1.plan import ToteCounts, TotePlan
from rillstep.document.version1.solve import Graded
from rillstep.document.version1.tote import tote_pattern

_NUMBER = re.compile(r"\d+")
# A side and a round that are far from where words change, and by how much each is moved.
_SIDE, _ROUND = 50, 20
_SET = r"\d+(?: \([\d, ]+\))?"
_HANDLES = (
    ("before the handle", rf"next ({_SET}) sts"),
    ("handle chain", rf"ch ({_SET})"),
    ("handle opening", rf"sk next ({_SET}) sts"),
    ("between the handles", rf"next ({_SET}) sts"),
    ("handle chain", rf"ch ({_SET})"),
    ("handle opening", rf"sk next ({_SET}) sts"),
    ("after the handle", rf"next ({_SET}) sts"),
)


def named_tote(name: str, plan: TotePlan, graded: Graded, units: Units, facts: Sequence[tuple[str, str]]) -> str | None:
    """The text of a graded tote in all its sizes, with names; None where a size has lines that are built otherwise."""
    counts = [size.counts for size in graded.sizes]
    lines = write(tote_pattern(name, plan, graded, units, tuple(facts)), "US").split("\n")
    base, wall = lines.index(next(one for one in lines if one.startswith("Section: Base"))), _section(lines, "Wall")
    top = _section(lines, "Brim and handles")
    plain = _plain_rounds(plan)
    if any(one.extra or one.base_rounds < plain or one.wall_rounds < 2 for one in counts):
        return None
    check = next(at for at in range(base, wall) if lines[at].startswith("Check:"))
    numbers = {
        "side": [one.side for one in counts],
        "base rounds": [one.base_rounds for one in counts],
        "wall rounds": [one.wall_rounds for one in counts],
    }
    walls = lines[check:top]
    growing = re.compile(rf"^Rnds 2-{re.escape(set_text(tuple(numbers['wall rounds'])))}:|^Rnd 2:")
    walls = [growing.sub("Rnds 2-{wall rounds}:", one) for one in walls]
    tops = lines[top:]
    handles = [at for at, one in enumerate(tops) if ", sk next" in one]
    # A size whose round begins with a handle has a line of its own.
    found = _with_handles(tops[handles[0]], len(counts)) if len(handles) == 1 else None
    if found is None:
        return None
    tops[handles[0]], more = found
    head = next(at for at, one in enumerate(lines) if not one)
    defined = [f"Number: {name} = {set_text(tuple(values))}" for name, values in (numbers | more).items()]
    return "\n".join([*lines[:head], *defined, *lines[head : base + 1], *_base_lines(plan), *walls, *tops])


def _section(lines: Sequence[str], title: str) -> int:
    return next(at for at, one in enumerate(lines) if one.startswith(f"Section: {title}"))


def _base_lines(plan: TotePlan) -> list[str]:
    """The base: the foundation, the first rounds, and those that grow; two of them take turns where increases are
    shifted."""
    first = [_with_side(plan, at) for at in range(_plain_rounds(plan) + 1)]
    turns = 2 if plan.increases == "shifted" else 1
    begin = _ROUND + (_plain_rounds(plan) + 1) % 2  # odd or even, as the first of them is
    bodies = [_growing(plan, begin + turn, turns) for turn in range(turns)]
    return [*first, f"Rnds {_plain_rounds(plan) + 1}-{{base rounds}}: " + " // ".join(bodies)]


def _plain_rounds(plan: TotePlan) -> int:
    """How many rounds of the base are worded otherwise than those that grow."""
    return 3 if plan.rounds == "joined" and plan.increases == "shifted" else 2


def _written(plan: TotePlan, side: int, rounds: int, at: int) -> str:
    """A line of the base of a size, as it is written."""
    counts = ToteCounts(plan.wedges, plan.begin, side, rounds, 0, 2, 1, 1)
    return write_line(oval_lines(plan, counts)[at][1], "US", "cm")


def _with_side(plan: TotePlan, at: int) -> str:
    """One of the first lines of the base with the side as a name."""
    one, other = _written(plan, _SIDE, at + 1, at), _written(plan, _SIDE + 1, at + 1, at)
    return _filled(
        one, [(int(a), int(b) - int(a), 0) for a, b in zip(*map(_NUMBER.findall, (one, other)), strict=True)]
    )


def _growing(plan: TotePlan, number: int, turns: int) -> str:
    """What a growing round says by the number of the round, without its label."""

    def body(side: int, rnd: int) -> str:
        return re.sub(r"^Rnd \d+: ", "", _written(plan, side, rnd, rnd))

    one, wider, later = body(_SIDE, number), body(_SIDE + 1, number), body(_SIDE, number + turns)
    found = zip(*map(_NUMBER.findall, (one, wider, later)), strict=True)
    return _filled(one, [(int(a), int(b) - int(a), (int(c) - int(a)) / turns) for a, b, c in found], number)


def _filled(line: str, numbers: Sequence[tuple[int, int, float]], rnd: int = 0) -> str:
    """A line with a sum for each number that follows the side or the round. numbers: value, by how much it changes with
    a stitch of the side and with a round."""
    sums = iter(numbers)

    def text(match: re.Match[str]) -> str:
        value, by_side, by_round = next(sums)
        if not by_side and not by_round:
            return match[0]
        halves = 1 if float(by_round).is_integer() else 2
        each = int(by_round * halves)
        rest = (value - by_side * _SIDE) * halves - each * rnd
        names = [_times(by_side * halves, "side"), _times(each, "rnd")]
        sum_text = " + ".join(one for one in names if one)
        sum_text += f" {'+' if rest > 0 else '-'} {abs(rest)}" if rest else ""
        return f"{{{sum_text}}}" if halves == 1 else f"{{({sum_text})/2}}"

    return _NUMBER.sub(text, line)


def _times(many: int, name: str) -> str:
    return "" if not many else name if many == 1 else f"{many}*{name}"


def _with_handles(line: str, n_sizes: int) -> tuple[str, dict[str, list[int]]] | None:
    """The round of the handles with names, and what they stand for; None where a run of it is not a plain number."""
    numbers: dict[str, list[int]] = {}
    begin = 0
    for name, wording in _HANDLES:
        match = re.compile(wording).search(line, begin)
        if match is None:
            return None
        values = [int(one) for one in _NUMBER.findall(match[1])]
        numbers[name] = values * n_sizes if len(values) == 1 else values
        line = f"{line[: match.start(1)]}{{{name}}}{line[match.end(1) :]}"
        begin = match.start(1) + len(name) + 2
    return re.sub(rf"ch-{_SET} sps", "ch-{handle chain} sps", line), numbers
