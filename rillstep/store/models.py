"""Tables. Everything belongs to a studio; documents are kept whole, one row a revision."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, BigInteger, DateTime, ForeignKey, Index, MetaData, String, Text, UniqueConstraint
from sqlalchemy.dialects.mysql import LONGBLOB, LONGTEXT
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(column_0_label)s",
            "uq": "uq_%(table_name)s_%(column_0_name)s",
            "fk": "fk_%(table_name)s_%(column_0_name)s",
            "pk": "pk_%(table_name)s",
        }
    )
    type_annotation_map = {datetime: DateTime(timezone=False)}  # noqa: RUF012


class Studio(Base):
    __tablename__ = "studios"
    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    created_at: Mapped[datetime]


class Designer(Base):
    __tablename__ = "designers"
    id: Mapped[int] = mapped_column(primary_key=True)
    studio_id: Mapped[int] = mapped_column(ForeignKey("studios.id", ondelete="CASCADE"))
    email: Mapped[str] = mapped_column(String(254), unique=True)
    password_hash: Mapped[str] = mapped_column(String(255))
    created_at: Mapped[datetime]
    studio: Mapped[Studio] = relationship(lazy="joined")  # each request asks who is signed in: in one query


class SignInRow(Base):
    """A sign-in that is still good; its token is in the cookie, and kept as a hash only. Signing out deletes it."""

    __tablename__ = "sign_ins"
    id: Mapped[int] = mapped_column(primary_key=True)
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    designer_id: Mapped[int] = mapped_column(ForeignKey("designers.id", ondelete="CASCADE"), index=True)
    begun_at: Mapped[datetime]
    designer: Mapped[Designer] = relationship(lazy="joined")


class Phrase(Base):
    """A phrase that a studio keeps for all its texts; meaning: "nothing" where it changes nothing."""

    __tablename__ = "phrases"
    __table_args__ = (UniqueConstraint("studio_id", "words", name="uq_phrases_studio_words"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    studio_id: Mapped[int] = mapped_column(ForeignKey("studios.id", ondelete="CASCADE"), index=True)
    words: Mapped[str] = mapped_column(String(160))
    meaning: Mapped[str] = mapped_column(String(240))


class DesignRow(Base):
    """A design; `revision` is the number of its newest revision, `sizes` are the names of its sizes. One that
    was deleted is kept for a while, and found by nobody but who brings it back."""

    __tablename__ = "designs"
    id: Mapped[int] = mapped_column(primary_key=True)
    studio_id: Mapped[int] = mapped_column(ForeignKey("studios.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(120))
    revision: Mapped[int]
    sizes: Mapped[list[str]] = mapped_column(JSON)
    created_at: Mapped[datetime]
    saved_at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


class Revision(Base):
    """One save of a design, as a whole document, with its size in bytes. Never changed once written."""

    __tablename__ = "revisions"
    __table_args__ = (
        UniqueConstraint("design_id", "number", name="uq_revisions_design_number"),
        Index("ix_revisions_design_size", "design_id", "size"),
    )
    id: Mapped[int] = mapped_column(primary_key=True)
    design_id: Mapped[int] = mapped_column(ForeignKey("designs.id", ondelete="CASCADE"))
    number: Mapped[int]
    document: Mapped[str] = mapped_column(LONGTEXT)
    size: Mapped[int]
    note: Mapped[str] = mapped_column(String(200), default="")
    saved_at: Mapped[datetime]


class Result(Base):
    """What heavy work made of a content; it can be made again, so it may go at any time."""

    __tablename__ = "results"
    id: Mapped[int] = mapped_column(primary_key=True)
    content_key: Mapped[str] = mapped_column(String(64), unique=True)
    made: Mapped[bytes] = mapped_column(LONGBLOB)
    size: Mapped[int]
    made_at: Mapped[datetime]


class Job(Base):
    """Long work that is under way in one of the processes; forgotten when it is done."""

    __tablename__ = "jobs"
    __table_args__ = (UniqueConstraint("studio_id", "name", name="uq_jobs_studio_name"),)
    id: Mapped[int] = mapped_column(primary_key=True)
    studio_id: Mapped[int] = mapped_column(ForeignKey("studios.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(String(64))
    begun_at: Mapped[datetime]
    stage: Mapped[str] = mapped_column(String(80))
    done: Mapped[int]
    of: Mapped[int]
    stopped: Mapped[bool]


class Hit(Base):
    """How often a limited request was made in a span of time, by the key of whoever made it."""

    __tablename__ = "hits"
    key: Mapped[str] = mapped_column(String(64), primary_key=True)
    many: Mapped[int]
    ends_at: Mapped[int] = mapped_column(BigInteger)


class TestRow(Base):
    """A test of one revision: its text and predictions are frozen, so that reports stay at their lines."""

    __tablename__ = "tests"
    id: Mapped[int] = mapped_column(primary_key=True)
    design_id: Mapped[int] = mapped_column(ForeignKey("designs.id", ondelete="CASCADE"), index=True)
    revision: Mapped[int]
    document: Mapped[str] = mapped_column(LONGTEXT)
    opened_at: Mapped[datetime]
    closed_at: Mapped[datetime | None]
    design: Mapped[DesignRow] = relationship()


class Tester(Base):
    """A tester's link is stored as a hash only; `place` is the step that she is at."""

    __tablename__ = "testers"
    id: Mapped[int] = mapped_column(primary_key=True)
    test_id: Mapped[int] = mapped_column(ForeignKey("tests.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(80))
    size: Mapped[str] = mapped_column(String(80))
    terms: Mapped[str] = mapped_column(String(2))
    hand: Mapped[str] = mapped_column(String(5))
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    withdrawn_at: Mapped[datetime | None]
    place: Mapped[int] = mapped_column(default=0)
    seen_at: Mapped[datetime | None]
    report: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    test: Mapped[TestRow] = relationship()


class LineReport(Base):
    """ "It did not come out": a step, the count that came, and a note."""

    __tablename__ = "line_reports"
    id: Mapped[int] = mapped_column(primary_key=True)
    tester_id: Mapped[int] = mapped_column(ForeignKey("testers.id", ondelete="CASCADE"), index=True)
    line: Mapped[int]
    label: Mapped[str] = mapped_column(String(80))
    expected: Mapped[int | None]
    found: Mapped[int | None]
    note: Mapped[str] = mapped_column(Text)
    reported_at: Mapped[datetime]
