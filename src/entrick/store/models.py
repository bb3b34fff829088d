"""Tables."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import DateTime, ForeignKey, Text, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """Base of all tables."""


class Job(Base):
    """A job of the register. Title, number, units and scale stand in its plan."""

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    created_at: Mapped[datetime] = mapped_column(DateTime)
    archived_at: Mapped[datetime | None] = mapped_column(DateTime)
    revisions: Mapped[list[Revision]] = relationship(back_populates="job", order_by="Revision.number")


class Revision(Base):
    """One saved state of a job's plan. Never changed once written."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("job_id", "number", name="uq_revision_job_number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="RESTRICT"), index=True)
    number: Mapped[int]
    based_on: Mapped[int | None]
    text: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text, default="")
    saved_at: Mapped[datetime] = mapped_column(DateTime)
    job: Mapped[Job] = relationship(back_populates="revisions")
