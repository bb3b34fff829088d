"""Worksheets and their files."""

from __future__ import annotations

from ...core import formats
from ...core.desk import work_out
from ...core.display import DisplayList, draw_worksheet
from ...core.formats.tables import in_words, table_csv, table_page
from ...core.plan import edit as edits
from ..answer import Answer
from ..present import worksheets as present
from ..schemas.worksheets import WorksheetFileIn, WorksheetIn
from .answers import as_file, as_json


def worksheet(body: WorksheetIn) -> Answer:
    """Return the worksheet of a statement, turned through an angle."""
    return as_json(present.worksheet(work_out(body.text), body.line, body.turn))


def worksheet_file(body: WorksheetFileIn, format: str) -> Answer:
    """Return a worksheet as a file: diagram and profile on one page, or one of its tables."""
    done = work_out(body.text)
    name, sheet = present.worksheet_of(done, body.line, body.turn)
    heading = f"{done.solution.drawing} {done.solution.title}: {name}".strip()
    if (body.table or 0) >= len(sheet.tables):
        raise edits.EditError(f"the worksheet has no table {body.table or 0}")
    table = in_words(sheet.tables[body.table or 0], done)
    if format == "csv":
        content: str | bytes = table_csv(table)
    elif body.table is not None:
        content = _drawn(format, table_page(table, (heading, sheet.caution)), table.title)
    else:
        display = draw_worksheet(sheet, done.solution.unit, (heading, sheet.caution))
        content = _drawn(format, display, sheet.title)
    return as_file(content, format, f"{done.solution.drawing} {name} worksheet")


def _drawn(format: str, display: DisplayList, title: str) -> str | bytes:
    return formats.write_pdf(display, title) if format == "pdf" else formats.write_svg(display)
