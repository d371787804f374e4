"""The exact solve: true lines in every size, nearest numbers, reasons where something stands against them."""

import pytest
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from rillstep.core.gauge import Gauge, gauge_from_counts
from rillstep.core.printing import write
from rillstep.core.proof import prove_text, reprint
from rillstep.core.tree import Next, Row, Work
from rillstep.core.tree.features import openings_of
from rillstep.document.version1.named_tote import named_tote
from rillstep.document.version1.plan import SizeTarget, TotePlan
from rillstep.document.version1.solve import Graded, extra_fits, grade, ideals
from rillstep.document.version1.tote import spread, tote_pattern
from tests.examples import four_sizes, plan


def size(name: str = "One", **changes: object) -> SizeTarget:
    usual = {"width_mm": 290.0, "height_mm": 300.0, "depth_mm": 85.0, "drop_mm": 140.0}
    return SizeTarget(name, **{**usual, **changes})  # type: ignore[arg-type]


@st.composite
def plans(draw: st.DrawFn) -> TotePlan:
    stitch = draw(st.sampled_from(["sc", "hdc", "dc"]))
    across = draw(st.integers(800, 3000)) / 100
    ratio = draw(st.floats({"sc": 0.7, "hdc": 1.0, "dc": 1.5}[stitch], {"sc": 1.2, "hdc": 1.6, "dc": 2.4}[stitch]))
    gauge = gauge_from_counts(stitch, across, round(across / ratio, 2), 100.0)
    return TotePlan(
        gauge, draw(st.sampled_from(["joined", "spiral"])), draw(st.booleans()), draw(st.sampled_from(["stacked", "shifted"])),
        draw(st.sampled_from(["plain", "back loops"])), draw(st.integers(0, 4)), draw(st.integers(1, 3)),
        draw(st.sampled_from([1, 1, 2, 3, 4, 6])), draw(st.sampled_from([0.3, 0.4, 0.5])), draw(st.sampled_from([0.0, 40.0])),
    )  # fmt: skip


@st.composite
def targets(draw: st.DrawFn) -> tuple[SizeTarget, ...]:
    count = draw(st.integers(1, 5))
    return tuple(
        SizeTarget(
            f"Size {n}", draw(st.floats(150, 600)), draw(st.floats(120, 600)), draw(st.floats(20, 200)), draw(st.floats(60, 350)),
            locks=draw(st.sampled_from([{}, {}, {}, {"side": 12}, {"base_rounds": 4}, {"wall_rounds": 30}, {"around": 96}])),
        )
        for n in range(count)
    )  # fmt: skip


def assert_reasoned(plan: TotePlan, graded: Graded) -> None:
    """Within half a stitch or row of the target, or the reason is given."""
    for index, one in enumerate(graded.sizes):
        wanted = ideals(plan, one.target, one.counts)
        told = {name for name, _ in one.because}
        told |= set(one.target.locks)
        told |= {note.field for note in graded.notes if note.size == index}
        if one.target.locks.keys() & {"side", "base_rounds", "around", "extra"}:
            told |= {"around", "base_rounds"}
        for name in ("around", "base_rounds", "wall_rounds", "handle_chain"):
            half = 1.0 if name == "around" else 0.5  # half a stitch of the front is one of the round
            off = abs(getattr(one.counts, name) - wanted[name])
            assert off <= half + 1e-6 or name in told, (name, off, one)


@given(plans(), targets())
@settings(max_examples=50, deadline=None, suppress_health_check=[HealthCheck.too_slow])
def test_any_gauge_and_targets(plan: TotePlan, targets: tuple[SizeTarget, ...]) -> None:
    graded = grade(plan, targets)
    pattern = tote_pattern("Any tote", plan, graded, "cm")
    printed = reprint(pattern, "US")
    errors = [f for f in printed.proof.findings if f.severity == "error"]
    assert printed.ok, errors
    assert printed.problems == ()
    assert_reasoned(plan, graded)
    for index, one in enumerate(graded.sizes):
        assert one.counts.around % plan.wall_multiple == 0
        openings = next(
            openings_of(w.steps, index)
            for w in printed.proof.works[index].lines
            if isinstance(w.line, Row) and openings_of(w.steps, index)
        )
        first, second = openings
        assert (first.skip, first.chain) == (second.skip, second.chain)
        assert second.centre - first.centre == one.counts.around / 2
        # ... and each stands over the middle of its long side of the base
        assert first.centre == one.counts.begin * one.counts.base_rounds + (one.counts.side + one.counts.extra) / 2
        shape = (printed.proof.shapes or ())[index]
        assert shape.width_mm == pytest.approx(one.width_mm)
        assert shape.height_mm == pytest.approx(one.height_mm)
        assert shape.base_depth_mm == pytest.approx(one.depth_mm)


@settings(deadline=None, max_examples=25, suppress_health_check=[HealthCheck.too_slow])
@given(plans(), targets())
def test_a_text_with_names_says_what_the_plain_one_says(plan: TotePlan, targets: tuple[SizeTarget, ...]) -> None:
    graded = grade(plan, targets)
    text = named_tote("T", plan, graded, "cm", ())
    assume(text is not None and "Size 0" in text)
    assert text is not None
    proofs = [prove_text(one) for one in (text, write(tote_pattern("T", plan, graded, "cm"), "US"))]
    named, plain = ([[c for line in work.lines for c in line.rounds] for work in proof.works] for proof in proofs)
    assert named == plain
    assert [f.code for f in proofs[0].findings if f.severity == "error"] == []


def test_a_size_whose_handles_begin_its_round_leaves_the_text_without_names() -> None:
    """Its round is a line of its own, so that the numbers of the handles are not those of all sizes."""
    wanted = TotePlan(
        gauge_from_counts("hdc", 20.52, 13.04, 100.0), "joined", False, "stacked", "plain", 0, 2, 1, 0.4, 0.0
    )
    sizes = (size("Size 0", width_mm=150, height_mm=295, depth_mm=25, drop_mm=132),
             size("Size 2", width_mm=150, height_mm=120, depth_mm=90, drop_mm=60))  # fmt: skip
    graded = grade(wanted, sizes)
    lines = write(tote_pattern("T", wanted, graded, "cm"), "US").split("\n")
    assert sum(", sk next" in line for line in lines) == 2
    assert named_tote("T", wanted, graded, "cm", ()) is None


@given(st.floats(150, 500), st.floats(30, 180), st.sampled_from([1, 4, 6]))
@settings(max_examples=50, deadline=None)
def test_no_other_numbers_come_closer(width: float, depth: float, multiple: int) -> None:
    """The referee of the solver: try everything."""
    wanted = plan(wall_multiple=multiple)
    one = grade(wanted, (size(width_mm=width, depth_mm=depth),)).sizes[0]
    ideal_half = width / wanted.gauge.width_mm
    ideal_rounds = depth / (2 * wanted.gauge.height_mm)

    def cost(half: int, rounds: int) -> float:
        return (half - ideal_half) ** 2 + (rounds - ideal_rounds) ** 2

    best = min(
        cost(half, rounds)
        for rounds in range(1, 16)
        for half in range(wanted.wedges * rounds + 1, 140)
        if 2 * half % multiple == 0
    )
    assert cost(one.counts.half, one.counts.base_rounds) == pytest.approx(best)


@pytest.mark.parametrize(
    ("name", "value"),
    [("side", 20), ("base_rounds", 3), ("around", 96), ("wall_rounds", 31), ("handle_skip", 15), ("handle_chain", 60)],
)
def test_a_lock_holds_and_the_rest_is_solved_again(name: str, value: int) -> None:
    graded = grade(plan(), (size(locks={name: value}),))
    assert graded.notes == () or all(note.code == "outside-tolerance" for note in graded.notes)
    assert getattr(graded.sizes[0].counts, name) == value
    assert reprint(tote_pattern("T", plan(), graded, "cm"), "US").ok


@pytest.mark.parametrize(
    ("name", "value"), [("around", 87), ("handle_skip", 900), ("handle_chain", 3), ("wall_rounds", 1), ("around", 6)]
)
def test_a_lock_that_cannot_hold_is_named_and_the_rest_still_solved(name: str, value: int) -> None:
    graded = grade(plan(), (size(locks={name: value}), size("Two")))
    assert [(n.code, n.size, n.field) for n in graded.notes] == [("lock-impossible", 0, name)]
    assert str(value) in graded.notes[0].message
    assert graded.sizes[0].counts == graded.sizes[1].counts
    assert reprint(tote_pattern("T", plan(), graded, "cm"), "US").ok


def test_extra_increases_make_the_multiple_when_the_side_is_locked() -> None:
    graded = grade(plan(wall_multiple=6), (size(locks={"side": 20}),))
    counts = graded.sizes[0].counts
    assert counts.extra > 0
    assert counts.around % 6 == 0
    pattern = tote_pattern("T", plan(wall_multiple=6), graded, "cm")
    assert reprint(pattern, "UK").ok
    assert "2 hdc in next st" in reprint(pattern, "US").text.split("Section: Wall")[1]


@given(st.integers(1, 60), st.integers(0, 12))
def test_extra_increases_are_spread_evenly_and_symmetrically(side: int, extra: int) -> None:
    assume(extra_fits(side, extra))
    steps = spread(side, extra, "sc")
    gaps = [0]
    for step in steps:
        assert isinstance(step, Work)
        assert isinstance(step.into, Next)
        if step.per.at(0) == 2:
            gaps.append(0)
        else:
            gaps[-1] += step.into.count.at(0)
    assert gaps == gaps[::-1]
    assert sum(gaps) + extra == side
    assert len(gaps) == extra + 1
    assert max(gaps) - min(gaps) <= 2


def test_a_width_smaller_than_the_base_can_be() -> None:
    graded = grade(plan(), (size(width_mm=60, depth_mm=160),))
    assert reprint(tote_pattern("T", plan(), graded, "cm"), "US").ok
    fields = {note.field for note in graded.notes}
    assert fields & {"width", "depth"}
    assert any("stitches" in note.message or "rounds" in note.message for note in graded.notes)


def test_wider_stitches_make_fewer_of_them() -> None:
    narrow = grade(plan(), four_sizes()).sizes
    wide = grade(plan(gauge=Gauge("hdc", 9.0, 8.7)), four_sizes()).sizes
    assert all(w.counts.around < n.counts.around for w, n in zip(wide, narrow, strict=True))
