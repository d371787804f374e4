"""Settings, from the environment."""

import os
import secrets
from dataclasses import dataclass


@dataclass(frozen=True)
class Settings:
    """database_url: SQLAlchemy URL. secret: signs the session cookie. https: cookies only over HTTPS."""

    database_url: str
    secret: str
    https: bool = False
    rate_limits: bool = True
    log_level: str = "INFO"


def from_environment() -> Settings:
    """RILLSTEP_DATABASE_URL (needed), RILLSTEP_SECRET, RILLSTEP_HTTPS, RILLSTEP_RATE_LIMITS, RILLSTEP_LOG_LEVEL."""
    url = os.environ.get("RILLSTEP_DATABASE_URL")
    if not url:
        raise SystemExit("Set RILLSTEP_DATABASE_URL, or run “make demo”, which starts a database of its own.")
    return Settings(
        url,
        os.environ.get("RILLSTEP_SECRET") or secrets.token_hex(32),
        os.environ.get("RILLSTEP_HTTPS") == "1",
        os.environ.get("RILLSTEP_RATE_LIMITS") != "off",
        os.environ.get("RILLSTEP_LOG_LEVEL", "INFO").upper(),
    )
