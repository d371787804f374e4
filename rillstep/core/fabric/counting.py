"""Stated totals against what there is."""

from typing import Literal

from rillstep.core.craft import POSTS, STITCHES
from rillstep.core.fabric.cursor import LEAST_OPENING
from rillstep.core.fabric.edge import Counts
from rillstep.core.tree import Total


def found_of(total: Total, counts: Counts, size: int) -> int:
    """How many there are of what a total states."""
    if total.what == "sts":
        return counts.sts or counts.loose  # a row that only makes the foundation
    if total.what == "sp":
        return counts.spaces_of(total.length.at(size) if total.length is not None else None)
    if total.what == "ch":
        return counts.chains
    return counts.of(total.what)


def differing(totals: tuple[Total, ...], counts: Counts, size: int) -> list[tuple[Total, int, int]]:
    """The stated totals that are not met: (total, stated, found), counted in the way that comes nearest."""
    found: list[tuple[Total, int, int]] = []
    for total in totals:
        stated = total.count.at(size)
        if total.beside or stated == found_of(total, counts, size):
            continue
        ways = ways_of_counting(total, totals, counts, size).values()
        if stated not in ways:
            found.append((total, stated, min(ways, key=lambda count: abs(count - stated))))
    return found


Way = Literal["as it stands", "with chains", "of that name", "with the first", "with posts", "outside"]


def ways_of_counting(total: Total, totals: tuple[Total, ...], counts: Counts, size: int) -> dict[Way, int]:
    """What a total may be in the ways in which makers count: post stitches among the plain ones, each chain as a
    stitch, and so on."""
    plain = found_of(total, counts, size)
    ways: dict[Way, int] = {"as it stands": plain}
    named = {t.what for t in totals}
    if total.what == "sts" and named == {"sts"}:
        lengths = {length for length, _ in counts.spaces}
        if lengths == {1} or (lengths and min(lengths) >= LEAST_OPENING):
            ways["with chains"] = counts.sts + counts.chains  # over an opening: the stitches that they will be
    if total.what in ("sts", "sp", "ch"):
        return ways
    made = {*counts.specials, *counts.stitches}
    so_named = sum(n for name, n in made if name.lower().endswith((f" {total.what}", f"-{total.what}")))
    if so_named and not plain:
        ways["of that name"] = so_named  # "11 clusters" of the 3-dc cluster that the pattern defines
    # "8 clusters": the one that begins the round is one of them
    ways["with the first"] = plain + sum(n for name, n in made if begins_as(name, total.what))
    if not any(alike in named for alike in worked_as(total.what)):
        ways["with posts"] = plain + sum(counts.of(alike) for alike in worked_as(total.what))
    if any(name in named for name, _ in counts.specials):
        ways["outside"] = dict(counts.outside).get(total.what, 0)
    return ways


_BEGINS = ("beg", "beginning", "starting", "start", "first", "initial")


def begins_as(special: str, other: str) -> bool:
    """Is "Beginning cluster" the form in which a round of "cluster" begins?"""
    first, _, rest = special.lower().partition(" ")
    return first.rstrip(".") in _BEGINS and rest == other.lower()


def worked_as(stitch: str) -> tuple[str, ...]:
    """Stitches that makers count among the plain ones of that name: around the post, and worked backwards."""
    return (*(side + stitch for side in POSTS), *_ALSO.get(stitch, ()))


_ALSO = {one: tuple(s.us for s in STITCHES if s.general == one) for one in {s.general for s in STITCHES} - {""}}


def stated_sts(totals: tuple[Total, ...], size: int) -> int | None:
    """The stitches that a line states for a size, of whatever kinds; None when it states none."""
    sts = [total.count.at(size) for total in totals if total.what == "sts"]
    if sts:
        return sts[0]
    by_kind = [total.count.at(size) for total in totals if total.what not in ("sp", "ch") and not total.beside]
    return sum(by_kind) if by_kind else None
