"""What weighings teach: intervals that hold, for another maker and for the designer; and the priors against a path."""

import random
import statistics

import pytest

from rillstep.core.gauge import Gauge
from rillstep.core.yarn import PRIORS, Kind, Range, StitchSizes, Weighed, learned, length_mm, predicted
from tests.core import yarn_path
from tests.core.simulated_makers import Weights, weights

STITCH = {"chain": "ch", "slip": "sl st", "sc": "sc", "hdc": "hdc", "dc": "dc", "post": "FPdc", "space": "sc"}


def by_priors(of: dict[str, int], made: Weights) -> dict[Kind, float]:
    """Grams by kind as the model has them: from the gauge, and the usual ratios."""
    wide, high = made.size_mm
    sizes = StitchSizes(Gauge("sc", wide, high), 0.9 * wide)
    return {
        kind: many * length_mm(STITCH[kind], kind, sizes) * made.grams_per_mm  # type: ignore[misc, arg-type]
        for kind, many in of.items()
    }


def answers(made: Weights) -> dict[str, tuple[Range, float]]:
    """The range for each kind of knowledge, with what it came to."""
    bag = by_priors(dict(made.counts), made)
    stitch, many = made.of_swatch
    swatch = Weighed(by_priors({stitch: many}, made), made.swatch_g)
    testers = [Weighed(bag, grams, f"tester {at}") for at, grams in enumerate(made.testers_g)]
    return {
        "no weighing": (predicted(learned([]), bag), made.buyer_g),
        "one swatch": (predicted(learned([swatch]), bag), made.buyer_g),
        "five testers": (predicted(learned([swatch, *testers]), bag), made.buyer_g),
        "her own, one swatch": (predicted(learned([swatch]), bag, own=True), made.own_g),
    }


def test_nine_of_ten_bags_come_out_within_the_interval(capsys: pytest.CaptureFixture[str]) -> None:
    chance = random.Random(20261128)
    held: dict[str, list[bool]] = {}
    off: dict[str, list[float]] = {}
    for _ in range(2000):
        for known, (found, grams) in answers(weights(chance)).items():
            held.setdefault(known, []).append(found.low_g <= grams <= found.high_g)
            off.setdefault(known, []).append(abs(found.grams / grams - 1))
    with capsys.disabled():
        print()
        for known in held:
            share, error = statistics.mean(held[known]), statistics.median(off[known])
            print(f"{known}: {100 * share:.1f} % within, median error {100 * error:.1f} %")
    assert all(0.88 <= statistics.mean(each) <= 0.92 for each in held.values())


def test_the_priors_are_near_a_path_that_is_followed() -> None:
    for wide in (3.5, 5.0, 7.0):
        for thick in (0.2 * wide, 0.28 * wide):
            high = 0.97 * wide
            sizes = StitchSizes(Gauge("sc", wide, high), 0.9 * wide)
            followed = {
                "chain": yarn_path.chain(0.9 * wide, thick),
                "slip": yarn_path.slip(wide, thick),
                "sc": yarn_path.sc(wide, high, thick),
                "hdc": yarn_path.hdc(wide, 1.5 * high, thick),
                "dc": yarn_path.dc(wide, 2.1 * high, thick),
                "post": yarn_path.post_dc(wide, 2.1 * high, thick),
                "space": yarn_path.sc(wide, high, thick, 3),
            }
            for kind, mm in followed.items():
                prior = length_mm(STITCH[kind], kind, sizes)  # type: ignore[arg-type]
                assert prior == pytest.approx(mm, rel=0.2), kind


def test_a_weighing_moves_what_is_like_it_the_most() -> None:
    known = learned([Weighed({"post": 50.0}, 60.0)])
    assert known.factor("post") > known.factor("dc") > 1.0
    assert predicted(known, {"post": 100.0}, own=True).grams > predicted(known, {"sc": 100.0}, own=True).grams


def test_more_weighings_make_the_interval_narrower_and_never_wider() -> None:
    bag: dict[Kind, float] = {"hdc": 200.0, "chain": 20.0}
    widths = []
    for many in range(6):
        found = predicted(learned([Weighed(bag, 220.0, f"maker {at}") for at in range(many)]), bag)
        widths.append(found.high_g / found.low_g)
    assert widths == sorted(widths, reverse=True)


def test_a_weighing_of_something_else_teaches_nothing_and_is_named() -> None:
    bag: dict[Kind, float] = {"hdc": 200.0}
    known = learned([Weighed(bag, 40.0, said="the wall of S")])
    assert known.doubted == ("the wall of S",)
    assert predicted(known, bag) == predicted(learned([]), bag)


def test_a_kit_is_enough_with_a_chance() -> None:
    found = predicted(learned([]), {"hdc": 200.0})
    assert found.likely_within(found.grams) == pytest.approx(0.5)
    assert found.likely_within(found.high_g) == pytest.approx(0.95, abs=0.001)
    assert found.likely_within(found.low_g) == pytest.approx(0.05, abs=0.001)


def test_each_prior_says_where_it_is_from() -> None:
    assert all(prior.source.startswith(("path: ", "estimate: ")) and 0 < prior.sd < 0.3 for prior in PRIORS.values())
