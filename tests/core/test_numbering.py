"""Numbers of rounds and rows: they go on without a gap, in every size, through sections, ranges and pieces begun anew."""

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.proof import prove_text

RING = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
ROUND = "Rnd {}: Sc in each st around; join.\n"
NUMBERED = ("numbers-gap", "numbers-overlap", "numbers-empty")


def numbered(text: str) -> list[tuple[str, int, int | None]]:
    return [(f.code, f.span.line, f.size) for f in prove_text(text).findings if f.code in NUMBERED]


@pytest.mark.parametrize(
    "text",
    [
        RING + ROUND.format(2) + ROUND.format(3),
        RING + "Rnds 2-9: Sc in each st around; join.\n" + ROUND.format(10),
        RING + "Rnd 2: Sc in each st around; join.\nRnds 3-6: Rep Rnd 2.\n" + ROUND.format(7),
        RING + ROUND.format(2) + "Section: Next (joined rounds, wall), continue from Pattern\n" + ROUND.format(3),
        RING + ROUND.format(2) + "Section: Next (joined rounds, wall), continue from Pattern\n" + ROUND.format(1),
        RING + "Ch 12, join into a ring.\nRnd 1: Sc in each ch around; join.\n",
        "Ch 13.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; do not turn.\nRnd 1: Ch 1, sc in each st across, sc in each row end across; join.\n",
        "Ch 24, join into a ring.\nFoundation rnd: Sc in each ch around; join.\n" + ROUND.format(1),
    ],
)
def test_numbers_that_go_on(text: str) -> None:
    assert numbered(text) == []


@pytest.mark.parametrize(
    ("text", "found"),
    [
        (RING + ROUND.format(3), [("numbers-gap", 3, None)]),
        (RING + ROUND.format(1), [("numbers-overlap", 3, None)]),
        (RING + "Rnds 2-9: Sc in each st around; join.\n" + ROUND.format(9), [("numbers-overlap", 4, None)]),
        (RING + "Rnds 2-9: Sc in each st around; join.\n" + ROUND.format(12), [("numbers-gap", 4, None)]),
        (RING + "Rnds 5-4: Sc in each st around; join.\n", [("numbers-gap", 3, None), ("numbers-empty", 3, None)]),
        ("Sizes: S, M\n" + RING + "Rnds 2-9 (11): Sc in each st around; join.\n" + ROUND.format(10), [("numbers-overlap", 5, 1)]),
        ("Sizes: S, M\n" + RING + "Size M only:\n" + ROUND.format(2) + "All sizes:\n" + ROUND.format(3), []),  # S has no Rnd 2
        ("Sizes: S, M\n" + RING + "Size M only:\n" + ROUND.format(2) + "All sizes:\n" + ROUND.format(4), [("numbers-gap", 7, 0), ("numbers-gap", 7, 1)]),
        ("Sizes: S, M\n" + RING + "Size M only:\n" + ROUND.format(2) + "All sizes:\n" + ROUND.format("2 (3)"), []),
    ],
)  # fmt: skip
def test_numbers_that_do_not(text: str, found: list[tuple[str, int, int | None]]) -> None:
    assert sorted(numbered(text)) == sorted(found)


@pytest.mark.parametrize(
    "text", [RING + ROUND.format(3), RING + "Rnds 2-9: Sc in each st around; join.\n" + ROUND.format(12)]
)
def test_each_repair_makes_the_numbers_go_on(text: str) -> None:
    (finding,) = [f for f in prove_text(text).findings if f.code in NUMBERED]
    assert finding.repairs
    for repair in finding.repairs:
        assert numbered(apply_edits(text, repair.edits)) == []
