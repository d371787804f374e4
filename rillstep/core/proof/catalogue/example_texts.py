"""Beginnings of the texts by which the catalogue shows its findings."""

RING = "Ch 24, join without twisting.\n"
WALL = "Section: Wall (joined rounds, wall)\n" + RING + "Rnd 1: Sc in each ch around; join.\n"
BY_GAUGE = (
    "Gauge: sc 20 sts x 20 rows = 10 cm\n" + RING + "Rnd 1: Sc in each ch around.\nRnd 2: Sc in each st around.\n"
)
RINGS = (
    "Gauge: sc 20 sts x 20 rows = 10 cm\nSection: Base (spiral rounds, disc)\nRnd 1: {n} sc in ring.\n"
    "Rnd 2: 2 sc in each st around.\nRnd 3: [sc in next st, 2 sc in next st] {n} times."
)
PANEL = (
    "Panel\nCh 11.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"
    "Rows 2-20: Ch 1, sc in each st across; turn.\n"
)
MEASURED = f"Gauge: sc 20 sts x 20 rows = 10 cm\n{PANEL}Finishing\nCheck: 5.0 cm high."
FOLDED = f"{PANEL}Fold: front 10 rows, back 12 rows."
SAID_WIDE = f"Finished size: 30 cm wide\nGauge: sc 20 sts x 20 rows = 10 cm\n{PANEL}Fold: in half."
PUFFS = "Rnd {n}: [Puff in next st, sc in next 5 sts] around; join.\n"
BETWEEN = (
    "Rnd {n}: Sc in next 3 sts, puff in next st, [sc in next 5 sts, puff in next st] 3 times, sc in next 2 sts; join.\n"
)
