"""Tables, their columns in the order in which they stand on the disk. A row with a digest is what
was saved, or is noticed to be something else."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import DateTime, Dialect, ForeignKey, Index, Text, TypeDecorator, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """Base of all tables."""


class Moment(TypeDecorator[datetime]):
    """A moment, in UTC: SQLite keeps no time zone, and a time without one is another hour for
    whoever is elsewhere."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Return a moment as it is kept."""
        return (
            value
            if value is None or value.tzinfo is None
            else value.astimezone(UTC).replace(tzinfo=None)
        )

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        """Return a moment as it was meant."""
        return value if value is None else value.replace(tzinfo=UTC)


FIRST = 1
"""The number of the first person, whose everything is that was there before there were others."""

Folded = Text().with_variant(Text(collation="NOCASE"), "sqlite")
"""Words among which large and small letters are alike."""


class PersonRow(Base):
    """Somebody who works here. Who has left keeps number and initials: they stand on drawings.

    `secret` is the hash of a PIN or passphrase, empty where there is none."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    initials: Mapped[str] = mapped_column(Text)
    sign: Mapped[str] = mapped_column(Text)
    role: Mapped[str] = mapped_column(Text)
    secret: Mapped[str] = mapped_column(Text)
    joined_at: Mapped[datetime] = mapped_column(Moment)
    left_at: Mapped[datetime | None] = mapped_column(Moment)
    digest: Mapped[str] = mapped_column(Text)


class Job(Base):
    """A job of the register. Title, number, units and scale stand in its plan; `person_id` is whose
    it is, none where it is everybody's."""

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    created_at: Mapped[datetime] = mapped_column(Moment)
    archived_at: Mapped[datetime | None] = mapped_column(Moment)
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id"))
    digest: Mapped[str] = mapped_column(Text)
    revisions: Mapped[list[Revision]] = relationship(
        back_populates="job", order_by="Revision.number"
    )


class Revision(Base):
    """One saved state of a job's plan, and who saved it. Never changed once written."""

    __tablename__ = "revision"
    __table_args__ = (UniqueConstraint("job_id", "number", name="uq_revision_job_number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="RESTRICT"), index=True)
    number: Mapped[int]
    based_on: Mapped[int | None]
    text: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text, default="")
    saved_at: Mapped[datetime] = mapped_column(Moment)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    digest: Mapped[str] = mapped_column(Text)
    job: Mapped[Job] = relationship(back_populates="revisions")


class SignatureRow(Base):
    """Who signed a revision as checked or approved, and when."""

    __tablename__ = "signature"
    __table_args__ = (UniqueConstraint("job_id", "number", "signed_as", name="uq_signature"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="RESTRICT"), index=True)
    number: Mapped[int]
    signed_as: Mapped[str] = mapped_column(Text)
    signed_at: Mapped[datetime] = mapped_column(Moment)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    digest: Mapped[str] = mapped_column(Text)


class JobSummary(Base):
    """What the register lists of a job, worked out from its newest revision by one version of the
    core.

    Nothing here that could not be worked out again. `core` is empty where that has not been done
    yet."""

    __tablename__ = "summary"
    __table_args__ = tuple(
        Index(f"ix_summary_{name}", "archived", name) for name in ("worked_at", "title", "drawing")
    )

    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int]
    core: Mapped[str] = mapped_column(Text)
    title: Mapped[str] = mapped_column(Folded)
    drawing: Mapped[str] = mapped_column(Folded)
    unit: Mapped[str] = mapped_column(Text)
    scale: Mapped[str] = mapped_column(Text)
    mistakes: Mapped[int]
    outlines: Mapped[int]
    trouble: Mapped[str] = mapped_column(Text)
    thumbnail: Mapped[str] = mapped_column(Text)
    worked_at: Mapped[datetime] = mapped_column(Moment)
    archived: Mapped[bool]


class JobOrder(Base):
    """In which order, and with which kit, the steps of a job are done at the board; a job that is
    not here does them as written, with the usual kit."""

    __tablename__ = "job_order"

    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    schedule: Mapped[str] = mapped_column(Text)
    kit: Mapped[str] = mapped_column(Text)
    digest: Mapped[str] = mapped_column(Text)


class SittingRow(Base):
    """A sitting at the board: which revision of which job was drawn, in which order. `uid` is given
    by the device."""

    __tablename__ = "sitting"

    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(Text, unique=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="RESTRICT"), index=True)
    revision: Mapped[int]
    schedule: Mapped[str] = mapped_column(Text)
    started_at: Mapped[datetime] = mapped_column(Moment)
    rehearsed: Mapped[bool]
    removed_at: Mapped[datetime | None] = mapped_column(Moment)
    kit: Mapped[str] = mapped_column(Text)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    digest: Mapped[str] = mapped_column(Text)


class EventRow(Base):
    """One thing that happened in a sitting. Appended, never changed; numbered by the device, and
    taken once."""

    __tablename__ = "sitting_event"
    __table_args__ = (UniqueConstraint("sitting_id", "number", name="uq_sitting_event_number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    sitting_id: Mapped[int] = mapped_column(
        ForeignKey("sitting.id", ondelete="CASCADE"), index=True
    )
    number: Mapped[int]
    kind: Mapped[str] = mapped_column(Text)
    step: Mapped[int]
    tool: Mapped[str] = mapped_column(Text)
    seconds: Mapped[float]
    off: Mapped[float]
    text: Mapped[str] = mapped_column(Text)
    of: Mapped[int]
    digest: Mapped[str] = mapped_column(Text)


class KitRow(Base):
    """A kit of instruments of a person by name, as the text of its file; one of theirs is the usual
    one."""

    __tablename__ = "kit"

    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), primary_key=True)
    name: Mapped[str] = mapped_column(Text, primary_key=True)
    text: Mapped[str] = mapped_column(Text)
    usual: Mapped[bool]
    digest: Mapped[str] = mapped_column(Text)


class PracticeRow(Base):
    """An answer given in practice: what it tested, how much of it was right, which slips it showed,
    and which it might have (both by key, a line each)."""

    __tablename__ = "practice_answer"

    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(Text, unique=True)
    answered_at: Mapped[datetime] = mapped_column(Moment)
    part: Mapped[str] = mapped_column(Text)
    rule: Mapped[str] = mapped_column(Text)
    share: Mapped[float]
    slips: Mapped[str] = mapped_column(Text)
    chances: Mapped[str] = mapped_column(Text)
    hints: Mapped[int]
    rehearsed: Mapped[bool]
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    digest: Mapped[str] = mapped_column(Text)


class ClassSetRow(Base):
    """A set for a class as it was made, as the text of its file."""

    __tablename__ = "class_set"

    id: Mapped[int] = mapped_column(primary_key=True)
    title: Mapped[str] = mapped_column(Text)
    students: Mapped[int]
    text: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime] = mapped_column(Moment)
    removed_at: Mapped[datetime | None] = mapped_column(Moment)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    digest: Mapped[str] = mapped_column(Text)


class ClassMarkRow(Base):
    """The marks of one student of a set: when they were first given and when last, and of each
    answer its rule, share, slip, and what is told where it could not be read, as JSON."""

    __tablename__ = "class_mark"
    __table_args__ = (UniqueConstraint("set_id", "student"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    set_id: Mapped[int] = mapped_column(ForeignKey("class_set.id"))
    student: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    first_at: Mapped[datetime] = mapped_column(Moment)
    marked_at: Mapped[datetime] = mapped_column(Moment)
    answers: Mapped[str] = mapped_column(Text)
    digest: Mapped[str] = mapped_column(Text)


class DeviceRow(Base):
    """A browser that was let in, by the hash of what its cookie says; who works at it, and until
    when."""

    __tablename__ = "device"

    id: Mapped[int] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(Text, unique=True)
    token: Mapped[str] = mapped_column(Text, unique=True)
    name: Mapped[str] = mapped_column(Text)
    address: Mapped[str] = mapped_column(Text)
    let_in: Mapped[bool]
    came_at: Mapped[datetime] = mapped_column(Moment)
    seen_at: Mapped[datetime] = mapped_column(Moment)
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id"))
    until: Mapped[datetime | None] = mapped_column(Moment)


class DoorRow(Base):
    """The code by which devices come in: until when it is good, and how often it was guessed at."""

    __tablename__ = "door"

    id: Mapped[int] = mapped_column(primary_key=True)
    code: Mapped[str] = mapped_column(Text)
    until: Mapped[datetime] = mapped_column(Moment)
    guesses: Mapped[int]
    wrong: Mapped[int]
    last: Mapped[str] = mapped_column(Text)


class GuesserRow(Base):
    """Whoever typed something wrong: an address at the door, a device or a name at signing in."""

    __tablename__ = "guesser"

    who: Mapped[str] = mapped_column(Text, primary_key=True)
    wrong: Mapped[int]
    times: Mapped[int]
    until: Mapped[datetime] = mapped_column(Moment)
    seen_at: Mapped[datetime] = mapped_column(Moment)


class About(Base):
    """What a register knows of itself; see `about`."""

    __tablename__ = "about"

    name: Mapped[str] = mapped_column(Text, primary_key=True)
    said: Mapped[str] = mapped_column(Text)
    digest: Mapped[str] = mapped_column(Text)
