"""What the screens of designs and revisions get: lists by pages, ready bags, what was deleted, and what differs."""

from datetime import datetime

from pydantic import BaseModel

from rillstep.document import Design
from rillstep.services.views import LinesChangedView


class DesignItem(BaseModel):
    id: int
    name: str
    revision: int
    sizes: list[str]
    saved_at: datetime


class DesignsView(BaseModel):
    """A page of the designs. total: of all pages. room: what is said where the studio's room is nearly used up."""

    designs: list[DesignItem]
    page: int
    pages: int
    total: int
    room: str


class ReadyItem(BaseModel):
    """A ready bag to begin with."""

    key: str
    title: str
    build: str


class ReadyView(BaseModel):
    bags: list[ReadyItem]


class DeletedItem(BaseModel):
    """A deleted design; until: when it is gone for good."""

    id: int
    name: str
    until: datetime


class DeletedView(BaseModel):
    designs: list[DeletedItem]


class DesignView(BaseModel):
    id: int
    revision: int
    saved_at: datetime
    document: Design


class SavedView(BaseModel):
    id: int
    revision: int
    saved_at: datetime


class RevisionItem(BaseModel):
    number: int
    note: str
    saved_at: datetime


class RevisionsView(BaseModel):
    """A page of the revisions of a design, as `DesignsView`."""

    revisions: list[RevisionItem]
    page: int
    pages: int
    total: int
    room: str


class ForgottenView(BaseModel):
    """How many revisions were deleted."""

    many: int


class ChangeView(BaseModel):
    """A value that differs, by the field as the screen calls it; "" where there was none, or is none."""

    field: str
    before: str
    after: str


class RevisionView(BaseModel):
    """A revision against the newest one: the fields that differ, and the lines of the text."""

    number: int
    saved_at: datetime
    document: Design
    changes: list[ChangeView]
    lines: list[LinesChangedView]
