"""Errors as problem+json (RFC 9457)."""

from __future__ import annotations

import logging
import traceback
from typing import Any

from flask import Flask, Response, jsonify
from pydantic import BaseModel
from sqlalchemy.exc import DataError
from werkzeug.exceptions import HTTPException

from ...core import fault
from ...core.office import NotToBeSigned
from ...core.plan.document import PlanTooLarge
from ...core.plan.edit import EditError
from ...core.plan.errors import ClauseError, TooMuch
from ...store import (
    ArchiveError,
    EventsDiffer,
    NotSo,
    RegisterTrouble,
    StaleSave,
    TooManyKits,
    TooManySets,
    UnknownJob,
    UnknownMark,
    UnknownPerson,
    UnknownSet,
)
from ..answer import Refused
from ..register.jobs import RevisionOut, people_of, shown_revision
from ..register.saved import the_store, what_is_saved
from ..workers.pool import Busy, Gone, TooMuchWork


class Problem(BaseModel):
    """An error a person can read."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str = ""
    newest: RevisionOut | None = None
    fields: dict[str, str] | None = None


RETRY = "2"
"""Seconds after which to try again where the desk is busy."""

LOG = logging.getLogger("entrick.web")


def problem(status: int, title: str, detail: str = "", **more: Any) -> Response:
    """Return a problem+json response."""
    body = Problem(title=title, status=status, detail=detail, **more)
    response = jsonify({k: v for k, v in body.model_dump(mode="json").items() if v is not None})
    response.status_code = status
    response.content_type = "application/problem+json"
    if status == 503:
        response.headers["Retry-After"] = RETRY
    return response


def _newest(error: StaleSave) -> RevisionOut:
    with the_store().reading() as session:
        return shown_revision(error.newest, people_of(session))


_STATUS = {"locked": 503, "full": 507, "read-only": 503, "unreachable": 503}


def register(app: Flask) -> None:  # noqa: C901
    """Answer every error of the application as a problem."""

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        answer = problem(error.code or 500, error.name, error.description or "")
        for name, value in error.get_headers():
            if name.lower() in ("allow", "retry-after"):
                answer.headers[name] = value
        return answer

    @app.errorhandler(UnknownPerson)
    @app.errorhandler(UnknownMark)
    @app.errorhandler(UnknownSet)
    @app.errorhandler(UnknownJob)
    def unknown(error: LookupError) -> Response:
        return problem(404, "Not in the register", str(error))

    @app.errorhandler(StaleSave)
    def stale(error: StaleSave) -> Response:
        return problem(
            409,
            "Saved by someone else in the meantime",
            str(error),
            newest=_newest(error),
        )

    @app.errorhandler(NotSo)
    @app.errorhandler(NotToBeSigned)
    def not_so(error: ValueError) -> Response:
        return problem(409, "This cannot be", str(error))

    @app.errorhandler(EventsDiffer)
    def differ(error: EventsDiffer) -> Response:
        return problem(
            409, "Another device works at this sitting", f"{error}; both stay where they are"
        )

    @app.errorhandler(TooManyKits)
    def kits(error: TooManyKits) -> Response:
        return problem(409, "No room for another kit", str(error))

    @app.errorhandler(TooManySets)
    def sets(error: TooManySets) -> Response:
        return problem(409, "No room for another set", str(error))

    @app.errorhandler(ClauseError)
    def clause(error: ClauseError) -> Response:
        return problem(409, "This cannot be read", error.message)

    @app.errorhandler(RegisterTrouble)
    def trouble(error: RegisterTrouble) -> Response:
        words = f"{error.told}. {error.safe} {error.todo} {what_is_saved()}"
        return problem(_STATUS.get(error.cause, 500), "The register cannot be written to", words)

    @app.errorhandler(DataError)
    @app.errorhandler(UnicodeEncodeError)
    def not_to_be_held(_: Exception) -> Response:
        words = "a number in it is larger, or a sign in it another, than the register can hold"
        return problem(422, "The request cannot be understood", f"{words}. {what_is_saved()}")

    @app.errorhandler(ArchiveError)
    def archive(error: ArchiveError) -> Response:
        return problem(422, "This is no register", f"{error}. Nothing was entered.")

    @app.errorhandler(PlanTooLarge)
    def too_large(error: PlanTooLarge) -> Response:
        return problem(413, "The plan is too large", f"{error}. {what_is_saved()}")

    @app.errorhandler(EditError)
    def edit(error: EditError) -> Response:
        return problem(409, "This edit does not fit the plan", str(error))

    @app.errorhandler(Refused)
    def refused(error: Refused) -> Response:
        answer = problem(error.status, error.title, error.detail, fields=error.fields)
        answer.headers.update(error.headers)
        return answer

    @app.errorhandler(TooMuch)
    @app.errorhandler(TooMuchWork)
    def too_much(error: Exception) -> Response:
        return problem(422, "More work than the desk does at once", str(error))

    @app.errorhandler(Busy)
    def busy(error: Busy) -> Response:
        return problem(
            503, "The desk is busy", f"{error}. {what_is_saved()} Try again in a moment."
        )

    @app.errorhandler(Gone)
    def gone(_: Gone) -> Response:
        return problem(503, "Stopped", "nobody waits for this any more")

    @app.errorhandler(Exception)
    def broken(error: Exception) -> Response:
        reference = getattr(error, "reference", None) or fault.reference(error)
        LOG.error(
            "fault %s while answering\n%s", reference, "".join(traceback.format_exception(error))
        )
        words = (
            f"A fault of the desk, not of the plan (reference {reference}, in the server's "
            f"log). {what_is_saved()}"
        )
        return problem(500, "The desk has a fault", words)
