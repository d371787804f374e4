"""What is printed of how much yarn a design takes."""

from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ValidationError

from rillstep.design import facts_of
from rillstep.design.other_yarn import OtherYarn
from rillstep.document import Design, faults_of
from rillstep.services import views
from rillstep.services.errors import Invalid
from rillstep.services.files import usable_proof
from rillstep.services.other_yarn import OtherWayView, OtherYarnView, other_yarn_view
from rillstep.services.yarn_reach import largest_view
from rillstep.services.yarn_views import answers_view, yarn_view


def other_in(written: str) -> OtherYarn:
    """Another yarn or hook from its JSON. Raises Invalid with the places of what is wrong."""
    try:
        return OtherYarn.model_validate_json(written)
    except ValidationError as error:
        raise Invalid("; ".join(f"{one.path}: {one.message}" for one in faults_of(error.errors()))) from None


def yarn_report(design: Design, have_g: float | None, other: OtherYarn | None) -> dict[str, Any]:
    """What is printed as JSON: the yarn of each size, and what was asked. Raises Invalid."""
    proof = usable_proof(design)
    facts = facts_of(design)
    found = [yarn_view(design, needed) for needed in facts.needs]
    answers = answers_view(facts.answers)
    if answers.problem:
        label = "" if design.yarns else " --grams and --metres say what a ball holds."
        raise Invalid(f"no yarn can be estimated: {answers.problem}{label}")
    asked: dict[str, BaseModel] = {"answers": answers}
    if have_g is not None:
        asked["largest"] = largest_view(design, have_g)
    if other is not None:
        asked["other"] = other_yarn_view(design, other)
    sizes = {name: one for name, one in zip(proof.pattern.sizes, found, strict=True) if one is not None}
    return {"ok": proof.ok, "sizes": sizes, **asked}


def report_lines(report: dict[str, Any]) -> Iterator[str]:
    """The same for reading, line by line."""
    for name, one in report["sizes"].items():
        yield f"{name}: {one.metres} m, {_grams(one)}"
        for colour in one.colours if len(one.colours) > 1 else ():
            yield f"  {colour.colour or colour.yarn}: {_grams(colour)}"
    if (largest := report.get("largest")) is not None:
        yield largest.problem or (
            f"with it: {largest.width} x {largest.height}, {largest.percent} % of the sample, about {largest.grams} g; "
            f"enough in {largest.enough} of 100 bags"
        )
    if (other := report.get("other")) is not None:
        yield from _other_lines(other)


def _other_lines(other: OtherYarnView) -> Iterator[str]:
    if other.problem:
        yield other.problem
        return
    counted = "as it was counted" if other.measured else "as it is to be expected: make a swatch"
    yield f"in the other yarn: {other.stitch} {other.sts:g} x {other.rows:g} over {other.span}, {counted}"
    yield from _way_lines("the same counts", other.counts)
    yield from _way_lines("the same measures", other.centimetres)


def _way_lines(title: str, way: OtherWayView | None) -> Iterator[str]:
    if way is None or way.problem:
        yield f"  {title}: {way.problem if way is not None else 'not known'}"
        return
    for one in way.sizes:
        yarn = _grams(one.yarn) if one.yarn is not None else "yarn not known"
        yield f"  {title}: {one.size}: {one.width} x {one.height}, {yarn}"
    yield from (f"    {note}" for note in way.notes)


def _grams(one: views.YarnView | views.ColourYarnView) -> str:
    return f"{one.grams} g ({one.low_g} to {one.high_g} g), {one.balls} ball{'s' if one.balls != 1 else ''}"
