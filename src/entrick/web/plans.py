"""Plans: work out, edit, complete, export; the vocabulary; pictures of settings. Keeps no state."""

from __future__ import annotations

import re
from fractions import Fraction

from flask import Response, current_app
from flask_openapi3 import APIBlueprint

from ..core import formats
from ..core.complete import complete
from ..core.desk import Work, work_out
from ..core.display.picture import angle_picture, compass_over_rule
from ..core.measure import Unit
from ..core.moves import kinds
from ..core.plan import edit as edits
from ..core.plan.writer import write_plan
from . import present
from .problems import problem
from .schemas import (
    ChooseCandidate,
    CompleteIn,
    CompleteOut,
    DeleteLine,
    Edit,
    ExportIn,
    ExportPath,
    InsertLine,
    KindsOut,
    MoveLine,
    PictureQuery,
    SetClause,
    SetGiven,
    SetHead,
    SetLine,
    WorkIn,
    WorkOut,
)

plans = APIBlueprint("plans", __name__, url_prefix="/api")


def _json(model: WorkOut | KindsOut | CompleteOut) -> Response:
    return current_app.response_class(model.model_dump_json(), mimetype="application/json")


@plans.get("/kinds", responses={200: KindsOut})
def vocabulary() -> Response:
    """Return every kind of construction with its clauses; cards and lists are built from this."""
    return _json(KindsOut(kinds=tuple(present.kind(kind) for kind in kinds().values())))


@plans.post("/work", responses={200: WorkOut})
def work(body: WorkIn) -> Response:
    """Work a plan out, after an edit if one is given. The answer carries the edited text."""
    text = _edited(body.text, body.edit) if body.edit else body.text
    return _json(present.work(work_out(text)))


def _edited(text: str, edit: Edit) -> str:
    match edit:
        case SetGiven():
            return edits.set_given(text, edit.line, edit.value)
        case SetClause():
            return edits.set_clause(text, edit.line, edit.clause, edit.text)
        case SetLine():
            return edits.set_line(text, edit.line, edit.text)
        case InsertLine():
            return edits.insert_line(text, edit.after, edit.text)
        case DeleteLine():
            return edits.delete_line(text, edit.line)
        case MoveLine():
            return edits.move_line(text, edit.line, edit.to)
        case SetHead():
            return edits.set_head(text, edit.key, edit.text)
        case ChooseCandidate():
            return _chosen(text, edit)


def _chosen(text: str, edit: ChooseCandidate) -> str:
    entry = next((e for e in work_out(text).solution.entries if e.line == edit.line), None)
    candidate = next((c for c in entry.candidates if c.letter == edit.letter), None) if entry else None
    if entry is None or candidate is None:
        raise edits.EditError(f"line {edit.line} has no candidate {edit.letter}")
    words = kinds()[entry.statement.kind].choosing_words
    return edits.choose_candidate(text, edit.line, candidate.words, words)


@plans.post("/complete", responses={200: CompleteOut})
def completion(body: CompleteIn) -> Response:
    """Return what may follow a half-written row."""
    return _json(CompleteOut(completions=complete(work_out(body.text).solution, body.after, body.row)))


_TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "csv": "text/csv; charset=utf-8",
    "entrick": "text/plain; charset=utf-8",
}


@plans.post("/export/<string:format>")
def export(path: ExportPath, body: ExportIn) -> Response:
    """Return a plan as a file."""
    done = work_out(body.text)
    response = current_app.response_class(_file(path.format, done, body.construction), content_type=_TYPES[path.format])
    name = f"{done.solution.drawing} {done.solution.title}".strip() or "plan"
    stem = re.sub(r"[^A-Za-z0-9-]+", "-", name).strip("-") or "plan"
    response.headers["Content-Disposition"] = f'attachment; filename="{stem}.{path.format}"'
    return response


def _file(format: str, done: Work, construction: bool) -> str | bytes:
    match format:
        case "pdf":
            return formats.write_pdf(done.display, done.solution.title, construction)
        case "svg":
            return formats.write_svg(done.display, construction)
        case "dxf":
            return formats.write_dxf(done.display, done.solution.unit, construction)
        case "csv":
            return formats.settings_csv(done.steps, done.kit)
    return write_plan(done.plan)


@plans.get("/pictures/setting.svg")
def picture(query: PictureQuery) -> Response:
    """Return a life-size picture of an instrument at its setting."""
    if query.unit == "deg":
        drawing = angle_picture(query.value, query.tool)
    else:
        top, _, bottom = query.graduation.partition("/")
        if int(top) == 0 or (bottom and int(bottom) == 0):
            return problem(422, "The request cannot be understood", "the graduation must be more than nought")
        most = 1200 if query.unit == "mm" else 48
        value = max(0.0, min(abs(query.value), most))
        drawing = compass_over_rule(value, Unit(query.unit), Fraction(query.graduation), query.tool)
    response = current_app.response_class(formats.write_svg(drawing), mimetype="image/svg+xml")
    response.headers["Cache-Control"] = "private, max-age=86400"
    return response
