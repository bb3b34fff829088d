"""Errors as problem+json (RFC 9457)."""

from __future__ import annotations

from typing import Any

from flask import Flask, Response, jsonify
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from ..core.geometry.arrange import RegionError
from ..core.plan.document import PlanTooLarge
from ..core.plan.edit import EditError
from ..store import StaleSave, UnknownJob
from .schemas import RevisionOut


class Problem(BaseModel):
    """An error a person can read."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str = ""
    newest: RevisionOut | None = None
    fields: dict[str, str] | None = None


def problem(status: int, title: str, detail: str = "", **more: Any) -> Response:
    """Return a problem+json response."""
    body = Problem(title=title, status=status, detail=detail, **more)
    response = jsonify(body.model_dump(mode="json", exclude_none=True))
    response.status_code = status
    response.content_type = "application/problem+json"
    return response


def invalid(error: ValidationError) -> Response:
    """Answer a body or query that does not have the stated form."""
    fields = {".".join(map(str, e["loc"])) or "body": e["msg"] for e in error.errors()}
    return problem(
        422, "The request cannot be understood", "; ".join(f"{k}: {v}" for k, v in fields.items()), fields=fields
    )


def register(app: Flask) -> None:
    """Answer every error of the application as a problem."""

    @app.errorhandler(HTTPException)
    def http(error: HTTPException) -> Response:
        return problem(error.code or 500, error.name, error.description or "")

    @app.errorhandler(UnknownJob)
    def unknown(error: UnknownJob) -> Response:
        return problem(404, "Not in the register", str(error))

    @app.errorhandler(StaleSave)
    def stale(error: StaleSave) -> Response:
        return problem(
            409, "Saved by someone else in the meantime", str(error), newest=RevisionOut.model_validate(error.newest)
        )

    @app.errorhandler(PlanTooLarge)
    def too_large(error: PlanTooLarge) -> Response:
        return problem(413, "The plan is too large", str(error))

    @app.errorhandler(RegionError)
    def region(error: RegionError) -> Response:
        return problem(422, "No region there", str(error))

    @app.errorhandler(EditError)
    def edit(error: EditError) -> Response:
        return problem(400, "This edit does not fit the plan", str(error))

    @app.errorhandler(Exception)
    def fault(error: Exception) -> Response:
        app.logger.exception("fault while answering")
        return problem(500, "The desk has a fault", "Nothing was saved. The fault is in the server's log.")
