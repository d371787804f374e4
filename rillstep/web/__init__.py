"""The web: routes, sessions, problem details. No rule of the craft is in here."""

from rillstep.web.app import create_app

__all__ = ["create_app"]
