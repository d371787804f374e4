"""What is worked of each kind, by line, piece and colour, with the length of yarn that it takes before anything was
weighed."""

import re
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from rillstep.core.craft import BY_US, GATHERED, basic, is_post
from rillstep.core.fabric import SizeWork
from rillstep.core.fabric.worked_lines import LineWork
from rillstep.core.gauge import Gauge, chain_width_mm
from rillstep.core.tree import Again, Gesture, Next, Pattern, Repeat, Row, Step, Together, Work, words_of
from rillstep.core.tree.changes import in_gauge_of
from rillstep.core.yarn.priors import PRIORS, Kind
from rillstep.core.yarn.stitch_mix import StitchMix

# One colour, where the text names none.
NO_COLOUR = ""
_SHORT = {"sc": "sc", "rsc": "sc", "esc": "sc", "hdc": "hdc"}
# A step that goes all around stands for more stitches than one that is counted; how many more is not known here.
_ALL_AROUND = 12
_STRIPES = re.compile(r"(\d{1,4})\s+(?:rows?|rounds?|rnds?)\s+(?:in|with)\s+(?:colou?r\s+)?(\w+)", re.IGNORECASE)
_NEXT_COLOUR = re.compile(r"\bchang(?:e|ing)\s+to\s+(?:colou?r\s+)?(\w+)", re.IGNORECASE)


@dataclass(frozen=True)
class Used:
    """What one line takes in one colour: the length of yarn by kind, in mm of one strand, and how many stitches.

    piece: the title of its section. within: the line changes its colour in a way that is not followed, and is counted
    as the colour that it begins with.
    """

    line: int
    piece: str
    colour: str
    lengths_mm: Mapping[Kind, float]
    stitches: int
    within: bool = False
    changes: int = 0  # tails at the beginning of another colour, but for the first


@dataclass(frozen=True)
class StitchSizes:
    """How large stitches are, in mm: by the gauge of plain stitches, and where a swatch in the same kind was measured,
    by that. chain_mm: the width of a chain."""

    gauge: Gauge
    chain_mm: float
    own_mm: Mapping[Kind, tuple[float, float]] = field(default_factory=dict)

    def of_mm(self, stitch: str, kind: Kind) -> float:
        """Width and height of a stitch together."""
        if kind in self.own_mm:
            return sum(self.own_mm[kind])
        return self.gauge.width_mm + self.gauge.height_of_mm(basic(stitch).us)


def kind_of(stitch: str, build: str = "") -> Kind:
    """The kind of a stitch by its US name; build: "space" or "loop" where it is worked into one."""
    if stitch == "ch":
        return "chain"
    if stitch == "sl st":
        return "slip"
    if is_post(stitch):
        return "post"
    if stitch in GATHERED or stitch not in BY_US:
        return "group"
    if build == "space":
        return "space"
    if build == "loop":
        return "loop"
    return "sc" if _SHORT.get(stitch) == "sc" else "hdc" if stitch == "hdc" else "dc"


def length_mm(stitch: str, kind: Kind, sizes: StitchSizes) -> float:
    """The yarn in one stitch, by the priors, in mm."""
    prior = PRIORS[kind]
    if kind == "chain":
        return prior.ratio * sizes.chain_mm
    if kind == "slip":
        return prior.ratio * sizes.gauge.width_mm
    plain = PRIORS[kind_of(basic(stitch).us)].ratio if prior.of_plain else 1.0
    return prior.ratio * plain * sizes.of_mm(stitch, kind)


def kinds_of(mix: StitchMix) -> tuple[Kind, ...]:
    """The kind of each stitch of a mix, in order."""
    build = "loop" if mix.loop != "both" else ""
    return tuple(kind_of(stitch, build) for stitch, _ in mix.stitches)


def mix_lengths_mm(mix: StitchMix, count: float, sizes: StitchSizes) -> dict[Kind, float]:
    """The yarn of so many stitches of a mix, by kind, in mm."""
    found: dict[Kind, float] = {}
    for (stitch, many), kind in zip(mix.stitches, kinds_of(mix), strict=True):
        found[kind] = found.get(kind, 0.0) + count * many / mix.total * length_mm(stitch, kind, sizes)
    return found


def stitch_sizes(
    pattern: Pattern, size: int, own_mm: Mapping[Kind, tuple[float, float]] | None = None
) -> StitchSizes | None:
    """How large the stitches of a size are; None where the text names no gauge."""
    of_size = in_gauge_of(pattern, size)
    gauge = next(iter(of_size.gauges), None)
    if gauge is None:
        return None
    chain = chain_width_mm(of_size.gauges, of_size.own_gauges)
    return StitchSizes(gauge, chain[0] if chain else gauge.width_mm, own_mm or {})


def tally(pattern: Pattern, work: SizeWork, sizes: StitchSizes) -> tuple[Used, ...]:
    """What each line of a size takes, in the order of the text; a piece that is made several times takes as much each
    time."""
    found: list[Used] = []
    colour = NO_COLOUR
    for line in work.lines:
        section = pattern.sections[line.section]
        made, piece = section.made(work.size), section.title
        if isinstance(line.line, Again) and (stripes := _striped(line)):
            found += _in_stripes(line, piece, made, stripes, sizes)
            colour = stripes[-1][1]
            continue
        begins, ends, within = _colours(line, colour)
        lengths, stitches = _lengths(line, made, sizes)
        if lengths:
            found.append(
                Used(
                    line.line.span.line, piece, begins, lengths, stitches, within, int(begins != colour and bool(found))
                )
            )
        colour = ends
    return tuple(found)


def _striped(line: LineWork) -> list[tuple[int, str]]:
    """How many rows each colour has in turn, where words say it of rows that are worked again."""
    found = [(int(many), colour) for words in words_of(line.line) for many, colour in _STRIPES.findall(words)]
    return [(many, colour) for many, colour in found if many]


def _in_stripes(
    line: LineWork, piece: str, made: int, stripes: Sequence[tuple[int, str]], sizes: StitchSizes
) -> Iterator[Used]:
    lengths, stitches = _lengths(line, made, sizes)
    order = [colour for many, colour in stripes for _ in range(many)]
    rows = Counter(order[at % len(order)] for at in range(len(line.rounds)))
    for colour, many in rows.items():
        share = many / max(1, len(line.rounds))
        own = {kind: mm * share for kind, mm in lengths.items()}
        yield Used(line.line.span.line, piece, colour, own, round(stitches * share), False, many)


def _colours(line: LineWork, colour: str) -> tuple[str, str, bool]:
    """The colour that a line is worked in, the one that the next begins with, and whether it changes within."""
    begins, ends, within = colour, colour, False
    steps = list(line.steps)
    worked = False
    for at, step in enumerate(steps):
        if isinstance(step, Gesture) and step.kind in ("change colour", "join colour") and step.name:
            named = step.name.removeprefix("colour ").strip()
            ends = named
            if not worked:
                begins = named
            elif any(isinstance(other, Work | Together | Repeat) for other in steps[at + 1 :]):
                within = True
        elif isinstance(step, Repeat) and any(isinstance(g, Gesture) and "colour" in g.kind for g in step.steps):
            within = worked = True
        elif isinstance(step, Work | Together | Repeat):
            worked = True
    for words in words_of(line.line):
        if (after := _NEXT_COLOUR.search(words)) is not None:
            ends = after[1]
    return begins, ends, within


def _lengths(line: LineWork, made: int, sizes: StitchSizes) -> tuple[dict[Kind, float], int]:
    """The yarn of a line by kind, in mm, and its stitches."""
    found: dict[Kind, float] = {}

    def add(stitch: str, kind: Kind, many: float) -> None:
        if many:
            found[kind] = found.get(kind, 0.0) + many * length_mm(stitch, kind, sizes)

    if not isinstance(line.line, Row | Again):
        add("ch", "chain", made * line.end.count("ch") if line.end.foundation else 0)
        return found, 0
    builds = _builds(line.steps, line.size)
    count: Counter[str] = Counter()
    for counts in line.rounds:
        count.update({stitch: made * many for stitch, many in counts.stitches})
    for stitch, many in count.items():
        shares = builds.get(stitch) or {"": 1.0}
        whole = sum(shares.values())
        for build, share in shares.items():
            add(stitch, kind_of(stitch, build), many * share / whole)
    if line.last is not None:
        add("ch", "chain", made * line.last.chains * len(line.rounds))
        joined = any(isinstance(step, Gesture) and step.kind == "join" for step in line.steps)
        add("sl st", "slip", made * len(line.rounds) if joined else 0)
    return found, sum(count.values())


def _builds(steps: Sequence[Step], size: int) -> dict[str, dict[str, float]]:
    """In what share each stitch of a line is worked into spaces, into one loop, or as usual ("")."""
    found: dict[str, dict[str, float]] = {}
    for step in _works(steps):
        what = getattr(step.into, "what", None)
        space = what is not None and "sp" in str(what.kind)
        build = "space" if space else "loop" if step.loop in ("front", "back") else ""
        count = _number(step.into.count.values, size) if isinstance(step.into, Next) else _ALL_AROUND
        own = found.setdefault(step.stitch, {})
        own[build] = own.get(build, 0.0) + _number(step.per.values, size) * count
    return found


def _number(values: Sequence[int | None], size: int) -> int:
    return max(1, values[size] or 1) if size < len(values) else 1


def _works(steps: Sequence[Step]) -> Iterator[Work]:
    for step in steps:
        if isinstance(step, Work):
            yield step
        elif isinstance(step, Repeat):
            yield from _works(step.steps)
