"""Counts to centimetres, yarn, cautions: against numbers worked out by hand."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from rillstep.core.cautions import cautions_for
from rillstep.core.craft import STITCHES, abbreviation, full_name, stitch_words
from rillstep.core.gauge import Gauge, gauge_from_counts, gauge_from_swatch
from rillstep.core.lengths import in_units, show_difference, show_length
from rillstep.core.measures.profile import oval_flatness
from rillstep.core.measures.straps import drop_of, handle_length_mm
from rillstep.core.proof import prove_text
from tests.examples import MESH_TOTE, hdc_gauge


def test_gauge_is_rounded_once_as_it_is_printed() -> None:
    gauge = gauge_from_swatch("hdc", 23, 17, 153, 148, "cm")
    assert gauge.per_span("cm") == (15.03, 11.49)
    again = gauge_from_counts("hdc", 15.03, 11.49, 100)
    assert again == gauge
    inches = gauge_from_swatch("sc", 20, 24, 127, 127, "in")
    assert inches.per_span("in") == (16.0, 19.2)
    assert inches.width_mm == pytest.approx(101.6 / 16)


def test_flatness_of_an_oval_by_hand() -> None:
    gauge = Gauge("sc", 5.0, 5.0)
    # 2 rounds, straight side of 10: outline 2*10*5 + 2*pi*10 = 162.8 mm; 32 stitches are 160 mm.
    assert oval_flatness(32, 2 * gauge.height_mm, 10, gauge.width_mm) == pytest.approx(160 / 162.83, abs=1e-3)
    # a disc in hdc lies flat with 2 pi h / w increases a round
    hdc = hdc_gauge()
    increases = 2 * math.pi * hdc.height_mm / hdc.width_mm
    assert oval_flatness(round(100 * increases), 100 * hdc.height_mm, 0, hdc.width_mm) == pytest.approx(1.0, abs=1e-3)
    assert round(increases) == 8


@given(st.floats(60, 400), st.floats(20, 200), st.floats(0, 60))
def test_handle_length_and_drop_are_inverse(drop: float, gap: float, allowance: float) -> None:
    gauge = Gauge("hdc", 1.0, 1.0)
    worked = handle_length_mm(drop, gap, allowance)
    assert worked * 1.05 == pytest.approx(2 * math.hypot(drop, gap / 2) + allowance)
    chains, skip = round(worked), round(gap)
    assert drop_of(chains, skip, gauge, allowance) == pytest.approx(drop, abs=2.5)


def test_a_handle_pulled_tight_has_no_drop() -> None:
    assert drop_of(10, 20, hdc_gauge()) == 0.0


def test_the_mesh_tote_measures_by_hand() -> None:
    proof = prove_text(MESH_TOTE)
    assert proof.shapes is not None
    small = proof.shapes[0]
    # Base in sc, estimated from the hdc swatch: 2 rounds of 8.70 * 1.0/1.5 mm; straight side 10 of 6.67 mm.
    assert small.straight_mm == pytest.approx(10 * 100 / 15)
    assert [round(r.height_mm, 2) for r in small.rounds[:2]] == [5.8, 5.8]
    assert small.openings[0].skip == 7
    assert len([r for r in small.rounds if r.flatness is None]) == 10


def test_scaling_the_gauge_scales_the_centimetres() -> None:
    once = prove_text(MESH_TOTE).shapes
    twice = prove_text(MESH_TOTE.replace("= 10 cm", "= 20 cm")).shapes
    assert once is not None
    assert twice is not None
    for a, b in zip(once, twice, strict=True):
        assert b.width_mm == pytest.approx(2 * a.width_mm)
        assert b.height_mm == pytest.approx(2 * a.height_mm)
        assert [r.flatness for r in a.rounds] == pytest.approx([r.flatness for r in b.rounds])


def test_lengths_for_readers() -> None:
    assert show_length(240, "cm") == "24.0 cm"
    assert show_length(254, "in") == "10.0 in"
    assert show_difference(-3, "cm") == "−0.3 cm"
    assert show_difference(0.2, "cm") == "0.0 cm"
    assert in_units(128, "in") == 5.0


def test_the_same_word_means_different_stitches() -> None:
    assert stitch_words("US")["dc"] == "dc"
    assert stitch_words("UK")["dc"] == "sc"
    for stitch in STITCHES:
        assert stitch_words("UK").get(abbreviation(stitch.us, "UK"), stitch.us) == stitch.us
    assert full_name("hdc", "UK") == "half treble crochet"


def test_cautions_apply_where_they_apply() -> None:
    codes = {c.code for c in cautions_for("cotton", 120)}
    assert "melting" not in codes
    assert "long-strap" not in codes
    assert "carrying" in codes
    assert {"melting", "long-strap"} <= {c.code for c in cautions_for("100 % Acrylic", 300)}
