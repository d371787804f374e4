"""Makers of bags whose hands, yarns and scales are drawn at random: what they would weigh. Apart from the model.

The noise is fixed: tension 8 % between hands and 3 % within one, the length of each kind of stitch 10 % (of this yarn
and hook, for all makers), balls 3 % (of each maker), a scale of 1 g. Lengths of stitches are those of `yarn_path`.
"""

import random
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from tests.core import yarn_path

HANDS, WITHIN, KINDS, BALLS, SCALE_G = 0.08, 0.03, 0.10, 0.03, 1.0
THICK = 0.24  # of the width of a stitch, pressed together in the fabric

# The yarn of one stitch by its kind, from width, height of a single crochet, and thickness, in mm.
PATHS: Mapping[str, Callable[[float, float, float], float]] = {
    "chain": lambda w, h, t: yarn_path.chain(0.9 * w, t),
    "slip": lambda w, h, t: yarn_path.slip(w, t),
    "sc": yarn_path.sc,
    "hdc": lambda w, h, t: yarn_path.hdc(w, 1.5 * h, t),
    "dc": lambda w, h, t: yarn_path.dc(w, 2.1 * h, t),
    "post": lambda w, h, t: yarn_path.post_dc(w, 2.1 * h, t),
    "space": lambda w, h, t: yarn_path.sc(w, h, t, 3),
}

# Five kinds of bags: stitches of each kind in a bag of middle size, and what its swatch is worked in.
BAGS: Mapping[str, tuple[Mapping[str, int], str]] = {
    "tote": ({"hdc": 4200, "chain": 240, "slip": 70}, "hdc"),
    "pouch": ({"sc": 2600, "chain": 220, "space": 40, "slip": 45}, "sc"),
    "post wall": ({"post": 1900, "dc": 900, "slip": 40}, "dc"),
    "mesh": ({"chain": 3200, "space": 760, "sc": 420}, "sc"),
    "two panels": ({"dc": 2400, "sc": 800, "chain": 110}, "dc"),
}


@dataclass(frozen=True)
class Weights:
    """What was weighed of one bag, in g: swatch and count of its stitches; the bags of five testers; and the bags of a
    buyer and of the designer, which nobody weighed yet."""

    counts: Mapping[str, int]
    of_swatch: tuple[str, int]
    size_mm: tuple[float, float]
    grams_per_mm: float
    swatch_g: float
    testers_g: tuple[float, ...]
    buyer_g: float
    own_g: float


def weights(chance: random.Random) -> Weights:
    """A bag of one of the five kinds, made by seven makers."""
    counts, stitch = BAGS[chance.choice(list(BAGS))]
    larger = chance.uniform(0.5, 2.0)
    counts = {kind: round(many * larger) for kind, many in counts.items()}
    wide = chance.uniform(3.5, 7.5)
    high = wide * chance.uniform(0.9, 1.05)
    per_mm = chance.uniform(0.0003, 0.0009)
    kinds = {kind: chance.lognormvariate(0, KINDS) for kind in PATHS}

    def made(of: Mapping[str, int], hand: float) -> float:
        length = sum(many * PATHS[kind](wide, high, THICK * wide) * kinds[kind] for kind, many in of.items())
        return length * per_mm * hand * chance.lognormvariate(0, WITHIN)

    def hand() -> float:
        return chance.lognormvariate(0, HANDS) * chance.lognormvariate(0, BALLS)

    def shown(grams: float) -> float:
        return max(1.0, round(grams + chance.gauss(0, SCALE_G / 2)))

    designer = hand()
    many = round((120 / wide) * (120 / high))
    return Weights(
        counts, (stitch, many), (wide, high), per_mm, shown(made({stitch: many}, designer)),
        tuple(shown(made(counts, hand())) for _ in range(5)), made(counts, hand()), made(counts, designer),
    )  # fmt: skip
