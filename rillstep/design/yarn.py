"""Yarn of a design: what its swatches and weighings teach, and what each size takes, by colour and by piece."""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rillstep.core.gauge import Gauge
from rillstep.core.materials import hook_said_in
from rillstep.core.proof import Proof
from rillstep.core.tree import Again, Row
from rillstep.core.tree.changes import in_gauge_of
from rillstep.core.yarn import (
    ColourNeed,
    Extra,
    Kind,
    Known,
    Range,
    StitchSizes,
    Used,
    Weighed,
    YarnFacts,
    colour_needs,
    counted_once,
    kinds_of,
    learned,
    mix_lengths_mm,
    of_piece,
    predicted,
    prior_g,
    read_stitches,
    stitch_sizes,
    taken_g,
    tally,
    whole_need,
    with_yarns,
)
from rillstep.document import Design, Swatch, Weighing, Yarn

# A piece is in the stitch of a swatch where so much of its yarn is of its kinds.
_MOSTLY = 0.6


@dataclass(frozen=True)
class PieceNeed:
    """The yarn of one piece. basis: in words, what the estimate of its stitches stands on."""

    piece: str
    need: Range
    basis: str


@dataclass(frozen=True)
class SizeTakes:
    """What takes yarn in one size: its lines, and what is not in the text."""

    used: tuple[Used, ...]
    extras: tuple[Extra, ...]


@dataclass(frozen=True)
class SizeYarn:
    """The yarn of one size, or of some lines of it. within: lines that change colour in a way that is not followed.
    missing: pieces of which some rows are not known, so that their yarn is not in it. once: headings that are made
    several times, and whose parts are counted once."""

    colours: tuple[ColourNeed, ...]
    whole: Range
    own: Range
    pieces: tuple[PieceNeed, ...]
    within: tuple[int, ...]
    weighed: bool
    missing: tuple[str, ...] = ()
    once: tuple[str, ...] = ()

    @property
    def balls(self) -> int:
        """Whole balls of all colours."""
        return sum(one.balls for one in self.colours)

    @property
    def metres(self) -> float:
        """Metres of all colours."""
        return sum(one.metres for one in self.colours)


def rounded(one: Range) -> tuple[int, int, int]:
    """Grams as they are shown, rounded once for all: the middle to the nearest, the ends outwards."""
    return round(one.grams), math.floor(one.low_g + 1e-9), math.ceil(one.high_g - 1e-9)


def gauge_of(proof: Proof, size: int = 0) -> Gauge | None:
    """The gauge of plain stitches of a size; None for a text that names none."""
    return next(iter(in_gauge_of(proof.pattern, size).gauges), None)


_STRANDS = {"two": 2, "2": 2, "double": 2, "three": 3, "3": 3, "triple": 3, "four": 4, "4": 4}
_STRANDS_SAID = re.compile(
    r"\b(two|three|four|[234])\s+strands?\b[^.\n]{0,40}?\b(?:held\s+)?together\b|"
    r"\b(?:held|used)\s+(double|triple)\b",
    re.IGNORECASE,
)


def strands_said(text: str) -> int:
    """How many strands a text says are held together; 1 where it says nothing of it."""
    match = _STRANDS_SAID.search(text)
    return _STRANDS[(match[1] or match[2]).lower()] if match is not None else 1


def label_facts(yarn: Yarn, strands: int | None = None, said: int = 1) -> YarnFacts | None:
    """What is known of a yarn: by a length that was measured and weighed, or by its label; None without metres. said:
    how many strands the text holds together, where the label is kept with one."""
    held = strands or max(yarn.strands, said)
    if yarn.measured_m is not None and yarn.measured_g is not None:
        return YarnFacts(
            yarn.grams_per_ball, yarn.grams_per_ball * yarn.measured_m / yarn.measured_g, held, yarn.carried
        )
    if yarn.metres_per_ball is None:
        return None
    return YarnFacts(yarn.grams_per_ball, yarn.metres_per_ball, held, yarn.carried)


def yarns_of(design: Design) -> dict[str, YarnFacts]:
    """What is known of the yarn of each colour; under no colour that of all others. Empty where one has no metres."""
    said = strands_said(design.text)
    found = {yarn.colour: facts for yarn in design.yarns if (facts := label_facts(yarn, said=said)) is not None}
    if not found or len(found) < len(design.yarns):
        return {}
    return {"": next(iter(found.values())), **found}


def hook_of(design: Design, proof: Proof) -> float | None:
    """The hook of a design in mm: as its text says, or as it is kept beside it; None where neither says one."""
    said = hook_said_in(proof.pattern)
    return design.hook_mm if said is None else said


def in_other_hook(design: Design, hook_mm: float | None, swatch: Swatch) -> bool:
    """Whether a swatch was made with a hook that the text does not use: then its stitches are of another size."""
    own = swatch.hook_mm
    return own is not None and hook_mm is not None and own != hook_mm and f"{own:g} mm" not in design.text


def own_sizes_of(design: Design, hook_mm: float | None) -> dict[Kind, tuple[float, float]]:
    """Width and height of a stitch in mm by kinds that are not plain, as their swatches were measured."""
    found: dict[Kind, tuple[float, float]] = {}
    for swatch in design.swatches:
        if in_other_hook(design, hook_mm, swatch):
            continue
        mix = read_stitches(swatch.stitch)
        kinds = set(kinds_of(mix))
        if mix.plain is None and len(kinds) == 1 and "chain" not in kinds:
            found[kinds.pop()] = (swatch.width_mm / swatch.stitches, swatch.height_mm / swatch.rows)
    return found


def _swatch_sizes(swatch: Swatch, gauge: Gauge | None) -> StitchSizes:
    """How large the stitches of a swatch are: as it was measured."""
    width, height = swatch.width_mm / swatch.stitches, swatch.height_mm / swatch.rows
    mix = read_stitches(swatch.stitch)
    own = dict.fromkeys(kinds_of(mix), (width, height))
    plain = Gauge(mix.plain, width, height) if mix.plain is not None else gauge or Gauge("sc", width, width)
    return StitchSizes(plain, width if "chain" in own else 0.9 * width, own)


def _swatch_weighed(design: Design, at: int, gauge: Gauge | None) -> Weighed | None:
    swatch = design.swatches[at]
    yarn = next((one for one in design.yarns if one.colour == swatch.yarn), design.yarns[0] if design.yarns else None)
    facts = label_facts(yarn, swatch.strands) if yarn is not None else None
    if facts is None or swatch.weight_g <= 0:
        return None
    mix = read_stitches(swatch.stitch)
    lengths = mix_lengths_mm(mix, swatch.stitches * swatch.rows, _swatch_sizes(swatch, gauge))
    per_mm = facts.grams_per_mm
    return Weighed(
        {kind: mm * per_mm for kind, mm in lengths.items()}, swatch.weight_g, said=f"the swatch in {swatch.stitch}"
    )


def known_of(design: Design, proof: Proof, yarns: Mapping[str, YarnFacts], takes: Sequence[SizeTakes]) -> Known:
    """What swatches and weighings teach of this yarn and these hands; the priors where there are none."""
    if not yarns:
        return learned(())
    gauge = gauge_of(proof)
    found = [one for at in range(len(design.swatches)) if (one := _swatch_weighed(design, at, gauge)) is not None]
    away: list[str] = []
    for weighing in design.weighings:
        weighed = _weighed(proof, yarns, weighing, takes)
        if weighed is not None:
            found.append(weighed)
        elif gauge is not None:  # its size, its piece or its colour is not there, or more is left than there was
            away.append(_said(weighing))
    known = learned(found)
    return replace(known, doubted=(*known.doubted, *away))


def _said(weighing: Weighing) -> str:
    """What was weighed, in words."""
    what = f"{weighing.pieces} of {weighing.of}" if weighing.of and weighing.pieces else weighing.of or "the bag"
    return f"{what} in {weighing.size}" + (f" by {weighing.maker}" if weighing.maker else "")


def _weighed(
    proof: Proof, yarns: Mapping[str, YarnFacts], weighing: Weighing, takes: Sequence[SizeTakes]
) -> Weighed | None:
    """A weighing of what was made from the text; None where its size or its piece is not there any more."""
    names = [name.lower() for name in proof.pattern.sizes]
    if weighing.size.lower() not in names:
        return None
    size = names.index(weighing.size.lower())
    used, extras = list(takes[size].used), list(takes[size].extras)
    if weighing.of:
        used, extras = of_piece(used, weighing.of), []
    if weighing.colour:
        used = [one for one in used if one.colour.lower() == weighing.colour.lower()]
        extras = [one for one in extras if one.colour.lower() == weighing.colour.lower()]
    if not used:
        return None
    grams = weighing.grams
    if weighing.balls:
        grams = weighing.balls * yarns.get(weighing.colour, yarns[""]).grams_per_ball - weighing.grams
    made = next((one.made(size) for one in proof.pattern.sections if one.title == weighing.of), 1)
    share = weighing.pieces / made if weighing.of and weighing.pieces else 1.0
    if grams <= 0 or share > 1:
        return None
    taken = {kind: share * own for kind, own in taken_g(used, extras, yarns).items()}
    return Weighed(taken, grams, weighing.maker, _said(weighing))


def takes_of(design: Design, proof: Proof, own_sizes: Mapping[Kind, tuple[float, float]]) -> tuple[SizeTakes, ...]:
    """What takes yarn in each size."""
    return tuple(
        SizeTakes(_used(design, proof, size, own_sizes), _extras(design, proof, size))
        for size in range(len(proof.works))
    )


def _used(design: Design, proof: Proof, size: int, own_sizes: Mapping[Kind, tuple[float, float]]) -> tuple[Used, ...]:
    """What each line of a size takes; empty where the text names no gauge."""
    sizes = stitch_sizes(proof.pattern, size, dict(own_sizes))
    if sizes is None:
        return ()
    return tuple(with_yarns(tally(proof.pattern, proof.works[size], sizes), [yarn.colour for yarn in design.yarns]))


def _extras(design: Design, proof: Proof, size: int) -> tuple[Extra, ...]:
    """What else takes yarn in a size; what follows a measure that is not known is left out."""
    measures = {one.called: one.mm[size] for one in (proof.bag.measures if proof.bag is not None else ())}
    known = {yarn.colour.lower(): yarn.colour for yarn in design.yarns}
    return tuple(
        Extra(one.kind, length, one.count, known.get(one.colour.lower(), ""))
        for one in design.extras
        if (length := measures.get(one.measure) if one.measure else one.length_mm) is not None
    )


def is_weighed(design: Design) -> bool:
    """Whether anything was weighed."""
    return bool(design.weighings) or any(swatch.weight_g > 0 for swatch in design.swatches)


def yarn_need(
    design: Design,
    proof: Proof,
    size: int,
    takes: SizeTakes,
    yarns: Mapping[str, YarnFacts],
    known: Known,
    lines: tuple[int, int] | None = None,
) -> SizeYarn | None:
    """Yarn for one size: for all lines (with what else takes yarn) or for a range of line numbers; None where gauge or
    yarn is not known."""
    every = takes.used if yarns else ()
    used = [one for one in every if lines is None or lines[0] <= one.line <= lines[1]]
    if not used:
        return None
    needs = colour_needs(used, takes.extras if len(used) == len(every) else (), yarns, known)
    own = Range(*(sum(getattr(one.own, end) for one in needs) for end in ("grams", "low_g", "high_g")))
    pieces = tuple(
        PieceNeed(piece, predicted(known, prior_g(of_piece(used, piece), yarns)), _basis(design, of_piece(used, piece)))
        for piece in dict.fromkeys(one.piece for one in used)
    )
    return SizeYarn(
        needs, whole_need(needs), own, pieces, tuple(one.line for one in used if one.within), is_weighed(design),
        _missing(proof, size), counted_once(proof.pattern),
    )  # fmt: skip


def _missing(proof: Proof, size: int) -> tuple[str, ...]:
    """The pieces of which some rows could not be worked."""
    sections = proof.pattern.sections
    unknown = [
        line
        for line in proof.works[size].lines
        if isinstance(line.line, Row | Again) and not (line.rounds or line.stated) and line.line.rounds(size) > 0
    ]
    return tuple(dict.fromkeys(sections[line.section].title for line in unknown))


def _share(used: Sequence[Used], stitch: str) -> float:
    """How much of the yarn of some lines is in the kinds of a swatch's stitch."""
    lengths: dict[Kind, float] = {}
    for one in used:
        for kind, mm in one.lengths_mm.items():
            lengths[kind] = lengths.get(kind, 0.0) + mm
    whole = sum(lengths.values())
    return sum(lengths.get(kind, 0.0) for kind in set(kinds_of(read_stitches(stitch)))) / whole if whole else 0.0


def is_mostly_in(takes: Sequence[SizeTakes], stitch: str) -> bool:
    """Whether the bag is mostly worked in the stitch of a swatch."""
    return _share(takes[0].used, stitch) >= _MOSTLY


def _basis(design: Design, used: Sequence[Used]) -> str:
    """What the estimate of a piece stands on, in words."""
    weighed = [swatch.stitch for swatch in design.swatches if swatch.weight_g > 0]
    for stitch in weighed:
        if _share(used, stitch) >= _MOSTLY:
            return f"from the swatch in {stitch}"
    if any(not one.of or one.of == used[0].piece for one in design.weighings):
        return "from what was weighed of it"
    return f"estimated from the swatch in {weighed[0]}" if weighed else "by usual values"
