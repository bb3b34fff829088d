"""The register: jobs, their revisions, their thumbnails."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app, request
from pydantic import BaseModel

from .. import store
from ..core.board.kits import STARTERS
from ..core.plan.edit import tidy
from ..core.plan.foreign import foreign
from ..core.summary import Summary, unsummarized
from .answer import Refused
from .ask import gone, hands
from .asked_for import tasks
from .documented import Routes
from .hands import Busy, TooMuchWork
from .problems import FILES, PROBLEMS, committed
from .schemas.board import ScheduleIn
from .schemas.jobs import (
    ArchiveIn,
    JobIn,
    JobKitIn,
    JobOut,
    JobPath,
    JobsOut,
    JobWithPlan,
    RegisterQuery,
    RevisionOut,
    RevisionPath,
    RevisionsOut,
    SaveIn,
)

jobs = Routes("jobs", __name__, url_prefix="/api/jobs", abp_responses=PROBLEMS)

BLANK = 'plan "Untitled"\nunits mm\nsheet A4 landscape, scale 1:1, border 10\n'


def the_store() -> store.Store:
    """Return the register of this application."""
    return cast(store.Store, current_app.extensions["entrick.store"])


def _json(model: BaseModel, status: int = 200) -> Response:
    return current_app.response_class(model.model_dump_json(), status=status, mimetype="application/json")


def summarized(text: str) -> Summary | None:
    """Return what the register lists of a plan; None while everybody is busy: it is made up for later."""
    try:
        return hands().do(tasks.summary, text, gone=gone())
    except Busy:
        return None
    except TooMuchWork as error:
        return unsummarized(text, str(error))


def _listed(job: store.Listed) -> JobOut:
    made = job.made
    return JobOut(
        id=job.id,
        title=made.title or "Untitled",
        drawing=made.drawing,
        unit=made.unit,
        scale=made.scale,
        revision=job.revision,
        worked_at=job.worked_at,
        archived=job.archived,
        mistakes=made.mistakes,
        outlines=made.outlines,
        trouble=made.trouble,
        pending=job.pending,
        pictured=job.pictured,
    )


def _job(job_id: int) -> JobOut:
    with the_store().reading() as session:
        found = store.listed(session, job_id)
    if found is None:
        raise store.UnknownJob(f"there is no job {job_id} in the register")
    return _listed(found)


@jobs.get("", responses={200: JobsOut})
def register(query: RegisterQuery) -> Response:
    """Return a page of the jobs at work, or of the archived ones."""
    with the_store().reading() as session:
        found = store.list_jobs(session, query.archived, query.search, query.order, query.page, query.size)
    pages = max(1, -(-found.total // query.size))
    return _json(JobsOut(jobs=tuple(map(_listed, found.jobs)), page=query.page, pages=pages, total=found.total))


@jobs.post("", responses={201: JobOut})
def enter(body: JobIn) -> Response:
    """Enter a new job: from a plan's text, as a copy, or blank."""
    text, note = BLANK, body.note
    if body.copy_of is not None:
        with the_store().reading() as session:
            source = store.one_job(session, body.copy_of).newest
        text, note = source.text, note or f"copy of job {body.copy_of}, revision {source.number}"
    elif body.text is not None:
        what = foreign(body.text)
        if what:
            told = f"this is {what}, not a plan: a plan is text that says its statements line by line"
            raise Refused(422, "Not a plan", told)
        text = tidy(body.text)
    made = summarized(text)
    with the_store().writing() as session:
        view = store.add_job(session, text, note, made)
    committed()
    return _json(_job(view.id), 201)


@jobs.get("/<int:job_id>", responses={200: JobWithPlan})
def one(path: JobPath) -> Response:
    """Return a job with its newest plan."""
    with the_store().reading() as session:
        view = store.one_job(session, path.job_id)
        schedule, kit = store.schedule_of(session, path.job_id), store.kit_of(session, path.job_id)
    newest = RevisionOut.model_validate(view.newest)
    found = {"job": _job(path.job_id), "newest": newest, "schedule": schedule, "kit": kit}
    return _json(JobWithPlan.model_validate(found))


@jobs.put("/<int:job_id>/kit", responses={200: JobKitIn})
def kit(path: JobPath, body: JobKitIn) -> Response:
    """Keep with which kit a job is drawn."""
    with the_store().writing() as session:
        known = {*STARTERS, *(each.name for each in store.list_kits(session))}
        if body.kit and body.kit not in known:
            raise Refused(409, "There is no such kit", f"{body.kit} is no kit of this desk")
        store.set_kit(session, path.job_id, body.kit)
    committed()
    return _json(body)


@jobs.put("/<int:job_id>/schedule", responses={200: ScheduleIn})
def schedule(path: JobPath, body: ScheduleIn) -> Response:
    """Keep in which order the steps of a job are done."""
    with the_store().writing() as session:
        store.set_schedule(session, path.job_id, body.schedule)
    committed()
    return _json(body)


@jobs.patch("/<int:job_id>", responses={200: JobOut})
def archive(path: JobPath, body: ArchiveIn) -> Response:
    """Archive a job, or take it back to work."""
    with the_store().writing() as session:
        store.set_archived(session, path.job_id, body.archived)
    committed()
    return _json(_job(path.job_id))


@jobs.get("/<int:job_id>/revisions", responses={200: RevisionsOut})
def history(path: JobPath) -> Response:
    """Return every revision of a job, newest first."""
    with the_store().reading() as session:
        found = store.revisions(session, path.job_id)
    return _json(RevisionsOut(revisions=tuple(RevisionOut.model_validate(r) for r in found)))


@jobs.get("/<int:job_id>/revisions/<int:number>", responses={200: RevisionOut})
def revision(path: RevisionPath) -> Response:
    """Return one revision of a job."""
    with the_store().reading() as session:
        found = store.one_revision(session, path.job_id, path.number)
    return _json(RevisionOut.model_validate(found))


@jobs.post("/<int:job_id>/revisions", responses={201: RevisionOut})
def save(path: JobPath, body: SaveIn) -> Response:
    """Save a plan as the next revision; refused with both versions when it is based on an old one."""
    text = tidy(body.text)
    made = summarized(text)
    with the_store().writing() as session:
        saved = store.save_revision(session, path.job_id, text, body.based_on, body.note, made)
    committed()
    return _json(RevisionOut.model_validate(saved), 201)


@jobs.get("/<int:job_id>/thumbnail.svg", responses={200: FILES})
def thumbnail(path: JobPath) -> Response:
    """Return the outline of a job's newest revision, cropped to it, as it was worked out when that was saved."""
    with the_store().reading() as session:
        found = store.listed(session, path.job_id)
    if found is None or not found.made.thumbnail:
        raise store.UnknownJob(f"job {path.job_id} has no outline to show")
    response = current_app.response_class(found.made.thumbnail, mimetype="image/svg+xml")
    response.headers["Cache-Control"] = "private, no-cache"
    response.add_etag()
    response.make_conditional(request)
    return response
