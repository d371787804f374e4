"""Errors as problem details (RFC 9457): every one says what is wrong, where, and what to do."""

import re
from typing import Any

from flask import Flask, Response, jsonify, request
from pydantic import BaseModel, ValidationError
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as NoConnection
from werkzeug.exceptions import HTTPException

from rillstep.document import BrokenDesign, faults_of
from rillstep.services.errors import Conflict, Refused

# Where a design stands in a body.
_DOCUMENT = re.compile(r"^\$\.document\b")


class FaultView(BaseModel):
    """Where (`$.sizes[2].name`), what stood there, what to do. field: the place as the screen calls it."""

    path: str
    value: str
    message: str
    field: str


class Problem(BaseModel):
    code: str
    status: int
    title: str
    faults: list[FaultView] = []
    revision: int | None = None


_MEANS = {
    401: "Nobody is signed in.",
    403: "The token of the page is missing or old.",
    404: "It does not exist, or belongs to another studio.",
    409: "Something else came first, or it was stopped.",
    413: "It is larger than is read.",
    415: "The body is of another kind than the route takes.",
    422: "The input is wrong, not proved, or too much.",
    429: "It was asked for too often, or too much is under way.",
    500: "Something went wrong on the server.",
    503: "The database does not answer.",
}


def answers(*more: int) -> dict[int | str, Any]:
    """The errors of a route, as OpenAPI describes them: those of all routes, and more."""
    described = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
    return {
        status: {"description": _MEANS[status], "content": described}
        for status in sorted({413, 415, 422, 429, 500, 503, *more})
    }


def file_of(mime: str, text: str) -> dict[str, Any]:
    """A file that a route answers with, as OpenAPI describes it."""
    return {"description": text, "content": {mime: {"schema": {"type": "string", "format": "binary"}}}}


def problem(status: int, code: str, title: str, faults: list[dict[str, str]] | None = None, **more: Any) -> Response:
    """A problem response."""
    response = jsonify({"code": code, "status": status, "title": title, "faults": faults or [], **more})
    response.status_code = status
    response.mimetype = "application/problem+json"
    return response


def invalid_input(error: ValidationError) -> Response:
    """A request whose body, query or path is not as it should be."""
    faults = []
    for fault in faults_of(error.errors(include_url=False)):
        # A design stands in the body under "document"; its places are named from its own root.
        faults.append({**vars(fault), "path": _DOCUMENT.sub("$", fault.path)})
    first = faults[0]
    title = f"{first['field']}: {first['message']}"
    return problem(422, "invalid", title[:1].upper() + title[1:], faults)


# MariaDB: waited too long for a lock; two requests waited for each other.
_HELD = (1205, 1213)

_TITLES = {
    404: ("not-found", "There is nothing at this address."),
    405: ("not-allowed", "This cannot be done here."),
    413: ("too-large", "This is larger than 3 MB; a design file is far smaller. Choose another file."),
    429: ("too-many", "That was tried too often. Wait a minute, then try again."),
}


def register(app: Flask) -> None:
    """Make problem details of everything that can go wrong."""

    @app.errorhandler(Refused)
    def refused(error: Refused) -> Response:
        more = {"revision": error.revision} if isinstance(error, Conflict) else {}
        return problem(error.status, error.code, error.message, [vars(f) for f in error.faults], **more)

    @app.errorhandler(BrokenDesign)
    def broken(error: BrokenDesign) -> Response:
        first = error.faults[0]
        title = f"This design file cannot be used. {first.words}"
        return problem(422, "broken-design", title, [vars(f) for f in error.faults])

    @app.errorhandler(OperationalError)
    @app.errorhandler(NoConnection)
    def no_database(error: OperationalError | NoConnection) -> Response:
        code = error.orig.args[0] if isinstance(error, OperationalError) and error.orig and error.orig.args else None
        extra = {"route": request.endpoint, "code": code if isinstance(code, int) else type(error).__name__}
        app.logger.warning("database does not answer", extra=extra)
        if code in _HELD:
            return problem(
                503, "held", "This is being changed by another request just now. Nothing was changed; try again."
            )
        return problem(
            503, "no-database", "The database does not answer just now. Nothing that you typed is lost; try again."
        )

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        status = error.code or 500
        code, title = _TITLES.get(status, ("refused", error.description or error.name))
        return problem(status, code, title)

    @app.errorhandler(Exception)
    def unexpected(error: Exception) -> Response:
        app.logger.exception("unexpected error", extra={"route": request.endpoint})
        return problem(500, "error", "Something went wrong on the server. It was noted; try again.")
