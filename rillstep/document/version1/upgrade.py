"""A design of version 1, a tote by fields, as the text that it stands for, with names for the numbers that move."""

import re
from collections.abc import Mapping

from rillstep.core.gauge import gauge_from_swatch
from rillstep.core.grading.named_text import named_values
from rillstep.core.printing import write
from rillstep.core.settling import read
from rillstep.document.design import ALLOWANCE_MM, Design, Size, sizes_named
from rillstep.document.schema import Swatch, Yarn
from rillstep.document.version1.document import PlainSwatch, PlainYarn, ToteDesign, ToteSize
from rillstep.document.version1.named_tote import named_tote
from rillstep.document.version1.plan import SizeTarget, TotePlan
from rillstep.document.version1.solve import Graded, grade
from rillstep.document.version1.tote import tote_pattern

# Of the locks of version 1, those that are numbers of the text, by their name there.
_LOCKS = {
    "side": "side",
    "base_rounds": "base rounds",
    "wall_rounds": "wall rounds",
    "handle_skip": "handle opening",
    "handle_chain": "handle chain",
}
_LOCKED = {"extra": "extra increases a side", "around": "stitches around"}
_USUAL_HOOK_MM = 5.0
_MEASURES = ("width", "height", "depth", "drop")


def plan_of(old: ToteDesign) -> TotePlan:
    """The way of working of a tote."""
    way, swatch = old.way, old.swatch
    return TotePlan(
        gauge_from_swatch(
            swatch.stitch, swatch.stitches, swatch.rows, swatch.width_mm, swatch.height_mm, old.units
        ),
        way.rounds, way.chain_counts, way.increases, way.base_edge, way.brim_rounds,
        way.over_rounds, way.wall_multiple, way.handle_share, ALLOWANCE_MM[way.carried],
    )  # fmt: skip


def written_tote(old: ToteDesign) -> tuple[str, Graded]:
    """The text that the fields of a tote stand for, without names, and its numbers."""
    plan = plan_of(old)
    graded = grade(plan, tuple(_target(size) for size in old.sizes), old.units)
    return write(tote_pattern(old.name, plan, graded, old.units, _facts(old)), "US"), graded


def upgraded(old: ToteDesign) -> Design:
    """The design as its text. A text that was edited by hand stays as it was typed; one that was written from the
    fields gets names. Where the text was written elsewhere, the fields were no facts of its bag, and do not go with
    it."""
    written, graded = written_tote(old)
    text = old.text if old.text is not None and old.text != written else _named(old, written, graded)
    elsewhere = is_from_elsewhere(text, written) if old.text is not None else False
    numbers = named_values(text, len(old.sizes))
    sizes = [
        Size(name=size.name) if elsewhere else _size(size, {name: values[at] for name, values in numbers.items()})
        for at, size in enumerate(old.sizes)
    ]
    return Design(
        name=old.name, units=old.units, terms=old.terms, hand=old.hand, text=text,
        sizes=sizes_named(read(text).pattern.sizes) if elsewhere else sizes,
        yarns=[] if old.yarn == PlainYarn() else [Yarn(**old.yarn.model_dump())],
        hook_mm=None if elsewhere and old.hook_mm == _USUAL_HOOK_MM else old.hook_mm,
        swatches=[] if old.swatch == PlainSwatch() else [Swatch(**old.swatch.model_dump())],
        carried="hand" if elsewhere else old.way.carried,
        parts=old.parts, notes=old.notes if elsewhere else _notes(old),
    )  # fmt: skip


def _target(size: ToteSize) -> SizeTarget:
    locks = {name: value for name, value in size.locks.model_dump().items() if value is not None}
    return SizeTarget(
        size.name, size.width_mm, size.height_mm, size.depth_mm, size.drop_mm, size.width_tolerance_mm,
        size.height_tolerance_mm, size.depth_tolerance_mm, size.drop_tolerance_mm, locks,
    )  # fmt: skip


def _named(old: ToteDesign, written: str, graded: Graded) -> str:
    """The text with names for its numbers; where its sizes are built differently, it gets them when it is graded."""
    return named_tote(old.name, plan_of(old), graded, old.units, _facts(old)) or written


def _facts(old: ToteDesign) -> tuple[tuple[str, str], ...]:
    return (("Yarn", f"{old.yarn.name}, weight class {old.yarn.weight_class}"), ("Hook", f"{old.hook_mm:g} mm"))


def _size(old: ToteSize, numbers: Mapping[str, int]) -> Size:
    """The targets of a size by the names of measures, and its locks by the names of numbers."""
    locks = {}
    for field, name in _LOCKS.items():
        value = getattr(old.locks, field)
        if value is not None and name in numbers:
            locks[name] = value
    return Size(
        name=old.name,
        targets_mm={name: getattr(old, f"{name}_mm") for name in _MEASURES},
        tolerances_mm={name: getattr(old, f"{name}_tolerance_mm") for name in _MEASURES},
        locks=locks,
    )


def _notes(old: ToteDesign) -> str:
    """The notes, with the locks that are no number of the text: nothing that a designer set is dropped in silence."""
    lost = [
        f"{words} held at {value} in {size.name}"
        for size in old.sizes for field, words in _LOCKED.items()
        if (value := getattr(size.locks, field)) is not None
    ]  # fmt: skip
    return "\n".join([*([old.notes] if old.notes else []), *([f"Before: {'; '.join(lost)}."] if lost else [])])[:4000]


_DIGITS = re.compile(r"[\d\s(),]+")


def is_from_elsewhere(text: str, written: str) -> bool:
    """Whether a text was written elsewhere: fewer than half of its lines are, apart from their numbers, lines of the
    one written from the fields."""
    own = {_DIGITS.sub("", line) for line in written.split("\n")}
    lines = [bare for line in text.split("\n") if (bare := _DIGITS.sub("", line)) and ":" in bare]
    return 2 * sum(line in own for line in lines) < len(lines)
