"""Texts and targets that several tests use."""

from pathlib import Path

from rillstep.core.gauge import Gauge, gauge_from_swatch
from rillstep.document import Design, load
from rillstep.document.version1.plan import SizeTarget, TotePlan

HEAD = "Pattern: Example\nSizes: S, M, L\nGauge: hdc 15 sts x 11.5 rows = 10 cm\n"

OVAL = """Section: Oval base (joined rounds, oval)
Ch 13 (16, 19).
Rnd 1: Sc in 2nd ch from hook, sc in next 10 (13, 16) ch, 3 sc in last ch; rotate, sc in next 10 (13, 16) ch, 2 sc in last ch; join. — 26 (32, 38) sts
Rnd 2: Ch 1, 2 sc in same st, sc in next 10 (13, 16) sts, 2 sc in each of next 3 sts, sc in next 10 (13, 16) sts, 2 sc in each of next 2 sts; join. — 32 (38, 44) sts
"""

MESH = """Section: Mesh wall (joined rounds, wall), continue from Oval base
Rnd 1: Ch 1, [sc in next st, ch 3, sk 1] around; join. — 16 (19, 22) sts, 16 (19, 22) ch-3 sps
Rnds 2-7 (9, 11): [Sc in next ch-3 sp, ch 3] around; join. — 16 (19, 22) sts, 16 (19, 22) ch-3 sps
Rnd 8 (10, 12): Ch 1, hdc in each st and sp around; join. — 32 (38, 44) sts
Rnd 9 (11, 13): Ch 1, hdc in next 9 (11, 13) sts, ch 9, sk 7 (8, 9), hdc in next 9 (11, 13) sts, ch 9, sk 7 (8, 9); join. — 18 (22, 26) sts, 2 ch-9 sps
Rnd 10 (12, 14): Ch 1, hdc in each st and ch around; join. — 36 (40, 44) sts
"""

MESH_TOTE = HEAD + OVAL + MESH


def hdc_gauge() -> Gauge:
    return gauge_from_swatch("hdc", 15, 11.5, 100, 100, "cm")


def plan(**changes: object) -> TotePlan:
    return TotePlan(**{"gauge": hdc_gauge(), **changes})  # type: ignore[arg-type]


def four_sizes() -> tuple[SizeTarget, ...]:
    """The sizes of the demo design."""
    return (
        SizeTarget("Atlas", 240.0, 265.0, 85.0, 120.0),
        SizeTarget("Flask", 290.0, 300.0, 85.0, 140.0),
        SizeTarget("Rug", 340.0, 340.0, 105.0, 160.0),
        SizeTarget("Tent", 400.0, 380.0, 120.0, 180.0),
    )


VERSION_1 = Path(__file__).parent / "version1"
# Designs of version 1 in all ways of working, by the names of their files.
WAYS = (
    "nightfield", "steward",
    *(f"{stitch}_{way}" for stitch in ("sc", "hdc", "dc") for way in ("joined_plain", "joined_counts", "spiral_plain")),
)  # fmt: skip


def totes() -> list[str]:
    """The texts that stand for the designs of version 1, without names."""
    return [(VERSION_1 / f"{name}.txt").read_text() for name in WAYS]


def every_way() -> list[Design]:
    """The same designs as they are read today."""
    return [load((VERSION_1 / f"{name}.json").read_text()) for name in WAYS]
