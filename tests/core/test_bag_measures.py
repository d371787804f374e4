"""Measures of a bag by how its pieces are joined, worked out by hand: sc is 5 mm each way, hdc 6.25 x 8 mm."""

import pytest

from rillstep.core.findings import apply_edits
from rillstep.core.grading.trials import measures_at
from rillstep.core.measures import Measure, measures_of
from rillstep.core.proof import Proof, prove_text, reader_text
from rillstep.core.proof.questions import questions
from tests.core.test_measures import GAUGE, discs, oval, strap, wall


def proved(text: str) -> Proof:
    proof = prove_text(GAUGE + text)
    assert not [f for f in proof.findings if f.severity == "error"], proof.findings
    return proof


def whole(text: str) -> dict[str, float | None]:
    """The measures of the bag, in mm."""
    proof = proved(text)
    return {one.name: one.mm[0] for one in measures_of(proof.pattern, proof.works) if one.piece is None}


def on(base: str, sts: int, first: int, rows: int, stitch: str = "Sc") -> str:
    return (
        f"{base}Section: Wall (joined rounds, wall)\n"
        f"Rnds {first}-{first + rows - 1}: {stitch} in each st around; join. — {sts} sts\n"
    )


def panel(title: str, sts: int, rows: int, heading: str = "") -> str:
    return strap(title + heading, sts + 1, rows)


def rectangle(sts: int, rows: int, up: int) -> str:
    around = 2 * (sts + rows)
    return (
        panel("Section: Base (rows, panel)", sts, rows) + f"Section: Wall (joined rounds, wall), continue from Base\n"
        f"Rnd 1: Ch 1, sc in each st across; rotate, sc in next {rows} row ends; rotate, sc in next {sts} ch; rotate, "
        f"sc in next {rows} row ends; join. — {around} sts\nRnds 2-{up}: Ch 1, sc in each st around; join. — {around} sts\n"
    )


def square(rounds: int, many: int) -> str:
    """The corner that ends a round is begun in it and ended in the next one."""
    text = f"Section: Square (joined rounds, square, make {many})\nMake an adjustable ring.\n"
    text += "Rnd 1: Ch 1, [2 sc in ring, ch 2] 4 times; join. — 8 sts\n"
    corner = "(sc, ch 2, sc) in next ch-2 sp"
    for n in range(2, rounds + 1):
        first, last = n, f"sc in next {n - 2} sts, " if n > 2 else ""
        rest = f"[sc in next {2 * n - 2} sts, {corner}] 3 times"
        text += (
            f"Rnd {n}: Ch 1, sc in next {first} sts, {corner}, {rest}, {last}".rstrip(", ") + f"; join. — {8 * n} sts\n"
        )
    return text


def half_round(rows: int) -> str:
    text = "Section: Side (rows, fan, make 2)\nMake an adjustable ring.\nRow 1: Ch 1, 3 sc in ring; turn. — 3 sts\n"
    text += "Row 2: Ch 1, 2 sc in each st across; turn. — 6 sts\n" if rows > 1 else ""
    for n in range(3, rows + 1):
        text += f"Row {n}: Ch 1, [sc in next {n - 2} sts, 2 sc in next st] 3 times; turn. — {3 * n} sts\n"
    return text


def mesh(loops: int, rounds: int) -> str:
    return (
        f"Gauge: mesh 8 loops x 10 rows = 10 cm\nCh {2 * loops}, join into a ring.\n"
        f"Rnd 1: [Dc in next ch, ch 1, sk next ch] around; join. — {loops} dc, {loops} ch-1 sps\n"
        f"Rnds 2-{rounds}: [Dc in next dc, ch 1, sk next ch-1 sp] around; join. — {loops} dc, {loops} ch-1 sps\n"
    )


def mesh_from_the_centre(loops: int, last: int) -> str:
    return (
        "Gauge: mesh 8 loops x 10 rows = 10 cm\nSection: Centre (joined rounds, disc)\nMake an adjustable ring.\n"
        f"Rnd 1: Ch 1, [dc in ring, ch 1] {loops} times; join. — {loops} dc, {loops} ch-1 sps\n"
        f"Rnd 2: Ch 1, [(dc, ch 1, dc, ch 1) in next ch-1 sp] {loops} times; join. — {2 * loops} dc, {2 * loops} ch-1 sps\n"
        f"Section: Mesh (joined rounds, wall)\nRnds 3-{last}: Ch 1, [dc in next ch-1 sp, ch 1] around; join. "
        f"— {2 * loops} dc, {2 * loops} ch-1 sps\n"
    )


SEWN = "Finishing\nSew the panels together along three sides.\n"
HALF = "Fold: in half.\n"
BAGS: list[tuple[str, str, dict[str, float]]] = [
    *(
        ("wall", on(discs(n), 6 * n, n + 1, up), {"width": 15.0 * n, "height": 5.0 * up, "depth": 10.0 * n})
        for n, up in ((4, 6), (6, 10), (8, 20), (12, 30), (15, 9))
    ),
    *(
        ("wall", on(oval(side, r), 2 * side + 6 * r, r + 1, up),
         {"width": 5.0 * side + 15 * r, "height": 5.0 * up, "depth": 10.0 * r, "base length": 5.0 * side + 10 * r})
        for side, r, up in ((6, 1, 10), (10, 2, 12), (20, 2, 30), (31, 2, 5), (12, 1, 8))
    ),
    *(
        ("wall", rectangle(sts, rows, up), {"width": 5.0 * (sts + rows), "height": 5.0 * up, "depth": 5.0 * min(sts, rows),
                                            "base length": 5.0 * max(sts, rows)})
        for sts, rows, up in ((20, 8, 10), (30, 10, 25), (12, 20, 6), (16, 16, 9), (40, 5, 30))
    ),
    *(
        ("wall", "Body\n" + wall(n, up) + "Sew the foundation edge flat.\n",
         {"width": 2.5 * n, "mouth": 2.5 * n, "foot": 2.5 * n, "height": 5.0 * up})
        for n, up in ((40, 10), (60, 7), (90, 50), (24, 12), (36, 18))
    ),
    *(
        ("wall", discs(n).replace("(spiral rounds, disc)", "(spiral rounds, wall)").replace("Base", "Body")
         + f"Rnds {n + 1}-{n + up}: Sc in each st around. ({6 * n})\n",
         {"width": 15.0 * n, "height": 5.0 * up, "depth": 10.0 * n})
        for n, up in ((4, 6), (6, 10), (8, 20), (12, 30), (7, 14))
    ),
    *(
        ("panels", panel("Front", n, rows) + panel("Back", n, rows) + SEWN, {"width": 5.0 * n, "height": 5.0 * rows})
        for n, rows in ((20, 24), (30, 40), (16, 12), (45, 30), (10, 10))
    ),
    *(
        ("folded", panel("Panel", n, a + b + c) + f"Fold: front {a} rows, back {b} rows, flap {c} rows.\n",
         {"width": 5.0 * n, "height": 5.0 * a, "flap": 5.0 * c})
        for n, a, b, c in ((20, 30, 30, 14), (30, 20, 20, 10), (24, 40, 40, 20), (16, 12, 12, 6), (50, 33, 33, 11))
    ),
    ("folded", panel("Panel", 20, 70) + "Fold: front 30 rows, bottom 10 rows, back 30 rows.\n",
     {"width": 100.0, "height": 150.0, "depth": 50.0}),
    *(("folded", panel("Panel", n, rows) + HALF, {"width": 5.0 * n, "height": 2.5 * rows}) for n, rows in ((20, 60), (14, 31))),
    *(
        ("panels", panel("Front", n, rows, ", worked sideways") + panel("Back", n, rows, ", worked sideways") + SEWN,
         {"width": 5.0 * rows, "height": 5.0 * n})
        for n, rows in ((20, 24), (30, 40), (16, 12), (45, 30), (10, 14))
    ),
    *(
        ("squares", square(r, down * over) + f"Finishing\nArrange the squares in {down} rows of {over} and sew them.\n",
         {"width": 10.0 * r * over, "height": 10.0 * r * down})
        for r, down, over in ((3, 3, 4), (4, 2, 3), (5, 3, 3), (2, 4, 6), (6, 2, 2))
    ),
    *(
        ("half-rounds", half_round(r) + strap("Gusset", g + 1, 60) + "Sew the gusset to both sides.\n",
         {"width": 10.0 * r, "height": 5.0 * r, "depth": 5.0 * g})
        for r, g in ((8, 6), (12, 8), (20, 10), (5, 4), (16, 7))
    ),
    *(("wall", mesh_from_the_centre(n, last), {"width": 12.5 * n, "height": 10.0 * (last - 2), "depth": 40.0})
      for n, last in ((6, 10), (8, 14), (10, 12), (12, 20), (16, 30))),
    *(("wall", mesh(loops, up), {"width": 6.25 * loops, "height": 10.0 * up}) for loops, up in ((16, 6), (20, 12), (40, 20), (24, 9), (32, 15))),
]  # fmt: skip


@pytest.mark.parametrize(("build", "text", "mm"), BAGS, ids=[f"{n} {build}" for n, (build, _, _) in enumerate(BAGS)])
def test_a_bag_measures_what_was_worked_out_by_hand(build: str, text: str, mm: dict[str, float]) -> None:
    proof = proved(text)
    assert proof.bag is not None and proof.bag.body.build == build
    found = whole(text)
    for name, wanted in mm.items():
        assert found[name] == pytest.approx(wanted, abs=0.1), (name, found)


PIECES = [
    (f"{panel('Front', 20, 20)}{panel('Back', 20, 20)}{SEWN}{panel(title, n, rows)}", title, mm)
    for title, sizes in (("Flap", "wh"), ("Pocket", "wh"), ("Gusset", "lw"), ("Trim", "lw"), ("Strap", "lw"))
    for n, rows in ((10, 14), (8, 20), (6, 30), (12, 16), (4, 40))
    for mm in (
        [{"width": 5.0 * n, "height": 5.0 * rows}] if sizes == "wh" else [{"length": 5.0 * rows, "width": 5.0 * n}]
    )
]


@pytest.mark.parametrize(("text", "title", "mm"), PIECES, ids=[f"{n} {one[1]}" for n, one in enumerate(PIECES)])
def test_what_is_beside_the_body_measures_by_itself(text: str, title: str, mm: dict[str, float]) -> None:
    proof = proved(text)
    found = {one.name: one.mm[0] for one in measures_of(proof.pattern, proof.works) if one.piece == title}
    met = found.pop("meets", None)
    assert found == pytest.approx(mm)
    # two panels of 10 x 10 cm: a gusset runs down two sides and along the bottom, a flap lies across
    assert met == {"Gusset": 300.0, "Flap": 100.0, "Pocket": 100.0}.get(title)
    bag = whole(text)
    assert (bag["width"], bag["height"]) == (100.0, 100.0)  # it adds nothing to the bag


@pytest.mark.parametrize(
    ("text", "why"),
    [
        (panel("Panel", 20, 60), "how its panel is folded"),
        (panel("Front", 20, 60) + panel("Back", 20, 60), "how its two panels are joined"),
        (panel("Front", 20, 60) + panel("Back", 24, 60) + SEWN, "differ by 20 mm"),
        (panel("Front", 20, 60) + panel("Back", 20, 60) + panel("Lid", 20, 20) + SEWN, "how its pieces are joined"),
    ],
)
def test_what_the_text_does_not_tell_is_not_known(text: str, why: str) -> None:
    proof = proved(text)
    width = next(one for one in measures_of(proof.pattern, proof.works) if one.piece is None and one.name == "width")
    assert width.mm == (None,) and why in width.why[0]


def test_a_fold_is_held_to_the_rows_of_its_panel_and_printed() -> None:
    text = GAUGE + panel("Panel", 20, 74) + "Fold: front 30 rows, back 32 rows, flap 14 rows.\n"
    assert [f.code for f in prove_text(text).findings if f.severity == "error"] == ["fold-differs"]
    printed = reader_text(prove_text(text.replace("32", "30")).pattern, "US")
    assert printed.ok and "Fold: front 30 rows, back 30 rows, flap 14 rows." in printed.text


def measured(text: str, name: str) -> Measure:
    proof = prove_text(text)
    return next(one for one in measures_of(proof.pattern, proof.works) if one.piece is None and one.name == name)


BODY = "Body\nCh 40, join into a ring.\nRnd 1: Sc in each ch around; join.\nRnds 2-10: Sc in each st around; join.\n"


def test_a_stitch_pattern_takes_its_own_gauge() -> None:
    posts = BODY.replace("Rnds 2-10: Sc", "Rnds 2-10: FPdc")
    assert measured(GAUGE + posts, "height").estimated
    own = measured(GAUGE + "Gauge: FPdc 16 sts x 8 rows = 10 cm\n" + posts, "height")
    assert own.mm == (5 + 9 * 12.5,) and not own.estimated and "FPdc" in own.gauges[0]
    back = BODY.replace("Rnds 2-10: Sc", "Rnds 2-10: BLO sc")
    assert measured(GAUGE + "Gauge: sc blo 18 sts x 16 rows = 10 cm\n" + back, "height").mm == (5 + 9 * 6.25,)


def test_a_changed_hook_takes_the_gauge_of_that_hook() -> None:
    text = BODY + "Change to a 4 mm hook.\nRnds 11-20: Sc in each st around; join.\n"
    assert measured(GAUGE + text, "height").estimated
    smaller = GAUGE + "Gauge: sc 25 sts x 25 rows = 10 cm with 4 mm hook\n"
    assert (measured(smaller + text, "height").mm, measured(smaller + text, "height").estimated) == ((90.0,), False)
    assert "4 mm hook" in reader_text(prove_text(smaller + text).pattern, "US").text


def test_an_opening_has_a_width_and_a_rise() -> None:
    text = BODY + "Rnd 11: [Sc in next 5 sts, ch 14, sk next 10 sts, sc in next 5 sts] twice; join.\n"
    found = whole(text.replace("[Sc in next 5 sts, ch 14, sk next 10 sts, sc in next 5 sts] twice",
        "Sc in next 5 sts, ch 14, sk next 10 sts, sc in next 10 sts, ch 14, sk next 10 sts, sc in next 5 sts"))  # fmt: skip
    assert found["opening"] == 50.0
    assert found["rise"] == pytest.approx((70.0**2 - 50.0**2) ** 0.5 / 2)
    assert found["drop"] == pytest.approx(((70 * 1.05) ** 2 - 50.0**2) ** 0.5 / 2)
    assert found["width"] == 100.0


def test_a_chain_space_in_a_row_without_a_gauge_of_the_mesh_is_an_estimate() -> None:
    assert measured(GAUGE + mesh(20, 6).split("\n", 1)[1], "width").estimated
    assert not measured(GAUGE + mesh(20, 6), "width").estimated


@pytest.mark.parametrize(
    ("text", "code"),
    [
        (panel("Panel", 20, 74), "how-folded"),
        (panel("Panel", 20, 30) + panel("Strap", 5, 100), "how-folded"),
        (panel("Front", 20, 60) + panel("Back", 20, 60), "how-joined"),
    ],
)
def test_what_would_settle_it_is_asked_and_each_answer_does(text: str, code: str) -> None:
    text = GAUGE + text
    (question,) = questions(prove_text(text), text)
    assert question.code == code and question.answers
    for answer in question.answers:
        proof = prove_text(apply_edits(text, answer.edits))
        assert proof.ok and proof.bag is not None and not questions(proof, apply_edits(text, answer.edits))
        height = next(one for one in proof.bag.measures if one.piece is None and one.name == "height")
        assert height.mm[0] is not None


def test_a_finished_size_in_words_is_warned_of_where_it_is_another() -> None:
    text = GAUGE + "Sizes: S, L\n" + panel("Panel", 20, 60).replace("Ch 21", "Ch 21 (31)") + HALF
    told = "Finished size: 10 (15) cm wide and 15 (15) cm tall\n"
    assert not [f for f in prove_text(told + text).findings if f.code == "finished-differs"]
    (found,) = [
        f for f in prove_text(told.replace("10 (15)", "10 (19)") + text).findings if f.code == "finished-differs"
    ]
    assert (found.severity, found.size, found.span.line) == ("warning", 1, 1) and "15.0 cm" in found.message


def test_a_titled_section_of_rows_is_a_panel_and_no_wall() -> None:
    """Nothing but its title is told: its first row says that it is worked flat."""
    text = GAUGE + panel("Section: Front", 30, 36) + panel("Section: Back", 30, 36) + SEWN
    assert measures_at(prove_text(text)) == {
        "width": 150.0, "height": 180.0,
        **{f"{side}.{name}": mm for side in ("Front", "Back") for name, mm in (("width", 150.0), ("height", 180.0))},
    }  # fmt: skip
