"""The trace: every new stitch with the places that it went into, from the engine itself."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.chart import trace_of
from rillstep.core.fabric import Edge, Trace, trace_row, work_row
from rillstep.core.fabric.edge import Place, Run, edge_of
from rillstep.core.fabric.hook import Surroundings
from rillstep.core.notation import parse
from rillstep.core.proof import prove_text
from rillstep.core.tree import Row

ROUND = "Ch 12, join into a ring.\nRnd 1: Sc in each ch around; join.\n"
ROWS = "Ch 13.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\n"


def trace(text: str, line: int, size: int = 0, turn: int = 0) -> Trace:
    found = trace_of(prove_text(text).works[size], line, turn)
    assert found is not None
    return found


def into(found: Trace) -> list[tuple[int, ...]]:
    return [stitch.into for stitch in found.made]


def became(found: Trace) -> str:
    """One letter for each place below: worked, skipped, passed, left."""
    return "".join(place.became[0] for place in found.below)


@pytest.mark.parametrize(
    ("row", "places", "fate"),
    [
        ("Rnd 2: Sc in next 3 sts, leave rem sts unworked.", [(0,), (1,), (2,)], "www" + "l" * 9),
        ("Rnd 2: 2 sc in each of next 2 sts, leave rem sts unworked.", [(0,), (0,), (1,), (1,)], "ww" + "l" * 10),
        ("Rnd 2: Sc2tog, sc3tog, leave rem sts unworked.", [(0, 1), (2, 3, 4)], "wwwww" + "l" * 7),
        ("Rnd 2: Sk 2, dc in next st, leave rem sts unworked.", [(2,)], "ssw" + "l" * 9),
        ("Rnd 2: Sc in next st, ch 3, sk 1, sc in next st, leave rem sts unworked.", [(0,), (), (2,)], "wsw" + "l" * 9),
        ("Rnd 2: (2 dc, ch 1, dc) in next st, leave rem sts unworked.", [(0,), (0,), (), (0,)], "w" + "l" * 11),
        ("Rnd 2: Ch 3 (counts as dc), dc in same st, dc in next st, leave rem sts unworked.", [(0,), (0,), (1,)], "ww" + "l" * 10),
        ("Rnd 2: Sk 1, dc in next st, dc in skipped st, leave rem sts unworked.", [(1,), (0,)], "ww" + "l" * 10),
        ("Rnd 2: Dc3tog in same st, leave rem sts unworked.", [(0,)], "w" + "l" * 11),
        ("Rnd 2: Sc in 3rd st, leave rem sts unworked.", [(2,)], "ssw" + "l" * 9),
        ("Rnd 2: [Sc in next st, sk next st] 2 times, leave rem sts unworked.", [(0,), (2,)], "wsws" + "l" * 8),
        ("Rnd 2: Sc in each st to last 9 sts, leave rem sts unworked.", [(0,), (1,), (2,)], "www" + "l" * 9),
    ],
)  # fmt: skip
def test_where_each_stitch_goes(row: str, places: list[tuple[int, ...]], fate: str) -> None:
    found = trace(ROUND + row, 3)
    assert into(found) == places
    assert became(found) == fate


def test_a_ring_takes_all_of_a_first_round() -> None:
    found = trace("Make an adjustable ring.\nRnd 1: 6 sc in ring; join.", 2)
    assert [place.place.kind for place in found.below] == ["ring"]
    assert into(found) == [(0,)] * 6
    taken_for_granted = trace("Rnd 1: 6 sc in a magic ring.", 1)
    assert into(taken_for_granted) == [(0,)] * 6


def test_spaces_are_passed_and_worked() -> None:
    mesh = ROUND + "Rnd 2: Ch 4 (counts as dc, ch 1), sk 1, *dc in next st, ch 1, sk 1; rep from * around; join.\n"
    found = trace(mesh + "Rnd 3: 2 sc in each ch-1 sp around; join.", 4)
    assert became(found) == "pw" * 6
    assert into(found) == [(at,) for at in range(1, 12, 2) for _ in range(2)]
    both = trace(mesh + "Rnd 3: Sc in each st and 2 sc in each ch-1 sp around; join.", 4)
    assert became(both) == "w" * 12
    assert len(both.made) == 6 + 12


def test_the_underside_of_a_chain_comes_after_its_top() -> None:
    found = trace(
        "Ch 5.\nRnd 1: Sc in 2nd ch from hook, sc in next 2 ch, 3 sc in last ch; rotate, sc in next 2 ch, sc in last ch; join.",
        2,
    )
    assert len(found.below) == 5 + 3
    assert into(found) == [(1,), (2,), (3,), (4,), (4,), (4,), (5,), (6,), (7,)]


def test_row_ends_are_places_too() -> None:
    text = (
        ROWS
        + "Row 2: Ch 1, sc in each st across; do not turn.\nRnd 3: Ch 1, sc in each st across, sc in each row end across."
    )
    found = trace(text, 4)
    assert [place.place.kind for place in found.below[12:]] == ["end", "end"]
    assert into(found)[12:] == [(12,), (13,)]


def test_loops_left_free_are_what_is_below() -> None:
    text = "Section: W\n" + ROUND + "Rnd 2: BLO sc in each st around; join.\nRnd 3: Sc in each st around; join.\n"
    text += "Section: Flap (rows, panel), continue from W\nRow 4: Sc in front loops of Rnd 1; turn."
    found = trace(text, 7)
    assert into(found) == [(at,) for at in range(12, 24)]


def test_the_round_of_a_range_is_chosen() -> None:
    text = ROUND + "Rnds 2-4: 2 sc in next st, sc in each st around; join."
    assert [len(trace(text, 3, turn=turn).below) for turn in (0, 1, 2)] == [12, 13, 14]
    assert len(trace(text, 3, turn=99).below) == 14  # the last one


def test_trouble_stops_the_trace_where_it_happens() -> None:
    short = trace(ROUND + "Rnd 2: Sc in next 10 sts, 2 sc in each of next 3 sts; join.", 3)
    assert short.work.trouble is not None and short.work.trouble.missing == 1
    assert short.ahead is None
    wrong = trace(ROUND + "Rnd 2: Sc in next 4 sts, sc in next ch-2 sp; join.", 3)
    assert wrong.work.trouble is not None
    over = trace(ROUND + "Rnd 2: Sc in next 4 sts; join.", 3)
    assert over.ahead == 4
    assert became(over) == "wwww" + "l" * 8


def test_a_line_that_is_not_worked_has_no_trace() -> None:
    proof = prove_text("Sizes: S, M\n" + ROUND + "Size S only:\nRnd 2: Sc in each st around; join.")
    assert trace_of(proof.works[1], 5) is None
    assert trace_of(proof.works[0], 1) is None
    assert trace_of(proof.works[0], 99) is None


def test_an_edge_that_is_too_long_is_refused() -> None:
    row = parse("Rnd 2: Sc in each st around; join.").pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    edge = Edge((Run(Place("st", "sc"), 7_000),), closed=True)
    with pytest.raises(ValueError, match="4,000"):
        trace_row(row, 0, edge, Surroundings())


STEPS = st.lists(
    st.sampled_from(
        ["sc in next st", "2 sc in next st", "sc2tog", "sk next st", "ch 2", "sc in next 3 sts", "sc in next sp",
         "(dc, ch 1, dc) in next st", "[sc in next st, ch 1] 2 times", "sc in same st", "puff in next st"]
    ),
    min_size=1, max_size=5,
)  # fmt: skip
EDGES = st.lists(st.tuples(st.booleans(), st.integers(1, 6)), min_size=1, max_size=4)


@given(STEPS, EDGES)
@settings(max_examples=133, deadline=None)
def test_tracing_never_changes_the_work(steps: list[str], places: list[tuple[bool, int]]) -> None:
    row = parse(f"Rnd 2: {', '.join(steps)}; join.").pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    edge = edge_of([Run(Place("sp", length=2) if space else Place("st", "sc"), n) for space, n in places], False)
    plain, found = work_row(row, 0, edge), trace_row(row, 0, edge, Surroundings())
    assert found.work.trouble == plain.trouble
    assert found.work.counts == plain.counts
    assert found.work.steps == plain.steps
    assert len(found.below) == sum(n for _, n in places)
    firsts = [stitch.into[0] for stitch in found.made if stitch.into]
    assert firsts == sorted(firsts)  # nothing here goes back
