"""Designs of a studio: list, open, save as a new revision, compare, restore, delete."""

from datetime import timedelta
from typing import Any

from pydantic import ValidationError
from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from rillstep.document import Changes, Design, dump, faults_of, load, with_changes
from rillstep.document.fields import field_called, value_shown
from rillstep.services import design_views, quota
from rillstep.services.accounts import now
from rillstep.services.errors import Conflict, Invalid, NotFound
from rillstep.services.text_changes import changes_of
from rillstep.store import DesignRow, Revision

# Designs, and revisions, of one page of a list.
PAGE = 50
# What is deleted can be brought back for so many days, and so many designs of it.
KEPT_DAYS, MOST_DELETED = 30, 50


def _own(session: Session, studio_id: int, design_id: int, lock: bool = False, deleted: bool = False) -> DesignRow:
    is_deleted = DesignRow.deleted_at.is_not(None) if deleted else DesignRow.deleted_at.is_(None)
    query = select(DesignRow).where(DesignRow.id == design_id, DesignRow.studio_id == studio_id, is_deleted)
    row = session.scalar(query.with_for_update() if lock else query)
    if row is None:
        raise NotFound("This design does not exist, or belongs to another studio.")
    return row


def _revision(session: Session, design_id: int, number: int) -> Revision:
    row = session.scalar(select(Revision).where(Revision.design_id == design_id, Revision.number == number))
    if row is None:
        raise NotFound(f"There is no revision {number} of this design.")
    return row


def newest_document(session: Session, design_id: int) -> str:
    """The document of the newest revision of a design, as it is kept."""
    query = select(Revision.document).where(Revision.design_id == design_id).order_by(Revision.number.desc()).limit(1)
    return session.scalars(query).one()


def own_design(session: Session, studio_id: int, design_id: int, lock: bool = False) -> DesignRow:
    """A design of this studio; lock: nobody else changes or deletes it meanwhile. Raises NotFound."""
    return _own(session, studio_id, design_id, lock)


def list_designs(session: Session, studio_id: int, page: int = 1, search: str = "") -> design_views.DesignsView:
    """A page of a studio's designs, the last saved first; search: what their names hold."""
    own = select(DesignRow).where(DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_(None))
    if search.strip():
        own = own.where(DesignRow.name.contains(search.strip(), autoescape=True))
    total = session.scalar(select(func.count()).select_from(own.subquery())) or 0
    rows = session.scalars(
        own.order_by(DesignRow.saved_at.desc(), DesignRow.id.desc()).limit(PAGE).offset((page - 1) * PAGE)
    )
    return design_views.DesignsView(
        designs=[
            design_views.DesignItem(
                id=row.id, name=row.name, revision=row.revision, saved_at=row.saved_at, sizes=row.sizes
            )
            for row in rows
        ],
        page=page, pages=max(1, -(-total // PAGE)), total=total, room=quota.quota_of(session, studio_id).words,
    )  # fmt: skip


def create(session: Session, studio_id: int, design: Design, note: str = "") -> design_views.DesignView:
    """Keep a new design as its revision 1. Raises QuotaUsed."""
    text = dump(design)
    quota.take(session, studio_id, len(text.encode()), designs=1)
    row = DesignRow(
        studio_id=studio_id, name=design.name, revision=1, sizes=_sizes(design), created_at=now(), saved_at=now()
    )
    session.add(row)
    session.flush()
    session.add(_revision_row(row, text, note))
    return design_views.DesignView(id=row.id, revision=1, saved_at=row.saved_at, document=design)


def _sizes(design: Design) -> list[str]:
    return [size.name for size in design.sizes]


def _revision_row(row: DesignRow, text: str, note: str) -> Revision:
    return Revision(
        design_id=row.id, number=row.revision, document=text, size=len(text.encode()), note=note, saved_at=row.saved_at
    )


def read(session: Session, studio_id: int, design_id: int) -> design_views.DesignView:
    """A design as it was last saved. Raises NotFound."""
    row = _own(session, studio_id, design_id)
    document = load(_revision(session, row.id, row.revision).document)
    return design_views.DesignView(id=row.id, revision=row.revision, saved_at=row.saved_at, document=document)


def _saved_elsewhere(row: DesignRow, base: int) -> Conflict:
    return Conflict(
        f"This design was saved elsewhere in the meantime (revision {row.revision}; yours began at {base}).",
        row.revision,
    )


def changed(session: Session, studio_id: int, design_id: int, base: int, changes: Changes) -> Design:
    """A design with what was changed since revision `base`. Raises NotFound, and Invalid with the fields that are
    wrong; Conflict where others saved, and the revision is deleted."""
    row = _own(session, studio_id, design_id)
    try:
        document = load(_revision(session, row.id, base).document)
    except NotFound:
        if base < row.revision:  # others saved, and deleted old revisions
            raise _saved_elsewhere(row, base) from None
        raise
    try:
        return with_changes(document, changes)
    except ValidationError as error:
        faults = tuple(faults_of(error.errors(include_url=False)))
        raise Invalid(faults[0].words, faults) from None
    except ValueError as error:
        raise Invalid(f"What was changed does not fit revision {base}: {error}.") from None


def save(
    session: Session, studio_id: int, design_id: int, base: int, design: Design, note: str = ""
) -> design_views.SavedView:
    """Save on top of revision `base`. Raises NotFound, QuotaUsed, and Conflict when another
    save came first.

    A save that changes nothing makes no revision.
    """
    row = _own(session, studio_id, design_id, lock=True)
    text = dump(design)
    same = _revision(session, row.id, row.revision).document == text
    if same:
        # Also what a client sees that repeats a save whose answer was lost.
        return design_views.SavedView(id=row.id, revision=row.revision, saved_at=row.saved_at)
    if row.revision != base:
        raise _saved_elsewhere(row, base)
    quota.take(session, studio_id, len(text.encode()))
    row.revision += 1
    row.name, row.sizes, row.saved_at = design.name, _sizes(design), now()
    session.add(_revision_row(row, text, note))
    return design_views.SavedView(id=row.id, revision=row.revision, saved_at=row.saved_at)


def remove(session: Session, studio_id: int, design_id: int) -> None:
    """Delete a design; it can be brought back for a while, with its revisions and tests. Raises NotFound."""
    row = _own(session, studio_id, design_id, lock=True)
    row.deleted_at = now()
    session.flush()
    _forget_long_deleted(session, studio_id)


def remove_for_good(session: Session, studio_id: int, design_id: int) -> None:
    """Forget a deleted design with all its revisions and tests. Raises NotFound."""
    row = _own(session, studio_id, design_id, lock=True, deleted=True)
    session.execute(delete(DesignRow).where(DesignRow.id == row.id))


def deleted_designs(session: Session, studio_id: int) -> design_views.DeletedView:
    """The designs that can be brought back, the last deleted first."""
    _forget_long_deleted(session, studio_id)
    own = select(DesignRow).where(DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_not(None))
    rows = session.scalars(own.order_by(DesignRow.deleted_at.desc(), DesignRow.id.desc()))
    return design_views.DeletedView(
        designs=[
            design_views.DeletedItem(id=row.id, name=row.name, until=row.deleted_at + timedelta(days=KEPT_DAYS))
            for row in rows if row.deleted_at is not None
        ]
    )  # fmt: skip


def bring_back(session: Session, studio_id: int, design_id: int) -> None:
    """Bring a deleted design back, as it was. Raises NotFound, QuotaUsed."""
    row = _own(session, studio_id, design_id, lock=True, deleted=True)
    size = session.scalar(select(func.sum(Revision.size)).where(Revision.design_id == row.id)) or 0
    quota.take(session, studio_id, int(size), designs=1)
    row.deleted_at = None


def _forget_long_deleted(session: Session, studio_id: int) -> None:
    """Forgets what was deleted long ago, and what is more than is kept."""
    own = (DesignRow.studio_id == studio_id, DesignRow.deleted_at.is_not(None))
    session.execute(delete(DesignRow).where(*own, DesignRow.deleted_at < now() - timedelta(days=KEPT_DAYS)))
    kept = select(DesignRow.id).where(*own).order_by(DesignRow.deleted_at.desc(), DesignRow.id.desc())
    more = list(session.scalars(kept))[MOST_DELETED:]
    if more:
        session.execute(delete(DesignRow).where(DesignRow.id.in_(more)))


def revisions(session: Session, studio_id: int, design_id: int, page: int = 1) -> design_views.RevisionsView:
    """A page of the revisions, the newest first."""
    row = _own(session, studio_id, design_id)
    own = select(Revision.number, Revision.note, Revision.saved_at).where(Revision.design_id == row.id)
    total = session.scalar(select(func.count(Revision.id)).where(Revision.design_id == row.id)) or 0
    found = session.execute(own.order_by(Revision.number.desc()).limit(PAGE).offset((page - 1) * PAGE))
    return design_views.RevisionsView(
        revisions=[design_views.RevisionItem(number=r.number, note=r.note, saved_at=r.saved_at) for r in found],
        page=page, pages=max(1, -(-total // PAGE)), total=total, room=quota.quota_of(session, studio_id).words,
    )  # fmt: skip


def forget_revisions(session: Session, studio_id: int, design_id: int, before: int) -> int:
    """Delete the revisions before one of them, which makes room; returns how many. The newest stays. Raises
    NotFound."""
    row = _own(session, studio_id, design_id, lock=True)
    old = delete(Revision).where(Revision.design_id == row.id, Revision.number < min(before, row.revision))
    return session.execute(old).rowcount  # type: ignore[attr-defined, no-any-return]


def revision(session: Session, studio_id: int, design_id: int, number: int) -> design_views.RevisionView:
    """One revision, with what differs between it and the newest one."""
    row = _own(session, studio_id, design_id)
    old = _revision(session, row.id, number)
    newest = _revision(session, row.id, row.revision)
    before, after = load(old.document), load(newest.document)
    return design_views.RevisionView(
        number=number, saved_at=old.saved_at, document=before, changes=differences(before, after),
        lines=changes_of(before.text, after.text),
    )  # fmt: skip


def restore(session: Session, studio_id: int, design_id: int, number: int, base: int) -> design_views.SavedView:
    """Make an old revision the newest again, as a new revision: nothing is lost."""
    row = _own(session, studio_id, design_id, lock=True)
    document = load(_revision(session, row.id, number).document)
    return save(session, studio_id, design_id, base, document, f"Restored from revision {number}")


def _flat(value: Any, path: str = "$") -> dict[str, Any]:
    """Every value by its path, but the text."""
    if isinstance(value, dict):
        return {k: v for key, inner in value.items() for k, v in _flat(inner, f"{path}.{key}").items()}
    if isinstance(value, list):
        return {k: v for index, inner in enumerate(value) for k, v in _flat(inner, f"{path}[{index}]").items()}
    return {} if path == "$.text" else {path: value}


def differences(before: Design, after: Design) -> list[design_views.ChangeView]:
    """Every value that differs between two designs, called as on the screen; their texts are compared by lines."""
    old, new = _flat(before.model_dump(mode="json")), _flat(after.model_dump(mode="json"))
    names = [size.name for size in (after if len(after.sizes) >= len(before.sizes) else before).sizes]
    return [
        design_views.ChangeView(
            field=field_called(path, names), before=value_shown(path, old.get(path), before.units),
            after=value_shown(path, new.get(path), after.units),
        )
        for path in dict.fromkeys((*old, *new)) if old.get(path) != new.get(path)
    ]  # fmt: skip
