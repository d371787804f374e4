"""Who is asking: sign-in sessions, the CSRF guard, rate limits, the unit of work of a request."""

import hmac
import secrets
from collections.abc import Iterator
from contextlib import contextmanager

from flask import Flask, Response, current_app, request, session
from flask_login import LoginManager, UserMixin, current_user
from sqlalchemy.orm import Session

from rillstep.document.json_text import NotJson, parsed
from rillstep.services import accounts
from rillstep.services.errors import Refused
from rillstep.store import Database, Designer
from rillstep.web.limits import limiter
from rillstep.web.problems import problem

# Open to everybody; tester links carry their own secret.
_OPEN = ("/api/me", "/api/example", "/api/sign-", "/api/t/", "/api/health", "/api/docs")


# The two things that a request of a signed-in designer carries, by their names in OpenAPI.
SIGNED_IN: list[dict[str, list[str]]] = [{"sign-in": [], "page": []}]


class User(UserMixin):  # type: ignore[misc]
    """The signed-in designer, as far as a request needs to know her."""

    def __init__(self, designer: Designer, token: str) -> None:
        self.id = token  # of the sign-in, which can be revoked
        self.studio_id = designer.studio_id
        self.email = designer.email
        self.studio_name = designer.studio.name


class NotSignedIn(Refused):
    status, code = 401, "not-signed-in"


@contextmanager
def unit_of_work() -> Iterator[Session]:
    """A session of this app's database; everything in it is kept, or nothing."""
    database: Database = current_app.extensions["rillstep_database"]
    with database.unit_of_work() as work:
        yield work


def studio_id() -> int:
    """The asker's studio. Raises NotSignedIn."""
    if not current_user.is_authenticated:
        raise NotSignedIn("Sign in first; then this goes on where you were.")
    found: int = current_user.studio_id
    return found


def csrf_token() -> str:
    """The token that must come back in X-CSRF-Token; one for each session."""
    if "csrf" not in session:
        session["csrf"] = secrets.token_urlsafe(24)
    token: str = session["csrf"]
    return token


def register(app: Flask) -> None:
    manager = LoginManager(app)

    @manager.user_loader  # type: ignore[untyped-decorator]
    def load_user(token: str) -> User | None:
        with unit_of_work() as work:
            designer = accounts.signed_in(work, token)
            return User(designer, token) if designer is not None else None

    @app.before_request
    def signed_in() -> Response | None:
        # Before anything of the request is read: a stranger learns nothing about what a route takes.
        if request.path.startswith("/api/") and not request.path.startswith(_OPEN):
            studio_id()
        return None

    @app.before_request
    def guard() -> Response | None:
        # Tester links carry their own secret and use no cookie, so there is nothing to forge.
        if request.method in ("GET", "HEAD", "OPTIONS") or request.path.startswith("/api/t/"):
            return None
        sent, kept = request.headers.get("X-CSRF-Token", ""), session.get("csrf", "")
        if not kept or not hmac.compare_digest(sent.encode(), kept.encode()):
            return problem(403, "csrf", "This page has been open for too long. Reload it; what you typed is kept.")
        return None

    @app.before_request
    def sound_body() -> Response | None:
        # What no request can mean is refused here, once, and not in each place that would stumble over it.
        if request.is_json and request.path != "/api/designs/import":  # a file says itself what is wrong with it
            try:
                parsed(request.get_data() or b"null")
            except NotJson as error:
                fault = {"path": "$", "value": "", "message": str(error)}
                return problem(422, "invalid", f"The request cannot be read: {error}.", [fault])
        return None

    limiter.init_app(app)
