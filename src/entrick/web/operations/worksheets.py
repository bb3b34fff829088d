"""Worksheets of cams and gears, and their files."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...core.desk import Work, work_out
from ...core.display import DisplayList, draw_worksheet
from ...core.formats import write_pdf, write_svg
from ...core.formats.tables import in_words, table_csv, table_page
from ...core.plan.edit import EditError
from ...core.worksheets import Worksheet
from ..answer import Answer
from ..base import Asked, Crossing, PlanText, Whole
from ..operation import Operations
from .shared import as_file


class WorksheetIn(Asked):
    """A statement, by its line, whose worksheet is wanted, turned through an angle in degrees."""

    text: PlanText
    line: Whole
    turn: float = Field(default=0.0, ge=-3600, le=3600)


class TableOut(Crossing):
    """A table of a worksheet, in words."""

    title: str
    columns: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    note: str


class WorksheetOut(Crossing):
    """A worksheet: its drawing, its tables, what turning does and what is so at this moment."""

    title: str
    display: DisplayList
    tables: tuple[TableOut, ...]
    turns: str
    told: str
    caution: str


class WorksheetPath(Asked):
    """A file of a worksheet: its drawing or one of its tables as PDF or SVG, a table as CSV."""

    format: Literal["pdf", "svg", "csv"]


class WorksheetFileIn(WorksheetIn):
    """Which worksheet, and which of its tables where one is wanted instead of the drawing."""

    table: int | None = Field(default=None, ge=0, le=100)


worksheets = Operations()


@worksheets.post("/worksheet")
def worksheet(body: WorksheetIn) -> WorksheetOut:
    """Return the worksheet of a statement, turned through an angle."""
    done = work_out(body.text)
    _, sheet = _worksheet_of(done, body)
    display = draw_worksheet(sheet, done.solution.unit)
    return WorksheetOut.from_core(
        sheet, display=display, tables=tuple(in_words(table, done) for table in sheet.tables)
    )


@worksheets.post("/worksheet/<format>")
def worksheet_file(path: WorksheetPath, body: WorksheetFileIn) -> Answer:
    """Return a worksheet as a file: diagram and profile on one page, or one of its tables."""
    done = work_out(body.text)
    name, sheet = _worksheet_of(done, body)
    heading = f"{done.solution.drawing} {done.solution.title}: {name}".strip()
    if (body.table or 0) >= len(sheet.tables):
        raise EditError(f"the worksheet has no table {body.table or 0}")
    table = in_words(sheet.tables[body.table or 0], done)
    if path.format == "csv":
        content: str | bytes = table_csv(table)
    elif body.table is not None:
        content = _drawn(path.format, table_page(table, (heading, sheet.caution)), table.title)
    else:
        display = draw_worksheet(sheet, done.solution.unit, (heading, sheet.caution))
        content = _drawn(path.format, display, sheet.title)
    return as_file(content, f"{done.solution.drawing} {name} worksheet", path.format)


def _worksheet_of(done: Work, body: WorksheetIn) -> tuple[str, Worksheet]:
    """Return the name of the statement that is asked about, and its worksheet."""
    entry = done.solution.entry(body.line)
    if entry is None or entry.made is None or entry.made.worksheet is None:
        raise EditError(f"line {body.line} has no worksheet")
    return entry.statement.name, entry.made.worksheet(body.turn)


def _drawn(format: str, display: DisplayList, title: str) -> str | bytes:
    return write_pdf(display, title) if format == "pdf" else write_svg(display)
