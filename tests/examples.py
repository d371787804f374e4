"""Designs and texts that several tests use."""

from rillstep.core.gauge import Gauge, gauge_from_swatch
from rillstep.core.grade import SizeTarget, TotePlan
from rillstep.demo.data import nightfield, steward
from rillstep.document import Design
from rillstep.services import workbench

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
    return tuple(workbench.target_of(size) for size in nightfield().sizes)


def every_way() -> list[Design]:
    """Demo designs in all ways of working."""
    designs = [nightfield(), steward()]
    for stitch, height_mm in (("sc", 60.0), ("hdc", 87.0), ("dc", 125.0)):
        for rounds, counts in (("joined", False), ("joined", True), ("spiral", False)):
            base = nightfield()
            swatch = base.swatch.model_copy(
                update={"stitch": stitch, "stitches": 15, "rows": 10, "width_mm": 100.0, "height_mm": height_mm}
            )
            way = base.way.model_copy(
                update={"rounds": rounds, "chain_counts": counts, "increases": "shifted" if counts else "stacked"}
            )
            designs.append(base.model_copy(update={"swatch": swatch, "way": way}))
    return designs
