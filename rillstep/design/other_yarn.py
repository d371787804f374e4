"""The whole design in another yarn or with another hook: with the same counts, and to the same centimetres."""

from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import AfterValidator, Field, model_validator

from rillstep.core.gauge import Gauge, gauge_from_counts, hook_in
from rillstep.core.grading import NotGraded
from rillstep.core.grading.gauge_lines import with_hook
from rillstep.core.lengths import GAUGE_SPAN, MM_PER
from rillstep.core.regauging import Regauged, to_same_measures, with_same_counts
from rillstep.core.tension import expected
from rillstep.design.facts import Facts
from rillstep.design.proving import allowance_of
from rillstep.design.yarn import label_facts
from rillstep.document import Design
from rillstep.document.schema import Count, Grams, HookMm, Metres, Strands, Strict, of_one_line


class OtherYarn(Strict):
    """Another yarn or hook for the whole design. weight_class, hook_mm: null: as it is. stitches, rows: counted over
    10 cm or 4 in of a swatch in it, in the stitch of the text's gauge; null: not measured yet."""

    name: Annotated[str, Field(max_length=70), AfterValidator(of_one_line)] = ""
    weight_class: Annotated[int, Field(ge=0, le=7)] | None = None
    grams_per_ball: Grams
    metres_per_ball: Metres
    strands: Strands = 1
    hook_mm: HookMm | None = None
    stitches: Count | None = None
    rows: Count | None = None

    @model_validator(mode="after")
    def _both_or_none(self) -> "OtherYarn":
        if (self.stitches is None) != (self.rows is None):
            raise ValueError("count stitches and rows of the swatch, or leave both out")
        return self


@dataclass(frozen=True)
class OtherWay:
    """One of the two ways. problem: why it is not possible, empty where it is. facts: of the design in the other yarn,
    None where there is a problem. notes: what is not met or stays as it is."""

    problem: str
    facts: Facts | None
    notes: tuple[str, ...]


@dataclass(frozen=True)
class InOtherYarn:
    """The design in another yarn. gauge: as it was counted (measured), or as it is to be expected. goes: what of the
    document tells nothing of the other yarn, and goes with it."""

    gauge: Gauge
    measured: bool
    goes: str
    counts: OtherWay
    centimetres: OtherWay


def in_other_yarn(facts: Facts, other: OtherYarn) -> InOtherYarn | str:
    """The design in another yarn or with another hook, in both ways; nothing of it is changed. Where nothing can be
    said: why, in words."""
    design, gauge = facts.design, facts.gauge
    if facts.yarn_problem:
        return facts.yarn_problem
    if not facts.proof.ok or gauge is None:
        return "The text has to be proved first: see the findings."
    span_mm = GAUGE_SPAN[design.units] * MM_PER[design.units]
    measured = other.stitches is not None and other.rows is not None
    if other.stitches is not None and other.rows is not None:
        after = gauge_from_counts(gauge.stitch, other.stitches, other.rows, span_mm)
    else:
        after = _expected(facts, gauge, other)
    allowance = allowance_of(design)
    counts = _way(facts, other, with_same_counts(design.text, after, design.units, allowance), measured)
    try:
        remade = to_same_measures(design.text, after, design.units, design.sample, allowance)
        centimetres = _way(facts, other, remade, measured)
    except NotGraded as refused:
        centimetres = OtherWay(str(refused), None, ())
    return InOtherYarn(after, measured, _goes(design, other), counts, centimetres)


def _expected(facts: Facts, gauge: Gauge, other: OtherYarn) -> Gauge:
    """The gauge to expect, from the yarn and the hook that the design has now."""
    label = label_facts(facts.design.yarns[0])
    assert label is not None  # else there is a problem
    hook = facts.hook_mm or other.hook_mm or 1.0
    return expected(
        gauge, hook, other.hook_mm or hook, 0.001 / label.grams_per_mm,
        other.metres_per_ball / other.grams_per_ball / other.strands,
    )  # fmt: skip


def _is_other_yarn(design: Design, other: OtherYarn) -> bool:
    label = label_facts(design.yarns[0])
    return label is None or (label.grams_per_ball, label.metres_per_ball, label.strands) != (
        other.grams_per_ball, other.metres_per_ball, other.strands,
    )  # fmt: skip


def _after(facts: Facts, other: OtherYarn, text: str) -> Design:
    """The design with another text and yarn; swatches, weighings and what was measured of the sample were of the gauge
    before. A swatch in the same yarn tells of it still, with the hook that it was made with."""
    design, hook = facts.design, facts.hook_mm
    yarns, swatches = design.yarns, design.swatches
    if _is_other_yarn(design, other):
        own: dict[str, Any] = {
            "grams_per_ball": other.grams_per_ball, "metres_per_ball": other.metres_per_ball, "strands": other.strands,
            "measured_m": None, "measured_g": None, "have_g": None, "fibre": "",
        }  # fmt: skip
        if other.weight_class is not None:
            own["weight_class"] = other.weight_class
        yarns = [yarn.model_copy(update=own | _named(other, yarn.colour)) for yarn in yarns]
        swatches = []
    elif hook is not None and other.hook_mm not in (None, hook):
        swatches = [one if one.hook_mm else one.model_copy(update={"hook_mm": hook}) for one in swatches]
    hook_beside = design.hook_mm
    if other.hook_mm is not None and other.hook_mm != hook:
        if hook_in(dict(facts.proof.pattern.extra).get("Hook", "")) is not None:
            text = with_hook(text, other.hook_mm)
        else:
            hook_beside = other.hook_mm
    return design.model_copy(
        update={
            "text": text, "yarns": yarns, "swatches": swatches, "weighings": [], "made_mm": {}, "hook_mm": hook_beside,
        }
    )  # fmt: skip


def _named(other: OtherYarn, colour: str) -> dict[str, str]:
    """The name of the yarn of a colour; it stays where none is given."""
    if not other.name:
        return {}
    return {"name": f"{other.name}, {colour}" if colour else other.name}


def _goes(design: Design, other: OtherYarn) -> str:
    """In words, what of the document was of the yarn or the gauge before."""
    many = [(len(design.weighings), "weighing"), (len(design.made_mm), "measure of the sample")]
    if _is_other_yarn(design, other):
        many.insert(0, (len(design.swatches), "swatch"))
    words = [f"{n} {word if n == 1 else _plural(word)}" for n, word in many if n]
    if not words:
        return ""
    return f"{' and '.join(words)} of the yarn and hook before go with it; the revisions before keep them."


def _plural(word: str) -> str:
    return {"swatch": "swatches", "measure of the sample": "measures of the sample"}.get(word, f"{word}s")


def _way(facts: Facts, other: OtherYarn, made: Regauged, measured: bool) -> OtherWay:
    after = _after(facts, other, made.text)
    if not made.proof.ok:
        error = next(f for f in made.proof.findings if f.severity == "error")
        return OtherWay(f"Line {error.span.line} would not come out: {error.message}", None, tuple(made.notes))
    notes = list(made.notes)
    if not measured and other.hook_mm is not None and facts.hook_mm is None:
        notes.append("It is not known which hook the gauge was made with, so the other hook is not counted in.")
    yarn_line = dict(made.proof.pattern.extra).get("Yarn", "")
    if yarn_line and _is_other_yarn(facts.design, other):
        notes.append(f"The text names its yarn: “{yarn_line}”. Change these words yourself.")
    return OtherWay("", Facts(after, made.proof, facts.known), tuple(notes))
