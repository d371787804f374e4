"""The abbreviations that a pattern uses, and only those, each with its meaning."""

from collections.abc import Iterator
from dataclasses import fields, is_dataclass

from rillstep.core.craft import Loop, Terms, abbreviation, full_name
from rillstep.core.tree import (
    Again,
    Chain,
    EachKind,
    Evenly,
    Foundation,
    Gesture,
    Group,
    Pattern,
    Repeat,
    Row,
    Skip,
    SkipTo,
    Spread,
    Step,
    Together,
    Work,
)

_LOOPS: dict[Loop, tuple[str, str] | None] = {
    "back": ("BLO", "back loops only"),
    "front": ("FLO", "front loops only"),
    "third": ("back bar", "the third loop, behind the two at the top"),
    "both": None,
}


def steps_in(node: object) -> Iterator[Step]:
    """Every step in a tree, inner ones too."""
    if isinstance(
        node,
        Work | Together | Skip | SkipTo | Chain | Group | EachKind | Evenly | Spread | Foundation | Repeat | Gesture,
    ):
        yield node
    if isinstance(node, tuple):
        for item in node:
            yield from steps_in(item)
    elif is_dataclass(node):
        for field in fields(node):
            yield from steps_in(getattr(node, field.name))


def abbreviations_used(pattern: Pattern, terms: Terms) -> tuple[tuple[str, str], ...]:
    """(abbreviation, meaning), in alphabetical order; stitches that the pattern defines explain themselves."""
    found: dict[str, str] = {}
    own = {special.name for special in pattern.specials}
    for step in steps_in((pattern.sections, pattern.specials)):
        match step:
            case Work(stitch=stitch, loop=loop):
                if stitch not in own:
                    found[abbreviation(stitch, terms)] = full_name(stitch, terms)
                if (said := _LOOPS[loop]) is not None:
                    found[said[0]] = said[1]
            case Together(stitch=stitch, into=into):
                legs = f"{abbreviation(stitch, terms)}2tog" if into is None else abbreviation(stitch, terms)
                several = " 2 stitches together" if into is None else ""
                found[legs] = full_name(stitch, terms) + several
            case Evenly(stitch=stitch) | Spread(stitch=stitch) | Foundation(stitch=stitch):
                found[abbreviation(stitch, terms)] = full_name(stitch, terms)
            case Chain():
                found["ch"] = "chain"
            case Skip() | SkipTo():
                found["sk"] = "skip" if terms == "US" else "miss"
            case _:
                pass
    rows = [line for _, line in pattern.lines() if isinstance(line, Row | Again)]
    if any(line.kind == "Rnd" for line in rows):
        found["rnd(s)"] = "round(s)"
    if any(total.what == "sp" for line in rows for total in line.totals):
        found["sp(s)"] = "space(s)"
    found["st(s)"] = "stitch(es)"
    return tuple(sorted(found.items(), key=lambda item: item[0].lower()))
