"""The register: jobs and their revisions."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from .crossing import Asked, Crossing, Number, PlanText, Schedule


class RevisionOut(Crossing):
    """A saved state of a plan."""

    model_config = ConfigDict(from_attributes=True)

    number: int
    based_on: int | None
    text: str
    note: str
    saved_at: datetime


class JobOut(Crossing):
    """A job as the register lists it.

    `trouble` is its first mistake in words. `pending` says that it has not been worked out yet; then only its heading
    is known. `pictured` says whether there is a thumbnail.
    """

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


class JobsOut(Crossing):
    """A page of the register: its jobs, and how many there are on all pages."""

    jobs: tuple[JobOut, ...]
    page: int
    pages: int
    total: int


class JobIn(Asked):
    """A new job: from a plan's text, or a copy of another job, or blank."""

    text: PlanText | None = None
    copy_of: Annotated[int, Field(ge=1, le=2**63 - 1)] | None = None
    note: Annotated[str, Field(max_length=200)] = ""


class JobPath(Asked):
    """A job by number."""

    job_id: Number


class RevisionPath(Asked):
    """A revision of a job."""

    job_id: Number
    number: Number


class ArchiveIn(Asked):
    """Whether a job is archived."""

    archived: bool


class SaveIn(Asked):
    """A plan to save as the next revision."""

    text: PlanText
    based_on: Annotated[int, Field(ge=0, le=2**63 - 1)]
    note: Annotated[str, Field(max_length=200)] = ""


class JobWithPlan(Crossing):
    """A job with its newest revision."""

    job: JobOut
    newest: RevisionOut
    schedule: Schedule
    kit: str = ""


class JobKitIn(Asked):
    """Which kit a job is drawn with from now on, by name; the usual one where it is empty."""

    kit: Annotated[str, Field(max_length=60)]


class RevisionsOut(Crossing):
    """Every revision of a job, newest first."""

    revisions: tuple[RevisionOut, ...]


class RegisterQuery(Asked):
    """Which part of the register: words that stand in title or number, an order, a page from 1."""

    archived: bool = False
    search: Annotated[str, Field(max_length=200)] = ""
    order: Literal["worked", "entered", "title", "drawing"] = "worked"
    page: Annotated[int, Field(ge=1, le=1_000_000)] = 1
    size: Annotated[int, Field(ge=1, le=200)] = 50


class NoticeOut(Crossing):
    """What whoever keeps the register should know, empty where there is nothing."""

    told: str


class PairingOut(Crossing):
    """How phones and tablets of the local network come in; empty where the desk was not asked to let them.

    `secure` where there is a certificate: then a browser keeps the pages of a sitting, too.
    """

    address: str = ""
    code: str = ""
    secure: bool = False
    picture: str = ""
