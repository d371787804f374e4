"""The engine that counts runs agrees with the referee that walks every stitch."""

from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.fabric import Edge, Place, Run, work_pattern, work_row
from rillstep.core.notation import parse
from rillstep.core.tree import Row
from tests.core import fuzz
from tests.core.referee import unrolled, walk
from tests.examples import MESH_TOTE, totes

PLACES = st.one_of(
    st.tuples(st.just("st"), st.just(0), st.integers(1, 9)),
    st.tuples(st.just("sp"), st.integers(1, 5), st.integers(1, 2)),
)
STEPS = st.sampled_from(
    [
        "sc in next {n} sts", "hdc in next st", "2 sc in next st", "2 dc in each of next {n} sts", "sk next st",
        "sk next {n} sts", "ch {n}", "sc in next sp", "sc in each of next {n} ch", "sc2tog", "dc3tog {n} times", "sc in same st",
        "sc in next ch-{n} sp", "[sc in next st, ch {n}, sk next st] around", "[2 sc in next st, sc in next {n} sts] {n} times",
        "sc in each st around", "sc in each st and ch around", "hdc in each st and sp around", "sc in each st to last {n} sts",
        "[sc in next sp, ch 3] around", "sc in last st", "[sc in next 2 sts, sc2tog] to last {n} sts",
    ]
)  # fmt: skip


@st.composite
def rows(draw: st.DrawFn) -> str:
    opening = draw(st.sampled_from(["", "Ch 1, ", "Ch 3 (counts as dc), ", "Ch 2 (does not count), "]))
    steps = [draw(STEPS).format(n=draw(st.integers(1, 4))) for _ in range(draw(st.integers(1, 4)))]
    ending = draw(st.sampled_from(["; join", "; turn", ""]))
    return f"Rnd 1: {opening}{', '.join(steps)}{ending}."


def edge_of(places: list[tuple[str, int, int]]) -> Edge:
    runs = []
    for kind, length, count in places:
        place = Place("st", "sc") if kind == "st" else Place("sp", length=length)
        runs.append(Run(place, count))
    return Edge(tuple(runs), closed=True)


@given(rows(), st.lists(PLACES, min_size=1, max_size=6))
@settings(max_examples=500, deadline=None)
def test_one_row_on_any_edge(text: str, places: list[tuple[str, int, int]]) -> None:
    parsed = parse(text)
    assert parsed.findings == (), (text, parsed.findings)
    row = parsed.pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    edge = edge_of(places)
    fast, slow = work_row(row, 0, edge), walk(row, 0, edge)
    assert (fast.trouble is None) == (slow is not None), (text, fast.trouble, slow)
    if slow is not None:
        assert unrolled(fast.edge) == slow


def test_whole_patterns_row_by_row() -> None:
    texts = [MESH_TOTE, *totes()]
    walked = 0
    for text in texts:
        pattern = parse(text).pattern
        for size in range(len(pattern.sizes)):
            for line in work_pattern(pattern, size).lines:
                if not isinstance(line.line, Row) or line.start.foundation:
                    continue
                fast = work_row(line.line, size, line.start)
                if fast.trouble is None and not fast.warnings:
                    assert walk(line.line, size, line.start) == unrolled(fast.edge)
                    walked += 1
    assert walked > 300


def test_a_share_of_the_fuzz() -> None:
    """`make fuzz` works 100,000 generated texts; these are the first of them."""
    rows_compared, came_out = fuzz.texts(0, 260)
    assert rows_compared > 150
    assert came_out > 40


def test_one_slip_stitch_fastens_a_chain_and_two_are_places() -> None:
    row = (
        parse("Ch 5.\nRow 1: Sc in each of next 4 ch, sk next 2 sts, sc in each st and ch across.")
        .pattern.sections[0]
        .lines[-1]
    )
    assert isinstance(row, Row)
    for fastening, works in ((1, True), (2, False)):
        edge = Edge((Run(Place("st", "sl st"), fastening), Run(Place("sp", length=4), 1), Run(Place("st", "sc"), 6)))
        fast, slow = work_row(row, 0, edge), walk(row, 0, edge)
        assert (fast.trouble is None) == (slow is not None) == works
        assert slow is None or unrolled(fast.edge) == slow
