"""What costs the server most: designs of ten sizes as large as they may be, and texts as long as are read."""

import json
from typing import Any

from rillstep.document import load
from tests.conftest import as_json
from tests.examples import VERSION_1

NAMES = "A, B, C, D, E, F, G, H, I, J"


def large_design(number: int, sizes: int = 10, width_mm: float = 2900.0) -> dict[str, Any]:
    """A tote in ten sizes of nearly three metres; each number gives another."""
    old = json.loads((VERSION_1 / "nightfield.json").read_text())
    size = old["sizes"][0]
    old["sizes"] = [
        {**size, "name": f"S{at}", "width_mm": width_mm + 7 * at - number % 50, "height_mm": width_mm + 11 * at}
        for at in range(sizes)
    ]
    old["name"] = f"Observatory {number}"
    return as_json(load(json.dumps(old)))


def long_text(number: int, rounds: int = 400) -> str:
    """A text in ten sizes of which nothing repeats; each number gives another."""
    lines = [f"# Long {number}", "Terms: US", f"Sizes: {NAMES}"]
    for at in range(1, rounds):
        counts = ", ".join(str(at + number % 90 + size) for size in range(1, 10))
        lines.append(f"Rnd {at}: *sc in next {at + number % 90} ({counts}) sts, 2 sc in next st, rep from * around.")
    return "\n".join(lines)


def gradable_text(number: int) -> str:
    """A text in one size that takes seconds to analyse."""
    rounds = [
        f"Rnd {at}: *Sc in next {at - 2} sts, 2 sc in next st, rep from * around. ({6 * at} sts)" for at in range(3, 26)
    ]
    walls = [f"Rnd {at}: Sc in each st around. (150 sts)" for at in range(26, 40 + number % 20)]
    return "\n".join([
        "# Dome", "Terms: US", "Gauge: 18 sc and 20 rows = 10 cm", "Rnd 1: 6 sc in ring. (6 sts)",
        "Rnd 2: 2 sc in each st around. (12 sts)", *rounds, *walls,
    ])  # fmt: skip


def long_to_grade(domes: int = 6, rounds: int = 30) -> str:
    """A text in one size whose analysis takes many times as long as its proof."""
    one = [
        "Make a magic ring.", "Rnd 1: 6 sc in ring. (6 sts)", "Rnd 2: 2 sc in each st around. (12 sts)",
        *(
            f"Rnd {at}: *Sc in next {at - 2} sts, 2 sc in next st, rep from * around. ({6 * at} sts)"
            for at in range(3, rounds)
        ),
        *(f"Rnd {at}: Sc in each st around. ({6 * (rounds - 1)} sts)" for at in range(rounds, rounds + 20)),
    ]  # fmt: skip
    pieces = [line for at in range(domes) for line in (f"Section: Dome {at + 1} (joined rounds)", *one)]
    return "\n".join(["# Domes", "Terms: US", "Gauge: 18 sc and 20 rows = 10 cm", *pieces])
