"""What heavy work made, kept by its content for a while: the next who asks for the same gets it at once."""

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from rillstep.services.accounts import now
from rillstep.store import Result

# What is larger is not kept; so many bytes are kept in all, and the oldest make way.
MOST_BYTES_OF_ONE, MOST_BYTES = 4_000_000, 200_000_000
_ROOM_AT_ONCE = 50


def kept(session: Session, key: str) -> bytes | None:
    """What is kept under a key; None where nothing is."""
    return session.scalar(select(Result.made).where(Result.content_key == key))


def keep(session: Session, key: str, made: bytes) -> None:
    """Keeps what was made, and makes room for it."""
    if len(made) > MOST_BYTES_OF_ONE:
        return
    total = session.scalar(select(func.coalesce(func.sum(Result.size), 0))) or 0
    if total + len(made) > MOST_BYTES:
        oldest = list(session.scalars(select(Result.id).order_by(Result.id).limit(_ROOM_AT_ONCE)))
        session.execute(delete(Result).where(Result.id.in_(oldest)))
    row = insert(Result).values(content_key=key, made=made, size=len(made), made_at=now())
    session.execute(row.prefix_with("IGNORE"))  # another request may have made the same meanwhile
