"""The register: jobs, their revisions, their thumbnails."""

from __future__ import annotations

from typing import cast

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from .. import store
from ..core import formats
from ..core.desk import work_out
from ..core.plan.edit import tidy
from . import present
from .schemas import (
    ArchiveIn,
    JobIn,
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

jobs = APIBlueprint("jobs", __name__, url_prefix="/api/jobs")

BLANK = 'plan "Untitled"\nunits mm\nsheet A4 landscape, scale 1:1, border 10\n'


def _store() -> store.Store:
    return cast(store.Store, current_app.extensions["entrick.store"])


def _json(model: BaseModel, status: int = 200) -> Response:
    return current_app.response_class(model.model_dump_json(), status=status, mimetype="application/json")


@jobs.get("", responses={200: JobsOut})
def register(query: RegisterQuery) -> Response:
    """Return the jobs at work, or the archived ones, last worked first."""
    with _store().reading() as session:
        found = store.all_jobs(session, query.archived)
    return _json(JobsOut(jobs=tuple(present.job(view) for view in found)))


@jobs.post("", responses={201: JobOut})
def enter(body: JobIn) -> Response:
    """Enter a new job: from a plan's text, as a copy, or blank."""
    with _store().writing() as session:
        text, note = BLANK, body.note
        if body.copy_of is not None:
            source = store.one_job(session, body.copy_of).newest
            text, note = source.text, note or f"copy of job {body.copy_of}, revision {source.number}"
        elif body.text is not None:
            text = tidy(body.text)
        view = store.add_job(session, text, note)
    return _json(present.job(view), 201)


@jobs.get("/<int:job_id>", responses={200: JobWithPlan})
def one(path: JobPath) -> Response:
    """Return a job with its newest plan."""
    with _store().reading() as session:
        view = store.one_job(session, path.job_id)
    return _json(JobWithPlan(job=present.job(view), newest=RevisionOut.model_validate(view.newest)))


@jobs.patch("/<int:job_id>", responses={200: JobOut})
def archive(path: JobPath, body: ArchiveIn) -> Response:
    """Archive a job, or take it back to work."""
    with _store().writing() as session:
        view = store.set_archived(session, path.job_id, body.archived)
    return _json(present.job(view))


@jobs.get("/<int:job_id>/revisions", responses={200: RevisionsOut})
def history(path: JobPath) -> Response:
    """Return every revision of a job, newest first."""
    with _store().reading() as session:
        found = store.revisions(session, path.job_id)
    return _json(RevisionsOut(revisions=tuple(RevisionOut.model_validate(r) for r in found)))


@jobs.get("/<int:job_id>/revisions/<int:number>", responses={200: RevisionOut})
def revision(path: RevisionPath) -> Response:
    """Return one revision of a job."""
    with _store().reading() as session:
        found = store.one_revision(session, path.job_id, path.number)
    return _json(RevisionOut.model_validate(found))


@jobs.post("/<int:job_id>/revisions", responses={201: RevisionOut})
def save(path: JobPath, body: SaveIn) -> Response:
    """Save a plan as the next revision; refused with both versions when it is based on an old one."""
    with _store().writing() as session:
        saved = store.save_revision(session, path.job_id, tidy(body.text), body.based_on, body.note)
    return _json(RevisionOut.model_validate(saved), 201)


@jobs.get("/<int:job_id>/thumbnail.svg")
def thumbnail(path: JobPath) -> Response:
    """Return the outline of a job's newest revision, cropped to it."""
    with _store().reading() as session:
        view = store.one_job(session, path.job_id)
    done = work_out(view.newest.text)
    response = current_app.response_class(
        formats.thumbnail_svg(done.display, *done.sheet.view), mimetype="image/svg+xml"
    )
    response.headers["Cache-Control"] = "private, no-cache"
    return response
