"""The application: settings in, a Flask app out."""

import gc
import json
import logging
import time
import traceback
from datetime import timedelta

from flask import Response, g, request
from flask_openapi3 import Info, OpenAPI
from werkzeug.exceptions import HTTPException
from werkzeug.middleware.proxy_fix import ProxyFix

from rillstep import __version__
from rillstep.store import Database
from rillstep.web import accounts, designs, intake, jobs, pages, phrases, problems, session, testers, tests, work
from rillstep.web.computing import Computing
from rillstep.web.pool import COLLECTED_AFTER, Pool
from rillstep.web.settings import Settings, from_environment

MAX_BYTES = 3 * 1024 * 1024


class _JsonLines(logging.Formatter):
    """One JSON object a line; no addresses, names or contents."""

    def format(self, record: logging.LogRecord) -> str:
        fields: dict[str, object] = {
            "at": self.formatTime(record),
            "level": record.levelname,
            "message": record.getMessage(),
        }
        for key in ("route", "method", "status", "ms", "code"):
            if hasattr(record, key):
                fields[key] = getattr(record, key)
        if record.exc_info and record.exc_info[0] is not None:
            # What went wrong and where, and never the message of an error: it may quote what somebody typed.
            fields["error"] = record.exc_info[0].__name__
            fields["stack"] = [f"{f.filename}:{f.lineno} {f.name}" for f in traceback.extract_tb(record.exc_info[2])]
        return json.dumps(fields)


def create_app(settings: Settings | None = None) -> OpenAPI:
    """The WSGI application."""
    settings = settings or from_environment()
    # Trees and edges are immutable, long-lived and many: looking for cycles among them as often as usual
    # takes a third of the time of an edit, and finds none.
    gc.set_threshold(*COLLECTED_AFTER)
    app = OpenAPI(
        "rillstep",
        info=Info(title="Rillstep", version=__version__),
        security_schemes={
            "sign-in": {"type": "apiKey", "in": "cookie", "name": "rillstep"},
            "page": {"type": "apiKey", "in": "header", "name": "X-CSRF-Token"},
        },
        validation_error_callback=problems.invalid_input,
        validation_error_model=problems.Problem,
        doc_ui=True,
        doc_prefix="/api/docs",
        doc_url="/openapi.json",
        static_folder=None,
    )
    app.config.update(
        SECRET_KEY=settings.secret,
        MAX_CONTENT_LENGTH=MAX_BYTES,
        SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_SAMESITE="Lax",
        SESSION_COOKIE_SECURE=settings.https,
        # With this prefix a browser takes the cookie from this host over HTTPS only, and from no neighbour.
        SESSION_COOKIE_NAME="__Host-rillstep" if settings.https else "rillstep",
        PERMANENT_SESSION_LIFETIME=timedelta(days=30),
        LIMITED=settings.rate_limits,
    )
    if settings.proxies:
        many = settings.proxies
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=many, x_proto=many, x_host=many)  # type: ignore[method-assign]
    app.extensions["rillstep_database"] = Database(settings.database_url)
    app.extensions["rillstep_settings"] = settings
    app.extensions["rillstep_lanes"] = Computing(Pool(settings.heavy_workers, settings.deadline_s, settings.heavy_nice))
    _log(app, settings.log_level)
    problems.register(app)
    session.register(app)
    for blueprint in (accounts.api, designs.api, intake.api, work.api, jobs.api, phrases.api, tests.api, testers.api):
        app.register_api(blueprint)
    app.register_blueprint(pages.pages)
    return app


def _read_to_its_end() -> None:
    """Reads what is left of a request that was answered before it was read: a client that still sends may otherwise
    see a closed connection in place of its answer."""
    try:
        while request.stream.read(65_536):
            pass
    except (HTTPException, OSError):
        pass  # larger than is read at all, or gone


def _log(app: OpenAPI, level: str) -> None:
    handler = logging.StreamHandler()
    handler.setFormatter(_JsonLines())
    app.logger.handlers[:] = [handler]
    app.logger.setLevel(level)
    app.logger.propagate = False

    @app.before_request
    def start() -> None:
        g.started = time.perf_counter()

    @app.after_request
    def finish(response: Response) -> Response:
        _read_to_its_end()
        # The route's pattern is logged, not the path: paths hold tester links.
        if request.path.startswith("/api/"):
            ms = round((time.perf_counter() - g.get("started", time.perf_counter())) * 1000, 1)
            fields = {"route": request.endpoint, "method": request.method, "status": response.status_code, "ms": ms}
            app.logger.info("request", extra=fields)
            response.headers.setdefault("Cache-Control", "no-store")
        response.headers["X-Content-Type-Options"] = "nosniff"
        response.headers["Referrer-Policy"] = "no-referrer"
        response.headers["X-Frame-Options"] = "DENY"
        response.headers["Cross-Origin-Opener-Policy"] = "same-origin"
        response.headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=(), payment=(), usb=()"
        if app.config["SESSION_COOKIE_SECURE"]:
            response.headers["Strict-Transport-Security"] = "max-age=31536000; includeSubDomains"
        return response
