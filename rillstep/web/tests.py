"""Tests of a design: the designer's side."""

from typing import Any, Literal

from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from rillstep.services import testing, testing_views
from rillstep.web.computing import kept_for
from rillstep.web.designs import DesignPath
from rillstep.web.limits import limited_by_account
from rillstep.web.problems import answers
from rillstep.web.session import SIGNED_IN, studio_id, unit_of_work

api = APIBlueprint(
    "tests", __name__, url_prefix="/api", abp_responses=answers(401, 403, 404, 409), abp_security=SIGNED_IN
)


class TestPath(BaseModel):
    test_id: int


class TesterPath(BaseModel):
    tester_id: int


class CloseTest(BaseModel):
    closed: bool


class NewTester(BaseModel):
    name: str
    size: str
    terms: Literal["US", "UK"] = "US"
    hand: Literal["right", "left"] = "right"


@api.get("/designs/<int:design_id>/tests", responses={200: testing_views.TestsView})
def list_tests(path: DesignPath) -> Any:
    """All tests of a design with their testers and reports."""
    with unit_of_work() as work:
        return testing.tests_of(work, kept_for, studio_id(), path.design_id).model_dump(mode="json")


@api.post("/designs/<int:design_id>/tests", responses={200: testing_views.TestView})
@limited_by_account("120 per minute")
def open_test(path: DesignPath) -> Any:
    """Open a test of the newest revision."""
    with unit_of_work() as work:
        return testing.open_test(work, kept_for, studio_id(), path.design_id).model_dump(mode="json")


@api.put("/tests/<int:test_id>", responses={200: testing_views.TestView})
def close_test(path: TestPath, body: CloseTest) -> Any:
    """Close a test, or open it again."""
    with unit_of_work() as work:
        return testing.close_test(work, kept_for, studio_id(), path.test_id, body.closed).model_dump(mode="json")


@api.post("/tests/<int:test_id>/testers", responses={200: testing_views.InvitedView})
@limited_by_account("120 per minute")
def invite(path: TestPath, body: NewTester) -> Any:
    """Add a tester; her private link is in the answer, once."""
    with unit_of_work() as work:
        invited = testing.invite(work, kept_for, studio_id(), path.test_id, body.name, body.size, body.terms, body.hand)
    return invited.model_dump(mode="json")


@api.post("/testers/<int:tester_id>/withdraw", responses={200: testing_views.TesterView})
def withdraw(path: TesterPath) -> Any:
    """Withdraw a tester's link."""
    with unit_of_work() as work:
        return testing.withdraw(work, kept_for, studio_id(), path.tester_id).model_dump(mode="json")


@api.post("/testers/<int:tester_id>/link", responses={200: testing_views.InvitedView})
@limited_by_account("120 per minute")
def new_link(path: TesterPath) -> Any:
    """A new link for a tester; the old one stops working."""
    with unit_of_work() as work:
        return testing.new_link(work, kept_for, studio_id(), path.tester_id).model_dump(mode="json")
