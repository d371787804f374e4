"""Kinds of writing in which right texts were refused once: each in three house styles, right and with a slip.

A new kind gets a name and three texts here; a new wording of a kind that is here already replaces one of its three.
"""

import re

import pytest

from rillstep.core.proof import Proof, prove_text

DISC = "Rnd 1: 6 sc in a magic ring. (6)\nRnd 2: 2 sc in each st around. (12)\n"
RING = "Ch 24, join.\nRnd 1: Sc in each ch around. (24)\n"
PANEL = "Ch 11.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (10)\n"
SQUARE = "Rnd 1: Ch 3 (counts as dc), 2 dc in ring, ch 2, [3 dc in ring, ch 2] 3 times; join. (12 dc, 4 ch-2 sps)\n"

# kind -> three texts, each with a total at its end that the slip is made in
KINDS: dict[str, tuple[str, str, str]] = {
    "numbers that other sizes fill": (
        f"Sizes: 1, 2, 3\n{DISC}Sizes 2 and 3 only:\nR3: [Sc in next st, inc] 6 times. (18)\nSize 3 only:\nR4: [Sc in next 2 sts, inc] 6 times. (24)\n"
        "All sizes:\nR5: Sc in each st around. (12, 18, 24)",
        f"Sizes: S, M\n{DISC}Size M only: Rnd 3: *Sc in next st, 2 sc in next st; rep from * around. (18)\nAll sizes: Rnd 4: Sc in each st around. (12, 18)",
        f"Sizes: Cap, Coat\n{RING}Size Coat only:\nRnds 2-4: Sc in each st around. (24)\nAll sizes:\nRnd 5: [Sc in next 4 sts, sc2tog] 4 times. (20, 20)",
    ),
    "gauge in prose": (
        f"Orion pouch\nGauge: work until the circle of 5 rounds measures 7 cm across.\n{DISC}Rnd 3: Sc in each st. (12)",
        f"Orion pouch\nGauge is not critical, but my fabric came out at about 18 stitches and 20 rows to 4 inches.\n{DISC}Rnd 3: Sc in each st. (12)",
        f"Orion pouch\nGauge: 16 sts = 10 cm in body pattern after blocking; gauge is firm\n{DISC}Rnd 3: Sc in each st. (12)",
    ),
    "habits in prose": (
        f"Lyra pouch\nEvery round begins with a ch 1 that is not counted and ends with a sl st to the first st.\n{DISC}Rnd 3: Sc in each st. (12)",
        f"Lyra pouch\nBody\nAll rounds start with ch 1 (not counted) and are closed with a slip stitch.\n{DISC}Rnd 3: Sc in each st. (12)",
        f"Lyra pouch\nNote: each round starts with ch 1, which is never counted as a stitch.\n{DISC}Rnd 3: Sc in each st. (12)",
    ),
    "totals in own words": (
        f"{RING}Rnd 2: Ch 1, [sc in next st, ch 3, sk 1] 12 times; join. (12 loops)",
        f"{RING}Rnd 2: Sc in next 23 sts, ch 8, sc in last st. (24 sc and a button loop of 8 ch)",
        f"{RING}Rnd 2: [Sc in next 6 sts, ch 2] 4 times. **24 sc and 4 openings**",
    ),
    "abbreviations that the text lists": (
        f"Abbreviations: sc = single crochet, hk = hook, nst = next stitch\n{DISC}Rnd 3: 2 sc in nst, sc in next 11 sts. (13)",
        f"Abbreviations:\nsc - single crochet\ninv-dec - invisible decrease\n{DISC}Rnd 3: [Sc in next st, inv-dec] 4 times. (8)",
        f"Abbreviations: sc = single crochet, evs = each stitch around, yo = yarn over\n{DISC}Rnd 3: 2 sc in evs. (24)",
    ),
    "the front, then the back": (
        f"{RING}Rnd 2: Front: sc in next 12 sts; back: sc in next 12 sts. (24)",
        f"{RING}Rnd 2: Across the front: sc in next 4 sts, dc in next 4 sts, sc in next 4 sts. Across the back: sc in next 12 sts. (24)",
        f"{RING}Rnd 2: Ch 1; front: [sc in next 5 sts, inc] twice; back: sc in next 12 sts; join. (26)",
    ),
    "row ends with corners": (
        f"{PANEL}Rows 2-10: Ch 1, sc in each st across; turn. (10)\nEdging: Ch 1, sc in each st across, 2 sc in corner, 10 sc evenly along row ends, 2 sc in corner, "
        "10 sc along foundation ch, 2 sc in corner, 10 sc along row ends, 2 sc in corner; join. (48)",
        f"{PANEL}Rows 2-6: Ch 1, sc in each st across; turn. (10)\nRnd 1: Ch 1, sc in each st across, 3 sc in corner, sc in each row end, 3 sc in corner, "
        "sc in each ch along foundation, 3 sc in corner, sc in each row end, 3 sc in corner; join. (44)",
        f"{PANEL}Rows 2-4: Ch 1, sc in each st across; turn. (10)\nRnd 1: Ch 1, sc in each st, 4 sc along row ends, 10 sc along foundation ch, 4 sc along row ends; join. (28)",
    ),
    "rounds over joined pieces": (
        f"Front\n{PANEL}Rows 2-10: Ch 1, sc in each st across; turn. (10)\nFasten off.\nBack\nWork as for Front, but do not fasten off.\nJoining\n"
        "Rnd 1: Working through both layers, ch 1, 10 sc evenly along row ends, 3 sc in corner, 10 sc along foundation ch, 3 sc in corner, 10 sc along row ends; fasten off. (36)",
        f"Panel (make 2)\n{PANEL}Rows 2-5: Ch 1, sc in each st across; turn. (10)\nFasten off.\nSeam\nRow 1: Holding both panels together, sc through both layers across. (10)",
        f"Circle (make 2)\n{DISC}Fasten off.\nJoining\nRnd 1: Holding both circles together and working through both layers, sc in each st around. (12)",
    ),
    "to the next corner": (
        f"{SQUARE}Rnd 2: Ch 3 (counts as dc), dc in next 2 sts, *(2 dc, ch 2, 2 dc) in corner, dc in each st to next corner; rep from * 2 more times, (2 dc, ch 2, 2 dc) in corner; join. (28 dc, 4 ch-2 sps)",
        f"{SQUARE}Rnd 2: Ch 1, *sc in each st to next corner sp, (sc, ch 2, sc) in corner sp; rep from * 3 more times; join. (20 sc, 4 ch-2 sps)",
        f"{SQUARE}Rnd 2: Ch 1, [sc in each dc to corner, 3 sc in corner] 4 times; join. (24)",
    ),
    "a strap chained across": (
        f"{RING}Rnd 2: Sc in next 6 sts, ch 30, skip next 6 sts, sc in next 12 sts. (18 sc, 30 ch)\nRnd 3: Sc in each st and ch around. (48)",
        f"{RING}Rnd 2: Sc in next 3 sts, ch 40, sk 12 sts, sc in next 9 sts. (12 sc, 40 ch)\nRnd 3: Sc in each st and ch around. (52)",
        f"{RING}Rnd 2: Sc in next 8 sts, ch 20 for the strap, sk next 4 sts, sc in each st around. (20 sc, 20 ch)\nRnd 3: Sc in each st and ch around. (40)",
    ),
    "a bracket in the middle of a step": (
        "Ch 11.\nRow 1: Sc (through the back bump) in 2nd ch from hook and in each ch across; turn. (10)",
        f"{RING}Rnd 2: Sc (through the back loop) in next 12 sts, sc in each st around. (24)",
        f"{RING}Rnd 2: [Sc (in front loop only) in next st, sc in next st] 11 times, 2 sc in next st, sc in next st. (25)",
    ),
    "three kinds of stars": (
        "Ch 31.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (30)\n"
        "Row 2: Ch 1, *sc in next 2 sts, **dc in next st, sc in next st**; rep from ** to ** once; rep from * across; turn. (30)",
        "Ch 31.\nRow 1: Sc in 2nd ch from hook and in each ch across; turn. (30)\n"
        "Row 2: Ch 1, *sc in next 2 sts, **dc in next st, sc in next st**, rep from ** to ** twice more, sc in next 2 sts; rep from * 2 more times; turn. (30)",
        f"{RING}Rnd 2: *Sc in next 4 sts, **2 sc in next st**; rep from ** to ** once; rep from * around. (32)",
    ),
    "spike stitches": (
        f"{RING}Rnd 2: [Sc in next 5 sts, 1 spike dc in next st] 4 times. (24)",
        f"{RING}Rnd 2: [Sc in next 3 sts, spike sc in next st] 6 times. (24)",
        f"{RING}Rnd 2: [Sc in next 7 sts, one long dc in next st] 3 times. (24)",
    ),
    "finished sizes": (
        "Comet bag\nFinished size: Small (Large)\n20 (26) cm wide\nRnd 1: 6 (8) sc in ring. (6, 8)\nRnd 2: 2 sc in each st. (12, 16)",
        f"Finished size: 20 cm wide, 15 cm tall\nSizes: small, large\n{DISC}Rnd 3: Sc in each st. (12, 12)",
        f"Comet bag\nFinished measurements: 24 cm across and 30 cm high\n{DISC}Rnd 3: Sc in each st. (12)",
    ),
    "a text that begins in the middle": (
        "Part 3 of the along\nRow 8: Ch 1, sc in each st across, turn. (24)\nRow 9: Ch 1, sc2tog, sc in each st to last 2 sts, sc2tog, turn. (22)",
        "Rnd 12: Sc in each st around. (48)\nRnd 13: [Sc in next 6 sts, sc2tog] 6 times. (42)",
        "Body, continued\nRnd 21: [Sc in next 10 sts, inc] 4 times. (48)\nRnds 22-24: Sc in each st around. (48)",
    ),
    "rows that become rounds": (
        f"{PANEL}Rows 2-4: Ch 1, sc in each st across, turn. (10)\nNow work in rounds.\nRnd 1: Ch 1, sc in each st across, 4 sc along row ends, 10 sc along foundation ch, 4 sc along row ends; join. (28)",
        "Ch 21.\nRow 1: Hdc in 3rd ch from hook and in each ch across. (19)\nRnd 1: Ch 1, hdc in each st across, working along the other side of the chain, hdc in each ch; join. (38)",
        f"{PANEL}Rows 2-10: Ch 1, sc in each st across, turn. (10)\nBody (in rounds)\nRnd 1: Ch 1, sc in each st, 10 sc along row ends, 10 sc along foundation ch, 10 sc along row ends; join. (40)",
    ),
    "round 1 in the first chain": (
        "Rnd 1: Ch 4, 11 dc in first ch; join to top of ch. (12)\nRnd 2: Ch 3 (counts as dc), dc in same st, 2 dc in each st around; join. (24)",
        "Ch 4.\nRnd 1: 11 dc in 4th ch from hook (first 3 ch count as dc); join. (12)",
        "Rnd 1: Ch 2, 6 sc in first ch. (6)\nRnd 2: 2 sc in each st around. (12)",
    ),
    "a heading with a set-up line": (
        "Belt loop: with one yarn ch 14, sc in 2nd ch from hook and in each ch across. (13)\nFasten off.",
        "Cord: using two strands held together, ch 41, sl st in 2nd ch from hook and in each ch across. (40)\nFasten off.",
        "Tab: ch 9, sc in 2nd ch from hook, sc in each ch across. (8)\nFasten off.",
    ),
    "one unread row": (
        f"{RING}Rnd 2: Sc wildly bling every nook. (30)\nRnd 3: [Sc in next 4 sts, inc] 6 times. (36)",
        f"{RING}Rnd 2: Fling the yarn at it. (24)\nRnd 3: Sc in each st around. (24)\nRnd 4: [Sc in next 2 sts, sc2tog] 6 times. (18)",
        f"{PANEL}Row 2: Dazzle across; turn. (12)\nRow 3: Ch 1, sc in each st across; turn. (12)",
    ),
    "usual circles and eyelets": (
        f"Gauge: 20 sc and 24 rows = 10 cm\n{DISC}Rnd 3: [Sc in next st, inc] 6 times. (18)\nRnd 4: [Sc in next 2 sts, inc] 6 times. (24)",
        "Ch 24, join.\nRnd 1: Ch 1, sc in each ch around; join. (24)\nRnd 2: Ch 4 (counts as dc, ch 1), sk next st, [dc in next st, ch 1, sk next st] around; join. (12 dc, 12 ch-1 sps)\n"
        "Rnd 3: Ch 1, sc in each st and ch-1 sp around; join. (24)",
        "Gauge: 16 hdc and 12 rows = 10 cm\nRnd 1: 8 hdc in ring. (8)\nRnd 2: 2 hdc in each st. (16)\nRnd 3: [Hdc in next st, 2 hdc in next st] 8 times. (24)",
    ),
}  # fmt: skip
CASES = [pytest.param(kind, text, id=f"{kind} {at}") for kind, texts in KINDS.items() for at, text in enumerate(texts)]
UNREAD = "one unread row"


def errors(proof: Proof) -> list[str]:
    return [f"{f.code} in line {f.span.line}: {f.message}" for f in proof.findings if f.severity == "error"]


@pytest.mark.parametrize(("kind", "text"), CASES)
def test_a_right_text_is_not_refused(kind: str, text: str) -> None:
    proof = prove_text(text)
    if kind == UNREAD:  # one error, at its line; the rows after it are judged by its total
        assert len(errors(proof)) == 1 and errors(proof)[0].startswith(("not-understood", "row-empty"))
        assert all(line.mark == "proved" for line in proof.lines[2:])
        assert all(line.depends is not None for line in proof.lines[2:3])
        return
    assert errors(proof) == []
    assert all(line.mark in ("proved", "unchecked") for line in proof.lines)
    assert not {"base-ruffles", "base-cups", "start-drifts"} & {f.code for f in proof.findings}


@pytest.mark.parametrize(("kind", "text"), CASES)
def test_a_slip_in_its_last_total_is_found(kind: str, text: str) -> None:
    *before, last = text.rstrip().removesuffix("\nFasten off.").split("\n")
    totals = list(re.finditer(r"(?<=[(*])\d+(?=[^()]*[)*])", last))
    at = totals[-1]
    slipped = "\n".join([*before, f"{last[: at.start()]}{int(at[0]) + 1}{last[at.end() :]}"])
    proof = prove_text(slipped)
    assert proof.lines[-1].mark != "proved", slipped
    assert errors(proof) or proof.lines[-1].mark == "unchecked"
