"""The nearest base: another foundation chain, with the straight runs and totals that follow from it."""

from rillstep.core.findings import apply_edits
from rillstep.core.proof import prove_text

OVAL = (
    "Sizes: S, M\nSection: Oval base (joined rounds, oval)\nCh 13 (16).\n"
    "Rnd 1: Sc in 2nd ch from hook, sc in next 10 (13) ch, 3 sc in last ch; rotate, sc in next 10 (13) ch, 2 sc in last ch; join. — 26 (32) sts\n"
    "Rnd 2: Ch 1, 2 sc in same st, sc in next 10 (13) sts, 2 sc in each of next 3 sts, sc in next 10 (13) sts, 2 sc in each of next 2 sts; join. — 32 (38) sts\n"
    "Section: Wall (joined rounds, wall), continue from Oval base\nRnds 1-4: Ch 1, sc in each st around; join. — 32 (38) sts\n{handles}"
    "Rnd {n}: Ch 1, [sc in next st, sk 2, 5 dc in next st, sk 2] around; join."
)  # fmt: skip
OPENINGS = (
    "Rnd 5: Ch 1, sc in next 9 (11) sts, ch 9, sk 7 (8) sts, sc in next 9 (11) sts, ch 9, sk 7 (8) sts; join.\n"
    "Rnd 6: Ch 1, sc in each st and ch around; join.\n"
)


def test_an_oval_base_that_would_make_the_trim_true() -> None:
    """26 + 6 stitches are 2 over 30, and each chain more or less makes 2 stitches: 12 chains make 30, 15 make 36."""
    text = OVAL.format(handles="", n=5)
    findings = [f for f in prove_text(text).findings if f.severity == "error"]
    assert [(f.code, f.size) for f in findings] == [("repeat-uneven", 0), ("repeat-uneven", 1)]
    for finding, chains in zip(findings, ((12, 15), (15, 18)), strict=True):
        bases = [r for r in finding.repairs if "to begin with" in r.message]
        assert [int(r.message.split()[1]) for r in bases] == list(chains)
        for repair in bases:
            mended = prove_text(apply_edits(text, repair.edits))
            assert {f.size for f in mended.findings if f.severity == "error"} == {0, 1} - {finding.size}


def test_a_round_with_handles_goes_with_the_base() -> None:
    """40 stitches are 4 over 36. With two chains less the runs of 11 between the handles become 9, with one more 12; the openings stay."""
    text = OVAL.format(handles=OPENINGS, n=7)
    (finding,) = [f for f in prove_text(text).findings if f.severity == "error"]
    bases = [r for r in finding.repairs if "to begin with" in r.message]
    assert [int(r.message.split()[1]) for r in bases] == [14, 17]
    for repair, run in zip(bases, (9, 12), strict=True):
        mended = apply_edits(text, repair.edits)
        assert prove_text(mended).ok
        handles = next(line for line in mended.split("\n") if line.startswith("Rnd 5"))
        assert handles.count("ch 9, sk 7 (8) sts") == 2
        assert handles.count(f"sc in next 9 ({run}) sts") == 2


def test_no_base_is_offered_where_a_row_cannot_follow() -> None:
    text = OVAL.format(handles="Rnd 5: Ch 1, [sc in next 8 sts] 4 times, sc in next 0 (6) sts; join.\n", n=6)
    finding = next(f for f in prove_text(text).findings if f.severity == "error" and f.size == 0)
    assert not [r for r in finding.repairs if "to begin with" in r.message]
