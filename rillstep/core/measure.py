"""From worked rounds to centimetres: bases, walls, handle openings.

Sources of the formulas: a flat disc or oval end of n rounds has the radius n h; an oval with
straight sides of s stitches is s w + 2 n h long and 2 n h wide, and lies flat where N w
equals its outline 2 s w + 2 pi n h. A wall of N stitches lies N w / 2 wide. A strap that
hangs d below two points a apart is 2 sqrt(d^2 + (a/2)^2) long.
"""

import math
import re
from dataclasses import dataclass

from rillstep.core.fabric import MOST_ROUNDS, Counts, LineWork, SizeWork
from rillstep.core.gauge import Gauge
from rillstep.core.stitches import basic
from rillstep.core.tree import Again, Chain, FromHook, Gesture, Pattern, Row, Section, Skip, Work
from rillstep.core.tree.features import Opening, main_stitch

# A worked chain or strap grows this much under a usual load. A default, named as such
# wherever it is used, until a strap has been hung and measured.
HANDLE_STRETCH = 0.05
FLAT_LOW, FLAT_HIGH = 0.95, 1.05
# A base in another stitch than the swatch is measured by an estimated height: only what is far off is told of it.
ESTIMATED_LOW, ESTIMATED_HIGH = 0.85, 1.15


@dataclass(frozen=True)
class RoundShape:
    """One round in one size. Widths and heights in mm.

    sts: stitches around; a handle opening's chains are not part of the body's `width_mm`.
    gap_mm: width of the handle opening in the front, 0 where there is none.
    flatness: only for the rounds of a base; about 0.95 to 1.05 lies flat.
    """

    line: int
    section: int
    number: int
    stitch: str
    sts: int
    width_mm: float
    height_mm: float
    gap_mm: float = 0.0
    flatness: float | None = None


@dataclass(frozen=True)
class SizeShape:
    """One size of a bag, measured from its worked rounds. All in mm."""

    rounds: tuple[RoundShape, ...]
    straight_mm: float = 0.0
    base_length_mm: float = 0.0
    base_depth_mm: float = 0.0
    width_mm: float = 0.0
    height_mm: float = 0.0
    openings: tuple[Opening, ...] = ()
    handle_mm: float = 0.0
    drop_mm: float = 0.0


def round_height_mm(gauge: Gauge, stitch: str) -> float:
    """Height of a round of a stitch in mm; estimated when the swatch is in another stitch."""
    return gauge.height_mm if basic(stitch).us == gauge.stitch else gauge.height_of_mm(basic(stitch).us)


def drop_of(chain: int, skip: int, gauge: Gauge, allowance_mm: float = 0.0) -> float:
    """Drop in mm of a loaded handle of `chain` chains over `skip` skipped stitches (0 if it is pulled tight)."""
    half = (chain * gauge.chain_mm * (1 + HANDLE_STRETCH) - allowance_mm) / 2
    across = skip * gauge.width_mm / 2
    return math.sqrt(half * half - across * across) if half > across else 0.0


def handle_length_mm(drop_mm: float, gap_mm: float, allowance_mm: float = 0.0) -> float:
    """Worked (unloaded) length in mm of a handle for a drop, over a gap, with an allowance for the shoulder."""
    loaded = 2 * math.sqrt(drop_mm**2 + (gap_mm / 2) ** 2) + allowance_mm
    return loaded / (1 + HANDLE_STRETCH)


def oval_flatness(sts: int, radius_mm: float, straight: float, gauge: Gauge) -> float:
    """Stitches there are over stitches that the outline has room for: `radius_mm` is the height of all rounds of an
    oval or disc."""
    outline = 2 * straight * gauge.width_mm + 2 * math.pi * radius_mm
    return sts * gauge.width_mm / outline


def straight_stitches(works: list[LineWork], size: int) -> int:
    """Stitches of the straight side of an oval: the chains worked into, less the two ends."""
    chains = 0
    for work in works:
        if not isinstance(work.line, Row):
            chains = work.end.count("ch")
            continue
        for step in work.line.steps:
            match step:
                case Gesture():
                    pass
                case Chain(length=length):  # a foundation that is made in the first round itself
                    chains = length.at(size)
                case Work(into=FromHook(nth=nth)):
                    return max(0, chains - nth.at(size) + 1 - 2)
                case Skip(count=count):  # "skip first ch, sc in next 16 ch"
                    return max(0, chains - count.at(size) - 2)
                case _:
                    break
    return 0


def _rounds(line: LineWork, size: int) -> tuple[Counts, ...]:
    """The counts of each round of a line; the stated ones where it could not be worked as it says.

    So one wrong number in a round does not make the whole bag measure wrong as well.
    """
    assert isinstance(line.line, Row | Again)
    if not line.stated:
        return line.rounds
    return (line.end.counts(),) * min(max(0, line.line.rounds(size)), MOST_ROUNDS)


# What is never the body of a bag, by its name.
BESIDE = re.compile(
    r"\b(?:strap|handle|cord|tie|drawstring|strip|band|belt|loop|gusset|pocket|trim|tassel|edging|i-cord)s?\b",
    re.IGNORECASE,
)


def is_beside(section: Section) -> bool:
    """Whether a piece is no part of a bag's body: a strap, a cord, a gusset, a pocket, a trim. What goes on from
    another piece ("Handles" that are worked in the wall) belongs to it, whatever it is called."""
    named = section.continues is None and BESIDE.search(section.title) is not None
    return section.role in ("strip", "tube", "trim") or named


def measure(pattern: Pattern, work: SizeWork, gauge: Gauge, allowance_mm: float = 0.0) -> SizeShape:
    """Measure one size of a pattern from its worked rounds."""
    rounds: list[RoundShape] = []
    straight = 0
    radius_mm = 0.0
    openings: tuple[Opening, ...] = ()
    width_mm = height_mm = 0.0
    has_body = any(not is_beside(section) for section in pattern.sections)
    for index, section in enumerate(pattern.sections):
        if has_body and is_beside(section):
            continue
        works = [w for w in work.lines if w.section == index]
        base = section.role in ("disc", "oval")
        if base:
            straight = straight_stitches(works, work.size) if section.role == "oval" else 0
        for line in works:
            if not isinstance(line.line, Row | Again):
                continue
            stitch = main_stitch(line.steps) or gauge.stitch
            tall = round_height_mm(gauge, stitch)
            found = line.openings
            openings = openings or found
            for offset, counts in enumerate(_rounds(line, work.size)):
                number = line.line.first.at(work.size) + offset
                if base:
                    radius_mm += tall
                    flat = oval_flatness(counts.sts, radius_mm, straight, gauge)
                    shape = RoundShape(
                        line.line.span.line, index, number, stitch, counts.sts,
                        straight * gauge.width_mm + 2 * radius_mm, tall, 0.0, flat,
                    )  # fmt: skip
                else:
                    body = counts.sts if not openings else counts.sts + counts.chains
                    if not openings:
                        width_mm = counts.sts * gauge.width_mm / 2
                    height_mm += tall
                    gap = openings[0].skip * gauge.width_mm if openings else 0.0
                    shape = RoundShape(
                        line.line.span.line, index, number, stitch, body, width_mm, tall, gap, None
                    )  # fmt: skip
                rounds.append(shape)
    chain = openings[0].chain if openings else 0
    return SizeShape(
        tuple(rounds),
        straight * gauge.width_mm,
        straight * gauge.width_mm + 2 * radius_mm if radius_mm else 0.0,
        2 * radius_mm,
        width_mm,
        height_mm,
        openings,
        chain * gauge.chain_mm,
        drop_of(chain, openings[0].skip, gauge, allowance_mm) if openings else 0.0,
    )
