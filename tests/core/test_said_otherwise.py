"""Each way of saying a thing beside the usual one: the counts that it makes, and that another total is refuted."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from tests.core.wordings.otherwise import RING, SAID


def test_a_row_is_called_by_its_own_number_in_every_size() -> None:
    text = SAID["a row called by the number of the first size"][0]
    assert "Rep Rnd 4 (6)" in write(prove_text(text).pattern)


def test_a_set_says_itself_which_row_is_meant() -> None:
    text = SAID["a row called by the number of the first size"][0].replace("Rep Rnd 4", "Rep Rnd 4 (5)")
    assert "Rep Rnd 4 (5)" in write(prove_text(text).pattern)


def test_a_row_of_an_earlier_section_is_called_by_the_first_of_the_sizes_that_repeat_it() -> None:
    text = (
        "Sizes: S, M, L\nSection: Base (joined rounds, disc)\n" + RING
        + "Rnds 2-3 (2-4, 2-5): Ch 1, sc in each st around; join. (24)\n"
        "Rnd 4 (5, 6): Ch 1, 2 sc in first st, sc in each st around; join. (25)\n"
        "Section: Body (joined rounds, wall) continues Base\n"
        "Rnd 5 (6, 7): Ch 1, sc in each st around; join. (25)\n"
        "M, L only: Rnd 7 (8): Rep Rnd 5. (26)\n"
    )  # fmt: skip
    proof = prove_text(text)
    assert proof.ok, proof.findings
    assert "Rep Rnd 5 (6)" in write(proof.pattern)
    assert [line.sts for line in proof.lines][-1] == (None, 26, 26)


def test_a_part_of_a_crochet_along_goes_on_from_what_it_states() -> None:
    text = (
        "Sizes: 1, 2\nFlap\nWith RS facing, join yarn in the 5th (6th) st from the seam.\n"
        "Row 1: Ch 1, sc in same st and in next 19 (23) sts, turn. (20 (24))\nRow 2: Ch 1, sc in each st across, turn. (20 (25))"
    )
    proof = prove_text(text)
    assert [(f.code, f.size) for f in proof.findings] == [("edge-not-counted", None), ("total-differs", 1)]
    assert "on a piece of another part" in write(proof.pattern)


def test_a_part_that_does_not_say_that_it_is_joined_has_no_stitches_to_work_into() -> None:
    proof = prove_text("Flap\nRow 1: Ch 1, sc in next 20 sts, turn. (20)")
    assert "runs-out" in {f.code for f in proof.findings}


def test_a_gauge_without_a_stitch_is_in_the_one_that_is_mostly_worked() -> None:
    body = "\nCh 24, join into a ring.\nRnd 1: Hdc in each ch around; join.\nRnd 2: Sc in each st around; join.\nRnd 3: Hdc in each st around; join."
    for told in ("16 sts and 18 rows = 10 cm", '4 sts and 5 rows = 1"', "16 stitches by 18 rows to 10 cm in pattern"):
        gauge = parse(f"Gauge: {told}{body}").pattern.gauges[0]
        assert gauge.stitch == "hdc"
    assert parse(f"Gauge: sc 16 sts x 18 rows = 10 cm{body}").pattern.gauges[0].stitch == "sc"


@pytest.mark.parametrize(
    ("line", "kept"),
    [
        ("Continue increasing 4 sts every 3rd rnd until you have 40 sts.", True),
        ("Button loop: Join yarn in first st, ch 8, sl st in same st. Fasten off.", False),
        ("Sew the end of the strap to the 7 sts opposite, 21 sts from each side.", False),
        ("Ch 1, sc evenly all around the piece, working 3 sc in each corner.", True),
    ],
)
def test_what_is_kept_as_words_is_said_where_something_hangs_on_it(line: str, kept: bool) -> None:
    codes = {f.code for f in prove_text(RING + line).findings}
    assert ("not-worked" in codes) == kept and "not-understood" not in codes


@pytest.mark.parametrize(
    ("rows", "stitch"),
    [
        ("Rnd 2: FPdc around each st around; join.\nRnd 3: FPdc around each st around; join.", "dc"),
        ("Rnd 2: [V in next st, sk next st] around; join.\nRnd 3: V in each V around; join.", "dc"),
        ("Rnd 2: FPsc around each st around; join.\nRnd 3: FPsc around each st around; join.", "sc"),
    ],
)
def test_a_gauge_without_a_stitch_is_of_a_plain_one(rows: str, stitch: str) -> None:
    text = f"Gauge: 16 sts and 18 rows = 10 cm\nDefine: V = (dc, ch 1, dc) in same st\nCh 24, join into a ring.\nRnd 1: Dc in each ch around; join.\n{rows}"
    assert prove_text(text).pattern.gauges[0].stitch == stitch


def test_a_chain_that_counts_as_a_stitch_kept_in_words_is_answered() -> None:
    text = (
        "Special stitches:\nBlob: yarn over, pull up a loop, yarn over, pull through\n\nCh 24, join into a ring.\nRnd 1: Dc in each ch around; join.\n"
        "Rnd 2: Ch 3, dc in same st (counts as first Blob), Blob in each st around; join."
    )
    assert prove_text(text).lines
