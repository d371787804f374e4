"""The directions in which small texts of every build grow, worked out by hand before they were run.

Each case is a text without names, and its free directions: by how much each name changes at one step. Names are those
that lifting gives: the section and the part.
"""

import pytest

from rillstep.core.grading import lift
from rillstep.core.grading.trials import trials_of
from rillstep.core.grading.ways import ways_of
from tests.core.test_bag_measures import (
    HALF,
    SEWN,
    half_round,
    mesh,
    mesh_from_the_centre,
    on,
    panel,
    rectangle,
    square,
)
from tests.core.test_grading import PLAIN
from tests.core.test_measures import GAUGE, discs, oval, strap, wall

Direction = dict[str, int]
EYELETS = (
    "Body\nCh 48, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 48 sts\n"
    "Rnd 2: Ch 1, [sc in next 7 sts, ch 1, sk next st] 6 times; join. — 42 sts, 6 ch-1 sps\n"
    "Rnds 3-20: Ch 1, sc in each st and ch around; join. — 48 sts\n"
)
SHELLS = (
    "Body\nCh 60, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 60 sts\n"
    "Rnd 2: Ch 1, [sc in next st, sk next 2 sts, 5 dc in next st, sk next 2 sts] around; join. — 10 sc, 50 dc\n"
)
HANDLES = (
    "Wall\nCh 80, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 80 sts\n"
    "Rnds 2-30: Ch 1, sc in each st around; join. — 80 sts\n"
    "Rnd 31: Ch 1, sc in next 15 sts, ch 14, sk next 10 sts, sc in next 30 sts, ch 14, sk next 10 sts, "
    "sc in next 15 sts; join. — 60 sts, 2 ch-14 sps\n"
)
TAPER = "Flap\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn. — 20 sts\n" + "".join(
    f"Row {n}: Ch 1, sc2tog, sc in next {20 - 2 * n} sts, sc2tog; turn. — {22 - 2 * n} sts\n" for n in range(2, 9)
)
CROWN = "Crown\nCh 48, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. — 48 sts\n" + "".join(
    f"Rnd {n}: Ch 1, [sc in next {8 - n} sts, sc2tog] 6 times; join. — {6 * (9 - n)} sts\n" for n in range(2, 7)
)
POSTS = (
    "Panel\nCh 22.\nRow 1: Dc in 3rd ch from hook, dc in each ch across; turn. — 20 dc\n"
    "Row 2: Ch 2 (does not count), [FPdc around next st, BPdc around next st] 10 times; turn. — 20 sts\n"
    "Rows 3-30: Rep Row 2. — 20 sts\n"
)

# Two panels alike were first written down as four directions; they move together since, or no target would be met. The
# rows and columns of a layout were not written down, as no number of a layout had a name then.
BY_HAND: list[tuple[str, list[Direction]]] = [
    (on(discs(6), 36, 7, 10), [{"base rounds": 1}, {"wall rounds": 1}]),
    (on(discs(12), 72, 13, 30), [{"base rounds": 1}, {"wall rounds": 1}]),
    (on(oval(10, 2), 32, 3, 12), [{"base chain": 1, "base stitches": 1}, {"wall rounds": 1}]),
    (on(oval(20, 1), 46, 2, 12), [{"base chain": 1, "base stitches": 1}, {"wall rounds": 1}]),
    (rectangle(20, 8, 10), [{"base chain": 1, "wall stitches 2": 1}, {"base rows": 1, "wall stitches": 1}, {"wall rounds": 1}]),
    ("Body\n" + wall(40, 10) + "Sew the foundation edge flat.\n", [{"body chain": 1}, {"body rounds": 1}]),
    (
        discs(8).replace("(spiral rounds, disc)", "(spiral rounds, wall)").replace("Base", "Body")
        + "Rnds 9-28: Sc in each st around. (48)\n",
        [{"body rounds": 1}, {"body rounds 2": 1}],
    ),
    (panel("Front", 20, 24) + panel("Back", 20, 24) + SEWN,
     [{"front chain": 1}, {"front rows": 1}]),
    (panel("Front", 20, 24, ", worked sideways") + panel("Back", 20, 24, ", worked sideways") + SEWN,
     [{"front worked sideways chain": 1}, {"front worked sideways rows": 1}]),
    (panel("Panel", 20, 74) + "Fold: front 30 rows, back 30 rows, flap 14 rows.\n",
     [{"panel chain": 1}, {"panel rows": 1, "panel fold front": 1}, {"panel rows": 1, "panel fold back": 1},
      {"panel rows": 1, "panel fold flap": 1}]),
    (panel("Panel", 20, 60) + HALF, [{"panel chain": 1}, {"panel rows": 1}]),
    (
        square(5, 9) + "Finishing\nArrange the squares in 3 rows of 3 and sew them.\n",
        [{"square rounds": 1}, {"square layout rows": 1, "square pieces": 3}, {"square layout columns": 1, "square pieces": 3}],
    ),
    (half_round(8) + strap("Gusset", 9, 60) + "Sew the gusset to both sides.\n",
     [{"side rows": 1}, {"gusset chain": 1}, {"gusset rows": 1}]),
    (mesh(30, 12), [{"chain": 2}, {"rounds": 1}]),
    (mesh_from_the_centre(12, 20), [{"centre repeats": 1}, {"mesh rounds": 1}]),
    (strap("Strap", 6, 90), [{"strap chain": 1}, {"strap rows": 1}]),
    (PLAIN, [{"base rounds": 4, "wall repeats": 3}, {"wall rounds": 1}, {"cord chain": 1}]),
    (HANDLES, [{"wall chain": 4, "wall stitches": 1, "wall stitches 2": 2}, {"wall rounds": 1}, {"wall chains": 1}]),
    (EYELETS, [{"body chain": 8, "body repeats": 1}, {"body rounds": 1}]),
    (SHELLS, [{"body chain": 6}]),
    (TAPER, [{"flap chain": 1, "flap first run": 1}, {"flap rows": 1}]),
    (CROWN, [{"crown chain": 6, "crown first run": 1}, {"crown rounds": 1}]),
    (POSTS, [{"panel chain": 2, "panel repeats": 1}, {"panel rows": 1}]),
    # By hand: {"cord chain": 1}. A text without any row is not proved, so nothing of it is offered.
    ("Cord\nCh 110.\nFasten off.\n", []),
    (on(discs(8), 48, 9, 12) + strap("Pocket", 17, 12), [{"base rounds": 1}, {"wall rounds": 1}, {"pocket chain": 1}, {"pocket rows": 1}]),
]  # fmt: skip


def as_sets(directions: list[Direction]) -> set[frozenset[tuple[str, int]]]:
    return {frozenset(one.items()) for one in directions}


@pytest.mark.parametrize(("text", "directions"), BY_HAND, ids=range(len(BY_HAND)))
def test_a_text_grows_in_the_directions_worked_out_by_hand(text: str, directions: list[Direction]) -> None:
    text = text if "Gauge:" in text else GAUGE + text
    lifted = lift(text)
    assert lifted is not None
    ways, _ = ways_of(trials_of(lifted.text))
    assert as_sets([dict(way.step) for way in ways]) == as_sets(directions)
