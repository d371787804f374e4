"""Stated totals against what there is."""

from rillstep.core.fabric.edge import Counts
from rillstep.core.notation.tree import Total
from rillstep.core.stitches import POSTS, RSC, SC


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
    """The stated totals that are not met: (total, stated, found)."""
    pairs = ((total, total.count.at(size), found_of(total, counts, size)) for total in totals)
    return [
        (total, stated, found)
        for total, stated, found in pairs
        if stated != found and not _otherwise(total, totals, counts, stated)
    ]


# Chains over an opening are counted as the stitches that they will be; shorter ones are loops of a mesh.
LEAST_OPENING = 4


def _otherwise(total: Total, totals: tuple[Total, ...], counts: Counts, stated: int) -> bool:
    """Other ways in which makers count: post stitches among the plain ones, each chain as a stitch."""
    named = {t.what for t in totals}
    lengths = {length for length, _ in counts.spaces}
    if total.what == "sts" and named == {"sts"} and (lengths == {1} or (lengths and min(lengths) >= LEAST_OPENING)):
        return stated == counts.sts + counts.chains
    named_so = {
        (name, n)
        for name, n in {*counts.specials, *counts.stitches}
        if name.lower().endswith((f" {total.what}", f"-{total.what}"))
    }
    if (
        total.what not in ("sts", "sp", "ch")
        and not counts.of(total.what)
        and stated == sum(n for _, n in named_so) > 0
    ):
        return True  # "11 clusters" of the 3-dc cluster that the pattern defines
    if stated == counts.of(total.what) + sum(
        n for name, n in {*counts.specials, *counts.stitches} if begins_as(name, total.what)
    ):
        return True  # "8 clusters": the one that begins the round is one of them
    with_posts = counts.of(total.what) + sum(counts.of(alike) for alike in worked_as(total.what))
    if (
        total.what not in ("sts", "sp", "ch")
        and not any(alike in named for alike in worked_as(total.what))
        and stated == with_posts
    ):
        return True
    if any(name in named for name, _ in counts.specials):
        return stated == dict(counts.outside).get(total.what, 0)
    return False


_BEGINS = ("beg", "beginning", "starting", "start", "first", "initial")


def begins_as(special: str, other: str) -> bool:
    """Is "Beginning cluster" the form in which a round of "cluster" begins?"""
    first, _, rest = special.lower().partition(" ")
    return first.rstrip(".") in _BEGINS and rest == other.lower()


def worked_as(stitch: str) -> tuple[str, ...]:
    """Stitches that makers count among the plain ones of that name: around the post, and worked backwards."""
    return (*(side + stitch for side in POSTS), *((RSC.us,) if stitch == SC.us else ()))


def stated_sts(totals: tuple[Total, ...], size: int) -> int | None:
    """The stitches that a line states for a size, of whatever kinds; None when it states none."""
    sts = [total.count.at(size) for total in totals if total.what == "sts"]
    if sts:
        return sts[0]
    by_kind = [total.count.at(size) for total in totals if total.what not in ("sp", "ch")]
    return sum(by_kind) if by_kind else None
