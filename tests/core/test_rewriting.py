"""Two ways of writing the same: both are read as one tree."""

import pytest

from rillstep.core.notation import parse
from rillstep.core.printing import write
from rillstep.core.proof import prove_text
from rillstep.core.tree import Closing, Row

RING = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join.\n"

ALIKE = [
    ("*Sc in next 3 sts**, ch 2, sk 3; rep from * around, ending last rep at **.", "Sc in next 3 sts, [ch 2, sk 3, sc in next 3 sts] around."),
    ("*2 sc in next st**, sc in next 2 sts; rep from * 4 times, ending at **.", "2 sc in next st, [sc in next 2 sts, 2 sc in next st] 4 times."),
    ("[Sc in next 4 sts, ch 1, sk 1] around, sc in next 4 sts.", "[Sc in next 4 sts, ch 1, sk 1] to last 4 sts, sc in next 4 sts."),
    ("(Ch 3, 2 dc, ch 2, 3 dc) in same sp, sc in each st around.", "Ch 3, (2 dc, ch 2, 3 dc) in same sp, sc in each st around."),
    ("In next st work (sc, hdc, dc), sk next 2 sts.", "(Sc, hdc, dc) in next st, sk next 2 sts."), ("In next ch-2 sp, 3 sc.", "3 sc in next ch-2 sp."),
    ("Sc in next 3 sts (buttonhole made), sc in next st.", "Sc in next 3 sts, sc in next st."), ("Ch 30 for the handle, sk 6.", "Ch 30, sk 6."),
    ("Work even: sc in each st around.", "Sc in each st around."), ("1 sc per st around.", "Sc in each st around."), ("Sl st to next ch-2 sp, ch 1, sc in same sp.", "Sl st in next ch-2 sp, ch 1, sc in same sp."),
    ("Ch3 (counts as 1dc), 1dc in next st.", "Ch 3 (counts as dc), dc in next st."), ("Ch 2 - counts as first hdc - hdc in next st.", "Ch 2 (counts as hdc), hdc in next st."),
    ("Attach yarn B to first st, sc in each st around.", "Join yarn B in first st, sc in each st around."), ("Sc in ea. of next 3 sts.", "Sc in each of next 3 sts."),
    ("Sc in each st around, working (sc, ch 2, sc) in each ch-2 sp around.", "Sc in each st and (sc, ch 2, sc) in each ch-2 sp around."),
    ("Working in the unused loops of Rnd 1, sc in each st around.", "Sc in unused loops of Rnd 1."), ("Sc in centre of next ch-5 loop.", "Sc in next ch-5 sp."), ("Sc in 3rd ch of next ch-5 loop.", "Sc in next ch-5 sp."),
    ("Leave the last 4 sts unworked.", "Leave rem 4 sts unworked."), ("Sc in next st (leaving 3 sts unworked).", "Sc in next st, leave rem 3 sts unworked."),
    ("Rotate work 180 degrees, sc in next st.", "Rotate, sc in next st."), ("Turn work to continue along the other side of the chain, sc in next st.", "Rotate, sc in next st."),
    ("Slip stitch across first 4 sts, ch 1, sc in same st.", "Sl st in next 4 sts, ch 1, sc in same st."), ("Sc in BLO across to last st.", "BLO sc in each st to last st."),
]  # fmt: skip


def row(text: str) -> Row:
    parsed = parse(RING + f"Rnd 2: {text}")
    assert parsed.findings == (), [f.message for f in parsed.findings]
    line = parsed.pattern.sections[0].lines[-1]
    assert isinstance(line, Row)
    return line


@pytest.mark.parametrize(("loose", "plain"), ALIKE, ids=[loose[:50] for loose, _ in ALIKE])
def test_loose_and_plain_are_one(loose: str, plain: str) -> None:
    assert row(loose).steps == row(plain).steps


@pytest.mark.parametrize("plain", [plain for _, plain in ALIKE], ids=[plain[:50] for _, plain in ALIKE])
def test_the_plain_form_is_written_and_read_back(plain: str) -> None:
    pattern = parse(RING + f"Rnd 2: {plain}").pattern
    for terms in ("US", "UK"):
        assert parse(write(pattern, terms)).pattern == pattern  # type: ignore[arg-type]


# --- rounds closed by a stitch

LOOPS = (
    RING
    + "Rnd 2: Ch 1, sc in first st, *ch 5, sk next 2 sts, sc in next st; rep from * to last 2 sts, ch 2, sk last 2 sts, {close}.\n"
)
CLOSINGS = [
    ("dc in first sc (counts as last ch-5 sp)", 5),
    ("dc in first sc", 5),
    ("hdc in first sc", 4),
    ("tr in first sc (counts as ch-6 loop)", 6),
    ("dc in first sc to join", 5),
]


@pytest.mark.parametrize(("close", "length"), CLOSINGS)
def test_the_last_loop_is_closed_by_a_stitch_and_the_next_round_begins_in_it(close: str, length: int) -> None:
    text = (
        LOOPS.format(close=close)
        + "Rnd 3: Ch 1, sc in same sp, *ch 5, sc in next sp; rep from * around, ch 2, dc in first sc (counts as ch-5 sp). — 8 sts, 8 ch-5 sps\n"
    )
    text += "Rnd 4: Ch 1, 3 sc in same sp, 3 sc in each ch-5 sp around; join. — 24 sts\n"
    proof = prove_text(text)
    assert [f.message for f in proof.findings if f.severity == "error"] == []
    assert dict(proof.works[0].lines[2].rounds[0].spaces).get(length, 0) >= 1
    closing = next(step for step in proof.works[0].lines[2].steps if isinstance(step, Closing))
    assert closing.space.at(0) == length
    assert parse(write(proof.pattern)).pattern == proof.pattern
    assert f"in first st to close (counts as ch-{length} sp)" in write(proof.pattern)


def test_a_last_repeat_is_held_to_what_follows_it() -> None:
    ends = prove_text(
        RING + "Rnd 2: [Sc in next 4 sts, ch 1, sk 1] around, sc in next 4 sts; join. — 20 sts, 4 ch-1 sps"
    )
    assert ends.ok
    wrong = prove_text(RING + "Rnd 2: [Sc in next 4 sts, ch 1, sk 1] around, sc in next 3 sts; join.")
    assert [f.code for f in wrong.findings if f.severity == "error"] == ["repeat-uneven"]


@pytest.mark.parametrize(("said", "found"), [(5, True), (6, False)])
def test_a_number_left_unworked_is_held_to(said: int, found: bool) -> None:
    text = f"Ch 21.\nRow 1: Sc in 2nd ch from hook, sc in next 13 ch, leave rem {said} ch unworked; turn."
    errors = [f.code for f in prove_text(text).findings if f.severity == "error"]
    assert errors == (["unworked-differs"] if found else [])


def test_a_starting_chain_may_begin_a_stitch_of_the_patterns_own() -> None:
    text = (
        "Define: V-st = (dc, ch 1, dc) in same st\n"
        + RING
        + "Rnd 2: {begin}, sk 2 sts, *V-st in next st, sk 2 sts; rep from * around; join. — 8 V-st\nRnd 3: 3 dc in each V-st around; join. — 24 sts"
    )
    for begin in ("Ch 3 (counts as dc), (ch 1, dc) in same st", "Ch 4 (counts as dc, ch 1), dc in same st"):
        assert [f.message for f in prove_text(text.format(begin=begin)).findings if f.severity == "error"] == []


def test_stitches_passed_on_the_way_to_the_first_loop_come_last() -> None:
    loops = RING + "Rnd 2: [Sc in next st, ch 5, sk 2] around; join. — 8 sts, 8 ch-5 sps\n"
    assert prove_text(loops + "Rnd 3: [4 sc in next ch-5 sp, sc in next st] around; join. — 40 sts").ok
    assert prove_text(loops + "Rnd 3: [4 sc in next ch-5 sp] around; join. — 32 sts").ok
