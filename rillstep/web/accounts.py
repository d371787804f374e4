"""Sign up, sign in, sign out, who am I."""

import hashlib
import hmac
from typing import Any

from flask import current_app, session
from flask_login import current_user, login_user, logout_user
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from rillstep.services import accounts, example, views
from rillstep.web.limits import failures_limited, limited
from rillstep.web.problems import answers
from rillstep.web.session import User, csrf_token, unit_of_work

api = APIBlueprint(
    "accounts", __name__, url_prefix="/api", abp_responses=answers(401, 403), abp_security=[{"page": []}]
)


class SignIn(BaseModel):
    email: str
    password: str


class SignUp(SignIn):
    studio: str


def _account(studio_id: int) -> str:
    secret: str = current_app.config["SECRET_KEY"]
    return hmac.new(secret.encode(), f"account {studio_id}".encode(), hashlib.sha256).hexdigest()[:16]


def _me() -> dict[str, Any]:
    signed_in = current_user.is_authenticated
    view = views.MeView(
        email=current_user.email if signed_in else None,
        studio=current_user.studio_name if signed_in else None,
        account=_account(current_user.studio_id) if signed_in else None,
        csrf=csrf_token(),
    )
    return view.model_dump()


def _enter(user: User) -> dict[str, Any]:
    _leave()  # a new session for a new person: no token or cookie is carried over
    login_user(user)
    session.permanent = True
    return _me()


def _leave() -> None:
    """Ends the sign-in of this browser, also for copies of its cookie."""
    token = session.get("_user_id")  # as the package for sign-ins keeps it
    if token is not None:
        with unit_of_work() as work:
            accounts.end_sign_in(work, token)
    logout_user()
    session.clear()


@api.get("/example", responses={200: example.ExampleView})
def example_bag() -> Any:
    """What the product does, for those who are not signed in: one bag in its sizes, its lines proved."""
    return example.example_view().model_dump(mode="json")


@api.get("/me", responses={200: views.MeView})
def me() -> Any:
    """Who is signed in, and the CSRF token."""
    return _me()


@api.post("/sign-up", responses={200: views.MeView})
@limited("20 per hour")
def sign_up(body: SignUp) -> Any:
    """Make an account with a studio of its own, and sign in."""
    with unit_of_work() as work:
        designer = accounts.sign_up(work, body.email, body.password, body.studio)
        user = User(designer, accounts.begin_sign_in(work, designer))
    return _enter(user)


@api.post("/sign-in", responses={200: views.MeView})
@limited("10 per minute")
@failures_limited("30 per hour")
def sign_in(body: SignIn) -> Any:
    """Sign in."""
    with unit_of_work() as work:
        designer = accounts.sign_in(work, body.email, body.password)
        user = User(designer, accounts.begin_sign_in(work, designer))
    return _enter(user)


@api.post("/sign-out", responses={200: views.MeView})
def sign_out() -> Any:
    """Sign out; the cookie is good for nothing after it."""
    _leave()
    return _me()
