"""Errors as problem+json (RFC 9457)."""

from __future__ import annotations

import logging
import traceback
from collections.abc import Callable, Sequence
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

NOT_TO_BE_HELD = "a number in it is larger, or a sign in it another, than the register can hold"

KNOWN: Sequence[tuple[type[Exception], int, str, Callable[[Any], str]]] = (
    (UnknownPerson, 404, "Not in the register", str),
    (UnknownMark, 404, "Not in the register", str),
    (UnknownSet, 404, "Not in the register", str),
    (UnknownJob, 404, "Not in the register", str),
    (NotSo, 409, "This cannot be", str),
    (NotToBeSigned, 409, "This cannot be", str),
    (
        EventsDiffer,
        409,
        "Another device works at this sitting",
        lambda error: f"{error}; both stay where they are",
    ),
    (TooManyKits, 409, "No room for another kit", str),
    (TooManySets, 409, "No room for another set", str),
    (EditError, 409, "This edit does not fit the plan", str),
    (ClauseError, 409, "This cannot be read", lambda error: error.message),
    (DataError, 422, "The request cannot be understood", lambda _: _unsaved(NOT_TO_BE_HELD)),
    (
        UnicodeEncodeError,
        422,
        "The request cannot be understood",
        lambda _: _unsaved(NOT_TO_BE_HELD),
    ),
    (ArchiveError, 422, "This is no register", lambda error: f"{error}. Nothing was entered."),
    (PlanTooLarge, 413, "The plan is too large", lambda error: _unsaved(str(error))),
    (TooMuch, 422, "More work than the desk does at once", str),
    (TooMuchWork, 422, "More work than the desk does at once", str),
    (Busy, 503, "The desk is busy", lambda error: f"{_unsaved(str(error))} Try again in a moment."),
    (Gone, 503, "Stopped", lambda _: "nobody waits for this any more"),
)
"""Errors of the desk: what each is answered with, its title, and its words."""


def _unsaved(words: str) -> str:
    return f"{words}. {what_is_saved()}"


def register(app: Flask) -> None:
    """Answer every error of the application as a problem."""
    for kind, status, title, words in KNOWN:
        app.register_error_handler(kind, _answering(status, title, words))
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(StaleSave, _stale)
    app.register_error_handler(RegisterTrouble, _register_trouble)
    app.register_error_handler(Refused, _refused)
    app.register_error_handler(Exception, _broken)


def _answering(
    status: int, title: str, words: Callable[[Any], str]
) -> Callable[[Exception], Response]:
    return lambda error: problem(status, title, words(error))


def _http(error: HTTPException) -> Response:
    answer = problem(error.code or 500, error.name, error.description or "")
    for name, value in error.get_headers():
        if name.lower() in ("allow", "retry-after"):
            answer.headers[name] = value
    return answer


def _stale(error: StaleSave) -> Response:
    title = "Saved by someone else in the meantime"
    return problem(409, title, str(error), newest=_newest(error))


def _register_trouble(error: RegisterTrouble) -> Response:
    words = f"{error.told}. {error.safe} {error.todo} {what_is_saved()}"
    return problem(_STATUS.get(error.cause, 500), "The register cannot be written to", words)


def _refused(error: Refused) -> Response:
    answer = problem(error.status, error.title, error.detail, fields=error.fields)
    answer.headers.update(error.headers)
    return answer


def _broken(error: Exception) -> Response:
    reference = getattr(error, "reference", None) or fault.reference(error)
    trace = "".join(traceback.format_exception(error))
    LOG.error("fault %s while answering\n%s", reference, trace)
    where = f"reference {reference}, in the server's log"
    words = f"A fault of the desk, not of the plan ({where}). {what_is_saved()}"
    return problem(500, "The desk has a fault", words)
