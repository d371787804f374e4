"""The stitches of both sides and both centres, against a walker that moves a list of stitches round by round."""

import os
import random

import pytest

from rillstep.core.measures.side_stitches import Sides, sides_of
from rillstep.core.proof import prove_text
from tests.core.test_measures import oval

# `make fuzz` tries two thousand.
WALLS = int(os.environ.get("RILLSTEP_WALLS", "300"))
GAUGE = "Gauge: sc 20 sts x 20 rows = 10 cm\n"


def sides(text: str, size: int = 0) -> tuple[Sides, ...]:
    proof = prove_text(text if "Gauge:" in text else GAUGE + text)
    assert not [f for f in proof.findings if f.severity == "error"], (text, proof.findings)
    assert proof.bag is not None
    return sides_of(proof.bag, proof.works[size].lines, size)


# --- the slow walker: a wall is a list of the stitches of its first round, in the order in which they are met


def wall(draw: random.Random) -> tuple[str, list[list[int]], int, bool]:
    """A wall as a text; for each of its rounds which stitch of the first round stands under each of its stitches; how
    many there are; and whether it is a spiral."""
    many = 4 * draw.randint(2, 12)
    spiral = draw.random() < 0.25
    kind = "spiral rounds" if spiral else "joined rounds"
    end = "" if spiral else "; join"
    text = f"Section: Wall ({kind}, wall)\nCh {many}, join into a ring.\nRnd 1: Sc in each ch around{end}.\n"
    now, rounds, number = list(range(many)), [list(range(many))], 2
    mesh = False
    for _ in range(draw.randint(1, 12)):
        times = draw.randint(1, 5)
        label = f"Rnds {number}-{number + times - 1}" if times > 1 else f"Rnd {number}"
        ways = ["plain"] if spiral else ["mesh on"] if mesh else ["plain", "slip", "turned", "begins turned", "mesh"]
        way = draw.choice(ways)
        if way not in ("plain", "turned", "begins turned"):
            times, label = 1, f"Rnd {number}"
        for _ in range(times):
            match way:
                case "plain":
                    row = f"Sc in each st around{end}"
                case "turned":
                    row = "Ch 1, sc in each st around; join, turn"
                case "begins turned":
                    row = "Ch 1, turn, sc in each st around; join"
                case "slip":
                    by = draw.randint(1, many // 2)
                    row = f"Sl st in next {by + 1} sts, ch 1, sc in same st, sc in each st around; join"
                    now = now[by:] + now[:by]
                case "mesh":
                    row, mesh = "Ch 1, [sc in next st, ch 1, sk next st] around; join", True
                case _:
                    row = "Ch 1, [sc in next ch-1 sp, ch 1] around; join"
                    now = now[1:] + now[:1]
            rounds.append(list(now))
            if way in ("turned", "begins turned"):
                now = now[::-1]
        text += f"{label}: {row}.\n"
        number += times
    return text, rounds, many, spiral


def looked_up(cols: list[int], point: int) -> float:
    """Where the boundary before a stitch of the first round is, counted in a later round."""
    many = len(cols)
    at = cols.index(point)
    forward = cols[(at + 1) % many] == (point + 1) % many
    number = at + 0.5 if forward else at + 1.5
    return (number - 0.5) % many + 0.5


def test_sides_are_where_the_slow_walker_finds_them() -> None:
    """Joined, spiral, turned at the end and at the beginning, offset repeats, all drifts."""
    draw = random.Random(20_261_127)
    looked = 0
    for _ in range(WALLS):
        text, rounds, many, spiral = wall(draw)
        found = sides(text)
        assert len(found) == len(rounds), text
        for index, (own, cols) in enumerate(zip(found, rounds, strict=True)):
            leant = 0.5 * (index + 1) if spiral else 0.0
            points = [(looked_up(cols, many * quarter // 4) + leant - 0.5) % many + 0.5 for quarter in range(4)]
            assert (own.left, own.front, own.right, own.back) == tuple(points), (text, own, cols)
            assert own.correction == min(int(points[0] - 0.5), int(points[2] - 0.5))
            looked += 1
    assert looked > 10 * WALLS


@pytest.mark.parametrize(("rounds", "lean"), [(1, 0.5), (4, 2.0), (21, 10.5), (80, 40.0)])
def test_a_spiral_leans_and_the_sides_with_it(rounds: int, lean: float) -> None:
    text = f"Section: Wall (spiral rounds, wall)\nCh 40, join into a ring.\nRnd 1: Sc in each ch around.\nRnds 2-{rounds + 1}: Sc in each st around.\n"
    last = sides(text)[rounds - 1]
    assert last.about and last.left == pytest.approx((0.5 + lean - 0.5) % 20 + 0.5)


@pytest.mark.parametrize(
    ("side", "rounds", "left", "right"),
    [
        (6, 1, 9.0, 18.0),  # three stitches in the far chain: 8, 9, 10; and 17, 18 and 1 in the near one
        (10, 2, 15.5, 31.5),  # six stitches at the far end: 13 to 18
        (21, 2, 26.5, 53.5),
    ],
)
def test_an_oval_has_its_sides_at_its_ends(side: int, rounds: int, left: float, right: float) -> None:
    sts = 2 * side + 6 * rounds
    text = (
        oval(side, rounds) + "Section: Wall (joined rounds, wall)\n"
        f"Rnds {rounds + 1}-9: Ch 1, sc in each st around; join. — {sts} sts\n"
    )
    found = sides(text)
    assert {(one.places, one.left, one.right) for one in found} == {(sts, left, right)}
    assert found[0].front == left + sts / 4


def test_a_rectangle_has_its_sides_in_the_middle_of_its_short_edges() -> None:
    text = (
        "Section: Base (rows, panel)\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
        "Rows 2-8: Ch 1, sc in each st across; turn.\nSection: Wall (joined rounds, wall), continue from Base\n"
        "Rnd 1: Ch 1, sc in each st across; rotate, sc in next 8 row ends; rotate, sc in next 20 ch; rotate, "
        "sc in next 8 row ends; join. — 56 sts\nRnds 2-9: Ch 1, sc in each st around; join. — 56 sts\n"
    )
    last = sides(text)[-1]
    assert (last.left, last.right) == (24.5, 52.5)  # between the 4th and the 5th of the eight row ends
    assert (last.front, last.back) == (38.5, 10.5)


def test_each_size_has_its_own() -> None:
    text = (
        "Sizes: S, L\nCh 24 (40), join into a ring.\nRnd 1: Sc in each ch around; join.\n"
        "Rnds 2-6 (9): Sl st in next 2 sts, ch 1, sc in same st, sc in each st around; join.\n"
    )
    small, large = sides(text)[-1], sides(text, 1)[-1]
    assert (small.number, small.left, small.right, small.correction) == (6, 19.5, 7.5, 7)  # five stitches on
    assert (large.number, large.left, large.right, large.correction) == (9, 32.5, 12.5, 12)


def test_what_is_no_wall_has_no_sides() -> None:
    assert sides("Panel\nCh 11.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n") == ()
