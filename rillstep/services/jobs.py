"""Long work that is under way: how far it is, who it is for, and whether it shall stop. Shared by all processes."""

from datetime import timedelta

from pydantic import BaseModel
from sqlalchemy import delete, func, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from rillstep.services.accounts import now
from rillstep.services.errors import Busy, NotFound
from rillstep.store import Job

# So much of one studio, and of all, is under way or waits.
MOST_OF_ONE, MOST_OF_ALL = 2, 8
# What is older was left behind by a process that was killed.
_LEFT_BEHIND_S = 120


class JobView(BaseModel):
    """How far a piece of long work is; the stage is empty before its first word. of: 0 where it is not known."""

    under_way: bool
    stage: str = ""
    done: int = 0
    of: int = 0


def begin(session: Session, studio_id: int, name: str) -> None:
    """Notes that work begins. Raises Busy."""
    session.execute(delete(Job).where(Job.begun_at < now() - timedelta(seconds=_LEFT_BEHIND_S)))
    many = func.count(Job.id)
    if (session.scalar(select(many).where(Job.studio_id == studio_id)) or 0) >= MOST_OF_ONE:
        raise Busy("Two long pieces of work of yours are under way; wait until one of them is done, or stop one.")
    if (session.scalar(select(many)) or 0) >= MOST_OF_ALL:
        raise Busy("Many long pieces of work are under way just now; try again in a moment.")
    session.add(Job(studio_id=studio_id, name=name, begun_at=now(), stage="", done=0, of=0, stopped=False))
    try:
        session.flush()
    except IntegrityError:
        raise Busy("This is being worked already.") from None


def note(session: Session, studio_id: int, name: str, stage: str, done: int, of: int) -> bool:
    """Notes how far it is; returns whether it shall stop."""
    row = _own(session, studio_id, name)
    if row is None:
        return False
    row.stage, row.done, row.of = stage[:80], done, of
    return row.stopped


def end(session: Session, studio_id: int, name: str) -> None:
    """Forgets work that is done."""
    session.execute(delete(Job).where(Job.studio_id == studio_id, Job.name == name))


def state(session: Session, studio_id: int, name: str) -> JobView:
    """How far it is; not under way where it is done, or was never begun."""
    row = _own(session, studio_id, name)
    if row is None:
        return JobView(under_way=False)
    return JobView(under_way=True, stage=row.stage, done=row.done, of=row.of)


def stop(session: Session, studio_id: int, name: str) -> None:
    """Asks work to stop. Raises NotFound."""
    if _own(session, studio_id, name) is None:
        raise NotFound("This is done already, or was never begun.")
    session.execute(update(Job).where(Job.studio_id == studio_id, Job.name == name).values(stopped=True))


def _own(session: Session, studio_id: int, name: str) -> Job | None:
    return session.scalar(select(Job).where(Job.studio_id == studio_id, Job.name == name))
