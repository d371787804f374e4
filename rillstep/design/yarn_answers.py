"""What a designer asks of the yarn: why none is estimated, whether the drawer is enough, and what would do instead."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from rillstep.core.proof import Proof
from rillstep.core.yarn import ColourNeed, Known
from rillstep.design.yarn import SizeYarn, gauge_of, label_facts, rounded
from rillstep.document import Design, Yarn

# The drawer is enough where it is in so many of 100 bags.
LIKELY = 0.9
# Below this it is hardly enough.
_MAYBE = 0.5
_TIGHTER = 0.95

Lasts = Literal["likely", "maybe", "hardly"]


@dataclass(frozen=True)
class YarnAnswers:
    """Over all sizes. problem: why no yarn is estimated, and what to do. instead: thinner yarns that would do. largest:
    the largest size that the drawer is likely enough for; scarce: the colour that is likeliest not to be enough.
    tighter: how much more yarn, in per cent, a gauge that is a twentieth tighter takes; None where it is not known."""

    problem: str
    instead: tuple[str, ...]
    in_drawer: bool
    largest: str | None
    scarce: str | None
    doubted: tuple[str, ...]
    tighter: int | None


def chance_shown(chance: float) -> int:
    """A chance in per cent; nothing is certain before it is made."""
    return min(99, max(1, round(100 * chance)))


def yarn_of(design: Design, colour: str) -> Yarn:
    """The yarn of a colour; the first one where none is of it."""
    return next((one for one in design.yarns if one.colour == colour), design.yarns[0])


def yarn_called(design: Design, colour: str) -> str:
    """The yarn of a colour, as readers are told of it: "B: Quiet Meridian", or its name alone."""
    yarn = yarn_of(design, colour)
    return f"{yarn.colour}: {yarn.name}" if yarn.colour else yarn.name


def enough(design: Design, need: ColourNeed) -> int | None:
    """How likely what is in the drawer is enough for a colour, in per cent; None where it is not said what there is."""
    have_g = yarn_of(design, need.colour).have_g
    return None if have_g is None else chance_shown(need.other.likely_within(have_g))


def lasts(chance: int | None) -> Lasts | None:
    """A chance in per cent as a word."""
    if chance is None:
        return None
    return "likely" if chance >= 100 * LIKELY else "maybe" if chance >= 100 * _MAYBE else "hardly"


def fits(design: Design, needed: SizeYarn) -> bool | None:
    """Whether the drawer is likely enough for a size; None where it is not said what there is of each colour."""
    chances = [enough(design, one) for one in needed.colours]
    return None if None in chances else all(one is not None and one >= 100 * LIKELY for one in chances)


def answers_of(design: Design, proof: Proof, needs: Sequence[SizeYarn | None], learnt: Known) -> YarnAnswers:
    """What the designer asks of the yarn, over all sizes."""
    sized = [(one, name) for one, name in zip(needs, proof.pattern.sizes, strict=True) if one is not None]
    fitting = [(rounded(one.whole)[0], name) for one, name in sized if fits(design, one)]
    return YarnAnswers(
        problem=problem_of(design, proof), instead=_instead(design),
        in_drawer=any(yarn.have_g is not None for yarn in design.yarns),
        largest=max(fitting)[1] if fitting else None, scarce=_scarce(design, [one for one, _ in sized]),
        doubted=learnt.doubted if sized else (),
        # So many more stitches on the same area, each of them so much smaller.
        tighter=round(100 * (_TIGHTER / _TIGHTER**2 - 1)) if sized and gauge_of(proof) is not None else None,
    )  # fmt: skip


def problem_of(design: Design, proof: Proof) -> str:
    """Why no yarn is estimated, and what to do; empty where it is."""
    if gauge_of(proof) is None:
        return "The text names no gauge."
    if not design.yarns:
        return "It is not known what the label of the yarn says."
    without = next((yarn.name for yarn in design.yarns if label_facts(yarn) is None), None)
    if without is not None:
        return f"“{without}” has no metres: write what its label says, or measure a length of it and weigh it."
    return ""


def _instead(design: Design) -> tuple[str, ...]:
    """Thinner yarns that weigh as much a metre together as the first one with its strands."""
    facts = label_facts(design.yarns[0]) if design.yarns else None
    if facts is None:
        return ()
    per_100 = 100 * facts.metres_per_ball / facts.grams_per_ball / facts.strands
    return tuple(
        f"{many} strand{'s' if many > 1 else ''} with about {round(per_100 * many, -1):.0f} m in 100 g"
        for many in (1, 2, 3) if many != facts.strands
    )  # fmt: skip


def _scarce(design: Design, needs: Sequence[SizeYarn]) -> str | None:
    """The colour that is likeliest not to be enough, where several were said and one is not."""
    found = [
        (chance, yarn_called(design, one.colour))
        for needed in needs if len(needed.colours) > 1 for one in needed.colours
        if (chance := enough(design, one)) is not None
    ]  # fmt: skip
    return min(found)[1] if found and min(found)[0] < 100 * LIKELY else None


def needs_in_words(
    design: Design, names: Sequence[str], needs: Sequence[SizeYarn | None], only: int | None
) -> list[tuple[str, str]]:
    """The yarn of each size, or of one, as it is printed: (size, what it needs); nothing where it is not known."""
    return [
        (
            name,
            "; ".join(_colour_in_words(design, one, len(needed.colours)) for one in needed.colours)
            + (f"; not counted: {', '.join(needed.missing)}" if needed.missing else "")
            + (f"; the parts of {', '.join(needed.once)} counted once" if needed.once else ""),
        )
        for at, (name, needed) in enumerate(zip(names, needs, strict=True))
        if needed is not None and only in (None, at)
    ]


def _colour_in_words(design: Design, one: ColourNeed, colours: int) -> str:
    """ "A: Quiet Meridian: 3 balls (about 250 g, 210 to 290 g)": balls cover the upper end."""
    grams, low, high = rounded(one.other)
    colour = f"{yarn_called(design, one.colour)}: " if colours > 1 else ""
    return f"{colour}{one.balls} ball{'s' if one.balls != 1 else ''} (about {grams} g, {low} to {high} g)"
