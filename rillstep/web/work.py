"""The workbench: a document in, everything computed from it out. Nothing is kept here."""

from datetime import UTC, date, datetime
from typing import Annotated, Any, Literal

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field, RootModel

from rillstep.core.printing.offered import offered
from rillstep.core.proof.catalogue import CATALOGUE
from rillstep.design.naming import NameChange
from rillstep.design.other_yarn import OtherYarn
from rillstep.document import AnyDesign, SizeName, dump
from rillstep.document.schema import HookMm
from rillstep.services import (
    assuming,
    assuming_views,
    checking,
    crochet_along,
    drawing_views,
    gauge_views,
    grading,
    grading_views,
    other_yarn,
    phrases,
    sample_gauges,
    trace_views,
    tracing,
    views,
    words,
    workbench,
    yarn_reach,
)
from rillstep.services.scale import NoReading, read_scale
from rillstep.web.computing import computed, computed_and_kept
from rillstep.web.problems import answers, file_of
from rillstep.web.session import SIGNED_IN, studio_id, unit_of_work

api = APIBlueprint("work", __name__, url_prefix="/api", abp_responses=answers(401, 403, 409), abp_security=SIGNED_IN)


class WorkBody(BaseModel):
    document: AnyDesign


class NamesBody(WorkBody):
    change: NameChange


class LargestBody(WorkBody):
    """have_g: the grams that are there; null: those of the drawer."""

    have_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None


class OtherYarnBody(WorkBody):
    """other: the yarn, strands and hook that the design shall be in."""

    other: OtherYarn


class StepsBody(WorkBody):
    """steps: along each way of growth, in their order, from the sample."""

    steps: Annotated[list[Annotated[int, Field(ge=-500, le=500)]], Field(max_length=200)]


class SizesBody(BaseModel):
    """Sizes that a text shall have; sources: for each the index of the size that it begins as."""

    text: Annotated[str, Field(max_length=400_000)]
    sizes: Annotated[list[SizeName], Field(min_length=1, max_length=10)]
    sources: Annotated[list[int], Field(min_length=1, max_length=10)]


class GaugeBody(BaseModel):
    """The gauge of plain stitches, or of a mesh by its loops, that a text shall name, over 10 cm or 4 in. stitch: in US
    terms."""

    text: Annotated[str, Field(max_length=400_000)]
    stitch: Literal["sc", "rsc", "esc", "hdc", "dc", "tr", "dtr", "mesh"]
    sts: Annotated[float, Field(ge=1, le=200, allow_inf_nan=False)]
    rows: Annotated[float, Field(ge=1, le=200, allow_inf_nan=False)]
    units: Literal["cm", "in"] = "cm"


class HookBody(BaseModel):
    """The hook that a text shall name."""

    text: Annotated[str, Field(max_length=400_000)]
    hook_mm: HookMm


class WordsBody(WorkBody):
    """`size` null: all sizes in one text."""

    terms: Literal["US", "UK"] = "US"
    size: str | None = None


class TextBody(BaseModel):
    """A pattern text. `terms`: what it is written in, where that is known better than the text says."""

    text: Annotated[str, Field(max_length=400_000)]
    terms: Literal["US", "UK"] | None = None

    def whole(self) -> str:
        """The text, with its terms set."""
        return self.text if self.terms is None else checking.with_terms(self.text, self.terms)


class LineBody(TextBody):
    """One line of a text in one size. `into`: the terms and hand that it is shown in; `turn`: which of its rounds."""

    line: int
    size: str
    turn: int = 0
    into: Literal["US", "UK"] = "US"
    hand: Literal["right", "left"] = "right"


class PrintBody(TextBody):
    """`size` null: all sizes in one text."""

    into: Literal["US", "UK"] = "US"
    size: str | None = None
    hand: Literal["right", "left"] = "right"


class TermsQuery(BaseModel):
    terms: Literal["US", "UK"] = "US"


class WordList(RootModel[list[trace_views.WordView]]):
    pass


class PartPath(BaseModel):
    number: int


def _today() -> date:
    return datetime.now(UTC).date()


def _json(made: bytes) -> Response:
    return Response(made, mimetype="application/json")


def _phrases() -> list[views.PhraseView]:
    """The phrases of the asker's studio."""
    with unit_of_work() as session:
        return phrases.list_phrases(session, studio_id())


def _file(content: bytes | str, mime: str, name: str) -> Response:
    safe = "".join(c if c.isascii() and (c.isalnum() or c in "-_.") else "-" for c in name.lower().replace(" ", "-"))
    response = Response(content, mimetype=mime)
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}"'
    return response


@api.post("/work", responses={200: views.WorkView})
def work(body: WorkBody) -> Any:
    """Prove and measure a design."""
    return _json(computed(workbench.work, body.document, _phrases()))


@api.post("/drawings", responses={200: drawing_views.DrawingsView})
def drawings(body: WorkBody) -> Any:
    """The bag as it lies, its base, its pieces and its strap, to scale in all sizes."""
    return _json(computed(drawing_views.drawings_view, body.document))


@api.post("/grading", responses={200: grading_views.GradingView})
def grading_of_text(body: WorkBody) -> Any:
    """How a text can grow: its numbers by name, the ways, and what is held."""
    return _json(computed_and_kept(grading.grading_view, body.document))


@api.post("/grading/sizes", responses={200: grading_views.GradedView})
def graded_sizes(body: WorkBody) -> Any:
    """The text in the sizes that are wanted, with all that would change; nothing is kept."""
    return _json(computed_and_kept(grading.graded_view, body.document))


@api.post("/grading/steps", responses={200: grading_views.StepsView})
def steps_of_size(body: StepsBody) -> Any:
    """The numbers of a size that is some steps of growth from the sample."""
    return _json(computed_and_kept(grading.locks_of_steps, body.document, body.steps))


@api.post("/yarn/largest", responses={200: views.LargestView})
def largest(body: LargestBody) -> Any:
    """How large the bag can be with the yarn that is there."""
    return _json(computed_and_kept(yarn_reach.largest_view, body.document, body.have_g))


@api.post("/yarn/other", responses={200: other_yarn.OtherYarnView})
def in_other_yarn(body: OtherYarnBody) -> Any:
    """The design in another yarn or with another hook; nothing is kept."""
    return _json(computed_and_kept(other_yarn.other_yarn_view, body.document, body.other))


@api.post("/text/sizes", responses={200: grading_views.ChangedTextView})
def resized_text(body: SizesBody) -> Any:
    """A text for other sizes, by other names, or in another order; nothing is kept."""
    return _json(computed(grading.resized_text, body.text, body.sizes, body.sources))


@api.post("/gauge/sample", responses={200: sample_gauges.SampleGaugeView})
def sample_gauge(body: WorkBody) -> Any:
    """The gauge that fits what was measured of the finished sample, and what does not agree."""
    return _json(computed(sample_gauges.sample_gauge_view, body.document))


@api.post("/names", responses={200: grading_views.ChangedDesignView})
def names(body: NamesBody) -> Any:
    """A design with other names for its numbers; nothing is kept."""
    return _json(computed(grading.changed_names, body.document, body.change))


@api.post("/text/gauge", responses={200: grading_views.ChangedTextView})
def text_with_gauge(body: GaugeBody) -> Any:
    """A text with a gauge; nothing is kept."""
    return _json(computed(grading.with_gauge_text, body.text, body.stitch, body.sts, body.rows, body.units))


@api.post("/text/hook", responses={200: grading_views.ChangedTextView})
def hook_of_text(body: HookBody) -> Any:
    """A text with the hook that it shall name."""
    return _json(computed(grading.with_hook_text, body.text, body.hook_mm))


@api.post("/check", responses={200: views.CheckView})
def check(body: TextBody) -> Any:
    """Prove or refute a text line by line; nothing is kept."""
    return _json(computed(checking.check, body.text, body.terms, _phrases()))


@api.post("/assumptions", responses={200: assuming_views.AssumptionsView})
def assumptions(body: TextBody) -> Any:
    """What the unknown words of a text may mean, tried by working it; its lines on what is assumed of them."""
    return _json(computed(assuming.assumptions, body.text, body.terms, _phrases()))


@api.post("/print", responses={200: trace_views.PrintedView})
def print_text(body: PrintBody) -> Any:
    """A text in canonical form, in the terms and size wanted, read back and proved; 422 when it is not."""
    made = computed(checking.printed, body.text, body.terms, body.into, body.size, body.hand)
    return trace_views.PrintedView(text=made.decode()).model_dump(mode="json")


@api.post("/trace", responses={200: trace_views.TraceView, **answers(404)})
def trace(body: LineBody) -> Any:
    """One round of a line, stitch by stitch, each above the place that it goes into."""
    return _json(computed(tracing.trace_view, body.text, body.terms, body.line, body.size, body.turn, body.into))


@api.post("/chart", responses={200: trace_views.ChartView, **answers(404)})
def chart(body: LineBody) -> Any:
    """The stitch chart of a line."""
    left = body.hand == "left"
    return _json(computed(tracing.chart_view, body.text, body.terms, body.line, body.size, body.into, left))


class ThingList(RootModel[list[grading_views.ThingView]]):
    pass


class ThingQuery(BaseModel):
    """A thing as it stands, in mm."""

    width_mm: Annotated[float, Field(gt=0, le=2000)]
    height_mm: Annotated[float, Field(gt=0, le=2000)]
    depth_mm: Annotated[float, Field(gt=0, le=2000)]


@api.get("/things", responses={200: ThingList})
def things() -> Any:
    """Things that a size may have to hold, and what it must measure for them."""
    studio_id()
    return [thing.model_dump(mode="json") for thing in grading.thing_views()]


@api.get("/things/own", responses={200: grading_views.ThingView})
def own_thing(query: ThingQuery) -> Any:
    """What a bag must measure for a thing of these dimensions."""
    studio_id()
    return grading.own_thing(query.width_mm, query.height_mm, query.depth_mm).model_dump(mode="json")


@api.get("/craft", responses={200: views.CraftView})
def craft() -> Any:
    """Usual values of the craft, and the most that a design can have of something."""
    studio_id()
    return gauge_views.craft_view(bool(_scale())).model_dump(mode="json")


def _scale() -> str:
    address: str = current_app.extensions["rillstep_settings"].scale
    return address


@api.get("/scale", responses={200: views.ReadingView})
def weigh_now() -> Any:
    """What lies on the kitchen scale of this installation."""
    studio_id()
    if not _scale():
        return views.ReadingView(grams=None, problem="No scale is connected here. Type the weight.").model_dump()
    try:
        return views.ReadingView(grams=read_scale(_scale()), problem="").model_dump()
    except NoReading as none:
        return views.ReadingView(grams=None, problem=str(none)).model_dump()


class FindingHelps(RootModel[list[views.FindingHelp]]):
    pass


@api.get("/findings", responses={200: FindingHelps})
def findings() -> Any:
    """The catalogue of findings, for help where they are shown."""
    return [vars(entry) for entry in CATALOGUE]


@api.get("/language", responses={200: WordList})
def language(query: TermsQuery) -> Any:
    """The words that an editor offers, in the given terms."""
    return [vars(word) for word in offered(query.terms)]


@api.post("/booklet", responses={200: views.BookletView})
def booklet(body: WordsBody) -> Any:
    """The instructions as they are printed, each line with its proof."""
    return _json(computed(words.booklet_view, body.document, body.terms, body.size))


@api.post("/export/pdf", responses={200: file_of("application/pdf", "The booklet.")})
def export_pdf(body: WordsBody) -> Any:
    """The booklet as PDF; lines that are not proved stand as they were written, and are marked."""
    content = computed_and_kept(words.pattern_pdf, body.document, body.terms, body.size, _today())
    return _file(content, "application/pdf", f"{body.document.name} {body.size or ''} {body.terms}.pdf")


@api.post("/export/text", responses={200: file_of("text/plain", "The pattern text.")})
def export_text(body: WordsBody) -> Any:
    """The pattern text; lines that are not proved stand as they were written."""
    content = computed(words.pattern_text, body.document, body.terms, body.size)
    return _file(content, "text/plain", f"{body.document.name} {body.size or ''} {body.terms}.txt")


@api.post("/export/design", responses={200: file_of("application/json", "The design file.")})
def export_design(body: WorkBody) -> Any:
    """The open design file."""
    studio_id()
    return _file(dump(body.document), "application/json", f"{body.document.name}.rillstep.json")


@api.post("/parts", responses={200: views.PartsView})
def parts(body: WordsBody) -> Any:
    """The crochet-along: dated parts."""
    return _json(computed(crochet_along.parts_view, body.document, body.terms))


@api.post("/parts/<int:number>/pdf", responses={200: file_of("application/pdf", "The part.")})
def part_pdf(path: PartPath, body: WordsBody) -> Any:
    """One part as PDF."""
    content = computed_and_kept(crochet_along.part_pdf, body.document, body.terms, path.number, _today())
    return _file(content, "application/pdf", f"{body.document.name} part {path.number}.pdf")


@api.post("/parts/calendar", responses={200: file_of("text/calendar", "The dates.")})
def calendar(body: WordsBody) -> Any:
    """The dates of the parts as a calendar file."""
    return _file(computed(crochet_along.parts_calendar, body.document), "text/calendar", f"{body.document.name}.ics")
