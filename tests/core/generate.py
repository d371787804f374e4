"""Made-up rows for the fuzzer: many fit the edge that they are worked on, some do not."""

import random

from rillstep.core.fabric import Edge

HEAD = (
    "Define: shell = 5 dc in same st\nDefine: V = (dc, ch 1, dc) in same st\n"
    "Define: cross = sk next st, dc in next st, dc in skipped st\n"
)

_PLAIN = (
    "sc in next {n} sts", "hdc in next st", "2 sc in next st", "2 dc in each of next {n} sts", "sk next st", "sk next {n} sts", "ch {n}",
    "sc in next sp", "sc in each of next {n} ch", "sc2tog", "dc3tog {n} times", "sc in same st", "sc in next ch-{n} sp", "shell in next st",
    "V in next st", "V in each V around", "(2 dc, ch {n}, 2 dc) in next sp", "(sc, ch 3, sc) in next st", "sc in next sc", "dc in each dc around",
    "FPdc around next st", "sc in each st around", "sc in each st and ch around", "hdc in each st and sp around", "sc in each st to last {n} sts",
    "sc in last st", "sk next 2 sts, dc in next st, dc in skipped st", "puff in next st", "dc2tog in same st", "sc2tog around", "sc in first st",
    "sc in each st and 2 sc in each sp around", "BLO sc in next {n} sts", "sc in each dc and in each ch-1 sp around", "2 sc in each st around",
    "sc in next st 1 row below", "cross in next st", "cross in each st around",
)  # fmt: skip
_REPEATED = (
    "[sc in next st, ch {n}, sk next st] around", "[2 sc in next st, sc in next {n} sts] {m} times", "[sc in next sp, ch 3] around",
    "[sc in next 2 sts, sc2tog] to last {n} sts", "[shell in next st, sk next 2 sts, sc in next st, sk next 2 sts] around", "[FPdc in next st, BPdc in next st] around",
    "[V in next st, sk next {n} sts] around", "[sc in next V, ch 2] around", "*(2 dc, ch 2, 2 dc) in next ch-2 sp, ch 1; rep from * around", "*sc in next {n} sts, [ch 1, sk next st, sc in next st] {m} times; rep from * around",
    "[dc in next dc, ch 1] around", "[sc in next st, [hdc in next st, ch 1] {m} times] around", "[sc in each of next {n} sts, ch {m}, sk next sp] around", "*sc in next st, ch 2; rep from * to last st", "[ch 5, sc in next ch-5 sp] around",
    "[sc in next st, ch 2] to last {n} sts", "[2 sc in next st] to last {m} sts", "[hdc in next {n} sts, hdc2tog] to last {m} sts, hdc in each st around",
    "[sc in next {n} sts, ch 1, sk next st] to last {n} sts, sc in next {n} sts", "*sc in next {n} sts, 2 sc in next st; rep from * to last st, sc in last st",
    "*sc in next {n} sts**, ch 3, sk next {n} sts; rep from * around, ending last rep at **", "[4 sc in next ch-{n} sp, sc in next st] around",
    "sc in next st, [ch 4, sk next 2 sts, sc in next st] to last 2 sts, ch 2, sk last 2 sts, dc in first st", "[sc in next sp, ch 5] to last sp, sc in last sp, ch 2, dc in first st",
)  # fmt: skip
_OPENINGS = (
    "",
    "",
    "Ch 1, ",
    "Ch 3 (counts as dc), ",
    "Ch 2 (does not count), ",
    "Ch 5 (counts as dc, ch 2), ",
    "Ch 1, turn, ",
    "Ch 3 (counts as dc), turn, ",
)
_ENDINGS = ("; join", "; turn", "", ", sl st in next 2 sts")


def row(draw: random.Random, edge: Edge, number: int) -> str:
    """One round's text for an edge."""
    sts = edge.count("st")
    small = draw.randint(1, 4)
    fits = [k for k in range(1, 9) if sts and sts % (k + 1) == 0]
    n = draw.choice(fits) if fits and draw.random() < 0.6 else small
    m = max(1, sts // (n + 1)) if draw.random() < 0.5 else draw.randint(1, 4)
    opening = draw.choice(_OPENINGS)
    if draw.random() < 0.6:
        steps = [draw.choice(_REPEATED)]
        if draw.random() < 0.3:
            steps.insert(0, draw.choice(_PLAIN))
        if draw.random() < 0.3:
            steps.append(draw.choice(_PLAIN))
    else:
        steps = [draw.choice(_PLAIN) for _ in range(draw.randint(1, 4))]
    body = ", ".join(step.format(n=n, m=m) for step in steps)
    return f"Rnd {number}: {opening}{body}{draw.choice(_ENDINGS)}."


def start(draw: random.Random) -> str:
    """A first round on a chain, so that there are stitches to work on; long ones let repeats be counted."""
    count = draw.choice((6, 12, 24, 30, 48, 60, 96, 240))
    return f"Rnd 1: {draw.choice(('Sc', 'Dc', '2 sc', 'Hdc'))} in each ch around; join.".replace(
        "Rnd 1", f"Ch {count}, join into a ring.\nRnd 1"
    )
