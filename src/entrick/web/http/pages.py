"""The pages: one document for every view, the built scripts, styles and fonts."""

from __future__ import annotations

from pathlib import Path

from flask import Blueprint, Response, abort, send_from_directory

from . import guard

STATIC = Path(__file__).parents[1] / "static"

pages = Blueprint("pages", __name__)


@pages.get("/")
@pages.get("/jobs/<int:job_id>")
@pages.get("/jobs/<int:job_id>/proof")
@pages.get("/jobs/<int:job_id>/board")
@pages.get("/jobs/<int:job_id>/practice")
@pages.get("/profile")
@pages.get("/jobs/<int:job_id>/cutter")
@pages.get("/class")
@pages.get("/logbook")
@pages.get("/kits")
def page(job_id: int | None = None) -> Response:
    """Return the document of the front end, which finds its view by the address."""
    return _document(200)


def nothing_here() -> Response:
    """Return the same document for an address there is no view of: it says so, and shows the way
    back."""
    return _document(404)


def _document(status: int) -> Response:
    index = STATIC / "index.html"
    if not index.is_file():
        abort(503, "The front end is not built yet: run make build.")
    return Response(
        index.read_text("utf-8").replace("%NONCE%", guard.nonce()), status, mimetype="text/html"
    )


@pages.get("/assets/<path:name>")
def asset(name: str) -> Response:
    """Return a built file; its name changes with its content, so it may be kept."""
    return send_from_directory(STATIC / "assets", name, max_age=31536000)


@pages.get("/board-worker.js")
def worker() -> Response:
    """Return the script that keeps a sitting going while the desk is away; asked for anew each
    time."""
    return send_from_directory(STATIC, "board-worker.js", max_age=0)


@pages.get("/mark.svg")
def mark() -> Response:
    """Return the mark shown in the browser's tab."""
    return send_from_directory(STATIC, "mark.svg")
