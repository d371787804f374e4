"""Text to tree and back: accepted spellings, canonical form, and answers to what cannot be read."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from rillstep.core.notation import parse
from rillstep.core.printing import one_size, write, write_steps
from rillstep.core.proof import prove_text
from rillstep.core.tree import Num, Row
from tests.core.test_referee import rows
from tests.examples import MESH_TOTE, totes


def steps_of(body: str, head: str = "") -> str:
    parsed = parse(f"{head}Rnd 1: {body}")
    assert parsed.findings == (), parsed.findings
    row = parsed.pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    return write_steps(row.steps, parsed.pattern.terms)


ALIKE = [
    ("Hdc in next 6 sts", ["6 hdc", "hdc 6", "hdc in each of next 6 sts", "1 hdc in next 6 stitches", "hdc6", "hdc in the next 6 st(s)"]),
    ("2 sc in next st", ["inc", "sc inc", "2 sc into next st", "2 sc in next stitch"]),
    ("Sc2tog", ["dec", "sc dec", "sc2tog over next 2 sts"]),
    ("Sk next 2 sts", ["skip 2", "miss next 2 sts", "sk 2", "SK next 2 st"]),
    ("[sc in next st, ch 1] 6 times", ["[sc in next st, ch 1] x6", "(sc in next st, ch 1) x 6", "*sc in next st, ch 1; rep from * 5 more times", "[sc, ch 1] 6 times"]),
    ("[sc in next st, ch 1, sk next st] around", ["*sc in next st, ch 1, sk next st; rep from * around", "[sc in next st, ch 1, sk 1], around"]),
    ("Ch 1, sc in each st around; join", ["ch 1, sc in each st around, join with sl st in first st", "chain 1, sc in each stitch around; join with a sl st", "ch 1; sc each st around; join."]),
    ("BLO sc in each st around", ["sc blo in each st around", "blo sc in each st around"]),
    ("Sc in next ch-3 sp", ["sc in next ch3-sp".replace("ch3-sp", "ch 3 sp"), "sc in next ch-3 space"]),
]  # fmt: skip


@pytest.mark.parametrize(("canonical", "spelling"), [(c, s) for c, spellings in ALIKE for s in [c, *spellings]])
def test_accepted_spellings_come_to_one_form(canonical: str, spelling: str) -> None:
    assert steps_of(spelling) == canonical


@pytest.mark.parametrize(
    ("written", "values"),
    [("12 (15, 18)", (12, 15, 18)), ("12/15/18", (12, 15, 18)), ("12, 15, 18", (12, 15, 18)), ("12 [15, 18]", (12, 15, 18)),
     ("12", (12, 12, 12)), ("{side}", (5, 6, 7)), ("{2*side + 6}", (16, 18, 20))],
)  # fmt: skip
def test_numbers_may_differ_per_size(written: str, values: tuple[int, ...]) -> None:
    parsed = parse(f"Sizes: S, M, L\nNumber: side = 5 (6, 7)\nRnd 1: sc in next {written} sts.")
    assert parsed.findings == ()
    row = parsed.pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    assert row.steps[0].into.count.values == values  # type: ignore[union-attr]


@pytest.mark.parametrize(
    ("label", "first", "last"),
    [("Rnds 2-7 (9, 11)", (2, 2, 2), (7, 9, 11)), ("Rnds 18 (22, 24)-20 (24, 26)", (18, 22, 24), (20, 24, 26)),
     ("R3", (3, 3, 3), None), ("Round 8 (10, 12)", (8, 10, 12), None), ("Rows 4 to 6", (4, 4, 4), (6, 6, 6)),
     ("Rnds 2–5", (2, 2, 2), (5, 5, 5))],
)  # fmt: skip
def test_labels(label: str, first: tuple[int, ...], last: tuple[int, ...] | None) -> None:
    row = parse(f"Sizes: S, M, L\n{label}: sc in each st around.").pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    assert row.first.values == first
    assert (row.last.values if row.last else None) == last


@pytest.mark.parametrize("total", ["— 48 sts", "= 48 sts", "- 48 sts", "(48 sts)", "– 48 stitches", "(48 sts)."])
def test_totals_are_stated_in_many_ways(total: str) -> None:
    row = parse(f"Rnd 1: Sc in each st around; join. {total}").pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    assert [t.count.at(0) for t in row.totals] == [48]


def test_size_lines_hold_until_the_next_one() -> None:
    text = "Sizes: One lens, Three lenses, Full case\nSizes Three lenses and Full case only:\nRnd 1: 6 (7) sc.\nSize Full case only:\nRnd 2: 6 sc.\nAll sizes:\nRnd 3: 6 sc."
    parsed = parse(text)
    assert parsed.findings == ()
    assert [line.sizes for line in parsed.pattern.sections[0].lines] == [(1, 2), (2,), (0, 1, 2)]
    assert parse(write(parsed.pattern)).pattern == parsed.pattern


ANSWERS = [
    ("Rnd 1: Sc in next st, hcd in next st.", "not-understood", "Did you mean “hdc”?", (23, 37)),
    ("Rnd 1: [sc in next st, ch 1.", "not-understood", "a “]” is missing", None),
    ("Rnd 1: [sc in next st, ch 1].", "not-understood", "how often", None),
    ("Rnd 1: Sc in next {wal} sts.", "name-not-defined", "“wal” is not defined", None),
    ("Rnd 1: Sc in next 1.5 sts.", "not-understood", "whole number", None),
    ("Rnd 1: Sc in next 100000000000 sts.", "number-too-large", "99999", None),
    ("Rnd 1: *sc in next st, ch 1.", "not-understood", "“rep from *” is missing", None),
    ("Rnd 1: Sc in next 3 (4) sts.", "set-length", "has 2 numbers, but there are 1 sizes", (19, 24)),
    ("Rnd x: Sc in next st.", None, "", None),
    ("Rnd 1:", "row-empty", "Nothing is worked", None),
    ("Rnd 1 or so: 6 sc.", "not-understood", "only numbers stand", None),
    ("Gauge: many stitches\nRnd 1: 6 sc.", "gauge-form", "is written like this", None),
    ("Gauge: sc 0 sts x 12 rows = 10 cm\nRnd 1: 6 sc.", "gauge-zero", "above zero", None),
    ("Terms: AU\nRnd 1: 6 sc.", "terms-unknown", "US or UK", None),
    ("Units: ells\nRnd 1: 6 sc.", "units-unknown", "cm or in", None),
    ("Sizes: S, s\nRnd 1: 6 sc.", "size-twice", "same name", None),
    ("Sizes: a,b,c,d,e,f,g,h,i,j,k\nRnd 1: 6 sc.", "sizes-count", "11 are named", None),
    ("Sizes: S, M\nSize L only:\nRnd 1: 6 sc.", "size-not-defined", "no size “L”", None),
    ("Section: Base (joined round, oval)\nRnd 1: 6 sc.", "section-kind", "Did you mean “joined rounds”?", None),
    ("Section: Wall (wall), continue from Bottom\nRnd 1: 6 sc.", "section-not-found", "no section “Bottom”", None),
    ("Rnd 1: 6 sc in ring.\nx Section: Wall (wall)", "section-misplaced", "at the start of its line", (3, 11)),
    ("Number: wall 9\nRnd 1: 6 sc.", "number-form", "named like this", None),
    ("Number: wall = 9/2\nRnd 1: 6 sc.", "number-form", "not a whole number", None),
    ("Hello.", "nothing-to-work", "no rows or rounds", None),
    ("Rnd 1: 6 sc. — 6 beans", "kind-not-known", "“beans” is not a stitch", None),
    ("Rnd 1: 6 sc.\nCheck: 6 beans.", "not-understood", "what is counted or measured", None),
    ("x" * 5000, "line-too-long", "too long", None),
]  # fmt: skip


@pytest.mark.parametrize(("text", "code", "says", "columns"), ANSWERS)
def test_what_cannot_be_read_is_answered(
    text: str, code: str | None, says: str, columns: tuple[int, int] | None
) -> None:
    findings = parse(text).findings
    if code is None:  # a line that is no row is kept as prose; there is nothing to work then
        assert [f.code for f in findings] == ["nothing-to-work", "not-worked"]
        return
    assert code in [f.code for f in findings]
    finding = next(f for f in findings if f.code == code)
    assert says in finding.message
    assert not any(word in finding.message for word in ("RPAR", "token", "None", "Traceback"))
    if columns:
        assert (finding.span.column, finding.span.end_column) == columns


def test_a_bad_line_does_not_hide_the_next() -> None:
    text = "Rnd 1: bleep in next st.\nRnd 2: sc in next st, blorp.\nRnd 3: 6 sc."
    assert [f.span.line for f in parse(text).findings] == [1, 2]


@pytest.mark.parametrize("text", [MESH_TOTE, *totes()], ids=lambda t: str(len(t)))
def test_written_text_reads_back_to_the_same_tree(text: str) -> None:
    tree = parse(text).pattern
    for terms in ("US", "UK"):
        again = parse(write(tree, terms))  # type: ignore[arg-type]
        assert again.findings == ()
        assert again.pattern == tree
        assert write(again.pattern, terms) == write(tree, terms)  # type: ignore[arg-type]
    for size in range(len(tree.sizes)):
        single = one_size(tree, size)
        assert parse(write(single, "UK")).pattern == single


def test_us_to_uk_and_back_gives_the_same_text() -> None:
    us = write(parse(MESH_TOTE).pattern, "US")
    uk = write(parse(us).pattern, "UK")
    assert "dc in next" in uk
    assert "sc in next" not in uk
    assert write(parse(uk).pattern, "US") == us


@given(rows())
@settings(max_examples=133, deadline=None)
def test_any_row_reads_back(text: str) -> None:
    tree = parse(text).pattern
    assert parse(write(tree)).pattern == tree
    assert parse(write(tree, "UK")).pattern == tree


WORDS = st.sampled_from(
    ["Rnd 1:", "Rnds 2-5:", "sc", "hdc", "in", "each", "next", "st", "around", "[", "]", "(", ")", "*", "rep", "ch", "12", "3 (4, 5)",
     "{x}", "—", "-", ",", ";", "join", "\n", "Section:", "Sizes:", "to last", "2nd", "same", "9" * 400, "((((((((", "counts as", ":", "#"]
)  # fmt: skip


@given(st.one_of(st.text(max_size=300), st.lists(WORDS, max_size=40).map(" ".join)))
@settings(max_examples=200, deadline=None)
def test_no_text_crashes_the_reader(text: str) -> None:
    parsed = parse(text)
    for finding in parsed.findings:
        assert finding.message
        assert finding.span.line >= 1
    assert parse(write(parsed.pattern)).pattern.sizes is not None
    assert prove_text(f"Ch 20, join into a ring.\n{text}").findings is not None


def test_numbers_remember_where_they_stand() -> None:
    row = parse("Sizes: S, M\nRnd 1: sc in next 12 (15) sts.").pattern.sections[0].lines[0]
    assert isinstance(row, Row)
    number = row.steps[0].into.count  # type: ignore[union-attr]
    assert isinstance(number, Num)
    assert [(part.column, part.end_column) for part in number.parts] == [(19, 21), (23, 25)]
