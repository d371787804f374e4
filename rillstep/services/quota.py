"""The room that a studio has for its designs, said before it is used up."""

from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from rillstep.services.errors import Refused
from rillstep.store import DesignRow, Revision, Studio

MOST_DESIGNS = 500
MOST_BYTES = 500_000_000
# From so much of it on it is said.
_NEARLY = 0.8


class QuotaUsed(Refused):
    """The studio's room is used up."""

    status, code = 422, "no-room"


@dataclass(frozen=True)
class Quota:
    """How many designs a studio has, and how many bytes all their revisions take."""

    designs: int
    size: int

    @property
    def words(self) -> str:
        """What is said of it: empty while there is plenty."""
        if self.size >= _NEARLY * MOST_BYTES:
            return (
                f"Your designs and their revisions take {self.size / 1e6:.0f} of {MOST_BYTES / 1e6:.0f} MB. Make room: "
                "delete designs that you need no longer, or old revisions of one (“Revisions” in its head)."
            )
        if self.designs >= _NEARLY * MOST_DESIGNS:
            return f"You have {self.designs} of {MOST_DESIGNS} designs. Delete some that you need no longer."
        return ""


def quota_of(session: Session, studio_id: int) -> Quota:
    """What a studio has used."""
    own = (DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_(None))
    designs = session.scalar(select(func.count(DesignRow.id)).where(*own)) or 0
    taken = select(func.coalesce(func.sum(Revision.size), 0)).join(DesignRow).where(*own)
    return Quota(designs, int(session.scalar(taken) or 0))


def take(session: Session, studio_id: int, size: int, designs: int = 0) -> None:
    """Makes sure that there is room for a revision of so many bytes, and for so many new designs. Raises QuotaUsed."""
    if designs:  # one at a time, so that two at once do not both take the last place
        session.execute(select(Studio.id).where(Studio.id == studio_id).with_for_update())
    room = quota_of(session, studio_id)
    if room.designs + designs > MOST_DESIGNS:
        raise QuotaUsed(f"A studio has at most {MOST_DESIGNS} designs. Delete some that you need no longer first.")
    if room.size + size > MOST_BYTES:
        raise QuotaUsed(
            f"Your designs and their revisions take all of their {MOST_BYTES / 1e6:.0f} MB, so this was not saved; it "
            "is kept in this browser. Make room: delete old revisions, or designs that you need no longer."
        )
