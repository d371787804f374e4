"""What is remembered never changes an answer; repeats that are counted give what repeats that are walked would."""

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from rillstep.core.fabric import Run
from rillstep.core.fabric.edge import Edge, Place, last_first, merge, pattern, reversed_runs
from rillstep.core.fabric.trace import unrolled
from rillstep.core.findings import apply_edits
from rillstep.core.proof import prove_text
from tests.sweep.texts import CORPUS, answer


def test_lines_that_did_not_change_are_not_worked_again() -> None:
    text = CORPUS[0].read_text()
    first, second = prove_text(text), prove_text(text + "\nNote: one more word.")
    same = [
        a is b
        for one, two in zip(first.works, second.works, strict=True)
        for a, b in zip(one.lines, two.lines, strict=True)
    ]
    assert same and all(same)


def test_a_repair_undone_is_as_before() -> None:
    text = "Ch 24, join into a ring.\nRnd 1: Sc in each ch around; join. — 25 sts\nRnd 2: Sc in next 25 sts; join."
    before = answer(prove_text(text))
    (finding, *_) = [f for f in prove_text(text).findings if f.severity == "error"]
    assert answer(prove_text(apply_edits(text, finding.repairs[0].edits))) != before
    assert answer(prove_text(text)) == before


# --- repeats to an end that keeps many back

REPEATS = [
    ("sc in next st, ch 2", 1), ("2 sc in next st", 1), ("sc in next 2 sts, sc2tog", 4), ("sc in next st, ch 1, sk next st", 2),
    ("hdc in next st, dc in next st, sk next st", 3), ("(dc, ch 1, dc) in next st, sk next 2 sts", 3),
]  # fmt: skip


@pytest.mark.parametrize(("body", "takes"), REPEATS, ids=[body for body, _ in REPEATS])
@pytest.mark.parametrize("last", [1, 2, 3, 5, 8, 13, 30])
def test_a_repeat_ends_exactly_where_it_is_told(body: str, takes: int, last: int) -> None:
    for turns in (1, 2, 3, 5, 40):
        count = turns * takes + last
        text = f"Ch {count}, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnd 2: [{body}] to last {last} sts, sc in next {last} sts; join."
        assert [f.message for f in prove_text(text).findings if f.severity == "error"] == [], (turns, last)
        off = text.replace(f"Ch {count},", f"Ch {count + 1},", 1)
        assert takes == 1 or [f.code for f in prove_text(off).findings if f.severity == "error"] == ["repeat-uneven"]


# --- runs of places

PLACES = st.sampled_from([Place("st", "sc"), Place("st", "dc"), Place("sp", length=2), Place("ch")])
PLAIN = st.builds(Run, PLACES, st.integers(1, 5))
RUNS = st.lists(
    st.one_of(
        PLAIN, st.builds(lambda inner, n: pattern(inner, n), st.lists(PLAIN, min_size=2, max_size=3), st.integers(1, 4))
    ),
    max_size=5,
)


def flat(runs: object) -> list[Place]:
    return list(unrolled(runs))  # type: ignore[arg-type]


@given(RUNS)
@settings(max_examples=100, deadline=None)
def test_runs_made_one_are_the_same_places(runs: list[Run]) -> None:
    assert flat(merge(runs)) == flat(runs)
    assert merge(merge(runs)) == merge(runs)
    assert flat(reversed_runs(merge(runs))) == flat(runs)[::-1]
    assert reversed_runs(reversed_runs(merge(runs))) == merge(runs)


@given(RUNS)
@settings(max_examples=100, deadline=None)
def test_counts_are_those_of_the_single_places(runs: list[Run]) -> None:
    edge, single = Edge(merge(runs)), flat(runs)
    assert edge.count("st") == edge.counts().sts == sum(place.kind == "st" for place in single)
    assert edge.counts().of("dc") == sum(place.stitch == "dc" for place in single)
    assert edge.counts().spaces_of(2) == sum(place.kind == "sp" for place in single)
    assert edge.count("ch") == sum(place.kind == "ch" for place in single) + 2 * edge.counts().spaces_of(None)
    assert Edge(merge(runs)).turned().counts() == edge.counts()


@given(RUNS, st.integers(1, 4))
@settings(max_examples=66, deadline=None)
def test_a_pattern_is_so_many_times_its_places(runs: list[Run], times: int) -> None:
    assume(runs)
    assert flat([pattern(runs, times)]) == flat(runs) * times
    assert flat(last_first(list(runs))) == [flat(runs)[-1], *flat(runs)[:-1]]
