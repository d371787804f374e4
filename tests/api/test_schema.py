"""The committed OpenAPI file as it is, walked by generated requests of a signed-in designer: no answer is a server
error, and each is described. RILLSTEP_CASES: how many for each route (5)."""

import json
import os
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.config import SchemathesisConfig

from tests.conftest import Client

CASES = int(os.environ.get("RILLSTEP_CASES", "5"))
# All that the schema says is tried, boundary by boundary, where there is time: some 13,000 cases and more with it.
THOROUGH = CASES > 5
SCHEMA = schemathesis.openapi.from_dict(
    json.loads((Path(__file__).parents[2] / "docs" / "openapi.json").read_text()),
    config=SchemathesisConfig.from_dict({"phases": {"coverage": {"enabled": THOROUGH}}}),
)


@pytest.fixture(scope="module")
def designer_of_cases(app: Any) -> Client:
    client = Client(app.test_client())
    client.sign_up("Cases")
    return client


@SCHEMA.parametrize()
@settings(
    max_examples=CASES, deadline=None, database=None, derandomize=not THOROUGH,
    suppress_health_check=list(HealthCheck),
)  # fmt: skip
def test_no_request_makes_an_error_of_the_server(case: Any, app: Any, designer_of_cases: Client) -> None:
    client = designer_of_cases
    if not client.get("/api/me").json["email"]:  # type: ignore[index]
        client.sign_up("Cases")
    elsewhere = case.path.startswith(("/api/sign-", "/api/t/"))
    cookie = None if elsewhere else client.client.get_cookie("rillstep").value  # type: ignore[union-attr]
    answer = case.call(
        app=app, headers={"X-CSRF-Token": client.csrf}, cookies={} if cookie is None else {"rillstep": cookie}
    )
    case.validate_response(answer, checks=[not_a_server_error])
