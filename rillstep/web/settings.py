"""Settings, from the environment."""

import os
from dataclasses import dataclass

# A secret of fewer characters can be guessed.
SHORTEST_SECRET = 32


@dataclass(frozen=True)
class Settings:
    """database_url: SQLAlchemy URL. secret: signs the session cookie. https: cookies only over HTTPS. proxies: how many
    proxies stand before the application, whose forwarded headers are believed. heavy_workers: processes for heavy work
    (0: it is done in the request); deadline_s: when such work is stopped; heavy_nice: how much it
    gives way to the others; scale: where a kitchen scale is heard, host:port; empty: there is none."""

    database_url: str
    secret: str
    https: bool = False
    rate_limits: bool = True
    log_level: str = "INFO"
    proxies: int = 0
    heavy_workers: int = 0
    deadline_s: float = 20.0
    heavy_nice: int = 10
    scale: str = ""


def from_environment() -> Settings:
    """RILLSTEP_DATABASE_URL and RILLSTEP_SECRET (both needed), RILLSTEP_HTTPS, RILLSTEP_RATE_LIMITS,
    RILLSTEP_LOG_LEVEL, RILLSTEP_PROXIES, RILLSTEP_HEAVY_WORKERS (1), RILLSTEP_DEADLINE_S (20),
    RILLSTEP_HEAVY_NICE (10), RILLSTEP_SCALE. Raises SystemExit, with a word on what to do."""
    url = os.environ.get("RILLSTEP_DATABASE_URL")
    if not url:
        raise SystemExit("Set RILLSTEP_DATABASE_URL, or run “make demo”, which starts a database of its own.")
    secret = os.environ.get("RILLSTEP_SECRET", "")
    if len(secret) < SHORTEST_SECRET:
        raise SystemExit(
            f"Set RILLSTEP_SECRET to at least {SHORTEST_SECRET} characters that nobody can guess, such as the output "
            "of “python3 -c 'import secrets; print(secrets.token_hex(32))'”; keep it, or all sessions end."
        )
    return Settings(
        url,
        secret,
        os.environ.get("RILLSTEP_HTTPS") == "1",
        os.environ.get("RILLSTEP_RATE_LIMITS") != "off",
        os.environ.get("RILLSTEP_LOG_LEVEL", "INFO").upper(),
        int(os.environ.get("RILLSTEP_PROXIES", "0")),
        int(os.environ.get("RILLSTEP_HEAVY_WORKERS", "1")),
        float(os.environ.get("RILLSTEP_DEADLINE_S", "20")),
        int(os.environ.get("RILLSTEP_HEAVY_NICE", "10")),
        os.environ.get("RILLSTEP_SCALE", ""),
    )
