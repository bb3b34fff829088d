"""The register's work: list, add, save, archive. A save never overwrites; a stale one is
refused."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from ..core.office import EVERYBODY
from ..core.summary import Summary
from ..records import LARGEST_ID
from .listing import put_summary
from .models import FIRST, Job, JobSummary, Revision


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
    saved_by: int


@dataclass(frozen=True, slots=True)
class JobView:
    """A job with its newest revision."""

    id: int
    created_at: datetime
    archived: bool
    newest: RevisionView
    whose: int


def _job_row(session: Session, job_id: int) -> Job:
    job = session.get(Job, job_id) if job_id <= LARGEST_ID else None
    if job is None:
        raise UnknownJob(f"there is no job {job_id} in the register")
    return job


def _newest(session: Session, job_id: int) -> Revision:
    revision = session.scalar(
        select(Revision).where(Revision.job_id == job_id).order_by(Revision.number.desc()).limit(1)
    )
    if revision is None:
        raise UnknownJob(f"job {job_id} has no revision")
    return revision


def one_job(session: Session, job_id: int) -> JobView:
    """Return a job.

    Raises
    ------
    UnknownJob
    """
    return _job(_job_row(session, job_id), _newest(session, job_id))


def add_job(
    session: Session, text: str, note: str = "", made: Summary | None = None, by: int = FIRST
) -> JobView:
    """Enter a new job with its first revision, and what the register lists of it where that is
    known; it belongs to whoever enters it."""
    now = datetime.now(UTC)
    job = Job(id=next_number(session), created_at=now, archived_at=None, person_id=by)
    session.add(job)
    session.flush()
    revision = add_revision(session, job.id, 1, None, text, note, now, by)
    put_summary(session, job, revision, made)
    return _job(job, revision)


def next_number(session: Session) -> int:
    """Return the number of the next job."""
    return (session.scalar(select(func.max(Job.id))) or 0) + 1


def add_revision(  # noqa: PLR0913
    session: Session,
    job_id: int,
    number: int,
    based_on: int | None,
    text: str,
    note: str,
    saved_at: datetime,
    by: int = FIRST,
) -> Revision:
    """Write a revision."""
    revision = Revision(
        job_id=job_id,
        number=number,
        based_on=based_on,
        text=text,
        note=note,
        saved_at=saved_at,
        person_id=by,
    )
    session.add(revision)
    session.flush()
    return revision


def save_revision(
    session: Session,
    job_id: int,
    text: str,
    based_on: int,
    note: str = "",
    made: Summary | None = None,
    by: int = FIRST,
) -> RevisionView:
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
    made : Summary, optional
        What the register lists of it.
    by : int
        Who saves it.

    Raises
    ------
    UnknownJob
    StaleSave
        When `based_on` is not the newest any more.
    """
    job, newest = _job_row(session, job_id), _newest(session, job_id)
    if newest.number != based_on:
        raise StaleSave(_revision(newest))
    now = datetime.now(UTC)
    revision = add_revision(session, job_id, based_on + 1, based_on, text, note, now, by)
    put_summary(session, job, revision, made)
    return _revision(revision)


def revisions(session: Session, job_id: int) -> list[RevisionView]:
    """Return every revision of a job, newest first."""
    _job_row(session, job_id)
    found = session.scalars(
        select(Revision).where(Revision.job_id == job_id).order_by(Revision.number.desc())
    )
    return [_revision(revision) for revision in found]


def one_revision(session: Session, job_id: int, number: int) -> RevisionView:
    """Return one revision of a job.

    Raises
    ------
    UnknownJob
    """
    _job_row(session, job_id)
    wanted = select(Revision).where(
        Revision.job_id == job_id, Revision.number == min(number, LARGEST_ID)
    )
    found = session.scalar(wanted)
    if found is None:
        raise UnknownJob(f"job {job_id} has no revision {number}")
    return _revision(found)


def set_archived(session: Session, job_id: int, archived: bool) -> JobView:
    """Archive a job, or take it back to work."""
    job = _job_row(session, job_id)
    job.archived_at = datetime.now(UTC) if archived else None
    session.execute(update(JobSummary).where(JobSummary.job_id == job_id).values(archived=archived))
    session.flush()
    return _job(job, _newest(session, job_id))


def _revision(row: Revision) -> RevisionView:
    return RevisionView(row.number, row.based_on, row.text, row.note, row.saved_at, row.person_id)


def _job(job: Job, newest: Revision) -> JobView:
    archived = job.archived_at is not None
    return JobView(job.id, job.created_at, archived, _revision(newest), job.person_id or EVERYBODY)


def owner_of_job(session: Session, job_id: int) -> int:
    """Return whose a job is; `EVERYBODY` where it is everybody's.

    Raises
    ------
    UnknownJob
    """
    return _job_row(session, job_id).person_id or EVERYBODY


def hand_over(session: Session, job_id: int, whose: int) -> None:
    """Give a job to somebody, or to everybody."""
    _job_row(session, job_id).person_id = whose or None
    session.flush()
