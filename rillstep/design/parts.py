"""The parts of a crochet-along: the pattern cut, what each part needs, and what the work looks like at its end."""

from collections.abc import Sequence

from rillstep.core.parts import Checkpoint, Divided, Part, divide
from rillstep.core.proof import Proof
from rillstep.core.words.numbers import set_text
from rillstep.design.proving import allowance_of
from rillstep.design.yarn import SizeYarn, rounded
from rillstep.design.yarn_answers import yarn_called
from rillstep.document import Design


def division_of(design: Design, proof: Proof) -> Divided:
    """The pattern of a proof without errors, cut into the parts that a design wants."""
    return divide(proof.pattern, design.parts.count, allowance_of(design))


def title_of(part: Part, cut: Divided) -> str:
    """The pieces that a part works on."""
    return ", ".join(dict.fromkeys(cut.pattern.sections[section].title for section, _ in part.lines))


def needs_of(part: Part, cut: Divided, yarn_lines: Sequence[str]) -> list[str]:
    """What a part needs, in words, with the lines of its yarn."""
    first = part.number == 1
    needs = ["Hook, stitch marker, tape measure" if first else "The work from the part before, with its checkpoint met"]
    if first:
        needs.append("A swatch that meets the gauge")
    needs += yarn_lines
    if part is cut.parts[-1]:
        needs.append("Tapestry needle and scissors")
    return needs


def yarn_lines_of(design: Design, names: Sequence[str], needed: Sequence[SizeYarn | None]) -> list[str]:
    """The yarn of a part in words, a line for each colour."""
    grams: dict[str, list[str]] = {}
    for name, one in zip(names, needed, strict=True):
        for need in one.colours if one is not None else ():
            grams.setdefault(need.colour, []).append(f"{rounded(need.other)[0]} g ({name})")
    if len(design.yarns) == 1:
        return [f"Yarn: about {', '.join(each)}" for each in grams.values()]
    return [f"Yarn {yarn_called(design, colour)}: about {', '.join(each)}" for colour, each in grams.items()]


def checkpoint_words(points: tuple[Checkpoint, ...]) -> str:
    """What the work should look like at the end of a part, in all sizes."""
    halves = [point.half for point in points if point.half is not None]
    if len(halves) < len(points):
        return "Count, and compare the two sides of the bag."
    told = set_text(tuple(halves))
    return f"Both sides alike: {told} stitches from side to side, front and back (a few millimetres apart are fine)."
