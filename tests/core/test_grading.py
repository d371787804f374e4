"""Grading a text with names: its ways, its sizes, what is restated, and what is refused."""

import re
from functools import cache
from pathlib import Path

import pytest

from rillstep.core.grading import GradedText, NotGraded, NotResized, SizeWanted, grade_text, lift, resized
from rillstep.core.grading.lift import same_work
from rillstep.core.grading.named_text import changed, free_numbers
from rillstep.core.grading.trials import Refuted, trials_of
from rillstep.core.grading.ways import ways_of
from rillstep.core.printing.project import one_size
from rillstep.core.printing.unnaming import without_names
from rillstep.core.proof import prove_text, reader_text
from rillstep.core.settling import read

CORPUS = Path(__file__).parents[1] / "corpus"
FOLDER = Path(__file__).parents[1] / "grading_texts"
POUCH = (FOLDER / "pouch.txt").read_text()
TOTE = (FOLDER / "ring_tote.txt").read_text()
CLUTCH = (FOLDER / "clutch.txt").read_text()


def wanted(name: str, locks: dict[str, int] | None = None, **targets_mm: float) -> SizeWanted:
    return SizeWanted(name, {key.replace("__", "."): mm for key, mm in targets_mm.items()}, locks or {})


def measures(graded: GradedText, name: str) -> tuple[float | None, ...]:
    assert graded.proof.bag is not None
    return next(one.mm for one in graded.proof.bag.measures if one.piece is None and one.name == name)


def without_numbers(text: str) -> list[str]:
    """The lines with every number or set as one mark, but for the line of sizes."""
    lines = [line for line in text.split("\n") if not line.startswith("Sizes:")]
    return [re.sub(r"\d+(?: \(\d+(?:, \d+)*\))?", "#", line) for line in lines]


THREE = [
    wanted("Small"),
    wanted("Medium", width=120, height=100, Cord__length=700),
    wanted("Large", width=180, height=132),
]


def test_a_pouch_comes_in_three_sizes() -> None:
    """Circle, wall, eyelets, cord: by hand, a base of six increases under eyelets of eight grows by four rounds."""
    graded = grade_text(POUCH, THREE)
    assert graded.values == {
        "base rounds": (8, 8, 12), "wall rounds": (14, 20, 27), "gaps": (6, 6, 9), "cord": (110, 140, 110),
    }  # fmt: skip
    assert graded.notes == () and graded.proof.ok and not graded.stuck
    assert all(line.mark == "proved" for line in graded.proof.lines)
    assert measures(graded, "width") == (120.0, 120.0, 180.0)
    assert without_numbers(graded.text) == without_numbers(POUCH)
    assert "Made in one evening under 4 lamps." in graded.text
    assert "— 48 (48, 72) sts" in graded.text and "Check: 16 (22, 29) rnds." in graded.text
    assert reader_text(graded.proof.pattern, "US").ok


def test_the_ways_of_a_pouch_are_those_worked_out_by_hand() -> None:
    ways, stuck = ways_of(trials_of(POUCH))
    assert {way.label for way in ways} == {"wall rounds +1", "cord +1", "base rounds +4, gaps +3"} and not stuck
    (base,) = [way for way in ways if "gaps" in way.label]
    assert base.mm["width"] == pytest.approx(60.0) and base.multiple.startswith("Rnd 23")


def test_every_offered_way_is_proved_at_two_steps_each_way_where_there_is_room() -> None:
    for text in (POUCH, TOTE, CLUTCH):
        trials = trials_of(text)
        for way in ways_of(trials)[0]:
            for times in (-2, -1, 1, 2):
                values = {name: trials.base[name] + times * by for name, by in way.step}
                if min(values.values()) >= 3:
                    assert not isinstance(trials.at(dict(way.step), times), Refuted), (way.label, times)


def test_a_bag_with_openings_and_a_panel_are_graded_too() -> None:
    tote = grade_text(TOTE, [wanted("S"), wanted("M", width=230, height=200), wanted("L", width=260)])
    assert tote.proof.ok and tote.notes == () and measures(tote, "width") == (200.0, 230.0, 260.0)
    assert measures(tote, "opening") == (50.0, 50.0, 50.0)
    clutch = grade_text(CLUTCH, [wanted("S"), wanted("L", width=250, height=150, flap=75)])
    assert clutch.proof.ok and clutch.notes == ()
    assert (measures(clutch, "width"), measures(clutch, "height"), measures(clutch, "flap")) == (
        (200.0, 250.0), (120.0, 150.0), (60.0, 75.0),
    )  # fmt: skip


def test_what_is_not_met_says_what_stands_against_it() -> None:
    graded = grade_text(POUCH, [wanted("S", width=150)])
    (note,) = graded.notes
    assert "12.0 cm, not 15.0 cm" in note and "base rounds +4, gaps +3" in note and graded.proof.ok
    graded = grade_text(POUCH, [wanted("S", {"wall rounds": 14}, height=100)])
    assert graded.values["wall rounds"] == (14,) and "height" in graded.notes[0]
    graded = grade_text(POUCH, [wanted("S", {"gaps": 7})])
    assert any("“gaps” cannot be 7" in note for note in graded.notes)


@pytest.mark.parametrize(
    ("text", "sizes", "words"),
    [
        (POUCH, [wanted("S", drop=100)], "“drop” is not measured in this text; there are: "),
        (POUCH, [wanted("S", width=0)], "above zero"),
        (POUCH, [wanted("S", {"wall": 9})], "“wall” is no number of this text"),
        (POUCH, [wanted(f"{n}") for n in range(11)], "One to 10 sizes"),
        (POUCH, [], "One to 10 sizes"),
        (POUCH, [wanted("S"), wanted("S")], "a name of its own"),
        (POUCH.replace("6 sc in ring", "7 sc in ring"), [wanted("S")], "line 14"),
        (re.sub("Gauge:.*\n", "", POUCH), [wanted("S")], "Gauge:"),
        ("Gauge: sc 20 sts x 20 rows = 10 cm\nCh 4, join into a ring.\nRnd 1: Sc in each ch around; join.", [wanted("S")], "seen to move"),
    ],
)  # fmt: skip
def test_what_cannot_be_graded_says_why(text: str, sizes: list[SizeWanted], words: str) -> None:
    with pytest.raises(NotGraded, match=re.escape(words)):
        grade_text(text, sizes)


def test_a_number_that_nothing_moves_keeps_its_reason() -> None:
    text = POUCH.replace(
        "[sc in next 6 sts, ch 2, sk next 2 sts] {gaps} times", "[sc in next 6 sts, ch 2, sk next 2 sts] 6 times"
    )
    _, stuck = ways_of(trials_of(text))
    assert stuck.keys() == {"base rounds"} or "gaps" not in stuck
    assert "left over" in stuck["base rounds"] or "missing" in stuck["base rounds"]


def test_changing_back_gives_the_text_back() -> None:
    base = free_numbers(POUCH)
    there = changed(POUCH, {name: (value + 1,) for name, value in base.items()})
    assert changed(there, {name: (value,) for name, value in base.items()}) == POUCH
    assert prove_text(POUCH).ok


PLAIN = without_names(POUCH, read(POUCH))


def test_a_plain_pouch_is_lifted_and_graded() -> None:
    """Circle, wall, eyelets and cord, as they are published: no names at all."""
    assert "{" not in PLAIN and "Number:" not in PLAIN
    lifted = lift(PLAIN)
    assert lifted is not None
    assert {name: value for name, value, _ in lifted.names} == {
        "base rounds": 8, "wall rounds": 14, "wall repeats": 6, "cord chain": 110,
    }  # fmt: skip
    assert "[sc in next {rnd - 2} sts, 2 sc in next st] 6 times" in lifted.text and "{6*rnd} sts" in lifted.text
    assert any("inside a repeat" in one.reason for one in lifted.held)
    assert read(without_names(lifted.text, read(lifted.text))).pattern.sections == read(PLAIN).pattern.sections
    graded = grade_text(PLAIN, THREE)
    assert graded.notes == () and graded.proof.ok and measures(graded, "width") == (120.0, 120.0, 180.0)
    assert graded.values["base rounds"] == (8, 8, 12) and graded.values["wall repeats"] == (6, 6, 9)


def texts_in_one_size() -> list[Path]:
    paths = sorted((FOLDER.parent / "corpus").glob("*.txt"))
    return [path for path in paths if len(read(path.read_text()).pattern.sizes) == 1]


@pytest.mark.parametrize("path", texts_in_one_size(), ids=lambda path: path.stem)
def test_every_text_in_one_size_is_lifted_and_reads_back(path: Path) -> None:
    text = path.read_text()
    lifted = lift(text)
    assert lifted is not None
    parsed = read(lifted.text)
    assert same_work(parsed.pattern, read(text).pattern)
    assert {f.code for f in prove_text(lifted.text).findings} == {f.code for f in prove_text(text).findings}
    assert same_work(read(without_names(lifted.text, parsed)).pattern, parsed.pattern)
    assert all(one.reason and one.value >= 0 for one in lifted.held)


def test_a_text_in_several_sizes_is_not_lifted() -> None:
    assert lift("Sizes: S, L\nCh 20 (30).\nRow 1: Sc in 2nd ch from hook, sc in each ch across.") is None


@pytest.mark.parametrize(
    ("text", "line"),
    [
        ("Flap\nCh 21.\nRow 1: Sc in 2nd ch from hook, sc in next 19 ch; turn. — 20 sts\n"
         + "".join(f"Row {n}: Ch 1, sc2tog, sc in next {20 - 2 * n} sts, sc2tog; turn. — {22 - 2 * n} sts\n" for n in range(2, 9)),
         "Rows 2-{flap rows}: Ch 1, sc2tog, sc in next {flap first run - 2*row + 4} sts, sc2tog; turn. "
         "— {flap first run - 2*row + 6} sts"),
        ("Base\nMake an adjustable ring.\nRnd 1: 8 hdc in ring; join. — 8 sts\nRnd 2: Ch 1, 2 hdc in each st around; join. — 16 sts\n"
         "Rnd 3: Ch 1, [hdc in next st, 2 hdc in next st] 8 times; join. — 24 sts\n"
         + "".join(f"Rnd {n}: Ch 1, [hdc in next {n - 2} sts, 2 hdc in next st] 8 times; join. — {8 * n} sts\n" for n in range(4, 8)),
         "Rnds 3-{base rounds}: Ch 1, [hdc in next {rnd - 2} sts, 2 hdc in next st] 8 times; join. — {8*rnd} sts"),
    ],
)  # fmt: skip
def test_rounds_that_grow_or_taper_become_one_line(text: str, line: str) -> None:
    lifted = lift(text)
    assert lifted is not None and line in lifted.text.split("\n")


def test_a_text_of_very_many_names_is_not_tried_to_its_end(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("rillstep.core.grading.equations.MOST_WORKED", 3)
    found, stuck = ways_of(trials_of(POUCH))
    assert {name for way in found for name, _ in way.step} | stuck.keys() == free_numbers(POUCH).keys()
    assert stuck and all(stuck.values())


def test_a_total_is_restated_in_the_way_in_which_the_sample_counts_it() -> None:
    """Makers who count each ch-1 as a stitch go on doing so in every size."""
    text = (
        "Gauge: sc 20 sts x 20 rows = 10 cm\nNumber: chain = 48\nNumber: eyelets = 6\nBody\nCh {chain}, join into a ring.\n"
        "Rnd 1: Ch 1, sc in each ch around; join. — 48 sts\n"
        "Rnd 2: Ch 1, [sc in next 7 sts, ch 1, sk next st] {eyelets} times; join. — 48 sts\n"
        "Rnds 3-20: Ch 1, sc in each st and ch around; join. — 48 sts\n"
    )
    graded = grade_text(text, [wanted("S"), wanted("L", width=160)])
    assert graded.proof.ok and graded.notes == () and graded.text.count("— 48 (64) sts") == 3


@cache
def three_sizes() -> GradedText:
    return grade_text(PLAIN, THREE)


def test_a_graded_text_is_graded_on_and_keeps_its_other_sizes() -> None:
    three = three_sizes()
    four = grade_text(three.text, [*THREE, wanted("Extra", width=240, height=160)])
    assert four.values["base rounds"] == (8, 8, 12, 16) and four.proof.ok and four.notes == ()
    assert without_numbers(four.text) == without_numbers(three.text)
    again = [wanted("Small"), wanted("Medium"), wanted("Large")]
    assert grade_text(four.text, again).text == three.text, "sizes without targets keep what they have"
    assert grade_text(four.text, again, sample_size="Large").text == three.text


@pytest.mark.parametrize("sources", [(0, 1, 2), (0,), (2,), (2, 0), (1, 1, 0, 2), (0, 1, 2, 2, 2)])
def test_a_text_for_other_sizes_has_in_each_what_it_begins_as(sources: tuple[int, ...]) -> None:
    text = three_sizes().text
    other = resized(text, [f"S{n}" for n in range(len(sources))], sources)
    assert without_numbers(other) == without_numbers(text) and prove_text(other).ok
    before, after = read(text).pattern, read(other).pattern
    for at, source in enumerate(sources):
        assert one_size(after, at).sections == one_size(before, source).sections
    if sources == (0, 1, 2):
        assert resized(other, ["Small", "Medium", "Large"], sources) == text


def test_sizes_that_a_text_cannot_take_are_refused_with_the_line() -> None:
    text = (CORPUS / "eyepiece_pouch.txt").read_text()
    assert len(read(text).pattern.sizes) > 1
    with pytest.raises(NotResized, match="sizes"):
        resized(text, ["A", "B"], [0, 1])
    for at, name in enumerate(read(text).pattern.sizes):  # a size by itself has its own lines
        assert same_work(read(resized(text, [name], [at])).pattern, one_size(read(text).pattern, at))


def test_two_panels_that_are_alike_grow_together() -> None:
    """A front and a back: what is sewn to what stays as wide."""
    panel = "{}\nCh 41.\nRow 1: Sc in 2nd ch from hook, sc in each ch across; turn.\nRows 2-48: Ch 1, sc in each st across; turn.\n"
    text = "Gauge: sc 20 sts x 20 rows = 10 cm\n" + panel.format("Front") + panel.format("Back")
    text += "Finishing\nSew the panels together along three sides.\n"
    graded = grade_text(text, [wanted("S"), wanted("M", width=240, height=300)])
    assert graded.values == {"front chain": (41, 49), "front rows": (47, 59)} and graded.notes == ()
    assert measures(graded, "width") == (200.0, 240.0) and graded.proof.ok


def test_a_plain_text_in_two_sizes_is_carried_on_to_a_third() -> None:
    """Equal rounds of one size that differ in the other get a name each, and the sizes keep their numbers."""
    text = (
        "Gauge: sc 20 sts x 20 rows = 10 cm\nSizes: S, L\nBody\nCh 40 (60), join into a ring.\n"
        "Rnd 1: Ch 1, sc in each ch around; join. — 40 (60) sts\nRnds 2-20: Ch 1, sc in each st around; join. — 40 (60) sts\n"
        "Rnds 21-39 (30): Ch 1, BLO sc in each st around; join. — 40 (60) sts\n"
    )
    graded = grade_text(text, [wanted("S"), wanted("L"), wanted("XL", width=200)])
    assert graded.values == {"body chain": (40, 60, 80), "body rounds": (19, 19, 19), "body rounds 2": (19, 10, 19)}
    assert graded.proof.ok and graded.notes == () and measures(graded, "width") == (100.0, 150.0, 200.0)


def test_digits_in_kept_words_are_listed_and_not_touched() -> None:
    text = POUCH.replace("under 4 lamps", "under 4 lamps, of 14 rounds and 48 stitches, 1.14 m")
    graded = grade_text(text, THREE)
    assert "Made in one evening under 4 lamps, of 14 rounds and 48 stitches, 1.14 m" in graded.text
    line = next(at for at, raw in enumerate(graded.text.split("\n"), start=1) if "lamps" in raw)
    assert {(one.line, one.number, one.was) for one in graded.kept} == {
        (line, 14, "wall rounds"), (line, 48, "a total in Wall"),
    }  # fmt: skip
    assert grade_text(POUCH, THREE).kept == ()
