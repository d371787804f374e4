"""Designers and their studios: sign up, sign in."""

import hashlib
import re
import secrets
from datetime import UTC, datetime, timedelta
from threading import BoundedSemaphore

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy import delete, select
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from rillstep.document import Fault
from rillstep.services.errors import Invalid, Refused
from rillstep.store import Designer, SignInRow, Studio

# As OWASP advises (Password Storage: 19 MiB, 2 passes, 1 lane). A hash takes memory and time, so few are
# made at once in a process, and the others wait.
_HASHER = PasswordHasher(time_cost=2, memory_cost=19 * 1024, parallelism=1)
_HASHING = BoundedSemaphore(2)
# Verified against when the address is unknown, so that both cases take as long.
_NOBODY = _HASHER.hash("nobody signs in with this")
_EMAIL = re.compile(r"^[^@\s]{1,64}@[^@\s]+\.[^@\s.]{2,}$")
SHORTEST_PASSWORD = 10
# A sign-in is good for so long, and a designer has so many at a time: on her own machines, and one that she forgot.
SIGN_IN_DAYS, MOST_SIGN_INS = 30, 20


class WrongSignIn(Refused):
    """Unknown address or wrong password: it is not said which."""

    status, code = 401, "wrong-sign-in"


def now() -> datetime:
    """The present in UTC, without a zone, to whole seconds, as the database keeps it."""
    return datetime.now(UTC).replace(tzinfo=None, microsecond=0)


def sign_up(session: Session, email: str, password: str, studio: str) -> Designer:
    """A new designer with a studio of her own. Raises Invalid."""
    email, studio = email.strip().lower(), " ".join(studio.split())
    faults = []
    if not _EMAIL.match(email) or len(email) > 254:
        faults.append(Fault("$.email", "", "write an e-mail address, such as name@example.org"))
    if len(password) < SHORTEST_PASSWORD or len(password) > 200:
        faults.append(Fault("$.password", "", f"choose a password of {SHORTEST_PASSWORD} to 200 characters"))
    if not 1 <= len(studio) <= 120:
        faults.append(Fault("$.studio", "", "give your studio a name of up to 120 characters"))
    if faults:
        raise Invalid("The account was not made; see the fields.", tuple(faults))
    row = Studio(name=studio, created_at=now())
    with _HASHING:
        hashed = _HASHER.hash(password)
    designer = Designer(studio=row, email=email, password_hash=hashed, created_at=now())
    session.add(designer)
    try:
        session.flush()
    except IntegrityError:
        fault = Fault("$.email", "", "there is an account with this address; sign in instead")
        raise Invalid("The account was not made; see the fields.", (fault,)) from None
    return designer


def sign_in(session: Session, email: str, password: str) -> Designer:
    """The designer with this address and password. Raises WrongSignIn."""
    designer = session.scalar(select(Designer).where(Designer.email == email.strip().lower()))
    stored = designer.password_hash if designer else _NOBODY
    try:
        with _HASHING:
            _HASHER.verify(stored, password)
    except (VerifyMismatchError, InvalidHashError):
        designer = None
    if designer is None:
        raise WrongSignIn("E-mail address and password do not fit together.")
    return designer


def hash_token(token: str) -> str:
    """Sign-ins and links are kept as hashes only; a token has 192 bits or more, so a plain hash is enough."""
    return hashlib.sha256(token.encode()).hexdigest()


def begin_sign_in(session: Session, designer: Designer) -> str:
    """The token of a new sign-in. Those that have run out, or are too many, end."""
    token = secrets.token_urlsafe(32)
    kept = select(SignInRow).where(SignInRow.designer_id == designer.id).order_by(SignInRow.id.desc())
    for old in list(session.scalars(kept))[MOST_SIGN_INS - 1 :]:
        session.delete(old)
    session.execute(delete(SignInRow).where(SignInRow.begun_at < now() - timedelta(days=SIGN_IN_DAYS)))
    session.add(SignInRow(token_hash=hash_token(token), designer_id=designer.id, begun_at=now()))
    return token


def signed_in(session: Session, token: str) -> Designer | None:
    """The designer of a sign-in that is still good; None for any other token."""
    row = session.scalar(select(SignInRow).where(SignInRow.token_hash == hash_token(token)))
    if row is None or row.begun_at < now() - timedelta(days=SIGN_IN_DAYS):
        return None
    return row.designer


def end_sign_in(session: Session, token: str) -> None:
    """Revokes a sign-in: a copy of its cookie opens nothing any more."""
    session.execute(delete(SignInRow).where(SignInRow.token_hash == hash_token(token)))
