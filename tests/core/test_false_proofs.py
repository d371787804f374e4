"""Lines that work out and are not true: each is found, and its right neighbour is proved.

A row of a table is (what is wrong, the lines after a beginning, the line that it is found in, the finding, the lines
when they are right).
"""

import random
from pathlib import Path

import pytest

from rillstep.core.findings import Finding, apply_edits
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from tests.sweep.texts import slips

HEAD = "Pattern: A\nTerms: US\nSizes: S\n\n"
DISC = (
    HEAD + "Section: Base (joined rounds, disc)\nMake an adjustable ring.\n"
    "Rnd 1: Ch 1 (does not count), 6 sc in ring; join. (6 sts)\nRnd 2: Ch 1, 2 sc in each st around; join. (12 sts)\n"
)
WALL = (
    HEAD + "Section: Wall (joined rounds, wall)\nCh 80, join into a ring without twisting.\n"
    "Rnd 1: Ch 1, sc in each ch around; join. (80 sts)\n"
)
PANEL = (
    HEAD + "Section: Panel (rows, panel)\nCh 13.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (12 sc)\n"
)
TRIM = HEAD + "Section: Trim (rows, trim)\nCh 74.\nRow 1: Sc in 2nd ch from hook and in each ch across, turn. (73 sc)\n"
SHELLS = "Row 2: Ch 1, sc in first st, *skip 1 st, 6 dc in next st, skip 1 st, sc in next st; repeat from * across. "
DC = HEAD + "Section: Panel (rows, panel)\nCh 52.\n"

# (name, before, wrong, the finding, right); the wrong lines end the text, and the finding is in the last of them.
CASES = [
    ("sl st as a place", DISC, "Rnd 3: Ch 1, 2 sc in each sl st around; join. (24 sts)", "stitch-not-there",
     "Rnd 3: Ch 1, 2 sc in each sc around; join. (24 sts)"),
    ("a puff that is none", DISC, "Rnd 3: Ch 1, [sc in next puff] 12 times; join. (12 sts)", "stitch-not-there",
     "Rnd 3: Ch 1, [sc in next sc] 12 times; join. (12 sts)"),
    ("another stitch", DISC, "Rnd 3: Ch 1, sc in each dc around; join. (12 sts)", "stitch-not-there",
     "Rnd 3: Ch 1, sc in each st around; join. (12 sts)"),
    ("joined to another stitch", DISC, "Rnd 3: Ch 1, sc in each st around; sl st to first dc. (12 sts)",
     "stitch-not-there", "Rnd 3: Ch 1, sc in each st around; sl st to first sc. (12 sts)"),
    ("top of another chain", DISC,
     "Rnd 3: Ch 3 (counts as dc), dc in same st, 2 dc in each st around; sl st to top of 4 ch. (24 sts)",
     "chain-not-there",
     "Rnd 3: Ch 3 (counts as dc), dc in same st, 2 dc in each st around; sl st to top of 3 ch. (24 sts)"),
    ("3rd of another chain", DISC,
     "Rnd 3: Ch 5 (counts as dc and ch 2), [dc in next st, ch 2] 11 times; sl st to 3rd ch of beg ch-8.",
     "chain-not-there",
     "Rnd 3: Ch 5 (counts as dc and ch 2), [dc in next st, ch 2] 11 times; sl st to 3rd ch of beg ch-5."),
    ("a row that is not there", PANEL + "\nSection: Tube (spiral rounds, tube), continue from Panel\n",
     "Rnd 1: Sc in the first sc of Row 7, and sc in each of the next 11 sc. (12 sc)", "row-not-found",
     "Rnd 1: Sc in the first sc of Row 1, and sc in each of the next 11 sc. (12 sc)"),
    ("skipped chains as the text counts them", DC,
     "Row 1: Dc in 4th ch from hook and in each ch across, turn. (49 dc)\n"
     "Row 2: Ch 3 (counts as dc), dc in next st and in each st across, turn. (49 dc)", "total-differs",
     "Row 1: Dc in 4th ch from hook and in each ch across, turn. (50 dc)\n"
     "Row 2: Ch 3 (counts as dc), dc in next st and in each st across, turn. (50 dc)"),
    ("the chain that ends the yarn", WALL, "Rnd 2: Ch 1, sc in each st around; sl st to first sc, ch 1, fasten off. (81 sts)",
     "total-differs", "Rnd 2: Ch 1, sc in each st around; sl st to first sc, ch 1, fasten off. (80 sts)"),
    ("a chain without its number", DISC, "Rnd 3: Ch 1, [(sc, ch, sc) in next st, sc in next 2 sts] 4 times; join. (16 sc)",
     "chain-number-missing",
     "Rnd 3: Ch 1, [(sc, ch 2, sc) in next st, sc in next 2 sts] 4 times; join. (16 sc, 4 ch-2 sps)"),
    ("beside shells", TRIM, f"{SHELLS}(18 shells and 25 sc)", "total-differs", None),
    ("a copy of words that are not read", WALL,
     "Rnd 2: Ch 1, glorp in next st, sc in each st around; join. (80 sts)\nRnd 3: Rep Rnd 2. (80 sts)", None, None),
    ("rounds apart", WALL + "Rnds 2-21: Ch 1, sc in each st around; join. (80 sts)\n",
     "Rnds 22 and 24: Rep Rnd 2. (80 sts)", "numbers-apart", "Rnds 22 and 23: Rep Rnd 2. (80 sts)"),
    ("a copy on the other side",
     PANEL + "Row 2 (WS): Ch 1, FPdc in next 12 sts, turn. (12 sts)\nRow 3 (RS): Ch 1, sc in each st across, turn.\n"
     "Row 4 (WS): Ch 1, sc in each st across, turn. (12 sts)\n", "Row 5 (RS): Rep Row 2. (12 sts)", "side-differs",
     "Row 5 (RS): Rep Row 3. (12 sts)"),
    ("two rows on one side", PANEL,
     "Row 2 (RS): Ch 1, sc in each st across, turn. (12 sts)\nRow 3 (RS): Ch 1, sc in each st across, turn. (12 sts)",
     "side-differs",
     "Row 2 (RS): Ch 1, sc in each st across, turn. (12 sts)\nRow 3 (WS): Ch 1, sc in each st across, turn. (12 sts)"),
    ("chains left unworked", WALL +
     "Rnd 2: Ch 1, sc in next 20 sts, ch 28, sk 20 sts, sc in next 20 sts, ch 28, sk 20 sts; join. (40 sc, 2 ch-28 sps)\n",
     "Rnd 3: Ch 1, sc in next 20 sts, sc in each of next 26 ch, sc in next 20 sts, sc in each of next 28 ch; join.",
     "left-over",
     "Rnd 3: Ch 1, sc in next 20 sts, sc in each of next 28 ch, sc in next 20 sts, sc in each of next 28 ch; join. (96)"),
    ("a round that is turned once", WALL,
     "Rnd 2: Ch 1, sc in each st around; join, turn. (80 sts)\nRnd 3: Ch 1, sc in each st around; join. (80 sts)",
     "round-turned",
     "Rnd 2: Ch 1, sc in each st around; join. (80 sts)\nRnd 3: Ch 1, sc in each st around; join. (80 sts)"),
    ("words that change the work", WALL,
     "Rnd 2: Ch 1, sc in each st around, catching just the far strand; join. (80 sts)", "words-not-worked",
     "Rnd 2: Ch 1, sc in each st around, being careful not to twist; join. (80 sts)"),
    ("words that tell how it comes to look", WALL,
     "Rnd 2: Ch 1, sc in each st around, so that a ridge of free strands faces you; join. (80 sts)",
     "words-not-worked", "Rnd 2: Ch 1, sc in each st around, at the back of the bag; join. (80 sts)"),
    ("openings by repeats, not opposite", WALL,
     "Rnd 2: Ch 1, sc in next 10 sts, ch 28, sk 20 sts, [sc in next 11 sts] twice, ch 28, sk 20 sts, "
     "sc in each st around; join.", "handles-not-opposite",
     "Rnd 2: Ch 1, [sc in next 20 sts, ch 28, sk 20 sts] twice; join."),
]  # fmt: skip


@pytest.mark.parametrize(("before", "wrong", "code", "right"), [case[1:] for case in CASES], ids=[c[0] for c in CASES])
def test_what_is_not_true_is_not_proved(before: str, wrong: str, code: str | None, right: str | None) -> None:
    proof = prove_text(before + wrong + "\n")
    at = len((before + wrong).split("\n"))
    line = next(line for line in proof.lines if line.line == at) if code != "total-differs" else None
    assert line is None or not line.proved
    assert code is None or code in [finding.code for finding in proof.findings]
    assert not all(line.proved for line in proof.lines)
    if right is not None:
        proof = prove_text(before + right + "\n")
        found = [finding for finding in proof.findings if finding.severity != "caution"]
        assert [line.mark for line in proof.lines] == ["proved"] * len(proof.lines), found
        assert not [finding for finding in found if finding.severity == "error"]


NAMED = ("stitch-not-there", "chain-not-there", "row-not-found", "numbers-apart")


@pytest.mark.parametrize(("before", "wrong"), [case[1:3] for case in CASES if case[3] in NAMED])
def test_what_is_named_wrong_has_a_repair_that_makes_it_true(before: str, wrong: str) -> None:
    text = before + wrong + "\n"
    (found,) = [finding for finding in prove_text(text).findings if finding.code in NAMED]
    assert found.repairs
    for repair in found.repairs:
        mended = prove_text(apply_edits(text, repair.edits))
        assert mended.ok
        assert all(line.proved for line in mended.lines)


GENERAL = [
    ("FPdc", "dc"), ("BPdc", "dc"), ("rsc", "sc"), ("esc", "sc"), ("FPdc", "FPdc"),
]  # fmt: skip


@pytest.mark.parametrize(("made", "called"), GENERAL)
def test_a_stitch_may_be_called_by_its_plain_name(made: str, called: str) -> None:
    proof = prove_text(
        WALL + f"Rnd 2: Ch 1, [{made} in next st] 80 times; join. (80 sts)\n"
        f"Rnd 3: Ch 1, sc in each {called} around; join. (80 sts)\n"
    )
    assert "stitch-not-there" not in [finding.code for finding in proof.findings]


def test_a_chain_that_counts_is_what_it_counts_as_and_us_and_uk_are_what_they_are() -> None:
    rows = "Rnd 2: Ch 3 (counts as {dc}), {dc} in next st and in each st around; sl st to top of ch-3. (80 {dc})\n"
    for terms, dc in (("US", "dc"), ("UK", "tr")):
        text = (WALL + rows.format(dc=dc)).replace("US", terms)
        text = text.replace("sc", "dc") if terms == "UK" else text
        proof = prove_text(
            text + f"Rnd 3: Ch 1, {'sc' if terms == 'US' else 'dc'} in each {dc} around; join. (80 sts)\n"
        )
        assert [line.mark for line in proof.lines] == ["proved"] * 3, proof.findings


COUNTED = [
    ("Row 1: Dc in 4th ch from hook and in each ch across, turn. (50 dc)", True),
    ("Row 1: Dc in 4th ch from hook and in each ch across, turn. (49 dc)", False),
]


@pytest.mark.parametrize(("row", "true"), COUNTED)
def test_what_a_text_says_of_chains_anywhere_holds_for_all_of_it(row: str, true: bool) -> None:
    said = "Beginning ch 3 counts as a dc throughout.\n"
    proof = prove_text(HEAD + said + "Section: Panel (rows, panel)\nCh 52.\n" + row + "\n")
    assert proof.ok is true


def test_no_line_picks_the_way_of_counting_that_suits_its_number() -> None:
    mesh = (
        WALL + "Rnd 2: Ch 1, [sc in next st, ch 1, sk 1 st] around; join. ({a} sts)\n"
        "Rnd 3: Ch 1, [sc in next ch-1 sp, ch 1] around; join. ({b} sts)\n"
    )
    for a, b, true in ((40, 40, True), (80, 80, True), (40, 80, False), (80, 40, False)):
        assert prove_text(mesh.format(a=a, b=b)).ok is true


def test_one_chain_counts_or_does_not_in_all_rows() -> None:
    text = DC + "Row 1: Dc in 4th ch from hook and in each ch across, turn. ({a} dc)\n"
    text += "Row 2: Ch 3, dc in first st, dc in each st across, turn. (50 dc)\n"
    found = prove_text(text.format(a=50)).findings  # the skipped chains are the 50th, and in row 2 ch 3 is none
    assert "starting-chain-uneven" in [finding.code for finding in found]


def test_a_colour_goes_with_a_copy() -> None:
    rows = "Rnd 2: With A, ch 1, sc in each st around; join. (80 sts)\nRnd 3: With B, rep Rnd 2. (80 sts)\n"
    proof = prove_text(WALL + rows)
    assert all(line.proved for line in proof.lines)
    copied = proof.works[0].lines[-1]
    assert [step.name for step in copied.steps if getattr(step, "kind", "") == "change colour"] == ["B"]


def test_what_copies_an_unproved_row_is_not_proved() -> None:
    rows = (
        "Rnd 2: Ch 1, sc in each st around, catching just the far strand; join. (80 sts)\nRnd 3: Rep Rnd 2. (80 sts)\n"
    )
    assert [line.mark for line in prove_text(WALL + rows).lines] == ["proved", "unchecked", "unchecked"]


SIZES = HEAD.replace("Sizes: S", "Sizes: S, M, L") + "Section: Wall (joined rounds, wall)\n"
SIZES += "Ch 80 (90, 100), join into a ring without twisting.\nRnd 1: Ch 1, sc in each ch around; join.\n"


def test_a_number_of_rounds_that_breaks_the_step_is_said_where_nothing_counts_it() -> None:
    odd = SIZES + "Next 14 (12, 16) rnds: Ch 1, sc in each st around; join.\n"
    assert "size-out-of-step" in [finding.code for finding in prove_text(odd).findings]
    counted = odd + "Rnd 16 (14, 18): Ch 1, sc in each st around; join.\n"
    assert "size-out-of-step" not in [finding.code for finding in prove_text(counted).findings]


@pytest.mark.parametrize("order", [(1, 0, 2), (2, 1, 0), (2, 0, 1), (1, 2, 0)])
def test_sizes_in_another_order_break_no_step(order: tuple[int, int, int]) -> None:
    def sets(*values: int) -> str:
        first, *others = (values[at] for at in order)
        return f"{first} ({', '.join(map(str, others))})"

    head = SIZES.replace("S, M, L", ", ".join("SML"[at] for at in order)).replace("80 (90, 100)", sets(80, 90, 100))
    rows = f"Rnd 2: Ch 1, sc in next {sets(11, 14, 17)} sts, 2 sc in next st, sc in each st around; join."
    rows += f"\nNext {sets(12, 14, 16)} rnds: Ch 1, sc in each st around; join.\n"
    assert not [one for one in prove_text(head + rows).findings if one.code == "size-out-of-step"]
    odd = head + rows.replace(sets(11, 14, 17), sets(11, 19, 17))
    assert [one.size for one in prove_text(odd).findings if one.code == "size-out-of-step"] == [order.index(1)]


def test_a_number_that_its_total_confirms_is_not_called_odd() -> None:
    row = "Rnd 2: Ch 1, sc in next 11 (17, 12) sts, 2 sc in next st, sc in each st around; join. — 81 (91, 101) sts\n"
    found = [finding for finding in prove_text(SIZES + row).findings if finding.code == "size-out-of-step"]
    assert len(found) == 1  # the run before the increase is free: both are true
    row = "Rnd 2: Ch 1, 2 sc in each of next 11 (17, 12) sts, sc in each st around; join. — 91 (107, 112) sts\n"
    assert not [f for f in prove_text(SIZES + row).findings if f.code == "size-out-of-step"]


def _changed(name: str, was: str, now: str) -> list[str]:
    text = (Path(__file__).parents[1] / "corpus" / f"{name}.txt").read_text()
    assert was in text and not [one for one in prove_text(text).findings if one.severity == "error"]
    return [one.code for one in prove_text(text.replace(was, now, 1)).findings if one.severity == "error"]


@pytest.mark.parametrize(
    ("name", "was", "now", "code"),
    [
        ("pasted_eyelet_bucket", "2 sc in 1st st", "2 sc in 0st st", "chain-of-none"),
        ("pasted_eyelet_bucket", "1 sc in each dc and 1", "0 sc in each dc and 1", "chain-of-none"),
        ("pasted_cygnus_drawstring", "4 ch (counts as 1 tr, 1 ch)", "4 ch (counts as 1 tr, 2 (1) ch)", "starting-chain-uneven"),
        ("pasted_vst", "3rd ch of beg ch-4", "3rd ch of beg ch-5", "chain-not-there"),
        ("pasted_halley_hobo", "R9: *7 sc, 2 sc in next st* repeat 7", "R9: *7 sc, 2 sc in next st* repeat 6", "left-over"),
        ("pasted_yoga", "Repeat Rows 2-5", "Repeat Rows 3-5", "rows-otherwise"),
        ("pasted_zenith_bucket_hat", "Rnd 7 | 8 | 9", "Rnd 7 | 9 | 9", "numbers-gap"),
        ("pasted_aquila_cable", "Row 6: Rep Row 4", "Row 6: Rep Row 3", "stitch-not-there"),
        ("pasted_aquila_cable", "Row 6: Rep Row 4", "Row 6: Rep Row 5 (4)", "stitch-not-there"),
        ("pasted_shaula_macrame_look", "*7 ch, 1 dc into next loop", "*7 ch, 0 (1) dc into next loop", "repeat-stuck"),
        ("pasted_lacefigure", "dc in next 3 dc, ch 2, skip next 2 dc", "dc in next 3 dc, ch 2, skip next 1 dc", "left-over"),
        ("granny", "Rnd 3: Sl st in next 2 dc", "Rnd 3: Sl st in next 1 dc", "left-over"),
        ("granny", "Rnd 3: Sl st in next 2 dc", "Rnd 3: Sl st in next 3 dc", "runs-out"),
        ("pasted_std_shell", "Sl st in next 2 dc", "Sl st in next 1 (2, 2) dc", "left-over"),
        ("pasted_io_shell_clutch", "*sk 2 dc, 5dc in next sc", "*sk 1 (2) dc, 5dc in next sc", "left-over"),
        ("pasted_vega_market_bag", "sc in same ch-5 sp", "sc in same ch-4 (5, 5) sp", "chain-not-there"),
        ("pasted_spica_raffia_tote", "dc in first ch-1 sp", "dc in first ch-0 (1) sp", "chain-not-there"),
        ("pasted_atria_zigzag", "sk 1 sc, sc in next sc, sk 1 sc", "sk 0 sc, sc in next sc, sk 1 sc", "left-over"),
        ("pasted_eyelet_bucket", "Ch 3 (counts as dc)", "Ch 2 (counts as dc)", "chain-not-there"),
        ("pasted_eyelet_bucket", "Join to 3rd ch", "Join to 4th ch", "chain-not-there"),
        ("pasted_eyelet_bucket", "Join to 3rd ch", "Join to 2nd ch", "chain-not-there"),
        ("pasted_handlebars", "sl st to top of ch 3. (70", "sl st to top of ch 4. (70", "chain-not-there"),
        ("pasted_handlebars", "w/ ch 3 as first dc", "w/ ch 2 as first dc", "chain-not-there"),
        ("pasted_lattice_filet", "5 ch (counts as 1 tr, 2 ch)", "4 ch (counts as 1 tr, 2 ch)", "starting-chain-uneven"),
        ("pasted_lattice_filet", "5 ch (counts as 1 tr, 2 ch)", "6 ch (counts as 1 tr, 2 ch)", "starting-chain-uneven"),
        ("pasted_perseid_pouch", "Row 2: 1 ch, 1 dc in each st to end. (74", "Row 1 (2): 1 ch, 1 dc in each st to end. (74", "numbers-overlap"),
        ("pasted_filetmesh", "last space, skip 1 ch", "last space, skip 0 ch", "left-over"),
        ("pasted_perseid_pouch", "Rep Rows 3 and 4", "Rep Rows 4 (3) and 4", "row-twice"),
        ("pasted_shellsalternate", "10 more times, skip 2 dc", "10 more times, skip 1 dc", "left-over"),
        ("pasted_cable_wall", "Rep Rnds 3 and 4", "Rep Rnds 3 and 3", "row-twice"),
        ("pasted_patchstripe", "With B, ch 2,", "With B, ch 1 [2] {2},", "starting-chain-uneven"),
        ("pasted_star_chart_envelope", "sc2tog. Ch 1, turn", "sc2tog. Ch 2 (1), turn", "starting-chain-uneven"),
        ("pasted_north_star_sunburst", "Sl st between first 2 sts", "Sl st between first 3 sts", "not-understood"),
    ],
)  # fmt: skip
def test_nothing_is_worked_so_many_times_and_chains_are_what_they_are(name: str, was: str, now: str, code: str) -> None:
    assert code in _changed(name, was, now)


def test_free_loops_are_worked_into_once() -> None:
    """Four rows of 20 use the 80 loops up, whether in one line or in several."""
    head = WALL + "Rnd 2: Ch 1, sc in back loop of each st around; join. (80 sts)\n"
    tab = "Row {}: Sc in each of the next 20 free front loops of Rnd 1, turn. (20 sc)\n"
    true = head + "".join(tab.format(n) for n in range(3, 7))
    assert not [one for one in prove_text(true).findings if one.code in ("no-such-place", "runs-out")]
    for wrong in (true + tab.format(7), head + tab.format(3) + "Rows 4-7: Rep Row 3. (20 sc)\n"):
        assert [one.code for one in prove_text(wrong).findings if one.code in ("no-such-place", "runs-out")]


def test_a_chain_of_nothing_ends_no_piece() -> None:
    text = WALL + "Ch {}, cut the yarn and pull it through.\n"
    assert not [one for one in prove_text(text.format(1)).findings if one.severity == "error"]
    assert [one.code for one in prove_text(text.format(0)).findings if one.severity == "error"] == ["chain-of-none"]


def test_no_warning_offers_a_repair_that_leaves_more_errors() -> None:
    """The later row tells that the number is meant: nothing is said of it."""
    rows = "Rnd 2: Ch 1, 2 sc in each of next 5 (9, 7) sts, sc in each st around; join.\n"
    assert [one.code for one in prove_text(SIZES + rows).findings if one.repairs] == ["size-out-of-step"]
    rows += "Rnd 3: Ch 1, sc in next 85 (99, 107) sts; join. (85, 99, 107)\n"
    assert not [one for one in prove_text(SIZES + rows).findings if one.code == "size-out-of-step"]


def test_repairs_of_warnings_leave_no_more_errors_anywhere() -> None:
    """Texts with a number changed, as while they are typed: each repair of a warning is made, and the errors counted."""
    draw, tried = random.Random(1), 0
    for path in sorted((Path(__file__).parents[1] / "corpus").glob("*.txt"))[::8]:
        for text, _, _ in slips(path.read_text(), draw, 2):
            proof = prove_text(text)
            errors = sum(one.severity == "error" for one in proof.findings)
            for finding in proof.findings:
                for repair in finding.repairs if finding.severity != "error" else ():
                    tried += 1
                    after = prove_text(apply_edits(text, repair.edits)).findings
                    assert sum(one.severity == "error" for one in after) <= errors, (path.stem, repair.message)
    assert tried >= 4


@pytest.mark.parametrize(
    "said", ["in last sc made", "in sc just made", "in top of last sc made", "in the last sc worked"]
)
def test_a_picot_is_closed_in_the_stitch_just_made_and_takes_no_place(said: str) -> None:
    row = f"Rnd 2: Ch 1, [sc in next 2 sts, ch 3, sl st {said}] around; join."
    for total, mark in ((80, "proved"), (81, "wrong"), (40, "wrong")):
        assert prove_text(f"{WALL}{row} ({total} sc)").lines[-1].mark == mark


def test_a_chain_that_is_the_first_stitch_is_made_wherever_the_row_says_so() -> None:
    row = WALL + "Rnd 2: Dc in each st around with ch 3 as first dc; join. (80 dc)"
    proof = prove_text(row)
    assert proof.lines[-1].proved and "Rnd 2: Ch 3 (counts as dc), dc in each st around; join." in write(proof.pattern)
    begun = row.replace("Dc in", "Ch 3, dc in")
    assert write(prove_text(begun).pattern) == write(proof.pattern)
    assert not prove_text(begun.replace("Ch 3", "Ch 2")).lines[-1].proved


@pytest.mark.parametrize(
    ("name", "was", "now"),
    [
        ("pasted_perseid_pouch", "Rep Rows 3 and 4", "Rep Rows 2 (3) and 4"),
        ("pasted_market", "Rep Row 2 until", "Rep Row 1 (2, 2) until"),
        ("pasted_titan_tote", "Rep Rnd 7 until", "Rep Rnd 6 (7, 7, 7) until"),
        ("pasted_europa_mesh_string", "Repeat Round 6", "Repeat Round 5 (6, 6)"),
    ],
)
def test_a_size_that_repeats_another_row_than_the_others_is_said(name: str, was: str, now: str) -> None:
    text = (Path(__file__).parents[1] / "corpus" / f"{name}.txt").read_text()
    assert was in text
    changed = text.replace(was, now, 1)
    (found,) = _repeated_otherwise(changed)
    assert found.repairs and not _repeated_otherwise(text)
    assert not _repeated_otherwise(apply_edits(changed, found.repairs[0].edits))


def _repeated_otherwise(text: str) -> list[Finding]:
    return [one for one in prove_text(text).findings if one.code == "size-repeats-otherwise"]


def test_rows_that_a_size_does_not_have_are_no_reason_to_repeat_alike() -> None:
    rows = "Rnd 2: Ch 1, sc in each st around; join.\nSizes M and L only:\nRnd 3: Ch 1, hdc in each st around; join.\n"
    rows += "All sizes:\nRnds 3 (4, 4)-6 (7, 7): Rep Rnd 2 (3, 3).\n"
    assert not _repeated_otherwise(SIZES + rows)


def test_a_place_between_stitches_is_no_stitch() -> None:
    """ "2 dc between next 2 sts" is worked as "2 dc in next sp between sts" is, and printed so."""
    head = (
        HEAD
        + "Section: Base (joined rounds, disc)\nMake an adjustable ring.\nRnd 1: Ch 3 (counts as dc), 11 dc in ring; join. (12 dc)\n"
    )
    between = "Rnd 2: Ch 3, 2 dc between first 2 sts, [2 dc between next 2 sts] 10 times; join."
    for total, mark in ((23, "proved"), (43, "wrong")):
        proof = prove_text(f"{head}{between} ({total} dc)")
        assert proof.lines[-1].mark == mark and "2 dc in next sp between sts" in write(proof.pattern)


@pytest.mark.parametrize("said", ["in FLO", "in front loops only", "working in FLO", "working in front loops only"])
def test_loops_that_are_told_behind_a_stitch_are_its_own(said: str) -> None:
    proof = prove_text(f"{WALL}Rnd 2: Ch 1, sc in each st around, {said}; join. (80 sts)")
    assert proof.lines[-1].proved and "FLO sc in each st around; join." in write(proof.pattern)


def test_a_stitch_that_is_defined_by_itself_is_an_error() -> None:
    proof = prove_text(f"Define: sc = 2 sc in same st\n{WALL}")
    assert "define-form" in [one.code for one in proof.findings] and proof.lines[-1].proved
