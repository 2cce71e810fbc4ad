"""The tables. A job is a row that points at its newest revision; a revision is a whole document and never
changes.
"""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ForeignKey, Index, LargeBinary, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    pass


class JobRow(Base):
    __tablename__ = "jobs"

    id: Mapped[str] = mapped_column(String(24), primary_key=True)
    head: Mapped[int]
    created_at: Mapped[datetime]
    removed_at: Mapped[datetime | None]


class RevisionRow(Base):
    """``back_to`` and ``forward_to`` are the revisions whose documents undo and redo would bring back."""

    __tablename__ = "revisions"
    __table_args__ = (Index("one_revision_per_edit", "job_id", "edit_id", unique=True),)

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[str] = mapped_column(Text)
    summary: Mapped[str] = mapped_column(String(200))
    client: Mapped[str] = mapped_column(String(60))
    edit_id: Mapped[str] = mapped_column(String(60))
    merge_key: Mapped[str] = mapped_column(String(200))
    at: Mapped[datetime]
    back_to: Mapped[int | None]
    forward_to: Mapped[int | None]


class ShopPanelRow(Base):
    """A panel model of the shop, with its price and stock. Jobs keep their own copy of what they use."""

    __tablename__ = "shop_panels"

    name: Mapped[str] = mapped_column(String(80), primary_key=True)
    document: Mapped[str] = mapped_column(Text)


class ShopItemRow(Base):
    """Anything else that the shop has, with its price, pack, stock and lead time."""

    __tablename__ = "shop_items"

    name: Mapped[str] = mapped_column(String(80), primary_key=True)
    document: Mapped[str] = mapped_column(Text)


class LogRow(Base):
    """Something that was done or seen, told when it happened. Rows are added, never changed: undo does not
    reach them.
    """

    __tablename__ = "log"
    __table_args__ = (Index("one_log_row_per_entry", "job_id", "entry_id", unique=True),)

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime]
    client: Mapped[str] = mapped_column(String(60))
    entry_id: Mapped[str] = mapped_column(String(60))
    document: Mapped[str] = mapped_column(Text)
    digest: Mapped[str] = mapped_column(String(64), server_default="")


class ContentRow(Base):
    """A file by the hash of its content: the same photograph is kept once, whatever it is called."""

    __tablename__ = "contents"

    digest: Mapped[str] = mapped_column(String(64), primary_key=True)
    media_type: Mapped[str] = mapped_column(String(60))
    content: Mapped[bytes] = mapped_column(LargeBinary)


class AttachmentRow(Base):
    """A file that belongs to a job, beside its document."""

    __tablename__ = "attachments"

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True)
    digest: Mapped[str] = mapped_column(ForeignKey("contents.digest"), primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    at: Mapped[datetime]


class PhoneRow(Base):
    """A phone that was let in to one job. Its key is kept as a hash only: who reads the database cannot come
    in with it.
    """

    __tablename__ = "phones"

    id: Mapped[str] = mapped_column(String(24), primary_key=True)
    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(String(40))
    key_digest: Mapped[str] = mapped_column(String(64), unique=True)
    paired_at: Mapped[datetime]


class AnswerRow(Base):
    """The last answer of a job: of which revision, made by which program, packed."""

    __tablename__ = "answers"

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), primary_key=True)
    revision: Mapped[int]
    maker: Mapped[str] = mapped_column(String(64))
    body: Mapped[bytes] = mapped_column(LargeBinary)
