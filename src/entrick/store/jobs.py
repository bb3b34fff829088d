"""The register's work: list, add, save, archive. A save never overwrites; a stale one is refused."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .models import Job, Revision


class UnknownJob(LookupError):
    """There is no such job or revision."""


class StaleSave(RuntimeError):
    """A save based on a revision that is no longer the newest. Carries the newest."""

    def __init__(self, newest: RevisionView) -> None:
        super().__init__(f"revision {newest.number} was saved in the meantime")
        self.newest = newest


@dataclass(frozen=True, slots=True)
class RevisionView:
    """A saved state of a plan."""

    number: int
    based_on: int | None
    text: str
    note: str
    saved_at: datetime


@dataclass(frozen=True, slots=True)
class JobView:
    """A job with its newest revision."""

    id: int
    created_at: datetime
    archived: bool
    newest: RevisionView


def all_jobs(session: Session, archived: bool = False) -> list[JobView]:
    """Return the jobs at work, or the archived ones, last worked first."""
    newest = select(Revision.job_id, func.max(Revision.number).label("number")).group_by(Revision.job_id).subquery()
    rows = session.execute(
        select(Job, Revision)
        .join(newest, newest.c.job_id == Job.id)
        .join(Revision, (Revision.job_id == Job.id) & (Revision.number == newest.c.number))
        .where(Job.archived_at.is_not(None) if archived else Job.archived_at.is_(None))
        .order_by(Revision.saved_at.desc(), Job.id.desc())
    )
    return [_job(job, revision) for job, revision in rows]


def one_job(session: Session, job_id: int) -> JobView:
    """Return a job.

    Raises
    ------
    UnknownJob
    """
    job = session.get(Job, job_id)
    if job is None:
        raise UnknownJob(f"there is no job {job_id} in the register")
    return _job(job, job.revisions[-1])


def add_job(session: Session, text: str, note: str = "") -> JobView:
    """Enter a new job with its first revision."""
    now = datetime.now(UTC)
    job = Job(created_at=now, archived_at=None)
    revision = Revision(job=job, number=1, based_on=None, text=text, note=note, saved_at=now)
    session.add_all([job, revision])
    session.flush()
    return _job(job, revision)


def save_revision(session: Session, job_id: int, text: str, based_on: int, note: str = "") -> RevisionView:
    """Save a new revision of a job.

    Parameters
    ----------
    session : Session
        A writing one.
    job_id : int
    text : str
    based_on : int
        Number of the revision the work started from.
    note : str

    Raises
    ------
    UnknownJob
    StaleSave
        When `based_on` is not the newest any more.
    """
    newest = one_job(session, job_id).newest
    if newest.number != based_on:
        raise StaleSave(newest)
    revision = Revision(
        job_id=job_id, number=based_on + 1, based_on=based_on, text=text, note=note, saved_at=datetime.now(UTC)
    )
    session.add(revision)
    session.flush()
    return _revision(revision)


def revisions(session: Session, job_id: int) -> list[RevisionView]:
    """Return every revision of a job, newest first."""
    one_job(session, job_id)
    found = session.scalars(select(Revision).where(Revision.job_id == job_id).order_by(Revision.number.desc()))
    return [_revision(revision) for revision in found]


def one_revision(session: Session, job_id: int, number: int) -> RevisionView:
    """Return one revision of a job.

    Raises
    ------
    UnknownJob
    """
    found = session.scalar(select(Revision).where(Revision.job_id == job_id, Revision.number == number))
    if found is None:
        raise UnknownJob(f"job {job_id} has no revision {number}")
    return _revision(found)


def set_archived(session: Session, job_id: int, archived: bool) -> JobView:
    """Archive a job, or take it back to work."""
    job = session.get(Job, job_id)
    if job is None:
        raise UnknownJob(f"there is no job {job_id} in the register")
    job.archived_at = datetime.now(UTC) if archived else None
    session.flush()
    return _job(job, job.revisions[-1])


def _revision(row: Revision) -> RevisionView:
    # SQLite keeps no time zone: every time in the database is UTC.
    saved = row.saved_at if row.saved_at.tzinfo else row.saved_at.replace(tzinfo=UTC)
    return RevisionView(row.number, row.based_on, row.text, row.note, saved)


def _job(job: Job, newest: Revision) -> JobView:
    created = job.created_at if job.created_at.tzinfo else job.created_at.replace(tzinfo=UTC)
    return JobView(job.id, created, job.archived_at is not None, _revision(newest))
