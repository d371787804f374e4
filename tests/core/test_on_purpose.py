"""Repeats that are uneven on purpose, and stitches around bars on the surface."""

import pytest

from rillstep.core.proof import prove_text, reader_text

RING = "Ch 54, join into a ring.\nRnd 1: Ch 1, sc in each ch around; join. (54)\n"


def errors(text: str) -> list[str]:
    return [f.code for f in prove_text(text).findings if f.severity == "error"]


@pytest.mark.parametrize(
    ("row", "sts"),
    [
        ("[Sc in next 6 sts, 2 sc in next st] around; ends 2 sts short, on purpose; join. (61)", 61),
        ("*Sc in next 6 sts, 2 sc in next st; rep from * around, ending 2 sts short on purpose; join. (61)", 61),
        ("[2 sc in next st, sc in next 6 sts] around, ends 2 sts short, by design; join. (62)", 62),
        ("[Sc in next 3 sts, sc2tog] around; ends 1 st short, on purpose; join. (44)", None),
        ("[Sc in next 2 sts, sk next st, sc in next st] around; ends 2 sts short, on purpose; join. (41)", 41),
    ],
)
def test_a_last_repeat_may_be_uneven_on_purpose(row: str, sts: int | None) -> None:
    proof = prove_text(f"{RING}Rnd 2: {row}")
    if sts is None:
        assert errors(f"{RING}Rnd 2: {row}")  # it would end within a decrease
        return
    assert proof.ok and proof.lines[-1].sts == (sts,)
    printed = reader_text(proof.pattern, "US")
    assert printed.ok and "short" in printed.text


@pytest.mark.parametrize(
    ("row", "code"),
    [
        ("[Sc in next 6 sts, 2 sc in next st] around; ends 2 sts short; join.", "not-understood"),
        ("[Sc in next 6 sts, 2 sc in next st] around; ends 3 sts short, on purpose; join.", "repeat-uneven"),
        ("[Sc in next 6 sts, 2 sc in next st] around; join.", "repeat-uneven"),
        ("Sc in each st around; ends 2 sts short, on purpose; join.", "not-understood"),
        ("[Sc in next 6 sts, 2 sc in next st] around; ends 9 sts short, on purpose; join.", "not-understood"),
    ],
)
def test_what_is_not_meant_so_or_does_not_come_out_is_said(row: str, code: str) -> None:
    assert errors(f"{RING}Rnd 2: {row}") == [code]


BODY = f"Body\n{RING}Rnds 2-8: Ch 1, sc in each st around; join. (54)\nStrap (rows)\n"


def test_a_strap_begins_around_bars_on_the_surface() -> None:
    text = f"{BODY}Row 1: Join yarn, ch 1, sc around the next 3 bars of Rnd 6, beside the marker; turn. (3 sts)\n"
    proof = prove_text(text + "Rows 2-20: Ch 1, sc in each st across; turn. (3)")
    assert proof.ok and [line.mark for line in proof.lines][-2:] == ["proved", "proved"]
    printed = reader_text(proof.pattern, "US")
    assert printed.ok and "3 bars of Rnd 6" in printed.text and "beside the marker" in printed.text


@pytest.mark.parametrize(
    ("row", "code"), [("next 3 bars of Rnd 9", "no-such-place"), ("next 60 bars of Rnd 6", "runs-out")]
)
def test_bars_that_are_not_there_are_said(row: str, code: str) -> None:
    assert errors(f"{BODY}Row 1: Ch 1, sc around {row}; turn.") == [code]
