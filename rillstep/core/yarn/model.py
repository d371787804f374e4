"""What weighings teach of the yarn: a small Gaussian model of how far off the priors are.

The weight of a piece is the sum of its lengths by kind, each times what the kind is off (r), times what the hand of its
maker is off (u), and noise. On the scale of logarithms that is linear to first order (what is off is a tenth or so), so
knowledge of all r and u is one normal distribution, and each weighing changes it by the usual rule for a linear
observation (the update of Kalman's filter, which is Bayes' rule for normal distributions). The sums by kind are weighed
by their shares at what is known so far.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from rillstep.core.yarn.priors import BALLS, BETWEEN_HANDS, PRIORS, SCALE_G, WITHIN_HAND, Kind

# Two-sided 90 %.
Z90 = 1.6449
# The one who designed the bag, among its makers.
OWN_HAND = ""
# A weighing further off than so many standard deviations is not of what it is said to be.
FAR_OFF = 4.0


@dataclass(frozen=True)
class Weighed:
    """A weighing: of what it takes by kind, in g by the priors, and what the scale showed. maker: whose hand; said: how
    it is called where it is spoken of. scale_g: the error of the scale, more where several readings are in it."""

    prior_g: Mapping[Kind, float]
    grams: float
    maker: str = OWN_HAND
    said: str = ""
    scale_g: float = SCALE_G


@dataclass(frozen=True)
class Range:
    """Grams: the middle, and the ends of a 90 % prediction interval."""

    grams: float
    low_g: float
    high_g: float
    sd: float = 0.0

    def likely_within(self, grams: float) -> float:
        """How likely so many grams are enough, from 0 to 1."""
        if grams <= 0 or self.grams <= 0:
            return 0.0 if self.grams > 0 else 1.0
        z = math.log(grams / self.grams) / max(self.sd, 1e-9)
        return 0.5 * (1 + math.erf(z / math.sqrt(2)))


@dataclass(frozen=True)
class Known:
    """What is known of kinds and hands: means and covariances of their logarithms, by name. doubted: weighings that
    cannot be of what they are said to be, and taught nothing."""

    names: tuple[str, ...]
    mean: tuple[float, ...]
    cov: tuple[tuple[float, ...], ...]
    doubted: tuple[str, ...] = ()

    def factor(self, kind: Kind) -> float:
        """What a kind takes against its prior, in the hand of the designer."""
        hand = self.names.index(_hand(OWN_HAND))
        return math.exp(self.mean[self.names.index(kind)] + self.mean[hand])


def _hand(maker: str) -> str:
    return f"hand of {maker}"


def learned(weighings: Sequence[Weighed]) -> Known:
    """What is known after these weighings; without any, the priors. Those that cannot be are named and left out."""
    makers = tuple(dict.fromkeys((OWN_HAND, *(one.maker for one in weighings))))
    names = (*PRIORS, *(_hand(maker) for maker in makers))
    hand_var = BETWEEN_HANDS**2 + BALLS**2
    variances = [*(prior.sd**2 for prior in PRIORS.values()), *(hand_var for _ in makers)]
    mean = [0.0] * len(names)
    cov = [[variances[i] if i == j else 0.0 for j in range(len(names))] for i in range(len(names))]
    doubted: list[str] = []
    for one in weighings:
        if one.grams <= 0 or sum(one.prior_g.values()) <= 0:
            continue
        guess, along = _along(names, mean, one.prior_g, one.maker)
        noise = WITHIN_HAND**2 + (one.scale_g / one.grams) ** 2
        spread = [sum(c * a for c, a in zip(row, along, strict=True)) for row in cov]
        total = sum(s * a for s, a in zip(spread, along, strict=True)) + noise
        missed = math.log(one.grams / guess)
        if abs(missed) > FAR_OFF * math.sqrt(total):
            doubted.append(one.said)
            continue
        mean = [m + s / total * missed for m, s in zip(mean, spread, strict=True)]
        cov = [
            [c - si * sj / total for c, sj in zip(row, spread, strict=True)]
            for row, si in zip(cov, spread, strict=True)
        ]
    return Known(names, tuple(mean), tuple(map(tuple, cov)), tuple(doubted))


def _along(
    names: Sequence[str], mean: Sequence[float], prior_g: Mapping[Kind, float], maker: str | None
) -> tuple[float, list[float]]:
    """The grams at what is known, and how its logarithm changes with each of the unknown. maker: None for one whose
    hand is not known."""
    at = {name: index for index, name in enumerate(names)}
    grams = {kind: g * math.exp(mean[at[kind]]) for kind, g in prior_g.items()}
    whole = sum(grams.values())
    along = [0.0] * len(names)
    for kind, g in grams.items():
        along[at[kind]] = g / whole
    hand = at.get(_hand(maker)) if maker is not None else None
    if hand is not None:
        along[hand] = 1.0
        whole *= math.exp(mean[hand])
    return whole, along


def predicted(known: Known, prior_g: Mapping[Kind, float], own: bool = False) -> Range:
    """What something takes that is in g by the priors so much: in another maker's hand, or in the designer's own."""
    if sum(prior_g.values()) <= 0:
        return Range(0.0, 0.0, 0.0)
    grams, along = _along(known.names, known.mean, prior_g, OWN_HAND if own else None)
    spread = sum(
        along[i] * along[j] * known.cov[i][j]
        for i in range(len(along))
        if along[i]
        for j in range(len(along))
        if along[j]
    )
    var = spread + WITHIN_HAND**2 + (0.0 if own else BETWEEN_HANDS**2 + BALLS**2)
    sd = math.sqrt(max(0.0, var))
    return Range(grams, grams * math.exp(-Z90 * sd), grams * math.exp(Z90 * sd), sd)
