"""Limits of how often something is asked for, by address and by account, shared by all processes of the application."""

import hashlib
import secrets
import time
from collections.abc import Callable
from typing import Any, TypeVar

from flask import Response, current_app, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import current_user
from limits.storage import Storage
from sqlalchemy import delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.exc import SQLAlchemyError

from rillstep.store import Database, Hit

# Of so many notes one clears away those that have run out.
_CLEARED_EACH = 200


class MariaDbStorage(Storage):
    """Counts in the table `hits` of the application's database; the package has none for SQL. A key holds an address
    or a name, so only its hash is kept."""

    STORAGE_SCHEME = ["mariadb"]  # noqa: RUF012

    @property
    def base_exceptions(self) -> type[Exception]:
        return SQLAlchemyError

    def incr(self, key: str, expiry: int, amount: int = 1) -> int:
        """Counts; returns how often it was in the present span, which ends `expiry` seconds after its first."""
        now, hashed = int(time.time()), _hashed(key)
        counted = insert(Hit).values(key=hashed, many=amount, ends_at=now + expiry)
        over = Hit.ends_at <= now
        # MariaDB sets columns in order: `many` still sees the old end.
        again = counted.on_duplicate_key_update([
            ("many", func.if_(over, amount, Hit.many + amount)),
            ("ends_at", func.if_(over, now + expiry, Hit.ends_at)),
        ])  # fmt: skip
        with _database().unit_of_work() as work:
            work.execute(again)
            many = work.scalar(select(Hit.many).where(Hit.key == hashed))
            if secrets.randbelow(_CLEARED_EACH) == 0:
                work.execute(delete(Hit).where(Hit.ends_at <= now))
        return many or 0

    def get(self, key: str) -> int:
        """How often it was in the present span."""
        with _database().unit_of_work() as work:
            found = work.scalar(select(Hit.many).where(Hit.key == _hashed(key), Hit.ends_at > int(time.time())))
        return found or 0

    def get_expiry(self, key: str) -> float:
        """When the present span ends, in seconds since 1970."""
        with _database().unit_of_work() as work:
            found = work.scalar(select(Hit.ends_at).where(Hit.key == _hashed(key)))
        return float(found or time.time())

    def check(self) -> bool:
        """Whether the database answers."""
        return _database().ready()

    def reset(self) -> int | None:
        """Forgets all counts."""
        with _database().unit_of_work() as work:
            work.execute(delete(Hit))
        return None

    def clear(self, key: str) -> None:
        """Forgets a count."""
        with _database().unit_of_work() as work:
            work.execute(delete(Hit).where(Hit.key == _hashed(key)))


def _database() -> Database:
    found: Database = current_app.extensions["rillstep_database"]
    return found


def _hashed(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()


limiter = Limiter(get_remote_address, storage_uri="mariadb://", headers_enabled=False)

View = TypeVar("View", bound=Callable[..., Any])


def _unlimited() -> bool:
    return not current_app.config["LIMITED"]


def limited(rate: str) -> Callable[[View], View]:
    """Limits a route to a rate for each address, where this application's settings say so."""
    return limiter.limit(rate, exempt_when=_unlimited)  # type: ignore[return-value]


def limited_by_account(rate: str) -> Callable[[View], View]:
    """Limits a route to a rate for each studio."""
    return limiter.limit(rate, key_func=_account, exempt_when=_unlimited)  # type: ignore[return-value]


def failures_limited(rate: str) -> Callable[[View], View]:
    """Limits how often a sign-in to one account fails, from wherever it is tried."""
    return limiter.limit(  # type: ignore[return-value]
        rate, key_func=_email, exempt_when=_unlimited, deduct_when=lambda response: _is_refused(response)
    )


def _account() -> str:
    return f"studio {current_user.studio_id}" if current_user.is_authenticated else get_remote_address()


def _email() -> str:
    body = request.get_json(silent=True)
    given = body.get("email") if isinstance(body, dict) else None
    return f"email {given.strip().lower()}" if isinstance(given, str) else get_remote_address()


def _is_refused(response: Response) -> bool:
    return response.status_code == 401
