"""The register: jobs, their revisions, their thumbnails."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal, cast

from flask import Response, current_app, request
from pydantic import Field
from sqlalchemy.orm import Session

from ... import store
from ...core.board.kits import STARTERS
from ...core.office import EVERYBODY, SignedAs, next_signature
from ...core.plan.edit import tidy
from ...core.plan.foreign import foreign
from ...core.plan.numbering import begun, next_free, renumbered, says_something
from ...core.summary import Summary, heading, unsummarized
from ...records import AskedNumber, Note, Schedule, UsedKit
from ...store.listing import Only
from ..answer import Refused
from ..base import Asked, Crossing, PlanText
from ..http.who import allowed, here, me
from ..operation import Operations
from ..workers.forward import TIDIED, gone, workers
from ..workers.pool import Busy, TooMuchWork
from .saved import committed, the_store


class SignatureOut(Crossing):
    """A signature under a revision: as what, by whom, when."""

    signed_as: SignedAs
    name: str
    initials: str
    at: datetime


class RevisionOut(Crossing):
    """A saved state of a plan; `name` and `initials` are of who saved it, empty where nobody ever
    said."""

    number: int
    based_on: int | None
    text: str
    note: str
    saved_at: datetime
    name: str = ""
    initials: str = ""
    signatures: tuple[SignatureOut, ...] = ()


class JobOut(Crossing):
    """A job as the register lists it.

    `whose` it is by name, empty where it is everybody's or nobody ever said; `yours` whether one
    may save in it; `signed` as what its newest revision is. `trouble` is its first mistake in
    words. `pending` says that it has not been worked out yet; then only its heading is known.
    `pictured` says whether there is a thumbnail, `double` that another job at work has the same
    drawing number."""

    id: int
    title: str
    drawing: str
    unit: str
    scale: str
    revision: int
    worked_at: datetime
    archived: bool
    mistakes: int
    outlines: int
    trouble: str
    pending: bool
    pictured: bool
    double: bool
    whose: str
    yours: bool
    signed: SignedAs | Literal[""]


class JobsOut(Crossing):
    """A page of the register: its jobs, and how many there are on all pages."""

    jobs: tuple[JobOut, ...]
    page: int
    pages: int
    total: int


class JobIn(Asked):
    """A new job: from a plan's text, or a copy of another job, or begun with a heading.

    A copy takes the next free drawing number; so does what is begun, where none is said, and a text
    where it is to be `numbered`."""

    text: PlanText | None = None
    copy_of: AskedNumber | None = None
    title: Annotated[str, Field(max_length=200, pattern=r"^[^\r\n]*$")] = ""
    drawing: Annotated[str, Field(max_length=60, pattern=r"^(?:[A-Za-z0-9][\w ./-]*)?$")] = ""
    unit: Literal["mm", "in"] = "mm"
    numbered: bool = False
    note: Note = ""


class NumberOut(Crossing):
    """The drawing number that comes next."""

    drawing: str


class JobPath(Asked):
    """A job by number."""

    job_id: AskedNumber


class RevisionPath(Asked):
    """A revision of a job."""

    job_id: AskedNumber
    number: AskedNumber


class ArchiveIn(Asked):
    """Whether a job is archived."""

    archived: bool


class SaveIn(Asked):
    """A plan to save as the next revision."""

    text: PlanText
    based_on: AskedNumber
    note: Note = ""


class JobWithPlan(Crossing):
    """A job with its newest revision: as what whoever works here may sign that, empty where as
    nothing; whose the job is, by number; whether they may hand it over."""

    job: JobOut
    newest: RevisionOut
    schedule: Schedule
    kit: str = ""
    to_sign: SignedAs | Literal[""] = ""
    owner: int = EVERYBODY
    to_hand_over: bool = False


class ScheduleIn(Asked):
    """In which order the steps of a job are done from now on."""

    schedule: Schedule


class JobKitIn(Asked):
    """Which kit a job is drawn with from now on, by name; the usual one where it is empty."""

    kit: UsedKit


class RevisionsOut(Crossing):
    """Every revision of a job, newest first."""

    revisions: tuple[RevisionOut, ...]


class SignatureIn(Asked):
    """As what a revision is signed."""

    signed_as: SignedAs


class OwnerIn(Asked):
    """Whose a job is from now on, by number; nought for everybody's."""

    person: AskedNumber


class RegisterQuery(Asked):
    """Which part of the register: words that stand in title or number, an order, a page from 1."""

    archived: bool = False
    search: Annotated[str, Field(max_length=200)] = ""
    order: Literal["worked", "entered", "title", "drawing"] = "worked"
    only: Only = ""
    page: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    size: Annotated[int, Field(ge=1, le=200)] = 50


jobs = Operations()

People = Mapping[int, store.Person]


def tidied(text: str) -> tuple[str, Summary | None]:
    """Return a plan as it is kept, and what the register lists of it: None while everybody is busy,
    that is made up for later."""
    try:
        return cast(tuple[str, Summary], workers().do(TIDIED, text, gone=gone()))
    except Busy:
        return tidy(text), None
    except TooMuchWork as error:
        return tidy(text), unsummarized(text, str(error))


def _listed(job: store.Listed, people: People) -> JobOut:
    owner = people.get(job.whose)
    return JobOut.from_core(
        job.made,
        whose=owner.told if owner else "",
        yours=allowed("save in a job", job.whose),
        signed=job.signed,
        title=job.made.title or "Untitled",
        id=job.id,
        revision=job.revision,
        worked_at=job.worked_at,
        archived=job.archived,
        pending=job.pending,
        pictured=job.pictured,
        double=job.double,
    )


def people_of(session: Session) -> People:
    """Return everybody by number, those who left as well."""
    return {each.id: each for each in store.everybody(session, left=True)}


def shown_revision(
    view: store.RevisionView, people: People, signed: Sequence[store.Signature] = ()
) -> RevisionOut:
    """Return a revision as it crosses, with who saved and who signed it."""
    own = people[view.saved_by]
    signatures = tuple(
        SignatureOut(
            signed_as=each.signed_as,
            name=people[each.who].told,
            initials=people[each.who].initials,
            at=each.at,
        )
        for each in signed
        if each.number == view.number
    )
    return RevisionOut.from_core(view, name=own.told, initials=own.initials, signatures=signatures)


def _job(job_id: int) -> JobOut:
    with the_store().reading() as session:
        found = store.listed(session, job_id)
        people = people_of(session)
    if found is None:
        raise store.UnknownJob(f"there is no job {job_id} in the register")
    return _listed(found, people)


@jobs.get("/jobs", deed="see jobs")
def list_jobs(query: RegisterQuery) -> JobsOut:
    """Return a page of the jobs at work, or of the archived ones."""
    with the_store().reading() as session:
        found = store.list_jobs(
            session,
            query.archived,
            query.search,
            query.order,
            query.page,
            query.size,
            query.only,
            me(),
        )
        people = people_of(session)
    pages = max(1, -(-found.total // query.size))
    return JobsOut(
        jobs=tuple(_listed(job, people) for job in found.jobs),
        page=query.page,
        pages=pages,
        total=found.total,
    )


@jobs.post("/jobs", status=201, deed="enter a job")
def enter_job(body: JobIn) -> JobOut:
    """Enter a new job: from a plan's text, as a copy, or blank."""
    for _ in range(TRIES):
        begun = _begun(body)
        text, made = tidied(begun.text)
        with the_store().writing() as session:
            # While it was worked out another may have been given the number.
            if begun.number and begun.number in store.drawing_numbers(session):
                continue
            view = store.add_job(session, text, begun.note, made, me())
        committed()
        return _job(view.id)
    message = "others enter jobs at the same time, and took each number; try again"
    raise Refused(503, "No number to be had", message)


TRIES = 20
"""How often a number is taken anew that somebody else has been given in the meantime."""


@dataclass(frozen=True, slots=True)
class _Begun:
    """A plan as it is entered, with its note, and the number it was given here."""

    text: str
    note: str
    number: str = ""


def _begun(body: JobIn) -> _Begun:
    if body.copy_of is not None:
        with the_store().reading() as session:
            source = store.one_job(session, body.copy_of).newest
            own = heading(source.text).drawing
            number = next_free(store.drawing_numbers(session), own) if own else ""
        text = renumbered(source.text, number) if number else source.text
        note = body.note or f"copy of job {body.copy_of}, revision {source.number}"
        return _Begun(text, note, number)
    if body.text is not None:
        text = _a_plan(body.text)
        if not body.numbered:
            return _Begun(text, body.note)
        number = next_number().drawing
        return _Begun(renumbered(text, number), body.note, number)
    number = "" if body.drawing else next_number().drawing
    text = begun(body.title or "Untitled", body.drawing or number, body.unit)
    return _Begun(text, body.note, number)


def _a_plan(text: str) -> str:
    what = foreign(text) or ("" if says_something(text) else "a text of another kind")
    if what:
        message = (
            f"this is {what}, not a plan: a plan is text that says its statements line by line"
        )
        raise Refused(409, "Not a plan", message)
    return text


@jobs.get("/jobs/next-number", deed="see jobs")
def next_number() -> NumberOut:
    """Return the drawing number that comes next, counted on in the usual way of the register."""
    with the_store().reading() as session:
        return NumberOut(drawing=next_free(store.drawing_numbers(session)))


@jobs.get("/jobs/<job_id>", deed="see jobs")
def open_job(path: JobPath) -> JobWithPlan:
    """Return a job with its newest plan."""
    with the_store().reading() as session:
        view = store.one_job(session, path.job_id)
        order = store.order_of(session, path.job_id)
        signed = store.signatures(session, path.job_id)
        newest = shown_revision(view.newest, people_of(session), signed)
        stands = store.standing(session, path.job_id, view.newest.number)
    may_sign = allowed("sign a revision") and not here().alone
    return JobWithPlan(
        job=_job(path.job_id),
        newest=newest,
        **order.model_dump(),
        to_sign=next_signature(me(), stands, here().alone) if may_sign else "",
        owner=view.whose,
        to_hand_over=allowed("hand a job over", view.whose),
    )


@jobs.put("/jobs/<job_id>/kit", deed="save in a job")
def set_kit(path: JobPath, body: JobKitIn) -> JobKitIn:
    """Keep with which kit a job is drawn."""
    with the_store().writing() as session:
        known = {*STARTERS, *(each.name for each in store.list_kits(session, me()))}
        if body.kit and body.kit not in known:
            raise Refused(409, "There is no such kit", f"{body.kit} is no kit of this desk")
        store.set_order(session, path.job_id, kit=body.kit)
    committed()
    return body


@jobs.put("/jobs/<job_id>/schedule", deed="save in a job")
def set_schedule(path: JobPath, body: ScheduleIn) -> ScheduleIn:
    """Keep in which order the steps of a job are done."""
    with the_store().writing() as session:
        store.set_order(session, path.job_id, schedule=body.schedule)
    committed()
    return body


@jobs.patch("/jobs/<job_id>", deed="put a job away")
def archive_job(path: JobPath, body: ArchiveIn) -> JobOut:
    """Archive a job, or take it back to work."""
    with the_store().writing() as session:
        store.set_archived(session, path.job_id, body.archived)
    committed()
    return _job(path.job_id)


@jobs.get("/jobs/<job_id>/revisions", deed="see jobs")
def list_revisions(path: JobPath) -> RevisionsOut:
    """Return every revision of a job, newest first."""
    with the_store().reading() as session:
        found = store.revisions(session, path.job_id)
        people, signed = people_of(session), store.signatures(session, path.job_id)
    return RevisionsOut(revisions=tuple(shown_revision(r, people, signed) for r in found))


@jobs.get("/jobs/<job_id>/revisions/<number>", deed="see jobs")
def one_revision(path: RevisionPath) -> RevisionOut:
    """Return one revision of a job."""
    with the_store().reading() as session:
        found = store.one_revision(session, path.job_id, path.number)
        people, signed = people_of(session), store.signatures(session, path.job_id)
    return shown_revision(found, people, signed)


@jobs.post("/jobs/<job_id>/revisions/<number>/signatures", status=201, deed="sign a revision")
def sign_revision(path: RevisionPath, body: SignatureIn) -> RevisionOut:
    """Sign the newest revision of a job as checked, or as approved."""
    with the_store().writing() as session:
        store.sign(session, path.job_id, path.number, body.signed_as, me())
    committed()
    return one_revision(path)


@jobs.put("/jobs/<job_id>/owner", deed="hand a job over")
def hand_over(path: JobPath, body: OwnerIn) -> JobOut:
    """Give a job to somebody, or to everybody."""
    with the_store().writing() as session:
        if body.person != EVERYBODY and store.one_person(session, body.person).left:
            raise store.UnknownPerson("who has left can be given nothing")
        store.hand_over(session, path.job_id, body.person)
    committed()
    return _job(path.job_id)


@jobs.post("/jobs/<job_id>/revisions", status=201, deed="save in a job")
def save_revision(path: JobPath, body: SaveIn) -> RevisionOut:
    """Save a plan as the next revision; refused with both versions when it is based on an old
    one."""
    text, made = tidied(body.text)
    with the_store().writing() as session:
        saved = store.save_revision(
            session, path.job_id, text, body.based_on, body.note, made, me()
        )
        people = people_of(session)
    committed()
    return shown_revision(saved, people)


@jobs.get("/jobs/<job_id>/thumbnail.svg", deed="see jobs")
def thumbnail(path: JobPath) -> Response:
    """Return the outline of a job's newest revision, cropped to it, as it was worked out when that
    was saved."""
    with the_store().reading() as session:
        found = store.listed(session, path.job_id)
    if found is None or not found.made.thumbnail:
        raise store.UnknownJob(f"job {path.job_id} has no outline to show")
    response = current_app.response_class(found.made.thumbnail, mimetype="image/svg+xml")
    response.headers["Cache-Control"] = "private, no-cache"
    response.add_etag()
    response.make_conditional(request)
    return response
