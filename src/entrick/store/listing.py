"""What the register lists: kept beside every job, so that a page of it costs one query, however
many jobs there are."""

from __future__ import annotations

from collections.abc import Sequence, Set
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

from sqlalchemy import ColumnElement, and_, exists, func, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Session, defer

from ..core.office import EVERYBODY
from ..core.summary import Summary, heading, version
from .models import FIRST, Job, JobSummary, Revision, SignatureRow

Only = Literal["", "own", "unchecked"]
Order = Literal["worked", "entered", "title", "drawing"]


@dataclass(frozen=True, slots=True)
class Listed:
    """A job as the register lists it.

    `pending` where it has not been worked out by today's core yet, `pictured` where it has a
    thumbnail, `double` where another job at work has its drawing number; in a list `made` is
    without the thumbnail. `whose` it is, by number, `EVERYBODY` where it is everybody's; `signed`
    as what its newest revision is, the last of it."""

    id: int
    revision: int
    worked_at: datetime
    archived: bool
    pending: bool
    pictured: bool
    double: bool
    made: Summary
    whose: int
    signed: str


@dataclass(frozen=True, slots=True)
class Page:
    """One page of the register, and how many jobs there are on all of them."""

    jobs: tuple[Listed, ...]
    total: int


def put_summary(session: Session, job: Job, revision: Revision, made: Summary | None) -> None:
    """Keep what the register lists of a job; its heading alone where it has not been worked out."""
    told = made or heading(revision.text)
    session.merge(
        JobSummary(
            job_id=job.id,
            number=revision.number,
            core=version() if made else "",
            title=told.title,
            drawing=told.drawing,
            unit=told.unit,
            scale=told.scale,
            mistakes=told.mistakes,
            outlines=told.outlines,
            trouble=told.trouble,
            thumbnail=told.thumbnail,
            worked_at=revision.saved_at,
            archived=job.archived_at is not None,
        )
    )
    session.flush()


def list_jobs(  # noqa: PLR0913
    session: Session,
    archived: bool = False,
    search: str = "",
    order: Order = "worked",
    page: int = 1,
    size: int = 50,
    only: Only = "",
    who: int = FIRST,
) -> Page:
    """Return a page of the jobs at work, or of the archived ones.

    Parameters
    ----------
    session : Session
    archived : bool
    search : str
        Words that all stand in the title or the drawing number, large or small letters alike.
    order : str
        "worked" or "entered", last first; "title" or "drawing", as in a dictionary.
    page : int
        From 1; one beyond the last is empty.
    size : int
        Jobs on a page.
    only : {"", "own", "unchecked"}
        Those of a person; those whose newest revision nobody has checked, and somebody else drew.
    who : int
        The person.
    """
    wanted = and_(
        JobSummary.archived.is_(archived),
        *(
            or_(
                JobSummary.title.icontains(word, autoescape=True),
                JobSummary.drawing.icontains(word, autoescape=True),
            )
            for word in search.split()
        ),
        *_chosen(only, who),
    )
    by = {
        "worked": (JobSummary.worked_at.desc(), JobSummary.job_id.desc()),
        "entered": (JobSummary.job_id.desc(),),
        "title": (_folded(session, JobSummary.title), JobSummary.job_id),
        "drawing": (_folded(session, JobSummary.drawing), JobSummary.job_id),
    }[order]
    total = session.scalar(select(func.count()).select_from(JobSummary).where(wanted)) or 0
    rows = session.execute(
        select(JobSummary, JobSummary.thumbnail != "")
        .options(defer(JobSummary.thumbnail))
        .where(wanted)
        .order_by(*by)
        .offset((page - 1) * size)
        .limit(size)
    )
    found = rows.all()
    doubles = _doubles(session, {row.drawing for row, _ in found})
    office = _office(session, [row for row, _ in found])
    listed = (_listed(row, pictured, "", doubles, office[row.job_id]) for row, pictured in found)
    return Page(tuple(listed), total)


def _chosen(only: Only, who: int) -> list[ColumnElement[bool]]:
    if only == "own":
        return [JobSummary.job_id.in_(select(Job.id).where(Job.person_id == who))]
    if only == "unchecked":
        newest = and_(
            Revision.job_id == JobSummary.job_id,
            Revision.number == JobSummary.number,
            Revision.person_id != who,
        )
        checked = and_(
            SignatureRow.job_id == JobSummary.job_id,
            SignatureRow.number == JobSummary.number,
            SignatureRow.signed_as == "checked",
        )
        return [exists().where(newest), ~exists().where(checked)]
    return []


def _office(session: Session, rows: Sequence[JobSummary]) -> dict[int, tuple[int, str]]:
    """Return of some jobs whose they are, and as what their newest revisions are signed."""
    numbers = [row.job_id for row in rows]
    owners = session.execute(select(Job.id, Job.person_id).where(Job.id.in_(numbers)))
    given = session.execute(
        select(SignatureRow.job_id, SignatureRow.signed_as)
        .join(
            JobSummary,
            and_(
                JobSummary.job_id == SignatureRow.job_id, JobSummary.number == SignatureRow.number
            ),
        )
        .where(SignatureRow.job_id.in_(numbers))
        .order_by(SignatureRow.id)
    )
    signed = {row.job_id: row.signed_as for row in given}
    return {job_id: (who or EVERYBODY, signed.get(job_id, "")) for job_id, who in owners}


def listed(session: Session, job_id: int) -> Listed | None:
    """Return a job as the register lists it, with its thumbnail."""
    row = session.get(JobSummary, job_id) if job_id < 2**63 else None
    if row is None:
        return None
    doubles, office = _doubles(session, {row.drawing}), _office(session, [row])
    return _listed(row, bool(row.thumbnail), row.thumbnail, doubles, office[job_id])


def drawing_numbers(session: Session) -> list[str]:
    """Return the drawing number of every job, archived ones too."""
    return list(session.scalars(select(JobSummary.drawing).where(JobSummary.drawing != "")))


def _doubles(session: Session, numbers: Set[str]) -> frozenset[str]:
    """Return those of some drawing numbers that several jobs at work have, in small letters."""
    small = {number.lower() for number in numbers - {""}}
    result = session.scalars(
        select(func.lower(JobSummary.drawing))
        .where(_folded(session, JobSummary.drawing).in_(small), JobSummary.archived.is_(False))
        .group_by(func.lower(JobSummary.drawing))
        .having(func.count() > 1)
    )
    return frozenset(result)


def _folded(session: Session, column: InstrumentedAttribute[str]) -> ColumnElement[str]:
    """Return a column in which large and small letters are alike, in the order of a dictionary."""
    if session.get_bind().dialect.name == "sqlite":
        return column.expression  # it says so of itself, and its index with it
    return func.lower(column).collate("C")


def _listed(
    row: JobSummary, pictured: bool, thumbnail: str, doubles: Set[str], office: tuple[int, str]
) -> Listed:
    made = Summary(
        row.title,
        row.drawing,
        row.unit,
        row.scale,
        row.mistakes,
        row.outlines,
        row.trouble,
        thumbnail,
    )
    return Listed(
        row.job_id,
        row.number,
        row.worked_at,
        row.archived,
        row.core != version(),
        pictured,
        not row.archived and row.drawing.lower() in doubles,
        made,
        *office,
    )


def outdated(session: Session, most: int) -> list[tuple[int, str]]:
    """Return some jobs whose summary today's core has not worked out, last worked first: number and
    newest text."""
    rows = session.execute(
        select(JobSummary.job_id, Revision.text)
        .join(
            Revision,
            (Revision.job_id == JobSummary.job_id) & (Revision.number == JobSummary.number),
        )
        .where(JobSummary.core != version())
        .order_by(JobSummary.worked_at.desc())
        .limit(most)
    )
    return [(job_id, text) for job_id, text in rows]


def renew(session: Session, job_id: int, text: str, made: Summary) -> None:
    """Put a summary in the place of an outdated one, unless the job has been saved in the
    meantime."""
    row = session.get(JobSummary, job_id)
    job = session.get(Job, job_id)
    if row is None or job is None:
        return
    revision = session.scalar(
        select(Revision).where(Revision.job_id == job_id, Revision.number == row.number)
    )
    if revision is not None and revision.text == text:
        put_summary(session, job, revision, made)


def fill(session: Session) -> int:
    """Give every job without a summary its heading, as after a migration; return how many."""
    missing = session.scalars(select(Job).where(Job.id.not_in(select(JobSummary.job_id)))).all()
    for job in missing:
        newest = session.scalar(
            select(Revision)
            .where(Revision.job_id == job.id)
            .order_by(Revision.number.desc())
            .limit(1)
        )
        if newest is not None:
            put_summary(session, job, newest, None)
    return len(missing)
