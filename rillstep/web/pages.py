"""The built front end: its files, and one page for every other address."""

import secrets
from pathlib import Path

from flask import Blueprint, Response, current_app, send_from_directory
from werkzeug.exceptions import NotFound

from rillstep.web.problems import problem

DIST = Path(__file__).parents[2] / "frontend" / "dist"

pages = Blueprint("pages", __name__)


@pages.get("/api/health")
def health() -> Response:
    """Does the app answer, and its database?"""
    current_app.extensions["rillstep_database"].ready()
    return Response("ok\n", mimetype="text/plain")


@pages.get("/api/<path:anything>")
def no_such_api(anything: str) -> Response:
    """An unknown address below /api gets a problem, never the page."""
    return problem(404, "not-found", "There is nothing at this address.")


@pages.get("/assets/<path:name>")
def asset(name: str) -> Response:
    response = send_from_directory(DIST / "assets", name)
    response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
    return response


@pages.get("/favicon.svg")
def icon() -> Response:
    return send_from_directory(DIST, "favicon.svg")


@pages.get("/", defaults={"anything": ""})
@pages.get("/<path:anything>")
def page(anything: str) -> Response:
    """The single page, with a fresh nonce for its styles."""
    index = DIST / "index.html"
    if not index.exists():
        raise NotFound("The front end is not built; run “make setup”.")
    nonce = secrets.token_urlsafe(16)
    response = Response(index.read_text().replace("__CSP_NONCE__", nonce), mimetype="text/html")
    response.headers["Content-Security-Policy"] = (
        f"default-src 'self'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; font-src 'self'; "
        "object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
    )
    response.headers["Cache-Control"] = "no-store"
    return response
