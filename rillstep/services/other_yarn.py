"""The whole design in another yarn or with another hook: with the same counts, and to the same centimetres."""

from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, Field, model_validator

from rillstep.core.gauge import Gauge, gauge_from_counts, hook_in
from rillstep.core.grading import NotGraded
from rillstep.core.grading.gauge_lines import with_hook
from rillstep.core.lengths import GAUGE_SPAN, MM_PER, show_length
from rillstep.core.proof import Proof
from rillstep.core.regauging import Regauged, to_same_measures, with_same_counts
from rillstep.core.tension import expected
from rillstep.core.yarn import Known
from rillstep.document import Design
from rillstep.document.schema import Count, Grams, HookMm, Metres, Strands, Strict, of_one_line
from rillstep.services import views
from rillstep.services.text_changes import changes_of
from rillstep.services.workbench import allowance_of, proof_of
from rillstep.services.yarn_needs import facts_of, gauge_of, hook_of, known_of, yarn_need
from rillstep.services.yarn_views import problem_of, yarn_view


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


class OtherSizeView(BaseModel):
    """A size in another yarn; its width and height as they are shown, "–" where they are not known; its yarn, null
    where that is not known."""

    size: str
    width: str
    height: str
    yarn: views.YarnView | None


class OtherWayView(BaseModel):
    """One of the two ways. problem: why it is not possible. notes: what is not met or stays as it is. design: all of it
    in the other yarn, null where the gauge is only expected."""

    problem: str
    sizes: list[OtherSizeView]
    notes: list[str]
    changes: list[views.LinesChangedView]
    design: Design | None


class OtherYarnView(BaseModel):
    """The design in another yarn. problem: why nothing can be said. sts, rows: over the span; measured: whether they
    were counted, and are not only expected. goes: what of the document tells nothing of the other yarn, and goes with
    it."""

    problem: str
    stitch: str
    span: int
    sts: float
    rows: float
    measured: bool
    goes: str
    counts: OtherWayView | None
    centimetres: OtherWayView | None


def in_other_yarn(design: Design, other: OtherYarn) -> OtherYarnView:
    """The design in another yarn or with another hook, in both ways; nothing of it is changed."""
    proof = proof_of(design)
    gauge = gauge_of(proof)
    problem = problem_of(design, proof) or ("" if proof.ok else "The text has to be proved first: see the findings.")
    if gauge is None or problem:
        return _nothing(problem)
    span_mm = GAUGE_SPAN[design.units] * MM_PER[design.units]
    measured = other.stitches is not None and other.rows is not None
    if other.stitches is not None and other.rows is not None:
        after = gauge_from_counts(gauge.stitch, other.stitches, other.rows, span_mm)
    else:
        after = _expected(design, proof, gauge, other)
    known, allowance = known_of(design, proof), allowance_of(design)
    sts, rows = after.per_span(design.units)
    counts = with_same_counts(design.text, after, design.units, allowance)
    try:
        centimetres = _way(
            design, other, to_same_measures(design.text, after, design.units, design.sample, allowance), known, measured
        )
    except NotGraded as refused:
        centimetres = OtherWayView(problem=str(refused), sizes=[], notes=[], changes=[], design=None)
    return OtherYarnView(
        problem="", stitch=gauge.stitch, span=GAUGE_SPAN[design.units], sts=sts, rows=rows, measured=measured,
        goes=_goes(design, other), counts=_way(design, other, counts, known, measured), centimetres=centimetres,
    )  # fmt: skip


def _nothing(problem: str) -> OtherYarnView:
    return OtherYarnView(
        problem=problem, stitch="", span=0, sts=0, rows=0, measured=False, goes="", counts=None, centimetres=None
    )


def _expected(design: Design, proof: Proof, gauge: Gauge, other: OtherYarn) -> Gauge:
    """The gauge to expect, from the yarn and the hook that the design has now."""
    facts = facts_of(design.yarns[0])
    assert facts is not None  # else there is a problem
    hook = hook_of(design, proof) or other.hook_mm or 1.0
    return expected(
        gauge, hook, other.hook_mm or hook, 0.001 / facts.grams_per_mm,
        other.metres_per_ball / other.grams_per_ball / other.strands,
    )  # fmt: skip


def _is_other_yarn(design: Design, other: OtherYarn) -> bool:
    facts = facts_of(design.yarns[0])
    return facts is None or (facts.grams_per_ball, facts.metres_per_ball, facts.strands) != (
        other.grams_per_ball, other.metres_per_ball, other.strands,
    )  # fmt: skip


def _after(design: Design, other: OtherYarn, text: str) -> Design:
    """The design with another text and yarn; swatches, weighings and what was measured of the sample were of the gauge
    before. A swatch in the same yarn tells of it still, with the hook that it was made with."""
    proof = proof_of(design)
    hook = hook_of(design, proof)
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
        if hook_in(dict(proof.pattern.extra).get("Hook", "")) is not None:
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


def _way(design: Design, other: OtherYarn, made: Regauged, known: Known, measured: bool) -> OtherWayView:
    after = _after(design, other, made.text)
    if not made.proof.ok:
        error = next(f for f in made.proof.findings if f.severity == "error")
        problem = f"Line {error.span.line} would not come out: {error.message}"
        return OtherWayView(problem=problem, sizes=[], notes=list(made.notes), changes=[], design=None)
    notes = list(made.notes)
    if not measured and other.hook_mm is not None and hook_of(design, proof_of(design)) is None:
        notes.append("It is not known which hook the gauge was made with, so the other hook is not counted in.")
    yarn_line = dict(made.proof.pattern.extra).get("Yarn", "")
    if yarn_line and _is_other_yarn(design, other):
        notes.append(f"The text names its yarn: “{yarn_line}”. Change these words yourself.")
    return OtherWayView(
        problem="", sizes=[_size(after, made.proof, at, known) for at in range(len(made.proof.works))], notes=notes,
        changes=changes_of(design.text, after.text), design=after if measured else None,
    )  # fmt: skip


def _size(after: Design, proof: Proof, at: int, known: Known) -> OtherSizeView:
    made = {one.called: mm for one in (proof.bag.measures if proof.bag is not None else ()) if (mm := one.mm[at])}
    shown = {name: show_length(mm, after.units) for name, mm in made.items()}
    needed = yarn_need(after, proof, at, known=known)
    return OtherSizeView(
        size=proof.pattern.sizes[at], width=shown.get("width", "–"), height=shown.get("height", "–"),
        yarn=yarn_view(after, needed),
    )  # fmt: skip
