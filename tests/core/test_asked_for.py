"""What is taken of a text for its swatch: the stitch it is worked in, a sentence of its gauge, its hook and its yarn."""

from pathlib import Path

import pytest

from rillstep.core.gauge_asked import gauge_said, is_mesh, stitches_of
from rillstep.core.grading.gauge_lines import with_mesh_gauge
from rillstep.core.materials import hook_said_in, yarn_said_in
from rillstep.core.proof import prove_text
from rillstep.core.settling import read
from rillstep.document.ready import READY_BAGS

TYPED = Path(__file__).parents[1] / "typed"
ROUNDS = "\nRnd 1: 6 sc in magic ring. (6 sts)\nRnd 2: 2 sc in each st around. (12 sts)\n"
READY = {bag.key: bag.text for bag in READY_BAGS}


def test_the_stitch_that_is_asked_for_is_that_of_the_text() -> None:
    assert stitches_of(prove_text("Nightbag\n" + ROUNDS).works) == ("sc", "hdc", "dc")
    assert stitches_of(prove_text(READY["oval_tote"]).works)[0] == "hdc"
    posts = "Nightbag\nCh 30, join into a ring.\nRnd 1: Ch 3, dc in each ch around; join. (30 sts)\n"
    posts += "Rnds 2-5: Ch 2, [FPdc around next st, BPdc around next st] around; join. (30 sts)\n"
    assert stitches_of(prove_text(posts).works)[0] == "dc"
    uk = ROUNDS.replace("sc", "dc")
    assert stitches_of(prove_text("Nightbag\nUK terms\n" + uk).works)[0] == "sc"
    assert stitches_of(()) == ("sc", "hdc", "dc")


@pytest.mark.parametrize("key", READY)
def test_a_mesh_bag_is_known_as_one_and_no_other_is(key: str) -> None:
    assert is_mesh(prove_text(READY[key]).works) == ("mesh" in key or "string" in key), key


def test_the_gauge_of_a_mesh_goes_behind_that_of_its_stitches_and_is_replaced() -> None:
    text = READY["flat_tote"]
    once = with_mesh_gauge(text, 8, 10, "cm")
    assert "Gauge: ch 18 = 10 cm\nGauge: mesh 8 loops x 10 rows = 10 cm\n" in once
    twice = with_mesh_gauge(once, 7.5, 9, "cm")
    assert twice == once.replace("8 loops x 10 rows", "7.5 loops x 9 rows")
    assert [one.build for one in read(twice).pattern.own_gauges] == ["chain", "mesh"]


@pytest.mark.parametrize(
    ("words", "stitch", "sts", "rows"),
    [
        ("Tension: about 8 sts to 5 cm, 9 rows to 5 cm in dc", "dc", 16, 18),
        ("4 in = 12 half double crochets and 9 rounds", "hdc", 11.81, 8.86),
        ("You should get 7 stitches and 8 rows in a 2 inch square", None, 13.78, 15.75),
        ("My gauge: 14 stitches, as I work loosely", None, None, None),  # over how much is not told
        ("Tension: 8 sts to 5 cm and 9 rows to 6 cm, roughly", None, None, None),  # two lengths
    ],
)
def test_a_sentence_that_may_be_the_gauge_is_offered(
    words: str, stitch: str | None, sts: float | None, rows: float | None
) -> None:
    text = f"Nightbag\n{words}\n{ROUNDS}"
    pattern = read(text).pattern
    assert pattern.gauges == ()
    said = gauge_said(text, pattern, "cm")
    assert said is not None and (said.line, said.words) == (2, words)
    assert (said.stitch, said.sts, said.rows) == (stitch, sts, rows)


@pytest.mark.parametrize("words", ["Check your gauge before you start.", "Makes one bag, 20 cm wide.", "Skill: easy"])
def test_other_sentences_are_not_offered(words: str) -> None:
    text = f"Nightbag\n{words}\n{ROUNDS}Rnds 3-9: Sc in each st around for 7 rounds, 10 cm. (12 sts)\n"
    assert gauge_said(text, read(text).pattern, "cm") is None


def test_a_text_that_names_its_gauge_is_asked_for_none() -> None:
    for path in TYPED.glob("*.txt"):
        text = path.read_text()
        assert gauge_said(text, read(text).pattern, "cm") is None, path.stem


HOOKS = {
    "comet-catcher": 6, "comet-clutch": 9, "comet-tail-handles": 5, "lantern-pouch": 6, "meridian-tote": 5,
    "milky-way-bottom": 4, "moonrise-tote": 12, "orrery-backpack": 5.5, "pleiades-handbag": 6, "rover-handbag": 4,
}  # fmt: skip
# Weight class, grams and metres of a ball, as each text says them.
YARNS = {
    "comet-catcher": ("chunky yarn", 5, 100, 110), "comet-clutch": ("super chunky yarn", 6, None, None),
    "lantern-pouch": ("4 ply wool blend in mauve", 1, 150, 470), "meridian-tote": ("Worsted weight acrylic", 4, None, None),
    "milky-way-bottom": ("DK cotton", 3, 50, 106), "moonrise-tote": ("t-shirt yarn", 6, None, None),
    "orrery-backpack": ("worsted weight acrylic", 4, 100, 170),
    "pleiades-handbag": ("worsted weight acrylic with a metallic thread", 4, None, None),
    "rover-handbag": ("4-ply acrylic", 1, None, None),
}  # fmt: skip


@pytest.mark.parametrize("name", HOOKS)
def test_hook_and_yarn_are_taken_as_the_text_says_them(name: str) -> None:
    pattern = read((TYPED / f"{name}.txt").read_text()).pattern
    assert hook_said_in(pattern) == HOOKS[name]
    said = yarn_said_in(pattern)
    found = None if said is None else (said.name, said.weight_class, said.grams_per_ball, said.metres_per_ball)
    assert found == YARNS.get(name)


def test_nothing_is_taken_where_nothing_is_said() -> None:
    pattern = read("Nightbag\nA bag of 20 mm mesh for 5 balls.\n" + ROUNDS).pattern
    assert hook_said_in(pattern) is None and yarn_said_in(pattern) is None
