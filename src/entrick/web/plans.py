"""Plans: work out, edit, complete, export; the vocabulary; pictures of settings. Keeps no state."""

from __future__ import annotations

import re
from fractions import Fraction

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from pydantic import BaseModel

from ..core import formats
from ..core.complete import complete
from ..core.desk import Work, work_out
from ..core.display import DisplayList, draw_worksheet
from ..core.display.picture import angle_picture, compass_over_rule, template_picture
from ..core.follow import follow
from ..core.measure import Unit
from ..core.moves import kinds
from ..core.plan import edit as edits
from ..core.plan.writer import write_plan
from ..core.proof import why_not_cut
from ..core.sheet.choose import with_clause
from ..core.suggest import suggest_dimensions
from ..core.tables import table_csv, table_page, told
from . import present
from .problems import problem
from .schemas import (
    BriefIn,
    BriefOut,
    ChoicesOut,
    ChooseCandidate,
    CompleteIn,
    CompleteOut,
    DeleteLine,
    Edit,
    ExportIn,
    ExportPath,
    InsertLine,
    KindsOut,
    MethodsIn,
    MethodsOut,
    MisreadOut,
    MoveLine,
    OpenedIn,
    OpenedOut,
    PictureQuery,
    PlanIn,
    ProofOut,
    RegionsIn,
    RegionsOut,
    SaySheet,
    SetClause,
    SetGiven,
    SetHead,
    SetLine,
    SuggestOut,
    WorkIn,
    WorkOut,
    WorksheetFileIn,
    WorksheetIn,
    WorksheetOut,
    WorksheetPath,
)

plans = APIBlueprint("plans", __name__, url_prefix="/api")


def _json(model: BaseModel) -> Response:
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
        case SaySheet():
            return edits.set_head(text, "sheet", with_clause(work_out(text).solution.sheet, edit.text))
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


@plans.post("/proof", responses={200: ProofOut})
def proof(body: PlanIn) -> Response:
    """Inspect a plan: findings, junctions and measures."""
    return _json(present.proof(work_out(body.text)))


@plans.post("/suggest", responses={200: SuggestOut})
def suggest(body: PlanIn) -> Response:
    """Suggest dimensions that define the outline."""
    found = suggest_dimensions(work_out(body.text).solution)
    return _json(SuggestOut(text=found.text, statements=found.statements, left_open=found.left_open))


@plans.post("/regions", responses={200: RegionsOut})
def regions(body: RegionsIn) -> Response:
    """Return the boundary of the regions pointed at."""
    return _json(present.regions(work_out(body.text), body.spots, body.kind))


@plans.post("/opened", responses={200: OpenedOut})
def opened(body: OpenedIn) -> Response:
    """Open a step up into the classic construction behind it."""
    return _json(present.opened(work_out(body.text), body.step))


@plans.post("/methods", responses={200: MethodsOut})
def compared(body: MethodsIn) -> Response:
    """Construct a statement by each of its methods."""
    return _json(present.compared(work_out(body.text), body.line))


@plans.post("/worksheet", responses={200: WorksheetOut})
def worksheet(body: WorksheetIn) -> Response:
    """Return the worksheet of a statement, turned through an angle."""
    return _json(present.worksheet(work_out(body.text), body.line, body.turn))


@plans.post("/worksheet/<string:format>")
def worksheet_file(path: WorksheetPath, body: WorksheetFileIn) -> Response:
    """Return a worksheet as a file: diagram and profile on one page, or one of its tables."""
    done = work_out(body.text)
    sheet = present.worksheet_of(done, body.line, body.turn)
    name = next(e.statement.name for e in done.solution.entries if e.line == body.line)
    heading = f"{done.solution.drawing} {done.solution.title}: {name}".strip()
    if body.table is not None and body.table >= len(sheet.tables):
        raise edits.EditError(f"the worksheet has no table {body.table}")
    table = told(sheet.tables[body.table or 0], done)
    if path.format == "csv":
        content: str | bytes = table_csv(table)
    elif body.table is not None:
        content = _drawn(path.format, table_page(table, (heading, sheet.caution)), table.title)
    else:
        display = draw_worksheet(sheet, done.solution.unit, (heading, sheet.caution))
        content = _drawn(path.format, display, sheet.title)
    response = current_app.response_class(content, content_type=_TYPES[path.format])
    stem = _stem(f"{done.solution.drawing} {name} worksheet")
    response.headers["Content-Disposition"] = f'attachment; filename="{stem}.{path.format}"'
    return response


def _drawn(format: str, display: DisplayList, title: str) -> str | bytes:
    return formats.write_pdf(display, title) if format == "pdf" else formats.write_svg(display)


@plans.post("/brief", responses={200: BriefOut})
def brief(body: BriefIn) -> Response:
    """Give a cam the events of a brief: sentences, or stations as CSV."""
    statement, read = follow(work_out(body.text), body.line, body.brief)
    misread = tuple(MisreadOut.model_validate(row) for row in read.misread)
    return _json(BriefOut(statement="" if misread else statement, misread=misread))


@plans.post("/sheet-choices", responses={200: ChoicesOut})
def sheet_choices(body: PlanIn) -> Response:
    """Return the papers, borders and scales a plan may take, each scale with its reason."""
    return _json(present.choices(work_out(body.text)))


_TYPES = {
    "pdf": "application/pdf",
    "svg": "image/svg+xml",
    "dxf": "image/vnd.dxf",
    "cutter": "image/vnd.dxf",
    "csv": "text/csv; charset=utf-8",
    "entrick": "text/plain; charset=utf-8",
}


@plans.post("/export/<string:format>")
def export(path: ExportPath, body: ExportIn) -> Response:
    """Return a plan as a file."""
    done = work_out(body.text)
    if path.format == "cutter" and not body.insist and (reason := why_not_cut(done.findings)):
        return problem(409, "Not to be cut as it is", reason)
    response = current_app.response_class(_file(path.format, done, body), content_type=_TYPES[path.format])
    stem = _stem(f"{done.solution.drawing} {done.solution.title}")
    response.headers["Content-Disposition"] = f'attachment; filename="{stem}.{_ENDINGS.get(path.format, path.format)}"'
    return response


def _stem(name: str) -> str:
    """Return a name as a file may carry it."""
    return re.sub(r"[^A-Za-z0-9-]+", "-", name).strip("-") or "plan"


_ENDINGS = {"cutter": "dxf"}


def _file(format: str, done: Work, body: ExportIn) -> str | bytes:
    construction, ovals = body.construction, formats.Ovals(body.ovals, body.within)
    match format:
        case "pdf":
            return formats.write_pdf(done.display, done.solution.title, construction)
        case "svg":
            return formats.write_svg(done.display, construction)
        case "dxf":
            return formats.write_dxf(done.display, done.solution.unit, construction, ovals)
        case "cutter":
            return formats.write_cutter_dxf(done.display, done.solution.unit, ovals)
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
        unit, graduation = Unit(query.unit), Fraction(query.graduation)
        if query.tool == "circle template":
            drawing = template_picture(min(value, 50 / float(unit.mm)), unit)
        else:
            drawing = compass_over_rule(value, unit, graduation, query.tool)
    response = current_app.response_class(formats.write_svg(drawing), mimetype="image/svg+xml")
    response.headers["Cache-Control"] = "private, max-age=86400"
    return response
