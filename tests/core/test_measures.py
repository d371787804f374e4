"""Measures of pieces by themselves, worked out by hand: 20 sts and 20 rows of sc to 10 cm, so 5 mm each way."""

import json
import math
from pathlib import Path

import pytest

from rillstep.cli import main
from rillstep.core.measures import Measure, measures_of
from rillstep.core.proof import prove_text

GAUGE = "Gauge: sc 20 sts x 20 rows = 10 cm\nGauge: hdc 16 sts x 12.5 rows = 10 cm\n"  # 5 x 5 mm, 6.25 x 8 mm
RING = "Ch {n}, join into a ring.\nRnd 1: {st} in each ch around; join.\n"
DISC = "Section: Base (spiral rounds, disc)\nRnd 1: 6 sc in ring. (6)\n"
STRAP = "{title}\nCh {n}.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-{rows}: Ch 1, sc in each st across; turn.\n"


def discs(rounds: int) -> str:
    return DISC + "".join(
        f"Rnd {n}: [{f'Sc in next {n - 2} sts, ' if n > 2 else ''}2 sc in next st] 6 times. ({6 * n})\n"
        for n in range(2, rounds + 1)
    )


def oval(side: int, rounds: int) -> str:
    first = (
        f"Section: Base (joined rounds, oval)\nCh {side + 3}.\nRnd 1: Sc in 2nd ch from hook, sc in next {side} ch, 3 sc in last ch; rotate, "
        f"sc in next {side} ch, 2 sc in last ch; join. — {2 * side + 6} sts\n"
    )
    second = (
        f"Rnd 2: Ch 1, 2 sc in same st, sc in next {side} sts, 2 sc in each of next 3 sts, sc in next {side} sts, 2 sc in each of next 2 sts; join. "
        f"— {2 * side + 12} sts\n"
    )
    return first + (second if rounds == 2 else "")


def wall(n: int, rounds: int, stitch: str = "Sc") -> str:
    return RING.format(n=n, st=stitch) + f"Rnds 2-{rounds}: {stitch} in each st around; join.\n"


def strap(title: str, n: int, rows: int) -> str:
    return STRAP.format(title=title, n=n, rows=rows)


def piece(text: str, title: str | None = None) -> dict[str, float | None]:
    proof = prove_text(GAUGE + text)
    assert not [f for f in proof.findings if f.severity == "error"], proof.findings
    found = measures_of(proof.pattern, proof.works)
    return {one.name: one.mm[0] for one in found if one.piece == (title or proof.pattern.sections[0].title)}


# what is written, and its measures in mm, worked out by hand
BY_HAND: list[tuple[str, dict[str, float]]] = [
    *((discs(n), {"diameter": 10.0 * n}) for n in (1, 2, 3, 6, 10)),
    *(
        (oval(side, rounds), {"length": 5.0 * side + 10 * rounds, "depth": 10.0 * rounds})
        for side, rounds in ((6, 1), (10, 1), (10, 2), (20, 2), (31, 2))
    ),
    *(
        (wall(n, rounds), {"width": 2.5 * n, "mouth": 2.5 * n, "foot": 2.5 * n, "height": 5.0 * rounds})
        for n, rounds in ((24, 2), (40, 10), (60, 7), (90, 50), (13, 3))
    ),
    (wall(40, 10, "Hdc"), {"width": 125.0, "mouth": 125.0, "foot": 125.0, "height": 80.0}),
    (wall(24, 3) + "Rnd 4: 2 sc in each st around; join.\n", {"width": 120.0, "mouth": 120.0, "foot": 60.0, "height": 20.0}),
    (wall(24, 3) + "Rnd 4: [Sc2tog] around; join.\n", {"width": 60.0, "mouth": 30.0, "foot": 60.0, "height": 20.0}),
    *((strap("Front", n + 1, rows), {"width": 5.0 * n, "height": 5.0 * rows}) for n, rows in ((30, 20), (12, 40), (50, 3), (8, 8), (21, 60))),
    *((strap("Strap", n + 1, rows), {"length": 5.0 * rows, "width": 5.0 * n}) for n, rows in ((5, 100), (6, 120), (3, 30), (8, 9), (4, 240))),
    (strap("Strap", 121, 4), {"length": 600.0, "width": 20.0}),  # worked along its length
    *((f"{strap('Front', 11, 4)}Cord\nCh {n}.\nFasten off.\n", {"length": 4.5 * n}) for n in (20, 80, 110, 150, 9)),
]  # fmt: skip


@pytest.mark.parametrize(("text", "mm"), BY_HAND, ids=[f"{n}: {', '.join(mm)}" for n, (_, mm) in enumerate(BY_HAND)])
def test_a_piece_measures_what_was_worked_out_by_hand(text: str, mm: dict[str, float]) -> None:
    found = piece(text, "Cord" if "Cord" in text else None)
    assert found.keys() == mm.keys()
    for name, wanted in mm.items():
        assert found[name] == pytest.approx(wanted, abs=0.1), name


def test_each_stitch_is_measured_by_its_own_gauge_and_else_estimated() -> None:
    own = "Section: Wall (joined rounds, wall)\n" + wall(40, 4) + "Rnd 5: Hdc in each st around; join.\n"
    assert piece(own)["height"] == pytest.approx(28.0)
    proof = prove_text(GAUGE + own.replace("Hdc", "Dc"))
    (height,) = [one for one in measures_of(proof.pattern, proof.works) if one.name == "height" and one.piece]
    assert height.estimated and height.mm[0] is not None and height.mm[0] > 28


def test_a_piece_that_cannot_be_worked_has_no_measure_and_takes_none_from_others() -> None:
    text = (
        GAUGE + strap("Front", 11, 4) + "Strap\nCh 7.\nRow 1: Sc in 2nd ch from hook, blub in each ch across; turn.\n"
    )
    proof = prove_text(text)
    assert [one.piece for one in measures_of(proof.pattern, proof.works) if one.piece] == ["Front", "Front"]


def test_every_size_has_its_own_and_says_why() -> None:
    text = (
        GAUGE
        + "Sizes: S, L\nCh 40 (60), join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-10 (20): Sc in each st around; join.\n"
    )
    proof = prove_text(text)
    width, *_, height = (one for one in measures_of(proof.pattern, proof.works) if one.piece)
    assert (width.mm, height.mm) == ((100.0, 150.0), (50.0, 100.0))
    assert width.why == ("(40 sts x 5.00 mm) / 2", "(60 sts x 5.00 mm) / 2")
    assert height.why == ("10 rounds x 5.00 mm", "20 rounds x 5.00 mm")


@pytest.mark.parametrize(("sts", "rounds"), [(6, 40), (8, 60), (5, 25), (12, 120), (4, 9)])
def test_a_tube_has_a_length_and_goes_around(sts: int, rounds: int) -> None:
    text = (
        f"Section: Cord (spiral rounds, tube)\nCh {sts}, join into a ring.\nRnd 1: Sc in each ch around.\n"
        f"Rnds 2-{rounds}: Sc in each st around.\n"
    )
    assert piece(text) == pytest.approx({"length": 5.0 * rounds, "around": 5.0 * sts, "width": 5.0 * sts / math.pi})


def test_a_cord_is_no_part_of_the_bag(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "bag.txt"
    path.write_text(
        GAUGE
        + discs(6)
        + "Section: Wall (spiral rounds, wall)\nRnds 7-16: Sc in each st around. (36)\n"
        + strap("Strap", 7, 100)
    )
    assert main(["measure", str(path), "--json"]) == 0
    report = json.loads(capsys.readouterr().out)
    bag = {one["name"]: one["mm"] for one in report["measures"] if one["piece"] is None}
    assert bag["width"] == [90.0] and bag["height"] == [50.0] and bag["strap"] == [500.0]
    length = next(one for one in report["measures"] if one["piece"] == "Strap" and one["name"] == "length")
    assert length["mm"] == [500.0] and length["estimated"] is False and length["why"] == ["100 rows x 5.00 mm"]
    assert main(["measure", str(path)]) == 0
    assert "Strap: length 50.0 cm" in capsys.readouterr().out


def test_without_a_gauge_nothing_is_measured() -> None:
    proof = prove_text(strap("Strap", 7, 100))
    found: tuple[Measure, ...] = measures_of(proof.pattern, proof.works)
    assert found == ()
