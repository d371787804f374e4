"""The texts of the demo's bags."""

from importlib.resources import files


def bag_text(name: str) -> str:
    """The text of a bag as it was graded."""
    return (files("rillstep.demo") / "bags" / f"{name}.txt").read_text("utf-8")


POUCH = """Pattern: Eyepiece pouch
Terms: US
Units: cm
Gauge: sc 20 sts x 22 rows = 10 cm
Gauge: ch 20 = 10 cm
Note: Keeps one eyepiece dry on a dewy night.

Section: Base (joined rounds, disc)
Make an adjustable ring.
Rnd 1: Ch 1 (does not count), 6 sc in ring; join. — 6 sts
Rnd 2: Ch 1, 2 sc in each st around; join. — 12 sts
Rnd 3: Ch 1, [sc in next st, 2 sc in next st] 6 times; join. — 18 sts
Rnd 4: Ch 1, [sc in next 2 sts, 2 sc in next st] 6 times; join. — 24 sts
Rnd 5: Ch 1, [sc in next 3 sts, 2 sc in next st] 6 times; join. — 30 sts
Rnd 6: Ch 1, [sc in next 4 sts, 2 sc in next st] 6 times; join. — 36 sts
Rnd 7: Ch 1, [sc in next 5 sts, 2 sc in next st] 6 times; join. — 42 sts
Rnd 8: Ch 1, [sc in next 6 sts, 2 sc in next st] 6 times; join. — 48 sts

Section: Wall (joined rounds, wall)
Rnds 9-22: Ch 1, sc in each st around; join. — 48 sts
Rnd 23: Ch 1, [sc in next 6 sts, ch 2, sk next 2 sts] 6 times; join. — 36 sts, 6 ch-2 sps
Rnd 24: Ch 1, [sc in next 6 sts, 2 sc in next ch-2 sp] around; join. — 48 sts
Check: 16 rnds.
Fasten off.

Section: Cord (rows, strip)
Ch 110.
Fasten off.
"""
