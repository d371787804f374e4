"""A tester's own page, by her private link."""

from typing import Annotated, Any

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel, Field

from rillstep.document.design import MeasureName
from rillstep.services import testing, testing_views
from rillstep.web.computing import kept_for
from rillstep.web.limits import limited
from rillstep.web.problems import answers
from rillstep.web.session import unit_of_work

api = APIBlueprint("testers", __name__, url_prefix="/api/t", abp_responses=answers(404, 409))

_Measure = Annotated[float, Field(gt=0, le=5000, allow_inf_nan=False)]


class TokenPath(BaseModel):
    token: str


class TesterPlace(BaseModel):
    place: Annotated[int, Field(ge=0, le=100_000)]


class LineTrouble(BaseModel):
    """`step` counts from 0; `found` is the count that came."""

    step: int
    found: Annotated[int, Field(ge=0, le=100_000)] | None = None
    note: Annotated[str, Field(max_length=4000)] = ""


class EndReport(testing_views.TesterReport):
    gauge_sts: _Measure | None = None
    gauge_rows: _Measure | None = None
    measures_mm: dict[MeasureName, _Measure] = Field(default={}, max_length=30)
    grams: _Measure | None = None
    hours: _Measure | None = None
    remarks: Annotated[str, Field(max_length=4000)] = ""


@api.get("/<token>", responses={200: testing_views.TesterPage})
@limited("120 per minute")
def page(path: TokenPath) -> Any:
    """The pattern in this tester's size, and her place in it."""
    with unit_of_work() as work:
        return testing.page(work, kept_for, path.token).model_dump(mode="json")


@api.put("/<token>/place", responses={200: TesterPlace})
@limited("240 per minute")
def keep_place(path: TokenPath, body: TesterPlace) -> Any:
    """Remember the place."""
    with unit_of_work() as work:
        return {"place": testing.keep_place(work, kept_for, path.token, body.place)}


@api.post("/<token>/lines", responses={200: testing_views.LineReportView})
@limited("60 per minute")
def report_line(path: TokenPath, body: LineTrouble) -> Any:
    """A line did not come out."""
    with unit_of_work() as work:
        return testing.report_line(work, kept_for, path.token, body.step, body.found, body.note).model_dump(mode="json")


@api.put("/<token>/report", responses={200: testing_views.TesterReport})
@limited("30 per minute")
def report_end(path: TokenPath, body: EndReport) -> Any:
    """The report at the end."""
    with unit_of_work() as work:
        return testing.report_end(work, path.token, body).model_dump(mode="json")
